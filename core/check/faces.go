package check

import (
	"cmp"
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
	"goldentrace/core/units"
)

// What lies on the faces of the board beside copper: the mask, paste and silk.

// ofFaces checks what lies on both faces of objects against what is near: of all, or of those among ids.
func (b *Board) ofFaces(ids map[design.ID]bool, by kinds) {
	look := func(id design.ID) {
		for _, bottom := range []bool{false, true} {
			b.mask(id, bottom, ids, by)
			b.silk(id, bottom, ids, by)
		}
		if by == nil {
			b.lacking(id)
		}
		if p := b.doc.Placed[id]; p != nil {
			b.ofPads(p, by)
		}
	}
	if ids == nil {
		for o := range surface.Objects(b.doc) {
			if b.further >= mostCounted {
				return
			}
			look(o.ObjectID())
		}
		return
	}
	for id := range ids {
		look(id)
	}
}

// openingRef names an opening for keys: those of one pad, or of one object, are one.
func openingRef(o *surface.Opening) string {
	if o.Pad >= 0 {
		return fmt.Sprintf("%d.%d", o.Owner, o.Pad)
	}
	return fmt.Sprint(o.Owner)
}

// before tells whether an opening is named first of two.
func before(a, c *surface.Opening) bool {
	return cmp.Or(cmp.Compare(a.Owner, c.Owner), cmp.Compare(a.Pad, c.Pad)) < 0
}

// copperOf is the copper that an opening is of; nil: it is drawn by itself.
func (b *Board) copperOf(o *surface.Opening) *layout.Copper {
	for _, c := range b.index.Of(o.Owner) {
		if o.Pad < 0 || c.Pad == o.Pad {
			return c
		}
	}
	return nil
}

// openingName names an opening in a sentence.
func (b *Board) openingName(o *surface.Opening) string {
	if c := b.copperOf(o); c != nil {
		return b.named(c)
	}
	return "a window of the mask"
}

func faceName(bottom bool) string {
	if bottom {
		return "below"
	}
	return "above"
}

// depth is the gap of two shapes; of areas without a rim that meet, as if they were a micrometre into each other, where they lie over one
// another and do not merely touch.
func depth(a, c geom.Shape) (gap float64, p, q geom.Point) {
	gap, p, q = geom.Gap(a, c)
	if gap == 0 && a.R == 0 && c.R == 0 {
		over, err := overlay.Overlap(a.Edges().Flat(flat, false), c.Edges().Flat(flat, false), geom.Slack)
		if over || err != nil {
			return -float64(units.Micrometre), p, q
		}
	}
	return gap, p, q
}

// flat is how far chords may stray from arcs where shapes are laid over each other, in nanometres.
const flat = 500

// mask checks the openings of an object: that enough mask is left between them and others.
func (b *Board) mask(id design.ID, bottom bool, ids map[design.ID]bool, by kinds) {
	if !by.has(design.MaskWeb) {
		return
	}
	most := b.rules.Greatest(design.MaskWeb)
	for _, o := range b.faces.Of(id, bottom) {
		for n := range b.faces.Near(o.Shape.Box().Grow(most), bottom) {
			if n.Owner == o.Owner && n.Pad == o.Pad || ids[n.Owner] && before(n, o) || ids == nil && before(n, o) {
				continue // its own windows; or the other one looks at this pair
			}
			b.web(o, n, bottom)
		}
	}
}

func (b *Board) web(o, n *surface.Opening, bottom bool) {
	if before(n, o) {
		o, n = n, o
	}
	x, y := b.copperOf(o), b.copperOf(n)
	gap, p, q := depth(o.Shape, n.Shape)
	at := p.Towards(q, 0.5)
	who := rules.Subject{}
	if x != nil {
		who = x.Subject()
	}
	ruling := b.rules.For(design.MaskWeb, who, b.faces.Outer(bottom), at)
	need := ruling.Of(0)
	f := Finding{Key: fmt.Sprintf("maskWeb %s %s %s", openingRef(o), openingRef(n), faceName(bottom)), Kind: "maskWeb", Severity: Warning,
		Rule: "Web of mask", Says: b.says(ruling), Ends: []geom.Point{p, q}, Required: need, At: at,
		Layer: b.doc.Board.At(b.faces.Outer(bottom)), Objects: []design.ID{o.Owner, n.Owner}}
	switch {
	case gap > 0 && geom.Short(gap, need):
		f.Measured = geom.Measured(gap)
		f.Text = fmt.Sprintf("Between the openings of %s and %s %s of mask is left.", b.openingName(o), b.openingName(n),
			units.Text(f.Measured))
	case geom.Short(gap, 0) && x != nil && y != nil && x.Net != y.Net && !x.Bare && !y.Bare:
		f.Text = fmt.Sprintf("No mask is left between %s and %s.", b.openingName(o), b.openingName(n))
	default:
		return
	}
	b.list(f)
}

// silk checks what is printed of an object, and what others print on its openings.
func (b *Board) silk(id design.ID, bottom bool, ids map[design.ID]bool, by kinds) {
	o := b.doc.Get(id)
	if o == nil {
		return
	}
	printed, has := b.faces.PrintedBox(id, bottom)
	if has {
		list := b.faces.Silk(o, bottom)
		b.printed(o, list, bottom, by)
		if by.has(design.SilkWidth) && !b.standsOutside(o) {
			b.overprinted(id, list, printed, bottom, ids)
		}
		if by.has(design.SilkApart) {
			b.printOn(id, list, b.faces.Near(printed.Grow(b.rules.Greatest(design.SilkApart)), bottom), bottom)
		}
	}
	if ids == nil || !by.has(design.SilkApart) {
		return // the others are looked at themselves
	}
	for _, open := range b.faces.Of(id, bottom) {
		for other := range b.faces.Printed(open.Shape.Box().Grow(b.rules.Greatest(design.SilkApart)), bottom) {
			if ids[other] {
				continue
			}
			if by := b.doc.Get(other); by != nil {
				b.printOn(other, b.faces.Silk(by, bottom), func(yield func(*surface.Opening) bool) { yield(open) }, bottom)
			}
		}
	}
}

// printOn checks what is printed of an object against openings.
func (b *Board) printOn(id design.ID, list []surface.Print, openings func(func(*surface.Opening) bool), bottom bool) {
	for open := range openings {
		box := open.Shape.Box().Grow(b.rules.Greatest(design.SilkApart))
		for _, s := range list {
			if !s.Shape.Box().Meets(box) {
				continue
			}
			gap, p, q := depth(s.Shape, open.Shape)
			at := p.Towards(q, 0.5)
			ruling := b.rules.For(design.SilkApart, rules.Subject{}, b.faces.Outer(bottom), at)
			need := ruling.Of(0)
			if !geom.Short(gap, need) {
				continue
			}
			f := Finding{Key: fmt.Sprintf("silkOn %d %s %s", id, openingRef(open), faceName(bottom)), Kind: "silkOn", Severity: Warning,
				Rule: "Silk keeps off openings", Says: b.says(ruling), Ends: []geom.Point{p, q}, Measured: max(geom.Measured(gap), 0),
				Required: need, At: at, Layer: b.doc.Board.At(b.faces.Outer(bottom)), Objects: []design.ID{id, open.Owner}}
			if f.Measured > 0 {
				f.Text = fmt.Sprintf("%s is %s from the opening of %s.", capital(b.printName(id)), units.Text(f.Measured),
					b.openingName(open))
			} else {
				f.Text = fmt.Sprintf("%s lies on the opening of %s; there it is not printed.", capital(b.printName(id)),
					b.openingName(open))
			}
			b.list(f)
		}
	}
}

// printName names what is printed of an object.
func (b *Board) printName(id design.ID) string {
	switch o := b.doc.Get(id).(type) {
	case *design.Placed:
		return "the silk of " + o.Designator
	case *design.Legend:
		return fmt.Sprintf("the text “%s”", firstWords(o.Text))
	}
	return "a printed figure"
}

// firstWords are as much of a text as a sentence bears.
func firstWords(s string) string {
	const most = 24
	for i, r := range []rune(s) {
		if r == '\n' || i == most {
			return string([]rune(s)[:i]) + "…"
		}
	}
	return s
}

// printed checks what is printed of an object by itself: that it is wide and high enough, and on the board.
func (b *Board) printed(o design.Object, list []surface.Print, bottom bool, by kinds) {
	id, layer := o.ObjectID(), b.faces.Outer(bottom)
	one := Finding{Severity: Warning, Layer: b.doc.Board.At(layer), Objects: []design.ID{id}}
	named := capital(b.printName(id))
	for _, s := range list {
		at := s.Shape.Pts[0]
		need := b.rules.For(design.LeastSilk, rules.Subject{}, layer, at).Of(0)
		if by.has(design.LeastSilk) && s.Width > 0 && geom.Short(float64(s.Width), need) {
			f := one
			f.Key, f.Kind, f.Rule, f.Measured, f.Required, f.At = fmt.Sprintf("silkThin %d", id), "silkThin", "Least width of silk",
				s.Width, need, at
			f.Text = fmt.Sprintf("%s is drawn %s wide.", named, units.Text(s.Width))
			b.list(f)
		}
		if by.has(design.SilkWidth) && b.over(s.Shape) && !b.standsOutside(o) {
			f := one
			f.Key, f.Kind, f.Rule, f.At = fmt.Sprintf("silkOff %d", id), "silkOff", "Silk lies on the board", at
			f.Text = fmt.Sprintf("%s reaches beyond the board's edge; there it is not printed.", named)
			b.list(f)
		}
	}
	if height, at := letters(o); height > 0 && by.has(design.LetterHeight) {
		if need := b.rules.For(design.LetterHeight, rules.Subject{}, layer, at).Of(0); geom.Short(float64(height), need) {
			f := one
			f.Key, f.Kind, f.Rule, f.Measured, f.Required, f.At = fmt.Sprintf("letters %d", id), "letters",
				"Least height of letters", height, need, at
			f.Text = fmt.Sprintf("The letters of %s are %s high.", b.lettersOf(o), units.Text(height))
			b.list(f)
		}
	}
}

// over tells whether a shape reaches beyond the board's edge.
func (b *Board) over(s geom.Shape) bool {
	e := b.index.Edge()
	if !e.Drawn() {
		return false
	}
	gap, _, near := e.Gap(s, 0)
	if near && s.R == 0 && gap == 0 { // it touches the edge, or crosses it
		for _, p := range s.Pts {
			if !e.Holds(p) {
				return true
			}
		}
	}
	return near && geom.Short(gap, 0)
}

// standsOutside tells whether an object lies wholly beside the board, which is no matter of what is printed of it.
func (b *Board) standsOutside(o design.Object) bool {
	if p, ok := o.(*design.Placed); ok {
		return b.isOutside(p)
	}
	return false
}

// letters are how high those of an object are and where; 0: it has none.
func letters(o design.Object) (height int64, at geom.Point) {
	switch o := o.(type) {
	case *design.Placed:
		return o.LetterHeight(), o.At
	case *design.Legend:
		return o.Height, o.At
	}
	return 0, geom.Point{}
}

func (b *Board) lettersOf(o design.Object) string {
	if p, ok := o.(*design.Placed); ok {
		return p.Designator
	}
	return b.printName(o.ObjectID())
}
