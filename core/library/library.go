// Package library is the shipped library: symbols in the shapes of IEC 60617 on a 2.5 mm
// grid, footprints with the usual through-hole pitches of the trade and chip sizes, and the
// parts that tie them together. Lengths are nanometres.
package library

import (
	"cmp"
	"maps"
	"slices"
	"strings"
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

// Search lists the items in which every word of the query occurs, best first: the name's
// beginning, then the name, then description, keywords, prefix and footprint.
func Search(query string) []Item {
	words := strings.Fields(strings.ToLower(query))
	type hit struct {
		it   Item
		rank int
	}
	var hits []hit
	for _, it := range All() {
		name := strings.ToLower(it.Part.Name)
		rest := strings.ToLower(strings.Join([]string{it.Part.Description, it.Part.Keywords, it.Part.Prefix, it.Part.Footprint, it.Part.Value}, " "))
		rank, ok := 0, true
		for _, w := range words {
			switch {
			case strings.HasPrefix(name, w):
			case strings.Contains(name, w):
				rank++
			case strings.Contains(rest, w):
				rank += 2
			default:
				ok = false
			}
		}
		if ok {
			hits = append(hits, hit{it, rank})
		}
	}
	slices.SortStableFunc(hits, func(a, b hit) int { return cmp.Compare(a.rank, b.rank) })
	out := make([]Item, len(hits))
	for i, h := range hits {
		out[i] = h.it
	}
	return out
}
