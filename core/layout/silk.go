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

// SilkPieces are the same with arcs as arcs.
func SilkPieces(d *design.Doc, p *design.Placed) []geom.Ring {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return nil
	}
	var out []geom.Ring
	t := p.Pose()
	for i, line := range SilkLines(d, p) {
		if i < len(f.Silk) && f.Silk[i].Form == "arc" {
			q := f.Silk[i].Pts
			out = append(out, geom.Ring{t.ApplyPiece(geom.Piece{A: q[0], M: q[1], B: q[2]})})
			continue
		}
		out = append(out, straight(line))
	}
	return out
}

// straight are the pieces along a line.
func straight(line []geom.Point) geom.Ring {
	out := make(geom.Ring, 0, len(line))
	for i := 0; i+1 < len(line); i++ {
		out = append(out, geom.Straight(line[i], line[i+1]))
	}
	return out
}
