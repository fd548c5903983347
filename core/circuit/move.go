package circuit

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Moved is what moving a selection does to a sheet.
type Moved struct {
	Put    []design.Object
	Remove []design.Object
}

// Move carries the selected objects of one sheet to their new places. Wires that are attached
// to them follow at right angles: a wire's free corner slides along, else an elbow is put in
// where it touches nothing. What touched without a wire gets one. Bundles are moved first; the
// taps they take along move wires in turn. Where that would join or part nets the wires are led
// round instead; what neither way can help is left to be said (Outcome).
func Move(d *design.Doc, before *SheetView, sel map[design.ID]bool, motion Motion, newID func() design.ID) Moved {
	stretched := newMover(d, sel, motion, newID)
	stretched.run(before, (*mover).followers)
	best, faults := stretched, stretched.faults(before)
	if faults > 0 {
		led := newMover(d, sel, motion, newID)
		led.run(before, func(m *mover, items []design.OnSheet) { m.rerouted(items) })
		if n := led.faults(before); n < faults {
			best = led
		}
	}
	out := Moved{}
	for _, o := range best.gone {
		out.Remove = append(out.Remove, o)
	}
	for _, o := range best.now {
		out.Put = append(out.Put, o)
	}
	byID := func(a, b design.Object) int { return cmp.Compare(a.ObjectID(), b.ObjectID()) }
	slices.SortFunc(out.Put, byID)
	slices.SortFunc(out.Remove, byID)
	return out
}

func newMover(d *design.Doc, sel map[design.ID]bool, motion Motion, newID func() design.ID) *mover {
	return &mover{doc: d, sel: sel, motion: motion, newID: newID, now: map[design.ID]design.Object{}, gone: map[design.ID]design.Object{}}
}

// run moves bundles, then wires; follow lays what leads to what moved.
func (m *mover) run(before *SheetView, follow func(m *mover, items []design.OnSheet)) {
	for _, old := range []*drawing{before.bundled, before.single} {
		m.old = old
		m.moveSelected(before.items)
		follow(m, before.items)
		tidy(m)
	}
}

type mover struct {
	doc    *design.Doc
	sel    map[design.ID]bool
	motion Motion
	newID  func() design.ID
	now    map[design.ID]design.Object // put
	gone   map[design.ID]design.Object // removed

	old     *drawing                    // wires, or bundles, as they were
	anchors map[geom.Point][]geom.Point // old place → new places of what was selected
	fixed   *drawing                    // what neither moves nor follows, and what has been laid
}

func (m *mover) anchor(from, to geom.Point) {
	if !slices.Contains(m.anchors[from], to) {
		m.anchors[from] = append(m.anchors[from], to)
	}
}

// goes tells whether a body moves: it was selected, or a bundle took it along.
func (m *mover) goes(id design.ID) bool {
	if m.sel[id] {
		return true
	}
	_, tap := m.now[id].(*design.Tap)
	return tap
}

// moved is a selected object in its new place.
func (m *mover) moved(o design.OnSheet) design.OnSheet {
	if q, ok := m.now[o.ObjectID()]; ok {
		return q.(design.OnSheet)
	}
	q := m.motion(o).(design.OnSheet)
	m.now[o.ObjectID()] = q
	return q
}

// moveSelected puts the selection in its new place and notes where its connecting places
// went.
func (m *mover) moveSelected(items []design.OnSheet) {
	m.anchors = map[geom.Point][]geom.Point{}
	m.fixed = newDrawing(m.old.sheet, m.old.bundle)
	for _, o := range items {
		if _, wire := o.(*design.Wire); wire || !m.goes(o.ObjectID()) {
			continue
		}
		q := m.moved(o)
		to := map[string]geom.Point{}
		for _, s := range spots(m.doc, q) {
			to[s.name] = s.at
		}
		for _, s := range spots(m.doc, o) {
			if at, ok := to[s.name]; ok && s.bundle == m.old.bundle {
				m.anchor(s.at, at)
			}
		}
		if at, bundle, ok := attachment(o); ok && bundle == m.old.bundle && connecting(o) {
			now, _, _ := attachment(q)
			m.anchor(at, now)
		}
	}
	for _, o := range items {
		if _, wire := o.(*design.Wire); wire {
			continue
		}
		if m.goes(o.ObjectID()) {
			o = m.moved(o)
		}
		for _, s := range spots(m.doc, o) {
			if s.bundle == m.old.bundle {
				m.fixed.addPlace(s.at)
				m.fixed.pins[s.at] = append(m.fixed.pins[s.at], PinRef{Part: o.ObjectID(), Pin: s.name})
			}
		}
	}
	for _, w := range m.old.wires {
		if !m.sel[w.ID] {
			continue
		}
		q := m.moved(w).(*design.Wire)
		m.fixed.addWire(q)
		m.anchor(w.A, q.A)
		m.anchor(w.B, q.B)
		// what ends or hangs on the middle of a moved wire goes along
		carry := func(p geom.Point) { m.anchor(p, relative(p, w, q)) }
		m.old.between(w.A, w.B, carry)
		m.old.attachedAlong(w.A, w.B, func(p geom.Point, list []design.OnSheet) {
			if slices.ContainsFunc(list, connecting) {
				carry(p)
			}
		})
	}
}

// relative carries a point on wire w to the same share of the way along q.
func relative(p geom.Point, w, q *design.Wire) geom.Point {
	return q.A.Towards(q.B, p.Dist(w.A)/w.B.Dist(w.A))
}
