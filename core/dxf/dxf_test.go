package dxf_test

import (
	"bytes"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/dxf"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// drawn is a drawing of the entities, each a line of words: kind, then codes and values.
func drawn(unit int, entities ...string) []byte {
	var b strings.Builder
	line := func(words ...any) {
		for _, w := range words {
			fmt.Fprintf(&b, "%v\n", w)
		}
	}
	if unit > 0 {
		line(0, "SECTION", 2, "HEADER", 9, "$INSUNITS", 70, unit, 0, "ENDSEC")
	}
	line(0, "SECTION", 2, "ENTITIES")
	for _, e := range entities {
		w := strings.Fields(e)
		line(0, w[0])
		for _, x := range w[1:] {
			line(x)
		}
	}
	line(0, "ENDSEC", 0, "EOF")
	return []byte(b.String())
}

func line(x1, y1, x2, y2 float64) string {
	return fmt.Sprintf("LINE 8 EDGE 10 %g 20 %g 11 %g 21 %g", x1, y1, x2, y2)
}

func taken(t *testing.T, data []byte, how dxf.Taking) *dxf.Edges {
	t.Helper()
	d, err := dxf.Read(data)
	require.NoError(t, err)
	o, err := d.Outline(how)
	require.NoError(t, err)
	return o
}

func area(c []geom.Corner) float64 { return geom.Closing(c).Area() / 1e12 }

func TestALineAnArcAndACircle(t *testing.T) {
	// 40 × 20 mm whose right end is half round: 40·20 + π·10²/2; a round cut-out of 3 mm
	o := taken(t, drawn(4, line(0, 0, 40, 0), "ARC 8 EDGE 10 40 20 10 40 10 50 270 51 90", line(0, 20, 40, 20), line(0, 0, 0, 20),
		"CIRCLE 8 EDGE 10 10 20 10 40 3"), dxf.Taking{})
	assert.InDelta(t, 800+math.Pi*50, area(o.Outline), 1e-4)
	require.Len(t, o.Outline, 5, "the half circle is two quarters")
	require.Len(t, o.CutOuts, 1)
	assert.InDelta(t, math.Pi*9, area(o.CutOuts[0]), 1e-4)
	assert.Empty(t, o.Mended)
	assert.Empty(t, o.Open)
	assert.Empty(t, o.Notes)
}

func TestUnits(t *testing.T) {
	square := []string{line(0, 0, 2, 0), line(2, 0, 2, 2), line(2, 2, 0, 2), line(0, 2, 0, 0)}
	for code, side := range map[int]float64{1: 50.8, 4: 2, 5: 20, 9: 0.0508} {
		assert.InDelta(t, side*side, area(taken(t, drawn(code, square...), dxf.Taking{}).Outline), 1e-6, "unit %d", code)
	}
	for _, code := range []int{0, 3, 99} { // none, miles, no such
		d, err := dxf.Read(drawn(code, square...))
		require.NoError(t, err)
		assert.Zero(t, d.Unit)
		_, err = d.Outline(dxf.Taking{})
		assert.ErrorContains(t, err, "does not say its unit")
		o, err := d.Outline(dxf.Taking{Unit: 25.4e6})
		require.NoError(t, err)
		assert.InDelta(t, 50.8*50.8, area(o.Outline), 1e-6)
	}
}

// Polylines of both kinds with bulges: a slot of 10 mm with round ends of 2 mm radius, each a bulge of 1.
func TestPolylines(t *testing.T) {
	want := 4*10 + math.Pi*4
	light := "LWPOLYLINE 8 0 90 4 70 1 10 0 20 0 10 10 20 0 42 1 10 10 20 4 10 0 20 4 42 1"
	old := []string{"POLYLINE 8 0 66 1 70 1", "VERTEX 8 0 10 0 20 0", "VERTEX 8 0 10 10 20 0 42 1", "VERTEX 8 0 10 10 20 4",
		"VERTEX 8 0 10 0 20 4 42 1", "SEQEND 8 0"}
	assert.InDelta(t, want, area(taken(t, drawn(4, light), dxf.Taking{}).Outline), 1e-4)
	o := taken(t, drawn(4, append(old, "CIRCLE 8 0 10 5 20 2 40 1")...), dxf.Taking{})
	assert.InDelta(t, want, area(o.Outline), 1e-4)
	assert.Len(t, o.CutOuts, 1, "what comes after a polyline is read")
	// bulges below nothing turn the other way: the ends bow inwards
	o = taken(t, drawn(4, "LWPOLYLINE 8 0 90 4 70 1 10 0 20 0 10 10 20 0 42 -0.5 10 10 20 4 10 0 20 4"), dxf.Taking{})
	r := 2.5                            // chord 4, height 1: (4 + 1)/2
	bow := r*r*math.Asin(2/r) - 2*(r-1) // of the circle's segment
	assert.InDelta(t, 40-bow, area(o.Outline), 1e-4)
	// open, closed by a line of its own
	o = taken(t, drawn(4, "LWPOLYLINE 8 0 90 3 70 0 10 0 20 0 10 10 20 0 10 10 20 4", line(10, 4, 0, 0)), dxf.Taking{})
	assert.InDelta(t, 20, area(o.Outline), 1e-6)
}

// An ellipse and a spline are followed by arcs within the tolerance: every place of the curve, worked out by its own definition, lies
// as near.
func TestCurvesWithinTheTolerance(t *testing.T) {
	ring := func(o *dxf.Edges) geom.Ring { return geom.Closing(o.Outline) }
	off := func(r geom.Ring, x, y float64) float64 {
		p := geom.Pt(int64(math.Round(x*1e6)), int64(math.Round(y*1e6)))
		least := math.Inf(1)
		for _, q := range r {
			d, _, _ := geom.PieceDistance(q, geom.Straight(p, p))
			least = min(least, d)
		}
		return least
	}
	for _, tolerance := range []int64{1_000, 5_000, 50_000} {
		e := ring(taken(t, drawn(4, "ELLIPSE 8 0 10 5 20 5 11 20 21 0 40 0.4 41 0 42 6.283185307179586"), dxf.Taking{Tolerance: tolerance}))
		s := ring(taken(t, drawn(4, "SPLINE 8 0 70 8 71 3 40 0 40 0 40 0 40 0 40 1 40 2 40 2 40 2 40 2 10 0 20 0 10 10 20 30 10 20 20 -30 10 40 20 10 10 50 20 0",
			line(50, 0, 50, -40), line(50, -40, 0, -40), line(0, -40, 0, 0)), dxf.Taking{Tolerance: tolerance}))
		knots, poles := []float64{0, 0, 0, 0, 1, 2, 2, 2, 2}, [][2]float64{{0, 0}, {10, 30}, {20, -30}, {40, 10}, {50, 0}}
		var basis func(i, p int, u float64) float64 // Cox and de Boor's recursion
		basis = func(i, p int, u float64) float64 {
			if p == 0 {
				if knots[i] <= u && u < knots[i+1] {
					return 1
				}
				return 0
			}
			sum := 0.0
			if d := knots[i+p] - knots[i]; d > 0 {
				sum += (u - knots[i]) / d * basis(i, p-1, u)
			}
			if d := knots[i+p+1] - knots[i+1]; d > 0 {
				sum += (knots[i+p+1] - u) / d * basis(i+1, p-1, u)
			}
			return sum
		}
		for k := range 2000 {
			a := float64(k) / 2000
			assert.Less(t, off(e, 5+20*math.Cos(a*2*math.Pi), 5+8*math.Sin(a*2*math.Pi)), float64(tolerance)+600)
			x, y := 0.0, 0.0
			for i, p := range poles {
				n := basis(i, 3, 2*a)
				x, y = x+n*p[0], y+n*p[1]
			}
			assert.Less(t, off(s, x, y), float64(tolerance)+600)
		}
	}
	few, many := taken(t, drawn(4, "ELLIPSE 8 0 10 0 20 0 11 20 21 0 40 0.4"), dxf.Taking{Tolerance: 100_000}), taken(t,
		drawn(4, "ELLIPSE 8 0 10 0 20 0 11 20 21 0 40 0.4"), dxf.Taking{Tolerance: 200})
	assert.Less(t, len(few.Outline), len(many.Outline))
	assert.InDelta(t, math.Pi*20*8, area(many.Outline), 0.05)
	// a quarter of a circle as a rational spline: weights 1, √½, 1
	o := taken(t, drawn(4, "SPLINE 8 0 71 2 40 0 40 0 40 0 40 1 40 1 40 1 41 1 41 0.7071067811865476 41 1 10 10 20 0 10 10 20 10 10 0 20 10", line(0, 10, 0, 0), line(0, 0, 10, 0)), dxf.Taking{Tolerance: 1000})
	assert.InDelta(t, math.Pi*25, area(o.Outline), 0.02)
}

// Ends that do not quite meet are joined within the gap, which is shown; farther ones are loose.
func TestGaps(t *testing.T) {
	sides := []string{line(0, 0, 40, 0), line(40.05, 0, 40, 20), line(40, 20, 0, 20), line(0, 20, 0, 0)}
	d, err := dxf.Read(drawn(4, sides...))
	require.NoError(t, err)
	_, err = d.Outline(dxf.Taking{Gap: 49_999})
	assert.ErrorContains(t, err, "no line of the drawing closes")
	o, err := d.Outline(dxf.Taking{Gap: 50_000})
	require.NoError(t, err)
	assert.Equal(t, []dxf.Mended{{At: geom.Pt(40_025_000, 0), Size: 50_000}}, o.Mended)
	assert.InDelta(t, 800+0.025*20/2, area(o.Outline), 1e-6, "straight still")
	for _, c := range o.Outline {
		assert.Nil(t, c.Mid)
	}
	o = taken(t, drawn(4, append(sides[:1:1], line(40.0005, 0, 40, 20), sides[2], sides[3])...), dxf.Taking{})
	assert.Empty(t, o.Mended, "what decimals lose is no gap")
	o = taken(t, drawn(4, append(sides[:1:1], line(40, 0, 40, 20), sides[2], sides[3], line(60, 0, 70, 0))...), dxf.Taking{})
	assert.Equal(t, []geom.Point{geom.Pt(60_000_000, 0), geom.Pt(70_000_000, 0)}, o.Open)
	assert.Equal(t, []geom.Piece{geom.Straight(geom.Pt(60_000_000, 0), geom.Pt(70_000_000, 0))}, o.Loose)
	assert.Equal(t, []string{"Lines with 2 loose ends close nowhere and are left out."}, o.Notes)
}

// The largest closed line is the edge, those within it are cut out; others, and lines of layers that were not chosen, are not.
func TestWhichLinesAreTheEdge(t *testing.T) {
	box := func(layer string, x, y, side float64) string {
		return fmt.Sprintf("LWPOLYLINE 8 %s 90 4 70 1 10 %g 20 %g 10 %g 20 %g 10 %g 20 %g 10 %g 20 %g", layer, x, y, x+side, y, x+side,
			y+side, x, y+side)
	}
	data := drawn(4, box("A", 10, 10, 5), box("A", 11, 11, 2), box("A", 0, 0, 50), box("A", 70, 0, 20), box("B", -10, -10, 120),
		"TEXT 8 NOTES 10 0 20 0 1 word", "TEXT 8 NOTES 10 0 20 0 1 word")
	d, err := dxf.Read(data)
	require.NoError(t, err)
	assert.Equal(t, []string{"A", "B"}, d.Layers)
	assert.Equal(t, []string{"2 × TEXT"}, d.Skipped)
	o, err := d.Outline(dxf.Taking{Layers: []string{"A"}})
	require.NoError(t, err)
	assert.InDelta(t, 2500, area(o.Outline), 1e-6)
	assert.Len(t, o.CutOuts, 1)
	assert.Equal(t, []string{"1 closed line beside the largest is left out; a project has one board.",
		"1 closed line within a cut-out is left out."}, o.Notes)
	o, err = d.Outline(dxf.Taking{})
	require.NoError(t, err)
	assert.InDelta(t, 14_400, area(o.Outline), 1e-6)
	assert.Len(t, o.CutOuts, 2)
	_, err = d.Outline(dxf.Taking{Layers: []string{"C"}})
	assert.ErrorContains(t, err, "no line or arc of the drawing was chosen")
	o = taken(t, drawn(4, box("A", 0, 0, 50), line(50, 50, 50, 0), "CIRCLE 8 A 10 20 20 20 40 3", "CIRCLE 8 A 10 20 20 20 40 3"), dxf.Taking{})
	assert.InDelta(t, 2500, area(o.Outline), 1e-6)
	assert.Len(t, o.CutOuts, 1)
	assert.Equal(t, []string{"5 lines and arcs that are drawn twice count once."}, o.Notes)
	// given as seen from below: x is the other way round
	o = taken(t, drawn(4, "CIRCLE 8 0 10 -10 20 5 40 3 230 -1"), dxf.Taking{})
	b := geom.Closing(o.Outline).Box()
	assert.Equal(t, geom.Pt(7_000_000, 2_000_000), b.Min)
}

// Half an ellipse from its lower end over the right to its upper one; polylines whose fields stand in another order, or that nothing
// ends; units said
// elsewhere than in the header.
func TestDrawingsWrittenOtherwise(t *testing.T) {
	o := taken(t, drawn(4, "ELLIPSE 8 0 10 0 20 0 11 20 21 0 40 0.5 41 4.71238898038469 42 1.5707963267948966", line(0, 10, 0, -10)),
		dxf.Taking{Tolerance: 500})
	assert.InDelta(t, math.Pi*20*10/2, area(o.Outline), 0.05)
	assert.Equal(t, int64(0), geom.Closing(o.Outline).Box().Min.X)
	o = taken(t, drawn(4, "LWPOLYLINE 42 1 20 7 8 0 90 3 70 1 10 0 20 0 10 10 20 0 10 10 20 10"), dxf.Taking{})
	assert.InDelta(t, 50, area(o.Outline), 1e-6, "what stands before the first place belongs to none")
	o = taken(t, drawn(4, "POLYLINE 8 0 66 1 70 1", "VERTEX 8 0 10 0 20 0", "VERTEX 8 0 10 30 20 0", "VERTEX 8 0 10 30 20 30",
		"CIRCLE 8 0 10 20 20 10 40 1"), dxf.Taking{})
	assert.InDelta(t, 450, area(o.Outline), 1e-6)
	assert.Len(t, o.CutOuts, 1)
	d, err := dxf.Read([]byte("0\nSECTION\n2\nTABLES\n9\n$INSUNITS\n70\n4\n0\nENDSEC\n0\nSECTION\n2\nHEADER\n9\n$LUNITS\n70\n4\n0\nENDSEC\n" + string(drawn(0, line(0, 0, 1, 0)))))
	require.NoError(t, err)
	assert.Zero(t, d.Unit)
	for degree := range 22 {
		var b strings.Builder
		fmt.Fprintf(&b, "SPLINE 8 0 71 %d", degree)
		for i := range 2 * (degree + 1) {
			fmt.Fprintf(&b, " 40 %d", i/(degree+1))
		}
		for i := range degree + 1 {
			fmt.Fprintf(&b, " 10 %d 20 %d", i, i*i)
		}
		_, err := dxf.Read(drawn(4, b.String()))
		assert.Equal(t, degree >= 1 && degree <= 20, err == nil, "degree %d: %v", degree, err)
	}
	_, err = dxf.Read(drawn(4, "SPLINE 8 0 71 1 40 0 40 0 40 0 40 0 10 0 20 0 10 1 20 1"))
	assert.ErrorContains(t, err, "knots out of order", "a spline that begins where it ends")
}

func TestDrawingsThatCannotBe(t *testing.T) {
	for says, data := range map[string][]byte{
		"not a DXF drawing: line 1":      []byte("%PDF-1.7\nand so on\n"),
		"no section of entities":         []byte("0\nSECTION\n2\nHEADER\n0\nENDSEC\n0\nEOF\n"),
		"its end is missing":             bytes.TrimSuffix(drawn(4, line(0, 0, 1, 1)), []byte("0\nEOF\n")),
		"no value":                       []byte("0\nSECTION\n2\nENTITIES\n0\n"),
		"is empty":                       drawn(4),
		"a binary file":                  []byte("DXF\r\n\x1a\x00"),
		`line 20 says "wide"`:            drawn(4, "LINE 8 0 10 wide"),
		`says "1e99" where a number`:     drawn(4, "LINE 8 0 10 1e99"),
		`says "NaN" where a number`:      drawn(4, "CIRCLE 8 0 10 0 20 0 40 NaN"),
		"control points that do not fit": drawn(4, "SPLINE 8 0 71 3 40 0 40 1 10 0 20 0 10 1 20 1 10 2 20 0 10 3 20 0"),
		"knots out of order":             drawn(4, "SPLINE 8 0 71 1 40 0 40 2 40 1 40 3 10 0 20 0 10 1 20 1"),
		"goes through alone":             drawn(4, "SPLINE 8 0 71 3 11 0 21 0 11 1 21 1"),
		"weight":                         drawn(4, "SPLINE 8 0 71 1 40 0 40 0 40 1 40 1 41 1 41 0 10 0 20 0 10 1 20 1"),
		"degree":                         drawn(4, "SPLINE 8 0 71 21 10 0 20 0"),
		"more than 50000 curves":         drawn(4, strings.Split(strings.Repeat(line(0, 0, 1, 1)+"|", 50_001), "|")[:50_001]...),
		"32 are the most":                make([]byte, dxf.LargestFile+1<<20),
		"line 2 is too long":             append([]byte("0\n"), bytes.Repeat([]byte("x"), 2<<20)...),
	} {
		_, err := dxf.Read(data)
		assert.ErrorContains(t, err, says)
	}
	for says, data := range map[string][]byte{
		"3 lines of the drawing meet at 10 mm": drawn(4, line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 0), line(10, 0, 20, 0)),
		"crosses itself":                       drawn(4, line(0, 0, 10, 10), line(10, 10, 10, 0), line(10, 0, 0, 10), line(0, 10, 0, 0)),
		"cross each other": drawn(4, line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 10), line(0, 10, 0, 0),
			"CIRCLE 8 0 10 9 20 5 40 2"),
		"is its unit right": drawn(6, line(0, 0, 1e4, 0), line(1e4, 0, 10, 10), line(10, 10, 0, 0)),
	} {
		d, err := dxf.Read(data)
		require.NoError(t, err, says)
		_, err = d.Outline(dxf.Taking{})
		assert.ErrorContains(t, err, says)
	}
	d, err := dxf.Read(drawn(4, line(0, 0, 1, 0)))
	require.NoError(t, err)
	for _, how := range []dxf.Taking{{Gap: -1}, {Gap: 6 * units.MM}, {Tolerance: 99}, {Tolerance: 2 * units.MM}} {
		_, err = d.Outline(how)
		assert.ErrorContains(t, err, "can be closed")
	}
}

// What is written and read again is the same line, anywhere along it, to the micrometre: random rings of straight sides and arcs.
func TestRoundTrip(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 12).Draw(t, "corners")
		var corners []geom.Corner
		for i := range n {
			a := 2 * math.Pi * float64(i) / float64(n)
			r := float64(rapid.IntRange(20, 40).Draw(t, "radius")) * 1e6
			corners = append(corners, geom.Corner{Point: geom.Pt(int64(r*math.Cos(a)), int64(r*math.Sin(a)))})
		}
		for i := range n {
			if rapid.Bool().Draw(t, "arc") {
				a, b := corners[i].Point, corners[(i+1)%n].Point
				bow := float64(rapid.IntRange(-150, 150).Draw(t, "bow")) / 1000
				m := a.Towards(b, 0.5).Add(geom.Pt(int64(bow*float64(b.Y-a.Y)), int64(-bow*float64(b.X-a.X))))
				corners[i].Mid = &m
			}
		}
		board := &design.Board{Outline: corners, CutOuts: [][]geom.Corner{{geom.Pt(2_000_000, 0).Through(geom.Pt(0, 2_000_000)),
			geom.Pt(-2_000_000, 0).Through(geom.Pt(0, -2_000_000))}}}
		if !possible(board) {
			t.Skip("no board")
		}
		var b bytes.Buffer
		if err := dxf.Write(&b, board, nil); err != nil {
			t.Fatal(err)
		}
		d, err := dxf.Read(b.Bytes())
		if err != nil {
			t.Fatal(err)
		}
		o, err := d.Outline(dxf.Taking{})
		if err != nil {
			t.Fatal(err)
		}
		if len(o.CutOuts) != 1 || len(o.Mended) != 0 {
			t.Fatalf("%d cut-outs, %v mended", len(o.CutOuts), o.Mended)
		}
		back := geom.Closing(o.Outline)
		for _, p := range geom.Closing(corners) {
			for _, q := range append(p.Along(100_000, false), p.A) {
				least := math.Inf(1)
				for _, x := range back {
					g, _, _ := geom.PieceDistance(x, geom.Straight(q, q))
					least = min(least, g)
				}
				// half the flattening's own tolerance at most when q is not on the arc; its ends are
				if q == p.A && least > 1000 || least > 101_000 {
					t.Fatalf("%v lies %g nm off", q, least)
				}
			}
		}
		if d := math.Abs(back.Area()-geom.Closing(corners).Area()) / 1e12; d > 0.001 {
			t.Fatalf("the area is off by %g mm²", d)
		}
	})
}

// possible tells whether a board can have such edges.
func possible(b *design.Board) bool {
	return b.Stacked([]design.StackLayer{{Name: "Top", Kind: design.CopperLayer}}).Valid() == nil
}

// Holes stand in the drawing as circles in their places.
func TestHolesAreWritten(t *testing.T) {
	var b bytes.Buffer
	require.NoError(t, dxf.Write(&b, &design.Board{}, []*design.Hole{{At: geom.Pt(3_500_000, -1), Diameter: 3_200_000}}))
	assert.Contains(t, strings.ReplaceAll(b.String(), "\r\n", " "), "0 CIRCLE   8 HOLES  10 3.5  20 -0.000001  40 1.6 ")
}

// Whatever stands in a file, the answer is a sentence or an outline that can be.
func FuzzRead(f *testing.F) {
	f.Add(drawn(4, line(0, 0, 10, 0), line(10, 0, 10, 10), line(10, 10, 0, 0)))
	f.Add(drawn(0, "SPLINE 8 0 71 2 40 0 40 0 40 0 40 1 40 1 40 1 10 10 20 0 10 10 20 10 10 0 20 10", "ELLIPSE 8 0 40 0"))
	f.Add(drawn(1, "LWPOLYLINE 8 0 70 1 10 0 20 0 42 1e9 10 1 20 1 42 -3", "ARC 8 0 40 -1 50 10 51 10", "CIRCLE 8 0 40 0"))
	f.Fuzz(func(t *testing.T, data []byte) {
		d, err := dxf.Read(data)
		if err != nil {
			return
		}
		o, err := d.Outline(dxf.Taking{Unit: 1e6})
		if err != nil {
			return
		}
		b := (&design.Board{Outline: o.Outline, CutOuts: o.CutOuts}).Stacked([]design.StackLayer{{Name: "Top", Kind: design.CopperLayer}})
		_ = b.Valid() // it may have too many corners in all; it must not fall over
	})
}
