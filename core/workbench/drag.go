package workbench

import (
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// Dragged is what moving things on the board would do to the open links, for a preview.
type Dragged struct {
	Links   map[design.ID][]layout.Link `json:"links"`
	Notes   []layout.NoteLine           `json:"notes"`   // about the places of what is moved, and of what is to be near it
	Clashes []design.ID                 `json:"clashes"` // parts that would lie over each other
	Length  int64                       `json:"length"`  // of the open links of the nets moved, together

	Followed *route.Followed `json:"-"` // how tracks follow; nil: they stay
}

// dragged is the effort for tracks that follow at each motion of the hand.
var dragged = route.Effort{Strands: 150, Places: 8_000}

// Drag answers for parts moved by step and turned by angle about the pivot, and for the tracks that lead to them.
func (b *Bench) Drag(ids []design.ID, step, pivot geom.Point, angle int32, tracks edit.Tracks) Dragged {
	at := func(p geom.Point) geom.Point { return geom.Turn(p.Sub(pivot), angle).Add(pivot).Add(step) }
	var list []route.Carried
	for _, id := range ids {
		switch o := b.Doc.Get(id).(type) { // copper goes along
		case *design.Track:
			q := *o
			q.A, q.B = at(o.A), at(o.B)
			if o.Mid != nil {
				mid := at(*o.Mid)
				q.Mid = &mid
			}
			list = append(list, route.Carried{Before: o, After: &q})
		case *design.Via:
			q := *o
			q.At = at(o.At)
			list = append(list, route.Carried{Before: o, After: &q})
		case *design.Placed:
			q := *o
			q.At = at(o.At)
			q.Angle = ((q.Angle+angle)%360_000 + 360_000) % 360_000
			list = append(list, route.Carried{Before: o, After: &q})
		}
	}
	return b.carried(list, tracks)
}

// Weigh answers for a command that carries things of the board elsewhere and lets tracks stay, as Drag does for a step, and tells the parts as
// they would be. Nothing is done.
func (b *Bench) Weigh(c edit.Command, tracks edit.Tracks) (out Dragged, parts []*design.Placed, err error) {
	next := b.Doc.Next
	cs, err := edit.Apply(b.Doc, b.Env(), c)
	if err != nil {
		return out, nil, err
	}
	cs.Inverted().Apply(b.Doc)
	b.Doc.Next = next
	var list []route.Carried
	for _, x := range cs {
		if x.Before == nil || x.After == nil {
			continue
		}
		switch x.Kind {
		case design.KindPlaced, design.KindTrack, design.KindVia:
			list = append(list, route.Carried{Before: x.Before, After: x.After})
		}
		if p, ok := x.After.(*design.Placed); ok {
			parts = append(parts, p)
		}
	}
	return b.carried(list, tracks), parts, nil
}

// carried answers for things that are carried elsewhere.
func (b *Bench) carried(list []route.Carried, tracks edit.Tracks) Dragged {
	out := Dragged{Links: map[design.ID][]layout.Link{}, Notes: []layout.NoteLine{}, Clashes: []design.ID{}}
	parts := map[design.ID]*design.Placed{}
	moved := map[design.ID][]*layout.Copper{}
	nets := map[design.ID]bool{}
	for _, c := range list {
		moved[c.After.ObjectID()] = layout.PiecesOf(b.Doc, c.After)
		switch o := c.After.(type) {
		case *design.Track:
			nets[o.Net] = true
		case *design.Via:
			nets[o.Net] = true
		case *design.Placed:
			parts[o.ID] = o
			for _, n := range o.Nets {
				nets[n] = true
			}
		}
	}
	if tracks != edit.TracksStay {
		effort := dragged
		if tracks == edit.TracksOpen {
			effort = route.Effort{}
		}
		out.Followed = b.Field().Follow(list, effort)
		maps.Copy(moved, out.Followed.Copper())
	}
	for n := range nets {
		if links := b.links.of[n]; links != nil {
			out.Links[n] = links.With(moved)
			for _, l := range out.Links[n] {
				out.Length += int64(l.A.Dist(l.B))
			}
		}
	}
	out.Clashes = layout.Clashing(b.Doc, b.Index(), b.Rules(), parts)
	slices.Sort(out.Clashes)
	out.Notes = b.NotesOf(parts)
	return out
}

// NotesOf measures the notes of parts and those that name them, with the parts where they are given.
func (b *Bench) NotesOf(parts map[design.ID]*design.Placed) []layout.NoteLine {
	at := func(id design.ID) *design.Placed {
		if p := parts[id]; p != nil {
			return p
		}
		return b.Doc.Placed[id]
	}
	out := []layout.NoteLine{}
	for _, id := range b.board.check.Noting(parts) {
		if p := at(id); p != nil {
			out = append(out, layout.NoteLines(b.Doc, b.Index().Edge(), p, at)...)
		}
	}
	return out
}
