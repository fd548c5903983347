// Package pour fills copper areas: what copper of a net takes of a drawn part of the board on a layer, as far as everything that is not of
// the net leaves it room. The board is cut into square tiles; each is filled by itself by polygon overlay (GEOS), from all that lies
// near it, so that a change costs the tiles around it. Lengths are nanometres; copper layers count from 0 at the top.
//
// A place is filled when a disc of half the least width covers it that keeps its clearance from everything (an opening, in the words of
// mathematical morphology): copper thinner than the least width is left out. Spokes are laid over that.
package pour

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
)

// Side of a tile in nanometres.
const Side = 5_000_000

// Key names a copper area on one of its layers.
type Key struct {
	Pour  design.ID
	Layer design.LayerID
}

// Compare orders keys by area and layer.
func (k Key) Compare(o Key) int {
	return cmp.Or(cmp.Compare(k.Pour, o.Pour), cmp.Compare(k.Layer, o.Layer))
}

// Tile is the place of a tile: its column and row, from the board's origin.
type Tile struct{ X, Y int32 }

// Box of the tile.
func (t Tile) Box() geom.Box {
	at := geom.Pt(int64(t.X)*Side, int64(t.Y)*Side)
	return geom.Box{Min: at, Max: at.Add(geom.Pt(Side, Side))}
}

// Compare orders tiles row by row.
func (t Tile) Compare(o Tile) int { return cmp.Or(cmp.Compare(t.Y, o.Y), cmp.Compare(t.X, o.X)) }

// TilesOf are the tiles that a box meets.
func TilesOf(b geom.Box) (out []Tile) {
	for y := floor(b.Min.Y); y <= floor(b.Max.Y); y++ {
		for x := floor(b.Min.X); x <= floor(b.Max.X); x++ {
			out = append(out, Tile{x, y})
		}
	}
	return out
}

func floor(v int64) int32 {
	n := v / Side
	if v < 0 && v%Side != 0 {
		n--
	}
	return int32(n)
}

// Piece is a piece of an area's copper within one tile.
type Piece struct {
	overlay.Area
	// Touches is the copper of the net that it touches.
	Touches []layout.Ref
	doubled int64 // twice its size
	tile    Tile
	seams   [4][]span
	next    []*Piece // in the tiles beside, that it is one with
	island  *Island
	visit   int64 // by which search it was met last
}

// sides of a tile.
const (
	left = iota
	right
	below
	above
)

// span is where a piece reaches a side of its tile.
type span struct{ from, to int64 }

// seamsOf finds where an area reaches the sides of its tile.
func seamsOf(a overlay.Area, b geom.Box) (out [4][]span) {
	edge := func(p, q geom.Point) {
		add := func(side int, u, v int64) { out[side] = append(out[side], span{min(u, v), max(u, v)}) }
		switch {
		case p.X == q.X && p.X == b.Min.X:
			add(left, p.Y, q.Y)
		case p.X == q.X && p.X == b.Max.X:
			add(right, p.Y, q.Y)
		}
		switch {
		case p.Y == q.Y && p.Y == b.Min.Y:
			add(below, p.X, q.X)
		case p.Y == q.Y && p.Y == b.Max.Y:
			add(above, p.X, q.X)
		}
	}
	for _, ring := range append([][]geom.Point{a.Outer}, a.Holes...) {
		for i, p := range ring {
			edge(p, ring[(i+1)%len(ring)])
		}
	}
	for i := range out {
		slices.SortFunc(out[i], func(a, b span) int { return cmp.Compare(a.from, b.from) })
	}
	return out
}

// hairline is how far two pieces must lie side by side at a seam to be one, in nanometres: tiles round their corners by themselves.
const hairline = 100

// meet tells whether two sorted lists of spans overlap.
func meet(a, b []span) bool {
	for i, j := 0, 0; i < len(a) && j < len(b); {
		if min(a[i].to, b[j].to)-max(a[i].from, b[j].from) > hairline {
			return true
		}
		if a[i].to < b[j].to {
			i++
		} else {
			j++
		}
	}
	return false
}

// doubled is twice the size of an area of a tile in square nanometres: a whole number, so that sums are the same in whatever order.
func doubled(a overlay.Area) (sum int64) {
	from := a.Outer[0] // lengths from here are those of a tile, their products far from any bound
	add := func(ring []geom.Point) {
		for i, p := range ring {
			q := ring[(i+1)%len(ring)]
			p, q = p.Sub(from), q.Sub(from)
			sum += p.X*q.Y - q.X*p.Y
		}
	}
	add(a.Outer)
	for _, h := range a.Holes {
		add(h) // which goes the other way around
	}
	return sum
}
