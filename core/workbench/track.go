package workbench

import (
	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/rules"
)

// Track answers while a track is being drawn: how far it may go, and whether a hop is possible there.
// Width 0 takes the rules'. The layer must be one of the board.
func (b *Bench) Track(from, to geom.Point, style route.Corner, layer design.LayerID, net design.ID, width int64) route.Probe {
	field := route.Field{Doc: b.Doc, Index: b.copper.index, Rules: b.rules.set}
	at := b.Doc.Board.Position(layer)
	if width == 0 {
		width = field.Usual(design.TrackWidth, route.Wish{Shape: geom.Disc(from, 0), Layers: 1 << at, Net: net, Thing: design.ATrack})
	}
	probe := field.Draw(from, to, style, at, net, width)
	end := probe.Path[len(probe.Path)-1]
	via := field.Via(end, net)
	probe.Width, probe.ViaSize, probe.ViaHole = width, 2*via.Shape.R, via.Hole
	who := rules.Subject{Net: net, Thing: design.ATrack}
	probe.Clearance = b.rules.set.Between(design.Clearance, who, rules.Subject{}, at, end).Of(0)
	if o := field.Clear(via); o != nil && !field.PlatedAt(end, net, via.Layers) {
		probe.Via = o.Error()
	}
	return probe
}

// Why tells which rules hold for one thing on the board, or between two, and which they beat.
func (b *Bench) Why(ids []design.ID) []check.Asked {
	return check.Why(b.Doc, b.copper.index, b.rules.set, ids)
}
