package overlay_test

import (
	"slices"
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
		// a board with holes, round, long and square, turned by any angle; no two meet
		var holes []geom.Shape
		for range rapid.IntRange(1, 25).Draw(t, "holes") {
			at := geom.Pt(rapid.Int64Range(1_500_000, 18_500_000).Draw(t, "x"), rapid.Int64Range(1_500_000, 18_500_000).Draw(t, "y"))
			to := at.Add(geom.Turn(geom.Pt(rapid.Int64Range(0, 700_000).Draw(t, "long"), 0), int32(rapid.IntRange(0, 359_999).Draw(t, "turn"))))
			shape := geom.Shape{Pts: []geom.Point{at, to}, R: rapid.Int64Range(80_000, 600_000).Draw(t, "r")}
			if at == to {
				shape.Pts = shape.Pts[:1]
			}
			if !slices.ContainsFunc(holes, func(o geom.Shape) bool { gap, _, _ := geom.Gap(o, shape); return gap < 10_000 }) {
				holes = append(holes, shape)
			}
		}
		board := geom.Shape{Pts: []geom.Point{{}, {X: 20_000_000}, {X: 20_000_000, Y: 20_000_000}, {Y: 20_000_000}}, Area: true}
		cut := overlay.Cut{Shapes: []geom.Shape{board}, Without: holes, Tolerance: 8_000}
		list, err := cut.One(t.Context())
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
		require.InEpsilon(t, size(list), sum, 1e-8)
	})
	assert.Greater(t, split, 20, "there was something to stitch")
}
