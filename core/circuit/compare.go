package circuit

import (
	"fmt"

	"goldentrace/core/design"
)

// compare finds the nets the move joined or parted, by looking at which pins and labels
// were together before and are together now.
func (m *mover) compare(before *SheetView) (joined [][2]string, parted []string) {
	after := m.after(before)
	was, is := map[string]int{}, map[string]int{}
	fill := func(groups []*group, in map[string]int) {
		for i, g := range groups {
			for _, k := range memberKeys(g) {
				in[k] = i
			}
		}
	}
	fill(before.groups, was)
	fill(after, is)
	name := func(g *group) string {
		switch {
		case len(g.supplies) > 0:
			return g.supplies[0]
		case len(g.labels) > 0:
			return g.labels[0]
		case len(g.pins) > 0:
			return PinName(m.doc, g.pins[0])
		}
		return "a loose wire"
	}
	for _, g := range before.groups {
		first := -1
		for _, k := range memberKeys(g) {
			if i, ok := is[k]; ok {
				if first >= 0 && i != first {
					parted = append(parted, name(g))
					break
				}
				first = i
			}
		}
	}
	for _, g := range after {
		first := -1
		for _, k := range memberKeys(g) {
			if i, ok := was[k]; ok {
				if first >= 0 && i != first {
					joined = append(joined, [2]string{name(before.groups[first]), name(before.groups[i])})
					break
				}
				first = i
			}
		}
	}
	return joined, parted
}

// memberKeys name what makes a net a net: its pins, labels and supply marks.
func memberKeys(g *group) []string {
	var out []string
	for _, p := range g.pins {
		out = append(out, fmt.Sprintf("p%d.%s", p.Part, p.Pin))
	}
	for _, id := range g.marks {
		out = append(out, fmt.Sprintf("m%d", id))
	}
	return out
}

// after is the sheet's groups with the move done.
func (m *mover) after(before *SheetView) []*group {
	var c content
	pick := func(o design.Object) design.Object {
		if m.gone[o.ObjectID()] != nil {
			return nil
		}
		if n, ok := m.now[o.ObjectID()]; ok {
			return n
		}
		return o
	}
	seen := map[design.ID]bool{}
	for _, p := range before.content.parts {
		c.parts = append(c.parts, pick(p).(*design.Part))
	}
	for _, w := range before.content.wires {
		if o := pick(w); o != nil {
			c.wires = append(c.wires, o.(*design.Wire))
			seen[w.ID] = true
		}
	}
	for _, o := range m.now {
		if w, ok := o.(*design.Wire); ok && !seen[w.ID] {
			c.wires = append(c.wires, w)
		}
	}
	for _, l := range before.content.labels {
		c.labels = append(c.labels, pick(l).(*design.Label))
	}
	for _, s := range before.content.supplies {
		c.supplies = append(c.supplies, pick(s).(*design.Supply))
	}
	return draw(m.doc, before.Sheet, c).groups()
}
