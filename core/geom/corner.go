package geom

import "math"

// Corner is a corner of a line: the way on to the next corner is an arc through Mid, straight
// without one.
type Corner struct {
	Point
	Mid *Point `json:"mid,omitempty"`
}

// Corners are corners with straight ways between them.
func Corners(pts ...Point) []Corner {
	if len(pts) == 0 {
		return nil
	}
	out := make([]Corner, len(pts))
	for i, p := range pts {
		out[i].Point = p
	}
	return out
}

// Through is the corner with an arc through mid to the next one.
func (p Point) Through(mid Point) Corner { return Corner{p, &mid} }

// PieceTo is the way from the corner to the next.
func (c Corner) PieceTo(next Corner) Piece {
	if c.Mid == nil {
		return Straight(c.Point, next.Point)
	}
	return Piece{c.Point, *c.Mid, next.Point}
}

// Closing is the ring through the corners, back to the first.
func Closing(corners []Corner) Ring {
	out := make(Ring, len(corners))
	for i, c := range corners {
		out[i] = c.PieceTo(corners[(i+1)%len(corners)])
	}
	return out
}

// Places are the places of corners alone: arcs become straight.
func Places(corners []Corner) []Point {
	out := make([]Point, len(corners))
	for i, c := range corners {
		out[i] = c.Point
	}
	return out
}

// Named are all places that corners name, those in the middle of arcs too.
func Named(corners []Corner) []Point {
	out := make([]Point, 0, len(corners))
	for _, c := range corners {
		out = append(out, c.Point)
		if c.Mid != nil {
			out = append(out, *c.Mid)
		}
	}
	return out
}

// ApplyCorners carries corners and the middles of their arcs over.
func (t Pose) ApplyCorners(corners []Corner) []Corner {
	if len(corners) == 0 {
		return nil
	}
	out := make([]Corner, len(corners))
	for i, c := range corners {
		out[i].Point = t.Apply(c.Point)
		if c.Mid != nil {
			m := t.Apply(*c.Mid)
			out[i].Mid = &m
		}
	}
	return out
}

// SameCorners tells whether two lists of corners are equal.
func SameCorners(a, b []Corner) bool {
	if len(a) != len(b) {
		return false
	}
	for i := range a {
		if a[i].Point != b[i].Point || (a[i].Mid == nil) != (b[i].Mid == nil) || a[i].Mid != nil && *a[i].Mid != *b[i].Mid {
			return false
		}
	}
	return true
}

// Flat gives places along the ring so that straight lines between them leave it by no more than
// the tolerance; see Piece.Along. The last is not the first again.
func (r Ring) Flat(tolerance int64, around bool) []Point {
	var out []Point
	for _, p := range r {
		along := p.Along(tolerance, around)
		out = append(out, along[:len(along)-1]...)
	}
	return out
}

// Crossing finds two pieces of rings that cross or touch where they should not, and where. Pieces
// that follow each other may meet at their common end alone. Cost: the square of the number of
// pieces, but for those whose boxes are apart.
func Crossing(rings ...Ring) (Point, bool) {
	type place struct{ ring, at int }
	var pieces []Piece
	var of []place
	var boxes []Box
	for r, ring := range rings {
		for i, p := range ring {
			pieces, of, boxes = append(pieces, p), append(of, place{r, i}), append(boxes, p.Box())
		}
	}
	for i, p := range pieces {
		n := len(rings[of[i].ring])
		for j := i + 1; j < len(pieces); j++ {
			if !boxes[i].Grow(1).Meets(boxes[j]) {
				continue
			}
			q := pieces[j]
			same := of[i].ring == of[j].ring
			next, last := same && of[j].at == of[i].at+1, same && of[i].at == 0 && of[j].at == n-1
			switch {
			case next && last: // two pieces alone close a ring
				if at, bad := meetAgain(p, q); bad {
					return at, true
				}
			case next:
				if at, bad := folds(p, q); bad {
					return at, true
				}
			case last:
				if at, bad := folds(q, p); bad {
					return at, true
				}
			default:
				if d, at, _ := PieceDistance(p, q); d <= beside {
					return at, true
				}
			}
		}
	}
	return Point{}, false
}

// folds tells whether a piece that follows another meets it elsewhere than at their common end.
func folds(p, q Piece) (Point, bool) {
	if !p.Round() && !q.Round() {
		if side(p.A, p.B, q.B) == 0 && p.B.Dist(p.A)+p.B.Dist(q.B) > p.A.Dist(q.B)+1 {
			return p.B, true
		}
		return Point{}, false
	}
	return meetAgain(p, q)
}

// meetAgain looks for a place, beside the ends that they share, at which two pieces meet, at least one of
// them round. Pieces that run on into each other may lie within a hair of each other there: they meet
// again where they parted in between.
func meetAgain(p, q Piece) (Point, bool) {
	if !p.Round() && !q.Round() {
		return p.A, true // to and fro on one line
	}
	const hair = 10.0
	var shared []Point
	for _, e := range []Point{p.A, p.B} {
		if e == q.A || e == q.B {
			shared = append(shared, e)
		}
	}
	onP := func(at Point) bool { d, _, _ := PieceDistance(p, Straight(at, at)); return d <= hair }
	for _, at := range supports(p, q) {
		d, _, _ := PieceDistance(q, Straight(at, at))
		if d > hair || !onP(at) {
			continue
		}
		parted := true
		for _, e := range shared {
			parted = parted && at != e && !onP(q.between(e, at))
		}
		if parted {
			return at, true
		}
	}
	if m := q.Middle(); onP(m) && q.Round() { // one lies along the other
		return m, true
	}
	return Point{}, false
}

// between is a place of the piece halfway from one of its ends to another place of it.
func (p Piece) between(end, at Point) Point {
	if !p.Round() {
		return end.Towards(at, 0.5)
	}
	k := p.circle()
	from, to := vecOf(end, p.A).minus(k.c), vecOf(at, p.A).minus(k.c)
	half := math.Atan2(from.cross(to), from.dot(to)) / 2
	for _, turn := range []float64{half, half + math.Pi} {
		sin, cos := math.Sincos(turn)
		if m := k.c.plus(vec{from.x*cos - from.y*sin, from.x*sin + from.y*cos}); p.spans(m) {
			return m.rounded(p.A)
		}
	}
	return end
}

// supports are the places at which the whole lines or circles that pieces lie on meet, at least one of
// them a circle.
func supports(p, q Piece) (out []Point) {
	if !p.Round() {
		p, q = q, p
	}
	k := p.circle()
	s, u := vecOf(q.A, p.A), vecOf(q.B, q.A)
	if q.Round() { // the circles meet on a line across that through their middles
		l := q.circle()
		apart := s.plus(l.c).minus(k.c)
		d2 := apart.dot(apart)
		if d2 == 0 {
			return nil
		}
		s, u = apart.times((s.dot(s)+2*s.dot(l.c))/2/d2), vec{-apart.y, apart.x}
	}
	for _, t := range k.meets(s, u) {
		out = append(out, s.plus(u.times(t)).rounded(p.A))
	}
	return out
}
