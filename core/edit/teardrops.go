package edit

import (
	"cmp"
	"reflect"

	"goldentrace/core/design"
)

// SetTeardrops says how tracks widen towards pads and vias; nil: they do not. Lengths and shares of 0 are the usual ones.
type SetTeardrops struct {
	Teardrops *design.Teardrops `json:"teardrops"`
}

// Apply the command.
func (c *SetTeardrops) Apply(tx *Tx) error {
	b := *tx.Doc.Board
	if c.Teardrops == nil {
		b.Teardrops = nil
	} else {
		like, usual := *c.Teardrops, design.UsualTeardrops()
		like.Length, like.Breadth, like.Most = cmp.Or(like.Length, usual.Length), cmp.Or(like.Breadth, usual.Breadth), cmp.Or(like.Most, usual.Most)
		b.Teardrops = &like
	}
	if reflect.DeepEqual(b.Teardrops, tx.Doc.Board.Teardrops) {
		return nil
	}
	return tx.Put(&b)
}
