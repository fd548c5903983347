package layout

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// grown is a pad's shape made larger on every side (or smaller), its corners with it. A chamfered one
// keeps its slants at 45°.
func grown(p design.PadShape, d int64) (design.PadShape, bool) {
	p.Size.X, p.Size.Y = p.Size.X+2*d, p.Size.Y+2*d
	if p.Form == design.Chamfered {
		p.Corner += int64(math.Round(float64(d) * (2 - math.Sqrt2)))
		p.Corner = min(max(0, p.Corner), (min(p.Size.X, p.Size.Y)-1)/2)
		if p.Corner == 0 {
			p.Form = design.Rect
		}
	} else {
		p.Corner = max(0, p.Corner+d)
	}
	return p, p.Size.X > 0 && p.Size.Y > 0
}

// Opened are the places that an opening of a pad's shape leaves free: its windows, else the shape made
// larger by the margin.
func Opened(pad *design.Pad, shape design.PadShape, o *design.Opening, margin int64, t geom.Pose) (out []geom.Shape) {
	if o != nil && o.None {
		return nil
	}
	own := pad.Pose()
	if o != nil && len(o.Windows) > 0 {
		for _, w := range o.Windows {
			out = append(out, geom.Within(w).Moved(own).Moved(t))
		}
		return out
	}
	if o != nil && o.Margin != nil {
		margin = *o.Margin
	}
	if shape.Form == design.Free {
		s := geom.Within(shape.Edge)
		s.R = max(0, margin) // smaller than itself it is not made
		return []geom.Shape{s.Moved(own).Moved(t)}
	}
	if grown, ok := grown(shape, margin); ok {
		out = append(out, ShapeOf(grown, own).Moved(t))
	}
	return out
}

// OpeningsOf are the openings of a footprint in the mask, and where it gets paste, on the side its part is on. The margins
// are those of the rules for everything.
func OpeningsOf(f *design.Footprint, maskBy, pasteBy design.Amount) (mask, paste []Outline) {
	mask, paste = []Outline{}, []Outline{}
	for i := range f.Pads {
		p := &f.Pads[i]
		if p.Hole == 0 && p.Far {
			continue
		}
		if p.Bare && p.Hole > 0 {
			c := padCopper(p, i, &design.Placed{}, 2)
			s := c.Bore()
			if s.R += maskBy.Of(p.Hole); s.R > 0 {
				mask = append(mask, outline(s))
			}
			continue
		}
		shape := p.ShapeOn(design.Near)
		size := min(shape.Size.X, shape.Size.Y)
		for _, s := range Opened(p, shape, p.Mask, maskBy.Of(size), geom.Pose{}) {
			mask = append(mask, outline(s))
		}
		if p.Hole > 0 && p.Paste == nil {
			continue
		}
		for _, s := range Opened(p, shape, p.Paste, -pasteBy.Of(size), geom.Pose{}) {
			paste = append(paste, outline(s))
		}
	}
	return mask, paste
}
