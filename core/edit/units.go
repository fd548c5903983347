package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/parts"
)

// AddUnit gives a library part one more unit, with a symbol of its own to be drawn. A part that had none becomes one of two; what stands of
// it in the circuit becomes its unit A.
type AddUnit struct {
	Part design.ID `json:"part"`
}

// Apply the command.
func (c *AddUnit) Apply(tx *Tx) error {
	old, err := get(tx.Doc.LibraryParts, c.Part, "library part")
	if err != nil {
		return err
	}
	p := *old
	p.Units = slices.Clone(old.Units)
	if len(p.Units) == 0 {
		p.Units = []string{p.Symbol}
		if err := tx.renumberUnits(p.Name, func(int) int { return 1 }); err != nil {
			return err
		}
	}
	if len(p.Units) >= 26 {
		return fmt.Errorf("%s has 26 units; no part has more", p.Name)
	}
	letter := string(rune('A' + len(p.Units)))
	name := p.Name + " " + letter
	for n := 2; tx.Doc.Symbol(name) != nil; n++ {
		name = fmt.Sprintf("%s %s (%d)", p.Name, letter, n)
	}
	s, err := newSymbol(name, nil, "")
	if err != nil {
		return err
	}
	s.ID = tx.Doc.NewID()
	if err := tx.Put(s); err != nil {
		return err
	}
	p.Units = append(p.Units, name)
	return tx.Put(&p)
}

// renumberUnits gives the parts of the circuit that are of a library part other units; 0: the part is whole.
func (tx *Tx) renumberUnits(library string, to func(unit int) int) error {
	for q := range tx.Doc.Parts.All() {
		if q.Library != library || to(q.Unit) == q.Unit {
			continue
		}
		r := *q
		r.Unit = to(q.Unit)
		if err := tx.Put(&r); err != nil {
			return err
		}
	}
	return nil
}

// RemoveUnit takes a unit of a library part away, and its symbol when nothing else has it. One that stands in the circuit stays.
type RemoveUnit struct {
	Part design.ID `json:"part"`
	Unit int       `json:"unit"` // from 1
}

// Apply the command.
func (c *RemoveUnit) Apply(tx *Tx) error {
	old, err := get(tx.Doc.LibraryParts, c.Part, "library part")
	if err != nil {
		return err
	}
	if c.Unit < 1 || c.Unit > len(old.Units) {
		return fmt.Errorf("%s has no unit %d", old.Name, c.Unit)
	}
	for q := range tx.Doc.Parts.All() {
		if q.Library == old.Name && q.Unit == c.Unit {
			return fmt.Errorf("%s%s stands in the circuit; take it away there first", q.Designator, q.UnitLetter())
		}
	}
	p := *old
	p.Units = slices.Delete(slices.Clone(old.Units), c.Unit-1, c.Unit)
	p.Symbol = p.Units[0]
	shift := func(unit int) int {
		if unit > c.Unit {
			return unit - 1
		}
		return unit
	}
	if len(p.Units) == 1 {
		p.Units = nil
		shift = func(int) int { return 0 }
	}
	if err := tx.Put(&p); err != nil {
		return err
	}
	if err := tx.renumberUnits(p.Name, shift); err != nil {
		return err
	}
	gone := old.Units[c.Unit-1]
	if s := tx.Doc.Symbol(gone); s != nil && len(parts.UsesOfSymbol(tx.Doc, gone)) == 0 {
		tx.Remove(s)
	}
	return nil
}

// MoveToUnit takes pins out of one symbol of a library part into another of it.
type MoveToUnit struct {
	Part design.ID `json:"part"`
	From design.ID `json:"from"` // the symbol that has them
	Pins []int     `json:"pins"` // refs
	Unit int       `json:"unit"` // from 1, where they go to
}

// Apply the command.
func (c *MoveToUnit) Apply(tx *Tx) error {
	l, err := get(tx.Doc.LibraryParts, c.Part, "library part")
	if err != nil {
		return err
	}
	from, err := get(tx.Doc.Symbols, c.From, "symbol")
	if err != nil {
		return err
	}
	if !slices.Contains(l.Units, from.Name) {
		return fmt.Errorf("the symbol %s is not a unit of %s", from.Name, l.Name)
	}
	if c.Unit < 1 || c.Unit > len(l.Units) {
		return fmt.Errorf("%s has no unit %d", l.Name, c.Unit)
	}
	to := tx.Doc.Symbol(l.Units[c.Unit-1])
	if to == nil || to.ID == from.ID {
		return fmt.Errorf("they are of that unit already")
	}
	s, _, _ := from.Named()
	var moved []parts.Listed
	var left []design.Pin
	for _, p := range s.Pins {
		if slices.Contains(c.Pins, p.ID) {
			moved = append(moved, parts.Listed{Number: p.Number, Name: p.Name, Type: p.Type})
		} else {
			left = append(left, p)
		}
	}
	if len(moved) == 0 {
		return fmt.Errorf("no pins are named")
	}
	s.Pins = left
	if s.Pins == nil {
		s.Pins = []design.Pin{}
	}
	grown, err := parts.AddListed(to, moved, "order")
	if err != nil {
		return err
	}
	if err := tx.Put(s); err != nil {
		return err
	}
	return tx.Put(grown)
}
