package circuit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
)

// Naming is what gives a net its name.
type Naming struct {
	Name   string      // as it stands in the drawing, without a place before it
	Items  []design.ID // labels, ports, taps and supply marks that bear it
	Bundle string      // the bundle of which the net is a member, if it is
	Wires  []design.ID // of a net nobody named: its wires on the sheet nearest to the top
}

// NamingOf tells what gives a net its name.
func (n *Nets) NamingOf(net *Net) Naming {
	out := Naming{}
	if net.Named {
		out.Name = net.base
	}
	seen := map[design.ID]bool{}
	for _, m := range net.members {
		if len(m.group.ends) > 0 {
			if v := n.Views[m.of.Sheet]; v != nil {
				for _, b := range v.Bundles {
					if slices.Contains(b.Members, net.base) {
						out.Bundle = b.Name
					}
				}
			}
		}
	}
	for i, use := range net.Uses {
		v := n.Views[use.Sheet]
		if v == nil {
			continue
		}
		for _, o := range v.items {
			if seen[o.ObjectID()] || !slices.Contains(use.Items, o.ObjectID()) {
				continue
			}
			seen[o.ObjectID()] = true
			if net.Named && nameOf(o) == net.base {
				out.Items = append(out.Items, o.ObjectID())
			}
			if _, ok := o.(*design.Wire); ok && i == 0 {
				out.Wires = append(out.Wires, o.ObjectID())
			}
		}
	}
	return out
}

// home is the place whose name tells a net from others of the same base: the first, from
// the top, that bears the base.
func (net *Net) home() *useState {
	for _, m := range net.members {
		if slices.Contains(m.group.names, net.base) {
			return m.of
		}
	}
	return net.members[0].of
}

// name gives final names to the nets whose base, or the number of nets of that base,
// changed: the base alone when no other net has it, else with the place before it. A net whose
// base a bundle without a name gives makes way for others: it is called after its first pin then.
func (u *update) name(out NetChanges) {
	n := u.n
	type want struct {
		net  *Net
		name string
	}
	var todo []want
	for base := range u.bases {
		nets := n.bases[base]
		named := 0
		for net := range nets {
			if net.Named {
				named++
			}
		}
		for net := range nets {
			name := base
			switch {
			case len(nets) == 1 || net.Named && named == 1:
			case net.called && len(net.Pins) > 0:
				name = net.home().Label + "/" + PinName(u.d, net.Pins[0])
			case net.called:
				name = fmt.Sprintf("%s/%s %d", net.home().Label, base, net.Uses[0].Items[0])
			default:
				name = net.home().Label + "/" + base
			}
			if net.Name != name {
				todo = append(todo, want{net, name})
			}
		}
	}
	for _, w := range todo {
		u.forget(w.net, out)
	}
	slices.SortFunc(todo, func(a, b want) int {
		ma, mb := a.net.members[0], b.net.members[0]
		return cmp.Or(cmp.Compare(a.name, b.name), cmp.Compare(ma.of.rank, mb.of.rank), cmp.Compare(ma.nth, mb.nth))
	})
	for _, w := range todo {
		if w.net.Name != "" { // told already under its old name: others hold that value, so a copy takes the new one
			c := *w.net
			unnote(n.bases, w.net.base, w.net)
			w.net = &c
			note(n.bases, c.base, w.net)
			for _, m := range c.members {
				m.net = w.net
			}
		}
		w.net.Name = w.name
		for n.ByName[w.net.Name] != nil {
			w.net.Name += "'"
		}
		n.ByName[w.net.Name] = w.net
		out.Changed[w.net.Name] = w.net
		for _, p := range w.net.Pins {
			n.OfPin[p] = w.net.Name
		}
		for _, use := range w.net.Uses {
			for _, id := range use.Items {
				n.OfItem[ItemRef{use.Path, id}] = w.net.Name
			}
		}
	}
}
