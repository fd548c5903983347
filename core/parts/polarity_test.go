package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/library"
	"goldentrace/core/parts"
)

// Every part with a polarity that ships shows on its silk which pin is which; parts without one are not asked.
func TestShippedPartsShowTheirPolarity(t *testing.T) {
	polar, plain := 0, 0
	list, _ := library.Shipped().Search("", 10_000)
	for _, it := range list {
		d := design.New("one")
		for _, s := range append([]*design.Symbol{it.Symbol}, it.Units...) {
			if s != nil && d.Symbol(s.Name) == nil {
				c := *s
				c.ID = d.NewID()
				d.Put(&c)
			}
		}
		if it.Footprint == nil || !parts.Polar(it.Part, d) {
			plain++
			continue
		}
		polar++
		assert.False(t, parts.Undirected(it.Footprint), "%s on %s", it.Part.Name, it.Footprint.Name)
	}
	assert.Greater(t, polar, 10)
	assert.Greater(t, plain, 50)
}

// What has a polarity: by the pins' names, a plus on the symbol, or the part's words. Of three pins none has.
func TestPolarity(t *testing.T) {
	d := design.New("p")
	part := func(keywords string, figures []design.Figure, names ...string) *design.LibraryPart {
		s := &design.Symbol{ID: d.NewID(), Name: "S", Figures: figures}
		if old := d.Symbol("S"); old != nil {
			s.ID = old.ID
		}
		for i, n := range names {
			s.Pins = append(s.Pins, design.Pin{Number: string(rune('1' + i)), Name: n})
		}
		d.Put(s)
		return &design.LibraryPart{Name: "L", Symbol: "S", Keywords: keywords}
	}
	for _, names := range [][]string{{"A", "K"}, {"K", "A"}, {"+", "-"}, {"−", "+"}, {"Anode", "Cathode"}} {
		assert.True(t, parts.Polar(part("", nil, names...), d), "%v", names)
	}
	assert.False(t, parts.Polar(part("", nil, "1", "2"), d))
	assert.False(t, parts.Polar(part("", nil, "A", "K", "K"), d))
	assert.True(t, parts.Polar(part("farad polarised tht", nil, "", ""), d))
	assert.True(t, parts.Polar(part("", []design.Figure{{Form: "text", Text: "+", Pts: []geom.Point{{}}}}, "", ""), d))
}

// Silk that looks the same half turned tells nothing; a bar at one end does, and so does a dot that is a little off.
func TestSilkThatTellsTheDirection(t *testing.T) {
	bars := func(lines ...design.Figure) *design.Footprint {
		return &design.Footprint{Pads: []design.Pad{{Number: "1", Form: "rect", At: geom.Pt(-2_000_000, 0), Size: geom.Pt(1_000_000, 1_000_000)}, {Number: "2", Form: "round", At: geom.Pt(2_000_000, 0), Size: geom.Pt(1_000_000, 1_000_000)}}, Silk: lines}
	}
	bar := func(x, y int64) design.Figure {
		return design.Figure{Form: "line", Pts: []geom.Point{{X: x, Y: -y}, {X: x, Y: y}}, Width: 150_000}
	}
	assert.True(t, parts.Undirected(bars()), "no silk at all; what the pads look like does not count")
	assert.True(t, parts.Undirected(bars(bar(-3_000_000, 500_000), bar(3_000_000, 500_000))))
	assert.False(t, parts.Undirected(bars(bar(3_000_000, 500_000))))
	assert.False(t, parts.Undirected(bars(bar(-3_000_000, 500_000), bar(3_000_000, 600_000))))
	three := bars()
	three.Pads = append(three.Pads, design.Pad{Number: "3", Form: "rect", Size: geom.Pt(1, 1)})
	require.False(t, parts.Undirected(three), "of three pads the mark of pin 1 is asked for instead")
}
