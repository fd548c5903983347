package route

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
)

// places are random ones, of a few so that many lie on lines and on each other.
func places(t *rapid.T, name string, least, most int) []geom.Point {
	return rapid.SliceOfN(rapid.Custom(func(t *rapid.T) geom.Point {
		return geom.Pt(rapid.Int64Range(-20, 20).Draw(t, "x")*1_000, rapid.Int64Range(-20, 20).Draw(t, "y")*1_000)
	}), least, most).Draw(t, name)
}

// A place is in the convex hull of others where it lies in a triangle of three of them; the hull's corners are of them, and it turns left at
// each.
func TestConvexHulls(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pts := places(t, "places", 3, 9)
		at := places(t, "at", 1, 1)[0]
		h := convex(append([]geom.Point{}, pts...))
		for i, p := range h {
			require.Contains(t, pts, p)
			if len(h) > 2 {
				require.Positive(t, turn(p, h[(i+1)%len(h)], h[(i+2)%len(h)]), "no needless corner")
			}
		}
		// strictly inside: no line through the place has all of the others on one side of it or on it
		in := true
		for _, p := range pts {
			for _, q := range append([]geom.Point{p}, pts...) {
				for _, e := range []geom.Point{q.Sub(p), p.Sub(at), {X: 1}, {Y: 1}} {
					left, right := 0, 0
					for _, o := range pts {
						side := float64(e.X)*float64(o.Y-at.Y) - float64(e.Y)*float64(o.X-at.X)
						if side > 0 {
							left++
						} else if side < 0 {
							right++
						}
					}
					in = in && (e == (geom.Point{}) || left > 0 && right > 0)
				}
			}
		}
		require.Equal(t, in, h.inside(at))
	})
}

// Around shapes: what is nearer than asked lies inside, what is a tenth farther does not, but for corners that are cut as an octagon's;
// around pieces in the eight directions all sides go in these.
func TestHullsAroundShapes(t *testing.T) {
	arc := geom.Bow(geom.Piece{A: geom.Pt(0, 0), M: geom.Pt(1_000_000, 1_000_000), B: geom.Pt(2_000_000, 0)}, 200_000)
	for name, c := range map[string]struct {
		shapes []geom.Shape
		far    float64
	}{
		"a disc":       {[]geom.Shape{geom.Disc(geom.Pt(5, 7), 400_000)}, 1.09},
		"a line":       {[]geom.Shape{geom.Stroke(geom.Pt(0, 0), geom.Pt(2_000_000, 0), 400_000)}, 1.09},
		"a slant":      {[]geom.Shape{geom.Stroke(geom.Pt(0, 0), geom.Pt(1_500_000, 1_500_000), 400_000)}, 1.09},
		"an odd slant": {[]geom.Shape{geom.Stroke(geom.Pt(0, 0), geom.Pt(1_500_000, 600_000), 400_000)}, 0},
		"two":          {[]geom.Shape{geom.Disc(geom.Pt(0, 0), 100_000), geom.Disc(geom.Pt(3_000_000, 3_000_000), 100_000)}, 0},
		"an arc":       {[]geom.Shape{arc}, 0},
	} {
		h := around(300_000, c.shapes...)
		for i, p := range h {
			assert.True(t, octal(h[(i+1)%len(h)].Sub(p)), "%s: side %d", name, i)
			assert.Positive(t, turn(p, h[(i+1)%len(h)], h[(i+2)%len(h)]), name)
		}
		for x := int64(-2_000_000); x < 5_000_000; x += 50_111 {
			for y := int64(-2_000_000); y < 5_000_000; y += 50_077 {
				at := geom.Pt(x, y)
				for _, s := range c.shapes {
					gap, _, _ := geom.Gap(s, geom.Disc(at, 0))
					if gap < 300_000 {
						require.True(t, h.inside(at), "%s: %v", name, at)
					}
					if c.far > 0 && gap+float64(s.R) > float64(300_000+s.R)*c.far {
						require.False(t, h.inside(at), "%s: %v", name, at)
					}
				}
			}
		}
	}
}

// Where a way goes through a hull, by places along it: what is between the two ends is inside, what is outside of them is not.
func TestCutsOfHulls(t *testing.T) {
	through := 0
	rapid.Check(t, func(t *rapid.T) {
		h := convex(places(t, "places", 3, 7))
		if len(h) < 3 {
			return
		}
		ends := places(t, "way", 2, 2)
		from, to, ok := h.cut(ends[0], ends[1])
		if ok {
			through++
			require.Less(t, from, to)
		}
		at := func(k float64) (in bool) { // without rounding
			x, y := float64(ends[0].X)+k*float64(ends[1].X-ends[0].X), float64(ends[0].Y)+k*float64(ends[1].Y-ends[0].Y)
			for i, a := range h {
				b := h[(i+1)%len(h)]
				if float64(b.X-a.X)*(y-float64(a.Y))-float64(b.Y-a.Y)*(x-float64(a.X)) <= 1 {
					return false
				}
			}
			return true
		}
		for k := 0.005; k < 1; k += 0.01 {
			if ok && (math.Abs(k-from) < 1e-4 || math.Abs(k-to) < 1e-4) {
				continue
			}
			require.Equal(t, ok && k > from && k < to, at(k), "%v of the way: from %v to %v", k, from, to)
		}
	})
	assert.Positive(t, through)
}

// The two ways round a hull together are as long as its edge and twice what lies outside; neither goes inside, both have the path's ends, the
// left one has the hull on its left.
func TestWalksRoundHulls(t *testing.T) {
	length := func(path []geom.Point) (sum float64) {
		for i := 0; i+1 < len(path); i++ {
			sum += path[i].Dist(path[i+1])
		}
		return sum
	}
	walked := 0
	rapid.Check(t, func(t *rapid.T) {
		h := convex(places(t, "places", 3, 7))
		path := places(t, "path", 2, 4)
		left, right, through := h.walks(path)
		inner := false
		for i := 0; i+1 < len(path) && len(h) > 2; i++ {
			_, _, ok := h.cut(path[i], path[i+1])
			inner = inner || ok
		}
		n := len(path) - 1
		if len(h) < 3 || h.inside(path[0]) || h.inside(path[n]) || !inner {
			require.False(t, through)
			return
		}
		require.True(t, through)
		walked++
		first, last := -1, -1
		var in, out geom.Point
		for i := range n {
			if a, b, ok := h.cut(path[i], path[i+1]); ok {
				if first < 0 {
					first, in = i, path[i].Towards(path[i+1], a)
				}
				last, out = i, path[i].Towards(path[i+1], b)
			}
		}
		if in.Dist(out) < 100 {
			return // it comes back where it went in
		}
		outside := length(append(append([]geom.Point{}, path[:first+1]...), in)) + length(append([]geom.Point{out}, path[last+1:]...))
		around := length(append(append([]geom.Point{}, h...), h[0]))
		require.InDelta(t, around+2*outside, length(left)+length(right), 50, "%v", path)
		for _, way := range [][]geom.Point{left, right} {
			require.Equal(t, path[0], way[0])
			require.Equal(t, path[n], way[len(way)-1])
			for i := 0; i+1 < len(way); i++ {
				if a, b, ok := h.cut(way[i], way[i+1]); ok {
					// not farther in than rounding
					mid := way[i].Towards(way[i+1], (a+b)/2)
					for k, p := range h {
						d, _, _ := geom.SegmentDistance(p, h[(k+1)%len(h)], mid, mid)
						if d < 2 {
							ok = false
						}
					}
					require.False(t, ok, "%v goes inside", way)
				}
			}
		}
		// the left one goes anticlockwise round the hull: the area between it and the other, from the one back over the other, is on its left
		loop := append([]geom.Point{}, left...)
		for i := len(right) - 1; i >= 0; i-- {
			loop = append(loop, right[i])
		}
		area := 0.0
		for i, p := range loop {
			q := loop[(i+1)%len(loop)]
			area += float64(p.X)*float64(q.Y) - float64(q.X)*float64(p.Y)
		}
		require.Greater(t, area, 0.0)
	})
	assert.Positive(t, walked)
}
