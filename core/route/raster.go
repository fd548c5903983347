package route

import (
	"math"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// tileSide is how many places a tile of the raster has along a side.
const tileSide = 32

// What is known of a place of the raster.
const (
	open   uint8 = iota // a track may stand here, and go to every open neighbour
	tight               // it may stand here; whether it may go on is to be measured
	closed              // it may not stand here
	plated              // of vias: a plated hole of the net is here already
)

// raster tells of the places of a grid whether copper of a net may stand there: a dot as wide as the
// track, or a via. It is made tile by tile where it is asked.
type raster struct {
	f      Field
	origin geom.Point
	pitch  int64
	wish   Wish // at the origin; Layers: the one layer, or those of a via
	place  bool // what is asked for may differ from place to place
}

func newRaster(f Field, origin geom.Point, pitch int64, w Wish) *raster {
	r := &raster{f: f, origin: origin, pitch: pitch, wish: w}
	r.place = f.Rules.ByPlace(design.Clearance) || f.Rules.ByPlace(design.EdgeClearance) || f.Rules.ByPlace(design.HoleClearance) ||
		f.Rules.ByPlace(design.HoleCopper)
	return r
}

// at is the place of a step of the grid.
func (r *raster) at(x, y int32) geom.Point {
	return geom.Pt(r.origin.X+int64(x)*r.pitch, r.origin.Y+int64(y)*r.pitch)
}

// fill makes a tile from the place x0, y0 on: every piece of foreign copper closes what it is too near to.
func (r *raster) fill(t *[tileSide * tileSide]uint8, x0, y0 int32) {
	box := geom.BoxOf(r.at(x0, y0), r.at(x0+tileSide-1, y0+tileSide-1))
	w := r.wish
	own := w.Shape.R
	step := float64(r.pitch) * math.Sqrt2 / 2 // half of the longest way to a neighbour
	who := rules.Subject{Net: w.Net, Thing: w.Thing}
	lowest := bits.TrailingZeros32(w.Layers)
	// mark closes the places nearer to a shape than need, as far as anything may be asked for
	mark := func(s geom.Shape, most int64, need func(at geom.Point) int64) {
		reach := float64(most + s.R)
		far := math.Sqrt(reach*reach + step*step)
		core := s.Core().Grow(int64(far) + 1)
		lx, ly := r.index(core.Min, true)
		hx, hy := r.index(core.Max, false)
		measure := distanceTo(s)
		for y := max(ly, y0); y <= min(hy, y0+tileSide-1); y++ {
			for x := max(lx, x0); x <= min(hx, x0+tileSide-1); x++ {
				cell := &t[(y&31)<<5|x&31]
				if *cell == closed {
					continue
				}
				at := r.at(x, y)
				d := measure(at)
				switch {
				case d >= far:
				case need != nil:
					limit := float64(need(at) + s.R)
					if d < limit-geom.Slack {
						*cell = closed
					} else if d < math.Sqrt(limit*limit+step*step) {
						*cell = tight
					}
				case d < reach-geom.Slack:
					*cell = closed
				default:
					*cell = tight
				}
			}
		}
	}
	for c := range r.f.near(box.Grow(r.f.Rules.Reach(w.Layers) + own + int64(step))) {
		other := c.Subject()
		if w.Hole > 0 && c.Hole > 0 && w.Layers&c.Layers != 0 {
			bore := c.Bore()
			need := func(at geom.Point) int64 {
				return r.f.Rules.Between(design.HoleClearance, who, other, lowest, at).Of(0) + w.Hole/2
			}
			r.marked(mark, bore, r.f.Rules.Greatest(design.HoleClearance)+w.Hole/2, need, c.At)
		}
		if !c.Bare && (c.Net == w.Net && w.Net != 0 || c.Layers&w.Layers == 0) {
			continue
		}
		for mine := range levels(w.Shape, w.Other, w.Layers&c.Layers) {
			for _, level := range c.Levels(mine.Layers) {
				need := func(at geom.Point) int64 {
					return r.f.need(who, c, other, level.Layers, at) + mine.Shape.R
				}
				r.marked(mark, level.Shape, r.f.Rules.Reach(level.Layers)+mine.Shape.R, need, c.At)
			}
		}
		r.walls(mark, who, c, other)
	}
	r.borders(t, box, x0, y0)
	if w.Hole > 0 {
		r.platings(t, box, x0, y0)
	}
}

// walls closes what is too near to the wall of a plated hole: its own copper to one of another net, or its hole to other copper.
func (r *raster) walls(mark func(geom.Shape, int64, func(geom.Point) int64), who rules.Subject, c *layout.Copper, other rules.Subject) {
	w, most := r.wish, r.f.Rules.Greatest(design.HoleCopper)
	if most <= 0 || c.Bare {
		return
	}
	asked := func(layers uint32, at geom.Point) (need int64) {
		for ; layers != 0; layers &= layers - 1 {
			need = max(need, r.f.Rules.Between(design.HoleCopper, who, other, bits.TrailingZeros32(layers), at).Of(0))
		}
		return need
	}
	if c.Hole > 0 {
		for mine := range levels(w.Shape, w.Other, w.Layers&c.Layers) {
			r.marked(mark, c.Bore(), most+mine.Shape.R, func(at geom.Point) int64 { return asked(mine.Layers, at) + mine.Shape.R }, c.At)
		}
	}
	if w.Hole > 0 {
		for _, level := range c.Levels(w.Layers) {
			r.marked(mark, level.Shape, most+w.Hole/2, func(at geom.Point) int64 { return asked(level.Layers, at) + w.Hole/2 }, c.At)
		}
	}
}

// besidePads is how far new vias are kept from surface pads of their own net, where solder would run into them, in nanometres.
const besidePads = 100_000

// platings notes where a plated hole of the net is that joins all layers, so that a hop needs no via; and closes the surface pads of the net.
func (r *raster) platings(t *[tileSide * tileSide]uint8, box geom.Box, x0, y0 int32) {
	reach := r.wish.Shape.R + besidePads
	for c := range r.f.near(box.Grow(reach)) {
		if c.Thing == design.SurfacePad && c.Net == r.wish.Net {
			b := c.Box().Grow(reach)
			lx, ly := r.index(b.Min, true)
			hx, hy := r.index(b.Max, false)
			for y := max(ly, y0); y <= min(hy, y0+tileSide-1); y++ {
				for x := max(lx, x0); x <= min(hx, x0+tileSide-1); x++ {
					i := (y&31)<<5 | x&31
					if gap, _, _ := geom.Gap(c.Shape, geom.Disc(r.at(x, y), reach)); gap < 0 && t[i] != plated {
						t[i] = closed
					}
				}
			}
		}
		if c.Hole == 0 || c.Bare || c.Net != r.wish.Net || c.Layers&r.wish.Layers != r.wish.Layers {
			continue
		}
		b := c.Box()
		lx, ly := r.index(b.Min, true)
		hx, hy := r.index(b.Max, false)
		for y := max(ly, y0); y <= min(hy, y0+tileSide-1); y++ {
			for x := max(lx, x0); x <= min(hx, x0+tileSide-1); x++ {
				if c.Shape.Holds(r.at(x, y)) {
					t[(y&31)<<5|x&31] = plated
				}
			}
		}
	}
}

// marked marks a shape with the need that holds for it: one for all places, or by place.
func (r *raster) marked(mark func(geom.Shape, int64, func(geom.Point) int64), s geom.Shape, most int64, need func(geom.Point) int64, at geom.Point) {
	if r.place {
		mark(s, most, need)
		return
	}
	mark(s, need(at), nil)
}

// borders closes what lies too near to the board's edge or in an area that keeps the thing out.
func (r *raster) borders(t *[tileSide * tileSide]uint8, box geom.Box, x0, y0 int32) {
	w := r.wish
	who := rules.Subject{Net: w.Net, Thing: w.Thing}
	moved := func(at geom.Point) geom.Shape { return geom.Disc(at, w.Shape.R) }
	most := r.f.Rules.Greatest(design.EdgeClearance)
	const block = 8 // places are asked for by squares of so many first
	half := block*r.pitch + most
	for k := range t {
		if k&7 != 0 || k>>5&7 != 0 {
			continue
		}
		if _, _, near := r.f.Index.Edge().Gap(moved(r.at(x0+int32(k&31)+block/2, y0+int32(k>>5)+block/2)), half); !near {
			continue
		}
		for j := range block * block {
			i := k + j>>3<<5 + j&7
			if t[i] == closed {
				continue
			}
			at := r.at(x0+int32(i&31), y0+int32(i>>5))
			need := r.f.asked(design.EdgeClearance, w.Layers, func(layer int) *rules.Ruling { return r.f.Rules.For(design.EdgeClearance, who, layer, at) })
			gap, _, near := r.f.Index.Edge().Gap(moved(at), need+r.pitch)
			if !near {
				continue
			}
			if geom.Short(float64(geom.Measured(gap)), need) {
				t[i] = closed
			} else {
				t[i] = tight
			}
		}
	}
	keeps := r.f.Index.KeepOuts()
	for i := range keeps {
		k := &keeps[i]
		if !k.Box().Meets(box.Grow(w.Shape.R + r.pitch)) {
			continue
		}
		for j := range t {
			if t[j] == closed {
				continue
			}
			at := r.at(x0+int32(j&31), y0+int32(j>>5))
			if _, bars := k.Bars(w.Thing, w.Layers, moved(at)); bars {
				t[j] = closed
			} else if k.Box().Meets(moved(at).Box().Grow(r.pitch)) {
				t[j] = max(t[j], tight)
			}
		}
	}
}

// index is the step of the grid at or after a place, or at or before it.
func (r *raster) index(p geom.Point, up bool) (x, y int32) {
	d := p.Sub(r.origin)
	f := func(v int64) int32 {
		q := math.Floor(float64(v) / float64(r.pitch))
		if up {
			q = math.Ceil(float64(v) / float64(r.pitch))
		}
		return int32(q)
	}
	return f(d.X), f(d.Y)
}

// distanceTo measures from places to the core of a shape, 0 within an area, in nanometres. It is asked for every place of a tile, so that straight sides are
// made ready once.
func distanceTo(s geom.Shape) func(geom.Point) float64 {
	switch {
	case s.Mids != nil:
		bare := s
		bare.R = 0
		return func(p geom.Point) float64 {
			d, _, _ := geom.Gap(bare, geom.Disc(p, 0))
			return max(d, 0)
		}
	case len(s.Pts) == 1:
		return func(p geom.Point) float64 { return p.Dist(s.Pts[0]) }
	}
	sides := sidesOf(s)
	if s.Area {
		return func(p geom.Point) float64 {
			if within(sides, p) {
				return 0
			}
			return nearest(sides, p)
		}
	}
	return func(p geom.Point) float64 { return nearest(sides, p) }
}

// side is a straight side of a shape: where it begins, its way, and the square of its length.
type side struct{ x, y, dx, dy, square float64 }

func sidesOf(s geom.Shape) []side {
	out := make([]side, 0, len(s.Pts))
	for i := range s.Sides() {
		p := s.Side(i)
		dx, dy := float64(p.B.X-p.A.X), float64(p.B.Y-p.A.Y)
		out = append(out, side{float64(p.A.X), float64(p.A.Y), dx, dy, dx*dx + dy*dy})
	}
	return out
}

// nearest is how far a place is from the nearest of sides.
func nearest(sides []side, p geom.Point) float64 {
	best := math.Inf(1)
	for i := range sides {
		s := &sides[i]
		px, py := float64(p.X)-s.x, float64(p.Y)-s.y
		k := 0.0
		if s.square > 0 {
			k = max(0, min(1, (px*s.dx+py*s.dy)/s.square))
		}
		ex, ey := px-k*s.dx, py-k*s.dy
		best = min(best, ex*ex+ey*ey)
	}
	return math.Sqrt(best)
}

// within tells whether closed sides surround a place, by how often they cross the line to its right.
func within(sides []side, p geom.Point) (in bool) {
	x, y := float64(p.X), float64(p.Y)
	for i := range sides {
		s := &sides[i]
		if (s.y > y) != (s.y+s.dy > y) && x < s.x+(y-s.y)/s.dy*s.dx {
			in = !in
		}
	}
	return in
}
