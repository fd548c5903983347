package layout

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// NetTree keeps a net's open links up to date at a cost that follows the change: it
// remembers which pieces touch and which links the spanning tree has. Taking a piece out
// leaves the rest of a minimum spanning tree minimal; what falls apart is joined again by
// the shortest line out of its smaller side (cut property); a new piece brings only lines
// from itself (cycle property). Source: Tarjan, Data Structures and Network Algorithms, 1983.
type NetTree struct {
	touches map[[2]Ref]bool
	links   []treeLink
}

type treeLink struct {
	a, b   Ref
	pa, pb geom.Point
	d      float64
}

// Update follows a change of the given objects and returns the net's open links. pieces are
// all copper of the net as it is now.
func (t *NetTree) Update(net string, x *Index, pieces []*Copper, changed map[design.ID]bool) []Link {
	n := len(pieces)
	var fresh []int
	at := make(map[Ref]int, n)
	for i, c := range pieces {
		at[c.Ref()] = i
		if changed[c.ID] {
			fresh = append(fresh, i)
		}
	}
	if t.touches == nil || len(fresh)*4 > n || n < 40 {
		return t.rebuild(net, pieces)
	}
	for pair := range t.touches {
		if _, a := at[pair[0]]; !a || changed[pair[0].ID] || changed[pair[1].ID] {
			delete(t.touches, pair)
		} else if _, b := at[pair[1]]; !b {
			delete(t.touches, pair)
		}
	}
	for _, i := range fresh {
		c := pieces[i]
		for o := range x.Near(c.Shape.Box()) {
			if o != c && o.Net == net && Touching(c, o) {
				t.touches[[2]Ref{c.Ref(), o.Ref()}] = true
			}
		}
	}
	isFresh := make([]bool, n)
	for _, i := range fresh {
		isFresh[i] = true
	}
	// what stayed: the rest of the old tree, joined again where it fell apart
	f := newForest(n)
	for pair := range t.touches {
		if i, j := at[pair[0]], at[pair[1]]; !isFresh[i] && !isFresh[j] {
			f.join(i, j)
		}
	}
	var edges []treeLink
	for _, l := range t.links {
		i, a := at[l.a]
		j, b := at[l.b]
		if a && b && !isFresh[i] && !isFresh[j] {
			edges = append(edges, l)
			f.join(i, j)
		}
	}
	for f.parts > 1+len(fresh) {
		l := shortestOut(pieces, f.up, isFresh)
		edges = append(edges, l)
		f.join(at[l.a], at[l.b])
	}
	// what is new: lines from it to everything
	for _, i := range fresh {
		for j := range pieces {
			if i != j {
				edges = append(edges, nearestLink(pieces[i], pieces[j]))
			}
		}
	}
	slices.SortFunc(edges, func(a, b treeLink) int { return cmp.Compare(a.d, b.d) })
	f = newForest(n)
	for pair := range t.touches {
		f.join(at[pair[0]], at[pair[1]])
	}
	t.links = nil
	for _, l := range edges {
		if f.parts == 1 {
			break
		}
		if f.join(at[l.a], at[l.b]) {
			t.links = append(t.links, l)
		}
	}
	return t.list(net, pieces, at)
}

// forest counts the parts that joining leaves.
type forest struct {
	up    []int
	parts int
}

func newForest(n int) *forest {
	f := &forest{make([]int, n), n}
	for i := range f.up {
		f.up[i] = i
	}
	return f
}

func (f *forest) join(a, b int) bool {
	ra, rb := root(f.up, a), root(f.up, b)
	if ra == rb {
		return false
	}
	f.up[max(ra, rb)] = min(ra, rb)
	f.parts--
	return true
}

func nearestLink(a, b *Copper) treeLink {
	best := treeLink{a: a.Ref(), b: b.Ref(), d: math.Inf(1)}
	for _, p := range anchorPlaces(a) {
		for _, q := range anchorPlaces(b) {
			if d := p.Dist(q); d < best.d {
				best.pa, best.pb, best.d = p, q, d
			}
		}
	}
	return best
}

// shortestOut is the shortest line from the smallest part of the net to the rest.
func shortestOut(pieces []*Copper, up []int, skip []bool) treeLink {
	size := map[int]int{}
	for i := range pieces {
		if !skip[i] {
			size[root(up, i)]++
		}
	}
	small := -1
	for r, s := range size {
		if small < 0 || s < size[small] || s == size[small] && r < small {
			small = r
		}
	}
	best := treeLink{d: math.Inf(1)}
	for i, c := range pieces {
		if skip[i] || root(up, i) != small {
			continue
		}
		for j, o := range pieces {
			if !skip[j] && root(up, j) != small {
				if l := nearestLink(c, o); l.d < best.d {
					best = l
				}
			}
		}
	}
	return best
}

// rebuild starts from nothing.
func (t *NetTree) rebuild(net string, pieces []*Copper) []Link {
	t.touches = map[[2]Ref]bool{}
	t.links = nil
	for _, pair := range touchingPairs(pieces) {
		t.touches[[2]Ref{pieces[pair[0]].Ref(), pieces[pair[1]].Ref()}] = true
	}
	at := make(map[Ref]int, len(pieces))
	for i, c := range pieces {
		at[c.Ref()] = i
	}
	for _, l := range spanning(pieces) {
		t.links = append(t.links, treeLink{pieces[l.from.piece].Ref(), pieces[l.to.piece].Ref(), l.from.at, l.to.at, l.d})
	}
	return t.list(net, pieces, at)
}

func (t *NetTree) list(net string, pieces []*Copper, at map[Ref]int) []Link {
	out := make([]Link, len(t.links))
	for i, l := range t.links {
		out[i] = Link{net, l.pa, l.pb, pieces[at[l.a]].Name, pieces[at[l.b]].Name}
	}
	return out
}
