package check_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// bare is a board of four copper layers, 40 × 40 mm, with nothing on it.
func bare() *design.Doc {
	d := design.New("limits")
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40_000_000, 0), geom.Pt(40_000_000, 40_000_000), geom.Pt(0, 40_000_000))
	d.Put(&b)
	synthetic.Layers(d, 4)
	d.SetBase(map[design.RuleKind]int64{
		design.Clearance: 200_000, design.EdgeClearance: 300_000, design.HoleClearance: 250_000, design.TrackWidth: 300_000, design.LeastWidth: 150_000,
		design.LeastHole: 300_000, design.LeastRing: 125_000, design.ViaDiameter: 800_000, design.ViaHole: 400_000, design.SilkWidth: 150_000, design.MaskMargin: 0,
	})
	return d
}

// found lists the findings of a board in words: kind, measured, required, layer; but for those of where designators are printed.
func found(d *design.Doc) []string {
	out := []string{}
	for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
		layer := ""
		if l := d.Board.Layer(f.Layer); l != nil {
			layer = " " + l.Name
		}
		if f.Kind == "silkOn" || f.Kind == "silkOff" {
			continue
		}
		out = append(out, fmt.Sprintf("%s %d of %d%s", f.Kind, f.Measured, f.Required, layer))
	}
	slices.Sort(out)
	return out
}

func um3(v int64) int64 { return v * 1000 }

// Each rule at its limit, one step below and one above. The one rounding rule lets three
// nanometres pass.
func TestEveryRuleAtItsLimit(t *testing.T) {
	at := func(x, y int64) geom.Point { return geom.Pt(um3(x), um3(y)) }
	for name, c := range map[string]struct {
		put  func(d *design.Doc, more int64)
		kind string
		want func(short int64) string // what is found when it is short by so much
	}{
		"two tracks": {func(d *design.Doc, more int64) {
			d.Put(&design.Track{ID: 50, Layer: d.Board.At(2), A: at(10_000, 10_000), B: at(20_000, 10_000), Width: 300_000,
				Net: synthetic.Net(d, "A")})
			d.Put(&design.Track{ID: 51, Layer: d.Board.At(2), A: geom.Pt(um3(10_000), um3(10_500)+more),
				B: geom.Pt(um3(20_000), um3(10_500)+more), Width: 300_000, Net: synthetic.Net(d, "B")})
		}, "clearance", func(s int64) string { return fmt.Sprintf("clearance %d of 200000 L3", 200_000-s) }},
		"a via and a track on an inner layer": {func(d *design.Doc, more int64) {
			d.Put(&design.Via{ID: 50, At: at(10_000, 10_000), Diameter: 800_000, Hole: 400_000, From: d.Board.At(1), To: d.Board.At(2),
				Net: synthetic.Net(d, "A")})
			d.Put(&design.Track{ID: 51, Layer: d.Board.At(1), A: geom.Pt(um3(5_000), um3(10_750)+more),
				B: geom.Pt(um3(20_000), um3(10_750)+more), Width: 300_000, Net: synthetic.Net(d, "B")})
		}, "clearance", func(s int64) string { return fmt.Sprintf("clearance %d of 200000 L2", 200_000-s) }},
		"a track and the edge": {func(d *design.Doc, more int64) {
			d.Put(&design.Track{ID: 50, Layer: d.Board.At(0), A: geom.Pt(um3(450)+more, um3(10_000)), B: geom.Pt(um3(450)+more, um3(20_000)),
				Width: 300_000, Net: synthetic.Net(d, "A")})
		}, "edge", func(s int64) string { return fmt.Sprintf("edge %d of 300000 L1", 300_000-s) }},
		"two holes of one net": {func(d *design.Doc, more int64) {
			d.Put(&design.Via{ID: 50, At: at(10_000, 10_000), Diameter: 800_000, Hole: 400_000, From: d.Board.At(0), To: d.Board.At(3),
				Net: synthetic.Net(d, "A")})
			d.Put(&design.Via{ID: 51, At: geom.Pt(um3(10_650)+more, um3(10_000)), Diameter: 800_000, Hole: 400_000, From: d.Board.At(0),
				To: d.Board.At(3), Net: synthetic.Net(d, "A")})
		}, "holes", func(s int64) string { return fmt.Sprintf("holes %d of 250000", 250_000-s) }},
		"a screw hole and a track": {func(d *design.Doc, more int64) {
			d.Put(&design.Hole{ID: 50, At: at(10_000, 10_000), Diameter: 3_000_000})
			d.Put(&design.Track{ID: 51, Layer: d.Board.At(3), A: geom.Pt(um3(5_000), um3(11_950)+more),
				B: geom.Pt(um3(20_000), um3(11_950)+more), Width: 300_000, Net: synthetic.Net(d, "B")})
		}, "holeEdge", func(s int64) string { return fmt.Sprintf("holeEdge %d of 300000 L4", 300_000-s) }},
		"a thin track": {func(d *design.Doc, more int64) {
			d.Put(&design.Track{ID: 50, Layer: d.Board.At(0), A: at(10_000, 10_000), B: at(20_000, 10_000), Width: 150_000 + more,
				Net: synthetic.Net(d, "A")})
		}, "width", func(s int64) string { return fmt.Sprintf("width %d of 150000 L1", 150_000-s) }},
		"a small hole": {func(d *design.Doc, more int64) {
			d.Put(&design.Via{ID: 50, At: at(10_000, 10_000), Diameter: 800_000, Hole: 300_000 + more, From: d.Board.At(0), To: d.Board.At(3),
				Net: synthetic.Net(d, "A")})
		}, "hole", func(s int64) string { return fmt.Sprintf("hole %d of 300000", 300_000-s) }},
		"a thin ring": {func(d *design.Doc, more int64) {
			d.Put(&design.Via{ID: 50, At: at(10_000, 10_000), Diameter: 650_000 + 2*more, Hole: 400_000, From: d.Board.At(0), To: d.Board.At(3),
				Net: synthetic.Net(d, "A")})
		}, "ring", func(s int64) string { return fmt.Sprintf("ring %d of 125000", 125_000-s) }},
	} {
		for _, more := range []int64{2000, 0, -2} {
			d := bare()
			c.put(d, more)
			assert.Empty(t, found(d), "%s, %d more", name, more)
		}
		for _, short := range []int64{4, 20_000} {
			d := bare()
			c.put(d, -short)
			assert.Equal(t, []string{c.want(short)}, found(d), "%s, %d short", name, short)
		}
	}
}

// What lies on other layers, in the same net, or in holes of other spans is no fault.
func TestWhatIsNoFault(t *testing.T) {
	at := func(x, y int64) geom.Point { return geom.Pt(um3(x), um3(y)) }
	d := bare()
	for i := range 4 { // one above the other
		d.Put(&design.Track{ID: design.ID(50 + i), Layer: d.Board.At(i), A: at(10_000, 10_000), B: at(20_000, 10_000), Width: 300_000,
			Net: synthetic.Net(d, string(rune('A'+i)))})
	}
	d.Put(&design.Track{ID: 60, Layer: d.Board.At(0), A: at(15_000, 5_000), B: at(15_000, 20_000), Width: 300_000,
		Net: synthetic.Net(d, "A")}) // crosses its own net
	d.Put(&design.Via{ID: 61, At: at(30_000, 30_000), Diameter: 800_000, Hole: 400_000, From: d.Board.At(0), To: d.Board.At(1),
		Net: synthetic.Net(d, "A")})
	d.Put(&design.Via{ID: 62, At: at(30_100, 30_000), Diameter: 800_000, Hole: 400_000, From: d.Board.At(2), To: d.Board.At(3),
		Net: synthetic.Net(d, "B")})
	assert.Empty(t, found(d))
	d.Put(&design.Via{ID: 63, At: at(30_000, 30_200), Diameter: 800_000, Hole: 400_000, From: d.Board.At(1), To: d.Board.At(2),
		Net: synthetic.Net(d, "C")})
	assert.Equal(t, []string{"clearance 0 of 200000 L2", "clearance 0 of 200000 L3", "holes 0 of 250000", "holes 0 of 250000"}, found(d),
		"it meets both")
}

func pads(nets ...string) []string { return nets }

// bear gives the pads 1, 2 … the nets.
func bear(d *design.Doc, nets []string) map[string]design.ID {
	out := map[string]design.ID{}
	for i, n := range nets {
		out[fmt.Sprint(i+1)] = synthetic.Net(d, n)
	}
	return out
}

func footprint(together ...string) *design.Footprint {
	f := &design.Footprint{
		ID: 20, Name: "F", DesignatorAt: geom.Pt(0, 2_500_000), Courtyard: []geom.Point{{X: -3_000_000, Y: -3_000_000}, {X: 3_000_000, Y: -3_000_000},
			{X: 3_000_000, Y: 3_000_000}, {X: -3_000_000, Y: 3_000_000}},
		Pads: []design.Pad{
			{Number: "1", Form: "rect", At: geom.Pt(-600_000, 0), Size: geom.Pt(1_000_000, 1_000_000)},
			{Number: "2", Form: "rect", At: geom.Pt(550_000, 0), Size: geom.Pt(1_000_000, 1_000_000)},
		},
	}
	if len(together) > 0 {
		f.Together = [][]string{together}
	}
	return f
}

// Pads of one part are held against each other, unless the footprint says that they belong
// together or they bear one number.
func TestPadsOfOnePart(t *testing.T) {
	part := func(f *design.Footprint, nets []string) *design.Doc {
		d := bare()
		d.SetBase(map[design.RuleKind]int64{design.WithinPart: 200_000})
		d.Put(f)
		d.Put(&design.Placed{ID: 50, Part: 1000, Designator: "U1", Footprint: "F", At: geom.Pt(20_000_000, 20_000_000), Nets: bear(d, nets)})
		return d
	}
	assert.Equal(t, []string{"clearance 150000 of 200000 L1"}, found(part(footprint(), pads("A", "B"))))
	assert.Equal(t, []string{"clearance 150000 of 200000 L1"}, found(part(footprint(), pads())), "pads without a net too")
	assert.Empty(t, found(part(footprint(), pads("A", "A"))))
	assert.Empty(t, found(part(footprint("1", "2"), pads("A", "B"))), "they belong together")
	same := footprint()
	same.Pads[1].Number = "1"
	assert.Empty(t, found(part(same, pads("A"))), "one number")
	drilled := footprint()
	for i := range drilled.Pads {
		drilled.Pads[i].Number = "1"
		drilled.Pads[i].Hole = 700_000
		drilled.Pads[i].At.X /= 2
	}
	assert.Equal(t, []string{"holes 0 of 250000"}, found(part(drilled, pads("A"))), "their holes are held apart all the same")
}

// The ring of a pad is exact for every form and at every angle; a hole that breaks out is told as
// none.
func TestRingsOfPads(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		form := rapid.SampledFrom([]string{"round", "oval", "rect", "rounded"}).Draw(t, "form")
		hole := int64(600_000)
		ring := rapid.SampledFrom([]int64{125_000, 125_000 - 8, 90_000, 200_000}).Draw(t, "ring")
		size := geom.Pt(hole+2*ring, hole+2*ring)
		if form != "round" {
			size.X += 400_000
		}
		f := footprint()
		f.Pads = []design.Pad{{Number: "1", Form: form, Size: size, Hole: hole}}
		if form == "rounded" {
			f.Pads[0].Corner = 100_000
		}
		d := bare()
		d.Put(f)
		d.Put(&design.Placed{ID: 50, Part: 1000, Designator: "U1", Footprint: "F", At: geom.Pt(20_000_001, 20_000_003),
			Angle: rapid.Int32Range(0, 359_999).Draw(t, "angle"), Bottom: rapid.Bool().Draw(t, "bottom"), Nets: bear(d, pads("A"))})
		list := found(d)
		if ring >= 125_000 {
			assert.Empty(t, list)
			return
		}
		require.Len(t, list, 1)
		var measured, required int64
		_, err := fmt.Sscanf(list[0], "ring %d of %d", &measured, &required)
		require.NoError(t, err)
		assert.InDelta(t, ring, measured, 2)
	})
}

// Parts beside the outline are yet to be placed, and nothing else is said of them.
func TestPartsOutside(t *testing.T) {
	for name, c := range map[string]struct {
		at   geom.Point
		want []string
	}{
		"inside":              {geom.Pt(20_000_000, 20_000_000), nil},
		"over the edge":       {geom.Pt(0, 20_000_000), []string{"edge 0 of 300000 L1", "edge 50000 of 300000 L1"}},
		"beside":              {geom.Pt(-10_000_000, 20_000_000), []string{"outside 0 of 0"}},
		"its corner just in":  {geom.Pt(-2_900_000, 20_000_000), []string{"edge 0 of 300000 L1", "edge 0 of 300000 L1"}},
		"its corner just out": {geom.Pt(-3_100_000, 20_000_000), []string{"outside 0 of 0"}},
	} {
		d := bare()
		d.Put(footprint("1", "2"))
		d.Put(&design.Placed{ID: 50, Part: 1000, Designator: "U1", Footprint: "F", At: c.at, Nets: bear(d, pads("A", "B"))})
		if c.want == nil {
			c.want = []string{}
		}
		assert.Equal(t, c.want, found(d), name)
	}
	d := bare()
	b := *d.Board
	b.Outline = nil
	d.Put(&b)
	d.Put(footprint("1", "2"))
	d.Put(&design.Placed{ID: 50, Part: 1000, Designator: "U1", Footprint: "F", Nets: bear(d, pads())})
	assert.Equal(t, []string{"noOutline 0 of 0"}, found(d))
}

// A slip of the hand breaks the rules everywhere: the first three thousand places are listed, the
// others counted; when the slip is mended nothing is left.
func TestFurtherFindingsAreCounted(t *testing.T) {
	d := bare()
	for i := range 120 { // 7140 pairs of holes at one place
		d.Put(&design.Hole{ID: design.ID(50 + i), At: geom.Pt(20_000_000, 20_000_000), Diameter: 1_000_000})
	}
	x := layout.NewIndex(d)
	b := check.NewBoard(d, x, rules.Of(d))
	assert.Len(t, b.Found, check.MostListed+1)
	require.NotNil(t, b.Found["further"])
	assert.Equal(t, "4140 further places break the board's rules; the first 3000 are listed.", b.Found["further"].Text)
	gone := map[design.ID]bool{}
	for i := range 70 {
		id := design.ID(50 + i)
		d.Remove(design.KindHole, id)
		x.Remove(id)
		gone[id] = true
	}
	b.Update(gone)
	assert.Len(t, b.Found, 50*49/2, "those that were only counted are listed now")
	assert.Nil(t, b.Found["further"])
	_, dropped := b.Changes()
	assert.True(t, slices.Contains(dropped, "further"), "and that is told")
	for k := range b.Found {
		assert.True(t, strings.HasPrefix(k, "holes "))
	}
}

// The room that a hole keeps free is kept free of all there is, to the limit; a plated hole's copper keeps its clearance, and has no net.
func TestRoomAroundHoles(t *testing.T) {
	at := func(x, y int64) geom.Point { return geom.Pt(um3(x), um3(y)) }
	with := func(h design.Hole, more ...design.Object) []string {
		d := bare()
		h.ID, h.At, h.Diameter = 60, at(20_000, 20_000), 3_200_000
		d.Put(&h)
		for _, o := range more {
			d.Put(o)
		}
		return found(d)
	}
	track := func(y int64) design.Object { // its copper begins 0.1 mm nearer to the hole than its middle
		return &design.Track{ID: 61, Layer: 1, A: at(10_000, y), B: at(30_000, y), Width: 200_000}
	}
	// kept free: 1.6 + 1 mm from the middle
	assert.Empty(t, with(design.Hole{Keep: 1_000_000}, track(22_701)))
	assert.Equal(t, []string{"keepOut 0 of 0 L1"}, with(design.Hole{Keep: 1_000_000}, track(22_699)))
	assert.Empty(t, with(design.Hole{Keep: 1_000_000}), "a hole is not in its own way")
	// of a plated one from its copper on: 3 + 1 mm
	assert.Equal(t, []string{"keepOut 0 of 0 L1"}, with(design.Hole{Land: 6_000_000, Keep: 1_000_000}, track(24_099)))
	assert.Empty(t, with(design.Hole{Land: 6_000_000, Keep: 1_000_000}, track(24_101)))
	// the copper itself keeps the clearance of 0.2 mm, the bare wall the edge's of 0.3 mm
	assert.Empty(t, with(design.Hole{Land: 6_000_000}, track(23_300)))
	assert.Equal(t, []string{"clearance 199000 of 200000 L1"}, with(design.Hole{Land: 6_000_000}, track(23_299)))
	assert.Empty(t, with(design.Hole{}, track(22_000)))
	assert.Equal(t, []string{"holeEdge 299000 of 300000 L1"}, with(design.Hole{}, track(21_999)))
	// its ring is checked as any other: 0.125 mm
	assert.Empty(t, with(design.Hole{Land: 3_450_000}))
	assert.Equal(t, []string{"ring 124000 of 125000"}, with(design.Hole{Land: 3_448_000}))
}

// Notes about where parts are to stand are found when they do not hold, at the limit, also when the other part moves or is gone.
func TestNotesAboutPlaces(t *testing.T) {
	d := bare()
	d.Put(&design.Footprint{ID: 50, Name: "One", Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: geom.Pt(um3(1000), um3(1000))}},
		Courtyard: []geom.Point{{X: -um3(700), Y: -um3(700)}, {X: um3(700), Y: -um3(700)}, {X: um3(700), Y: um3(700)},
			{X: -um3(700), Y: um3(700)}}})
	part := func(id design.ID, name string, x, y int64) *design.Placed {
		return &design.Placed{ID: id, Part: id + 100, Designator: name, Footprint: "One", At: geom.Pt(um3(x), um3(y))}
	}
	u, c := part(60, "U1", 20_000, 20_000), part(61, "C1", 24_000, 20_000)
	c.Notes = []design.PlaceNote{{Kind: design.NoteWithin, Of: 60, Pad: "1", Distance: um3(3000)},
		{Kind: design.NoteEdge, Distance: um3(15_300)}, {Kind: design.NoteText, Text: "flat"}}
	d.Put(u)
	d.Put(c)
	x, set := layout.NewIndex(d), rules.Of(d)
	b := check.NewBoard(d, x, set)
	words := func() []string {
		out := []string{}
		for _, f := range b.Found {
			if f.Kind == "placing" {
				out = append(out, f.Text)
			}
		}
		slices.Sort(out)
		fresh := []string{}
		for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
			if f.Kind == "placing" {
				fresh = append(fresh, f.Text)
			}
		}
		slices.Sort(fresh)
		assert.Equal(t, fresh, out, "as from scratch")
		return out
	}
	put := func(p *design.Placed) {
		d.Put(p)
		x.Put(d, p)
		b.Update(map[design.ID]bool{p.ID: true})
	}
	assert.Empty(t, words(), "3 mm from pad to pad, 15.3 mm to the edge")
	far := *c
	far.At.X += 1000
	put(&far)
	assert.Equal(t, []string{"C1 is 3.001 mm from U1.1."}, words(), "a micrometre more")
	put(c)
	assert.Empty(t, words())
	gone := *u
	gone.At.X -= um3(1000)
	put(&gone) // the other one moved
	assert.Equal(t, []string{"C1 is 4 mm from U1.1."}, words())
	for _, f := range b.Found {
		if f.Kind == "placing" {
			assert.EqualValues(t, um3(21_500), f.At.X, "between 19.5 and 23.5")
			require.Len(t, f.Ends, 2)
			assert.ElementsMatch(t, []int64{um3(19_500), um3(23_500)}, []int64{f.Ends[0].X, f.Ends[1].X})
		}
	}
	put(u)
	assert.Empty(t, words(), "the other one came back")
	r := part(62, "R1", 10_000, 10_000)
	put(r)
	assert.Empty(t, words())
	noted := *r
	noted.Notes = []design.PlaceNote{{Kind: design.NoteWithin, Of: 61, Distance: um3(1000)}}
	put(&noted)
	assert.Len(t, words(), 1, "a part that had no notes")
	put(r)
	put(&gone)
	assert.Equal(t, []string{"C1 is 4 mm from U1.1."}, words())
	d.Remove(design.KindPlaced, 60)
	x.Remove(60)
	b.Update(map[design.ID]bool{60: true})
	assert.Equal(t, []string{"What a note of C1 is about is not on the board."}, words())
	put(u)
	assert.Empty(t, words(), "it is there again")
	bare := *c
	bare.Notes = nil
	put(&bare)
	assert.Empty(t, words())
}
