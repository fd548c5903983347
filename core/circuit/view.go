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
	Sheet     design.ID    `json:"sheet"`
	Junctions []geom.Point `json:"junctions"`
	Knots     []geom.Point `json:"knots"` // junctions of bundles
	Loose     []geom.Point `json:"loose"`
	Bundles   []*Bundle    `json:"bundles"`
	Unmatched []Unmatched  `json:"unmatched"`
	groups    []*group
	items     []design.OnSheet
	thin      *drawing
	thick     *drawing
	troubles  []Doubt // of bundles, that show on the sheet alone
}

// Bundle is a set of joined bundle wires and what its members are called on its sheet.
type Bundle struct {
	Name    string      `json:"name"`
	Members []string    `json:"members"`
	Items   []design.ID `json:"items"`
	taps    []*design.Tap
	at      geom.Point
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

// lower is a member of the nets of the sheet a block stands for.
type lower struct {
	block *design.SheetBlock
	name  string
}

// group is what touches on one sheet, or one member of a bundle.
type group struct {
	sheet    design.ID
	pins     []PinRef // of parts
	items    []design.ID
	marks    []design.ID // items that carry a name
	names    []string    // of labels, ports and taps
	ports    []string
	supplies []string
	feeds    bool
	below    []lower
	ends     []string // of a member of a bundle: what it joins, for comparison
	mark     string   // groups with the same mark join the same
}

// named tells whether the group has something a net can be called after but its wires.
func (g *group) named() bool { return len(g.pins)+len(g.names)+len(g.supplies) > 0 }

// sign writes all that a group joins into its mark.
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
	fmt.Fprint(&b, g.feeds)
	if !g.named() {
		fmt.Fprint(&b, g.items)
	}
	for _, l := range g.below {
		fmt.Fprintf(&b, "\nb%d.%d.%s", l.block.ID, l.block.Of, l.name)
	}
	for _, list := range [][]string{g.names, g.ports, g.supplies, g.ends} {
		b.WriteString("\n;")
		for _, s := range list {
			b.WriteString(s)
			b.WriteByte(0)
		}
	}
	g.mark = b.String()
}

func viewSheet(d *design.Doc, sheet design.ID) *SheetView {
	v := viewItems(d, sheet, d.Standing(sheet))
	for _, g := range v.groups {
		g.sign(d)
	}
	v.Junctions, v.Knots = v.thin.junctions(), v.thick.junctions()
	for _, l := range append(v.thin.looseEnds(), v.thick.looseEnds()...) {
		v.Loose = append(v.Loose, l.at)
	}
	sortPoints(v.Loose)
	v.Unmatched = unmatched(d, sheet, v.items)
	return v
}

// viewItems finds what joins what among the items of a sheet.
func viewItems(d *design.Doc, sheet design.ID, items []design.OnSheet) *SheetView {
	v := &SheetView{Sheet: sheet, items: items, thin: draw(d, sheet, items, false), thick: draw(d, sheet, items, true)}
	held := v.gatherBundles(d)
	v.gatherGroups(d, held)
	for _, g := range v.groups {
		slices.Sort(g.items)
		slices.SortFunc(g.pins, comparePins)
	}
	slices.SortFunc(v.groups, func(a, b *group) int { return slices.Compare(a.key(), b.key()) })
	return v
}

// terminal is where a bundle gets its members from: a label, a port, a block's pin.
type terminal struct {
	id    design.ID
	names []string
	block *design.SheetBlock // of a pin
	port  bool
	text  string
	at    geom.Point
}

// gatherBundles finds the bundles and, for each tap, the name of the net it leads out.
func (v *SheetView) gatherBundles(d *design.Doc) (held map[design.ID]string) {
	held = map[design.ID]string{}
	v.thick.sets(func(wires []*design.Wire, places []geom.Point) {
		b := &Bundle{}
		var ends []terminal
		for _, w := range wires {
			b.Items = append(b.Items, w.ID)
		}
		for _, p := range places {
			b.at = p
			for _, ref := range v.thick.pins[p] {
				block := d.Blocks[ref.Part]
				if block == nil { // a preview's
					block = v.block(ref.Part)
				}
				names, err := design.Members(ref.Pin)
				if err == nil && block != nil {
					ends = append(ends, terminal{id: ref.Part, names: names, block: block, text: ref.Pin, at: p})
				}
			}
			for _, o := range v.thick.hung[p] {
				b.Items = append(b.Items, o.ObjectID())
				switch o := o.(type) {
				case *design.Tap:
					b.taps = append(b.taps, o)
				case *design.Label:
					if names, err := design.Members(o.Name); err == nil {
						ends = append(ends, terminal{id: o.ID, names: names, text: o.Name, at: p})
					}
				case *design.Port:
					if names, err := design.Members(o.Name); err == nil {
						ends = append(ends, terminal{id: o.ID, names: names, port: true, text: o.Name, at: p})
					}
				}
			}
		}
		slices.Sort(b.Items)
		v.joinMembers(b, ends, held)
	})
	slices.SortFunc(v.Bundles, func(a, b *Bundle) int { return slices.Compare(a.Items, b.Items) })
	return held
}

// block with the id among the sheet's items.
func (v *SheetView) block(id design.ID) *design.SheetBlock {
	for _, o := range v.items {
		if b, ok := o.(*design.SheetBlock); ok && b.ID == id {
			return b
		}
	}
	return nil
}

// joinMembers makes one group of each member of a bundle: what stands in the same place of
// the lists of its labels, ports and pins is joined. Labels come first, then ports, then
// pins; lists of another length are left apart.
func (v *SheetView) joinMembers(b *Bundle, ends []terminal, held map[design.ID]string) {
	rank := func(t terminal) int {
		switch {
		case t.block != nil:
			return 2
		case t.port:
			return 1
		}
		return 0
	}
	slices.SortFunc(ends, func(a, c terminal) int {
		return cmp.Or(cmp.Compare(rank(a), rank(c)), cmp.Compare(a.id, c.id), cmp.Compare(a.text, c.text))
	})
	if len(ends) > 0 {
		b.Name, b.Members = ends[0].text, ends[0].names
		for i, m := range ends[0].names {
			g := &group{sheet: v.Sheet, names: []string{m}}
			for _, t := range ends {
				switch {
				case len(t.names) != len(ends[0].names):
					continue
				case t.block != nil:
					g.below = append(g.below, lower{t.block, t.names[i]})
				default:
					g.names = append(g.names, t.names[i])
					if t.port {
						g.ports = append(g.ports, t.names[i])
					}
				}
				g.ends = append(g.ends, fmt.Sprintf("t%d.%s", t.id, t.names[i]))
			}
			g.names = distinct(g.names)
			v.groups = append(v.groups, g)
		}
		for _, t := range ends {
			if len(t.names) != len(ends[0].names) {
				v.troubles = append(v.troubles, Doubt{Key: fmt.Sprintf("bundleWidth %d %s", t.id, t.text), Kind: "bundleWidth", Sheet: v.Sheet, At: t.at, Objects: []design.ID{t.id},
					Text: fmt.Sprintf("%s has %d members, but the bundle %s it stands on has %d.", t.text, len(t.names), b.Name, len(b.Members))})
			}
		}
	}
	for _, t := range b.taps {
		if len(ends) > 0 && !slices.ContainsFunc(ends, func(e terminal) bool { return e.block == nil && slices.Contains(e.names, t.Member) }) && !slices.Contains(b.Members, t.Member) {
			v.troubles = append(v.troubles, Doubt{Key: fmt.Sprintf("tapMember %d", t.ID), Kind: "tapMember", Sheet: v.Sheet, At: t.At, Objects: []design.ID{t.ID},
				Text: fmt.Sprintf("The tap takes %s, which the bundle %s does not hold.", t.Member, b.Name)})
			continue
		}
		held[t.ID] = t.Member
	}
	for i, t := range b.taps {
		if len(ends) == 0 && i == 0 { // a bundle without a name: its taps say what it holds
			var names []string
			for _, t := range b.taps {
				names = append(names, t.Member)
			}
			b.Members = distinct(names)
		}
		if !v.onBundle(t) {
			v.troubles = append(v.troubles, Doubt{Key: fmt.Sprintf("tapAlone %d", t.ID), Kind: "tapMember", Sheet: v.Sheet, At: t.At, Objects: []design.ID{t.ID},
				Text: fmt.Sprintf("The tap of %s does not stand on a bundle.", t.Member)})
		}
	}
	v.Bundles = append(v.Bundles, b)
}

func (v *SheetView) onBundle(t *design.Tap) bool {
	on := false
	v.thick.through(t.At, func(*design.Wire) { on = true })
	return on
}

// gatherGroups makes a group of each set of wires and what they join.
func (v *SheetView) gatherGroups(d *design.Doc, held map[design.ID]string) {
	v.thin.sets(func(wires []*design.Wire, places []geom.Point) {
		g := &group{sheet: v.Sheet}
		for _, w := range wires {
			g.items = append(g.items, w.ID)
		}
		for _, p := range places {
			for _, ref := range v.thin.pins[p] {
				switch o := v.body(d, ref.Part).(type) {
				case *design.Part:
					g.pins = append(g.pins, ref)
				case *design.SheetBlock:
					g.below = append(g.below, lower{o, ref.Pin})
				case *design.Tap:
					g.items, g.marks = append(g.items, o.ID), append(g.marks, o.ID)
					if m, ok := held[o.ID]; ok {
						g.names = append(g.names, m)
					}
				}
			}
			for _, o := range v.thin.hung[p] {
				switch o := o.(type) {
				case *design.Label:
					g.names = append(g.names, o.Name)
				case *design.Port:
					g.names, g.ports = append(g.names, o.Name), append(g.ports, o.Name)
				case *design.Supply:
					g.supplies, g.feeds = append(g.supplies, o.Name), g.feeds || o.Feeds
				default:
					continue
				}
				g.items, g.marks = append(g.items, o.ObjectID()), append(g.marks, o.ObjectID())
			}
		}
		g.names, g.supplies = distinct(g.names), distinct(g.supplies)
		v.groups = append(v.groups, g)
	})
	for _, w := range v.thin.wires { // wires that end on a bundle without a tap
		for _, p := range []geom.Point{w.A, w.B} {
			on := false
			v.thick.through(p, func(*design.Wire) { on = true })
			if on {
				v.troubles = append(v.troubles, Doubt{Key: fmt.Sprintf("wireOnBundle %d %d,%d", w.ID, p.X, p.Y), Kind: "wireOnBundle", Sheet: v.Sheet, At: p, Objects: []design.ID{w.ID},
					Text: "A wire ends on a bundle without a tap, so it does not join it."})
			}
		}
	}
	for _, lane := range []*drawing{v.thin, v.thick} {
		for p, list := range lane.hung {
			for _, o := range list {
				l, ok := o.(*design.Label)
				if !ok {
					continue
				}
				other := v.thick
				if lane.bundle {
					other = v.thin
				}
				own, wrong := false, false
				lane.through(p, func(*design.Wire) { own = true })
				other.through(p, func(*design.Wire) { wrong = true })
				if !own && wrong {
					text := fmt.Sprintf("The label %s names one net, but stands on a bundle.", l.Name)
					if lane.bundle {
						text = fmt.Sprintf("The label %s names a bundle, but stands on a wire.", l.Name)
					}
					v.troubles = append(v.troubles, Doubt{Key: fmt.Sprintf("labelOnBundle %d", l.ID), Kind: "labelOnBundle", Sheet: v.Sheet, At: p, Objects: []design.ID{l.ID}, Text: text})
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
	for _, o := range d.Standing(sheet) {
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

func sortPoints(pts []geom.Point) {
	slices.SortFunc(pts, func(a, b geom.Point) int { return cmp.Or(cmp.Compare(a.X, b.X), cmp.Compare(a.Y, b.Y)) })
}

func distinct(s []string) []string {
	slices.Sort(s)
	return slices.Compact(s)
}
