// Package circuit finds what a drawn circuit means: which pins are joined (nets), where
// junctions stand, what moves along when something is moved, and what is electrically
// suspicious. Nets are found by union–find over what touches what; the rules of touching
// are in drawing.groups.
package circuit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// PinRef names one pin of one part.
type PinRef struct {
	Part design.ID `json:"part"`
	Pin  string    `json:"pin"`
}

// PinPlace is where wires meet the pin of a placed part.
func PinPlace(p *design.Part, pin *design.Pin) geom.Point { return p.Pose().Apply(pin.At) }

// drawing is one sheet's objects with the lookups by place that everything here needs.
// Building it costs O(objects of the sheet).
type drawing struct {
	sheet    design.ID
	wires    []*design.Wire
	rows     map[int64][]*design.Wire // level wires by y
	columns  map[int64][]*design.Wire // upright wires by x
	slanted  []*design.Wire
	ends     map[geom.Point][]*design.Wire
	pins     map[geom.Point][]PinRef
	labels   map[geom.Point][]*design.Label
	supplies map[geom.Point][]*design.Supply
	marks    map[geom.Point][]*design.OpenMark
}

func newDrawing(sheet design.ID) *drawing {
	return &drawing{
		sheet: sheet, rows: map[int64][]*design.Wire{}, columns: map[int64][]*design.Wire{},
		ends: map[geom.Point][]*design.Wire{}, pins: map[geom.Point][]PinRef{}, labels: map[geom.Point][]*design.Label{},
		supplies: map[geom.Point][]*design.Supply{}, marks: map[geom.Point][]*design.OpenMark{},
	}
}

// content lists a sheet's objects in the order of their ids.
type content struct {
	parts    []*design.Part
	wires    []*design.Wire
	labels   []*design.Label
	supplies []*design.Supply
	marks    []*design.OpenMark
}

func contentOf(d *design.Doc, sheet design.ID) content {
	var c content
	for p := range d.Parts.All() {
		if p.Sheet == sheet {
			c.parts = append(c.parts, p)
		}
	}
	for w := range d.Wires.All() {
		if w.Sheet == sheet {
			c.wires = append(c.wires, w)
		}
	}
	for l := range d.Labels.All() {
		if l.Sheet == sheet {
			c.labels = append(c.labels, l)
		}
	}
	for s := range d.Supplies.All() {
		if s.Sheet == sheet {
			c.supplies = append(c.supplies, s)
		}
	}
	for m := range d.OpenMarks.All() {
		if m.Sheet == sheet {
			c.marks = append(c.marks, m)
		}
	}
	return c
}

func draw(d *design.Doc, sheet design.ID, c content) *drawing {
	g := newDrawing(sheet)
	for _, p := range c.parts {
		g.addPart(d, p)
	}
	for _, w := range c.wires {
		g.addWire(w)
	}
	for _, l := range c.labels {
		g.labels[l.At] = append(g.labels[l.At], l)
	}
	for _, s := range c.supplies {
		g.supplies[s.At] = append(g.supplies[s.At], s)
	}
	for _, m := range c.marks {
		g.marks[m.At] = append(g.marks[m.At], m)
	}
	return g
}

func (g *drawing) addPart(d *design.Doc, p *design.Part) {
	if s := d.SymbolOf(p); s != nil {
		for i := range s.Pins {
			at := PinPlace(p, &s.Pins[i])
			g.pins[at] = append(g.pins[at], PinRef{p.ID, s.Pins[i].Number})
		}
	}
}

func (g *drawing) addWire(w *design.Wire) {
	g.wires = append(g.wires, w)
	g.ends[w.A] = append(g.ends[w.A], w)
	g.ends[w.B] = append(g.ends[w.B], w)
	switch {
	case w.A.Y == w.B.Y:
		g.rows[w.A.Y] = append(g.rows[w.A.Y], w)
	case w.A.X == w.B.X:
		g.columns[w.A.X] = append(g.columns[w.A.X], w)
	default:
		g.slanted = append(g.slanted, w)
	}
}

// through calls f for each wire that passes p or ends there.
func (g *drawing) through(p geom.Point, f func(w *design.Wire)) {
	for _, list := range [][]*design.Wire{g.rows[p.Y], g.columns[p.X], g.slanted} {
		for _, w := range list {
			if geom.OnSegment(p, w.A, w.B) {
				f(w)
			}
		}
	}
}

// points lists every place where something of the drawing can connect, each once.
func (g *drawing) points() map[geom.Point]struct{} {
	out := make(map[geom.Point]struct{}, len(g.ends)+len(g.pins))
	for p := range g.ends {
		out[p] = struct{}{}
	}
	for p := range g.pins {
		out[p] = struct{}{}
	}
	for p := range g.labels {
		out[p] = struct{}{}
	}
	for p := range g.supplies {
		out[p] = struct{}{}
	}
	return out
}

// junctions are the places where three or more ways leave: wire ends count one, a wire
// passing through two, a pin one. Crossing wires that merely cross have no place here.
func (g *drawing) junctions() []geom.Point {
	var out []geom.Point
	for p, ends := range g.ends {
		ways := len(ends) + len(g.pins[p])
		g.through(p, func(w *design.Wire) {
			if w.A != p && w.B != p {
				ways += 2
			}
		})
		if ways >= 3 {
			out = append(out, p)
		}
	}
	for p, pins := range g.pins { // a pin on the middle of a wire
		if len(g.ends[p]) > 0 {
			continue
		}
		ways := len(pins)
		g.through(p, func(*design.Wire) { ways += 2 })
		if ways >= 3 {
			out = append(out, p)
		}
	}
	sortPoints(out)
	return out
}

// looseEnds are wire ends that touch nothing.
func (g *drawing) looseEnds() []*looseEnd {
	var out []*looseEnd
	for p, ends := range g.ends {
		if len(ends) > 1 || len(g.pins[p])+len(g.labels[p])+len(g.supplies[p])+len(g.marks[p]) > 0 {
			continue
		}
		n := 0
		g.through(p, func(*design.Wire) { n++ })
		if n == 1 {
			out = append(out, &looseEnd{ends[0], p})
		}
	}
	return out
}

type looseEnd struct {
	wire *design.Wire
	at   geom.Point
}
