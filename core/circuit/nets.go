package circuit

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Net is a set of pins that are joined.
type Net struct {
	Name   string      `json:"name"`
	Pins   []PinRef    `json:"pins"`
	Items  []design.ID `json:"items"` // wires, labels and supply marks
	Sheets []design.ID `json:"sheets"`
	// Named tells that a label or supply gave the name; else it is made of the first pin.
	Named bool `json:"named"`
	// Supplies are the names of supply marks on the net; more than one joins two supplies.
	Supplies []string `json:"supplies,omitempty"`
}

// group is what touches on one sheet.
type group struct {
	sheet    design.ID
	pins     []PinRef
	items    []design.ID
	marks    []design.ID // labels and supplies among the items
	labels   []string
	supplies []string
}

// SheetView is what one sheet's drawing means.
type SheetView struct {
	Sheet     design.ID    `json:"sheet"`
	Junctions []geom.Point `json:"junctions"`
	Loose     []geom.Point `json:"loose"`
	groups    []*group
	drawing   *drawing
	content   content
}

func viewSheet(d *design.Doc, sheet design.ID) *SheetView {
	c := contentOf(d, sheet)
	g := draw(d, sheet, c)
	v := &SheetView{Sheet: sheet, Junctions: g.junctions(), groups: g.groups(), drawing: g, content: c}
	for _, l := range g.looseEnds() {
		v.Loose = append(v.Loose, l.at)
	}
	sortPoints(v.Loose)
	return v
}

// groups joins what touches: things at one place; a thing on a wire, be it at its end or
// between; a wire's end on another wire. Wires that merely cross stay apart.
func (g *drawing) groups() []*group {
	sets := newSets()
	wire := make(map[design.ID]int, len(g.wires))
	for _, w := range g.wires {
		wire[w.ID] = sets.add()
	}
	place := make(map[geom.Point]int)
	for p := range g.points() {
		n := sets.add()
		place[p] = n
		g.through(p, func(w *design.Wire) { sets.join(n, wire[w.ID]) })
	}
	byRoot := map[int]*group{}
	of := func(n int) *group {
		r := sets.root(n)
		if byRoot[r] == nil {
			byRoot[r] = &group{sheet: g.sheet}
		}
		return byRoot[r]
	}
	for _, w := range g.wires {
		gr := of(wire[w.ID])
		gr.items = append(gr.items, w.ID)
	}
	for p, n := range place {
		gr := of(n)
		gr.pins = append(gr.pins, g.pins[p]...)
		for _, l := range g.labels[p] {
			gr.items, gr.marks, gr.labels = append(gr.items, l.ID), append(gr.marks, l.ID), append(gr.labels, l.Name)
		}
		for _, s := range g.supplies[p] {
			gr.items, gr.marks, gr.supplies = append(gr.items, s.ID), append(gr.marks, s.ID), append(gr.supplies, s.Name)
		}
	}
	out := slices.Collect(maps.Values(byRoot))
	for _, gr := range out {
		slices.Sort(gr.items)
		slices.SortFunc(gr.pins, comparePins)
	}
	slices.SortFunc(out, func(a, b *group) int { return cmp.Compare(a.key(), b.key()) })
	return out
}

// key orders groups so that results do not depend on the order of maps.
func (g *group) key() int64 {
	k := int64(1) << 62
	if len(g.items) > 0 {
		k = int64(g.items[0]) * 1000
	}
	if len(g.pins) > 0 {
		k = min(k, int64(g.pins[0].Part)*1000)
	}
	return k
}

func comparePins(a, b PinRef) int {
	return cmp.Or(cmp.Compare(a.Part, b.Part), CompareNatural(a.Pin, b.Pin))
}

func sortPoints(pts []geom.Point) {
	slices.SortFunc(pts, func(a, b geom.Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
}

// Nets is the meaning of a whole circuit, kept up to date sheet by sheet.
type Nets struct {
	Views  map[design.ID]*SheetView
	ByName map[string]*Net
	OfPin  map[PinRef]string
	OfItem map[design.ID]string
}

// Find computes the nets of a document from scratch.
func Find(d *design.Doc) *Nets {
	n := &Nets{Views: map[design.ID]*SheetView{}}
	for id := range d.Sheets {
		n.Views[id] = viewSheet(d, id)
	}
	n.merge(d)
	return n
}

// Refresh recomputes the given sheets and what follows from them.
func (n *Nets) Refresh(d *design.Doc, sheets map[design.ID]bool) {
	for id := range sheets {
		if d.Sheets[id] == nil {
			delete(n.Views, id)
		} else {
			n.Views[id] = viewSheet(d, id)
		}
	}
	n.merge(d)
}

// merge joins the sheets' groups by their names and names every net: a supply's name wins,
// then the first label, then the first pin. A label's name holds within its sheet, unless
// a supply bears it too. Labels of one name on several sheets get their sheet's name before.
func (n *Nets) merge(d *design.Doc) {
	supplyNames := map[string]bool{}
	sheets := d.SheetsInOrder()
	for _, s := range sheets {
		for _, g := range n.Views[s.ID].groups {
			for _, name := range g.supplies {
				supplyNames[name] = true
			}
		}
	}
	sets := newSets()
	named := map[string]int{}
	var all []*group
	var node []int
	bind := func(key string, at int) {
		if other, ok := named[key]; ok {
			sets.join(other, at)
		} else {
			named[key] = at
		}
	}
	for _, s := range sheets {
		for _, g := range n.Views[s.ID].groups {
			at := sets.add()
			all, node = append(all, g), append(node, at)
			for _, name := range g.supplies {
				bind("\x00"+name, at)
			}
			for _, name := range g.labels {
				if supplyNames[name] {
					bind("\x00"+name, at)
				} else {
					bind(fmt.Sprintf("%d\x00%s", g.sheet, name), at)
				}
			}
		}
	}
	type build struct {
		net    *Net
		labels []string
	}
	byRoot := map[int]*build{}
	var builds []*build
	for i, g := range all {
		r := sets.root(node[i])
		b := byRoot[r]
		if b == nil {
			b = &build{net: &Net{}}
			byRoot[r] = b
			builds = append(builds, b)
		}
		b.net.Pins = append(b.net.Pins, g.pins...)
		b.net.Items = append(b.net.Items, g.items...)
		b.net.Supplies = append(b.net.Supplies, g.supplies...)
		b.labels = append(b.labels, g.labels...)
		if !slices.Contains(b.net.Sheets, g.sheet) {
			b.net.Sheets = append(b.net.Sheets, g.sheet)
		}
	}
	labelUses := map[string]int{}
	for _, b := range builds {
		b.net.Supplies = distinct(b.net.Supplies)
		b.labels = distinct(b.labels)
		if len(b.net.Supplies) == 0 && len(b.labels) > 0 {
			labelUses[b.labels[0]]++
		}
	}
	n.ByName = make(map[string]*Net, len(builds))
	n.OfPin = make(map[PinRef]string, len(n.OfPin))
	n.OfItem = make(map[design.ID]string, len(n.OfItem))
	for _, b := range builds {
		net := b.net
		slices.SortFunc(net.Pins, func(a, b PinRef) int { return comparePinNames(d, a, b) })
		net.Named = true
		switch {
		case len(net.Supplies) > 0:
			net.Name = net.Supplies[0]
		case len(b.labels) > 0:
			net.Name = b.labels[0]
			if labelUses[net.Name] > 1 {
				net.Name = d.Sheets[net.Sheets[0]].Name + "/" + net.Name
			}
		case len(net.Pins) > 0:
			net.Named = false
			net.Name = PinName(d, net.Pins[0])
		default:
			net.Named = false
			net.Name = fmt.Sprintf("wire %d", net.Items[0])
		}
		for n.ByName[net.Name] != nil {
			net.Name += "'"
		}
		n.ByName[net.Name] = net
		for _, p := range net.Pins {
			n.OfPin[p] = net.Name
		}
		for _, id := range net.Items {
			n.OfItem[id] = net.Name
		}
	}
}

func distinct(s []string) []string {
	slices.Sort(s)
	return slices.Compact(s)
}

// PinName is how people call a pin: "R3.2".
func PinName(d *design.Doc, p PinRef) string {
	if part := d.Parts[p.Part]; part != nil {
		return part.Designator + "." + p.Pin
	}
	return "?." + p.Pin
}

func comparePinNames(d *design.Doc, a, b PinRef) int {
	pa, pb := d.Parts[a.Part], d.Parts[b.Part]
	if pa != nil && pb != nil && a.Part != b.Part {
		if c := CompareNatural(pa.Designator, pb.Designator); c != 0 {
			return c
		}
	}
	return comparePins(a, b)
}

// CompareNatural orders "R2" before "R10".
func CompareNatural(a, b string) int {
	for a != "" && b != "" {
		da, db := digits(a), digits(b)
		if da > 0 && db > 0 {
			na, nb := strings.TrimLeft(a[:da], "0"), strings.TrimLeft(b[:db], "0")
			if c := cmp.Or(cmp.Compare(len(na), len(nb)), cmp.Compare(na, nb)); c != 0 {
				return c
			}
			a, b = a[da:], b[db:]
			continue
		}
		if a[0] != b[0] {
			return cmp.Compare(a[0], b[0])
		}
		a, b = a[1:], b[1:]
	}
	return cmp.Compare(len(a), len(b))
}

func digits(s string) int {
	n := 0
	for n < len(s) && s[n] >= '0' && s[n] <= '9' {
		n++
	}
	return n
}

// sets is a union–find forest with path halving.
type sets struct{ up []int }

func newSets() *sets { return &sets{} }

func (s *sets) add() int {
	s.up = append(s.up, len(s.up))
	return len(s.up) - 1
}

func (s *sets) root(n int) int {
	for s.up[n] != n {
		s.up[n] = s.up[s.up[n]]
		n = s.up[n]
	}
	return n
}

func (s *sets) join(a, b int) {
	ra, rb := s.root(a), s.root(b)
	s.up[max(ra, rb)] = min(ra, rb)
}
