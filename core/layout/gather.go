package layout

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// MostGathered bounds what is gathered at once.
const MostGathered = 500

// Gather finds places for parts around a place: the one most connected to the others in the middle, then each where its connections are
// shortest, beside
// those that lie already, keeping its angle and side. None comes over another part of its side. Parts that are locked stay, and draw
// the others to
// them. Cost: O(n² · pads of a part), n at most MostGathered.
//
// Method: constructive placement by connectivity (cluster growth): the next part is the one with the most connections to those placed,
// a net counting
// less the more pads it has.
func Gather(d *design.Doc, ids []design.ID, at geom.Point) (map[design.ID]geom.Point, error) {
	g := &gathering{d: d, at: at, grid: 635_000, edge: EdgeOf(d.Board), place: map[design.ID]geom.Point{},
		net: map[design.ID][]geom.Point{}, share: map[design.ID]float64{}}
	g.inner = g.edge.Holds(at)
	if err := g.take(ids); err != nil {
		return nil, err
	}
	for len(g.left) > 0 {
		g.put(g.next())
	}
	return g.place, nil
}

type gathering struct {
	d     *design.Doc
	at    geom.Point
	edge  Edge
	inner bool // they are gathered on the board, and stay on it where they can
	grid  int64
	left  []*mover
	place map[design.ID]geom.Point
	net   map[design.ID][]geom.Point // pads of the nets of those that lie
	share map[design.ID]float64      // what one connection of a net counts
	laid  []geom.Box                 // courtyards of those that were put
	taken [2]rtree.RTreeG[geom.Box]  // courtyards by side
}

// mover is a part on its way: its courtyard and pads as seen from its origin.
type mover struct {
	part   *design.Placed
	yard   geom.Box
	pads   []geom.Point
	nets   []design.ID // of the pads
	pull   float64     // connections to those that lie
	within float64     // connections to all that are gathered
}

func side(p *design.Placed) int {
	if p.Bottom {
		return 1
	}
	return 0
}

// take looks at what there is: what moves, and what is in its way.
func (g *gathering) take(ids []design.ID) error {
	moving := map[design.ID]bool{}
	for _, id := range ids {
		p := g.d.Placed[id]
		if p == nil || moving[id] {
			continue
		}
		if p.Locked {
			g.anchor(p)
			continue
		}
		f := g.d.Footprint(p.Footprint)
		if f == nil {
			continue
		}
		moving[id] = true
		g.left = append(g.left, moverOf(p, f))
	}
	switch {
	case len(g.left) == 0:
		return fmt.Errorf("nothing of what was picked can be moved; pick parts that are not locked")
	case len(g.left) > MostGathered:
		return fmt.Errorf("%d parts at once are too many to gather; %d are the most", len(g.left), MostGathered)
	}
	for p := range g.d.Placed.All() {
		if f := g.d.Footprint(p.Footprint); f != nil && !moving[p.ID] {
			g.occupy(side(p), geom.BoxOf(Courtyard(f, p.Pose())...))
		}
	}
	bearers := map[design.ID]int{}
	for _, m := range g.left {
		for _, n := range m.nets {
			bearers[n]++
		}
	}
	for n, k := range bearers {
		g.share[n] = 1 / float64(max(k-1+len(g.net[n]), 1))
	}
	for _, m := range g.left {
		for _, n := range m.nets {
			if bearers[n] > 1 {
				m.within += g.share[n]
			}
			m.pull += g.share[n] * float64(min(len(g.net[n]), 1))
		}
	}
	return nil
}

func moverOf(p *design.Placed, f *design.Footprint) *mover {
	t := geom.Pose{Angle: p.Angle, Mirror: p.Bottom}
	m := &mover{part: p, yard: geom.BoxOf(Courtyard(f, t)...)}
	for i := range f.Pads {
		if n := p.Nets[f.Pads[i].Number]; n != 0 {
			m.pads, m.nets = append(m.pads, t.Apply(f.Pads[i].At)), append(m.nets, n)
		}
	}
	return m
}

// anchor is a locked part that was picked too: the others are drawn to it.
func (g *gathering) anchor(p *design.Placed) {
	if f := g.d.Footprint(p.Footprint); f != nil {
		m := moverOf(p, f)
		for i, n := range m.nets {
			g.net[n] = append(g.net[n], m.pads[i].Add(p.At))
		}
		g.laid = append(g.laid, geom.BoxOf(Courtyard(f, p.Pose())...))
	}
}

func (g *gathering) occupy(side int, b geom.Box) {
	lo, hi := corners(b)
	g.taken[side].Insert(lo, hi, b)
}

// free tells whether a courtyard has room.
func (g *gathering) free(side int, b geom.Box) bool {
	lo, hi := corners(b)
	clear := true
	g.taken[side].Search(lo, hi, func(_, _ [2]float64, o geom.Box) bool {
		clear = b.Max.X <= o.Min.X || o.Max.X <= b.Min.X || b.Max.Y <= o.Min.Y || o.Max.Y <= b.Min.Y
		return clear
	})
	return clear
}

// next is the part with the most connections to those that lie; of those alike the one with the most in all, then the largest.
func (g *gathering) next() *mover {
	area := func(m *mover) float64 {
		return float64(m.yard.Max.X-m.yard.Min.X) * float64(m.yard.Max.Y-m.yard.Min.Y)
	}
	i := 0
	for k, m := range g.left {
		b := g.left[i]
		if c := cmp.Or(cmp.Compare(m.pull, b.pull), cmp.Compare(m.within, b.within), cmp.Compare(area(m), area(b)),
			cmp.Compare(b.part.ID, m.part.ID)); c > 0 {
			i = k
		}
	}
	m := g.left[i]
	g.left = slices.Delete(g.left, i, i+1)
	return m
}

// put lays a part where its connections are shortest.
func (g *gathering) put(m *mover) {
	best, at := math.Inf(1), geom.Point{}
	try := func(p geom.Point) {
		p = geom.Snap(p, g.grid)
		if !g.free(side(m.part), moved(m.yard, p)) {
			return
		}
		if c := g.cost(m, p); c < best {
			best, at = c, p
		}
	}
	middle := m.yard.Centre()
	if len(g.laid) == 0 {
		try(g.at.Sub(middle))
	}
	for _, b := range g.laid {
		for _, p := range beside(b, m.yard, g.grid) {
			try(p)
		}
	}
	for ring := int64(1); math.IsInf(best, 1) && ring < 400; ring++ { // nothing beside them is free: farther and farther out
		step := ring * 2 * units.MM
		for _, q := range []geom.Point{{X: step}, {X: -step}, {Y: step}, {Y: -step}, {X: step, Y: step}, {X: -step, Y: step},
			{X: step, Y: -step}, {X: -step, Y: -step}} {
			try(g.at.Add(q).Sub(middle))
		}
	}
	if math.IsInf(best, 1) {
		at = m.part.At // there is no room anywhere near: it stays
	}
	g.place[m.part.ID] = at
	yard := moved(m.yard, at)
	g.occupy(side(m.part), yard)
	g.laid = append(g.laid, yard)
	first := map[design.ID]bool{}
	for i, n := range m.nets {
		first[n] = first[n] || len(g.net[n]) == 0
		g.net[n] = append(g.net[n], m.pads[i].Add(at))
	}
	for _, o := range g.left {
		for _, n := range o.nets {
			if first[n] {
				o.pull += g.share[n]
			}
		}
	}
}

func moved(b geom.Box, by geom.Point) geom.Box {
	return geom.Box{Min: b.Min.Add(by), Max: b.Max.Add(by)}
}

// cost of a part's place: the lengths of its connections to the nearest pads of their nets, and a little for being far off.
func (g *gathering) cost(m *mover, at geom.Point) float64 {
	sum := 0.05 * at.Add(m.yard.Centre()).Dist(g.at)
	if g.inner {
		yard := moved(m.yard, at)
		for _, p := range []geom.Point{yard.Min, yard.Max, geom.Pt(yard.Min.X, yard.Max.Y), geom.Pt(yard.Max.X, yard.Min.Y)} {
			if !g.edge.Holds(p) {
				sum += float64(units.Limit)
			}
		}
	}
	for i, n := range m.nets {
		others := g.net[n]
		if len(others) == 0 {
			continue
		}
		p, least := m.pads[i].Add(at), math.Inf(1)
		for _, q := range others[:min(len(others), 64)] {
			least = min(least, p.Dist(q))
		}
		sum += least * g.share[n]
	}
	return sum
}

// beside are the places on all sides of a courtyard at which another touches it: in line with its middle and with its ends.
func beside(b, yard geom.Box, grid int64) []geom.Point {
	w, h := yard.Max.X-yard.Min.X, yard.Max.Y-yard.Min.Y
	var out []geom.Point
	put := func(x, y int64) { out = append(out, geom.Pt(x-yard.Min.X, y-yard.Min.Y)) } // its lower left corner
	for _, y := range []int64{b.Centre().Y - h/2, b.Min.Y, b.Max.Y - h} {
		put(b.Max.X+grid, y)
		put(b.Min.X-w-grid, y)
	}
	for _, x := range []int64{b.Centre().X - w/2, b.Min.X, b.Max.X - w} {
		put(x, b.Max.Y+grid)
		put(x, b.Min.Y-h-grid)
	}
	return out
}
