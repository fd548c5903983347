package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// PullTrack pulls a track from a place to another, as route.Pull: a piece slides, a corner goes along, or a new one is pulled out; Grip is how
// near to a corner the corner is meant. With Aside others make way; else, and where they cannot, it goes as far as it may.
type PullTrack struct {
	ID     design.ID  `json:"id"`
	From   geom.Point `json:"from"`
	To     geom.Point `json:"to"`
	Grip   int64      `json:"grip,omitempty"`
	Corner bool       `json:"corner,omitempty"`
	Aside  bool       `json:"aside,omitempty"`
}

// Apply the command.
func (c *PullTrack) Apply(tx *Tx) error {
	for _, p := range []geom.Point{c.From, c.To} {
		if max(p.X, -p.X, p.Y, -p.Y) > units.Limit {
			return fmt.Errorf("a track cannot lead so far: %s, %s", units.Text(p.X), units.Text(p.Y))
		}
	}
	field := tx.field()
	pulled, err := field.Pull(route.Pull{Track: c.ID, From: c.From, To: c.To, Grip: c.Grip, Corner: c.Corner, Aside: c.Aside})
	if err != nil {
		return err
	}
	if pulled.Aside != nil {
		if err := tx.moveAside(field, pulled.Aside); err != nil {
			return err
		}
	}
	if err := tx.relay(pulled.Strand, pulled.Pieces(pulled.To)); err != nil {
		return err
	}
	if pulled.Blocked != nil && len(tx.order) == 0 {
		return pulled.Blocked
	}
	return nil
}

// PullVia moves a via to a place, and its tracks follow.
type PullVia struct {
	ID    design.ID  `json:"id"`
	To    geom.Point `json:"to"`
	Aside bool       `json:"aside,omitempty"`
}

// Apply the command.
func (c *PullVia) Apply(tx *Tx) error {
	if max(c.To.X, -c.To.X, c.To.Y, -c.To.Y) > units.Limit {
		return fmt.Errorf("a via cannot lie so far away: %s, %s", units.Text(c.To.X), units.Text(c.To.Y))
	}
	field := tx.field()
	aside, blocked, err := field.PullVia(c.ID, c.To, c.Aside)
	if err != nil {
		return err
	}
	if aside.Empty() && blocked != nil {
		return blocked
	}
	return tx.moveAside(field, aside)
}
