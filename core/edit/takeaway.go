package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/route"
)

// away notes what stays of what is taken away because it is locked.
type away struct {
	went, locked int
	last         string // of what is locked
}

// Said tells of what stays.
func (a *away) Said() string {
	switch a.locked {
	case 0:
		return ""
	case 1:
		return "One that is locked stays."
	}
	return fmt.Sprintf("%d that are locked stay.", a.locked)
}

// take takes copper away, unless it is locked.
func (a *away) take(tx *Tx, o design.Object) {
	name, net, locked := "", design.ID(0), false
	switch o := o.(type) {
	case *design.Track:
		name, net, locked = "a track", o.Net, o.Locked
	case *design.Via:
		name, net, locked = "a via", o.Net, o.Locked
	}
	if locked {
		a.locked++
		if a.last = name; net != 0 {
			a.last += " of " + tx.Doc.NetName(net)
		}
		return
	}
	a.went++
	tx.Remove(o)
}

// done refuses with a sentence where nothing went.
func (a *away) done(what string) error {
	switch {
	case a.went > 0:
		return nil
	case a.locked == 1:
		return fmt.Errorf("%s is locked; unlock it first", a.last)
	case a.locked > 1:
		return fmt.Errorf("all of %s is locked; unlock it first", what)
	}
	return fmt.Errorf("there are no tracks of %s", what)
}

// RemoveTrack takes away a whole track: the piece and all that continues it, up to pads and
// places where tracks part. Locked pieces stay.
type RemoveTrack struct {
	ID design.ID `json:"id"`
	away
}

// Apply the command.
func (c *RemoveTrack) Apply(tx *Tx) error {
	switch tx.Doc.Get(c.ID).(type) {
	case *design.Track, *design.Via:
	default:
		return fmt.Errorf("there is no such track any more (id %d)", c.ID)
	}
	for _, id := range route.WholeTrack(tx.Doc, tx.Index(), c.ID) {
		c.take(tx, tx.Doc.Get(id))
	}
	return c.done("this track")
}

// RemoveNetTracks takes away all tracks and vias of a net; locked ones stay.
type RemoveNetTracks struct {
	Net design.ID `json:"net"`
	away
}

// Apply the command.
func (c *RemoveNetTracks) Apply(tx *Tx) error {
	n, err := get(tx.Doc.Nets, c.Net, "net")
	if err != nil {
		return err
	}
	for _, piece := range tx.Index().NetPieces(c.Net) {
		switch o := tx.Doc.Get(piece.ID).(type) {
		case *design.Track, *design.Via:
			c.take(tx, o)
		}
	}
	return c.done(n.Name)
}

// RemoveAllTracks takes away all tracks and vias of the board; locked ones stay.
type RemoveAllTracks struct {
	away
}

// Apply the command.
func (c *RemoveAllTracks) Apply(tx *Tx) error {
	for t := range tx.Doc.Tracks.All() {
		c.take(tx, t)
	}
	for v := range tx.Doc.Vias.All() {
		c.take(tx, v)
	}
	return c.done("the board")
}
