package layout

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// DesignatorHeight of the capitals of designators printed on the board.
const DesignatorHeight = 1_000_000

// SilkLines are the centre lines of what is printed of a part: its footprint's drawing and
// its designator, which never stands on its head. Circles become polygons.
func SilkLines(d *design.Doc, p *design.Placed) [][]geom.Point {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return nil
	}
	t := p.Pose()
	var out [][]geom.Point
	for _, fig := range f.Silk {
		for _, line := range FigureLines(fig) {
			out = append(out, t.ApplyAll(line))
		}
	}
	at := f.DesignatorAt
	if p.Label != nil {
		at = *p.Label
	}
	return append(out, TextLines(p.Designator, DesignatorHeight, t.Apply(at), p.Angle, p.Bottom)...)
}
