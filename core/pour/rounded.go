package pour

import (
	"math"

	"goldentrace/core/geom"
)

// stray is how far the outlines of what is kept free may lie outside of the true ones, in nanometres: never within.
const stray = 1_000

// chord is how far the chords that take the place of an arc may lie within it.
const chord = 200

// rounded are convex lines that together bound all places within a distance of a shape, beside their radius of it, and stray from
// those outwards only.
func rounded(s geom.Shape, more int64) (out [][]geom.Point) {
	r := s.R + more
	if s.Mids == nil {
		switch {
		case len(s.Pts) <= 2:
			return [][]geom.Point{around(s.Pts, r)}
		case s.Area:
			if pts, convex := anticlockwise(s.Pts); convex {
				return [][]geom.Point{around(pts, r)}
			}
		}
	}
	if s.Area {
		var core []geom.Point
		for i := range s.Sides() {
			line := s.Side(i).Along(chord, false)
			core = append(core, line[:len(line)-1]...)
		}
		out = append(out, core)
	}
	extra := int64(0)
	if s.Mids != nil {
		extra = chord // chords lie within their arcs
	}
	for i := range s.Sides() {
		line := s.Side(i).Along(chord, false)
		for j := range len(line) - 1 {
			if r+extra > 0 && line[j] != line[j+1] {
				out = append(out, around(line[j:j+2], r+extra))
			}
		}
	}
	return out
}

// anticlockwise is a line that goes anticlockwise, without places on its straight sides, and whether it is convex.
func anticlockwise(pts []geom.Point) (out []geom.Point, convex bool) {
	n := len(pts)
	out = make([]geom.Point, 0, n)
	if geom.Area(pts) < 0 {
		for i := range pts {
			out = append(out, pts[n-1-i])
		}
	} else {
		out = append(out, pts...)
	}
	for i := 0; i < len(out) && len(out) > 2; {
		a, b, c := out[(i+len(out)-1)%len(out)], out[i], out[(i+1)%len(out)]
		switch k := cross(a, b, c); {
		case k < 0:
			return nil, false
		case k == 0:
			out = append(out[:i:i], out[i+1:]...)
		default:
			i++
		}
	}
	return out, len(out) > 2
}

func cross(a, b, c geom.Point) float64 {
	return float64(b.X-a.X)*float64(c.Y-b.Y) - float64(b.Y-a.Y)*float64(c.X-b.X)
}

// around is the line around all places within a distance of a place, of the line between two, or of what a convex line bounds that goes
// anticlockwise. Its chords touch the round corners from outside.
func around(core []geom.Point, r int64) []geom.Point {
	if len(core) > 1 && core[0] == core[len(core)-1] {
		core = core[:1]
	}
	n := len(core)
	if r <= 0 {
		return core
	}
	// the angle that a chord may span: r/cos(φ/2) − r = stray
	most := 2 * math.Acos(float64(r)/float64(r+stray))
	most = max(min(most, math.Pi/4), math.Pi/32)
	grown := float64(r) + 1 // places are rounded to whole nanometres
	out := make([]geom.Point, 0, 32)
	for i, p := range core {
		from, turn := 0.0, 2*math.Pi
		if n > 1 {
			a, b := core[(i+n-1)%n], core[(i+1)%n]
			from = math.Atan2(float64(p.Y-a.Y), float64(p.X-a.X)) - math.Pi/2
			to := math.Atan2(float64(b.Y-p.Y), float64(b.X-p.X)) - math.Pi/2
			turn = math.Mod(to-from+4*math.Pi, 2*math.Pi)
			if n == 2 {
				turn = math.Pi
			}
		}
		k := max(int(math.Ceil(turn/most-1e-9)), 1)
		step := turn / float64(k)
		far := grown / math.Cos(step/2)
		for j := range k {
			sin, cos := math.Sincos(from + (float64(j)+0.5)*step)
			out = append(out, geom.Pt(p.X+int64(math.Round(far*cos)), p.Y+int64(math.Round(far*sin))))
		}
	}
	return out
}
