package question

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/pour"
	"goldentrace/core/workbench"
)

// Gaps asks where picked tracks run over gaps of copper areas on the layers next to theirs, and which width would fill these.
type Gaps struct {
	IDs []design.ID `json:"ids"`
}

// Gap is what tracks run over of one area on one layer.
type Gap struct {
	Area  design.ID      `json:"area"`
	Layer design.LayerID `json:"layer"`
	Open  int64          `json:"open"`            // length over which it fills nothing, in nanometres
	Width int64          `json:"width,omitempty"` // the least width of it that would fill Fills of that; 0: none would
	Fills int64          `json:"fills,omitempty"`
}

const (
	gapStep  = 200_000 // how far apart places along a track are looked at, in nanometres
	mostLook = 2_000   // how many
)

// Answer the question.
func (q *Gaps) Answer(b *workbench.Bench) (out []Gap, err error) {
	board, looked := b.Doc.Board, map[design.LayerID][]geom.Point{}
	n := 0
	for _, id := range q.IDs {
		t := b.Doc.Tracks[id]
		if t == nil {
			continue
		}
		piece := t.Piece()
		steps := max(int(piece.Length()/gapStep), 1)
		if n += steps; n > mostLook {
			return nil, fmt.Errorf("of so long a track (%d places) gaps are not looked for; pick a part of it", n)
		}
		for i := range steps {
			p := piece.At((float64(i) + 0.5) / float64(steps))
			for _, by := range []int{-1, 1} {
				on := board.Position(t.Layer) + by
				if on >= 0 && on < board.Layers() && !besideOwn(b, t.Net, on, p) {
					looked[board.At(on)] = append(looked[board.At(on)], p)
				}
			}
		}
	}
	for _, l := range board.Copper() {
		places := looked[l.ID]
		if len(places) == 0 {
			continue
		}
		for p := range b.Doc.Pours.All() {
			k := pour.Key{Pour: p.ID, Layer: l.ID}
			if !p.On(l.ID) {
				continue
			}
			open, width, fills, err := b.GapsOf(k, places)
			if err != nil {
				return nil, err
			}
			if open > 0 {
				out = append(out, Gap{p.ID, l.ID, int64(open) * gapStep, width, int64(fills) * gapStep})
			}
		}
	}
	return slices.Clip(out), nil
}

// besideOwn tells whether copper of the net itself keeps an area free at a place of a layer, as a pad or via that the track ends in.
func besideOwn(b *workbench.Bench, net design.ID, layer int, at geom.Point) bool {
	keep := b.ClearanceAt(net, layer, at)
	for c := range b.Index().Near(geom.BoxOf(at).Grow(keep)) {
		if c.Net != net || !c.Has(layer) {
			continue
		}
		if gap, _, _ := geom.Gap(geom.Disc(at, 0), c.On(layer)); gap <= float64(keep) {
			return true
		}
	}
	return false
}
