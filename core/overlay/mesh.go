package overlay

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/geom"
)

// Mesh cuts areas into triangles that meet edge to edge, and gives the areas' lines with all corners of triangles that lie on them: every side of a
// triangle is a side of another one, the other way, or of a line. Cost: that of Triangles, and the sides that did not meet at first times those near.
func Mesh(list []Area) (triangles []Triangle, lines [][]geom.Point) {
	for i := range list {
		m := &mesh{triangles: Triangles(list[i : i+1]), lines: Rings(list[i : i+1])}
		for range mostStitches {
			if !m.stitch() {
				break
			}
		}
		triangles, lines = append(triangles, m.triangles...), append(lines, m.lines...)
	}
	return triangles, lines
}

// mostStitches bounds how often what does not meet is looked for: a split can show another place.
const mostStitches = 12

type mesh struct {
	triangles []Triangle
	lines     [][]geom.Point
}

type edge struct{ a, b geom.Point }

// stitch splits sides at corners of others that lie in their midst; it tells whether there were any.
func (m *mesh) stitch() bool {
	inside, line := map[edge]bool{}, map[edge]bool{}
	for _, t := range m.triangles {
		for i := range t {
			inside[edge{t[i], t[(i+1)%3]}] = true
		}
	}
	for _, l := range m.lines {
		for i, p := range l {
			line[edge{p, l[(i+1)%len(l)]}] = true
		}
	}
	loose := map[geom.Point]bool{}
	free := map[edge]bool{}
	note := func(e edge) {
		free[e], loose[e.a], loose[e.b] = true, true, true
	}
	for e := range inside {
		if !inside[edge{e.b, e.a}] && !line[e] {
			note(e)
		}
	}
	for e := range line {
		if !inside[e] {
			note(e)
		}
	}
	if len(free) == 0 {
		return false
	}
	places := make([]geom.Point, 0, len(loose))
	for p := range loose {
		places = append(places, p)
	}
	slices.SortFunc(places, func(p, q geom.Point) int { return cmp.Or(cmp.Compare(p.Y, q.Y), cmp.Compare(p.X, q.X)) })
	split := false
	within := func(e edge) []geom.Point {
		if !free[e] {
			return nil
		}
		list := between(places, e)
		split = split || len(list) > 0
		return list
	}
	var out []Triangle
	for _, t := range m.triangles {
		out = append(out, splitted(t, within)...)
	}
	for k, l := range m.lines {
		var fresh []geom.Point
		for i, p := range l {
			fresh = append(append(fresh, p), within(edge{p, l[(i+1)%len(l)]})...)
		}
		m.lines[k] = fresh
	}
	m.triangles = out
	return split
}

// between are the places that lie in the midst of an edge, but for rounding, from its beginning on.
func between(places []geom.Point, e edge) (out []geom.Point) {
	low, high := min(e.a.Y, e.b.Y)-1, max(e.a.Y, e.b.Y)+1
	from, to := min(e.a.X, e.b.X)-1, max(e.a.X, e.b.X)+1
	dx, dy := float64(e.b.X-e.a.X), float64(e.b.Y-e.a.Y)
	long := math.Hypot(dx, dy)
	i, _ := slices.BinarySearchFunc(places, geom.Pt(from, low), func(p, q geom.Point) int { return cmp.Or(cmp.Compare(p.Y, q.Y), cmp.Compare(p.X, q.X)) })
	along := func(p geom.Point) float64 { return (float64(p.X-e.a.X)*dx + float64(p.Y-e.a.Y)*dy) / long }
	for ; i < len(places) && places[i].Y <= high; i++ {
		p := places[i]
		if p == e.a || p == e.b || p.X < from || p.X > to {
			continue
		}
		aside := math.Abs(float64(p.X-e.a.X)*dy-float64(p.Y-e.a.Y)*dx) / long
		if at := along(p); aside <= 0.51 && at > 0 && at < long {
			out = append(out, p)
		}
	}
	slices.SortFunc(out, func(p, q geom.Point) int { return cmp.Compare(along(p), along(q)) })
	return out
}

// splitted is a triangle as fans over the places on its sides.
func splitted(t Triangle, within func(edge) []geom.Point) []Triangle {
	for i := range t {
		a, b, apex := t[i], t[(i+1)%3], t[(i+2)%3]
		list := within(edge{a, b})
		if len(list) == 0 {
			continue
		}
		if slices.Contains(list, apex) {
			return nil // it is thinner than a nanometre: its other sides take the place of this one
		}
		var out []Triangle
		last := a
		for _, p := range append(list, b) {
			out = append(out, Triangle{last, p, apex})
			last = p
		}
		return out // its other sides are looked at in the next round
	}
	return []Triangle{t}
}
