package gerber

import (
	"cmp"
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
)

// Project names the project that files are of, as the job file and all artwork say it.
type Project struct {
	Name, GUID, Revision string
}

// attributes of a file of the project's.
func (p Project) attributes(stamp string) []string {
	return []string{"TF.GenerationSoftware,Golden Trace,goldentrace,1", "TF.CreationDate," + stamp,
		"TF.ProjectId," + Escape(p.Name) + "," + Escape(p.GUID) + "," + Escape(p.Revision), "TF.SameCoordinates,GoldenTrace"}
}

// Job is what all the files of one board share.
type Job struct {
	Doc     *design.Doc
	Index   *layout.Index
	Rules   *rules.Set
	Fills   *pour.Fills // what copper areas fill; nil: there are none
	Stamp   string      // when it was made, RFC 3339
	Project Project
}

func (j Job) plot(function, polarity string) *Plot {
	return NewPlot(function, polarity, j.Project.attributes(j.Stamp)...)
}

// Copper draws one copper layer.
func (j Job) Copper(layer int) []byte {
	n := j.Doc.Board.Layers()
	side := "Inr"
	switch {
	case j.Doc.Board.OnlyBelow():
		side = "Bot"
	case layer == 0:
		side = "Top"
	case layer == n-1:
		side = "Bot"
	}
	p := j.plot(fmt.Sprintf("Copper,L%d,%s", layer+1, side), "Positive")
	j.pours(p, layer)
	for part := range j.Doc.Placed.All() {
		for _, c := range j.Index.Of(part.ID) {
			if !c.Has(layer) || c.Bare {
				continue
			}
			pad := &j.Doc.Footprint(part.Footprint).Pads[c.Pad]
			attrs := map[string]string{"P": Escape(part.Designator) + "," + Escape(pad.Number), "C": Escape(part.Designator)}
			if c.Net != 0 {
				attrs["N"] = Escape(j.Doc.NetName(c.Net))
			} else {
				attrs["N"] = "N/C"
			}
			p.Object(attrs)
			function := "ComponentPad"
			if pad.Hole == 0 {
				function = "SMDPad,CuDef"
			}
			p.Put(function, c.On(layer), c.At)
		}
	}
	for h := range j.Doc.Holes.All() {
		if h.Land > 0 { // a washer's: of no net
			p.Object(map[string]string{"N": "N/C"})
			p.Put("WasherPad", j.Index.Of(h.ID)[0].On(layer), h.At)
		}
	}
	id := j.Doc.Board.At(layer)
	for t := range j.Doc.Tracks.All() {
		if t.Layer == id {
			p.Object(map[string]string{"N": Escape(j.Doc.NetName(t.Net))})
			p.Pieces("Conductor", t.Width, geom.Ring{t.Piece()})
		}
	}
	for v := range j.Doc.Vias.All() {
		for _, c := range j.Index.Of(v.ID) {
			if c.Has(layer) {
				p.Object(map[string]string{"N": Escape(j.Doc.NetName(v.Net))})
				p.Flash("ViaPad", c.On(layer), v.At)
			}
		}
	}
	for _, o := range j.drawn(design.OnCopper, false, id) {
		p.Object(map[string]string{"N": "N/C"})
		for _, c := range j.Index.Of(o.ObjectID()) {
			function := "NonConductor"
			if c.Thing == design.AFiducial {
				function = "FiducialPad,Global"
			}
			p.Draw(function, c.Shape)
		}
	}
	return p.Bytes()
}

// pours draws what copper areas fill on a layer, and teardrops: regions, to whose holes cuts of no width lead.
func (j Job) pours(p *Plot, layer int) {
	if j.Fills == nil {
		return
	}
	for _, k := range j.Fills.Keys() {
		if k.Layer != j.Doc.Board.At(layer) {
			continue
		}
		for _, is := range j.Fills.Islands(k) {
			if !is.Stays {
				continue
			}
			p.Object(map[string]string{"N": Escape(j.Doc.NetName(j.Fills.Net(k, is)))})
			areas, err := is.Whole()
			if err != nil {
				panic(err) // whoever makes the files is told
			}
			for _, a := range areas {
				p.Draw("Conductor", geom.Shape{Pts: a.One(), Area: true})
			}
		}
	}
}

// put puts an opening down.
func (p *Plot) put(o surface.Opening) {
	if o.Drawn {
		p.Draw("", o.Shape)
	} else {
		p.Put("", o.Shape, o.Middle)
	}
}

// surface is what lies on the faces.
func (j Job) surface() surface.Board {
	return surface.Board{Doc: j.Doc, Index: j.Index, Rules: j.Rules}
}

// drawn are the texts and figures on a surface of a side, or on a copper layer.
func (j Job) drawn(on string, bottom bool, layer design.LayerID) (out []design.Object) {
	for l := range j.Doc.Legends.All() {
		if l.On == on && l.Layer == layer && (layer > 0 || l.Bottom == bottom) {
			out = append(out, l)
		}
	}
	for f := range j.Doc.Figures.All() {
		if f.On == on && f.Layer == layer && (layer > 0 || f.Bottom == bottom) {
			out = append(out, f)
		}
	}
	return out
}

// openings lists the mask openings of one side.
func (j Job) openings(bottom bool) (out []surface.Opening) {
	f := j.surface()
	for o := range surface.Objects(j.Doc) {
		out = append(out, f.Openings(o, bottom)...)
	}
	return out
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
	for _, o := range j.openings(bottom) {
		p.put(o)
	}
	return p.Bytes()
}

// Paste draws where solder paste goes: on the surface pads of one side.
func (j Job) Paste(bottom bool) []byte {
	p := j.plot("Paste,"+side(bottom), "Positive")
	f := j.surface()
	for o := range surface.Objects(j.Doc) {
		for _, paste := range f.Pastes(o, bottom) {
			p.put(paste)
		}
	}
	return p.Bytes()
}

// Silk draws what is printed on one side; it is cleared where the mask is open. What is to be kept off
// that comes first, the farthest first, and is cleared as far around.
func (j Job) Silk(bottom bool) []byte {
	p := j.plot("Legend,"+side(bottom), "Positive")
	f := j.surface()
	width := f.SilkWidth(bottom)
	list := j.openings(bottom)
	silk := map[int64][]geom.Shape{}
	for _, o := range j.drawn(design.OnSilk, bottom, 0) {
		for _, print := range f.Silk(o, bottom) {
			silk[print.Apart] = append(silk[print.Apart], print.Shape)
		}
	}
	last := silk[0]
	delete(silk, 0)
	for _, apart := range slices.Backward(slices.Sorted(maps.Keys(silk))) {
		for _, s := range silk[apart] {
			p.Draw("", s)
		}
		p.Polarity(len(list) == 0)
		for _, o := range list {
			o.Shape.R += apart
			p.put(o)
		}
		p.Polarity(true)
	}
	for part := range j.Doc.Placed.All() {
		if part.Bottom == bottom {
			p.Object(map[string]string{"C": Escape(part.Designator)})
			for _, l := range layout.SilkPieces(j.Doc, part) {
				p.Pieces("", cmp.Or(l.Width, width), l.Line)
			}
		}
	}
	p.Object(nil)
	for _, s := range last {
		p.Draw("", s)
	}
	p.Polarity(len(list) == 0)
	for _, o := range list {
		p.put(o)
	}
	return p.Bytes()
}

// Outline draws the board's edge, its cut-outs too, as closed lines of 0.1 mm.
func (j Job) Outline() []byte {
	p := j.plot("Profile,NP", "")
	if r := j.Doc.Board.Region(); len(r.Outer) > 0 {
		for _, ring := range append([]geom.Ring{r.Outer}, r.Holes...) {
			p.Pieces("Profile", 100_000, ring)
		}
	}
	return p.Bytes()
}
