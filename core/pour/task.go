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
	least  int64 // width
	room
	beside []room      // of other areas of the net, with which it is one
	own    []ownCopper // that the area may touch
	spokes []spoke
	ready  []*Piece // of teardrops: there is nothing to fill
}

// room is what an area may fill.
type room struct {
	region [][]kerb // lines that bound it: the area's edge, the board's
	guards []guard  // what is kept free
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
	own   bool // the gap around copper that the area joins by spokes: what is filled of it joins nothing else
}

type ownCopper struct {
	ref   layout.Ref
	shape geom.Shape
}

// spoke is a strip from a pad's middle outwards. It is laid as far as it takes to reach into what is filled by half the least width over its
// whole breadth, so that nothing thinner joins it.
type spoke struct {
	from         geom.Point // the pad's middle
	cos, sin     float64    // its direction
	half         float64    // of its width
	reach, limit float64    // how far from the middle the gap ends; how far it is looked for what is filled
}

// place is so far along a spoke and so far beside its middle line.
func (s *spoke) place(along, aside float64) geom.Point {
	return geom.Pt(s.from.X+int64(math.Round(along*s.cos-aside*s.sin)), s.from.Y+int64(math.Round(along*s.sin+aside*s.cos)))
}

// strip is a stretch of a spoke.
func (s *spoke) strip(from, to float64) []geom.Point {
	return []geom.Point{s.place(from, -s.half), s.place(to, -s.half), s.place(to, s.half), s.place(from, s.half)}
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
	room := t.room.within(w, t.window)
	if room.Empty() {
		return nil
	}
	all := room
	for _, o := range t.beside {
		all = all.And(o.within(w, t.window))
	}
	// where a disc of half the least width has room. The library draws straight what bends by less than a hundredth of the distance
	// that it shrinks and grows by: that much more is grown, and held within the room.
	wide := all
	if all.Plain(simple) {
		// of a ring of few places that leaves little when it is shrunk the library takes it that nothing is left: it gets more places
		list := all.List()
		for i := range list {
			list[i] = dense(list[i])
		}
		wide = w.Areas(list)
	}
	inner := wide.Grown(-t.half(), stray)
	filled := t.outer(inner)
	if throats := t.throats(w, inner); !throats.Empty() {
		around := throats.Grown(2*t.least, stray) // beyond that nothing is drawn anew
		parted := t.outer(filled.Without(throats.Grown(t.half(), stray)).Grown(-t.half(), stray))
		filled = filled.Without(around).And(parted.Within(around))
	}
	if filled = filled.Within(room); filled.Empty() {
		return nil
	}
	if strips := t.laid(w, filled); len(strips) > 0 {
		filled = t.closed(w, filled.And(w.Union(strips)))
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

// within is the room that there is within a window.
func (r room) within(w *overlay.Work, window geom.Box) overlay.Set {
	out := w.Box(window)
	var bars [][]geom.Point // what is kept free
	for _, list := range r.region {
		var ins [][]geom.Point
		for _, k := range list {
			if k.out {
				bars = append(bars, k.line)
			} else {
				ins = append(ins, k.line)
			}
			for i, p := range k.pieces {
				if k.keeps[i] > 0 && p.Box().Grow(k.keeps[i]).Meets(window) {
					bars = append(bars, rounded(geom.Bow(p, 0), k.keeps[i])...)
				}
			}
		}
		if len(ins) > 0 {
			if out = out.Within(w.Union(ins)); out.Empty() {
				return out
			}
		}
	}
	for _, g := range r.guards {
		bars = append(bars, rounded(g.shape, g.keep)...)
	}
	if len(bars) > 0 {
		out = out.Without(w.Union(bars))
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

// outer is what discs of half the least width cover whose middles lie within a set.
func (t *Task) outer(inner overlay.Set) overlay.Set {
	return inner.Grown(t.half()+t.half()/80, stray)
}

// throats are where discs from both sides of a place that no disc gets through lie over each other: between two corners, say, that are nearer to each
// other than copper may be wide. They would join what they come from by less than that.
func (t *Task) throats(w *overlay.Work, inner overlay.Set) overlay.Set {
	none := w.Areas(nil)
	parts := inner.List()
	if len(parts) < 2 {
		return none
	}
	grown := make([]*overlay.Set, len(parts))
	of := func(i int) overlay.Set {
		if grown[i] == nil {
			g := t.outer(w.Areas(parts[i : i+1]))
			grown[i] = &g
		}
		return *grown[i]
	}
	boxes := make([]geom.Box, len(parts))
	for i, p := range parts {
		boxes[i] = geom.BoxOf(p.Outer...).Grow(t.least/2 + stray)
	}
	out := none
	for i := range parts {
		for j := range i {
			if boxes[i].Meets(boxes[j]) {
				if both := of(i).Within(of(j)); !both.Empty() {
					out = out.And(both)
				}
			}
		}
	}
	return out
}

// half of the least width, but for as much as outlines may stray: copper of just that width stays.
func (t *Task) half() int64 { return t.least/2 - t.least/200 - stray }

// laid are the strips of the spokes that find what is filled.
func (t *Task) laid(w *overlay.Work, filled overlay.Set) (out [][]geom.Point) {
	if len(t.spokes) == 0 {
		return nil
	}
	deep := float64(t.least)/2 + joint
	asked := w.AskSet(filled)
	for i := range t.spokes {
		s := &t.spokes[i]
		for from := s.reach; from <= s.limit; from += deep {
			if !asked.Covers(s.strip(from, from+deep)) {
				continue
			}
			if strip := s.strip(0, from+deep); !t.barred(strip) {
				out = append(out, strip)
			}
			break
		}
	}
	return out
}

// barred tells whether a strip comes too near to what is kept free.
func (t *Task) barred(strip []geom.Point) bool {
	s := geom.Shape{Pts: strip, Area: true}
	return slices.ContainsFunc(t.guards, func(g guard) bool {
		if g.own {
			return false
		}
		gap, _, _ := geom.Gap(s, g.shape)
		return geom.Short(gap, g.keep)
	})
}

// closed fills the holes between spokes and what is filled that are smaller than copper may be wide, or slits, unless they keep something else free.
func (t *Task) closed(w *overlay.Work, filled overlay.Set) overlay.Set {
	var small [][]geom.Point
	gap := t.least // the least of those that spokes cross
	for _, g := range t.guards {
		if g.own {
			gap = min(gap, g.keep)
		}
	}
	var pads []geom.Shape // which bound the holes, too
	for _, c := range t.own {
		pads = append(pads, c.shape)
	}
	for _, a := range filled.And(w.Shapes(pads, stray)).List() {
		for _, h := range a.Holes {
			box := geom.BoxOf(h...)
			if most := t.least + 4*stray; (box.Max.X-box.Min.X > most || box.Max.Y-box.Min.Y > most) && wider(w, h, gap/2) {
				continue // a stretch of the gap
			}
			foreign := slices.ContainsFunc(t.guards, func(g guard) bool {
				gap, _, _ := geom.Gap(g.shape, geom.Shape{Pts: h, Area: true})
				return !g.own && gap <= float64(g.keep+stray)
			})
			if !foreign {
				small = append(small, h)
			}
		}
	}
	if len(small) == 0 {
		return filled
	}
	return filled.And(w.Union(small).Grown(stray, stray)) // no sliver stays where places are rounded to whole nanometres
}

// wider tells whether a disc wider than so much lies within a ring. A region's area is at most its perimeter times the radius of the largest disc within
// (Osserman 1979, Bonnesen's inequality for regions without holes), which tells it of most without a search.
func wider(w *overlay.Work, ring []geom.Point, than int64) bool {
	around := 0.0
	for i, p := range ring {
		around += p.Dist(ring[(i+1)%len(ring)])
	}
	if math.Abs(geom.Area(ring)) > around*float64(than+2*stray)/2 {
		return true
	}
	return w.Union([][]geom.Point{ring}).Widest() > than
}

// spokesOf are the spokes of a pad: n of a width through a gap, the first in a direction in millidegrees; they are looked for up to so far beyond it.
func spokesOf(pad geom.Shape, at geom.Point, n int, width, gap int64, first int32, beyond int64) (out []spoke) {
	far := float64(pad.Box().Max.X-pad.Box().Min.X) + float64(pad.Box().Max.Y-pad.Box().Min.Y) + float64(2*gap+width)
	for i := range n {
		s := spoke{from: at, half: float64(width) / 2}
		s.sin, s.cos = math.Sincos((float64(first)/1000 + 360*float64(i)/float64(n)) * math.Pi / 180)
		for _, aside := range []float64{-s.half, 0, s.half} {
			lo, hi := 0.0, far
			for hi-lo > 1000 {
				mid := (lo + hi) / 2
				if g, _, _ := geom.Gap(pad, geom.Disc(s.place(mid, aside), 0)); g > float64(gap) {
					hi = mid
				} else {
					lo = mid
				}
			}
			s.reach = max(s.reach, hi)
		}
		s.limit = s.reach + float64(beyond)
		out = append(out, s)
	}
	return out
}

// joint is how far a spoke reaches into the area beyond half its least width, in nanometres.
const joint = 20_000
