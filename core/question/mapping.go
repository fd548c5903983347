package question

import (
	"errors"

	"goldentrace/core/design"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// Mapping asks which pin of a library part goes to which pad of a footprint.
type Mapping struct {
	Part      design.ID `json:"part"`
	Footprint string    `json:"footprint,omitempty"` // empty: the part's own
}

// Mapped is the answer.
type Mapped struct {
	Rows    []parts.PinRow `json:"rows"`
	Found   []parts.Flaw   `json:"found"`
	Checked string         `json:"checked"` // unchecked, checked or lapsed
	Used    []string       `json:"used"`    // designators of the circuit
}

// Answer the question.
func (q *Mapping) Answer(b *workbench.Bench) (*Mapped, error) {
	p := b.Doc.LibraryParts[q.Part]
	if p == nil {
		return nil, errors.New("there is no such part in the project any more")
	}
	name := q.Footprint
	if name == "" {
		name = p.Footprint
	}
	rows, found := parts.Mapping(p, name, b.Doc)
	used := parts.UsesOfPart(b.Doc, p.Name)
	if used == nil {
		used = []string{}
	}
	return &Mapped{rows, found, parts.CheckState(p, b.Doc), used}, nil
}
