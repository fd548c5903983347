package geom

import "math"

// Shape is everything within the distance R (nanometres) of its core: a point, an open
// line through Pts, or, when Area, what the closed line through Pts bounds. A track is a line with
// a radius, a round pad a point with one, a rectangular pad an area with none, a rounded
// pad an area with one. Distances between such shapes are exact but for rounding.
type Shape struct {
	Pts []Point
	// Mids makes the side that begins at each of Pts an arc through the place, or leaves it straight
	// where the place is that of Pts itself. Nil: all sides are straight.
	Mids []Point
	Area bool
	R    int64
}

// Disc is a filled circle.
func Disc(at Point, r int64) Shape { return Shape{Pts: []Point{at}, R: r} }

// Stroke is a line of the given width with round ends.
func Stroke(a, b Point, width int64) Shape { return Shape{Pts: []Point{a, b}, R: width / 2} }

// Bow is a piece of a line of the given width with round ends.
func Bow(p Piece, width int64) Shape {
	if !p.Round() {
		return Stroke(p.A, p.B, width)
	}
	return Shape{Pts: []Point{p.A, p.B}, Mids: []Point{p.M, p.B}, R: width / 2}
}

// Within is the area that the closed line through the corners bounds.
func Within(corners []Corner) Shape {
	s := Shape{Pts: Places(corners), Area: true}
	for i, c := range corners {
		if c.Mid != nil && s.Mids == nil {
			s.Mids = append([]Point{}, s.Pts...)
		}
		if c.Mid != nil {
			s.Mids[i] = *c.Mid
		}
	}
	return s
}

// Box around the whole shape.
func (s Shape) Box() Box { return s.Core().Grow(s.R) }

// Core is the box around the shape's core.
func (s Shape) Core() Box {
	box := BoxOf(s.Pts...)
	if s.Mids == nil {
		return box
	}
	for i := range s.Sides() {
		if p := s.Side(i); p.Round() {
			box = box.Union(p.Box())
		}
	}
	return box
}

// Moved is the shape carried to another place.
func (s Shape) Moved(t Pose) Shape {
	out := Shape{Pts: t.ApplyAll(s.Pts), Area: s.Area, R: s.R}
	if s.Mids != nil {
		out.Mids = t.ApplyAll(s.Mids)
	}
	return out
}

// Side is the i-th side of the core.
func (s Shape) Side(i int) Piece {
	a, b := s.side(i)
	if s.Mids == nil {
		return Straight(a, b)
	}
	return Piece{a, s.Mids[i], b}
}

// Edges are all sides of the core.
func (s Shape) Edges() Ring {
	out := make(Ring, s.Sides())
	for i := range out {
		out[i] = s.Side(i)
	}
	return out
}

// Filled is what the closed line bounds.
func (r Ring) Filled() Shape {
	s := Shape{Area: true}
	for _, p := range r {
		mid := p.A
		if p.Round() {
			mid = p.M
		}
		s.Pts, s.Mids = append(s.Pts, p.A), append(s.Mids, mid)
	}
	return s
}

// Holds tells whether p lies in the shape.
func (s Shape) Holds(p Point) bool {
	g, _, _ := Gap(s, Disc(p, 0))
	return g <= 0
}

// Gap is the distance between two shapes in nanometres, zero or less when they touch or
// overlap, and the places on their outlines where they come nearest.
func Gap(a, b Shape) (gap float64, pa, pb Point) {
	d, ca, cb := coreDistance(a, b)
	gap = d - float64(a.R) - float64(b.R)
	if d > 0 {
		pa, pb = ca.Towards(cb, float64(a.R)/d), cb.Towards(ca, float64(b.R)/d)
	} else {
		pa, pb = ca, cb
	}
	return gap, pa, pb
}

// Sides is how many sides the core has; a point counts as one.
func (s Shape) Sides() int {
	switch n := len(s.Pts); {
	case n == 1:
		return 1
	case s.Area:
		return n
	default:
		return n - 1
	}
}

func (s Shape) side(i int) (Point, Point) {
	return s.Pts[i], s.Pts[(i+1)%len(s.Pts)]
}

func coreDistance(a, b Shape) (float64, Point, Point) {
	if a.Area && a.holds(b.Pts[0]) {
		return 0, b.Pts[0], b.Pts[0]
	}
	if b.Area && b.holds(a.Pts[0]) {
		return 0, a.Pts[0], a.Pts[0]
	}
	if a.Mids != nil || b.Mids != nil {
		return piecewise(a, b)
	}
	best := math.Inf(1)
	var ba, bb Point
	for i := range a.Sides() {
		a0, a1 := a.side(i)
		for j := range b.Sides() {
			b0, b1 := b.side(j)
			if d, p, q := SegmentDistance(a0, a1, b0, b1); d < best {
				best, ba, bb = d, p, q
				if best == 0 {
					return 0, ba, bb
				}
			}
		}
	}
	return best, ba, bb
}

// holds tells whether a place lies in the core of an area.
func (s Shape) holds(p Point) bool {
	if s.Mids == nil {
		return InPolygon(p, s.Pts)
	}
	return s.Core().Holds(p) && s.Edges().Holds(p)
}

// piecewise is the distance of cores that have arcs.
func piecewise(a, b Shape) (float64, Point, Point) {
	best := math.Inf(1)
	var ba, bb Point
	for i := range a.Sides() {
		p := a.Side(i)
		for j := range b.Sides() {
			if d, x, y := PieceDistance(p, b.Side(j)); d < best {
				best, ba, bb = d, x, y
				if best == 0 {
					return 0, ba, bb
				}
			}
		}
	}
	return best, ba, bb
}

// SegmentDistance is the distance between the segments a0a1 and b0b1 (either may be a
// point) and the nearest place on each.
func SegmentDistance(a0, a1, b0, b1 Point) (float64, Point, Point) {
	if p, ok := Cross(a0, a1, b0, b1); ok {
		return 0, p, p
	}
	best := math.Inf(1)
	var pa, pb Point
	try := func(p, q0, q1 Point, flip bool) {
		q, d := nearest(p, q0, q1)
		if d < best {
			best, pa, pb = d, p, q
			if flip {
				pa, pb = q, p
			}
		}
	}
	try(a0, b0, b1, false)
	try(a1, b0, b1, false)
	try(b0, a0, a1, true)
	try(b1, a0, a1, true)
	return best, pa, pb
}

// nearest is the place on the segment q0q1 nearest to p, and its exact distance.
func nearest(p, q0, q1 Point) (Point, float64) {
	dx, dy := float64(q1.X-q0.X), float64(q1.Y-q0.Y)
	l2 := dx*dx + dy*dy
	if l2 == 0 {
		return q0, p.Dist(q0)
	}
	px, py := float64(p.X-q0.X), float64(p.Y-q0.Y)
	t := (px*dx + py*dy) / l2
	switch {
	case t <= 0:
		return q0, p.Dist(q0)
	case t >= 1:
		return q1, p.Dist(q1)
	}
	return q0.Towards(q1, t), math.Abs(px*dy-py*dx) / math.Sqrt(l2)
}

// side tells on which side of the line ab the point p lies: 1 left, −1 right, 0 on it.
// The products stay below 2^63 for coordinates within ±2 m doubled.
func side(a, b, p Point) int {
	l, r := mul(b.X-a.X, p.Y-a.Y), mul(b.Y-a.Y, p.X-a.X)
	switch {
	case l.cmp(r) > 0:
		return 1
	case l.cmp(r) < 0:
		return -1
	}
	return 0
}

// Cross gives a common point of the segments a0a1 and b0b1, if they have one.
func Cross(a0, a1, b0, b1 Point) (Point, bool) {
	if !BoxOf(a0, a1).Meets(BoxOf(b0, b1)) {
		return Point{}, false
	}
	d1, d2 := side(b0, b1, a0), side(b0, b1, a1)
	d3, d4 := side(a0, a1, b0), side(a0, a1, b1)
	if d1*d2 > 0 || d3*d4 > 0 {
		return Point{}, false
	}
	for _, c := range []struct {
		s    int
		p    Point
		q, r Point
	}{{d1, a0, b0, b1}, {d2, a1, b0, b1}, {d3, b0, a0, a1}, {d4, b1, a0, a1}} {
		if c.s == 0 && BoxOf(c.q, c.r).Holds(c.p) {
			return c.p, true
		}
	}
	if d1 == 0 && d2 == 0 { // on one line, or points apart
		return Point{}, false
	}
	ax, ay := float64(a1.X-a0.X), float64(a1.Y-a0.Y)
	bx, by := float64(b1.X-b0.X), float64(b1.Y-b0.Y)
	den := ax*by - ay*bx
	if den == 0 {
		return Point{}, false
	}
	t := (float64(b0.X-a0.X)*by - float64(b0.Y-a0.Y)*bx) / den
	return a0.Towards(a1, t), true
}

// OnSegment tells whether p lies exactly on the segment ab.
func OnSegment(p, a, b Point) bool { return BoxOf(a, b).Holds(p) && side(a, b, p) == 0 }

// InPolygon tells whether p lies inside the closed polygon or on its border.
func InPolygon(p Point, poly []Point) bool {
	in := false
	for i, a := range poly {
		b := poly[(i+1)%len(poly)]
		if OnSegment(p, a, b) {
			return true
		}
		if (a.Y > p.Y) != (b.Y > p.Y) {
			s := side(a, b, p)
			if b.Y < a.Y {
				s = -s
			}
			if s > 0 {
				in = !in
			}
		}
	}
	return in
}

// SelfCrossing finds two sides of a closed polygon that cross or touch where they should
// not, and where. O(n²): outlines have few corners.
func SelfCrossing(poly []Point) (Point, bool) {
	n := len(poly)
	for i := range n {
		a0, a1 := poly[i], poly[(i+1)%n]
		for j := i + 1; j < n; j++ {
			b0, b1 := poly[j], poly[(j+1)%n]
			if j == i+1 || (i == 0 && j == n-1) {
				far, near, start := b1, a1, a0
				if i == 0 && j == n-1 && n > 2 {
					far, near, start = b0, a0, a1
				}
				if side(near, start, far) == 0 && near.Dist(start)+near.Dist(far) > start.Dist(far)+1 {
					return near, true // folds back on itself
				}
				continue
			}
			if p, ok := Cross(a0, a1, b0, b1); ok {
				return p, true
			}
		}
	}
	return Point{}, false
}

// Area of a closed polygon in square nanometres, positive when anticlockwise.
func Area(poly []Point) float64 {
	sum := 0.0
	for i, a := range poly {
		b := poly[(i+1)%len(poly)]
		sum += float64(a.X)*float64(b.Y) - float64(b.X)*float64(a.Y)
	}
	return sum / 2
}
