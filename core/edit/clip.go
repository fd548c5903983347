package edit

import (
	"encoding/json"
	"fmt"
	"regexp"

	"goldentrace/core/design"
	"goldentrace/core/geom"

	"goldentrace/core/circuit"
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

var prefixOf = regexp.MustCompile(`^(.*?)[0-9]*$`)

// Apply the command.
func (c *Paste) Apply(tx *Tx) error {
	if _, err := tx.sheet(c.Sheet); err != nil {
		return err
	}
	if len(c.Items) > 20_000 {
		return fmt.Errorf("%d things at once are too many to paste; 20000 is the most", len(c.Items))
	}
	for _, it := range c.Items {
		o, err := design.Decode(it.Kind, it.Object)
		if err != nil {
			return fmt.Errorf("the clipboard holds something that cannot be pasted: %w", err)
		}
		o = circuit.By(c.Step)(design.WithID(o, tx.Doc.Take()))
		switch o := o.(type) {
		case *design.Part:
			o.Sheet = c.Sheet
			if _, err := tx.ensurePart(o.Library); err != nil {
				return err
			}
			if err := tx.ensureFootprint(o.Footprint); err != nil {
				return err
			}
			o.Designator = tx.Doc.FreeDesignator(prefixOf.FindStringSubmatch(o.Designator)[1])
		case *design.Wire:
			o.Sheet = c.Sheet
		case *design.Label:
			o.Sheet = c.Sheet
		case *design.Supply:
			o.Sheet = c.Sheet
		case *design.OpenMark:
			o.Sheet = c.Sheet
		default:
			return fmt.Errorf("a %s cannot be pasted on a sheet", it.Kind)
		}
		if err := tx.Put(o); err != nil {
			return err
		}
	}
	return nil
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
		case *design.Part, *design.Wire, *design.Label, *design.Supply, *design.OpenMark, *design.Legend:
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
