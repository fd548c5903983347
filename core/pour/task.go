package pour

import (
	"math"
	"slices"

	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
)

// Task is all that it takes to fill one tile of an area. It can be done in any goroutine, and its outcome depends on nothing else.
type Task struct {
	Key
	Tile
	window geom.Box
	least  int64       // width
	region [][]kerb    // lines that bound what may be filled: the area's edge, the board's
	guards []guard     // what is kept free
	own    []ownCopper // that the area may touch
	spokes []spoke
	ready  []*Piece // of teardrops: there is nothing to fill
}

// kerb is a closed line that what is filled stays within, or, for a cut-out, outside of; Keep is how far from it copper stays.
type kerb struct {
	line   []geom.Point
	pieces geom.Ring
	keeps  []int64 // by piece
	out    bool
}

// guard is a shape that copper stays away from by so much.
type guard struct {
	shape geom.Shape
	keep  int64
}

type ownCopper struct {
	ref   layout.Ref
	shape geom.Shape
}

// spoke is a strip from within a pad to beyond the gap around it. It is laid when its far end meets what is filled, whole.
type spoke struct {
	strip []geom.Point // the far end between its second and third place
}

// Outcome of a task.
type Outcome struct {
	Key
	Tile
	Pieces []*Piece
	Err    error
}

// Do fills the tile.
func (t *Task) Do() Outcome {
	out := Outcome{Key: t.Key, Tile: t.Tile}
	out.Err = overlay.Done(func() error { out.Pieces = t.fill(); return nil })
	return out
}

func (t *Task) fill() []*Piece {
	if t.least == 0 { // teardrops, or the area is gone from here
		return t.ready
	}
	w := overlay.Begin()
	box := t.Tile.Box()
	room := w.Box(t.window)
	var bars [][]geom.Point // what is kept free
	for _, list := range t.region {
		var ins [][]geom.Point
		for _, k := range list {
			if k.out {
				bars = append(bars, k.line)
			} else {
				ins = append(ins, k.line)
			}
			for i, p := range k.pieces {
				if k.keeps[i] > 0 && p.Box().Grow(k.keeps[i]).Meets(t.window) {
					bars = append(bars, rounded(geom.Bow(p, 0), k.keeps[i])...)
				}
			}
		}
		if len(ins) > 0 {
			if room = room.Within(w.Union(ins)); room.Empty() {
				return nil
			}
		}
	}
	for _, g := range t.guards {
		bars = append(bars, rounded(g.shape, g.keep)...)
	}
	if len(bars) > 0 {
		room = room.Without(w.Union(bars))
	}
	// where a disc of half the least width has room. The library draws straight what bends by less than a hundredth of the distance
	// that it shrinks and grows by: that much more is grown, and held within the room.
	wide := room
	if room.Plain(simple) {
		// of a ring of few places that leaves little when it is shrunk the library takes it that nothing is left: it gets more places
		list := room.List()
		for i := range list {
			list[i] = dense(list[i])
		}
		wide = w.Areas(list)
	}
	filled := wide.Grown(-t.half(), stray).Grown(t.half()+t.half()/80, stray).Within(room)
	if filled.Empty() {
		return nil
	}
	if strips := t.laid(filled.List()); len(strips) > 0 {
		filled = filled.And(w.Union(strips))
	}
	var out []*Piece
	for _, a := range w.Clipped(filled, box).List() {
		p := &Piece{Area: a, doubled: doubled(a), seams: seamsOf(a, box)}
		asked := w.Ask(a)
		for _, c := range t.own {
			if slices.ContainsFunc(rounded(c.shape, -stray/2), asked.Meets) {
				p.Touches = append(p.Touches, c.ref)
			}
		}
		out = append(out, p)
	}
	return out
}

// simple is of how many places a ring is taken for one that may vanish (GEOS 3.11: fewer than nine).
const simple = 12

// dense is an area with places in the middle of its sides, so that its outer line is not simple.
func dense(a overlay.Area) overlay.Area {
	for len(a.Outer) < simple {
		var line []geom.Point
		for i, p := range a.Outer {
			if line = append(line, p); p.Dist(a.Outer[(i+1)%len(a.Outer)]) > 4 {
				line = append(line, p.Towards(a.Outer[(i+1)%len(a.Outer)], 0.5))
			}
		}
		if len(line) == len(a.Outer) {
			break
		}
		a.Outer = line
	}
	return a
}

// half of the least width, but for as much as outlines may stray: copper of just that width stays.
func (t *Task) half() int64 { return t.least/2 - t.least/200 - stray }

// laid are the spokes whose far ends meet what is filled.
func (t *Task) laid(filled []overlay.Area) (out [][]geom.Point) {
	holds := func(p geom.Point) bool {
		return slices.ContainsFunc(filled, func(a overlay.Area) bool { return geom.BoxOf(a.Outer...).Holds(p) && a.Holds(p) })
	}
	for _, s := range t.spokes {
		a, b := s.strip[1], s.strip[2]
		if holds(a.Towards(b, 0.02)) && holds(a.Towards(b, 0.5)) && holds(a.Towards(b, 0.98)) {
			out = append(out, s.strip)
		}
	}
	return out
}

// spokesOf are the strips of a pad: n of a width through a gap, the first in a direction in millidegrees.
func spokesOf(pad geom.Shape, at geom.Point, n int, width, gap int64, first int32) (out []spoke) {
	far := float64(pad.Box().Max.X-pad.Box().Min.X) + float64(pad.Box().Max.Y-pad.Box().Min.Y) + float64(2*gap+width)
	for i := range n {
		sin, cos := math.Sincos((float64(first)/1000 + 360*float64(i)/float64(n)) * math.Pi / 180)
		place := func(along, aside float64) geom.Point {
			return geom.Pt(at.X+int64(math.Round(along*cos-aside*sin)), at.Y+int64(math.Round(along*sin+aside*cos)))
		}
		h := float64(width) / 2
		reach := 0.0
		for _, aside := range []float64{-h, 0, h} {
			lo, hi := 0.0, far
			for hi-lo > 1000 {
				mid := (lo + hi) / 2
				if g, _, _ := geom.Gap(pad, geom.Disc(place(mid, aside), 0)); g > float64(gap) {
					hi = mid
				} else {
					lo = mid
				}
			}
			reach = max(reach, hi)
		}
		reach += joint
		out = append(out, spoke{[]geom.Point{place(0, -h), place(reach, -h), place(reach, h), place(0, h)}})
	}
	return out
}

// joint is how far a spoke reaches into the area, in nanometres.
const joint = 20_000
