// Package surface knows what lies on the two faces of a board beside copper: where the mask is open, where paste goes and what is printed.
// The artwork, the checks and the picture of the finished board all ask here. Lengths are nanometres.
package surface

import (
	"cmp"
	"iter"
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// Board is what the faces follow from.
type Board struct {
	Doc   *design.Doc
	Index *layout.Index
	Rules *rules.Set
}

// Opening is a place that the mask leaves free, or where paste goes.
type Opening struct {
	Owner  design.ID
	Pad    int // of which it is, the place in its footprint; −1: of something else than a pad
	Bottom bool
	Shape  geom.Shape
	Middle geom.Point // of what it is for
	Drawn  bool       // by hand, along with a track or by itself: it is of no pad, via or hole
}

// Print is what is printed, or otherwise drawn, of an object on a face.
type Print struct {
	Owner  design.ID
	Bottom bool
	Shape  geom.Shape
	Width  int64 // of a line; 0: an area
	Apart  int64 // it is kept so far off what the mask leaves free
	Text   bool  // it is of a text
}

// Outer is the position of the outer copper layer of a face.
func (b Board) Outer(bottom bool) int {
	if bottom {
		return b.Doc.Board.Layers() - 1
	}
	return 0
}

// Objects are those of a document that anything of a face may follow from: parts, vias, holes, tracks, texts and figures, in this order.
func Objects(d *design.Doc) iter.Seq[design.Object] {
	return func(yield func(design.Object) bool) {
		_ = each(d.Placed.All(), yield) && each(d.Vias.All(), yield) && each(d.Holes.All(), yield) && each(d.Tracks.All(), yield) &&
			each(d.Legends.All(), yield) && each(d.Figures.All(), yield)
	}
}

func each[T design.Object](all iter.Seq[T], yield func(design.Object) bool) bool {
	for o := range all {
		if !yield(o) {
			return false
		}
	}
	return true
}

// asked is what the rules ask for of a piece of a size.
func (b Board) asked(k design.RuleKind, c *layout.Copper, size int64) int64 {
	return b.Rules.For(k, c.Subject(), bits.TrailingZeros32(c.Layers), c.At).Of(size)
}

// group is how a face of the board is seen from a part.
func group(part, bottom bool) string {
	if part == bottom {
		return design.Near
	}
	return design.Far
}

// Openings are the places that the mask leaves free for an object on a face.
func (b Board) Openings(o design.Object, bottom bool) (out []Opening) {
	one := func(shape geom.Shape, middle geom.Point) {
		out = append(out, Opening{Owner: o.ObjectID(), Pad: -1, Bottom: bottom, Shape: shape, Middle: middle})
	}
	switch o := o.(type) {
	case *design.Placed:
		f := b.Doc.Footprint(o.Footprint)
		for _, c := range b.Index.Of(o.ID) {
			out = append(out, b.padOpenings(o, &f.Pads[c.Pad], c, bottom)...)
		}
	case *design.Via:
		for _, c := range b.Index.Of(o.ID) {
			if layer := b.Outer(bottom); o.Cover == design.Open && c.Has(layer) {
				s := c.On(layer)
				s.R += b.asked(design.MaskMargin, c, 2*s.R)
				one(s, o.At)
			}
		}
	case *design.Hole:
		c := b.Index.Of(o.ID)[0]
		one(geom.Disc(o.At, o.Room()+b.asked(design.MaskMargin, c, 2*o.Room())), o.At)
	case *design.Track:
		if o.Bare && o.Layer == b.Doc.Board.At(b.Outer(bottom)) {
			c := b.Index.Of(o.ID)[0]
			s := c.Shape
			s.R += b.asked(design.MaskMargin, c, 2*s.R)
			out = append(out, Opening{Owner: o.ID, Pad: -1, Bottom: bottom, Shape: s, Drawn: true})
		}
	case *design.BoardFigure:
		if o.Fiducial > 0 && o.Layer == b.Doc.Board.At(b.Outer(bottom)) {
			at := o.Lines[0][0].Point
			one(geom.Disc(at, o.Fiducial/2), at)
			return out
		}
		out = b.drawn(o, design.OnMask, bottom)
	default:
		out = b.drawn(o, design.OnMask, bottom)
	}
	return out
}

// padOpenings are those of a pad.
func (b Board) padOpenings(p *design.Placed, pad *design.Pad, c *layout.Copper, bottom bool) (out []Opening) {
	if pad.Hole == 0 && (p.Bottom != pad.Far) != bottom {
		return nil
	}
	one := func(s geom.Shape, middle geom.Point) {
		out = append(out, Opening{Owner: p.ID, Pad: c.Pad, Bottom: bottom, Shape: s, Middle: middle})
	}
	if pad.Bare {
		if s := c.Bore(); s.R+b.asked(design.MaskMargin, c, pad.Hole) > 0 {
			s.R += b.asked(design.MaskMargin, c, pad.Hole)
			one(s, c.Drill)
		}
		return out
	}
	shape := pad.ShapeOn(group(p.Bottom, bottom))
	margin := b.asked(design.MaskMargin, c, min(shape.Size.X, shape.Size.Y))
	for _, s := range layout.Opened(pad, shape, pad.Mask, margin, p.Pose()) {
		one(s, c.At)
	}
	return out
}

// Pastes are the places where an object gets paste on a face: surface pads, those with holes that say so, and what is drawn there.
func (b Board) Pastes(o design.Object, bottom bool) (out []Opening) {
	p, ok := o.(*design.Placed)
	if !ok {
		return b.drawn(o, design.OnPaste, bottom)
	}
	if p.NotFitted && b.Doc.Board.NoPaste {
		return nil
	}
	f := b.Doc.Footprint(p.Footprint)
	for _, c := range b.Index.Of(p.ID) {
		pad := &f.Pads[c.Pad]
		if pad.Hole > 0 && pad.Paste == nil || pad.Hole == 0 && (p.Bottom != pad.Far) != bottom {
			continue
		}
		shape := pad.ShapeOn(group(p.Bottom, bottom))
		margin := -b.asked(design.PasteMargin, c, min(shape.Size.X, shape.Size.Y))
		for _, s := range layout.Opened(pad, shape, pad.Paste, margin, p.Pose()) {
			out = append(out, Opening{Owner: p.ID, Pad: c.Pad, Bottom: bottom, Shape: s, Middle: c.At})
		}
	}
	return out
}

// On tells on which surface an object is drawn, and on which face; false: on none.
func on(o design.Object) (surface string, bottom, ok bool) {
	switch o := o.(type) {
	case *design.Legend:
		return o.On, o.Bottom, true
	case *design.BoardFigure:
		return o.On, o.Bottom, true
	}
	return "", false, false
}

// drawn are the shapes of a text or figure on a surface of a face.
func (b Board) drawn(o design.Object, surface string, bottom bool) (out []Opening) {
	if s, below, ok := on(o); !ok || s != surface || below != bottom {
		return nil
	}
	for _, s := range layout.PrintOf(b.Doc, o, 0).Shapes() {
		out = append(out, Opening{Owner: o.ObjectID(), Pad: -1, Bottom: bottom, Shape: s, Drawn: true})
	}
	return out
}

// SilkWidth is how wide lines of silk are for which nothing else is said.
func (b Board) SilkWidth(bottom bool) int64 {
	return b.Rules.For(design.SilkWidth, rules.Subject{}, b.Outer(bottom), geom.Point{}).Of(0)
}

// Silk is what is printed of an object on a face.
func (b Board) Silk(o design.Object, bottom bool) (out []Print) {
	width := b.SilkWidth(bottom)
	if p, ok := o.(*design.Placed); ok {
		if p.Bottom != bottom {
			return nil
		}
		pieces := layout.SilkPieces(b.Doc, p)
		out = make([]Print, 0, len(pieces))
		for _, l := range pieces {
			l.Width = cmp.Or(l.Width, width)
			out = append(out, Print{p.ID, bottom, l.Shape(), l.Width, 0, l.Text})
		}
		return out
	}
	if s, below, ok := on(o); !ok || s != design.OnSilk || below != bottom {
		return nil
	}
	apart, text := int64(0), false
	switch o := o.(type) {
	case *design.Legend:
		apart, text = o.Apart, true
	case *design.BoardFigure:
		apart = o.Apart
	}
	print := layout.PrintOf(b.Doc, o, width)
	for _, s := range print.Areas {
		out = append(out, Print{o.ObjectID(), bottom, s, 0, apart, text})
	}
	for _, l := range print.Lines {
		out = append(out, Print{o.ObjectID(), bottom, l.Shape(), l.Width, apart, text})
	}
	return out
}
