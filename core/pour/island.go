package pour

import (
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Island is copper of an area on one layer that hangs together.
type Island struct {
	Pieces []*Piece
	// Touches is the copper of the net that it reaches, each once, in order.
	Touches []layout.Ref
	Size    float64    // in square nanometres
	At      geom.Point // a place of it
	Stays   bool       // it is copper of the board
}

// seen tells of pieces whether they are copper of the board.
func (f *fill) seen() map[*Piece]bool {
	out := map[*Piece]bool{}
	for _, i := range f.islands {
		for _, p := range i.Pieces {
			out[p] = i.Stays
		}
	}
	return out
}

// found are the islands of the tiles' pieces, in the order of their first piece.
func (f *fill) found(pour *design.Pour) (out []*Island) {
	var all []*Piece
	first := map[Tile]int{}
	tiles := slices.SortedFunc(maps.Keys(f.tiles), Tile.Compare)
	for _, t := range tiles {
		first[t] = len(all)
		all = append(all, f.tiles[t]...)
	}
	sets := geom.NewForest(len(all))
	for _, t := range tiles {
		for _, n := range []struct {
			to          Tile
			mine, their int
		}{{Tile{t.X + 1, t.Y}, right, left}, {Tile{t.X, t.Y + 1}, above, below}} {
			for i, p := range f.tiles[t] {
				for j, q := range f.tiles[n.to] {
					if meet(p.seams[n.mine], q.seams[n.their]) {
						sets.Join(first[t]+i, first[n.to]+j)
					}
				}
			}
		}
	}
	at := map[int]*Island{}
	for i, p := range all {
		root := sets.Root(i)
		is := at[root]
		if is == nil {
			is = &Island{At: p.Outer[0]}
			at[root] = is
			out = append(out, is)
		}
		is.Pieces, is.Size = append(is.Pieces, p), is.Size+p.size
		is.Touches = append(is.Touches, p.Touches...)
		p.island = is
	}
	for _, is := range out {
		slices.SortFunc(is.Touches, compareRefs)
		is.Touches = slices.Compact(is.Touches)
		is.Stays = stays(pour, is)
	}
	return out
}

// stays tells whether an island is copper of the board.
func stays(p *design.Pour, i *Island) bool {
	const thousandth = 1e9 // of a square millimetre, in square nanometres
	switch {
	case p == nil:
		return false
	case len(i.Touches) > 0:
		return true
	}
	return p.Islands == design.IslandsStay && i.Size >= float64(p.Smallest)*thousandth
}

// Islands of an area on a layer, those that go too.
func (f *Fills) Islands(k Key) []*Island {
	if is := f.of[k]; is != nil {
		return is.islands
	}
	return nil
}
