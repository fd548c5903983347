package question

import (
	"fmt"

	"goldentrace/core/layout"
	"goldentrace/core/workbench"
)

// PlaceNext asks which parts stand beside the board still, in the order in which they are best placed.
type PlaceNext struct {
	By string `json:"by"`
}

// Answer the question.
func (q *PlaceNext) Answer(b *workbench.Bench) ([]layout.Waiting, error) {
	if q.By != layout.ByConnections && q.By != layout.BySize {
		return nil, fmt.Errorf("%q is not an order of placing", q.By)
	}
	return layout.Unplaced(b.Doc, b.Index().Edge(), q.By), nil
}
