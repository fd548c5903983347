package question

import (
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
)

// Differences asks what carrying the circuit to the board would change.
type Differences struct{}

// Difference is one of them.
type Difference = layout.Difference

// Answer the question.
func (q *Differences) Answer(b *workbench.Bench) ([]Difference, error) { return b.Differences(), nil }
