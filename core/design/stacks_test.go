package design_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
)

// told lists the layers of a stack: copper by name, what lies between by its thickness in micrometres.
func told(b *design.Board) string {
	var out []string
	for _, l := range b.Stack {
		switch {
		case l.Copper():
			out = append(out, l.Name)
		case !l.Coat():
			out = append(out, fmt.Sprint(l.Thickness/1000))
		}
	}
	return strings.Join(out, " ")
}

// More layers come in above the lowest, fewer go from there; the board stays as thick as it was.
func TestLayersComeAndGo(t *testing.T) {
	two := design.Board{ID: 2}.Stacked(design.TwoLayers())
	for n, want := range map[int]string{
		1: "Top 1565", 2: "Top 1530 Bottom", 3: "Top 1295 Inner 1 200 Bottom", 4: "Top 200 Inner 1 1060 Inner 2 200 Bottom",
	} {
		is, _, err := two.WithLayers(n)
		require.NoError(t, err)
		assert.Equal(t, want, told(is))
	}
	four := design.Board{ID: 2}.Stacked(design.FourLayers())
	is, drop, err := four.WithLayers(2)
	require.NoError(t, err)
	assert.Equal(t, "Top 1530 Bottom", told(is), "as thick as before")
	assert.Equal(t, []string{"Inner 2", "Inner 1"}, []string{drop[0].Name, drop[1].Name})
	one := design.Board{ID: 2}.Stacked([]design.StackLayer{{Name: "Core", Kind: design.CoreLayer, Thickness: 1_565_000}, {Name: "Bottom", Kind: design.CopperLayer, Thickness: 35_000}})
	is, _, err = one.WithLayers(2)
	require.NoError(t, err)
	assert.Equal(t, "Top 1530 Bottom", told(is), "copper comes where none is")
	for _, bad := range []int{0, -1, 33} {
		_, _, err := two.WithLayers(bad)
		assert.ErrorContains(t, err, "1 to 32 copper layers")
	}
}

// However often layers come and go: those that stay keep their ids and their order, new ones have new
// ids, the outer ones stay outside.
func TestLayersKeepTheirIDs(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := design.Board{ID: 2}.Stacked(design.TwoLayers())
		seen, thin := map[design.LayerID]bool{}, true
		for _, l := range b.Stack {
			seen[l.ID] = true
		}
		for range rapid.IntRange(1, 6).Draw(t, "times") {
			n := rapid.IntRange(2, 32).Draw(t, "layers")
			is, _, err := b.WithLayers(n)
			require.NoError(t, err)
			require.NoError(t, is.Valid())
			assert.Equal(t, n, is.Layers())
			assert.Equal(t, []design.LayerID{b.Top(), b.Bottom()}, []design.LayerID{is.Top(), is.Bottom()})
			thin = thin && n <= 8 // there is room for so many in the thickness the board has
			if thin {
				assert.EqualValues(t, 1_600_000, is.Thickness())
			}
			last := -1
			names := map[string]bool{}
			for _, l := range is.Stack {
				assert.False(t, names[l.Name], l.Name)
				names[l.Name] = true
				if old := b.Layer(l.ID); old != nil && l.Copper() {
					assert.Greater(t, b.Position(l.ID), last, "in their order")
					last = b.Position(l.ID)
				} else if old == nil {
					assert.False(t, seen[l.ID], "an id is not given twice")
				}
				seen[l.ID] = true
			}
			for i, l := range is.Copper() {
				assert.Equal(t, i, is.Position(l.ID))
				assert.Equal(t, l.ID, is.At(i))
			}
			b = is
		}
		assert.EqualValues(t, 0, b.At(32))
		assert.Equal(t, -1, b.Position(9999))
		assert.Nil(t, b.Layer(9999))
	})
}
