package circuit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// tidy joins the wires a move laid or changed with those they continue in a straight line.
func tidy(m *mover) {
	for _, id := range sortedKeys(m.now) {
		w, ok := m.now[id].(*design.Wire)
		if !ok || w.Bundle != m.old.bundle {
			continue
		}
		for {
			merged, other := mergeAt(m.fixed, w)
			if merged == nil {
				break
			}
			m.fixed.drop(w)
			m.fixed.drop(other)
			delete(m.now, other.ID)
			if _, old := m.doc.Wires[other.ID]; old {
				m.gone[other.ID] = m.doc.Wires[other.ID]
			}
			merged.ID = id
			w = merged
			m.fixed.addWire(w)
			m.now[id] = w
		}
	}
}

// mergeAt finds a wire that continues w in a straight line at a place where nothing else
// stands, or that lies over it in part, and returns both as one.
func mergeAt(g *drawing, w *design.Wire) (merged, other *design.Wire) {
	for _, p := range []geom.Point{w.A, w.B} {
		ends := g.ends[p]
		if len(ends) != 2 || len(g.pins[p]) > 0 {
			continue
		}
		v := ends[0]
		if v.ID == w.ID {
			v = ends[1]
		}
		if v.ID == w.ID {
			continue
		}
		passing := false
		g.through(p, func(x *design.Wire) { passing = passing || x.ID != w.ID && x.ID != v.ID })
		if passing {
			continue
		}
		rest, far := w.A, v.A
		if rest == p {
			rest = w.B
		}
		if far == p {
			far = v.B
		}
		if !geom.OnSegment(p, rest, far) {
			continue
		}
		return &design.Wire{ID: w.ID, Sheet: w.Sheet, A: rest, B: far, Bundle: w.Bundle}, v
	}
	return nil, nil
}

// Line plans the wires, or the bundle, for a line the user draws through the given places:
// pieces that continue a wire in a straight line become one with it, and pieces already
// covered by a wire are left out.
func Line(v *SheetView, path []geom.Point, bundle bool, newID func() design.ID) (put []*design.Wire, remove []*design.Wire) {
	old := v.single
	if bundle {
		old = v.bundled
	}
	m := &mover{old: old, now: map[design.ID]design.Object{}, gone: map[design.ID]design.Object{}, doc: design.Empty(), newID: newID, fixed: newDrawing(v.Sheet, bundle)}
	for _, w := range old.wires {
		m.doc.Put(w)
		m.fixed.addWire(w)
	}
	for p, pins := range old.pins {
		m.fixed.addPlace(p)
		m.fixed.pins[p] = pins
	}
	for i := 0; i+1 < len(path); i++ {
		covered := path[i] == path[i+1]
		m.fixed.through(path[i], func(w *design.Wire) { covered = covered || geom.OnSegment(path[i+1], w.A, w.B) })
		if !covered {
			m.lay(path[i], path[i+1])
		}
	}
	tidy(m)
	for _, o := range m.now {
		put = append(put, o.(*design.Wire))
	}
	for _, o := range m.gone {
		remove = append(remove, o.(*design.Wire))
	}
	return put, remove
}

// Under lists the wires on whose middle both places lie.
func Under(v *SheetView, a, b geom.Point) []*design.Wire {
	var out []*design.Wire
	v.single.through(a, func(w *design.Wire) {
		if geom.OnSegment(b, w.A, w.B) {
			out = append(out, w)
		}
	})
	return out
}
