package layout

import (
	"cmp"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Courtyard is the place a part takes on the board: its footprint's courtyard carried over,
// or the box around its pads when it has none.
func Courtyard(f *design.Footprint, t geom.Pose) []geom.Point {
	if len(f.Courtyard) > 2 {
		return t.ApplyAll(f.Courtyard)
	}
	b := geom.Box{}
	for i := range f.Pads {
		pb := PadShape(&f.Pads[i]).Box()
		if i == 0 {
			b = pb
		} else {
			b = b.Union(pb)
		}
	}
	b = b.Grow(250_000)
	return t.ApplyAll([]geom.Point{b.Min, geom.Pt(b.Max.X, b.Min.Y), b.Max, geom.Pt(b.Min.X, b.Max.Y)})
}

// Arrive finds places beside the outline for new parts: in columns to the right of all that
// is there, the first at the top, 2 mm apart, on the 1.27 mm grid.
func Arrive(d *design.Doc, footprints []*design.Footprint) []geom.Point {
	here := geom.Box{}
	started := false
	with := func(pts []geom.Point) {
		for _, p := range pts {
			if !started {
				here, started = geom.Box{Min: p, Max: p}, true
			}
			here = here.With(p)
		}
	}
	with(d.Board.Outline)
	for p := range d.Placed.All() {
		if f := d.Footprint(p.Footprint); f != nil {
			with(Courtyard(f, p.Pose()))
		}
	}
	if len(d.Board.Outline) < 3 { // an outline will most likely be drawn from the origin on: stay clear of it
		room := geom.Box{Max: geom.Pt(100*units.MM, 80*units.MM)}
		if started {
			room = room.Union(here)
		}
		here = room
	}
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
		out[b.i] = Snap(geom.Pt(x-b.b.Min.X, y-b.b.Max.Y), 1_270_000)
		y -= h + gap
		widest = max(widest, w)
	}
	return out
}

// Snap rounds a point to the grid.
func Snap(p geom.Point, grid int64) geom.Point {
	r := func(v int64) int64 {
		if v < 0 {
			return -((-v + grid/2) / grid * grid)
		}
		return (v + grid/2) / grid * grid
	}
	return geom.Pt(r(p.X), r(p.Y))
}
