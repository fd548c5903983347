package question

import (
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// PadList asks how a pasted table of pads is understood.
type PadList struct {
	Text    string   `json:"text"`
	Columns []string `json:"columns,omitempty"` // what each holds; none: as recognised
	Unit    string   `json:"unit,omitempty"`    // of lengths without one; empty: the project's
}

// PadsRead is the answer.
type PadsRead struct {
	List    *parts.PadList `json:"list"`
	Pattern layout.Pattern `json:"pattern"` // of the pads by themselves
}

// Answer the question.
func (q *PadList) Answer(b *workbench.Bench) (*PadsRead, error) {
	unit := q.Unit
	if unit == "" {
		unit = b.Doc.Settings.Unit
	}
	l, err := parts.ReadPadList(q.Text, q.Columns, unit)
	if err != nil {
		return nil, err
	}
	return &PadsRead{l, layout.PatternOf(&design.Footprint{Pads: l.Pads})}, nil
}

// PartTable asks how a table of parts is understood, and what would change.
type PartTable struct {
	Text    string   `json:"text"`
	Columns []string `json:"columns,omitempty"` // what each holds; none: as recognised
}

// Answer the question.
func (q *PartTable) Answer(b *workbench.Bench) (*parts.PartTable, error) {
	return parts.ReadPartTable(q.Text, q.Columns, edit.Shelves{Doc: b.Doc, Library: shelfOf(b)})
}
