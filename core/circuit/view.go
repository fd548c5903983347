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

// SheetView is what one sheet's drawing means, whatever stands on other sheets.
type SheetView struct {
	Sheet           design.ID    `json:"sheet"`
	Junctions       []geom.Point `json:"junctions"`
	BundleJunctions []geom.Point `json:"bundleJunctions"` // junctions of bundles
	Loose           []geom.Point `json:"loose"`
	Bundles         []*Bundle    `json:"bundles"`
	Unmatched       []Unmatched  `json:"unmatched"`
	groups          []*group
	items           []design.OnSheet
	single          *drawing
	bundled         *drawing
	troubles        []Finding // of bundles, that show on the sheet alone
}

// Unmatched is a port no block's pin mirrors, or a pin of a block no port of its sheet
// answers, with the block they concern.
type Unmatched struct {
	Object design.ID  `json:"object"` // the port or the block
	Block  design.ID  `json:"block"`
	Pin    string     `json:"pin"`
	At     geom.Point `json:"at"`
	Why    string     `json:"why"` // noPin, noPort, way
}

// lower is what a pin of a block leads to: a member of the port of the pin's name on the
// sheet the block stands for.
type lower struct {
	block *design.SheetBlock
	member
}

// member is one net of a port, or of a pin that mirrors one: the nth of its name.
type member struct {
	name string
	nth  int
}

// group is what touches on one sheet, or one member of a bundle.
type group struct {
	sheet    design.ID
	pins     []PinRef // of parts
	items    []design.ID
	named    []design.ID // items that carry a name
	names    []string    // of labels and ports: they join within the use of the sheet
	called   string      // what it is called where nothing names it: a member of an unnamed bundle
	leads    []string    // of a member of a bundle and of the taps that lead it out: which ones
	ports    []member
	supplies []string
	feeds    bool
	below    []lower
	ends     []string // of a member of a bundle: what it joins, for comparison
	content  string   // groups with the same content join the same
}

// nameable tells whether the group has something a net can be called after but what it is drawn
// with. What a member of an unnamed bundle is called need not do: where several nets are called
// so, and have no pins, the number of their first wire tells them apart.
func (g *group) nameable() bool {
	return len(g.pins)+len(g.names)+len(g.supplies) > 0
}

// sign writes all that a group joins into its content.
func (g *group) sign(d *design.Doc) {
	var b strings.Builder
	for _, p := range g.pins {
		name := ""
		if part := d.Parts[p.Part]; part != nil { // nets are called after parts
			name = part.Designator
			for _, path := range slices.Sorted(maps.Keys(part.Others)) {
				name += "|" + part.Others[path]
			}
		}
		fmt.Fprintf(&b, "p%d.%s.%s\n", p.Part, p.Pin, name)
	}
	fmt.Fprint(&b, g.feeds, g.named)
	if !g.nameable() {
		fmt.Fprint(&b, g.items)
	}
	for _, l := range g.below {
		fmt.Fprintf(&b, "\nb%d.%d.%s#%d", l.block.ID, l.block.Of, l.name, l.nth)
	}
	for _, p := range g.ports {
		fmt.Fprintf(&b, "\no%s#%d", p.name, p.nth)
	}
	for _, list := range [][]string{g.names, {g.called}, g.leads, g.supplies, g.ends} {
		b.WriteString("\n;")
		for _, s := range list {
			b.WriteString(s)
			b.WriteByte(0)
		}
	}
	g.content = b.String()
}

func viewSheet(d *design.Doc, sheet design.ID) *SheetView {
	v := viewItems(d, sheet, d.ItemsOf(sheet))
	for _, g := range v.groups {
		g.sign(d)
	}
	v.Junctions, v.BundleJunctions = v.single.junctions(), v.bundled.junctions()
	for _, l := range append(v.single.looseEnds(), v.bundled.looseEnds()...) {
		v.Loose = append(v.Loose, l.at)
	}
	sortPoints(v.Loose)
	v.Unmatched = unmatched(d, sheet, v.items)
	return v
}

// viewItems finds what joins what among the items of a sheet.
func viewItems(d *design.Doc, sheet design.ID, items []design.OnSheet) *SheetView {
	v := &SheetView{Sheet: sheet, items: items, single: draw(d, sheet, items, false), bundled: draw(d, sheet, items, true)}
	held := v.gatherBundles(d)
	v.gatherGroups(d, held)
	for _, g := range v.groups {
		slices.Sort(g.items)
		slices.SortFunc(g.pins, comparePins)
	}
	slices.SortFunc(v.groups, func(a, b *group) int { return slices.Compare(a.key(), b.key()) })
	return v
}

// gatherGroups makes a group of each set of wires and what they join.
func (v *SheetView) gatherGroups(d *design.Doc, held map[design.ID]lead) {
	v.single.sets(func(wires []*design.Wire, places []geom.Point) {
		g := &group{sheet: v.Sheet}
		for _, w := range wires {
			g.items = append(g.items, w.ID)
		}
		for _, p := range places {
			for _, ref := range v.single.pins[p] {
				switch o := v.body(d, ref.Part).(type) {
				case *design.Part:
					g.pins = append(g.pins, ref)
				case *design.SheetBlock:
					g.below = append(g.below, lower{o, member{name: ref.Pin}})
				case *design.Tap:
					g.items, g.named = append(g.items, o.ID), append(g.named, o.ID)
					if l, ok := held[o.ID]; ok {
						g.leads, g.called = append(g.leads, l.of), cmp.Or(g.called, l.called)
					}
				}
			}
			for _, o := range v.single.attached[p] {
				switch o := o.(type) {
				case *design.Label:
					g.names = append(g.names, o.Name)
				case *design.Port:
					g.names, g.ports = append(g.names, o.Name), append(g.ports, member{name: o.Name})
				case *design.Supply:
					g.supplies, g.feeds = append(g.supplies, o.Name), g.feeds || o.Feeds
				default:
					continue
				}
				g.items, g.named = append(g.items, o.ObjectID()), append(g.named, o.ObjectID())
			}
		}
		g.names, g.supplies = distinct(g.names), distinct(g.supplies)
		v.groups = append(v.groups, g)
	})
	for _, w := range v.single.wires { // wires that end on a bundle without a tap
		for _, p := range []geom.Point{w.A, w.B} {
			on := false
			v.bundled.through(p, func(*design.Wire) { on = true })
			if on {
				v.troubles = append(v.troubles, Finding{Key: fmt.Sprintf("wireOnBundle %d %d,%d", w.ID, p.X, p.Y), Kind: "wireOnBundle", Sheet: v.Sheet, At: p, Objects: []design.ID{w.ID},
					Text: "A wire ends on a bundle without a tap, so it does not join it."})
			}
		}
	}
	for _, drawing := range []*drawing{v.single, v.bundled} {
		for p, list := range drawing.attached {
			for _, o := range list {
				l, ok := o.(*design.Label)
				if !ok {
					continue
				}
				other := v.bundled
				if drawing.bundle {
					other = v.single
				}
				own, wrong := false, false
				drawing.through(p, func(*design.Wire) { own = true })
				other.through(p, func(*design.Wire) { wrong = true })
				if !own && wrong {
					text := fmt.Sprintf("The label %s names one net, but stands on a bundle.", l.Name)
					if drawing.bundle {
						text = fmt.Sprintf("The label %s names a bundle, but stands on a wire.", l.Name)
					}
					v.troubles = append(v.troubles, Finding{Key: fmt.Sprintf("labelOnBundle %d", l.ID), Kind: "labelOnBundle", Sheet: v.Sheet, At: p, Objects: []design.ID{l.ID}, Text: text})
				}
			}
		}
	}
}

// body is the part, block or tap with the id, as the view has it.
func (v *SheetView) body(d *design.Doc, id design.ID) design.Object {
	if o := d.Get(id); o != nil {
		return o
	}
	for _, o := range v.items {
		if o.ObjectID() == id {
			return o
		}
	}
	return nil
}

// unmatched compares blocks with the ports of their sheets, from both sides.
func unmatched(d *design.Doc, sheet design.ID, items []design.OnSheet) []Unmatched {
	var out []Unmatched
	var ports []*design.Port
	for _, o := range items {
		switch o := o.(type) {
		case *design.Port:
			ports = append(ports, o)
		case *design.SheetBlock:
			below := map[string]string{}
			for _, p := range portsOf(d, o.Of) {
				below[p.Name] = p.Way
			}
			for _, p := range o.Pins {
				if way, ok := below[p.Name]; !ok {
					out = append(out, Unmatched{o.ID, o.ID, p.Name, o.PinAt(p), "noPort"})
				} else if way != p.Way {
					out = append(out, Unmatched{o.ID, o.ID, p.Name, o.PinAt(p), "way"})
				}
				delete(below, p.Name)
			}
			for name := range below {
				out = append(out, Unmatched{o.ID, o.ID, name, o.At, "noPin"})
			}
		}
	}
	for _, b := range d.Uses(sheet) {
		has := map[string]bool{}
		for _, p := range b.Pins {
			has[p.Name] = true
		}
		for _, p := range ports {
			if !has[p.Name] {
				out = append(out, Unmatched{p.ID, b.ID, p.Name, p.At, "noPin"})
			}
		}
	}
	slices.SortFunc(out, func(a, b Unmatched) int {
		return cmp.Or(cmp.Compare(a.Object, b.Object), cmp.Compare(a.Block, b.Block), cmp.Compare(a.Pin, b.Pin))
	})
	return out
}

// portsOf lists the ports of a sheet, each name once, in the order they stand: from the
// top, and from the left where level.
func portsOf(d *design.Doc, sheet design.ID) []*design.Port {
	var out []*design.Port
	seen := map[string]bool{}
	for _, o := range d.ItemsOf(sheet) {
		if p, ok := o.(*design.Port); ok && !seen[p.Name] {
			seen[p.Name] = true
			out = append(out, p)
		}
	}
	slices.SortStableFunc(out, func(a, b *design.Port) int { return cmp.Or(cmp.Compare(b.At.Y, a.At.Y), cmp.Compare(a.At.X, b.At.X)) })
	return out
}

// Ports lists the ports of a sheet, each name once, from the top down.
func Ports(d *design.Doc, sheet design.ID) []*design.Port { return portsOf(d, sheet) }

// key orders groups so that results do not depend on the order of maps.
func (g *group) key() []int64 {
	k := []int64{1 << 62, 0}
	if len(g.items) > 0 {
		k[0] = int64(g.items[0])
	}
	if len(g.pins) > 0 {
		k[0] = min(k[0], int64(g.pins[0].Part))
		for _, c := range g.pins[0].Pin {
			k[1] = k[1]*64 + int64(c)&63
		}
	}
	return k
}

func comparePins(a, b PinRef) int {
	return cmp.Or(cmp.Compare(a.Part, b.Part), CompareNatural(a.Pin, b.Pin), cmp.Compare(a.Path, b.Path))
}

func sortPoints(pts []geom.Point) { slices.SortFunc(pts, cmpPoint) }

func cmpPoint(a, b geom.Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) }

func sortedKeys[T any](m map[design.ID]T) []design.ID { return slices.Sorted(maps.Keys(m)) }

func distinct(s []string) []string {
	slices.Sort(s)
	return slices.Compact(s)
}
