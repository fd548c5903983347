package circuit

import (
	"cmp"
	"fmt"
	"maps"
	"slices"
	"strings"

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

// want notes the name a net wants, place and all; empty: it is gone.
func (u *update) want(net *Net, name string) {
	if net.want == name {
		return
	}
	if net.want != "" {
		unnote(u.n.wants, net.want, net)
		u.wants[net.want] = struct{}{}
	}
	if net.want = name; name != "" {
		note(u.n.wants, name, net)
		u.wants[name] = struct{}{}
	}
}

// instead puts a copy of a net in its place among those that bear and want names.
func (n *Nets) instead(old, net *Net) {
	unnote(n.bases, net.base, old)
	note(n.bases, net.base, net)
	if net.want != "" {
		unnote(n.wants, net.want, old)
		note(n.wants, net.want, net)
	}
}

// wanted is the name of a net of which others bear the base too, or do not.
func (u *update) wanted(net *Net, named int) string {
	switch alone := len(u.n.bases[net.base]) == 1; {
	case alone || net.Named && named == 1:
		return net.base
	case net.called && len(net.Pins) > 0:
		return net.home().Label + "/" + PinName(u.d, net.Pins[0])
	case net.called:
		return fmt.Sprintf("%s/%s %d", net.home().Label, net.base, net.Uses[0].Items[0])
	}
	return net.home().Label + "/" + net.base
}

// name gives final names to the nets whose base, or the number of nets of that base,
// changed: the base alone when no other net has it, else with the place before it. A net whose
// base a bundle without a name gives makes way for others: it is called after its first pin then.
// Where a name that somebody wrote is that of another net with its place, the one further down
// gets a stroke behind it. Names follow from the drawing alone, not from what was drawn first.
func (u *update) name(out NetChanges) {
	n := u.n
	for base := range u.bases {
		named := 0
		for net := range n.bases[base] {
			if net.Named {
				named++
			}
		}
		for net := range n.bases[base] {
			u.want(net, u.wanted(net, named))
		}
	}
	type naming struct {
		net  *Net
		name string
	}
	var todo []naming
	for want := range u.wants {
		nets := slices.SortedFunc(maps.Keys(n.wants[want]), func(a, b *Net) int {
			ma, mb := a.members[0], b.members[0]
			return cmp.Or(cmp.Compare(ma.of.rank, mb.of.rank), cmp.Compare(ma.nth, mb.nth))
		})
		for i, net := range nets {
			if name := want + strings.Repeat("'", i); net.Name != name {
				todo = append(todo, naming{net, name})
			}
		}
	}
	for _, w := range todo {
		u.forget(w.net, out)
	}
	slices.SortFunc(todo, func(a, b naming) int { return cmp.Compare(a.name, b.name) })
	for _, w := range todo {
		if w.net.Name != "" { // told already under its old name: others hold that value, so a copy takes the new one
			c := *w.net
			n.instead(w.net, &c)
			w.net = &c
			for _, m := range c.members {
				m.net = w.net
			}
		}
		w.net.Name = w.name
		for n.ByName[w.net.Name] != nil { // strokes that somebody wrote
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
