package geom

import (
	"errors"
	"math"
	"slices"
)

// Shaping of closed lines. All of these leave what they are given as it is. A corner is counted from 0; the side of a corner goes from it to the next.

// Rectangle with corners rounded by a radius, anticlockwise from its lower left.
func Rectangle(b Box, r int64) []Corner {
	out := Corners(b.Min, Pt(b.Max.X, b.Min.Y), b.Max, Pt(b.Min.X, b.Max.Y))
	r = min(r, (b.Max.X-b.Min.X)/2, (b.Max.Y-b.Min.Y)/2)
	if r <= 0 {
		return out
	}
	for i := 3; i >= 0; i-- {
		out, _ = RoundCorner(out, i, r) // it has room
	}
	return join(out)
}

// join leaves out corners that lie where the next one does, as when a side is wholly taken up by the roundings at its ends.
func join(c []Corner) []Corner {
	var out []Corner
	for i, p := range c {
		if p.Point != c[(i+1)%len(c)].Point {
			out = append(out, p)
		}
	}
	return out
}

// CircleLine is a circle as a closed line.
func CircleLine(centre Point, r int64) []Corner {
	return []Corner{
		Pt(centre.X+r, centre.Y).Through(Pt(centre.X, centre.Y+r)),
		Pt(centre.X-r, centre.Y).Through(Pt(centre.X, centre.Y-r)),
	}
}

// SlotLine is the outline of a slot between two places, as wide as said.
func SlotLine(a, b Point, width int64) []Corner {
	d := a.Dist(b)
	if d == 0 {
		return CircleLine(a, width/2)
	}
	k := float64(width) / 2 / d
	side := Pt(int64(math.Round(-k*float64(b.Y-a.Y))), int64(math.Round(k*float64(b.X-a.X))))
	along := Pt(side.Y, -side.X)
	return []Corner{
		{Point: a.Sub(side)}, b.Sub(side).Through(b.Add(along)),
		{Point: b.Add(side)}, a.Add(side).Through(a.Sub(along)),
	}
}

func cloned(c []Corner) []Corner {
	out := slices.Clone(c)
	for i := range out {
		if m := out[i].Mid; m != nil {
			p := *m
			out[i].Mid = &p
		}
	}
	return out
}

// MoveCorner puts a corner elsewhere. Arcs beside it keep their form: they are turned and stretched with their chord.
func MoveCorner(c []Corner, i int, to Point) []Corner {
	out := cloned(c)
	n := len(c)
	before := (i + n - 1) % n
	out[i].Point = to
	for _, k := range []int{before, i} {
		if c[k].Mid == nil {
			continue
		}
		m := follow(c[k].Point, c[(k+1)%n].Point, *c[k].Mid, out[k].Point, out[(k+1)%n].Point)
		out[k].Mid = &m
	}
	return out
}

// follow carries a place over as a chord goes from a–b to p–q.
func follow(a, b, m, p, q Point) Point {
	u, v, w := vecOf(b, a), vecOf(m, a), vecOf(q, p)
	l := u.dot(u)
	if l == 0 {
		return p.Add(m.Sub(a))
	}
	along, aside := v.dot(u)/l, u.cross(v)/l
	return vec{w.x*along - w.y*aside, w.y*along + w.x*aside}.rounded(p)
}

// SplitSide makes a corner in the middle of a side, at the place; an arc goes on through it as two.
func SplitSide(c []Corner, i int, at Point) []Corner {
	out := cloned(c)
	if out[i].Mid == nil {
		return slices.Insert(out, i+1, Corner{Point: at})
	}
	p := c[i].PieceTo(c[(i+1)%len(c)])
	k := p.circle()
	spot := k.onto(vecOf(at, p.A)).rounded(p.A) // on the arc
	first, second := p.part(p.A, spot), p.part(spot, p.B)
	out[i].Mid = &first
	return slices.Insert(out, i+1, Corner{spot, &second})
}

// part is the middle of the way along a round piece between two places on it.
func (p Piece) part(from, to Point) Point {
	k := p.circle()
	a, b := vecOf(from, p.A).minus(k.c), vecOf(to, p.A).minus(k.c)
	turn := k.way * math.Atan2(a.cross(b), a.dot(b))
	if turn <= 0 {
		turn += 2 * math.Pi
	}
	sin, cos := math.Sincos(k.way * turn / 2)
	return k.c.plus(vec{a.x*cos - a.y*sin, a.x*sin + a.y*cos}).rounded(p.A)
}

// DropCorner takes a corner out; the side that then spans its place is straight.
func DropCorner(c []Corner, i int) ([]Corner, error) {
	if len(c) <= 3 {
		return nil, errors.New("a closed line keeps three corners at least")
	}
	out := cloned(c)
	out[(i+len(c)-1)%len(c)].Mid = nil
	return slices.Delete(out, i, i+1), nil
}

// RoundCorner rounds a corner between two straight sides by an arc of the radius.
func RoundCorner(c []Corner, i int, r int64) ([]Corner, error) {
	from, to, bisector, err := cutBack(c, i, func(half float64) float64 { return float64(r) / math.Tan(half) })
	if err != nil || r <= 0 {
		return nil, errors.Join(err, positive(r))
	}
	p := c[i].Point
	half := bisector.angle
	mid := vec{bisector.x, bisector.y}.times(float64(r)/math.Sin(half) - float64(r)).rounded(p)
	out := cloned(c)
	out[i] = from.Through(mid)
	return slices.Insert(out, i+1, Corner{Point: to}), nil
}

func positive(v int64) error {
	if v > 0 {
		return nil
	}
	return errors.New("it must be more than nothing")
}

// BevelCorner cuts a corner between two straight sides off, so much along both.
func BevelCorner(c []Corner, i int, size int64) ([]Corner, error) {
	from, to, _, err := cutBack(c, i, func(float64) float64 { return float64(size) })
	if err != nil || size <= 0 {
		return nil, errors.Join(err, positive(size))
	}
	out := cloned(c)
	out[i] = Corner{Point: from}
	return slices.Insert(out, i+1, Corner{Point: to}), nil
}

// halving is the direction that halves a corner's angle, and half of that.
type halving struct{ x, y, angle float64 }

// cutBack finds where both sides of a corner are cut, so far from it as is told for half its angle.
func cutBack(c []Corner, i int, back func(half float64) float64) (from, to Point, h halving, err error) {
	n := len(c)
	a, p, b := c[(i+n-1)%n], c[i], c[(i+1)%n]
	if a.Mid != nil || p.Mid != nil {
		return from, to, h, errors.New("only a corner between two straight sides can be rounded or cut off")
	}
	u, v := vecOf(a.Point, p.Point), vecOf(b.Point, p.Point)
	lu, lv := u.length(), v.length()
	u, v = u.times(1/lu), v.times(1/lv)
	half := math.Atan2(math.Abs(u.cross(v)), u.dot(v)) / 2
	if math.Abs(math.Sin(2*half)) < 1e-9 {
		return from, to, h, errors.New("there is no corner: both sides lie in one line")
	}
	t := back(half)
	if t > lu+0.5 || t > lv+0.5 {
		return from, to, h, errors.New("its sides are too short for that")
	}
	w := u.plus(v)
	l := w.length()
	return u.times(min(t, lu)).rounded(p.Point), v.times(min(t, lv)).rounded(p.Point), halving{w.x / l, w.y / l, half}, nil
}

// BendSide makes a side an arc through a place; one in line with its ends makes it straight.
func BendSide(c []Corner, i int, through Point) []Corner {
	out := cloned(c)
	m := through
	out[i].Mid = &m
	if !out[i].PieceTo(out[(i+1)%len(c)]).Round() {
		out[i].Mid = nil
	}
	return out
}

// BendRadius gives a side's arc a radius; a straight side bows outwards. The lesser arc is meant. 0: straight.
func BendRadius(c []Corner, i int, r int64) ([]Corner, error) {
	out := cloned(c)
	if r == 0 {
		out[i].Mid = nil
		return out, nil
	}
	a, b := c[i].Point, c[(i+1)%len(c)].Point
	half := a.Dist(b) / 2
	if float64(r) < half-0.5 {
		return nil, errors.New("the radius is less than half the distance of its ends")
	}
	rise := float64(r) - math.Sqrt(max(float64(r)*float64(r)-half*half, 0))
	u := vecOf(b, a)
	right := vec{u.y, -u.x}.times(1 / u.length()) // outwards of a line that goes anticlockwise
	if Closing(c).Area() < 0 {
		right = right.times(-1)
	}
	if m := c[i].Mid; m != nil && vecOf(*m, a).dot(right) < 0 {
		right = right.times(-1)
	}
	m := u.times(0.5).plus(right.times(rise)).rounded(a)
	out[i].Mid = &m
	return out, nil
}

// SetSide makes a straight side so long: the corner at its end goes along it.
func SetSide(c []Corner, i int, length int64) ([]Corner, error) {
	if c[i].Mid != nil {
		return nil, errors.New("the length of an arc follows from its ends and its radius")
	}
	if length <= 0 {
		return nil, positive(length)
	}
	k := (i + 1) % len(c)
	u := vecOf(c[k].Point, c[i].Point)
	return MoveCorner(c, k, u.times(float64(length)/u.length()).rounded(c[i].Point)), nil
}
