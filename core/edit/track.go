package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/units"
)

// Run is a stretch of track on one copper layer.
type Run struct {
	Layer int          `json:"layer"`
	Path  []geom.Point `json:"path"`
}

// DrawTrack lays a track of a net along its runs; between two runs on different layers it
// hops by a through via at their common place. It is refused where it would break a
// clearance. Width 0 takes the rules'.
type DrawTrack struct {
	Net   string `json:"net"`
	Width int64  `json:"width,omitempty"`
	Runs  []Run  `json:"runs"`
}

// Apply the command.
func (c *DrawTrack) Apply(tx *Tx) error {
	b := tx.Doc.Board
	copper := len(b.CopperNames())
	width := c.Width
	if width == 0 {
		width = b.Rules.TrackWidth
	}
	if width < b.Rules.LeastWidth {
		return fmt.Errorf("a track of %s is narrower than the least width, %s", units.Text(width), units.Text(b.Rules.LeastWidth))
	}
	field := &route.Field{Doc: tx.Doc, Index: tx.Index()}
	if c.Net == "" || len(field.Index.NetPieces(c.Net)) == 0 {
		return fmt.Errorf("there is no net %q on the board", c.Net)
	}
	last := -1
	var at geom.Point
	for i, run := range c.Runs {
		if run.Layer < 0 || run.Layer >= copper {
			return fmt.Errorf("the board has no copper layer %d", run.Layer+1)
		}
		if len(run.Path) == 0 || len(run.Path) > 10_000 {
			return fmt.Errorf("a stretch of track goes through 1 to 10000 places, not %d", len(run.Path))
		}
		if i > 0 && run.Path[0] != at {
			return fmt.Errorf("the stretches of the track do not meet")
		}
		if i > 0 && run.Layer != last {
			if err := c.hop(tx, field, at); err != nil {
				return err
			}
		}
		for j := 0; j+1 < len(run.Path); j++ {
			p, q := run.Path[j], run.Path[j+1]
			if p == q {
				continue
			}
			if o := field.Clear(geom.Stroke(p, q, width), 1<<run.Layer, c.Net, 0); o != nil {
				return o
			}
			if err := tx.Put(&design.Track{ID: tx.Doc.NewID(), Layer: run.Layer, A: p, B: q, Width: width, Net: c.Net}); err != nil {
				return err
			}
		}
		at, last = run.Path[len(run.Path)-1], run.Layer
	}
	return nil
}

func (c *DrawTrack) hop(tx *Tx, field *route.Field, at geom.Point) error {
	b := tx.Doc.Board
	v := &design.Via{ID: tx.Doc.NewID(), At: at, Diameter: b.Rules.ViaDiameter, Hole: b.Rules.ViaHole, To: len(b.CopperNames()) - 1, Net: c.Net}
	if field.PlatedAt(at, c.Net, 1<<len(b.CopperNames())-1) {
		return nil // a plated hole of the net is here already
	}
	if o := field.Clear(geom.Disc(at, v.Diameter/2), 1<<(v.To+1)-1, c.Net, v.Hole); o != nil {
		return fmt.Errorf("no via fits here: %w", o)
	}
	field.Laid = append(field.Laid, layout.PiecesOf(tx.Doc, v)...)
	return tx.Put(v)
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
	Net string `json:"net"`
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

// SetTrack changes the width of tracks. What would come too near to something is left to
// the checks to say, since a person may want to mend the neighbours next.
type SetTrack struct {
	IDs   []design.ID `json:"ids"`
	Width int64       `json:"width"`
}

// Apply the command.
func (c *SetTrack) Apply(tx *Tx) error {
	for _, id := range c.IDs {
		t, err := get(tx.Doc.Tracks, id, "track")
		if err != nil {
			return err
		}
		q := *t
		q.Width = c.Width
		if err := tx.Put(&q); err != nil {
			return err
		}
	}
	return nil
}
