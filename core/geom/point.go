// Package geom is plane geometry in whole nanometres (int64), x to the right and y up;
// angles are whole millidegrees, counted anticlockwise. Distances are float64 nanometres.
package geom

import (
	"cmp"
	"math"
)

// Point is a place in nanometres.
type Point struct {
	X int64 `json:"x"`
	Y int64 `json:"y"`
}

// Pt makes a point.
func Pt(x, y int64) Point { return Point{x, y} }

// Add returns p + q.
func (p Point) Add(q Point) Point { return Point{p.X + q.X, p.Y + q.Y} }

// Sub returns p − q.
func (p Point) Sub(q Point) Point { return Point{p.X - q.X, p.Y - q.Y} }

// Compare orders places from the left, and those above each other from below.
func (p Point) Compare(q Point) int { return cmp.Or(cmp.Compare(p.X, q.X), cmp.Compare(p.Y, q.Y)) }

// Dist is the distance from p to q.
func (p Point) Dist(q Point) float64 { return math.Hypot(float64(p.X-q.X), float64(p.Y-q.Y)) }

// Towards is the point at the fraction t of the way from p to q, rounded.
func (p Point) Towards(q Point, t float64) Point {
	return Point{p.X + int64(math.Round(t*float64(q.X-p.X))), p.Y + int64(math.Round(t*float64(q.Y-p.Y)))}
}

// Box is an axis-parallel rectangle, its borders included.
type Box struct {
	Min Point `json:"min"`
	Max Point `json:"max"`
}

// BoxOf is the smallest box around the points; of none, an empty box at the origin.
func BoxOf(pts ...Point) Box {
	if len(pts) == 0 {
		return Box{}
	}
	b := Box{pts[0], pts[0]}
	for _, p := range pts[1:] {
		b = b.With(p)
	}
	return b
}

// With is the box grown to hold p.
func (b Box) With(p Point) Box {
	return Box{Point{min(b.Min.X, p.X), min(b.Min.Y, p.Y)}, Point{max(b.Max.X, p.X), max(b.Max.Y, p.Y)}}
}

// Union is the smallest box around both.
func (b Box) Union(c Box) Box { return b.With(c.Min).With(c.Max) }

// Grow is the box with every side moved outwards by d.
func (b Box) Grow(d int64) Box {
	return Box{Point{b.Min.X - d, b.Min.Y - d}, Point{b.Max.X + d, b.Max.Y + d}}
}

// Meets tells whether the boxes share a point.
func (b Box) Meets(c Box) bool {
	return b.Min.X <= c.Max.X && c.Min.X <= b.Max.X && b.Min.Y <= c.Max.Y && c.Min.Y <= b.Max.Y
}

// Holds tells whether p lies in the box.
func (b Box) Holds(p Point) bool {
	return p.X >= b.Min.X && p.X <= b.Max.X && p.Y >= b.Min.Y && p.Y <= b.Max.Y
}

// Centre of the box.
func (b Box) Centre() Point { return Point{(b.Min.X + b.Max.X) / 2, (b.Min.Y + b.Max.Y) / 2} }

// Pose turns a drawing's own coordinates into the world's: mirrored first (x to −x, when
// Mirror), then turned by Angle millidegrees, then moved to At.
type Pose struct {
	At     Point
	Angle  int32
	Mirror bool
}

// Apply carries p over. Quarter turns are exact; other angles round to the nanometre.
func (t Pose) Apply(p Point) Point {
	if t.Mirror {
		p.X = -p.X
	}
	return Turn(p, t.Angle).Add(t.At)
}

// Undo takes a place back to the coordinates that the pose carried over.
func (t Pose) Undo(p Point) Point {
	p = Turn(p.Sub(t.At), (360_000-t.Angle%360_000)%360_000)
	if t.Mirror {
		p.X = -p.X
	}
	return p
}

// ApplyAll carries every point over.
func (t Pose) ApplyAll(pts []Point) []Point {
	out := make([]Point, len(pts))
	for i, p := range pts {
		out[i] = t.Apply(p)
	}
	return out
}

// Turn rotates p about the origin by angle millidegrees, anticlockwise.
func Turn(p Point, angle int32) Point {
	switch a := ((angle % 360_000) + 360_000) % 360_000; a {
	case 0:
		return p
	case 90_000:
		return Point{-p.Y, p.X}
	case 180_000:
		return Point{-p.X, -p.Y}
	case 270_000:
		return Point{p.Y, -p.X}
	default:
		s, c := math.Sincos(float64(a) / 180_000 * math.Pi)
		x, y := float64(p.X), float64(p.Y)
		return Point{int64(math.Round(x*c - y*s)), int64(math.Round(x*s + y*c))}
	}
}
