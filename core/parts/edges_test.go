package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

// A pad that is flat in one way only is none either; a hole as large as its copper leaves no ring.
func TestPadsAtTheEdgeOfWhatCanBe(t *testing.T) {
	mm := units.MMf
	for _, x := range []struct {
		w, h, hole float64
		bare, ok   bool
	}{{1, 1, 0, false, true}, {0, 1, 0, false, false}, {1, 0, 0, false, false}, {1, 2, 0.9, false, true}, {1, 2, 1, false, false}, {2, 1, 1, false, false}, {1, 1, 1, true, true}} {
		err := parts.PadCanBe(&design.Pad{Number: "1", Form: design.Rect, Size: geom.Pt(mm(x.w), mm(x.h)), Hole: mm(x.hole), Bare: x.bare})
		assert.Equal(t, x.ok, err == nil, "%v: %v", x, err)
	}
}

// What differs in the number of pins is left out wherever it stands in the list; a pitch that is off weighs more than a body that is; what
// rounding may do counts as equal.
func TestRankAtTheEdges(t *testing.T) {
	mm := units.MMf
	want := parts.Shape{Pins: 8, Pitch: mm(1.27), Length: mm(5), Width: mm(4)}
	of := func(name string, pins int, pitch, length float64) parts.Match {
		return parts.Match{Name: name, Shape: parts.Shape{Pins: pins, Pitch: mm(pitch), Length: mm(length), Width: mm(4)}}
	}
	got := parts.Rank(want, []parts.Match{of("six", 6, 1.27, 5), of("fine", 8, 1.0, 5), of("short", 8, 1.27, 3), of("near", 8, 1.29, 5.1), of("off", 8, 1.291, 5)}, 0)
	var names []string
	for _, m := range got {
		names = append(names, m.Name)
	}
	assert.Equal(t, []string{"near", "off", "short", "fine"}, names)
	assert.Equal(t, []string{"8 pins equal", "pitch equal", "body equal"}, got[0].Words)
	assert.Contains(t, got[1].Words, "pitch 0.021 mm more")
	unknown := parts.Rank(want, []parts.Match{{Name: "bare", Shape: parts.Shape{Pins: 8}}}, 0)
	assert.Equal(t, []string{"8 pins equal"}, unknown[0].Words, "what is not known is not said")
}

// A hole for a peg, before the pads in the list, has nothing to do with pins.
func TestPegsAreNotMapped(t *testing.T) {
	d := design.New("pegs")
	d.Put(&design.Symbol{ID: 20, Name: "S", Pins: []design.Pin{{Number: "1", Type: "passive"}}})
	d.Put(&design.Footprint{ID: 21, Name: "F", Pads: []design.Pad{
		{Form: design.Round, Size: geom.Pt(units.MM, units.MM), Hole: units.MM, Bare: true}, {Number: "1", Form: design.Rect, Size: geom.Pt(units.MM, units.MM)}, {Number: "2", Form: design.Rect, Size: geom.Pt(units.MM, units.MM)}}})
	rows, found := parts.Mapping(&design.LibraryPart{Name: "P", Symbol: "S", Footprint: "F"}, "F", d)
	assert.Equal(t, []string{"1", "2"}, []string{rows[0].Pad, rows[1].Pad})
	assert.Len(t, found, 1, "pad 2 has no pin")
	assert.Equal(t, 1, rows[0].Pads)
}
