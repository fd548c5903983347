package question

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// PinList asks how a pasted table of pins is understood, and what symbol it would make.
type PinList struct {
	Text    string   `json:"text"`
	Columns []string `json:"columns,omitempty"` // what each holds; none: as recognised
	Layout  string   `json:"layout,omitempty"`  // one of parts.Layouts
}

// PinsRead is the answer.
type PinsRead struct {
	List  *parts.PinList `json:"list"`
	Marks []paper.Mark   `json:"marks"` // of the symbol; none when a pin is wrong
}

// Answer the question.
func (q *PinList) Answer(*workbench.Bench) (*PinsRead, error) {
	l, err := parts.ReadPinList(q.Text, q.Columns)
	if err != nil {
		return nil, err
	}
	out := &PinsRead{List: l, Marks: []paper.Mark{}}
	if s, err := parts.Arrange("symbol", l.Pins, q.Layout); err == nil {
		out.Marks = symbolMarks(s)
	}
	return out, nil
}

// symbolMarks draws a symbol by itself.
func symbolMarks(s *design.Symbol) []paper.Mark {
	out := []paper.Mark{}
	for _, f := range s.Figures {
		out = append(out, paper.FigureMark(f, geom.Pose{}))
	}
	for i := range s.Pins {
		out = append(out, paper.PinMarks(&s.Pins[i], geom.Pose{}, s.ShowNames)...)
	}
	return out
}
