package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/workbench"
)

// PourLook asks what a copper area fills.
type PourLook struct {
	ID design.ID `json:"id"`
}

// Answer the question.
func (q *PourLook) Answer(b *workbench.Bench) ([]workbench.PourSeen, error) {
	if b.Doc.Pours[q.ID] == nil {
		return nil, fmt.Errorf("there is no such copper area (id %d)", q.ID)
	}
	return b.PourSeen(q.ID), nil
}
