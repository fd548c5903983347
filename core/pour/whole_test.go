package pour_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/require"
	"github.com/twpayne/go-geos"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
)

// copperOf is all copper of a net on a layer: what areas fill of it, and its pads, as one set, by GEOS alone.
func copperOf(c *geos.Context, f *pour.Fills, x *layout.Index, net design.ID, keys ...pour.Key) *geos.Geom {
	var all []*geos.Geom
	polygon := func(rings ...[]geom.Point) {
		var out [][][]float64
		for _, r := range rings {
			line := make([][]float64, 0, len(r)+1)
			for _, q := range r {
				line = append(line, []float64{float64(q.X), float64(q.Y)})
			}
			out = append(out, append(line, line[0]))
		}
		all = append(all, c.NewPolygon(out))
	}
	for _, k := range keys {
		for _, is := range f.Islands(k) {
			if areas, err := is.Whole(); err == nil && is.Stays {
				for _, a := range areas {
					polygon(append([][]geom.Point{a.Outer}, a.Holes...)...)
				}
			}
		}
	}
	for _, p := range x.NetPieces(net) {
		if p.Kind == "pad" || p.Kind == "via" {
			s := p.On(0)
			var g *geos.Geom
			switch {
			case s.Area:
				line := [][]float64{}
				for _, q := range s.Edges().Flat(500, false) {
					line = append(line, []float64{float64(q.X), float64(q.Y)})
				}
				g = c.NewPolygon([][][]float64{append(line, line[0])}).Buffer(float64(s.R), 32)
			case len(s.Pts) == 1:
				g = c.NewPoint([]float64{float64(s.Pts[0].X), float64(s.Pts[0].Y)}).Buffer(float64(s.R), 32)
			default:
				a, b := s.Pts[0], s.Pts[1]
				g = c.NewLineString([][]float64{{float64(a.X), float64(a.Y)}, {float64(b.X), float64(b.Y)}}).Buffer(float64(s.R), 32)
			}
			all = append(all, g)
		}
	}
	return c.NewCollection(geos.TypeIDMultiPolygon, all).UnaryUnion()
}

// wants tells what is wrong with copper: a neck thinner than the least width that something hangs on, or a hole too small to be etched.
func wants(copper *geos.Geom, least float64) string {
	parts := func(g *geos.Geom) (n int) {
		for i := range g.NumGeometries() {
			if g.Geometry(i).Area() > math.Pi*least*least/64 { // more than what is left of a bare end
				n++
			}
		}
		return n
	}
	whole := parts(copper)
	if shrunk := copper.Buffer(-0.47*least, 16); parts(shrunk) > whole {
		return fmt.Sprintf("a neck: %d pieces fall into %d", whole, parts(shrunk))
	}
	for i := range copper.NumGeometries() {
		g := copper.Geometry(i)
		for h := range g.NumInteriorRings() {
			hole := g.InteriorRing(h)
			box := hole.Bounds()
			if x, y := box.MaxX-box.MinX, box.MaxY-box.MinY; max(x, y) < least && min(x, y) > 3_000 { // chords stray by less
				return fmt.Sprintf("a hole of %.0f by %.0f µm at %.3f, %.3f", (box.MaxX-box.MinX)/1000, (box.MaxY-box.MinY)/1000, box.MinX/1e6, box.MinY/1e6)
			}
		}
	}
	return ""
}

// No copper is thinner than the least width, spokes and all, and no hole is smaller: for pads of every form, turned by any angle, one beside another or alone, with
// spokes of any width from the least on.
func TestTheWholeOutcomeKeepsTheLeastWidth(t *testing.T) {
	forms := []string{design.Round, "rect", design.Rounded, design.Oval, design.Chamfered}
	rapid.Check(t, func(t *rapid.T) {
		d, gnd, sig := plate(12, 10)
		var p *design.Pour
		for p = range d.Pours.All() {
		}
		q := *p
		q.LeastWidth = rapid.Int64Range(150, 300).Draw(t, "least") * 1000
		q.Spokes = design.Spokes{Width: q.LeastWidth + rapid.Int64Range(0, 300).Draw(t, "wider")*1000,
			Gap:   rapid.Int64Range(150, 400).Draw(t, "gap") * 1000,
			Angle: int32(rapid.IntRange(0, 89).Draw(t, "spokes")) * 1000}
		q.Join = design.BySpokes
		d.Put(&q)
		for i := range rapid.IntRange(1, 3).Draw(t, "pads") {
			form := rapid.SampledFrom(forms).Draw(t, "form")
			w, h := rapid.Int64Range(400, 2000).Draw(t, "w")*1000, rapid.Int64Range(400, 2000).Draw(t, "h")*1000
			pad := design.Pad{Number: "1", Form: form, Size: geom.Pt(w, h), Angle: int32(rapid.IntRange(0, 179).Draw(t, "turn")) * 1000}
			switch form {
			case design.Round:
				pad.Size = geom.Pt(w, w)
			case design.Rounded:
				pad.Corner = min(w, h) / 4
			case design.Chamfered:
				pad.Corner, pad.Cut = min(w, h)/4, 1
			}
			name := fmt.Sprint("F", i)
			d.Put(&design.Footprint{ID: d.NewID(), Name: name, Pads: []design.Pad{pad}})
			net := gnd
			if i == 2 {
				net = sig
			}
			d.Put(&design.Placed{ID: d.NewID(), Part: design.ID(900 + i), Designator: fmt.Sprint("P", i), Footprint: name,
				At:   geom.Pt(int64(3000+2000*i)*1000+rapid.Int64Range(-700, 1500).Draw(t, "x")*1000, rapid.Int64Range(4000, 6000).Draw(t, "y")*1000),
				Nets: map[string]design.ID{"1": net}})
		}
		x := layout.NewIndex(d)
		for a := range x.All() {
			for b := range x.All() {
				if gap, _, _ := geom.Gap(a.On(0), b.On(0)); a != b && gap < 50_000 {
					t.Skip("pads of two parts do not overlap")
				}
			}
		}
		f := filled2(t, d)
		c := geos.NewContext()
		k := pour.Key{Pour: q.ID, Layer: q.Layers[0]}
		if wrong := wants(copperOf(c, f, x, gnd, k), float64(q.LeastWidth)); wrong != "" {
			t.Fatal(wrong)
		}
	})
}

// The same holds where two areas of a net meet, whatever the angle at which their edges cross and however little they lie over each other; a
// change of one is followed by the other.
func TestAreasOfOneNetAreOneWhereTheyMeet(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d, gnd, sig := plate(14, 12)
		var p *design.Pour
		for p = range d.Pours.All() {
		}
		rect := func(w, h int64, at geom.Point, turn int32) []geom.Corner {
			pose := geom.Pose{At: at, Angle: turn}
			return geom.Corners(pose.ApplyAll([]geom.Point{geom.Pt(0, 0), geom.Pt(w, 0), geom.Pt(w, h), geom.Pt(0, h)})...)
		}
		q := *p
		q.LeastWidth = rapid.Int64Range(150, 300).Draw(t, "least") * 1000
		q.Join = design.Solidly
		q.Outline = rect(6_000_000, 5_000_000, geom.Pt(2_000_000, 2_000_000), 0)
		d.Put(&q)
		other := q
		other.ID, other.Name = d.NewID(), "beside it"
		at := geom.Pt(8_000_000-rapid.Int64Range(1, 600).Draw(t, "over")*1000, 7_000_000-rapid.Int64Range(1, 600).Draw(t, "high")*1000)
		other.Outline = rect(3_500_000, 3_000_000, at, int32(rapid.IntRange(-25, 25).Draw(t, "turn"))*1000)
		was := other
		was.Outline = rect(1_000_000, 1_000_000, geom.Pt(12_000_000, 500_000), 0)
		later := rapid.Bool().Draw(t, "later")
		if later {
			d.Put(&was)
		} else {
			d.Put(&other)
		}
		for i, place := range []geom.Point{geom.Pt(3_000_000, 3_000_000), at.Add(geom.Pt(1_500_000, 1_800_000))} {
			d.Put(&design.Via{ID: d.NewID(), At: place, Diameter: 600_000, Hole: 300_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: gnd})
			beside := geom.Pt(rapid.Int64Range(-1500, 1500).Draw(t, fmt.Sprint("x", i))*1000, rapid.Int64Range(-1500, 1500).Draw(t, fmt.Sprint("y", i))*1000)
			d.Put(&design.Via{ID: d.NewID(), At: at.Add(beside), Diameter: 500_000, Hole: 250_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: sig})
		}
		x := layout.NewIndex(d)
		f := filled2(t, d)
		if later {
			d.Put(&other)
			f.Pour(&was, &other)
			_, err := f.Fill(t.Context(), nil)
			require.NoError(t, err)
		}
		c := geos.NewContext()
		k := pour.Key{Pour: q.ID, Layer: q.Layers[0]}
		if wrong := wants(copperOf(c, f, x, gnd, k, pour.Key{Pour: other.ID, Layer: k.Layer}), float64(q.LeastWidth)); wrong != "" {
			t.Fatal(wrong)
		}
	})
}

func filled2(t *rapid.T, d *design.Doc) *pour.Fills {
	require.NoError(t, d.Whole())
	f, err := pour.Of(t.Context(), d, layout.NewIndex(d), rules.Of(d), nil)
	require.NoError(t, err)
	return f
}
