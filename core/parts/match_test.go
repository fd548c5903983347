package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

func shape(pins int, pitch, length, width float64, through bool) parts.Shape {
	return parts.Shape{Pins: pins, Pitch: units.MMf(pitch), Length: units.MMf(length), Width: units.MMf(width), Through: through}
}

// Shapes of generated footprints are those of the bodies they were made of.
func TestShapes(t *testing.T) {
	for id, want := range map[string]parts.Shape{
		"gullTwo":    shape(8, 1.27, 5, 4, false),
		"gullFour":   shape(48, 0.5, 7.1, 7.1, false),
		"noLeadFour": shape(33, 0.5, 5.1, 5.1, false),
		"dualInline": shape(8, 2.54, 9.6, 6.6, true),
		"ballGrid":   shape(81, 0.8, 8.1, 8.1, false),
		"radial":     shape(2, 2, 5.5, 5.5, true),
	} {
		r := landpattern.FamilyOf(id).Example.Clone()
		res, err := landpattern.Make(r)
		require.NoError(t, err)
		assert.Equal(t, want, parts.ShapeOf(res.Footprint), id)
	}
	f := &design.Footprint{Pads: []design.Pad{pad("1", 0, 0, 1, 1), pad("1", 1, 0, 1, 1), pad("2", 5, 0, 1, 1), {Hole: 1, Bare: true, At: at(0, 1)}}}
	assert.Equal(t, shape(2, 5, 0, 0, false), parts.ShapeOf(f), "pads of one number are one pin, a bare hole is none")
	assert.Zero(t, parts.ShapeOf(&design.Footprint{Body: []design.Figure{}, Silk: []design.Figure{{Form: "circle", Pts: []geom.Point{{}}, R: 1}}}))
}

func TestRanking(t *testing.T) {
	list := []parts.Match{
		{Name: "wide", Shape: shape(8, 1.27, 5, 7.5, false)},
		{Name: "through", Shape: shape(8, 2.54, 9.6, 6.6, true)},
		{Name: "fine", Shape: shape(8, 0.65, 3, 4.4, false)},
		{Name: "short", Shape: shape(8, 1.27, 4.6, 4, false)},
		{Name: "same", Shape: shape(8, 1.28, 5.05, 4, false)},
		{Name: "ten", Shape: shape(10, 1.27, 5, 4, false)},
	}
	got := parts.Rank(shape(8, 1.27, 5, 4, false), list, 0)
	names := []string{}
	for _, m := range got {
		names = append(names, m.Name)
	}
	assert.Equal(t, []string{"same", "short", "wide", "fine", "through"}, names)
	assert.Equal(t, []string{"8 pins equal", "pitch equal", "body equal"}, got[0].Words)
	assert.Equal(t, []string{"8 pins equal", "pitch equal", "body 0.4 mm shorter"}, got[1].Words)
	assert.Equal(t, []string{"8 pins equal", "pitch equal", "body 3.5 mm wider"}, got[2].Words)
	assert.Equal(t, []string{"8 pins equal", "pitch 0.62 mm less", "body 2 mm shorter", "body 0.4 mm wider"}, got[3].Words)
	assert.Contains(t, got[4].Words, "through the board")
	assert.Len(t, parts.Rank(parts.Shape{}, list, 3), 3, "nothing is known: all of them, by name")
	assert.Equal(t, "fine", parts.Rank(parts.Shape{}, list, 0)[0].Name)
	assert.Empty(t, parts.Rank(shape(9, 0, 0, 0, false), list, 0))
}

func TestFits(t *testing.T) {
	for query, want := range map[string]bool{
		"": true, "soic": true, "600 8n": true, "soic*": true, "*8n": true, "soic???p600*": true, "soic??p600*": false, "*p600*-8?": true, "qfp": false, "soic qfp": false, "p600*": false, "*": true, "soic127p600x175-8n*": true,
	} {
		assert.Equal(t, want, parts.Fits("SOIC127P600X175-8N", query), query)
	}
}
