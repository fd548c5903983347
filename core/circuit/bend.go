package circuit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Lead is how a wire leaves its last corner.
type Lead string

// The leads of a wire's next pieces.
const (
	LeadOwn      Lead = ""         // as suits the pin, or the hand's motion when there is none
	LeadLevel    Lead = "level"    // sideways first
	LeadUpright  Lead = "upright"  // up or down first
	LeadStraight Lead = "straight" // in one piece at any angle
)

// Bend is the way of a wire from its last corner to the hand: with one corner, or led round
// (lead.go) where that would run over a pin, an end of another wire or along one. It leaves a
// pin in the pin's direction. The lead is a wish that is kept where nothing is in its way.
func Bend(d *design.Doc, v *SheetView, from, to geom.Point, lead Lead, bundle bool) []geom.Point {
	if from == to {
		return []geom.Point{from}
	}
	if lead == LeadStraight {
		return []geom.Point{from, to}
	}
	g := v.single
	if bundle {
		g = v.bundled
	}
	f := &field{
		g: g, meets: true,
		ownPlace: func(p geom.Point) bool { return p == from || p == to },
		ownWire:  func(*design.Wire) bool { return false },
	}
	f.bodies, f.outward = bodiesOf(d, v.items)
	level, upright := []geom.Point{from, geom.Pt(to.X, from.Y), to}, []geom.Point{from, geom.Pt(from.X, to.Y), to}
	ways := [][]geom.Point{level, upright}
	if lead == LeadUpright {
		ways[0], ways[1] = ways[1], ways[0]
	}
	if from.X == to.X || from.Y == to.Y {
		ways = [][]geom.Point{{from, to}}
	}
	best, least := ways[0], int32(1<<30)
	for i, way := range ways {
		cost := f.trespass(way)*1000 + f.leaving(way)
		if lead != LeadOwn {
			cost = f.trespass(way)*1000 + int32(i) // the lead was asked for
			if f.leaving(way) >= costInto {
				cost += costInto
			}
		}
		if cost < least {
			best, least = way, cost
		}
	}
	if least < costInto {
		return best
	}
	if way := f.way([]geom.Point{from}, []geom.Point{to}, nil); way != nil {
		return way
	}
	return best
}

// leaving is what it costs that a way leaves or reaches a pin otherwise than in its direction.
func (f *field) leaving(way []geom.Point) int32 {
	n := len(way)
	return f.into(way[0], direction(way[0], way[1])) + f.into(way[n-1], direction(way[n-1], way[n-2]))
}

func direction(a, b geom.Point) geom.Point {
	switch {
	case b.X > a.X:
		return compass[0]
	case b.X < a.X:
		return compass[2]
	case b.Y > a.Y:
		return compass[1]
	}
	return compass[3]
}

// trespass counts what a way touches that it does not end on: places it passes over, wires it
// runs along or turns on, bodies it goes through.
func (f *field) trespass(way []geom.Point) int32 {
	n := int32(0)
	for i := 0; i+1 < len(way); i++ {
		a, b := way[i], way[i+1]
		f.g.between(a, b, func(geom.Point) { n++ })
		f.g.attachedAlong(a, b, func(geom.Point, []design.OnSheet) { n++ })
		for _, w := range f.g.wires {
			if along(a, b, w.A, w.B) {
				n++
			}
		}
		if i > 0 {
			if len(f.g.ends[a])+len(f.g.pins[a])+len(f.g.attached[a]) > 0 {
				n++
			}
			f.g.through(a, func(*design.Wire) { n++ })
		}
		for _, body := range f.bodies {
			if inner := body.Grow(-1); crossesBox(a, b, inner) {
				n++
			}
		}
	}
	return n
}

// along tells whether two straight pieces share more than a place.
func along(a, b, c, d geom.Point) bool {
	on := 0
	var places []geom.Point
	for _, p := range []struct{ p, q, r geom.Point }{{a, c, d}, {b, c, d}, {c, a, b}, {d, a, b}} {
		if geom.OnSegment(p.p, p.q, p.r) {
			on++
			places = append(places, p.p)
		}
	}
	for _, p := range places {
		if p != places[0] {
			return on >= 2
		}
	}
	return false
}

// crossesBox tells whether a level or upright piece goes through a box.
func crossesBox(a, b geom.Point, box geom.Box) bool {
	return box.Min.X < box.Max.X && box.Min.Y < box.Max.Y && geom.BoxOf(a, b).Meets(box)
}
