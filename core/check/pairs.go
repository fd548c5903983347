package check

import (
	"fmt"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// Two pieces held against each other.

// kinds are kinds of rules that something is checked against; nil: all.
type kinds map[design.RuleKind]bool

func (k kinds) has(kind design.RuleKind) bool { return k == nil || k[kind] }

// pairs checks one piece against those near it that want says.
func (b *Board) pairs(c *layout.Copper, by kinds, want func(*layout.Copper) bool) {
	for o := range b.index.Near(c.Box().Grow(b.rules.Reach(c.Layers))) {
		if c.Net != 0 && c.Net == o.Net && c.Hole == 0 && o.Hole == 0 {
			continue // nothing is asked of copper of one net; thousands of tracks may lie over one another
		}
		if o == c || !want(o) || c.Layers&o.Layers == 0 || b.together(c, o) {
			continue
		}
		if b.further >= mostCounted {
			return
		}
		x, y := c, o
		if less(y, x) {
			x, y = y, x
		}
		if by.has(design.HoleClearance) {
			b.holes(x, y)
		}
		b.clearance(x, y, by)
		if by.has(design.HoleCopper) || by.has(design.Clearance) {
			b.walls(x, y)
		}
		if by == nil {
			b.inPad(x, y)
		}
	}
}

// together tells whether two pieces are pads of one part that its footprint lets meet.
func (b *Board) together(x, y *layout.Copper) bool {
	if x.Thing == design.AFigure && y.Thing == design.AFigure {
		return true // copper of no net, drawn over one another
	}
	if x.ID != y.ID {
		return false
	}
	f := b.doc.Footprint(b.doc.Placed[x.ID].Footprint)
	return x.Hole == 0 && x.Number == y.Number || x.Number != y.Number && f.BelongTogether(x.Number, y.Number)
}

func (b *Board) holes(x, y *layout.Copper) {
	if x.Hole == 0 || y.Hole == 0 || layout.Stacked(x.Layers, y.Layers, x.Drill, y.Drill) {
		return
	}
	gap, p, q := geom.Gap(x.Bore(), y.Bore())
	at := p.Towards(q, 0.5)
	ruling := b.rules.Between(design.HoleClearance, x.Subject(), y.Subject(), bits.TrailingZeros32(x.Layers&y.Layers), at)
	need := ruling.Of(0)
	if m := geom.Measured(gap); geom.Short(gap, need) && !b.full() {
		b.list(Finding{Key: "holes " + ref(x) + " " + ref(y), Kind: "holes", Severity: Fault, Rule: "Clearance between holes",
			Text: fmt.Sprintf("The holes of %s and %s are %s apart.", b.named(x), b.named(y), units.Text(max(m, 0))), Measured: max(m, 0), Required: need,
			At: at, Objects: []design.ID{x.ID, y.ID}, Ends: []geom.Point{p, q}, Says: b.says(ruling)})
	}
}

// says is the rule that decided, as a sentence.
func (b *Board) says(r *rules.Ruling) string {
	if r.Rule == nil {
		return ""
	}
	return rules.Sentence(b.doc, r.Rule)
}

// nearness is how near two things come on some layers, and what is asked for there.
type nearness struct {
	gap    float64
	need   int64
	at     geom.Point
	layers uint32
	ends   [2]geom.Point
	ruling *rules.Ruling
}

func (b *Board) clearance(x, y *layout.Copper, by kinds) {
	if x.Bare && y.Bare || x.Net == y.Net && (x.Net != 0 || x.ID == y.ID && x.Number == y.Number) {
		return
	}
	kind, rule, name := design.Clearance, "Clearance", "clearance"
	if x.Bare || y.Bare {
		kind, rule, name = design.EdgeClearance, "Clearance to the edge", "holeEdge"
	} else if x.ID == y.ID {
		kind, rule = design.WithinPart, "Clearance within one part"
	}
	if !by.has(kind) && (name != "clearance" || !by.has(design.Clearance) && !by.has(design.WithinPart)) { // findings of both went together
		return
	}
	worst, short := b.nearest(kind, x, y)
	if !short || b.full() {
		return
	}
	m := geom.Measured(worst.gap)
	f := Finding{Key: name + " " + ref(x) + " " + ref(y), Kind: name, Severity: Fault, Rule: rule, Measured: m, Required: worst.need,
		At: worst.at, Layer: b.uppermost(worst.layers), Objects: []design.ID{x.ID, y.ID}, Ends: worst.ends[:], Says: b.says(worst.ruling)}
	if m <= 0 {
		f.Text = fmt.Sprintf("%s and %s touch.", capital(b.named(x)), b.named(y))
		f.Measured = 0
	} else {
		f.Text = fmt.Sprintf("%s and %s are %s apart.", capital(b.named(x)), b.named(y), units.Text(m))
	}
	b.list(f)
}

// nearest finds where two pieces fall shortest of what a kind of rule asks for between them, and
// whether they do anywhere.
func (b *Board) nearest(kind design.RuleKind, x, y *layout.Copper) (worst nearness, short bool) {
	ask := func(layer int, at geom.Point) *rules.Ruling {
		switch {
		case kind.Pairs():
			return b.rules.Between(kind, x.Subject(), y.Subject(), layer, at)
		case x.Bare:
			return b.rules.For(kind, y.Subject(), layer, at)
		}
		ruling := b.rules.For(kind, x.Subject(), layer, at)
		if kind == design.WithinPart { // what is asked for around either
			if other := b.rules.For(kind, y.Subject(), layer, at); other.Of(0) > ruling.Of(0) {
				return other
			}
		}
		return ruling
	}
	common := x.Layers & y.Layers
	for _, lx := range x.Levels(common) {
		for _, ly := range y.Levels(lx.Layers) {
			b.rules.Nearest(kind, lx.Shape, ly.Shape, func(gap float64, p, q geom.Point) bool {
				n := nearness{gap: gap, at: p.Towards(q, 0.5), layers: ly.Layers, ends: [2]geom.Point{p, q}}
				layers := ly.Layers
				if !b.rules.Layered(kind) {
					layers &= -layers // all alike
				}
				for ; layers != 0; layers &= layers - 1 {
					layer := bits.TrailingZeros32(layers)
					n.ruling = ask(layer, n.at)
					n.need = n.ruling.Of(0)
					if b.rules.Layered(kind) {
						n.layers = 1 << layer
					}
					if geom.Short(gap, n.need) && (!short || float64(n.need)-gap > float64(worst.need)-worst.gap) {
						worst, short = n, true
					}
				}
				return true
			})
		}
	}
	return worst, short
}
