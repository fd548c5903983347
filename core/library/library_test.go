package library_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/library"
)

const grid = 2_500_000

func find(t *testing.T, name string) library.Item {
	t.Helper()
	it, ok := library.Find(name)
	require.True(t, ok, name)
	return it
}

// Every part is whole: valid pieces, pins on the grid, a pad for every pin and a pin for
// every pad, copper within the courtyard and no two pads nearer than 0.15 mm.
func TestEveryPartIsWhole(t *testing.T) {
	for _, it := range library.All() {
		t.Run(it.Part.Name, func(t *testing.T) {
			require.NotNil(t, it.Symbol)
			require.NotNil(t, it.Footprint)
			for _, o := range []design.Object{it.Part, it.Symbol, it.Footprint} {
				assert.NoError(t, o.Valid())
			}
			pads := map[string]bool{}
			for i := range it.Footprint.Pads {
				p := &it.Footprint.Pads[i]
				pads[p.Number] = true
				shape := layout.PadShape(p)
				for _, q := range []geom.Point{shape.Box().Min, shape.Box().Max} {
					assert.True(t, geom.InPolygon(q, it.Footprint.Courtyard), "pad %s within the courtyard", p.Number)
				}
				if it.Footprint.Recipe != nil { // core/landpattern is tested alone
					continue
				}
				if p.Hole > 0 {
					assert.GreaterOrEqual(t, min(p.Size.X, p.Size.Y)-p.Hole, int64(2*250_000), "ring of pad %s", p.Number)
				}
				for j := range i {
					gap, _, _ := geom.Gap(shape, layout.PadShape(&it.Footprint.Pads[j]))
					assert.GreaterOrEqual(t, gap, 150_000.0, "pads %s and %s", p.Number, it.Footprint.Pads[j].Number)
				}
			}
			pins := it.Symbol.Pins
			if len(it.Units) > 0 {
				pins = nil
				for _, u := range it.Units {
					require.NoError(t, u.Valid())
					pins = append(pins, u.Pins...)
				}
			}
			for _, pin := range pins {
				assert.Zero(t, pin.At.X%grid, "pin %s", pin.Number)
				assert.Zero(t, pin.At.Y%grid, "pin %s", pin.Number)
				for _, n := range it.Part.Pads(pin.Number) {
					assert.True(t, pads[n], "pin %s has a pad", pin.Number)
					delete(pads, n)
				}
			}
			assert.Empty(t, pads, "pads without a pin")
		})
	}
}

// What the trade calls by these numbers has these sizes.
func TestStandardPitches(t *testing.T) {
	pitch := func(name string) int64 {
		p := find(t, name).Footprint.Pads
		return p[1].At.Sub(p[0].At).X
	}
	assert.EqualValues(t, 10_160_000, pitch("Resistor"))
	assert.EqualValues(t, 7_620_000, pitch("Diode"))
	assert.EqualValues(t, 5_080_000, pitch("Terminal 2"))
	assert.EqualValues(t, 2_540_000, pitch("Header 4"))
	assert.EqualValues(t, 2_540_000, pitch("NPN transistor"))
	soic := find(t, "Dual amplifier").Footprint.Pads
	assert.EqualValues(t, 1_270_000, soic[0].At.Y-soic[1].At.Y)
	assert.Equal(t, soic[0].At.X, -soic[7].At.X, "pins 1 and 8 face each other")
	assert.Equal(t, soic[0].At.Y, soic[7].At.Y)
}

func TestSearch(t *testing.T) {
	first := func(q string) string {
		hits := library.Search(q)
		require.NotEmpty(t, hits, q)
		return hits[0].Part.Name
	}
	assert.Equal(t, "Resistor", first("resistor"))
	assert.Equal(t, "LED", first("led"))
	assert.Equal(t, "Resistor 0805", first("0805 res"))
	assert.Equal(t, "Dual amplifier", first("opamp"))
	assert.Len(t, library.Search(""), len(library.All()))
	assert.Empty(t, library.Search("thermionic"))
}

// What people type, and what should come first.
func TestSearchAsPeopleType(t *testing.T) {
	names := func(q string) (out []string) {
		list, found := library.Shipped().Search(q, 0)
		assert.Len(t, list, found)
		for _, it := range list {
			out = append(out, it.Part.Name)
		}
		return out
	}
	assert.Equal(t, "Resistor", names("res")[0], "the name's beginning first")
	assert.Equal(t, "Resistor 0805", names("0805 resistor")[0], "in any order")
	assert.Contains(t, names("eeprom"), "Memory", "by keyword")
	assert.Equal(t, []string{"Memory"}, names("QF-24C"), "by value")
	assert.ElementsMatch(t, []string{"N-channel transistor SOT-23", "NPN transistor SOT-23", "P-channel transistor SOT-23", "PNP transistor SOT-23"}, names("SOT-23 *transistor"), "wildcards reach to the end of the word")
	assert.Empty(t, names("esist*"), "and begin where a word begins")
	for _, n := range names("8 pins") {
		it := find(t, n)
		pins := len(it.Symbol.Pins)
		for i, u := range it.Units {
			if i == 0 {
				pins = 0
			}
			pins += len(u.Pins)
		}
		assert.Equal(t, 8, pins, n)
	}
	assert.Contains(t, names("8-pin smd"), "Bus driver")
	assert.Empty(t, names("left-handed smoke shifter"))
	few, all := library.Shipped().Search("", 5)
	assert.Len(t, few, 5)
	assert.Len(t, library.All(), all)
}
