// Package library is the shipped library: symbols in the shapes of IEC 60617 on a 2.5 mm
// grid, footprints with the usual through-hole pitches of the trade and chip sizes, and the
// parts that tie them together. Lengths are nanometres.
package library

import (
	"cmp"
	"maps"
	"slices"
	"sync"

	"goldentrace/core/design"
)

// Item is one library part with its symbol and footprint; they carry no ids.
type Item struct {
	Part      *design.LibraryPart `json:"part"`
	Symbol    *design.Symbol      `json:"symbol"`
	Footprint *design.Footprint   `json:"footprint"`
	Units     []*design.Symbol    `json:"units,omitempty"` // of a package with several; Symbol is the first
}

var build = sync.OnceValue(func() map[string]Item {
	out := map[string]Item{}
	symbols, footprints := symbols(), footprints()
	for _, p := range parts() {
		it := Item{Part: p, Symbol: symbols[p.Symbol], Footprint: footprints[p.Footprint]}
		for _, u := range p.Units {
			it.Units = append(it.Units, symbols[u])
		}
		out[p.Name] = it
	}
	return out
})

// Find is the item with the exact name.
func Find(name string) (Item, bool) {
	it, ok := build()[name]
	return it, ok
}

// Footprint by its name, or nil.
func Footprint(name string) *design.Footprint {
	for _, it := range build() {
		if it.Footprint.Name == name {
			return it.Footprint
		}
	}
	return nil
}

// All lists the items by name.
func All() []Item {
	return slices.SortedFunc(maps.Values(build()), func(a, b Item) int { return cmp.Compare(a.Part.Name, b.Part.Name) })
}
