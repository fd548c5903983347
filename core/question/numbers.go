package question

import (
	"goldentrace/core/circuit"
	"goldentrace/core/workbench"
)

// Numbers asks how parts would be numbered.
type Numbers struct {
	Numbering circuit.Numbering `json:"numbering"`
}

// Renaming is what one part would be called.
type Renaming = circuit.Renaming

// Answer the question.
func (q *Numbers) Answer(b *workbench.Bench) ([]Renaming, error) {
	return circuit.Renumber(b.Doc, b.Nets().Tree, q.Numbering)
}
