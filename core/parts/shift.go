package parts

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

func shiftedPoints(pts []geom.Point, by geom.Point) []geom.Point {
	out := slices.Clone(pts)
	for i := range out {
		out[i] = out[i].Add(by)
	}
	return out
}

func shiftedFigures(list []design.Figure, by geom.Point) []design.Figure {
	out := slices.Clone(list)
	for i := range out {
		out[i].Pts = shiftedPoints(out[i].Pts, by)
	}
	return out
}

// ShiftedSymbol is the symbol moved, so that another place of it is its origin.
func ShiftedSymbol(s *design.Symbol, by geom.Point) *design.Symbol {
	out := *s
	out.Pins = slices.Clone(s.Pins)
	for i := range out.Pins {
		out.Pins[i].At = out.Pins[i].At.Add(by)
	}
	out.Figures = shiftedFigures(s.Figures, by)
	out.DesignatorAt, out.ValueAt = s.DesignatorAt.Add(by), s.ValueAt.Add(by)
	return &out
}

// ShiftedFootprint is the footprint moved, with its body and the picture beneath. It is no longer what its recipe makes.
func ShiftedFootprint(f *design.Footprint, by geom.Point) *design.Footprint {
	out := *f
	out.Pads = slices.Clone(f.Pads)
	for i := range out.Pads {
		out.Pads[i].At = out.Pads[i].At.Add(by)
	}
	out.Silk, out.Body = shiftedFigures(f.Silk, by), shiftedFigures(f.Body, by)
	out.Courtyard = shiftedPoints(f.Courtyard, by)
	out.DesignatorAt = f.DesignatorAt.Add(by)
	if f.ValueAt != nil {
		at := f.ValueAt.Add(by)
		out.ValueAt = &at
	}
	out.Solids = slices.Clone(f.Solids)
	move := geom.Pose{At: by}
	for i := range out.Solids {
		s := &out.Solids[i]
		s.Edge = move.ApplyCorners(s.Edge)
		s.A, s.B = s.A.Add(by), s.B.Add(by)
	}
	if f.Beneath != nil {
		b := *f.Beneath
		b.At = b.At.Add(by)
		out.Beneath = &b
	}
	return &out
}
