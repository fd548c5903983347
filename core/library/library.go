// Package library is the shipped library: symbols in the shapes of IEC 60617 on a 2.5 mm
// grid, footprints with the usual through-hole pitches of the trade and chip sizes, and the
// parts that tie them together. Lengths are nanometres.
package library

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"sync"

	"goldentrace/core/design"
	"goldentrace/core/landpattern"
)

// Item is one library part with its symbol and footprint; they carry no ids.
type Item struct {
	Part      *design.LibraryPart `json:"part"`
	Symbol    *design.Symbol      `json:"symbol"`
	Footprint *design.Footprint   `json:"footprint"`
	Units     []*design.Symbol    `json:"units,omitempty"` // of a package with several; Symbol is the first
	// Others are the footprints of all densities, where there are several.
	Others map[string]*design.Footprint `json:"-"`
	// Assets are the pictures that the footprints refer to.
	Assets map[design.ID]*design.Asset `json:"-"`
}

// Source is where parts come from: the shipped library, and later those of a workspace and of a project.
type Source interface {
	// Find is the item with the exact name.
	Find(name string) (Item, bool)
	// Footprint by its name, or nil.
	Footprint(name string) *design.Footprint
	// Asset that the footprint of the name refers to, or nil.
	Asset(footprint string, id design.ID) *design.Asset
	// Search lists the items that a query finds, at most so many, and how many there are.
	Search(query string, most int) (list []Item, found int)
	// SearchMounted does, with those first among equals that are mounted so.
	SearchMounted(query string, like Mounting, most int) (list []Item, found int)
}

// Sources asks several one after the other; what the first has, hides what others call so.
type Sources []Source

// Find is the item with the exact name.
func (s Sources) Find(name string) (Item, bool) {
	for _, from := range s {
		if it, ok := from.Find(name); ok {
			return it, true
		}
	}
	return Item{}, false
}

// Footprint by its name, or nil.
func (s Sources) Footprint(name string) *design.Footprint {
	for _, from := range s {
		if f := from.Footprint(name); f != nil {
			return f
		}
	}
	return nil
}

// Asset that the footprint of the name refers to, or nil.
func (s Sources) Asset(footprint string, id design.ID) *design.Asset {
	for _, from := range s {
		if from.Footprint(footprint) != nil {
			return from.Asset(footprint, id)
		}
	}
	return nil
}

// Search lists what all of them have, the first's first; hidden ones are left out.
func (s Sources) Search(query string, most int) (list []Item, found int) {
	return s.SearchMounted(query, AnyMounting, most)
}

// SearchMounted is Search with those first, among equals of a source, that are mounted as said.
func (s Sources) SearchMounted(query string, like Mounting, most int) (list []Item, found int) {
	seen := map[string]bool{}
	for _, from := range s {
		all, _ := from.SearchMounted(query, like, 0)
		for _, it := range all {
			if seen[it.Part.Name] {
				continue
			}
			seen[it.Part.Name] = true
			if found++; most == 0 || len(list) < most {
				list = append(list, it)
			}
		}
	}
	return list, found
}

// The shipped library's name, and its version, which counts up whenever an item of it changes.
const (
	ShippedName    = "shipped"
	ShippedVersion = 3
)

var shippedItems = sync.OnceValue(func() []Item {
	var out []Item
	symbols, footprints := symbols(), footprints()
	for _, s := range generatedSymbols() {
		symbols[s.Name] = s
	}
	origin := design.Origin{Library: ShippedName, Version: ShippedVersion}
	list, drawnSymbols, drawnFeet := loomParts()
	for _, x := range drawnSymbols {
		symbols[x.Name] = x
	}
	for _, f := range drawnFeet {
		footprints[f.Name] = f
	}
	list = append(list, handmade()...)
	for _, g := range catalogue() {
		p, feet := g.made()
		for _, f := range feet {
			footprints[f.Name] = f
		}
		list = append(list, p)
	}
	for _, p := range list {
		for _, f := range alternatives(p) {
			footprints[f.Name] = f
		}
	}
	for _, s := range symbols {
		s.Origin = origin
	}
	for _, f := range footprints {
		f.Origin = origin
	}
	for _, p := range list {
		p.Origin = origin
		it := Item{Part: p, Symbol: symbols[p.Symbol], Footprint: footprints[p.Footprint], Others: map[string]*design.Footprint{}}
		for density, name := range p.Densities {
			it.Others[density] = footprints[name]
		}
		for _, u := range p.Units {
			it.Units = append(it.Units, symbols[u])
		}
		out = append(out, it)
	}
	slices.SortFunc(out, func(a, b Item) int { return cmp.Compare(a.Part.Name, b.Part.Name) })
	return out
})

// made is the part with its footprints of all densities.
func (g generated) made() (*design.LibraryPart, []*design.Footprint) {
	p := &design.LibraryPart{Name: g.name, Prefix: g.prefix, Symbol: g.symbol, Value: g.value, Description: g.text, Keywords: g.keywords, PadOf: g.padOf}
	feet := dense(p, g.body)
	p.Footprint = p.Densities[design.Nominal]
	return p, feet
}

// dense makes the footprints of a body for all densities and names them in the part.
func dense(p *design.LibraryPart, body *design.Recipe) (feet []*design.Footprint) {
	p.Densities = map[string]string{}
	for _, density := range design.Densities {
		r := body.Clone()
		r.Density = density
		f, err := landpattern.Footprint(r)
		if err != nil {
			panic(fmt.Sprintf("the package of %s cannot be: %v", p.Name, err)) // our own list
		}
		feet = append(feet, f)
		p.Densities[density] = f.Name
	}
	return feet
}

// alternatives are the generated footprints of chips whose usual one was drawn with more room, for soldering by hand.
func alternatives(p *design.LibraryPart) []*design.Footprint {
	for _, kind := range []struct {
		name, id string
		height   float64
	}{{"Resistor ", "RES", 0.6}, {"Capacitor ", "CAP", 1}} {
		size, ok := strings.CutPrefix(p.Name, kind.name)
		if !ok || p.Footprint != size {
			continue
		}
		for _, c := range chips {
			if c.name == size {
				return dense(p, chipOf(size, kind.id, min(c.width*kind.height, c.width), false))
			}
		}
	}
	return nil
}

// Find is the item of the shipped library with the exact name.
func Find(name string) (Item, bool) { return Shipped().Find(name) }

// Footprint of the shipped library by its name, or nil.
func Footprint(name string) *design.Footprint { return Shipped().Footprint(name) }

// All lists the items of the shipped library by name.
func All() []Item { return slices.Clone(shippedItems()) }
