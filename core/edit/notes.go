package edit

import (
	"fmt"

	"goldentrace/core/design"
)

// SetNotes says where a part is to stand, in place of what was said before.
type SetNotes struct {
	ID    design.ID          `json:"id"`
	Notes []design.PlaceNote `json:"notes"`
}

// Apply the command.
func (c *SetNotes) Apply(tx *Tx) error {
	p, err := get(tx.Doc.Placed, c.ID, "part")
	if err != nil {
		return err
	}
	for _, n := range c.Notes {
		if n.Kind != design.NoteWithin {
			continue
		}
		other, err := get(tx.Doc.Placed, n.Of, "part")
		switch {
		case err != nil:
			return err
		case other == p:
			return fmt.Errorf("%s cannot be told to stand near itself", p.Designator)
		case n.Pad != "" && !hasPad(tx.Doc, other, n.Pad):
			return fmt.Errorf("%s has no pad %s", other.Designator, n.Pad)
		}
	}
	q := *p
	q.Notes = c.Notes
	return tx.Put(&q)
}

func hasPad(d *design.Doc, p *design.Placed, number string) bool {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return false
	}
	for i := range f.Pads {
		if f.Pads[i].Number == number {
			return true
		}
	}
	return false
}
