package layout

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/lettering"
)

// Lacking are the letters of a text of the board, or of a part's designator, that its font does not have: an empty frame stands for each.
func Lacking(asset func(design.ID) *design.Asset, o design.Object) (out []rune) {
	switch o := o.(type) {
	case *design.Placed:
		return lettering.Lacking(o.Designator)
	case *design.Legend:
		faces := facesOf(asset, o.Font, o.Face)
		if len(faces) == 0 { // our own alphabet
			return lettering.Lacking(o.Text)
		}
		for _, r := range o.Text {
			known := r == '\n'
			for _, f := range faces {
				if _, ok := f.Letter(r); ok {
					known = true
					break
				}
			}
			if !known && !slices.Contains(out, r) {
				out = append(out, r)
			}
		}
	}
	return out
}
