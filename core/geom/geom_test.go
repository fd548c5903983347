package geom_test

import (
	"math"
	"math/big"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
)

func point(t *rapid.T, name string, reach int64) geom.Point {
	return geom.Pt(rapid.Int64Range(-reach, reach).Draw(t, name+"x"), rapid.Int64Range(-reach, reach).Draw(t, name+"y"))
}

// sampled is the distance of two segments by walking along both.
func sampled(a0, a1, b0, b1 geom.Point) float64 {
	best := math.Inf(1)
	const n = 60
	at := func(p, q geom.Point, i int) (float64, float64) {
		f := float64(i) / n
		return float64(p.X) + f*float64(q.X-p.X), float64(p.Y) + f*float64(q.Y-p.Y)
	}
	for i := 0; i <= n; i++ {
		for j := 0; j <= n; j++ {
			ax, ay := at(a0, a1, i)
			bx, by := at(b0, b1, j)
			best = min(best, math.Hypot(ax-bx, ay-by))
		}
	}
	return best
}

func TestSegmentDistanceAgainstSampling(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		a0, a1 := point(t, "a0", 1000), point(t, "a1", 1000)
		b0, b1 := point(t, "b0", 1000), point(t, "b1", 1000)
		d, p, q := geom.SegmentDistance(a0, a1, b0, b1)
		step := (a0.Dist(a1) + b0.Dist(b1)) / 60
		s := sampled(a0, a1, b0, b1)
		assert.LessOrEqual(t, d, s+1e-6, "never more than between two of their points")
		assert.GreaterOrEqual(t, d, s-step-1, "never less than the sampling can miss")
		assert.InDelta(t, d, p.Dist(q), 2, "the places named are that far apart")
	})
}

// The orientation test must be exact even where floating point is not: compared with
// arbitrary precision.
func TestOnSegmentIsExact(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		const reach = 2_000_000_000
		a, b := point(t, "a", reach), point(t, "b", reach)
		k := rapid.Int64Range(0, 8).Draw(t, "k")
		p := geom.Pt(a.X+(b.X-a.X)*k/8+rapid.Int64Range(-1, 1).Draw(t, "dx"), a.Y+(b.Y-a.Y)*k/8)
		cross := new(big.Int).Sub(
			new(big.Int).Mul(big.NewInt(b.X-a.X), big.NewInt(p.Y-a.Y)),
			new(big.Int).Mul(big.NewInt(b.Y-a.Y), big.NewInt(p.X-a.X)))
		want := cross.Sign() == 0 && geom.BoxOf(a, b).Holds(p)
		assert.Equal(t, want, geom.OnSegment(p, a, b))
	})
}

func TestGapOfPlainShapes(t *testing.T) {
	square := geom.Shape{Pts: []geom.Point{{X: 0, Y: 0}, {X: 100, Y: 0}, {X: 100, Y: 100}, {X: 0, Y: 100}}, Area: true}
	for _, c := range []struct {
		name string
		b    geom.Shape
		want float64
	}{
		{"disc beside", geom.Disc(geom.Pt(150, 50), 20), 30},
		{"disc at the corner", geom.Disc(geom.Pt(130, 140), 10), 40},
		{"disc inside", geom.Disc(geom.Pt(50, 50), 10), -10},
		{"stroke across", geom.Stroke(geom.Pt(-50, 50), geom.Pt(150, 50), 10), -5},
		{"stroke above", geom.Stroke(geom.Pt(-50, 130), geom.Pt(150, 130), 20), 20},
	} {
		got, _, _ := geom.Gap(square, c.b)
		assert.InDelta(t, c.want, got, 1e-9, c.name)
		back, _, _ := geom.Gap(c.b, square)
		assert.InDelta(t, got, back, 1e-9, "%s, the other way", c.name)
	}
}

func TestTurnsComeBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := point(t, "p", 1e9)
		quarter := geom.Turn(geom.Turn(geom.Turn(geom.Turn(p, 90_000), 90_000), 90_000), 90_000)
		assert.Equal(t, p, quarter)
		a := int32(rapid.IntRange(0, 359_999).Draw(t, "angle"))
		back := geom.Turn(geom.Turn(p, a), -a)
		assert.LessOrEqual(t, p.Dist(back), 2.0)
	})
}

func TestSelfCrossing(t *testing.T) {
	bow := []geom.Point{{X: 0, Y: 0}, {X: 10, Y: 10}, {X: 10, Y: 0}, {X: 0, Y: 10}}
	at, crosses := geom.SelfCrossing(bow)
	assert.True(t, crosses)
	assert.Equal(t, geom.Pt(5, 5), at)
	_, crosses = geom.SelfCrossing([]geom.Point{{X: 0, Y: 0}, {X: 10, Y: 0}, {X: 10, Y: 10}, {X: 0, Y: 10}})
	assert.False(t, crosses)
	_, crosses = geom.SelfCrossing([]geom.Point{{X: 0, Y: 0}, {X: 10, Y: 0}, {X: 5, Y: 0}, {X: 5, Y: 9}})
	assert.True(t, crosses, "a side that folds back on the last one")
}

func TestInPolygonAgainstWinding(t *testing.T) {
	star := []geom.Point{{X: 0, Y: 300}, {X: -70, Y: 90}, {X: -285, Y: 93}, {X: -110, Y: -40}, {X: -176, Y: -243}, {X: 0, Y: -120}, {X: 176, Y: -243}, {X: 110, Y: -40}, {X: 285, Y: 93}, {X: 70, Y: 90}}
	rapid.Check(t, func(t *rapid.T) {
		p := point(t, "p", 320)
		total := 0.0
		for i, a := range star {
			b := star[(i+1)%len(star)]
			if geom.OnSegment(p, a, b) {
				assert.True(t, geom.InPolygon(p, star))
				return
			}
			ax, ay, bx, by := float64(a.X-p.X), float64(a.Y-p.Y), float64(b.X-p.X), float64(b.Y-p.Y)
			total += math.Atan2(ax*by-ay*bx, ax*bx+ay*by)
		}
		assert.Equal(t, math.Abs(total) > 1, geom.InPolygon(p, star))
	})
}
