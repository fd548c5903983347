package library_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/library"
)

// A made-up catalog: where a word stands decides the order, whatever the order of the items.
func TestWhatComesFirst(t *testing.T) {
	var items []library.Item
	part := func(name, description, keywords string, pins int) {
		sym := &design.Symbol{Name: name}
		for range pins {
			sym.Pins = append(sym.Pins, design.Pin{})
		}
		items = append(items, library.Item{Part: &design.LibraryPart{Name: name, Description: description, Keywords: keywords}, Symbol: sym})
	}
	part("Coil", "", "sluicegate", 2)
	part("Lock", "for a sluice", "", 4)
	part("Upsluice", "", "", 3)
	part("Big sluice", "", "", 3)
	part("Sluice 0603", "", "", 8)
	part("Weir", "nosluice here", "", 0)
	c := library.NewCatalog(items)
	names := func(query string) (out []string) {
		list, found := c.Search(query, 0)
		assert.Len(t, list, found)
		for _, it := range list {
			out = append(out, it.Part.Name)
		}
		return out
	}
	assert.Equal(t, []string{"Sluice 0603", "Big sluice", "Upsluice", "Coil", "Lock", "Weir"}, names("sluice"),
		"the name's beginning, a word of it, within it, then a word of the other texts, then within one")
	assert.Equal(t, []string{"Sluice 0603"}, names("0?03"), "one letter, whichever")
	assert.Equal(t, []string{"Sluice 0603"}, names("06??"))
	assert.Empty(t, names("06?"), "and no more")
	assert.Equal(t, []string{"Big sluice", "Sluice 0603", "Coil", "Lock"}, names("s?uic*"), "to the end of a word, of the name first; alike ones in the catalog's order")
	assert.Equal(t, []string{"Weir"}, names("0 pins"), "none is a number too")
	assert.Equal(t, []string{"Upsluice", "Big sluice"}, names("3 pins"))
	list, found := c.Search("sluice", 6)
	assert.Len(t, list, 6)
	assert.Equal(t, 6, found)
	list, found = c.Search("sluice", 2)
	assert.Len(t, list, 2)
	assert.Equal(t, 6, found)
}

// A word at the beginning of one of the other texts' words counts more than one within, wherever the items stand; rows of parts with units count the pins of
// all of them.
func TestWordsOfOtherTexts(t *testing.T) {
	item := func(name, description string) library.Item {
		return library.Item{Part: &design.LibraryPart{Name: name, Description: description}, Symbol: &design.Symbol{}}
	}
	c := library.NewCatalog([]library.Item{item("First", "a nosluice"), item("Second", "a sluicegate"), item("Third", "both nosluice and sluice")})
	list, _ := c.Search("sluice", 0)
	var names []string
	for _, it := range list {
		names = append(names, it.Part.Name)
	}
	assert.Equal(t, []string{"Second", "Third", "First"}, names)

	unit := func(n int) *design.Symbol { return &design.Symbol{Pins: make([]design.Pin, n)} }
	it := library.Item{Part: &design.LibraryPart{Name: "Gates", Units: []string{"A", "B"}}, Symbol: unit(9), Units: []*design.Symbol{unit(3), unit(2)}}
	assert.Equal(t, 5, library.RowOf(it).Pins)
	list, _ = library.NewCatalog([]library.Item{it}).Search("5 pins", 0)
	assert.Len(t, list, 1)
	it.Units = nil
	assert.Equal(t, 9, library.RowOf(it).Pins)
}
