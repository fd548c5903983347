package route

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// shift moves a via out of the hull of shapes, to the nearest place of its edge where nothing is that cannot move, and takes its
// strands with it.
func (m *mover) shift(t *thing, shapes []geom.Shape, grow int64, no *Obstacle) *Obstacle {
	h := around(grow, shapes...)
	type candidate struct {
		at    geom.Point
		meets int
		far   float64
	}
	var list []candidate
	v := m.f.Doc.Vias[t.via.ID]
	try := func(p geom.Point) {
		r := candidate{at: p, far: p.Dist(t.at)}
		m.f.each(wishOf(movedVia(t.via, p)), func(other *layout.Copper, _ Obstacle) bool {
			if other == nil || m.owner(other) == nil || m.owner(other).rank < t.rank {
				r.meets++
			}
			return true
		})
		list = append(list, r)
	}
	for i, a := range h {
		b := h[(i+1)%len(h)]
		_, p, _ := geom.SegmentDistance(a, b, t.at, t.at)
		try(p)
		try(a)
	}
	best := slices.MinFunc(list, func(one, other candidate) int {
		return cmp.Or(cmp.Compare(one.meets, other.meets), cmp.Compare(one.far, other.far), cmp.Compare(one.at.X, other.at.X), cmp.Compare(one.at.Y, other.at.Y))
	})
	if best.meets > 0 || best.at.Dist(v.At) > farVia {
		return m.stuck(t, no)
	}
	return m.set(t, best.at, no)
}

// set puts a via to a place, and its strands follow.
func (m *mover) set(t *thing, at geom.Point, no *Obstacle) *Obstacle {
	if t.copper == nil {
		if o := m.hang(t, no); o != nil {
			return o
		}
		m.things = append(m.things, t)
	}
	m.f.Gone[t.via.ID] = true
	m.lift(t)
	t.at = at
	t.copper = []*layout.Copper{movedVia(t.via, at)}
	m.lay(t)
	for _, s := range t.hanging {
		for end, via := range s.strand.Vias {
			if via != t.via.ID {
				continue
			}
			path := s.path
			if end == 0 {
				path = reversed(path)
			}
			path = m.led(s, path, t.at)
			if end == 0 {
				path = reversed(path)
			}
			s.rank = min(s.rank, t.rank+1)
			m.put(s, path)
			m.stack = append(m.stack, s)
		}
	}
	return nil
}

// hang finds the strands that end at a via as it lies in the design. What else of its net touches it holds it: it would be parted.
func (m *mover) hang(t *thing, no *Obstacle) *Obstacle {
	for c := range m.base.near(t.via.Box()) {
		if c.ID == t.via.ID || c.Net != t.via.Net || !layout.Touching(c, t.via) {
			continue
		}
		var s *thing
		if c.Kind == "track" && !m.still[c.ID] {
			s = m.strandThing(c.ID)
		}
		if s == nil || s.strand.Vias[0] != t.via.ID && s.strand.Vias[1] != t.via.ID {
			return m.stuck(t, no)
		}
		if !slices.Contains(t.hanging, s) {
			t.hanging = append(t.hanging, s)
		}
	}
	slices.SortFunc(t.hanging, func(a, b *thing) int { return cmp.Compare(a.strand.IDs[0], b.strand.IDs[0]) })
	return nil
}

func movedVia(c *layout.Copper, at geom.Point) *layout.Copper {
	out := *c
	step := at.Sub(c.At)
	pose := geom.Pose{At: step}
	out.At, out.Drill, out.Shape = at, at, c.Shape.Moved(pose)
	out.Other = nil
	for _, l := range c.Other {
		out.Other = append(out.Other, layout.Level{Layers: l.Layers, Shape: l.Shape.Moved(pose)})
	}
	return &out
}

func reversed(path []geom.Point) []geom.Point {
	out := slices.Clone(path)
	slices.Reverse(out)
	return out
}

// led is a path whose end is moved to another place: its last piece keeps its direction if it can, else one with a corner takes its
// place.
func (m *mover) led(s *thing, path []geom.Point, to geom.Point) []geom.Point {
	var best []geom.Point
	score := func(p []geom.Point) (n int) {
		for _, c := range s.strand.copper(p) {
			m.f.each(wishOf(c), func(other *layout.Copper, _ Obstacle) bool {
				if other == nil || m.owner(other) == nil {
					n++
				}
				return true
			})
		}
		return n
	}
	least := math.MaxInt
	for _, p := range ledWays(path, to) {
		if n := score(p); n < least || n == least && Length(p) < Length(best) {
			best, least = p, n
		}
	}
	return best
}

// ledWays are paths with the end moved.
func ledWays(path []geom.Point, to geom.Point) (out [][]geom.Point) {
	n := len(path)
	end := path[n-1]
	step := to.Sub(end)
	if n >= 3 {
		u := end.Sub(path[n-2])
		if p, ok := meet(path[n-3], path[n-2].Sub(path[n-3]), path[n-2].Add(step), u); ok && along(p.Sub(path[n-3]), path[n-2].Sub(path[n-3])) && along(to.Sub(p), u) {
			out = append(out, plain(append(slices.Clone(path[:n-2]), p, to)))
		}
	}
	for k := max(0, n-3); k <= n-2; k++ {
		for _, style := range []Corner{StraightFirst, DiagonalFirst} {
			out = append(out, plain(append(slices.Clone(path[:k]), Path(path[k], to, style)...)))
		}
	}
	return append(out, plain(append(slices.Clone(path), Path(end, to, StraightFirst)[1:]...)))
}
