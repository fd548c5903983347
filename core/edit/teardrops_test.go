package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

func TestTeardropsOfABoard(t *testing.T) {
	d := design.New("Drops")
	put := func(like *design.Teardrops) (edit.ChangeSet, error) {
		return edit.Apply(d, edit.Env{}, &edit.SetTeardrops{Teardrops: like})
	}
	cs, err := put(&design.Teardrops{On: []design.Thing{design.AVia}, Length: 1200})
	require.NoError(t, err)
	assert.Equal(t, &design.Teardrops{On: []design.Thing{design.AVia}, Length: 1200, Breadth: 900, Most: 1_000_000}, d.Board.Teardrops)
	for says, like := range map[string]design.Teardrops{
		"say what is to have them":                    {},
		`"track" is none of them`:                     {On: []design.Thing{design.ATrack}},
		"or said twice":                               {On: []design.Thing{design.AVia, design.AVia}},
		"10 % to 300 % of the pad's breadth, not 9 %": {On: []design.Thing{design.AVia}, Length: 90},
		"20 % to 100 % of the pad's, not 100.1 %":     {On: []design.Thing{design.AVia}, Breadth: 1001},
		"0.05 to 3 mm long, not 3.001 mm":             {On: []design.Thing{design.AVia}, Most: 3_001_000},
	} {
		was := d.Board
		_, err := put(&like)
		require.ErrorContains(t, err, says)
		assert.Same(t, was, d.Board)
	}
	_, err = put(d.Board.Teardrops)
	require.EqualError(t, err, "this would change nothing")
	cs.Inverted().Apply(d)
	assert.Nil(t, d.Board.Teardrops)
	_, err = put(&design.Teardrops{On: design.TeardropThings})
	require.NoError(t, err)
	_, err = put(nil)
	require.NoError(t, err)
	assert.Nil(t, d.Board.Teardrops)
}
