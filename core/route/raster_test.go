package route

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
)

// Distances from places of the raster are those that shapes are measured by elsewhere, 0 within areas.
func TestDistancesFromPlaces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		somewhere := func(name string) geom.Point {
			return geom.Pt(rapid.Int64Range(-2_000_000, 2_000_000).Draw(t, name+"x"), rapid.Int64Range(-2_000_000, 2_000_000).Draw(t, name+"y"))
		}
		var s geom.Shape
		switch rapid.IntRange(0, 3).Draw(t, "form") {
		case 0:
			s = geom.Disc(somewhere("at"), 0)
		case 1:
			for range 3 { // a line of two pieces
				s.Pts = append(s.Pts, somewhere("corner"))
			}
		case 2: // a turned rectangle
			pose := geom.Pose{At: somewhere("at"), Angle: int32(rapid.IntRange(0, 359).Draw(t, "turn")) * 1000}
			w, h := rapid.Int64Range(1, 900_000).Draw(t, "w"), rapid.Int64Range(1, 900_000).Draw(t, "h")
			s = geom.Shape{Pts: pose.ApplyAll([]geom.Point{geom.Pt(-w, -h), geom.Pt(w, -h), geom.Pt(w, h), geom.Pt(-w, h)}), Area: true}
		default: // an angle of six corners, which is not convex
			at, k := somewhere("at"), rapid.Int64Range(1000, 500_000).Draw(t, "k")
			s = geom.Shape{Area: true}
			for _, c := range [][2]int64{{0, 0}, {3, 0}, {3, 1}, {1, 1}, {1, 3}, {0, 3}} {
				s.Pts = append(s.Pts, at.Add(geom.Pt(c[0]*k, c[1]*k)))
			}
		}
		p := somewhere("p")
		want, _, _ := geom.Gap(s, geom.Disc(p, 0))
		assert.InDelta(t, max(want, 0), distanceTo(s)(p), 0.01, "%v from %v", p, s)
	})
}
