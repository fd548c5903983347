package rules

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// apart is how far the places of a track are apart at which it is asked in which areas they lie, and exact how closely it is known where it
// enters one, in nanometres.
const (
	apart = 200_000
	exact = 1_000
)

// Stretches are the pieces into which a straight track falls where it enters and leaves the areas that rules of a kind name: within each of
// them one answer holds. Other shapes, and all where no rule of the kind names an area, are one piece. Areas that a track crosses on less
// than 0.2 mm may be missed.
func (s *Set) Stretches(k design.RuleKind, shape geom.Shape) []geom.Shape {
	whole := []geom.Shape{shape}
	if !s.kinds[k].areas || len(shape.Pts) != 2 || shape.Area || shape.Mids != nil {
		return whole
	}
	a, b := shape.Pts[0], shape.Pts[1]
	long := a.Dist(b)
	box := shape.Box()
	meets := false
	for _, x := range s.areas {
		meets = meets || x.region.Box().Meets(box)
	}
	if !meets || long < apart {
		return whole
	}
	at := func(share float64) uint64 {
		mask, _ := s.within(-1, a.Towards(b, share))
		return mask
	}
	steps := int(long/apart) + 1
	var out []geom.Shape
	from := a
	cut := func(to geom.Point) {
		out = append(out, geom.Shape{Pts: []geom.Point{from, to}, R: shape.R})
		from = to
	}
	last := at(0)
	for i := 1; i <= steps; i++ {
		lo, hi := float64(i-1)/float64(steps), float64(i)/float64(steps)
		next := at(hi)
		if next != last {
			for (hi-lo)*long > exact {
				if mid := (lo + hi) / 2; at(mid) == last {
					lo = mid
				} else {
					hi = mid
				}
			}
			if p := a.Towards(b, hi); p != from && p != b {
				cut(p)
			}
		}
		last = next
	}
	cut(b)
	return out
}

// Nearest yields how far apart two shapes are and where, the place on the first before that on the second: once, or once for each pair of
// stretches that rules of a kind tell apart. It ends when the visitor says no, and tells whether it did not.
func (s *Set) Nearest(k design.RuleKind, a, b geom.Shape, visit func(gap float64, p, q geom.Point) bool) bool {
	if !s.kinds[k].areas {
		return visit(geom.Gap(a, b))
	}
	for _, x := range s.Stretches(k, a) {
		for _, y := range s.Stretches(k, b) {
			if !visit(geom.Gap(x, y)) {
				return false
			}
		}
	}
	return true
}
