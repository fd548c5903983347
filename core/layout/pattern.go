package layout

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Outline is everything within R of the line through the corners, or of what that line bounds.
type Outline struct {
	Corners []geom.Corner `json:"corners"`
	Area    bool          `json:"area,omitempty"` // the line is closed, and what is within belongs to it
	R       int64         `json:"r,omitempty"`    // nanometres
}

// PadOutlines are the copper and the hole of a pad.
type PadOutlines struct {
	On     map[string]Outline `json:"on,omitempty"`     // by group of layers: a surface pad's one, and what differs from Barrel
	Barrel *Outline           `json:"barrel,omitempty"` // of a plated hole, on all layers but those of On
	Bore   *Outline           `json:"bore,omitempty"`   // the hole
}

// Pattern is what a footprint looks like on the board, in its own coordinates as seen from the side its
// part is on.
type Pattern struct {
	Footprint design.ID     `json:"footprint"`
	Pads      []PadOutlines `json:"pads"`      // as in the footprint
	Silk      []Outline     `json:"silk"`      // within R of the line, whatever it bounds; R 0: as wide as the rule for silk says
	Courtyard []geom.Point  `json:"courtyard"` // see Courtyard
}

// PatternOf makes the pattern of a footprint.
func PatternOf(f *design.Footprint) Pattern {
	out := Pattern{Footprint: f.ID, Pads: []PadOutlines{}, Silk: []Outline{}, Courtyard: Courtyard(f, geom.Pose{})}
	const layers = 3 // one of each group
	where := groups(layers, false)
	for i := range f.Pads {
		c := padCopper(&f.Pads[i], i, &design.Placed{}, layers)
		var p PadOutlines
		if c.Hole > 0 {
			bore := outline(c.Bore())
			p.Bore = &bore
		}
		if c.Hole > 0 && !c.Bare {
			barrel := outline(c.Shape)
			p.Barrel = &barrel
		}
		for group, on := range where {
			if c.Bare || c.Layers&on == 0 {
				continue
			}
			if s := c.Levels(on)[0].Shape; c.Hole == 0 || hasOwn(&f.Pads[i], group) {
				if p.On == nil {
					p.On = map[string]Outline{}
				}
				p.On[group] = outline(s)
			}
		}
		out.Pads = append(out.Pads, p)
	}
	for _, fig := range f.Silk {
		o := figureOutline(fig)
		o.R = fig.Width / 2
		out.Silk = append(out.Silk, o)
	}
	return out
}

// hasOwn tells whether a pad has a shape of its own on a group of layers.
func hasOwn(p *design.Pad, group string) bool {
	_, ok := p.On[group]
	return ok
}

func outline(s geom.Shape) Outline {
	out := Outline{Corners: geom.Corners(s.Pts...), Area: s.Area, R: s.R}
	for i := range s.Mids {
		if p := s.Side(i); p.Round() {
			out.Corners[i].Mid = &p.M
		}
	}
	return out
}

// figureOutline is the middle line of a figure, arcs as arcs.
func figureOutline(f design.Figure) Outline {
	switch f.Form {
	case "circle":
		c, r := f.Pts[0], geom.Pt(f.R, 0)
		up := geom.Pt(0, f.R)
		return Outline{Corners: []geom.Corner{c.Add(r).Through(c.Add(up)), c.Sub(r).Through(c.Sub(up))}, Area: true}
	case "arc":
		return Outline{Corners: []geom.Corner{f.Pts[0].Through(f.Pts[1]), {Point: f.Pts[2]}}}
	case "area", "solid":
		return Outline{Corners: geom.Corners(f.Pts...), Area: true}
	}
	return Outline{Corners: geom.Corners(f.Pts...)}
}
