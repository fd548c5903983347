package edit

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/library"
	"goldentrace/core/parts"
)

// Shelves are a project's own parts and those of the libraries.
type Shelves struct {
	Doc     *design.Doc
	Library library.Source
}

// Own is the project's library part of the name, or nil.
func (s Shelves) Own(name string) *design.LibraryPart { return s.Doc.LibraryPart(name) }

// Any is the library part of the name, of the project or the libraries, or nil.
func (s Shelves) Any(name string) *design.LibraryPart {
	if l := s.Doc.LibraryPart(name); l != nil {
		return l
	}
	if it, ok := s.Library.Find(name); ok {
		return it.Part
	}
	return nil
}

// Has tells whether there is a footprint of the name.
func (s Shelves) Has(footprint string) bool {
	return s.Doc.Footprint(footprint) != nil || s.Library.Footprint(footprint) != nil
}

// TakePartTable makes library parts of the project from a table, each as another one is but for what its row says.
type TakePartTable struct {
	Text    string   `json:"text"`
	Columns []string `json:"columns,omitempty"` // what each holds; none: as recognised
}

// Apply the command.
func (c *TakePartTable) Apply(tx *Tx) error {
	t, err := parts.ReadPartTable(c.Text, c.Columns, Shelves{tx.Doc, tx.env.library()})
	if err != nil {
		return err
	}
	if len(t.Parts) == 0 {
		return fmt.Errorf("the table names no parts")
	}
	for i := range t.Parts {
		row := &t.Parts[i]
		if row.Wrong != "" {
			return fmt.Errorf("%s", row.Wrong)
		}
		if row.State == "same" {
			continue
		}
		like := row.Like
		if like == "" {
			like = row.Part.Name
		}
		base, err := tx.ensurePart(like)
		if err != nil {
			return err
		}
		p := row.Part
		p.Symbol, p.Units, p.PadOf = base.Symbol, base.Units, base.PadOf
		if there := tx.Doc.LibraryPart(p.Name); there != nil {
			p.ID = there.ID
		} else {
			p.ID = tx.Doc.NewID()
		}
		for _, name := range append([]string{p.Footprint}, values(p.Densities)...) {
			if err := tx.ensureFootprint(name); err != nil {
				return err
			}
		}
		if err := tx.Put(&p); err != nil {
			return err
		}
	}
	return nil
}
