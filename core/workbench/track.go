package workbench

import (
	"math"
	"slices"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
)

// Field is what a track has to respect.
func (b *Bench) Field() route.Field {
	return route.Field{Doc: b.Doc, Index: b.copper.index, Rules: b.rules.set}
}

// ClearanceAt is what a track of a net keeps to others at a place of a copper layer.
func (b *Bench) ClearanceAt(net design.ID, layer int, at geom.Point) int64 {
	who := rules.Subject{Net: net, Thing: design.ATrack}
	return b.rules.set.Between(design.Clearance, who, rules.Subject{}, layer, at).Of(0)
}

// manyPieces is how many pieces of a net are looked through for what is joined while a hand draws.
const manyPieces = 3000

// Unjoined is the copper of a net that is not joined with a place of it on some of the layers: what a track from there may lead to. Of
// nets of very many pieces it is what open links lead to.
func (b *Bench) Unjoined(net design.ID, at geom.Point, layers uint32) []*layout.Copper {
	x := b.copper.index
	pieces := x.NetPieces(net)
	if len(pieces) > manyPieces {
		var out []*layout.Copper
		for _, l := range b.links.of[net].Links() {
			for _, p := range []geom.Point{l.A, l.B} {
				for c := range x.Near(geom.BoxOf(p)) {
					if c.Net == net && !c.Shape.Holds(at) {
						out = append(out, c)
					}
				}
			}
		}
		return out
	}
	var out []*layout.Copper
	beneath := b.pours.beneath(net, at, layers)
	for _, island := range layout.Islands(pieces, b.pours.fills.Bonds(net)...) {
		own := false
		for _, c := range island {
			own = own || c.Layers&layers != 0 && c.Shape.Holds(at) || slices.Contains(beneath, c.Ref())
		}
		if !own {
			out = append(out, island...)
		}
	}
	return out
}

// Bonds are the pieces of a net that copper areas join.
func (b *Bench) Bonds(net design.ID) []layout.Bond { return b.pours.fills.Bonds(net) }

// fewPieces is how many pieces a net may have for what it has yet to reach to be measured in a hand's motion.
const fewPieces = 300

// OpenFrom is how far it is from the end of a track that began at a place straight to the nearest copper of its net that it has yet to
// reach; 0: there is none, or the net has very many pieces.
func (b *Bench) OpenFrom(net design.ID, from, end geom.Point, layers uint32) int64 {
	pieces := b.copper.index.NetPieces(net)
	if len(pieces) > fewPieces {
		return 0
	}
	least := math.Inf(1)
	for _, c := range b.Unjoined(net, from, layers) {
		gap, _, _ := geom.Gap(c.Shape, geom.Disc(end, 0))
		least = min(least, max(gap, 0))
	}
	if math.IsInf(least, 1) {
		return 0
	}
	return geom.Measured(least)
}

// Why tells which rules hold for one thing on the board, or between two, and which they beat.
func (b *Bench) Why(ids []design.ID) []check.Asked {
	return check.Why(b.Doc, b.copper.index, b.rules.set, ids)
}
