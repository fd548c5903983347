package geom_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
)

func TestCutAcross(t *testing.T) {
	const mm = 1_000_000
	at := func(x, y int64) geom.Point { return geom.Pt(x*mm, y*mm) }
	board := geom.Corners(at(0, 0), at(40, 0), at(40, 30), at(0, 30))
	one, other, err := geom.CutAcross(board, []geom.Point{at(10, -5), at(10, 15), at(20, 15), at(20, 40)})
	require.NoError(t, err)
	assert.ElementsMatch(t, []float64{450, 750}, []float64{math.Round(geom.Closing(one).Area() / 1e12), math.Round(geom.Closing(other).Area() / 1e12)}, "10 × 15 and 20 × 15 below; the rest")
	one, other, err = geom.CutAcross(board, []geom.Point{at(20, 40), at(20, 15), at(10, 15), at(10, -5)})
	require.NoError(t, err)
	assert.InDelta(t, 1200, (geom.Closing(one).Area()+geom.Closing(other).Area())/1e12, 1e-6, "the other way")
	one, other, err = geom.CutAcross(board, []geom.Point{at(0, 0), at(40, 30)})
	require.NoError(t, err)
	assert.Len(t, one, 3, "from corner to corner")
	assert.Len(t, other, 3)
	one, other, err = geom.CutAcross(board, []geom.Point{at(10, -5), at(10, 5), at(30, 5), at(30, -5)})
	require.NoError(t, err, "in and out of one side")
	assert.InDelta(t, 100, min(geom.Closing(one).Area(), geom.Closing(other).Area())/1e12, 1e-6)
	assert.InDelta(t, 1100, max(geom.Closing(one).Area(), geom.Closing(other).Area())/1e12, 1e-6)
	_, _, err = geom.CutAcross(board, []geom.Point{at(10, -5), at(10, 15)})
	assert.ErrorContains(t, err, "does not lead across")
	_, _, err = geom.CutAcross(board, []geom.Point{at(10, 5), at(10, 15)})
	assert.ErrorContains(t, err, "does not lead across")
	_, _, err = geom.CutAcross(board, []geom.Point{at(-5, 5), at(50, 5), at(50, 10), at(-5, 10)})
	assert.ErrorContains(t, err, "crosses the edge 4 times")
	_, _, err = geom.CutAcross(board, nil)
	assert.Error(t, err)

	round := geom.CircleLine(at(0, 0), 10*mm)
	one, other, err = geom.CutAcross(round, []geom.Point{at(0, -20), at(0, 20)})
	require.NoError(t, err)
	for _, half := range [][]geom.Corner{one, other} {
		assert.InDelta(t, math.Pi*50, geom.Closing(half).Area()/1e12, 1e-3)
	}
	// the segment beyond a chord at 6 mm of a circle of 10: r² acos(d/r) − d √(r² − d²)
	one, other, err = geom.CutAcross(round, []geom.Point{at(6, -20), at(6, 20)})
	require.NoError(t, err)
	assert.InDelta(t, 100*math.Acos(0.6)-6*8, min(geom.Closing(one).Area(), geom.Closing(other).Area())/1e12, 1e-3)
}

// Whatever line leads across whatever rounded board: both parts together are the whole, neither crosses itself, and all of the line that
// lies within lies on the edges of both.
func TestCutsKeepTheWhole(t *testing.T) {
	cut := 0
	rapid.Check(t, func(t *rapid.T) {
		board := geom.Rectangle(geom.Box{Max: geom.Pt(40_000_000, 30_000_000)}, int64(rapid.IntRange(0, 14).Draw(t, "r"))*1_000_000)
		p := func(what string) geom.Point {
			return geom.Pt(int64(rapid.IntRange(-10_000, 50_000).Draw(t, what+" x"))*1000, int64(rapid.IntRange(-10_000, 40_000).Draw(t, what+" y"))*1000)
		}
		line := []geom.Point{p("a"), p("b")}
		for range rapid.IntRange(0, 2).Draw(t, "more") {
			line = append(line, p("c"))
		}
		one, other, err := geom.CutAcross(board, line)
		if err != nil {
			return
		}
		a, b := geom.Closing(one), geom.Closing(other)
		cut++
		_, bad := geom.Crossing(a)
		assert.False(t, bad)
		assert.InDelta(t, geom.Closing(board).Area(), a.Area()+b.Area(), 1e9, "a thousandth of a square millimetre")
		_, bad = geom.Crossing(b)
		assert.False(t, bad)
		for _, c := range one {
			assert.True(t, geom.Closing(board).Holds(c.Point) || near(board, c.Point), "%v", c)
		}
	})
	assert.Greater(t, cut, 10)
}

func near(c []geom.Corner, p geom.Point) bool {
	for _, side := range geom.Closing(c) {
		if d, _, _ := geom.PieceDistance(side, geom.Straight(p, p)); d < 10 {
			return true
		}
	}
	return false
}
