package geom_test

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
)

// Corners are places with an arc to the next one where they say so; as JSON they are read as plain
// places too.
func TestCornersAsTheyAreWritten(t *testing.T) {
	var got []geom.Corner
	require.NoError(t, json.Unmarshal([]byte(`[{"x":0,"y":0},{"x":10,"y":0,"mid":{"x":15,"y":5}},{"x":10,"y":10}]`), &got))
	want := []geom.Corner{{Point: geom.Pt(0, 0)}, geom.Pt(10, 0).Through(geom.Pt(15, 5)), {Point: geom.Pt(10, 10)}}
	assert.Equal(t, want, got)
	text, err := json.Marshal(got)
	require.NoError(t, err)
	assert.JSONEq(t, `[{"x":0,"y":0},{"x":10,"y":0,"mid":{"x":15,"y":5}},{"x":10,"y":10}]`, string(text))
	ring := geom.Closing(got)
	assert.True(t, ring.Closed())
	assert.Equal(t, geom.Ring{geom.Straight(geom.Pt(0, 0), geom.Pt(10, 0)), {A: geom.Pt(10, 0), M: geom.Pt(15, 5), B: geom.Pt(10, 10)}, geom.Straight(geom.Pt(10, 10), geom.Pt(0, 0))}, ring)
	assert.Equal(t, []geom.Point{geom.Pt(0, 0), geom.Pt(10, 0), geom.Pt(15, 5), geom.Pt(10, 10)}, geom.Named(got))
	assert.Equal(t, []geom.Point{geom.Pt(0, 0), geom.Pt(10, 0), geom.Pt(10, 10)}, geom.Places(got))
	assert.True(t, geom.SameCorners(want, got))
	assert.False(t, geom.SameCorners(got, got[:2]))
	assert.False(t, geom.SameCorners(geom.Corners(geom.Pt(10, 0)), got[1:2]))
	moved := geom.Pose{At: geom.Pt(100, 0), Angle: 90_000, Mirror: true}.ApplyCorners(got) // (x, y) to (−x, y) to (−y, −x) + (100, 0)
	assert.Equal(t, []geom.Corner{{Point: geom.Pt(100, 0)}, geom.Pt(100, -10).Through(geom.Pt(95, -15)), {Point: geom.Pt(90, -10)}}, moved)
	assert.Nil(t, geom.Corners())
}

// The middle of a piece halves its length.
func TestMiddles(t *testing.T) {
	assert.Equal(t, geom.Pt(5, 2), geom.Straight(geom.Pt(0, 0), geom.Pt(10, 4)).Middle())
	half := geom.Piece{A: geom.Pt(1_000_000, 0), M: geom.Pt(600_000, 800_000), B: geom.Pt(-1_000_000, 0)}
	assert.Equal(t, geom.Pt(0, 1_000_000), half.Middle())
	at, anticlockwise := half.Centre()
	assert.Equal(t, geom.Pt(0, 0), at)
	assert.True(t, anticlockwise)
	_, anticlockwise = half.Back().Centre()
	assert.False(t, anticlockwise)
}

// Crossings: of pieces that do not follow each other, of ends that fold back, of arcs that meet again.
func TestCrossings(t *testing.T) {
	p := func(x, y int64) geom.Corner { return geom.Corner{Point: geom.Pt(x*1000, y*1000)} }
	bow := func(x, y, mx, my int64) geom.Corner {
		return geom.Pt(x*1000, y*1000).Through(geom.Pt(mx*1000, my*1000))
	}
	for name, c := range map[string]struct {
		ring []geom.Corner
		bad  bool
	}{
		"a square":                          {[]geom.Corner{p(0, 0), p(10, 0), p(10, 10), p(0, 10)}, false},
		"a bow tie":                         {[]geom.Corner{p(0, 0), p(10, 10), p(10, 0), p(0, 10)}, true},
		"folded back":                       {[]geom.Corner{p(0, 0), p(10, 0), p(5, 0), p(5, 5)}, true},
		"straight on":                       {[]geom.Corner{p(0, 0), p(5, 0), p(10, 0), p(5, 5)}, false},
		"a corner on another side":          {[]geom.Corner{p(0, 0), p(10, 0), p(10, 10), p(5, 0), p(0, 10)}, true},
		"a disc of two arcs":                {[]geom.Corner{bow(0, 0, 10, 10), bow(20, 0, 10, -10)}, false},
		"two arcs one over the other":       {[]geom.Corner{bow(0, 0, 10, 10), bow(20, 0, 10, 5)}, false},
		"a chord and its arc":               {[]geom.Corner{p(0, 0), bow(20, 0, 10, 5)}, false},
		"to and fro":                        {[]geom.Corner{p(0, 0), p(10, 0)}, true},
		"an arc through the side before it": {[]geom.Corner{p(0, 0), bow(20, 0, 10, -12), p(-5, 5), p(-6, -3)}, true},
		"an arc that bulges over a side":    {[]geom.Corner{p(0, 0), bow(20, 0, 30, 10), p(20, 20), p(0, 20)}, false},
		"an arc that cuts a far side":       {[]geom.Corner{p(0, 0), bow(20, 0, -1, 10), p(20, 20), p(0, 20)}, true},
	} {
		_, bad := geom.Crossing(geom.Closing(c.ring))
		assert.Equal(t, c.bad, bad, name)
	}
	outer := geom.Closing([]geom.Corner{p(0, 0), p(40, 0), p(40, 40), p(0, 40)})
	_, bad := geom.Crossing(outer, geom.Closing([]geom.Corner{bow(10, 20, 20, 30), bow(30, 20, 20, 10)}))
	assert.False(t, bad)
	at, bad := geom.Crossing(outer, geom.Closing([]geom.Corner{bow(10, 20, 20, 40), bow(30, 20, 20, 10)}))
	assert.True(t, bad, "it touches the upper side")
	assert.InDelta(t, 20_000, at.X, 20)
	assert.InDelta(t, 40_000, at.Y, 20)
}

// outline draws a shape with straight or bent sides around a middle.
func outline(t *rapid.T, name string) geom.Shape {
	mid := geom.Pt(rapid.Int64Range(-3000, 3000).Draw(t, name+"x"), rapid.Int64Range(-3000, 3000).Draw(t, name+"y"))
	n := rapid.IntRange(3, 6).Draw(t, name+"n")
	var corners []geom.Corner
	for i := range n {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		r := rapid.Float64Range(500, 1500).Draw(t, name+"r")
		corners = append(corners, geom.Corner{Point: mid.Add(geom.Pt(int64(r*cos), int64(r*sin)))})
	}
	for i := range corners {
		if rapid.Bool().Draw(t, name+"bent") {
			q := corners[(i+1)%n].Point
			m := corners[i].Towards(q, 0.5)
			m = m.Add(m.Sub(mid)).Add(m).Sub(m) // outwards or inwards by a little
			k := rapid.Float64Range(-0.15, 0.25).Draw(t, name+"bulge")
			m = corners[i].Towards(q, 0.5).Towards(m, k)
			corners[i].Mid = &m
		}
	}
	s := geom.Within(corners)
	s.R = rapid.SampledFrom([]int64{0, 0, 100}).Draw(t, name+"R")
	return s
}

// Gaps of shapes with arcs are those that dense sampling of their borders finds.
func TestGapsOfBentShapes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b := outline(t, "a"), outline(t, "b")
		if rapid.Bool().Draw(t, "a line") {
			b = geom.Bow(geom.Piece{A: b.Pts[0], M: b.Pts[1].Add(geom.Pt(1, 700)), B: b.Pts[2]}, 60)
		}
		gap, pa, pb := geom.Gap(a, b)
		border := func(s geom.Shape) (out []geom.Point) {
			for _, p := range s.Edges() {
				way := p.Along(1, false)
				for i := 0; i+1 < len(way); i++ {
					steps := int(way[i].Dist(way[i+1])/8) + 1
					for k := range steps {
						out = append(out, way[i].Towards(way[i+1], float64(k)/float64(steps)))
					}
				}
			}
			return append(out, s.Pts...)
		}
		best := math.Inf(1)
		ba, bb := border(a), border(b)
		for _, p := range ba {
			for _, q := range bb {
				best = min(best, p.Dist(q))
			}
		}
		inside := a.Area && a.Edges().Holds(b.Pts[0]) || b.Area && b.Edges().Holds(a.Pts[0])
		if inside {
			best = 0
		}
		want := best - float64(a.R) - float64(b.R)
		assert.LessOrEqual(t, gap, want+3, "samples lie within a nanometre of the arc, on whole ones")
		assert.GreaterOrEqual(t, gap, want-10, "sampled every 8 nm")
		if gap > 0 {
			assert.InDelta(t, gap, pa.Dist(pb), 2)
		}
	})
}

// The box of a bent shape is the smallest around it, moved as it is.
func TestBoxesOfBentShapes(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := outline(t, "s")
		pose := geom.Pose{At: geom.Pt(50_000, -7), Angle: rapid.Int32Range(0, 359_999).Draw(t, "angle"), Mirror: rapid.Bool().Draw(t, "mirror")}
		m := s.Moved(pose)
		var e geom.Extent
		for _, p := range m.Edges() {
			e.Add(p.Along(1, false)...)
		}
		want := e.Box.Grow(s.R)
		got := m.Box()
		for _, d := range []int64{got.Min.X - want.Min.X, got.Min.Y - want.Min.Y, got.Max.X - want.Max.X, got.Max.Y - want.Max.Y} {
			assert.InDelta(t, 0, d, 3)
		}
		assert.Equal(t, s.Moved(geom.Pose{}), s)
	})
}

// Regions: their distance is that of their borders, nothing where they meet or one lies in the other;
// in a hole it is that to the hole's border.
func TestDistanceOfRegions(t *testing.T) {
	square := func(x, y, size int64) geom.Ring {
		return geom.Polygon(geom.Pt(x, y), geom.Pt(x+size, y), geom.Pt(x+size, y+size), geom.Pt(x, y+size))
	}
	big := geom.Region{Outer: square(0, 0, 100), Holes: []geom.Ring{square(40, 40, 40)}}.Prepare()
	for name, c := range map[string]struct {
		ring geom.Ring
		want float64
	}{
		"beside": {square(107, 0, 10), 7}, "at a corner": {square(103, 104, 10), 5}, "across": {square(90, 90, 50), 0}, "within": {square(10, 10, 5), 0},
		"in the hole": {square(45, 50, 20), 5}, "around it": {square(-10, -10, 200), 0}, "touching": {square(100, 20, 5), 0},
		"a disc beside": {geom.Ring{{A: geom.Pt(110, 50), M: geom.Pt(130, 50), B: geom.Pt(110, 50)}}, 10},
	} {
		other := geom.Region{Outer: c.ring}.Prepare()
		d, at, of := geom.Between(big, other)
		assert.InDelta(t, c.want, d, 1e-9, name)
		assert.InDelta(t, c.want, at.Dist(of), 1, name)
		back, of, at := geom.Between(other, big)
		assert.InDelta(t, d, back, 1e-9, "%s, the other way round", name)
		assert.InDelta(t, c.want, at.Dist(of), 1, name)
	}
	d, at, _ := big.Border(geom.Straight(geom.Pt(10, 20), geom.Pt(10, 20)))
	assert.Equal(t, 10.0, d, "from within")
	assert.Equal(t, geom.Pt(0, 20), at)
}

// Rounded corners, of any size, at any angle, run on into their sides: that is no crossing, however the
// places were rounded.
func TestRoundedCornersDoNotCross(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		r := rapid.SampledFrom([]float64{1e4, 1e6, 2e7, 9e8}).Draw(t, "radius")
		w, h := r*rapid.Float64Range(2.1, 9).Draw(t, "width"), r*rapid.Float64Range(2.1, 9).Draw(t, "height")
		turn := rapid.Float64Range(0, 7).Draw(t, "turn")
		sin, cos := math.Sincos(turn)
		at := func(x, y float64) geom.Point {
			return geom.Pt(int64(math.Round(x*cos-y*sin)), int64(math.Round(x*sin+y*cos)))
		}
		var corners []geom.Corner
		for i, c := range [][2]float64{{w - r, r}, {w - r, h - r}, {r, h - r}, {r, r}} { // the middles of the corners' arcs
			a := math.Pi/2*float64(i) - math.Pi/2
			on := func(a float64) geom.Point { s, k := math.Sincos(a); return at(c[0]+r*k, c[1]+r*s) }
			corners = append(corners, on(a).Through(on(a+math.Pi/4)), geom.Corner{Point: on(a + math.Pi/2)})
		}
		ring := geom.Closing(corners)
		where, bad := geom.Crossing(ring)
		assert.False(t, bad, "%v", where)
		assert.InDelta(t, w*h-(4-math.Pi)*r*r, ring.Area(), w+h+10)
	})
}

// Many long arcs are looked through in no time.
func TestManyArcsAreLookedThrough(t *testing.T) {
	var corners []geom.Corner
	const n = 1000
	at := func(i float64, r float64) geom.Point {
		s, c := math.Sincos(2 * math.Pi * i / n)
		return geom.Pt(int64(r*c), int64(r*s))
	}
	for i := range n {
		corners = append(corners, at(float64(i), 1.9e9).Through(at(float64(i)+0.5, 1.9e9+50_000)))
	}
	_, bad := geom.Crossing(geom.Closing(corners))
	assert.False(t, bad)
}
