package geom

import (
	"math"
	"math/big"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// Products of 64-bit numbers are compared as big integers would be.
func TestWideProductsAgainstBigIntegers(t *testing.T) {
	edge := []int64{0, 1, -1, 2, -2, math.MaxInt64, math.MinInt64 + 1, 1 << 32, -(1 << 32), 4_000_000_001}
	check := func(t assert.TestingT, a, b, c, d int64) {
		x, y := new(big.Int).Mul(big.NewInt(a), big.NewInt(b)), new(big.Int).Mul(big.NewInt(c), big.NewInt(d))
		assert.Equal(t, x.Cmp(y), mul(a, b).cmp(mul(c, d)), "%d·%d against %d·%d", a, b, c, d)
	}
	for _, a := range edge {
		for _, b := range edge {
			for _, c := range edge {
				check(t, a, b, c, 3)
				check(t, a, b, c, -3)
				check(t, a, b, b, a)
			}
		}
	}
	rapid.Check(t, func(t *rapid.T) {
		v := func(n string) int64 { return rapid.Int64Range(-1<<62, 1<<62).Draw(t, n) }
		check(t, v("a"), v("b"), v("c"), v("d"))
	})
}

func pt(t *rapid.T, n string, most int64) Point {
	return Pt(rapid.Int64Range(-most, most).Draw(t, n+".x"), rapid.Int64Range(-most, most).Draw(t, n+".y"))
}

// rational crossing of two segments, with big rationals: whether they have a common point.
func meet(a, b, c, d Point) bool {
	r := func(v int64) *big.Rat { return new(big.Rat).SetInt64(v) }
	cross := func(o, p, q Point) int {
		l := new(big.Rat).Mul(r(p.X-o.X), r(q.Y-o.Y))
		return l.Sub(l, new(big.Rat).Mul(r(p.Y-o.Y), r(q.X-o.X))).Sign()
	}
	within := func(o, p, q Point) bool {
		return cross(o, p, q) == 0 && q.X >= min(o.X, p.X) && q.X <= max(o.X, p.X) && q.Y >= min(o.Y, p.Y) && q.Y <= max(o.Y, p.Y)
	}
	if within(a, b, c) || within(a, b, d) || within(c, d, a) || within(c, d, b) {
		return true
	}
	return cross(a, b, c)*cross(a, b, d) < 0 && cross(c, d, a)*cross(c, d, b) < 0
}

func TestCrossAgainstRationals(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		most := rapid.SampledFrom([]int64{3, 10, 1_000_000}).Draw(t, "most")
		a, b, c, d := pt(t, "a", most), pt(t, "b", most), pt(t, "c", most), pt(t, "d", most)
		p, ok := Cross(a, b, c, d)
		assert.Equal(t, meet(a, b, c, d), ok, "%v %v %v %v", a, b, c, d)
		if ok {
			near := func(q0, q1 Point) float64 { _, d := nearest(p, q0, q1); return d }
			assert.LessOrEqual(t, near(a, b), 1.0)
			assert.LessOrEqual(t, near(c, d), 1.0)
		}
	})
}

// The distance of two segments is the least of many places on them, never more, hardly less.
func TestSegmentDistanceAgainstSampling(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a, b, c, d := pt(t, "a", 100), pt(t, "b", 100), pt(t, "c", 100), pt(t, "d", 100)
		got, p, q := SegmentDistance(a, b, c, d)
		least := math.Inf(1)
		const n = 60
		for i := 0; i <= n; i++ {
			for j := 0; j <= n; j++ {
				f, g := float64(i)/n, float64(j)/n
				x := float64(a.X) + f*float64(b.X-a.X) - float64(c.X) - g*float64(d.X-c.X)
				y := float64(a.Y) + f*float64(b.Y-a.Y) - float64(c.Y) - g*float64(d.Y-c.Y)
				least = min(least, math.Hypot(x, y))
			}
		}
		assert.LessOrEqual(t, got, least+1e-9)
		assert.GreaterOrEqual(t, got, least-6, "sampling is within a step")
		assert.InDelta(t, got, p.Dist(q), 1.5, "the places are that far apart")
		_, dp := nearest(p, a, b)
		_, dq := nearest(q, c, d)
		assert.LessOrEqual(t, dp, 1.0, "on the first")
		assert.LessOrEqual(t, dq, 1.0, "on the second")
	})
}

// A place is inside a polygon when its winding number, summed from angles, is not zero.
func TestInPolygonAgainstWinding(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(3, 8).Draw(t, "corners")
		poly := make([]Point, n) // star-shaped about the origin, so it does not cross itself
		for i := range poly {
			r := float64(rapid.Int64Range(5, 100).Draw(t, "r"))
			s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
			poly[i] = Pt(int64(math.Round(r*c)), int64(math.Round(r*s)))
		}
		p := pt(t, "p", 110)
		border := false
		turns := 0.0
		for i, a := range poly {
			b := poly[(i+1)%n]
			border = border || OnSegment(p, a, b)
			x0, y0, x1, y1 := float64(a.X-p.X), float64(a.Y-p.Y), float64(b.X-p.X), float64(b.Y-p.Y)
			turns += math.Atan2(x0*y1-x1*y0, x0*x1+y0*y1)
		}
		assert.Equal(t, border || math.Abs(turns) > math.Pi, InPolygon(p, poly), "%v in %v", p, poly)
	})
}

func TestOutlinesThatCrossThemselves(t *testing.T) {
	for name, c := range map[string]struct {
		poly []Point
		bad  bool
		at   Point
	}{
		"a square":                        {[]Point{{0, 0}, {10, 0}, {10, 10}, {0, 10}}, false, Point{}},
		"the other way round":             {[]Point{{0, 10}, {10, 10}, {10, 0}, {0, 0}}, false, Point{}},
		"an L":                            {[]Point{{0, 0}, {10, 0}, {10, 4}, {4, 4}, {4, 10}, {0, 10}}, false, Point{}},
		"a bow tie":                       {[]Point{{0, 0}, {10, 10}, {10, 0}, {0, 10}}, true, Point{5, 5}},
		"a corner on a far side":          {[]Point{{0, 0}, {10, 0}, {10, 10}, {5, 0}, {0, 10}}, true, Point{5, 0}},
		"a side that runs back":           {[]Point{{0, 0}, {10, 0}, {4, 0}, {4, 8}}, true, Point{10, 0}},
		"a corner in a straight":          {[]Point{{0, 0}, {5, 0}, {10, 0}, {10, 10}, {0, 10}}, false, Point{}},
		"the last side back on the first": {[]Point{{0, 0}, {10, 0}, {10, 10}, {4, 0}}, true, Point{4, 0}},
		"a triangle":                      {[]Point{{0, 0}, {10, 0}, {5, 9}}, false, Point{}},
	} {
		at, bad := SelfCrossing(c.poly)
		assert.Equal(t, c.bad, bad, name)
		if bad && c.bad {
			assert.Equal(t, c.at, at, name)
		}
	}
}

func TestAreaAndExtent(t *testing.T) {
	assert.Equal(t, 100.0, Area([]Point{{0, 0}, {10, 0}, {10, 10}, {0, 10}}))
	assert.Equal(t, -100.0, Area([]Point{{0, 10}, {10, 10}, {10, 0}, {0, 0}}))
	assert.Equal(t, 6.0, Area([]Point{{1, 1}, {5, 1}, {1, 4}}), "half of four times three")
	var e Extent
	assert.False(t, e.Any)
	e.Add(Pt(5, 7))
	assert.Equal(t, Extent{Box{Pt(5, 7), Pt(5, 7)}, true}, e, "around one place, not around the origin")
	e.Add(Pt(-1, 9), Pt(2, 2))
	e.AddBox(Box{Pt(0, 0), Pt(6, 3)})
	assert.Equal(t, Box{Pt(-1, 0), Pt(6, 9)}, e.Box)
}

func TestBoxes(t *testing.T) {
	b := BoxOf(Pt(4, -2), Pt(-3, 5))
	assert.Equal(t, Box{Pt(-3, -2), Pt(4, 5)}, b)
	assert.Equal(t, Box{}, BoxOf())
	assert.Equal(t, Box{Pt(-5, -4), Pt(6, 7)}, b.Grow(2))
	assert.Equal(t, Box{Pt(-3, -2), Pt(9, 8)}, b.Union(Box{Pt(0, 0), Pt(9, 8)}))
	assert.Equal(t, Pt(0, 1), b.Centre())
	for p, in := range map[Point]bool{{-3, -2}: true, {4, 5}: true, {0, 0}: true, {5, 0}: false, {-4, 0}: false, {0, 6}: false, {0, -3}: false} {
		assert.Equal(t, in, b.Holds(p), "%v", p)
	}
	for other, meets := range map[Box]bool{
		{Pt(4, 5), Pt(9, 9)}: true, {Pt(5, 0), Pt(9, 9)}: false, {Pt(-9, -9), Pt(-3, -2)}: true, {Pt(-9, -9), Pt(-4, 9)}: false,
		{Pt(0, 6), Pt(1, 7)}: false, {Pt(0, -9), Pt(1, -3)}: false, {Pt(-9, -9), Pt(9, 9)}: true,
	} {
		assert.Equal(t, meets, b.Meets(other), "%v", other)
		assert.Equal(t, meets, other.Meets(b), "%v", other)
	}
}

// Turning is the multiplication of complex numbers; a pose mirrors first, then turns, then moves.
func TestTurningAgainstComplexNumbers(t *testing.T) {
	assert.Equal(t, Pt(-7, 3), Turn(Pt(3, 7), 90_000))
	assert.Equal(t, Pt(-3, -7), Turn(Pt(3, 7), 180_000))
	assert.Equal(t, Pt(7, -3), Turn(Pt(3, 7), 270_000))
	assert.Equal(t, Pt(7, -3), Turn(Pt(3, 7), -90_000))
	assert.Equal(t, Pt(3, 7), Turn(Pt(3, 7), 720_000))
	assert.Equal(t, Pt(107, 197), Pose{Pt(100, 200), 90_000, true}.Apply(Pt(3, -7)), "mirrored to (−3, −7), turned to (7, −3), moved")
	rapid.Check(t, func(t *rapid.T) {
		p := pt(t, "p", 1_000_000_000)
		a := rapid.Int32Range(-720_000, 720_000).Draw(t, "angle")
		got := Turn(p, a)
		want := complex(float64(p.X), float64(p.Y)) * complex(math.Cos(float64(a)*math.Pi/180_000), math.Sin(float64(a)*math.Pi/180_000))
		assert.InDelta(t, real(want), float64(got.X), 1)
		assert.InDelta(t, imag(want), float64(got.Y), 1)
	})
}

func TestSnap(t *testing.T) {
	for v, want := range map[int64]int64{0: 0, 4: 0, 5: 10, 14: 10, 15: 20, -4: 0, -5: -10, -6: -10, -14: -10, -15: -20} {
		assert.Equal(t, Pt(want, 0), Snap(Pt(v, 0), 10), "%d", v)
		assert.Equal(t, Pt(0, want), Snap(Pt(0, v), 10), "%d", v)
	}
}

// The one rounding rule: three nanometres short keeps a limit, four do not.
func TestTheRoundingRule(t *testing.T) {
	assert.False(t, Short(200_000, 200_000))
	assert.False(t, Short(200_000-3, 200_000))
	assert.True(t, Short(200_000-3.01, 200_000))
	assert.True(t, Short(0, 4))
	assert.False(t, Short(0, 3))
	for v, want := range map[float64]int64{0.49: 0, 0.5: 1, 1.4: 1, -0.5: 0, -0.51: -1, -3: -3} {
		assert.Equal(t, want, Measured(v), "%v", v)
	}
}

// Whatever is drawn exactly at a limit keeps it at any angle: two pads of odd widths on a turned
// part, and the ring of a hole.
func TestExactlyAtTheLimitAtAnyAngle(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		pose := Pose{pt(t, "at", 100_000_000), rapid.Int32Range(0, 359_999).Draw(t, "angle"), rapid.Bool().Draw(t, "mirror")}
		wide, limit := rapid.Int64Range(100_001, 900_001).Draw(t, "width"), rapid.Int64Range(100_000, 400_000).Draw(t, "limit")
		a := Shape{Pts: pose.ApplyAll([]Point{{0, -500_000}, {0, 500_000}}), R: wide / 2}
		x := wide + limit // odd widths: half a nanometre each side is left
		b := Shape{Pts: pose.ApplyAll([]Point{{x, -500_000}, {x, 500_000}}), R: wide / 2}
		gap, _, _ := Gap(a, b)
		assert.False(t, Short(gap, limit), "%v against %d", gap, limit)
		assert.True(t, Short(gap, limit+8), "what is eight short is a fault")
	})
}

// The forest is a partition kept by hand.
func TestForestAgainstAPartition(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 12).Draw(t, "n")
		f := NewForest(n)
		of := make([]int, n)
		for i := range of {
			of[i] = i
		}
		if rapid.Bool().Draw(t, "more") {
			require.Equal(t, n, f.Add())
			of = append(of, n)
			n++
		}
		for range rapid.IntRange(0, 20).Draw(t, "joins") {
			a, b := rapid.IntRange(0, n-1).Draw(t, "a"), rapid.IntRange(0, n-1).Draw(t, "b")
			assert.Equal(t, of[a] != of[b], f.Join(a, b))
			from, to := of[a], of[b]
			for i := range of {
				if of[i] == from {
					of[i] = to
				}
			}
		}
		sets := map[int]bool{}
		for i := range of {
			sets[of[i]] = true
			for j := range of {
				assert.Equal(t, of[i] == of[j], f.Root(i) == f.Root(j))
			}
		}
		assert.Equal(t, len(sets), f.Sets)
	})
}

// Gaps and the places where shapes come nearest, worked by hand.
func TestGapsByHand(t *testing.T) {
	square := Shape{Pts: []Point{{-10, -10}, {10, -10}, {10, 10}, {-10, 10}}, Area: true}
	for name, c := range map[string]struct {
		a, b   Shape
		gap    float64
		pa, pb Point
	}{
		"two discs":                {Disc(Pt(0, 0), 3), Disc(Pt(10, 0), 2), 5, Pt(3, 0), Pt(8, 0)},
		"discs that overlap":       {Disc(Pt(0, 0), 3), Disc(Pt(4, 0), 2), -1, Pt(3, 0), Pt(2, 0)},
		"a disc beside a square":   {Disc(Pt(17, 0), 2), square, 5, Pt(15, 0), Pt(10, 0)},
		"a disc off a corner":      {Disc(Pt(13, 14), 1), square, 4, Pt(12, 13), Pt(10, 10)},
		"a disc inside a square":   {Disc(Pt(0, 0), 1), square, -1, Pt(0, 0), Pt(0, 0)},
		"a square around a disc":   {square, Disc(Pt(2, 2), 1), -1, Pt(2, 2), Pt(2, 2)},
		"two tracks side by side":  {Stroke(Pt(0, 0), Pt(20, 0), 4), Stroke(Pt(5, 9), Pt(15, 9), 6), 4, Pt(5, 2), Pt(5, 6)},
		"tracks that cross":        {Stroke(Pt(-5, 0), Pt(5, 0), 2), Stroke(Pt(0, -5), Pt(0, 5), 2), -2, Pt(0, 0), Pt(0, 0)},
		"a rounded pad and a disc": {Shape{Pts: square.Pts, Area: true, R: 5}, Disc(Pt(0, 20), 2), 3, Pt(0, 15), Pt(0, 18)},
	} {
		gap, pa, pb := Gap(c.a, c.b)
		assert.InDelta(t, c.gap, gap, 1e-9, name)
		if name != "a disc off a corner" && name != "two tracks side by side" {
			assert.Equal(t, []Point{c.pa, c.pb}, []Point{pa, pb}, name)
		}
	}
	assert.True(t, square.Holds(Pt(10, 10)))
	assert.False(t, square.Holds(Pt(11, 10)))
	assert.Equal(t, Box{Pt(-12, -12), Pt(12, 12)}, Shape{Pts: square.Pts, Area: true, R: 2}.Box())
}
