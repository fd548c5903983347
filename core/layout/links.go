package layout

import (
	"cmp"
	"iter"
	"slices"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Link is a connection that is yet to be made: the straight line between two pieces of a
// net that no copper joins.
type Link struct {
	A geom.Point `json:"a"`
	B geom.Point `json:"b"`
	// What the link's ends stand on.
	FromName string `json:"fromName"`
	ToName   string `json:"toName"`
}

func sortPieces(c []*Copper) {
	slices.SortFunc(c, func(a, b *Copper) int { return a.Ref().Compare(b.Ref()) })
}

// Compare orders refs by object and piece.
func (r Ref) Compare(o Ref) int { return cmp.Or(cmp.Compare(r.ID, o.ID), cmp.Compare(r.Pad, o.Pad)) }

// Touching tells whether two pieces are one piece of copper.
func Touching(a, b *Copper) bool {
	if a.Bare || b.Bare || a.Layers&b.Layers == 0 || !a.Box().Meets(b.Box()) {
		return false
	}
	if a.Other == nil && b.Other == nil {
		gap, _, _ := geom.Gap(a.Shape, b.Shape)
		return gap <= 0
	}
	gap, _, _, _ := Gap(a, b)
	return gap <= 0
}

// Links are the shortest lines that would complete the net, shortest first. pieces are all copper of one
// net; bonds say which of them copper areas join.
func Links(pieces []*Copper, bonds ...Bond) []Link {
	if len(pieces) == 0 {
		return nil
	}
	n := NewNetLinks(pieces[0].Net)
	n.bonds = bonds
	n.take(pieces, among(pieces))
	return n.find()
}

// among finds pieces by place without the board's index.
func among(pieces []*Copper) near {
	var tree rtree.RTreeG[*Copper]
	for _, c := range pieces {
		lo, hi := corners(c.Box())
		tree.Insert(lo, hi, c)
	}
	return func(b geom.Box) iter.Seq[*Copper] {
		return func(yield func(*Copper) bool) {
			lo, hi := corners(b)
			tree.Search(lo, hi, func(_, _ [2]float64, c *Copper) bool { return yield(c) })
		}
	}
}

func anchorPlaces(c *Copper) []geom.Point {
	if c.Kind == "track" {
		return c.Shape.Pts
	}
	return []geom.Point{c.At}
}

// Islands are the pieces in groups that copper joins, in the order of their first piece. Pads of one
// part that bear one number are joined only by copper, not within the part.
func Islands(pieces []*Copper, bonds ...Bond) [][]*Copper {
	if len(pieces) == 0 {
		return nil
	}
	n := NewNetLinks(pieces[0].Net)
	n.bonds = bonds
	n.take(pieces, among(pieces))
	f := n.joined()
	at := map[int]int{}
	var out [][]*Copper
	for i, c := range pieces {
		r := f.Root(i)
		if _, known := at[r]; !known {
			at[r] = len(out)
			out = append(out, nil)
		}
		out[at[r]] = append(out[at[r]], c)
	}
	return out
}

// With are the net's links as they would be with some objects' copper replaced, as while a part is
// dragged. For nets of many pieces the answer is local: each replaced piece links to the nearest place
// of the rest.
func (n *NetLinks) With(moved map[design.ID][]*Copper) []Link {
	var fresh []*Copper
	for _, list := range moved {
		for _, c := range list {
			if c.Net == n.net {
				fresh = append(fresh, c)
			}
		}
	}
	sortPieces(fresh)
	stays := func(c *Copper) bool { return c != nil && moved[c.ID] == nil }
	const many = 300
	if n.count <= many {
		for _, c := range n.pieces {
			if stays(c) {
				fresh = append(fresh, c)
			}
		}
		sortPieces(fresh)
		return Links(fresh, n.bondsWithout(moved)...)
	}
	var out []Link
	for _, c := range fresh {
		if to := n.nearest(c.At, stays); to != nil && !Touching(c, to) {
			out = append(out, Link{c.At, nearestPlace(to, c.At), c.Name, to.Name})
		}
	}
	return out
}

// bondsWithout are the bonds without what is moved, which an area may no longer join.
func (n *NetLinks) bondsWithout(moved map[design.ID][]*Copper) (out []Bond) {
	for _, b := range n.bonds {
		var stays Bond
		for _, r := range b {
			if moved[r.ID] == nil {
				stays = append(stays, r)
			}
		}
		out = append(out, stays)
	}
	return out
}

func nearestPlace(c *Copper, to geom.Point) geom.Point {
	return slices.MinFunc(anchorPlaces(c), func(a, b geom.Point) int { return cmp.Compare(a.Dist(to), b.Dist(to)) })
}
