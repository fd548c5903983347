package circuit

import (
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
