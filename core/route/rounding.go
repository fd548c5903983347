package route

import (
	"math"

	"goldentrace/core/geom"
)

// Rounded is a path whose corners are arcs of a radius, less where the pieces beside a corner are short; an arc takes up to half
// of a piece between two corners, and all of one at an end. Corners of less than a micrometre's arc stay sharp.
func Rounded(path []geom.Point, radius int64) []geom.Corner {
	out := geom.Corners(path...)
	if radius <= 0 || len(path) < 3 {
		return out
	}
	line := []geom.Corner{{Point: path[0]}}
	for i := 1; i+1 < len(path); i++ {
		a, at, b := path[i-1], path[i], path[i+1]
		room := func(end geom.Point, last bool) float64 {
			if last {
				return at.Dist(end)
			}
			return at.Dist(end) / 2
		}
		from, mid, to, ok := fillet(a, at, b, float64(radius), min(room(a, i == 1), room(b, i+2 == len(path))))
		if !ok {
			line = append(line, geom.Corner{Point: at})
			continue
		}
		line = append(line, geom.Corner{Point: from, Mid: &mid}, geom.Corner{Point: to})
	}
	return append(line, geom.Corner{Point: path[len(path)-1]})
}

// fillet is the arc that rounds the corner at between the ways to a and to b, touching both no farther than room from the corner.
func fillet(a, at, b geom.Point, radius, room float64) (from, mid, to geom.Point, ok bool) {
	ux, uy := float64(a.X-at.X), float64(a.Y-at.Y)
	vx, vy := float64(b.X-at.X), float64(b.Y-at.Y)
	lu, lv := math.Hypot(ux, uy), math.Hypot(vx, vy)
	if lu == 0 || lv == 0 {
		return from, mid, to, false
	}
	ux, uy, vx, vy = ux/lu, uy/lu, vx/lv, vy/lv
	half := math.Acos(max(-1, min(1, ux*vx+uy*vy))) / 2 // of the angle between the ways
	if half < 0.01 || half > math.Pi/2-0.001 {
		return from, mid, to, false
	}
	cut := min(radius/math.Tan(half), room)
	radius = cut * math.Tan(half)
	if cut < 1000 {
		return from, mid, to, false
	}
	place := func(x, y, k float64) geom.Point {
		return geom.Pt(at.X+int64(math.Round(x*k)), at.Y+int64(math.Round(y*k)))
	}
	bx, by := ux+vx, uy+vy
	l := math.Hypot(bx, by)
	from, to = place(ux, uy, cut), place(vx, vy, cut)
	mid = place(bx/l, by/l, radius/math.Sin(half)-radius)
	return from, mid, to, from != to && mid != from && mid != to
}
