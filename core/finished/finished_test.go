package finished_test

import (
	"bytes"
	"context"
	"encoding/xml"
	"fmt"
	"image/color"
	"io"
	"math"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/fab/reread"
	"goldentrace/core/finished"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

const um, mm = 1_000, 1_000_000

// random is a board of two layers with all that a face may show.
func random(t *rapid.T) *design.Doc {
	d := design.New("Shown")
	d.Next = 500
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(12*mm, 0), geom.Pt(12*mm, 9*mm), geom.Pt(0, 9*mm))
	b.CutOuts = [][]geom.Corner{geom.Corners(geom.Pt(5*mm, 4*mm), geom.Pt(6*mm, 4*mm), geom.Pt(6*mm, 5*mm), geom.Pt(5*mm, 5*mm))}
	if rapid.Bool().Draw(t, "gold") {
		var list []design.StackLayer
		for _, l := range b.Stack {
			gold := design.StackLayer{Kind: design.FinishLayer, Thickness: 1000, Material: "Gold"}
			if l.Copper() && l.ID == b.Top() {
				gold.Name = "Top finish"
				list = append(list, gold, l)
			} else if l.Copper() {
				gold.Name = "Bottom finish"
				list = append(list, l, gold)
			} else {
				list = append(list, l)
			}
		}
		b.Stack = nil
		d.Put(b.Stacked(list))
	} else {
		d.Put(&b)
	}
	nets := []design.ID{synthetic.Net(d, "GND"), synthetic.Net(d, "SIG")}
	at := func() geom.Point {
		return geom.Pt(rapid.Int64Range(8, 110).Draw(t, "x")*100*um, rapid.Int64Range(8, 80).Draw(t, "y")*100*um)
	}
	d.Put(&design.Footprint{ID: 90, Name: "F", DesignatorAt: geom.Pt(0, 1500*um), Silk: []design.Figure{{Form: "line",
		Pts: []geom.Point{geom.Pt(-mm, mm), geom.Pt(mm, mm)}}},
		Pads: []design.Pad{{ID: 1, Number: "1", Form: design.Rect, Size: geom.Pt(900*um, 600*um)},
			{ID: 2, Number: "2", Form: design.Round, Size: geom.Pt(1200*um, 1200*um), Hole: 600 * um, At: geom.Pt(1400*um, 0)}}})
	for i := range rapid.IntRange(1, 12).Draw(t, "things") {
		id := design.ID(100 + i)
		net := rapid.SampledFrom(nets).Draw(t, "net")
		bottom := rapid.Bool().Draw(t, "bottom")
		switch rapid.IntRange(0, 4).Draw(t, "what") {
		case 0:
			d.Put(&design.Placed{ID: id, Part: 2000 + id, Designator: fmt.Sprint("U", i), Footprint: "F", At: at(), Bottom: bottom,
				Angle: rapid.Int32Range(0, 7).Draw(t, "turn") * 45_000, Nets: map[string]design.ID{"1": net, "2": nets[0]}})
		case 1:
			a := at()
			d.Put(&design.Track{ID: id, Layer: d.Board.At(rapid.IntRange(0, 1).Draw(t, "layer")), A: a, B: a.Add(geom.Pt(1500*um,
				700*um)), Width: 300 * um, Net: net,
				Bare: rapid.Bool().Draw(t, "bare")})
		case 2:
			d.Put(&design.Via{ID: id, At: at(), Diameter: 800 * um, Hole: 400 * um, From: d.Board.Top(), To: d.Board.Bottom(), Net: net,
				Cover: rapid.SampledFrom([]string{design.Open, design.Tented}).Draw(t, "cover")})
		case 3:
			d.Put(&design.Legend{ID: id, At: at(), Height: 1200 * um, Text: "WEIR", Bottom: bottom})
		case 4:
			d.Put(&design.Hole{ID: id, At: at(), Diameter: 900 * um})
		}
	}
	if rapid.Bool().Draw(t, "area") {
		d.Put(&design.Pour{ID: 400, Name: "area", Net: nets[0], Layers: []design.LayerID{d.Board.Top(), d.Board.Bottom()}})
	}
	return d
}

// dark tells whether artwork draws at a place: its last mark there counts.
func dark(a *reread.Artwork, p geom.Point) (is bool) {
	for _, m := range a.Marks {
		for _, s := range m.Shapes {
			if s.Holds(p) {
				is = m.Dark
				break
			}
		}
	}
	return is
}

// over lays a colour over another.
func over(c, below color.NRGBA) color.NRGBA {
	mix := func(a, b uint8) uint8 {
		k := float64(c.A) / 255
		return uint8(math.Round(float64(a)*k + float64(b)*(1-k)))
	}
	return color.NRGBA{mix(c.R, below.R), mix(c.G, below.G), mix(c.B, below.B), 255}
}

func near(a, b color.NRGBA) bool {
	d := func(x, y uint8) bool { return max(x, y)-min(x, y) <= 16 }
	return d(a.R, b.R) && d(a.G, b.G) && d(a.B, b.B) && d(a.A, b.A)
}

// What is seen at places of the picture is what the re-read files say of them: copper, mask, silk, holes.
func TestThePictureIsWhatTheFilesSay(t *testing.T) {
	seen := map[string]int{}
	rapid.Check(t, func(t *rapid.T) {
		d := random(t)
		x, r := layout.NewIndex(d), rules.Of(d)
		fills, err := pour.Of(context.Background(), d, x, r, nil)
		require.NoError(t, err)
		files, err := handoff.Make(context.Background(), d, x, "shown", time.Date(2026, 11, 1, 12, 0, 0, 0, time.UTC), nil)
		require.NoError(t, err)
		read := func(part string) *reread.Artwork {
			for _, f := range files {
				if strings.Contains(f.Name, part) {
					a, err := reread.Gerber(f.Data)
					require.NoError(t, err)
					return a
				}
			}
			require.Fail(t, "no file", part)
			return nil
		}
		var holes []reread.Hole
		for _, f := range files {
			if strings.HasSuffix(f.Name, ".xnc") {
				dr, err := reread.Drill(f.Data)
				require.NoError(t, err)
				holes = append(holes, dr.Holes...)
			}
		}
		for _, bottom := range []bool{false, true} {
			side, layer := "top", "copper-1"
			if bottom {
				side, layer = "bottom", "copper-2"
			}
			copper, mask, silk := read(layer), read("mask-"+side), read("silk-"+side)
			v, err := finished.Board{Doc: d, Index: x, Rules: r, Fills: finished.FillsOf(fills)}.View(t.Context(), bottom, false)
			require.NoError(t, err)
			img, err := v.Image(t.Context(), 600) // 20 µm a pixel
			require.NoError(t, err)
			colours := map[string]color.NRGBA{}
			for _, c := range v.Coats {
				colours[c.Name] = c.Colour
			}
			if _, coated := colours["finish"]; !coated {
				colours["finish"] = colours["copper"]
			}
			say := func(p geom.Point) string {
				for _, h := range holes {
					if h.At.Dist(p) <= float64(h.Diameter)/2 {
						if dark(mask, h.At) {
							return "hole"
						}
						return "covered" // a hole beneath the mask
					}
				}
				switch {
				case p.X < 0 || p.Y < 0 || p.X > 12*mm || p.Y > 9*mm || p.X >= 5*mm && p.X <= 6*mm && p.Y >= 4*mm && p.Y <= 5*mm:
					return "away"
				case dark(silk, p):
					return "silk"
				case dark(mask, p) && dark(copper, p):
					return "finish"
				case dark(mask, p):
					return "laminate"
				case dark(copper, p):
					return "masked copper"
				}
				return "mask"
			}
			want := map[string]color.NRGBA{"hole": {}, "away": {}, "silk": colours["silk"], "finish": colours["finish"],
				"laminate":      colours["laminate"],
				"masked copper": over(colours["mask"], colours["copper"]), "mask": over(colours["mask"], colours["laminate"])}
			for range 250 {
				p := geom.Pt(rapid.Int64Range(0, 12_000).Draw(t, "px")*um, rapid.Int64Range(0, 9_000).Draw(t, "py")*um)
				what := say(p)
				sure := what != "covered"
				for _, by := range []geom.Point{{X: 45 * um}, {X: -45 * um}, {Y: 45 * um}, {Y: -45 * um}, {X: 33 * um, Y: 33 * um},
					{X: -33 * um, Y: -33 * um}} {
					sure = sure && say(p.Add(by)) == what
				}
				if !sure {
					continue
				}
				px, py := int(p.X/(20*um)), int((9*mm-p.Y)/(20*um))
				if bottom {
					px = int((12*mm - p.X) / (20 * um))
				}
				if px >= 600 || py >= 450 {
					continue
				}
				seen[what]++
				is := false // at the pixel or one beside it
				for _, by := range [][2]int{{0, 0}, {1, 0}, {-1, 0}, {0, 1}, {0, -1}} {
					got := img.NRGBAAt(px+by[0], py+by[1])
					is = is || want[what].A == 0 && got.A == 0 || want[what].A > 0 && near(want[what], got)
				}
				require.True(t, is, "%s at %v, below: %v: %v is %v", what, p, bottom, want[what], img.NRGBAAt(px, py))
			}
		}
	})
	for _, what := range []string{"hole", "away", "silk", "finish", "masked copper", "mask"} {
		assert.Positive(t, seen[what], what)
	}
}

// The SVG is whole XML with a group for each coat that has shapes, as large as the board.
func TestThePictureAsSVG(t *testing.T) {
	d := synthetic.FourLayers()
	x, r := layout.NewIndex(d), rules.Of(d)
	v, err := finished.Board{Doc: d, Index: x, Rules: r}.View(t.Context(), false, true)
	require.NoError(t, err)
	data, err := v.SVG(t.Context())
	require.NoError(t, err)
	coats := 0
	dec := xml.NewDecoder(bytes.NewReader(data))
	for {
		tok, err := dec.Token()
		if err == io.EOF {
			break
		}
		require.NoError(t, err)
		if e, ok := tok.(xml.StartElement); ok {
			for _, a := range e.Attr {
				if a.Name.Local == "id" && strings.HasPrefix(a.Value, "coat") {
					coats++
				}
				if e.Name.Local == "svg" && a.Name.Local == "viewBox" {
					assert.Equal(t, "0 0 40 30", a.Value)
				}
				assert.NotContains(t, a.Value, "NaN")
			}
		}
	}
	shown := 0
	for _, c := range v.Coats {
		if len(c.Shapes) > 0 {
			shown++
		}
	}
	assert.Equal(t, shown, coats)
	assert.GreaterOrEqual(t, coats, 4)
	_, err = finished.Board{Doc: design.New("bare"), Index: x, Rules: r}.View(t.Context(), false, false)
	assert.EqualError(t, err, "the board has no outline yet, so that nothing of it can be shown")
}

// Bodies hide what is beneath them, the higher the lower; parts that are not fitted or stand below are not seen from above.
func TestBodiesFromAbove(t *testing.T) {
	d := design.New("Bodies")
	d.Next = 500
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(12*mm, 0), geom.Pt(12*mm, 9*mm), geom.Pt(0, 9*mm))
	d.Put(&b)
	solid := func(material string, half, to int64) design.Solid {
		return design.Solid{Form: design.Prism, Material: material, From: 0, To: to,
			Edge: geom.Corners(geom.Pt(-half, -half), geom.Pt(half, -half), geom.Pt(half, half), geom.Pt(-half, half))}
	}
	d.Put(&design.Footprint{ID: 90, Name: "High", Solids: []design.Solid{solid("metal", 500*um, 5*mm), solid("body", 1500*um, 2*mm)}})
	d.Put(&design.Footprint{ID: 91, Name: "Low", Solids: []design.Solid{solid("ceramic", 1500*um, 1*mm)}})
	put := func(id design.ID, f string, x int64, bottom, left bool) {
		d.Put(&design.Placed{ID: id, Part: 1000 + id, Designator: fmt.Sprint("U", id), Footprint: f, At: geom.Pt(x, 4500*um),
			Bottom: bottom, NotFitted: left})
	}
	put(100, "High", 3*mm, false, false)
	put(101, "Low", 4*mm, false, false)
	put(102, "Low", 8*mm, true, false)
	put(103, "Low", 10*mm, false, true)
	v, err := finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}.View(t.Context(), false, true)
	require.NoError(t, err)
	img, err := v.Image(t.Context(), 1200)
	require.NoError(t, err)
	at := func(x, y int64) color.NRGBA { return img.NRGBAAt(int(x/(10*um)), int((9*mm-y)/(10*um))) }
	of := map[string]color.NRGBA{}
	for _, c := range v.Coats {
		if !strings.Contains(c.Name, "edges") {
			of[fmt.Sprint(c.Name, len(c.Shapes), c.Colour)] = c.Colour
		}
	}
	metal, body, ceramic, mask := at(3*mm, 4500*um), at(3*mm+800*um, 4500*um), at(5*mm+200*um, 4500*um), at(7*mm, 1*mm)
	assert.NotEqual(t, metal, body, "the metal is higher")
	assert.NotEqual(t, body, ceramic, "the higher part hides the lower one")
	assert.Equal(t, body, at(3*mm+1200*um, 4500*um), "over the lower one too")
	assert.NotEqual(t, ceramic, mask)
	assert.Equal(t, mask, at(8*mm, 5700*um), "that below is not seen")
	assert.Equal(t, mask, at(10*mm, 5700*um), "nor one that is not fitted")
}
