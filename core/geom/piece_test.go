package geom_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
)

const mm = 1_000_000

func at(x, y int64) geom.Point { return geom.Pt(x*mm, y*mm) }

// arcOf draws an arc by its centre, radius and angles, which the code under test never sees.
type arcOf struct {
	cx, cy, r, from, sweep float64
}

func (a arcOf) at(f float64) (float64, float64) {
	sin, cos := math.Sincos(a.from + f*a.sweep)
	return a.cx + a.r*cos, a.cy + a.r*sin
}

func (a arcOf) place(f float64) geom.Point {
	x, y := a.at(f)
	return geom.Pt(int64(math.Round(x)), int64(math.Round(y)))
}

// curve is a piece and the way along it.
type curve struct {
	geom.Piece
	at   func(f float64) (float64, float64)
	step float64 // between two of 300 places
}

const places = 300

func curves() *rapid.Generator[curve] {
	return rapid.Custom(func(t *rapid.T) curve {
		x, y := rapid.Int64Range(-20*mm, 20*mm), rapid.Int64Range(-20*mm, 20*mm)
		if rapid.IntRange(0, 3).Draw(t, "kind") == 0 {
			a, b := geom.Pt(x.Draw(t, "ax"), y.Draw(t, "ay")), geom.Pt(x.Draw(t, "bx"), y.Draw(t, "by"))
			line := func(f float64) (float64, float64) {
				return float64(a.X) + f*float64(b.X-a.X), float64(a.Y) + f*float64(b.Y-a.Y)
			}
			return curve{geom.Straight(a, b), line, a.Dist(b) / places}
		}
		a := arcOf{float64(x.Draw(t, "cx")), float64(y.Draw(t, "cy")), float64(rapid.Int64Range(mm, 15*mm).Draw(t, "r")),
			rapid.Float64Range(0, 2*math.Pi).Draw(t, "from"), rapid.Float64Range(0.3, 6).Draw(t, "sweep") * float64(rapid.SampledFrom([]int{1, -1}).Draw(t, "way"))}
		p := geom.Piece{A: a.place(0), M: a.place(0.5), B: a.place(1)}
		if rapid.IntRange(0, 7).Draw(t, "whole") == 0 {
			a.sweep = 2 * math.Pi
			p = geom.Piece{A: a.place(0), M: a.place(0.5), B: a.place(0)}
		}
		return curve{p, a.at, a.r * math.Abs(a.sweep) / places}
	})
}

// sampledDistance is the least distance between many places of both.
func sampledDistance(p, q curve) float64 {
	var xs, ys [places + 1]float64
	for j := range xs {
		xs[j], ys[j] = q.at(float64(j) / places)
	}
	least := math.Inf(1)
	for i := range places + 1 {
		x, y := p.at(float64(i) / places)
		for j := range xs {
			dx, dy := x-xs[j], y-ys[j]
			least = min(least, dx*dx+dy*dy)
		}
	}
	return math.Sqrt(least)
}

// to is the distance of a place from the curve, found by halving around the nearest of many.
func (c curve) to(p geom.Point) float64 {
	best, bf := math.Inf(1), 0.0
	far := func(f float64) float64 { x, y := c.at(f); return math.Hypot(x-float64(p.X), y-float64(p.Y)) }
	for i := range places + 1 {
		if d := far(float64(i) / places); d < best {
			best, bf = d, float64(i)/places
		}
	}
	for w := 1.0 / places; w > 1e-12; w /= 2 {
		for _, f := range []float64{bf - w, bf + w} {
			if d := far(f); (f >= 0 && f <= 1 || c.A == c.B) && d < best {
				best, bf = d, f
			}
		}
	}
	return best
}

// The distance of two pieces is the least of many places on them: never more, hardly less; and
// the places said to be nearest lie on the pieces, that far apart.
func TestPieceDistanceAgainstSampling(t *testing.T) {
	crossed, apart := 0, 0
	property := func(t *rapid.T) {
		p, q := curves().Draw(t, "p"), curves().Draw(t, "q")
		d, a, b := geom.PieceDistance(p.Piece, q.Piece)
		least := sampledDistance(p, q)
		const rounding = 12 // nanometres by which the places given lie beside the curve drawn
		assert.LessOrEqual(t, d, least+rounding)
		assert.GreaterOrEqual(t, d, least-p.step-q.step-rounding)
		assert.InDelta(t, d, a.Dist(b), 1.5)
		assert.LessOrEqual(t, p.to(a), float64(rounding), "on the first")
		assert.LessOrEqual(t, q.to(b), float64(rounding), "on the second")
		if d == 0 {
			crossed++
		} else {
			apart++
			assert.InDelta(t, q.to(a), d, 2*rounding, "nothing of the second is nearer to it")
		}
		back, b2, a2 := geom.PieceDistance(q.Piece.Back(), p.Piece.Back())
		assert.InDelta(t, d, back, 1, "the other way round")
		assert.InDelta(t, a.Dist(b), a2.Dist(b2), 2)
	}
	for range 8 {
		rapid.Check(t, property)
	}
	assert.Greater(t, crossed, 20)
	assert.Greater(t, apart, 20)
}

// Cases worked by hand, with the triangle of 3, 4 and 5.
func TestPieceDistanceByHand(t *testing.T) {
	upper := geom.Piece{A: at(5, 0), M: at(3, 4), B: at(-5, 0)} // half a circle of radius 5 about the origin
	lower := geom.Piece{A: at(-5, 0), M: at(0, -5), B: at(5, 0)}
	place := func(p geom.Point) geom.Piece { return geom.Straight(p, p) }
	for _, c := range []struct {
		name string
		p, q geom.Piece
		want float64 // mm
		a, b geom.Point
	}{
		{"above", upper, place(at(0, 9)), 4, at(0, 5), at(0, 9)},
		{"along the triangle", upper, place(at(6, 8)), 5, at(3, 4), at(6, 8)},
		{"inside", upper, place(at(0, 2)), 3, at(0, 5), at(0, 2)},
		{"below, to an end", upper, place(at(8, -4)), 5, at(5, 0), at(8, -4)},
		{"a line above", upper, geom.Straight(at(-9, 7), at(9, 7)), 2, at(0, 5), at(0, 7)},
		{"a slanted line that touches", upper, geom.Straight(at(3+4, 4-3), at(3-8, 4+6)), 0, at(3, 4), at(3, 4)},
		{"a line through", upper, geom.Straight(at(3, 0), at(3, 9)), 0, at(3, 4), at(3, 4)},
		{"a line below, past the ends", upper, geom.Straight(at(-9, -3), at(4, -3)), 3, at(-5, 0), at(-5, -3)},
		{"a line within", upper, geom.Straight(at(0, 0), at(3, 0)), 2, at(5, 0), at(3, 0)},
		{"the other half", upper, lower, 0, geom.Point{}, geom.Point{}},
		{"circles apart", upper, geom.Piece{A: at(8, 12), M: at(5, 8), B: at(2, 12)}, math.Hypot(5, 11.125) - 5 - 3.125, geom.Point{}, geom.Point{}},
		{"circles that cross at 3, 4", upper, geom.Piece{A: at(6, 5), M: at(3, 4), B: at(1, 0)}, 0, at(3, 4), at(3, 4)},
		{"within one another", upper, geom.Piece{A: at(2, 0), M: at(0, 2), B: at(-2, 0)}, 3, geom.Point{}, geom.Point{}},
		{"whole circles", geom.Piece{A: at(0, 0), M: at(4, 0), B: at(0, 0)}, geom.Piece{A: at(9, 0), M: at(15, 0), B: at(9, 0)}, 5, at(4, 0), at(9, 0)},
		{"whole circles within", geom.Piece{A: at(0, 0), M: at(4, 0), B: at(0, 0)}, geom.Piece{A: at(-9, 0), M: at(11, 0), B: at(-9, 0)}, 7, at(4, 0), at(11, 0)},
		{"its centre", geom.Piece{A: at(0, 0), M: at(4, 0), B: at(0, 0)}, place(at(2, 0)), 2, geom.Point{}, at(2, 0)},
	} {
		d, a, b := geom.PieceDistance(c.p, c.q)
		assert.InDelta(t, c.want*mm, d, 1, c.name)
		if c.a != (geom.Point{}) {
			assert.LessOrEqual(t, a.Dist(c.a), 2.0, "%s: %v", c.name, a)
			assert.LessOrEqual(t, b.Dist(c.b), 2.0, "%s: %v", c.name, b)
		}
		back, b, _ := geom.PieceDistance(c.q, c.p)
		assert.InDelta(t, c.want*mm, back, 1, "%s, the other way round", c.name)
		if c.a != (geom.Point{}) {
			assert.LessOrEqual(t, b.Dist(c.b), 2.0, "%s, the other way round: %v", c.name, b)
		}
	}
}

// Lengths, radii and boxes of pieces known from school.
func TestPiecesByHand(t *testing.T) {
	half := geom.Piece{A: at(5, 0), M: at(3, 4), B: at(-5, 0)}
	assert.True(t, half.Round())
	assert.InDelta(t, math.Pi*5*mm, half.Length(), 1)
	assert.InDelta(t, 5*mm, half.Radius(), 1e-3)
	assert.Equal(t, geom.BoxOf(at(-5, 0), at(5, 5)), half.Box())
	most := geom.Piece{A: at(3, 4), M: at(-5, 0), B: at(3, -4)} // all but the part right of x = 3
	assert.InDelta(t, (2*math.Pi-2*math.Atan2(4, 3))*5*mm, most.Length(), 1)
	assert.Equal(t, geom.BoxOf(at(-5, -5), at(3, 5)), most.Box())
	least := geom.Piece{A: at(3, 4), M: at(5, 0), B: at(3, -4)}
	assert.InDelta(t, 2*math.Atan2(4, 3)*5*mm, least.Length(), 1)
	assert.Equal(t, geom.BoxOf(at(3, -4), at(5, 4)), least.Box())
	whole := geom.Piece{A: at(1, 0), M: at(7, 0), B: at(1, 0)}
	assert.InDelta(t, 6*math.Pi*mm, whole.Length(), 1)
	assert.Equal(t, geom.BoxOf(at(1, -3), at(7, 3)), whole.Box())
	line := geom.Straight(at(1, 2), at(4, 6))
	assert.False(t, line.Round())
	assert.InDelta(t, 5*mm, line.Length(), 1e-3)
	assert.Zero(t, line.Radius())
	assert.Equal(t, geom.BoxOf(at(1, 2), at(4, 6)), line.Box())
	assert.False(t, geom.Piece{A: at(0, 0), M: at(3, 3), B: at(9, 9)}.Round(), "through a place on the line it is straight")
	assert.Equal(t, geom.Straight(at(4, 6), at(1, 2)), line.Back())
	assert.Equal(t, geom.Piece{A: at(-5, 0), M: at(3, 4), B: at(5, 0)}, half.Back())
	turned := geom.Pose{At: at(10, 0), Angle: 90_000}.ApplyPiece(half)
	assert.Equal(t, geom.Piece{A: at(10, 5), M: at(6, 3), B: at(10, -5)}, turned)
}

// A flat arc is not taken for a straight line: over 100 mm it rises by 100 nm, a hundredth of a
// hair's hundredth, and its middle is that much nearer.
func TestFlatArcs(t *testing.T) {
	flat := geom.Piece{A: at(0, 0), M: geom.Pt(50*mm, 100), B: at(100, 0)}
	d, a, _ := geom.PieceDistance(flat, geom.Straight(geom.Pt(50*mm, mm), geom.Pt(50*mm, mm)))
	assert.InDelta(t, mm-100, d, 0.01)
	assert.Equal(t, geom.Pt(50*mm, 100), a)
	d, _, _ = geom.PieceDistance(flat, geom.Straight(at(0, -1), at(100, -1)))
	assert.InDelta(t, mm, d, 0.01, "its ends are the nearest below")
	quarter := geom.Pt(25*mm, mm) // a parabola there: three quarters of the rise
	d, _, _ = geom.PieceDistance(flat, geom.Straight(quarter, quarter))
	assert.InDelta(t, mm-75, d, 0.1)
	assert.Equal(t, geom.BoxOf(at(0, 0), geom.Pt(100*mm, 100)), flat.Box())
}

// A box holds all of its piece and is no larger.
func TestPieceBoxesAgainstSampling(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := curves().Draw(t, "piece")
		box := c.Box()
		lox, hix, loy, hiy := math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
		for i := range 4*places + 1 {
			x, y := c.at(float64(i) / (4 * places))
			lox, hix, loy, hiy = min(lox, x), max(hix, x), min(loy, y), max(hiy, y)
		}
		rise := c.step * c.step / 15e6 // by which a curve of 1 mm radius rises between two places, and rounding
		near := func(want float64, got int64) { assert.InDelta(t, want, float64(got), 12+rise) }
		near(lox, box.Min.X)
		near(hix, box.Max.X)
		near(loy, box.Min.Y)
		near(hiy, box.Max.Y)
	})
}

// Straight lines along an arc leave it by no more than the tolerance, on the side that was asked
// for, and are not more than they need be.
func TestAlongAnArc(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		c := curves().Draw(t, "piece")
		tolerance := rapid.Int64Range(1_000, 200_000).Draw(t, "tolerance")
		around := rapid.Bool().Draw(t, "around")
		pts := c.Along(tolerance, around)
		assert.Equal(t, c.A, pts[0])
		assert.Equal(t, c.B, pts[len(pts)-1])
		if !c.Round() {
			assert.Len(t, pts, 2)
			return
		}
		for i := range pts[1:] {
			assert.NotEqual(t, pts[i], pts[i+1], "no place twice")
		}
		cx, cy := centre(c.A, c.M, c.B)
		r := c.Radius()
		for i := range pts[1:] {
			for j := range 9 {
				f := float64(j) / 8
				x := float64(pts[i].X) + f*float64(pts[i+1].X-pts[i].X) - cx
				y := float64(pts[i].Y) + f*float64(pts[i+1].Y-pts[i].Y) - cy
				off := math.Hypot(x, y) - r
				if around {
					assert.GreaterOrEqual(t, off, -2.0)
					assert.LessOrEqual(t, off, float64(tolerance)+2)
				} else {
					assert.LessOrEqual(t, off, 2.0)
					assert.GreaterOrEqual(t, off, -float64(tolerance)-2)
				}
			}
		}
		length := 0.0
		for i := range pts[1:] {
			length += pts[i].Dist(pts[i+1])
		}
		assert.InEpsilon(t, c.Length(), length, 0.3, "it goes the arc's way about, and once")
		// a chord of angle a falls short by r(1 − cos a/2) ≈ r a²/8
		fewest := c.Length() / r / math.Sqrt(8*float64(tolerance)/r)
		assert.LessOrEqual(t, float64(len(pts)), 1.2*fewest+7)
	})
}

// However coarse the tolerance, an arc goes on as an arc: a quarter turn a line at most.
func TestAlongAnArcCoarsely(t *testing.T) {
	whole := geom.Piece{A: at(1, 0), M: at(-1, 0), B: at(1, 0)}
	assert.Equal(t, []geom.Point{at(1, 0), at(0, 1), at(-1, 0), at(0, -1), at(1, 0)}, whole.Along(50*mm, false))
	assert.Equal(t, []geom.Point{at(1, 0), at(1, 1), at(-1, 1), at(-1, -1), at(1, -1), at(1, 0)}, whole.Along(50*mm, true))
	half := geom.Piece{A: at(1, 0), M: at(0, -1), B: at(-1, 0)}
	assert.Equal(t, []geom.Point{at(1, 0), at(0, -1), at(-1, 0)}, half.Along(50*mm, false), "clockwise")
}

// centre of the circle through three places, by the middle perpendiculars of two chords; of a
// circle given by a place and the one across, between them.
func centre(a, m, b geom.Point) (float64, float64) {
	if a == b {
		return float64(a.X+m.X) / 2, float64(a.Y+m.Y) / 2
	}
	x1, y1 := float64(a.X+m.X)/2, float64(a.Y+m.Y)/2
	x2, y2 := float64(m.X+b.X)/2, float64(m.Y+b.Y)/2
	dx1, dy1 := float64(m.Y-a.Y), -float64(m.X-a.X)
	dx2, dy2 := float64(b.Y-m.Y), -float64(b.X-m.X)
	s := ((x2-x1)*dy2 - (y2-y1)*dx2) / (dx1*dy2 - dy1*dx2)
	return x1 + s*dx1, y1 + s*dy1
}
