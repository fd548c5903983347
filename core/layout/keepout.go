package layout

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// KeepOut is an area that keeps kinds of things out, made ready for asking.
type KeepOut struct {
	*design.RuleArea
	region *geom.Prepared
	layers uint32
}

// KeepOuts lists the areas of a document that keep something out, in the order of their ids, then the room that holes keep free around them.
func KeepOuts(d *design.Doc) []KeepOut {
	var out []KeepOut
	for a := range d.RuleAreas.All() {
		if len(a.KeepOut) == 0 {
			continue
		}
		k := KeepOut{RuleArea: a, region: geom.Region{Outer: geom.Closing(a.Outline)}.Prepare()}
		for _, l := range a.Layers {
			if i := d.Board.Position(l); i >= 0 {
				k.layers |= 1 << i
			}
		}
		if len(a.Layers) == 0 {
			k.layers = 1<<d.Board.Layers() - 1
		}
		out = append(out, k)
	}
	for h := range d.Holes.All() {
		if h.Keep > 0 {
			a := &design.RuleArea{ID: h.ID, Name: "around a hole", Outline: geom.CircleLine(h.At, h.Room()+h.Keep), KeepOut: design.Things}
			out = append(out, KeepOut{RuleArea: a, region: geom.Region{Outer: geom.Closing(a.Outline)}.Prepare(), layers: 1<<d.Board.Layers() - 1})
		}
	}
	return out
}

// Box around the area.
func (k *KeepOut) Box() geom.Box { return k.region.Box() }

// Keeps tells whether the area keeps a kind of thing out on one of the layers of a mask.
func (k *KeepOut) Keeps(thing design.Thing, layers uint32) bool {
	return k.layers&layers != 0 && slices.Contains(k.KeepOut, thing)
}

// Bars tells where a thing that lies on the layers of a mask reaches into the area although that keeps
// its kind out. Round ends may touch the edge; straight sides may not.
func (k *KeepOut) Bars(thing design.Thing, layers uint32, s geom.Shape) (at geom.Point, bars bool) {
	if !k.Keeps(thing, layers) || !k.region.Box().Meets(s.Box()) {
		return at, false
	}
	if s.Area && s.R == 0 && s.Holds(k.Outline[0].Point) { // the area may lie wholly within it
		return k.Outline[0].Point, true
	}
	for _, p := range s.Edges() {
		if d, _, of := k.region.Distance(p); geom.Short(d, s.R) || s.R == 0 && k.region.Holds(of) {
			return of, true
		}
	}
	return at, false
}
