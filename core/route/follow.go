package route

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Carried is a part, a track or a via of the board before and after it is carried elsewhere.
type Carried struct{ Before, After design.Object }

// carrying is one piece of copper that is carried, and how its places go with it.
type carrying struct {
	was, is *layout.Copper
	at      func(geom.Point) geom.Point
}

// Followed is how tracks follow what is carried elsewhere.
type Followed struct {
	Strands []Moved
	Vias    []MovedVia // that touch pads
	Open    []*Strand  // that find no way: what they led to is open then
	Sought  bool       // some of those were not sought for as long as it might take
	Many    bool       // there are more strands than the effort is for: the rest of them was not sought at all
	Stay    int        // locked tracks and vias, and tracks on whose middle something hangs: they stay where they lie
	Stopped error      // why it was given up; nothing else is told then
	Touches []Obstacle // foreign copper that what is carried would touch
	Near    []Obstacle // foreign copper that it would come nearer than the rules let it
	copper  []*layout.Copper
	gone    []design.ID
}

// In is the field as it is once everything has followed.
func (w *Followed) In(f Field) Field { return f.With(w.gone, w.copper...) }

// Copper is what lies elsewhere then, with all that goes from where it was: by object.
func (w *Followed) Copper() map[design.ID][]*layout.Copper {
	out := map[design.ID][]*layout.Copper{}
	for _, id := range w.gone {
		out[id] = []*layout.Copper{}
	}
	for _, c := range w.copper {
		out[c.ID] = append(out[c.ID], c)
	}
	return out
}

// mostTouches is how many pieces of foreign copper are told of.
const mostTouches = 8

// Effort bounds the work for tracks that follow: how many strands are led along, and how many places of grids are looked at for those that are
// sought. Going is told now and then how much is done, and stops it by an error; nil: nobody asks.
type Effort struct {
	Strands, Places int
	Going           func(share float64) error
}

// stopped asks whether to go on.
func (e Effort) stopped(done, of int) error {
	if e.Going == nil {
		return nil
	}
	return e.Going(float64(done) / float64(of))
}

// Follow finds how tracks follow what is carried elsewhere: they keep their lines where they can, else they are sought anew on their layer.
// Without effort none follows: they go, and what they led to is open.
func (f Field) Follow(list []Carried, effort Effort) *Followed {
	w := &Followed{}
	carried := map[design.ID]bool{}
	var pieces []carrying
	for _, c := range list {
		carried[c.Before.ObjectID()] = true
		pieces = append(pieces, f.carryings(c)...)
	}
	pieces = f.withVias(w, pieces, carried)
	for _, p := range pieces {
		w.copper = append(w.copper, p.is)
	}
	for id := range carried {
		w.gone = append(w.gone, id)
	}
	slices.Sort(w.gone)
	strands := f.hanging(w, pieces, carried)
	for _, s := range strands {
		w.gone = append(w.gone, s.IDs...)
	}
	after := w.In(f).Boxed()
	after.touches(w, pieces)
	few := min(effort.Strands, len(strands))
	for _, s := range strands[few:] {
		w.Open = append(w.Open, s.Strand)
	}
	w.Many = effort.Strands > 0 && few < len(strands)
	lay := func(s *Strand, path []geom.Point) {
		copper := s.copper(path)
		w.Strands, w.copper = append(w.Strands, Moved{s, path}), append(w.copper, copper...)
		after.Lay(copper...)
	}
	var search []*following
	for i, s := range strands[:few] {
		if err := effort.stopped(i, 2*few); err != nil {
			return &Followed{Stopped: err}
		}
		if path := after.led(s); path != nil {
			lay(s.Strand, path)
		} else {
			search = append(search, s)
		}
	}
	slices.SortStableFunc(search, func(a, b *following) int { return cmp.Compare(a.far(), b.far()) })
	places := effort.Places
	for i, s := range search {
		if err := effort.stopped(len(search)+i, 2*len(search)); err != nil {
			return &Followed{Stopped: err}
		}
		path, looked := after.sought(s, places)
		places -= looked
		if path != nil {
			lay(s.Strand, path)
			continue
		}
		w.Open = append(w.Open, s.Strand)
		w.Sought = w.Sought || places <= 0
	}
	return w
}

// carryings are the pieces of copper of what is carried.
func (f Field) carryings(c Carried) (out []carrying) {
	var at func(geom.Point) geom.Point
	switch before := c.Before.(type) {
	case *design.Placed:
		from, to := before.Pose(), c.After.(*design.Placed).Pose()
		at = func(p geom.Point) geom.Point { return to.Apply(from.Undo(p)) }
	case *design.Via:
		step := c.After.(*design.Via).At.Sub(before.At)
		at = func(p geom.Point) geom.Point { return p.Add(step) }
	case *design.Track: // carried rigidly with parts, whose pads say how
		after := c.After.(*design.Track)
		at = func(p geom.Point) geom.Point {
			switch p {
			case before.A:
				return after.A
			case before.B:
				return after.B
			}
			return p.Add(after.A.Sub(before.A))
		}
	default:
		return nil
	}
	is := map[int]*layout.Copper{}
	for _, p := range layout.PiecesOf(f.Doc, c.After) {
		is[p.Pad] = p
	}
	for _, p := range f.Index.Of(c.Before.ObjectID()) {
		if is[p.Pad] != nil {
			out = append(out, carrying{p, is[p.Pad], at})
		}
	}
	return out
}

// withVias adds the vias that touch pads that are carried: they go along.
func (f Field) withVias(w *Followed, pieces []carrying, carried map[design.ID]bool) []carrying {
	locked := map[design.ID]bool{}
	for i := 0; i < len(pieces); i++ {
		p := pieces[i]
		if p.was.Net == 0 {
			continue
		}
		for c := range f.near(p.was.Box()) {
			v := f.Doc.Vias[c.ID]
			if v == nil || carried[c.ID] || c.Net != p.was.Net || !layout.Touching(c, p.was) {
				continue
			}
			if v.Locked {
				if !locked[c.ID] {
					w.Stay++
				}
				locked[c.ID] = true
				continue
			}
			carried[c.ID] = true
			to := p.at(v.At)
			w.Vias = append(w.Vias, MovedVia{c.ID, v.At, to})
			pieces = append(pieces, carrying{c, movedVia(c, to), p.at})
		}
	}
	slices.SortFunc(w.Vias, func(a, b MovedVia) int { return cmp.Compare(a.ID, b.ID) })
	return pieces
}

// following is a strand that hangs on what is carried, with what carries its ends; nil: that end stays.
type following struct {
	*Strand
	ends [2]*carrying
}

// place of an end as it will be.
func (s *following) place(end int) geom.Point {
	p := s.Path[end*(len(s.Path)-1)]
	if s.ends[end] != nil {
		p = s.ends[end].at(p)
	}
	return p
}

func (s *following) far() float64 { return s.place(0).Dist(s.place(1)) }

// hanging are the strands that end at what is carried.
func (f Field) hanging(w *Followed, pieces []carrying, carried map[design.ID]bool) (out []*following) {
	seen := map[design.ID]bool{}
	for i := range pieces {
		p := &pieces[i]
		if p.was.Net == 0 {
			continue
		}
		var tracks []design.ID
		for c := range f.near(p.was.Box()) {
			if c.Kind == "track" && !carried[c.ID] && c.Net == p.was.Net && layout.Touching(c, p.was) {
				tracks = append(tracks, c.ID)
			}
		}
		slices.Sort(tracks)
		for _, id := range tracks {
			if seen[id] {
				continue
			}
			s := f.strandOf(id)
			ends := [2]*carrying{}
			if s != nil {
				ends = endsAmong(s, pieces)
			}
			if ends == [2]*carrying{} { // it passes by, or is held
				seen[id] = true
				w.Stay++
				continue
			}
			for _, id := range s.IDs {
				seen[id] = true
			}
			out = append(out, &following{s, ends})
		}
	}
	return out
}

// endsAmong finds what carries the ends of a strand.
func endsAmong(s *Strand, pieces []carrying) (ends [2]*carrying) {
	for end, at := range []geom.Point{s.Path[0], s.Path[len(s.Path)-1]} {
		for i := range pieces {
			c := pieces[i].was
			if c.Net == s.Net && c.Has(s.Layer) && c.On(s.Layer).Holds(at) {
				ends[end] = &pieces[i]
				break
			}
		}
	}
	return ends
}

// led is a path of the strand that keeps as much of its line as it can; nil: none of them is free.
func (f Field) led(s *following) []geom.Point {
	for end := range 2 {
		if c := s.ends[end]; c != nil && !c.is.Has(s.Layer) {
			return nil // its pad is on the other side now
		}
	}
	a, b := s.place(0), s.place(1)
	step := a.Sub(s.Path[0])
	var ways [][]geom.Point
	if s.ends[0] != nil && s.ends[1] != nil {
		whole := make([]geom.Point, len(s.Path))
		for i, p := range s.Path {
			whole[i] = s.ends[0].at(p)
		}
		if whole[len(whole)-1] == b {
			ways = append(ways, whole)
		} else if last := s.Path[len(s.Path)-1]; b.Sub(last) == step {
			for i, p := range s.Path {
				whole[i] = p.Add(step)
			}
			ways = append(ways, whole)
		}
	}
	behind := [][]geom.Point{s.Path}
	if s.ends[1] != nil {
		behind = ledWays(s.Path, b)
	}
	for _, p := range behind {
		if s.ends[0] == nil {
			ways = append(ways, p)
			continue
		}
		for _, q := range ledWays(reversed(p), a) {
			ways = append(ways, reversed(q))
		}
	}
	return f.firstFree(s.Strand, ways)
}

// firstFree is the best of the ways that are free: the first of those that are hardly longer than the shortest.
func (f Field) firstFree(s *Strand, ways [][]geom.Point) (best []geom.Point) {
	for _, way := range ways {
		if len(way) < 2 || best != nil && float64(Length(way))*1.25 > float64(Length(best)) {
			continue
		}
		if f.holds(s, way) {
			best = way
		}
	}
	return best
}

// holds tells whether a strand may lie along a path.
func (f Field) holds(s *Strand, path []geom.Point) bool {
	for i := 0; i+2 < len(path); i++ { // a way back along itself is none
		if !along(path[i+1].Sub(path[i]), path[i+2].Sub(path[i+1])) && turn(path[i], path[i+1], path[i+2]) == 0 {
			return false
		}
	}
	for _, c := range s.copper(path) {
		if !f.Free(wishOf(c)) {
			return false
		}
	}
	return f.keepsJoints(s, path)
}

// keepsJoints tells whether all copper that a strand touches and that stays is touched by it along a path too, or by other such copper.
func (f Field) keepsJoints(s *Strand, path []geom.Point) bool {
	was, is := s.copper(s.Path), s.copper(path)
	touched := func(list []*layout.Copper, c *layout.Copper) bool {
		return slices.ContainsFunc(list, func(own *layout.Copper) bool { return layout.Touching(own, c) })
	}
	var kept, lost []*layout.Copper
	seen := map[layout.Ref]bool{}
	for _, own := range was {
		for c := range f.near(own.Box()) {
			if c.Net != s.Net || seen[c.Ref()] || !layout.Touching(own, c) {
				continue
			}
			seen[c.Ref()] = true
			if touched(is, c) {
				kept = append(kept, c)
			} else {
				lost = append(lost, c)
			}
		}
	}
	for _, c := range lost {
		if !touched(kept, c) {
			return false
		}
	}
	return true
}

// sought is a way of the strand between its ends that was searched for; looked at are so many places.
func (f Field) sought(s *following, most int) (path []geom.Point, looked int) {
	if most <= 0 {
		return nil, 0
	}
	goal := &layout.Copper{Kind: "place", Net: s.Net, Layers: 1 << s.Layer, Shape: geom.Disc(s.place(1), 0), At: s.place(1)}
	for end := range 2 {
		if c := s.ends[end]; c != nil && !c.is.Has(s.Layer) {
			return nil, 0
		}
	}
	legs, looked := f.finish(Errand{Net: s.Net, Width: s.Width, From: s.place(0), Layers: 1 << s.Layer, Goals: []*layout.Copper{goal}, Most: most})
	if len(legs) != 1 {
		return nil, looked
	}
	path = geom.Places(legs[0].Path)
	if len(path) < 2 || !f.holds(s.Strand, path) {
		return nil, looked
	}
	return path, looked
}

// touches notes the foreign copper that pieces touch or come too near where they are carried to, of the field as it is then.
func (f Field) touches(w *Followed, pieces []carrying) {
	carried := map[design.ID]bool{} // rigidly, or pads of one part
	for _, p := range pieces {
		carried[p.is.ID] = true
	}
	for _, p := range pieces {
		if len(w.Touches) == mostTouches {
			return
		}
		f.each(wishOf(p.is), func(other *layout.Copper, o Obstacle) bool {
			switch {
			case other == nil || other.Net == p.is.Net:
			case o.Measured <= 0 && len(w.Touches) < mostTouches:
				w.Touches = append(w.Touches, o)
			case o.Measured > 0 && !carried[other.ID] && len(w.Near) < mostTouches:
				w.Near = append(w.Near, o)
			}
			return len(w.Touches) < mostTouches
		})
	}
}
