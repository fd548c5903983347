package overlay_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
)

// Triangles of a mesh meet edge to edge: every side is that of one other triangle, the other way, or of a line; together they cover what the areas do.
func TestMeshesMeetEdgeToEdge(t *testing.T) {
	split := 0
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
		sum := 0.0
		for i := range list {
			triangles, rings := overlay.Mesh(list[i : i+1])
			type side struct{ a, b geom.Point }
			seen := map[side]int{}
			for _, g := range triangles {
				sum += geom.Area(g[:])
				for k := range g {
					seen[side{g[k], g[(k+1)%3]}]++
				}
			}
			for _, r := range rings {
				for k, p := range r {
					seen[side{r[(k+1)%len(r)], p}]++ // the outside lies on its other side
				}
			}
			for s, n := range seen {
				if n != seen[side{s.b, s.a}] {
					t.Fatalf("%v to %v has %d, the other way %d", s.a, s.b, n, seen[side{s.b, s.a}])
				}
			}
			if len(triangles) > len(overlay.Triangles(list[i:i+1])) {
				split++
			}
		}
		require.InDelta(t, size(list), sum, 80_000*float64(len(list)*20+1))
	})
	assert.Greater(t, split, 20, "there was something to stitch")
}
