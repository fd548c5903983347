package parts

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Agreement is what a dimension of a footprint measures, and whether that is what the datasheet says.
type Agreement struct {
	ID     int        `json:"id"`
	A      geom.Point `json:"a"`
	B      geom.Point `json:"b"`
	Has    int64      `json:"has"`
	Agrees bool       `json:"agrees"` // with what the datasheet says, where it says something
	Lost   string     `json:"lost,omitempty"`
}

// Slack is how far a footprint may be off a datasheet's number that gives no tolerance: what its drawing rounds away.
const Slack = 5 * units.Micrometre

// Agreements measures all dimensions of a footprint. Cost: O(dimensions · pads) at most.
func Agreements(f *design.Footprint) []Agreement {
	out := make([]Agreement, 0, len(f.Dimensions))
	for _, d := range f.Dimensions {
		out = append(out, Measure(f, d))
	}
	return out
}

// Measure one dimension.
func Measure(f *design.Footprint, d design.Dimension) Agreement {
	out := Agreement{ID: d.ID}
	a, okA := Place(f, d.A)
	b, okB := Place(f, d.B)
	if !okA || !okB {
		out.Lost = "What it was measured from is not there any more."
		return out
	}
	out.A, out.B = a, b
	switch d.Way {
	case design.AlongX:
		out.Has = max(b.X-a.X, a.X-b.X)
	case design.AlongY:
		out.Has = max(b.Y-a.Y, a.Y-b.Y)
	default:
		out.Has = int64(math.Round(a.Dist(b)))
	}
	if s := d.Says; s != nil {
		slack := int64(0)
		if s.Min == s.Max {
			slack = Slack
		}
		out.Agrees = out.Has >= s.Min-slack && out.Has <= s.Max+slack
	}
	return out
}

// Place of a feature; not ok: it is not there.
func Place(f *design.Footprint, x design.Feature) (geom.Point, bool) {
	var box geom.Box
	switch x.Of {
	case design.OfOrigin:
		return geom.Point{}, true
	case design.OfPad:
		p := f.PadRef(x.Pad)
		if p == nil {
			return geom.Point{}, false
		}
		switch x.Spot {
		case design.Centre:
			return p.At, true
		case design.Bore:
			b := bore(p).Core()
			return b.Centre(), p.Hole > 0
		}
		box = layout.PadShape(p).Box()
		if p.Bare && p.Hole > 0 {
			box = bore(p).Box()
		}
	case design.OfBody:
		var e geom.Extent
		for _, fig := range f.Body {
			e.AddBox(geom.BoxOf(fig.Pts...).Grow(fig.R))
		}
		if len(f.Body) == 0 {
			return geom.Point{}, false
		}
		box = e.Box
	case design.OfCourtyard:
		if len(f.Courtyard) == 0 {
			return geom.Point{}, false
		}
		box = geom.BoxOf(f.Courtyard...)
	}
	c := box.Centre()
	switch x.Spot {
	case design.Left:
		return geom.Pt(box.Min.X, c.Y), true
	case design.Right:
		return geom.Pt(box.Max.X, c.Y), true
	case design.Top:
		return geom.Pt(c.X, box.Max.Y), true
	case design.Bottom:
		return geom.Pt(c.X, box.Min.Y), true
	}
	return c, true
}
