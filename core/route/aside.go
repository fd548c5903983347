package route

import (
	"cmp"
	"math"
	"math/bits"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// Aside is how tracks and vias move aside for something.
type Aside struct {
	Strands []Moved
	Vias    []MovedVia
	copper  []*layout.Copper // of all that moves, as it lies then
}

// In is the field once all that has moved.
func (a *Aside) In(f Field) Field {
	var gone []design.ID
	for _, m := range a.Strands {
		gone = append(gone, m.IDs...)
	}
	for _, v := range a.Vias {
		gone = append(gone, v.ID)
	}
	return f.With(gone, a.copper...)
}

// Empty tells whether nothing moves.
func (a *Aside) Empty() bool { return a == nil || len(a.Strands)+len(a.Vias) == 0 }

// Moved is a strand with the path that it takes instead.
type Moved struct {
	*Strand
	To []geom.Point
}

// MovedVia is a via with its new place.
type MovedVia struct {
	ID     design.ID
	At, To geom.Point
}

const (
	mostWalks = 24   // of one strand
	mostSteps = 4000 // of one making way
	farVia    = 20_000_000
)

// thing is what moves, or what it moves for: a strand, a via, or what the hand lays.
type thing struct {
	strand  *Strand
	path    []geom.Point // as it is now
	via     *layout.Copper
	at      geom.Point // of the via, now
	hanging []*thing   // the strands that end at the via
	hand    []*layout.Copper
	rank    int // what the hand lays has 0, what makes way for it 1, and so on; of two in each other's way the one with the greater moves
	walks   int
	copper  []*layout.Copper // as it lies now
}

func (m *thing) net() design.ID {
	switch {
	case m.strand != nil:
		return m.strand.Net
	case m.via != nil:
		return m.via.Net
	}
	return m.hand[0].Net
}

// way are the lines of the thing that nothing else may cross.
func (m *thing) lines() (out [][]geom.Point) {
	if m.strand != nil {
		return [][]geom.Point{m.path}
	}
	for _, c := range m.hand {
		if len(c.Shape.Pts) > 1 {
			out = append(out, c.Shape.Pts)
		}
	}
	return out
}

// tail is a line from where the hand began, away from where it goes: what makes way goes round the hand's end, not round its beginning.
func (m *thing) tail() []geom.Point {
	if m.hand == nil || len(m.hand[0].Shape.Pts) < 2 {
		return nil
	}
	a, b := m.hand[0].Shape.Pts[0], m.hand[0].Shape.Pts[1]
	return []geom.Point{a, a.Towards(b, -1e9/max(1, a.Dist(b)))}
}

// mover makes things move aside. What lies where it lay is in the field's index; what moves is gone from there.
type mover struct {
	f       Field
	base    Field              // as it lies in the design, with what the hand lays
	still   map[design.ID]bool // must not move although they could
	things  []*thing
	of      map[*layout.Copper]*thing
	strands map[design.ID]*thing // by the ids of their tracks
	vias    map[design.ID]*thing
	stack   []*thing // what is yet to be held against the rest, the last first
	steps   int
}

// MakeWay finds how tracks and vias move aside for copper that the hand lays, which is of one net. The obstacle says what cannot move, or
// where there is no room. still are objects that stay where they are.
func (f Field) MakeWay(hand []*layout.Copper, still map[design.ID]bool) (*Aside, *Obstacle) {
	m := f.mover(still)
	m.base = f.With(nil, hand...)
	h := &thing{hand: hand, copper: hand}
	m.things = append(m.things, h)
	m.lay(h)
	m.stack = []*thing{h}
	if o := m.run(); o != nil {
		return nil, o
	}
	m.settle()
	return m.result(f)
}

func (f Field) mover(still map[design.ID]bool) *mover {
	m := &mover{f: f, still: still, of: map[*layout.Copper]*thing{}, strands: map[design.ID]*thing{}, vias: map[design.ID]*thing{}}
	m.f.Gone = map[design.ID]bool{}
	for id := range f.Gone {
		m.f.Gone[id] = true
	}
	m.f.Laid, m.base = slices.Clone(f.Laid), f
	return m
}

// run holds all that moved against the rest until nothing is in the way; the obstacle is where that does not come to an end.
func (m *mover) run() *Obstacle {
	for len(m.stack) > 0 {
		t := m.stack[len(m.stack)-1]
		m.stack = m.stack[:len(m.stack)-1]
		if o := m.clear(t); o != nil {
			return o
		}
	}
	return nil
}

// lay puts the copper of a thing, as it lies now, into the field.
func (m *mover) lay(t *thing) {
	for _, c := range t.copper {
		m.of[c] = t
	}
	m.f.Laid = append(m.f.Laid, t.copper...)
}

// lift takes it out.
func (m *mover) lift(t *thing) {
	m.f.Laid = slices.DeleteFunc(m.f.Laid, func(c *layout.Copper) bool { return m.of[c] == t })
	for _, c := range t.copper {
		delete(m.of, c)
	}
}

// clash is a piece of a thing that comes too near to another piece.
type clash struct {
	own, other *layout.Copper
	obstacle   Obstacle
}

// clashes of a thing as it lies now, with whatever is too near, by whom it is.
func (m *mover) clashes(t *thing) map[*thing][]clash {
	out := map[*thing][]clash{}
	for _, own := range t.copper {
		m.f.each(wishOf(own), func(other *layout.Copper, o Obstacle) bool {
			if other == nil || m.of[other] != t {
				owner := m.owner(other)
				out[owner] = append(out[owner], clash{own, other, o})
			}
			return true
		})
	}
	return out
}

func wishOf(c *layout.Copper) Wish {
	return Wish{Shape: c.Shape, Layers: c.Layers, Net: c.Net, Thing: c.Thing, Hole: c.Hole, Other: c.Other}
}

// owner is the thing that a piece belongs to; nil: it cannot move.
func (m *mover) owner(c *layout.Copper) *thing {
	switch {
	case c == nil || m.still[c.ID]:
		return nil
	case m.of[c] != nil:
		return m.of[c]
	case c.Kind == "track":
		return m.strandThing(c.ID)
	case c.Kind == "via":
		return m.viaThing(c)
	}
	return nil
}

func (m *mover) strandThing(id design.ID) *thing {
	if t, known := m.strands[id]; known {
		return t
	}
	s := m.base.strandOf(id)
	var t *thing
	if s != nil && !slices.ContainsFunc(s.IDs, func(id design.ID) bool { return m.still[id] }) {
		t = &thing{strand: s, path: s.Path, rank: math.MaxInt}
		for _, id := range s.IDs {
			m.strands[id] = t
		}
		return t
	}
	m.strands[id] = nil
	return nil
}

func (m *mover) viaThing(c *layout.Copper) *thing {
	if t, known := m.vias[c.ID]; known {
		return t
	}
	v := m.f.Doc.Vias[c.ID]
	var t *thing
	if v != nil && !v.Locked {
		t = &thing{via: c, at: v.At, rank: math.MaxInt}
	}
	m.vias[c.ID] = t
	return t
}

// clear makes the first thing move that is in the way of another, or that one go round what cannot; the rest is seen to once what moved
// is clear itself.
func (m *mover) clear(t *thing) *Obstacle {
	found := m.clashes(t)
	if len(found) == 0 {
		return nil
	}
	var others []*thing
	for o := range found {
		others = append(others, o)
	}
	o := slices.MinFunc(others, func(a, b *thing) int { return m.order(found[a], found[b]) })
	no := &found[o][0].obstacle
	if m.steps++; m.steps > mostSteps {
		return m.stuck(t, no)
	}
	m.stack = append(m.stack, t)
	if o == nil || o.rank < t.rank {
		if t.rank == 0 || found[o][0].other == nil {
			return no
		}
		if o == nil { // one of what cannot move after the other
			one := found[nil][0].other
			found[nil] = slices.DeleteFunc(found[nil], func(c clash) bool { return c.other != one })
		}
		return m.yield(t, o, found[o], true)
	}
	o.rank = min(o.rank, t.rank+1)
	m.stack = append(m.stack, o)
	return m.yield(o, t, found[o], false)
}

// order settles in which order clashes are seen to: along the thing. What is met first goes round its end most closely.
func (m *mover) order(a, b []clash) int {
	from := func(c clash) float64 { return c.obstacle.At.Dist(c.own.Shape.Pts[0]) }
	return cmp.Or(-cmp.Compare(a[0].own.Pad, b[0].own.Pad), cmp.Compare(from(a[0]), from(b[0])), cmp.Compare(a[0].obstacle.At.X, b[0].obstacle.At.X), cmp.Compare(a[0].obstacle.At.Y, b[0].obstacle.At.Y))
}

// yield makes a thing go round what it clashes with. own: the clashes are the thing's own, else those of what it gives way to.
func (m *mover) yield(t, to *thing, found []clash, own bool) *Obstacle {
	no := &found[0].obstacle
	if t.walks++; t.walks > mostWalks {
		return m.stuck(t, no)
	}
	grow := int64(0)
	var whole, close, rest []geom.Shape // of what it gives way to: the clashing pieces, what of them is near, and all between them, of the hand to its end
	for _, c := range found {
		mine, theirs := c.other, c.own
		if own {
			mine, theirs = c.own, c.other
		}
		g, list := m.room(mine, theirs)
		grow = max(grow, g)
		whole = append(whole, list...)
		for _, l := range list {
			close = append(close, nearby(l, mine, g))
		}
	}
	if t.via != nil {
		return m.shift(t, whole, grow, no)
	}
	if to != nil && to.via == nil {
		low, high := math.MaxInt, math.MinInt
		for _, c := range found {
			theirs := c.own
			if own {
				theirs = c.other
			}
			low, high = min(low, theirs.Pad), max(high, theirs.Pad)
		}
		for _, c := range to.copper {
			if c.Pad <= high && (c.Pad >= low || to.hand != nil) {
				rest = append(rest, c.Shape)
			}
		}
	}
	var best rated
	for _, shapes := range [][]geom.Shape{close, whole, rest} {
		left, right, through := around(grow, shapes...).walks(t.path)
		if !through {
			continue
		}
		for _, path := range [][]geom.Point{left, right} {
			if r := m.rate(t, to, path); best.path == nil || r.compare(best) < 0 {
				best = r
			}
		}
		if best.crosses == 0 && best.meets == 0 {
			break
		}
	}
	if best.path == nil {
		return m.stuck(t, no)
	}
	path := best.path
	m.put(t, path)
	return nil
}

// nearby is the stretch of a straight line's shape that comes near to a piece; other shapes are taken whole.
func nearby(s geom.Shape, mine *layout.Copper, grow int64) geom.Shape {
	if len(s.Pts) != 2 || s.Mids != nil || s.Area {
		return s
	}
	from, to, through := around(grow+s.R, mine.Shape).cut(s.Pts[0], s.Pts[1])
	if !through {
		return s
	}
	return geom.Shape{Pts: []geom.Point{s.Pts[0].Towards(s.Pts[1], from), s.Pts[0].Towards(s.Pts[1], to)}, R: s.R}
}

// room is how far the middle of a piece keeps from the shapes of another, beyond their outlines, and these.
func (m *mover) room(mine, theirs *layout.Copper) (grow int64, shapes []geom.Shape) {
	who := rules.Subject{Net: mine.Net, Thing: mine.Thing}
	if theirs.Bare || theirs.Net != mine.Net || mine.Net == 0 {
		for _, l := range theirs.Levels(mine.Layers) {
			need := m.f.need(who, theirs, theirs.Subject(), l.Layers, theirs.At)
			grow = max(grow, need+mine.On(bits.TrailingZeros32(l.Layers)).R)
			shapes = append(shapes, l.Shape)
		}
	}
	if mine.Hole > 0 && theirs.Hole > 0 {
		bore := theirs.Bore()
		need := m.f.Rules.Between(design.HoleClearance, who, theirs.Subject(), bits.TrailingZeros32(mine.Layers), theirs.At).Of(0)
		grow = max(grow, need+mine.Hole/2+bore.R-theirs.Shape.R)
		if len(shapes) == 0 {
			shapes = append(shapes, bore)
		}
	}
	return grow, shapes
}

func (m *mover) stuck(t *thing, o *Obstacle) *Obstacle {
	if t.strand != nil {
		o = &Obstacle{Name: "a track", Net: m.f.Doc.NetName(t.strand.Net), At: o.At, Measured: o.Measured, Required: o.Required}
	} else if t.via != nil {
		o = &Obstacle{Name: "a via", Net: m.f.Doc.NetName(t.via.Net), At: t.at, Measured: o.Measured, Required: o.Required}
	}
	return o
}

// rated is a path that a strand may take: how often it crosses what must not be crossed, how much of it meets what cannot move or what it
// gives way to, and how long it is. The less the better, in this order.
type rated struct {
	path           []geom.Point
	crosses, meets int
	long           int64
}

func (r rated) compare(o rated) int {
	return cmp.Or(cmp.Compare(r.crosses, o.crosses), cmp.Compare(r.meets, o.meets), cmp.Compare(r.long, o.long))
}

// rate a path of a strand that gives way to another thing.
func (m *mover) rate(t, to *thing, path []geom.Point) rated {
	r := rated{path: path, long: Length(path)}
	for _, lower := range m.things {
		if lower == t || lower != to && lower.hand == nil || lower.strand != nil && lower.strand.Layer != t.strand.Layer || lower.net() == t.strand.Net {
			continue
		}
		for _, l := range lower.lines() {
			r.crosses += crossings(path, l)
		}
		tail := lower.tail()
		r.crosses += max(0, crossings(path, tail)-crossings(t.strand.Path, tail))
	}
	for _, c := range t.strand.copper(path) {
		m.f.each(wishOf(c), func(other *layout.Copper, _ Obstacle) bool {
			if o := m.owner(other); o == nil || o == to {
				r.meets++
			}
			return true
		})
	}
	return r
}

// crossings is how often two lines cross.
func crossings(a, b []geom.Point) (n int) {
	for i := 0; i+1 < len(a); i++ {
		for j := 0; j+1 < len(b); j++ {
			if _, over := geom.Cross(a[i], a[i+1], b[j], b[j+1]); over {
				n++
			}
		}
	}
	return n
}

// put lays a strand along another path.
func (m *mover) put(t *thing, path []geom.Point) {
	if t.copper == nil {
		m.things = append(m.things, t)
		for _, id := range t.strand.IDs {
			m.f.Gone[id] = true
		}
	}
	m.lift(t)
	t.path = path
	t.copper = t.strand.copper(path)
	m.lay(t)
}

// shift moves a via out of the hull of shapes, to the nearest place of its edge where nothing is that cannot move, and takes its
// strands with it.
func (m *mover) shift(t *thing, shapes []geom.Shape, grow int64, no *Obstacle) *Obstacle {
	h := around(grow, shapes...)
	type place struct {
		at    geom.Point
		meets int
		far   float64
	}
	var list []place
	v := m.f.Doc.Vias[t.via.ID]
	try := func(p geom.Point) {
		r := place{at: p, far: p.Dist(t.at)}
		m.f.each(wishOf(movedVia(t.via, p)), func(other *layout.Copper, _ Obstacle) bool {
			if other == nil || m.owner(other) == nil || m.owner(other).rank < t.rank {
				r.meets++
			}
			return true
		})
		list = append(list, r)
	}
	for i, a := range h {
		b := h[(i+1)%len(h)]
		_, p, _ := geom.SegmentDistance(a, b, t.at, t.at)
		try(p)
		try(a)
	}
	best := slices.MinFunc(list, func(a, b place) int {
		return cmp.Or(cmp.Compare(a.meets, b.meets), cmp.Compare(a.far, b.far), cmp.Compare(a.at.X, b.at.X), cmp.Compare(a.at.Y, b.at.Y))
	})
	if best.meets > 0 || best.at.Dist(v.At) > farVia {
		return m.stuck(t, no)
	}
	return m.set(t, best.at, no)
}

// set puts a via to a place, and its strands follow.
func (m *mover) set(t *thing, at geom.Point, no *Obstacle) *Obstacle {
	if t.copper == nil {
		if o := m.hang(t, no); o != nil {
			return o
		}
		m.things = append(m.things, t)
	}
	m.f.Gone[t.via.ID] = true
	m.lift(t)
	t.at = at
	t.copper = []*layout.Copper{movedVia(t.via, at)}
	m.lay(t)
	for _, s := range t.hanging {
		for end, via := range s.strand.Vias {
			if via != t.via.ID {
				continue
			}
			path := s.path
			if end == 0 {
				path = reversed(path)
			}
			path = m.led(s, path, t.at)
			if end == 0 {
				path = reversed(path)
			}
			s.rank = min(s.rank, t.rank+1)
			m.put(s, path)
			m.stack = append(m.stack, s)
		}
	}
	return nil
}

// hang finds the strands that end at a via as it lies in the design. What else of its net touches it holds it: it would be parted.
func (m *mover) hang(t *thing, no *Obstacle) *Obstacle {
	for c := range m.base.near(t.via.Box()) {
		if c.ID == t.via.ID || c.Net != t.via.Net || !layout.Touching(c, t.via) {
			continue
		}
		var s *thing
		if c.Kind == "track" && !m.still[c.ID] {
			s = m.strandThing(c.ID)
		}
		if s == nil || s.strand.Vias[0] != t.via.ID && s.strand.Vias[1] != t.via.ID {
			return m.stuck(t, no)
		}
		if !slices.Contains(t.hanging, s) {
			t.hanging = append(t.hanging, s)
		}
	}
	slices.SortFunc(t.hanging, func(a, b *thing) int { return cmp.Compare(a.strand.IDs[0], b.strand.IDs[0]) })
	return nil
}

func movedVia(c *layout.Copper, at geom.Point) *layout.Copper {
	out := *c
	step := at.Sub(c.At)
	pose := geom.Pose{At: step}
	out.At, out.Drill, out.Shape = at, at, c.Shape.Moved(pose)
	out.Other = nil
	for _, l := range c.Other {
		out.Other = append(out.Other, layout.Level{Layers: l.Layers, Shape: l.Shape.Moved(pose)})
	}
	return &out
}

func reversed(path []geom.Point) []geom.Point {
	out := slices.Clone(path)
	slices.Reverse(out)
	return out
}

// led is a path whose end is moved to another place: its last piece keeps its direction if it can, else one with a corner takes its
// place.
func (m *mover) led(s *thing, path []geom.Point, to geom.Point) []geom.Point {
	var best []geom.Point
	score := func(p []geom.Point) (n int) {
		for _, c := range s.strand.copper(p) {
			m.f.each(wishOf(c), func(other *layout.Copper, _ Obstacle) bool {
				if other == nil || m.owner(other) == nil {
					n++
				}
				return true
			})
		}
		return n
	}
	least := math.MaxInt
	for _, p := range ledWays(path, to) {
		if n := score(p); n < least || n == least && Length(p) < Length(best) {
			best, least = p, n
		}
	}
	return best
}

// ledWays are paths with the end moved.
func ledWays(path []geom.Point, to geom.Point) (out [][]geom.Point) {
	n := len(path)
	end := path[n-1]
	step := to.Sub(end)
	if n >= 3 {
		u := end.Sub(path[n-2])
		if p, ok := meet(path[n-3], path[n-2].Sub(path[n-3]), path[n-2].Add(step), u); ok && along(p.Sub(path[n-3]), path[n-2].Sub(path[n-3])) && along(to.Sub(p), u) {
			out = append(out, plain(append(slices.Clone(path[:n-2]), p, to)))
		}
	}
	for k := max(0, n-3); k <= n-2; k++ {
		for _, style := range []Corner{StraightFirst, DiagonalFirst} {
			out = append(out, plain(append(slices.Clone(path[:k]), Path(path[k], to, style)...)))
		}
	}
	return append(out, plain(append(slices.Clone(path), Path(end, to, StraightFirst)[1:]...)))
}

// settle takes needless corners out of what moved.
func (m *mover) settle() {
	for _, t := range m.things {
		if t.strand == nil || len(t.path) > 400 {
			continue
		}
		m.lift(t)
		f := m.f
		l := lane{f, t.strand.Width, t.strand.Layer, t.strand.Net}
		path := l.calmed(t.path, t.strand.Path)
		t.path, t.copper = path, t.strand.copper(path)
		m.lay(t)
	}
}

// calmed is a path with shortcuts taken among corners that were not there before.
func (l lane) calmed(path, before []geom.Point) []geom.Point {
	old := map[geom.Point]bool{}
	for _, p := range before {
		old[p] = true
	}
	for i := 0; i+2 < len(path); i++ {
		for j := min(i+reachOf, len(path)-1); j >= i+2; j-- {
			if slices.ContainsFunc(path[i:j+1], func(p geom.Point) bool { return old[p] }) {
				continue
			}
			was := Length(path[i : j+1])
			if best := l.between(path, i, j, was); best != nil && Length(best) < was-100 {
				path = plain(append(append(slices.Clone(path[:i]), best...), path[j+1:]...))
				i = max(i-2, -1)
				break
			}
		}
	}
	return path
}

// result holds everything that moved against the rules once more.
func (m *mover) result(before Field) (*Aside, *Obstacle) {
	out := &Aside{}
	for _, t := range m.things {
		for _, list := range m.clashes(t) {
			return nil, &list[0].obstacle
		}
		if o := m.joins(t, before); o != nil {
			return nil, o
		}
		switch {
		case t.strand != nil:
			if !slices.Equal(t.path, t.strand.Path) {
				out.Strands = append(out.Strands, Moved{t.strand, t.path})
				out.copper = append(out.copper, t.copper...)
			}
		case t.via != nil && t.at != m.f.Doc.Vias[t.via.ID].At:
			out.Vias = append(out.Vias, MovedVia{t.via.ID, m.f.Doc.Vias[t.via.ID].At, t.at})
			out.copper = append(out.copper, t.copper...)
		}
	}
	return out, nil
}

// joins tells whether a thing touches copper of its net where it lies now that it did not touch before: that would join what was apart.
func (m *mover) joins(t *thing, before Field) *Obstacle {
	var old []*layout.Copper
	switch {
	case t.strand != nil:
		old = t.strand.copper(t.strand.Path)
	case t.via != nil:
		old = []*layout.Copper{t.via}
	default:
		return nil
	}
	// what belongs together is known by the thing, else by the piece
	type mark struct {
		thing *thing
		ref   layout.Ref
	}
	of := func(c *layout.Copper) mark {
		o := m.of[c]
		if o == nil {
			o = m.strands[c.ID]
		}
		if o == nil {
			o = m.vias[c.ID]
		}
		if o != nil {
			return mark{thing: o}
		}
		return mark{ref: c.Ref()}
	}
	known := map[mark]bool{{thing: t}: true}
	touching := func(f Field, list []*layout.Copper, yield func(*layout.Copper) bool) {
		for _, own := range list {
			for c := range f.near(own.Box()) {
				if c.Net == own.Net && layout.Touching(own, c) && !yield(c) {
					return
				}
			}
		}
	}
	touching(before, old, func(c *layout.Copper) bool {
		known[of(c)] = true
		return true
	})
	var no *Obstacle
	touching(m.f, t.copper, func(c *layout.Copper) bool {
		if !known[of(c)] {
			no = &Obstacle{Name: c.Name, Net: m.f.Doc.NetName(c.Net), At: c.At}
		}
		return no == nil
	})
	return no
}
