package edit

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
)

// Pins of blocks. A pin and the port it mirrors go by one name; whoever changes one here changes
// both. Wires follow a pin that moves.

// pin of a block by its name, or a refusal.
func pin(b *design.SheetBlock, name string) (int, error) {
	if i := slices.IndexFunc(b.Pins, func(p design.BlockPin) bool { return p.Name == name }); i >= 0 {
		return i, nil
	}
	return 0, fmt.Errorf("the block %s has no pin %s any more", b.Name, name)
}

// apart refuses a pin that stands where another one does.
func apart(pins []design.BlockPin, nth int) error {
	for i, p := range pins {
		if i != nth && p.Side == pins[nth].Side && p.Pos == pins[nth].Pos {
			return fmt.Errorf("the pin %s stands there already", p.Name)
		}
	}
	return nil
}

// setPins puts other pins on a block; wires follow those that stay.
func (tx *Tx) setPins(b *design.SheetBlock, pins []design.BlockPin) error {
	return tx.move([]design.ID{b.ID}, func(o design.Object) design.Object {
		q, ok := o.(*design.SheetBlock)
		if !ok || q.ID != b.ID {
			return o
		}
		c := *q
		c.Pins = pins
		return &c
	})
}

// MovePin moves a pin along its block's side or to another one.
type MovePin struct {
	Block design.ID `json:"block"`
	Pin   string    `json:"pin"`
	Side  int       `json:"side"` // in quarter turns: 0 right, 1 top, 2 left, 3 bottom
	Pos   int64     `json:"pos"`  // along the side, from the left or from below
}

// Apply the command.
func (c *MovePin) Apply(tx *Tx) error {
	b, err := get(tx.Doc.Blocks, c.Block, "block")
	if err != nil {
		return err
	}
	i, err := pin(b, c.Pin)
	if err != nil {
		return err
	}
	pins := slices.Clone(b.Pins)
	pins[i].Side, pins[i].Pos = c.Side, c.Pos
	if err := apart(pins, i); err != nil {
		return err
	}
	return tx.setPins(b, pins)
}

// OrderPins puts the pins of each side of a block in the order of their names, into the places
// where pins stand: from the top down and from the left.
type OrderPins struct {
	Block design.ID `json:"block"`
}

// Apply the command.
func (c *OrderPins) Apply(tx *Tx) error {
	b, err := get(tx.Doc.Blocks, c.Block, "block")
	if err != nil {
		return err
	}
	pins := slices.Clone(b.Pins)
	for side := range 4 {
		var nth []int
		var places []int64
		for i, p := range pins {
			if p.Side == side {
				nth, places = append(nth, i), append(places, p.Pos)
			}
		}
		slices.SortFunc(nth, func(x, y int) int { return circuit.CompareNatural(pins[x].Name, pins[y].Name) })
		slices.Sort(places)
		if side%2 == 0 {
			slices.Reverse(places)
		}
		for k, i := range nth {
			pins[i].Pos = places[k]
		}
	}
	return tx.setPins(b, pins)
}

// AddPin adds a pin to a block from outside, and the port that answers it on the block's sheet.
type AddPin struct {
	Block design.ID `json:"block"`
	Name  string    `json:"name"`
	Way   string    `json:"way"` // in, out or both
	Side  int       `json:"side"`
	Pos   int64     `json:"pos"`
}

// Apply the command.
func (c *AddPin) Apply(tx *Tx) error {
	b, err := get(tx.Doc.Blocks, c.Block, "block")
	if err != nil {
		return err
	}
	q := *b
	added := design.BlockPin{Name: strings.TrimSpace(c.Name), Way: c.Way, Side: c.Side, Pos: c.Pos}
	q.Pins = append(slices.Clone(b.Pins), added)
	if err := apart(q.Pins, len(b.Pins)); err != nil {
		return err
	}
	if err := tx.Put(&q); err != nil {
		return err
	}
	for _, p := range circuit.Ports(tx.Doc, b.Of) {
		if p.Name == added.Name {
			return nil // its port is there
		}
	}
	return tx.addPort(&q, added)
}

// RemovePin takes a pin off a block, and the ports that answer it when no other block that
// stands for the sheet has the pin.
type RemovePin struct {
	Block design.ID `json:"block"`
	Pin   string    `json:"pin"`
}

// Apply the command.
func (c *RemovePin) Apply(tx *Tx) error {
	b, err := get(tx.Doc.Blocks, c.Block, "block")
	if err != nil {
		return err
	}
	i, err := pin(b, c.Pin)
	if err != nil {
		return err
	}
	q := *b
	q.Pins = slices.Delete(slices.Clone(b.Pins), i, i+1)
	if err := tx.Put(&q); err != nil {
		return err
	}
	for _, other := range tx.Doc.Uses(b.Of) {
		if _, err := pin(other, c.Pin); err == nil {
			return nil
		}
	}
	for _, o := range tx.Doc.ItemsOf(b.Of) {
		if p, ok := o.(*design.Port); ok && p.Name == c.Pin {
			tx.Remove(p)
		}
	}
	return nil
}

// RenamePin gives a pin of a block, its port, and the other pins that mirror it, another name;
// of a bundle the members on the block's sheet go along.
type RenamePin struct {
	Block design.ID `json:"block"`
	Pin   string    `json:"pin"`
	To    string    `json:"to"`
}

// Apply the command.
func (c *RenamePin) Apply(tx *Tx) error {
	b, err := get(tx.Doc.Blocks, c.Block, "block")
	if err != nil {
		return err
	}
	if _, err := pin(b, c.Pin); err != nil {
		return err
	}
	to := strings.TrimSpace(c.To)
	for _, p := range circuit.Ports(tx.Doc, b.Of) {
		if p.Name == c.Pin {
			return tx.setName(p, to)
		}
	}
	return tx.renamePins(b.Of, c.Pin, to)
}

// renameBundle renames a bundle on a sheet wherever it stands there: labels and ports with the
// pins that mirror them, taps, and labels and ports of its members. Members keep their place in
// the list.
func (tx *Tx) renameBundle(sheet design.ID, from, to string) error {
	was, err := design.Members(from)
	if err != nil {
		return err
	}
	is, err := design.Members(to)
	if err != nil {
		return err
	}
	names := map[string]string{from: to}
	for i := range min(len(was), len(is)) {
		names[was[i]] = is[i]
	}
	for _, o := range tx.Doc.ItemsOf(sheet) {
		switch o := o.(type) {
		case *design.Label:
			if name, ok := names[o.Name]; ok && name != o.Name {
				l := *o
				l.Name = name
				if err := tx.Put(&l); err != nil {
					return err
				}
			}
		case *design.Port:
			if name, ok := names[o.Name]; ok && name != o.Name {
				if err := tx.renamePort(o, name); err != nil {
					return err
				}
			}
		case *design.Tap:
			if name, ok := names[o.Member]; ok && name != o.Member {
				t := *o
				t.Member = name
				if err := tx.Put(&t); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

func (tx *Tx) renamePort(o *design.Port, name string) error {
	p := *o
	p.Name = name
	if err := tx.Put(&p); err != nil {
		return err
	}
	return tx.renamePins(o.Sheet, o.Name, name)
}

// MarkOpen marks the free pins of parts as left open on purpose.
type MarkOpen struct {
	IDs []design.ID `json:"ids"`
}

// Apply the command.
func (c *MarkOpen) Apply(tx *Tx) error {
	nets := tx.Nets()
	for _, id := range c.IDs {
		p, err := get(tx.Doc.Parts, id, "part")
		if err != nil {
			return err
		}
		for _, at := range nets.FreePins(tx.Doc, p) {
			if err := tx.Put(&design.OpenMark{ID: tx.Doc.NewID(), Sheet: p.Sheet, At: at}); err != nil {
				return err
			}
		}
	}
	if len(tx.order) == 0 {
		return fmt.Errorf("no pin of what was picked is free")
	}
	return nil
}
