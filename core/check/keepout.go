package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Areas that keep kinds of things out.

// keptOut checks a piece against the areas that keep its kind out.
func (b *Board) keptOut(c *layout.Copper) {
	for i := range b.index.KeepOuts() {
		k := &b.index.KeepOuts()[i]
		if k.ID == c.ID { // a hole in the room that it keeps free
			continue
		}
		for _, level := range c.Levels(c.Layers) {
			at, bars := k.Bars(c.Thing, level.Layers, level.Shape)
			if !bars {
				continue
			}
			b.barred(k, "keepOut "+ref(c), capital(b.named(c)), at, c.ID, b.uppermost(level.Layers))
			break
		}
	}
}

func (b *Board) barred(k *layout.KeepOut, key, what string, at geom.Point, id design.ID, layer design.LayerID) {
	b.list(Finding{Key: fmt.Sprintf("%s %d", key, k.ID), Kind: "keepOut", Severity: Fault, Rule: "Areas keep out what they say",
		Text: fmt.Sprintf("%s reaches into the area %s, which keeps such things out.", what, k.Name), At: at, Layer: layer, Objects: []design.ID{id, k.ID}})
}

// partsKeptOut checks parts against the areas that keep parts out: all, or those among ids.
func (b *Board) partsKeptOut(ids map[design.ID]bool) {
	areas := b.index.KeepOuts()
	if len(areas) == 0 {
		return
	}
	look := func(p *design.Placed) {
		f := b.doc.Footprint(p.Footprint)
		if f == nil {
			return
		}
		yard := geom.Shape{Pts: layout.Courtyard(f, p.Pose()), Area: true}
		side := uint32(1)
		if p.Bottom {
			side <<= b.doc.Board.Layers() - 1
		}
		for i := range areas {
			if at, bars := areas[i].Bars(design.APart, side, yard); bars {
				b.barred(&areas[i], fmt.Sprintf("keepOut part %d", p.ID), p.Designator, at, p.ID, 0)
			}
		}
	}
	if ids == nil {
		for p := range b.doc.Placed.All() {
			look(p)
		}
		return
	}
	for id := range ids {
		if p := b.doc.Placed[id]; p != nil {
			look(p)
		}
	}
}
