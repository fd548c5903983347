package route

import (
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// settle takes needless corners out of what moved.
func (m *mover) settle() {
	for _, t := range m.things {
		if t.strand == nil || len(t.path) > 400 {
			continue
		}
		m.lift(t)
		f := m.f
		l := lane{f, t.strand.Width, t.strand.Layer, t.strand.Net}
		path := l.calmed(t.path, t.strand.Path)
		t.path, t.copper = path, t.strand.copper(path)
		m.lay(t)
	}
}

// calmed is a path with shortcuts taken among corners that were not there before.
func (l lane) calmed(path, before []geom.Point) []geom.Point {
	old := map[geom.Point]bool{}
	for _, p := range before {
		old[p] = true
	}
	for i := 0; i+2 < len(path); i++ {
		for j := min(i+reachOf, len(path)-1); j >= i+2; j-- {
			if slices.ContainsFunc(path[i:j+1], func(p geom.Point) bool { return old[p] }) {
				continue
			}
			was := Length(path[i : j+1])
			if best := l.between(path, i, j, was); best != nil && Length(best) < was-100 {
				path = plain(append(append(slices.Clone(path[:i]), best...), path[j+1:]...))
				i = max(i-2, -1)
				break
			}
		}
	}
	return path
}

// result holds everything that moved against the rules once more.
func (m *mover) result(before Field) (*Aside, *Obstacle) {
	out := &Aside{}
	for _, t := range m.things {
		for _, list := range m.clashes(t) {
			return nil, &list[0].obstacle
		}
		if o := m.joins(t, before); o != nil {
			return nil, o
		}
		switch {
		case t.strand != nil:
			if !slices.Equal(t.path, t.strand.Path) {
				out.Strands = append(out.Strands, Moved{t.strand, t.path})
				out.copper = append(out.copper, t.copper...)
			}
		case t.via != nil && t.at != m.f.Doc.Vias[t.via.ID].At:
			out.Vias = append(out.Vias, MovedVia{t.via.ID, m.f.Doc.Vias[t.via.ID].At, t.at})
			out.copper = append(out.copper, t.copper...)
		}
	}
	return out, nil
}

// joins tells whether a thing touches copper of its net where it lies now that it did not touch before: that would join what was apart.
func (m *mover) joins(t *thing, before Field) *Obstacle {
	var old []*layout.Copper
	switch {
	case t.strand != nil:
		old = t.strand.copper(t.strand.Path)
	case t.via != nil:
		old = []*layout.Copper{t.via}
	default:
		return nil
	}
	// what belongs together is known by the thing, else by the piece
	type mark struct {
		thing *thing
		ref   layout.Ref
	}
	of := func(c *layout.Copper) mark {
		o := m.of[c]
		if o == nil {
			o = m.strands[c.ID]
		}
		if o == nil {
			o = m.vias[c.ID]
		}
		if o != nil {
			return mark{thing: o}
		}
		return mark{ref: c.Ref()}
	}
	known := map[mark]bool{{thing: t}: true}
	touching := func(f Field, list []*layout.Copper, yield func(*layout.Copper) bool) {
		for _, own := range list {
			for c := range f.near(own.Box()) {
				if c.Net == own.Net && layout.Touching(own, c) && !yield(c) {
					return
				}
			}
		}
	}
	touching(before, old, func(c *layout.Copper) bool {
		known[of(c)] = true
		return true
	})
	var no *Obstacle
	touching(m.f, t.copper, func(c *layout.Copper) bool {
		if !known[of(c)] {
			no = &Obstacle{Name: c.Name, Net: m.f.Doc.NetName(c.Net), At: c.At}
		}
		return no == nil
	})
	return no
}
