// Package layout knows where the copper, holes and outlines of a board lie, what is joined
// by copper and what is yet to be (open links), and what carrying the circuit over to the
// board would change. Lengths are nanometres; copper layers count from 0 at the top.
package layout

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Copper is one piece of copper or one hole on the board.
type Copper struct {
	ID     design.ID // of the track, via, hole or placed part
	Pad    int       // index of the pad in its footprint, or −1
	Number string    // of the pad
	Kind   string    // track, pad, via, hole
	Net    string    // empty: none
	Layers uint32    // bit i: present on copper layer i
	Shape  geom.Shape
	At     geom.Point // middle of the pad, via or hole
	Hole   int64      // drill diameter, 0 for none
	Bare   bool       // a hole without plating: no copper at all
	Name   string     // how people call it: "pad R1.2", "via", "track"
}

// Ref tells a piece of copper from every other.
type Ref struct {
	ID  design.ID
	Pad int
}

// Ref of the piece.
func (c *Copper) Ref() Ref { return Ref{c.ID, c.Pad} }

// On tells whether the piece is on the copper layer.
func (c *Copper) On(layer int) bool { return c.Layers&(1<<layer) != 0 }

// PadShape is the copper of a pad in the footprint's own coordinates.
func PadShape(p *design.Pad) geom.Shape {
	w, h := p.Size.X/2, p.Size.Y/2
	corners := func(w, h int64) []geom.Point {
		at := p.At
		switch {
		case w == 0 && h == 0:
			return []geom.Point{at}
		case h == 0:
			return []geom.Point{{X: at.X - w, Y: at.Y}, {X: at.X + w, Y: at.Y}}
		case w == 0:
			return []geom.Point{{X: at.X, Y: at.Y - h}, {X: at.X, Y: at.Y + h}}
		}
		return []geom.Point{{X: at.X - w, Y: at.Y - h}, {X: at.X + w, Y: at.Y - h}, {X: at.X + w, Y: at.Y + h}, {X: at.X - w, Y: at.Y + h}}
	}
	r := int64(0)
	switch p.Form {
	case "round", "oval":
		r = min(w, h)
	case "rounded":
		r = p.Corner
	}
	pts := corners(w-r, h-r)
	return geom.Shape{Pts: pts, Area: len(pts) > 2, R: r}
}

// Moved is the shape carried to its place on the board.
func Moved(s geom.Shape, t geom.Pose) geom.Shape {
	return geom.Shape{Pts: t.ApplyAll(s.Pts), Area: s.Area, R: s.R}
}

// PiecesOf lists the copper and holes of an object, given how many copper layers the board
// has. Objects without copper have none.
func PiecesOf(d *design.Doc, o design.Object) []*Copper {
	layers := len(d.Board.CopperNames())
	all := uint32(1)<<layers - 1
	switch o := o.(type) {
	case *design.Track:
		return []*Copper{{ID: o.ID, Pad: -1, Kind: "track", Net: o.Net, Layers: 1 << o.Layer, Shape: geom.Stroke(o.A, o.B, o.Width), At: o.A, Name: "track"}}
	case *design.Via:
		mask := uint32(0)
		for i := o.From; i <= o.To; i++ {
			mask |= 1 << i
		}
		return []*Copper{{ID: o.ID, Pad: -1, Kind: "via", Net: o.Net, Layers: mask, Shape: geom.Disc(o.At, o.Diameter/2), At: o.At, Hole: o.Hole, Name: "via"}}
	case *design.Hole:
		return []*Copper{{ID: o.ID, Pad: -1, Kind: "hole", Layers: all, Shape: geom.Disc(o.At, o.Diameter/2), At: o.At, Hole: o.Diameter, Bare: true, Name: "hole"}}
	case *design.Placed:
		f := d.Footprint(o.Footprint)
		if f == nil {
			return nil
		}
		out := make([]*Copper, 0, len(f.Pads))
		t := o.Pose()
		for i := range f.Pads {
			p := &f.Pads[i]
			c := &Copper{ID: o.ID, Pad: i, Number: p.Number, Kind: "pad", Net: o.Nets[p.Number], Shape: Moved(PadShape(p), t), At: t.Apply(p.At), Hole: p.Hole,
				Name: fmt.Sprintf("pad %s.%s", o.Designator, p.Number), Layers: all}
			switch {
			case p.Hole > 0 && p.Bare:
				c.Bare, c.Kind, c.Net, c.Shape = true, "hole", "", geom.Disc(c.At, p.Hole/2)
			case p.Hole > 0:
			case o.Bottom:
				c.Layers = 1 << (layers - 1)
			default:
				c.Layers = 1
			}
			out = append(out, c)
		}
		return out
	}
	return nil
}
