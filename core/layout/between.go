package layout

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Between are the tracks and vias that join pads of the parts and of no others: what can go along when the
// parts are moved together. Cost: that of the joined copper of their pads.
func Between(d *design.Doc, x *Index, parts []design.ID) []design.ID {
	own := map[design.ID]bool{}
	for _, id := range parts {
		if d.Placed[id] != nil {
			own[id] = true
		}
	}
	seen := map[Ref]bool{}
	out := []design.ID{}
	for _, id := range parts {
		for _, c := range x.Of(id) {
			if c.Net == 0 || seen[c.Ref()] {
				continue
			}
			joined, whole := flood(x, c, own, seen)
			if whole {
				out = append(out, joined...)
			}
		}
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// flood goes through the copper that is joined with a pad of the parts; whole tells whether it meets no other part.
func flood(x *Index, from *Copper, own map[design.ID]bool, seen map[Ref]bool) (joined []design.ID, whole bool) {
	whole = true
	todo := []*Copper{from}
	seen[from.Ref()] = true
	for len(todo) > 0 {
		c := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		if c.Pad >= 0 && !own[c.ID] {
			whole = false
			continue
		}
		if c.Pad < 0 {
			joined = append(joined, c.ID)
		}
		for o := range x.Near(c.Box()) {
			if o.Net != c.Net || seen[o.Ref()] {
				continue
			}
			if gap, _, _, layer := Gap(c, o); layer >= 0 && geom.Measured(gap) <= 0 {
				seen[o.Ref()] = true
				todo = append(todo, o)
			}
		}
	}
	return joined, whole
}
