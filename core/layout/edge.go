package layout

import (
	"math"
	"slices"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Edge is the board's edge with its cut-outs, made ready for many questions.
type Edge struct {
	region *geom.Prepared // nil: no outline is drawn
	pieces geom.Ring
	tree   *rtree.RTreeG[int]
}

// EdgeOf makes a board's edge ready.
func EdgeOf(b *design.Board) Edge {
	if len(b.Outline) == 0 {
		return Edge{}
	}
	r := b.Region()
	e := Edge{region: r.Prepare(), pieces: r.Outer, tree: &rtree.RTreeG[int]{}}
	for _, h := range r.Holes {
		e.pieces = append(e.pieces, h...)
	}
	for i, p := range e.pieces {
		lo, hi := corners(p.Box())
		e.tree.Insert(lo, hi, i)
	}
	return e
}

// Drawn tells whether there is an edge.
func (e *Edge) Drawn() bool { return e.region != nil }

// Holds tells whether a place lies on the board.
func (e *Edge) Holds(p geom.Point) bool { return e.region != nil && e.region.Holds(p) }

// Gap is how near a shape comes to the edge, in nanometres, when that is nearer than reach or when it
// lies outside (below zero then); at is the place on the edge. False: it is farther, or there is no edge.
func (e *Edge) Gap(s geom.Shape, reach int64) (gap float64, at geom.Point, near bool) {
	if e.region == nil {
		return 0, geom.Point{}, false
	}
	inside := e.region.Holds(s.Pts[0])
	gap = math.Inf(1)
	var list []int
	lo, hi := corners(s.Box().Grow(reach + 1))
	e.tree.Search(lo, hi, func(_, _ [2]float64, i int) bool {
		list = append(list, i)
		return true
	})
	switch {
	case !inside:
		list = list[:0]
		for i := range e.pieces {
			list = append(list, i)
		}
	case len(list) == 0:
		return 0, geom.Point{}, false
	}
	slices.Sort(list)
	for _, i := range list {
		if g, _, p := geom.Gap(s, geom.Bow(e.pieces[i], 0)); g < gap {
			gap, at = g, p
		}
	}
	if !inside {
		gap = -math.Abs(gap) - 1
	}
	return gap, at, true
}
