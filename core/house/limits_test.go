package house_test

import (
	"context"
	"fmt"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/house"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
	"goldentrace/core/synthetic"
)

const um, mm = 1_000, 1_000_000

func measured(t require.TestingT, d *design.Doc) map[house.Limit]*house.Found {
	x := layout.NewIndex(d)
	found, err := house.Measure(context.Background(), d, x, rules.Of(d), nil)
	require.NoError(t, err)
	return found
}

// small is a board of 40 × 30 mm and two layers, 1.6 mm thick.
func small() *design.Doc {
	d := design.New("small")
	d.Next = 1000
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40*mm, 0), geom.Pt(40*mm, 30*mm), geom.Pt(0, 30*mm))
	d.Put(&b)
	return d
}

// What a board has of each limit, worked out by hand.
func TestMeasuredByHand(t *testing.T) {
	d := small()
	a, b := synthetic.Net(d, "A"), synthetic.Net(d, "B")
	top := d.Board.Top()
	d.Put(&design.Track{ID: 10, Layer: top, A: geom.Pt(5*mm, 5*mm), B: geom.Pt(15*mm, 5*mm), Width: 200 * um, Net: a})
	d.Put(&design.Track{ID: 11, Layer: top, A: geom.Pt(5*mm, 5*mm+430*um), B: geom.Pt(15*mm, 5*mm+430*um), Width: 300 * um, Net: b})
	d.Put(&design.Track{ID: 12, Layer: d.Board.Bottom(), A: geom.Pt(400*um, 20*mm), B: geom.Pt(400*um, 25*mm), Width: 300 * um, Net: b})
	d.Put(&design.Via{ID: 13, At: geom.Pt(20*mm, 10*mm), Diameter: 700 * um, Hole: 350 * um, From: top, To: d.Board.Bottom(),
		Net: a, Cover: design.Open})
	d.Put(&design.Via{ID: 14, At: geom.Pt(20*mm, 11*mm), Diameter: 700 * um, Hole: 400 * um, From: top, To: d.Board.Bottom(),
		Net: a, Cover: design.Open})
	d.Put(&design.Track{ID: 15, Layer: top, A: geom.Pt(20*mm+775*um, 10*mm), B: geom.Pt(25*mm, 10*mm), Width: 300 * um, Net: b})
	d.Put(&design.Legend{ID: 16, At: geom.Pt(30*mm, 20*mm), Height: 900 * um, Text: "WEIR", Stroke: 130 * um})
	d.SetBase(map[design.RuleKind]int64{design.MaskMargin: 50 * um, design.SilkWidth: 100 * um})
	found := measured(t, d)
	thick := float64(d.Board.Thickness())
	for l, want := range map[house.Limit]int64{house.Track: 200 * um, house.Gap: 180 * um, house.Edge: 250 * um,
		house.HoleSize: 350 * um, house.Ring: 150 * um,
		house.HoleGap: 625 * um, house.Wall: 450 * um, house.Web: 200 * um, house.Silk: 130 * um, house.Letters: 900 * um,
		house.Aspect: int64(math.Floor(100*thick/350_000 + 0.5)), house.Copper: 2, house.Side: 40 * mm} {
		require.NotNil(t, found[l], l)
		assert.Equal(t, want, found[l].Value, l)
	}
	assert.Nil(t, found[house.MicroHole])
	assert.Equal(t, []design.ID{10}, found[house.Track].Objects)
	assert.Equal(t, geom.Pt(10*mm, 5*mm), found[house.Track].At)
	assert.ElementsMatch(t, []design.ID{10, 11}, found[house.Gap].Objects)
	assert.Equal(t, geom.Pt(20*mm, 10_487_500), found[house.HoleGap].At)
	assert.ElementsMatch(t, []design.ID{13, 15}, found[house.Wall].Objects)
}

// A hole without copper is as small as it is, but its depth is no matter of plating; a printed figure that is filled has no width.
func TestHolesWithoutCopper(t *testing.T) {
	d := small()
	d.Put(&design.Hole{ID: 10, At: geom.Pt(5*mm, 5*mm), Diameter: 300 * um})
	d.Put(&design.Footprint{ID: 800, Name: "F", DesignatorAt: geom.Pt(0, 2*mm), Pads: []design.Pad{
		{Number: "1", Form: design.Round, Size: geom.Pt(400*um, 400*um), Hole: 400 * um, Bare: true},
		{Number: "2", At: geom.Pt(3*mm, 0), Form: design.Round, Size: geom.Pt(mm, mm), Hole: 500 * um}}})
	d.Put(&design.Placed{ID: 11, Designator: "X1", Footprint: "F", At: geom.Pt(15*mm, 15*mm)})
	d.Put(&design.BoardFigure{ID: 12, Closed: true, Filled: true,
		Lines: [][]geom.Corner{geom.Corners(geom.Pt(25*mm, 5*mm), geom.Pt(30*mm, 5*mm), geom.Pt(30*mm, 9*mm))}})
	found := measured(t, d)
	assert.EqualValues(t, 300*um, found[house.HoleSize].Value)
	assert.EqualValues(t, math.Round(100*float64(d.Board.Thickness())/500_000), found[house.Aspect].Value)
	assert.Equal(t, []design.ID{11}, found[house.Aspect].Objects)
	require.NotNil(t, found[house.Silk], "the designator")
	assert.Equal(t, []design.ID{11}, found[house.Silk].Objects)
}

// On random boards the least is that of comparing each with each.
func TestMeasuredAgainstEachWithEach(t *testing.T) {
	seen := map[house.Limit]int{}
	rapid.Check(t, func(t *rapid.T) {
		d := small()
		nets := []design.ID{synthetic.Net(d, "A"), synthetic.Net(d, "B"), 0}
		d.SetBase(map[design.RuleKind]int64{design.MaskMargin: 50 * um})
		d.Put(&design.Footprint{ID: 800, Name: "F", DesignatorAt: geom.Pt(0, 2*mm), Pads: []design.Pad{
			{Number: "1", Form: design.Rect, Size: geom.Pt(800*um, 500*um)}, {Number: "2", Form: design.Round, Size: geom.Pt(900*um,
				900*um), Hole: 400 * um, At: geom.Pt(1_300*um, 0)}}})
		for i := range rapid.IntRange(2, 14).Draw(t, "things") {
			id := design.ID(2000 + i)
			at := geom.Pt(rapid.Int64Range(10, 60).Draw(t, "x")*100*um, rapid.Int64Range(10, 60).Draw(t, "y")*100*um)
			net := rapid.SampledFrom(nets).Draw(t, "net")
			switch rapid.IntRange(0, 3).Draw(t, "what") {
			case 0:
				d.Put(&design.Track{ID: id, Layer: d.Board.At(rapid.IntRange(0, 1).Draw(t, "layer")), A: at,
					B:     at.Add(geom.Pt(900*um, 300*um)),
					Width: rapid.Int64Range(1, 4).Draw(t, "width") * 100 * um, Net: net})
			case 1:
				d.Put(&design.Via{ID: id, At: at, Diameter: 700 * um, Hole: rapid.Int64Range(2, 5).Draw(t, "hole") * 100 * um,
					From: d.Board.Top(), To: d.Board.Bottom(), Net: net,
					Cover: rapid.SampledFrom([]string{design.Open, design.Tented}).Draw(t, "cover")})
			case 2:
				d.Put(&design.Hole{ID: id, At: at, Diameter: 600 * um})
			case 3:
				d.Put(&design.Placed{ID: id, Part: 5000 + id, Designator: fmt.Sprint("U", i), Footprint: "F", At: at,
					Bottom: rapid.Bool().Draw(t, "bottom"),
					Nets:   map[string]design.ID{"1": nets[0], "2": net}})
			}
		}
		x := layout.NewIndex(d)
		want := map[house.Limit]int64{}
		note := func(l house.Limit, v float64) {
			if old, ok := want[l]; !ok || int64(math.Floor(v+0.5)) < old {
				want[l] = int64(math.Floor(v + 0.5))
			}
		}
		var all []*layout.Copper
		for c := range x.All() {
			all = append(all, c)
		}
		for i, c := range all {
			if c.Kind == "track" {
				note(house.Track, float64(2*c.Shape.R))
			}
			if c.Hole > 0 {
				note(house.HoleSize, float64(c.Hole))
			}
			if c.Hole > 0 && !c.Bare {
				note(house.Ring, float64(c.Shape.R-c.Hole/2)) // all are round
			}
			for _, o := range all[i+1:] {
				if c.Hole > 0 && o.Hole > 0 {
					note(house.HoleGap, c.Drill.Dist(o.Drill)-float64(c.Hole+o.Hole)/2)
				}
				if c.Net == o.Net && c.Net != 0 || c.Layers&o.Layers == 0 {
					continue
				}
				if gap, _, _ := geom.Gap(c.Shape, o.Shape); !c.Bare && !o.Bare {
					note(house.Gap, gap)
				}
				for _, p := range [][2]*layout.Copper{{c, o}, {o, c}} {
					if p[0].Hole > 0 && !p[0].Bare && !p[1].Bare {
						gap, _, _ := geom.Gap(geom.Disc(p[0].Drill, p[0].Hole/2), p[1].Shape)
						note(house.Wall, gap)
					}
				}
			}
		}
		f := surface.Board{Doc: d, Index: x, Rules: rules.Of(d)}
		for _, bottom := range []bool{false, true} {
			var open []surface.Opening
			for o := range surface.Objects(d) {
				open = append(open, f.Openings(o, bottom)...)
			}
			for i, a := range open {
				for _, b := range open[i+1:] {
					if gap, _, _ := geom.Gap(a.Shape, b.Shape); gap > 0 {
						note(house.Web, gap)
					}
				}
			}
		}
		got := measured(t, d)
		for _, l := range []house.Limit{house.Track, house.Gap, house.HoleSize, house.Ring, house.HoleGap, house.Wall, house.Web} {
			v, ok := want[l]
			if !ok || v >= 2*mm {
				continue // farther than is looked
			}
			seen[l]++
			require.NotNil(t, got[l], l)
			require.Equal(t, v, got[l].Value, l)
		}
	})
	for _, l := range []house.Limit{house.Track, house.Gap, house.HoleSize, house.Ring, house.HoleGap, house.Wall, house.Web} {
		assert.Positive(t, seen[l], l)
	}
}

// A class keeps a board at its limits and not a micrometre beyond; the cheapest that keeps all is taken.
func TestClassesOfHouses(t *testing.T) {
	for _, h := range house.All() {
		price := 0
		for i, c := range h.Classes {
			assert.NotEmpty(t, c.Text)
			assert.Greater(t, c.Price, price, "the cheapest first")
			price = c.Price
			for l := range c.Limits {
				assert.NotEmpty(t, l.Words(), l)
			}
			at := map[house.Limit]*house.Found{}
			for l, v := range c.Limits {
				at[l] = &house.Found{Value: v}
			}
			assert.True(t, c.Fits(at))
			assert.LessOrEqual(t, h.Cheapest(at), i)
			for l, v := range c.Limits {
				beyond := int64(-1_000)
				if l.Most() {
					beyond = 1
				}
				at[l] = &house.Found{Value: v + beyond}
				assert.False(t, c.Fits(at), "%s %s %s", h.Name, c.Name, l)
				for _, held := range c.Hold(at) {
					assert.Equal(t, held.Limit != l, held.Keeps, held.Limit)
				}
				at[l] = &house.Found{Value: v - beyond}
				assert.True(t, c.Fits(at), "%s %s %s", h.Name, c.Name, l)
				at[l] = &house.Found{Value: v}
			}
		}
		last := h.Classes[len(h.Classes)-1]
		over := map[house.Limit]*house.Found{house.Copper: {Value: last.Limits[house.Copper] + 1}}
		assert.Equal(t, -1, h.Cheapest(over))
		assert.Equal(t, 0, h.Cheapest(map[house.Limit]*house.Found{}), "what a board has not breaks nothing")
	}
	plain, err := house.In(design.New("any"), "Northgate boards")
	require.NoError(t, err)
	assert.False(t, plain.Classes[0].Fits(map[house.Limit]*house.Found{house.MicroHole: {Value: 1 * mm}}), "they make no micro vias")
	_, err = house.In(design.New("any"), "nobody")
	assert.EqualError(t, err, `there is no board house called "nobody"; there are Northgate Boards, Tallow Fine-Line`)
}
