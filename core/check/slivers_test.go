package check_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// slivers of a board with one filled figure of copper.
func slivers(d *design.Doc, layer design.LayerID, lines ...[]geom.Point) (out []*check.Finding) {
	f := &design.BoardFigure{ID: 700, On: design.OnCopper, Layer: layer, Closed: true, Filled: true}
	for _, l := range lines {
		f.Lines = append(f.Lines, geom.Corners(l...))
	}
	d.Put(f)
	return sliversOf(d)
}

func sliversOf(d *design.Doc) (out []*check.Finding) {
	for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
		if f.Kind == "sliver" {
			out = append(out, f)
		}
	}
	return out
}

// Two blocks joined by a neck, at the least width and a micrometre to either side of it, at any angle and on both layers.
func TestNecksAtTheLeastWidth(t *testing.T) {
	for _, angle := range []int32{0, 17_000, 45_000, 90_000, 123_400} {
		for _, wide := range []int64{149_000, 150_000, 151_000, 60_000, 20_000} {
			for _, bottom := range []bool{false, true} {
				d := bare()
				d.SetBase(map[design.RuleKind]int64{design.LeastWidth: 150_000})
				layer := d.Board.Top()
				if bottom {
					layer = d.Board.Bottom()
				}
				h := wide / 2
				line := geom.Pose{At: geom.Pt(20*mm, 15*mm), Angle: angle}.ApplyAll([]geom.Point{geom.Pt(-3*mm, -mm), geom.Pt(-mm, -mm), geom.Pt(-mm, -h),
					geom.Pt(mm, -h), geom.Pt(mm, -mm), geom.Pt(3*mm, -mm), geom.Pt(3*mm, mm), geom.Pt(mm, mm), geom.Pt(mm, wide-h), geom.Pt(-mm, wide-h),
					geom.Pt(-mm, mm), geom.Pt(-3*mm, mm)})
				got := slivers(d, layer, line)
				if wide >= 150_000 {
					require.Empty(t, got, "%d at %d", wide, angle)
					continue
				}
				require.Len(t, got, 1, "%d at %d", wide, angle)
				assert.InDelta(t, wide, got[0].Measured, 1_500, "at %d", angle)
				assert.EqualValues(t, 150_000, got[0].Required)
				assert.Equal(t, layer, got[0].Layer)
				assert.Less(t, got[0].At.Dist(geom.Pt(20*mm, 15*mm)), 1.2*mm, "at the neck")
			}
		}
	}
}

// A comb's tooth and a needle are slivers; corners of 60° and round ones are none; nor is what a rounding makes wide enough.
func TestTonguesAndCorners(t *testing.T) {
	d := bare()
	d.SetBase(map[design.RuleKind]int64{design.LeastWidth: 150_000})
	square := []geom.Point{geom.Pt(10*mm, 10*mm), geom.Pt(14*mm, 10*mm), geom.Pt(14*mm, 14*mm), geom.Pt(10*mm, 14*mm)}
	assert.Empty(t, slivers(d, d.Board.Top(), square))
	tooth := []geom.Point{geom.Pt(10*mm, 10*mm), geom.Pt(14*mm, 10*mm), geom.Pt(14*mm, 14*mm), geom.Pt(12_100_000, 14*mm), geom.Pt(12_100_000, 16*mm),
		geom.Pt(12*mm, 16*mm), geom.Pt(12*mm, 14*mm), geom.Pt(10*mm, 14*mm)}
	got := slivers(d, d.Board.Top(), tooth)
	require.Len(t, got, 1)
	assert.InDelta(t, 100_000, got[0].Measured, 1_500)
	high := int64(math.Round(2 * mm * math.Sqrt(3)))
	assert.Empty(t, slivers(d, d.Board.Top(), []geom.Point{geom.Pt(10*mm, 10*mm), geom.Pt(14*mm, 10*mm), geom.Pt(12*mm, 10*mm+high)}), "corners of 60°")
	assert.Len(t, slivers(d, d.Board.Top(), []geom.Point{geom.Pt(10*mm, 10*mm), geom.Pt(14*mm, 10*mm), geom.Pt(14*mm, 10_500_000)}), 1, "a needle of 7°")
	// within a hole of the figure: two blocks and what is between them
	hole := []geom.Point{geom.Pt(10_100_000, 11*mm), geom.Pt(13*mm, 11*mm), geom.Pt(13*mm, 13*mm), geom.Pt(10_100_000, 13*mm)}
	got = slivers(d, d.Board.Top(), square, hole)
	require.Len(t, got, 1)
	assert.InDelta(t, 100_000, got[0].Measured, 1_500, "between its edge and its hole")
	d.Put(with(d.Figures[700], func(f *design.BoardFigure) { f.Width = 60_000 }))
	assert.Empty(t, sliversOf(d), "lines of 60 µm around it make 160 of 100")
}

func with(f *design.BoardFigure, change func(*design.BoardFigure)) *design.BoardFigure {
	q := *f
	change(&q)
	return &q
}

// What is put together of blocks that are each wide enough has no sliver, however they lie.
func TestBlocksHaveNoSlivers(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := bare()
		d.SetBase(map[design.RuleKind]int64{design.LeastWidth: 150_000})
		f := &design.BoardFigure{ID: 700, On: design.OnCopper, Layer: d.Board.Top(), Closed: true, Filled: true}
		x, y := rapid.Int64Range(0, 2_000_000).Draw(t, "x"), rapid.Int64Range(150_000, 2_000_000).Draw(t, "y")
		w, h := rapid.Int64Range(150_000, 3_000_000).Draw(t, "w"), rapid.Int64Range(150_000, 3_000_000).Draw(t, "h")
		// an L: both arms as wide as they must be at least
		p := geom.Pose{At: geom.Pt(20*mm, 15*mm), Angle: rapid.Int32Range(0, 359_999).Draw(t, "angle")}
		f.Lines = [][]geom.Corner{geom.Corners(p.ApplyAll([]geom.Point{geom.Pt(0, 0), geom.Pt(w+x, 0), geom.Pt(w+x, y), geom.Pt(w, y), geom.Pt(w, y+h), geom.Pt(0, y+h)})...)}
		d.Put(f)
		require.Empty(t, sliversOf(d))
	})
}

// A sliver goes when lines may be as thin, and comes back when they may not.
func TestSliversWithTheirRule(t *testing.T) {
	d := bare()
	d.SetBase(map[design.RuleKind]int64{design.LeastWidth: 150_000})
	d.Put(&design.BoardFigure{ID: 700, On: design.OnCopper, Layer: d.Board.Top(), Closed: true, Filled: true,
		Lines: [][]geom.Corner{geom.Corners(geom.Pt(5*mm, 5*mm), geom.Pt(15*mm, 5*mm), geom.Pt(15*mm, 5*mm+100_000), geom.Pt(5*mm, 5*mm+100_000))}})
	set := rules.Of(d)
	b := check.NewBoard(d, layout.NewIndex(d), set)
	for _, to := range []struct {
		least int64
		found int
	}{{150_000, 1}, {90_000, 0}, {200_000, 1}, {100_000, 0}} {
		r := *d.Base(design.LeastWidth)
		before := d.GetKind(design.KindRule, r.ID)
		r.Value = design.Fixed(to.least)
		d.Put(&r)
		set.Changed(before, &r)
		b.Rule(before, &r)
		b.Update(nil)
		got := 0
		for _, f := range b.Found {
			if f.Kind == "sliver" {
				got++
			}
		}
		assert.Equal(t, to.found, got, "lines of %d", to.least)
	}
}
