package pour

import (
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
)

// Bonds are the pieces of a net that its copper areas join, each list those that hang together: islands of several areas that lie over
// each other on a layer are one. Where the library fails, they count as apart. Cost, once after something was filled: where areas of the
// net lie over each other, that of holding their pieces against each other, tile by tile.
func (f *Fills) Bonds(net design.ID) []layout.Bond {
	out, known := f.bonds[net]
	if known {
		return out
	}
	on := map[design.LayerID][]Key{}
	for _, k := range f.Keys() {
		if p := f.doc.Pours[k.Pour]; p != nil && p.Net == net {
			on[k.Layer] = append(on[k.Layer], k)
		}
	}
	for _, l := range slices.Sorted(maps.Keys(on)) {
		groups := f.together(on[l])
		for _, k := range on[l] {
			for _, is := range f.Islands(k) {
				if g := groups[is]; is.Stays && (g == nil || g[0] == is) {
					var refs layout.Bond
					for _, one := range append(g, is) {
						refs = append(refs, one.Touches...)
					}
					slices.SortFunc(refs, layout.Ref.Compare)
					if refs = slices.Compact(refs); len(refs) > 1 {
						out = append(out, refs)
					}
				}
			}
		}
	}
	if f.bonds == nil {
		f.bonds = map[design.ID][]layout.Bond{}
	}
	f.bonds[net] = out
	return out
}

// together finds which islands of several areas on one layer lie over each other: each group of more than one by any of it, that with
// the first island first.
func (f *Fills) together(keys []Key) map[*Island][]*Island {
	out := map[*Island][]*Island{}
	join := func(a, b *Island) {
		x, y := out[a], out[b]
		if x == nil {
			x = []*Island{a}
		}
		if y == nil {
			y = []*Island{b}
		}
		if x[0] == y[0] {
			return
		}
		both := slices.Concat(x, y)
		for _, is := range both {
			out[is] = both
		}
	}
	for i, k := range keys {
		for _, other := range keys[i+1:] {
			for _, t := range slices.SortedFunc(maps.Keys(f.of[k].tiles), Tile.Compare) {
				theirs := f.Seen(other, t)
				for _, p := range f.Seen(k, t) {
					for _, q := range theirs {
						if g := out[p.island]; (g == nil || !slices.Contains(g, q.island)) && p.over(q) {
							join(p.island, q.island)
						}
					}
				}
			}
		}
	}
	return out
}

// over tells whether two pieces of one tile lie over each other.
func (p *Piece) over(q *Piece) (yes bool) {
	_ = overlay.Done(func() error {
		w := overlay.Begin()
		yes = !w.Areas([]overlay.Area{p.Area}).Within(w.Areas([]overlay.Area{q.Area})).Empty()
		return nil
	})
	return yes
}

// hold lets islands stay that nothing of their net reaches, but that lie over one of another area of the net that stays, on a layer; it
// notes the tiles in which they come or go. Cost: where there are such, that of holding their pieces against those of the other areas.
func (f *Fills) hold(layer design.LayerID, changed map[Key]map[Tile]bool) {
	of := map[design.ID][]Key{}
	for _, k := range f.Keys() {
		if p := f.doc.Pours[k.Pour]; p != nil && k.Layer == layer {
			of[p.Net] = append(of[p.Net], k)
		}
	}
	for _, keys := range of {
		if len(keys) > 1 {
			f.holdOver(keys, changed)
		}
	}
}

// holdOver does so among areas of one net on one layer.
func (f *Fills) holdOver(keys []Key, changed map[Key]map[Tile]bool) {
	type loose struct {
		*Island
		key  Key
		over []*Island
	}
	var list []*loose
	held := map[*Island]bool{}
	for _, k := range keys {
		for is := range f.of[k].islands {
			if stays(f.doc.Pours[k.Pour], is) {
				held[is] = true
			} else {
				list = append(list, &loose{Island: is, key: k})
			}
		}
	}
	for _, l := range list {
		for _, p := range l.Pieces {
			for _, k := range keys {
				if k == l.key {
					continue
				}
				for _, q := range f.of[k].tiles[p.tile] {
					if !slices.Contains(l.over, q.island) && p.over(q) {
						l.over = append(l.over, q.island)
					}
				}
			}
		}
	}
	for more := true; more; {
		more = false
		for _, l := range list {
			if !held[l.Island] && slices.ContainsFunc(l.over, func(is *Island) bool { return held[is] }) {
				held[l.Island], more = true, true
			}
		}
	}
	for _, l := range list {
		if l.Stays == held[l.Island] {
			continue
		}
		l.Stays = held[l.Island]
		if changed[l.key] == nil {
			changed[l.key] = map[Tile]bool{}
		}
		for _, p := range l.Pieces {
			changed[l.key][p.tile] = true
		}
	}
}
