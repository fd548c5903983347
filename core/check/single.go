package check

import (
	"fmt"
	"math"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// A piece by itself: widths, holes, rings, the edge.

// single checks a piece by itself and against the edge.
func (b *Board) single(c *layout.Copper, by kinds) {
	who, one := c.Subject(), []design.ID{c.ID}
	first := bits.TrailingZeros32(c.Layers)
	if (c.Kind == "track" || c.Kind == "figure" && !c.Shape.Area) && by.has(design.LeastWidth) {
		w, middle := 2*c.Shape.R, c.Shape.Side(0).Middle()
		ruling := b.rules.For(design.LeastWidth, who, first, middle)
		if need := ruling.Of(0); geom.Short(float64(w), need) {
			b.list(Finding{Key: "width " + ref(c), Kind: "width", Severity: Fault, Rule: "Least track width", Measured: w, Required: need,
				Text: fmt.Sprintf("A %s is %s wide.", b.named(c), units.Text(w)), At: middle, Layer: b.uppermost(c.Layers), Objects: one,
				Ends: across(c.Shape.Side(0), c.Shape.R), Says: b.says(ruling)})
		}
	}
	b.sliver(c, by)
	if c.Hole > 0 && by.has(design.LeastHole) {
		ruled := b.rules.For(design.LeastHole, who, first, c.Drill).Of(0)
		if need := b.atLeast(c, ruled, func(l design.HoleLimits) int64 { return l.LeastHole },
			func(l *design.Barrel) int64 { return l.Hole }); geom.Short(float64(c.Hole), need) {
			b.list(Finding{Key: "hole " + ref(c), Kind: "hole", Severity: Fault, Rule: "Least hole", Measured: c.Hole, Required: need,
				Text: fmt.Sprintf("The hole of %s is %s wide.", b.named(c), units.Text(c.Hole)), At: c.At, Objects: one})
		}
	}
	if c.Hole > 0 && !c.Bare && by.has(design.LeastRing) {
		b.rings(c)
	}
	if by == nil {
		b.keptOut(c)
		b.barrel(c)
	}
	if by.has(design.EdgeClearance) && !b.outsideParts(c) {
		b.edge(c)
	}
}

// ringOf is the ring of a hole of the house's table; 0: it says none.
func ringOf(l *design.Barrel) int64 {
	if l.Hole == 0 || l.Diameter == 0 {
		return 0
	}
	return (l.Diameter - l.Hole) / 2
}

// rings checks the copper around a plated hole on all its layers.
func (b *Board) rings(c *layout.Copper) {
	worst, need := math.Inf(1), int64(0)
	for _, level := range c.Levels(c.Layers) {
		if c.Kind == "via" && level.Shape.R == c.Hole/2 {
			continue // it has no pad there, and wants none
		}
		width := layout.Ring(c, level.Shape)
		for layers := level.Layers; layers != 0; layers &= layers - 1 {
			ruled := b.rules.For(design.LeastRing, c.Subject(), bits.TrailingZeros32(layers), c.Drill).Of(c.Hole)
			asked := b.atLeast(c, ruled, func(l design.HoleLimits) int64 { return l.LeastRing }, ringOf)
			if geom.Short(width, asked) && (width-float64(asked) < worst-float64(need)) {
				worst, need = width, asked
			}
			if !b.rules.Layered(design.LeastRing) {
				break
			}
		}
	}
	if math.IsInf(worst, 1) {
		return
	}
	m := geom.Measured(worst)
	b.list(Finding{Key: "ring " + ref(c), Kind: "ring", Severity: Fault, Rule: "Least ring", Measured: m, Required: need,
		Text: fmt.Sprintf("The copper ring around the hole of %s is %s.", b.named(c), units.Text(m)), At: c.At, Objects: []design.ID{c.ID}})
}

// edge checks how near a piece comes to the board's edge.
func (b *Board) edge(c *layout.Copper) {
	if !b.index.Edge().Drawn() {
		return
	}
	for _, level := range c.Levels(c.Layers) {
		for layers := level.Layers; layers != 0; layers &= layers - 1 {
			layer := bits.TrailingZeros32(layers)
			ruling := b.rules.For(design.EdgeClearance, c.Subject(), layer, c.At)
			need := ruling.Of(0)
			gap, at, near := b.index.Edge().Gap(level.Shape, need)
			m := geom.Measured(gap)
			if near && geom.Short(float64(m), need) {
				text := fmt.Sprintf("%s is %s from the board's edge.", capital(b.named(c)), units.Text(m))
				if m < 0 {
					text = fmt.Sprintf("%s reaches beyond the board's edge.", capital(b.named(c)))
				}
				b.list(Finding{Key: "edge " + ref(c), Kind: "edge", Severity: Fault, Rule: "Clearance to the edge", Measured: max(m, 0), Required: need,
					Text: text, At: at, Layer: b.uppermost(layers), Objects: []design.ID{c.ID}, Ends: toEdge(level.Shape, at), Says: b.says(ruling)})
				return
			}
			if !b.rules.Layered(design.EdgeClearance) {
				break
			}
		}
	}
}

// across are the places on both edges of a line, in its middle.
func across(p geom.Piece, half int64) []geom.Point {
	x, y := p.Leaves()
	if p.Round() { // square to its chord
		x, y = float64(p.B.X-p.A.X), float64(p.B.Y-p.A.Y)
	}
	long := math.Hypot(x, y)
	if long == 0 {
		return nil
	}
	aside := geom.Pt(int64(-y/long*float64(half)), int64(x/long*float64(half)))
	return []geom.Point{p.Middle().Add(aside), p.Middle().Sub(aside)}
}

// toEdge are the places on a shape and on the board's edge where they come nearest.
func toEdge(s geom.Shape, at geom.Point) []geom.Point {
	_, own, _ := geom.Gap(s, geom.Disc(at, 0))
	return []geom.Point{own, at}
}
