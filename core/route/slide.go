package route

import (
	"math"

	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// octal tells whether a way goes in one of the eight directions, or nowhere.
func octal(d geom.Point) bool { return d.X == 0 || d.Y == 0 || d.X == d.Y || d.X == -d.Y }

// normal is the step of whole nanometres that moves a piece to its left, and that step's length.
func normal(a, b geom.Point) (e geom.Point, length float64) {
	d := b.Sub(a)
	switch {
	case d.Y == 0:
		return geom.Pt(0, sign(d.X)), 1
	case d.X == 0:
		return geom.Pt(-sign(d.Y), 0), 1
	case d.X == d.Y || d.X == -d.Y:
		return geom.Pt(-sign(d.Y), sign(d.X)), math.Sqrt2
	}
	return geom.Point{}, 0
}

// meet is where the line through a in the direction u meets the line through b in the direction v, rounded; false: nowhere that a drawing
// can reach.
func meet(a, u, b, v geom.Point) (geom.Point, bool) {
	ux, uy, vx, vy := float64(u.X), float64(u.Y), float64(v.X), float64(v.Y)
	den := ux*vy - uy*vx
	if math.Abs(den) < 1e-9*math.Hypot(ux, uy)*math.Hypot(vx, vy) {
		return geom.Point{}, false
	}
	t := (float64(b.X-a.X)*vy - float64(b.Y-a.Y)*vx) / den
	x, y := float64(a.X)+t*ux, float64(a.Y)+t*uy
	if max(math.Abs(x), math.Abs(y)) > float64(units.Limit) {
		return geom.Point{}, false
	}
	return geom.Pt(a.X+int64(math.Round(t*ux)), a.Y+int64(math.Round(t*uy))), true
}

// along tells whether the way d goes in the direction u, or nowhere.
func along(d, u geom.Point) bool {
	return float64(d.X)*float64(u.X)+float64(d.Y)*float64(u.Y) >= 0
}

// slid is a path whose piece from i to i+1 is moved sideways by a step, to its left, the pieces beside it keeping
// their directions. False: they would have to turn round, or there are none.
func slid(path []geom.Point, i int, step geom.Point) ([]geom.Point, bool) {
	if i < 1 || i+2 >= len(path) {
		return nil, false
	}
	a, b := path[i], path[i+1]
	u := b.Sub(a)
	before, after := path[i].Sub(path[i-1]), path[i+2].Sub(path[i+1])
	p, ok := meet(path[i-1], before, a.Add(step), u)
	q, fine := meet(path[i+2], after, a.Add(step), u)
	if !ok || !fine || !along(p.Sub(path[i-1]), before) || !along(path[i+2].Sub(q), after) || !along(q.Sub(p), u) {
		return nil, false
	}
	out := append([]geom.Point{}, path...)
	out[i], out[i+1] = p, q
	return out, true
}

// plain is a path without places that say nothing: repeats, and places on a straight way.
func plain(path []geom.Point) []geom.Point {
	out := make([]geom.Point, 0, len(path))
	for _, p := range path {
		if n := len(out); n > 0 && out[n-1] == p {
			continue
		}
		for len(out) >= 2 && straight(out[len(out)-2], out[len(out)-1], p) {
			out = out[:len(out)-1]
		}
		out = append(out, p)
	}
	return out
}

// straight tells whether b lies on the way from a to c, within a nanometre for ways of odd directions.
func straight(a, b, c geom.Point) bool {
	u, v := b.Sub(a), c.Sub(b)
	if !along(u, v) {
		return false
	}
	if octal(u) && octal(v) {
		return float64(u.X)*float64(v.Y) == float64(u.Y)*float64(v.X)
	}
	d, _, _ := geom.SegmentDistance(a, c, b, b)
	return d < 1
}
