package check

import (
	"math"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// Asked is the answer to "why?": what a rule asks for of something, the rule and those that it beat.
type Asked struct {
	Kind     design.RuleKind `json:"kind"`
	Of       string          `json:"of,omitempty"` // of which thing, when it is not all that was picked
	Value    string          `json:"value"`
	Measured string          `json:"measured,omitempty"`
	Rule     design.ID       `json:"rule"`
	Says     string          `json:"says"` // the rule, as a sentence
	Beaten   []string        `json:"beaten,omitempty"`
}

// Joined is asked about where a copper area joins something otherwise than by spokes; it is no kind of rule.
const Joined design.RuleKind = "joined"

// Why tells which rules hold for one thing on the board, or between two, where they come nearest. Alike
// pads of a part are told once.
func Why(d *design.Doc, x *layout.Index, set *rules.Set, ids []design.ID) []Asked {
	w := &why{d: d, seen: map[told]bool{}}
	if len(ids) == 2 {
		if p, q := d.Placed[ids[0]], d.Placed[ids[1]]; p != nil && q != nil {
			if a, ok := layout.Spaced(d, set, p, q); ok {
				w.add(design.Spacing, a.Rule, 0, p.Designator+" and "+q.Designator, units.Text(max(geom.Measured(a.Gap), 0)))
			}
		}
		switch p, q := d.Pours[ids[0]], d.Pours[ids[1]]; {
		case p != nil:
			w.pourAnd(x, set, p, ids[1])
		case q != nil:
			w.pourAnd(x, set, q, ids[0])
		default:
			w.between(x, set, ids[0], ids[1])
		}
		return w.out
	}
	for _, id := range ids {
		if p := d.Placed[id]; p != nil {
			w.add(design.Spacing, set.Between(design.Spacing, rules.Subject{Thing: design.APart, Part: id}, rules.Subject{Thing: design.APart}, 0, p.At), 0, p.Designator, "")
		}
		if p := d.Pours[id]; p != nil {
			w.pour(set, p)
		}
		for _, c := range x.Of(id) {
			w.single(set, c)
		}
	}
	return w.out
}

type why struct {
	d    *design.Doc
	out  []Asked
	seen map[told]bool
}

// told is what makes one answer like another.
type told struct {
	kind            design.RuleKind
	value, measured string
	rule            design.ID
}

// add tells a ruling for a thing of a size; several of one kind that differ say of which.
func (w *why) add(k design.RuleKind, r *rules.Ruling, size int64, of, measured string) {
	if r.Rule == nil {
		return
	}
	key := told{k, units.Text(r.Of(size)), measured, r.Rule.ID}
	if w.seen[key] {
		return
	}
	w.seen[key] = true
	a := Asked{Kind: k, Of: of, Value: key.value, Measured: measured, Rule: r.Rule.ID, Says: rules.Sentence(w.d, r.Rule)}
	for _, b := range r.Beaten {
		a.Beaten = append(a.Beaten, rules.Sentence(w.d, b))
	}
	w.out = append(w.out, a)
}

// single tells what holds for a piece by itself.
func (w *why) single(set *rules.Set, c *layout.Copper) {
	who, layer := c.Subject(), bits.TrailingZeros32(c.Layers)
	one := func(k design.RuleKind, size int64, measured string) {
		w.add(k, set.For(k, who, layer, c.At), size, c.Name, measured)
	}
	if !c.Bare {
		w.add(design.Clearance, set.Between(design.Clearance, who, rules.Subject{}, layer, c.At), 0, c.Name, "")
	}
	one(design.EdgeClearance, 0, "")
	if c.Kind == "track" || c.Kind == "figure" && !c.Shape.Area {
		one(design.LeastWidth, 0, units.Text(2*c.Shape.R))
	}
	if c.Hole > 0 {
		w.add(design.HoleClearance, set.Between(design.HoleClearance, who, rules.Subject{}, layer, c.Drill), 0, c.Name, "")
		one(design.LeastHole, 0, units.Text(c.Hole))
		if !c.Bare {
			one(design.LeastRing, c.Hole, units.Text(geom.Measured(layout.Ring(c, c.Shape))))
		}
	}
	if c.Pad >= 0 {
		one(design.WithinPart, 0, "")
		f := w.d.Footprint(w.d.Placed[c.ID].Footprint)
		size := min(f.Pads[c.Pad].Size.X, f.Pads[c.Pad].Size.Y)
		one(design.MaskMargin, size, "")
		if c.Hole == 0 {
			one(design.PasteMargin, size, "")
		}
	}
}

// between tells what holds between two things where they come nearest.
func (w *why) between(x *layout.Index, set *rules.Set, one, other design.ID) {
	best := math.Inf(1)
	var a, b *layout.Copper
	var at geom.Point
	var on int
	for _, p := range x.Of(one) {
		for _, q := range x.Of(other) {
			if gap, from, to, layer := layout.Gap(p, q); layer >= 0 && gap < best {
				best, a, b, at, on = gap, p, q, from.Towards(to, 0.5), layer
			}
		}
	}
	if a == nil {
		return
	}
	of, measured := a.Name+" and "+b.Name, units.Text(max(geom.Measured(best), 0))
	switch {
	case a.Bare && !b.Bare:
		w.add(design.EdgeClearance, set.For(design.EdgeClearance, b.Subject(), on, at), 0, of, measured)
	case b.Bare && !a.Bare:
		w.add(design.EdgeClearance, set.For(design.EdgeClearance, a.Subject(), on, at), 0, of, measured)
	case !a.Bare && !b.Bare:
		w.add(design.Clearance, set.Between(design.Clearance, a.Subject(), b.Subject(), on, at), 0, of, measured)
	}
	if a.Hole > 0 && b.Hole > 0 && !layout.Stacked(a.Layers, b.Layers, a.Drill, b.Drill) {
		gap, p, q := geom.Gap(a.Bore(), b.Bore())
		w.add(design.HoleClearance, set.Between(design.HoleClearance, a.Subject(), b.Subject(), on, p.Towards(q, 0.5)), 0, of, units.Text(max(geom.Measured(gap), 0)))
	}
}
