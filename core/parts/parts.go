// Package parts is what there is to know of library parts beyond their data: which pin goes to which pad, what is wrong with a
// footprint by itself, pins from pasted tables, repeats with their numbering, footprints that suit a component, what differs
// between two versions. Lengths are nanometres; refs are those of design/refs.go.
package parts

import (
	"goldentrace/core/design"
)

// Severities of what is found in a part.
const (
	Fault   = "fault"
	Warning = "warning"
	ToDo    = "todo"
)

// Flaw is one thing wrong with a part, leading to its pin or pad.
type Flaw struct {
	Kind     string `json:"kind"`
	Severity string `json:"severity"`
	Text     string `json:"text"`
	Pin      string `json:"pin,omitempty"`  // number
	Pads     []int  `json:"pads,omitempty"` // refs
	// At is where it is, in the footprint's coordinates.
	X int64 `json:"x,omitempty"`
	Y int64 `json:"y,omitempty"`
}

// Source is where symbols and footprints are found by name: a document, or a library.
type Source interface {
	Symbol(name string) *design.Symbol
	Footprint(name string) *design.Footprint
}

// Symbols of the part: of its units, or its one.
func Symbols(p *design.LibraryPart, from Source) []*design.Symbol {
	names := p.Units
	if len(names) == 0 {
		names = []string{p.Symbol}
	}
	var out []*design.Symbol
	for _, n := range names {
		if s := from.Symbol(n); s != nil {
			out = append(out, s)
		}
	}
	return out
}

// Pins of the part, those of all its units.
func Pins(p *design.LibraryPart, from Source) []design.Pin {
	var out []design.Pin
	for _, s := range Symbols(p, from) {
		out = append(out, s.Pins...)
	}
	return out
}
