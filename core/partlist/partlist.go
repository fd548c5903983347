// Package partlist writes the table of a circuit's parts as CSV (RFC 4180) and reads changes
// back from one: which cells differ, before any is taken.
package partlist

import (
	"bytes"
	"encoding/csv"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
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
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	w.UseCRLF = true
	_ = w.WriteAll(rows) // a buffer does not fail
	return b.Bytes()
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

// LargestTable is the most bytes of a table that is read.
const LargestTable = 16 << 20

// Read compares a table with the circuit. The first line names the columns; Designator says
// which part a line is about, all other columns are fields. Separators may be commas,
// semicolons or tabs. Nothing is changed.
func Read(d *design.Doc, t *circuit.Tree, data []byte) (*Preview, error) {
	if len(data) > LargestTable {
		return nil, fmt.Errorf("the table is larger than %d MB", LargestTable>>20)
	}
	r := csv.NewReader(bytes.NewReader(bytes.TrimPrefix(data, []byte("\xef\xbb\xbf"))))
	r.Comma = separator(data)
	r.FieldsPerRecord = -1
	r.LazyQuotes = true
	rows, err := r.ReadAll()
	if err != nil {
		return nil, fmt.Errorf("the table cannot be read: %w", err)
	}
	if len(rows) == 0 {
		return nil, errors.New("the table is empty")
	}
	fields, of, err := columns(rows[0])
	if err != nil {
		return nil, err
	}
	packages := map[string]circuit.Package{}
	for _, k := range circuit.Packages(d, t) {
		packages[k.Designator] = k
	}
	out := &Preview{Changes: []Change{}, Problems: []string{}}
	seen := map[string]bool{}
	for i, row := range rows[1:] {
		line := i + 2
		if len(row) <= of || strings.TrimSpace(row[of]) == "" {
			if strings.TrimSpace(strings.Join(row, "")) != "" {
				out.Problems = append(out.Problems, fmt.Sprintf("Line %d names no part.", line))
			}
			continue
		}
		name := strings.TrimSpace(row[of])
		k, ok := packages[name]
		switch {
		case !ok:
			out.Problems = append(out.Problems, fmt.Sprintf("Line %d: there is no part called %s in the circuit.", line, name))
			continue
		case seen[name]:
			out.Problems = append(out.Problems, fmt.Sprintf("Line %d: %s stands in the table twice; the first line counts.", line, name))
			continue
		}
		seen[name] = true
		for c, field := range fields {
			if field == "" || field == "designator" || c >= len(row) {
				continue
			}
			p := d.Parts[k.Lead().Part]
			if text := strings.TrimSpace(row[c]); text != cell(p, k.Lead().Path, field) {
				out.Changes = append(out.Changes, Change{edit.Cell{ID: p.ID, Path: k.Lead().Path, Field: field, Text: text}, name, cell(p, k.Lead().Path, field)})
			}
		}
	}
	return out, nil
}

// separator guesses from the first line.
func separator(data []byte) rune {
	head, _, _ := bytes.Cut(data, []byte("\n"))
	best, most := ',', bytes.Count(head, []byte(","))
	for _, r := range []rune{';', '\t'} {
		if n := bytes.Count(head, []byte(string(r))); n > most {
			best, most = r, n
		}
	}
	return best
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
