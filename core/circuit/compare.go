package circuit

import (
	"goldentrace/core/design"
)

// compare finds the nets the move joined or parted, by looking at which pins and labels
// were together before and are together now.
func (m *mover) compare(before *SheetView) (joined [][2]string, parted []string) {
	after := m.after(before)
	was, is := map[memberKey]int{}, map[memberKey]int{}
	fill := func(groups []*group, in map[memberKey]int) {
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
		case len(g.names) > 0:
			return g.names[0]
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

// memberKeys name what makes a net a net: its pins, labels, ports, taps and supply marks,
// and what a member of a bundle joins.
func memberKeys(g *group) []memberKey {
	out := make([]memberKey, 0, len(g.ends)+len(g.pins)+len(g.named))
	for _, s := range g.ends {
		out = append(out, memberKey{"end", 0, s})
	}
	for _, p := range g.pins {
		out = append(out, memberKey{"pin", p.Part, p.Pin})
	}
	for _, l := range g.below {
		if len(g.ends) == 0 {
			out = append(out, memberKey{"pin", l.block.ID, l.name})
		}
	}
	for _, id := range g.named {
		out = append(out, memberKey{"mark", id, ""})
	}
	return out
}

type memberKey struct {
	kind string
	id   design.ID
	name string
}

// after is the sheet's groups with the move done.
func (m *mover) after(before *SheetView) []*group {
	items := make([]design.OnSheet, 0, len(before.items))
	seen := map[design.ID]bool{}
	for _, o := range before.items {
		seen[o.ObjectID()] = true
		switch n, ok := m.now[o.ObjectID()]; {
		case m.gone[o.ObjectID()] != nil:
		case ok:
			items = append(items, n.(design.OnSheet))
		default:
			items = append(items, o)
		}
	}
	for id, o := range m.now {
		if !seen[id] {
			items = append(items, o.(design.OnSheet))
		}
	}
	return viewItems(m.doc, before.Sheet, items).groups
}
