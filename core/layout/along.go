package layout

import (
	"container/heap"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Way along tracks between two places of a net.
type Way struct {
	Length int64         `json:"length"` // along the middles of tracks
	Line   []geom.Corner `json:"line"`   // that it goes along
	Vias   int           `json:"vias"`
}

// Along finds the shortest way along the tracks of a net from one place on its copper to another, hopping
// through vias and pads. ok is false when no tracks join them. Pads and vias are as if they were places. Source: Dijkstra's shortest path.
func Along(d *design.Doc, x *Index, net design.ID, from, to geom.Point) (w Way, ok bool) {
	g := &ways{at: map[knot]int{}}
	pieces := x.NetPieces(net)
	for _, c := range pieces {
		if c.Kind == "track" {
			g.track(c, x, from, to)
		}
	}
	g.hops(pieces)
	a, b := g.on(x, net, from), g.on(x, net, to)
	if a < 0 || b < 0 {
		return w, false
	}
	return g.shortest(a, b)
}

// knot is a place on a copper layer.
type knot struct {
	at    geom.Point
	layer int
}

type stretch struct {
	to    int
	piece geom.Piece
	long  float64
	via   bool
}

type ways struct {
	at    map[knot]int
	knots []knot
	next  [][]stretch
}

func (g *ways) knot(k knot) int {
	if i, ok := g.at[k]; ok {
		return i
	}
	g.at[k] = len(g.knots)
	g.knots = append(g.knots, k)
	g.next = append(g.next, nil)
	return len(g.knots) - 1
}

func (g *ways) join(a, b int, p geom.Piece, via bool) {
	long := p.Length()
	g.next[a] = append(g.next[a], stretch{b, p, long, via})
	g.next[b] = append(g.next[b], stretch{a, p.Back(), long, via})
}

// track cuts a track where others end on it, where it meets pads and vias, and at the two places.
func (g *ways) track(c *Copper, x *Index, from, to geom.Point) {
	p := c.Shape.Side(0)
	layer := firstLayer(c)
	cuts := []geom.Point{p.A, p.B}
	cut := func(q geom.Point, end bool) {
		gap, on, _ := geom.PieceDistance(p, geom.Straight(q, q))
		if gap > float64(c.Shape.R) {
			return
		}
		cuts = append(cuts, on)
		if end && on != q {
			g.join(g.knot(knot{on, layer}), g.knot(knot{q, layer}), geom.Straight(on, q), false)
		}
	}
	for o := range x.Near(c.Box()) {
		if o != c && o.Net == c.Net && o.Kind == "track" && o.Has(layer) {
			q := o.Shape.Side(0)
			cut(q.A, true)
			cut(q.B, true)
		}
	}
	cut(from, false)
	cut(to, false)
	sorted := p.InOrder(cuts)
	for i := 0; i+1 < len(sorted); i++ {
		if sorted[i] != sorted[i+1] {
			g.join(g.knot(knot{sorted[i], layer}), g.knot(knot{sorted[i+1], layer}), p.Between(sorted[i], sorted[i+1]), false)
		}
	}
}

// hops joins what lies within one pad, via or end of a track.
func (g *ways) hops(pieces []*Copper) {
	ends := len(g.knots)
	for _, c := range pieces {
		if c.Kind == "track" {
			continue
		}
		first := -1
		for i := range ends {
			k := g.knots[i]
			if !c.Has(k.layer) || !c.On(k.layer).Holds(k.at) {
				continue
			}
			if first < 0 {
				first = i
				continue
			}
			g.join(first, i, geom.Straight(g.knots[first].at, g.knots[i].at), g.knots[first].layer != k.layer)
		}
	}
}

func firstLayer(c *Copper) int {
	for i := range 32 {
		if c.Has(i) {
			return i
		}
	}
	return 0
}

// on is the nearest knot on a piece of copper that a place lies on; −1: there is none.
func (g *ways) on(x *Index, net design.ID, p geom.Point) int {
	best, at := math.Inf(1), -1
	for c := range x.Near(geom.BoxOf(p)) {
		if c.Net != net || !c.Shape.Holds(p) {
			continue
		}
		for i, k := range g.knots {
			if d := k.at.Dist(p); d < best && c.Has(k.layer) && c.On(k.layer).Holds(k.at) {
				best, at = d, i
			}
		}
	}
	return at
}

type reached struct {
	knot int
	long float64
}

type queue []reached

func (q queue) Len() int           { return len(q) }
func (q queue) Less(i, j int) bool { return q[i].long < q[j].long }
func (q queue) Swap(i, j int)      { q[i], q[j] = q[j], q[i] }
func (q *queue) Push(x any)        { *q = append(*q, x.(reached)) }
func (q *queue) Pop() any {
	old := *q
	last := old[len(old)-1]
	*q = old[:len(old)-1]
	return last
}

func (g *ways) shortest(a, b int) (w Way, ok bool) {
	long := make([]float64, len(g.knots))
	by := make([]*stretch, len(g.knots))
	before := make([]int, len(g.knots))
	for i := range long {
		long[i], before[i] = math.Inf(1), -1
	}
	long[a] = 0
	q := &queue{{a, 0}}
	for q.Len() > 0 {
		r := heap.Pop(q).(reached)
		if r.long > long[r.knot] {
			continue
		}
		for i := range g.next[r.knot] {
			s := &g.next[r.knot][i]
			if l := r.long + s.long; l < long[s.to] {
				long[s.to], by[s.to], before[s.to] = l, s, r.knot
				heap.Push(q, reached{s.to, l})
			}
		}
	}
	if math.IsInf(long[b], 1) {
		return w, false
	}
	w.Length = int64(math.Round(long[b]))
	var back []geom.Piece
	for i := b; i != a; i = before[i] {
		back = append(back, by[i].piece)
		if by[i].via {
			w.Vias++
		}
	}
	for _, p := range slices.Backward(back) {
		c := geom.Corner{Point: p.A}
		if p.Round() {
			c.Mid = &p.M
		}
		w.Line = append(w.Line, c)
	}
	w.Line = append(w.Line, geom.Corner{Point: g.knots[b].at})
	return w, true
}
