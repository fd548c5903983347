package layout_test

import (
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

func mm(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }

// The copper of the four-layer board, piece by piece: which layers (bit 0 is the top), where, how
// large, which hole.
func TestPiecesByHand(t *testing.T) {
	d := synthetic.FourLayers()
	x := layout.NewIndex(d)
	type piece struct {
		kind, net, name string
		layers          uint32
		at              geom.Point
		box             geom.Box
		hole            int64
		bare            bool
	}
	box := func(x0, y0, x1, y1 float64) geom.Box { return geom.BoxOf(mm(x0, y0), mm(x1, y1)) }
	want := map[design.ID][]piece{
		synthetic.FourR1: {
			{"pad", "A", "pad R1.1", 1, mm(8, 10), box(7.5, 9, 8.5, 11), 0, false},
			{"pad", "B", "pad R1.2", 1, mm(12, 10), box(11.5, 9, 12.5, 11), 0, false},
		},
		synthetic.FourU1: {
			{"pad", "A", "pad U1.1", 15, mm(10, 20), box(9.2, 19.2, 10.8, 20.8), 800_000, false},
			{"pad", "C", "pad U1.2", 8, mm(10, 15), box(9.5, 14, 10.5, 16), 0, false},
			{"pad", "", "pad U1.3", 8, mm(7, 15), box(6.5, 14, 7.5, 16), 0, false},
			{"hole", "", "pad U1.", 15, mm(10, 25), box(9.5, 24.5, 10.5, 25.5), 1_000_000, true},
		},
		synthetic.FourInner2:  {{"track", "B", "track", 4, mm(5, 3), box(4.85, 2.85, 15.15, 3.15), 0, false}},
		synthetic.FourThrough: {{"via", "A", "via", 15, mm(20, 20), box(19.6, 19.6, 20.4, 20.4), 400_000, false}},
		synthetic.FourBuried:  {{"via", "B", "via", 6, mm(30, 20), box(29.6, 19.6, 30.4, 20.4), 400_000, false}},
		synthetic.FourScrew:   {{"hole", "", "hole", 15, mm(37, 3), box(35.4, 1.4, 38.6, 4.6), 3_200_000, true}},
	}
	for id, list := range want {
		var got []piece
		for _, c := range x.Of(id) {
			got = append(got, piece{c.Kind, d.NetName(c.Net), c.Name, c.Layers, c.At, c.Shape.Box(), c.Hole, c.Bare})
		}
		assert.Equal(t, list, got, "object %d", id)
	}
	for i, c := range x.Of(synthetic.FourR1) {
		assert.Equal(t, i, c.Pad, "pads are known by their place in the footprint")
	}
	for _, id := range []design.ID{synthetic.FourInner2, synthetic.FourThrough, synthetic.FourScrew} {
		assert.Equal(t, -1, x.Of(id)[0].Pad, "what is no pad has none")
	}
	assert.True(t, x.Of(synthetic.FourBuried)[0].Has(1))
	assert.False(t, x.Of(synthetic.FourBuried)[0].Has(0))
	assert.Equal(t, 15, x.Len())
	assert.Len(t, x.NetPieces(synthetic.FourA), 5, "two pads, a track, two vias")
	assert.Equal(t, []design.ID{synthetic.FourA, synthetic.FourB, synthetic.FourC}, x.Nets())
	x.Remove(synthetic.FourU1)
	assert.Equal(t, 11, x.Len())
	assert.Len(t, x.NetPieces(synthetic.FourA), 4)
	assert.Empty(t, x.Of(synthetic.FourU1))
}

// What touches: only copper that has a layer in common, and at the very border too.
func TestTouching(t *testing.T) {
	d := synthetic.FourLayers()
	x := layout.NewIndex(d)
	one := func(id design.ID) *layout.Copper { return x.Of(id)[0] }
	put := func(o design.Object) *layout.Copper { x.Put(d, o); return one(o.ObjectID()) }
	track := func(id design.ID, layer int, ax, ay, bx, by float64) *layout.Copper {
		return put(&design.Track{ID: id, Layer: d.Board.At(layer), A: mm(ax, ay), B: mm(bx, by), Width: 300_000, Net: synthetic.Net(d, "B")})
	}
	assert.True(t, layout.Touching(track(300, 1, 30, 20, 30, 25), one(synthetic.FourBuried)))
	assert.False(t, layout.Touching(track(301, 0, 30, 20, 30, 25), one(synthetic.FourBuried)), "it does not reach the top")
	assert.True(t, layout.Touching(track(302, 2, 30.55, 20, 33, 20), one(synthetic.FourBuried)), "they just touch")
	assert.False(t, layout.Touching(track(303, 2, 30.551, 20, 33, 20), one(synthetic.FourBuried)))
	assert.False(t, layout.Touching(track(304, 2, 37, 3, 38, 3), one(synthetic.FourScrew)), "a bare hole is no copper")
}

// Pads by their forms, in the footprint's own coordinates.
func TestPadShapes(t *testing.T) {
	rect := func(x0, y0, x1, y1 int64) []geom.Point {
		return []geom.Point{geom.Pt(x0, y0), geom.Pt(x1, y0), geom.Pt(x1, y1), geom.Pt(x0, y1)}
	}
	for form, want := range map[string]geom.Shape{
		"round":   {Pts: []geom.Point{{X: -3, Y: 7}, {X: 17, Y: 7}}, R: 20},
		"oval":    {Pts: []geom.Point{{X: -3, Y: 7}, {X: 17, Y: 7}}, R: 20},
		"rect":    {Pts: rect(-23, -13, 37, 27), Area: true},
		"rounded": {Pts: rect(-18, -8, 32, 22), Area: true, R: 5},
	} {
		assert.Equal(t, want, layout.PadShape(&design.Pad{Form: form, At: geom.Pt(7, 7), Size: geom.Pt(60, 40), Corner: 5}), form)
	}
	assert.Equal(t, geom.Disc(geom.Pt(1, 2), 20), layout.PadShape(&design.Pad{Form: "round", At: geom.Pt(1, 2), Size: geom.Pt(40, 40)}))
	assert.Equal(t, geom.Shape{Pts: []geom.Point{{X: 0, Y: -10}, {X: 0, Y: 10}}, R: 20}, layout.PadShape(&design.Pad{Form: "oval", Size: geom.Pt(40, 60)}))
}

// Texts on the board never stand on their heads, seen from their own side, and are mirrored on
// the bottom.
func TestTextsReadUpright(t *testing.T) {
	head := func(angle int32, bottom bool) (dx, dy int64) { // from the foot of an L's stem to its top
		line := layout.TextLines("L", 6_000_000, mm(0, 0), angle, bottom)[0] // drawn from the top down
		return line[0].X - line[1].X, line[0].Y - line[1].Y
	}
	arm := func(angle int32, bottom bool) (dx, dy int64) {
		line := layout.TextLines("L", 6_000_000, mm(0, 0), angle, bottom)[0]
		return line[2].X - line[1].X, line[2].Y - line[1].Y
	}
	for angle, up := range map[int32][2]int64{0: {0, 1}, 90_000: {-1, 0}, 180_000: {0, 1}, 270_000: {-1, 0}, -90_000: {-1, 0}, 450_000: {-1, 0}} {
		dx, dy := head(angle, false)
		assert.Equal(t, [2]int64{up[0] * 6_000_000, up[1] * 6_000_000}, [2]int64{dx, dy}, "%d on top", angle)
	}
	for angle, up := range map[int32][2]int64{0: {0, 1}, 90_000: {1, 0}, 180_000: {0, 1}, 270_000: {1, 0}} {
		dx, dy := head(angle, true)
		assert.Equal(t, [2]int64{up[0] * 6_000_000, up[1] * 6_000_000}, [2]int64{dx, dy}, "%d on the bottom", angle)
	}
	dx, _ := arm(0, false)
	assert.Positive(t, dx, "to the right")
	dx, _ = arm(0, true)
	assert.Negative(t, dx, "mirrored")
}

func TestSilkOfAPart(t *testing.T) {
	d := synthetic.FourLayers()
	lines := layout.SilkLines(d, d.Placed[synthetic.FourR1])
	assert.Equal(t, []geom.Point{mm(9, 9), mm(11, 9)}, lines[0], "its footprint's drawing")
	var text geom.Extent
	for _, l := range lines[1:] {
		text.Add(l...)
	}
	assert.Equal(t, mm(10, 13), text.Box.Centre(), "its designator, where the footprint has it")
	assert.EqualValues(t, 1_000_000, text.Box.Max.Y-text.Box.Min.Y)
	p := *d.Placed[synthetic.FourR1]
	there := mm(5, 0)
	p.Label = &there
	text = geom.Extent{}
	for _, l := range layout.SilkLines(d, &p)[1:] {
		text.Add(l...)
	}
	assert.Equal(t, mm(15, 10), text.Box.Centre(), "moved")
	p.Footprint = "none"
	assert.Empty(t, layout.SilkLines(d, &p))
	circle := layout.FigureLines(design.Figure{Form: "circle", Pts: []geom.Point{mm(1, 2)}, R: 1_000_000})[0]
	assert.Equal(t, circle[0], circle[len(circle)-1], "closed")
	for _, q := range circle {
		assert.InDelta(t, 1e6, q.Dist(mm(1, 2)), 1)
	}
	assert.Equal(t, [][]geom.Point{{mm(0, 0), mm(1, 0), mm(1, 1), mm(0, 0)}}, layout.FigureLines(design.Figure{Form: "area", Pts: []geom.Point{mm(0, 0), mm(1, 0), mm(1, 1)}}))
}

// New parts arrive to the right of all that is there, from the top down, on the grid, without
// overlapping; where no outline is drawn they stay clear of where one will be.
func TestArriving(t *testing.T) {
	d := synthetic.FourLayers()
	one, each := d.Footprint("Two pads"), d.Footprint("One of each")
	list := []*design.Footprint{one, each, one, one, one, one, one, one, one, one}
	check := func(least int64) []geom.Box {
		t.Helper()
		var boxes []geom.Box
		for i, at := range layout.Arrive(d, newcomers(list...)) {
			assert.Equal(t, geom.Snap(at, 1_270_000), at)
			b := geom.BoxOf(layout.Courtyard(list[i], geom.Pose{At: at})...)
			assert.GreaterOrEqual(t, b.Min.X, least)
			for _, other := range boxes {
				assert.False(t, b.Grow(500_000).Meets(other), "apart")
			}
			boxes = append(boxes, b)
		}
		return boxes
	}
	boxes := check(43_000_000)
	assert.LessOrEqual(t, boxes[1].Max.Y, int64(31_000_000), "the widest first, from the top")
	b := *d.Board
	b.Outline = nil
	d.Put(&b)
	check(103_000_000)
	bare := *each
	bare.Courtyard = nil
	assert.Equal(t, geom.BoxOf(geom.Pt(-5_750_000, -1_050_000), geom.Pt(6_250_000, 3_750_000)), geom.BoxOf(layout.Courtyard(&bare, geom.Pose{})...), "a quarter of a millimetre around the pads")
}

// Every kind of difference between circuit and board, in words.
func TestDifferencesByHand(t *testing.T) {
	d := design.New("differ")
	sheet := d.SheetsInOrder()[0].ID
	d.Put(&design.Symbol{ID: 20, Name: "S", Pins: []design.Pin{{Number: "1", Type: "passive", At: mm(-5, 0)}, {Number: "2", Type: "passive", At: mm(5, 0), Turn: 2}}})
	d.Put(&design.LibraryPart{ID: 21, Name: "P", Prefix: "R", Symbol: "S", Footprint: "F"})
	d.Put(&design.Footprint{ID: 22, Name: "F", Pads: []design.Pad{{Number: "1", Form: "round", Size: mm(1, 1)}, {Number: "2", Form: "round", At: mm(5, 0), Size: mm(1, 1)}}})
	part := func(id design.ID, name, value, footprint string, x float64) {
		d.Put(&design.Part{ID: id, Sheet: sheet, Library: "P", Designator: name, Value: value, Footprint: footprint, At: mm(x, 0)})
	}
	on := func(id, of design.ID, name, value string, nets map[string]design.ID) {
		d.Put(&design.Placed{ID: id, Part: of, Designator: name, Value: value, Footprint: "F", Nets: nets})
	}
	part(30, "R1", "1k", "F", 0) // pin 2 meets R2's pin 1
	part(31, "R2", "2k", "F", 10)
	part(32, "R3", "3k", "F", 40)
	part(33, "R4", "4k", "", 60)
	d.Put(&design.Label{ID: 40, Sheet: sheet, Name: "SENSE", At: mm(5, 0)})
	on(50, 30, "R1", "1k", map[string]design.ID{"2": synthetic.Net(d, "OLD")})
	on(51, 31, "R2", "2k2", map[string]design.ID{"1": synthetic.Net(d, "OLD"), "2": synthetic.Net(d, "GND")})
	on(52, 99, "C9", "1n", map[string]design.ID{"1": synthetic.Net(d, "GND")})
	var got []string
	nets := circuit.Find(d)
	for _, x := range layout.Differences(d, nets) {
		got = append(got, x.Kind+": "+x.Text)
	}
	assert.Equal(t, []string{
		"rename: The net OLD is called SENSE now.",
		"none: R4 has no footprint and cannot be carried; give it one in the circuit.",
		`change: R2 has the value "2k" instead of "2k2".`,
		"nets: R2: pad 2 leaves GND.",
		"add: R3 (3k, F) is new.",
		"remove: C9 is no longer in the circuit.",
	}, got)
	require.NotNil(t, nets.ByName["SENSE"])
	// a net that another pad of the board bears too was not merely renamed
	on(53, 32, "R3", "3k", map[string]design.ID{"1": synthetic.Net(d, "OLD")})
	got = nil
	for _, x := range layout.Differences(d, circuit.Find(d)) {
		got = append(got, x.Kind)
	}
	assert.NotContains(t, got, "rename")
}

// Kept up to date through changes of the board, the comparison says what one made anew says.
func TestDifferencesKeptUpToDate(t *testing.T) {
	d := design.New("follow")
	sheet := d.SheetsInOrder()[0].ID
	d.Put(&design.Symbol{ID: 20, Name: "S", Pins: []design.Pin{{Number: "1", Type: "passive", At: mm(-5, 0)}}})
	d.Put(&design.LibraryPart{ID: 21, Name: "P", Prefix: "R", Symbol: "S", Footprint: "F"})
	d.Put(&design.Footprint{ID: 22, Name: "F", Pads: []design.Pad{{Number: "1", Form: "round", Size: mm(1, 1)}}})
	for i := range 3 { // each on a net of its own, called SENSE by a label on the first two
		d.Put(&design.Part{ID: design.ID(30 + i), Sheet: sheet, Library: "P", Designator: fmt.Sprint("R", i+1), Footprint: "F", At: mm(float64(20*i), 0)})
		if i < 2 {
			d.Put(&design.Label{ID: design.ID(40 + i), Sheet: sheet, Name: "SENSE", At: mm(float64(20*i-5), 0)})
		}
		d.Put(&design.Placed{ID: design.ID(50 + i), Part: design.ID(30 + i), Designator: fmt.Sprint("R", i+1), Footprint: "F", Nets: map[string]design.ID{"1": synthetic.Net(d, "OLD")}})
	}
	n := circuit.Find(d)
	c := layout.NewComparison()
	c.UpdateAll(d, n)
	kinds := func() (out []string) {
		for _, x := range c.List() {
			out = append(out, x.Text)
		}
		return out
	}
	assert.NotContains(t, kinds(), "The net OLD is called SENSE now.", "R3 bears it too")
	put := func(nets map[string]design.ID) {
		d.Put(&design.Placed{ID: 52, Part: 32, Designator: "R3", Footprint: "F", Nets: nets})
		c.Update(d, n, map[circuit.PartRef]bool{{Part: 32}: true}, map[design.ID]bool{52: true})
		assert.Equal(t, layout.Differences(d, n), c.List())
	}
	put(map[string]design.ID{})
	assert.Equal(t, []string{"The net OLD is called SENSE now."}, kinds(), "R3 bears it no more")
	put(map[string]design.ID{"1": synthetic.Net(d, "OLD")})
	put(map[string]design.ID{"1": synthetic.Net(d, "GND")})
	d.Remove(design.KindPlaced, 51)
	c.Update(d, n, map[circuit.PartRef]bool{{Part: 31}: true}, map[design.ID]bool{51: true})
	assert.Equal(t, layout.Differences(d, n), c.List())
}

// New parts stand in columns right of what is there, the wide ones first, each column as tall as
// the board but for its last part, 2 mm between them; before there is an outline they keep clear
// of the 100 × 80 mm where one is likely to be drawn.
func TestColumnsOfNewParts(t *testing.T) {
	part := func(w, h float64) *design.Footprint {
		return &design.Footprint{Name: "F", Courtyard: []geom.Point{mm(0, 0), mm(w, 0), mm(w, h), mm(0, h)}}
	}
	board := func(outline ...geom.Point) *design.Doc {
		d := design.New("columns")
		b := *d.Board
		b.Outline = geom.Corners(outline...)
		d.Put(&b)
		return d
	}
	snapped := func(x, y float64) geom.Point {
		return geom.Pt(int64(math.Round(x/1.27))*1_270_000, int64(math.Round(y/1.27))*1_270_000)
	}
	d := board(mm(0, 0), mm(60, 0), mm(60, 50), mm(0, 50))
	got := layout.Arrive(d, newcomers(part(5, 20), part(10, 20), part(8, 20), part(5, 8)))
	assert.Equal(t, []geom.Point{
		snapped(77, 30), // a new column: 20 + 2 + 20 mm are there, 20 more would be too tall
		snapped(65, 30), // the widest, at the top: its corner 5 mm right of the board
		snapped(65, 8),  // below it, 2 mm apart
		snapped(77, 20),
	}, got)
	full := layout.Arrive(d, newcomers(part(6, 24), part(6, 24), part(6, 24)))
	assert.Equal(t, []geom.Point{snapped(65, 26), snapped(65, 0), snapped(73, 26)}, full, "two and their gap are just as tall as the board")
	free := layout.Arrive(board(), newcomers(part(6, 6)))
	assert.Equal(t, []geom.Point{snapped(105, 74)}, free)
	tall := layout.Arrive(d, newcomers(part(6, 200)))
	assert.Equal(t, []geom.Point{snapped(65, -150)}, tall, "what is taller than a column has one of its own")
}

// newcomers of one group.
func newcomers(list ...*design.Footprint) (out []layout.Newcomer) {
	for _, f := range list {
		out = append(out, layout.Newcomer{Footprint: f})
	}
	return out
}

// What NearLine gives holds every piece that lies nearer to a line than so much, and none whose box does not come near.
func TestNearALine(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("near")
		place := func(n string) geom.Point {
			return geom.Pt(rapid.Int64Range(0, 40_000_000).Draw(t, n+"x"), rapid.Int64Range(0, 40_000_000).Draw(t, n+"y"))
		}
		d.Put(&design.Net{ID: 90, Name: "A"})
		for i := range rapid.IntRange(1, 30).Draw(t, "tracks") {
			a := place("a")
			d.Put(&design.Track{ID: design.ID(100 + i), Net: 90, Layer: d.Board.Top(), A: a, B: a.Add(geom.Pt(rapid.Int64Range(1, 9_000_000).Draw(t, "dx"), rapid.Int64Range(-9_000_000, 9_000_000).Draw(t, "dy"))), Width: 300_000})
		}
		x := layout.NewIndex(d)
		a, b, reach := place("p"), place("q"), rapid.Int64Range(0, 3_000_000).Draw(t, "reach")
		got := map[design.ID]bool{}
		for c := range x.NearLine(a, b, reach) {
			got[c.ID] = true
		}
		for c := range x.All() {
			gap, _, _ := geom.Gap(c.Shape, geom.Stroke(a, b, 0))
			if gap <= float64(reach) && !got[c.ID] {
				t.Fatalf("%d is %v away", c.ID, gap)
			}
			centre := c.Box().Centre()
			far, _, _ := geom.SegmentDistance(a, b, centre, centre)
			if got[c.ID] && far > float64(reach)+c.Box().Min.Dist(c.Box().Max)/2+3 {
				t.Fatalf("%d is too far away", c.ID)
			}
		}
	})
}
