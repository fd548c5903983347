// Package route lays tracks by hand: the way from a start to the hand at the corner style
// in use, cut short before it would come nearer to foreign copper, a hole or the edge than
// the rules allow. Lengths are nanometres.
package route

import (
	"fmt"
	"iter"
	"math"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
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
	Rules *rules.Set
	// Laid is copper that the command at work has laid already; the index does not have it yet.
	Laid []*layout.Copper
}

// near gives the copper whose box meets the box, laid by now or before.
func (f Field) near(b geom.Box) iter.Seq[*layout.Copper] {
	return func(yield func(*layout.Copper) bool) {
		for _, c := range f.Laid {
			if c.Box().Meets(b) && !yield(c) {
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
func (f Field) PlatedAt(at geom.Point, net design.ID, layers uint32) bool {
	for c := range f.near(geom.BoxOf(at)) {
		if c.Hole > 0 && !c.Bare && c.Net == net && c.Layers&layers == layers && c.Shape.Holds(at) {
			return true
		}
	}
	return false
}

// Wish is what somebody wants to lay: copper of a net on the layers of a mask, and, for a via, its hole.
type Wish struct {
	Shape  geom.Shape
	Layers uint32
	Net    design.ID
	Thing  design.Thing
	Hole   int64          // in the middle of the shape; 0: none
	Other  []layout.Level // layers on which the shape is another
}

// levels are the shapes on layers of a mask.
func (w Wish) levels(layers uint32) []layout.Level {
	return (&layout.Copper{Layers: w.Layers, Shape: w.Shape, Other: w.Other}).Levels(layers)
}

// ClearOf tells whether a piece may lie where it is, as Clear.
func (f Field) ClearOf(c *layout.Copper) *Obstacle {
	return f.Clear(Wish{Shape: c.Shape, Layers: c.Layers, Net: c.Net, Thing: c.Thing, Hole: c.Hole, Other: c.Other})
}

// ViaSize is the diameter and the hole that the rules give to a new via.
func (f Field) ViaSize(at geom.Point, net design.ID) (diameter, hole int64) {
	w := Wish{Shape: geom.Disc(at, 0), Layers: 1<<f.Doc.Board.Layers() - 1, Net: net, Thing: design.AVia}
	return f.Usual(design.ViaDiameter, w), f.Usual(design.ViaHole, w)
}

// Via is what a through via of the rules' size would be.
func (f Field) Via(at geom.Point, net design.ID) Wish {
	diameter, hole := f.ViaSize(at, net)
	return Wish{Shape: geom.Disc(at, diameter/2), Layers: 1<<f.Doc.Board.Layers() - 1, Net: net, Thing: design.AVia, Hole: hole}
}

// Clear tells whether a wish may be; nil when it may, else the obstacle it comes nearest to in
// proportion to what is required.
func (f Field) Clear(w Wish) *Obstacle {
	var worst *Obstacle
	note := func(o Obstacle) {
		if worst == nil || o.Measured-o.Required < worst.Measured-worst.Required {
			worst = &o
		}
	}
	who := rules.Subject{Net: w.Net, Thing: w.Thing}
	lowest := bits.TrailingZeros32(w.Layers)
	box := (&layout.Copper{Shape: w.Shape, Other: w.Other}).Box()
	for c := range f.near(box.Grow(f.Rules.Reach(w.Layers))) {
		other := c.Subject()
		if w.Hole > 0 && c.Hole > 0 {
			gap, p, _ := geom.Gap(geom.Disc(w.Shape.Pts[0], w.Hole/2), c.Bore())
			if need := f.Rules.Between(design.HoleClearance, who, other, lowest, p).Of(0); geom.Short(gap, need) {
				note(Obstacle{"the hole of " + c.Name, f.Doc.NetName(c.Net), p, geom.Measured(gap), need})
			}
		}
		if !c.Bare && (c.Net == w.Net && w.Net != 0 || c.Layers&w.Layers == 0) {
			continue
		}
		for _, own := range w.levels(c.Layers) {
			for _, level := range c.Levels(own.Layers) {
				gap, q, p := geom.Gap(own.Shape, level.Shape)
				if need := f.need(who, c, other, level.Layers, q.Towards(p, 0.5)); geom.Short(gap, need) {
					note(Obstacle{c.Name, f.Doc.NetName(c.Net), p, geom.Measured(gap), need})
				}
			}
		}
	}
	for i := range f.Index.KeepOuts() {
		k := &f.Index.KeepOuts()[i]
		if at, bars := k.Bars(w.Thing, w.Layers, w.Shape); bars {
			note(Obstacle{Name: "the area " + k.Name, At: at, Measured: -w.Shape.R, Required: 0})
		}
	}
	need := f.asked(design.EdgeClearance, w.Layers, func(layer int) *rules.Ruling { return f.Rules.For(design.EdgeClearance, who, layer, w.Shape.Pts[0]) })
	if gap, at, near := f.Index.Edge().Gap(w.Shape, need); near && geom.Short(float64(geom.Measured(gap)), need) {
		note(Obstacle{"the board's edge", "", at, geom.Measured(gap), need})
	}
	return worst
}

// need is the clearance that is asked for to a piece on the layers of a mask.
func (f Field) need(who rules.Subject, c *layout.Copper, other rules.Subject, layers uint32, at geom.Point) int64 {
	if c.Bare {
		return f.asked(design.EdgeClearance, layers, func(layer int) *rules.Ruling { return f.Rules.For(design.EdgeClearance, who, layer, at) })
	}
	return f.asked(design.Clearance, layers, func(layer int) *rules.Ruling { return f.Rules.Between(design.Clearance, who, other, layer, at) })
}

// asked is the most that is asked for on the layers of a mask.
func (f Field) asked(k design.RuleKind, layers uint32, on func(layer int) *rules.Ruling) (most int64) {
	if !f.Rules.Layered(k) {
		return on(bits.TrailingZeros32(layers)).Of(0)
	}
	for ; layers != 0; layers &= layers - 1 {
		most = max(most, on(bits.TrailingZeros32(layers)).Of(0))
	}
	return most
}

// Usual is the width, or the size, that a kind of rule gives to what is new.
func (f Field) Usual(k design.RuleKind, w Wish) int64 {
	return f.Rules.For(k, rules.Subject{Net: w.Net, Thing: w.Thing}, bits.TrailingZeros32(w.Layers), w.Shape.Pts[0]).Of(0)
}

// Probe is the answer while a track is being drawn.
type Probe struct {
	Width     int64        `json:"width"`     // of the track
	Clearance int64        `json:"clearance"` // that its net keeps to others at the path's end
	ViaSize   int64        `json:"viaSize"`   // diameter of the via that a hop would make
	ViaHole   int64        `json:"viaHole"`
	Path      []geom.Point `json:"path"`              // what may be laid, from the start
	Blocked   *Obstacle    `json:"blocked,omitempty"` // why it ends before the hand
	Rest      []geom.Point `json:"rest,omitempty"`    // from there to the hand, not allowed
	Length    int64        `json:"length"`
	Via       string       `json:"via,omitempty"` // why a hop at the path's end is not possible; empty when it is
}

// Draw finds how far a track of the net may go from a to b. Each piece is tried whole; one
// that may not lie whole is halved until its allowed length is known to a micrometre.
func (f Field) Draw(a, b geom.Point, style Corner, layer int, net design.ID, width int64) Probe {
	way := Path(a, b, style)
	out := Probe{Path: []geom.Point{a}}
	for i := 0; i+1 < len(way); i++ {
		p, q := way[i], way[i+1]
		if o := f.Clear(track(p, q, width, layer, net)); o != nil {
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

func track(p, q geom.Point, width int64, layer int, net design.ID) Wish {
	return Wish{Shape: geom.Stroke(p, q, width), Layers: 1 << layer, Net: net, Thing: design.ATrack}
}

func (f Field) furthest(p, q geom.Point, layer int, net design.ID, width int64) geom.Point {
	lo, hi := 0.0, 1.0
	total := p.Dist(q)
	for (hi-lo)*total > 1000 {
		mid := (lo + hi) / 2
		if f.Clear(track(p, p.Towards(q, mid), width, layer, net)) == nil {
			lo = mid
		} else {
			hi = mid
		}
	}
	end := p.Towards(q, lo)
	if lo == 0 || f.Clear(track(p, end, width, layer, net)) != nil {
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
