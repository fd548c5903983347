package parts

import (
	"encoding/json"
	"fmt"
	"hash/fnv"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/landpattern"
)

// UsesOfPart are the designators of the parts of a circuit that are of a library part. Cost: O(parts of the circuit).
func UsesOfPart(d *design.Doc, name string) []string {
	return used(d, func(p *design.Part) bool { return p.Library == name })
}

// UsesOfSymbol are the library parts that have a symbol.
func UsesOfSymbol(d *design.Doc, name string) []string {
	var out []string
	for l := range d.LibraryParts.All() {
		if l.Symbol == name || slices.Contains(l.Units, name) {
			out = append(out, l.Name)
		}
	}
	return out
}

// UsesOfFootprint are the library parts, and the parts of circuit and board, that have a footprint.
func UsesOfFootprint(d *design.Doc, name string) []string {
	var out []string
	for l := range d.LibraryParts.All() {
		if l.Footprint == name || slices.Contains(mapValues(l.Densities), name) {
			out = append(out, l.Name)
		}
	}
	out = append(out, used(d, func(p *design.Part) bool { return p.Footprint == name })...)
	for p := range d.Placed.All() {
		if p.Footprint == name && !slices.Contains(out, p.Designator) {
			out = append(out, p.Designator)
		}
	}
	return out
}

func mapValues(m map[string]string) []string {
	var out []string
	for _, v := range m {
		out = append(out, v)
	}
	return out
}

func used(d *design.Doc, is func(*design.Part) bool) []string {
	seen := map[string]bool{}
	var out []string
	for _, p := range d.Parts {
		if is(p) && !seen[p.Designator] {
			seen[p.Designator] = true
			out = append(out, p.Designator)
		}
	}
	slices.SortFunc(out, circuit.CompareNatural)
	return out
}

// Print is a fingerprint of what is held against a datasheet: the part's pins, symbols, footprints and which pin goes to which pad.
// Refs, places of texts, pictures and dimensions are none of it.
func Print(p *design.LibraryPart, from Source) string {
	h := fnv.New64a()
	put := func(v any) {
		data, _ := json.Marshal(v) // plain data always marshals
		_, _ = h.Write(data)       // never fails
	}
	put(p.PadOf)
	for _, s := range Symbols(p, from) {
		for _, pin := range s.Pins {
			fmt.Fprintf(h, "%q %q %q\n", pin.Number, pin.Name, pin.Type)
		}
	}
	names := append([]string{p.Footprint}, p.Densities[design.Most], p.Densities[design.Nominal], p.Densities[design.Least])
	for _, n := range names {
		if f := from.Footprint(n); f != nil {
			put(Bare(f))
		}
	}
	return fmt.Sprintf("%x", h.Sum64())
}

// Bare is a footprint without what is not the footprint: where it was taken from, who checked it, what lies beneath, refs.
func Bare(f *design.Footprint) *design.Footprint {
	c, _, _ := f.Named()
	for i := range c.Pads {
		c.Pads[i].ID = 0
	}
	for i := range c.Silk {
		c.Silk[i].ID = 0
	}
	for i := range c.Body {
		c.Body[i].ID = 0
	}
	c.ID, c.Origin, c.Checked, c.Beneath, c.Dimensions, c.Recipe = 0, design.Origin{}, nil, nil, nil, nil
	return c
}

// State of a part's being checked.
const (
	Unchecked = "unchecked"
	IsChecked = "checked"
	Lapsed    = "lapsed" // it changed since
)

// CheckState tells whether a part was held against its datasheet as it is.
func CheckState(p *design.LibraryPart, from Source) string {
	switch {
	case p.Checked == nil:
		return Unchecked
	case p.Checked.Print != Print(p, from):
		return Lapsed
	}
	return IsChecked
}

// AsGenerated tells whether a footprint is what its recipe makes, nothing of it changed by hand.
func AsGenerated(f *design.Footprint) bool {
	if f.Recipe == nil {
		return false
	}
	made, err := landpattern.Make(f.Recipe)
	if err != nil {
		return false
	}
	print := func(f *design.Footprint) string {
		c := Bare(f)
		c.Name, c.Description, c.Together, c.Model = "", "", nil, 0
		return marshalled(c)
	}
	return print(made.Footprint) == print(f)
}

// SameFootprint tells whether two footprints are the same but for what is not the footprint itself.
func SameFootprint(a, b *design.Footprint) bool {
	return marshalled(Bare(a)) == marshalled(Bare(b))
}

// SameSymbol tells whether two symbols are drawn the same.
func SameSymbol(a, b *design.Symbol) bool {
	bare := func(s *design.Symbol) *design.Symbol {
		c, _, _ := s.Named()
		for i := range c.Pins {
			c.Pins[i].ID = 0
		}
		for i := range c.Figures {
			c.Figures[i].ID = 0
		}
		c.ID, c.Origin, c.Name = 0, design.Origin{}, ""
		return c
	}
	return marshalled(bare(a)) == marshalled(bare(b))
}

func marshalled(v any) string {
	data, _ := json.Marshal(v) // plain data always marshals
	return string(data)
}
