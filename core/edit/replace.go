package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/find"
)

// ReplaceText replaces words in the texts, names and values of the circuit that the search
// finds; Only, when given, limits it to these places of what was found.
type ReplaceText struct {
	find.Query
	With string     `json:"with"`
	Only []find.Hit `json:"only,omitempty"`
}

// Apply the command.
func (c *ReplaceText) Apply(tx *Tx) error {
	hits := c.Only
	if hits == nil {
		hits = find.Find(tx.Doc, c.Query)
	}
	if len(hits) == 0 {
		return fmt.Errorf("%q stands nowhere", c.Text)
	}
	var names []Cell
	for _, h := range hits {
		o, ok := tx.Doc.Get(h.ID).(design.OnSheet)
		if !ok {
			return fmt.Errorf("what was found is not there any more (id %d)", h.ID)
		}
		now, ok := find.TextOf(o, h.Field)
		if !ok {
			return fmt.Errorf("what was found is not there any more (id %d)", h.ID)
		}
		next, changed := c.Query.Replace(now, c.With)
		if !changed {
			continue
		}
		if h.Field == "designator" {
			names = append(names, Cell{ID: h.ID, Field: "designator", Text: next})
			continue
		}
		if err := tx.setText(o, h.Field, next); err != nil {
			return err
		}
	}
	return tx.call(names)
}

func (tx *Tx) setText(o design.OnSheet, field, text string) error {
	switch o := o.(type) {
	case *design.Part:
		return tx.setCell(o, field, text)
	case *design.Note:
		n := *o
		n.Text = text
		return tx.drawn(&n)
	case *design.Timing:
		t := *o
		t.Text = text
		return tx.drawn(&t)
	}
	return tx.setName(o, text)
}
