// Package lettering is our own single-stroke alphabet for texts on the board. Letters stand
// on a grid of which six units are the height of a capital; strokes are centre lines.
package lettering

import (
	"math"
	"slices"

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

func glyph(r rune) (strokes []stroke, width float64) {
	if blank(r) {
		return nil, space
	}
	code, ok := Letters[r]
	if !ok {
		code = unknown
	}
	var run stroke
	flush := func() {
		if len(run) > 1 {
			strokes = append(strokes, run)
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
		width = math.Max(width, x)
		run = append(run, [2]float64{x, y})
		i++
	}
	flush()
	return strokes, width
}

// Strokes gives the centre lines of a text whose capitals are height nanometres high, its
// middle at the origin.
func Strokes(text string, height int64) [][]geom.Point {
	unit := float64(height) / Capital
	var lines []stroke
	x := 0.0
	for _, r := range text {
		strokes, w := glyph(r)
		for _, s := range strokes {
			moved := make(stroke, len(s))
			for i, p := range s {
				moved[i] = [2]float64{p[0] + x, p[1]}
			}
			lines = append(lines, moved)
		}
		x += w + Gap
	}
	half := (x - Gap) / 2
	out := make([][]geom.Point, len(lines))
	for i, l := range lines {
		for _, p := range l {
			out[i] = append(out[i], geom.Pt(int64(math.Round((p[0]-half)*unit)), int64(math.Round((p[1]-Capital/2.0)*unit))))
		}
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
