package pour

import (
	"cmp"
	"maps"
	"slices"
	"sync/atomic"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
)

// Island is copper of an area on one layer that hangs together.
type Island struct {
	Pieces []*Piece
	// Touches is the copper of the net that it reaches, each once, in order.
	Touches []layout.Ref
	Size    float64    // in square nanometres
	At      geom.Point // a place of it
	Stays   bool       // it is copper of the board
	first   Tile
}

// beside are the tiles next to one, with the side that they meet on: its own and theirs.
var beside = [4]struct {
	x, y        int32
	mine, their int
}{{-1, 0, left, right}, {1, 0, right, left}, {0, -1, below, above}, {0, 1, above, below}}

// search counts the searches for what hangs together.
var search atomic.Int64

// replace puts the outcomes' pieces in the place of those of their tiles, finds the islands that this touches anew, and notes the tiles in
// which islands come or go.
func (f *fill) replace(list []Outcome, stay func(*Island) bool, changed map[Tile]bool) {
	touched := map[*Island]bool{}
	for _, o := range list {
		for _, p := range f.tiles[o.Tile] {
			touched[p.island] = true
			for _, q := range p.next {
				q.next = slices.DeleteFunc(q.next, func(x *Piece) bool { return x == p })
			}
		}
		if delete(f.tiles, o.Tile); len(o.Pieces) > 0 {
			f.tiles[o.Tile] = o.Pieces
		}
	}
	var fresh []*Piece
	for _, o := range list {
		for _, p := range o.Pieces {
			p.tile = o.Tile
			fresh = append(fresh, p)
			for _, n := range beside {
				for _, q := range f.tiles[Tile{o.X + n.x, o.Y + n.y}] {
					if meet(p.seams[n.mine], q.seams[n.their]) && !slices.Contains(p.next, q) {
						p.next, q.next = append(p.next, q), append(q.next, p)
					}
				}
			}
		}
	}
	seeds := fresh
	for is := range touched {
		delete(f.islands, is)
		for _, p := range is.Pieces {
			if slices.Contains(f.tiles[p.tile], p) {
				seeds = append(seeds, p)
			}
		}
	}
	visit := search.Add(1)
	for _, p := range seeds {
		if p.visit != visit {
			f.spread(p, visit, stay, changed)
		}
	}
}

// spread makes an island of all that hangs together with a piece.
func (f *fill) spread(from *Piece, visit int64, stay func(*Island) bool, changed map[Tile]bool) {
	is, twice := &Island{}, int64(0)
	from.visit = visit
	for todo := []*Piece{from}; len(todo) > 0; {
		p := todo[len(todo)-1]
		todo = todo[:len(todo)-1]
		is.Pieces = append(is.Pieces, p)
		twice += p.doubled
		is.Touches = append(is.Touches, p.Touches...)
		for _, q := range p.next {
			if q.visit != visit {
				q.visit = visit
				todo = append(todo, q)
			}
		}
	}
	is.Size = float64(twice) / 2
	slices.SortFunc(is.Touches, layout.Ref.Compare)
	is.Touches = slices.Compact(is.Touches)
	first := slices.MinFunc(is.Pieces, comparePieces)
	is.At, is.first = first.Outer[0], first.tile
	is.Stays = stay(is)
	for _, p := range is.Pieces {
		if p.island != nil {
			delete(f.islands, p.island)
			if p.island.Stays != is.Stays {
				changed[p.tile] = true
			}
		}
		p.island = is
	}
	f.islands[is] = true
}

// comparePieces orders pieces row by row of their tiles.
func comparePieces(a, b *Piece) int {
	return cmp.Or(a.tile.Compare(b.tile), a.Outer[0].Compare(b.Outer[0]))
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

// Islands of an area on a layer, those that go too, in the order of their first tile.
func (f *Fills) Islands(k Key) []*Island {
	is := f.of[k]
	if is == nil {
		return nil
	}
	return slices.SortedFunc(maps.Keys(is.islands), func(a, b *Island) int { return cmp.Or(a.first.Compare(b.first), a.At.Compare(b.At)) })
}

// Whole are the areas of an island across its tiles, in a settled order.
func (i *Island) Whole() (out []overlay.Area, err error) {
	list := make([]overlay.Area, len(i.Pieces))
	inOrder := slices.SortedFunc(slices.Values(i.Pieces), comparePieces)
	for k, p := range inOrder {
		list[k] = p.Area
	}
	err = overlay.Done(func() error { out = overlay.Begin().Joined(list).List(); return nil })
	return out, err
}
