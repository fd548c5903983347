package spanning

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/geom"
)

// tree finds points by place: halves of halves, each with the box around it. Source: Bentley,
// Multidimensional binary search trees, Comm. ACM 18, 1975.
type tree struct {
	points []int32
	nodes  []node
}

type node struct {
	minX, minY, maxX, maxY float64
	from, to               int32 // among the points
	left, right            int32 // nodes; 0: a leaf
}

const leaf = 8

func (t *tree) plant(at []geom.Point, points []int32) {
	t.points, t.nodes = points, t.nodes[:0]
	if len(points) > 0 {
		t.grow(at, 0, int32(len(points)))
	}
}

func (t *tree) grow(at []geom.Point, from, to int32) int32 {
	n := node{math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1), from, to, 0, 0}
	for _, i := range t.points[from:to] {
		x, y := float64(at[i].X), float64(at[i].Y)
		n.minX, n.minY, n.maxX, n.maxY = min(n.minX, x), min(n.minY, y), max(n.maxX, x), max(n.maxY, y)
	}
	own := int32(len(t.nodes))
	t.nodes = append(t.nodes, n)
	if to-from <= leaf {
		return own
	}
	wide := n.maxX-n.minX > n.maxY-n.minY
	slices.SortFunc(t.points[from:to], func(a, b int32) int {
		if wide {
			return cmp.Compare(at[a].X, at[b].X)
		}
		return cmp.Compare(at[a].Y, at[b].Y)
	})
	middle := (from + to) / 2
	left := t.grow(at, from, middle)
	right := t.grow(at, middle, to)
	t.nodes[own].left, t.nodes[own].right = left, right
	return own
}

// nearest holds a point against those in one of its sixths that may be nearest.
func (t *tree) nearest(s *Points, k int, i int32) {
	if len(t.nodes) > 0 {
		t.visit(s, k, i, float64(s.at[i].X), float64(s.at[i].Y), 0)
	}
}

func (t *tree) visit(s *Points, k int, i int32, x, y float64, at int32) {
	n := &t.nodes[at]
	if n.left == 0 {
		for _, j := range t.points[n.from:n.to] {
			s.try(k, i, j)
		}
		return
	}
	a, b := n.left, n.right
	da, db := t.nodes[a].reach(k, x, y), t.nodes[b].reach(k, x, y)
	if db < da {
		a, b, da, db = b, a, db, da
	}
	if da <= s.far[k][i] && !math.IsInf(da, 1) {
		t.visit(s, k, i, x, y, a)
	}
	if db <= s.far[k][i] && !math.IsInf(db, 1) {
		t.visit(s, k, i, x, y, b)
	}
}

// reach is how near the box comes to a place, squared; infinite when it has nothing in the sixth above it.
func (n *node) reach(k int, x, y float64) float64 {
	up := n.maxY - y
	out := up < 0
	switch k { // what is level with the place counts to its right alone: else a search along a line of points goes through all of them
	case 0:
		out = out || n.maxX <= x || tan60*(n.maxX-x) < n.minY-y
	case 1:
		out = up <= 0 || up < tan60*(n.minX-x) || up < tan60*(x-n.maxX)
	case 2:
		out = up <= 0 || n.minX >= x || tan60*(x-n.minX) < n.minY-y
	}
	if out {
		return math.Inf(1)
	}
	dx, dy := max(n.minX-x, x-n.maxX, 0), max(n.minY-y, y-n.maxY, 0)
	return dx*dx + dy*dy
}
