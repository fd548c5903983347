package question

import "goldentrace/core/workbench"

// Pairs asks for the nets whose names make pairs.
type Pairs struct{}

// Answer the question.
func (q *Pairs) Answer(b *workbench.Bench) ([][2]string, error) { return b.Nets().PairsByName(), nil }
