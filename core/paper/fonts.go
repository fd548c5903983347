package paper

import (
	"slices"

	"goldentrace/core/typeface"
)

// facesOf lists the fonts a text is looked for in, the first best.
func facesOf(m Mark) []*typeface.Face {
	all := typeface.Shipped()
	switch {
	case m.Words && m.Bold:
		return append([]*typeface.Face{all[1]}, all[2:]...)
	case m.Words:
		return append([]*typeface.Face{all[0]}, all[2:]...)
	}
	return all[2:]
}

// pieces cuts a text by the fonts that have its letters; what no font has becomes a box.
type piece struct {
	face  *typeface.Face
	text  string
	width float64 // in ems
}

func pieces(m Mark) []piece {
	var out []piece
	list := facesOf(m)
	for _, r := range m.Text {
		f, w := list[0], 0.0
		for _, g := range list {
			if w = g.Advance(r); w > 0 {
				f = g
				break
			}
		}
		if w == 0 {
			r, f, w = '?', list[0], list[0].Advance('?')
		}
		if k := len(out); k > 0 && out[k-1].face == f {
			out[k-1].text += string(r)
			out[k-1].width += w
		} else {
			out = append(out, piece{f, string(r), w})
		}
	}
	return out
}

// Replaced lists the letters of a text that none of its fonts has; PDF shows "?" for them, the
// screen and SVG what the machine has.
func Replaced(m Mark) []rune {
	var out []rune
	for _, r := range m.Text {
		if !slices.ContainsFunc(facesOf(m), func(f *typeface.Face) bool { return f.Advance(r) > 0 }) {
			out = append(out, r)
		}
	}
	return out
}

// TextWidth is how wide a text runs.
func TextWidth(m Mark) int64 {
	w := 0.0
	for _, p := range pieces(m) {
		w += p.width
	}
	return int64(w * float64(m.Size))
}
