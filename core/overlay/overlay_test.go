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

func box(x, y, w, h int64) []geom.Point {
	return []geom.Point{{X: x, Y: y}, {X: x + w, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}
}

func backwards(l []geom.Point) (out []geom.Point) {
	for i := range l {
		out = append(out, l[len(l)-1-i])
	}
	return out
}

func sum(list []overlay.Area) (s float64) {
	for _, a := range list {
		s += math.Abs(geom.Area(a.Outer))
		for _, h := range a.Holes {
			s -= math.Abs(geom.Area(h))
		}
	}
	return s
}

// A frame is a frame by both fillings when its inner line goes the other way around, and full by the first when it goes
// the same way (SVG 1.1, 11.3, the example of nested rings).
func TestFillings(t *testing.T) {
	outer, inner := box(0, 0, 1000, 1000), box(200, 200, 500, 500)
	for name, c := range map[string]struct {
		lines [][]geom.Point
		by    overlay.Filling
		area  float64
		holes int
	}{
		"the same way, winding":   {[][]geom.Point{outer, inner}, overlay.NonZero, 1_000_000, 0},
		"the same way, even, odd": {[][]geom.Point{outer, inner}, overlay.EvenOdd, 750_000, 1},
		"the other way, winding":  {[][]geom.Point{outer, backwards(inner)}, overlay.NonZero, 750_000, 1},
		"the other way, even odd": {[][]geom.Point{outer, backwards(inner)}, overlay.EvenOdd, 750_000, 1},
		"crossing, winding":       {[][]geom.Point{outer, box(500, 0, 1000, 1000)}, overlay.NonZero, 1_500_000, 0},
		"crossing, even odd":      {[][]geom.Point{outer, box(500, 0, 1000, 1000)}, overlay.EvenOdd, 1_000_000, 0},
		"a bow tie":               {[][]geom.Point{{{X: 0, Y: 0}, {X: 1000, Y: 1000}, {X: 1000, Y: 0}, {X: 0, Y: 1000}}}, overlay.NonZero, 500_000, 0},
		"twice the same":          {[][]geom.Point{outer, outer}, overlay.EvenOdd, 0, 0},
		"without extent":          {[][]geom.Point{{{X: 0, Y: 0}, {X: 5, Y: 5}}, {{X: 1, Y: 1}}, nil}, overlay.NonZero, 0, 0},
	} {
		got, err := overlay.Filled(c.lines, c.by)
		require.NoError(t, err, name)
		assert.InDelta(t, c.area, sum(got), 1, name)
		holes := 0
		for _, a := range got {
			holes += len(a.Holes)
			assert.Positive(t, geom.Area(a.Outer), name)
			for _, h := range a.Holes {
				assert.Negative(t, geom.Area(h), name)
			}
		}
		assert.Equal(t, c.holes, holes, name)
	}
}

// A pen of 2 along a line of 10 covers 10 · 2 and a disc; along a closed square no more than its ring.
func TestCovered(t *testing.T) {
	got, err := overlay.Covered([]overlay.Line{{Pts: []geom.Point{{X: 0, Y: 0}, {X: 10_000_000, Y: 0}}}}, 2_000_000, 1_000)
	require.NoError(t, err)
	require.Len(t, got, 1)
	assert.InEpsilon(t, 20e12+math.Pi*1e12, sum(got), 0.001)
	got, err = overlay.Covered([]overlay.Line{{Pts: box(0, 0, 10_000_000, 10_000_000), Closed: true}}, 2_000_000, 1_000)
	require.NoError(t, err)
	require.Len(t, got, 1)
	require.Len(t, got[0].Holes, 1)
	assert.InEpsilon(t, 64e12, -geom.Area(got[0].Holes[0]), 1e-9)
	assert.InEpsilon(t, 144e12-(4-math.Pi)*1e12, geom.Area(got[0].Outer), 0.001)
	got, err = overlay.Covered([]overlay.Line{{Pts: []geom.Point{{X: 5, Y: 5}, {X: 5, Y: 5}}}}, 2_000_000, 1_000)
	require.NoError(t, err)
	two, err := overlay.Covered([]overlay.Line{{Pts: []geom.Point{{X: 0, Y: 0}, {X: 10_000_000, Y: 0}}, Closed: true}}, 2_000_000, 1_000)
	require.NoError(t, err)
	assert.InEpsilon(t, 20e12+math.Pi*1e12, sum(two), 0.001, "there and back")
	assert.InEpsilon(t, math.Pi*1e12, sum(got), 0.002, "a dot: chords stray by a thousandth of its radius")
}

// around tells how often lines go around a place, by the angles that they sweep: another way than the program's.
func around(lines [][]geom.Point, p [2]float64) int {
	total := 0.0
	for _, l := range lines {
		for i, a := range l {
			b := l[(i+1)%len(l)]
			ax, ay, bx, by := float64(a.X)-p[0], float64(a.Y)-p[1], float64(b.X)-p[0], float64(b.Y)-p[1]
			total += math.Atan2(ax*by-ay*bx, ax*bx+ay*by)
		}
	}
	return int(math.Round(total / (2 * math.Pi)))
}

// nearLine tells whether a place lies nearer than so much to any of closed lines.
func nearLine(lines [][]geom.Point, p geom.Point, reach float64) bool {
	for _, l := range lines {
		for i := range l {
			if d, _, _ := geom.SegmentDistance(l[i], l[(i+1)%len(l)], p, p); d < reach {
				return true
			}
		}
	}
	return false
}

// Random lines: what lies in the areas is what the lines wind around, at random places that are not too near
// to a line; and one line with cuts bounds the same.
func TestFilledAgainstAngles(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 4).Draw(t, "lines")
		var lines [][]geom.Point
		for range n {
			m := rapid.IntRange(3, 9).Draw(t, "places")
			var l []geom.Point
			for range m {
				l = append(l, geom.Pt(rapid.Int64Range(0, 100).Draw(t, "x")*10_000, rapid.Int64Range(0, 100).Draw(t, "y")*10_000))
			}
			lines = append(lines, l)
		}
		by := overlay.Filling(rapid.IntRange(0, 1).Draw(t, "filling"))
		got, err := overlay.Filled(lines, by)
		require.NoError(t, err)
		var cut [][]geom.Point
		for _, a := range got {
			cut = append(cut, a.One())
		}
		for range 40 {
			p := geom.Pt(rapid.Int64Range(-10_000, 1_010_000).Draw(t, "px"), rapid.Int64Range(-10_000, 1_010_000).Draw(t, "py"))
			if nearLine(lines, p, 10) {
				continue
			}
			w := around(lines, [2]float64{float64(p.X), float64(p.Y)})
			want := by == overlay.NonZero && w != 0 || by == overlay.EvenOdd && w%2 != 0
			q := [2]float64{float64(p.X), float64(p.Y)}
			require.Equal(t, want, around(overlay.Rings(got), q) != 0, "%v in %v", p, lines)
			shape := false
			for _, l := range cut {
				shape = shape || (geom.Shape{Pts: l, Area: true}).Holds(p)
			}
			require.Equal(t, want, shape, "%v in the cut %v", p, lines)
		}
	})
}

// The result does not depend on the order of the lines nor on where they begin.
func TestSettled(t *testing.T) {
	lines := [][]geom.Point{box(0, 0, 900, 900), box(300, 300, 200, 200), box(1000, 0, 50, 50)}
	a, err := overlay.Filled(lines, overlay.EvenOdd)
	require.NoError(t, err)
	b, err := overlay.Filled([][]geom.Point{lines[2], append(lines[0][2:4:4], lines[0][:2]...), backwards(lines[1])}, overlay.EvenOdd)
	require.NoError(t, err)
	assert.Equal(t, a, b)
	assert.Equal(t, geom.Pt(0, 0), a[0].Outer[0])
}

// One line around an area goes over its rings and over cuts that run within it: straight, there and back, and no cut leaves
// the area on its way. On a coarse lattice holes stand beside corners and level sides often.
func TestCutsStayWithin(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var lines [][]geom.Point
		lines = append(lines, []geom.Point{{X: 0, Y: 0}, {X: 240, Y: 0}, {X: 240, Y: 60}, {X: 200, Y: 60}, {X: 200, Y: 120}, {X: 300, Y: 120}, {X: 300, Y: 240}, {X: 0, Y: 240}})
		for range rapid.IntRange(1, 9).Draw(t, "holes") {
			x, y := rapid.Int64Range(1, 8).Draw(t, "x")*20, rapid.Int64Range(1, 8).Draw(t, "y")*20
			w, h := rapid.Int64Range(1, 4).Draw(t, "w")*10, rapid.Int64Range(1, 4).Draw(t, "h")*10
			lines = append(lines, [][]geom.Point{box(x, y, w, h), {{X: x, Y: y}, {X: x + w, Y: y + h}, {X: x, Y: y + h}}, {{X: x, Y: y + h}, {X: x + w, Y: y}, {X: x + w, Y: y + h}}}[rapid.IntRange(0, 2).Draw(t, "form")])
		}
		var holes []overlay.Area
		for _, l := range lines[1:] {
			one, err := overlay.Filled([][]geom.Point{l}, overlay.NonZero)
			require.NoError(t, err)
			holes, err = overlay.Joined(holes, one)
			require.NoError(t, err)
		}
		got, err := overlay.Without([]overlay.Area{{Outer: lines[0]}}, holes)
		require.NoError(t, err)
		for _, a := range got {
			edges := map[[2]geom.Point]bool{}
			for _, r := range overlay.Rings([]overlay.Area{a}) {
				for i, p := range r {
					edges[[2]geom.Point{p, r[(i+1)%len(r)]}] = true
				}
			}
			line := a.One()
			require.InDelta(t, sum([]overlay.Area{a}), geom.Area(line), 200, "rounded at most at the cuts' ends")
			there := map[[2]geom.Point]int{}
			for i, p := range line {
				q := line[(i+1)%len(line)]
				if p == q || p.Y != q.Y || edges[[2]geom.Point{p, q}] {
					continue
				}
				there[[2]geom.Point{p, q}]++
				for _, k := range []float64{0.2, 0.5, 0.8} {
					at := p.Towards(q, k)
					require.True(t, geom.InPolygon(at, a.Outer), "a cut leaves the outline at %v: %v", at, a)
					for _, h := range a.Holes {
						d := math.Inf(1)
						for j := range h {
							g, _, _ := geom.SegmentDistance(at, at, h[j], h[(j+1)%len(h)])
							d = min(d, g)
						}
						require.False(t, geom.InPolygon(at, h) && d > 0, "a cut goes through a hole at %v: %v", at, a)
					}
				}
			}
		}
	})
}

// Lines that are no lines have no areas, and no area is left of what is covered whole.
func TestNothing(t *testing.T) {
	got, err := overlay.Covered([]overlay.Line{{}, {Pts: []geom.Point{}}}, 100, 1)
	require.NoError(t, err)
	assert.Empty(t, got)
	got, err = overlay.Without([]overlay.Area{{Outer: box(10, 10, 20, 20)}}, []overlay.Area{{Outer: box(0, 0, 50, 50)}})
	require.NoError(t, err)
	assert.Empty(t, got)
	assert.Equal(t, box(0, 0, 40, 10), overlay.Area{Outer: box(0, 0, 40, 10), Holes: [][]geom.Point{backwards(box(100, 2, 4, 4))}}.One(), "a hole that lies elsewhere is left out")
}

// Of an area with hundreds of holes one line bounds the same as its rings: in area, and at random places.
func TestOneLineAroundManyHoles(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines := [][]geom.Point{box(0, 0, 4000, 3000)}
		for x := int64(0); x < 20; x++ {
			for y := int64(0); y < 14; y++ {
				w, h := rapid.Int64Range(40, 150).Draw(t, "w"), rapid.Int64Range(40, 150).Draw(t, "h")
				lines = append(lines, box(x*200+10, y*200+rapid.Int64Range(10, 40).Draw(t, "up"), w, h))
			}
		}
		got, err := overlay.Filled(lines, overlay.EvenOdd)
		require.NoError(t, err)
		require.Len(t, got, 1)
		require.Len(t, got[0].Holes, 280)
		line := got[0].One()
		require.InDelta(t, sum(got), geom.Area(line), 280*2, "rounded at most at the cuts' ends")
		places := 0
		for _, r := range overlay.Rings(got) {
			places += len(r)
		}
		require.LessOrEqual(t, len(line), places+3*280)
		for range 60 {
			p := geom.Pt(rapid.Int64Range(-50, 4050).Draw(t, "px"), rapid.Int64Range(-50, 3050).Draw(t, "py"))
			if nearLine(lines, p, 3) {
				continue
			}
			want := false
			for i, l := range lines {
				if geom.InPolygon(p, l) {
					want = i == 0
				}
			}
			require.Equal(t, want, (geom.Shape{Pts: line, Area: true}).Holds(p), "%v", p)
		}
	})
}
