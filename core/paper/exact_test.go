package paper_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
)

// µm turns micrometres by pairs into points.
func µm(xy ...int64) (out []geom.Point) {
	for i := 0; i+1 < len(xy); i += 2 {
		out = append(out, geom.Pt(xy[i]*1000, xy[i+1]*1000))
	}
	return out
}

// Outlines as they were designed, for a name of two letters: 2 × 0.62 × 3.1 mm and what the
// flag adds, 2.6 mm for labels and 4.6 mm for ports.
func TestOutlinesOfFlags(t *testing.T) {
	const l, p = 3844 + 2600, 3844 + 4600
	assert.Equal(t, µm(0, 0, 1400, 1700, l, 1700, l, -1700, 1400, -1700), points(draw(&design.Label{Name: "AB"})[0]))
	for way, want := range map[string][]geom.Point{
		"in":   µm(0, 0, 2000, 2000, p, 2000, p, -2000, 2000, -2000),
		"out":  µm(0, 2000, p-2000, 2000, p, 0, p-2000, -2000, 0, -2000),
		"both": µm(0, 0, 2000, 2000, p-2000, 2000, p, 0, p-2000, -2000, 2000, -2000),
	} {
		assert.Equal(t, want, points(draw(&design.Port{Name: "AB", Way: way})[0]), way)
	}
	// turned a quarter anticlockwise, x becomes y and y becomes −x
	assert.Equal(t, µm(0, 0, -1700, 1400, -1700, l, 1700, l, 1700, 1400), points(draw(&design.Label{Name: "AB", Turn: 1})[0]))
}

// Marks of supplies as they were designed, standing upwards; grounds are the same hanging down.
func TestOutlinesOfSupplies(t *testing.T) {
	lines := func(shape string) (out [][]geom.Point) {
		for _, m := range draw(&design.Supply{Name: "N", Shape: shape}) {
			if m.Text == "" && m.R == 0 {
				out = append(out, points(m))
			}
		}
		return out
	}
	assert.Equal(t, [][]geom.Point{µm(0, 0, 0, -2500), µm(-2200, -2500, 2200, -2500), µm(-1400, -3300, 1400, -3300), µm(-600, -4100, 600, -4100)}, lines("ground"))
	assert.Equal(t, lines("ground"), lines("earth"))
	assert.Equal(t, [][]geom.Point{µm(0, 0, 0, -2500), µm(-2200, -2500, 2200, -2500), µm(-2200, -2500, -3000, -4200), µm(0, -2500, -800, -4200), µm(2200, -2500, 1400, -4200)}, lines("chassis"))
	assert.Equal(t, [][]geom.Point{µm(0, 0, 0, 2500), µm(-2200, 2500, 2200, 2500)}, lines("bar"))
	assert.Equal(t, [][]geom.Point{µm(0, 0, 0, 2500), µm(-1200, 1300, 0, 2900, 1200, 1300), µm(0, 2500, 0, 2900)}, lines("arrow"))
	ring := func(shape string) (geom.Point, int64) {
		for _, m := range draw(&design.Supply{Name: "N", Shape: shape}) {
			if m.R > 0 {
				return points(m)[0], m.R
			}
		}
		return geom.Point{}, 0
	}
	at, r := ring("ring")
	assert.Equal(t, []any{geom.Pt(0, 3_400_000), int64(900_000)}, []any{at, r})
	at, r = ring("earth") // around the bars
	assert.Equal(t, []any{geom.Pt(0, -2_900_000), int64(2_900_000)}, []any{at, r})
	name := words(t, draw(&design.Supply{Name: "N", Shape: "bar"}), "N")
	assert.EqualValues(t, []int64{0, 4_300_000}, name.Pts)
	beside := words(t, draw(&design.Supply{Name: "N", Shape: "bar", Turn: 3}), "N")
	assert.EqualValues(t, []int64{3_100_000, 0}, beside.Pts, "beside, 0.6 mm off its bar")
	assert.EqualValues(t, []int64{-3_100_000, 0}, words(t, draw(&design.Supply{Name: "N", Shape: "bar", Turn: 1}), "N").Pts)
	wedge := draw(&design.Supply{Name: "N", Shape: "bar", Feeds: true})
	assert.Equal(t, µm(400, 1250, 1900, 1900, 1900, 600), points(wedge[2]))
}

// Designator and value stand above and below a level part and beside an upright one, on its
// right, wherever it is turned and mirrored; and where they were moved.
func TestTextsOfParts(t *testing.T) {
	d := design.New("texts")
	sheet := d.SheetsInOrder()[0].ID
	place := func(lib string, turn int, mirror bool) (*design.Part, []paper.Mark) {
		cs, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: lib, Turn: turn, Mirror: mirror})
		require.NoError(t, err)
		for _, c := range cs {
			if p, ok := c.After.(*design.Part); ok {
				return p, paper.Marks(d, p, "")
			}
		}
		return nil, nil
	}
	at := func(marks []paper.Mark, field string) []int64 {
		for _, m := range marks {
			if m.Field == field {
				return append(slices.Clone(m.Pts), int64(m.Align))
			}
		}
		return nil
	}
	for _, turn := range []int{0, 2} {
		p, marks := place("Resistor", turn, turn == 2)
		s := d.SymbolOf(p)
		assert.Equal(t, []int64{0, s.DesignatorAt.Y, 0}, at(marks, "designator"))
		assert.Equal(t, []int64{0, s.ValueAt.Y, 0}, at(marks, "value"))
	}
	for _, turn := range []int{1, 3} {
		_, marks := place("Resistor", turn, false)
		reach := int64(1_250_000 + 1_300_000) // half the body's height and a little room
		assert.Equal(t, []int64{reach, 1_900_000, -1}, at(marks, "designator"))
		assert.Equal(t, []int64{reach, -1_900_000, -1}, at(marks, "value"))
	}
	for _, c := range []struct {
		turn   int
		mirror bool
		x      int64
		align  int64
	}{{0, false, 7_200_000 - 1_600_000, -1}, {2, true, 7_200_000 - 1_600_000, -1}, {2, false, -7_200_000 + 1_600_000, 1}, {0, true, -7_200_000 + 1_600_000, 1}} {
		p, _ := place("NPN transistor", c.turn, c.mirror)
		q := *p
		q.Value = "BV1"
		marks := paper.Marks(d, &q, "")
		assert.Equal(t, []int64{c.x, 1_900_000, c.align}, at(marks, "designator"), "turned %d, mirrored %v: on the free side", c.turn, c.mirror)
		assert.Equal(t, []int64{c.x, -1_900_000, c.align}, at(marks, "value"))
	}
	p, _ := place("Resistor", 1, true)
	q := *p
	q.At = geom.Pt(10*mm, 20*mm)
	q.DesignatorAt = &geom.Point{X: 3 * mm, Y: -4 * mm}
	assert.Equal(t, []int64{13 * mm, 16 * mm, 0}, at(paper.Marks(d, &q, ""), "designator"))
}

// Lines of a note: a margin of 0.8 of a letter on paper, lines 1.4 letters apart, headings 1.3
// times as large, items moved in by a letter with a dot before them.
func TestLinesOfANote(t *testing.T) {
	n := &design.Note{At: geom.Pt(10*mm, 100*mm), Width: 60 * mm, Size: 3 * mm, Tint: "none", Text: "# Head\nplain\n\n- item"}
	marks := draw(n)
	y := int64(100 * mm)
	head := words(t, marks, "Head")
	assert.Equal(t, []int64{10 * mm, y - 2_730_000}, head.Pts, "0.7 of 3.9 mm below the top")
	assert.EqualValues(t, 3_900_000, head.Size)
	y -= 5_460_000 // 1.4 × 3.9
	assert.Equal(t, []int64{10 * mm, y - 2_100_000}, words(t, marks, "plain").Pts)
	y -= 4_200_000 + 2_100_000 // a line and half an empty one
	assert.Equal(t, []int64{13 * mm, y - 2_100_000}, words(t, marks, "item").Pts)
	dot := marks[slices.IndexFunc(marks, func(m paper.Mark) bool { return m.R > 0 })]
	assert.Equal(t, []int64{11 * mm, y - 2_100_000}, dot.Pts, "a third of a letter in")
	assert.EqualValues(t, 375_000, dot.R)
	n.Tint = "sand"
	marks = draw(n)
	assert.Equal(t, []int64{12_400_000, 100*mm - 2_400_000 - 2_730_000}, words(t, marks, "Head").Pts)
	box := points(marks[0])
	assert.Equal(t, []int64{10 * mm, 70 * mm, 100 * mm}, []int64{box[0].X, box[2].X, box[2].Y})
	assert.Equal(t, 100*mm-2_400_000-5_460_000-4_200_000-2_100_000-4_200_000-1_200_000, int(box[0].Y))
	bold := &design.Note{Width: 90 * mm, Size: 3 * mm, Tint: "none", Text: "a *strong* word"}
	marks = draw(bold)
	require.Len(t, marks, 3)
	assert.Equal(t, []bool{false, true, false}, []bool{marks[0].Bold, marks[1].Bold, marks[2].Bold})
	assert.InDelta(t, marks[0].Pts[0]+paper.TextWidth(marks[0]), marks[1].Pts[0], 1, "one behind the other")
}

// Where the PDF sets its words is where the sheet has them: 72/25.4 points a millimetre, from below.
func TestPlacesInThePDF(t *testing.T) {
	r, _, _, _ := printed(t, func(d *design.Doc, sheet design.ID) {
		d.Put(&design.Label{ID: d.NewID(), Sheet: sheet, Name: "Q", At: geom.Pt(100*mm, 50*mm)})
	})
	label := words(t, draw(&design.Label{Name: "Q", At: geom.Pt(100*mm, 50*mm)}), "Q")
	found := 0
	for _, w := range r.Page(1).Content().Text {
		if w.S != "Q" {
			continue
		}
		found++
		assert.InDelta(t, float64(label.Pts[0]-paper.TextWidth(label)/2)/1e6*72/25.4, w.X, 0.1)
		assert.InDelta(t, (50-3.1*0.35)*72/25.4, w.Y, 0.1, "its middle is on the line")
		assert.InDelta(t, 3.1*72/25.4, w.FontSize, 0.01)
	}
	assert.Equal(t, 1, found)
}

// Other states of a timing diagram: floating in the middle, anything hatched, left out by two slants.
func TestStatesOfATimingDiagram(t *testing.T) {
	marks := draw(&design.Timing{At: geom.Pt(0, 0), Slot: 10 * mm, Text: "A: low 1, free 1, any 1, gap 1, data 1 \"D\", high 1 \"up\"\n"})
	name := words(t, marks, "A")
	x0, base := name.Pts[0]+2*mm, name.Pts[1]-2_200_000
	const high = 4_400_000
	var free, areas, slants, hatches []paper.Mark
	for _, m := range marks {
		switch {
		case m.Stroke == "quiet" && m.Width == 400_000:
			free = append(free, m)
		case m.Closed && m.Stroke == "wire":
			areas = append(areas, m)
		case m.Stroke == "ink" && m.Width == 300_000:
			slants = append(slants, m)
		case m.Stroke == "quiet" && m.Width == 200_000:
			hatches = append(hatches, m)
		}
	}
	require.Len(t, free, 1)
	assert.Equal(t, []int64{x0 + 10*mm, base + high/2, x0 + 20*mm, base + high/2}, free[0].Pts)
	require.Len(t, areas, 2)
	a := x0 + 20*mm
	assert.Equal(t, []geom.Point{{X: a, Y: base + high/2}, {X: a + 600_000, Y: base + high}, {X: a + 9_400_000, Y: base + high},
		{X: a + 10*mm, Y: base + high/2}, {X: a + 9_400_000, Y: base}, {X: a + 600_000, Y: base}}, points(areas[0]), "pointed on both ends")
	assert.Equal(t, []string{"body", "tint-sky"}, []string{areas[0].Fill, areas[1].Fill})
	require.Len(t, slants, 2)
	mid := x0 + 35*mm
	assert.Equal(t, []int64{mid - 1_100_000, base - 500_000, mid - 100_000, base + high + 500_000}, slants[0].Pts)
	assert.Equal(t, []int64{mid + 100_000, base - 500_000, mid + 1_100_000, base + high + 500_000}, slants[1].Pts)
	require.NotEmpty(t, hatches)
	for _, h := range hatches {
		assert.Greater(t, h.Pts[0], a)
		assert.LessOrEqual(t, h.Pts[2], a+9_400_000, "within its slants")
		assert.Equal(t, []int64{base + 300_000, base + high - 300_000}, []int64{h.Pts[1], h.Pts[3]})
	}
	assert.Equal(t, int64(1_600_000), hatches[1].Pts[0]-hatches[0].Pts[0])
	assert.Equal(t, []int64{x0 + 45*mm, base + high/2}, words(t, marks, "D").Pts)
	assert.Equal(t, []int64{x0 + 55*mm, base + high + 1_300_000}, words(t, marks, "up").Pts, "above what is a line")
}

// Words that begin or end at their place do so in the PDF too; circles stand where they should.
func TestAlignmentInThePDF(t *testing.T) {
	r, _, _, svg := printed(t, func(d *design.Doc, sheet design.ID) {
		d.Put(&design.Tap{ID: d.NewID(), Sheet: sheet, Member: "K", At: geom.Pt(50*mm, 50*mm), Turn: 0})
		d.Put(&design.Supply{ID: d.NewID(), Sheet: sheet, Name: "W", Shape: "ring", At: geom.Pt(100*mm, 50*mm), Turn: 1})
	})
	at := map[string]float64{}
	for _, w := range r.Page(1).Content().Text {
		at[w.S] = w.X
	}
	tap := words(t, draw(&design.Tap{Member: "K", At: geom.Pt(50*mm, 50*mm)}), "K")
	require.Equal(t, -1, tap.Align)
	assert.InDelta(t, float64(tap.Pts[0])/1e6*72/25.4, at["K"], 0.1, "begins at its place")
	name := words(t, draw(&design.Supply{Name: "W", Shape: "ring", At: geom.Pt(100*mm, 50*mm), Turn: 1}), "W")
	require.Equal(t, 1, name.Align)
	assert.InDelta(t, float64(name.Pts[0]-paper.TextWidth(name))/1e6*72/25.4, at["W"], 0.1, "ends at its place")
	assert.Contains(t, svg, `<circle cx="96.6" cy="160" r="0.9"`, "the ring, from the upper left of a page 210 mm high")
	assert.Contains(t, svg, `font-size="2.5"`)
	assert.Contains(t, svg, `<path d="M50 160L52.5 157.5"`)
}

// Without a word on what a slot is there is none, and what stands below moves up.
func TestTimingWithoutASlot(t *testing.T) {
	with := draw(&design.Timing{Slot: 10 * mm, Text: "slot 1 ms\nA: high 3\nspan 1 2 \"t\"\n"})
	without := draw(&design.Timing{Slot: 10 * mm, Text: "A: high 3\nspan 1 2 \"t\"\n"})
	assert.EqualValues(t, 3*mm, words(t, without, "t").Pts[1]-words(t, with, "t").Pts[1])
	for _, m := range without {
		assert.NotContains(t, m.Text, "one slot")
	}
	row := words(t, with, "A").Pts[1] - 2_200_000 - 1_200_000 // the foot of the only row
	assert.Equal(t, row-1_800_000, words(t, with, "one slot: 1 ms").Pts[1])
	assert.Equal(t, words(t, with, "A").Pts[0]+2*mm, words(t, with, "one slot: 1 ms").Pts[0], "below the first slot")
}
