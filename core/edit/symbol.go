package edit

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/parts"
)

// PutSymbol makes a symbol: of a list of pins laid out around a body, or with an empty body.
type PutSymbol struct {
	Name   string         `json:"name"`
	Pins   []parts.Listed `json:"pins,omitempty"`
	Layout string         `json:"layout,omitempty"` // one of parts.Layouts
}

// Apply the command.
func (c *PutSymbol) Apply(tx *Tx) error {
	if tx.Doc.Symbol(c.Name) != nil {
		return fmt.Errorf("the project has a symbol called %s already", c.Name)
	}
	s, err := newSymbol(c.Name, c.Pins, c.Layout)
	if err != nil {
		return err
	}
	s.ID = tx.Doc.NewID()
	return tx.Put(s)
}

func newSymbol(name string, pins []parts.Listed, layout string) (*design.Symbol, error) {
	if len(pins) > 0 {
		return parts.Arrange(name, pins, layout)
	}
	const w, h = 2 * parts.Pitch, 3 * parts.Pitch
	return &design.Symbol{
		Name: name, ShowNames: true, Pins: []design.Pin{}, DesignatorAt: geom.Pt(0, h+2_300_000), ValueAt: geom.Pt(0, -h-2_300_000),
		Figures: []design.Figure{{Form: "area", Pts: []geom.Point{geom.Pt(-w, -h), geom.Pt(w, -h), geom.Pt(w, h), geom.Pt(-w, h)}}},
	}, nil
}

// SymbolPieces puts pins and figures into a symbol, each in the place of the one with its ref or as a new one, and takes others out.
type SymbolPieces struct {
	Symbol        design.ID       `json:"symbol"`
	Pins          []design.Pin    `json:"pins,omitempty"`
	Figures       []design.Figure `json:"figures,omitempty"`
	RemovePins    []int           `json:"removePins,omitempty"`
	RemoveFigures []int           `json:"removeFigures,omitempty"`
	Fit           bool            `json:"fit,omitempty"` // the body grows to hold its pins
}

// Apply the command.
func (c *SymbolPieces) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Symbols, c.Symbol, "symbol")
	if err != nil {
		return err
	}
	s, pins, figures := old.Named()
	if s.Pins, err = pieces(s.Pins, c.Pins, c.RemovePins, pins, func(p *design.Pin) *int { return &p.ID }, "pin"); err != nil {
		return err
	}
	if s.Figures, err = pieces(s.Figures, c.Figures, c.RemoveFigures, figures, func(f *design.Figure) *int { return &f.ID }, "line"); err != nil {
		return err
	}
	if c.Fit {
		if s, err = parts.Fit(s); err != nil {
			return err
		}
	}
	return tx.Put(s)
}

// pieces is a list with some put in by their refs and some taken out. One that is put under a ref that is not there any more
// is refused, since somebody else took it out meanwhile.
func pieces[T any](list, put []T, remove []int, free int, ref func(*T) *int, what string) ([]T, error) {
	for _, p := range put {
		at := *ref(&p)
		if at == 0 {
			*ref(&p) = free
			free++
			list = append(list, p)
			continue
		}
		i := slices.IndexFunc(list, func(o T) bool { return *ref(&o) == at })
		if i < 0 {
			return nil, fmt.Errorf("there is no such %s any more (%d)", what, at)
		}
		list[i] = p
	}
	for _, at := range remove {
		i := slices.IndexFunc(list, func(o T) bool { return *ref(&o) == at })
		if i < 0 {
			return nil, fmt.Errorf("there is no such %s any more (%d)", what, at)
		}
		list = slices.Delete(list, i, i+1)
	}
	return list, nil
}

// SetSymbol changes what a symbol is called and how it shows its texts.
type SetSymbol struct {
	Symbol       design.ID   `json:"symbol"`
	Name         *string     `json:"name,omitempty"`
	ShowNames    *bool       `json:"showNames,omitempty"`
	DesignatorAt *geom.Point `json:"designatorAt,omitempty"`
	ValueAt      *geom.Point `json:"valueAt,omitempty"`
}

// Apply the command.
func (c *SetSymbol) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Symbols, c.Symbol, "symbol")
	if err != nil {
		return err
	}
	s := *old
	set(&s.Name, c.Name)
	set(&s.ShowNames, c.ShowNames)
	set(&s.DesignatorAt, c.DesignatorAt)
	set(&s.ValueAt, c.ValueAt)
	if s.Name != old.Name {
		if tx.Doc.Symbol(s.Name) != nil {
			return fmt.Errorf("the project has a symbol called %s already", s.Name)
		}
		s.Origin = design.Origin{}
	}
	if err := tx.Put(&s); err != nil || s.Name == old.Name {
		return err
	}
	for l := range tx.Doc.LibraryParts.All() {
		q := *l
		q.Units = slices.Clone(l.Units)
		changed := false
		for _, at := range append(pointers(q.Units), &q.Symbol) {
			if *at == old.Name {
				*at, changed = s.Name, true
			}
		}
		if changed {
			if err := tx.Put(&q); err != nil {
				return err
			}
		}
	}
	return nil
}

func pointers(list []string) []*string {
	out := make([]*string, len(list))
	for i := range list {
		out[i] = &list[i]
	}
	return out
}

// ResizeBody gives a symbol's body another size; the pins on its sides go with them.
type ResizeBody struct {
	Symbol design.ID `json:"symbol"`
	Box    geom.Box  `json:"box"`
}

// Apply the command.
func (c *ResizeBody) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Symbols, c.Symbol, "symbol")
	if err != nil {
		return err
	}
	s, err := parts.Resize(old, geom.BoxOf(c.Box.Min, c.Box.Max))
	if err != nil {
		return err
	}
	return tx.Put(s)
}

// SetOrigin makes a place of a symbol or footprint its origin.
type SetOrigin struct {
	ID design.ID  `json:"id"`
	At geom.Point `json:"at"`
}

// Apply the command.
func (c *SetOrigin) Apply(tx *Tx) error {
	switch o := tx.Doc.Get(c.ID).(type) {
	case *design.Symbol:
		return tx.Put(parts.ShiftedSymbol(o, geom.Pt(-c.At.X, -c.At.Y)))
	case *design.Footprint:
		return tx.Put(parts.ShiftedFootprint(o, geom.Pt(-c.At.X, -c.At.Y)))
	}
	return fmt.Errorf("there is no such symbol or footprint any more (id %d)", c.ID)
}

// AddPins puts a list of pins into a symbol, laid out around its body.
type AddPins struct {
	Symbol design.ID      `json:"symbol"`
	Pins   []parts.Listed `json:"pins"`
	Layout string         `json:"layout"`
}

// Apply the command.
func (c *AddPins) Apply(tx *Tx) error {
	old, err := get(tx.Doc.Symbols, c.Symbol, "symbol")
	if err != nil {
		return err
	}
	s, err := parts.AddListed(old, c.Pins, c.Layout)
	if err != nil {
		return err
	}
	return tx.Put(s)
}
