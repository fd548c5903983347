package glance_test

import (
	"encoding/base64"
	"encoding/xml"
	"fmt"
	"image"
	"image/png"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/glance"
	"goldentrace/demo"
)

// view is the part of the plane that an SVG shows, in millimetres: x, y, width, height.
func view(t *testing.T, svg []byte) [4]float64 {
	t.Helper()
	var doc struct {
		Box string `xml:"viewBox,attr"`
	}
	require.NoError(t, xml.Unmarshal(svg, &doc))
	var out [4]float64
	for i, f := range strings.Fields(doc.Box) {
		v, err := strconv.ParseFloat(f, 64)
		require.NoError(t, err)
		out[i] = v
	}
	return out
}

// A board is drawn at its places, seen from above: y runs upwards on the board and downwards in
// the picture, the lower copper first, silk of the upper side last.
func TestPictureOfABoard(t *testing.T) {
	d := design.New("board")
	d.Board.Outline = geom.Corners(geom.Pt(10e6, 20e6), geom.Pt(50e6, 20e6), geom.Pt(50e6, 40e6), geom.Pt(10e6, 40e6))
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{{Number: "1", Form: "round", Size: geom.Pt(2e6, 2e6), Hole: 1e6}},
		Silk: []design.Figure{{Form: "line", Pts: []geom.Point{{X: -3e6}, {X: 3e6}}}}})
	d.Put(&design.Placed{ID: d.NewID(), Footprint: "F", Designator: "R1", At: geom.Pt(20e6, 25e6)})
	d.Put(&design.Placed{ID: d.NewID(), Footprint: "F", Designator: "R2", At: geom.Pt(90e6, 25e6)}) // still beside the board
	d.Put(&design.Track{ID: d.NewID(), A: geom.Pt(20e6, 25e6), B: geom.Pt(40e6, 35e6), Width: 500_000, Layer: d.Board.Bottom()})
	svg, of := glance.Picture(d, circuit.Find(d))
	assert.Equal(t, "board", of)
	assert.Equal(t, [4]float64{8.5, 18.5, 43, 23}, view(t, svg), "the outline and 1.5 mm around")
	s := string(svg)
	assert.Contains(t, s, `d="M10 40L50 40L50 20L10 20Z"`, "mirrored within its own height")
	assert.Contains(t, s, `<path d="M20 35L40 25" fill="none" stroke-width="0.5"/>`)
	assert.Contains(t, s, `<circle cx="20" cy="35" r="1" stroke="none"/>`)
	assert.Contains(t, s, `<circle cx="20" cy="35" r="0.5" fill="#17131E"`, "its bore")
	assert.Contains(t, s, "M17 35L23 35", "its silk")
	assert.NotContains(t, s, `cx="90"`)
	lower, upper := strings.Index(s, "#35B7A6"), strings.Index(s, "#E7B549")
	assert.True(t, 0 < lower && lower < upper, "the upper copper lies over the lower")
}

// What has no board yet shows its first sheet on which anything stands, cut to it; what has
// nothing shows nothing; an outline alone is a board.
func TestPictureOfACircuit(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	for _, k := range []design.Kind{design.KindPlaced, design.KindHole, design.KindLegend, design.KindFigure, design.KindDimension} { // as if it had no board yet
		for o := range d.Share().All(k) {
			d.Remove(k, o.ObjectID())
		}
	}
	board := *d.Board
	board.Outline = nil
	d.Put(&board)
	svg, of := glance.Picture(d, circuit.Find(d))
	assert.Equal(t, "circuit", of)
	box := view(t, svg)
	assert.Less(t, box[2], 420.0, "without the frame of its A3 sheet")
	assert.Contains(t, string(svg), ">Controller<")
	assert.False(t, regexp.MustCompile(`>Document<`).Match(svg), "and without the title block")

	empty := design.New("nothing")
	svg, of = glance.Picture(empty, circuit.Find(empty))
	assert.Nil(t, svg)
	assert.Empty(t, of)
	outline, err := design.FromTemplate("twoSided", "x")
	require.NoError(t, err)
	_, of = glance.Picture(outline, circuit.Find(outline))
	assert.Equal(t, "board", of)
}

// Copper lies in the picture as in the stack: the lowest first, each layer in its colour; a
// board of one layer is drawn in the first one's.
func TestLayersOfThePicture(t *testing.T) {
	outline := geom.Corners(geom.Pt(0, 0), geom.Pt(40e6, 0), geom.Pt(40e6, 20e6), geom.Pt(0, 20e6))
	of := func(template string, layers ...int) string {
		d, err := design.FromTemplate(template, "x")
		require.NoError(t, err)
		d.Board.Outline = outline
		for _, l := range layers {
			y := int64(l+1) * 4e6
			d.Put(&design.Track{ID: d.NewID(), A: geom.Pt(5e6, y), B: geom.Pt(9e6, y), Width: 500_000, Layer: d.Board.At(l)})
		}
		return string(glance.Board(d))
	}
	// where the groups of copper begin, and the tracks in them
	groups := regexp.MustCompile(`<g fill="(#[0-9A-F]{6})"[^>]*>\n(?:<path d="M5 (\d+)L)?`)
	var got []string
	for _, m := range groups.FindAllStringSubmatch(of("fourLayer", 0, 1, 2, 3), -1) {
		got = append(got, m[1]+" "+m[2])
	}
	assert.Equal(t, []string{"#35B7A6 4", "#E27BB1 8", "#8088F5 12", "#E7B549 16"}, got, "as in interface.md: bottom, the inner ones, top; a track further up on the board is further up in the picture")
	one := groups.FindAllStringSubmatch(of("oneSided", 0), -1)
	require.Len(t, one, 1)
	assert.Equal(t, []string{"#E7B549", "16"}, one[0][1:])
}

// A pad with round corners is as large in the picture as its copper: the line around what is
// filled is as wide as twice its radius.
func TestPadsWithRoundCorners(t *testing.T) {
	d := design.New("pads")
	d.Board.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40e6, 0), geom.Pt(40e6, 20e6), geom.Pt(0, 20e6))
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{{Number: "1", Form: "rounded", Size: geom.Pt(3e6, 2e6), Corner: 400_000}}})
	d.Put(&design.Placed{ID: d.NewID(), Footprint: "F", Designator: "R1", At: geom.Pt(10e6, 10e6)})
	m := regexp.MustCompile(`<path d="(M[^"]+)Z" stroke-width="0.8"/>`).FindStringSubmatch(string(glance.Board(d)))
	require.NotNil(t, m, "a line of 0.8 mm around it")
	for _, corner := range []string{"8.9 9.4", "11.1 9.4", "11.1 10.6", "8.9 10.6"} {
		assert.Contains(t, m[1], corner)
	}
}

// Which picture a project has: the board once parts stand on it, the circuit before, an outline
// when there is nothing else; two corners are no outline.
func TestWhichPicture(t *testing.T) {
	d := design.New("x")
	sheet := d.SheetsInOrder()[0].ID
	of := func() string {
		_, of := glance.Picture(d, circuit.Find(d))
		return of
	}
	d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: geom.Pt(50e6, 50e6), B: geom.Pt(90e6, 50e6)})
	d.Board.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40e6, 0), geom.Pt(40e6, 20e6))
	assert.Equal(t, "circuit", of(), "nothing stands on the board")
	d.Put(&design.Placed{ID: d.NewID(), Footprint: "none", Designator: "R1", At: geom.Pt(50e6, 10e6)})
	assert.Equal(t, "circuit", of(), "its part still waits beside it")
	d.Put(&design.Placed{ID: d.NewID(), Footprint: "none", Designator: "R2", At: geom.Pt(10e6, 10e6)})
	assert.Equal(t, "board", of(), "a three-cornered one")
	d.Board.Outline = nil
	assert.Equal(t, "circuit", of(), "without an outline there is no board to be seen")
}

// A board of very many shapes is drawn into points, each layer over the one below, at its places.
func TestPictureOfALargeBoard(t *testing.T) {
	d := design.New("board")
	d.Board.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(157e6, 0), geom.Pt(157e6, 97e6), geom.Pt(0, 97e6))
	track := func(layer design.LayerID, x0, y0, x1, y1 int64) {
		d.Put(&design.Track{ID: d.NewID(), A: geom.Pt(x0*1e6, y0*1e6), B: geom.Pt(x1*1e6, y1*1e6), Width: 2e6, Layer: layer})
	}
	for i := range int64(8_001) { // one over another: they are filled once
		track(d.Board.Top(), 10, 50+i%2, 60, 50)
	}
	track(d.Board.Bottom(), 30, 10, 30, 90)
	track(d.Board.Bottom(), 140, 30, 200, 30) // out of the picture
	d.Put(&design.Via{ID: d.NewID(), At: geom.Pt(100e6, 20e6), Diameter: 6e6, Hole: 4e6, From: d.Board.Top(), To: d.Board.Bottom()})
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{{Number: "1", Form: "rect", Size: geom.Pt(8e6, 4e6)}}})
	d.Put(&design.Placed{ID: d.NewID(), Footprint: "F", Designator: "R1", At: geom.Pt(130e6, 80e6)})
	svg, of := glance.Picture(d, circuit.Find(d))
	require.Equal(t, "board", of)
	assert.Less(t, len(svg), 100_000)
	assert.Equal(t, [4]float64{-1.5, -1.5, 160, 100}, view(t, svg))
	_, data, ok := strings.Cut(string(svg), `href="data:image/png;base64,`)
	require.True(t, ok)
	data, _, _ = strings.Cut(data, `"`)
	img, err := png.Decode(base64.NewDecoder(base64.StdEncoding, strings.NewReader(data)))
	require.NoError(t, err)
	require.Equal(t, image.Rect(0, 0, 480, 300), img.Bounds(), "three points a millimetre")
	at := func(x, y float64) string { // in millimetres on the board
		r, g, b, a := img.At(int((x+1.5)*3), int((97+1.5-y)*3)).RGBA()
		if a == 0 {
			return ""
		}
		return fmt.Sprintf("#%02X%02X%02X", r>>8, g>>8, b>>8)
	}
	for _, c := range []struct {
		x, y float64
		want string
	}{
		{20, 50, "#E7B549"}, {30, 50.3, "#E7B549"}, {30, 60, "#35B7A6"}, {30, 91.5, ""}, {60.6, 50, "#E7B549"}, {61.5, 50, ""}, {31.5, 60, ""},
		{102.5, 20, "#E7B549"}, {100, 20, "#17131E"}, {101.5, 20, "#17131E"}, {127, 81.5, "#E7B549"}, {127, 82.5, ""}, {5, 5, ""},
		{5, 50, ""}, {-1.3, 50, ""}, {150, 30, "#35B7A6"}, {158.3, 30, "#35B7A6"}, {-1.3, 30, ""}, {-1.3, 29.6, ""}, {135, 30, ""},
	} {
		assert.Equal(t, c.want, at(c.x, c.y), "%v, %v", c.x, c.y)
	}
}

// Copper areas of the upper side are seen below its copper, in a shade of it: within their edge, or all over the board; what lies on them of
// other nets is set apart.
func TestPictureOfAreas(t *testing.T) {
	d := design.New("areas")
	d.Board.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40e6, 0), geom.Pt(40e6, 20e6), geom.Pt(0, 20e6))
	for i, name := range []string{"GND", "SIG"} {
		d.Put(&design.Net{ID: design.ID(500 + i), Name: name})
	}
	d.Put(&design.Track{ID: d.NewID(), A: geom.Pt(5e6, 5e6), B: geom.Pt(9e6, 5e6), Width: 500_000, Layer: d.Board.Top(), Net: 500})
	d.Put(&design.Track{ID: d.NewID(), A: geom.Pt(5e6, 9e6), B: geom.Pt(9e6, 9e6), Width: 500_000, Layer: d.Board.Top(), Net: 501})
	bare := string(glance.Board(d))
	assert.NotContains(t, bare, "fill-opacity")
	d.Put(&design.Pour{ID: d.NewID(), Name: "below", Net: 500, Layers: []design.LayerID{d.Board.Bottom()}})
	assert.Contains(t, string(glance.Board(d)), `fill="#35B7A6" fill-opacity`, "that of the lower side where the upper one has none")
	d.Put(&design.Pour{ID: d.NewID(), Name: "part", Net: 500, Layers: []design.LayerID{d.Board.Top()}, Outline: geom.Corners(geom.Pt(2e6, 3e6), geom.Pt(12e6, 3e6), geom.Pt(12e6, 13e6))})
	svg := string(glance.Board(d))
	assert.NotContains(t, svg, `fill="#35B7A6" fill-opacity`)
	at := strings.Index(svg, `M2 17L12 17L12 7`)
	require.Positive(t, at, svg)
	assert.Less(t, at, strings.Index(svg, `<g fill="#E7B549"`), "below the copper")
	apart := svg[at:strings.Index(svg, `<g fill="#E7B549"`)]
	assert.Equal(t, 1, strings.Count(apart, `stroke-width="1"`), "the signal alone, by 0.25 mm on either side")
	assert.Contains(t, apart, "11", "its height from above")
}
