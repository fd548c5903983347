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
	cut     bool // not all touches are noted, so that the tree is made anew each time
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
	if t.touches == nil || t.cut || len(fresh)*4 > n || n < 40 {
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
	places := anchorsOf(pieces)
	isFresh := make([]bool, n)
	for _, i := range fresh {
		isFresh[i] = true
	}
	// what stayed: the rest of the old tree, joined again where it fell apart
	f := geom.NewForest(n)
	for pair := range t.touches {
		if i, j := at[pair[0]], at[pair[1]]; !isFresh[i] && !isFresh[j] {
			f.Join(i, j)
		}
	}
	var edges []treeLink
	for _, l := range t.links {
		i, a := at[l.a]
		j, b := at[l.b]
		if a && b && !isFresh[i] && !isFresh[j] {
			edges = append(edges, l)
			f.Join(i, j)
		}
	}
	for f.Sets > 1+len(fresh) {
		l := shortestOut(pieces, places, f, isFresh)
		edges = append(edges, l)
		f.Join(at[l.a], at[l.b])
	}
	for _, i := range fresh {
		edges = appendStar(edges, pieces, places, i)
	}
	slices.SortFunc(edges, func(a, b treeLink) int { return cmp.Compare(a.d, b.d) })
	f = geom.NewForest(n)
	for pair := range t.touches {
		f.Join(at[pair[0]], at[pair[1]])
	}
	t.links = nil
	for _, l := range edges {
		if f.Sets == 1 {
			break
		}
		if f.Join(at[l.a], at[l.b]) {
			t.links = append(t.links, l)
		}
	}
	for f.Sets > 1 { // lines of equal length may have ruled each other out
		l := shortestOut(pieces, places, f, make([]bool, n))
		t.links = append(t.links, l)
		f.Join(at[l.a], at[l.b])
	}
	return t.list(net, pieces, at)
}

// anchorsOf lists the places of all pieces at which links can end.
func anchorsOf(pieces []*Copper) []anchor {
	out := make([]anchor, 0, len(pieces)+8)
	for i, c := range pieces {
		if c.Kind != "track" {
			out = append(out, anchor{c.At, i})
			continue
		}
		for _, p := range c.Shape.Pts {
			out = append(out, anchor{p, i})
		}
	}
	return out
}

// appendStar adds the lines from a new piece that can belong to a shortest tree: from each
// of its places the shortest into every sixth of the circle, since of two lines less than
// 60° apart the longer is the longest side of a triangle.
func appendStar(edges []treeLink, pieces []*Copper, places []anchor, i int) []treeLink {
	for _, from := range places {
		if from.piece != i {
			continue
		}
		var best [6]treeLink
		for _, to := range places {
			if to.piece == i {
				continue
			}
			dx, dy := float64(to.at.X-from.at.X), float64(to.at.Y-from.at.Y)
			k, d := sixth(dx, dy), math.Hypot(dx, dy)
			if best[k].a.ID == 0 || d < best[k].d {
				best[k] = treeLink{pieces[i].Ref(), pieces[to.piece].Ref(), from.at, to.at, d}
			}
		}
		for _, l := range best {
			if l.a.ID != 0 {
				edges = append(edges, l)
			}
		}
	}
	return edges
}

// sixth is which sixth of the circle a direction lies in.
func sixth(dx, dy float64) int {
	const tan60 = 1.7320508075688772
	steep := math.Abs(dy) >= tan60*math.Abs(dx)
	switch {
	case dy >= 0 && !steep && dx > 0:
		return 0
	case dy >= 0 && steep:
		return 1
	case dy > 0:
		return 2
	case !steep && dx < 0:
		return 3
	case steep:
		return 4
	}
	return 5
}

// shortestOut is the shortest line from the smallest part of the net to the rest; what skip
// names is not there yet.
func shortestOut(pieces []*Copper, places []anchor, f *geom.Forest, skip []bool) treeLink {
	size := map[int]int{}
	for i := range pieces {
		if !skip[i] {
			size[f.Root(i)]++
		}
	}
	small := -1
	for r, s := range size {
		if small < 0 || s < size[small] || s == size[small] && r < small {
			small = r
		}
	}
	best := treeLink{d: math.Inf(1)}
	for _, a := range places {
		if skip[a.piece] || f.Root(a.piece) != small {
			continue
		}
		for _, b := range places {
			dx, dy := float64(a.at.X-b.at.X), float64(a.at.Y-b.at.Y)
			if math.Abs(dx) >= best.d || math.Abs(dy) >= best.d || skip[b.piece] || f.Root(b.piece) == small {
				continue
			}
			if d := math.Hypot(dx, dy); d < best.d {
				best = treeLink{pieces[a.piece].Ref(), pieces[b.piece].Ref(), a.at, b.at, d}
			}
		}
	}
	return best
}

// rebuild starts from nothing.
func (t *NetTree) rebuild(net string, pieces []*Copper) []Link {
	t.touches = map[[2]Ref]bool{}
	t.links = nil
	pairs, cut := touchingPairs(pieces)
	t.cut = cut
	for _, pair := range pairs {
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
