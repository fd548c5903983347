// Package overlay finds what closed lines fill, whichever way they wind and cross, and what lines of
// a width cover. It stands on GEOS (libgeos, LGPL); its work is done on a grid of one nanometre, so that
// places stay whole numbers.
package overlay

import (
	"context"
	"fmt"
	"math"
	"slices"

	"github.com/twpayne/go-geos"

	"goldentrace/core/geom"
)

// Filling is which places closed lines fill.
type Filling int

// The two fillings that drawings know (SVG 1.1, 11.3).
const (
	NonZero Filling = iota // those that the lines wind around
	EvenOdd                // those that an odd number of lines surround
)

// Area is a filled place: what its outer line bounds but for its holes. The outer line goes
// anticlockwise, holes go clockwise; none crosses itself or another.
type Area struct {
	Outer []geom.Point
	Holes [][]geom.Point
}

// Holds tells whether a place lies in the area; those on its outer line do, those on the line of a hole do not.
func (a Area) Holds(p geom.Point) bool {
	return geom.InPolygon(p, a.Outer) && !slices.ContainsFunc(a.Holes, func(h []geom.Point) bool { return geom.InPolygon(p, h) })
}

// Filled gives the areas that closed lines fill, in a settled order. Lines without extent fill nothing.
func Filled(lines [][]geom.Point, by Filling) (out []Area, err error) {
	defer caught(&err)
	c := geos.NewContext()
	var rings []*geos.Geom
	var kept []boxed
	for _, l := range lines {
		if r := distinct(l); len(r) > 2 {
			kept = append(kept, boxed{r, geom.BoxOf(r...)})
			rings = append(rings, c.NewLineString(coords(r, true)))
		}
	}
	if len(rings) == 0 {
		return nil, nil
	}
	noded := c.NewCollection(geos.TypeIDMultiLineString, rings).UnaryUnionPrec(1)
	faces := c.Polygonize([]*geos.Geom{noded})
	var in []*geos.Geom
	for i := range faces.NumGeometries() {
		face := faces.Geometry(i)
		p := face.PointOnSurface()
		if n := winding(kept, p.X(), p.Y()); by == NonZero && n != 0 || by == EvenOdd && n%2 != 0 {
			in = append(in, face.Clone())
		}
	}
	if len(in) == 0 {
		return nil, nil
	}
	return areas(c.NewCollection(geos.TypeIDMultiPolygon, in).UnaryUnionPrec(1)), nil
}

// Line is a run of places that a pen goes along.
type Line struct {
	Pts    []geom.Point
	Closed bool
}

// Covered gives the areas that a round pen of the width covers along lines, its round ends strayed from
// by less than the tolerance. Lengths are nanometres.
func Covered(lines []Line, width, tolerance int64) (out []Area, err error) {
	defer caught(&err)
	c := geos.NewContext()
	r := float64(width) / 2
	quarter := quarterOf(r, tolerance)
	var all []*geos.Geom
	for _, l := range lines {
		pts := distinct(l.Pts)
		switch {
		case len(pts) == 0:
		case len(pts) == 1:
			all = append(all, c.NewPoint([]float64{float64(pts[0].X), float64(pts[0].Y)}).Buffer(r, quarter))
		default:
			all = append(all, c.NewLineString(coords(pts, l.Closed && len(pts) > 2)).Buffer(r, quarter))
		}
	}
	if len(all) == 0 {
		return nil, nil
	}
	return areas(c.NewCollection(geos.TypeIDGeometryCollection, all).UnaryUnionPrec(1)), nil
}

// quarterOf is into how many chords a quarter of a circle falls that stray by less than the tolerance: one over an angle φ strays by
// r(1 − cos φ/2).
func quarterOf(r float64, tolerance int64) int {
	return min(max(int(math.Ceil(math.Pi/4/math.Acos(max(0, 1-float64(tolerance)/r)))), 2), 64)
}

// caught makes an error of what the library threw.
func caught(err *error) {
	if fault := recover(); fault != nil {
		*err = fmt.Errorf("the areas cannot be joined: %v", fault)
	}
}

// distinct are the places without repeats in a row.
func distinct(l []geom.Point) []geom.Point {
	out := slices.Compact(slices.Clone(l))
	for len(out) > 1 && out[0] == out[len(out)-1] {
		out = out[:len(out)-1]
	}
	return out
}

func coords(l []geom.Point, closed bool) [][]float64 {
	out := make([][]float64, 0, len(l)+1)
	for _, p := range l {
		out = append(out, []float64{float64(p.X), float64(p.Y)})
	}
	if closed {
		out = append(out, out[0])
	}
	return out
}

// boxed is a line with its box.
type boxed struct {
	line []geom.Point
	box  geom.Box
}

// winding is how often lines go around a place, anticlockwise counted up.
func winding(lines []boxed, x, y float64) (n int) {
	for _, l := range lines {
		if x < float64(l.box.Min.X) || x > float64(l.box.Max.X) || y < float64(l.box.Min.Y) || y > float64(l.box.Max.Y) {
			continue
		}
		for i, a := range l.line {
			b := l.line[(i+1)%len(l.line)]
			ax, ay, bx, by := float64(a.X), float64(a.Y), float64(b.X), float64(b.Y)
			if (ay <= y) == (by <= y) {
				continue
			}
			right := (bx-ax)*(y-ay) - (x-ax)*(by-ay)
			switch {
			case by > ay && right > 0:
				n++
			case by < ay && right < 0:
				n--
			}
		}
	}
	return n
}

// areas of a polygon or of several.
func areas(g *geos.Geom) (out []Area) {
	switch g.TypeID() {
	case geos.TypeIDPolygon:
		if g.IsEmpty() {
			return nil
		}
		a := Area{Outer: ring(g.ExteriorRing(), false)}
		for i := range g.NumInteriorRings() {
			a.Holes = append(a.Holes, ring(g.InteriorRing(i), true))
		}
		slices.SortFunc(a.Holes, byFirst)
		return []Area{a}
	case geos.TypeIDMultiPolygon, geos.TypeIDGeometryCollection:
		for i := range g.NumGeometries() {
			out = append(out, areas(g.Geometry(i))...)
		}
		slices.SortFunc(out, func(a, b Area) int { return byFirst(a.Outer, b.Outer) })
	}
	return out
}

// ring gives a ring's places, from the leftmost and lowest on, clockwise or not.
func ring(g *geos.Geom, clockwise bool) []geom.Point {
	var pts []geom.Point
	for _, c := range g.CoordSeq().ToCoords() {
		pts = append(pts, geom.Pt(int64(math.Round(c[0])), int64(math.Round(c[1]))))
	}
	pts = distinct(pts)
	if (geom.Area(pts) < 0) != clockwise {
		slices.Reverse(pts)
	}
	first := 0
	for i, p := range pts {
		if p.Compare(pts[first]) < 0 {
			first = i
		}
	}
	return append(pts[first:len(pts):len(pts)], pts[:first]...)
}

func byFirst(a, b []geom.Point) int {
	return slices.CompareFunc(a, b, geom.Point.Compare)
}

// Rings are all lines of areas, outer ones and holes: filled by even and odd they fill the areas.
func Rings(list []Area) (out [][]geom.Point) {
	for _, a := range list {
		out = append(append(out, a.Outer), a.Holes...)
	}
	return out
}

// One is one closed line that bounds the area: holes are led to by cuts of no width. Each hole is cut to
// from its rightmost place straight to the right, the hole that reaches farthest first.
func (a Area) One() []geom.Point {
	line := slices.Clone(a.Outer)
	holes := slices.Clone(a.Holes)
	right := func(h []geom.Point) int {
		at := 0
		for i, p := range h {
			if p.Compare(h[at]) > 0 {
				at = i
			}
		}
		return at
	}
	slices.SortStableFunc(holes, func(g, h []geom.Point) int { return h[right(h)].Compare(g[right(g)]) })
	for i, h := range holes {
		k := right(h)
		holes[i] = append(h[k:len(h):len(h)], h[:k]...)
	}
	if len(holes) > fewHoles {
		return a.oneOfMany(holes)
	}
	for _, h := range holes {
		line = cutTo(line, h)
	}
	return line
}

// cutTo puts the hole, which begins at its rightmost place, into the line where that is met first to the right.
func cutTo(line, hole []geom.Point) []geom.Point {
	from := hole[0]
	best, at := math.Inf(1), -1
	for i, a := range line {
		if x, meets := rightOf(from, a, line[(i+1)%len(line)]); meets && x < best {
			best, at = x, i
		}
	}
	if at < 0 {
		return line // it does not lie within
	}
	to := geom.Pt(int64(math.Round(best)), from.Y)
	out := append(slices.Clone(line[:at+1]), to)
	out = append(append(append(out, hole...), from), to)
	return slices.Compact(append(out, line[at+1:]...))
}

// Joined are the areas that either covers.
func Joined(a, b []Area) ([]Area, error) {
	return combined(a, b, func(x, y *geos.Geom) *geos.Geom { return x.UnionPrec(y, 1) })
}

// All are the areas that any of the lists covers: pairs are joined, then pairs of those, so that each goes through few joinings. It stops
// when the context ends. Cost: O(n log n) for shapes that meet few others.
func All(ctx context.Context, lists [][]Area) ([]Area, error) {
	for len(lists) > 1 {
		var next [][]Area
		for i := 0; i < len(lists); i += 2 {
			if err := ctx.Err(); err != nil {
				return nil, err
			}
			if i+1 == len(lists) {
				next = append(next, lists[i])
				break
			}
			both, err := Joined(lists[i], lists[i+1])
			if err != nil {
				return nil, err
			}
			next = append(next, both)
		}
		lists = next
	}
	if len(lists) == 0 {
		return nil, nil
	}
	return lists[0], nil
}

// Without are the areas of a that none of b covers.
func Without(a, b []Area) ([]Area, error) {
	return combined(a, b, func(x, y *geos.Geom) *geos.Geom { return x.DifferencePrec(y, 1) })
}

func combined(a, b []Area, by func(x, y *geos.Geom) *geos.Geom) (out []Area, err error) {
	defer caught(&err)
	c := geos.NewContext()
	return areas(by(polygons(c, a), polygons(c, b))), nil
}

func polygons(c *geos.Context, list []Area) *geos.Geom {
	all := make([]*geos.Geom, len(list))
	for i, a := range list {
		rings := [][][]float64{coords(a.Outer, true)}
		for _, h := range a.Holes {
			rings = append(rings, coords(h, true))
		}
		all[i] = c.NewPolygon(rings)
	}
	return c.NewCollection(geos.TypeIDMultiPolygon, all)
}

// Overlap tells whether two lines that cross themselves nowhere bound places in common, beyond what is less than so thin.
func Overlap(a, b []geom.Point, thin int64) (over bool, err error) {
	err = Done(func() error {
		w := Begin()
		over = !w.Union([][]geom.Point{a}).Grown(-thin, thin).Within(w.Union([][]geom.Point{b})).Empty()
		return nil
	})
	return over, err
}
