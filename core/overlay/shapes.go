package overlay

import (
	"math"

	"github.com/twpayne/go-geos"

	"goldentrace/core/geom"
)

// Shapes is the set of places that shapes cover; the chords of round sides stray by less than the tolerance. A line that meets itself
// bounds what it goes around, as one that is cut to its holes does.
func (w *Work) Shapes(list []geom.Shape, tolerance int64) Set {
	var all []*geos.Geom
	for _, s := range list {
		if g := w.shape(s, tolerance); g != nil && !g.IsEmpty() {
			all = append(all, g)
		}
	}
	if len(all) == 0 {
		return Set{w.c.NewEmptyPolygon()}
	}
	return Set{w.c.NewCollection(geos.TypeIDGeometryCollection, all).UnaryUnion()}
}

// shape is one shape; nil: it covers nothing.
func (w *Work) shape(s geom.Shape, tolerance int64) *geos.Geom {
	line := s.Pts
	if s.Mids != nil {
		line = s.Edges().Flat(tolerance, false)
		if !s.Area {
			line = append(line, s.Pts[len(s.Pts)-1])
		}
	}
	line = distinct(line)
	quarter := quarterOf(math.Max(float64(s.R), 1), tolerance)
	switch {
	case len(line) == 0 || s.R <= 0 && !s.Area:
		return nil
	case len(line) == 1:
		return w.c.NewPolygon([][][]float64{disc(line[0], s.R, 4*quarter)})
	case s.Area && len(line) > 2:
		g := w.c.NewPolygon([][][]float64{coords(line, true)})
		if !g.IsValid() {
			g = g.MakeValid()
		}
		if s.R > 0 {
			g = g.Buffer(float64(s.R), quarter)
		}
		return g
	case s.R <= 0:
		return nil
	case len(line) == 2:
		return w.c.NewPolygon([][][]float64{stroke(line[0], line[1], s.R, 2*quarter)})
	}
	return w.c.NewLineString(coords(line, false)).Buffer(float64(s.R), quarter)
}

// Round is the line around a disc or a straight stroke, anticlockwise.
func Round(s geom.Shape, tolerance int64) (out []geom.Point) {
	n := 4 * quarterOf(math.Max(float64(s.R), 1), tolerance)
	line := disc(s.Pts[0], s.R, n)
	if len(s.Pts) > 1 && s.Pts[0] != s.Pts[1] {
		line = stroke(s.Pts[0], s.Pts[1], s.R, n/2)
	}
	for _, c := range line {
		out = append(out, geom.Pt(int64(c[0]), int64(c[1])))
	}
	return distinct(out)
}

// disc is a closed line of n chords of a circle.
func disc(at geom.Point, r int64, n int) [][]float64 {
	out := make([][]float64, 0, n+1)
	for i := range n {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / float64(n))
		out = append(out, []float64{math.Round(float64(at.X) + float64(r)*cos), math.Round(float64(at.Y) + float64(r)*sin)})
	}
	return append(out, out[0])
}
