package parts_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

func TestDifferencesOfVersions(t *testing.T) {
	version := func(change func(p *design.LibraryPart, s *design.Symbol, f *design.Footprint)) parts.Version {
		p := &design.LibraryPart{Name: "P", Prefix: "U", Symbol: "S", Footprint: "F", Value: "1k"}
		s := &design.Symbol{Name: "S", Pins: []design.Pin{{Number: "1", Name: "A", Type: "input"}, {Number: "2", Name: "B", Type: "output"}, {Number: "10", Name: "C", Type: "passive"}}}
		f := &design.Footprint{Name: "F", Pads: []design.Pad{pad("1", 0, 0, 1, 1), pad("2", 2, 0, 1, 1), through("10", 4, 0, 2, 1)}, Courtyard: yard(3, 3)}
		change(p, s, f)
		return parts.Version{Part: p, From: source{map[string]*design.Symbol{"S": s}, map[string]*design.Footprint{p.Footprint: f}}}
	}
	same := version(func(*design.LibraryPart, *design.Symbol, *design.Footprint) {})
	for _, c := range []struct {
		change func(p *design.LibraryPart, s *design.Symbol, f *design.Footprint)
		says   []string
	}{
		{func(*design.LibraryPart, *design.Symbol, *design.Footprint) {}, []string{}},
		{func(p *design.LibraryPart, _ *design.Symbol, f *design.Footprint) {
			p.Checked, f.Dimensions, f.Pads[0].ID = &design.Checked{By: "A"}, []design.Dimension{{ID: 1}}, 5
		}, []string{}},
		{func(p *design.LibraryPart, _ *design.Symbol, _ *design.Footprint) {
			p.Value, p.Datasheet = "", "page 3"
		},
			[]string{"The value is nothing instead of “1k”.", "The datasheet is “page 3” instead of nothing."}},
		{func(p *design.LibraryPart, _ *design.Symbol, _ *design.Footprint) { p.Footprint = "G" }, []string{"The footprint is “G” instead of “F”."}},
		{func(_ *design.LibraryPart, s *design.Symbol, _ *design.Footprint) {
			s.Pins[0].Name, s.Pins[1].Type, s.Pins[2].At = "AA", "input", at(1, 1)
		}, []string{"Pin 1 is called “AA” instead of “A”.", "Pin 2 (B) is of the type input instead of output.", "1 pin stands elsewhere on the symbol."}},
		{func(_ *design.LibraryPart, s *design.Symbol, _ *design.Footprint) {
			s.Pins = append(slices.Delete(s.Pins, 0, 1), design.Pin{Number: "3", Type: "input"})
		}, []string{"Pin 1 (A) is gone.", "Pin 3 is new."}},
		{func(p *design.LibraryPart, _ *design.Symbol, _ *design.Footprint) {
			p.PadOf = map[string]string{"2": "1 10"}
		}, []string{"Pin 2 goes to pad [1 10] instead of [2]."}},
		{func(_ *design.LibraryPart, _ *design.Symbol, f *design.Footprint) {
			f.Pads[0].At, f.Pads[1].Size, f.Pads[2].Hole = at(0.1, 0), at(1, 2), units.MMf(0.9)
		}, []string{"Pad 1 is moved by 0.1 mm, 0 mm.", "Pad 2 is 1 mm × 2 mm instead of 1 mm × 1 mm.", "The hole of pad 10 is 0.9 mm instead of 1 mm."}},
		{func(_ *design.LibraryPart, _ *design.Symbol, f *design.Footprint) {
			f.Pads = append(f.Pads[1:], pad("2", 6, 0, 1, 1), pad("11", 8, 0, 1, 1))
			f.Pads[1].Form = design.Rect
		}, []string{"Pad 1 is gone.", "There are 2 pads 2 instead of 1.", "Pad 10 is made otherwise.", "Pad 11 is new."}},
		{func(_ *design.LibraryPart, _ *design.Symbol, f *design.Footprint) {
			f.Courtyard, f.Silk = yard(4, 4), []design.Figure{{Form: "circle", Pts: []geom.Point{{}}, R: 1}}
		}, []string{"The silk is drawn otherwise.", "The courtyard is drawn otherwise."}},
	} {
		assert.Equal(t, c.says, parts.Differences(same, version(c.change)))
	}
}

func TestUses(t *testing.T) {
	d := design.Empty()
	d.Put(&design.Symbol{ID: 10, Name: "S"})
	d.Put(&design.Footprint{ID: 11, Name: "F"})
	d.Put(&design.LibraryPart{ID: 12, Name: "P", Symbol: "S", Footprint: "F", Densities: map[string]string{design.Most: "M"}})
	d.Put(&design.LibraryPart{ID: 13, Name: "Q", Symbol: "T", Units: []string{"T", "S"}})
	for i, n := range []string{"R10", "R2", "R1"} {
		d.Put(&design.Part{ID: design.ID(20 + i), Designator: n, Library: "P", Footprint: "F"})
	}
	d.Put(&design.Placed{ID: 30, Designator: "R9", Footprint: "F"})
	assert.Equal(t, []string{"R1", "R2", "R10"}, parts.UsesOfPart(d, "P"))
	assert.Empty(t, parts.UsesOfPart(d, "Q"))
	assert.Equal(t, []string{"P", "Q"}, parts.UsesOfSymbol(d, "S"))
	assert.Equal(t, []string{"P", "R1", "R2", "R10", "R9"}, parts.UsesOfFootprint(d, "F"))
	assert.Equal(t, []string{"P"}, parts.UsesOfFootprint(d, "M"))
}
