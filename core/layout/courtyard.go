package layout

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Courtyard is the place a part takes on the board: its footprint's courtyard carried over,
// or the box around its pads when it has none.
func Courtyard(f *design.Footprint, t geom.Pose) []geom.Point {
	if len(f.Courtyard) > 2 {
		return t.ApplyAll(f.Courtyard)
	}
	var pads geom.Extent
	for i := range f.Pads {
		pads.AddBox(PadShape(&f.Pads[i]).Box())
	}
	b := pads.Box.Grow(250_000)
	return t.ApplyAll([]geom.Point{b.Min, geom.Pt(b.Max.X, b.Min.Y), b.Max, geom.Pt(b.Min.X, b.Max.Y)})
}
