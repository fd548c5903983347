package route

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/geom"
)

// hull is a convex polygon, anticlockwise: what the middle of a track keeps out of.
type hull []geom.Point

// around is the hull of shapes grown by so much: what of the plane is nearer to them is within it. Corners are cut as an octagon's, so that
// a line along it goes in the eight directions where the shapes do.
func around(grow int64, shapes ...geom.Shape) hull {
	var all []geom.Point
	for _, s := range shapes {
		r := s.R + grow + 1
		t := int64(math.Ceil(float64(r) * (math.Sqrt2 - 1)))
		pts := s.Pts
		if s.Mids != nil {
			for i := range s.Sides() {
				pts = append(slices.Clip(pts), tangentsOf(s.Side(i))...)
			}
		}
		for _, p := range pts {
			for _, d := range [8]geom.Point{{X: r, Y: t}, {X: t, Y: r}, {X: -t, Y: r}, {X: -r, Y: t}, {X: -r, Y: -t}, {X: -t, Y: -r}, {X: t, Y: -r}, {X: r, Y: -t}} {
				all = append(all, p.Add(d))
			}
		}
	}
	return convex(all).octal()
}

// octal is a hull around the hull whose sides go in the eight directions: the corner that is missing outside is added where a side goes
// in another. What is left after a few rounds stays as it is.
func (h hull) octal() hull {
	for range 4 {
		var more []geom.Point
		for i, p := range h {
			q := h[(i+1)%len(h)]
			if octal(q.Sub(p)) {
				continue
			}
			for _, style := range []Corner{StraightFirst, DiagonalFirst} {
				if c := Path(p, q, style)[1]; turn(p, q, c) < 0 {
					more = append(more, c)
				}
			}
		}
		if len(more) == 0 {
			return h
		}
		h = convex(append(more, h...))
	}
	return h
}

// tangentsOf are places whose hull with the ends of an arc holds it.
func tangentsOf(p geom.Piece) []geom.Point {
	if !p.Round() {
		return nil
	}
	b := p.Box()
	return []geom.Point{b.Min, b.Max, geom.Pt(b.Min.X, b.Max.Y), geom.Pt(b.Max.X, b.Min.Y)}
}

// turn is above 0 where the way from a over b to c goes to the left.
func turn(a, b, c geom.Point) float64 {
	return float64(b.X-a.X)*float64(c.Y-a.Y) - float64(b.Y-a.Y)*float64(c.X-a.X)
}

// convex is the convex hull of places (Andrew's monotone chain, 1979).
func convex(pts []geom.Point) hull {
	slices.SortFunc(pts, func(a, b geom.Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
	pts = slices.Compact(pts)
	if len(pts) < 3 {
		return pts
	}
	half := func(list []geom.Point) (out []geom.Point) {
		for _, p := range list {
			for len(out) >= 2 && turn(out[len(out)-2], out[len(out)-1], p) <= 0 {
				out = out[:len(out)-1]
			}
			out = append(out, p)
		}
		return out[:len(out)-1]
	}
	low := half(pts)
	slices.Reverse(pts)
	return append(low, half(pts)...)
}

// inside tells whether a place lies within the hull and not on its edge.
func (h hull) inside(p geom.Point) bool {
	for i, a := range h {
		if turn(a, h[(i+1)%len(h)], p) <= 0 {
			return false
		}
	}
	return len(h) > 2
}

// cut is where a segment goes through the inside of the hull, as fractions of its way; false: it does not.
func (h hull) cut(a, b geom.Point) (from, to float64, through bool) {
	from, to = 0, 1
	for i, p := range h {
		q := h[(i+1)%len(h)]
		da, db := turn(p, q, a), turn(p, q, b)
		switch {
		case da <= 0 && db <= 0:
			return 0, 0, false
		case da < 0:
			from = max(from, da/(da-db))
		case db < 0:
			to = min(to, da/(da-db))
		}
	}
	return from, to, to > from
}

// brink is a point of the hull's edge: on the side from a corner on, or at that corner.
type brink struct {
	at   geom.Point
	side int
}

// on finds the side of the hull nearest to a place.
func (h hull) on(p geom.Point) brink {
	best, at := math.Inf(1), 0
	for i, a := range h {
		if d, _, _ := geom.SegmentDistance(a, h[(i+1)%len(h)], p, p); d < best {
			best, at = d, i
		}
	}
	return brink{p, at}
}

// edge is the way along the hull from one place of it to another, anticlockwise or clockwise, both included.
func (h hull) edge(from, to brink, anticlockwise bool) []geom.Point {
	out := []geom.Point{from.at}
	n := len(h)
	if anticlockwise {
		for i := from.side; i != to.side || len(out) == 1 && wraps(h, from, to); i = (i + 1) % n {
			out = append(out, h[(i+1)%n])
			if len(out) > n+1 {
				break
			}
		}
		return append(out, to.at)
	}
	back := h.edge(to, from, true)
	slices.Reverse(back)
	return back
}

// wraps tells whether the way between two points of one side has to go all the way round, since the second lies before the first.
func wraps(h hull, from, to brink) bool {
	corner := h[from.side]
	return from.side == to.side && corner.Dist(to.at) < corner.Dist(from.at)
}

// walks are the two ways that a path takes round the hull where it goes through it, anticlockwise and clockwise. False: it does not go
// through, or begins or ends within.
func (h hull) walks(path []geom.Point) (left, right []geom.Point, through bool) {
	n := len(path)
	if n < 2 || len(h) < 3 || h.inside(path[0]) || h.inside(path[n-1]) {
		return nil, nil, false
	}
	first, last := -1, -1
	var in, out geom.Point
	for i := 0; i+1 < n; i++ {
		from, to, ok := h.cut(path[i], path[i+1])
		if !ok {
			continue
		}
		if first < 0 {
			first, in = i, path[i].Towards(path[i+1], from)
		}
		last, out = i, path[i].Towards(path[i+1], to)
	}
	if first < 0 {
		return nil, nil, false
	}
	a, b := h.on(in), h.on(out)
	way := func(anticlockwise bool) []geom.Point {
		all := append([]geom.Point{}, path[:first+1]...)
		all = append(all, h.edge(a, b, anticlockwise)...)
		return plain(append(all, path[last+1:]...))
	}
	return way(true), way(false), true
}
