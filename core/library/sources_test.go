package library_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/library"
	"goldentrace/core/workbench"
)

// own is a library of one part.
func own(name, value string) *library.Catalog {
	shipped, _ := library.Find("Resistor 0805")
	part, symbol, foot := *shipped.Part, *shipped.Symbol, *shipped.Footprint
	part.Name, part.Value, part.Symbol, part.Footprint = name, value, "Own symbol", "Own land"
	symbol.Name, foot.Name = "Own symbol", "Own land"
	from := design.Origin{Library: "workspace", Version: 7}
	part.Origin, symbol.Origin, foot.Origin = from, from, from
	return library.NewCatalog([]library.Item{{Part: &part, Symbol: &symbol, Footprint: &foot}})
}

// Several libraries are asked one after the other; what the first has hides what others call so.
func TestSourcesOneAfterTheOther(t *testing.T) {
	s := library.Sources{own("Resistor 0805", "own"), library.Shipped()}
	it, ok := s.Find("Resistor 0805")
	require.True(t, ok)
	assert.Equal(t, "own", it.Part.Value)
	_, ok = s.Find("Resistor 0603")
	assert.True(t, ok)
	_, ok = s.Find("none such")
	assert.False(t, ok)
	assert.NotNil(t, s.Footprint("Own land"))
	assert.NotNil(t, s.Footprint("0603"))
	assert.Nil(t, s.Footprint("none such"))
	list, found := s.Search("resistor 0805", 0)
	require.Equal(t, 1, found)
	assert.Equal(t, "own", list[0].Part.Value, "once, and the first's")
	all, many := s.Search("resistor", 2)
	assert.Len(t, all, 2)
	_, shipped := library.Shipped().Search("resistor", 0)
	assert.Equal(t, shipped, many)
}

// A part is taken from the library that commands are given, with all that belongs to it, and says
// where it is from.
func TestPartsSayWhereTheyAreFrom(t *testing.T) {
	b := workbench.Open(design.New("origin"), 0)
	b.Library = library.Sources{own("Own resistor", "4k7"), library.Shipped()}
	sheet := b.Doc.SheetsInOrder()[0].ID
	for i, name := range []string{"Own resistor", "Resistor 0805"} {
		_, err := b.Edit(&edit.PlacePart{Sheet: sheet, Library: name, At: geom.Pt(int64(i)*50_000_000, 0)})
		require.NoError(t, err)
	}
	d := b.Doc
	for _, o := range []design.Origin{d.LibraryPart("Own resistor").Origin, d.Symbol("Own symbol").Origin, d.Footprint("Own land").Origin} {
		assert.Equal(t, design.Origin{Library: "workspace", Version: 7}, o)
	}
	for _, o := range []design.Origin{d.LibraryPart("Resistor 0805").Origin, d.Symbol("Resistor").Origin, d.Footprint("0805").Origin} {
		assert.Equal(t, design.Origin{Library: library.ShippedName, Version: library.ShippedVersion}, o)
	}
	_, err := b.Edit(&edit.PlacePart{Sheet: sheet, Library: "none such", At: geom.Pt(0, 90_000_000)})
	assert.ErrorContains(t, err, `no part called "none such"`)
}
