package route

import (
	"cmp"
	"math"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// yield makes a thing go round what it clashes with. own: the clashes are the thing's own, else those of what it gives way to.
func (m *mover) yield(t, to *thing, found []clash, own bool) *Obstacle {
	no := &found[0].obstacle
	if t.walks++; t.walks > mostWalks {
		return m.stuck(t, no)
	}
	grow := int64(0)
	var whole, close, rest []geom.Shape // of what it gives way to: the clashing pieces, what of them is near, and all between them, of the hand to its end
	for _, c := range found {
		mine, theirs := c.other, c.own
		if own {
			mine, theirs = c.own, c.other
		}
		g, list := m.room(mine, theirs)
		grow = max(grow, g)
		whole = append(whole, list...)
		for _, l := range list {
			close = append(close, nearby(l, mine, g))
		}
	}
	if t.via != nil {
		return m.shift(t, whole, grow, no)
	}
	if to != nil && to.via == nil {
		low, high := math.MaxInt, math.MinInt
		for _, c := range found {
			theirs := c.own
			if own {
				theirs = c.other
			}
			low, high = min(low, theirs.Pad), max(high, theirs.Pad)
		}
		for _, c := range to.copper {
			if c.Pad <= high && (c.Pad >= low || to.hand != nil) {
				rest = append(rest, c.Shape)
			}
		}
	}
	var best rated
	for _, shapes := range [][]geom.Shape{close, whole, rest} {
		left, right, through := around(grow, shapes...).walks(t.path)
		if !through {
			continue
		}
		for _, path := range [][]geom.Point{left, right} {
			if r := m.rate(t, to, path); best.path == nil || r.compare(best) < 0 {
				best = r
			}
		}
		if best.crosses == 0 && best.meets == 0 {
			break
		}
	}
	if best.path == nil {
		return m.stuck(t, no)
	}
	path := best.path
	m.put(t, path)
	return nil
}

// nearby is the stretch of a straight line's shape that comes near to a piece; other shapes are taken whole.
func nearby(s geom.Shape, mine *layout.Copper, grow int64) geom.Shape {
	if len(s.Pts) != 2 || s.Mids != nil || s.Area {
		return s
	}
	from, to, through := around(grow+s.R, mine.Shape).cut(s.Pts[0], s.Pts[1])
	if !through {
		return s
	}
	return geom.Shape{Pts: []geom.Point{s.Pts[0].Towards(s.Pts[1], from), s.Pts[0].Towards(s.Pts[1], to)}, R: s.R}
}

// room is how far the middle of a piece keeps from the shapes of another, beyond their outlines, and these.
func (m *mover) room(mine, theirs *layout.Copper) (grow int64, shapes []geom.Shape) {
	who := rules.Subject{Net: mine.Net, Thing: mine.Thing}
	if theirs.Bare || theirs.Net != mine.Net || mine.Net == 0 {
		for _, l := range theirs.Levels(mine.Layers) {
			need := m.f.need(who, theirs, theirs.Subject(), l.Layers, theirs.At)
			grow = max(grow, need+mine.On(bits.TrailingZeros32(l.Layers)).R)
			shapes = append(shapes, l.Shape)
		}
	}
	if mine.Hole > 0 && theirs.Hole > 0 && mine.Layers&theirs.Layers != 0 {
		bore := theirs.Bore()
		need := m.f.Rules.Between(design.HoleClearance, who, theirs.Subject(), bits.TrailingZeros32(mine.Layers), theirs.At).Of(0)
		grow = max(grow, need+mine.Hole/2+bore.R-theirs.Shape.R)
		if len(shapes) == 0 {
			shapes = append(shapes, bore)
		}
	}
	return grow, shapes
}

func (m *mover) stuck(t *thing, o *Obstacle) *Obstacle {
	if t.strand != nil {
		o = &Obstacle{Name: "a track", Net: m.f.Doc.NetName(t.strand.Net), At: o.At, Measured: o.Measured, Required: o.Required}
	} else if t.via != nil {
		o = &Obstacle{Name: "a via", Net: m.f.Doc.NetName(t.via.Net), At: t.at, Measured: o.Measured, Required: o.Required}
	}
	return o
}

// rated is a path that a strand may take: how often it crosses what must not be crossed, how much of it meets what cannot move or what it
// gives way to, and how long it is. The less the better, in this order.
type rated struct {
	path           []geom.Point
	crosses, meets int
	long           int64
}

func (r rated) compare(o rated) int {
	return cmp.Or(cmp.Compare(r.crosses, o.crosses), cmp.Compare(r.meets, o.meets), cmp.Compare(r.long, o.long))
}

// rate a path of a strand that gives way to another thing.
func (m *mover) rate(t, to *thing, path []geom.Point) rated {
	r := rated{path: path, long: Length(path)}
	for _, lower := range m.things {
		if lower == t || lower != to && lower.hand == nil || lower.strand != nil && lower.strand.Layer != t.strand.Layer || lower.net() == t.strand.Net {
			continue
		}
		for _, l := range lower.lines() {
			r.crosses += crossings(path, l)
		}
		tail := lower.tail()
		r.crosses += max(0, crossings(path, tail)-crossings(t.strand.Path, tail))
	}
	for _, c := range t.strand.copper(path) {
		m.f.each(wishOf(c), func(other *layout.Copper, _ Obstacle) bool {
			if o := m.owner(other); o == nil || o == to {
				r.meets++
			}
			return true
		})
	}
	return r
}

// crossings is how often two lines cross.
func crossings(a, b []geom.Point) (n int) {
	for i := 0; i+1 < len(a); i++ {
		for j := 0; j+1 < len(b); j++ {
			if _, over := geom.Cross(a[i], a[i+1], b[j], b[j+1]); over {
				n++
			}
		}
	}
	return n
}
