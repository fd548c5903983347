package geom

import (
	"cmp"
	"math"
	"slices"
)

// Piece is a piece of a line from A to B: an arc through M where M lies beside the straight
// line between them, else that straight line. Where A and B are one place and M is another, it
// is the whole circle across from A to M. Through three whole places exactly one circle goes,
// so that turning and mirroring a piece is turning and mirroring its places.
type Piece struct {
	A Point `json:"a"`
	M Point `json:"m"`
	B Point `json:"b"`
}

// Straight is the straight piece from a to b.
func Straight(a, b Point) Piece { return Piece{a, a, b} }

// Round tells whether the piece is an arc or a circle.
func (p Piece) Round() bool {
	if p.M == p.A || p.M == p.B {
		return false
	}
	return p.A == p.B || side(p.A, p.B, p.M) != 0
}

// Back is the piece gone from its end to its beginning.
func (p Piece) Back() Piece {
	if !p.Round() {
		return Straight(p.B, p.A)
	}
	return Piece{p.B, p.M, p.A}
}

// ApplyPiece is the piece turned, mirrored and moved.
func (t Pose) ApplyPiece(p Piece) Piece { return Piece{t.Apply(p.A), t.Apply(p.M), t.Apply(p.B)} }

// vec is a place or a way in nanometres, from some place of reference.
type vec struct{ x, y float64 }

func vecOf(p, from Point) vec     { return vec{float64(p.X - from.X), float64(p.Y - from.Y)} }
func (v vec) plus(w vec) vec      { return vec{v.x + w.x, v.y + w.y} }
func (v vec) minus(w vec) vec     { return vec{v.x - w.x, v.y - w.y} }
func (v vec) times(k float64) vec { return vec{v.x * k, v.y * k} }
func (v vec) dot(w vec) float64   { return v.x*w.x + v.y*w.y }
func (v vec) cross(w vec) float64 { return v.x*w.y - v.y*w.x }
func (v vec) length() float64     { return math.Hypot(v.x, v.y) }
func (v vec) rounded(from Point) Point {
	return Point{from.X + int64(math.Round(v.x)), from.Y + int64(math.Round(v.y))}
}

// circle is the circle of a round piece: its centre as seen from the piece's beginning, through
// which it goes, and which way round the piece goes: 1 anticlockwise.
type circle struct {
	c   vec
	r   float64
	way float64
}

// circle of a round piece, from the two chords that leave A.
func (p Piece) circle() circle {
	m, b := vecOf(p.M, p.A), vecOf(p.B, p.A)
	if p.A == p.B {
		c := m.times(0.5)
		return circle{c, c.length(), 1}
	}
	d := 2 * m.cross(b)
	mm, bb := m.dot(m), b.dot(b)
	c := vec{(b.y*mm - m.y*bb) / d, (m.x*bb - b.x*mm) / d}
	return circle{c, c.length(), math.Copysign(1, d)}
}

// off is how far a place, as seen from the piece's beginning, lies outside the circle; less than
// nothing inside. It is told from |p|² − 2p·c, which is nothing on the circle, so that a flat arc's
// long radius does not swallow it.
func (k circle) off(p vec) float64 { return (p.dot(p) - 2*p.dot(k.c)) / (p.minus(k.c).length() + k.r) }

// onto is the place of the circle nearest to p; of the centre, any.
func (k circle) onto(p vec) vec {
	d := p.minus(k.c)
	l := d.length()
	if l == 0 {
		return vec{}
	}
	return p.minus(d.times(k.off(p) / l))
}

// spans tells whether a place of the circle, as seen from A, belongs to the piece: it lies on M's
// side of the line from A to B.
func (p Piece) spans(q vec) bool {
	if p.A == p.B {
		return true
	}
	b := vecOf(p.B, p.A)
	return b.cross(q)*b.cross(vecOf(p.M, p.A)) >= 0
}

// sweep is the angle that a round piece goes about its centre, in radians, above 0.
func (p Piece) sweep(k circle) float64 {
	if p.A == p.B {
		return 2 * math.Pi
	}
	from, to := k.c.times(-1), vecOf(p.B, p.A).minus(k.c)
	turn := k.way * math.Atan2(from.cross(to), from.dot(to))
	if turn <= 0 {
		turn += 2 * math.Pi
	}
	return turn
}

// Length in nanometres.
func (p Piece) Length() float64 {
	if !p.Round() {
		return p.A.Dist(p.B)
	}
	k := p.circle()
	return k.r * p.sweep(k)
}

// Middle of the piece: where half of its length lies on either side.
func (p Piece) Middle() Point {
	return p.At(0.5)
}

// At is the place of the piece up to which a share of its length lies, 0 to 1.
func (p Piece) At(share float64) Point {
	if !p.Round() {
		return p.A.Towards(p.B, share)
	}
	k := p.circle()
	sin, cos := math.Sincos(k.way * p.sweep(k) * share)
	d := k.c.times(-1)
	return k.c.plus(vec{d.x*cos - d.y*sin, d.x*sin + d.y*cos}).rounded(p.A)
}

// InOrder are places of the piece from A to B.
func (p Piece) InOrder(pts []Point) []Point {
	along := func(q Point) float64 {
		if !p.Round() {
			return vecOf(q, p.A).dot(vecOf(p.B, p.A))
		}
		if q == p.A {
			return 0
		}
		return Piece{p.A, p.between(p.A, q), q}.sweep(p.circle())
	}
	out := slices.Clone(pts)
	slices.SortStableFunc(out, func(a, b Point) int { return cmp.Compare(along(a), along(b)) })
	return out
}

// Leaves is the direction, of any length, in which the piece leaves its beginning.
func (p Piece) Leaves() (x, y float64) {
	if !p.Round() {
		return float64(p.B.X - p.A.X), float64(p.B.Y - p.A.Y)
	}
	k := p.circle() // its middle as seen from A
	return k.way * k.c.y, -k.way * k.c.x
}

// Between is the stretch of the piece from one of its places to a later one.
func (p Piece) Between(a, b Point) Piece {
	if !p.Round() {
		return Straight(a, b)
	}
	return Piece{a, p.between(a, b), b}
}

// Centre of a round piece, rounded, and whether it goes anticlockwise about it.
func (p Piece) Centre() (at Point, anticlockwise bool) {
	k := p.circle()
	return k.c.rounded(p.A), k.way > 0
}

// Radius of a round piece in nanometres; 0 of a straight one.
func (p Piece) Radius() float64 {
	if !p.Round() {
		return 0
	}
	return p.circle().r
}

// Box is the smallest box of whole nanometres around the piece.
func (p Piece) Box() Box {
	box := BoxOf(p.A, p.B)
	if !p.Round() {
		return box
	}
	k := p.circle()
	for _, d := range []vec{{k.r, 0}, {0, k.r}, {-k.r, 0}, {0, -k.r}} {
		if q := k.c.plus(d); p.spans(q) {
			box = box.With(Point{p.A.X + int64(math.Floor(q.x)), p.A.Y + int64(math.Floor(q.y))})
			box = box.With(Point{p.A.X + int64(math.Ceil(q.x)), p.A.Y + int64(math.Ceil(q.y))})
		}
	}
	return box
}
