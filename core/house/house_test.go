package house_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/house"
)

// What a house offers can be a board: as thick as is said, symmetric, prepreg only where it glues, cores with copper on both sides.
func TestReadyMadeStacks(t *testing.T) {
	require.Len(t, house.All(), 2)
	for _, h := range house.All() {
		assert.NotEmpty(t, h.Text)
		names := map[string]bool{}
		for _, s := range h.Stacks {
			b := (design.Board{ID: 2}).Stacked(s.Layers)
			require.NoError(t, b.Valid(), s.Name)
			assert.False(t, names[s.Name], s.Name)
			names[s.Name] = true
			assert.Empty(t, b.Uneven(), s.Name)
			assert.InEpsilon(t, s.Wanted, b.Thickness(), 0.01, s.Name)
			assert.True(t, b.Coated(design.MaskLayer, true), s.Name)
			assert.Equal(t, s.Copper() == 1, b.OnlyBelow(), s.Name)
			b.Holes = s.Holes.On(b)
			require.NoError(t, b.Valid(), s.Name)
			assert.Empty(t, b.Unmakeable(), s.Name)
			for from := range s.Copper() {
				for to := from + 1; to < s.Copper(); to++ {
					ways, _ := b.WaysOf(b.At(from), b.At(to))
					assert.NotEmpty(t, ways, "%s: from %d to %d", s.Name, from, to)
				}
			}
			again := s.Holes.On(b)
			assert.Equal(t, b.Holes, again, "barrels keep their ids")
			above, below := design.Laminate(b.Stack)
			list := b.Stack[above : len(b.Stack)-below]
			for i, l := range list {
				assert.NotZero(t, l.ID)
				if l.Dielectric() {
					assert.Positive(t, l.Permittivity, "%s of %s", l.Name, s.Name)
					assert.Positive(t, l.Loss, "%s of %s", l.Name, s.Name)
				} else {
					assert.Positive(t, l.Roughness, "%s of %s", l.Name, s.Name)
				}
				if l.Kind == design.CoreLayer && s.Copper() > 1 {
					assert.True(t, list[i-1].Copper() && list[i+1].Copper(), "%s of %s", l.Name, s.Name)
				}
			}
		}
	}
	_, err := house.StackOf("northgate", "Six layers, 1.2 mm")
	assert.ErrorContains(t, err, "no board house offers", "another house's")
	s, err := house.StackOf("tallow", "Six layers, 1.2 mm")
	require.NoError(t, err)
	assert.Equal(t, 6, s.Copper())
}
