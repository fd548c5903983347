package route_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// A shape is clear at each limit and not four nanometres beyond it; what stands in its way is
// told with figures.
func TestClearAtTheLimits(t *testing.T) {
	at := func(x, y int64) geom.Point { return geom.Pt(x*um, y*um) }
	f := field(
		track(50, "WALL", 0, 2_000, 10_000, 18_000, 10_000),
		&design.Hole{ID: 51, At: at(5_000, 5_000), Diameter: 1_000 * um},
		&design.Via{ID: 52, At: at(10_000, 5_000), Diameter: 800 * um, Hole: 400 * um, From: 1, To: 3, Net: net("A")},
	)
	r := f.Doc.Numbers()
	require.Equal(t, []int64{200 * um, 300 * um, 250 * um}, []int64{r[design.Clearance], r[design.EdgeClearance], r[design.HoleClearance]})
	wish := func(s geom.Shape, layers uint32, of string, hole int64) route.Wish {
		return route.Wish{Shape: s, Layers: layers, Net: net(of), Hole: hole}
	}
	disc := func(p geom.Point) geom.Shape { return geom.Disc(p, 100*um) }
	for name, c := range map[string]struct {
		shape geom.Shape
		net   string
		hole  int64
		step  geom.Point // towards what is in the way
		want  string
	}{
		"a track of another net":  {disc(at(10_000, 10_500)), "A", 0, geom.Pt(0, -1), "WALL"},
		"a bare hole":             {disc(at(5_000, 5_900)), "A", 0, geom.Pt(0, -1), "hole"},
		"the edge":                {disc(at(400, 15_000)), "A", 0, geom.Pt(-1, 0), "the board's edge"},
		"the hole of its own net": {geom.Disc(at(10_650, 5_000), 400*um), "A", 400 * um, geom.Pt(-1, 0), "the hole of via"},
		"a via of another net":    {disc(at(10_000, 5_700)), "B", 0, geom.Pt(0, -1), "via"},
	} {
		assert.Nil(t, f.Clear(wish(c.shape, 1, c.net, c.hole)), name)
		for _, by := range []int64{2, 4, 50_000} {
			s := geom.Shape{Pts: []geom.Point{c.shape.Pts[0].Add(geom.Pt(c.step.X*by, c.step.Y*by))}, R: c.shape.R}
			o := f.Clear(wish(s, 1, c.net, c.hole))
			if by == 2 {
				assert.Nil(t, o, "%s: two nanometres are rounding", name)
				continue
			}
			require.NotNil(t, o, "%s by %d", name, by)
			assert.Contains(t, o.Name+o.Net, c.want, name)
			assert.Equal(t, o.Required-by, o.Measured, name)
		}
	}
	assert.Nil(t, f.Clear(wish(disc(at(10_000, 10_000)), 2, "A", 0)), "the wall is on the other layer")
	assert.Nil(t, f.Clear(wish(disc(at(10_000, 10_000)), 1, "WALL", 0)), "its own net")
	o := f.Clear(wish(disc(at(10_000, 10_000)), 1, "", 0))
	require.NotNil(t, o, "what has no net is apart from all")
	assert.Equal(t, "this would touch track of WALL", o.Error())
	near := f.Clear(wish(disc(at(10_000, 10_450)), 1, "A", 0))
	assert.Equal(t, "this would come within 0.15 mm of track of WALL; the rules ask for 0.2 mm", near.Error())
}

// Of several things in the way the one that is broken most is told.
func TestTheWorstIsTold(t *testing.T) {
	f := field(track(50, "NEAR", 0, 2_000, 10_000, 18_000, 10_000), track(51, "NEARER", 0, 2_000, 11_050, 18_000, 11_050))
	o := f.Clear(route.Wish{Shape: geom.Disc(geom.Pt(10_000*um, 10_550*um), 200*um), Layers: 1, Net: net("A")})
	require.NotNil(t, o)
	assert.Equal(t, "NEARER", o.Net)
	// 0.05 mm of 0.2 lack less than 0.1 mm of 0.3: it is what is missing that counts
	g := field(track(50, "NEAR", 0, 2_000, 10_000, 18_000, 10_000), &design.Hole{ID: 51, At: geom.Pt(10_000*um, 12_000*um), Diameter: 1_000 * um})
	o = g.Clear(route.Wish{Shape: geom.Shape{Pts: []geom.Point{{X: 10_000 * um, Y: 10_300 * um}, {X: 10_000 * um, Y: 11_350 * um}}, R: 50 * um}, Layers: 1, Net: net("A")})
	require.NotNil(t, o)
	assert.Equal(t, "hole", o.Name)
	assert.Equal(t, []int64{100 * um, 300 * um}, []int64{o.Measured, o.Required})
}

// A plated hole saves a via only when it joins the layers in question; what the same command laid
// is seen.
func TestPlatedAt(t *testing.T) {
	d := synthetic.FourLayers()
	f := route.Field{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
	mm := func(x, y int64) geom.Point { return geom.Pt(x*1_000_000, y*1_000_000) }
	for _, c := range []struct {
		at     geom.Point
		net    string
		layers uint32
		want   bool
	}{
		{mm(20, 20), "A", 15, true}, {mm(20, 20), "B", 15, false}, {mm(25, 20), "A", 15, false}, {mm(25, 20), "A", 3, true},
		{mm(10, 20), "A", 15, true}, {mm(10, 15), "C", 8, false}, {mm(21, 20), "A", 15, false}, {mm(37, 3), "", 15, false},
	} {
		assert.Equal(t, c.want, f.PlatedAt(c.at, synthetic.Net(d, c.net), c.layers), fmt.Sprint(c))
	}
	assert.False(t, f.PlatedAt(mm(3, 25), synthetic.FourA, 15))
	f.Laid = layout.PiecesOf(d, &design.Via{ID: 999, At: mm(3, 25), Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: synthetic.FourA})
	assert.True(t, f.PlatedAt(mm(3, 25), synthetic.FourA, 15))
	require.NotNil(t, f.Clear(route.Wish{Shape: geom.Disc(mm(3, 25), 100_000), Layers: 1, Net: synthetic.FourB}), "and stands in the way of others")
}

func TestLengthAndPath(t *testing.T) {
	assert.EqualValues(t, 12, route.Length([]geom.Point{{X: 0, Y: 0}, {X: 3, Y: 4}, {X: 10, Y: 4}}))
	assert.Zero(t, route.Length([]geom.Point{{X: 5, Y: 5}}))
	for _, c := range []struct {
		a, b  geom.Point
		style route.Corner
		want  []geom.Point
	}{
		{geom.Pt(0, 0), geom.Pt(-10, -4), route.StraightFirst, []geom.Point{{X: 0, Y: 0}, {X: -6, Y: 0}, {X: -10, Y: -4}}},
		{geom.Pt(0, 0), geom.Pt(-10, 4), route.DiagonalFirst, []geom.Point{{X: 0, Y: 0}, {X: -4, Y: 4}, {X: -10, Y: 4}}},
		{geom.Pt(0, 0), geom.Pt(4, -10), route.StraightFirst, []geom.Point{{X: 0, Y: 0}, {X: 0, Y: -6}, {X: 4, Y: -10}}},
		{geom.Pt(0, 0), geom.Pt(5, 5), route.DiagonalFirst, []geom.Point{{X: 0, Y: 0}, {X: 5, Y: 5}}},
		{geom.Pt(0, 0), geom.Pt(5, 5), route.Square, []geom.Point{{X: 0, Y: 0}, {X: 5, Y: 0}, {X: 5, Y: 5}}},
	} {
		assert.Equal(t, c.want, route.Path(c.a, c.b, c.style))
	}
}
