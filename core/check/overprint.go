package check

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/surface"
)

// Texts of the silk that nobody can read: over other silk, or of letters that the font lacks.

// overprinted checks what is printed of an object against what others print near it: no text may lie on something else.
func (b *Board) overprinted(id design.ID, list []surface.Print, box geom.Box, bottom bool, ids map[design.ID]bool) {
	texts, own := textBox(list)
	if own && b.crosses(list, list, func(x, y *surface.Print) bool { return x.Text && !y.Text }) != nil {
		b.overprint(id, id, list, list, bottom)
	}
	for other := range b.faces.Printed(box, bottom) {
		if other == id || other < id && (ids == nil || ids[other]) {
			continue // the other one looks at this pair
		}
		by := b.doc.Get(other)
		if by == nil || b.standsOutside(by) {
			continue
		}
		there := b.faces.Silk(by, bottom)
		far, has := textBox(there)
		near, ok := b.faces.PrintedBox(other, bottom)
		if !ok || !(own && texts.Meets(near) || has && far.Meets(box)) {
			continue
		}
		if id < other { // always in this order, so that it is said alike
			b.overprint(id, other, list, there, bottom)
		} else {
			b.overprint(other, id, there, list, bottom)
		}
	}
}

// textBox is the box of the texts among what is printed.
func textBox(list []surface.Print) (geom.Box, bool) {
	var e geom.Extent
	for i := range list {
		if list[i].Text {
			e.AddBox(list[i].Shape.Box())
		}
	}
	return e.Box, e.Any
}

// crosses finds a place where one of the first lies on one of the others, of those pairs that count; nil: there is none.
func (b *Board) crosses(list, others []surface.Print, counts func(x, y *surface.Print) bool) *geom.Point {
	for i := range list {
		x := &list[i]
		box := x.Shape.Box()
		for k := range others {
			y := &others[k]
			if !counts(x, y) || !y.Shape.Box().Meets(box) {
				continue
			}
			if gap, p, q := depth(x.Shape, y.Shape); geom.Short(gap, 0) {
				at := p.Towards(q, 0.5)
				return &at
			}
		}
	}
	return nil
}

// overprint lists that the text of one of two objects lies on what is printed of the other.
func (b *Board) overprint(first, second design.ID, list, others []surface.Print, bottom bool) {
	counts := func(x, y *surface.Print) bool { return x.Text || y.Text }
	if first == second {
		counts = func(x, y *surface.Print) bool { return x.Text && !y.Text }
	}
	at := b.crosses(list, others, counts)
	if at == nil {
		return
	}
	layer := b.faces.Outer(bottom)
	f := Finding{Key: fmt.Sprintf("silkOver %d %d %s", min(first, second), max(first, second), faceName(bottom)), Kind: "silkOver", Severity: Warning,
		Rule: "Silk can be read", At: *at, Layer: b.doc.Board.At(layer), Objects: []design.ID{first}}
	if first == second {
		f.Text = fmt.Sprintf("%s lies on its own lines.", capital(b.textName(first)))
		b.list(f)
		return
	}
	f.Objects = append(f.Objects, second)
	text, on := first, second
	if b.crosses(list, others, func(x, _ *surface.Print) bool { return x.Text }) == nil {
		text, on = second, first
	}
	f.Text = fmt.Sprintf("%s lies on %s.", capital(b.textName(text)), b.printName(on))
	b.list(f)
}

// textName names what is written of an object.
func (b *Board) textName(id design.ID) string {
	if p := b.doc.Placed[id]; p != nil {
		return "the designator " + p.Designator
	}
	return b.printName(id)
}

// lacking checks that the font of a text has all its letters.
func (b *Board) lacking(id design.ID) {
	o := b.doc.Get(id)
	list := layout.Lacking(b.doc.Asset, o)
	if len(list) == 0 {
		return
	}
	_, at := letters(o)
	letters := ""
	for _, r := range list {
		letters += string(r)
	}
	b.list(Finding{Key: fmt.Sprintf("lacking %d", id), Kind: "lacking", Severity: Warning, Rule: "Fonts have the letters", At: at, Objects: []design.ID{id},
		Text: fmt.Sprintf("The font of %s has no %s; a frame stands for what it lacks.", b.textName(id), quoted(letters))})
}

func quoted(s string) string { return "“" + s + "”" }
