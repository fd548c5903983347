// Package layout knows where the copper, holes and outlines of a board lie, what is joined
// by copper and what is yet to be (open links), and what carrying the circuit over to the
// board would change. Lengths are nanometres; copper layers count from 0 at the top.
package layout

import (
	"fmt"
	"math"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/rules"
)

// Copper is one piece of copper or one hole on the board.
type Copper struct {
	ID     design.ID // of the track, via, hole or placed part
	Pad    int       // index of the pad in its footprint; −1: none, lower: further pieces of one drawing
	Number string    // of the pad
	Kind   string    // track, pad, via, hole, figure
	Thing  design.Thing
	Net    design.ID // 0: none
	Layers uint32    // bit i: present on copper layer i
	Shape  geom.Shape
	Other  []Level    // layers on which the shape is another
	At     geom.Point // middle of the pad, via or hole
	Hole   int64      // drill diameter, 0 for none
	Drill  geom.Point // middle of the hole, or where its slot begins
	Slot   geom.Point // the way the middle of a slot goes
	Bare   bool       // a hole without plating: no copper at all
	Laser  bool       // the hole is made by a laser
	Name   string     // how people call it: "pad R1.2", "via", "track"
}

// Level is the shape of a piece on some of its layers.
type Level struct {
	Layers uint32
	Shape  geom.Shape
}

// On is the piece's shape on a copper layer.
func (c *Copper) On(layer int) geom.Shape {
	for _, l := range c.Other {
		if l.Layers&(1<<layer) != 0 {
			return l.Shape
		}
	}
	return c.Shape
}

// Has tells whether the piece is on the copper layer.
func (c *Copper) Has(layer int) bool { return c.Layers&(1<<layer) != 0 }

// Box around the piece on all its layers.
func (c *Copper) Box() geom.Box {
	b := c.Shape.Box()
	for _, l := range c.Other {
		b = b.Union(l.Shape.Box())
	}
	return b
}

// Levels are the piece's shapes on the layers of the mask, each with those of them it has it on.
func (c *Copper) Levels(layers uint32) []Level {
	layers &= c.Layers
	var out []Level
	for _, l := range c.Other {
		if on := l.Layers & layers; on != 0 {
			out = append(out, Level{on, l.Shape})
			layers &^= on
		}
	}
	if layers != 0 {
		out = append(out, Level{layers, c.Shape})
	}
	return out
}

// Bore is the hole's shape.
func (c *Copper) Bore() geom.Shape {
	if c.Slot == (geom.Point{}) {
		return geom.Disc(c.Drill, c.Hole/2)
	}
	return geom.Stroke(c.Drill, c.Drill.Add(c.Slot), c.Hole)
}

// Subject of rules that the piece is.
func (c *Copper) Subject() rules.Subject {
	s := rules.Subject{Net: c.Net, Thing: c.Thing}
	if c.Pad >= 0 {
		s.Part = c.ID
	}
	return s
}

// Stacked tells whether a hole on the layers of one mask stands on one of another mask, or below it, in the same place: the one layer
// that both have is where they meet. All other holes that share a layer have to keep apart.
func Stacked(a, b uint32, at, other geom.Point) bool {
	return at == other && bits.OnesCount32(a&b) == 1 && bits.OnesCount32(a) > 1 && bits.OnesCount32(b) > 1
}

// Gap is the least distance of two pieces on the layers both have, as geom.Gap; layer is where, −1 when
// they share none.
func Gap(a, b *Copper) (gap float64, pa, pb geom.Point, layer int) {
	gap, layer = math.Inf(1), -1
	common := a.Layers & b.Layers
	for _, x := range a.Levels(common) {
		for _, y := range b.Levels(x.Layers) {
			if g, p, q := geom.Gap(x.Shape, y.Shape); g < gap {
				gap, pa, pb, layer = g, p, q, bits.TrailingZeros32(x.Layers&y.Layers)
			}
		}
	}
	return gap, pa, pb, layer
}

// Ref tells a piece of copper from every other.
type Ref struct {
	ID  design.ID
	Pad int
}

// Ref of the piece.
func (c *Copper) Ref() Ref { return Ref{c.ID, c.Pad} }

// PadShape is the copper of a pad in the footprint's own coordinates.
func PadShape(p *design.Pad) geom.Shape { return ShapeOf(p.Shape(), p.Pose()) }

// ShapeOf is a pad's shape at its place.
func ShapeOf(p design.PadShape, t geom.Pose) geom.Shape {
	w, h := p.Size.X/2, p.Size.Y/2
	r := int64(0)
	switch p.Form {
	case design.Round, design.Oval:
		r = min(w, h)
	case design.Rounded:
		r = p.Corner
	case design.Chamfered:
		return geom.Shape{Pts: chamfered(w, h, p.Corner, p.Cut), Area: true}.Moved(t)
	case design.Free:
		return geom.Within(p.Edge).Moved(t)
	}
	w, h = w-r, h-r
	var pts []geom.Point
	switch {
	case w == 0 && h == 0:
		pts = []geom.Point{{}}
	case h == 0:
		pts = []geom.Point{{X: -w}, {X: w}}
	case w == 0:
		pts = []geom.Point{{Y: -h}, {Y: h}}
	default:
		pts = []geom.Point{{X: -w, Y: -h}, {X: w, Y: -h}, {X: w, Y: h}, {X: -w, Y: h}}
	}
	return geom.Shape{Pts: pts, Area: len(pts) > 2, R: r}.Moved(t)
}

// chamfered is a rectangle of the half sides with what is cut off at its corners.
func chamfered(w, h, c int64, cut int) []geom.Point {
	if cut == 0 {
		cut = 15
	}
	var out []geom.Point
	for i, q := range []struct{ bit, x, y int64 }{{4, -1, -1}, {8, 1, -1}, {1, 1, 1}, {2, -1, 1}} { // anticlockwise from left below
		at := geom.Pt(q.x*w, q.y*h)
		if int64(cut)&q.bit == 0 {
			out = append(out, at)
			continue
		}
		along, up := geom.Pt(at.X-q.x*c, at.Y), geom.Pt(at.X, at.Y-q.y*c)
		if i%2 == 0 {
			along, up = up, along
		}
		out = append(out, along, up)
	}
	return out
}

// groups are the masks of the layers near, between and far, for a part on a side of a board of so
// many copper layers.
func groups(layers int, bottom bool) map[string]uint32 {
	all, top, low := uint32(1)<<layers-1, uint32(1), uint32(1)<<(layers-1)
	if bottom {
		top, low = low, top
	}
	return map[string]uint32{design.Near: top, design.Far: low, design.Inner: all &^ top &^ low}
}

// PiecesOf lists the copper and holes of an object, given how many copper layers the board
// has. Objects without copper have none.
func PiecesOf(d *design.Doc, o design.Object) []*Copper {
	layers := d.Board.Layers()
	all := uint32(1)<<layers - 1
	switch o := o.(type) {
	case *design.Track:
		return []*Copper{{ID: o.ID, Pad: -1, Kind: "track", Thing: design.ATrack, Net: o.Net, Layers: 1 << d.Board.Position(o.Layer), Shape: geom.Bow(o.Piece(), o.Width), At: o.A, Name: "track"}}
	case *design.Via:
		return []*Copper{viaCopper(d.Board, o)}
	case *design.Hole:
		c := &Copper{ID: o.ID, Pad: -1, Kind: "hole", Thing: design.UnplatedOne, Layers: all, Shape: geom.Disc(o.At, o.Room()), At: o.At, Hole: o.Diameter, Drill: o.At, Bare: true, Name: "hole"}
		if o.Land > 0 {
			c.Thing, c.Bare, c.Name = design.ThroughPad, false, "plated hole"
		}
		return []*Copper{c}
	case *design.Legend:
		if o.On == design.OnCopper {
			return drawnCopper(d, o, o.Layer, "copper text")
		}
	case *design.BoardFigure:
		if o.On == design.OnCopper {
			if o.Fiducial > 0 {
				out := drawnCopper(d, o, o.Layer, "fiducial")
				for _, c := range out {
					c.Thing = design.AFiducial
				}
				return out
			}
			return drawnCopper(d, o, o.Layer, "copper figure")
		}
	case *design.Placed:
		f := d.Footprint(o.Footprint)
		if f == nil {
			return nil
		}
		out := make([]*Copper, 0, len(f.Pads))
		for i := range f.Pads {
			out = append(out, padCopper(&f.Pads[i], i, o, layers))
		}
		return out
	}
	return nil
}

// drawnCopper are the pieces of a text or figure of copper.
func drawnCopper(d *design.Doc, o design.Object, layer design.LayerID, name string) (out []*Copper) {
	for i, s := range PrintOf(d, o, 0).Shapes() {
		out = append(out, &Copper{ID: o.ObjectID(), Pad: -1 - i, Kind: "figure", Thing: design.AFigure, Layers: 1 << d.Board.Position(layer), Shape: s, At: s.Box().Centre(), Name: name})
	}
	return out
}

func viaCopper(b *design.Board, v *design.Via) *Copper {
	c := &Copper{ID: v.ID, Pad: -1, Kind: "via", Thing: design.AVia, Net: v.Net, Shape: geom.Disc(v.At, v.Diameter/2), At: v.At, Hole: v.Hole, Drill: v.At, Laser: v.Kind == design.Lasered, Name: "via"}
	for i := b.Position(v.From); i <= b.Position(v.To); i++ {
		c.Layers |= 1 << i
	}
	for _, p := range v.Pads {
		if i := b.Position(p.Layer); i >= 0 && c.Has(i) {
			c.Other = append(c.Other, Level{1 << i, geom.Disc(v.At, v.On(p.Layer)/2)})
		}
	}
	return c
}

func padCopper(p *design.Pad, i int, o *design.Placed, layers int) *Copper {
	t := o.Pose()
	own := p.Pose()
	at := func(s design.PadShape) geom.Shape { return ShapeOf(s, own).Moved(t) }
	c := &Copper{ID: o.ID, Pad: i, Number: p.Number, Kind: "pad", Thing: design.ThroughPad, Net: o.Nets[p.Number], At: t.Apply(p.At), Hole: p.Hole,
		Name: fmt.Sprintf("pad %s.%s", o.Designator, p.Number), Layers: uint32(1)<<layers - 1}
	if p.Hole > 0 {
		drill := own.Apply(p.HoleAt)
		c.Drill = t.Apply(drill)
		if p.Slot != (geom.Point{}) {
			c.Slot = t.Apply(own.Apply(p.HoleAt.Add(p.Slot))).Sub(c.Drill)
		}
	}
	where := groups(layers, o.Bottom)
	switch {
	case p.Hole > 0 && p.Bare:
		c.Bare, c.Kind, c.Thing, c.Net, c.Shape = true, "hole", design.UnplatedOne, 0, c.Bore()
		return c
	case p.Hole > 0:
	case p.Far:
		c.Thing, c.Layers = design.SurfacePad, where[design.Far]
	default:
		c.Thing, c.Layers = design.SurfacePad, where[design.Near]
	}
	c.Shape = at(p.Shape())
	for _, group := range design.LayerGroups {
		if s, ok := p.On[group]; ok && c.Layers&where[group] != 0 {
			if c.Layers&^where[group] == 0 {
				c.Shape = at(s)
				continue
			}
			c.Other = append(c.Other, Level{c.Layers & where[group], at(s)})
		}
	}
	return c
}
