package layout

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// DimensionDrawn is a dimension as it is now: the places that it measures, its line from A to B, and the length.
type DimensionDrawn struct {
	ID     design.ID  `json:"id"`
	From   geom.Point `json:"from"`
	To     geom.Point `json:"to"`
	A      geom.Point `json:"a"`
	B      geom.Point `json:"b"`
	Length int64      `json:"length"`
	Text   string     `json:"text,omitempty"`
}

// Place is where an anchor is now, and whether what it follows is there.
func Place(d *design.Doc, a design.Anchor) (geom.Point, bool) {
	switch o := d.Get(a.Of).(type) {
	case *design.Board:
		line := o.Outline
		if a.Line > 0 && a.Line <= len(o.CutOuts) {
			line = o.CutOuts[a.Line-1]
		}
		if a.Line <= len(o.CutOuts) && a.Corner < len(line) {
			return line[a.Corner].Point, true
		}
	case *design.Placed:
		return placeOf(d, o, a)
	case *design.Via:
		return o.At, true
	case *design.Hole:
		return o.At, true
	case *design.Legend:
		return o.At, true
	case *design.Track:
		switch a.Spot {
		case design.End:
			return o.B, true
		case design.Begin:
			return o.A, true
		}
		return o.Piece().Middle(), true
	case *design.BoardFigure:
		var e geom.Extent
		for _, l := range o.Lines {
			e.Add(geom.Named(l)...)
		}
		return e.Box.Centre(), true
	}
	return a.At, false
}

func placeOf(d *design.Doc, p *design.Placed, a design.Anchor) (geom.Point, bool) {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return p.At, true
	}
	if a.Pad != "" {
		for i := range f.Pads {
			if f.Pads[i].Number == a.Pad {
				return p.Pose().Apply(f.Pads[i].At), true
			}
		}
		return a.At, false
	}
	box := geom.BoxOf(Courtyard(f, p.Pose())...)
	c := box.Centre()
	switch a.Spot {
	case design.Left:
		return geom.Pt(box.Min.X, c.Y), true
	case design.Right:
		return geom.Pt(box.Max.X, c.Y), true
	case design.Bottom:
		return geom.Pt(c.X, box.Min.Y), true
	case design.Top:
		return geom.Pt(c.X, box.Max.Y), true
	}
	return p.At, true
}

// DimensionOf measures a dimension.
func DimensionOf(d *design.Doc, m *design.BoardDimension) DimensionDrawn {
	out := DimensionDrawn{ID: m.ID, Text: m.Text}
	out.From, _ = Place(d, m.From)
	out.To, _ = Place(d, m.To)
	a, b := out.From, out.To
	switch m.Way {
	case design.AlongX:
		y := a.Y + m.Off
		out.A, out.B = geom.Pt(a.X, y), geom.Pt(b.X, y)
	case design.AlongY:
		x := a.X + m.Off
		out.A, out.B = geom.Pt(x, a.Y), geom.Pt(x, b.Y)
	default:
		l := a.Dist(b)
		if l == 0 {
			out.A, out.B = a, b
			break
		}
		off := geom.Pt(int64(math.Round(-float64(b.Y-a.Y)/l*float64(m.Off))), int64(math.Round(float64(b.X-a.X)/l*float64(m.Off))))
		out.A, out.B = a.Add(off), b.Add(off)
		out.Length = int64(math.Round(l))
		return out
	}
	out.Length = int64(math.Round(out.A.Dist(out.B)))
	return out
}
