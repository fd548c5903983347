package question

import (
	"goldentrace/core/find"
	"goldentrace/core/workbench"
)

// Find asks where words stand in the circuit.
type Find struct {
	Query find.Query `json:"query"`
}

// Hit is one place.
type Hit = find.Hit

// Answer the question.
func (q *Find) Answer(b *workbench.Bench) ([]Hit, error) { return find.Find(b.Doc, q.Query), nil }
