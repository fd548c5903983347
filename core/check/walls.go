package check

import (
	"fmt"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// The walls of plated holes, and what lies near them.

// walls checks how near the wall of a plated hole comes to copper of another net on all layers that it passes: a drill strays, and what has
// no pad inside has nothing else that keeps copper away.
func (b *Board) walls(x, y *layout.Copper) {
	for _, p := range [2][2]*layout.Copper{{x, y}, {y, x}} {
		hole, other := p[0], p[1]
		if hole.Hole == 0 || hole.Bare || other.Bare || hole.Net == other.Net && (hole.Net != 0 || hole.ID == other.ID && hole.Number == other.Number) {
			continue
		}
		b.wall(hole, other)
	}
}

func (b *Board) wall(hole, other *layout.Copper) {
	bore := hole.Bore()
	worst, short := nearness{}, false
	for _, level := range other.Levels(hole.Layers & other.Layers) {
		gap, p, q := geom.Gap(bore, level.Shape)
		at := p.Towards(q, 0.5)
		for layers := level.Layers; layers != 0; layers &= layers - 1 {
			ruling := b.rules.Between(design.HoleCopper, hole.Subject(), other.Subject(), bits.TrailingZeros32(layers), at)
			need := ruling.Of(0)
			if geom.Short(gap, need) && (!short || float64(need)-gap > float64(worst.need)-worst.gap) {
				worst, short = nearness{gap, need, at, layers & -layers, [2]geom.Point{p, q}, ruling}, true
			}
		}
	}
	if !short {
		return
	}
	if _, nearer := b.nearest(design.Clearance, hole, other); nearer || b.full() {
		return // their copper is too near already, which says it all
	}
	m := max(geom.Measured(worst.gap), 0)
	b.list(Finding{Key: "wall " + ref(hole) + " " + ref(other), Kind: "wall", Severity: Fault, Rule: "Clearance of holes to copper", Measured: m,
		Required: worst.need, At: worst.at, Layer: b.uppermost(worst.layers), Objects: []design.ID{hole.ID, other.ID},
		Ends: worst.ends[:], Says: b.says(worst.ruling),
		Text: fmt.Sprintf("The wall of the hole of %s is %s from %s.", b.named(hole), units.Text(m), b.named(other))})
}

// inPad finds vias that open into a surface pad: solder would run into them, unless they are filled.
func (b *Board) inPad(x, y *layout.Copper) {
	via, pad := x, y
	if via.Kind != "via" {
		via, pad = y, x
	}
	v := b.doc.Vias[via.ID]
	if v == nil || via.Kind != "via" || pad.Thing != design.SurfacePad || v.Cover == design.Filled {
		return
	}
	for layers := via.Layers & pad.Layers; layers != 0; layers &= layers - 1 {
		if gap, _, _ := geom.Gap(via.Bore(), pad.On(bits.TrailingZeros32(layers))); gap >= 0 {
			continue
		}
		b.list(Finding{Key: "viaInPad " + ref(via) + " " + ref(pad), Kind: "viaInPad", Severity: Warning, Rule: "Vias in pads are filled", At: via.At,
			Layer: b.uppermost(layers), Objects: []design.ID{via.ID, pad.ID},
			Text: fmt.Sprintf("%s opens into %s and is not filled: solder would run into it.", capital(b.named(via)), pad.Name)})
		return
	}
}
