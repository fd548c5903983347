package question

import (
	"fmt"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
)

// Together asks which parts of the board belong to the clusters, or to the sheets, of those named.
type Together struct {
	IDs   []design.ID `json:"ids"`
	Sheet bool        `json:"sheet,omitempty"` // the whole sheet, whatever clusters there are
}

// Answer the question.
func (q *Together) Answer(b *workbench.Bench) ([]design.ID, error) {
	if len(q.IDs) > mostPicked {
		return nil, fmt.Errorf("%d things at once are too many", len(q.IDs))
	}
	group := func(p *design.Placed) layout.Group {
		g := layout.GroupOf(b.Doc, circuit.PartRef{Part: p.Part, Path: p.Path})
		if q.Sheet {
			g.Cluster = 0
		}
		return g
	}
	want := map[layout.Group]bool{}
	for _, id := range q.IDs {
		if p := b.Doc.Placed[id]; p != nil {
			want[group(p)] = true
		}
	}
	out := []design.ID{}
	for p := range b.Doc.Placed.All() {
		if want[group(p)] {
			out = append(out, p.ID)
		}
	}
	slices.Sort(out)
	return out, nil
}
