package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// What a class asks for becomes the rules for everything, and what that changes is told before; rules for something stay, and undo brings all
// back.
func TestLimitsOfAHouseAreTaken(t *testing.T) {
	d := design.New("taken")
	d.Next = 500
	own := design.Rule{ID: 400, Kind: design.Clearance, Order: 40, A: design.Scope{Class: "supply"}, Value: design.Fixed(500_000)}
	d.Put(&own)
	inner := *d.Base(design.LeastWidth)
	thin := design.Fixed(120_000)
	inner.Value, inner.Inner = design.Fixed(150_000), &thin
	d.Put(&inner)
	c := &edit.TakeLimits{House: "northgate", Class: "Standard"}
	said, err := c.Changes(d)
	require.NoError(t, err)
	assert.Equal(t, []edit.LimitTaken{
		{Kind: design.LeastWidth, Was: 150_000, Is: 150_000}, // on inner layers too
		{Kind: design.Clearance, Was: 200_000, Is: 150_000},
		{Kind: design.EdgeClearance, Was: 300_000, Is: 250_000},
		{Kind: design.LeastSilk, Was: 100_000, Is: 120_000},
	}, said)
	cs, err := edit.Apply(d, edit.Env{}, c)
	require.NoError(t, err)
	for kind, want := range map[design.RuleKind]int64{design.LeastWidth: 150_000, design.Clearance: 150_000,
		design.EdgeClearance: 250_000, design.LeastHole: 300_000,
		design.LeastRing: 150_000, design.HoleClearance: 250_000, design.HoleCopper: 200_000, design.MaskWeb: 100_000,
		design.LeastSilk:    120_000,
		design.LetterHeight: 800_000} {
		assert.Equal(t, design.Fixed(want), d.Base(kind).Value, kind)
		assert.Nil(t, d.Base(kind).Inner)
	}
	assert.Equal(t, design.Fixed(500_000), d.Rules[400].Value)
	assert.EqualValues(t, 400_000, d.Base(design.TrackWidth).Value.Fixed, "new tracks are as wide as before")
	_, err = edit.Apply(d, edit.Env{}, c)
	require.EqualError(t, err, "the board's rules are those of the class already")
	_, err = edit.Apply(d, edit.Env{}, &edit.TakeLimits{House: "northgate", Class: "Gold"})
	require.EqualError(t, err, `Northgate Boards makes no boards of a class called "Gold"`)
	_, err = edit.Apply(d, edit.Env{}, &edit.TakeLimits{House: "x"})
	require.ErrorContains(t, err, "there is no board house called")
	cs.Inverted().Apply(d)
	assert.Equal(t, &inner, d.Base(design.LeastWidth))
}
