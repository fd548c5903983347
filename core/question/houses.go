package question

import (
	"goldentrace/core/edit"
	"goldentrace/core/workbench"
)

// LimitsTaken asks what taking a class of a house as the board's rules would change.
type LimitsTaken struct{ edit.TakeLimits }

// Answer the question.
func (q *LimitsTaken) Answer(b *workbench.Bench) ([]edit.LimitTaken, error) { return q.Changes(b.Doc) }
