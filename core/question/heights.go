package question

import (
	"cmp"
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
)

// Heights asks how high the parts of the board reach, and how far beyond its edge.
type Heights struct{}

// Standing is how a part stands in space. Lengths are nanometres.
type Standing struct {
	Part       design.ID `json:"part"`
	Designator string    `json:"designator"`
	Bottom     bool      `json:"bottom,omitempty"`
	Above      int64     `json:"above"` // how high it reaches above the board
	Below      int64     `json:"below"` // how far below it
	Over       int64     `json:"over"`  // how far beyond the edge
	MostAbove  int64     `json:"mostAbove,omitempty"`
	MostBelow  int64     `json:"mostBelow,omitempty"` // what the rules allow where it stands; 0: they say nothing
}

// Answer the question: parts of whose bodies something is known, the highest first.
func (q *Heights) Answer(b *workbench.Bench) ([]Standing, error) {
	out := []Standing{}
	for p := range b.Doc.Placed.All() {
		above, below := layout.Heights(b.Doc, p)
		if above <= 0 && below <= 0 {
			continue
		}
		if p.Bottom {
			above, below = below, above
		}
		out = append(out, Standing{p.ID, p.Designator, p.Bottom, above, below, layout.Overhang(b.Doc, p),
			check.MostHeight(b.Doc, b.Rules(), p, design.HeightAbove), check.MostHeight(b.Doc, b.Rules(), p, design.HeightBelow)})
	}
	slices.SortFunc(out, func(x, y Standing) int {
		return cmp.Or(cmp.Compare(max(y.Above, y.Below), max(x.Above, x.Below)), cmp.Compare(x.Part, y.Part))
	})
	return out, nil
}
