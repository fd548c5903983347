package surface_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/edit"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
	"goldentrace/core/synthetic"
)

// Parts that are not fitted get paste, or none, as the board says; those that are fitted always do.
func TestPasteOfPartsThatAreNotFitted(t *testing.T) {
	d := synthetic.FourLayers()
	pastes := func() int {
		b := surface.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
		return len(b.Pastes(d.Placed[synthetic.FourR1], false))
	}
	require.Equal(t, 2, pastes())
	p := *d.Placed[synthetic.FourR1]
	p.NotFitted = true
	d.Put(&p)
	assert.Equal(t, 2, pastes(), "so that it can be soldered later")
	_, err := edit.Apply(d, edit.Env{}, &edit.SetPaste{})
	require.NoError(t, err)
	assert.Zero(t, pastes())
	p.NotFitted = false
	d.Put(&p)
	assert.Equal(t, 2, pastes())
	_, err = edit.Apply(d, edit.Env{}, &edit.SetPaste{Unfitted: true})
	require.NoError(t, err)
	assert.False(t, d.Board.NoPaste)
}
