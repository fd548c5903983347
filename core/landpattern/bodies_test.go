package landpattern_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
)

// boxOfSolid is a piece of a body as seen from above.
func boxOfSolid(s design.Solid) geom.Box {
	var e geom.Extent
	if s.Form == design.Prism {
		e.AddRing(s.Edge)
		return e.Box
	}
	r := (s.To - s.From) / 2
	e.Add(s.A)
	if s.Form == design.Rod {
		e.Add(s.B)
	}
	return e.Box.Grow(r)
}

// The body of every family is as high as its height says, as wide over all as its dimensions allow, and has a piece on or in every pad; all of
// its pieces have an inside.
func TestBodiesMeasureWhatTheyAreMadeOf(t *testing.T) {
	for _, f := range landpattern.Families() {
		m, err := landpattern.Make(f.Example.Clone())
		require.NoError(t, err, f.ID)
		solids := m.Footprint.Solids
		require.NotEmpty(t, solids, f.ID)
		top := int64(0)
		for _, s := range solids {
			top = max(top, s.To)
			b := boxOfSolid(s)
			assert.Less(t, b.Min.X, b.Max.X, f.ID)
			assert.Less(t, b.Min.Y, b.Max.Y, f.ID)
		}
		if h, ok := f.Example.Dims["height"]; ok {
			assert.InDelta(t, h.Middle(), top, 60_000, "%s: height", f.ID)
		}
		for i := range m.Footprint.Pads {
			p := &m.Footprint.Pads[i]
			pad := geom.BoxOf(p.At).Grow(min(p.Size.X, p.Size.Y) / 2)
			touched := false
			for _, s := range solids {
				touched = touched || s.From < 200_000 && boxOfSolid(s).Meets(pad)
			}
			assert.True(t, touched, "%s: nothing of the body stands on pad %s", f.ID, p.Number)
		}
	}
}

// What follows from other dimensions is in the name: ten positions at 2.54 mm are 25.4 mm long. A lamp is of glass, a capacitor in a can is not.
func TestWhatFollowsFromOtherDimensions(t *testing.T) {
	mm := func(a, b float64) design.Range { return design.Range{Min: int64(a * 1e6), Max: int64(b * 1e6)} }
	r := &design.Recipe{Family: "header", Counts: map[string]int{"positions": 10, "rows": 1}, Density: design.Nominal, Making: design.UsualMaking(), Choices: map[string]string{"kind": "pins"},
		Dims: map[string]design.Range{"pitch": mm(2.54, 2.54), "pin": mm(0.62, 0.66), "bodyWidth": mm(2.44, 2.64), "height": mm(8.4, 8.6)}}
	m, err := landpattern.Make(r)
	require.NoError(t, err)
	assert.Contains(t, m.Name, "_1X10_2540X254X860")
	for kind, material := range map[string]string{"LED": "glass", "CAP": "metal"} {
		r := &design.Recipe{Family: "radial", Density: design.Nominal, Making: design.UsualMaking(), Choices: map[string]string{"kind": kind, "polar": "yes"},
			Dims: map[string]design.Range{"span": mm(2.54, 2.54), "lead": mm(0.45, 0.55), "length": mm(4.8, 5), "height": mm(8, 8.6)}}
		m, err := landpattern.Make(r)
		require.NoError(t, err)
		assert.Equal(t, material, m.Footprint.Solids[0].Material, kind)
	}
}
