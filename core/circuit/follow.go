package circuit

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// holds tells whether something at p stays behind and needs a wire to what moved away.
func (m *mover) holds(p geom.Point) bool {
	for _, pin := range m.old.pins[p] {
		if !m.goes(pin.Part) {
			return true
		}
	}
	middle := false
	m.old.through(p, func(w *design.Wire) {
		if !m.sel[w.ID] && w.A != p && w.B != p {
			middle = true
		}
	})
	return middle
}

// followers moves what hangs on the anchors: wires that end there, and labels, supply and
// no-connect marks that stand there.
func (m *mover) followers([]design.OnSheet) {
	var places []geom.Point
	stays := map[geom.Point]bool{}
	for p := range m.anchors {
		places = append(places, p)
		stays[p] = m.holds(p)
	}
	sortPoints(places)
	goes := func(p geom.Point) (geom.Point, bool) {
		to, ok := m.anchors[p]
		if !ok || stays[p] {
			return p, false
		}
		return to[0], true
	}
	var stretched []*design.Wire
	for _, w := range m.old.wires {
		if m.sel[w.ID] {
			continue
		}
		_, a := goes(w.A)
		_, b := goes(w.B)
		if a || b {
			stretched = append(stretched, w)
		} else {
			m.fixed.addWire(w)
		}
	}
	for _, p := range places {
		to := m.anchors[p]
		first := to[0]
		if stays[p] && first != p {
			m.link(p, first, nil)
		}
		for _, other := range to[1:] {
			m.link(first, other, nil)
		}
		if !stays[p] && first != p {
			m.moveAttached(p, first)
		}
	}
	for _, w := range stretched {
		if m.gone[w.ID] != nil {
			continue
		}
		a, ma := goes(w.A)
		b, mb := goes(w.B)
		m.stretch(w, a, b, ma, mb)
	}
}

// moveAttached moves what hangs at p and was not selected.
func (m *mover) moveAttached(p, to geom.Point) {
	step := By(to.Sub(p))
	for _, o := range m.old.attached[p] {
		if !m.goes(o.ObjectID()) {
			m.now[o.ObjectID()] = step(o)
		}
	}
}

// current is the wire as it stands now, after earlier slides.
func (m *mover) current(w *design.Wire) *design.Wire {
	if o, ok := m.now[w.ID]; ok {
		return o.(*design.Wire)
	}
	return w
}

func (m *mover) keep(old *design.Wire, a, b geom.Point) {
	if a == b {
		delete(m.now, old.ID)
		m.gone[old.ID] = old
		return
	}
	c := *old
	c.A, c.B = a, b
	m.now[old.ID] = &c
	m.fixed.addWire(&c)
}

// stretch lays the wire w between a and b, where at least one end moved.
func (m *mover) stretch(w *design.Wire, a, b geom.Point, ma, mb bool) {
	cur := m.current(w)
	if !ma {
		a = cur.A
	}
	if !mb {
		b = cur.B
	}
	level, upright := w.A.Y == w.B.Y, w.A.X == w.B.X
	straight := level && a.Y == b.Y || upright && a.X == b.X || !level && !upright
	defer m.labelsAlong(w, a, b)
	if straight && m.coversAttached(w, a, b) {
		m.keep(w, a, b)
		return
	}
	if !straight && ma != mb && m.slide(w, a, b, mb) {
		return
	}
	if ma && mb {
		m.keepOrLink(w, a, b)
		return
	}
	// keep the wire where it was as far as things hang on its middle, and add an elbow
	if !m.coversAttached(w, a, b) || len(m.onMiddle(w)) > 0 {
		m.keep(w, cur.A, cur.B)
		if ma {
			m.link(cur.A, a, w)
		} else {
			m.link(cur.B, b, w)
		}
		return
	}
	m.keepOrLink(w, a, b)
}

// keepOrLink replaces w by an elbowed line from a to b; the longer first piece keeps w's id.
func (m *mover) keepOrLink(w *design.Wire, a, b geom.Point) {
	path := m.bend(a, b, w)
	m.keep(w, path[0], path[1])
	for i := 1; i+1 < len(path); i++ {
		m.lay(path[i], path[i+1])
	}
}

func (m *mover) lay(a, b geom.Point) {
	if a == b {
		return
	}
	w := &design.Wire{ID: m.newID(), Sheet: m.old.sheet, A: a, B: b, Bundle: m.old.bundle}
	m.now[w.ID] = w
	m.fixed.addWire(w)
}

// link lays wires from p to q.
func (m *mover) link(p, q geom.Point, like *design.Wire) {
	path := m.bend(p, q, like)
	for i := 0; i+1 < len(path); i++ {
		m.lay(path[i], path[i+1])
	}
}

// bend chooses the right-angled line from a to b that touches least on its way: two ways
// with one elbow, then two with a step in the middle.
func (m *mover) bend(a, b geom.Point, like *design.Wire) []geom.Point {
	if a.X == b.X || a.Y == b.Y {
		return []geom.Point{a, b}
	}
	mid := geom.Pt(snapMiddle(a.X, b.X), snapMiddle(a.Y, b.Y))
	ways := [][]geom.Point{
		{a, geom.Pt(b.X, a.Y), b}, {a, geom.Pt(a.X, b.Y), b},
		{a, geom.Pt(mid.X, a.Y), geom.Pt(mid.X, b.Y), b}, {a, geom.Pt(a.X, mid.Y), geom.Pt(b.X, mid.Y), b},
	}
	if like != nil && like.A.X == like.B.X {
		ways[0], ways[1] = ways[1], ways[0]
		ways[2], ways[3] = ways[3], ways[2]
	}
	best, least := ways[0], 1<<30
	for _, way := range ways {
		if n := m.touches(way); n < least {
			best, least = way, n
		}
	}
	out := best[:1]
	for _, p := range best[1:] {
		if p != out[len(out)-1] {
			out = append(out, p)
		}
	}
	return out
}

// snapMiddle is the middle of two coordinates on the half grid of 1.25 mm.
func snapMiddle(a, b int64) int64 {
	const grid = 1_250_000
	return (a + b) / 2 / grid * grid
}

// touches counts what a new line would touch between its ends.
func (m *mover) touches(path []geom.Point) int {
	n := 0
	for i := 0; i+1 < len(path); i++ {
		a, b := path[i], path[i+1]
		count := func(p geom.Point) {
			if p == path[0] || p == path[len(path)-1] {
				return
			}
			if len(m.fixed.ends[p]) > 0 {
				n++
			}
			if len(m.fixed.pins[p]) > 0 {
				n += 2
			}
		}
		m.fixed.between(a, b, count)
		if i > 0 {
			count(a)
			m.fixed.through(a, func(*design.Wire) { n++ })
		}
	}
	return n
}

// onMiddle lists the places on the middle of w where something unselected connects.
func (m *mover) onMiddle(w *design.Wire) []geom.Point {
	var out []geom.Point
	m.old.between(w.A, w.B, func(p geom.Point) { out = append(out, p) })
	return out
}

func (m *mover) coversAttached(w *design.Wire, a, b geom.Point) bool {
	for _, p := range m.onMiddle(w) {
		if !geom.OnSegment(p, a, b) {
			return false
		}
	}
	return true
}

// slide moves the corner at the far end of w along, when only one other wire, at a right
// angle, hangs there. Tells whether it could.
func (m *mover) slide(w *design.Wire, a, b geom.Point, bMoved bool) bool {
	far, near := a, b // far stays
	if !bMoved {
		far, near = b, a
	}
	if len(m.onMiddle(w)) > 0 || len(m.old.ends[far]) != 2 || len(m.old.pins[far])+len(m.old.attached[far]) > 0 {
		return false
	}
	if _, anchored := m.anchors[far]; anchored {
		return false
	}
	crossing := 0
	m.old.through(far, func(*design.Wire) { crossing++ })
	if crossing != 2 {
		return false
	}
	v := m.old.ends[far][0]
	if v.ID == w.ID {
		v = m.old.ends[far][1]
	}
	if m.sel[v.ID] || m.now[v.ID] != nil || m.gone[v.ID] != nil || len(m.onMiddle(v)) > 0 {
		return false
	}
	rest := v.A
	if rest == far {
		rest = v.B
	}
	if _, anchored := m.anchors[rest]; anchored {
		return false
	}
	var corner geom.Point
	switch {
	case w.A.Y == w.B.Y && v.A.X == v.B.X:
		corner = geom.Pt(far.X, near.Y)
	case w.A.X == w.B.X && v.A.Y == v.B.Y:
		corner = geom.Pt(near.X, far.Y)
	default:
		return false
	}
	m.fixed.drop(v)
	if m.touches([]geom.Point{near, corner, rest}) > 0 || corner == near || corner == rest {
		m.fixed.addWire(v)
		return false
	}
	if bMoved {
		m.keep(w, corner, near)
	} else {
		m.keep(w, near, corner)
	}
	m.keep(v, corner, rest)
	m.labelsAlong(v, corner, rest)
	return true
}

// drop takes a wire out of the lookups again.
func (g *drawing) drop(w *design.Wire) {
	out := func(list []*design.Wire) []*design.Wire {
		return slices.DeleteFunc(slices.Clone(list), func(x *design.Wire) bool { return x.ID == w.ID })
	}
	g.wires, g.slanted = out(g.wires), out(g.slanted)
	g.rows[w.A.Y], g.columns[w.A.X] = out(g.rows[w.A.Y]), out(g.columns[w.A.X])
	for _, p := range []geom.Point{w.A, w.B} {
		if g.ends[p] = out(g.ends[p]); len(g.ends[p]) == 0 {
			delete(g.ends, p)
		}
	}
}

// labelsAlong keeps labels and supply marks on the middle of w on the wire that took its
// place.
func (m *mover) labelsAlong(w *design.Wire, a, b geom.Point) {
	fix := func(o design.Object, at geom.Point) {
		if m.goes(o.ObjectID()) || at == w.A || at == w.B || !geom.OnSegment(at, w.A, w.B) {
			return
		}
		on := false
		m.fixed.through(at, func(x *design.Wire) { on = on || x.ID == w.ID })
		if on {
			return
		}
		to, ok := m.now[w.ID].(*design.Wire)
		if !ok {
			to = &design.Wire{A: a, B: b}
		}
		q := at
		switch { // the nearest place of the wire
		case to.A.Y == to.B.Y:
			q = geom.Pt(min(max(at.X, min(to.A.X, to.B.X)), max(to.A.X, to.B.X)), to.A.Y)
		case to.A.X == to.B.X:
			q = geom.Pt(to.A.X, min(max(at.Y, min(to.A.Y, to.B.Y)), max(to.A.Y, to.B.Y)))
		default:
			q = to.A
		}
		m.now[o.ObjectID()] = By(q.Sub(at))(o)
	}
	m.old.attachedAlong(w.A, w.B, func(p geom.Point, list []design.OnSheet) {
		for _, o := range list {
			if connecting(o) {
				fix(o, p)
			}
		}
	})
}
