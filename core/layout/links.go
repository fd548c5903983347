package layout

import (
	"cmp"
	"math"
	"slices"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Link is a connection that is yet to be made: the straight line between two pieces of a
// net that no copper joins.
type Link struct {
	Net string     `json:"net"`
	A   geom.Point `json:"a"`
	B   geom.Point `json:"b"`
	// What the link's ends stand on.
	FromName string `json:"fromName"`
	ToName   string `json:"toName"`
}

func sortPieces(c []*Copper) {
	slices.SortFunc(c, func(a, b *Copper) int { return cmp.Or(cmp.Compare(a.ID, b.ID), cmp.Compare(a.Pad, b.Pad)) })
}

// Touching tells whether two pieces are one piece of copper.
func Touching(a, b *Copper) bool {
	if a.Bare || b.Bare || a.Layers&b.Layers == 0 || !a.Shape.Box().Meets(b.Shape.Box()) {
		return false
	}
	gap, _, _ := geom.Gap(a.Shape, b.Shape)
	return gap <= 0
}

// Links are the shortest lines that would complete the net: a Euclidean minimum spanning
// tree over what copper has joined already (Borůvka's method, nearest neighbours from an
// R-tree, so large nets need no quadratic table). pieces are all copper of one net.
func Links(net string, pieces []*Copper) []Link {
	edges := spanning(pieces)
	out := make([]Link, len(edges))
	for i, e := range edges {
		out[i] = Link{net, e.from.at, e.to.at, pieces[e.from.piece].Name, pieces[e.to.piece].Name}
	}
	return out
}

// edge of the spanning tree.
type edge struct {
	d        float64
	from, to anchor
}

// spanning finds the tree's lines.
func spanning(pieces []*Copper) []edge {
	n := len(pieces)
	if n < 2 {
		return nil
	}
	cluster := joined(pieces)
	if cluster.Sets < 2 {
		return nil
	}
	var tree rtree.RTreeG[anchor]
	var anchors []anchor
	for i, c := range pieces {
		for _, p := range anchorPlaces(c) {
			a := anchor{p, i}
			anchors = append(anchors, a)
			at := [2]float64{float64(p.X), float64(p.Y)}
			tree.Insert(at, at, a)
		}
	}
	var out []edge
	for cluster.Sets > 1 {
		best := map[int]edge{}
		for _, a := range anchors {
			r := cluster.Root(a.piece)
			limit := math.Inf(1)
			if e, ok := best[r]; ok {
				limit = e.d
			}
			at := [2]float64{float64(a.at.X), float64(a.at.Y)}
			tree.Nearby(rtree.BoxDist[float64, anchor](at, at, nil), func(_, _ [2]float64, b anchor, _ float64) bool {
				d := a.at.Dist(b.at)
				if d >= limit {
					return false
				}
				if cluster.Root(b.piece) != r {
					best[r] = edge{d, a, b}
					return false
				}
				return true
			})
		}
		roots := make([]int, 0, len(best))
		for r := range best {
			roots = append(roots, r)
		}
		slices.SortFunc(roots, func(a, b int) int { return cmp.Or(cmp.Compare(best[a].d, best[b].d), cmp.Compare(a, b)) })
		for _, r := range roots {
			e := best[r]
			if !cluster.Join(e.from.piece, e.to.piece) {
				continue
			}
			out = append(out, e)
		}
	}
	return out
}

type anchor struct {
	at    geom.Point
	piece int
}

func anchorPlaces(c *Copper) []geom.Point {
	if c.Kind == "track" {
		return c.Shape.Pts
	}
	return []geom.Point{c.At}
}

// joined groups pieces by touch: a forest whose roots name the groups. Pads of one part
// that bear one number are joined only by copper, not within the part.
func joined(pieces []*Copper) *geom.Forest {
	f := geom.NewForest(len(pieces))
	pairs, _ := touchingPairs(pieces)
	for _, p := range pairs {
		f.Join(p[0], p[1])
	}
	return f
}

// touchingPairs lists which pieces touch.
func touchingPairs(pieces []*Copper) (pairs [][2]int, cut bool) {
	var tree rtree.RTreeG[int]
	f := geom.NewForest(len(pieces))
	for i, c := range pieces {
		lo, hi := corners(c.Shape.Box())
		noted := 0
		tree.Search(lo, hi, func(_, _ [2]float64, j int) bool {
			if Touching(c, pieces[j]) {
				if f.Join(i, j) || noted < mostTouches {
					pairs = append(pairs, [2]int{i, j})
					noted++
				} else {
					cut = true
				}
			}
			return true
		})
		tree.Insert(lo, hi, i)
	}
	return pairs, cut
}

// mostTouches bounds how often a piece is noted to touch what is joined with it already: where
// hundreds lie over each other all pairs would not be worth their room.
const mostTouches = 64

// LinksWith are the links of a net as they would be with some objects' copper replaced, as
// while a part is dragged. For nets of many pieces the answer is local: each replaced
// piece links to the nearest of the rest.
func (x *Index) LinksWith(net string, moved map[design.ID][]*Copper) []Link {
	var pieces []*Copper
	for _, c := range x.NetPieces(net) {
		if _, ok := moved[c.ID]; !ok {
			pieces = append(pieces, c)
		}
	}
	still := len(pieces)
	for _, list := range moved {
		for _, c := range list {
			if c.Net == net {
				pieces = append(pieces, c)
			}
		}
	}
	const many = 300
	if len(pieces) <= many {
		sortPieces(pieces)
		return Links(net, pieces)
	}
	var out []Link
	for _, c := range pieces[still:] {
		best, to := math.Inf(1), (*Copper)(nil)
		for _, o := range pieces[:still] {
			if d := c.At.Dist(o.At); d < best {
				best, to = d, o
			}
		}
		if to != nil && !Touching(c, to) {
			out = append(out, Link{net, c.At, to.At, c.Name, to.Name})
		}
	}
	return out
}
