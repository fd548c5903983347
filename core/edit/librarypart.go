package edit

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/parts"
)

// PutLibraryPart makes a part of the project's library, or changes the one that bears its id. Without a symbol it gets a new one of its
// own name.
type PutLibraryPart struct {
	Part   design.LibraryPart `json:"part"`
	Pins   []parts.Listed     `json:"pins,omitempty"`   // of a new symbol
	Layout string             `json:"layout,omitempty"` // of it
}

// Apply the command.
func (c *PutLibraryPart) Apply(tx *Tx) error {
	p := c.Part
	p.Name = strings.TrimSpace(p.Name)
	var old *design.LibraryPart
	if p.ID != 0 {
		var err error
		if old, err = get(tx.Doc.LibraryParts, p.ID, "library part"); err != nil {
			return err
		}
	}
	if there := tx.Doc.LibraryPart(p.Name); there != nil && there.ID != p.ID {
		return fmt.Errorf("the project has a part called %s already", p.Name)
	}
	if p.Symbol == "" && len(p.Units) > 0 {
		p.Symbol = p.Units[0]
	}
	if p.Symbol == "" {
		name := p.Name
		for n := 2; tx.Doc.Symbol(name) != nil; n++ {
			name = fmt.Sprintf("%s (%d)", p.Name, n)
		}
		s, err := newSymbol(name, c.Pins, c.Layout)
		if err != nil {
			return err
		}
		s.ID = tx.Doc.NewID()
		if err := tx.Put(s); err != nil {
			return err
		}
		p.Symbol = name
	}
	for _, name := range append([]string{p.Footprint}, values(p.Densities)...) {
		if err := tx.ensureFootprint(name); err != nil {
			return err
		}
	}
	if p.ID == 0 {
		p.ID = tx.Doc.NewID()
	}
	if old != nil && old.Name != p.Name {
		p.Origin = design.Origin{}
	}
	if err := tx.Put(&p); err != nil || old == nil || old.Name == p.Name {
		return err
	}
	for q := range tx.Doc.Parts.All() {
		if q.Library == old.Name {
			r := *q
			r.Library = p.Name
			if err := tx.Put(&r); err != nil {
				return err
			}
		}
	}
	return nil
}

func values(m map[string]string) []string {
	var out []string
	for _, k := range design.Densities {
		if v := m[k]; v != "" {
			out = append(out, v)
		}
	}
	return out
}

// TakeParts brings parts of the libraries into the project, without placing them.
type TakeParts struct {
	Names []string `json:"names"`
}

// Apply the command.
func (c *TakeParts) Apply(tx *Tx) error {
	if len(c.Names) > 1000 {
		return fmt.Errorf("%d parts are too many to take at once; 1000 are the most", len(c.Names))
	}
	for _, n := range c.Names {
		if _, err := tx.ensurePart(n); err != nil {
			return err
		}
	}
	return nil
}

// SetChecked says of library parts that they were held against their datasheets, or takes that back.
type SetChecked struct {
	Parts []design.ID `json:"parts"`
	Off   bool        `json:"off,omitempty"`
	By    string      `json:"by,omitempty"`
	On    string      `json:"on,omitempty"`
	Note  string      `json:"note,omitempty"`
}

// Apply the command.
func (c *SetChecked) Apply(tx *Tx) error {
	for _, id := range c.Parts {
		old, err := get(tx.Doc.LibraryParts, id, "library part")
		if err != nil {
			return err
		}
		p := *old
		p.Checked = nil
		if !c.Off {
			if strings.TrimSpace(c.By) == "" {
				return fmt.Errorf("who checked %s against its datasheet is not said", old.Name)
			}
			p.Checked = &design.Checked{By: c.By, On: c.On, Note: c.Note, Print: parts.Print(old, tx.Doc)}
		}
		if err := tx.Put(&p); err != nil {
			return err
		}
	}
	return nil
}

// DropItems takes symbols, footprints and library parts out of the project that nothing uses.
type DropItems struct {
	IDs []design.ID `json:"ids"`
}

// Apply the command.
func (c *DropItems) Apply(tx *Tx) error {
	for _, id := range c.IDs { // parts first, so that what they use can go with them
		if l, ok := tx.Doc.Get(id).(*design.LibraryPart); ok {
			if used := parts.UsesOfPart(tx.Doc, l.Name); len(used) > 0 {
				return fmt.Errorf("the part %s stands in the circuit as %s", l.Name, some(used))
			}
			tx.Remove(l)
		}
	}
	for _, id := range c.IDs {
		switch o := tx.Doc.Get(id).(type) {
		case *design.Symbol:
			if used := parts.UsesOfSymbol(tx.Doc, o.Name); len(used) > 0 {
				return fmt.Errorf("the symbol %s is that of %s", o.Name, some(used))
			}
			tx.Remove(o)
		case *design.Footprint:
			if used := parts.UsesOfFootprint(tx.Doc, o.Name); len(used) > 0 {
				return fmt.Errorf("the footprint %s is that of %s", o.Name, some(used))
			}
			tx.Remove(o)
			tx.sweep(o)
		case nil, *design.LibraryPart:
		default:
			return fmt.Errorf("%s is not part of a library", tx.Doc.Called(o))
		}
	}
	return nil
}

// sweep removes what a footprint showed, a picture beneath it or the file of its body, once nothing shows it any more.
func (tx *Tx) sweep(was *design.Footprint) {
	for _, id := range shownBy(was) {
		if a := tx.Doc.Assets[id]; a != nil && !shown(tx.Doc, id) {
			tx.Remove(a)
		}
	}
}

func shownBy(f *design.Footprint) (out []design.ID) {
	if f.Beneath != nil {
		out = append(out, f.Beneath.Asset)
	}
	if f.Model != 0 {
		out = append(out, f.Model)
	}
	return out
}

// shown tells whether a picture of a sheet or a footprint shows the asset.
func shown(d *design.Doc, asset design.ID) bool {
	for _, p := range d.Pictures {
		if p.Asset == asset {
			return true
		}
	}
	for f := range d.Footprints.All() {
		if slices.Contains(shownBy(f), asset) {
			return true
		}
	}
	return false
}

// some names the first few of many.
func some(list []string) string {
	if len(list) > 4 {
		return fmt.Sprintf("%s and %d more", strings.Join(list[:3], ", "), len(list)-3)
	}
	return strings.Join(list, ", ")
}
