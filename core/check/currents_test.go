package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

// currents is the board of four layers (35 µm outside, 18 µm inside) with a current for net B, which has a track of 0.3 mm on both inner layers.
func currents(amperes int64) *design.Doc {
	d := synthetic.FourLayers()
	n := *d.Nets[synthetic.FourB]
	n.Current = amperes * 1_000_000 / 10
	d.Put(&n)
	return d
}

// Tenths of an ampere on 18 µm within the board, 10 K warmer: 0.3 mm carry 0.024·10^0.44·(11.811·0.70866)^0.725 = 0.3087 A.
func TestThinForTheirCurrents(t *testing.T) {
	assert.Nil(t, check.Thin(currents(0), layout.NewIndex(currents(0)), synthetic.FourB), "nothing is said of it")
	assert.Nil(t, check.Thin(currents(4), layout.NewIndex(currents(4)), 9999), "there is no such net")
	assert.Nil(t, check.Thin(currents(3), layout.NewIndex(currents(3)), synthetic.FourB), "0.3 A")
	d := currents(4)
	f := check.Thin(d, layout.NewIndex(d), synthetic.FourB)
	require.NotNil(t, f)
	assert.Equal(t, []any{int64(300_000), "A track of B is 0.3 mm wide; 400 mA would make it more than 10 K warmer, and one more piece of the net is too thin."}, []any{f.Measured, f.Text})
	assert.InDelta(t, 300_000*1.4294, float64(f.Required), 1_500, "(0.4/0.3087)^(1/0.725)")
	b := *d.Board
	b.Rise = 30
	d.Put(&b)
	assert.Nil(t, check.Thin(d, layout.NewIndex(d), synthetic.FourB), "30 K are allowed: 0.5 A")
	b.Rise = 201
	assert.ErrorContains(t, b.Valid(), "201 K warmer")
}

// corner is what a track of net A from (20, 10) makes there with one that comes from (10, 10).
func corner(t *testing.T, to geom.Point, mid *geom.Point, more ...design.Object) (check.Corner, bool) {
	t.Helper()
	d := synthetic.FourLayers()
	put := func(id design.ID, a, b geom.Point, mid *geom.Point) {
		d.Put(&design.Track{ID: id, Layer: d.Board.Top(), A: a, B: b, Mid: mid, Width: 200_000, Net: synthetic.FourA})
	}
	put(300, spotAt(22, 12), spotAt(28, 12), nil)
	put(301, to, spotAt(28, 12), mid) // it ends there
	for _, o := range more {
		d.Put(o)
	}
	return check.Sharp(layout.NewIndex(d), check.Joint{Layer: 0, At: spotAt(28, 12)})
}

func TestSharpCorners(t *testing.T) {
	for _, c := range []struct {
		to    geom.Point
		mid   *geom.Point
		angle float64 // 0: none
	}{
		{spotAt(34, 12), nil, 0}, {spotAt(32, 16), nil, 0}, {spotAt(28, 18), nil, 90}, {spotAt(28, 6), nil, 90}, {spotAt(24, 16), nil, 45}, {spotAt(28.001, 18), nil, 0},
		{spotAt(27.9, 18), nil, 89.05},
		{spotAt(30, 14), &[]geom.Point{spotAt(29.414214, 12.585786)}[0], 0},  // an arc that goes on smoothly
		{spotAt(30, 14), &[]geom.Point{spotAt(28.585786, 13.414214)}[0], 90}, // one that leaves upwards
	} {
		got, is := corner(t, c.to, c.mid)
		assert.Equal(t, c.angle > 0, is, "%v", c)
		if is {
			assert.InDelta(t, c.angle, float64(got.Angle)/1000, 0.01, "%v", c)
			assert.Equal(t, []design.ID{300, synthetic.FourA}, []design.ID{got.Track, got.Net}, "the first of both")
		}
	}
	up := spotAt(28, 18)
	_, is := corner(t, up, nil, &design.Track{ID: 302, Layer: 1, A: spotAt(28, 12), B: spotAt(34, 12), Width: 200_000, Net: synthetic.FourA})
	assert.False(t, is, "a fork")
	_, is = corner(t, up, nil, &design.Track{ID: 302, Layer: 1, A: spotAt(26, 13), B: spotAt(30, 11), Width: 200_000, Net: synthetic.FourA})
	assert.False(t, is, "a fork of one that goes through")
	_, is = corner(t, up, nil, &design.Track{ID: 302, Layer: 1, A: spotAt(26, 11.9), B: spotAt(30, 11.9), Width: 200_000, Net: synthetic.FourA})
	assert.False(t, is, "one whose side touches the place")
	_, is = corner(t, up, nil, &design.Track{ID: 302, Layer: 1, A: spotAt(26, 11.899), B: spotAt(30, 11.899), Width: 200_000, Net: synthetic.FourA})
	assert.True(t, is, "one that is a micrometre too far for that")
	_, is = corner(t, up, nil, &design.Via{ID: 302, At: spotAt(28, 12), Diameter: 600_000, Hole: 300_000, From: 1, To: 7, Net: synthetic.FourA})
	assert.False(t, is, "beneath a via")
	_, is = corner(t, up, nil, &design.Track{ID: 302, Layer: 3, A: spotAt(28, 12), B: spotAt(34, 12), Width: 200_000, Net: synthetic.FourA})
	assert.True(t, is, "another layer is no fork")
	d := synthetic.FourLayers()
	f := check.Corners(d, synthetic.FourA, []check.Corner{{Joint: check.Joint{At: spotAt(1, 1)}, Angle: 90_000, Track: 5}, {Joint: check.Joint{Layer: 3, At: spotAt(2, 1)}, Angle: 45_000, Track: 6}})
	assert.Equal(t, []any{"A track of A makes a corner of 45°; there is one more of 90° or less.", spotAt(2, 1), d.Board.Bottom(), []design.ID{6}}, []any{f.Text, f.At, f.Layer, f.Objects})
	assert.Nil(t, check.Corners(d, synthetic.FourA, nil))
	three := []check.Corner{{Joint: check.Joint{At: spotAt(1, 1)}, Angle: 80_000}, {Joint: check.Joint{At: spotAt(0, 1)}, Angle: 80_000}, {Angle: 81_000}}
	f = check.Corners(d, synthetic.FourA, three)
	assert.Equal(t, []any{"A track of A makes a corner of 80°; there are 2 more of 90° or less.", spotAt(0, 1)}, []any{f.Text, f.At}, "the leftmost of those alike")
	assert.Equal(t, "A track of A makes a corner of 81°.", check.Corners(d, synthetic.FourA, three[2:]).Text)
}

// Joints are looked for where Sharp finds corners, on a whole board and among what lies near a piece.
func TestJoints(t *testing.T) {
	d := synthetic.FourLayers()
	line := func(id design.ID, layer design.LayerID, a, b geom.Point) {
		d.Put(&design.Track{ID: id, Layer: layer, A: a, B: b, Width: 200_000, Net: synthetic.FourA})
	}
	top := d.Board.Top()
	line(300, top, spotAt(22, 12), spotAt(28, 12))
	line(301, top, spotAt(28, 18), spotAt(28, 12)) // 90°
	line(302, top, spotAt(28, 18), spotAt(34, 24)) // 135°
	line(303, top, spotAt(34, 24), spotAt(34, 20)) // 45°
	line(304, d.Board.Bottom(), spotAt(34, 20), spotAt(38, 20))
	var found []check.Joint
	for _, j := range check.Joints(d) {
		if j.Layer == 0 && j.At.X >= 22_000_000 {
			found = append(found, j)
		}
	}
	assert.ElementsMatch(t, []check.Joint{{Layer: 0, At: spotAt(28, 12)}, {Layer: 0, At: spotAt(34, 24)}}, found)
	x := layout.NewIndex(d)
	in := check.JointsIn(x, geom.BoxOf(spotAt(28, 12), spotAt(30, 18)))
	assert.ElementsMatch(t, []check.Joint{{Layer: 0, At: spotAt(28, 12)}, {Layer: 0, At: spotAt(28, 12)}, {Layer: 0, At: spotAt(28, 18)}, {Layer: 0, At: spotAt(28, 18)}}, in, "the ends of two each")
	of := check.JointsOf(x, x.Of(303))
	assert.Contains(t, of, check.Joint{Layer: 0, At: spotAt(34, 20)})
	assert.Contains(t, of, check.Joint{Layer: 0, At: spotAt(34, 24)})
	assert.NotContains(t, of, check.Joint{Layer: 0, At: spotAt(28, 12)})
}

func spotAt(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
