package layout

import (
	"cmp"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/lettering"
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
	t, lines := p.Pose(), SilkLines(d, p)
	out := make([]Printed, 0, len(lines))
	for i, line := range lines {
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

// SilkBox holds all that is printed of a part, lines as wide as the rule for silk says where the footprint gives no width, and little beside; false:
// nothing is.
func SilkBox(d *design.Doc, p *design.Placed, width int64) (geom.Box, bool) {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return geom.Box{}, false
	}
	var own, e geom.Extent
	for _, fig := range f.Silk {
		half := cmp.Or(fig.Width, width)/2 + 1
		switch fig.Form {
		case "circle":
			own.AddBox(geom.Box{Min: fig.Pts[0], Max: fig.Pts[0]}.Grow(fig.R + half))
		case "arc":
			own.AddBox(geom.Piece{A: fig.Pts[0], M: fig.Pts[1], B: fig.Pts[2]}.Box().Grow(half))
		default:
			own.AddBox(geom.BoxOf(fig.Pts...).Grow(half))
		}
	}
	t := p.Pose()
	turned := func(t geom.Pose, b geom.Box) {
		e.Add(t.Apply(b.Min), t.Apply(b.Max), t.Apply(geom.Pt(b.Min.X, b.Max.Y)), t.Apply(geom.Pt(b.Max.X, b.Min.Y)))
	}
	if own.Any {
		turned(t, own.Box)
	}
	if p.Designator != "" {
		at := f.DesignatorAt
		if p.Label != nil {
			at = *p.Label
		}
		wide, high := lettering.Reach(p.Designator, p.LetterHeight())
		turned(TextPose(t.Apply(at), p.Angle, p.Bottom), geom.Box{Min: geom.Pt(-wide, -high), Max: geom.Pt(wide, high)}.Grow(width/2+1))
	}
	return e.Box, e.Any
}
