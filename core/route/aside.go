package route

import (
	"cmp"
	"math"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
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
	m.f, m.base = m.f.Boxed(), f
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
	m.f.Lay(t.copper...)
}

// lift takes it out.
func (m *mover) lift(t *thing) {
	n := 0
	for i, c := range m.f.Laid {
		if m.of[c] != t {
			m.f.Laid[n], m.f.boxes[n] = c, m.f.boxes[i]
			n++
		}
	}
	m.f.Laid, m.f.boxes = m.f.Laid[:n], m.f.boxes[:n]
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
