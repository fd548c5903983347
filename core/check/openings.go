package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

// A pad's own openings: that the mask leaves it free, and that its paste lies on it.

// ofPads checks the openings of a part's pads. Windows that somebody drew are as they are meant.
func (b *Board) ofPads(p *design.Placed, by kinds) {
	f := b.doc.Footprint(p.Footprint)
	if f == nil {
		return
	}
	for _, c := range b.index.Of(p.ID) {
		pad := &f.Pads[c.Pad]
		if c.Bare {
			continue
		}
		for _, bottom := range []bool{false, true} {
			if pad.Hole == 0 && (p.Bottom != pad.Far) != bottom {
				continue
			}
			group := design.Near
			if p.Bottom != bottom {
				group = design.Far
			}
			shape := pad.ShapeOn(group)
			size := min(shape.Size.X, shape.Size.Y)
			if by.has(design.MaskMargin) {
				b.masked(p, pad, c, bottom, b.rules.For(design.MaskMargin, c.Subject(), b.faces.Outer(bottom), c.At).Of(size))
			}
			if by.has(design.PasteMargin) && (pad.Hole == 0 || pad.Paste != nil) {
				b.pasted(p, pad, c, bottom, b.rules.For(design.PasteMargin, c.Subject(), b.faces.Outer(bottom), c.At).Of(size))
			}
		}
	}
}

// masked finds mask that lies on a pad.
func (b *Board) masked(p *design.Placed, pad *design.Pad, c *layout.Copper, bottom bool, margin int64) {
	f := Finding{Key: fmt.Sprintf("maskOn %s %s", ref(c), faceName(bottom)), Kind: "maskOn", Severity: Warning, Rule: "Pads are free of mask", At: c.At,
		Layer: b.doc.Board.At(b.faces.Outer(bottom)), Objects: []design.ID{p.ID}}
	o := pad.Mask
	switch {
	case o != nil && o.None:
		f.Text = fmt.Sprintf("The mask covers %s %s.", b.named(c), faceName(bottom))
	case o != nil && len(o.Windows) > 0:
		return
	default:
		if o != nil && o.Margin != nil {
			margin = *o.Margin
		}
		if !geom.Short(float64(margin), 0) {
			return
		}
		f.Measured = margin
		f.Text = fmt.Sprintf("The mask reaches %s over the edge of %s %s.", units.Text(-margin), b.named(c), faceName(bottom))
	}
	b.list(f)
}

// pasted finds paste that reaches beyond its pad. within is how far inside it is to end.
func (b *Board) pasted(p *design.Placed, pad *design.Pad, c *layout.Copper, bottom bool, within int64) {
	beyond := -within
	if o := pad.Paste; o != nil {
		switch {
		case o.None:
			return
		case len(o.Windows) > 0:
			beyond = b.windowsBeyond(p, pad, c, bottom)
		case o.Margin != nil:
			beyond = *o.Margin
		}
	}
	if !geom.Short(-float64(beyond), 0) {
		return
	}
	b.list(Finding{Key: fmt.Sprintf("paste %s %s", ref(c), faceName(bottom)), Kind: "paste", Severity: Warning,
		Rule: "Paste lies on its pad", Measured: -beyond, At: c.At, Layer: b.doc.Board.At(b.faces.Outer(bottom)), Objects: []design.ID{p.ID},
		Text: fmt.Sprintf("The paste of %s reaches %s beyond it.", b.named(c), units.Text(beyond))})
}

// windowsBeyond is how far the corners of a pad's windows for paste lie beyond its copper, at most; 0: nowhere.
func (b *Board) windowsBeyond(p *design.Placed, pad *design.Pad, c *layout.Copper, bottom bool) (most int64) {
	copper := c.On(b.faces.Outer(bottom))
	for _, w := range pad.Paste.Windows {
		for _, at := range geom.Within(w).Moved(pad.Pose()).Moved(p.Pose()).Pts {
			if gap, _, _ := geom.Gap(copper, geom.Disc(at, 0)); gap > float64(most) {
				most = geom.Measured(gap)
			}
		}
	}
	return most
}
