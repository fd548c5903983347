package landpattern_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// Bodies that cannot be are refused with the dimension that is wrong.
func TestImpossibleBodies(t *testing.T) {
	for _, c := range []struct {
		family, dim, says string
		change            func(r *design.Recipe)
	}{
		{"chip", "terminal", "too long", func(r *design.Recipe) { r.Dims["terminal"] = mm(0.7, 0.9) }},
		{"chip", "width", "missing", func(r *design.Recipe) { delete(r.Dims, "width") }},
		{"chip", "height", "more than nothing", func(r *design.Recipe) { r.Dims["height"] = mm(0, 0.4) }},
		{"chip", "height", "500 mm", func(r *design.Recipe) { r.Dims["height"] = mm(501, 502) }},
		{"chip", "pitch", "no dimension called pitch", func(r *design.Recipe) { r.Dims["pitch"] = mm(1, 1) }},
		{"chip", "kind", "none of the choices", func(r *design.Recipe) { r.Choices = map[string]string{"kind": "COG"} }},
		{"chip", "colour", "no choice called colour", func(r *design.Recipe) { r.Choices = map[string]string{"colour": "red"} }},
		{"chip", "pins", "no count called pins", func(r *design.Recipe) { r.Counts = map[string]int{"pins": 2} }},
		{"moulded", "leadWidth", "do not fit", func(r *design.Recipe) { r.Dims["leadWidth"] = mm(2, 2.1) }},
		{"cylinder", "terminal", "too long", func(r *design.Recipe) { r.Dims["terminal"] = mm(1.7, 1.8) }},
		{"can", "terminal", "too long", func(r *design.Recipe) { r.Dims["terminal"] = mm(3.3, 3.5) }},
		{"gullTwo", "span", "would not reach beyond it", func(r *design.Recipe) { r.Dims["bodyWidth"] = mm(5.8, 5.9) }},
		{"gullTwo", "leadLength", "too long", func(r *design.Recipe) { r.Dims["leadLength"] = mm(2.9, 3) }},
		{"gullTwo", "leadWidth", "would touch", func(r *design.Recipe) { r.Dims["leadWidth"] = mm(1.2, 1.3) }},
		{"gullTwo", "pitch", "take", func(r *design.Recipe) { r.Counts["pins"] = 12 }},
		{"gullTwo", "pins", "4 to 100", func(r *design.Recipe) { r.Counts["pins"] = 102 }},
		{"gullTwo", "pins", "by 2s", func(r *design.Recipe) { r.Counts["pins"] = 7 }},
		{"gullTwo", "thermalWidth", "both length and width", func(r *design.Recipe) { r.Dims["thermalLength"] = mm(2, 2.1) }},
		{"noLeadTwo", "thermalLength", "more than the body's", func(r *design.Recipe) { r.Dims["thermalLength"] = mm(3.1, 3.2) }},
		{"gullFour", "spanY", "would not reach beyond it", func(r *design.Recipe) { r.Dims["bodyY"] = mm(8.8, 9) }},
		{"gullFour", "pitch", "take", func(r *design.Recipe) { r.Counts["tall"] = 16 }},
		{"noLeadFour", "leadWidth", "would touch", func(r *design.Recipe) { r.Dims["leadWidth"] = mm(0.4, 0.5) }},
		{"transistor", "tabWidth", "needs its width", func(r *design.Recipe) { r.Choices = map[string]string{"leads": "3+tab"} }},
		{"transistor", "tabWidth", "no tab", func(r *design.Recipe) { r.Dims["tabWidth"] = mm(1, 1.1) }},
		{"transistor", "wideWidth", "needs its width", func(r *design.Recipe) { r.Choices = map[string]string{"leads": "2+2 wide"} }},
		{"transistor", "wideWidth", "no wider lead", func(r *design.Recipe) { r.Dims["wideWidth"] = mm(0.7, 0.8) }},
		{"ballGrid", "ball", "would touch", func(r *design.Recipe) { r.Dims["ball"] = mm(0.7, 0.8) }},
		{"ballGrid", "pitch", "take", func(r *design.Recipe) { r.Counts["rows"] = 11 }},
		{"header", "pin", "would touch", func(r *design.Recipe) { r.Dims["pin"] = mm(2.5, 2.6) }},
		{"header", "bodyWidth", "do not fit", func(r *design.Recipe) { r.Counts["rows"] = 2 }},
		{"header", "rows", "two rows", func(r *design.Recipe) {
			r.Counts["rows"], r.Choices, r.Dims["bodyWidth"] = 3, map[string]string{"order": "around"}, mm(7, 7.6)
		}},
		{"axial", "lead", "thicker than the body", func(r *design.Recipe) { r.Dims["lead"] = mm(2.4, 2.6) }},
		{"axial", "span", "under the body", func(r *design.Recipe) { r.Dims["span"] = mm(6, 6) }},
		{"radial", "lead", "would touch", func(r *design.Recipe) { r.Dims["lead"] = mm(1.9, 2.1) }},
		{"radial", "thickness", "a round body has none", func(r *design.Recipe) { r.Dims["thickness"] = mm(2, 2.1) }},
		{"circular", "places", "do not fit", func(r *design.Recipe) { r.Counts["places"] = 7 }},
		{"circular", "circle", "not within the body", func(r *design.Recipe) { r.Dims["circle"] = mm(9.3, 9.5) }},
		{"circular", "lead", "would touch", func(r *design.Recipe) { r.Dims["lead"] = mm(1.9, 2) }},
		{"dualInline", "pitch", "take", func(r *design.Recipe) { r.Counts["pins"] = 10 }},
		{"ballGrid", "", "no terminal K1", func(r *design.Recipe) { r.Missing = []string{"K1"} }},
		{"chip", "", "no number called gap", func(r *design.Recipe) { r.Overrides = map[string]int64{"gap": 1} }},
		{"chip", "", "no terminal is left", func(r *design.Recipe) { r.Missing = []string{"1", "2"} }},
	} {
		r := landpattern.FamilyOf(c.family).Example.Clone()
		c.change(r)
		_, err := landpattern.Make(r)
		var no *landpattern.Impossible
		if assert.ErrorAs(t, err, &no, "%s: %s", c.family, c.says) {
			assert.Contains(t, no.Text, c.says)
			assert.Equal(t, c.dim, no.Dim, no.Text)
		}
	}
	_, err := landpattern.Make(&design.Recipe{Family: "moon", Density: design.Nominal, Making: design.UsualMaking()})
	assert.ErrorContains(t, err, "not a family")
	r := landpattern.FamilyOf("chip").Example.Clone()
	r.Dims["length"] = design.Range{Min: units.MM, Max: units.MM / 2}
	_, err = landpattern.Make(r)
	assert.ErrorContains(t, err, "at least 1 mm and at most 0.5 mm")
}

// A body that fits its leads exactly is made; a micrometre less and it is not.
func TestAtTheLimit(t *testing.T) {
	r := landpattern.FamilyOf("gullTwo").Example.Clone()
	r.Dims["bodyLength"] = mm(4, 4.12) // three pitches of 1.27 and a lead of 0.31
	_, err := landpattern.Make(r)
	require.NoError(t, err)
	r.Dims["bodyLength"] = mm(4, 4.119)
	_, err = landpattern.Make(r)
	assert.Error(t, err)
}

// Terminals that are missing are left out, the others keep their numbers.
func TestMissingTerminals(t *testing.T) {
	r := landpattern.FamilyOf("ballGrid").Example.Clone()
	r.Missing = []string{"A1", "E5"}
	res := made(t, r)
	assert.Len(t, res.Footprint.Pads, 79)
	assert.Equal(t, "A2", res.Footprint.Pads[0].Number)
	r.Missing, r.Counts["rings"] = nil, 2
	res = made(t, r)
	assert.Len(t, res.Footprint.Pads, 81-25) // the inner five by five
	assert.True(t, strings.HasPrefix(res.Name, "BGA56C80P9X9_"), res.Name)
}

// An exposed pad has paste of 65 % in windows within it, and vias under it where asked for.
func TestThermalPad(t *testing.T) {
	r := landpattern.FamilyOf("noLeadFour").Example.Clone()
	r.Choices = map[string]string{"vias": "grid"}
	res := made(t, r)
	var heat *design.Pad
	vias := 0
	for i, p := range res.Footprint.Pads {
		if p.Number != "33" {
			continue
		}
		if p.Hole > 0 {
			vias++
			assert.True(t, p.Paste.None)
		} else {
			heat = &res.Footprint.Pads[i]
		}
	}
	require.NotNil(t, heat)
	assert.Equal(t, units.MMf(3.4), heat.Size.X)
	assert.Equal(t, 9, vias) // 3.4 mm hold vias of 0.6 mm at 1.2 mm three times
	assert.Len(t, heat.Paste.Windows, 9)
	area := 0.0
	for _, w := range heat.Paste.Windows {
		width, height := w[1].X-w[0].X, w[2].Y-w[1].Y
		area += float64(width) * float64(height)
		for _, c := range w {
			assert.Less(t, max(c.X, -c.X, c.Y, -c.Y), heat.Size.X/2)
		}
	}
	assert.InDelta(t, 0.65, area/float64(heat.Size.X)/float64(heat.Size.Y), 0.005)
}

func TestFilesOfBodies(t *testing.T) {
	read := func(s string) (*design.Recipe, error) { return landpattern.ReadFile(strings.NewReader(s)) }
	head := `{"format": "golden-trace-body", "version": 1, `
	r, err := read(head + `"family": "chip", "dimensions": {"length": "1.6 ± 0.1 mm", "width": [0.7, "0.9 mm"], "terminal": "8 .. 20 mil", "height": 0.5}, "overrides": {"padWidth": "1 mm"}, "making": {"gap": 0.2, "leave": ["silk"], "form": "oval"}}`)
	require.NoError(t, err)
	assert.Equal(t, map[string]design.Range{"length": mm(1.5, 1.7), "width": mm(0.7, 0.9), "terminal": {Min: 203_200, Max: 508_000}, "height": mm(0.5, 0.5)}, r.Dims)
	assert.Equal(t, map[string]int64{"padWidth": 1_000_000}, r.Overrides)
	assert.Equal(t, design.Nominal, r.Density)
	assert.Equal(t, int64(200_000), r.Making.Gap)
	assert.Equal(t, "oval", r.Making.Form)
	assert.Equal(t, []string{"silk"}, r.Making.Leave)
	for says, s := range map[string]string{
		"its format is":                    `{"family": "chip"}`,
		"of version 2":                     `{"format": "golden-trace-body", "version": 2}`,
		"not a body's dimensions":          `[1]`,
		"which this version does not know": head + `"colour": "red"}`,
		"the dimension length: \"wide\"":   head + `"dimensions": {"length": "wide"}}`,
		"least and most are meant":         head + `"dimensions": {"length": [1]}}`,
		"the number padWidth":              head + `"overrides": {"padWidth": {}}}`,
		"out of reach":                     head + `"dimensions": {"length": 1e9}}`,
		"not among what can be said":       head + `"making": {"colour": 1}}`,
		"is larger than":                   strings.Repeat(" ", landpattern.LargestFile+1),
	} {
		_, err := read(s)
		assert.ErrorContains(t, err, says)
	}
}

func TestSpansAsPeopleWriteThem(t *testing.T) {
	for s, want := range map[string]design.Range{
		"5.8 .. 6.2 mm": mm(5.8, 6.2), "5.8…6.2": mm(5.8, 6.2), "6 ± 0.2 mm": mm(5.8, 6.2), "6+-0.2": mm(5.8, 6.2),
		"1.27": mm(1.27, 1.27), "228 .. 244 mil": {Min: 5_791_200, Max: 6_197_600}, "100 mil .. 3 mm": {Min: 2_540_000, Max: 3_000_000},
		"2.54/2": mm(1.27, 1.27),
	} {
		got, err := landpattern.ReadSpan(s, "mm")
		assert.NoError(t, err, s)
		assert.Equal(t, want, got, s)
	}
	_, err := landpattern.ReadSpan("wide .. 3", "mm")
	assert.Error(t, err)
}
