package circuit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Bundles carry several nets. What stands in the same place of the lists of a bundle's labels,
// ports and pins of blocks is joined. Labels and ports give the members names that hold on the
// sheet; a pin of a block names nothing outside: its members are joined with what touches the
// bundle, and with nothing else of their name. A tap leads out a member of the bundle it
// stands on, by its name; a tap that stands on no bundle, or takes what its bundle does not
// hold, leads nothing out.

// Bundle is a set of joined bundle wires and what its members are called on its sheet.
type Bundle struct {
	Name    string      `json:"name"`
	Members []string    `json:"members"`
	Items   []design.ID `json:"items"`
	taps    []*design.Tap
	at      geom.Point
	wired   bool
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

// lead is the member of a bundle that a tap leads out.
type lead struct {
	of     string // the member, as its group has it
	called string // where nothing names it
}

// gatherBundles finds the bundles and, for each tap, the member it leads out.
func (v *SheetView) gatherBundles(d *design.Doc) (held map[design.ID]lead) {
	held = map[design.ID]lead{}
	v.bundled.sets(func(wires []*design.Wire, places []geom.Point) {
		b := &Bundle{Members: []string{}, Items: []design.ID{}, wired: len(wires) > 0}
		var ends []terminal
		for _, w := range wires {
			b.Items = append(b.Items, w.ID)
		}
		for _, p := range places {
			b.at = p
			for _, ref := range v.bundled.pins[p] {
				block := d.Blocks[ref.Part]
				if block == nil { // a preview's
					block = v.block(ref.Part)
				}
				names, err := design.Members(ref.Pin)
				if err == nil && block != nil {
					ends = append(ends, terminal{id: ref.Part, names: names, block: block, text: ref.Pin, at: p})
				}
			}
			for _, o := range v.bundled.attached[p] {
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

// joinMembers makes one group of each member of a bundle and finds what its taps lead out.
// Labels come first, then ports, then pins; lists of another length than the first are left
// apart.
func (v *SheetView) joinMembers(b *Bundle, ends []terminal, held map[design.ID]lead) {
	slices.SortFunc(ends, func(a, c terminal) int {
		return cmp.Or(cmp.Compare(a.rank(), c.rank()), cmp.Compare(a.id, c.id), cmp.Compare(a.text, c.text))
	})
	if len(ends) > 0 {
		b.Name, b.Members = ends[0].text, ends[0].names
		for _, t := range ends {
			if len(t.names) != len(b.Members) {
				v.trouble("bundleWidth", fmt.Sprintf("bundleWidth %d %s", t.id, t.text), t.at, t.id,
					fmt.Sprintf("%s has %d members, but the bundle %s it stands on has %d.", t.text, len(t.names), b.Name, len(b.Members)))
			}
		}
		ends = slices.DeleteFunc(ends, func(t terminal) bool { return len(t.names) != len(b.Members) })
	}
	for i := range b.Members {
		v.groups = append(v.groups, v.member(b, ends, i))
	}
	v.leadOut(b, ends, held)
	v.Bundles = append(v.Bundles, b)
}

// rank orders what gives a bundle its members: labels, ports, pins.
func (t terminal) rank() int {
	switch {
	case t.block != nil:
		return 2
	case t.port:
		return 1
	}
	return 0
}

// leadOf names the nth member of the bundle within its sheet.
func (b *Bundle) leadOf(ends []terminal, nth int) string {
	if len(b.Items) > 0 {
		return fmt.Sprintf("%d#%d", b.Items[0], nth)
	}
	return fmt.Sprintf("%d.%s#%d", ends[0].id, ends[0].text, nth) // a pin of a block without any wire
}

// member is the group of the nth member of a bundle.
func (v *SheetView) member(b *Bundle, ends []terminal, nth int) *group {
	g := &group{sheet: v.Sheet, called: b.Members[nth], leads: []string{b.leadOf(ends, nth)}}
	for _, t := range ends {
		switch {
		case t.block != nil:
			g.below = append(g.below, lower{t.block, member{t.text, nth}})
		case t.port:
			g.ports = append(g.ports, member{t.text, nth})
			fallthrough
		default:
			g.names = append(g.names, t.names[nth])
		}
		g.ends = append(g.ends, fmt.Sprintf("t%d.%s", t.id, t.names[nth]))
	}
	g.names = distinct(g.names)
	return g
}

// leadOut finds the members that the taps of a bundle lead out: by the names of its labels and
// ports; where it has none, by those of its pins; where nothing says what it holds, by their own.
func (v *SheetView) leadOut(b *Bundle, ends []terminal, held map[design.ID]lead) {
	if len(ends) > 0 && ends[0].block == nil {
		ends = slices.DeleteFunc(slices.Clone(ends), func(t terminal) bool { return t.block != nil })
	}
	for _, t := range b.taps {
		switch nth := slices.IndexFunc(ends, func(e terminal) bool { return slices.Contains(e.names, t.Member) }); {
		case nth >= 0:
			at := slices.Index(ends[nth].names, t.Member)
			held[t.ID] = lead{b.leadOf(ends, at), b.Members[at]}
		case len(ends) > 0:
			v.trouble("tapMember", fmt.Sprintf("tapMember %d", t.ID), t.At, t.ID, fmt.Sprintf("The tap takes %s, which the bundle %s does not hold.", t.Member, b.Name))
		case b.wired:
			held[t.ID] = lead{fmt.Sprintf("%d=%s", b.Items[0], t.Member), t.Member}
			b.Members = distinct(append(b.Members, t.Member))
		default:
			v.trouble("tapMember", fmt.Sprintf("tapAlone %d", t.ID), t.At, t.ID, fmt.Sprintf("The tap of %s does not stand on a bundle.", t.Member))
		}
	}
}

// trouble notes a finding that shows on the sheet alone.
func (v *SheetView) trouble(kind, key string, at geom.Point, object design.ID, text string) {
	v.troubles = append(v.troubles, Finding{Key: key, Kind: kind, Sheet: v.Sheet, At: at, Objects: []design.ID{object}, Text: text})
}
