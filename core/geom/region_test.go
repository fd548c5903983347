package geom_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/geom"
)

// blob is a region whose border is known by angle about its middle: straight pieces and arcs
// between corners on rays, one corner a ray, so that it never crosses itself.
func blob(t *rapid.T, name string, centre geom.Point, least, most float64) geom.Ring {
	n := rapid.IntRange(5, 9).Draw(t, name) // of fewer, a border bulging inwards would meet what is within
	corner := func(i int, r float64) geom.Point {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(2*n))
		return centre.Add(geom.Pt(int64(math.Round(r*cos)), int64(math.Round(r*sin))))
	}
	radius := func() float64 { return rapid.Float64Range(least, most).Draw(t, name+" r") }
	var pts, mids []geom.Point
	for i := range n {
		pts = append(pts, corner(2*i, radius()))
	}
	for i := range n { // a little beside the chord's middle
		a, b := pts[i], pts[(i+1)%n]
		m := geom.Pt((a.X+b.X)/2, (a.Y+b.Y)/2)
		k := rapid.SampledFrom([]float64{-0.15, -0.1, -0.02, 0.02, 0.1, 0.15}).Draw(t, name+" bulge")
		mids = append(mids, m.Add(geom.Pt(int64(k*float64(b.Y-a.Y)), int64(-k*float64(b.X-a.X)))))
	}
	var out geom.Ring
	for i := range n {
		if rapid.Bool().Draw(t, name+" arc") {
			out = append(out, geom.Piece{A: pts[i], M: mids[i], B: pts[(i+1)%n]})
		} else {
			out = append(out, geom.Straight(pts[i], pts[(i+1)%n]))
		}
	}
	if rapid.Bool().Draw(t, name+" back") {
		back := geom.Ring{}
		for i := range out {
			back = append(back, out[len(out)-1-i].Back())
		}
		return back
	}
	return out
}

// winding is how often a ring goes about a place, summed from the angles of short lines along it.
func winding(r geom.Ring, p geom.Point) int {
	sum := 0.0
	for _, piece := range r {
		pts := piece.Along(100, false)
		for i := range pts[1:] {
			ax, ay := float64(pts[i].X-p.X), float64(pts[i].Y-p.Y)
			bx, by := float64(pts[i+1].X-p.X), float64(pts[i+1].Y-p.Y)
			sum += math.Atan2(ax*by-ay*bx, ax*bx+ay*by)
		}
	}
	return int(math.Round(sum / 2 / math.Pi))
}

// A place is in a region when the outer ring goes about it and no hole does; distances from the
// region are the least of those from its pieces.
func TestRegionsAgainstWindingAndAllPieces(t *testing.T) {
	inside, within := 0, 0
	property := func(t *rapid.T) {
		r := geom.Region{Outer: blob(t, "outer", geom.Point{}, 8*mm, 14*mm)}
		if rapid.Bool().Draw(t, "hole") {
			r.Holes = append(r.Holes, blob(t, "inner", geom.Pt(mm, 0), mm, 2*mm))
		}
		if rapid.Bool().Draw(t, "round hole") {
			r.Holes = append(r.Holes, geom.Ring{{A: geom.Pt(-4*mm, 0), M: geom.Pt(-3*mm, 0), B: geom.Pt(-4*mm, 0)}})
		}
		ready := r.Prepare()
		all := append(geom.Ring{}, r.Outer...)
		for _, h := range r.Holes {
			all = append(all, h...)
		}
		for range 8 {
			where := func(name string) geom.Point {
				if rapid.IntRange(0, 3).Draw(t, name+" on") == 0 { // level with corners, on lines between them
					p := all[rapid.IntRange(0, len(all)-1).Draw(t, name)]
					return []geom.Point{p.A, geom.Pt((p.A.X+p.B.X)/2, (p.A.Y+p.B.Y)/2), geom.Pt(0, p.A.Y), geom.Pt(p.M.X, p.A.Y)}[rapid.IntRange(0, 3).Draw(t, name+" how")]
				}
				return geom.Pt(rapid.Int64Range(-16*mm, 16*mm).Draw(t, name+" x"), rapid.Int64Range(-16*mm, 16*mm).Draw(t, name+" y"))
			}
			p, q := where("p"), where("q")
			border := math.Inf(1)
			for _, piece := range all {
				d, _, _ := geom.PieceDistance(piece, geom.Straight(p, p))
				border = min(border, d)
			}
			if border < 0.5 {
				assert.True(t, ready.Holds(p), "the border belongs to it: %v", p)
			} else if border > 150 { // what the short lines leave the arcs by
				want := winding(r.Outer, p) != 0
				for _, h := range r.Holes {
					want = want && winding(h, p) == 0
				}
				assert.Equal(t, want, ready.Holds(p), "%v", p)
				if want {
					inside++
				}
			}
			line := geom.Straight(p, q)
			least := math.Inf(1)
			for _, piece := range all {
				d, _, _ := geom.PieceDistance(piece, line)
				least = min(least, d)
			}
			d, at, of := ready.Distance(line)
			if ready.Holds(p) {
				least = 0
				within++
			}
			assert.InDelta(t, least, d, 1e-6)
			assert.InDelta(t, d, at.Dist(of), 1.5)
		}
	}
	for range 3 {
		rapid.Check(t, property)
	}
	assert.Greater(t, inside, 50)
	assert.Greater(t, within, 50)
}

// Areas of rings and regions worked by hand, whichever way they go about.
func TestAreasOfRegions(t *testing.T) {
	square := geom.Polygon(at(0, 0), at(10, 0), at(10, 10), at(0, 10))
	assert.True(t, square.Closed())
	assert.InEpsilon(t, 100*mm*mm, square.Area(), 1e-12)
	assert.Equal(t, geom.BoxOf(at(0, 0), at(10, 10)), square.Box())
	// a slot: two lines of 6 mm, 4 mm apart, closed by half circles
	slot := geom.Ring{geom.Straight(at(2, 0), at(8, 0)), {A: at(8, 0), M: at(10, 2), B: at(8, 4)}, geom.Straight(at(8, 4), at(2, 4)), {A: at(2, 4), M: at(0, 2), B: at(2, 0)}}
	assert.True(t, slot.Closed())
	assert.InEpsilon(t, (24+4*math.Pi)*mm*mm, slot.Area(), 1e-9)
	assert.Equal(t, geom.BoxOf(at(0, 0), at(10, 4)), slot.Box())
	back := geom.Ring{slot[3].Back(), slot[2].Back(), slot[1].Back(), slot[0].Back()}
	assert.True(t, back.Closed())
	assert.InEpsilon(t, -(24+4*math.Pi)*mm*mm, back.Area(), 1e-9)
	dented := geom.Ring{geom.Straight(at(2, 0), at(8, 0)), {A: at(8, 0), M: at(6, 2), B: at(8, 4)}, geom.Straight(at(8, 4), at(2, 4)), geom.Straight(at(2, 4), at(2, 0))}
	assert.InEpsilon(t, (24-2*math.Pi)*mm*mm, dented.Area(), 1e-9)
	quarter := geom.Ring{geom.Straight(at(0, 0), at(5, 0)), {A: at(5, 0), M: at(4, 3), B: at(0, 5)}, geom.Straight(at(0, 5), at(0, 0))}
	assert.InEpsilon(t, 25*math.Pi/4*mm*mm, quarter.Area(), 1e-9)
	circle := geom.Ring{{A: at(3, 5), M: at(7, 5), B: at(3, 5)}}
	assert.True(t, circle.Closed())
	assert.InEpsilon(t, 4*math.Pi*mm*mm, circle.Area(), 1e-9)
	assert.InEpsilon(t, (100-4*math.Pi)*mm*mm, geom.Region{Outer: square, Holes: []geom.Ring{circle}}.Area(), 1e-9)
	assert.False(t, geom.Ring{geom.Straight(at(0, 0), at(1, 0)), geom.Straight(at(1, 1), at(0, 0))}.Closed())
	assert.False(t, geom.Ring{}.Closed())
	assert.Zero(t, geom.Ring{}.Area())

	ready := geom.Region{Outer: square, Holes: []geom.Ring{circle}}.Prepare()
	assert.Equal(t, square.Box(), ready.Box())
	for p, want := range map[geom.Point]bool{at(1, 5): true, at(5, 5): false, at(3, 5): true, at(5, 7): true, at(0, 0): true, at(10, 4): true, at(11, 5): false, at(-1, 0): false, at(9, 10): true} {
		assert.Equal(t, want, ready.Holds(p), "%v", p)
	}
	d, a, b := ready.Distance(geom.Straight(at(5, 5), at(6, 5)))
	assert.InDelta(t, mm, d, 1e-3, "in the hole, to its rim")
	assert.Equal(t, at(7, 5), a)
	assert.Equal(t, at(6, 5), b)
}

// A border of many hundred pieces is searched, not gone through: the answers are those of going
// through it.
func TestDistancesFromLongBorders(t *testing.T) {
	var corners []geom.Point
	for i := range 600 {
		r := 20.0*mm + float64(i*7919%1000)*3000
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / 600)
		corners = append(corners, geom.Pt(int64(r*cos), int64(r*sin)))
	}
	ring := geom.Polygon(corners...)
	ready := geom.Region{Outer: ring}.Prepare()
	for i := range 400 {
		x, y := int64(i*104729%100)-50, int64(i*15485863%100)-50
		line := geom.Straight(geom.Pt(x*mm, y*mm), geom.Pt((x+7)*mm, (y-3)*mm))
		least := math.Inf(1)
		for _, p := range ring {
			d, _, _ := geom.PieceDistance(p, line)
			least = min(least, d)
		}
		in := geom.InPolygon(line.A, corners)
		assert.Equal(t, in, ready.Holds(line.A), "%v", line.A)
		if in {
			least = 0
		}
		d, at, of := ready.Distance(line)
		assert.InDelta(t, least, d, 1e-6, "%v", line)
		assert.InDelta(t, d, at.Dist(of), 1.5)
	}
}
