package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// Touches asks where nets touch the copper areas of a layer.
type Touches struct {
	Layer design.LayerID `json:"layer"`
}

// Touch is a pad or via within the edge of a copper area.
type Touch struct {
	Area design.ID  `json:"area"`
	ID   design.ID  `json:"id"` // of the via, or of the part whose pad it is
	At   geom.Point `json:"at"`
	Net  design.ID  `json:"net,omitempty"`
	How  string     `json:"how"` // spokes, solid, none (of the area's net, but not joined) or passes
}

// Answer the question.
func (q *Touches) Answer(b *workbench.Bench) (out []Touch, err error) {
	if b.Doc.Board.Position(q.Layer) < 0 {
		return nil, fmt.Errorf("the board has no such copper layer (id %d)", q.Layer)
	}
	for p := range b.Doc.Pours.All() {
		for _, t := range b.Touching(p.ID, q.Layer) {
			out = append(out, Touch{p.ID, t.Ref.ID, t.At, t.Net, t.How})
		}
	}
	return out, nil
}
