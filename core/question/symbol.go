package question

import (
	"errors"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// SymbolLook asks for the marks of a symbol, piece by piece.
type SymbolLook struct {
	Symbol design.ID `json:"symbol"`
}

// PieceMarks are the marks of a pin or figure.
type PieceMarks struct {
	Ref   int          `json:"ref"`
	Marks []paper.Mark `json:"marks"`
}

// SymbolShown is the answer.
type SymbolShown struct {
	Pins    []PieceMarks `json:"pins"`
	Figures []PieceMarks `json:"figures"`
	Body    *geom.Box    `json:"body,omitempty"`
	BodyRef int          `json:"bodyRef"`
	Used    []string     `json:"used"` // library parts
}

// Answer the question.
func (q *SymbolLook) Answer(b *workbench.Bench) (*SymbolShown, error) {
	s := b.Doc.Symbols[q.Symbol]
	if s == nil {
		return nil, errors.New("there is no such symbol in the project any more")
	}
	out := &SymbolShown{Pins: []PieceMarks{}, Figures: []PieceMarks{}, Used: parts.UsesOfSymbol(b.Doc, s.Name)}
	for i, f := range s.Figures {
		out.Figures = append(out.Figures, PieceMarks{design.Ref(f.ID, i), []paper.Mark{paper.FigureMark(f, geom.Pose{})}})
	}
	for i := range s.Pins {
		out.Pins = append(out.Pins, PieceMarks{design.Ref(s.Pins[i].ID, i), paper.PinMarks(&s.Pins[i], geom.Pose{}, true)})
	}
	if box, at := parts.BodyOf(s); at >= 0 {
		out.Body, out.BodyRef = &box, design.Ref(s.Figures[at].ID, at)
	}
	if out.Used == nil {
		out.Used = []string{}
	}
	return out, nil
}
