package demo_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/parts"
	"goldentrace/demo"
)

// The three parts of the workspace are without findings, all their dimensions agree, and somebody checked them.
func TestPartsOfTheWorkspace(t *testing.T) {
	list, err := demo.Parts()
	require.NoError(t, err)
	require.Len(t, list, 3)
	told := 0
	for _, r := range list {
		assert.Empty(t, r.Flaws(parts.UsualLimits()), r.Part.Name)
		require.NotNil(t, r.Part.Checked, r.Part.Name)
		for _, f := range r.Footprints {
			for _, a := range parts.Agreements(f) {
				assert.True(t, a.Agrees, "%s: dimension %d is %d", f.Name, a.ID, a.Has)
				told++
			}
			assert.NotEmpty(t, f.Solids, "%s in space", f.Name)
		}
	}
	assert.Equal(t, 7, told)
	assert.NotNil(t, list[0].Footprints[0].Beneath, "the drawing lies beneath")
	assert.Len(t, list[0].Assets, 1)
}
