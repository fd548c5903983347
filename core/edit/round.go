package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// RoundTracks makes the corners of the strands that tracks belong to arcs of a radius, less where a piece is short or the inside of a corner is
// taken; radius 0 makes them sharp.
type RoundTracks struct {
	IDs    []design.ID `json:"ids"`
	Radius int64       `json:"radius"`
}

// Apply the command.
func (c *RoundTracks) Apply(tx *Tx) error {
	if c.Radius < 0 || c.Radius > units.Limit {
		return fmt.Errorf("corners cannot have a radius of %s", units.Text(c.Radius))
	}
	field := tx.field()
	done := map[design.ID]bool{}
	for _, id := range c.IDs {
		if _, err := get(tx.Doc.Tracks, id, "track"); err != nil {
			return err
		}
		if done[id] {
			continue
		}
		s, err := field.Strand(id)
		if err != nil {
			return err
		}
		for _, own := range s.IDs {
			done[own] = true
		}
		if err := tx.relay(s, route.PiecesOf(field.With(s.IDs).Rounding(s, c.Radius))); err != nil {
			return err
		}
	}
	return nil
}
