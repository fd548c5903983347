package route

import (
	"fmt"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// New vias: as the board's table of holes says, else as the rules do, and never below the least that rules and house allow.

// ViaSize is the diameter and the hole that a new via through all layers has.
func (f Field) ViaSize(at geom.Point, net design.ID) (diameter, hole int64) {
	h := HopHole{At: at}
	if l := f.Doc.Board.Through(); l != nil {
		h.Barrel = l.ID
	}
	v := f.ViaOf(h, net)
	return v.Diameter, v.Hole
}

// Via is what a via through all layers would be.
func (f Field) Via(at geom.Point, net design.ID) Wish {
	diameter, hole := f.ViaSize(at, net)
	return Wish{Shape: geom.Disc(at, diameter/2), Layers: 1<<f.Doc.Board.Layers() - 1, Net: net, Thing: design.AVia, Hole: hole}
}

// ViaOf is the via that a hole of a hop becomes; its id is 0.
func (f Field) ViaOf(h HopHole, net design.ID) *design.Via {
	v, _ := f.newVia(h, net)
	return v
}

// Raised says in a sentence how a new via at one of the places departs from the sizes that the rules give to new ones, since those are below
// the least; empty: none does.
func (f Field) Raised(holes []HopHole, net design.ID) string {
	for _, h := range holes {
		v, asked := f.newVia(h, net)
		if v.Hole != asked.Hole || v.Diameter != asked.Diameter {
			return fmt.Sprintf("New vias are %s with a hole of %s: %s with %s, as the rules have new ones, is below the least hole or ring.",
				units.Text(v.Diameter), units.Text(v.Hole), units.Text(asked.Diameter), units.Text(asked.Hole))
		}
	}
	return ""
}

// newVia is the via that a hole of a hop becomes, and what it would be by the sizes for new vias alone.
func (f Field) newVia(h HopHole, net design.ID) (v, asked *design.Via) {
	v = &design.Via{At: h.At, Net: net, Barrel: h.Barrel}
	b := f.Doc.Board
	if l := b.Barrel(h.Barrel); l != nil {
		v.Kind, v.From, v.To, v.Hole, v.Diameter, v.Cover = l.Kind, l.From, l.To, l.Hole, l.Diameter, l.Cover
	}
	ownHole, ownDiameter := v.Hole > 0, v.Diameter > 0 // what the table says the house makes so
	w := Wish{Shape: geom.Disc(h.At, 0), Layers: 1<<b.Layers() - 1, Net: net, Thing: design.AVia}
	if !ownHole {
		v.Hole = f.Usual(design.ViaHole, w)
	}
	if !ownDiameter {
		v.Diameter = f.Usual(design.ViaDiameter, w)
	}
	was := *v
	if !ownHole {
		v.Hole = max(v.Hole, f.leastOf(design.LeastHole, v, w.Layers&-w.Layers, b.Holes.Limits(v.Kind).LeastHole))
	}
	if !ownDiameter || !ownHole {
		v.Diameter = max(v.Diameter, v.Hole+2*f.leastOf(design.LeastRing, v, w.Layers, b.Holes.Limits(v.Kind).LeastRing))
	}
	return v, &was
}

// leastOf is what a kind of rule asks for of a via at least on any of the layers, or the house, where that is more; of a laser's holes the
// house alone decides, where it says anything.
func (f Field) leastOf(k design.RuleKind, v *design.Via, layers uint32, house int64) (least int64) {
	if v.Kind == design.Lasered && house > 0 {
		return house
	}
	for ; layers != 0; layers &= layers - 1 {
		least = max(least, f.Rules.For(k, rules.Subject{Net: v.Net, Thing: design.AVia}, bits.TrailingZeros32(layers), v.At).Of(v.Hole))
		if !f.Rules.Layered(k) {
			break
		}
	}
	return max(least, house)
}
