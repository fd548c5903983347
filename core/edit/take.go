package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/library"
	"goldentrace/core/parts"
)

// ensurePart is the library part of the name, taken from the libraries when the project does not have it.
func (tx *Tx) ensurePart(name string) (*design.LibraryPart, error) {
	if l := tx.Doc.LibraryPart(name); l != nil {
		return l, nil
	}
	it, ok := tx.env.library().Find(name)
	if !ok {
		return nil, fmt.Errorf("the library has no part called %q", name)
	}
	return tx.take(it, nil)
}

// ensureFootprint takes the footprint of the name from the libraries when the project does not have it.
func (tx *Tx) ensureFootprint(name string) error {
	if name == "" || tx.Doc.Footprint(name) != nil {
		return nil
	}
	from := tx.env.library()
	f := from.Footprint(name)
	if f == nil {
		return fmt.Errorf("the library has no footprint called %q", name)
	}
	_, err := tx.takeFootprint(f, nil, func(id design.ID) *design.Asset { return from.Asset(name, id) })
	return err
}

// take puts an item of a library into the project: as a new part, or in the place of one that was taken before. What the project has of
// the same name but otherwise stays, and the item's gets another name, unless it is that part's own.
func (tx *Tx) take(it library.Item, old *design.LibraryPart) (*design.LibraryPart, error) {
	p := *it.Part
	p.ID = tx.Doc.NewID()
	was := &design.LibraryPart{}
	if old != nil {
		p.ID, was = old.ID, old
	}
	var err error
	if p.Symbol, err = tx.takeSymbol(it.Symbol, was.Symbol); err != nil {
		return nil, err
	}
	p.Units = nil
	for i, u := range it.Units {
		mine := ""
		if i < len(was.Units) {
			mine = was.Units[i]
		}
		name, err := tx.takeSymbol(u, mine)
		if err != nil {
			return nil, err
		}
		p.Units = append(p.Units, name)
	}
	asset := func(id design.ID) *design.Asset { return it.Assets[id] }
	if it.Footprint != nil {
		if p.Footprint, err = tx.takeFootprint(it.Footprint, tx.Doc.Footprint(was.Footprint), asset); err != nil {
			return nil, err
		}
	}
	// footprints of other densities come when they are chosen; those the project has follow their part
	for density := range it.Part.Densities {
		f := it.Others[density]
		if f == nil || old == nil || f.Name == it.Part.Footprint || tx.Doc.Footprint(f.Name) == nil {
			continue
		}
		if _, err := tx.takeFootprint(f, tx.Doc.Footprint(was.Densities[density]), asset); err != nil {
			return nil, err
		}
	}
	return &p, tx.Put(&p)
}

// takeSymbol puts a symbol into the project, or makes the one of the name mine like it, and tells what it is called there.
func (tx *Tx) takeSymbol(s *design.Symbol, mine string) (string, error) {
	c := *s
	there := tx.Doc.Symbol(s.Name)
	own := tx.Doc.Symbol(mine)
	switch {
	case there != nil && parts.SameSymbol(there, s):
		return there.Name, nil
	case own != nil && len(parts.UsesOfSymbol(tx.Doc, own.Name)) <= 1: // the part's alone
		c.ID, c.Name = own.ID, own.Name
	case there != nil:
		c.ID = tx.Doc.NewID()
		for n := 2; tx.Doc.Symbol(c.Name) != nil; n++ {
			c.Name = fmt.Sprintf("%s (%d)", s.Name, n)
		}
	default:
		c.ID = tx.Doc.NewID()
	}
	return c.Name, tx.Put(&c)
}

func (tx *Tx) takeFootprint(f *design.Footprint, own *design.Footprint, asset func(design.ID) *design.Asset) (string, error) {
	c := *f
	there := tx.Doc.Footprint(f.Name)
	switch {
	case there != nil && parts.SameFootprint(there, f):
		return there.Name, nil
	case own != nil && own.Name == f.Name:
		c.ID = own.ID
	case there != nil:
		c.ID = tx.Doc.NewID()
		for n := 2; tx.Doc.Footprint(c.Name) != nil; n++ {
			c.Name = fmt.Sprintf("%s (%d)", f.Name, n)
		}
	default:
		c.ID = tx.Doc.NewID()
	}
	bring := func(id design.ID) (design.ID, error) {
		a := asset(id)
		if a == nil {
			return 0, nil
		}
		b := *a
		b.ID = tx.Doc.NewID()
		return b.ID, tx.Put(&b)
	}
	if c.Beneath != nil {
		b := *c.Beneath
		id, err := bring(b.Asset)
		if err != nil {
			return "", err
		}
		b.Asset, c.Beneath = id, &b
		if id == 0 {
			c.Beneath = nil
		}
	}
	if c.Model != 0 {
		id, err := bring(c.Model)
		if err != nil {
			return "", err
		}
		c.Model = id
	}
	return c.Name, tx.Put(&c)
}

// UpdateParts brings parts that were taken from a library to the version that it has now.
type UpdateParts struct {
	Names []string `json:"names"`
}

// Apply the command.
func (c *UpdateParts) Apply(tx *Tx) error {
	if len(c.Names) > 1000 {
		return fmt.Errorf("%d parts are too many at once; 1000 are the most", len(c.Names))
	}
	for _, n := range c.Names {
		old := tx.Doc.LibraryPart(n)
		if old == nil {
			return fmt.Errorf("the project has no part called %q", n)
		}
		it, ok := tx.env.library().Find(n)
		if !ok {
			return fmt.Errorf("the libraries have no part called %q any more", n)
		}
		p, err := tx.take(it, old)
		if err != nil {
			return err
		}
		if err := tx.refoot(n, old.Footprint, p.Footprint); err != nil {
			return err
		}
	}
	return nil
}

// refoot gives the parts of the circuit that have the part's former footprint its new one.
func (tx *Tx) refoot(part, from, to string) error {
	if from == to {
		return nil
	}
	for q := range tx.Doc.Parts.All() {
		if q.Library == part && q.Footprint == from {
			r := *q
			r.Footprint = to
			if err := tx.Put(&r); err != nil {
				return err
			}
		}
	}
	return nil
}

// Released notes of library parts, and of what they are drawn with, that they are a version of a library now. The program gives it
// after it has kept them there.
type Released struct {
	Part    design.ID `json:"part"`
	Library string    `json:"library"`
	Version int       `json:"version"`
}

// Apply the command.
func (c *Released) Apply(tx *Tx) error {
	old, err := get(tx.Doc.LibraryParts, c.Part, "library part")
	if err != nil {
		return err
	}
	p := *old
	p.Origin = design.Origin{Library: c.Library, Version: c.Version}
	return tx.Put(&p)
}
