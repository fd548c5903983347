package edit

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/route"
)

// Tracks says what becomes of the tracks that lead to a part when it is carried elsewhere.
type Tracks string

// What becomes of them: they stay where they lie; they go along; they go, and the links are open.
const (
	TracksStay  Tracks = ""
	TracksAlong Tracks = "along"
	TracksOpen  Tracks = "open"
)

// Following is what every command bears that carries parts elsewhere.
type Following struct {
	Tracks Tracks `json:"tracks,omitempty"`
	said   string
	lost   bool
}

// Said is what has to be told of how the tracks followed.
func (c *Following) Said() string { return c.said }

// Lost tells whether something was opened or touched, or did not follow.
func (c *Following) Lost() bool { return c.lost }

// Loser is a command that may do what nobody would have it do.
type Loser interface{ Lost() bool }

// Sayer is a command that has something to tell once it is done.
type Sayer interface{ Said() string }

// followed is the effort for tracks that follow what was put down: a second at most.
var followed = route.Effort{Strands: 1_000, Places: 400_000}

// follow makes tracks follow what the command has carried elsewhere so far.
func (c *Following) follow(tx *Tx) error {
	switch c.Tracks {
	case TracksStay:
		return nil
	case TracksAlong, TracksOpen:
	default:
		return fmt.Errorf("%q is nothing that tracks can do when a part is moved", c.Tracks)
	}
	var list []route.Carried
	for _, id := range tx.order {
		x := tx.changes[id]
		if x.Before == nil || x.After == nil {
			continue
		}
		switch x.Kind {
		case design.KindPlaced, design.KindTrack, design.KindVia:
			list = append(list, route.Carried{Before: x.Before, After: x.After})
		}
	}
	if len(list) == 0 {
		return nil
	}
	effort := followed
	effort.Going = tx.going
	if c.Tracks == TracksOpen {
		effort = route.Effort{}
	}
	w := tx.field().Follow(list, effort)
	if w.Stopped != nil {
		return w.Stopped
	}
	if w.Many {
		return fmt.Errorf("more than %d tracks would have to follow; move fewer parts at once, or let the tracks become open links", followed.Strands)
	}
	var led []design.ID
	for _, m := range w.Strands {
		led = append(led, m.IDs...)
	}
	meant := tx.looped(led)
	for _, m := range w.Strands {
		if err := tx.relay(m.Strand, m.Pieces(m.To)); err != nil {
			return err
		}
	}
	for _, m := range w.Vias {
		v := *tx.Doc.Vias[m.ID]
		v.At = m.To
		if err := tx.Put(&v); err != nil {
			return err
		}
	}
	if _, came, err := tx.unloop(tx.laid(list), meant, 1); err != nil { // where a track came to lie on another of its net, or round
		return err
	} else if err := tx.whole(came); err != nil {
		return err
	}
	var open []string
	for _, s := range w.Open {
		open = append(open, tx.Doc.NetName(s.Net))
		for _, id := range s.IDs {
			tx.Remove(tx.Doc.Tracks[id])
		}
	}
	c.said, c.lost = said(w, open, c.Tracks == TracksAlong), len(w.Touches)+w.Stay > 0 || len(open) > 0 && c.Tracks == TracksAlong
	return nil
}

// laid are the tracks that the command has laid so far, beside those that it carried.
func (tx *Tx) laid(list []route.Carried) (out []design.ID) {
	carried := map[design.ID]bool{}
	for _, c := range list {
		carried[c.Before.ObjectID()] = true
	}
	for _, id := range tx.order {
		if x := tx.changes[id]; x.Kind == design.KindTrack && x.After != nil && !carried[id] {
			out = append(out, id)
		}
	}
	return out
}

// said tells what did not follow.
func said(w *route.Followed, open []string, along bool) string {
	var out []string
	slices.Sort(open)
	nets := slices.Compact(slices.Clone(open))
	if n := len(open); n > 0 && along {
		out = append(out, fmt.Sprintf("%s no way to follow and went: %s", counted(n, "track found", "tracks found"), someOf(nets)))
	} else if n > 0 {
		out = append(out, fmt.Sprintf("%s: %s", counted(n, "track became an open link", "tracks became open links"), someOf(nets)))
	}
	if w.Stay > 0 {
		out = append(out, counted(w.Stay, "track", "tracks")+" stayed, locked or holding others")
	}
	if len(w.Touches) > 0 {
		o := w.Touches[0]
		what := o.Name
		if o.Net != "" {
			what += " of " + o.Net
		}
		out = append(out, what+" is touched now")
	}
	if len(out) == 0 {
		return ""
	}
	s := strings.Join(out, "; ")
	return strings.ToUpper(s[:1]) + s[1:] + "."
}

// counted is a number with what is counted.
func counted(n int, one, many string) string {
	if n == 1 {
		return "1 " + one
	}
	return fmt.Sprintf("%d %s", n, many)
}

// someOf names the first of many.
func someOf(names []string) string {
	const most = 6
	if len(names) > most {
		return fmt.Sprintf("%s and %d more", strings.Join(names[:most], ", "), len(names)-most)
	}
	return strings.Join(names, ", ")
}
