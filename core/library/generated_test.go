package library_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/landpattern"
	"goldentrace/core/library"
	"goldentrace/core/parts"
)

// itemSource finds the symbols and footprints of an item.
type itemSource struct{ library.Item }

func (s itemSource) Symbol(name string) *design.Symbol {
	for _, x := range append(s.Units, s.Item.Symbol) {
		if x != nil && x.Name == name {
			return x
		}
	}
	return nil
}

func (s itemSource) Footprint(name string) *design.Footprint { return library.Footprint(name) }

// Every part of the shipped library fits its footprint, and every footprint is without fault under the rules of a new project.
func TestEveryShippedPartIsClean(t *testing.T) {
	limits := parts.UsualLimits()
	generated := 0
	families := map[string]int{}
	for _, it := range library.All() {
		_, found := parts.Mapping(it.Part, it.Part.Footprint, itemSource{it})
		assert.Empty(t, found, it.Part.Name)
		feet := []*design.Footprint{it.Footprint}
		for density, f := range it.Others {
			assert.Equal(t, density, f.Recipe.Density, f.Name)
			assert.Equal(t, it.Part.Densities[density], f.Name)
			feet = append(feet, f)
		}
		for _, f := range feet {
			assert.Empty(t, parts.CheckFootprint(f, limits), f.Name)
		}
		if it.Footprint.Recipe == nil {
			continue
		}
		generated++
		families[it.Footprint.Recipe.Family]++
		assert.Len(t, it.Others, 3, it.Part.Name)
		n, err := landpattern.ReadName(it.Footprint.Name)
		if assert.NoError(t, err, it.Part.Name) {
			assert.Equal(t, it.Footprint.Recipe.Family, n.Family)
		}
		assert.True(t, parts.AsGenerated(it.Footprint), it.Part.Name)
		for _, p := range it.Symbol.Pins {
			assert.Zero(t, p.At.X%(parts.Pitch/2)+p.At.Y%(parts.Pitch/2), "%s: pin %s lies on the grid", it.Part.Name, p.Number)
		}
	}
	assert.GreaterOrEqual(t, generated, 400)
	for _, f := range landpattern.Families() {
		if f.ID != "jLeadTwo" && f.ID != "pinGrid" { // hardly anything of these is made any more
			assert.Positive(t, families[f.ID], "parts of the family %s", f.Words)
		}
	}
}

func TestNamesOfShippedPartsAreDistinct(t *testing.T) {
	seen := map[string]bool{}
	for _, it := range library.All() {
		assert.False(t, seen[it.Part.Name], it.Part.Name)
		seen[it.Part.Name] = true
		assert.NotNil(t, it.Symbol, it.Part.Name)
	}
}
