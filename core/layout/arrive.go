package layout

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Arrive finds places beside the outline for new parts: in columns to the right of all that
// is there, the first at the top, 2 mm apart, on the 1.27 mm grid.
func Arrive(d *design.Doc, footprints []*design.Footprint) []geom.Point {
	var all geom.Extent
	all.AddRing(d.Board.Outline)
	for p := range d.Placed.All() {
		if f := d.Footprint(p.Footprint); f != nil {
			all.Add(Courtyard(f, p.Pose())...)
		}
	}
	if len(d.Board.Outline) == 0 { // an outline will most likely be drawn from the origin on: stay clear of it
		all.Add(geom.Pt(0, 0), geom.Pt(100*units.MM, 80*units.MM))
	}
	here := all.Box
	const gap = 2 * units.MM
	tall := max(here.Max.Y-here.Min.Y, 40*units.MM)
	type box struct {
		i int
		b geom.Box
	}
	boxes := make([]box, len(footprints))
	for i, f := range footprints {
		boxes[i] = box{i, geom.BoxOf(Courtyard(f, geom.Pose{})...)}
	}
	slices.SortStableFunc(boxes, func(a, b box) int { // wide ones first, so that columns are even
		return cmp.Compare(b.b.Max.X-b.b.Min.X, a.b.Max.X-a.b.Min.X)
	})
	out := make([]geom.Point, len(footprints))
	x, y := here.Max.X+5*units.MM, here.Max.Y
	widest := int64(0)
	for _, b := range boxes {
		w, h := b.b.Max.X-b.b.Min.X, b.b.Max.Y-b.b.Min.Y
		if here.Max.Y-y+h > tall && widest > 0 {
			x, y, widest = x+widest+gap, here.Max.Y, 0
		}
		out[b.i] = geom.Snap(geom.Pt(x-b.b.Min.X, y-b.b.Max.Y), 1_270_000)
		y -= h + gap
		widest = max(widest, w)
	}
	return out
}
