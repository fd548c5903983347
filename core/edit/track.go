package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// Run is a stretch of track on one copper layer; where a corner says so it goes on in an arc.
type Run struct {
	Layer design.LayerID `json:"layer"`
	Path  []geom.Corner  `json:"path"`
}

// DrawTrack lays a track of a net along its runs; between two runs on different layers it
// hops by a through via at their common place. It is refused where it would break a
// clearance. Width 0 takes the rules'.
type DrawTrack struct {
	Net   design.ID `json:"net"`
	Width int64     `json:"width,omitempty"`
	Runs  []Run     `json:"runs"`
}

// Apply the command.
func (c *DrawTrack) Apply(tx *Tx) error {
	field := tx.field()
	if tx.Doc.Nets[c.Net] == nil || !field.Index.Bears(c.Net) {
		return fmt.Errorf("there is no such net on the board (id %d)", c.Net)
	}
	last := design.LayerID(0)
	var at geom.Point
	for i, run := range c.Runs {
		if tx.Doc.Board.Position(run.Layer) < 0 {
			return fmt.Errorf("the board has no such copper layer (id %d)", run.Layer)
		}
		if len(run.Path) == 0 || len(run.Path) > 10_000 {
			return fmt.Errorf("a stretch of track goes through 1 to 10000 places, not %d", len(run.Path))
		}
		if i > 0 && run.Path[0].Point != at {
			return fmt.Errorf("the stretches of the track do not meet")
		}
		if i > 0 && run.Layer != last {
			if err := c.hop(tx, field, at); err != nil {
				return err
			}
		}
		if err := c.lay(tx, field, run); err != nil {
			return err
		}
		at, last = run.Path[len(run.Path)-1].Point, run.Layer
	}
	return nil
}

// lay puts the pieces of one run.
func (c *DrawTrack) lay(tx *Tx, field *route.Field, run Run) error {
	for j := 0; j+1 < len(run.Path); j++ {
		piece := run.Path[j].PieceTo(run.Path[j+1])
		if piece.A == piece.B {
			continue
		}
		t := &design.Track{ID: tx.Doc.NewID(), Layer: run.Layer, A: piece.A, B: piece.B, Width: c.Width, Net: c.Net}
		if piece.Round() {
			t.Mid = &piece.M
		}
		wish := route.Wish{Shape: geom.Bow(piece, c.Width), Layers: 1 << tx.Doc.Board.Position(run.Layer), Net: c.Net, Thing: design.ATrack}
		least := field.Usual(design.LeastWidth, wish)
		if t.Width == 0 {
			t.Width = field.Usual(design.TrackWidth, wish)
			wish.Shape = geom.Bow(piece, t.Width)
		}
		if t.Width < least {
			return fmt.Errorf("a track of %s is narrower than the least width, %s", units.Text(t.Width), units.Text(least))
		}
		if err := t.Valid(); err != nil {
			return err
		}
		if o := field.Clear(wish); o != nil {
			return o
		}
		if err := tx.Put(t); err != nil {
			return err
		}
	}
	return nil
}

func (c *DrawTrack) hop(tx *Tx, field *route.Field, at geom.Point) error {
	if field.PlatedAt(at, c.Net, 1<<tx.Doc.Board.Layers()-1) {
		return nil // a plated hole of the net is here already
	}
	return tx.setVia(field, &design.Via{At: at, Net: c.Net})
}

// RemoveTrack takes away a whole track: the piece and all that continues it, up to pads and
// places where tracks part.
type RemoveTrack struct {
	ID design.ID `json:"id"`
}

// Apply the command.
func (c *RemoveTrack) Apply(tx *Tx) error {
	switch tx.Doc.Get(c.ID).(type) {
	case *design.Track, *design.Via:
	default:
		return fmt.Errorf("there is no such track any more (id %d)", c.ID)
	}
	for _, id := range route.WholeTrack(tx.Doc, tx.Index(), c.ID) {
		o := tx.Doc.Get(id)
		if t, ok := o.(*design.Track); ok && t.Locked {
			continue
		}
		if v, ok := o.(*design.Via); ok && v.Locked {
			continue
		}
		tx.Remove(o)
	}
	return nil
}

// RemoveNetTracks takes away all tracks and vias of a net; locked ones stay.
type RemoveNetTracks struct {
	Net design.ID `json:"net"`
}

// Apply the command.
func (c *RemoveNetTracks) Apply(tx *Tx) error {
	for _, piece := range tx.Index().NetPieces(c.Net) {
		switch o := tx.Doc.Get(piece.ID).(type) {
		case *design.Track:
			if !o.Locked {
				tx.Remove(o)
			}
		case *design.Via:
			if !o.Locked {
				tx.Remove(o)
			}
		}
	}
	return nil
}

// SetTrack changes the width of tracks, or whether the mask leaves them bare; nothing said stays. What would come too near to something is left to
// the checks to say, since a person may want to mend the neighbours next.
type SetTrack struct {
	IDs   []design.ID `json:"ids"`
	Width int64       `json:"width,omitempty"`
	Bare  *bool       `json:"bare,omitempty"`
}

// Apply the command.
func (c *SetTrack) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		t, err := get(tx.Doc.Tracks, id, "track")
		if err != nil {
			return err
		}
		q := *t
		if c.Width != 0 {
			q.Width = c.Width
		}
		set(&q.Bare, c.Bare)
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	return nil
}
