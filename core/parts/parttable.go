package parts

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/design"
)

// What a column of a table of parts holds.
const (
	LikeColumn        = "like"
	DescriptionColumn = "description"
	ValueColumn       = "value"
	FootprintColumn   = "footprint"
	PrefixColumn      = "prefix"
	KeywordsColumn    = "keywords"
	DatasheetColumn   = "datasheet"
	MakerColumn       = "maker"
	MakerNumberColumn = "part number"
	OrderNumberColumn = "order number"
)

var partHeadings = []heading{
	{NameColumn, []string{"name", "part", "library part"}},
	{LikeColumn, []string{"like", "as", "base", "symbol", "same as"}},
	{DescriptionColumn, []string{"description", "text"}},
	{ValueColumn, []string{"value"}},
	{FootprintColumn, []string{"footprint", "land pattern", "package"}},
	{PrefixColumn, []string{"prefix", "designator prefix"}},
	{KeywordsColumn, []string{"keywords", "tags", "words"}},
	{DatasheetColumn, []string{"datasheet", "data sheet"}},
	{MakerColumn, []string{"maker", "manufacturer"}},
	{MakerNumberColumn, []string{"part number", "manufacturer part number", "maker's number"}},
	{OrderNumberColumn, []string{"order number", "supplier number"}},
}

// TabledPart is what a row of a table makes: a part that is as another one but for what the row says.
type TabledPart struct {
	Part    design.LibraryPart `json:"part"`
	Like    string             `json:"like"`
	State   string             `json:"state"` // new, changed, same
	Changes []string           `json:"changes"`
	Wrong   string             `json:"wrong,omitempty"`
}

// PartTable is a table of parts as it was understood.
type PartTable struct {
	Table
	Parts []TabledPart `json:"parts"`
}

// MostPartRows bounds a table of parts.
const MostPartRows = 1000

// ReadPartTable reads a table of parts. A row names its part, and another one that it is like; what else it says takes the place of what
// that one says. Parts that are the project's own already change. Cost: O(length).
func ReadPartTable(text string, columns []string, from Shelves) (*PartTable, error) {
	t, _, err := readTable(text, columns, partHeadings, "parts", MostPartRows, func(told []string) bool { return slices.Contains(told, NameColumn) })
	if err != nil {
		return nil, err
	}
	out := &PartTable{Table: *t, Parts: []TabledPart{}}
	if !slices.Contains(out.Columns, NameColumn) {
		out.Notes = append(out.Notes, "No column holds the parts' names; say which one does.")
		return out, nil
	}
	seen := map[string]int{}
	for i, row := range out.Cells {
		p := out.part(row, from)
		if first, twice := seen[p.Part.Name]; twice && p.Wrong == "" {
			p.Wrong = fmt.Sprintf("Rows %d and %d both name %s.", first, i+1, p.Part.Name)
		}
		seen[p.Part.Name] = i + 1
		out.Parts = append(out.Parts, p)
	}
	return out, nil
}

// Shelves are where a table's parts and footprints are looked for.
type Shelves interface {
	// Own is the project's library part of the name, or nil.
	Own(name string) *design.LibraryPart
	// Any is the library part of the name, of the project or the libraries, or nil.
	Any(name string) *design.LibraryPart
	// Has tells whether there is a footprint of the name.
	Has(footprint string) bool
}

func (t *PartTable) part(row []string, from Shelves) TabledPart {
	out := TabledPart{Like: t.cell(row, LikeColumn), Changes: []string{}}
	name := strings.TrimSpace(t.cell(row, NameColumn))
	out.Part.Name = name
	there, base := from.Own(name), from.Any(name)
	if out.Like != "" {
		if base = from.Any(out.Like); base == nil {
			out.Wrong = fmt.Sprintf("There is no part called “%s” that it could be like.", out.Like)
			return out
		}
	}
	switch {
	case name == "":
		out.Wrong = "The row has no name."
		return out
	case base == nil:
		out.Wrong = fmt.Sprintf("%s is new; name a part that it is like, whose symbol it has.", name)
		return out
	}
	p := *base
	p.ID, p.Name, p.Origin, p.Checked = 0, name, design.Origin{}, nil
	if there != nil {
		p.ID = there.ID
	}
	p.Order = maps.Clone(base.Order)
	for kind, at := range map[string]*string{DescriptionColumn: &p.Description, ValueColumn: &p.Value, FootprintColumn: &p.Footprint, PrefixColumn: &p.Prefix, KeywordsColumn: &p.Keywords, DatasheetColumn: &p.Datasheet} {
		if v := t.cell(row, kind); v != "" {
			*at = v
		}
	}
	for _, kind := range []string{MakerColumn, MakerNumberColumn, OrderNumberColumn} {
		if v := t.cell(row, kind); v != "" {
			if p.Order == nil {
				p.Order = map[string]string{}
			}
			p.Order[kind] = v
		}
	}
	if p.Footprint != base.Footprint {
		p.Densities = nil
		if !from.Has(p.Footprint) {
			out.Wrong = fmt.Sprintf("There is no footprint called “%s”.", p.Footprint)
			return out
		}
	}
	out.Part = p
	out.State = "new"
	if there != nil {
		out.Changes = partDifferences(there, &p)
		out.State = "changed"
		if len(out.Changes) == 0 {
			out.State = "same"
			out.Part.Checked, out.Part.Origin = there.Checked, there.Origin
		}
	}
	return out
}

// partDifferences says what a part would say otherwise.
func partDifferences(was, is *design.LibraryPart) []string {
	out := []string{}
	say := func(what, a, b string) {
		if a != b {
			out = append(out, fmt.Sprintf("%s “%s” instead of “%s”", what, b, a))
		}
	}
	say("symbol", was.Symbol, is.Symbol)
	say("footprint", was.Footprint, is.Footprint)
	say("value", was.Value, is.Value)
	say("description", was.Description, is.Description)
	say("prefix", was.Prefix, is.Prefix)
	say("keywords", was.Keywords, is.Keywords)
	say("datasheet", was.Datasheet, is.Datasheet)
	for _, k := range []string{MakerColumn, MakerNumberColumn, OrderNumberColumn} {
		say(k, was.Order[k], is.Order[k])
	}
	return out
}
