package overlay_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
)

// size of areas by the formula of the trapezoids, holes taken away.
func size(list []overlay.Area) (sum float64) {
	for _, a := range list {
		sum += math.Abs(geom.Area(a.Outer))
		for _, h := range a.Holes {
			sum -= math.Abs(geom.Area(h))
		}
	}
	return sum
}

func TestTrianglesOfAFrame(t *testing.T) {
	square := func(r int64) []geom.Point {
		return []geom.Point{geom.Pt(-r, -r), geom.Pt(r, -r), geom.Pt(r, r), geom.Pt(-r, r)}
	}
	hole := square(10)
	hole[1], hole[3] = hole[3], hole[1]
	got := overlay.Triangles([]overlay.Area{{Outer: square(30), Holes: [][]geom.Point{hole}}})
	sum := 0.0
	for _, g := range got {
		require.Positive(t, geom.Area(g[:]), "anticlockwise")
		sum += geom.Area(g[:])
		middle := geom.Pt((g[0].X+g[1].X+g[2].X)/3, (g[0].Y+g[1].Y+g[2].Y)/3)
		assert.False(t, max(middle.X, -middle.X) < 10 && max(middle.Y, -middle.Y) < 10, "%v lies in the hole", g)
	}
	assert.Equal(t, 3600.0-400, sum)
	assert.Len(t, overlay.Triangles([]overlay.Area{{Outer: square(5)}}), 2)
	assert.Empty(t, overlay.Triangles(nil))
}

// Of whatever lines bound, triangles cover every place once, and no other.
func TestTrianglesCoverAreasOnce(t *testing.T) {
	seen := 0
	rapid.Check(t, func(t *rapid.T) {
		var lines [][]geom.Point
		for range rapid.IntRange(1, 6).Draw(t, "lines") {
			var line []geom.Point
			for range rapid.IntRange(3, 12).Draw(t, "places") {
				line = append(line, geom.Pt(rapid.Int64Range(0, 40).Draw(t, "x")*1000, rapid.Int64Range(0, 40).Draw(t, "y")*1000))
			}
			lines = append(lines, line)
		}
		list, err := overlay.Filled(lines, overlay.EvenOdd)
		require.NoError(t, err)
		got := overlay.Triangles(list)
		sum := 0.0
		for _, g := range got {
			require.Positive(t, geom.Area(g[:]))
			sum += geom.Area(g[:])
		}
		require.InDelta(t, size(list), sum, 40_000*float64(len(got)+1), "rounding moves a corner by less than a nanometre")
		for range 30 {
			p := geom.Pt(rapid.Int64Range(0, 40_000).Draw(t, "px"), rapid.Int64Range(0, 40_000).Draw(t, "py"))
			inside, near := false, false
			for _, a := range list {
				for _, r := range overlay.Rings([]overlay.Area{a}) {
					if geom.InPolygon(p, r) {
						inside = !inside
					}
					near = near || geom.Shape{Pts: append(r, r[0]), R: 5}.Holds(p)
				}
			}
			if near {
				continue
			}
			n := 0
			for _, g := range got {
				if geom.InPolygon(p, g[:]) {
					n++
				}
			}
			edge := false // of a triangle, within the area
			for _, g := range got {
				edge = edge || geom.Shape{Pts: []geom.Point{g[0], g[1], g[2], g[0]}, R: 2}.Holds(p)
			}
			if !edge {
				require.Equal(t, map[bool]int{true: 1}[inside], n, "%v", p)
				seen++
			}
		}
	})
	assert.Greater(t, seen, 500)
}
