// Package lettering is our own single-stroke alphabet for texts on the board. Letters stand
// on a grid of which six units are the height of a capital; strokes are centre lines.
package lettering

import (
	"math"
	"slices"
	"sync"

	"goldentrace/core/geom"
)

// Capital is the height of a capital letter in grid units; Gap the space between letters.
const (
	Capital = 6
	Gap     = 2
	space   = 3
)

// unknown stands for letters the alphabet lacks: an empty frame.
const unknown = "0006464000"

// blank tells whether a letter is a space between words.
func blank(r rune) bool { return r == ' ' || r == '\u00a0' }

// Lacking are the letters of a text that the alphabet does not have, each once, in their order: an empty frame stands for them.
func Lacking(text string) (out []rune) {
	for _, r := range text {
		if _, ok := Letters[r]; !ok && !blank(r) && !slices.Contains(out, r) {
			out = append(out, r)
		}
	}
	return out
}

type stroke [][2]float64

// shape is a letter read.
type shape struct {
	strokes []stroke
	width   float64
}

// shapes are all letters read, once.
var shapes = sync.OnceValue(func() map[rune]shape {
	out := map[rune]shape{}
	for r, code := range Letters {
		out[r] = shapeOf(code)
	}
	return out
})

// frame is the empty one.
var frame = shapeOf(unknown)

// glyph is a letter's strokes, which nobody changes, and how wide it is.
func glyph(r rune) (strokes []stroke, width float64) {
	if blank(r) {
		return nil, space
	}
	s, ok := shapes()[r]
	if !ok {
		s = frame
	}
	return s.strokes, s.width
}

// shapeOf reads a letter.
func shapeOf(code string) (out shape) {
	var run stroke
	flush := func() {
		if len(run) > 1 {
			out.strokes = append(out.strokes, run)
		}
		run = nil
	}
	for i := 0; i < len(code); i++ {
		if code[i] == ' ' || i+1 >= len(code) {
			flush()
			continue
		}
		x, y := float64(code[i]-'0'), float64(code[i+1])-'0'
		if code[i+1] >= 'a' {
			y = -float64(code[i+1]-'a') - 1
		}
		out.width = math.Max(out.width, x)
		run = append(run, [2]float64{x, y})
		i++
	}
	flush()
	return out
}

// Strokes gives the centre lines of a text whose capitals are height nanometres high, its
// middle at the origin.
func Strokes(text string, height int64) [][]geom.Point {
	unit := float64(height) / Capital
	half, n := -float64(Gap)/2, 0
	for _, r := range text {
		strokes, w := glyph(r)
		half += (w + Gap) / 2
		n += len(strokes)
	}
	out := make([][]geom.Point, 0, n)
	x := -half
	for _, r := range text {
		strokes, w := glyph(r)
		for _, s := range strokes {
			line := make([]geom.Point, len(s))
			for i, p := range s {
				line[i] = geom.Pt(int64(math.Round((p[0]+x)*unit)), int64(math.Round((p[1]-Capital/2.0)*unit)))
			}
			out = append(out, line)
		}
		x += w + Gap
	}
	return out
}

// Width of a text in nanometres.
func Width(text string, height int64) int64 {
	x := -float64(Gap)
	for _, r := range text {
		_, w := glyph(r)
		x += w + Gap
	}
	return int64(math.Round(max(x, 0) * float64(height) / Capital))
}

// tall is how far letters reach from the middle of a line at most, up or down, in grid units: accents stand above capitals, and some letters hang.
const tall = 5

// Reach is how far a text reaches from its middle at most, to the sides and up or down, in nanometres.
func Reach(text string, height int64) (wide, high int64) {
	return Width(text, height)/2 + 1, tall*height/Capital + 1
}
