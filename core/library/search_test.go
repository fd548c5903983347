package library_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

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
	assert.Equal(t, []string{"Sluice 0603", "Big sluice", "Lock", "Coil", "Upsluice", "Weir"}, names("sluice"),
		"the whole word, in the name first; a word that begins so; then within one")
	assert.Equal(t, []string{"Sluice 0603"}, names("0?03"), "one letter, whichever")
	assert.Equal(t, []string{"Sluice 0603"}, names("06??"))
	assert.Empty(t, names("06?"), "and no more")
	assert.Equal(t, []string{"Big sluice", "Sluice 0603", "Coil", "Lock"}, names("s?uic*"), "to the end of a word, of the name first; alike ones by name")
	assert.Equal(t, []string{"Weir"}, names("0 pins"), "none is a number too")
	assert.Equal(t, []string{"Big sluice", "Upsluice"}, names("3 pins"))
	list, found := c.Search("sluice", 6)
	assert.Len(t, list, 6)
	assert.Equal(t, 6, found)
	list, found = c.Search("sluice", 2)
	assert.Len(t, list, 2)
	assert.Equal(t, 6, found)
}

// A whole word of the other texts counts more than one at the beginning of a word, and that more than one within, wherever the items stand; rows of parts with units count the pins of
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
	assert.Equal(t, []string{"Third", "Second", "First"}, names)

	unit := func(n int) *design.Symbol { return &design.Symbol{Pins: make([]design.Pin, n)} }
	it := library.Item{Part: &design.LibraryPart{Name: "Gates", Units: []string{"A", "B"}}, Symbol: unit(9), Units: []*design.Symbol{unit(3), unit(2)}}
	assert.Equal(t, 5, library.RowOf(it).Pins)
	list, _ = library.NewCatalog([]library.Item{it}).Search("5 pins", 0)
	assert.Len(t, list, 1)
	it.Units = nil
	assert.Equal(t, 9, library.RowOf(it).Pins)
}

func found(query string, like library.Mounting) (out []string) {
	list, _ := library.Shipped().SearchMounted(query, like, 0)
	for _, it := range list {
		out = append(out, it.Part.Name)
	}
	return out
}

// Figures that are a word of their own are one, those within another number come after; headers stand in the order of their numbers.
func TestNumbersInNames(t *testing.T) {
	assert.Equal(t, "Resistor 0603", found("resistor 0603", library.AnyMounting)[0])
	assert.Equal(t, "Resistor 0603", found("0603 resistors", library.AnyMounting)[0])
	var rows []string
	for _, n := range found("header 1 2.54", library.AnyMounting) {
		if strings.HasPrefix(n, "Header 1 ×") && strings.HasSuffix(n, "2.54 mm") {
			rows = append(rows, n)
		}
	}
	require.Greater(t, len(rows), 10)
	assert.Equal(t, []string{"Header 1 × 1, 2.54 mm", "Header 1 × 2, 2.54 mm", "Header 1 × 3, 2.54 mm"}, rows[:3])
	assert.Less(t, slices.Index(rows, "Header 1 × 5, 2.54 mm"), slices.Index(rows, "Header 1 × 10, 2.54 mm"))
}

// What people say finds what the trade calls otherwise, and parts that are mounted as the board's others come first.
func TestPlainWordsFindSomething(t *testing.T) {
	for query, want := range map[string]string{
		"battery connector": "Battery plug", "voltage regulator": "Regulator SOT-223", "lamp": "LED", "inductor": "Coil 0603", "push button": "Button", "slide switch": "Slide switch", "button": "Button",
		"opamp": "Dual amplifier", "through-hole led": "LED",
	} {
		list := found(query, library.AnyMounting)
		assert.True(t, slices.ContainsFunc(list[:min(8, len(list))], func(n string) bool { return strings.HasPrefix(n, want) }), "%s: %v", query, list[:min(8, len(list))])
	}
	assert.Equal(t, "Button surface", found("butt", library.Surface)[0])
	assert.Equal(t, "Button", found("butt", library.Through)[0])
	assert.Equal(t, []string{"LED", "LED 0402"}, found("led", library.Surface)[:2], "what is called just so is what was named")
	assert.Equal(t, "Capacitor", found("capa", library.Through)[0])
	assert.True(t, strings.HasPrefix(found("capa", library.Surface)[0], "Capacitor 0"), found("capa", library.Surface)[0])
}
