package overlay

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/geom"
)

// Triangle is three places, anticlockwise.
type Triangle [3]geom.Point

// Triangles cuts areas into triangles. Their corners are those of the areas' lines, and where a height at which a line begins or ends in the
// midst of an area meets the lines beside it, rounded to the nanometre.
//
// Source: de Berg, Cheong, van Kreveld, Overmars, Computational Geometry (3rd ed.), chapter 3: pieces that every height meets in one stretch,
// cut off by a line that sweeps upwards, each then triangulated with a stack. Cuts are level here.
func Triangles(list []Area) (out []Triangle) {
	for _, a := range list {
		s := &sweep{}
		for _, line := range append([][]geom.Point{a.Outer}, a.Holes...) {
			s.take(line)
		}
		s.run()
		out = append(out, s.out...)
	}
	return out
}

// side is a straight side of a line that is not level, from its lower to its upper end.
type side struct {
	low, high geom.Point
	next      *side   // the one that alone begins where this ends; nil: it ends otherwise
	x         float64 // where it is half way up the stretch that is looked at
	piece     *piece  // that it bounds to the left; nil: none
}

// at is where the side is at a height.
func (s *side) at(y int64) geom.Point {
	switch y {
	case s.low.Y:
		return s.low
	case s.high.Y:
		return s.high
	}
	return geom.Pt(int64(math.Round(s.across(float64(y)))), y)
}

func (s *side) across(y float64) float64 {
	return float64(s.low.X) + float64(s.high.X-s.low.X)*(y-float64(s.low.Y))/float64(s.high.Y-s.low.Y)
}

// piece is a part of an area that every height meets in one stretch.
type piece struct {
	left, right         *side
	leftward, rightward []geom.Point // its corners so far, upwards
	seen                int          // the stretch that it was seen in last
}

// sweep goes through an area upwards.
type sweep struct {
	sides  []*side
	active []*side
	pieces []*piece
	out    []Triangle
}

// take takes the sides of a line.
func (s *sweep) take(line []geom.Point) {
	for i, a := range line {
		b := line[(i+1)%len(line)]
		switch {
		case a.Y < b.Y:
			s.sides = append(s.sides, &side{low: a, high: b})
		case a.Y > b.Y:
			s.sides = append(s.sides, &side{low: b, high: a})
		}
	}
}

// chain tells each side which one follows it: where one alone ends and one alone begins.
func (s *sweep) chain() {
	begins, ends := map[geom.Point][]*side{}, map[geom.Point]int{}
	for _, e := range s.sides {
		begins[e.low] = append(begins[e.low], e)
		ends[e.high]++
	}
	for _, e := range s.sides {
		if next := begins[e.high]; len(next) == 1 && ends[e.high] == 1 {
			e.next = next[0]
		}
	}
}

func (s *sweep) run() {
	s.chain()
	slices.SortFunc(s.sides, func(a, b *side) int { return cmp.Or(cmp.Compare(a.low.Y, b.low.Y), cmp.Compare(a.low.X, b.low.X)) })
	heights := make([]int64, 0, 2*len(s.sides))
	for _, e := range s.sides {
		heights = append(heights, e.low.Y, e.high.Y)
	}
	slices.Sort(heights)
	heights = slices.Compact(heights)
	begun := 0
	for k, y := range heights {
		s.active = slices.DeleteFunc(s.active, func(e *side) bool { return e.high.Y <= y })
		for ; begun < len(s.sides) && s.sides[begun].low.Y == y; begun++ {
			s.active = append(s.active, s.sides[begun])
		}
		if k+1 < len(heights) {
			middle := (float64(y) + float64(heights[k+1])) / 2
			for _, e := range s.active {
				e.x = e.across(middle)
			}
			sorted(s.active)
		}
		s.step(y, k+1)
	}
}

// sorted sorts what is nearly sorted.
func sorted(list []*side) {
	for i := 1; i < len(list); i++ {
		for j := i; j > 0 && list[j].x < list[j-1].x; j-- {
			list[j], list[j-1] = list[j-1], list[j]
		}
	}
}

// step goes over a height: pieces go on between sides that are still there or follow on, others end or begin.
func (s *sweep) step(y int64, stretch int) {
	for _, p := range s.pieces { // whose sides follow on
		if p.left.high.Y == y && p.left.next != nil {
			p.left.piece = nil
			p.left = p.left.next
			p.leftward = append(p.leftward, p.left.low)
			p.left.piece = p
		}
		if p.right.high.Y == y && p.right.next != nil {
			p.right = p.right.next
			p.rightward = append(p.rightward, p.right.low)
		}
	}
	var begun []*piece
	for i := 0; i+1 < len(s.active); i += 2 {
		l, r := s.active[i], s.active[i+1]
		if p := l.piece; p != nil && p.left == l && p.right == r {
			p.seen = stretch
			continue
		}
		begun = append(begun, &piece{left: l, right: r, seen: stretch})
	}
	s.pieces = slices.DeleteFunc(s.pieces, func(p *piece) bool {
		if p.seen == stretch {
			return false
		}
		s.end(p, y)
		return true
	})
	for _, p := range begun {
		p.leftward, p.rightward = []geom.Point{p.left.at(y)}, []geom.Point{p.right.at(y)}
		p.left.piece = p
		s.pieces = append(s.pieces, p)
	}
}

// end ends a piece at a height and cuts it into triangles.
func (s *sweep) end(p *piece, y int64) {
	if p.left.piece == p {
		p.left.piece = nil
	}
	top := func(chain []geom.Point, e *side) []geom.Point {
		if chain[len(chain)-1].Y == y {
			return chain // it has just followed on
		}
		return append(chain, e.at(y))
	}
	type corner struct {
		geom.Point
		right bool
	}
	var all []corner
	l, r := top(p.leftward, p.left), top(p.rightward, p.right)
	for len(l) > 0 || len(r) > 0 {
		if len(r) == 0 || len(l) > 0 && l[0].Y <= r[0].Y {
			all = append(all, corner{l[0], false})
			l = l[1:]
		} else {
			all = append(all, corner{r[0], true})
			r = r[1:]
		}
	}
	var stack []corner
	emit := func(a, b, c corner) {
		t := Triangle{a.Point, b.Point, c.Point}
		if area := geom.Area(t[:]); area < 0 {
			t[1], t[2] = t[2], t[1]
		} else if area == 0 {
			return
		}
		s.out = append(s.out, t)
	}
	for _, c := range all {
		if n := len(stack); n >= 2 && stack[n-1].right != c.right {
			for i := 1; i < n; i++ {
				emit(stack[i-1], stack[i], c)
			}
			stack = append(stack[:0], stack[n-1], c)
			continue
		}
		for len(stack) >= 2 {
			a, b := stack[len(stack)-2], stack[len(stack)-1]
			turn := geom.Area([]geom.Point{a.Point, b.Point, c.Point})
			if c.right == (turn < 0) && turn != 0 || b.right != c.right {
				break // the side bends inwards here
			}
			emit(a, b, c)
			stack = stack[:len(stack)-1]
		}
		stack = append(stack, c)
	}
}
