package layout

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

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
	return append(out, TextLines(p.Designator, p.LetterHeight(), t.Apply(at), p.Angle, p.Bottom)...)
}

// Printed is a line of silk. Width 0: as the rule for silk says.
type Printed struct {
	Line  geom.Ring
	Width int64
	Text  bool // of the designator
}

// SilkPieces are the same with arcs as arcs, and the widths that the footprint gives.
func SilkPieces(d *design.Doc, p *design.Placed) []Printed {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return nil
	}
	var out []Printed
	t := p.Pose()
	for i, line := range SilkLines(d, p) {
		switch {
		case i >= len(f.Silk): // the designator
			out = append(out, Printed{Line: straight(line), Text: true})
		case f.Silk[i].Form == "arc":
			q := f.Silk[i].Pts
			arc := geom.Ring{t.ApplyPiece(geom.Piece{A: q[0], M: q[1], B: q[2]})}
			out = append(out, Printed{Line: arc, Width: f.Silk[i].Width})
		default:
			out = append(out, Printed{Line: straight(line), Width: f.Silk[i].Width})
		}
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
