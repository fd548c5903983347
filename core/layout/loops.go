package layout

import (
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
