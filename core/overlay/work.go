package overlay

import (
	"math"

	"github.com/twpayne/go-geos"

	"goldentrace/core/geom"
)

// Work is a run of steps on sets of places. It belongs to one goroutine.
type Work struct{ c *geos.Context }

// Set is a set of places in the plane, as one step of a work leaves it for the next.
type Set struct{ g *geos.Geom }

// Begin begins a work.
func Begin() *Work { return &Work{geos.NewContext()} }

// Done calls f and makes an error of what the library throws while it works.
func Done(f func() error) (err error) {
	defer caught(&err)
	return f()
}

// Box is all that a box bounds.
func (w *Work) Box(b geom.Box) Set {
	return Set{w.c.NewGeomFromBounds(float64(b.Min.X), float64(b.Min.Y), float64(b.Max.X), float64(b.Max.Y))}
}

// Union is what any of several lines bounds; each crosses itself nowhere.
func (w *Work) Union(rings [][]geom.Point) Set {
	all := make([]*geos.Geom, 0, len(rings))
	for _, r := range rings {
		if len(r) > 2 { // what is less bounds nothing
			all = append(all, w.c.NewPolygon([][][]float64{coords(r, true)}))
		}
	}
	if len(all) == 0 {
		return Set{w.c.NewEmptyPolygon()}
	}
	if len(all) == 1 {
		return Set{all[0]}
	}
	return Set{w.c.NewCollection(geos.TypeIDMultiPolygon, all).UnaryUnion()}
}

// Areas is the set of places of areas.
func (w *Work) Areas(list []Area) Set { return Set{polygons(w.c, list)} }

// Joined are the areas of several lists that meet nowhere but along their edges, as one.
func (w *Work) Joined(list []Area) Set { return Set{polygons(w.c, list).UnaryUnionPrec(1)} }

// Without are the places that the other set has not.
func (s Set) Without(other Set) Set { return Set{s.g.Difference(other.g)} }

// Within are the places that both have.
func (s Set) Within(other Set) Set { return Set{s.g.Intersection(other.g)} }

// And are the places that either has.
func (s Set) And(other Set) Set { return Set{s.g.Union(other.g)} }

// Clipped are the places within a box, their lines led over whole nanometres.
func (w *Work) Clipped(s Set, b geom.Box) Set { return Set{s.g.IntersectionPrec(w.Box(b).g, 1)} }

// Grown are the places within a distance of the set, or, below zero, those that are as far within it; the chords of round corners stray by less
// than the tolerance. What bends by less than a hundredth of the distance may be drawn straight.
func (s Set) Grown(r, tolerance int64) Set {
	return Set{s.g.Buffer(float64(r), quarterOf(math.Abs(float64(r)), tolerance))}
}

// sharpest is how far beyond a corner the set is grown at most where it is to stay sharp, as a multiple of the distance: corners of 39° and more do.
const sharpest = 3

// Thin are the pieces of the set that are narrower than the width everywhere: necks between wider parts, tongues, tips of sharp corners. What
// is less wide than the tolerance is none, nor what is shorter than the width, such as the step where two edges are joined.
//
// Source: opening by a disc (Serra, Image Analysis and Mathematical Morphology, 1982), with corners kept sharp as they are grown back.
func (s Set) Thin(width, tolerance int64) []Area {
	r := float64(width) / 2
	wide := s.g.Buffer(-r, quarterOf(r, tolerance)).BufferWithStyle(r+float64(tolerance), quarterOf(r, tolerance), geos.BufCapStyleRound,
		geos.BufJoinStyleMitre, sharpest)
	var out []Area
	c := geos.NewContext()
	for _, a := range areas(s.g.DifferencePrec(wide, 1)) {
		if p := polygons(c, []Area{a}); p.Length() >= 2*float64(width) && !(Set{p}).Grown(-tolerance, tolerance).Empty() {
			out = append(out, a)
		}
	}
	return out
}

// Widest is how wide the set is at most: the diameter of the largest disc within it, to a micrometre.
func (s Set) Widest() int64 {
	return int64(math.Round(2 * s.g.MaximumInscribedCircle(500).Length()))
}

// Plain tells whether any area of the set has an outer line of fewer than n places, the first not counted again at its end.
func (s Set) Plain(n int) bool {
	for i := range s.g.NumGeometries() {
		if g := s.g.Geometry(i); g.TypeID() == geos.TypeIDPolygon && !g.IsEmpty() && g.ExteriorRing().NumPoints() <= n {
			return true
		}
	}
	return false
}

// Empty tells whether it has no place.
func (s Set) Empty() bool { return s.g.IsEmpty() }

// List are the areas that make the set, in a settled order.
func (s Set) List() []Area { return areas(s.g) }

// Whole is a set made ready for being asked what it covers.
type Whole struct {
	w *Work
	p *geos.PrepGeom
}

// AskSet makes a set ready.
func (w *Work) AskSet(s Set) Whole { return Whole{w, s.g.Prepare()} }

// Covers tells whether all that a line bounds lies within the set.
func (a Whole) Covers(ring []geom.Point) bool {
	return a.p.Covers(a.w.c.NewPolygon([][][]float64{coords(ring, true)}))
}

// Asked is a set made ready for many questions.
type Asked struct {
	w *Work
	p *geos.PrepGeom
}

// Ask makes an area ready.
func (w *Work) Ask(a Area) Asked { return Asked{w, polygons(w.c, []Area{a}).Prepare()} }

// Meets tells whether the area has a place within a line that crosses itself nowhere, or on it.
func (a Asked) Meets(ring []geom.Point) bool {
	switch len(ring) {
	case 0:
		return false
	case 1:
		return a.p.Intersects(a.w.c.NewPoint([]float64{float64(ring[0].X), float64(ring[0].Y)}))
	case 2:
		return a.p.Intersects(a.w.c.NewLineString(coords(ring, false)))
	}
	return a.p.Intersects(a.w.c.NewPolygon([][][]float64{coords(ring, true)}))
}
