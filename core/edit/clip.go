package edit

import (
	"encoding/json"
	"fmt"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Clipped is an object on the clipboard.
type Clipped struct {
	Kind   design.Kind     `json:"kind"`
	Object json.RawMessage `json:"object"`
}

// Paste puts copies of circuit objects on a sheet, moved by Step. Copied parts take free
// designators of their prefix; parts of another project bring nothing but their names, so
// their library parts must be in the shipped library or here already.
type Paste struct {
	Sheet design.ID  `json:"sheet"`
	Step  geom.Point `json:"step"`
	Items []Clipped  `json:"items"`
}

// Apply the command.
func (c *Paste) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	if len(c.Items) > 20_000 {
		return fmt.Errorf("%d things at once are too many to paste; 20000 is the most", len(c.Items))
	}
	prose := 0
	for _, it := range c.Items {
		if it.Kind == design.KindNote || it.Kind == design.KindTiming {
			prose += len(it.Object)
		}
	}
	if prose > mostProse {
		return fmt.Errorf("the notes and timing diagrams to be pasted have %d characters; %d are the most on a sheet", prose, mostProse)
	}
	units := map[string]string{}
	for _, it := range c.Items {
		o, err := design.Decode(it.Kind, it.Object)
		if err != nil {
			return fmt.Errorf("the clipboard holds something that cannot be pasted: %w", err)
		}
		on, ok := design.WithID(o, tx.Doc.NewID()).(design.OnSheet)
		if !ok {
			return fmt.Errorf("a %s cannot be pasted on a sheet", it.Kind)
		}
		on = design.WithSheet(circuit.By(c.Step)(on).(design.OnSheet), c.Sheet)
		if err := tx.pasted(on, units); err != nil {
			return err
		}
	}
	return tx.room(c.Sheet)
}

// pasted puts one copy; units of one package stay together, by their old designator.
func (tx *Tx) pasted(o design.OnSheet, units map[string]string) error {
	switch o := o.(type) {
	case *design.Part:
		if _, err := tx.ensurePart(o.Library); err != nil {
			return err
		}
		if err := tx.ensureFootprint(o.Footprint); err != nil {
			return err
		}
		p := *o
		p.Others = nil
		old := fmt.Sprintf("%s %s", o.Library, o.Designator)
		if name, ok := units[old]; ok && p.Unit > 0 && tx.mayBeCalled(&p, name) == nil {
			p.Designator = name
		} else {
			p.Designator = tx.Doc.FreeDesignator(design.Prefix(o.Designator))
			units[old] = p.Designator
		}
		if err := tx.Put(&p); err != nil {
			return err
		}
		return tx.callOthers(&p)
	case *design.SheetBlock:
		return tx.putBlock(o)
	case *design.Note, *design.Timing:
		return tx.drawn(o)
	case *design.Picture:
		if tx.Doc.Assets[o.Asset] == nil {
			return fmt.Errorf("the clipboard holds a picture that this project does not have; insert its file instead")
		}
	}
	return tx.Put(o)
}

// Remove takes things away: whatever was picked on a sheet, or tracks, vias, holes and
// texts of the board. Parts leave the board only by leaving the circuit.
type Remove struct {
	IDs []design.ID `json:"ids"`
}

// Apply the command.
func (c *Remove) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		switch o := tx.Doc.Get(id).(type) {
		case design.OnSheet:
			tx.Remove(o)
			if b, ok := o.(*design.SheetBlock); ok {
				if err := tx.prune(b.Of); err != nil {
					return err
				}
			}
		case *design.Legend:
			tx.Remove(o)
		case *design.Track:
			if o.Locked {
				return fmt.Errorf("a track of %s is locked; unlock it first", o.Net)
			}
			tx.Remove(o)
		case *design.Via:
			if o.Locked {
				return fmt.Errorf("a via of %s is locked; unlock it first", o.Net)
			}
			tx.Remove(o)
		case *design.Hole:
			if o.Locked {
				return fmt.Errorf("the hole is locked; unlock it first")
			}
			tx.Remove(o)
		case *design.Placed:
			return fmt.Errorf("%s belongs to the circuit: remove it there and carry the change to the board", o.Designator)
		case nil: // gone already
		default:
			return fmt.Errorf("a %s cannot be removed", o.ObjectKind())
		}
	}
	return nil
}
