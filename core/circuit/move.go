package circuit

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Moved is what moving a selection does to a sheet.
type Moved struct {
	Put    []design.Object
	Remove []design.Object
	// Joined and Parted tell in names which nets the move would join or part; a move that
	// keeps the circuit leaves both empty.
	Joined [][2]string
	Parted []string
}

// Move carries the selected objects of one sheet to their new places. Wires that hang on
// them follow at right angles: a wire's free corner slides along, else an elbow is put in
// where it touches nothing. What touched without a wire gets one.
func Move(d *design.Doc, before *SheetView, sel map[design.ID]bool, motion Motion, take func() design.ID) Moved {
	m := &mover{doc: d, old: before.drawing, sel: sel, take: take, now: map[design.ID]design.Object{}, gone: map[design.ID]design.Object{}}
	m.carrySelected(before.content, motion)
	m.followers()
	tidy(m)
	out := Moved{}
	for _, o := range m.gone {
		out.Remove = append(out.Remove, o)
	}
	for _, o := range m.now {
		out.Put = append(out.Put, o)
	}
	byID := func(a, b design.Object) int { return int(a.ObjectID() - b.ObjectID()) }
	slices.SortFunc(out.Put, byID)
	slices.SortFunc(out.Remove, byID)
	out.Joined, out.Parted = m.compare(before)
	return out
}

type mover struct {
	doc  *design.Doc
	old  *drawing
	sel  map[design.ID]bool
	take func() design.ID
	now  map[design.ID]design.Object // put
	gone map[design.ID]design.Object // removed

	anchors map[geom.Point][]geom.Point // old place → new places of what was selected
	fixed   *drawing                    // what neither moves nor follows, and what has been laid
}

func (m *mover) anchor(from, to geom.Point) {
	if !slices.Contains(m.anchors[from], to) {
		m.anchors[from] = append(m.anchors[from], to)
	}
}

// carrySelected puts the selection in its new place and notes where its connecting places
// went.
func (m *mover) carrySelected(c content, motion Motion) {
	m.anchors = map[geom.Point][]geom.Point{}
	m.fixed = newDrawing(m.old.sheet)
	for _, p := range c.parts {
		if !m.sel[p.ID] {
			m.fixed.addPart(m.doc, p)
			continue
		}
		q := motion(p).(*design.Part)
		m.now[p.ID] = q
		m.fixed.addPart(m.doc, q)
		if s := m.doc.SymbolOf(p); s != nil {
			for i := range s.Pins {
				m.anchor(PinPlace(p, &s.Pins[i]), PinPlace(q, &s.Pins[i]))
			}
		}
	}
	for _, w := range c.wires {
		if !m.sel[w.ID] {
			continue
		}
		q := motion(w).(*design.Wire)
		m.now[w.ID] = q
		m.fixed.addWire(q)
		m.anchor(w.A, q.A)
		m.anchor(w.B, q.B)
		// what ends on the middle of a moved wire goes along
		for p := range m.old.points() {
			if p != w.A && p != w.B && geom.OnSegment(p, w.A, w.B) {
				m.anchor(p, relative(p, w, q))
			}
		}
	}
	point := func(o design.Object, at geom.Point, get func(design.Object) geom.Point) {
		if m.sel[o.ObjectID()] {
			q := motion(o)
			m.now[o.ObjectID()] = q
			m.anchor(at, get(q))
		}
	}
	for _, l := range c.labels {
		point(l, l.At, func(o design.Object) geom.Point { return o.(*design.Label).At })
	}
	for _, s := range c.supplies {
		point(s, s.At, func(o design.Object) geom.Point { return o.(*design.Supply).At })
	}
	for _, k := range c.marks {
		if m.sel[k.ID] {
			m.now[k.ID] = motion(k)
		}
	}
}

// relative carries a point on wire w to the same share of the way along q.
func relative(p geom.Point, w, q *design.Wire) geom.Point {
	return q.A.Towards(q.B, p.Dist(w.A)/w.B.Dist(w.A))
}
