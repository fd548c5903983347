package question

import (
	"fmt"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/workbench"
)

// Why asks which rules hold for one thing on the board, or between two.
type Why struct {
	IDs []design.ID `json:"ids"`
}

// Asked is the answer about one kind of rule.
type Asked = check.Asked

// Answer the question.
func (q *Why) Answer(b *workbench.Bench) ([]Asked, error) {
	if len(q.IDs) == 0 || len(q.IDs) > 2 {
		return nil, fmt.Errorf("one thing or two can be asked about, not %d", len(q.IDs))
	}
	return b.Why(q.IDs), nil
}
