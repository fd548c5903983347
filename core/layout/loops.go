package layout

import (
	"cmp"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/overlay"
)

// leastHole is how large what a loop goes around is at least, in square nanometres: what is smaller is a notch between tracks that meet.
const leastHole = 1e10

// Loop is tracks of one net and layer any of which could go without parting anything.
type Loop struct {
	Net    design.ID
	Layer  int
	Tracks []design.ID // in their order
	Around float64     // the area of what they go around, in square nanometres; 0: they lie over each other
	Over   int64       // how far two of them run over each other
	At     geom.Point  // on the line around that, or in the middle of where they lie over each other
	Ways   [][]design.ID
	Joints map[design.ID][]geom.Point // of tracks on whose sides others meet: where
}

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

// Loops of a clump, in the order of their first tracks.
func (m *Clump) Loops() (out []Loop) {
	m, twins := m.once()
	g := &loops{m: m, held: map[int]bool{}}
	alone := maps.Clone(twins) // those that lie on others, and are on no circle
	if g.knit() {
		for _, group := range g.circles() {
			if l := g.loop(group, twins); l != nil {
				out = append(out, *l)
				for _, i := range group {
					delete(alone, i)
				}
			}
		}
	}
	for i, list := range alone {
		p := m.Pieces[i].Shape.Side(0)
		l := Loop{Net: m.Pieces[i].Net, Layer: m.Layer, Tracks: []design.ID{m.Pieces[i].ID}, Over: int64(p.Length()), At: p.Middle()}
		l.twins(m.Pieces[i].ID, list)
		out = append(out, l)
	}
	slices.SortFunc(out, func(a, b Loop) int { return int(a.Tracks[0] - b.Tracks[0]) })
	return out
}

// once is the clump with one only of tracks that lie exactly on each other, the first, and those that lie on these: by their number.
func (m *Clump) once() (*Clump, map[int][]design.ID) {
	first, twin := map[likeness]int{}, map[int]int{}
	for i, c := range m.Pieces {
		like, plain := likenessOf(c)
		if c.Kind != "track" || !plain {
			continue
		}
		if like.b.Compare(like.a) < 0 {
			like.a, like.b = like.b, like.a
		}
		j, is := first[like]
		switch {
		case !is:
			first[like] = i
		case c.ID < m.Pieces[j].ID:
			first[like] = i
			twin[j] = i
		default:
			twin[i] = j
		}
	}
	if len(twin) == 0 {
		return m, nil
	}
	for i, j := range twin { // of twins of twins
		for {
			k, is := twin[j]
			if !is {
				break
			}
			j = k
		}
		twin[i] = j
	}
	out, twins := &Clump{Layer: m.Layer}, map[int][]design.ID{}
	number := map[int]int{}
	for i, c := range m.Pieces {
		if _, is := twin[i]; !is {
			number[i] = len(out.Pieces)
			out.Pieces, out.touch = append(out.Pieces, c), append(out.touch, nil)
		}
	}
	of := func(i int) int {
		if j, is := twin[i]; is {
			i = j
		}
		return number[i]
	}
	for i, list := range m.touch {
		if _, is := twin[i]; is {
			twins[of(i)] = append(twins[of(i)], m.Pieces[i].ID)
		}
		for _, j := range list {
			if a, b := of(i), of(j); a != b && !slices.Contains(out.touch[a], b) {
				out.touch[a], out.touch[b] = append(out.touch[a], b), append(out.touch[b], a)
			}
		}
	}
	return out, twins
}

// twins adds tracks that lie exactly on one of the loop: each of them all can go.
func (l *Loop) twins(one design.ID, list []design.ID) {
	if len(list) > 0 {
		l.Ways = append(l.Ways, []design.ID{one})
	}
	for _, id := range list {
		l.Tracks = append(l.Tracks, id)
		l.Ways = append(l.Ways, []design.ID{id})
	}
	slices.Sort(l.Tracks)
}

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

// loop is what a group of tracks is; nil: they only meet closely.
func (g *loops) loop(group []int, twins map[int][]design.ID) *Loop {
	slices.SortFunc(group, func(a, b int) int { return int(g.m.Pieces[a].ID - g.m.Pieces[b].ID) })
	l := &Loop{Net: g.m.Pieces[0].Net, Layer: g.m.Layer, Joints: map[design.ID][]geom.Point{}}
	in := map[int]bool{}
	var shapes []geom.Shape
	places := map[int]bool{}
	for _, i := range group {
		in[i] = true
		l.Tracks = append(l.Tracks, g.m.Pieces[i].ID)
		shapes = append(shapes, g.m.Pieces[i].Shape)
		for _, p := range g.of[i] {
			places[p] = true
		}
	}
	for i, c := range g.m.Pieces {
		if !g.isTrack(i) && places[g.places.Root(g.place[i])] {
			shapes = append(shapes, c.On(g.m.Layer))
		}
	}
	l.goesAround(shapes)
	for _, i := range group {
		for _, j := range g.m.touch[i] {
			if i < j && in[j] {
				if long, at := Doubled(g.m.Pieces[i], g.m.Pieces[j]); long > l.Over {
					l.Over = long
					if l.Around == 0 {
						l.At = at
					}
				}
			}
		}
	}
	for _, i := range group {
		if p := g.m.Pieces[i].Shape.Side(0); len(twins[i]) > 0 && int64(p.Length()) > l.Over {
			l.Over = int64(p.Length())
			if l.Around == 0 {
				l.At = p.Middle()
			}
		}
	}
	if l.Around == 0 && l.Over == 0 {
		return nil
	}
	for _, h := range g.hangs {
		if in[h.track] {
			id := g.m.Pieces[h.track].ID
			l.Joints[id] = append(l.Joints[id], h.at)
		}
	}
	l.Ways = g.ways(group, in)
	for _, i := range group {
		l.twins(g.m.Pieces[i].ID, twins[i])
	}
	return l
}

// goesAround finds the largest hole within shapes.
func (l *Loop) goesAround(shapes []geom.Shape) {
	_ = overlay.Done(func() error {
		w := overlay.Begin()
		for _, a := range w.Shapes(shapes, 1000).List() {
			for _, hole := range a.Holes {
				if is := max(geom.Area(hole), -geom.Area(hole)); is >= leastHole && is > l.Around {
					l.Around, l.At = is, hole[0]
				}
			}
		}
		return nil
	})
}

// ways are the tracks of a group in rows, each of which can go as a whole: from a pad, a via, a fork or a place on a track's side to the next.
func (g *loops) ways(group []int, in map[int]bool) (out [][]design.ID) {
	taken := map[int]bool{}
	through := func(node int) bool { // a place where one track of the group goes on from another, and nothing else is
		return len(g.next[node]) == 2 && in[g.next[node][0].to] && in[g.next[node][1].to]
	}
	held := map[int]bool{}
	for root, node := range g.nodes {
		held[node] = g.held[root]
	}
	for _, i := range group {
		if taken[i] || len(g.next[i]) != 2 {
			continue
		}
		taken[i] = true
		row := []int{i}
		for _, first := range g.next[i] {
			for at, from := first.to, i; through(at) && !held[at]; {
				next := g.next[at][0].to
				if next == from {
					next = g.next[at][1].to
				}
				if taken[next] || len(g.next[next]) != 2 {
					break
				}
				taken[next] = true
				row = append(row, next)
				on := g.next[next][0].to
				if on == at {
					on = g.next[next][1].to
				}
				at, from = on, next
			}
		}
		stops := func(i int) bool {
			return slices.ContainsFunc(g.next[i], func(h half) bool { return held[h.to] || !through(h.to) })
		}
		if len(row) == len(group) && !slices.ContainsFunc(row, stops) { // round and round, with nothing on it
			for _, i := range row {
				out = append(out, []design.ID{g.m.Pieces[i].ID})
			}
			continue
		}
		var ids []design.ID
		for _, i := range row {
			ids = append(ids, g.m.Pieces[i].ID)
		}
		out = append(out, ids)
	}
	return out
}
