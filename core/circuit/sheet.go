// Package circuit finds what a drawn circuit means: which pins are joined (nets), where
// junctions stand, what moves along when something is moved, and what is electrically
// suspicious. Nets are found by union–find over what touches what; the rules of touching
// are in drawing.sets. Sheets may stand in one another as blocks; a sheet's drawing is
// looked at once, its nets exist once for every use of it.
package circuit

import (
	"cmp"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// PinRef names one pin of one part, in the use of its sheet with the path.
type PinRef struct {
	Part design.ID `json:"part"`
	Pin  string    `json:"pin"`
	Path string    `json:"path,omitempty"`
}

// PinPlace is where wires meet the pin of a placed part.
func PinPlace(p *design.Part, pin *design.Pin) geom.Point { return p.Pose().Apply(pin.At) }

// drawing is one sheet's wires, or its bundles, with everything that can join them and the
// lookups by place. Building it costs O(objects of the sheet).
type drawing struct {
	sheet   design.ID
	bundle  bool
	wires   []*design.Wire
	rows    map[int64][]*design.Wire // level wires by y
	columns map[int64][]*design.Wire // upright wires by x
	slanted []*design.Wire
	ends    map[geom.Point][]*design.Wire
	// pins are the places where bodies connect: pins of parts and blocks, ends of taps. The
	// ref's Part is the id of the body.
	pins map[geom.Point][]PinRef
	// attached are labels, ports, supply and no-connect marks; on bundles taps.
	attached map[geom.Point][]design.OnSheet
	// byRow and byColumn hold the places of ends and pins, also of those taken out again.
	byRow    map[int64][]geom.Point
	byColumn map[int64][]geom.Point
	// attachedRow and attachedColumn hold the places of attached.
	attachedRow    map[int64][]geom.Point
	attachedColumn map[int64][]geom.Point
}

func newDrawing(sheet design.ID, bundle bool) *drawing {
	return &drawing{
		sheet: sheet, bundle: bundle, rows: map[int64][]*design.Wire{}, columns: map[int64][]*design.Wire{},
		ends: map[geom.Point][]*design.Wire{}, pins: map[geom.Point][]PinRef{}, attached: map[geom.Point][]design.OnSheet{},
		byRow: map[int64][]geom.Point{}, byColumn: map[int64][]geom.Point{},
		attachedRow: map[int64][]geom.Point{}, attachedColumn: map[int64][]geom.Point{},
	}
}

// spot is a place where a body connects.
type spot struct {
	at     geom.Point
	name   string // number of a part's pin, name of a block's
	bundle bool
}

// spots lists where a body connects: the pins of a part or block, the end of a tap.
func spots(d *design.Doc, o design.Object) []spot {
	var out []spot
	switch o := o.(type) {
	case *design.Part:
		if s := d.SymbolOf(o); s != nil {
			pose := o.Pose()
			out = make([]spot, len(s.Pins))
			for i := range s.Pins {
				out[i] = spot{pose.Apply(s.Pins[i].At), s.Pins[i].Number, false}
			}
		}
	case *design.SheetBlock:
		for _, p := range o.Pins {
			out = append(out, spot{o.PinAt(p), p.Name, design.IsBundle(p.Name)})
		}
	case *design.Tap:
		out = []spot{{o.End(), "", false}}
	}
	return out
}

// attachment tells where a label, port or mark is attached, and whether it means bundles.
func attachment(o design.Object) (at geom.Point, bundle, ok bool) {
	switch o := o.(type) {
	case *design.Label:
		return o.At, design.IsBundle(o.Name), true
	case *design.Port:
		return o.At, design.IsBundle(o.Name), true
	case *design.Supply:
		return o.At, false, true
	case *design.OpenMark:
		return o.At, false, true
	case *design.Tap:
		return o.At, true, true
	}
	return geom.Point{}, false, false
}

// draw takes up everything of a sheet that is of wires, or of bundles.
func draw(d *design.Doc, sheet design.ID, items []design.OnSheet, bundle bool) *drawing {
	g := newDrawing(sheet, bundle)
	for _, o := range items {
		g.add(d, o)
	}
	return g
}

// add takes up one object, as far as it is of this drawing's kind.
func (g *drawing) add(d *design.Doc, o design.OnSheet) {
	if w, ok := o.(*design.Wire); ok {
		if w.Bundle == g.bundle {
			g.addWire(w)
		}
		return
	}
	for _, s := range spots(d, o) {
		if s.bundle == g.bundle {
			g.addPlace(s.at)
			g.pins[s.at] = append(g.pins[s.at], PinRef{Part: o.ObjectID(), Pin: s.name})
		}
	}
	if at, bundle, ok := attachment(o); ok && bundle == g.bundle {
		if len(g.attached[at]) == 0 {
			g.attachedRow[at.Y] = append(g.attachedRow[at.Y], at)
			g.attachedColumn[at.X] = append(g.attachedColumn[at.X], at)
		}
		g.attached[at] = append(g.attached[at], o)
	}
}

func (g *drawing) addWire(w *design.Wire) {
	g.wires = append(g.wires, w)
	g.addPlace(w.A)
	g.addPlace(w.B)
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

// addPlace notes a place where something ends.
func (g *drawing) addPlace(p geom.Point) {
	if len(g.ends[p])+len(g.pins[p]) == 0 {
		g.byRow[p.Y] = append(g.byRow[p.Y], p)
		g.byColumn[p.X] = append(g.byColumn[p.X], p)
	}
}

// between calls f for each place strictly between a and b where a wire ends or a pin stands.
func (g *drawing) between(a, b geom.Point, f func(p geom.Point)) {
	check := func(p geom.Point) {
		if p != a && p != b && geom.OnSegment(p, a, b) && len(g.ends[p])+len(g.pins[p]) > 0 {
			f(p)
		}
	}
	switch {
	case a.Y == b.Y:
		for _, p := range g.byRow[a.Y] {
			check(p)
		}
	case a.X == b.X:
		for _, p := range g.byColumn[a.X] {
			check(p)
		}
	default:
		for _, list := range g.byRow {
			for _, p := range list {
				check(p)
			}
		}
	}
}

// attachedAlong calls f for each place strictly between a and b where something hangs.
func (g *drawing) attachedAlong(a, b geom.Point, f func(p geom.Point, list []design.OnSheet)) {
	check := func(p geom.Point) {
		if p != a && p != b && geom.OnSegment(p, a, b) {
			f(p, g.attached[p])
		}
	}
	switch {
	case a.Y == b.Y:
		for _, p := range g.attachedRow[a.Y] {
			check(p)
		}
	case a.X == b.X:
		for _, p := range g.attachedColumn[a.X] {
			check(p)
		}
	default:
		for p := range g.attached {
			check(p)
		}
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

// connecting tells whether a attached object joins what it hangs on; a no-connect mark does not.
func connecting(o design.OnSheet) bool {
	_, mark := o.(*design.OpenMark)
	return !mark
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
	for p, list := range g.attached {
		for _, o := range list {
			if connecting(o) {
				out[p] = struct{}{}
			}
		}
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
func (g *drawing) looseEnds() []looseEnd {
	var out []looseEnd
	for p, ends := range g.ends {
		if len(ends) > 1 || len(g.pins[p])+len(g.attached[p]) > 0 {
			continue
		}
		n := 0
		g.through(p, func(*design.Wire) { n++ })
		if n == 1 {
			out = append(out, looseEnd{ends[0], p})
		}
	}
	return out
}

type looseEnd struct {
	wire *design.Wire
	at   geom.Point
}

// sets joins what touches: things at one place; a thing on a wire, be it at its end or
// between; a wire's end on another wire. Wires that merely cross stay apart. It calls back
// for each set with its wires and its places.
func (g *drawing) sets(each func(wires []*design.Wire, places []geom.Point)) {
	forest := geom.NewForest(0)
	wire := make(map[design.ID]int, len(g.wires))
	for _, w := range g.wires {
		wire[w.ID] = forest.Add()
	}
	place := make(map[geom.Point]int)
	for p := range g.points() {
		n := forest.Add()
		place[p] = n
		g.through(p, func(w *design.Wire) { forest.Join(n, wire[w.ID]) })
	}
	type set struct {
		wires  []*design.Wire
		places []geom.Point
	}
	byRoot := map[int]*set{}
	of := func(n int) *set {
		r := forest.Root(n)
		if byRoot[r] == nil {
			byRoot[r] = &set{}
		}
		return byRoot[r]
	}
	for _, w := range g.wires {
		s := of(wire[w.ID])
		s.wires = append(s.wires, w)
	}
	for p, n := range place {
		s := of(n)
		s.places = append(s.places, p)
	}
	all := slices.Collect(maps.Values(byRoot))
	for _, s := range all {
		sortPoints(s.places)
	}
	slices.SortFunc(all, func(a, b *set) int { // so that nothing depends on the order of maps
		if len(a.wires) > 0 && len(b.wires) > 0 {
			return cmp.Compare(a.wires[0].ID, b.wires[0].ID)
		}
		return cmp.Or(cmp.Compare(len(b.wires), len(a.wires)), cmpPoint(a.places[0], b.places[0]))
	})
	for _, s := range all {
		each(s.wires, s.places)
	}
}
