package lettering

import (
	"fmt"
	"math"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
	"goldentrace/core/typeface"
)

// Outlines gives the areas of a text in outline fonts, its middle at the origin as that of Strokes: halfway
// of its length and of the height of its capitals, which are height nanometres high. A letter is taken from
// the first of the fonts that has it; one that none has is an empty frame, as in our own alphabet.
func Outlines(text string, faces []*typeface.Face, height int64) ([]overlay.Area, error) {
	if len(faces) == 0 {
		return nil, nil
	}
	capital := faces[0].Capital()
	if capital <= 0 {
		return nil, fmt.Errorf("the font %s has no capital letters, so that its size cannot be told", faces[0].Name)
	}
	scale := float64(height) / capital
	x := 0.0
	var lines [][]geom.Point
	for _, r := range text {
		l := letter(r, faces, capital)
		for _, c := range l.Contours {
			line := make([]geom.Point, len(c))
			for i, p := range c {
				line[i] = geom.Pt(int64(math.Round((p[0]+x)*scale)), int64(math.Round((p[1]-capital/2)*scale)))
			}
			lines = append(lines, line)
		}
		x += l.Advance
	}
	half := int64(math.Round(x * scale / 2))
	for _, l := range lines {
		for i := range l {
			l[i].X -= half
		}
	}
	return overlay.Filled(lines, overlay.NonZero)
}

func letter(r rune, faces []*typeface.Face, capital float64) typeface.Letter {
	for _, f := range faces {
		if l, ok := f.Letter(r); ok {
			return l
		}
	}
	w, t := 0.6*capital, 0.1*capital
	return typeface.Letter{Advance: 0.8 * capital, Contours: [][][2]float64{
		{{0, 0}, {w, 0}, {w, capital}, {0, capital}},
		{{t, t}, {t, capital - t}, {w - t, capital - t}, {w - t, t}},
	}}
}
