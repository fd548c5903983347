package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

func TestAgreements(t *testing.T) {
	f := &design.Footprint{Pads: []design.Pad{pad("1", -2, 1, 1, 0.5), through("2", 3, -1, 2, 0.8)}, Courtyard: yard(4, 3),
		Body: []design.Figure{{Form: "line", Pts: []geom.Point{at(-3, -2), at(3, 2)}}, {Form: "circle", Pts: []geom.Point{at(0, 0)},
			R: 2_500_000}}}
	f.Pads[1].HoleAt = at(0.5, 0)
	of := func(n int, spot string) design.Feature { return design.Feature{Of: design.OfPad, Pad: n, Spot: spot} }
	says := func(lo, hi float64) *design.Range { return &design.Range{Min: units.MMf(lo), Max: units.MMf(hi)} }
	for _, c := range []struct {
		a, b   design.Feature
		way    string
		says   *design.Range
		has    float64
		agrees bool
	}{
		{of(1, "centre"), of(2, "centre"), design.AlongX, says(5, 5), 5, true},
		{of(1, "centre"), of(2, "centre"), design.AlongX, says(5.005, 5.005), 5, true},
		{of(1, "centre"), of(2, "centre"), design.AlongX, says(5.0051, 5.0051), 5, false},
		{of(1, "centre"), of(2, "centre"), design.AlongY, says(1.9, 2.1), 2, true},
		{of(1, "centre"), of(2, "centre"), design.AlongY, says(2.001, 2.1), 2, false},
		{of(1, "right"), of(2, "left"), design.AlongX, nil, 3.5, false},
		{of(1, "top"), of(2, "bottom"), design.AlongY, nil, 3.25, false},
		{of(2, "hole"), design.Feature{Of: design.OfOrigin}, design.AlongX, nil, 3.5, false},
		{of(1, "centre"), design.Feature{Of: design.OfOrigin}, design.Straight, nil, 2.236068, false},
		{design.Feature{Of: design.OfCourtyard, Spot: "left"}, design.Feature{Of: design.OfCourtyard, Spot: "right"}, design.AlongX,
			says(8, 8), 8, true},
		{design.Feature{Of: design.OfBody, Spot: "bottom"}, design.Feature{Of: design.OfBody, Spot: "top"}, design.AlongY, nil, 5, false},
	} {
		got := parts.Measure(f, design.Dimension{ID: 3, A: c.a, B: c.b, Way: c.way, Says: c.says})
		assert.InDelta(t, c.has, float64(got.Has)/1e6, 1e-6)
		assert.Equal(t, c.agrees, got.Agrees, "%v %v", c.a, c.says)
		assert.Equal(t, 3, got.ID)
		assert.Empty(t, got.Lost)
	}
	assert.NotEmpty(t, parts.Measure(f, design.Dimension{A: of(9, "centre"), B: of(1, "centre")}).Lost)
	f.Dimensions = []design.Dimension{{ID: 1, A: of(1, "centre"), B: of(2, "centre")}, {ID: 2, A: of(1, "hole"), B: of(2, "centre")}}
	list := parts.Agreements(f)
	require.Len(t, list, 2)
	assert.NotEmpty(t, list[1].Lost, "a surface pad has no hole")
}
