package question

import (
	"cmp"
	"encoding/json"
	"errors"
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/paper"
	"goldentrace/core/timing"
	"goldentrace/core/workbench"
)

// Item asks what something looks like that is not there yet: what a tool holds in its hand.
type Item struct {
	Item *edit.Clipped `json:"item"`
}

// Drawn is the answer.
type Drawn = paper.Drawn

// Answer the question.
func (q *Item) Answer(b *workbench.Bench) (Drawn, error) {
	if q.Item == nil {
		return Drawn{}, errors.New("nothing was given to draw")
	}
	o := design.Blank(q.Item.Kind)
	if o == nil || len(q.Item.Object) > 4*design.LongestNote || json.Unmarshal(q.Item.Object, o) != nil {
		return Drawn{}, errors.New("what was given to draw cannot be read")
	}
	if err := drawable(o); err != nil {
		return Drawn{}, err
	}
	if part, ok := o.(*design.Part); ok && b.Doc.SymbolOf(part) == nil { // of a library
		return Drawn{Kind: q.Item.Kind, Marks: libraryMarks(b, part)}, nil
	}
	return Drawn{Kind: q.Item.Kind, Marks: paper.Marks(b.Doc, o, "")}, nil
}

// libraryMarks draws a part of the library that the project does not have yet.
func libraryMarks(b *workbench.Bench, part *design.Part) []paper.Mark {
	it, ok := shelfOf(b).Find(part.Library)
	if !ok {
		return nil
	}
	d := design.Empty()
	d.Put(design.WithID(it.Part, d.NewID()))
	for _, s := range append([]*design.Symbol{it.Symbol}, it.Units...) {
		d.Put(design.WithID(s, d.NewID()))
	}
	return paper.Marks(d, part, "")
}

// drawable checks what a tool holds in its hand; it has no sheet and perhaps no name yet.
func drawable(o design.Object) error {
	switch o := o.(type) {
	case *design.Part:
		return turned(o.Turn)
	case *design.Label:
		return turned(o.Turn)
	case *design.Port:
		return turned(o.Turn)
	case *design.Supply:
		return turned(o.Turn)
	case *design.Tap:
		return turned(o.Turn)
	case *design.OpenMark, *design.SheetBlock:
		return nil
	case *design.Timing:
		d, err := timing.Parse(o.Text)
		if err != nil {
			return err
		}
		return cmp.Or(o.Valid(), d.Fits(o.Slot))
	case design.OnSheet:
		return o.Valid()
	}
	return fmt.Errorf("a %s is not drawn on a sheet", o.ObjectKind())
}

func turned(quarters int) error {
	if quarters < 0 || quarters > 3 {
		return fmt.Errorf("what was given to draw is turned by %d quarters; 0 to 3 are meant", quarters)
	}
	return nil
}
