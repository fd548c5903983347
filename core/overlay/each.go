package overlay

import (
	"context"
	"math"

	"github.com/tidwall/rtree"
	"github.com/twpayne/go-geos"

	"goldentrace/core/geom"
)

// Cut is what is left of shapes and areas: within others where there are any, and not where what is left out is.
type Cut struct {
	Shapes    []geom.Shape
	Areas     []Area
	Within    []geom.Shape // nil: everywhere
	Without   []geom.Shape
	Tolerance int64 // chords of round sides stray by less
}

// One is all of it as areas that meet nowhere, in a settled order. The context is looked at between its steps.
func (c *Cut) One(ctx context.Context) (out []Area, err error) {
	err = Done(func() error {
		w := Begin()
		set := w.Shapes(c.Shapes, c.Tolerance)
		if err := ctx.Err(); err != nil {
			return err
		}
		if len(c.Areas) > 0 {
			set = set.And(w.Joined(c.Areas))
		}
		if c.Within != nil {
			set = set.Within(w.Shapes(c.Within, c.Tolerance))
		}
		if err := ctx.Err(); err != nil {
			return err
		}
		if len(c.Without) > 0 {
			set = set.Without(w.Shapes(c.Without, c.Tolerance))
		}
		out = set.List()
		return ctx.Err()
	})
	return out, err
}

// Each is what is left of each shape and each area by itself; they may lie over one another. What nothing cuts costs nothing.
func (c *Cut) Each(ctx context.Context) (out []Area, err error) {
	err = Done(func() error {
		w := &cutter{Work: Begin(), within: c.Within != nil}
		w.in, w.off = w.index(c.Within, c.Tolerance), w.index(c.Without, c.Tolerance)
		for _, s := range c.Shapes {
			if err := ctx.Err(); err != nil {
				return err
			}
			out = append(out, w.cut(w.shape(s, c.Tolerance))...)
		}
		for _, a := range c.Areas {
			if err := ctx.Err(); err != nil {
				return err
			}
			out = append(out, w.cut(polygons(w.c, []Area{a}))...)
		}
		return nil
	})
	return out, err
}

// cutter cuts many shapes by others that lie near.
type cutter struct {
	*Work
	within  bool
	in, off *rtree.RTreeG[*blade]
}

// blade is a shape that others are cut by.
type blade struct {
	g        *geos.Geom
	prepared *geos.PrepGeom
}

func (w *cutter) index(list []geom.Shape, tolerance int64) *rtree.RTreeG[*blade] {
	var t rtree.RTreeG[*blade]
	for _, s := range list {
		if g := w.shape(s, tolerance); g != nil && !g.IsEmpty() {
			lo, hi := bounds(g)
			t.Insert(lo, hi, &blade{g: g})
		}
	}
	return &t
}

func bounds(g *geos.Geom) (lo, hi [2]float64) {
	b := g.Bounds()
	return [2]float64{b.MinX, b.MinY}, [2]float64{b.MaxX, b.MaxY}
}

// near are the blades whose box meets that of a shape.
func near(t *rtree.RTreeG[*blade], g *geos.Geom) (out []*geos.Geom, all bool) {
	lo, hi := bounds(g)
	t.Search(lo, hi, func(_, _ [2]float64, b *blade) bool {
		if b.prepared == nil {
			b.prepared = b.g.Prepare()
		}
		if b.prepared.Contains(g) {
			all = true
			return false
		}
		if b.prepared.Intersects(g) {
			out = append(out, b.g)
		}
		return true
	})
	return out, all
}

func (w *cutter) cut(g *geos.Geom) []Area {
	if g == nil || g.IsEmpty() {
		return nil
	}
	if w.within {
		list, all := near(w.in, g)
		switch {
		case all:
		case len(list) == 0:
			return nil
		default:
			g = g.IntersectionPrec(w.joined(list), 1)
		}
	}
	if g.IsEmpty() {
		return nil
	}
	list, all := near(w.off, g)
	if all {
		return nil
	}
	if len(list) > 0 {
		g = g.DifferencePrec(w.joined(list), 1)
	}
	return areas(g)
}

func (w *cutter) joined(list []*geos.Geom) *geos.Geom {
	if len(list) == 1 {
		return list[0]
	}
	copies := make([]*geos.Geom, len(list))
	for i, g := range list {
		copies[i] = g.Clone()
	}
	return w.c.NewCollection(geos.TypeIDGeometryCollection, copies).UnaryUnion()
}

// stroke is what a round pen covers along a line.
func stroke(a, b geom.Point, r int64, half int) [][]float64 {
	first := math.Atan2(float64(b.Y-a.Y), float64(b.X-a.X)) - math.Pi/2
	out := make([][]float64, 0, 2*half+3)
	for k, at := range []geom.Point{b, a} {
		for i := range half + 1 {
			sin, cos := math.Sincos(first + math.Pi*(float64(k)+float64(i)/float64(half)))
			out = append(out, []float64{math.Round(float64(at.X) + cos*float64(r)), math.Round(float64(at.Y) + sin*float64(r))})
		}
	}
	return append(out, out[0])
}
