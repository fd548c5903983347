// Package route lays tracks by hand: the way from a start to the hand at the corner style
// in use, cut short before it would come nearer to foreign copper, a hole or the edge than
// the rules allow. Lengths are nanometres.
package route

import (
	"fmt"
	"iter"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// Corner says how a track turns between two places.
type Corner string

// Corner styles: with one 45° elbow, the diagonal last or first; one square elbow; none.
const (
	StraightFirst Corner = "straightFirst"
	DiagonalFirst Corner = "diagonalFirst"
	Square        Corner = "square"
	Free          Corner = "free"
)

// Path is the way from a to b in the corner style, both included.
func Path(a, b geom.Point, style Corner) []geom.Point {
	dx, dy := b.X-a.X, b.Y-a.Y
	ax, ay := abs(dx), abs(dy)
	if a == b {
		return []geom.Point{a}
	}
	if style == Free || dx == 0 || dy == 0 || ax == ay && style != Square {
		return []geom.Point{a, b}
	}
	if style == Square {
		return []geom.Point{a, geom.Pt(b.X, a.Y), b}
	}
	diagonal := min(ax, ay)
	step := geom.Pt(sign(dx)*diagonal, sign(dy)*diagonal)
	if style == DiagonalFirst {
		return []geom.Point{a, a.Add(step), b}
	}
	return []geom.Point{a, b.Sub(step), b}
}

func abs(v int64) int64 {
	if v < 0 {
		return -v
	}
	return v
}

func sign(v int64) int64 {
	if v < 0 {
		return -1
	}
	return 1
}

// Obstacle is what a track would come too near to.
type Obstacle struct {
	Name     string     `json:"name"`
	Net      string     `json:"net"`
	At       geom.Point `json:"at"`
	Measured int64      `json:"measured"`
	Required int64      `json:"required"`
}

func (o *Obstacle) Error() string {
	what := o.Name
	if o.Net != "" {
		what += " of " + o.Net
	}
	if o.Measured <= 0 {
		return fmt.Sprintf("this would touch %s", what)
	}
	return fmt.Sprintf("this would come within %s of %s; the rules ask for %s", units.Text(o.Measured), what, units.Text(o.Required))
}

// Field is what a track has to respect.
type Field struct {
	Doc   *design.Doc
	Index *layout.Index
	// Laid is copper that the command at work has laid already; the index does not have it yet.
	Laid []*layout.Copper
}

// near gives the copper whose box meets the box, laid by now or before.
func (f Field) near(b geom.Box) iter.Seq[*layout.Copper] {
	return func(yield func(*layout.Copper) bool) {
		for _, c := range f.Laid {
			if c.Shape.Box().Meets(b) && !yield(c) {
				return
			}
		}
		for c := range f.Index.Near(b) {
			if !yield(c) {
				return
			}
		}
	}
}

// PlatedAt tells whether a plated hole of the net that joins the layers of the mask stands at
// the place, so that a hop there needs no via.
func (f Field) PlatedAt(at geom.Point, net string, layers uint32) bool {
	for c := range f.near(geom.BoxOf(at)) {
		if c.Hole > 0 && !c.Bare && c.Net == net && c.Layers&layers == layers && c.Shape.Holds(at) {
			return true
		}
	}
	return false
}

// Clear tells whether a shape of the net may lie on the copper layers of the mask; nil when
// it may, else the obstacle it comes nearest to in proportion to what is required.
func (f Field) Clear(s geom.Shape, layers uint32, net string, hole int64) *Obstacle {
	r := f.Doc.Board.Rules
	reach := max(r.Clearance, r.EdgeClearance, r.HoleClearance)
	var worst *Obstacle
	note := func(o Obstacle) {
		if worst == nil || o.Measured-o.Required < worst.Measured-worst.Required {
			worst = &o
		}
	}
	for c := range f.near(s.Box().Grow(reach)) {
		if hole > 0 && c.Hole > 0 {
			gap, p, _ := geom.Gap(geom.Disc(s.Pts[0], hole/2), geom.Disc(c.At, c.Hole/2))
			if geom.Short(gap, r.HoleClearance) {
				note(Obstacle{"the hole of " + c.Name, c.Net, p, geom.Measured(gap), r.HoleClearance})
			}
		}
		need := r.Clearance
		switch {
		case c.Bare:
			need = r.EdgeClearance
		case c.Net == net && net != "" || c.Layers&layers == 0:
			continue
		}
		gap, _, p := geom.Gap(s, c.Shape)
		if geom.Short(gap, need) {
			note(Obstacle{c.Name, c.Net, p, geom.Measured(gap), need})
		}
	}
	if o := EdgeGap(f.Doc.Board.Outline, s); o != nil && geom.Short(float64(o.Measured), r.EdgeClearance) {
		o.Required = r.EdgeClearance
		note(*o)
	}
	return worst
}

// EdgeGap is how near a shape comes to the board's edge; below zero outside. Nil without an
// outline.
func EdgeGap(outline []geom.Point, s geom.Shape) *Obstacle {
	if len(outline) < 3 {
		return nil
	}
	best := math.Inf(1)
	var at geom.Point
	for i, a := range outline {
		edge := geom.Shape{Pts: []geom.Point{a, outline[(i+1)%len(outline)]}}
		if g, _, p := geom.Gap(s, edge); g < best {
			best, at = g, p
		}
	}
	if !geom.InPolygon(s.Pts[0], outline) {
		best = -math.Abs(best) - 1
	}
	return &Obstacle{Name: "the board's edge", At: at, Measured: geom.Measured(best)}
}

// Probe is the answer while a track is being drawn.
type Probe struct {
	Path    []geom.Point `json:"path"`              // what may be laid, from the start
	Blocked *Obstacle    `json:"blocked,omitempty"` // why it ends before the hand
	Rest    []geom.Point `json:"rest,omitempty"`    // from there to the hand, not allowed
	Length  int64        `json:"length"`
	Via     string       `json:"via,omitempty"` // why a hop at the path's end is not possible; empty when it is
}

// Draw finds how far a track of the net may go from a to b. Each piece is tried whole; one
// that may not lie whole is halved until its allowed length is known to a micrometre.
func (f Field) Draw(a, b geom.Point, style Corner, layer int, net string, width int64) Probe {
	way := Path(a, b, style)
	out := Probe{Path: []geom.Point{a}}
	for i := 0; i+1 < len(way); i++ {
		p, q := way[i], way[i+1]
		if o := f.Clear(geom.Stroke(p, q, width), 1<<layer, net, 0); o != nil {
			out.Blocked = o
			end := f.furthest(p, q, layer, net, width)
			if end != p {
				out.Path = append(out.Path, end)
			}
			out.Rest = append([]geom.Point{end}, way[i+1:]...)
			break
		}
		out.Path = append(out.Path, q)
	}
	out.Length = Length(out.Path)
	return out
}

func (f Field) furthest(p, q geom.Point, layer int, net string, width int64) geom.Point {
	lo, hi := 0.0, 1.0
	total := p.Dist(q)
	for (hi-lo)*total > 1000 {
		mid := (lo + hi) / 2
		if f.Clear(geom.Stroke(p, p.Towards(q, mid), width), 1<<layer, net, 0) == nil {
			lo = mid
		} else {
			hi = mid
		}
	}
	end := p.Towards(q, lo)
	if lo == 0 || f.Clear(geom.Stroke(p, end, width), 1<<layer, net, 0) != nil {
		return p
	}
	return end
}

// Length of a path in nanometres.
func Length(path []geom.Point) int64 {
	sum := 0.0
	for i := 0; i+1 < len(path); i++ {
		sum += path[i].Dist(path[i+1])
	}
	return int64(math.Round(sum))
}
