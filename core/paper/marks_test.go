package paper_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
)

const mm = 1_000_000

// points of a mark.
func points(m paper.Mark) []geom.Point {
	var out []geom.Point
	for i := 0; i+1 < len(m.Pts); i += 2 {
		out = append(out, geom.Pt(m.Pts[i], m.Pts[i+1]))
	}
	return out
}

func words(t *testing.T, marks []paper.Mark, s string) paper.Mark {
	t.Helper()
	for _, m := range marks {
		if m.Text == s {
			return m
		}
	}
	require.Fail(t, "the text is not drawn: "+s)
	return paper.Mark{}
}

func draw(o design.Object) []paper.Mark { return paper.Marks(design.Empty(), o, "") }

// reach is how far marks reach along a direction from a place.
func reach(marks []paper.Mark, from, way geom.Point) int64 {
	far := int64(math.MinInt64)
	for _, m := range marks {
		for _, p := range points(m) {
			d := p.Sub(from)
			far = max(far, d.X*way.X+d.Y*way.Y+m.R)
		}
	}
	return far
}

var quarter = []geom.Point{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}

// Labels and ports stand away from the wire they name, in the direction of their turn, and
// their words fit inside; a port is pointed where the signal goes.
func TestFlagsPointWhereTheyShould(t *testing.T) {
	at := geom.Pt(7*mm, -3*mm)
	for turn := range 4 {
		for _, name := range []string{"A", "ADDRESS_VALID"} {
			for way, sharp := range map[string][2]bool{"label": {true, false}, "in": {true, false}, "out": {false, true}, "both": {true, true}} {
				marks := draw(&design.Port{Name: name, Way: way, At: at, Turn: turn})
				if way == "label" {
					marks = draw(&design.Label{Name: name, At: at, Turn: turn})
				}
				flag, text := marks[0], words(t, marks, name)
				length := reach(marks[:1], at, quarter[turn])
				assert.Greater(t, length, paper.TextWidth(text), "%s %s", way, name)
				assert.GreaterOrEqual(t, reach(marks[:1], at, quarter[(turn+2)%4]), int64(0))
				assert.Equal(t, int64(0), reach(marks[:1], at, quarter[(turn+2)%4]), "nothing lies before its place")
				near, far := 0, 0
				for _, p := range points(flag) {
					d := p.Sub(at)
					along := d.X*quarter[turn].X + d.Y*quarter[turn].Y
					if along == 0 {
						near++
					}
					if along == length {
						far++
					}
				}
				assert.Equal(t, sharp[0], near == 1, "%s turned %d: a point at its place", way, turn)
				assert.Equal(t, sharp[1], far == 1, "%s turned %d: a point at its far end", way, turn)
				// the words lie within the flag, with room on both ends
				mid := geom.Pt(text.Pts[0], text.Pts[1]).Sub(at)
				along := mid.X*quarter[turn].X + mid.Y*quarter[turn].Y
				assert.Positive(t, along-paper.TextWidth(text)/2, "%s %s", way, name)
				assert.Less(t, along+paper.TextWidth(text)/2, length, "%s %s", way, name)
				assert.Equal(t, turn%2 == 1, text.Up)
			}
		}
	}
}

// Grounds hang below their place, supplies stand above it; turned, they go round anticlockwise.
func TestSuppliesStandAndGroundsHang(t *testing.T) {
	at := geom.Pt(-4*mm, 9*mm)
	for _, shape := range design.SupplyShapes {
		for turn := range 4 {
			marks := draw(&design.Supply{Name: "NET", Shape: shape, At: at, Turn: turn})
			up := quarter[(turn+1)%4]
			if design.Grounds(shape) {
				up = quarter[(turn+3)%4]
			}
			back := geom.Pt(-up.X, -up.Y)
			assert.Greater(t, reach(marks, at, up), int64(2*mm), "%s turned %d", shape, turn)
			assert.LessOrEqual(t, reach(marks[:len(marks)-1], at, back), int64(0), "%s turned %d", shape, turn)
			name := words(t, marks, "NET")
			body := reach(marks[:len(marks)-1], at, up)
			d := geom.Pt(name.Pts[0], name.Pts[1]).Sub(at)
			assert.GreaterOrEqual(t, d.X*up.X+d.Y*up.Y, body, "%s turned %d: its name stands beyond it", shape, turn)
			want := map[int]int{1: -1, -1: 1, 0: 0}[int(up.X)]
			assert.Equal(t, want, name.Align, "%s turned %d: its name reads away from it", shape, turn)
			assert.Contains(t, points(marks[0]), at, "it begins at its place")
		}
	}
	count := func(shape string, feeds bool) (n int) {
		for _, m := range draw(&design.Supply{Name: "N", Shape: shape, Feeds: feeds}) {
			if m.Text == "" {
				n++
			}
		}
		return n
	}
	assert.Equal(t, 4, count("ground", false), "a stem and three bars that grow shorter (IEC 60617-2, 02-15-01)")
	bars := draw(&design.Supply{Name: "N", Shape: "ground"})[1:4]
	for i := range 2 {
		assert.Greater(t, bars[i].Pts[2]-bars[i].Pts[0], bars[i+1].Pts[2]-bars[i+1].Pts[0])
		assert.Greater(t, bars[i].Pts[1], bars[i+1].Pts[1])
	}
	assert.Equal(t, 5, count("earth", false), "the same within a circle (02-15-03)")
	assert.Equal(t, 5, count("chassis", false), "a bar with three slanted lines (02-15-04)")
	assert.Equal(t, count("bar", false)+1, count("bar", true), "a wedge where the supply comes in")
}

// Names of a symbol's pins stand inside its body and their numbers beside their lines, all to
// be read from below or from the right, however the part is turned and mirrored.
func TestPinNamesReadAnyWay(t *testing.T) {
	d := design.New("names")
	sym := &design.Symbol{ID: d.NewID(), Name: "S", ShowNames: true, Pins: []design.Pin{
		{Number: "1", Name: "LEFT", At: geom.Pt(-10*mm, 0), Turn: 0, Length: 2_500_000},
		{Number: "2", Name: "DOWN", At: geom.Pt(0, -10*mm), Turn: 1, Length: 5 * mm},
		{Number: "3", Name: "RIGHT", At: geom.Pt(10*mm, 2_500_000), Turn: 2, Length: 2_500_000},
		{Number: "4", Name: "UP", At: geom.Pt(2_500_000, 10*mm), Turn: 3, Length: 5 * mm}}}
	d.Put(sym)
	d.Put(&design.LibraryPart{ID: d.NewID(), Name: "L", Symbol: "S"})
	for turn := range 4 {
		for _, mirror := range []bool{false, true} {
			p := &design.Part{Library: "L", At: geom.Pt(int64(turn)*100*mm, 7*mm), Turn: turn, Mirror: mirror}
			marks := paper.Marks(d, p, "")
			for i := range sym.Pins {
				pin := &sym.Pins[i]
				at := circuit.PinPlace(p, pin)
				var line paper.Mark
				for _, m := range marks {
					if m.Text == "" && len(m.Pts) == 4 && geom.Pt(m.Pts[0], m.Pts[1]) == at {
						line = m
					}
				}
				require.Len(t, line.Pts, 4, pin.Name)
				inner := geom.Pt(line.Pts[2], line.Pts[3])
				assert.EqualValues(t, pin.Length, at.Dist(inner))
				way := inner.Sub(at)
				way = geom.Pt(way.X/pin.Length, way.Y/pin.Length)
				name := words(t, marks, pin.Name)
				off := geom.Pt(name.Pts[0], name.Pts[1]).Sub(inner)
				assert.EqualValues(t, 800_000, off.X*way.X+off.Y*way.Y, "%s, turned %d: just inside", pin.Name, turn)
				assert.Zero(t, off.X*way.Y-off.Y*way.X)
				assert.Equal(t, way.X == 0, name.Up, "%s, turned %d", pin.Name, turn)
				begins := name.Align == -1 // words go on to the right or up
				assert.Equal(t, way.X > 0 || way.Y > 0, begins, "%s, turned %d", pin.Name, turn)
				number := words(t, marks, pin.Number)
				mid := geom.Pt((at.X+inner.X)/2, (at.Y+inner.Y)/2)
				want := mid.Add(geom.Pt(0, 950_000)) // above a level line, left of an upright one
				if way.X == 0 {
					want = mid.Add(geom.Pt(-950_000, 0))
				}
				assert.Equal(t, want, geom.Pt(number.Pts[0], number.Pts[1]), "%s, turned %d", pin.Name, turn)
				assert.Equal(t, way.X == 0, number.Up)
			}
		}
	}
}

// A part that is not fitted is crossed out from corner to corner of its body.
func TestNotFittedIsCrossedOut(t *testing.T) {
	d := design.New("crossed")
	d.Put(&design.Symbol{ID: d.NewID(), Name: "S", Figures: []design.Figure{
		{Form: "circle", Pts: []geom.Point{{X: 2 * mm, Y: 0}}, R: 3 * mm},
		{Form: "line", Pts: []geom.Point{{X: -4 * mm, Y: -mm}, {X: 0, Y: mm}}}}})
	d.Put(&design.LibraryPart{ID: d.NewID(), Name: "L", Symbol: "S"})
	p := &design.Part{Library: "L", Designator: "X1", At: geom.Pt(10*mm, 0), NotFitted: true}
	var cross [][]geom.Point
	for _, m := range paper.Marks(d, p, "") {
		if m.Stroke == "open" {
			cross = append(cross, points(m))
		}
	}
	assert.Equal(t, [][]geom.Point{{{X: 6 * mm, Y: -3 * mm}, {X: 15 * mm, Y: 3 * mm}}, {{X: 6 * mm, Y: 3 * mm}, {X: 15 * mm, Y: -3 * mm}}}, cross)
	p.NotFitted = false
	for _, m := range paper.Marks(d, p, "") {
		assert.NotEqual(t, "open", m.Stroke)
	}
}

// Pins of a block: a wedge inside the frame that points in for what comes in, out for what goes
// out; a bundle's is thicker. The sheet's name stands below when the block has another.
func TestBlocks(t *testing.T) {
	d := design.New("blocks")
	of := &design.Sheet{ID: d.NewID(), Name: "Probe"}
	d.Put(of)
	b := &design.SheetBlock{Name: "Probe 1", Of: of.ID, At: geom.Pt(0, 0), Size: geom.Pt(40*mm, 20*mm), Pins: []design.BlockPin{
		{Name: "IN", Way: "in", Side: 2, Pos: 10 * mm},
		{Name: "OUT", Way: "out", Side: 0, Pos: 10 * mm},
		{Name: "D[0:7]", Way: "both", Side: 1, Pos: 5 * mm}}}
	marks := paper.Marks(d, b, "")
	assert.EqualValues(t, []geom.Point{{}, {X: 40 * mm}, {X: 40 * mm, Y: 20 * mm}, {Y: 20 * mm}}, points(marks[0]))
	assert.Equal(t, "name", words(t, marks, "Probe 1").Field)
	assert.Negative(t, words(t, marks, "Probe").Pts[1], "below the frame")
	wedges := map[string]paper.Mark{}
	for i, m := range marks {
		if i > 0 && m.Closed && m.Fill == "port" {
			wedges[marks[i+1].Text] = m
		}
	}
	require.Len(t, wedges, 3)
	tip := func(m paper.Mark, x int64) (n int) {
		for _, p := range points(m) {
			if p.X == x {
				n++
			}
		}
		return n
	}
	assert.Equal(t, 2, tip(wedges["IN"], 0), "broad where the signal enters")
	assert.Equal(t, 1, tip(wedges["IN"], 1_600_000), "and pointed inwards")
	assert.Equal(t, 1, tip(wedges["OUT"], 40*mm))
	assert.Equal(t, 2, tip(wedges["OUT"], 40*mm-1_600_000))
	assert.Greater(t, wedges["D[0:7]"].Width, wedges["IN"].Width)
	assert.True(t, words(t, marks, "D[0:7]").Up)
	assert.Equal(t, 1, words(t, marks, "OUT").Align, "its name ends at the wedge")
	assert.Equal(t, -1, words(t, marks, "IN").Align)
	b.Name = "Probe"
	n := 0
	for _, m := range paper.Marks(d, b, "") {
		if m.Text == "Probe" {
			n++
		}
	}
	assert.Equal(t, 1, n, "one name is not said twice")
}

func TestFiguresOfASheet(t *testing.T) {
	ellipse := draw(&design.Graphic{Form: "ellipse", Tint: "moss", Dash: true, Pts: []geom.Point{{X: 0, Y: 0}, {X: 40 * mm, Y: 20 * mm}}})
	require.Len(t, ellipse, 1)
	assert.True(t, ellipse[0].Dash)
	assert.Equal(t, "tint-moss", ellipse[0].Fill)
	for _, p := range points(ellipse[0]) {
		x, y := float64(p.X-20*mm)/(20*mm), float64(p.Y-10*mm)/(10*mm)
		assert.InDelta(t, 1, x*x+y*y, 1e-6)
	}
	bare := draw(&design.Graphic{Form: "rectangle", Tint: "none", Pts: []geom.Point{{X: 9 * mm, Y: 1 * mm}, {X: 2 * mm, Y: 5 * mm}}})
	assert.Empty(t, bare[0].Fill)
	assert.Equal(t, "ink", bare[0].Stroke)
	assert.Equal(t, []geom.Point{{X: 2 * mm, Y: mm}, {X: 9 * mm, Y: mm}, {X: 9 * mm, Y: 5 * mm}, {X: 2 * mm, Y: 5 * mm}}, points(bare[0]))
	assert.Len(t, draw(&design.Graphic{Form: "line", Tint: "sky", Pts: []geom.Point{{}, {X: mm}}}), 1)
	arrow := draw(&design.Graphic{Form: "arrow", Tint: "sky", Pts: []geom.Point{{}, {X: 30 * mm, Y: 40 * mm}}})
	require.Len(t, arrow, 2)
	tip := points(arrow[1])
	assert.Equal(t, geom.Pt(30*mm, 40*mm), tip[0], "the head's tip is where the line ends")
	for _, p := range tip[1:] { // 2.4 mm back along the line and 0.9 mm aside
		d := tip[0].Sub(p)
		assert.InDelta(t, 2.4*mm, float64(d.X)*0.6+float64(d.Y)*0.8, 2)
		assert.InDelta(t, 0.9*mm, math.Abs(float64(d.X)*0.8-float64(d.Y)*0.6), 2)
	}
	assert.NotEqual(t, tip[1], tip[2])
	same := draw(&design.Graphic{Form: "arrow", Tint: "sky", Pts: []geom.Point{{X: mm}, {X: mm}}})
	assert.Len(t, same, 2, "an arrow of no length has no direction, and does no harm")

	cluster := draw(&design.Cluster{Title: "Supply", Tint: "sand", A: geom.Pt(50*mm, 30*mm), B: geom.Pt(0, 0)})
	assert.Equal(t, geom.Pt(0, 0), points(cluster[0])[0])
	title := words(t, cluster, "Supply")
	assert.Greater(t, title.Pts[1], int64(30*mm), "its title stands on a tab above the frame")
	assert.Greater(t, reach(cluster[1:2], geom.Pt(0, 0), geom.Pt(1, 0)), title.Pts[0]+paper.TextWidth(title))
}

// A timing diagram: a row a signal, its slots from the names on, marks and spans over all.
func TestTimingDiagrams(t *testing.T) {
	o := &design.Timing{At: geom.Pt(0, 100*mm), Slot: 10 * mm, Text: "slot 5 ns\nCLK: clock 2\n" +
		"CS: high 1, low 1.5, high 0.5\nD: free 1, data 2 \"A\"\nmark 1 \"now\"\nspan 0.5 2 \"t1\"\n"}
	marks := draw(o)
	var rows []paper.Mark
	for _, m := range marks {
		if m.Stroke == "wire" && !m.Closed {
			rows = append(rows, m)
		}
	}
	require.Len(t, rows, 2, "clock and CS are drawn in one stroke each; D floats, then is an area")
	clock := points(rows[0])
	x0, low := clock[0].X, clock[0].Y
	high := clock[1].Y
	assert.Equal(t, int64(4_400_000), high-low)
	assert.Equal(t, []geom.Point{
		{X: x0, Y: low}, {X: x0, Y: high}, {X: x0 + 5*mm, Y: high}, {X: x0 + 5*mm, Y: low}, {X: x0 + 10*mm, Y: low},
		{X: x0 + 10*mm, Y: low}, {X: x0 + 10*mm, Y: high}, {X: x0 + 15*mm, Y: high}, {X: x0 + 15*mm, Y: low}, {X: x0 + 20*mm, Y: low},
	}, clock, "high in the first half of each slot")
	cs := points(rows[1])
	assert.Equal(t, low-7*mm, cs[2].Y, "a row is 7 mm")
	foot := cs[2].Y
	assert.Equal(t, []geom.Point{
		{X: x0, Y: foot + 4_400_000}, {X: x0 + 10*mm, Y: foot + 4_400_000}, {X: x0 + 10*mm, Y: foot},
		{X: x0 + 25*mm, Y: foot}, {X: x0 + 25*mm, Y: foot + 4_400_000}, {X: x0 + 30*mm, Y: foot + 4_400_000},
	}, cs)
	for _, name := range []string{"CLK", "CS", "D"} {
		m := words(t, marks, name)
		assert.Equal(t, 1, m.Align)
		assert.Equal(t, x0-2*mm, m.Pts[0], "names end just before the first slot")
		assert.GreaterOrEqual(t, m.Pts[0]-paper.TextWidth(m), o.At.X, "and begin after the diagram's edge")
	}
	data := words(t, marks, "A")
	assert.Equal(t, x0+20*mm, data.Pts[0], "in the middle of its slots")
	now := words(t, marks, "now")
	assert.Equal(t, x0+10*mm, now.Pts[0])
	assert.Greater(t, now.Pts[1], high)
	span := words(t, marks, "t1")
	assert.Equal(t, x0+12_500_000, span.Pts[0])
	assert.Less(t, span.Pts[1], low-14*mm)
	words(t, marks, "one slot: 5 ns")
	heads := 0
	for _, m := range marks {
		if m.Closed && m.Fill == "ink" {
			heads++
			assert.Contains(t, []int64{x0 + 5*mm, x0 + 20*mm}, m.Pts[0], "the span's ends")
		}
	}
	assert.Equal(t, 2, heads)
	bad := draw(&design.Timing{Text: "A: hihg"})
	require.Len(t, bad, 1)
	assert.Contains(t, bad[0].Text, "hihg", "what cannot be read says why where it stands")
}

func TestRoomOfMarks(t *testing.T) {
	b := paper.Box(draw(&design.Wire{A: geom.Pt(0, 0), B: geom.Pt(10*mm, 0)}))
	assert.Equal(t, geom.Box{Min: geom.Pt(-210_000, -210_000), Max: geom.Pt(10*mm+210_000, 210_000)}, b)
	assert.Equal(t, geom.Box{Min: geom.Pt(-850_000, -850_000), Max: geom.Pt(850_000, 850_000)}, paper.Box([]paper.Mark{paper.Junction(geom.Pt(0, 0), false)}))
	for align, want := range map[int][2]float64{-1: {0, 1}, 0: {-0.5, 0.5}, 1: {-1, 0}} {
		m := paper.Mark{Pts: []int64{0, 0}, Text: "WWWW", Size: 2 * mm, Align: align}
		w := float64(paper.TextWidth(m))
		assert.InDelta(t, 4*0.6*2*mm, w, 0.02*mm, "letters of the type for names are 0.6 em wide")
		b := paper.Box([]paper.Mark{m})
		assert.InDelta(t, want[0]*w, b.Min.X, 2)
		assert.InDelta(t, want[1]*w, b.Max.X, 2)
		m.Up = true
		up := paper.Box([]paper.Mark{m})
		assert.Equal(t, []int64{b.Min.X, b.Max.X}, []int64{up.Min.Y, up.Max.Y})
		assert.Equal(t, []int64{b.Min.Y, b.Max.Y}, []int64{up.Min.X, up.Max.X})
	}
	assert.Equal(t, geom.Box{}, paper.Box(nil))
}

func TestTapsLeadOut(t *testing.T) {
	for turn, end := range []geom.Point{{X: 1, Y: 1}, {X: -1, Y: 1}, {X: -1, Y: -1}, {X: 1, Y: -1}} {
		marks := draw(&design.Tap{Member: "D3", At: geom.Pt(mm, mm), Turn: turn})
		assert.Equal(t, []geom.Point{{X: mm, Y: mm}, {X: mm + end.X*2_500_000, Y: mm + end.Y*2_500_000}}, points(marks[0]))
		name := words(t, marks, "D3")
		assert.Equal(t, int(-end.X), name.Align, "its name stands on the far side")
	}
	m := draw(&design.Wire{A: geom.Pt(0, 0), B: geom.Pt(mm, 0), Bundle: true})
	assert.Greater(t, m[0].Width, 2*draw(&design.Wire{B: geom.Pt(mm, 0)})[0].Width)
	assert.Len(t, draw(&design.OpenMark{}), 2)
}
