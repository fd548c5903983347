// Package spanning finds the shortest lines that join points of the plane, and keeps what they are chosen
// among up to date as points come and go.
//
// A line of a shortest tree is the shortest from its lower end into its sixth of the circle: of two lines
// that start at one point less than 60° apart, the longer is the longest side of a triangle, and no
// shortest tree has the longest side of a circle of lines. So the nearest point in each of the three sixths
// above a point are all that need be looked at. Source: Yao, On constructing minimum spanning trees in
// k-dimensional spaces, SIAM J. Comput. 11, 1982. Which lines are chosen among depends on the points
// alone, not on the order in which they came.
package spanning

import (
	"math"

	"goldentrace/core/geom"
)

// sixths of the circle above a point: [0°, 60°), [60°, 120°), [120°, 180°).
const sixths = 3

const tan60 = 1.7320508075688772

// none is no point.
const none = int32(-1)

// Points are places that lines can end at, each only once. The zero value has none.
type Points struct {
	at   []geom.Point
	live []bool
	near [sixths][]int32   // of each point the nearest in each sixth above it
	far  [sixths][]float64 // and how far that is, squared; infinite without one
	// free are numbers that may be given again; spent ones may be when the tree is made anew
	free, spent []int32
	count       int
	tree        tree
	loose       []int32 // points that the tree does not hold
	lines       []Line  // candidates in order, those of changed sixths left out
	stale       []slot  // sixths whose line is not among the lines
}

// Line joins two points, A the lower one: further down, or left of B at the same height.
type Line struct {
	A, B   int32
	length float64 // squared
	sixth  uint8
}

type slot struct {
	point int32
	sixth uint8
}

// Len is how many points there are.
func (s *Points) Len() int { return s.count }

// At is a point's place.
func (s *Points) At(i int32) geom.Point { return s.at[i] }

// below tells whether p is the lower end of a line from p to q.
func below(p, q geom.Point) bool { return p.Y < q.Y || p.Y == q.Y && p.X < q.X }

// towards is the sixth of the circle in which a point lies that is dx, dy away and not below, and how far
// away it is, squared.
func towards(dx, dy float64) (sixth int, d float64) {
	switch {
	case dx > 0 && dy < tan60*dx:
	case dx < 0 && dy <= -tan60*dx:
		sixth = 2
	default:
		sixth = 1
	}
	return sixth, dx*dx + dy*dy
}

// nearer tells whether a line of length d to point i goes before the one that the slot has.
func (s *Points) nearer(k int, from int32, d float64, to int32) bool {
	was := s.far[k][from]
	return d < was || d == was && below(s.at[to], s.at[s.near[k][from]])
}

func (s *Points) set(k int, from, to int32, d float64) {
	s.near[k][from], s.far[k][from] = to, d
	s.stale = append(s.stale, slot{from, uint8(k)})
}

// Change takes points out and others in, and tells the numbers of those that came. Each must not be there
// yet. Cost: O(n) for each, O(n log n) for many.
func (s *Points) Change(gone []int32, come []geom.Point) []int32 {
	many := len(gone)+len(come) > 40+s.count/20
	for _, i := range gone {
		s.live[i] = false
		s.count--
		s.spent = append(s.spent, i)
	}
	out := make([]int32, len(come))
	for n, p := range come {
		out[n] = s.number(p)
	}
	switch {
	case many:
		s.all()
	default:
		s.without(gone)
		for _, i := range out {
			s.meet(i)
		}
	}
	return out
}

// number makes a point, which is not held against the others yet.
func (s *Points) number(p geom.Point) int32 {
	s.count++
	var i int32
	if n := len(s.free); n > 0 {
		i, s.free = s.free[n-1], s.free[:n-1]
		s.at[i], s.live[i] = p, true
	} else {
		i = int32(len(s.at))
		s.at, s.live = append(s.at, p), append(s.live, true)
		for k := range sixths {
			s.near[k], s.far[k] = append(s.near[k], none), append(s.far[k], math.Inf(1))
		}
	}
	for k := range sixths {
		s.near[k][i], s.far[k][i] = none, math.Inf(1)
	}
	s.loose = append(s.loose, i)
	return i
}

// meet holds a new point against all others.
func (s *Points) meet(i int32) {
	p := s.at[i]
	for j, q := range s.at {
		if !s.live[j] || int32(j) == i {
			continue
		}
		dx, dy := float64(q.X-p.X), float64(q.Y-p.Y)
		if dy > 0 || dy == 0 && dx > 0 {
			if k, d := towards(dx, dy); s.nearer(k, i, d, int32(j)) {
				s.near[k][i], s.far[k][i] = int32(j), d
			}
		} else if k, d := towards(-dx, -dy); s.nearer(k, int32(j), d, i) {
			s.set(k, int32(j), i, d)
		}
	}
	for k := range sixths {
		s.stale = append(s.stale, slot{i, uint8(k)})
	}
	if len(s.loose)+len(s.spent) > 64+s.count/8 {
		s.plant()
	}
}

// without finds new lines for those that ended at points that are gone.
func (s *Points) without(gone []int32) {
	if len(gone) == 0 {
		return
	}
	for k := range sixths {
		near := s.near[k]
		for j, to := range near {
			if to != none && !s.live[to] && s.live[j] {
				s.search(k, int32(j))
			}
		}
		for _, i := range gone {
			near[i], s.far[k][i] = none, math.Inf(1)
			s.stale = append(s.stale, slot{i, uint8(k)})
		}
	}
}

// search finds the nearest point in a sixth anew.
func (s *Points) search(k int, i int32) {
	s.near[k][i], s.far[k][i] = none, math.Inf(1)
	s.tree.nearest(s, k, i)
	for _, j := range s.loose {
		s.try(k, i, j)
	}
	s.stale = append(s.stale, slot{i, uint8(k)})
}

// try holds one point against another.
func (s *Points) try(k int, i, j int32) {
	if j == i || !s.live[j] || !below(s.at[i], s.at[j]) {
		return
	}
	p, q := s.at[i], s.at[j]
	if in, d := towards(float64(q.X-p.X), float64(q.Y-p.Y)); in == k && s.nearer(k, i, d, j) {
		s.near[k][i], s.far[k][i] = j, d
	}
}

// all holds everything against everything.
func (s *Points) all() {
	s.plant()
	s.lines, s.stale = nil, nil
	for i := range s.at {
		for k := range sixths {
			s.near[k][i], s.far[k][i] = none, math.Inf(1)
			if s.live[i] {
				s.search(k, int32(i))
			}
		}
	}
}

// plant makes the tree anew of all points.
func (s *Points) plant() {
	s.free, s.spent, s.loose = append(s.free, s.spent...), nil, s.loose[:0]
	all := make([]int32, 0, s.count)
	for i, live := range s.live {
		if live {
			all = append(all, int32(i))
		}
	}
	s.tree.plant(s.at, all)
}
