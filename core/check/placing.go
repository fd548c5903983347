package check

import (
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Notes about where parts are to stand.

// noting knows which parts bear notes, and which they name.
type noting struct {
	of map[design.ID][]design.ID        // the parts that a part's notes name
	by map[design.ID]map[design.ID]bool // the parts whose notes name a part; its own too
}

func (n *noting) note(p *design.Placed, id design.ID) {
	for _, other := range n.of[id] {
		delete(n.by[other], id)
	}
	delete(n.of, id)
	if p == nil || len(p.Notes) == 0 {
		return
	}
	names := []design.ID{id}
	for _, x := range p.Notes {
		if x.Of != 0 {
			names = append(names, x.Of)
		}
	}
	n.of[id] = names
	for _, other := range names {
		if n.by[other] == nil {
			n.by[other] = map[design.ID]bool{}
		}
		n.by[other][id] = true
	}
}

// Noting lists the parts that bear notes which are about one of the parts: their own, or naming them.
func (b *Board) Noting(parts map[design.ID]*design.Placed) []design.ID {
	out := map[design.ID]bool{}
	for id := range parts {
		for holder := range b.noting.by[id] {
			out[holder] = true
		}
	}
	return slices.Sorted(maps.Keys(out))
}

// notes checks the notes of parts: of all, or those that the ids are about.
func (b *Board) notes(ids map[design.ID]bool) {
	if ids == nil {
		b.noting = noting{map[design.ID][]design.ID{}, map[design.ID]map[design.ID]bool{}}
		for p := range b.doc.Placed.All() {
			b.noting.note(p, p.ID)
			b.standing(p)
		}
		return
	}
	about := map[design.ID]*design.Placed{}
	for id := range ids {
		p := b.doc.Placed[id]
		if p != nil || b.noting.of[id] != nil || b.noting.by[id] != nil {
			b.noting.note(p, id)
			about[id] = p
		}
	}
	for _, holder := range b.Noting(about) {
		if p := b.doc.Placed[holder]; p != nil {
			for key := range b.owners[holder] {
				if f := b.Found[key]; f != nil && f.Kind == "placing" && f.Objects[0] == holder {
					b.drop(key)
				}
			}
			b.standing(p)
		}
	}
}

// standing finds the notes of a part that do not hold.
func (b *Board) standing(p *design.Placed) {
	for _, l := range layout.NoteLines(b.doc, b.index.Edge(), p, func(id design.ID) *design.Placed { return b.doc.Placed[id] }) {
		if l.Holds {
			continue
		}
		n := p.Notes[l.Note]
		f := Finding{Key: fmt.Sprintf("placing %d %d", p.ID, l.Note), Kind: "placing", Severity: Warning, Rule: "Parts stand where their notes ask", Measured: l.Has, Required: l.Asked,
			At: l.A.Towards(l.B, 0.5), Objects: []design.ID{p.ID}, Ends: []geom.Point{l.A, l.B}}
		what := "the board's edge"
		if n.Kind == design.NoteWithin {
			if other := b.doc.Placed[n.Of]; other != nil {
				what = other.Designator
				if n.Pad != "" {
					what += "." + n.Pad
				}
				f.Objects = append(f.Objects, n.Of)
			}
		}
		f.Text = fmt.Sprintf("%s is %s from %s.", p.Designator, units.Text(l.Has), what)
		if l.Lost {
			f.Measured = 0
			f.Text = fmt.Sprintf("What a note of %s is about is not on the board.", p.Designator)
		}
		b.list(f)
	}
}
