package route_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// fits tells whether a path of 0.25 mm may lie.
func fits(f route.Field, layer int, path []geom.Point) bool {
	for i := 0; i+1 < len(path); i++ {
		if f.Clear(route.Wish{Shape: geom.Stroke(path[i], path[i+1], 250*um), Layers: 1 << layer, Net: 900, Thing: design.ATrack}) != nil {
			return false
		}
	}
	return true
}

// direction of a piece as a unit vector, and how long it is.
func direction(a, b geom.Point) (x, y, long float64) {
	long = a.Dist(b)
	return float64(b.X-a.X) / long, float64(b.Y-a.Y) / long, long
}

// moved is a path whose piece from i to i+1 is moved to its left by so much, the pieces beside it grown or shortened; false: one of the three
// would have no length left.
func moved(path []geom.Point, i int, by float64) ([]geom.Point, bool) {
	ux, uy, long := direction(path[i], path[i+1])
	corner := func(from, at geom.Point) (geom.Point, float64) { // the piece from from to at goes on until it meets the moved line
		vx, vy, _ := direction(from, at)
		k := by / (ux*vy - uy*vx)
		return geom.Pt(at.X+int64(math.Round(k*vx)), at.Y+int64(math.Round(k*vy))), k
	}
	p, _ := corner(path[i-1], path[i])
	q, _ := corner(path[i+2], path[i+1])
	same := func(a, b, c, d geom.Point) bool {
		return float64(b.X-a.X)*float64(d.X-c.X)+float64(b.Y-a.Y)*float64(d.Y-c.Y) > 0
	}
	if !same(path[i-1], path[i], path[i-1], p) || !same(path[i+1], path[i+2], q, path[i+2]) || !same(path[i], path[i+1], p,
		q) || long == 0 {
		return nil, false
	}
	out := append([]geom.Point{}, path...)
	out[i], out[i+1] = p, q
	return out, true
}

// A way that was found is tight: no piece of it can be moved sideways by 2 µm so that it gets shorter, no corner or two can be left out, and no
// square corner be cut off by 75 µm, where that is free.
func TestFinishedWaysAreTight(t *testing.T) {
	pieces := 0
	rapid.Check(t, func(t *rapid.T) {
		f, from, _, target := crowd(t)
		legs := f.Finish(route.Errand{Net: 900, Width: 250 * um, From: from, Layers: 1, Goals: []*layout.Copper{target}})
		if legs == nil {
			return
		}
		path := geom.Places(legs[0].Path)
		long := func(path []geom.Point) (sum float64) {
			for i := 0; i+1 < len(path); i++ {
				sum += path[i].Dist(path[i+1])
			}
			return sum
		}
		was := long(path)
		for i := range path {
			if i > 0 && i+2 < len(path) {
				for _, by := range []float64{2000, -2000} {
					pieces++
					next, ok := moved(path, i, by)
					require.False(t, ok && long(next) < was-500 && fits(f, 0, next[i-1:i+3]), "piece %d moved by %v: %v", i, by, path)
				}
			}
			if i+2 < len(path) {
				u, v := path[i+1].Sub(path[i]), path[i+2].Sub(path[i+1])
				if u.X*v.X+u.Y*v.Y == 0 {
					ux, uy, _ := direction(path[i], path[i+1])
					vx, vy, _ := direction(path[i+1], path[i+2])
					c := path[i+1]
					cut := []geom.Point{path[i], c.Sub(geom.Pt(int64(ux*75_000), int64(uy*75_000))), c.Add(geom.Pt(int64(vx*75_000),
						int64(vy*75_000))), path[i+2]}
					if min(path[i].Dist(c), c.Dist(path[i+2])) > 80_000 {
						require.False(t, fits(f, 0, cut), "corner %d of %v", i+1, path)
					}
				}
			}
			for j := i + 3; j < min(i+6, len(path)); j++ {
				for _, style := range []route.Corner{route.StraightFirst, route.DiagonalFirst} {
					way := route.Path(path[i], path[j], style)
					if long(way) > long(path[i:j+1])-5_000 {
						continue
					}
					bent := append(append(append([]geom.Point{}, path[:i]...), way...), path[j+1:]...)
					blunt := true
					for k := 1; k+1 < len(bent); k++ {
						ux, uy, _ := direction(bent[k-1], bent[k])
						vx, vy, _ := direction(bent[k], bent[k+1])
						blunt = blunt && ux*vx+uy*vy > -0.01
					}
					require.False(t, blunt && fits(f, 0, way), "from corner %d to %d of %v", i, j, path)
				}
			}
		}
	})
	assert.Positive(t, pieces)
}
