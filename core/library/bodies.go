package library

import (
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// Bodies in space of the footprints that were drawn by hand: those of their packages, else what their outlines enclose.

// tall is how high the components of drawn footprints are over the board, in millimetres, and of what they are. The first whose
// name begins so counts.
var tall = []struct {
	name     string
	height   float64
	material string
}{
	{"Axial", 2.5, "ceramic"}, {"Disc", 4.5, "ceramic"}, {"Can", 11, "metal"}, {"LED 5", 8.6, "glass"}, {"TO-92", 4.9, "body"}, {"Toggle", 9.5, "metal"}, {"Screw terminal", 10, "socket"},
	{"Header", 2.5, "socket"}, {"Coil", 4.5, "ceramic"}, {"Crystal", 0.8, "metal"}, {"Coin cell", 5, "metal"}, {"Relay", 15.5, "body"}, {"Service port", 3.2, "metal"}, {"Supply socket", 11, "body"}, {"DFN", 0.8, "body"},
	{"Button 6", 4.3, "metal"}, {"Button 5", 1.5, "metal"}, {"Slide switch", 3.5, "metal"}, {"Battery plug", 6, "socket"},
}

// giveBody gives a drawn footprint its body in space.
func giveBody(f *design.Footprint) {
	if r := PackageNamed(f.Name); r != nil {
		if made, err := landpattern.Footprint(r); err == nil {
			f.Solids = turnedTo(made, f)
			return
		}
	}
	for _, t := range tall {
		if strings.HasPrefix(f.Name, t.name) {
			f.Solids = fromOutline(f, units.MMf(t.height), t.material)
			return
		}
	}
}

// turnedTo are the solids of a footprint, turned by quarters until its first pad lies as near as can be to that of another one.
func turnedTo(from, to *design.Footprint) []design.Solid {
	first := func(f *design.Footprint) geom.Point {
		for i := range f.Pads {
			if f.Pads[i].Number == "1" {
				return f.Pads[i].At
			}
		}
		return geom.Point{}
	}
	best, at := geom.Pose{}, -1.0
	for quarter := range int32(4) {
		p := geom.Pose{Angle: quarter * 90_000}
		if d := p.Apply(first(from)).Dist(first(to)); at < 0 || d < at {
			best, at = p, d
		}
	}
	var out []design.Solid
	for _, s := range from.Solids {
		s.A, s.B = best.Apply(s.A), best.Apply(s.B)
		s.Edge = best.ApplyCorners(s.Edge)
		out = append(out, s)
	}
	return out
}

// fromOutline stands a footprint's outline upright, with the leads that its holes are for.
func fromOutline(f *design.Footprint, height int64, material string) []design.Solid {
	var out []design.Solid
	for i, g := range f.Body {
		s := design.Solid{Form: design.Prism, Material: material, From: 50 * units.Micrometre, To: height}
		switch {
		case g.Form == "circle" && len(g.Pts) == 1:
			if i > 0 && g.R < 2*units.MM { // a mark on the outline
				continue
			}
			c := g.Pts[0]
			left, right := geom.Pt(c.X-g.R, c.Y), geom.Pt(c.X+g.R, c.Y)
			above, below := geom.Pt(c.X, c.Y+g.R), geom.Pt(c.X, c.Y-g.R)
			s.Edge = []geom.Corner{{Point: left, Mid: &below}, {Point: right, Mid: &above}}
		case len(g.Pts) >= 4:
			pts := g.Pts
			if pts[0] == pts[len(pts)-1] {
				pts = pts[:len(pts)-1]
			}
			for _, p := range pts {
				s.Edge = append(s.Edge, geom.Corner{Point: p})
			}
		default:
			continue
		}
		if len(out) > 0 { // what lies within the first is lower
			s.To = height / 2
		}
		out = append(out, s)
	}
	for i := range f.Pads {
		if p := &f.Pads[i]; p.Hole > 0 && !p.Bare {
			h := p.Hole / 3
			out = append(out, design.Solid{Form: design.Prism, Material: "lead", From: -2 * units.MM, To: units.MM, Edge: geom.Corners(
				geom.Pt(p.At.X-h, p.At.Y-h), geom.Pt(p.At.X+h, p.At.Y-h), geom.Pt(p.At.X+h, p.At.Y+h), geom.Pt(p.At.X-h, p.At.Y+h))})
		}
	}
	return out
}
