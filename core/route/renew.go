package route

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// mostOfNet is how many pieces a net may have for loops to be looked for.
const mostOfNet = 20_000

// web is the copper of a net by what touches what, with the copper that is new.
type web struct {
	pieces []*layout.Copper
	next   [][]int
	at     map[*layout.Copper]int
	fresh  map[int]bool
	begin  geom.Point // of what is new, and its end
	end    geom.Point
}

// webOf joins the copper of a net that lies in the field. nil: there is too much of it.
func (f Field) webOf(net design.ID, fresh []*layout.Copper) *web {
	last := fresh[len(fresh)-1].Shape.Pts
	w := &web{at: map[*layout.Copper]int{}, fresh: map[int]bool{}, begin: fresh[0].Shape.Pts[0], end: last[len(last)-1]}
	add := func(c *layout.Copper) {
		w.at[c] = len(w.pieces)
		w.pieces = append(w.pieces, c)
	}
	isNew := map[*layout.Copper]bool{}
	for _, c := range fresh {
		isNew[c] = true
	}
	for _, c := range f.Index.NetPieces(net) {
		if !f.Gone[c.ID] && !c.Bare {
			add(c)
		}
	}
	for _, c := range f.Laid {
		if c.Net == net && !isNew[c] {
			add(c)
		}
	}
	for _, c := range fresh {
		w.fresh[len(w.pieces)] = true
		add(c)
	}
	if len(w.pieces) > mostOfNet {
		return nil
	}
	all := f.With(nil, fresh...)
	w.next = make([][]int, len(w.pieces))
	for i, c := range w.pieces {
		for o := range all.near(c.Box()) {
			if j, known := w.at[o]; known && j > i && layout.Touching(c, o) {
				w.next[i], w.next[j] = append(w.next[i], j), append(w.next[j], i)
			}
		}
	}
	return w
}

// joined counts the groups of pieces that hang together, without some of them.
func (w *web) joined(without map[int]bool) (groups int) {
	seen := make([]bool, len(w.pieces))
	for i := range w.pieces {
		if seen[i] || without[i] {
			continue
		}
		groups++
		todo := []int{i}
		seen[i] = true
		for len(todo) > 0 {
			k := todo[len(todo)-1]
			todo = todo[:len(todo)-1]
			for _, j := range w.next[k] {
				if !seen[j] && !without[j] {
					seen[j] = true
					todo = append(todo, j)
				}
			}
		}
	}
	return groups
}

// atEnds tells whether a piece stands where what is new begins or ends.
func (w *web) atEnds(i int) bool {
	return w.pieces[i].Shape.Holds(w.begin) || w.pieces[i].Shape.Holds(w.end)
}

// loose tells whether a piece is a track or a via: what may go.
func loose(c *layout.Copper) bool { return c.Kind == "track" || c.Kind == "via" }

// Superseded are the tracks and vias that a new way makes needless: between the places that it joins there was a way already, and of that the
// stretch goes that joined nothing else, with all that only led there. Locked ones stay, and hold what they are part of.
func (f Field) Superseded(net design.ID, fresh []*layout.Copper) []design.ID {
	if len(fresh) == 0 {
		return nil
	}
	w := f.webOf(net, fresh)
	if w == nil {
		return nil
	}
	way := w.oldWay()
	if way == nil {
		return nil
	}
	whole := w.joined(nil)
	var best map[int]bool
	long := 0.0
	for _, s := range w.stretches(f, way) {
		without := map[int]bool{}
		l := 0.0
		for _, i := range s {
			without[i] = true
			l += lengthOf(w.pieces[i])
		}
		if l > long && w.joined(without) <= whole {
			best, long = without, l
		}
	}
	if best == nil {
		return nil
	}
	w.trim(f, best)
	ids := map[design.ID]bool{}
	for i := range best {
		ids[w.pieces[i].ID] = true
	}
	var out []design.ID
	for id := range ids {
		out = append(out, id)
	}
	slices.Sort(out)
	return out
}

func lengthOf(c *layout.Copper) float64 {
	if c.Kind != "track" {
		return 0
	}
	return c.Shape.Side(0).Length()
}

// oldWay is the shortest way through old pieces between those that the new ones begin and end at; nil: there is none.
func (w *web) oldWay() []int {
	first, last := -1, -1
	for i := range w.pieces {
		if w.fresh[i] {
			if first < 0 {
				first = i
			}
			last = i
		}
	}
	touches := func(k int, at geom.Point) (out []int) {
		for _, j := range w.next[k] {
			if !w.fresh[j] && w.pieces[j].Shape.Holds(at) {
				out = append(out, j)
			}
		}
		return out
	}
	from, to := touches(first, w.begin), touches(last, w.end)
	goal := map[int]bool{}
	for _, i := range to {
		goal[i] = true
	}
	cost, before, done := map[int]float64{}, map[int]int{}, map[int]bool{}
	for _, i := range from {
		cost[i], before[i] = lengthOf(w.pieces[i]), -1
	}
	for {
		at, least := -1, 0.0
		for i, c := range cost {
			if !done[i] && (at < 0 || cmp.Or(cmp.Compare(c, least), cmp.Compare(i, at)) < 0) {
				at, least = i, c
			}
		}
		if at < 0 {
			return nil
		}
		done[at] = true
		if goal[at] {
			var way []int
			for i := at; i >= 0; i = before[i] {
				way = append(way, i)
			}
			return way
		}
		for _, j := range w.next[at] {
			c := least + lengthOf(w.pieces[j]) + 1
			if old, known := cost[j]; !w.fresh[j] && (!known || c < old) {
				cost[j], before[j] = c, at
			}
		}
	}
}

// stretches of the way that may go: tracks and vias one after the other that are not locked, cut where more hangs on them.
func (w *web) stretches(f Field, way []int) (out [][]int) {
	on := map[int]bool{}
	for _, i := range way {
		on[i] = true
	}
	var now []int
	cut := func() {
		if len(now) > 0 {
			out, now = append(out, now), nil
		}
	}
	for k, i := range way {
		if !loose(w.pieces[i]) || locked(f.Doc, w.pieces[i].ID) || w.pieces[i].Kind == "via" && w.atEnds(i) {
			cut()
			continue
		}
		before, after := false, false
		for _, j := range w.next[i] {
			if w.fresh[j] || on[j] || w.atEnds(j) {
				continue
			}
			first, second := k > 0 && slices.Contains(w.next[j], way[k-1]), k+1 < len(way) && slices.Contains(w.next[j], way[k+1])
			before, after = before || first || !second, after || second || !first
		}
		if before {
			cut()
		}
		if now = append(now, i); after {
			cut()
		}
	}
	cut()
	return out
}

func locked(d *design.Doc, id design.ID) bool {
	switch o := d.Get(id).(type) {
	case *design.Track:
		return o.Locked
	case *design.Via:
		return o.Locked
	}
	return false
}

// trim adds the tracks and vias that lead nowhere once others are gone, but did before.
func (w *web) trim(f Field, without map[int]bool) {
	for changed := true; changed; {
		changed = false
		for i, c := range w.pieces {
			if without[i] || w.fresh[i] || !loose(c) || locked(f.Doc, c.ID) || c.Kind == "via" && w.atEnds(i) {
				continue
			}
			near, left := 0, 0
			for _, j := range w.next[i] {
				near++
				if !without[j] {
					left++
				}
			}
			if left < near && left <= 1 && w.ends(i, nil) && !w.ends(i, without) {
				without[i], changed = true, true
			}
		}
	}
}

// ends tells whether both ends of a track still hang on something, or a via still joins two layers.
func (w *web) ends(i int, without map[int]bool) bool {
	c := w.pieces[i]
	if c.Kind == "via" {
		layers := uint32(0)
		for _, j := range w.next[i] {
			if !without[j] {
				layers |= w.pieces[j].Layers
			}
		}
		return layers&(layers-1) != 0
	}
	p := c.Shape.Side(0)
	for _, at := range []geom.Point{p.A, p.B} {
		held := false
		for _, j := range w.next[i] {
			held = held || !without[j] && w.pieces[j].Shape.Holds(at)
		}
		if !held {
			return false
		}
	}
	return true
}
