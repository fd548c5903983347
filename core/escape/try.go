package escape

import (
	"cmp"
	"fmt"
	"math"
	"math/bits"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
)

// try is the search for how one pad is led out with tracks of a width.
type try struct {
	*worker
	*pad
	width int64
	why   error // the first thing that stood in the way
}

// free tells whether a straight track may lie on a layer.
func (t *try) free(a, b geom.Point, layer int) bool {
	if a == b {
		return true
	}
	w := route.Wish{Shape: geom.Stroke(a, b, t.width), Layers: 1 << layer, Net: t.copper.Net, Thing: design.ATrack}
	if t.why == nil {
		if o := t.field.Clear(w); o != nil {
			t.why = o
			return false
		}
		return true
	}
	return t.field.Free(w)
}

// outward is a way from a place beyond the part on a layer: straight, else aside by half a right angle into the nearest gap between the
// pads, and then straight. nil: there is none.
func (t *try) outward(from geom.Point, layer int) []geom.Point {
	long := t.out(from, t.ask.Beyond)
	if long <= 0 {
		return []geom.Point{from}
	}
	step := float64(t.width + t.field.Usual(design.Clearance, route.Wish{Shape: geom.Disc(from, 0), Layers: 1 << layer, Net: t.copper.Net, Thing: design.ATrack}))
	half := t.pitch / 2
	for _, aside := range []float64{0, half - step/2, half, half + step/2, step, 2 * step, t.pitch, t.pitch + half} {
		for _, side := range []float64{t.wish, -t.wish} {
			if aside == 0 && side != t.wish || aside > long {
				continue
			}
			turn := t.from(from, aside, side*aside)
			end := t.from(turn, long-aside, 0)
			if t.free(from, turn, layer) && t.free(turn, end, layer) {
				return slices.Compact([]geom.Point{from, turn, end})
			}
		}
	}
	return nil
}

// layers that the pad is on and that tracks may lead out on.
func (t *try) own() (out []int) {
	for _, l := range t.ask.Layers {
		if t.copper.Has(l) {
			out = append(out, l)
		}
	}
	return out
}

// beyond leads the pad beyond the part on a layer of its own; one that lies there gets no legs.
func (t *try) beyond() []route.Leg {
	for _, l := range t.own() {
		switch path := t.outward(t.copper.At, l); len(path) {
		case 0:
		case 1:
			return []route.Leg{}
		default:
			return []route.Leg{t.leg(l, path)}
		}
	}
	return nil
}

func (t *try) leg(layer int, path []geom.Point) route.Leg {
	return route.Leg{Layer: layer, Width: t.width, Path: geom.Corners(path...)}
}

// spots are the places beside the pad where a hop may stand, the best first: between four pads outward, then the other three, then beyond
// the pad along its way out.
func (t *try) spots() (out []geom.Point) {
	half := t.pitch / 2
	for _, d := range [][2]float64{{1, t.wish}, {1, -t.wish}, {-1, t.wish}, {-1, -t.wish}} {
		out = append(out, t.from(t.copper.At, d[0]*half, d[1]*half))
	}
	long := t.reach(1)
	for i := range 6 {
		for _, d := range []float64{1, -1} {
			out = append(out, t.from(t.copper.At, d*(long+t.pitch*float64(i+1)/2), 0))
		}
	}
	return out
}

// reach is how far the pad's copper reaches from its middle along its way out, or, for −1, inward.
func (t *try) reach(way float64) float64 {
	shape := t.copper.On(bits.TrailingZeros32(t.copper.Layers))
	b := shape.Box()
	lo, hi := 0.0, float64(b.Max.X-b.Min.X+b.Max.Y-b.Min.Y)
	for hi-lo > 0.25 { // of a nanometre
		if mid := (lo + hi) / 2; shape.Holds(t.from(t.copper.At, way*mid, 0)) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return math.Round(lo)
}

// hop is the best hop at a place to a layer, with the leg to it; nil: none fits, or there is nothing to hop.
func (t *try) hop(at geom.Point, from, to int) (route.Leg, *route.Hop) {
	if !t.free(t.copper.At, at, from) {
		return route.Leg{}, nil
	}
	tried := t.field.HopAt(route.HopAsk{At: at, Net: t.copper.Net, From: from, To: to, Width: t.width})
	if len(tried) == 0 {
		return route.Leg{}, nil
	}
	last := tried[len(tried)-1]
	if last.Hop == nil {
		if t.why == nil {
			t.why = last.Why
		}
		return route.Leg{}, nil
	}
	return t.leg(from, []geom.Point{t.copper.At, at}), last.Hop
}

// first is the layer of a pad that is led from: its own of those tracks may lie on, else the uppermost.
func (t *try) first() int {
	if own := t.own(); len(own) > 0 {
		return own[0]
	}
	return bits.TrailingZeros32(t.copper.Layers)
}

// hopped leads the pad by a hop to another layer and beyond the part there: the nearest layer first.
func (t *try) hopped() []route.Leg {
	from := t.first()
	others := slices.DeleteFunc(slices.Clone(t.ask.Layers), t.copper.Has)
	slices.SortStableFunc(others, func(a, b int) int { return apart(a, from) - apart(b, from) })
	for _, to := range others {
		for _, at := range t.spots() {
			begin, hop := t.hop(at, from, to)
			if hop == nil {
				continue
			}
			path := []geom.Point{hop.End()}
			if !t.ask.Holes {
				// what is laid on the way out keeps clear of the hop's own copper by being of its net
				if path = t.outward(hop.End(), to); path == nil {
					continue
				}
			}
			end := t.leg(to, path)
			end.Hop = hop
			return []route.Leg{begin, end}
		}
	}
	return nil
}

// toArea leads the pad by a hop into an area of its net on another layer, the nearest first; a pad for which there is no such hop, or no
// such layer, and that lies in an area on its own, is there already: it gets no legs.
func (t *try) toArea(areas map[int][]*geom.Prepared) []route.Leg {
	from := t.first()
	var layers []int
	in := false
	for l, list := range areas {
		if !t.copper.Has(l) {
			layers = append(layers, l)
		} else if covers(list, t.copper.At) {
			in = true
		}
	}
	slices.SortFunc(layers, func(a, b int) int { return cmp.Or(apart(a, from)-apart(b, from), a-b) })
	beside := false
	for _, to := range layers {
		for _, at := range t.spots() {
			if !covers(areas[to], at) {
				continue
			}
			beside = true
			if begin, hop := t.hop(at, from, to); hop != nil && covers(areas[to], hop.End()) {
				end := t.leg(to, []geom.Point{hop.End()})
				end.Hop = hop
				return []route.Leg{begin, end}
			}
		}
	}
	if !beside && t.why == nil {
		t.why = fmt.Errorf("no area of %s on another layer lies beside it", t.field.Doc.NetName(t.copper.Net))
	}
	if in {
		return []route.Leg{}
	}
	return nil
}

// covers tells whether one of the areas holds a place.
func covers(list []*geom.Prepared, at geom.Point) bool {
	return slices.ContainsFunc(list, func(r *geom.Prepared) bool { return r == nil || r.Holds(at) })
}
