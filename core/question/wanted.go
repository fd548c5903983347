package question

import (
	"errors"

	"goldentrace/core/design"
	"goldentrace/core/ordering"
	"goldentrace/core/workbench"
)

// Wanted asks what to ask a depot for a part of the circuit.
type Wanted struct {
	Part design.ID `json:"part"`
}

// WantedOf is the answer.
type WantedOf struct {
	Query  ordering.Query `json:"query"`
	Number string         `json:"number"` // that was chosen for it; empty: none
}

// Answer the question.
func (q *Wanted) Answer(b *workbench.Bench) (*WantedOf, error) {
	p := b.Doc.Parts[q.Part]
	if p == nil {
		return nil, errors.New("there is no such part in the circuit any more")
	}
	l := b.Doc.LibraryPart(p.Library)
	return &WantedOf{ordering.Wanted(p, l), ordering.OrderNumber(p, l)}, nil
}
