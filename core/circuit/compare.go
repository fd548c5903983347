package circuit

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// faults counts the nets of the sheet that a move joined or parted, by looking at which pins,
// labels and members of bundles were together before and are together now.
func (m *mover) faults(before *SheetView) int {
	after := m.after(before)
	was, is := map[memberKey]int{}, map[memberKey]int{}
	fill := func(groups []*group, in map[memberKey]int) []int {
		of := joinedOnSheet(groups)
		for i, g := range groups {
			for _, k := range memberKeys(g) {
				in[k] = of[i]
			}
		}
		return of
	}
	ofBefore, ofAfter := fill(before.groups, was), fill(after, is)
	n := 0
	count := func(groups []*group, of []int, other map[memberKey]int) {
		first := map[int]int{}
		for i, g := range groups {
			for _, k := range memberKeys(g) {
				now, ok := other[k]
				if !ok {
					continue
				}
				if f, seen := first[of[i]]; !seen {
					first[of[i]] = now
				} else if f != now {
					n++
				}
			}
		}
	}
	count(before.groups, ofBefore, is)
	count(after, ofAfter, was)
	return n
}

// joinedOnSheet numbers the groups of a sheet so that those joined by a name or a bundle have
// the same number.
func joinedOnSheet(groups []*group) []int {
	set := geom.NewForest(0)
	by := map[string]int{}
	for i, g := range groups {
		set.Add()
		join := func(key string) {
			if first, ok := by[key]; ok {
				set.Join(first, i)
			} else {
				by[key] = i
			}
		}
		for _, s := range g.names {
			join("n" + s)
		}
		for _, s := range g.leads {
			join("b" + s)
		}
		for _, s := range g.supplies {
			join("s" + s)
		}
	}
	out := make([]int, len(groups))
	for i := range groups {
		out[i] = set.Root(i)
	}
	return out
}

// memberKeys name what makes a net a net: its pins, labels, ports, taps and supply marks, what
// a member of a bundle joins, and which member a tap leads out.
func memberKeys(g *group) []memberKey {
	out := make([]memberKey, 0, len(g.ends)+len(g.pins)+len(g.named)+len(g.leads))
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
