package paper_test

import (
	"fmt"
	"io"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
)

// mirrored tells whether a set of places is its own picture in a mirror along the axis.
func mirrored(t *testing.T, list []geom.Point, at geom.Point, upright bool, what string) {
	t.Helper()
	for _, p := range list {
		q := geom.Pt(2*at.X-p.X, p.Y)
		if !upright {
			q = geom.Pt(p.X, 2*at.Y-p.Y)
		}
		assert.Contains(t, list, q, "%s at %v", what, at)
	}
}

// Signs are alike on both sides of the line they stand on, wherever they stand and however they
// are turned. The chassis' slanted lines are not (IEC 60617-2, 02-15-04).
func TestSignsAreAlikeOnBothSides(t *testing.T) {
	at := geom.Pt(13*mm, 29*mm)
	shapes := func(marks []paper.Mark) (out []geom.Point) {
		for _, m := range marks {
			if m.Text == "" && m.Size == 0 {
				out = append(out, points(m)...)
			}
		}
		return out
	}
	for turn := range 4 {
		for _, shape := range design.SupplyShapes {
			if shape != "chassis" {
				mirrored(t, shapes(draw(&design.Supply{Name: "N", Shape: shape, At: at, Turn: turn})), at, turn%2 == 0, fmt.Sprint(shape, turn))
			}
		}
		mirrored(t, shapes(draw(&design.Label{Name: "N", At: at, Turn: turn})), at, turn%2 == 1, "label")
		for _, way := range []string{"in", "out", "both"} {
			mirrored(t, shapes(draw(&design.Port{Name: "N", Way: way, At: at, Turn: turn})), at, turn%2 == 1, "port "+way)
			b := &design.SheetBlock{At: at, Size: geom.Pt(20*mm, 20*mm), Pins: []design.BlockPin{{Name: "P", Way: way, Side: turn, Pos: 10 * mm}}}
			mirrored(t, shapes(draw(b)[1:]), at.Add(geom.Pt(10*mm, 10*mm)), turn%2 == 1, "pin of a block "+way)
		}
	}
	open := draw(&design.OpenMark{At: at})
	require.Len(t, open, 2)
	for _, m := range open { // two lines of one length through the place, at right angles
		p := points(m)
		assert.Equal(t, geom.Pt(2*at.X, 2*at.Y), p[0].Add(p[1]))
	}
	a, b := points(open[0]), points(open[1])
	u, v := a[1].Sub(a[0]), b[1].Sub(b[0])
	assert.Zero(t, u.X*v.X+u.Y*v.Y)
	assert.InDelta(t, a[0].Dist(a[1]), b[0].Dist(b[1]), 1)
}

// The tab of a region stands on its frame's upper left corner and holds its title.
func TestTabOfARegion(t *testing.T) {
	marks := draw(&design.Cluster{Title: "Supply", Tint: "sand", A: geom.Pt(50*mm, 30*mm), B: geom.Pt(11*mm, 7*mm)})
	title := words(t, marks, "Supply")
	w := paper.TextWidth(title)
	at := geom.Pt(11*mm, 30*mm)
	assert.Equal(t, []geom.Point{at, at.Add(geom.Pt(0, 4_800_000)), at.Add(geom.Pt(w+4*mm, 4_800_000)), at.Add(geom.Pt(w+6*mm, 0))}, points(marks[1]))
	assert.Equal(t, []int64{at.X + 2*mm, at.Y + 2_400_000}, title.Pts, "in the middle of its height")
}

// Every cell of the title block has its head and its words at the same place within it.
func TestCellsOfTheTitleBlock(t *testing.T) {
	marks := framed(t, func(d *design.Doc, s *design.Sheet) {
		s.Size = "A3"
		d.Settings.Title, d.Settings.Number, d.Settings.Author, d.Settings.Date, d.Settings.Revision = "T", "N", "A", "D", "R"
	})
	x, y := int64((420-10-120)*mm), int64(10*mm)
	cells := map[string][3]int64{"Title": {0, 18, 120}, "Sheet": {0, 9, 70}, "Document": {70, 9, 50}, "Author": {0, 0, 44}, "Date": {44, 0, 26}, "Revision": {70, 0, 30}, "A3": {100, 0, 20}}
	for head, c := range cells {
		left, foot := x+c[0]*mm, y+c[1]*mm
		m := words(t, marks, head)
		assert.Equal(t, []int64{left + 1_600_000, foot + 6_900_000}, m.Pts, head)
		assert.Equal(t, []int64{left + 1_600_000, foot + 3_100_000}, cell(t, marks, head)[0].Pts, head)
	}
	var rules [][]int64
	for _, m := range marks {
		if m.Stroke == "frame" && m.Width == 250_000 && len(m.Pts) == 4 && m.Pts[0] >= x && m.Pts[1] >= y && m.Pts[3] >= y && m.Pts[2] <= x+120*mm {
			rules = append(rules, []int64{(m.Pts[0] - x) / mm, (m.Pts[1] - y) / mm, (m.Pts[2] - x) / mm, (m.Pts[3] - y) / mm})
		}
	}
	for _, want := range [][]int64{{0, 18, 120, 18}, {0, 9, 120, 9}, {70, 9, 70, 18}, {44, 0, 44, 9}, {70, 0, 70, 9}, {100, 0, 100, 9}} {
		assert.Contains(t, rules, want, "a line between two cells")
	}
	box := marks[slices.IndexFunc(marks, func(m paper.Mark) bool { return m.Fill == "paper" && m.Width == 500_000 && m.Pts[0] == x })]
	assert.Equal(t, []geom.Point{{X: x, Y: y}, {X: x + 120*mm, Y: y}, {X: x + 120*mm, Y: y + 27*mm}, {X: x, Y: y + 27*mm}}, points(box))
}

// The lines between zones and their names stand outside of the frame, on both sides alike.
func TestZonesStandOutside(t *testing.T) {
	marks := framed(t, func(_ *design.Doc, s *design.Sheet) { s.Size = "A4" })
	w, h := int64(297*mm), int64(210*mm)
	var ends []geom.Point
	var names []geom.Point
	for _, m := range marks {
		switch {
		case m.Stroke == "frame" && m.Width == 250_000 && len(m.Pts) == 4 && (m.Pts[0] == m.Pts[2]) != (m.Pts[1] == m.Pts[3]):
			a, b := points(m)[0], points(m)[1]
			if a.Dist(b) == 5*mm {
				assert.True(t, a.X == 10*mm || a.X == w-10*mm || a.Y == 10*mm || a.Y == h-10*mm, "begins on the frame: %v", a)
				ends = append(ends, b)
			}
		case m.Size == 2_600_000 && m.Text != "":
			names = append(names, points(m)[0])
		}
	}
	require.Len(t, ends, 2*5+2*3)
	middle := geom.Pt(w/2, h/2)
	for _, p := range ends {
		assert.True(t, p.X == 5*mm || p.X == w-5*mm || p.Y == 5*mm || p.Y == h-5*mm, "ends 5 mm further out: %v", p)
	}
	mirrored(t, ends, middle, true, "lines")
	mirrored(t, ends, middle, false, "lines")
	mirrored(t, names, middle, true, "names")
	mirrored(t, names, middle, false, "names")
	for _, p := range names {
		assert.True(t, p.X == 7_500_000 || p.X == w-7_500_000 || p.Y == 7_500_000 || p.Y == h-7_500_000, "%v", p)
	}
}

// Arrows point from where they begin, wherever that is.
func TestHeadsOfArrows(t *testing.T) {
	for _, to := range []geom.Point{{X: 30 * mm, Y: 5 * mm}, {X: -20 * mm, Y: 5 * mm}, {X: 10 * mm, Y: 25 * mm}, {X: 10 * mm, Y: -15 * mm}} {
		from := geom.Pt(10*mm, 5*mm)
		tip := points(draw(&design.Graphic{Form: "arrow", Tint: "sky", Pts: []geom.Point{from, to}})[1])
		mid := geom.Pt((tip[1].X+tip[2].X)/2, (tip[1].Y+tip[2].Y)/2)
		assert.InDelta(t, 2.4*mm, mid.Dist(to), 2, "%v", to)
		assert.InDelta(t, from.Dist(to), from.Dist(mid)+mid.Dist(to), 2, "its middle lies on the line")
		assert.InDelta(t, 1.8*mm, tip[1].Dist(tip[2]), 2)
	}
}

// Without marks above, the first row of a timing diagram begins right below its upper edge.
func TestRoomForMarksAboveADiagram(t *testing.T) {
	plain := draw(&design.Timing{At: geom.Pt(0, 50*mm), Slot: 10 * mm, Text: "A: high 3\n"})
	assert.EqualValues(t, 50*mm-1_500_000-7*mm+1_200_000+2_200_000, words(t, plain, "A").Pts[1])
	with := draw(&design.Timing{At: geom.Pt(0, 50*mm), Slot: 10 * mm, Text: "A: high 3\nmark 1 \"m\"\n"})
	assert.EqualValues(t, 3_500_000, words(t, plain, "A").Pts[1]-words(t, with, "A").Pts[1])
}

// Texts of a part whose usual place is on its left, and of an upright part that reaches further down.
func TestTextsOnTheOtherSide(t *testing.T) {
	d := design.New("left")
	d.Put(&design.Symbol{ID: d.NewID(), Name: "S", DesignatorAt: geom.Pt(-9*mm, 2*mm), ValueAt: geom.Pt(-9*mm, -2*mm),
		Figures: []design.Figure{{Form: "line", Pts: []geom.Point{{X: -4 * mm, Y: -6 * mm}, {X: 0, Y: 2 * mm}}}}})
	d.Put(&design.LibraryPart{ID: d.NewID(), Name: "L", Symbol: "S"})
	p := &design.Part{Library: "L", Designator: "X1", Value: "v"}
	level := words(t, paper.Marks(d, p, ""), "X1")
	assert.Equal(t, []int64{-10_600_000, 1_900_000}, level.Pts)
	p.Turn = 1
	upright := words(t, paper.Marks(d, p, ""), "X1")
	assert.Equal(t, []int64{7_300_000, 1_900_000}, upright.Pts, "6 mm and a little room")
}

// A sheet used several times is called by its own name and by the use.
func TestNameOfAUsedSheet(t *testing.T) {
	d := design.New("uses")
	top := d.SheetsInOrder()[0]
	below := &design.Sheet{ID: d.NewID(), Name: "Probe", Order: 2, Size: "A4"}
	d.Put(below)
	for _, name := range []string{"Probe", "Probe 2"} {
		d.Put(&design.SheetBlock{ID: d.NewID(), Sheet: top.ID, Of: below.ID, Name: name, Size: geom.Pt(20*mm, 20*mm)})
	}
	n := circuit.Find(d)
	var got []string
	for _, use := range n.Tree.Uses {
		got = append(got, joined(cell(t, paper.Frame(d, n.Tree, use), "Sheet")))
	}
	assert.Equal(t, []string{top.Name, "Probe", "Probe · Probe 2"}, got)
}

// What is wrong in a timing diagram is said within its upper edge.
func TestPlaceOfWhatIsWrong(t *testing.T) {
	m := draw(&design.Timing{At: geom.Pt(5*mm, 60*mm), Text: "A: hihg"})[0]
	assert.Equal(t, []int64{5 * mm, 57 * mm}, m.Pts)
}

// A line of several pieces is drawn through its places in the PDF: 72/25.4 points a millimetre.
func TestLinesInThePDF(t *testing.T) {
	r, _, _, _ := printed(t, func(d *design.Doc, sheet design.ID) {
		d.Put(&design.Graphic{ID: d.NewID(), Sheet: sheet, Form: "line", Tint: "sky", Pts: []geom.Point{{X: 20 * mm, Y: 30 * mm}, {X: 50 * mm, Y: 30 * mm}, {X: 50 * mm, Y: 90 * mm}}})
	})
	stream := r.Page(1).V.Key("Contents").Reader()
	defer stream.Close()
	raw, err := io.ReadAll(stream)
	require.NoError(t, err)
	assert.Regexp(t, `56\.69 85\.04 m\s+141\.73 85\.04 l\s+141\.73 255\.12 l`, string(raw))
}
