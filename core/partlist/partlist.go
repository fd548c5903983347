// Package partlist writes the table of a circuit's parts as CSV (RFC 4180) and reads changes
// back from one: which cells differ, before any is taken.
package partlist

import (
	"context"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/tabular"
)

// fixed columns by their heads; those without a field are for reading only.
var fixed = []struct{ head, field string }{
	{"Designator", "designator"}, {"Value", "value"}, {"Footprint", "footprint"}, {"Fitted", "fitted"}, {"Library part", ""}, {"Sheet", ""},
}

// OwnFields lists the fields of one's own that any part has, by name.
func OwnFields(d *design.Doc) []string {
	seen := map[string]bool{}
	for _, p := range d.Parts {
		for f := range p.Fields {
			seen[f] = true
		}
	}
	return slices.SortedFunc(maps.Keys(seen), circuit.CompareNatural)
}

// Write makes the table: a line for each package, by designator.
func Write(d *design.Doc, t *circuit.Tree) []byte {
	own := OwnFields(d)
	var rows [][]string
	head := []string{}
	for _, f := range fixed {
		head = append(head, f.head)
	}
	rows = append(rows, append(head, own...))
	for _, k := range circuit.Packages(d, t) {
		p := d.Parts[k.Lead().Part]
		row := []string{k.Designator}
		for _, f := range fixed[1:4] {
			row = append(row, cell(p, "", f.field))
		}
		row = append(row, p.Library, d.Sheets[p.Sheet].Name)
		for _, f := range own {
			row = append(row, p.Fields[f])
		}
		rows = append(rows, row)
	}
	return tabular.CSV(rows)
}

// cell is what a part has in a field.
func cell(p *design.Part, path, field string) string {
	switch field {
	case "designator":
		return p.Called(path)
	case "value":
		return p.Value
	case "footprint":
		return p.Footprint
	case "fitted":
		if p.NotFitted {
			return "no"
		}
		return "yes"
	}
	return p.Fields[field]
}

// Change is one cell that a table would change.
type Change struct {
	edit.Cell
	Designator string `json:"designator"`
	Old        string `json:"old"`
}

// Preview is what taking a table in would do, and what of it cannot be taken.
type Preview struct {
	Changes  []Change `json:"changes"`
	Problems []string `json:"problems"`
}

// Bounds of a table that is read: its bytes, its rows, and its columns.
const (
	LargestTable = 16 << 20
	MostRows     = 200_000
	MostColumns  = 200
)

// Read compares a table with the circuit. The first line names the columns; Designator says
// which part a line is about, all other columns are fields. Separators may be commas,
// semicolons or tabs. Nothing is changed. It takes a while for large tables, and stops when the context ends.
func Read(ctx context.Context, d *design.Doc, t *circuit.Tree, data []byte) (*Preview, error) {
	packages := map[string]circuit.Package{}
	for _, k := range circuit.Packages(d, t) {
		packages[k.Designator] = k
	}
	c := &comparison{doc: d, packages: packages, seen: map[string]bool{}, changes: []Change{}}
	if err := tabular.Read(ctx, data, tabular.Bounds{Bytes: LargestTable, Rows: MostRows}, c.row); err != nil {
		return nil, err
	}
	return &Preview{Changes: c.changes, Problems: c.problems.List()}, nil
}

// comparison of a table with the circuit, row by row.
type comparison struct {
	doc      *design.Doc
	packages map[string]circuit.Package
	fields   []string // what each column is; nil before the head was read
	of       int      // the column with the designators
	seen     map[string]bool
	changes  []Change
	problems tabular.Problems
}

func (c *comparison) row(line int, row []string) (err error) {
	if c.fields == nil {
		if len(row) > MostColumns {
			return fmt.Errorf("the table has %d columns; %d are the most", len(row), MostColumns)
		}
		c.fields, c.of, err = columns(row)
		return err
	}
	if len(row) <= c.of || strings.TrimSpace(row[c.of]) == "" {
		if strings.TrimSpace(strings.Join(row, "")) != "" {
			c.problems.Add("Line %d names no part.", line)
		}
		return nil
	}
	name := strings.TrimSpace(row[c.of])
	k, ok := c.packages[name]
	switch {
	case !ok:
		c.problems.Add("Line %d: there is no part called %s in the circuit.", line, name)
		return nil
	case c.seen[name]:
		c.problems.Add("Line %d: %s stands in the table twice; the first line counts.", line, name)
		return nil
	}
	c.seen[name] = true
	p, path := c.doc.Parts[k.Lead().Part], k.Lead().Path
	for i, field := range c.fields {
		if field == "" || field == "designator" || i >= len(row) {
			continue
		}
		if text, old := strings.TrimSpace(row[i]), cell(p, path, field); text != old {
			c.changes = append(c.changes, Change{edit.Cell{ID: p.ID, Path: path, Field: field, Text: text}, name, old})
		}
	}
	return nil
}

// columns tells which field each column is, and which column holds the designators.
func columns(head []string) (fields []string, of int, err error) {
	of = -1
	seen := map[string]bool{}
	for i, h := range head {
		h = strings.TrimSpace(h)
		field := h
		for _, f := range fixed {
			if strings.EqualFold(h, f.head) {
				field = f.field
			}
		}
		if field == "designator" {
			of = i
		}
		if field != "" && seen[field] {
			return nil, 0, fmt.Errorf("the table has two columns called %s", h)
		}
		seen[field] = true
		fields = append(fields, field)
	}
	if of < 0 {
		return nil, 0, fmt.Errorf("the table has no column called Designator, so nobody can tell which part a line is about; its columns are %s", strings.Join(head, ", "))
	}
	return fields, of, nil
}
