package edit

import (
	"fmt"
	"strings"

	"goldentrace/core/design"
)

// KeepLayerSet keeps a way to see the layers under a name, in place of the one that bears it.
type KeepLayerSet struct {
	Set design.LayerSet `json:"set"`
}

// mostLayerSets bounds the layer sets of a board.
const mostLayerSets = 100

// Apply the command.
func (c *KeepLayerSet) Apply(tx *Tx) error {
	s := c.Set
	s.ID = 0
	s.Name = strings.TrimSpace(s.Name)
	for _, id := range append(s.Layers[:len(s.Layers):len(s.Layers)], s.Work) {
		if id != 0 && tx.Doc.Board.Position(id) < 0 {
			return fmt.Errorf("the board has no such copper layer (id %d)", id)
		}
	}
	for o := range tx.Doc.LayerSets.All() {
		if o.Name == s.Name {
			s.ID = o.ID
		}
	}
	if s.ID == 0 {
		if len(tx.Doc.LayerSets) >= mostLayerSets {
			return fmt.Errorf("%d layer sets are kept already; drop one first", mostLayerSets)
		}
		s.ID = tx.Doc.NewID()
	}
	return tx.Put(&s)
}

// DropLayerSet keeps a layer set no longer.
type DropLayerSet struct {
	ID design.ID `json:"id"`
}

// Apply the command.
func (c *DropLayerSet) Apply(tx *Tx) error {
	s, err := get(tx.Doc.LayerSets, c.ID, "layer set")
	if err != nil {
		return err
	}
	tx.Remove(s)
	return nil
}

// SetTint gives a net, or all nets of a class, a colour on the board, or takes it away.
type SetTint struct {
	Class  bool   `json:"class,omitempty"` // it is of a class
	Name   string `json:"name"`
	Colour string `json:"colour,omitempty"` // as #rrggbb; none: it is drawn as others are
}

// Apply the command.
func (c *SetTint) Apply(tx *Tx) error {
	t := design.Tint{Class: c.Class, Name: c.Name, Colour: strings.ToLower(c.Colour)}
	old := tintOf(tx.Doc, c.Class, c.Name)
	switch {
	case old != nil && c.Colour == "":
		tx.Remove(old)
		return nil
	case old != nil:
		t.ID = old.ID
	case c.Colour == "":
		return fmt.Errorf("%s has no colour of its own", c.Name)
	default:
		t.ID = tx.Doc.NewID()
	}
	return tx.Put(&t)
}

func tintOf(d *design.Doc, class bool, name string) *design.Tint {
	for t := range d.Tints.All() {
		if t.Class == class && t.Name == name {
			return t
		}
	}
	return nil
}

// retint lets the colour of a net follow it to another name, unless the name has one.
func (tx *Tx) retint(from, to string) error {
	t := tintOf(tx.Doc, false, from)
	if t == nil || tintOf(tx.Doc, false, to) != nil {
		return nil
	}
	return tx.Put(with(t, func(q *design.Tint) { q.Name = to }))
}
