package geom

import "math"

// Along gives places along the piece from A to B, both included, so that straight lines between
// them leave it by no more than the tolerance (nanometres, at least 1). Around lays those of an arc
// outside of it, so that the lines touch the arc and what it bounds lies within them; else they
// lie on it.
func (p Piece) Along(tolerance int64, around bool) []Point {
	if !p.Round() {
		return []Point{p.A, p.B}
	}
	k := p.circle()
	sweep := p.sweep(k)
	step := math.Pi / 2
	if t := float64(max(tolerance, 1)) / k.r; around {
		step = min(step, 2*math.Acos(1/(1+t)))
	} else if t < 1 {
		step = min(step, 2*math.Acos(1-t))
	}
	n := max(int(math.Ceil(sweep/step)), 1)
	step = sweep / float64(n) * k.way
	out := []Point{p.A}
	at := func(angle, r float64) {
		sin, cos := math.Sincos(angle)
		d := k.c.times(-r / k.r)
		out = append(out, k.c.plus(vec{d.x*cos - d.y*sin, d.x*sin + d.y*cos}).rounded(p.A))
	}
	if around {
		for i := range n {
			at((float64(i)+0.5)*step, k.r/math.Cos(step/2))
		}
	} else {
		for i := 1; i < n; i++ {
			at(float64(i)*step, k.r)
		}
	}
	return append(out, p.B)
}
