package layout

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Body is a piece of a part's body as it stands on the board: all over an area from one height to another, above the face that the part is
// on, in nanometres. What reaches below zero goes into the board, or through it.
type Body struct {
	Edge     []geom.Point
	From, To int64
	Material string // "": its file says
}

// chordOfBody is how far the straight sides of a body may stray from its round ones.
const chordOfBody = 10_000

// roundSides is how many sides stand for the circle of a ball or a rod's end.
const roundSides = 16

// BodiesOf are the pieces of a part's body; none: its footprint says nothing of it. Of a body from a file the room that it takes is known alone.
func BodiesOf(d *design.Doc, p *design.Placed) []Body {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return nil
	}
	return PlacedBodies(PatternBodies(d, f), p)
}

// PlacedBodies are a footprint's bodies as they stand with a part.
func PlacedBodies(list []Body, p *design.Placed) []Body {
	t := p.Pose()
	out := make([]Body, len(list))
	for i, b := range list {
		out[i] = Body{t.ApplyAll(b.Edge), b.From, b.To, b.Material}
	}
	return out
}

// PatternBodies are the pieces of the body of a footprint, in its own frame.
func PatternBodies(d *design.Doc, f *design.Footprint) (out []Body) {
	if a := d.Assets[f.Model]; a != nil && f.Model != 0 {
		if r := a.Reach; r != nil {
			edge := []geom.Point{r.Min, geom.Pt(r.Max.X, r.Min.Y), r.Max, geom.Pt(r.Min.X, r.Max.Y)}
			out = append(out, Body{edge, r.From, r.To, ""})
		}
		return out
	}
	for i := range f.Solids {
		s := &f.Solids[i]
		var edge []geom.Point
		switch s.Form {
		case design.Prism:
			edge = geom.Closing(s.Edge).Flat(chordOfBody, false)
		case design.Ball:
			edge = around(s.A, float64(s.To-s.From)/2)
		default:
			edge = rodFromAbove(s.A, s.B, float64(s.To-s.From)/2)
		}
		out = append(out, Body{edge, s.From, s.To, s.Material})
	}
	return out
}

// around is a circle's many-sided stand-in, which holds it.
func around(at geom.Point, r float64) (out []geom.Point) {
	r /= math.Cos(math.Pi / roundSides)
	for i := range roundSides {
		sin, cos := math.Sincos(2 * math.Pi * (float64(i) + 0.5) / roundSides)
		out = append(out, at.Add(geom.Pt(int64(math.Round(r*cos)), int64(math.Round(r*sin)))))
	}
	return out
}

// rodFromAbove is what a lying rod of a radius covers.
func rodFromAbove(a, b geom.Point, r float64) []geom.Point {
	far := a.Dist(b)
	if far == 0 {
		return around(a, r)
	}
	side := geom.Pt(int64(math.Round(-float64(b.Y-a.Y)/far*r)), int64(math.Round(float64(b.X-a.X)/far*r)))
	return []geom.Point{a.Add(side), a.Sub(side), b.Sub(side), b.Add(side)}
}

// Heights are how high a part reaches above its face of the board, and how far beyond the other face; 0: it does not, or nothing is known.
func Heights(d *design.Doc, p *design.Placed) (above, beyond int64) {
	thick := d.Board.Thickness()
	take := func(from, to int64) { above, beyond = max(above, to), max(beyond, -from-thick) }
	f := d.Footprint(p.Footprint)
	if f == nil {
		return 0, 0
	}
	if a := d.Assets[f.Model]; a != nil && f.Model != 0 {
		if a.Reach != nil {
			take(a.Reach.From, a.Reach.To)
		}
		return above, beyond
	}
	for i := range f.Solids {
		take(f.Solids[i].From, f.Solids[i].To)
	}
	return above, beyond
}

// Overhang is how far a part's body reaches beyond the board's outline; 0: it does not, or nothing is known.
func Overhang(d *design.Doc, p *design.Placed) (far int64) {
	outline := d.Board.Region().Outer
	if len(outline) == 0 {
		return 0
	}
	edge := outline.Filled()
	for _, b := range BodiesOf(d, p) {
		for i, at := range b.Edge {
			next := b.Edge[(i+1)%len(b.Edge)]
			for _, q := range []geom.Point{at, geom.Pt((at.X+next.X)/2, (at.Y+next.Y)/2)} {
				gap, _, _ := geom.Gap(geom.Disc(q, 0), edge)
				far = max(far, int64(math.Round(gap)))
			}
		}
	}
	return far
}
