package house_test

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/house"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// A board with a line of 0.15 mm held against a house of its own and a variant of that: what keeps, what does not, what is other.
func TestABoardHeldAgainstHouses(t *testing.T) {
	d := small()
	d.Put(&design.Track{ID: 10, Layer: d.Board.Top(), A: geom.Pt(5*mm, 5*mm), B: geom.Pt(15*mm, 5*mm), Width: 150 * um})
	classes := func(fine int64) []design.HouseClass {
		return []design.HouseClass{
			{Name: "Plain", Price: 100, Limits: map[string]int64{"track": 200 * um, "edge": 300 * um, "layers": 2, "side": 100 * mm}},
			{Name: "Fine", Price: 200, Limits: map[string]int64{"track": fine, "edge": 300 * um, "layers": 4, "side": 100 * mm, "hole": 200 * um}}}
	}
	d.Put(&design.House{ID: 20, Name: "Mill", Text: "By the river.", Classes: classes(100 * um)})
	d.Put(&design.House{ID: 21, Name: "Mill, ours", Of: "own-20", Classes: classes(160 * um)})
	held := func(ctx context.Context) ([]house.HouseSeen, error) {
		return house.Against(ctx, d, layout.NewIndex(d), rules.Of(d), nil)
	}
	all, err := held(t.Context())
	require.NoError(t, err)
	require.Len(t, all, len(house.All())+2, "those built in, then its own")
	mill, ours := all[len(all)-2], all[len(all)-1]
	assert.Equal(t, design.ID(20), mill.Own)
	assert.Equal(t, "Mill", mill.Name)
	assert.Equal(t, 1, mill.Cheapest)
	assert.Empty(t, mill.Of)
	at := func(c house.ClassSeen, l house.Limit) *house.LimitSeen {
		for i := range c.Limits {
			if c.Limits[i].Limit == l {
				return &c.Limits[i]
			}
		}
		return nil
	}
	plain, fine := at(mill.Classes[0], house.Track), at(mill.Classes[1], house.Track)
	assert.EqualValues(t, 150*um, plain.Found.Value)
	assert.EqualValues(t, 200*um, plain.Bound)
	assert.False(t, plain.Keeps)
	assert.True(t, fine.Keeps)
	assert.Nil(t, fine.Was)
	assert.True(t, at(mill.Classes[1], house.Copper).Most)
	assert.False(t, at(mill.Classes[1], house.Copper).Length)
	assert.True(t, plain.Length)
	assert.False(t, plain.Most)
	assert.True(t, at(mill.Classes[0], house.Side).Most)
	holes := at(mill.Classes[1], house.HoleSize)
	require.NotNil(t, holes, "what is limited is told of although the board has none")
	assert.True(t, holes.Keeps)
	assert.Nil(t, holes.Found)
	assert.Nil(t, at(mill.Classes[0], house.HoleSize), "and what is neither there nor limited is not")

	assert.Equal(t, "Mill", ours.Of)
	assert.Equal(t, -1, ours.Cheapest)
	require.NotNil(t, at(ours.Classes[1], house.Track).Was)
	assert.EqualValues(t, 100*um, *at(ours.Classes[1], house.Track).Was)
	assert.Nil(t, at(ours.Classes[0], house.Track).Was)

	stopped, stop := context.WithCancel(t.Context())
	stop()
	_, err = held(stopped)
	assert.ErrorIs(t, err, context.Canceled)
}
