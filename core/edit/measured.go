package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// AddDimension keeps a measure on the drawing of the board.
type AddDimension struct {
	From design.Anchor `json:"from"`
	To   design.Anchor `json:"to"`
	Way  string        `json:"way,omitempty"`
	Off  int64         `json:"off"`
	Text string        `json:"text,omitempty"`
}

// Apply the command.
func (c *AddDimension) Apply(tx *Tx) error {
	m := &design.BoardDimension{ID: tx.Doc.NewID(), From: tx.anchor(c.From), To: tx.anchor(c.To), Way: c.Way, Off: c.Off, Text: c.Text}
	if drawn := layout.DimensionOf(tx.Doc, m); drawn.From == drawn.To {
		return fmt.Errorf("both places are the same: there is nothing to measure")
	}
	return tx.Put(m)
}

// anchor notes where the anchor is now; what is not there it does not follow.
func (tx *Tx) anchor(a design.Anchor) design.Anchor {
	at, there := layout.Place(tx.Doc, a)
	if !there {
		return design.Anchor{At: a.At}
	}
	a.At = at
	return a
}

// SetDimension changes a dimension; nil fields stay.
type SetDimension struct {
	ID   design.ID `json:"id"`
	Way  *string   `json:"way,omitempty"`
	Off  *int64    `json:"off,omitempty"`
	Text *string   `json:"text,omitempty"`
}

// Apply the command.
func (c *SetDimension) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Dimensions, c.ID, "dimension")
	if err != nil {
		return err
	}
	m := *old
	set(&m.Way, c.Way)
	set(&m.Off, c.Off)
	set(&m.Text, c.Text)
	return tx.Put(&m)
}

// unanchor lets the dimensions that follow something stay where they are now, before it goes.
func (tx *Tx) unanchor(id design.ID) {
	for _, m := range slices.Collect(tx.Doc.Dimensions.All()) {
		if m.From.Of != id && m.To.Of != id {
			continue
		}
		c := *m
		for _, a := range []*design.Anchor{&c.From, &c.To} {
			if a.Of == id {
				at, _ := layout.Place(tx.Doc, *a)
				*a = design.Anchor{At: at}
			}
		}
		tx.record(c.ObjectKind(), c.ID, &c)
		tx.Doc.Put(&c)
	}
}

// reanchor leads the dimensions at corners of the board's edge along when corners came or went: to the corner that
// is in the same place now; where there is none they stay where they are.
func (tx *Tx) reanchor(was, is *design.Board) {
	line := func(b *design.Board, n int) []geom.Corner {
		switch {
		case n == 0:
			return b.Outline
		case n <= len(b.CutOuts):
			return b.CutOuts[n-1]
		}
		return nil
	}
	for _, m := range slices.Collect(tx.Doc.Dimensions.All()) {
		c := *m
		for _, a := range []*design.Anchor{&c.From, &c.To} {
			if a.Of != design.BoardID || len(line(was, a.Line)) == len(line(is, a.Line)) && len(was.CutOuts) == len(is.CutOuts) {
				continue
			}
			at, _ := layout.Place(tx.Doc, *a)
			next := design.Anchor{At: at}
			for n := range 1 + len(is.CutOuts) {
				for i, k := range line(is, n) {
					if k.Point == at {
						next = design.Anchor{Of: design.BoardID, Line: n, Corner: i, At: at}
					}
				}
			}
			*a = next
		}
		if c != *m {
			tx.record(c.ObjectKind(), c.ID, &c)
			tx.Doc.Put(&c)
		}
	}
}
