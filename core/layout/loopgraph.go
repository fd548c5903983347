package layout

import (
	"cmp"
	"slices"

	"goldentrace/core/geom"
)

// loops is a clump as a graph: places and tracks, and which track is at which place. Source of the method: what lies on a circle is what no
// bridge leads over (Tarjan 1974, A note on finding the bridges of a graph).
type loops struct {
	m      *Clump
	places *geom.Forest
	place  []int // of a pad or via
	ends   [][2]int
	hangs  []contact // on the side of a track
	held   map[int]bool
	of     [][]int // the places of each track, once all are found
	nodes  map[int]int
	next   [][]half
}

// contact is a place on the side of a track.
type contact struct {
	place, track int
	at           geom.Point
}

// half is a way from a node of the graph to another.
type half struct{ to, edge int }

func (g *loops) isTrack(i int) bool { return g.m.Pieces[i].Kind == "track" }

// knit finds which tracks are at which places; false: there are not enough for a loop.
func (g *loops) knit() bool {
	n, tracks := len(g.m.Pieces), 0
	for i := range n {
		if g.isTrack(i) {
			tracks++
		}
	}
	if tracks < 2 {
		return false
	}
	g.places = geom.NewForest(0)
	g.place, g.ends = make([]int, n), make([][2]int, n)
	for i := range n {
		if g.isTrack(i) {
			g.ends[i] = [2]int{g.places.Add(), g.places.Add()}
		} else {
			g.place[i] = g.places.Add()
		}
	}
	for i, list := range g.m.touch {
		for _, j := range list {
			if i >= j {
				continue
			}
			switch a, b := g.isTrack(i), g.isTrack(j); {
			case a && b:
				g.tracks(i, j)
			case a:
				g.onPad(i, j)
			case b:
				g.onPad(j, i)
			default:
				g.places.Join(g.place[i], g.place[j])
			}
		}
	}
	g.gather()
	for short := true; short; { // tracks within one place
		short = false
		for _, h := range g.hangs {
			if e := g.ends[h.track]; g.places.Root(e[0]) == g.places.Root(e[1]) && g.places.Join(h.place, e[0]) {
				short = true
			}
		}
	}
	for i := range n {
		if !g.isTrack(i) {
			g.held[g.places.Root(g.place[i])] = true
		}
	}
	return true
}

// gather makes one place of those that lie beside each other on the side of a track, as where several cross.
func (g *loops) gather() {
	on := map[int][]contact{}
	for _, h := range g.hangs {
		on[h.track] = append(on[h.track], h)
	}
	for track, list := range on {
		p, r := g.m.Pieces[track].Shape.Side(0), float64(g.m.Pieces[track].Shape.R)
		slices.SortFunc(list, func(a, b contact) int { return cmp.Compare(p.A.Dist(a.at), p.A.Dist(b.at)) })
		for i := 1; i < len(list); i++ {
			if list[i].at.Dist(list[i-1].at) <= r {
				g.places.Join(list[i].place, list[i-1].place)
			}
		}
	}
}

// onPad joins a track's ends with a pad or via that they touch, or notes that it is on its side.
func (g *loops) onPad(track, pad int) {
	c, shape := g.m.Pieces[track], g.m.Pieces[pad].On(g.m.Layer)
	p, ended := c.Shape.Side(0), false
	for e, at := range []geom.Point{p.A, p.B} {
		if gap, _, _ := geom.Gap(geom.Disc(at, c.Shape.R), shape); gap <= 0 {
			g.places.Join(g.ends[track][e], g.place[pad])
			ended = true
		}
	}
	if !ended {
		g.hangs = append(g.hangs, contact{g.place[pad], track, nearestOf(p, g.m.Pieces[pad].At)})
	}
}

// tracks joins the ends of two tracks that meet there, and notes where one ends on the side of the other or crosses it.
func (g *loops) tracks(i, j int) {
	a, b := g.m.Pieces[i], g.m.Pieces[j]
	p, q := a.Shape.Side(0), b.Shape.Side(0)
	wide := float64(max(a.Shape.R, b.Shape.R))
	var met [2][2]bool
	for e, at := range []geom.Point{p.A, p.B} {
		for f, other := range []geom.Point{q.A, q.B} {
			if at.Dist(other) <= wide {
				g.places.Join(g.ends[i][e], g.ends[j][f])
				met[0][e], met[1][f] = true, true
			}
		}
	}
	any := met[0][0] || met[0][1]
	side := func(k, of int, ends geom.Piece, on geom.Piece, met [2]bool) {
		for e, at := range []geom.Point{ends.A, ends.B} {
			if met[e] {
				continue
			}
			if d, _, foot := geom.PieceDistance(geom.Straight(at, at), on); d <= float64(a.Shape.R+b.Shape.R) {
				g.hangs = append(g.hangs, contact{g.ends[k][e], of, foot})
				any = true
			}
		}
	}
	side(i, j, p, q, met[0])
	side(j, i, q, p, met[1])
	if !any {
		_, at, other := geom.PieceDistance(p, q)
		place := g.places.Add()
		g.hangs = append(g.hangs, contact{place, i, at}, contact{place, j, other})
	}
}

func nearestOf(p geom.Piece, to geom.Point) geom.Point {
	_, _, at := geom.PieceDistance(geom.Straight(to, to), p)
	return at
}

// circles are the tracks of the graph that lie on circles, those that hang together by circles in one list.
func (g *loops) circles() [][]int {
	n := len(g.m.Pieces)
	g.of, g.nodes = make([][]int, n), map[int]int{}
	at := func(track, place int) {
		root := g.places.Root(place)
		if !slices.Contains(g.of[track], root) {
			g.of[track] = append(g.of[track], root)
		}
	}
	for i := range n {
		if g.isTrack(i) {
			at(i, g.ends[i][0])
			at(i, g.ends[i][1])
		}
	}
	for _, h := range g.hangs {
		at(h.track, h.place)
	}
	g.next = make([][]half, n) // tracks first, then places
	edge := 0
	for i, list := range g.of {
		for _, root := range list {
			node, known := g.nodes[root]
			if !known {
				node = len(g.next)
				g.nodes[root] = node
				g.next = append(g.next, nil)
			}
			g.next[i] = append(g.next[i], half{node, edge})
			g.next[node] = append(g.next[node], half{i, edge})
			edge++
		}
	}
	bridge := g.bridges(edge)
	var out [][]int
	seen := make([]bool, len(g.next))
	for i := range n {
		if !g.isTrack(i) || seen[i] {
			continue
		}
		var tracks []int
		for stack := []int{i}; len(stack) > 0; {
			at := stack[len(stack)-1]
			stack = stack[:len(stack)-1]
			if seen[at] {
				continue
			}
			seen[at] = true
			if at < n {
				tracks = append(tracks, at)
			}
			for _, h := range g.next[at] {
				if !bridge[h.edge] {
					stack = append(stack, h.to)
				}
			}
		}
		if len(tracks) > 1 {
			out = append(out, tracks)
		}
	}
	return out
}

// bridges tells which edges lie on no circle.
func (g *loops) bridges(edges int) []bool {
	bridge := make([]bool, edges)
	when, low := make([]int, len(g.next)), make([]int, len(g.next))
	type step struct{ at, by, k int }
	clock := 0
	for root := range g.next {
		if when[root] > 0 {
			continue
		}
		stack := []step{{root, -1, 0}}
		clock++
		when[root], low[root] = clock, clock
		for len(stack) > 0 {
			s := &stack[len(stack)-1]
			if s.k == len(g.next[s.at]) {
				done := *s
				stack = stack[:len(stack)-1]
				if len(stack) > 0 {
					up := stack[len(stack)-1].at
					low[up] = min(low[up], low[done.at])
					bridge[done.by] = low[done.at] > when[up]
				}
				continue
			}
			h := g.next[s.at][s.k]
			s.k++
			switch {
			case h.edge == s.by:
			case when[h.to] > 0:
				low[s.at] = min(low[s.at], when[h.to])
			default:
				clock++
				when[h.to], low[h.to] = clock, clock
				stack = append(stack, step{h.to, h.edge, 0})
			}
		}
	}
	return bridge
}
