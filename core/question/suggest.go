package question

import (
	"errors"

	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/library"
	"goldentrace/core/parts"
	"goldentrace/core/workbench"
)

// Suggest asks which footprints suit parts of the circuit.
type Suggest struct {
	Parts []design.ID  `json:"parts"`          // of the circuit; they are to have as many pins
	Query string       `json:"query"`          // words of the name; * and ? stand for letters
	Like  *parts.Shape `json:"like,omitempty"` // of a component that was chosen; nil: as the library part's footprint
}

// Suggested is the answer.
type Suggested struct {
	Want    parts.Shape   `json:"want"`
	Matches []parts.Match `json:"matches"`
	Found   int           `json:"found"` // before the list was cut
}

const mostSuggested = 120

// Answer the question. Cost: O(footprints there are).
func (q *Suggest) Answer(b *workbench.Bench) (*Suggested, error) {
	if len(q.Parts) > 5000 || len(q.Query) > design.LongestText {
		return nil, errors.New("that is too much to be asked at once")
	}
	out := &Suggested{}
	for _, id := range q.Parts {
		p := b.Doc.Parts[id]
		if p == nil {
			continue
		}
		l := b.Doc.LibraryPart(p.Library)
		if l == nil {
			continue
		}
		pads := map[string]bool{}
		for _, pin := range parts.Pins(l, b.Doc) {
			for _, n := range l.Pads(pin.Number) {
				pads[n] = true
			}
		}
		if out.Want.Pins != 0 && out.Want.Pins != len(pads) {
			return nil, errors.New("the parts that are picked have different numbers of pins; pick those that can have one footprint")
		}
		out.Want.Pins = len(pads)
		if f := b.Doc.Footprint(l.Footprint); q.Like == nil && f != nil {
			s := parts.ShapeOf(f)
			s.Pins = len(pads)
			out.Want = s
		}
	}
	if q.Like != nil {
		pins := out.Want.Pins
		out.Want = *q.Like
		if pins > 0 {
			out.Want.Pins = pins
		}
	}
	var list []parts.Match
	seen := map[string]bool{}
	for f := range b.Doc.Footprints.All() {
		if seen[f.Name] = true; parts.Fits(f.Name, q.Query) {
			list = append(list, parts.Match{Name: f.Name, Shape: parts.ShapeOf(f), Density: f.Density()})
		}
	}
	for _, f := range library.FootprintsOf(shelfOf(b)) {
		if !seen[f.Name] && parts.Fits(f.Name, q.Query) {
			list = append(list, parts.Match{Name: f.Name, Library: f.Library, Shape: f.Shape, Density: f.Density})
		}
	}
	out.Matches = parts.Rank(out.Want, list, 0)
	if out.Found = len(out.Matches); out.Found > mostSuggested {
		out.Matches = out.Matches[:mostSuggested]
	}
	return out, nil
}

// FootprintNamed asks for the footprint of a name, of the project or the libraries.
type FootprintNamed struct {
	Name string `json:"name"`
}

// NamedFootprint is the answer.
type NamedFootprint struct {
	Footprint *design.Footprint `json:"footprint"`
	Pattern   layout.Pattern    `json:"pattern"`
	Model     []byte            `json:"model,omitempty"` // its body in space as binary glTF, where it has one
}

// Answer the question.
func (q *FootprintNamed) Answer(b *workbench.Bench) (*NamedFootprint, error) {
	f, own := b.Doc.Footprint(q.Name), true
	if f == nil {
		f, own = shelfOf(b).Footprint(q.Name), false
	}
	if f == nil {
		return nil, errors.New("there is no footprint of that name")
	}
	out := &NamedFootprint{Footprint: f, Pattern: layout.PatternOf(f)}
	if f.Model != 0 {
		model := b.Doc.Assets[f.Model]
		if !own {
			model = shelfOf(b).Asset(q.Name, f.Model)
		}
		if model != nil {
			out.Model = model.Data
		}
	}
	return out, nil
}
