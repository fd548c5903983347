package gerber

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// common file attributes of one board's files.
func common(title, stamp string) []string {
	return []string{"TF.GenerationSoftware,Golden Trace,goldentrace,1", "TF.CreationDate," + stamp,
		"TF.ProjectId," + Escape(title) + ",474f4c44-454e-5452-4143-450000000001,A", "TF.SameCoordinates,GoldenTrace"}
}

// Job is what all the files of one board share.
type Job struct {
	Doc   *design.Doc
	Index *layout.Index
	Stamp string // when it was made, RFC 3339
}

func (j Job) plot(function, polarity string) *Plot {
	return NewPlot(function, polarity, common(j.Doc.Settings.Title, j.Stamp)...)
}

// Copper draws one copper layer.
func (j Job) Copper(layer int) []byte {
	n := len(j.Doc.Board.CopperNames())
	side := "Inr"
	switch {
	case n == 1 && !j.Doc.Board.Stack[0].Copper: // the only copper lies below
		side = "Bot"
	case layer == 0:
		side = "Top"
	case layer == n-1:
		side = "Bot"
	}
	p := j.plot(fmt.Sprintf("Copper,L%d,%s", layer+1, side), "Positive")
	for part := range j.Doc.Placed.All() {
		for _, c := range j.Index.Of(part.ID) {
			if !c.On(layer) || c.Bare {
				continue
			}
			pad := &j.Doc.Footprint(part.Footprint).Pads[c.Pad]
			attrs := map[string]string{"P": Escape(part.Designator) + "," + Escape(pad.Number), "C": Escape(part.Designator)}
			if c.Net != "" {
				attrs["N"] = Escape(c.Net)
			} else {
				attrs["N"] = "N/C"
			}
			p.Object(attrs)
			function := "ComponentPad"
			if pad.Hole == 0 {
				function = "SMDPad,CuDef"
			}
			p.Flash(function, c.Shape, c.At)
		}
	}
	for t := range j.Doc.Tracks.All() {
		if t.Layer == layer {
			p.Object(map[string]string{"N": Escape(t.Net)})
			p.Line("Conductor", t.Width, t.A, t.B)
		}
	}
	for v := range j.Doc.Vias.All() {
		if v.From <= layer && layer <= v.To {
			p.Object(map[string]string{"N": Escape(v.Net)})
			p.Flash("ViaPad", geom.Disc(v.At, v.Diameter/2), v.At)
		}
	}
	return p.Bytes()
}

// grown is the pad with its copper made larger on every side (or smaller), corners with it.
func grown(p design.Pad, d int64) (design.Pad, bool) {
	p.Size.X, p.Size.Y = p.Size.X+2*d, p.Size.Y+2*d
	p.Corner = max(0, p.Corner+d)
	return p, p.Size.X > 0 && p.Size.Y > 0
}

// openings lists the mask openings of one side.
func (j Job) openings(bottom bool) (out []geom.Shape, middles []geom.Point) {
	margin := j.Doc.Board.Rules.MaskMargin
	for part := range j.Doc.Placed.All() {
		f := j.Doc.Footprint(part.Footprint)
		for i := range f.Pads {
			pad := f.Pads[i]
			if pad.Hole == 0 && part.Bottom != bottom {
				continue
			}
			if pad.Bare {
				pad = design.Pad{Form: "round", At: pad.At, Size: geom.Pt(pad.Hole, pad.Hole)}
			}
			if pad, ok := grown(pad, margin); ok {
				out = append(out, layout.Moved(layout.PadShape(&pad), part.Pose()))
				middles = append(middles, part.Pose().Apply(pad.At))
			}
		}
	}
	for h := range j.Doc.Holes.All() {
		out, middles = append(out, geom.Disc(h.At, h.Diameter/2+margin)), append(middles, h.At)
	}
	return out, middles
}

func side(bottom bool) string {
	if bottom {
		return "Bot"
	}
	return "Top"
}

// Mask draws the openings of the solder mask; vias are covered.
func (j Job) Mask(bottom bool) []byte {
	p := j.plot("Soldermask,"+side(bottom), "Negative")
	shapes, middles := j.openings(bottom)
	for i, s := range shapes {
		p.Flash("", s, middles[i])
	}
	return p.Bytes()
}

// Paste draws where solder paste goes: on the surface pads of one side.
func (j Job) Paste(bottom bool) []byte {
	p := j.plot("Paste,"+side(bottom), "Positive")
	for part := range j.Doc.Placed.All() {
		f := j.Doc.Footprint(part.Footprint)
		for i := range f.Pads {
			if f.Pads[i].Hole > 0 || part.Bottom != bottom {
				continue
			}
			if pad, ok := grown(f.Pads[i], -j.Doc.Board.Rules.PasteMargin); ok {
				p.Flash("", layout.Moved(layout.PadShape(&pad), part.Pose()), part.Pose().Apply(pad.At))
			}
		}
	}
	return p.Bytes()
}

// Silk draws what is printed on one side; it is cleared where the mask is open.
func (j Job) Silk(bottom bool) []byte {
	p := j.plot("Legend,"+side(bottom), "Positive")
	width := j.Doc.Board.Rules.SilkWidth
	for part := range j.Doc.Placed.All() {
		if part.Bottom == bottom {
			p.Object(map[string]string{"C": Escape(part.Designator)})
			for _, l := range layout.SilkLines(j.Doc, part) {
				p.Line("", width, l...)
			}
		}
	}
	p.Object(nil)
	for t := range j.Doc.Legends.All() {
		if t.Bottom == bottom {
			for _, l := range layout.TextLines(t.Text, t.Height, t.At, t.Angle, t.Bottom) {
				p.Line("", max(width, t.Height/8), l...)
			}
		}
	}
	shapes, middles := j.openings(bottom)
	p.Polarity(len(shapes) == 0)
	for i, s := range shapes {
		p.Flash("", s, middles[i])
	}
	return p.Bytes()
}

// Outline draws the board's edge as a closed line of 0.1 mm.
func (j Job) Outline() []byte {
	p := j.plot("Profile,NP", "")
	if o := j.Doc.Board.Outline; len(o) > 2 {
		p.Line("Profile", 100_000, append(append([]geom.Point{}, o...), o[0])...)
	}
	return p.Bytes()
}
