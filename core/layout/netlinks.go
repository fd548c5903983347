package layout

import (
	"cmp"
	"iter"
	"maps"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/spanning"
)

// NetLinks knows what of a net copper joins and which lines would complete it, and follows changes: what
// touches is remembered by piece, and the lines are chosen among those of a shortest tree over all places
// at which links can end. A line of a shortest tree over clusters is one of a shortest tree over the
// places: where joined pieces are put together, the longest line of a circle stays the longest.
type NetLinks struct {
	net    design.ID
	pieces []*Copper // nil: free
	touch  [][]int32 // of each piece, what it touches
	free   []int32
	of     map[Ref]int32
	pads   map[design.ID][]int32 // the pieces of an object
	count  int
	crowd  bool           // so much lies over each other that not all touches are noted; they are found anew each time
	heads  map[int32]bool // pieces that others lie exactly on, whose touches are noted with these alone
	astray []int32        // pieces whose head went
	spots  map[geom.Point]*spot
	spotAt []*spot // by its number among the points; nil: nothing ends there any more
	points spanning.Points
	shared map[*spot]bool       // those of more than one piece
	gone   map[geom.Point]int32 // places that nothing ends at any more, with their numbers
	come   []geom.Point
	links  []Link
	bonds  []Bond
}

// Bond are pieces of a net that a copper area joins.
type Bond []Ref

// Bonded notes which pieces copper areas join; the next Update heeds it.
func (n *NetLinks) Bonded(bonds []Bond) { n.bonds = bonds }

// spot is a place at which pieces have an end, in the order of their refs.
type spot struct {
	number int32
	pieces []int32
}

// near finds pieces whose box meets another.
type near func(geom.Box) iter.Seq[*Copper]

// Relayered takes the pieces as the index has them now, made anew on another stack on which each joins what it
// joined.
func (n *NetLinks) Relayered(x *Index) {
	for id, mine := range n.pads {
		now := x.Of(id)
		for _, i := range mine {
			for _, c := range now {
				if c.Ref() == n.pieces[i].Ref() {
					n.pieces[i] = c
				}
			}
		}
	}
}

// NewNetLinks knows of no copper yet.
func NewNetLinks(net design.ID) *NetLinks {
	return &NetLinks{net: net, of: map[Ref]int32{}, pads: map[design.ID][]int32{}, heads: map[int32]bool{}, spots: map[geom.Point]*spot{}, shared: map[*spot]bool{}, gone: map[geom.Point]int32{}}
}

// Len is how many pieces the net has.
func (n *NetLinks) Len() int { return n.count }

// Links are the lines that would complete the net, shortest first, as of the last Update.
func (n *NetLinks) Links() []Link { return n.links }

// Update follows a change of the given objects, each named once, which the index has taken in, and tells the net's open
// links. Cost: what changed, and a few steps for each piece of the net.
func (n *NetLinks) Update(x *Index, changed iter.Seq[design.ID]) []Link {
	var fresh []*Copper
	for id := range changed {
		for _, i := range n.pads[id] {
			n.drop(i)
		}
		delete(n.pads, id)
		for _, c := range x.Of(id) {
			if c.Net == n.net {
				fresh = append(fresh, c)
			}
		}
	}
	n.take(fresh, x.Near)
	for _, i := range n.astray {
		if n.pieces[i] != nil {
			n.meet(i, x.Near)
		}
	}
	n.astray = n.astray[:0]
	if n.crowd {
		n.touches(x.Near)
	}
	n.links = n.find()
	return n.links
}

func (n *NetLinks) drop(i int32) {
	c := n.pieces[i]
	for _, j := range n.touch[i] {
		n.touch[j] = without(n.touch[j], i)
	}
	for _, p := range anchorPlaces(c) {
		s := n.spots[p]
		if s == nil {
			continue // both its ends are there
		}
		switch s.pieces = without(s.pieces, i); len(s.pieces) {
		case 0:
			delete(n.spots, p)
			if s.number >= 0 {
				n.gone[p], n.spotAt[s.number] = s.number, nil
			} else {
				n.come = without(n.come, p)
			}
		case 1:
			delete(n.shared, s)
		}
	}
	if n.heads[i] {
		delete(n.heads, i)
		n.astray = append(n.astray, n.touch[i]...)
	}
	delete(n.of, c.Ref())
	n.pieces[i], n.touch[i] = nil, nil
	n.free = append(n.free, i)
	n.count--
}

func without[T comparable](list []T, x T) []T {
	if i := slices.Index(list, x); i >= 0 {
		return slices.Delete(list, i, i+1)
	}
	return list
}

// take takes new pieces in.
func (n *NetLinks) take(fresh []*Copper, by near) {
	for _, c := range fresh {
		i := int32(len(n.pieces))
		if k := len(n.free); k > 0 {
			i, n.free = n.free[k-1], n.free[:k-1]
			n.pieces[i] = c
		} else {
			n.pieces, n.touch = append(n.pieces, c), append(n.touch, nil)
		}
		n.of[c.Ref()] = i
		n.pads[c.ID] = append(n.pads[c.ID], i)
		n.count++
		for _, p := range anchorPlaces(c) {
			n.anchor(i, p)
		}
	}
	if len(fresh) > 0 && len(fresh) == n.count {
		n.touches(by)
		return
	}
	for _, c := range fresh {
		n.meet(n.of[c.Ref()], by)
	}
}

// meet notes what a piece touches, as long as that is not too much.
func (n *NetLinks) meet(i int32, by near) {
	c := n.pieces[i]
	for o := range by(c.Box()) {
		j, known := n.of[o.Ref()]
		if n.crowd {
			return
		}
		if o == c || o.Net != n.net || !known || slices.Contains(n.touch[i], j) || !Touching(c, o) {
			continue
		}
		n.crowd = len(n.touch[i]) >= mostTouches || len(n.touch[j]) >= mostTouches
		n.touch[i], n.touch[j] = append(n.touch[i], j), append(n.touch[j], i)
	}
}

func (n *NetLinks) anchor(i int32, p geom.Point) {
	s := n.spots[p]
	if s == nil {
		s = &spot{number: -1}
		n.spots[p] = s
		if number, was := n.gone[p]; was {
			delete(n.gone, p)
			s.number, n.spotAt[number] = number, s
		} else {
			n.come = append(n.come, p)
		}
	}
	at, there := slices.BinarySearchFunc(s.pieces, n.pieces[i].Ref(), func(j int32, r Ref) int { return n.pieces[j].Ref().Compare(r) })
	if !there {
		s.pieces = slices.Insert(s.pieces, at, i)
	}
	if len(s.pieces) > 1 {
		n.shared[s] = true
	}
}

// mostTouches bounds how often a piece is noted to touch what is joined with it already: where
// hundreds lie over each other all pairs would not be worth their room.
const mostTouches = 64

// touches finds anew which pieces touch.
func (n *NetLinks) touches(by near) {
	f := geom.NewForest(len(n.pieces))
	for i := range n.touch {
		n.touch[i] = nil
	}
	n.crowd, n.astray = false, n.astray[:0]
	clear(n.heads)
	first := map[likeness]int32{}
	for i, c := range n.pieces {
		if c == nil {
			continue
		}
		if like, plain := likenessOf(c); plain {
			if j, twin := first[like]; twin { // one that lies where another does touches what that touches: thousands of them cost no more than one
				f.Join(i, int(j))
				n.heads[j] = true
				n.touch[i], n.touch[j] = append(n.touch[i], j), append(n.touch[j], int32(i))
				n.crowd = n.crowd || len(n.touch[j]) > mostTouches
				continue
			}
			first[like] = int32(i)
		}
		for o := range by(c.Box()) {
			j, known := n.of[o.Ref()]
			if !known || int(j) >= i || o.Net != n.net {
				continue
			}
			many := len(n.touch[i]) >= mostTouches || len(n.touch[j]) >= mostTouches
			if many && f.Root(i) == f.Root(int(j)) {
				n.crowd = true
				continue
			}
			if Touching(c, o) {
				f.Join(i, int(j))
				n.touch[i], n.touch[j] = append(n.touch[i], j), append(n.touch[j], int32(i))
			}
		}
	}
}

// likeness is what a plain piece of copper is and where it lies.
type likeness struct {
	a, m, b geom.Point
	r       int64
	layers  uint32
}

// likenessOf is that of a straight line, an arc or a disc that is the same on all its layers.
func likenessOf(c *Copper) (likeness, bool) {
	s := &c.Shape
	if len(s.Pts) == 0 || len(s.Pts) > 2 || s.Area || len(c.Other) > 0 || c.Bare {
		return likeness{}, false
	}
	like := likeness{a: s.Pts[0], b: s.Pts[len(s.Pts)-1], r: s.R, layers: c.Layers}
	if len(s.Pts) == 2 {
		like.m = s.Side(0).Middle()
	}
	return like, true
}

// joined are the pieces that copper joins, as sets.
func (n *NetLinks) joined() *geom.Forest {
	f := geom.NewForest(len(n.pieces))
	f.Sets = n.count
	for i, list := range n.touch {
		for _, j := range list {
			if int(j) < i {
				f.Join(i, int(j))
			}
		}
	}
	for _, bond := range n.bonds {
		first := -1
		for _, r := range bond {
			switch i, known := n.of[r]; {
			case !known:
			case first < 0:
				first = int(i)
			default:
				f.Join(first, int(i))
			}
		}
	}
	return f
}

// find chooses the lines, by Kruskal's method.
func (n *NetLinks) find() []Link {
	n.place()
	f := n.joined()
	if f.Sets < 2 {
		return nil
	}
	var out []Link
	for _, s := range n.parted(f) {
		for k, i := range s.pieces[1:] {
			if f.Join(int(s.pieces[k]), int(i)) {
				out = append(out, n.link(s, s, s.pieces[k], i))
			}
		}
	}
	for _, l := range n.points.Lines() {
		if f.Sets < 2 {
			break
		}
		a, b := n.spotAt[l.A], n.spotAt[l.B]
		if f.Join(int(a.pieces[0]), int(b.pieces[0])) {
			out = append(out, n.link(a, b, a.pieces[0], b.pieces[0]))
		}
	}
	return out
}

// link is the line between two places, from a pad if it can be.
func (n *NetLinks) link(a, b *spot, from, to int32) Link {
	if p, q := n.pieces[from], n.pieces[to]; (p.Pad < 0) == (q.Pad < 0) && q.Ref().Compare(p.Ref()) < 0 || p.Pad < 0 && q.Pad >= 0 {
		a, b, from, to = b, a, to, from
	}
	return Link{n.points.At(a.number), n.points.At(b.number), n.pieces[from].Name, n.pieces[to].Name}
}

// place tells the points what came and went.
func (n *NetLinks) place() {
	if len(n.gone)+len(n.come) == 0 {
		return
	}
	for k, number := range n.points.Change(slices.Sorted(maps.Values(n.gone)), n.come) {
		for int(number) >= len(n.spotAt) {
			n.spotAt = append(n.spotAt, nil)
		}
		s := n.spots[n.come[k]]
		s.number, n.spotAt[number] = number, s
	}
	clear(n.gone)
	n.come = n.come[:0]
}

// parted are the places at which pieces end that copper does not join, in order.
func (n *NetLinks) parted(f *geom.Forest) []*spot {
	var out []*spot
	for s := range n.shared {
		first := f.Root(int(s.pieces[0]))
		if slices.ContainsFunc(s.pieces[1:], func(i int32) bool { return f.Root(int(i)) != first }) {
			out = append(out, s)
		}
	}
	slices.SortFunc(out, func(a, b *spot) int {
		p, q := n.points.At(a.number), n.points.At(b.number)
		return cmp.Or(cmp.Compare(p.Y, q.Y), cmp.Compare(p.X, q.X))
	})
	return out
}

// nearest is the piece that ends nearest to a place, among those that may be.
func (n *NetLinks) nearest(to geom.Point, may func(*Copper) bool) (best *Copper) {
	least := math.Inf(1)
	for i, s := range n.spotAt {
		if s == nil {
			continue
		}
		at := n.points.At(int32(i))
		if dx, dy := float64(at.X-to.X), float64(at.Y-to.Y); dx*dx+dy*dy < least {
			for _, j := range s.pieces {
				if may(n.pieces[j]) {
					best, least = n.pieces[j], dx*dx+dy*dy
					break
				}
			}
		}
	}
	return best
}
