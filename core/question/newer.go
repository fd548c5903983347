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

// Newer asks which parts of the project their libraries have a newer version of.
type Newer struct{}

// NewVersion is one of them.
type NewVersion struct {
	Name    string   `json:"name"`
	Library string   `json:"library"`
	Have    int      `json:"have"`
	Latest  int      `json:"latest"`
	Changes []string `json:"changes"` // in sentences
}

// Answer the question. Cost: O(parts of the project's library, pins and pads).
func (q *Newer) Answer(b *workbench.Bench) ([]NewVersion, error) {
	out := []NewVersion{}
	for p := range b.Doc.LibraryParts.All() {
		it, ok := latest(b, p)
		if !ok {
			continue
		}
		if changes := parts.Differences(parts.Version{Part: p, From: b.Doc}, parts.Version{Part: it.Part, From: itemSource{it, shelfOf(b)}}); len(changes) > 0 {
			out = append(out, NewVersion{p.Name, p.Origin.Library, p.Origin.Version, it.Part.Origin.Version, changes})
		}
	}
	return out, nil
}

func shelfOf(b *workbench.Bench) library.Source {
	if b.Library != nil {
		return b.Library
	}
	return library.Shipped()
}

// latest is the item that a part was taken from, when its library has a later version than the part is of.
func latest(b *workbench.Bench, p *design.LibraryPart) (library.Item, bool) {
	if p.Origin.Library == "" {
		return library.Item{}, false
	}
	it, ok := shelfOf(b).Find(p.Name)
	return it, ok && it.Part.Origin.Library == p.Origin.Library && it.Part.Origin.Version > p.Origin.Version
}

// Overlay asks for two versions of a part over each other: the project's and the library's.
type Overlay struct {
	Name string `json:"name"`
}

// Overlaid is the answer.
type Overlaid struct {
	Changes []string        `json:"changes"`
	Old     []paper.Mark    `json:"old"` // of the symbol, or of the first unit
	New     []paper.Mark    `json:"new"`
	OldFoot *layout.Pattern `json:"oldFoot,omitempty"`
	NewFoot *layout.Pattern `json:"newFoot,omitempty"`
}

// Answer the question.
func (q *Overlay) Answer(b *workbench.Bench) (*Overlaid, error) {
	p := b.Doc.LibraryPart(q.Name)
	if p == nil {
		return nil, fmt.Errorf("the project has no part called %q", q.Name)
	}
	it, ok := shelfOf(b).Find(p.Name)
	if !ok {
		return nil, fmt.Errorf("the libraries have no part called %q", q.Name)
	}
	from := itemSource{it, shelfOf(b)}
	out := &Overlaid{Changes: parts.Differences(parts.Version{Part: p, From: b.Doc}, parts.Version{Part: it.Part, From: from}), Old: []paper.Mark{}, New: []paper.Mark{}}
	if s := parts.Symbols(p, b.Doc); len(s) > 0 {
		out.Old = symbolMarks(s[0])
	}
	if s := parts.Symbols(it.Part, from); len(s) > 0 {
		out.New = symbolMarks(s[0])
	}
	if f := b.Doc.Footprint(p.Footprint); f != nil {
		x := layout.PatternOf(f)
		out.OldFoot = &x
	}
	if f := from.Footprint(it.Part.Footprint); f != nil {
		x := layout.PatternOf(f)
		out.NewFoot = &x
	}
	return out, nil
}
