package escape

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// grid is how the pads of a part stand, seen with the part upright.
type grid struct {
	sin, cos               float64 // of the part's turn
	left, right, low, high float64 // of the middles of the pads
	pitch                  float64 // from the middle of a pad to that of the nearest other, the least of all
}

// gridOf measures the pads of a part that is turned by an angle in millidegrees.
func gridOf(pieces []*layout.Copper, angle int32) *grid {
	g := &grid{left: math.Inf(1), right: math.Inf(-1), low: math.Inf(1), high: math.Inf(-1), pitch: math.Inf(1)}
	g.sin, g.cos = math.Sincos(float64(angle) * math.Pi / 180_000)
	for i, c := range pieces {
		if c.Kind != "pad" || c.Bare {
			continue
		}
		x, y := g.of(c.At)
		g.left, g.right, g.low, g.high = min(g.left, x), max(g.right, x), min(g.low, y), max(g.high, y)
		for _, o := range pieces[:i] {
			if d := c.At.Dist(o.At); o.Kind == "pad" && !o.Bare && d > 0 {
				g.pitch = min(g.pitch, d)
			}
		}
	}
	if math.IsInf(g.pitch, 0) {
		g.pitch = 2_540_000 // of a part with one pad
	}
	return g
}

// of is a place as the upright part has it.
func (g *grid) of(p geom.Point) (x, y float64) {
	return float64(p.X)*g.cos + float64(p.Y)*g.sin, float64(p.Y)*g.cos - float64(p.X)*g.sin
}

// pad is one that is to be led out.
type pad struct {
	*grid
	copper *layout.Copper
	rank   int   // from 1 on, the outermost
	ways   []way // out, over each side of the part, the nearest first
	way          // that is tried
}

// way out over a side of the upright part.
type way struct {
	dx, dy float64
	away   float64 // from the pad to the outermost ones on that side
	wish   float64 // 1 or −1: to which side of it the pad turns first, away from the part's middle
	edge   float64 // how far the outermost pads lie along it
}

// pad finds a pad's rank and ways out.
func (g *grid) pad(c *layout.Copper) *pad {
	x, y := g.of(c.At)
	p := &pad{grid: g, copper: c, ways: []way{
		{dx: -1, away: x - g.left, edge: -g.left}, {dx: 1, away: g.right - x, edge: g.right},
		{dy: -1, away: y - g.low, edge: -g.low}, {dy: 1, away: g.high - y, edge: g.high},
	}}
	for i := range p.ways {
		w := &p.ways[i]
		w.wish = 1
		if aside := (x-(g.left+g.right)/2)*-w.dy + (y-(g.low+g.high)/2)*w.dx; aside < 0 {
			w.wish = -1
		}
	}
	slices.SortStableFunc(p.ways, func(a, b way) int { return cmp.Compare(math.Round(a.away), math.Round(b.away)) })
	p.way = p.ways[0]
	p.rank = 1 + int(math.Round(p.away/g.pitch))
	return p
}

// from is the place so far along the way out, and aside of it to the left, from another.
func (p *pad) from(at geom.Point, along, aside float64) geom.Point {
	x, y := along*p.dx-aside*p.dy, along*p.dy+aside*p.dx
	return geom.Pt(at.X+int64(math.Round(x*p.cos-y*p.sin)), at.Y+int64(math.Round(x*p.sin+y*p.cos)))
}

// out is how far a place lies from where tracks end that lead so far beyond the part; less than 0: it lies beyond.
func (p *pad) out(at geom.Point, beyond int64) float64 {
	x, y := p.of(at)
	return p.edge + float64(beyond) - (x*p.dx + y*p.dy)
}
