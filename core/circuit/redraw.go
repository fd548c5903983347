package circuit

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
)

// Nets that join what they joined and are only drawn otherwise.

// redraw gives nets that join what they joined the wires they are drawn with now.
func (u *update) redraw(out NetChanges) {
	n := u.n
	places := map[*Net]map[*useState]bool{}
	for m := range u.redrawn {
		if _, again := u.dirty[m.net]; again || m.gone || m.net == nil || u.built[m.net] {
			continue
		}
		if places[m.net] == nil {
			places[m.net] = map[*useState]bool{}
		}
		places[m.net][m.of] = true
	}
	for old, at := range places {
		net := *old
		net.Uses = slices.Clone(old.Uses)
		for p := range at {
			u.redrawUse(&net, p)
		}
		if net.base != "" {
			n.instead(old, &net)
		}
		for _, m := range net.members {
			m.net = &net
		}
		if net.Name == "" || n.ByName[net.Name] != old {
			continue
		}
		n.ByName[net.Name] = &net
		if out.Changed[net.Name] != old { // else it has a new name too, and nobody knows it under that
			out.Was[net.Name] = old
		}
		out.Changed[net.Name] = &net
	}
}

// redrawUse gathers anew what a net has in one use of a sheet.
func (u *update) redrawUse(net *Net, p *useState) {
	n := u.n
	use := NetUse{Path: p.Path, Sheet: p.Sheet}
	for _, m := range p.members {
		if m.net != nil && len(net.members) > 0 && m.net == net.members[0].net {
			use.Items = append(use.Items, m.group.items...)
		}
	}
	slices.Sort(use.Items)
	nth := slices.IndexFunc(net.Uses, func(x NetUse) bool { return x.Path == p.Path && x.Sheet == p.Sheet })
	if nth >= 0 {
		for _, id := range net.Uses[nth].Items {
			if ref := (ItemRef{p.Path, id}); n.OfItem[ref] == net.Name {
				delete(n.OfItem, ref)
			}
		}
	}
	for _, id := range use.Items {
		n.OfItem[ItemRef{p.Path, id}] = net.Name
	}
	switch {
	case len(use.Items) == 0 && nth >= 0:
		if net.Uses = slices.Delete(net.Uses, nth, nth+1); len(net.Uses) == 0 {
			net.Uses = nil
		}
	case len(use.Items) == 0:
	case nth >= 0:
		net.Uses[nth] = use
	default:
		rank := func(x NetUse) int { return n.uses[useKey{x.Path, x.Sheet}].rank }
		at, _ := slices.BinarySearchFunc(net.Uses, p.rank, func(x NetUse, r int) int { return cmp.Compare(rank(x), r) })
		net.Uses = slices.Insert(net.Uses, at, use)
	}
}

// Redrawn tells whether a net joins what it joined before and is only drawn otherwise.
func Redrawn(was, is *Net) bool {
	return was != nil && was.Named == is.Named && was.feeds == is.feeds && len(was.Pins) == len(is.Pins) &&
		(len(is.Pins) == 0 || &was.Pins[0] == &is.Pins[0] || slices.Equal(was.Pins, is.Pins)) && slices.Equal(was.Supplies, is.Supplies) && slices.Equal(was.Names, is.Names)
}

// Redraw lists the uses in which a net is drawn otherwise than it was; a use it left has no
// items.
func Redraw(was, is *Net) []NetUse {
	var out []NetUse
	old := map[useKey]NetUse{}
	for _, u := range was.Uses {
		old[useKey{u.Path, u.Sheet}] = u
	}
	for _, u := range is.Uses {
		k := useKey{u.Path, u.Sheet}
		if o, ok := old[k]; !ok || !slices.Equal(o.Items, u.Items) {
			out = append(out, u)
		}
		delete(old, k)
	}
	for _, u := range old {
		out = append(out, NetUse{Path: u.Path, Sheet: u.Sheet, Items: []design.ID{}})
	}
	return out
}

func sameNet(a, b *Net) bool {
	return a.Named == b.Named && a.feeds == b.feeds && slices.Equal(a.Pins, b.Pins) && slices.Equal(a.Supplies, b.Supplies) && slices.Equal(a.Names, b.Names) &&
		slices.EqualFunc(a.Uses, b.Uses, func(x, y NetUse) bool {
			return x.Path == y.Path && x.Sheet == y.Sheet && slices.Equal(x.Items, y.Items)
		})
}
