package geom

import "math"

// PieceDistance is the distance of two pieces in nanometres, 0 where they cross or touch, and the
// nearest place on each, rounded. Two pieces come nearest where they cross, at an end of one, or
// where the line between the places stands upright on both; these few are tried. It is exact but
// for rounding: for radii up to 1 km to far less than a nanometre.
func PieceDistance(p, q Piece) (d float64, atP, atQ Point) {
	switch {
	case !p.Round() && !q.Round():
		return SegmentDistance(p.A, p.B, q.A, q.B)
	case !p.Round():
		d, atQ, atP = PieceDistance(q, p)
		return d, atP, atQ
	}
	n := nearer{from: p.A, d: math.Inf(1)}
	if q.Round() {
		n.arcs(p, q)
	} else {
		n.arcAndLine(p, q)
	}
	return n.d, n.p.rounded(p.A), n.q.rounded(p.A)
}

// nearer keeps the nearest of pairs of places, all as seen from one place.
type nearer struct {
	from Point
	d    float64
	p, q vec
}

func (n *nearer) try(d float64, p, q vec) {
	if d < n.d {
		n.d, n.p, n.q = d, p, q
	}
}

// end tries a place against a piece; flip tells that the place belongs to the second.
func (n *nearer) end(at vec, of Piece, flip bool) {
	o := vecOf(of.A, n.from)
	local := at.minus(o)
	var on vec
	var d float64
	if of.Round() {
		k := of.circle()
		on, d = k.onto(local), math.Abs(k.off(local))
		if local == k.c {
			on, d = vec{}, k.r
		}
		if !of.spans(on) {
			b := vecOf(of.B, of.A)
			on, d = vec{}, local.length()
			if e := local.minus(b).length(); e < d {
				on, d = b, e
			}
		}
	} else {
		on, d = ontoLine(local, vecOf(of.B, of.A))
	}
	if on = on.plus(o); flip {
		n.try(d, on, at)
	} else {
		n.try(d, at, on)
	}
}

// ontoLine is the place nearest to p on the line from the origin to b, and its distance.
func ontoLine(p, b vec) (vec, float64) {
	l2 := b.dot(b)
	t := 0.0
	if l2 > 0 {
		t = max(0, min(1, p.dot(b)/l2))
	}
	on := b.times(t)
	if t > 0 && t < 1 {
		return on, math.Abs(b.cross(p)) / math.Sqrt(l2)
	}
	return on, p.minus(on).length()
}

// arcAndLine: the piece p is round and begins at the place of reference, q is straight.
func (n *nearer) arcAndLine(p, q Piece) {
	k := p.circle()
	s, u := vecOf(q.A, p.A), vecOf(q.B, q.A)
	for _, t := range k.meets(s, u) {
		if at := s.plus(u.times(t)); t >= 0 && t <= 1 && p.spans(at) {
			n.try(0, at, at)
			return
		}
	}
	n.end(vec{}, q, false)
	n.end(vecOf(p.B, p.A), q, false)
	n.end(s, p, true)
	n.end(s.plus(u), p, true)
	if l2 := u.dot(u); l2 > 0 { // where the line from the centre stands upright on q
		if t := k.c.minus(s).dot(u) / l2; t > 0 && t < 1 {
			n.end(s.plus(u.times(t)), p, true)
		}
	}
}

// meets are the fractions of the way u from s at which the line through both crosses the circle:
// the zeros of |s + tu|² − 2(s + tu)·c, by the form that loses no figures.
func (k circle) meets(s, u vec) []float64 {
	a, b, c := u.dot(u), 2*u.dot(s.minus(k.c)), s.dot(s)-2*s.dot(k.c)
	root := b*b - 4*a*c
	if a == 0 || root < 0 {
		return nil
	}
	h := -(b + math.Copysign(math.Sqrt(root), b)) / 2
	if h == 0 {
		return []float64{0}
	}
	return []float64{h / a, c / h}
}

// arcs: both pieces are round, the first begins at the place of reference.
func (n *nearer) arcs(p, q Piece) {
	k, l := p.circle(), q.circle()
	o := vecOf(q.A, p.A)
	apart := o.plus(l.c).minus(k.c) // from centre to centre
	if d2 := apart.dot(apart); d2 > 0 {
		// the circles cross on the line x·apart = (|o|² + 2o·c)/2, c the second's centre seen from o
		foot := apart.times((o.dot(o) + 2*o.dot(l.c)) / 2 / d2)
		u := vec{-apart.y, apart.x}
		for _, t := range k.meets(foot, u) {
			if at := foot.plus(u.times(t)); p.spans(at) && q.spans(at.minus(o)) {
				n.try(0, at, at)
				return
			}
		}
		// the line through both centres stands upright on both circles
		e := apart.times(1 / math.Sqrt(d2))
		for _, i := range []float64{1, -1} {
			if at := k.c.plus(e.times(i * k.r)); p.spans(at) {
				n.end(at, q, false)
			}
		}
	}
	n.end(vec{}, q, false)
	n.end(vecOf(p.B, p.A), q, false)
	n.end(o, p, true)
	n.end(o.plus(vecOf(q.B, q.A)), p, true)
}
