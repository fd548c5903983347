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
	out := Dragged{Links: map[design.ID][]layout.Link{}, Notes: []layout.NoteLine{}, Clashes: []design.ID{}}
	parts := map[design.ID]*design.Placed{}
	moved := map[design.ID][]*layout.Copper{}
	nets := map[design.ID]bool{}
	var carried []route.Carried
	for _, id := range ids {
		at := func(p geom.Point) geom.Point { return geom.Turn(p.Sub(pivot), angle).Add(pivot).Add(step) }
		switch o := b.Doc.Get(id).(type) { // copper goes along
		case *design.Track:
			q := *o
			q.A, q.B = at(o.A), at(o.B)
			if o.Mid != nil {
				mid := at(*o.Mid)
				q.Mid = &mid
			}
			moved[id], nets[q.Net] = layout.PiecesOf(b.Doc, &q), true
			carried = append(carried, route.Carried{Before: o, After: &q})
		case *design.Via:
			q := *o
			q.At = at(o.At)
			moved[id], nets[q.Net] = layout.PiecesOf(b.Doc, &q), true
			carried = append(carried, route.Carried{Before: o, After: &q})
		}
		p := b.Doc.Placed[id]
		if p == nil {
			continue
		}
		q := *p
		q.At = geom.Turn(q.At.Sub(pivot), angle).Add(pivot).Add(step)
		q.Angle = ((q.Angle+angle)%360_000 + 360_000) % 360_000
		parts[id] = &q
		moved[id] = layout.PiecesOf(b.Doc, &q)
		carried = append(carried, route.Carried{Before: p, After: &q})
		for _, n := range p.Nets {
			nets[n] = true
		}
	}
	if tracks != edit.TracksStay {
		effort := dragged
		if tracks == edit.TracksOpen {
			effort = route.Effort{}
		}
		out.Followed = b.Field().Follow(carried, effort)
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
