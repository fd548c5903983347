package geom_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/geom"
)

func spot(x, y float64) geom.Point {
	return geom.Pt(int64(math.Round(x*1e6)), int64(math.Round(y*1e6)))
}

func areaOf(c []geom.Corner) float64 { return geom.Closing(c).Area() / 1e12 }

func square(side float64) []geom.Corner {
	return geom.Corners(spot(0, 0), spot(side, 0), spot(side, side), spot(0, side))
}

// Areas of the plain forms, from school: a rectangle less what rounding takes off, (4 − π) r²; a circle; a slot.
func TestPlainForms(t *testing.T) {
	box := geom.BoxOf(spot(-10, 5), spot(30, 25))
	assert.InDelta(t, 800, areaOf(geom.Rectangle(box, 0)), 1e-6)
	assert.InDelta(t, 800-(4-math.Pi)*9, areaOf(geom.Rectangle(box, 3_000_000)), 1e-5)
	assert.Len(t, geom.Rectangle(box, 3_000_000), 8)
	full := geom.Rectangle(box, 99_000_000) // as round as can be: a slot of 40 × 20
	assert.InDelta(t, 400+math.Pi*100, areaOf(full), 1e-4)
	assert.Len(t, full, 6)
	round := geom.Rectangle(geom.BoxOf(spot(0, 0), spot(20, 20)), 10_000_000)
	assert.InDelta(t, math.Pi*100, areaOf(round), 1e-4)
	assert.Len(t, round, 4)
	assert.InDelta(t, math.Pi*25, areaOf(geom.CircleLine(spot(3, -4), 5_000_000)), 1e-5)
	assert.Equal(t, geom.BoxOf(spot(-2, -9), spot(8, 1)), geom.Closing(geom.CircleLine(spot(3, -4), 5_000_000)).Box())
	slot := geom.SlotLine(spot(0, 0), spot(30, 40), 10_000_000)
	assert.InDelta(t, 500+math.Pi*25, areaOf(slot), 1e-4)
	assert.InDelta(t, math.Pi*25, areaOf(geom.SlotLine(spot(1, 1), spot(1, 1), 10_000_000)), 1e-5)
	for _, ring := range [][]geom.Corner{geom.Rectangle(box, 3_000_000), full, round, slot} {
		_, bad := geom.Crossing(geom.Closing(ring))
		assert.False(t, bad)
	}
}

func TestCornersRoundedAndCutOff(t *testing.T) {
	c := square(20)
	r, err := geom.RoundCorner(c, 1, 4_000_000)
	require.NoError(t, err)
	assert.Equal(t, []geom.Point{spot(0, 0), spot(16, 0), spot(20, 4), spot(20, 20), spot(0, 20)}, geom.Places(r))
	assert.InDelta(t, 400-(1-math.Pi/4)*16, areaOf(r), 1e-5)
	assert.InDelta(t, 4e6, geom.Closing(r)[1].Radius(), 1)
	assert.Nil(t, c[1].Mid, "what was given is as it was")
	b, err := geom.BevelCorner(c, 2, 5_000_000)
	require.NoError(t, err)
	assert.InDelta(t, 400-12.5, areaOf(b), 1e-6)
	// an inner corner of an L is rounded towards the other side: it grows
	l := geom.Corners(spot(0, 0), spot(20, 0), spot(20, 10), spot(10, 10), spot(10, 20), spot(0, 20))
	in, err := geom.RoundCorner(l, 3, 2_000_000)
	require.NoError(t, err)
	assert.InDelta(t, 300+(1-math.Pi/4)*4, areaOf(in), 1e-5)
	// of a corner of 60° the arc begins r / tan 30° back
	tri := geom.Corners(spot(0, 0), spot(20, 0), spot(10, 10*math.Sqrt(3)))
	s, err := geom.RoundCorner(tri, 0, 3_000_000)
	require.NoError(t, err)
	assert.InDelta(t, 3*math.Sqrt(3)*1e6, s[0].Dist(spot(0, 0)), 1)
	assert.InDelta(t, 3*math.Sqrt(3)*1e6, s[1].Dist(spot(0, 0)), 1)
	assert.InDelta(t, 3e6, geom.Closing(s)[0].Radius(), 2)
	whole, err := geom.RoundCorner(c, 0, 20_000_000)
	require.NoError(t, err, "as far as the sides go")
	assert.InDelta(t, 400-(1-math.Pi/4)*400, areaOf(whole), 1e-3)
	for says, err := range map[string]error{
		"too short":     second(geom.RoundCorner(c, 0, 20_001_000)),
		"sides are":     second(geom.BevelCorner(c, 0, 20_001_000)),
		"two straight":  second(geom.RoundCorner(r, 2, 1_000_000)),
		"straight side": second(geom.BevelCorner(r, 1, 1_000_000)),
		"one line":      second(geom.RoundCorner(geom.Corners(spot(0, 0), spot(10, 0), spot(20, 0), spot(10, 10)), 1, 1_000_000)),
		"more than":     second(geom.RoundCorner(c, 0, 0)),
		"than nothing":  second(geom.BevelCorner(c, 0, -1)),
	} {
		assert.ErrorContains(t, err, says)
	}
}

func second(_ []geom.Corner, err error) error { return err }

func TestCornersMovedAddedAndTaken(t *testing.T) {
	c := square(20)
	c[3].Mid = &geom.Point{X: -10_000_000, Y: 10_000_000} // the left side is half round
	m := geom.MoveCorner(c, 0, spot(0, -20))
	assert.Equal(t, spot(0, -20), m[0].Point)
	assert.Equal(t, spot(-20, 0), *m[3].Mid, "half round still, of twice the size")
	assert.Equal(t, spot(-10, 10), *c[3].Mid)
	m = geom.MoveCorner(c, 3, spot(20, 0).Add(spot(0, 0))) // the chord turned: from (20, 0) to (0, 0)
	assert.Equal(t, spot(10, 10), *m[3].Mid, "the arc turns with its chord, to the right of the way it goes")

	s := geom.SplitSide(c, 0, spot(8, -3))
	assert.Equal(t, []geom.Point{spot(0, 0), spot(8, -3), spot(20, 0), spot(20, 20), spot(0, 20)}, geom.Places(s))
	a := geom.SplitSide(c, 3, spot(-30, 10)) // anywhere beyond: onto the arc
	require.Len(t, a, 5)
	assert.Equal(t, spot(-10, 10), a[4].Point)
	assert.InDelta(t, areaOf(c), areaOf(a), 1e-4, "nothing of the line changed")
	for _, p := range geom.Closing(a)[3:] {
		assert.InDelta(t, 10e6, p.Radius(), 2)
		at, _ := p.Centre()
		assert.InDelta(t, 0, at.Dist(spot(0, 10)), 3)
	}

	d, err := geom.DropCorner(c, 0)
	require.NoError(t, err)
	assert.Equal(t, []geom.Point{spot(20, 0), spot(20, 20), spot(0, 20)}, geom.Places(d))
	assert.Nil(t, d[2].Mid, "the side that takes its place is straight")
	_, err = geom.DropCorner(d, 0)
	assert.ErrorContains(t, err, "three corners")
}

func TestSidesBentAndLengthened(t *testing.T) {
	c := square(20)
	b := geom.BendSide(c, 1, spot(24, 10))
	assert.InDelta(t, (100+16)/8.0*1e6, geom.Closing(b)[1].Radius(), 2, "(half² + rise²) / 2 rise")
	assert.Nil(t, geom.BendSide(b, 1, spot(20, 13))[1].Mid, "in line with its ends it is straight")
	for i := range 4 {
		r, err := geom.BendRadius(c, i, 12_500_000)
		require.NoError(t, err)
		assert.InDelta(t, 12.5e6, geom.Closing(r)[i].Radius(), 2)
		// the segment of a circle over a chord of 20 at a radius of 12.5
		half := math.Asin(10 / 12.5)
		assert.InDelta(t, 400+12.5*12.5*(half-math.Sin(half)*math.Cos(half)), areaOf(r), 1e-4, "outwards")
	}
	in := geom.BendSide(c, 0, spot(10, 3))
	r, err := geom.BendRadius(in, 0, 15_000_000)
	require.NoError(t, err)
	assert.Positive(t, r[0].Mid.Y, "it bows where it did")
	back := geom.Corners(spot(0, 20), spot(20, 20), spot(20, 0), spot(0, 0)) // clockwise
	r, err = geom.BendRadius(back, 0, 15_000_000)
	require.NoError(t, err)
	assert.Greater(t, r[0].Mid.Y, int64(20_000_000), "outwards of one that goes clockwise too")
	r, err = geom.BendRadius(in, 0, 0)
	require.NoError(t, err)
	assert.Nil(t, r[0].Mid)
	_, err = geom.BendRadius(c, 0, 9_999_000)
	assert.ErrorContains(t, err, "half the distance")
	half, err := geom.BendRadius(c, 0, 10_000_000)
	require.NoError(t, err)
	assert.Equal(t, spot(10, -10), *half[0].Mid)

	l, err := geom.SetSide(c, 1, 35_000_000)
	require.NoError(t, err)
	assert.Equal(t, spot(20, 35), l[2].Point)
	last, err := geom.SetSide(c, 3, 5_000_000)
	require.NoError(t, err)
	assert.Equal(t, spot(0, 15), last[0].Point, "the last side ends at the first corner")
	_, err = geom.SetSide(b, 1, 5)
	assert.ErrorContains(t, err, "length of an arc")
	_, err = geom.SetSide(c, 0, 0)
	assert.ErrorContains(t, err, "more than nothing")
}
