package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// Drag asks which open links there would be with parts moved by a step and turned about a place.
type Drag struct {
	IDs   []design.ID `json:"ids"`
	Step  geom.Point  `json:"step"`
	Pivot geom.Point  `json:"pivot"`
	Angle int32       `json:"angle,omitempty"`
}

// mostPicked bounds what a preview moves at once.
const mostPicked = 20_000

// Answer the question.
func (q *Drag) Answer(b *workbench.Bench) (workbench.Dragged, error) {
	if err := within(q.Step, q.Pivot); err != nil {
		return workbench.Dragged{}, err
	}
	if len(q.IDs) > mostPicked {
		return workbench.Dragged{}, fmt.Errorf("%d things at once are too many to drag", len(q.IDs))
	}
	return b.Drag(q.IDs, q.Step, q.Pivot, q.Angle), nil
}
