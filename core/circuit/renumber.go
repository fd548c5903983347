package circuit

import (
	"cmp"
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Renaming is a package's designator before and after.
type Renaming struct {
	Units []PartRef `json:"units"`
	Old   string    `json:"old"`
	New   string    `json:"new"`
}

// Numbering says how designators are to be given anew by position.
type Numbering struct {
	Sheets   []design.ID `json:"sheets,omitempty"`   // empty: all
	Prefixes []string    `json:"prefixes,omitempty"` // empty: all
	Way      string      `json:"way"`                // rows: from the left, row by row; columns: from the top, column by column
	From     int         `json:"from,omitempty"`     // the first number; 0: 1
}

// Renumber plans new designators: sheet by sheet in their order, within a sheet by position.
// Numbers of parts that are left out are skipped. Only packages whose designator changes
// are listed.
func Renumber(d *design.Doc, t *Tree, by Numbering) ([]Renaming, error) {
	if by.Way != "rows" && by.Way != "columns" {
		return nil, fmt.Errorf("parts are numbered by rows or by columns, not by %q", by.Way)
	}
	if by.From < 0 || by.From > 1_000_000 {
		return nil, fmt.Errorf("numbering cannot begin with %d", by.From)
	}
	type item struct {
		k      Package
		nth    int
		at     geom.Point
		prefix string
	}
	var list []item
	kept := map[string]bool{}
	for _, k := range Packages(d, t) {
		p := d.Parts[k.Lead().Part]
		prefix := design.Prefix(k.Designator)
		if len(by.Sheets) > 0 && !slices.Contains(by.Sheets, p.Sheet) || len(by.Prefixes) > 0 && !slices.Contains(by.Prefixes, prefix) {
			kept[k.Designator] = true
			continue
		}
		list = append(list, item{k, t.order[useKey{k.Lead().Path, p.Sheet}], p.At, prefix})
	}
	const row = 7_500_000 // what stands within a row differs by less
	slices.SortStableFunc(list, func(a, b item) int {
		first, second := cmp.Compare(b.at.Y/row, a.at.Y/row), cmp.Compare(a.at.X, b.at.X)
		if by.Way == "columns" {
			first, second = cmp.Compare(a.at.X/row, b.at.X/row), cmp.Compare(b.at.Y, a.at.Y)
		}
		return cmp.Or(cmp.Compare(a.nth, b.nth), first, second)
	})
	next := map[string]int{}
	var out []Renaming
	for _, it := range list {
		if next[it.prefix] == 0 {
			next[it.prefix] = max(1, by.From)
		}
		name := fmt.Sprintf("%s%d", it.prefix, next[it.prefix])
		for kept[name] {
			next[it.prefix]++
			name = fmt.Sprintf("%s%d", it.prefix, next[it.prefix])
		}
		next[it.prefix]++
		if name != it.k.Designator {
			out = append(out, Renaming{it.k.Units, it.k.Designator, name})
		}
	}
	return out, nil
}
