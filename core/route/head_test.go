package route_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
)

// A via is set where it was asked for, else to the nearest place that keeps its distances: half its 0.8 mm, the clearance of 0.2 mm and half
// the wall's 0.4 mm are 0.8 mm from the middle of the wall. On a plated hole of its net it needs no room of its own.
func TestHopNear(t *testing.T) {
	near := func(f route.Field, at geom.Point, net design.ID) (geom.Point, bool) {
		_, got, no := f.HopNear(route.HopAsk{At: at, Net: net, From: 0, To: f.Doc.Board.Layers() - 1})
		return got, no == nil
	}
	f := field(track(50, "WALL", 0, 10_000, 1_000, 10_000, 19_000))
	for _, c := range []struct{ at, want geom.Point }{
		{mm(5, 10), mm(5, 10)},
		{mm(10.8, 10), mm(10.8, 10)},
		{mm(10.3, 10), mm(10.8, 10)},
		{mm(9.7, 10), mm(9.2, 10)},
	} {
		got, ok := near(f, c.at, net("A"))
		assert.True(t, ok)
		assert.Equal(t, c.want, got, "%v", c.at)
	}
	got, ok := near(f, mm(10, 10), net("WALL"))
	assert.True(t, ok)
	assert.Equal(t, mm(10, 10), got, "on its own net")

	f = field(&design.Via{ID: 60, At: mm(10, 10), Diameter: 800 * um, Hole: 400 * um, From: 1, To: 3, Net: net("A")})
	got, ok = near(f, mm(10.1, 10), net("A"))
	assert.True(t, ok)
	assert.Equal(t, mm(10.1, 10), got, "the via there will do")
	got, ok = near(f, mm(10.1, 10), net("B"))
	assert.True(t, ok)
	assert.InDelta(t, 1.0, got.Dist(mm(10, 10))/1e6, 0.1, "two radii and the clearance, in steps of a tenth")
	assert.Greater(t, got.X, int64(10_100*um), "the nearest is beyond it")

	var crowd []design.Object
	for i := range int64(12) {
		crowd = append(crowd, track(design.ID(50+i), "WALL", 0, 4_000, 4_000+i*1_000, 16_000, 4_000+i*1_000))
	}
	f = field(crowd...)
	_, ok = near(f, mm(10, 10), net("A"))
	assert.False(t, ok, "between lines 1 mm apart nothing of 0.8 mm fits, and the end of them is farther than 2.5 mm")
	got, ok = near(f, mm(10, 5), net("A"))
	assert.True(t, ok)
	assert.InDelta(t, 3.2, float64(got.Y)/1e6, 0.1, "beyond the lowest of them, at y = 4 mm")
}

// Round a wall the head takes the shorter side, or the other when asked, in the style that was chosen; how long the ways are is worked out by
// hand: the wall's end is passed at half its width, the clearance and half the track's width, 0.6 mm.
func TestGoingRound(t *testing.T) {
	wall := track(50, "WALL", 0, 10_000, 4_000, 10_000, 15_000)
	f := field(wall)
	from, to := mm(2, 9), mm(18, 9)
	slanted := func(deep float64) float64 { return 16 - 2*deep + 2*deep*math.Sqrt2 }
	for name, c := range map[string]struct {
		style route.Corner
		other bool
		least float64 // of the way's places
		long  float64
	}{
		"straight and slanted": {route.StraightFirst, false, 3.4, slanted(5.6)},
		"square":               {route.Square, false, 3.4, 16 + 2*5.6},
		"free":                 {route.Free, false, 3.4, 2 * math.Hypot(8, 5.6)},
	} {
		h := f.Head(route.Drawing{Net: net("A"), Style: c.style, Manner: route.GoAround, Other: c.other, From: from, To: to})
		require.Nil(t, h.Blocked, name)
		require.Len(t, h.Legs, 1, name)
		path := geom.Places(h.Legs[0].Path)
		assert.Equal(t, from, path[0], name)
		assert.Equal(t, to, h.End(), name)
		low := int64(math.MaxInt64)
		for i, p := range path {
			low = min(low, p.Y)
			if i > 0 {
				d := p.Sub(path[i-1])
				switch c.style {
				case route.Square:
					assert.True(t, d.X == 0 || d.Y == 0, "%s: %v", name, d)
				case route.StraightFirst:
					assert.True(t, d.X == 0 || d.Y == 0 || d.X == d.Y || d.X == -d.Y, "%s: %v", name, d)
				}
			}
		}
		assert.InDelta(t, c.least, float64(low)/1e6, 0.3, name)
		assert.InEpsilon(t, c.long, float64(route.Length(path))/1e6, 0.04, name)
	}
	h := f.Head(route.Drawing{Net: net("A"), Style: route.StraightFirst, Manner: route.GoAround, Other: true, From: from, To: to})
	high := int64(0)
	for _, p := range geom.Places(h.Legs[0].Path) {
		high = max(high, p.Y)
	}
	assert.InDelta(t, 15.6, float64(high)/1e6, 0.3, "by the other end")
	assert.Equal(t, to, h.End())

	// what is free is drawn straight, and on other layers the wall is none
	h = f.Head(route.Drawing{Net: net("A"), Style: route.StraightFirst, Manner: route.GoAround, From: from, To: to, Layer: 1})
	assert.Equal(t, []geom.Point{from, to}, geom.Places(h.Legs[0].Path))

	// a wall from edge to edge is not passed: the way ends before it, and says why
	f = field(track(50, "WALL", 0, 10_000, 0, 10_000, 20_000))
	h = f.Head(route.Drawing{Net: net("A"), Style: route.StraightFirst, Manner: route.GoAround, From: from, To: to})
	require.NotNil(t, h.Blocked)
	assert.Equal(t, "WALL", h.Blocked.Net)
	assert.LessOrEqual(t, h.End().X, int64(9_400*um))
	assert.Equal(t, to, h.Rest[len(h.Rest)-1])
}

// A track is as wide as the rules say by place: it is cut where it enters and leaves an area, within the 0.2 mm at which that is asked; and
// narrow only where no more fits, when it may.
func TestWidthsAlongAHead(t *testing.T) {
	f := field(track(50, "WALL", 0, 1_000, 9_500, 19_000, 9_500))
	d := f.Doc
	d.Put(&design.RuleArea{ID: 70, Name: "fine", Outline: geom.Corners(mm(8, 0), mm(12, 0), mm(12, 20), mm(8, 20))})
	d.Put(&design.Rule{ID: 71, Kind: design.TrackWidth, Order: 50, A: design.Scope{Area: 70}, Value: design.Fixed(250 * um)})
	f.Rules = rules.Of(d)
	h := f.Head(route.Drawing{Net: net("A"), Style: route.StraightFirst, Manner: route.Stop, From: mm(2, 12), To: mm(18, 12)})
	require.Len(t, h.Legs, 3)
	for i, want := range []struct{ from, to, width float64 }{{2, 8, 0.4}, {8, 12, 0.25}, {12, 18, 0.4}} {
		l := h.Legs[i]
		assert.Len(t, l.Path, 2, "no needless places")
		assert.InDelta(t, want.from, float64(l.Path[0].X)/1e6, 0.2)
		assert.InDelta(t, want.to, float64(l.Path[1].X)/1e6, 0.2)
		assert.InDelta(t, want.width, float64(l.Width)/1e6, 1e-9)
	}
	assert.Equal(t, h.Legs[0].Path[1].Point, h.Legs[1].Path[0].Point)

	// a width that was typed holds everywhere
	h = f.Head(route.Drawing{Net: net("A"), Width: 300 * um, Style: route.StraightFirst, Manner: route.Stop, From: mm(2, 12), To: mm(18, 12)})
	require.Len(t, h.Legs, 1)
	assert.EqualValues(t, 300*um, h.Legs[0].Width)

	// between two walls 0.6 mm apart from edge to edge only the least, 0.15 mm, keeps 0.2 mm on both sides
	f = field(track(50, "WALL", 0, 8_000, 9_500, 12_000, 9_500), track(51, "WALL", 0, 8_000, 10_500, 12_000, 10_500))
	narrow := route.Drawing{Net: net("A"), Style: route.StraightFirst, Manner: route.Stop, Neck: true, From: mm(2, 10), To: mm(18, 10)}
	h = f.Head(narrow)
	require.Nil(t, h.Blocked)
	require.Len(t, h.Legs, 3)
	assert.Equal(t, []int64{400 * um, 150 * um, 400 * um}, []int64{h.Legs[0].Width, h.Legs[1].Width, h.Legs[2].Width})
	assert.InDelta(t, 8, float64(h.Legs[1].Path[0].X)/1e6, 0.6)
	assert.InDelta(t, 12, float64(h.Legs[1].Path[1].X)/1e6, 0.6)
	narrow.Neck = false
	h = f.Head(narrow)
	require.NotNil(t, h.Blocked, "else it ends before them")
	assert.Less(t, h.End().X, int64(8_000*um))
}

// Corners are rounded at the radius asked for, at half of it, a quarter … where only that is free, and not at all where no arc is.
func TestRoundingLegs(t *testing.T) {
	leg := route.Leg{Width: 400 * um, Path: geom.Corners(mm(2, 2), mm(10, 2), mm(10, 10))}
	arc := func(f route.Field, radius int64) (out []float64) {
		for _, l := range f.RoundLegs([]route.Leg{leg}, net("A"), radius) {
			for _, p := range route.PiecesOf(l.Path) {
				if p.Round() {
					out = append(out, math.Round(p.Radius()/1e4)/1e2)
				}
			}
		}
		return out
	}
	assert.Equal(t, []float64{4}, arc(field(), 4_000*um))
	assert.Empty(t, arc(field(), 0))
	// this lies 0.46 mm from the middle of an arc of 4 mm, and 1.3 mm from that of 2 mm; 0.6 mm are asked for
	f := field(track(50, "WALL", 0, 8_400, 3_400, 8_500, 3_500))
	assert.Equal(t, []float64{2}, arc(f, 4_000*um))
	// two legs of one width and layer are rounded as one line
	f = field()
	two := f.RoundLegs([]route.Leg{{Width: 400 * um, Path: geom.Corners(mm(2, 2), mm(10, 2))}, {Width: 400 * um, Path: geom.Corners(mm(10, 2), mm(10, 10))}}, net("A"), 1_000*um)
	require.Len(t, two, 1)
	assert.Len(t, two[0].Path, 4)
	apart := f.RoundLegs([]route.Leg{{Width: 400 * um, Path: geom.Corners(mm(2, 2), mm(10, 2))}, {Width: 300 * um, Path: geom.Corners(mm(10, 2), mm(10, 10))}}, net("A"), 1_000*um)
	assert.Len(t, apart, 2)
}

// What the hand lays is its tracks, and a via where it changes layers, unless a plated hole is there.
func TestWhatTheHandLays(t *testing.T) {
	legs := []route.Leg{{Layer: 0, Width: 400 * um, Path: geom.Corners(mm(2, 2), mm(5, 2), mm(5, 5))}, {Layer: 1, Width: 300 * um, Path: geom.Corners(mm(5, 5), mm(9, 5))}}
	kinds := func(list []*layout.Copper) (out []string) {
		for _, c := range list {
			out = append(out, c.Kind)
			assert.Equal(t, net("A"), c.Net)
		}
		return out
	}
	got := field().HandOf(legs, net("A"))
	assert.Equal(t, []string{"track", "track", "via", "track"}, kinds(got))
	assert.EqualValues(t, 3, got[2].Layers)
	assert.EqualValues(t, 400*um, got[2].Hole)
	assert.EqualValues(t, 2, got[3].Layers)
	assert.EqualValues(t, 150*um, got[3].Shape.R)
	f := field(&design.Via{ID: 60, At: mm(5, 5), Diameter: 800 * um, Hole: 400 * um, From: 1, To: 3, Net: net("A")})
	assert.Equal(t, []string{"track", "track", "track"}, kinds(f.HandOf(legs, net("A"))))
}
