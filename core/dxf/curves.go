package dxf

import (
	"errors"
	"math"
	"slices"
)

// chord is a straight line.
type chord struct{ a, b vec }

func (c chord) at(t float64) vec { return c.a.plus(c.b.minus(c.a).times(t)) }
func (c chord) cuts() []float64  { return []float64{0, 1} }

func (c chord) plain() (straight, exact bool) { return true, true }

// ellipse about a centre, or a part of one: its longer half and its shorter one as vectors, where it begins and how far it goes.
type ellipse struct {
	c, long, short vec
	from, sweep    float64
}

func round(c vec, r, from, sweep float64) ellipse {
	return ellipse{c, vec{r, 0}, vec{0, r}, from, sweep}
}

func (e ellipse) at(t float64) vec {
	sin, cos := math.Sincos(e.from + t*e.sweep)
	return e.c.plus(e.long.times(cos)).plus(e.short.times(sin))
}

// cuts at every quarter, so that no arc is more than that.
func (e ellipse) cuts() []float64 {
	n := max(int(math.Ceil(math.Abs(e.sweep)/(math.Pi/2)-1e-9)), 1)
	out := make([]float64, n+1)
	for i := range out {
		out[i] = float64(i) / float64(n)
	}
	return out
}

func (e ellipse) plain() (straight, exact bool) { // of a circle nothing is lost
	return false, math.Abs(e.long.length()-e.short.length()) < 1e-9*e.long.length()
}

// bulged is the arc between two places whose quarter angle has the tangent.
func bulged(a, b vec, bulge float64) ellipse {
	half := b.minus(a).times(0.5)
	k := (1 - bulge*bulge) / (2 * bulge) // from the chord's middle to the centre, in half chords, to its left
	c := a.plus(half).plus(vec{-half.y, half.x}.times(k))
	from := math.Atan2(a.y-c.y, a.x-c.x)
	return round(c, a.minus(c).length(), from, 4*math.Atan(bulge))
}

// mirrored is a curve given in the plane seen from below.
type mirrored struct{ path }

func (m mirrored) at(t float64) vec {
	p := m.path.at(t)
	return vec{-p.x, p.y}
}

// spline is a B-spline with weights.
type spline struct {
	degree int
	knots  []float64
	poles  []vec
	weight []float64
}

// splineOf reads a spline: its degree, knots, poles and weights.
func splineOf(b *body) (*spline, error) {
	s := &spline{degree: int(b.one(71, 3)), knots: b.by[40], weight: b.by[41]}
	xs, ys := b.by[10], b.by[20]
	switch n := len(xs); {
	case n != len(ys):
		return nil, errors.New("a spline of the drawing has places without both coordinates")
	case s.degree < 1 || s.degree > 20:
		return nil, errors.New("a spline of the drawing has a degree that cannot be")
	case n <= s.degree && len(b.by[11]) > 1:
		return nil, errors.New("a spline of the drawing is given by the places it goes through alone; have it written with its control points")
	case n <= s.degree || len(s.knots) != n+s.degree+1:
		return nil, errors.New("a spline of the drawing has knots and control points that do not fit each other")
	case !slices.IsSorted(s.knots) || s.knots[s.degree] >= s.knots[n]:
		return nil, errors.New("a spline of the drawing has knots out of order")
	}
	for i := range xs {
		s.poles = append(s.poles, vec{xs[i], ys[i]})
	}
	if len(s.weight) != len(s.poles) {
		s.weight = slices.Repeat([]float64{1}, len(s.poles))
	}
	for _, w := range s.weight {
		if w <= 0 {
			return nil, errors.New("a spline of the drawing has a weight that is not more than nothing")
		}
	}
	return s, nil
}

// at is de Boor's algorithm, with weights as a third coordinate.
func (s *spline) at(t float64) vec {
	n, p := len(s.poles), s.degree
	lo, hi := s.knots[p], s.knots[n]
	u := min(max(lo+t*(hi-lo), lo), hi)
	k := p
	for k < n-1 && u >= s.knots[k+1] {
		k++
	}
	type pole struct{ x, y, w float64 }
	d := make([]pole, p+1)
	for i := range d {
		q, w := s.poles[k-p+i], s.weight[k-p+i]
		d[i] = pole{q.x * w, q.y * w, w}
	}
	for r := 1; r <= p; r++ {
		for i := p; i >= r; i-- {
			a, b := s.knots[k-p+i], s.knots[i+1+k-r]
			f := 0.0
			if b > a {
				f = (u - a) / (b - a)
			}
			d[i] = pole{d[i-1].x*(1-f) + d[i].x*f, d[i-1].y*(1-f) + d[i].y*f, d[i-1].w*(1-f) + d[i].w*f}
		}
	}
	return vec{d[p].x / d[p].w, d[p].y / d[p].w}
}

func (s *spline) plain() (straight, exact bool) { return s.degree == 1, s.degree == 1 }

// cuts at the knots.
func (s *spline) cuts() []float64 {
	lo, hi := s.knots[s.degree], s.knots[len(s.poles)]
	out := []float64{0}
	for _, k := range s.knots {
		if t := (k - lo) / (hi - lo); t > out[len(out)-1] && t < 1 {
			out = append(out, t)
		}
	}
	return append(out, 1)
}
