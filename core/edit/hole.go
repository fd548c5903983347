package edit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// AddHole drills a hole: one with land is plated.
type AddHole struct {
	At       geom.Point `json:"at"`
	Diameter int64      `json:"diameter"`
	Land     int64      `json:"land,omitempty"`
	Keep     int64      `json:"keep,omitempty"`
}

// Apply the command.
func (c *AddHole) Apply(tx *Tx) error {
	return tx.Put(&design.Hole{ID: tx.Doc.NewID(), At: c.At, Diameter: c.Diameter, Land: c.Land, Keep: c.Keep})
}

// SetHole changes holes; nil fields stay.
type SetHole struct {
	IDs      []design.ID `json:"ids"`
	Diameter *int64      `json:"diameter,omitempty"`
	Land     *int64      `json:"land,omitempty"`
	Keep     *int64      `json:"keep,omitempty"`
}

// Apply the command.
func (c *SetHole) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		old, err := get(tx.Doc.Holes, id, "hole")
		if err != nil {
			return err
		}
		h := *old
		set(&h.Diameter, c.Diameter)
		set(&h.Land, c.Land)
		set(&h.Keep, c.Keep)
		if err := tx.Put(&h); err != nil {
			return err
		}
	}
	return nil
}
