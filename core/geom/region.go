package geom

import (
	"cmp"
	"math"

	"github.com/tidwall/rtree"
)

// Ring is a closed line: each piece begins where the one before it ends, the first where the last
// does. A whole circle is a ring by itself.
type Ring []Piece

// Polygon is the ring of straight pieces through the corners.
func Polygon(corners ...Point) Ring {
	out := make(Ring, len(corners))
	for i, p := range corners {
		out[i] = Straight(p, corners[(i+1)%len(corners)])
	}
	return out
}

// Closed tells whether the pieces close to a ring.
func (r Ring) Closed() bool {
	for i, p := range r {
		if p.B != r[(i+1)%len(r)].A {
			return false
		}
	}
	return len(r) > 0
}

// Box around the ring.
func (r Ring) Box() Box {
	var e Extent
	for _, p := range r {
		e.AddBox(p.Box())
	}
	return e.Box
}

// Area within the ring in square nanometres, above 0 when it goes anticlockwise. A whole circle
// counts as anticlockwise.
func (r Ring) Area() float64 {
	if len(r) == 0 {
		return 0
	}
	from, sum := r[0].A, 0.0
	for _, p := range r {
		sum += vecOf(p.A, from).cross(vecOf(p.B, from)) / 2
		if p.Round() {
			k := p.circle()
			sweep := p.sweep(k)
			sum += k.way * k.r * k.r * (sweep - math.Sin(sweep)) / 2 // between chord and arc
		}
	}
	return sum
}

// Holds tells whether a place lies within the ring or on it.
func (r Ring) Holds(p Point) bool {
	in := false
	for _, q := range r {
		if d, _, _ := PieceDistance(q, Straight(p, p)); d <= beside {
			return true
		}
		if q.right(p) {
			in = !in
		}
		if q.Round() && q.bulges(p) {
			in = !in
		}
	}
	return in
}

// Region is what lies within its outer ring and in none of its holes. Rings do not cross one
// another nor themselves. Its borders belong to it.
type Region struct {
	Outer Ring   `json:"outer"`
	Holes []Ring `json:"holes,omitempty"`
}

// Area of the region in square nanometres.
func (r Region) Area() float64 {
	sum := math.Abs(r.Outer.Area())
	for _, h := range r.Holes {
		sum -= math.Abs(h.Area())
	}
	return sum
}

// Prepared is a region made ready for many questions: each costs about the logarithm of the number
// of its pieces. It may be asked by several at once.
type Prepared struct {
	box  Box
	tree rtree.RTreeG[Piece]
}

// Prepare makes a region ready.
func (r Region) Prepare() *Prepared {
	out := &Prepared{box: r.Outer.Box()}
	for _, ring := range append([]Ring{r.Outer}, r.Holes...) {
		for _, p := range ring {
			lo, hi := corners(p.Box())
			out.tree.Insert(lo, hi, p)
		}
	}
	return out
}

func corners(b Box) (lo, hi [2]float64) {
	return [2]float64{float64(b.Min.X), float64(b.Min.Y)}, [2]float64{float64(b.Max.X), float64(b.Max.Y)}
}

// Box around the region.
func (r *Prepared) Box() Box { return r.box }

// beside is how far from a border a place still counts as on it, in nanometres: arcs seldom go
// through whole places.
const beside = 0.75

// Holds tells whether a place lies in the region or on its border.
func (r *Prepared) Holds(p Point) bool {
	if !r.box.Holds(p) {
		return false
	}
	in, on := false, false
	at := [2]float64{float64(p.X), float64(p.Y)}
	r.tree.Search(at, [2]float64{math.Inf(1), at[1]}, func(_, _ [2]float64, q Piece) bool {
		if d, _, _ := PieceDistance(q, Straight(p, p)); d <= beside {
			on = true
			return false
		}
		if q.right(p) {
			in = !in
		}
		if q.Round() && q.bulges(p) {
			in = !in
		}
		return true
	})
	return on || in
}

// A place on the straight line between a piece's ends stands, for right and bulges alike, a
// little to the right of where it is, and above by less than that.

// right tells whether the straight line between the ends passes the place on its right.
func (p Piece) right(at Point) bool {
	if (p.A.Y > at.Y) == (p.B.Y > at.Y) {
		return false
	}
	s := side(p.A, p.B, at)
	return s != 0 && (s > 0) == (p.B.Y > p.A.Y)
}

// bulges tells whether the place lies between the straight line and the arc.
func (p Piece) bulges(at Point) bool {
	if p.circle().off(vecOf(at, p.A)) > 0 {
		return false
	}
	if p.A == p.B {
		return true
	}
	s := cmp.Or(side(p.A, p.B, at), cmp.Compare(p.A.Y, p.B.Y), cmp.Compare(p.B.X, p.A.X))
	return s == side(p.A, p.B, p.M)
}

// Distance is the distance of a piece from the region in nanometres, 0 where it touches it or lies
// in it, with the nearest place of the region and that of the piece.
func (r *Prepared) Distance(p Piece) (d float64, at, of Point) {
	if r.Holds(p.A) {
		return 0, p.A, p.A
	}
	return r.Border(p)
}

// Border is the distance of a piece from the region's border in nanometres, whether it lies within or
// without, with the nearest place of the border and that of the piece.
func (r *Prepared) Border(p Piece) (d float64, at, of Point) {
	lo, hi := corners(p.Box())
	d = math.Inf(1)
	r.tree.Nearby(func(bl, bh [2]float64, q Piece, item bool) float64 {
		if item {
			e, _, _ := PieceDistance(q, p)
			return e
		}
		dx, dy := max(bl[0]-hi[0], lo[0]-bh[0], 0), max(bl[1]-hi[1], lo[1]-bh[1], 0)
		return math.Hypot(dx, dy)
	}, func(_, _ [2]float64, q Piece, _ float64) bool {
		d, at, of = PieceDistance(q, p)
		return false
	})
	return d, at, of
}

// Between is the distance of two regions in nanometres, 0 where they meet or one lies in the other,
// with the nearest place of each. Cost: about the pieces of the second times the logarithm of those of
// the first.
func Between(r, s *Prepared) (d float64, at, of Point) {
	if s.tree.Len() > r.tree.Len() {
		d, of, at = Between(s, r)
		return d, at, of
	}
	d = math.Inf(1)
	s.tree.Scan(func(_, _ [2]float64, p Piece) bool {
		if e, x, y := r.Distance(p); e < d {
			d, at, of = e, x, y
		}
		return d > 0
	})
	if d > 0 {
		r.tree.Scan(func(_, _ [2]float64, p Piece) bool { // the first may lie wholly within the second
			if s.Holds(p.A) {
				d, at, of = 0, p.A, p.A
			}
			return false
		})
	}
	return d, at, of
}
