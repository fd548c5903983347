package design

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/units"
)

// BarrelID names a barrel within its board; none is 0, and none is given twice.
type BarrelID int32

// Barrel is a plated hole from one copper layer to another that the board house can make. Vias are made of them.
type Barrel struct {
	ID       BarrelID `json:"id"`
	Name     string   `json:"name"`
	Kind     string   `json:"kind,omitempty"`     // Drilled or Lasered
	From     LayerID  `json:"from"`               // the upper one
	To       LayerID  `json:"to"`                 //
	Hole     int64    `json:"hole,omitempty"`     // 0: as the rules say
	Diameter int64    `json:"diameter,omitempty"` // of the copper around it; 0: as the rules say
	Cover    string   `json:"cover,omitempty"`    // Tented, Open or Filled
}

// HoleLimits are what a house can make of one kind of hole; 0: it says nothing.
type HoleLimits struct {
	LeastHole int64 `json:"leastHole,omitempty"`
	LeastRing int64 `json:"leastRing,omitempty"`
	Aspect    int32 `json:"aspect,omitempty"` // greatest depth to diameter, in hundredths
}

// Holes is which holes the board's house makes, and how a change of layer is made of them.
type Holes struct {
	Drilled HoleLimits `json:"drilled,omitzero"`
	Lasered HoleLimits `json:"lasered,omitzero"`
	Stacked int        `json:"stacked,omitempty"` // so many lasered holes may stand on each other; 0 and 1: none on another
	Barrels []Barrel   `json:"barrels,omitempty"` // none: a drilled one through all layers
	Ways    []Way      `json:"ways,omitempty"`    // of pairs of layers for which somebody said which is best
	Next    BarrelID   `json:"next,omitempty"`    // the id of the next barrel that is made
}

// Most barrels of a board, ways between its layers, and steps of one.
const (
	MostBarrels = 100
	MostWays    = 2000
	MostSteps   = 8
)

// Way is how to get from one copper layer to another: hole after hole, from the upper layer down. Those of one pair of layers stand
// in their order, the best first.
type Way struct {
	From  LayerID `json:"from"` // the upper one
	To    LayerID `json:"to"`
	Steps []Step  `json:"steps"`
}

// Step is one hole of a way.
type Step struct {
	Barrel  BarrelID `json:"barrel"`
	Stepped bool     `json:"stepped,omitempty"` // it stands beside the one before, joined by a track; else on it
	Apart   int64    `json:"apart,omitempty"`   // middle to middle of a stepped one; 0: as near as the rules let it
}

// Limits of a kind of hole.
func (h *Holes) Limits(kind string) HoleLimits {
	if kind == Lasered {
		return h.Lasered
	}
	return h.Drilled
}

// Barrels are those that vias of the board can be made of: where nobody said, a drilled one through all layers, of the id 0.
func (b *Board) Barrels() []Barrel {
	if len(b.Holes.Barrels) > 0 || b.Layers() < 2 {
		return b.Holes.Barrels
	}
	return []Barrel{{Name: "Through", From: b.Top(), To: b.Bottom()}}
}

// Through is the drilled barrel through all layers, of those that somebody said; nil: there is none.
func (b *Board) Through() *Barrel {
	for i := range b.Holes.Barrels {
		if l := &b.Holes.Barrels[i]; l.Kind == Drilled && l.From == b.Top() && l.To == b.Bottom() {
			return l
		}
	}
	return nil
}

// Barrel with the id, or nil.
func (b *Board) Barrel(id BarrelID) *Barrel {
	list := b.Barrels()
	for i := range list {
		if list[i].ID == id {
			return &list[i]
		}
	}
	return nil
}

// Depth of a hole between two copper layers, in nanometres: a drilled one goes through both and all between, a lasered one ends on the
// second.
func (b *Board) Depth(kind string, from, to LayerID) (sum int64) {
	within := false
	for i := range b.Stack {
		l := &b.Stack[i]
		if l.ID == from || l.ID == to {
			if within {
				if kind != Lasered {
					sum += l.Thickness
				}
				return sum
			}
			within = true
		}
		if within {
			sum += l.Thickness
		}
	}
	return sum
}

// passes tells whether a barrel passes the copper layers at two positions, the first above.
func (b *Board) passes(l *Barrel, from, to int) bool {
	return b.Position(l.From) <= from && b.Position(l.To) >= to
}

// WaysOf lists the ways between two copper layers, the best first, and tells whether somebody put them into that order; else they are
// all there are of up to four holes: single ones first, those of the least depth before others, then chains, stepped before stacked.
func (b *Board) WaysOf(from, to LayerID) (ways []Way, said bool) {
	p, q := b.Position(from), b.Position(to)
	if p > q {
		from, to, p, q = to, from, q, p
	}
	if p < 0 || p == q {
		return nil, false
	}
	for _, w := range b.Holes.Ways {
		if w.From == from && w.To == to {
			ways = append(ways, w)
		}
	}
	if len(ways) > 0 {
		return ways, true
	}
	return b.found(from, to, p, q), false
}

// Of ways that nobody said: how many holes one has at most, how many there are, and how many beginnings of chains are looked at for them.
const (
	mostChained = 4
	mostFound   = 24
	mostBegun   = 5_000
)

// found lists all ways from barrels, without any order of a person's.
func (b *Board) found(from, to LayerID, p, q int) (ways []Way) {
	list := b.Barrels()
	for i := range list {
		if l := &list[i]; b.passes(l, p, q) {
			ways = append(ways, Way{from, to, []Step{{Barrel: l.ID}}})
		}
	}
	begun := 0
	var chains func(before, at int, steps []Step)
	chains = func(before, at int, steps []Step) {
		if len(steps) == mostChained {
			return
		}
		for i := range list {
			l := &list[i]
			up, low := b.Position(l.From), b.Position(l.To)
			if up > at || low <= at || up <= before || len(steps) == 0 && low >= q {
				continue // it would do without the one before
			}
			// a hole that begins above the layer it is met on can only stand beside the one before
			for _, stepped := range []bool{true, false} {
				if len(steps) == 0 && !stepped || !stepped && len(steps) > 0 && up != at {
					continue
				}
				if begun++; begun > mostBegun {
					return
				}
				more := append(slices.Clone(steps), Step{Barrel: l.ID, Stepped: len(steps) > 0 && stepped})
				if low < q {
					chains(at, low, more)
				} else if len(more) > 1 {
					ways = append(ways, Way{from, to, more})
				}
			}
		}
	}
	chains(-1, p, nil)
	ways = slices.DeleteFunc(ways, func(w Way) bool { return b.Cannot(w) != nil })
	slices.SortStableFunc(ways, func(x, y Way) int {
		return cmp.Or(cmp.Compare(len(x.Steps), len(y.Steps)), cmp.Compare(b.depthOf(x), b.depthOf(y)), cmp.Compare(x.stacks(), y.stacks()))
	})
	return ways[:min(len(ways), mostFound)]
}

// depthOf is how deep all holes of a way are together.
func (b *Board) depthOf(w Way) (sum int64) {
	for _, s := range w.Steps {
		if l := b.Barrel(s.Barrel); l != nil {
			sum += b.Depth(l.Kind, l.From, l.To)
		}
	}
	return sum
}

// stacks is how many holes of a way stand on another.
func (w Way) stacks() (n int) {
	for i, s := range w.Steps {
		if i > 0 && !s.Stepped {
			n++
		}
	}
	return n
}

// Cannot says why a way cannot be made; nil: it can.
func (b *Board) Cannot(w Way) error {
	p, q := b.Position(w.From), b.Position(w.To)
	if p < 0 || q <= p {
		return fmt.Errorf("a way leads from a copper layer to one below it")
	}
	if len(w.Steps) == 0 || len(w.Steps) > MostSteps {
		return fmt.Errorf("a way has 1 to %d holes, not %d", MostSteps, len(w.Steps))
	}
	at, stacked := p, 0
	var last *Barrel
	for i, s := range w.Steps {
		l := b.Barrel(s.Barrel)
		if l == nil {
			return fmt.Errorf("a way has a hole that the board's house does not make (id %d)", s.Barrel)
		}
		up, low := b.Position(l.From), b.Position(l.To)
		switch {
		case s.Apart < 0 || s.Apart > 10*units.MM:
			return fmt.Errorf("holes of a way are up to 10 mm apart, not %s", units.Text(s.Apart))
		case i == 0 && (s.Stepped || s.Apart != 0) || !s.Stepped && s.Apart != 0:
			return fmt.Errorf("only a hole beside another is apart from it")
		case up > at || low <= at || i+1 < len(w.Steps) && low >= q:
			return fmt.Errorf("%s does not lead on from %s", l.Name, b.Layer(b.At(at)).Name)
		case i > 0 && !s.Stepped && (up != at || b.Position(last.To) != at):
			return fmt.Errorf("%s cannot stand on %s: both go through the same layers", l.Name, last.Name)
		}
		if i > 0 && !s.Stepped {
			if l.Kind != Lasered && last.Kind != Lasered {
				return fmt.Errorf("%s cannot stand on %s: drilled holes are not stacked", l.Name, last.Name)
			}
			stacked++
		} else {
			stacked = 1
		}
		if most := max(b.Holes.Stacked, 1); stacked > most {
			return fmt.Errorf("%d holes would stand on each other; the house stacks %s", stacked, atMost(most))
		}
		last = l
		if at = low; i+1 == len(w.Steps) {
			at = min(low, q)
		}
	}
	if at != q {
		return fmt.Errorf("the way does not reach %s", b.Layer(w.To).Name)
	}
	return nil
}

func atMost(n int) string {
	if n == 1 {
		return "none on another"
	}
	return fmt.Sprintf("%d at most", n)
}

// Unmakeable says in sentences which barrels no house can make: too deep for their hole, or drilled when the layers they lead through
// are not pressed together by themselves.
func (b *Board) Unmakeable() (out []string) {
	list := b.Holes.Barrels
	for i := range list {
		l := &list[i]
		lim := b.Holes.Limits(l.Kind)
		depth := b.Depth(l.Kind, l.From, l.To)
		if l.Hole > 0 && lim.LeastHole > l.Hole {
			out = append(out, fmt.Sprintf("%s has a hole of %s, and %s is the least", l.Name, units.Text(l.Hole), units.Text(lim.LeastHole)))
		}
		if l.Hole > 0 && l.Diameter > 0 && lim.LeastRing > (l.Diameter-l.Hole)/2 {
			out = append(out, fmt.Sprintf("%s has a ring of %s, and %s is the least", l.Name, units.Text((l.Diameter-l.Hole)/2),
				units.Text(lim.LeastRing)))
		}
		if l.Hole > 0 && TooDeep(depth, l.Hole, lim) {
			out = append(out, fmt.Sprintf("%s is %s deep, which is %.2f times its hole; %.2f is the most", l.Name, units.Text(depth),
				float64(depth)/float64(l.Hole), float64(lim.Aspect)/100))
		}
		for j := range list[:i] {
			if m := &list[j]; b.crossing(l, m) {
				out = append(out, fmt.Sprintf("%s and %s cross: no order of pressing lets both be made", m.Name, l.Name))
			}
		}
	}
	return out
}

// TooDeep tells whether a hole is too deep for its diameter.
func TooDeep(depth, hole int64, lim HoleLimits) bool {
	return lim.Aspect > 0 && depth*100 > int64(lim.Aspect)*hole
}

// crossing tells whether two barrels cannot both be made: neither lies within the other, and they share a layer between two of the
// layers of each. Drilled ones need the layers they lead through pressed by themselves, so that they may not share one at all; a
// lasered one may end on the outer layer of what was pressed before.
func (b *Board) crossing(x, y *Barrel) bool {
	a, c := b.Position(x.From), b.Position(x.To)
	d, e := b.Position(y.From), b.Position(y.To)
	if a > d {
		a, c, d, e = d, e, a, c
	}
	if a == d || e <= c || d > c {
		return false // one within the other, or apart
	}
	return d < c || x.Kind != Lasered && y.Kind != Lasered
}

// validHoles checks what is said of holes; the board's stack has been.
func (b *Board) validHoles() error {
	h := &b.Holes
	for kind, l := range map[string]HoleLimits{"drilled": h.Drilled, "lasered": h.Lasered} {
		if err := firstOf(length("the least hole that is "+kind, l.LeastHole, 0), length("the least ring of what is "+kind, l.LeastRing, 0),
			check(l.Aspect >= 0 && l.Aspect <= 10_000, "a depth of %g times the diameter is not meant; 0 to 100 are",
				float64(l.Aspect)/100)); err != nil {
			return err
		}
	}
	if err := firstOf(most("the list of barrels", len(h.Barrels), MostBarrels), most("the list of ways between layers", len(h.Ways), MostWays),
		check(h.Stacked >= 0 && h.Stacked <= MostLayers, "%d holes on each other are not meant; 0 to %d are", h.Stacked,
			MostLayers)); err != nil {
		return err
	}
	seen := map[BarrelID]bool{}
	for _, l := range h.Barrels {
		if err := firstOf(name("barrel's name", l.Name), oneOf("a kind of via", l.Kind, []string{Drilled, Lasered}),
			oneOf("a cover of a via", l.Cover, []string{Tented, Open, Filled}), length("the hole of "+l.Name, l.Hole, 0),
			length("the diameter of "+l.Name, l.Diameter, 0),
			check(l.Hole == 0 || l.Diameter == 0 || l.Hole < l.Diameter, "the hole of %s, %s, is not smaller than its diameter, %s", l.Name,
				units.Text(l.Hole), units.Text(l.Diameter)),
			check(l.ID > 0 && l.ID < h.Next, "the barrel %s has the id %d; ids lie between 1 and %d", l.Name, l.ID, h.Next-1),
			check(!seen[l.ID], "two barrels have the id %d", l.ID),
			check(b.Position(l.From) >= 0 && b.Position(l.To) >= 0, "the hole %s begins or ends on a copper layer that is not there", l.Name),
			check(b.Position(l.To) > b.Position(l.From), "the hole %s leads from a copper layer to one below it", l.Name)); err != nil {
			return err
		}
		seen[l.ID] = true
	}
	for _, w := range h.Ways {
		if err := b.Cannot(w); err != nil {
			return err
		}
	}
	return nil
}

// Same tells whether two ways have the same holes, standing alike.
func (w Way) Same(other Way) bool {
	return slices.EqualFunc(w.Steps, other.Steps, func(a, b Step) bool { return a.Barrel == b.Barrel && a.Stepped == b.Stepped })
}

// Stepped tells whether holes of the way stand beside each other, so that it ends elsewhere than it begins.
func (w Way) Stepped() bool {
	return slices.ContainsFunc(w.Steps, func(s Step) bool { return s.Stepped })
}
