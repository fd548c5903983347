package edit

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
)

// Cell is one entry of the table of parts.
type Cell struct {
	ID    design.ID `json:"id"`
	Path  string    `json:"path,omitempty"` // of the use of its sheet, for the designator
	Field string    `json:"field"`          // designator, value, footprint, fitted (yes or no), or a field of one's own
	Text  string    `json:"text"`
}

// Fields of every part, in the order in which they are shown; all others are one's own.
var Fields = []string{"designator", "value", "footprint", "fitted"}

// SetParts changes entries of the table of parts, all in one step. Designators are given
// together, so that two parts may exchange theirs.
type SetParts struct {
	Cells []Cell `json:"cells"`
}

// Apply the command.
func (c *SetParts) Apply(tx *Tx) error {
	var names []Cell
	for _, x := range c.Cells {
		p, err := get(tx.Doc.Parts, x.ID, "part")
		if err != nil {
			return err
		}
		if x.Field == "designator" {
			x.Text = strings.TrimSpace(x.Text)
			names = append(names, x)
			continue
		}
		for _, u := range tx.units(p) {
			if err := tx.setCell(u, x.Field, x.Text); err != nil {
				return fmt.Errorf("%s: %w", p.Designator, err)
			}
		}
	}
	return tx.call(names)
}

// units lists the part and the other units of its package.
func (tx *Tx) units(p *design.Part) []*design.Part {
	if p.Unit == 0 {
		return []*design.Part{p}
	}
	var out []*design.Part
	for _, q := range tx.Doc.Bearers(p.Designator) {
		if q.Library == p.Library && q.Unit > 0 && q.Designator == p.Designator {
			out = append(out, q)
		}
	}
	return out
}

func (tx *Tx) setCell(old *design.Part, field, text string) error {
	p := *old
	text = strings.TrimSpace(text)
	switch field {
	case "value":
		p.Value = text
	case "footprint":
		p.Footprint = text
		if err := tx.ensureFootprint(text); err != nil {
			return err
		}
	case "fitted":
		switch strings.ToLower(text) {
		case "yes", "y", "true", "1", "":
			p.NotFitted = false
		case "no", "n", "false", "0":
			p.NotFitted = true
		default:
			return fmt.Errorf("%q does not say whether the part is fitted: yes or no", text)
		}
	default:
		p.Fields = maps.Clone(old.Fields)
		if p.Fields == nil {
			p.Fields = map[string]string{}
		}
		p.Fields[field] = text
		if text == "" {
			delete(p.Fields, field)
		}
		if len(p.Fields) == 0 {
			p.Fields = nil
		}
		if maps.Equal(p.Fields, old.Fields) {
			return nil
		}
		return tx.Put(&p)
	}
	if p.Value == old.Value && p.Footprint == old.Footprint && p.NotFitted == old.NotFitted {
		return nil
	}
	return tx.Put(&p)
}

// call gives designators, all at once; units of a package follow one of them.
func (tx *Tx) call(names []Cell) error {
	var touched []circuit.PartRef
	for _, x := range names {
		p := tx.Doc.Parts[x.ID]
		old := p.Called(x.Path)
		if old == x.Text {
			continue
		}
		if err := designatorForm(x.Text); err != nil {
			return err
		}
		for _, u := range tx.Doc.Bearers(old) {
			if u.ID != p.ID && (p.Unit == 0 || u.Unit == 0 || u.Library != p.Library) {
				continue
			}
			q := *u
			switch name, other := u.Others[x.Path]; {
			case other && name == old:
				q.Others = maps.Clone(u.Others)
				q.Others[x.Path] = x.Text
			case !other && u.Designator == old:
				q.Designator = x.Text
			default:
				continue
			}
			if err := tx.Put(&q); err != nil {
				return err
			}
			touched = append(touched, circuit.PartRef{Part: u.ID, Path: x.Path})
		}
	}
	for _, ref := range touched {
		p := tx.Doc.Parts[ref.Part]
		name := p.Called(ref.Path)
		if err := tx.mayBeCalled(p, name); err != nil {
			return err
		}
		times := 0
		for _, s := range append(slices.Collect(maps.Values(p.Others)), p.Designator) {
			if s == name {
				times++
			}
		}
		if times > 1 {
			return fmt.Errorf("there is already a part called %s", name)
		}
	}
	return nil
}

// SetPart changes one part's designator, value, footprint or whether it is fitted; nil
// fields stay.
type SetPart struct {
	ID         design.ID `json:"id"`
	Path       string    `json:"path,omitempty"` // of the use of its sheet, for the designator
	Designator *string   `json:"designator,omitempty"`
	Value      *string   `json:"value,omitempty"`
	Footprint  *string   `json:"footprint,omitempty"`
}

// Apply the command.
func (c *SetPart) Apply(tx *Tx) error {
	all := &SetParts{}
	add := func(field string, text *string) {
		if text != nil {
			all.Cells = append(all.Cells, Cell{c.ID, c.Path, field, *text})
		}
	}
	add("designator", c.Designator)
	add("value", c.Value)
	add("footprint", c.Footprint)
	return all.Apply(tx)
}

// Renumber gives designators anew by position.
type Renumber struct {
	circuit.Numbering
}

// Apply the command.
func (c *Renumber) Apply(tx *Tx) error {
	list, err := circuit.Renumber(tx.Doc, tx.Nets().Tree, c.Numbering)
	if err != nil {
		return err
	}
	puts := map[design.ID]*design.Part{}
	for _, r := range list {
		for _, u := range r.Units {
			q := puts[u.Part]
			if q == nil {
				c := *tx.Doc.Parts[u.Part]
				c.Others = maps.Clone(c.Others)
				q = &c
				puts[u.Part] = q
			}
			if _, other := q.Others[u.Path]; other {
				q.Others[u.Path] = r.New
			} else {
				q.Designator = r.New
			}
		}
	}
	for _, id := range slices.Sorted(maps.Keys(puts)) {
		if err := tx.Put(puts[id]); err != nil {
			return err
		}
	}
	return nil
}

// ReplacePart puts another part of the library in the place of each; wires follow to the
// pins with the same numbers. A value of one's own stays.
type ReplacePart struct {
	IDs     []design.ID `json:"ids"`
	Library string      `json:"library"`
}

// Apply the command.
func (c *ReplacePart) Apply(tx *Tx) error {
	l, err := tx.ensurePart(c.Library)
	if err != nil {
		return err
	}
	if len(l.Units) > 0 {
		return fmt.Errorf("%s is a package of several units; place its units one by one", l.Name)
	}
	bySheet := map[design.ID][]design.ID{}
	for _, id := range c.IDs {
		p, err := get(tx.Doc.Parts, id, "part")
		if err != nil {
			return err
		}
		bySheet[p.Sheet] = append(bySheet[p.Sheet], id)
	}
	motion := func(o design.Object) design.Object {
		p, ok := o.(*design.Part)
		if !ok || p.Library == l.Name {
			return o
		}
		q := *p
		old := tx.Doc.LibraryPart(p.Library)
		q.Library, q.Unit, q.Footprint = l.Name, 0, l.Footprint
		if old != nil && (p.Value == old.Value || p.Value == "") {
			q.Value = l.Value
		}
		if old != nil && old.Prefix != l.Prefix {
			q.Designator = tx.Doc.FreeDesignator(l.Prefix)
		}
		return &q
	}
	for _, sheet := range slices.Sorted(maps.Keys(bySheet)) {
		if err := tx.move(bySheet[sheet], motion); err != nil {
			return err
		}
	}
	return nil
}
