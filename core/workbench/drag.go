package workbench

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Dragged is what moving things on the board would do to the open links, for a preview.
type Dragged struct {
	Links map[design.ID][]layout.Link `json:"links"`
}

// Drag answers for parts moved by step and turned by angle about the pivot.
func (b *Bench) Drag(ids []design.ID, step, pivot geom.Point, angle int32) Dragged {
	out := Dragged{Links: map[design.ID][]layout.Link{}}
	moved := map[design.ID][]*layout.Copper{}
	nets := map[design.ID]bool{}
	for _, id := range ids {
		p := b.Doc.Placed[id]
		if p == nil {
			continue
		}
		q := *p
		q.At = geom.Turn(q.At.Sub(pivot), angle).Add(pivot).Add(step)
		q.Angle = ((q.Angle+angle)%360_000 + 360_000) % 360_000
		moved[id] = layout.PiecesOf(b.Doc, &q)
		for _, n := range p.Nets {
			nets[n] = true
		}
	}
	for n := range nets {
		if links := b.links.of[n]; links != nil {
			out.Links[n] = links.With(moved)
		}
	}
	return out
}
