package circuit

import (
	"maps"
	"slices"

	"goldentrace/core/design"
)

// What an act does to the nets, told before it is done.
//
// Nets are compared by what makes them: pins, what carries a name, what a bundle's member
// joins. These have a place in a net before the act and one after it. Nets of which two or more
// meet in one net afterwards are joined; a net whose parts lie in several nets is parted. What
// the act adds or takes away counts for neither.

// Outcome is what an act does to the nets that were there before it.
type Outcome struct {
	Joined []Join   `json:"joined"`
	Parted []Part   `json:"parted"`
	Onto   []string `json:"onto"` // nets of before that something new becomes part of
}

// Join is several nets that become one.
type Join struct {
	Nets  []string `json:"nets"`
	Meant bool     `json:"meant"` // it is what the act is for, so that nobody need be asked
}

// Part is a net that falls apart.
type Part struct {
	Net   string `json:"net"`
	Meant bool   `json:"meant"`
}

// Meant tells whether all that the act joins and parts is what it is for.
func (o Outcome) Meant() bool {
	return !slices.ContainsFunc(o.Joined, func(j Join) bool { return !j.Meant }) && !slices.ContainsFunc(o.Parted, func(p Part) bool { return !p.Meant })
}

// Same tells whether both join and part the same nets.
func (o Outcome) Same(p Outcome) bool {
	return slices.EqualFunc(o.Joined, p.Joined, func(a, b Join) bool { return slices.Equal(a.Nets, b.Nets) }) &&
		slices.EqualFunc(o.Parted, p.Parted, func(a, b Part) bool { return a.Net == b.Net })
}

// Means says which joins and parts an act is for: those of these nets alone. Of joined nets at
// most one may bear a name, since two named nets are never joined unasked.
type Means struct {
	Joins []string
	Parts []string
	Any   bool // whatever it joins or parts was said already
	// Called are the names that the act gives: nets that bear one of them already are called so on purpose.
	Called []string
}

// anchor is what makes a net the one it is.
type anchor struct {
	path string
	kind string // pin, item, end, below
	id   design.ID
	name string
	nth  int
}

func (net *Net) anchors(each func(a anchor)) {
	for _, m := range net.members {
		path, g := m.of.Path, m.group
		for _, p := range g.pins {
			each(anchor{path, "pin", p.Part, p.Pin, 0})
		}
		for _, id := range g.named {
			each(anchor{path, "item", id, "", 0})
		}
		for _, s := range g.ends {
			each(anchor{path, "end", 0, s, 0})
		}
		for _, l := range g.below {
			each(anchor{path, "below", l.block.ID, l.name, l.nth})
		}
	}
}

// Outcome tells what a refresh did, given what the act that caused it is for. Cost: O(what the
// changed nets join).
func (c NetChanges) Outcome(means Means) Outcome {
	before := maps.Clone(c.Lost)
	maps.Copy(before, c.Was)
	was := map[anchor]*Net{}
	for _, net := range before {
		net.anchors(func(a anchor) { was[a] = net })
	}
	is := map[anchor]string{}
	out := Outcome{Joined: []Join{}, Parted: []Part{}, Onto: []string{}}
	for name, net := range c.Changed {
		from := map[*Net]bool{}
		added := false
		net.anchors(func(a anchor) {
			is[a] = name
			if old := was[a]; old != nil {
				from[old] = true
			} else {
				added = true
			}
		})
		if len(from) > 1 {
			out.Joined = append(out.Joined, join(from, means))
		} else if added {
			for old := range from {
				out.Onto = append(out.Onto, old.Name)
			}
		}
	}
	for name, net := range before {
		to := map[string]bool{}
		net.anchors(func(a anchor) {
			if now, ok := is[a]; ok {
				to[now] = true
			}
		})
		if len(to) > 1 {
			out.Parted = append(out.Parted, Part{name, means.Any || slices.Contains(means.Parts, name)})
		}
	}
	slices.SortFunc(out.Joined, func(a, b Join) int { return slices.CompareFunc(a.Nets, b.Nets, CompareNatural) })
	slices.SortFunc(out.Parted, func(a, b Part) int { return CompareNatural(a.Net, b.Net) })
	slices.SortFunc(out.Onto, CompareNatural)
	return out
}

// lowerPin is a port of a sheet, whichever use of it.
type lowerPin struct {
	sheet design.ID
	name  string
}

// join is what an act joined. It was meant when it was named by the act and at most one of the nets bears a name that the act does not give; a
// name is no reason to join one port of two uses of a sheet.
func join(nets map[*Net]bool, means Means) Join {
	j := Join{Meant: true}
	named, called := 0, 0
	below := map[lowerPin]*Net{}
	twice := false
	for net := range nets {
		j.Nets = append(j.Nets, net.Name)
		j.Meant = j.Meant && slices.Contains(means.Joins, net.Name)
		if net.Named && !slices.Contains(means.Called, net.base) {
			named++
		} else if net.Named {
			called = 1
		}
		for _, m := range net.members {
			for _, l := range m.group.below {
				key := lowerPin{l.block.Of, l.name}
				if was := below[key]; was != nil && was != net {
					twice = true
				}
				below[key] = net
			}
		}
	}
	named += called
	j.Meant = j.Meant && named < 2 && !(twice && called > 0) || means.Any
	slices.SortFunc(j.Nets, CompareNatural)
	return j
}
