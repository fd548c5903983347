package route

import (
	"fmt"
	"iter"
	"maps"
	"math/bits"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// Obstacle is what a track would come too near to.
type Obstacle struct {
	Name     string     `json:"name"`
	Net      string     `json:"net"`
	At       geom.Point `json:"at"`
	Measured int64      `json:"measured"`
	Required int64      `json:"required"`
}

func (o *Obstacle) Error() string {
	what := o.Name
	if o.Net != "" {
		what += " of " + o.Net
	}
	if o.Measured <= 0 {
		return fmt.Sprintf("this would touch %s", what)
	}
	return fmt.Sprintf("this would come within %s of %s; the rules ask for %s", units.Text(o.Measured), what, units.Text(o.Required))
}

// Field is what a track has to respect.
type Field struct {
	Doc   *design.Doc
	Index *layout.Index
	Rules *rules.Set
	// Laid is copper that the act at work has laid already; the index does not have it yet.
	Laid []*layout.Copper
	// Gone are objects that the act at work has taken away or will lay anew; the index has them still.
	Gone map[design.ID]bool
	// boxes of what is laid, when somebody keeps them
	boxes []geom.Box
}

// Boxed is the field with the boxes of what is laid kept, for many questions; Lay lays more into it.
func (f Field) Boxed() Field {
	laid := f.Laid
	f.Laid, f.boxes = nil, nil
	f.Lay(laid...)
	return f
}

// Lay lays copper, which the index does not have yet.
func (f *Field) Lay(laid ...*layout.Copper) {
	for _, c := range laid {
		f.Laid, f.boxes = append(f.Laid, c), append(f.boxes, c.Box())
	}
}

// boxOf is the box of the i-th piece that is laid.
func (f *Field) boxOf(i int) geom.Box {
	if len(f.boxes) == len(f.Laid) {
		return f.boxes[i]
	}
	return f.Laid[i].Box()
}

// With is the field as it is once objects are gone and copper is laid. The field itself stays as it is.
func (f Field) With(gone []design.ID, laid ...*layout.Copper) Field {
	out := f
	if len(gone) > 0 {
		out.Gone = make(map[design.ID]bool, len(f.Gone)+len(gone))
		maps.Copy(out.Gone, f.Gone)
		for _, id := range gone {
			out.Gone[id] = true
		}
	}
	out.Laid, out.boxes = append(slices.Clip(f.Laid), laid...), nil
	return out
}

// near gives the copper whose box meets the box, laid by now or before.
func (f Field) near(b geom.Box) iter.Seq[*layout.Copper] {
	return func(yield func(*layout.Copper) bool) {
		for i, c := range f.Laid {
			if f.boxOf(i).Meets(b) && !yield(c) {
				return
			}
		}
		for c := range f.Index.Near(b) {
			if !f.Gone[c.ID] && !yield(c) {
				return
			}
		}
	}
}

// Near gives the copper whose box meets the box.
func (f Field) Near(b geom.Box) iter.Seq[*layout.Copper] { return f.near(b) }

// around gives the copper that rules may keep apart from a wish.
func (f Field) around(w Wish) iter.Seq[*layout.Copper] {
	reach := f.Rules.Reach(w.Layers)
	if len(w.Shape.Pts) != 2 || w.Shape.Mids != nil || w.Shape.Area || w.Other != nil {
		return f.near(w.Box().Grow(reach))
	}
	return func(yield func(*layout.Copper) bool) {
		box := w.Shape.Box().Grow(reach)
		for i, c := range f.Laid {
			if f.boxOf(i).Meets(box) && !yield(c) {
				return
			}
		}
		for c := range f.Index.NearLine(w.Shape.Pts[0], w.Shape.Pts[1], w.Shape.R+reach) {
			if !f.Gone[c.ID] && !yield(c) {
				return
			}
		}
	}
}

// PlatedAt tells whether a plated hole of the net that joins the layers of the mask stands at
// the place, so that a hop there needs no via.
func (f Field) PlatedAt(at geom.Point, net design.ID, layers uint32) bool {
	for c := range f.near(geom.BoxOf(at)) {
		if c.Hole > 0 && !c.Bare && c.Net == net && c.Layers&layers == layers && c.Shape.Holds(at) {
			return true
		}
	}
	return false
}

// OnPad tells whether a piece would lie on a pad of a part, of its own net too.
func (f Field) OnPad(c *layout.Copper) bool {
	for o := range f.near(c.Box()) {
		if o.Kind == "pad" {
			if gap, _, _, layer := layout.Gap(c, o); layer >= 0 && gap <= 0 {
				return true
			}
		}
	}
	return false
}

// Wish is what somebody wants to lay: copper of a net on the layers of a mask, and, for a via, its hole.
type Wish struct {
	Shape  geom.Shape
	Layers uint32
	Net    design.ID
	Thing  design.Thing
	Hole   int64          // in the middle of the shape; 0: none
	Other  []layout.Level // layers on which the shape is another
}

// Box around the wish on all its layers.
func (w Wish) Box() geom.Box { return (&layout.Copper{Shape: w.Shape, Other: w.Other}).Box() }

// levels are the shapes that a piece has on layers of a mask, all of which it is on.
func levels(shape geom.Shape, other []layout.Level, layers uint32) iter.Seq[layout.Level] {
	return func(yield func(layout.Level) bool) {
		for _, l := range other {
			if on := l.Layers & layers; on != 0 {
				if !yield(layout.Level{Layers: on, Shape: l.Shape}) {
					return
				}
				layers &^= on
			}
		}
		if layers != 0 {
			yield(layout.Level{Layers: layers, Shape: shape})
		}
	}
}

// ClearOf tells whether a piece may lie where it is, as Clear.
func (f Field) ClearOf(c *layout.Copper) *Obstacle {
	return f.Clear(Wish{Shape: c.Shape, Layers: c.Layers, Net: c.Net, Thing: c.Thing, Hole: c.Hole, Other: c.Other})
}

// Clear tells whether a wish may be; nil when it may, else the obstacle it comes nearest to in
// proportion to what is required.
func (f Field) Clear(w Wish) *Obstacle {
	var worst *Obstacle
	f.each(w, func(_ *layout.Copper, o Obstacle) bool {
		if worst == nil || o.Measured-o.Required < worst.Measured-worst.Required {
			worst = &o
		}
		return true
	})
	return worst
}

// Free tells whether a wish may be, as Clear; it looks no further than the first obstacle.
func (f Field) Free(w Wish) bool {
	free := true
	f.each(w, func(*layout.Copper, Obstacle) bool {
		free = false
		return false
	})
	return free
}

// each gives the obstacles of a wish with the copper they are of; nil: an area or the edge.
func (f Field) each(w Wish, yield func(*layout.Copper, Obstacle) bool) {
	who := rules.Subject{Net: w.Net, Thing: w.Thing}
	lowest := bits.TrailingZeros32(w.Layers)
	reach, byPlace := float64(f.Rules.Reach(w.Layers)), f.Rules.ByPlace(design.Clearance)
	for c := range f.around(w) {
		other := c.Subject()
		if w.Hole > 0 && c.Hole > 0 && w.Layers&c.Layers != 0 && !layout.Stacked(w.Layers, c.Layers, w.Shape.Pts[0], c.Drill) {
			gap, p, _ := geom.Gap(geom.Disc(w.Shape.Pts[0], w.Hole/2), c.Bore())
			if need := f.Rules.Between(design.HoleClearance, who, other, lowest, p).Of(0); geom.Short(gap, need) &&
				!yield(c, Obstacle{"the hole of " + c.Name, f.Doc.NetName(c.Net), p, geom.Measured(gap), need}) {
				return
			}
		}
		if !c.Bare && (c.Net == w.Net && w.Net != 0 || c.Layers&w.Layers == 0) {
			continue
		}
		said := false // that its copper is in the way, which says it all
		met := func(layers uint32, gap float64, q, p geom.Point) bool {
			if gap > reach {
				return true // no rule asks for so much
			}
			need := f.need(who, c, other, layers, q.Towards(p, 0.5))
			if !geom.Short(gap, need) {
				return true
			}
			said = true
			return yield(c, Obstacle{c.Name, f.Doc.NetName(c.Net), p, geom.Measured(gap), need})
		}
		if w.Other == nil && c.Other == nil && !byPlace { // as nearly always
			if gap, q, p := geom.Gap(w.Shape, c.Shape); !met(w.Layers&c.Layers, gap, q, p) || !said && !f.walls(who, w, c, other, yield) {
				return
			}
			continue
		}
		for own := range levels(w.Shape, w.Other, w.Layers&c.Layers) {
			for level := range levels(c.Shape, c.Other, own.Layers) {
				if !f.Rules.Nearest(design.Clearance, own.Shape, level.Shape, func(gap float64, q,
					p geom.Point) bool {
					return met(level.Layers, gap, q, p)
				}) {
					return
				}
			}
		}
		if !said && !f.walls(who, w, c, other, yield) {
			return
		}
	}
	for i := range f.Index.KeepOuts() {
		k := &f.Index.KeepOuts()[i]
		if at, bars := k.Bars(w.Thing, w.Layers, w.Shape); bars &&
			!yield(nil, Obstacle{Name: "the area " + k.Name, At: at, Measured: -w.Shape.R, Required: 0}) {
			return
		}
	}
	need := f.asked(design.EdgeClearance, w.Layers, func(layer int) *rules.Ruling {
		return f.Rules.For(design.EdgeClearance, who,
			layer, w.Shape.Pts[0])
	})
	if gap, at, near := f.Index.Edge().Gap(w.Shape, need); near && geom.Short(float64(geom.Measured(gap)), need) {
		yield(nil, Obstacle{"the board's edge", "", at, geom.Measured(gap), need})
	}
}

// walls gives the obstacles that a wish and copper of another net are to each other by their holes: copper keeps away from the walls of plated
// holes. It tells whether to go on.
func (f Field) walls(who rules.Subject, w Wish, c *layout.Copper, other rules.Subject, yield func(*layout.Copper, Obstacle) bool) bool {
	most := f.Rules.Greatest(design.HoleCopper)
	if most <= 0 || c.Bare || c.Hole == 0 && w.Hole == 0 {
		return true
	}
	near := func(bore geom.Shape, list iter.Seq[layout.Level], name string) bool {
		for level := range list {
			gap, p, q := geom.Gap(bore, level.Shape)
			for layers := level.Layers; layers != 0; layers &= layers - 1 {
				need := f.Rules.Between(design.HoleCopper, who, other, bits.TrailingZeros32(layers), p.Towards(q, 0.5)).Of(0)
				if geom.Short(gap, need) && !yield(c, Obstacle{name, f.Doc.NetName(c.Net), p, geom.Measured(gap), need}) {
					return false
				}
			}
		}
		return true
	}
	if c.Hole > 0 && c.Bore().Box().Grow(most).Meets(w.Box()) && !near(c.Bore(), levels(w.Shape, w.Other, w.Layers&c.Layers),
		"the hole of "+c.Name) {
		return false
	}
	return w.Hole == 0 || !geom.BoxOf(w.Shape.Pts[0]).Grow(w.Hole/2+most).Meets(c.Box()) ||
		near(geom.Disc(w.Shape.Pts[0], w.Hole/2), levels(c.Shape, c.Other, w.Layers&c.Layers), c.Name)
}

// need is the clearance that is asked for to a piece on the layers of a mask.
func (f Field) need(who rules.Subject, c *layout.Copper, other rules.Subject, layers uint32, at geom.Point) int64 {
	if c.Bare {
		return f.asked(design.EdgeClearance, layers, func(layer int) *rules.Ruling {
			return f.Rules.For(design.EdgeClearance, who,
				layer, at)
		})
	}
	return f.asked(design.Clearance, layers, func(layer int) *rules.Ruling {
		return f.Rules.Between(design.Clearance, who, other,
			layer, at)
	})
}

// asked is the most that is asked for on the layers of a mask.
func (f Field) asked(k design.RuleKind, layers uint32, on func(layer int) *rules.Ruling) (most int64) {
	if !f.Rules.Layered(k) {
		return on(bits.TrailingZeros32(layers)).Of(0)
	}
	for ; layers != 0; layers &= layers - 1 {
		most = max(most, on(bits.TrailingZeros32(layers)).Of(0))
	}
	return most
}

// Usual is the width, or the size, that a kind of rule gives to what is new.
func (f Field) Usual(k design.RuleKind, w Wish) int64 {
	return f.Rules.For(k, rules.Subject{Net: w.Net, Thing: w.Thing}, bits.TrailingZeros32(w.Layers), w.Shape.Pts[0]).Of(0)
}
