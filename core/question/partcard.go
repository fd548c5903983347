package question

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/library"
	"goldentrace/core/paper"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// PartCard asks for all that is shown of a part before it is chosen: of the project, or of a library.
type PartCard struct {
	Name    string `json:"name"`
	Project bool   `json:"project,omitempty"` // the project's own; else the libraries'
}

// Card is the answer.
type Card struct {
	Part    *design.LibraryPart `json:"part"`
	Symbols []CardSymbol        `json:"symbols"`
	Foot    *design.Footprint   `json:"foot,omitempty"`
	Pattern *layout.Pattern     `json:"pattern,omitempty"`
	Rows    []parts.PinRow      `json:"rows"`
	Found   []parts.Flaw        `json:"found"`
	Checked string              `json:"checked"`
	Used    []string            `json:"used"`
	Have    design.ID           `json:"have,omitempty"` // the part in the project, where there is one of the name
}

// CardSymbol is a symbol of a card.
type CardSymbol struct {
	ID    design.ID    `json:"id,omitempty"` // in the project
	Name  string       `json:"name"`
	Marks []paper.Mark `json:"marks"`
}

// itemSource finds the symbols and footprints of an item of a library.
type itemSource struct {
	item library.Item
	from library.Source
}

func (s itemSource) Symbol(name string) *design.Symbol {
	for _, x := range append([]*design.Symbol{s.item.Symbol}, s.item.Units...) {
		if x != nil && x.Name == name {
			return x
		}
	}
	return nil
}

func (s itemSource) Footprint(name string) *design.Footprint {
	if f := s.item.Footprint; f != nil && f.Name == name {
		return f
	}
	return s.from.Footprint(name)
}

// Answer the question.
func (q *PartCard) Answer(b *workbench.Bench) (*Card, error) {
	out := &Card{Symbols: []CardSymbol{}, Rows: []parts.PinRow{}, Found: []parts.Flaw{}, Used: []string{}}
	var from parts.Source = b.Doc
	if own := b.Doc.LibraryPart(q.Name); own != nil {
		out.Have = own.ID
		out.Part = own
		out.Used = append(out.Used, parts.UsesOfPart(b.Doc, own.Name)...)
	}
	if !q.Project {
		source := shelfOf(b)
		it, ok := source.Find(q.Name)
		if !ok {
			return nil, fmt.Errorf("the libraries have no part called %q", q.Name)
		}
		out.Part, from = it.Part, itemSource{it, source}
	}
	if out.Part == nil {
		return nil, fmt.Errorf("the project has no part called %q", q.Name)
	}
	for _, s := range parts.Symbols(out.Part, from) {
		out.Symbols = append(out.Symbols, CardSymbol{s.ID, s.Name, symbolMarks(s)})
	}
	out.Rows, out.Found = parts.Mapping(out.Part, out.Part.Footprint, from)
	out.Checked = parts.CheckState(out.Part, from)
	switch f := from.Footprint(out.Part.Footprint); {
	case out.Part.Footprint == "":
		out.Found = append(out.Found, parts.Flaw{Kind: "noFootprint", Severity: "todo", Text: "It has no footprint yet: nothing of it would be on a board."})
	case f == nil:
		out.Found = append(out.Found, parts.Flaw{Kind: "noFootprint", Severity: "fault", Text: fmt.Sprintf("Its footprint %s is not there.", out.Part.Footprint)})
	default:
		p := layout.PatternOf(f)
		out.Foot, out.Pattern = f, &p
		out.Found = append(out.Found, parts.CheckFootprint(f, parts.LimitsOf(b.Doc))...)
	}
	return out, nil
}
