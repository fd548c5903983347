package pour

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// Touch is a pad or via within the edge of a copper area, and how that has to do with it.
type Touch struct {
	Ref layout.Ref
	At  geom.Point
	Net design.ID
	How string // design.BySpokes, Solidly, NotJoined: of the area's net but not reached; Passes: of another
}

// Passes is said of pads and vias of other nets, which an area leaves room.
const Passes = "passes"

// Touching lists the pads and vias of a copper layer within the edge of an area, in their order. What is stale is told as it was.
func (f *Fills) Touching(k Key) (out []Touch) {
	a := f.areaOf(k)
	if a == nil {
		return nil
	}
	reached := map[layout.Ref]bool{}
	for _, is := range f.Islands(k) {
		if is.Stays {
			for _, r := range is.Touches {
				reached[r] = true
			}
		}
	}
	within := func(geom.Point) bool { return true }
	if len(a.Outline) > 0 {
		region := geom.Region{Outer: geom.Closing(a.Outline)}.Prepare()
		within = region.Holds
	}
	for c := range f.index.Near(a.box) {
		if c.Kind != "pad" && c.Kind != "via" || c.Bare || !c.Has(a.layer) || !within(c.At) {
			continue
		}
		t := Touch{Ref: c.Ref(), At: c.At, Net: c.Net, How: Passes}
		switch {
		case a.owns(c) && reached[c.Ref()]:
			t.How = a.joins(c).how
		case a.owns(c):
			t.How = design.NotJoined
		}
		out = append(out, t)
	}
	slices.SortFunc(out, func(x, y Touch) int { return x.Ref.Compare(y.Ref) })
	return out
}
