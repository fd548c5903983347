package design_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Every template is whole, 1.6 mm thick, and bears the title it was given; what it says of itself holds.
func TestTemplates(t *testing.T) {
	copper := map[string]int{"empty": 2, "oneSided": 1, "twoSided": 2, "fourLayer": 4}
	size := map[string]geom.Point{"oneSided": {X: 80_000_000, Y: 50_000_000}, "twoSided": {X: 100_000_000, Y: 80_000_000}, "fourLayer": {X: 100_000_000, Y: 80_000_000}}
	require.Len(t, design.Templates(), len(copper))
	for _, tp := range design.Templates() {
		d, err := design.FromTemplate(tp.Key, "Mill")
		require.NoError(t, err)
		assert.NoError(t, d.Whole(), tp.Key)
		assert.Equal(t, "Mill", d.Settings.Title)
		assert.Len(t, d.Board.CopperNames(), copper[tp.Key], tp.Key)
		thick := int64(0)
		for _, l := range d.Board.Stack {
			if slices.Contains([]design.LayerKind{design.CopperLayer, design.CoreLayer, design.PrepregLayer}, l.Kind) {
				thick += l.Thickness
			}
		}
		assert.EqualValues(t, 1_600_000, thick, tp.Key)
		if copper[tp.Key] > 1 {
			assert.Empty(t, d.Board.Uneven(), tp.Key)
		}
		assert.Equal(t, tp.Key != "empty", len(d.Board.Outline) == 4, tp.Key)
		if want := size[tp.Key]; want.X > 0 {
			b := geom.Closing(d.Board.Outline).Box()
			assert.Equal(t, geom.Box{Max: want}, b, tp.Key)
		}
		r := d.Numbers()
		assert.GreaterOrEqual(t, r[design.TrackWidth], r[design.LeastWidth], tp.Key)
		assert.GreaterOrEqual(t, (r[design.ViaDiameter]-r[design.ViaHole])/2, r[design.LeastRing], tp.Key)
		assert.GreaterOrEqual(t, r[design.ViaHole], r[design.LeastHole], tp.Key)
	}
	one, _ := design.FromTemplate("oneSided", "x")
	assert.Equal(t, []string{"Bottom"}, one.Board.CopperNames())
	_, err := design.FromTemplate("six", "x")
	assert.ErrorContains(t, err, `no template called "six"`)
}
