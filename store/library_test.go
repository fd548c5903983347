package store_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/library"
	"goldentrace/store"
)

// release is a part with one pin and one pad so wide.
func release(name string, width int64) *library.Release {
	return &library.Release{
		Part:       &design.LibraryPart{Name: name, Prefix: "U", Symbol: "S", Footprint: "F"},
		Symbols:    []*design.Symbol{{Name: "S", Pins: []design.Pin{{Number: "1", Type: "input"}}, Figures: []design.Figure{}}},
		Footprints: []*design.Footprint{{Name: "F", Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: geom.Pt(width, 1000)}}, Silk: []design.Figure{}, Body: []design.Figure{}}},
	}
}

func TestPartsOfTheWorkspace(t *testing.T) {
	dir := t.TempDir()
	s := open(t, dir)
	keep := func(r *library.Release) int {
		t.Helper()
		v, err := s.KeepPart(ctx, r, "Alder", "as drawn")
		require.NoError(t, err)
		return v
	}
	assert.Equal(t, 1, keep(release("Slide", 1000)))
	assert.Equal(t, 1, keep(release("Slide", 1000)), "the same is not kept twice")
	assert.Equal(t, 2, keep(release("Slide", 1001)))
	checked := release("Slide", 1001)
	checked.Part.Checked = &design.Checked{By: "Alder", On: "2026-11-26", Print: "x"}
	assert.Equal(t, 3, keep(checked), "that it was checked is a version")
	assert.Equal(t, 1, keep(release("Holder", 5)))
	bad := release("Bad", 1)
	bad.Part.Footprint = "G"
	_, err := s.KeepPart(ctx, bad, "", "")
	assert.ErrorContains(t, err, "the footprint G of Bad is missing")

	require.NoError(t, s.Close()) // all is there again
	s = open(t, dir)
	items, missing, err := s.Workspace(ctx)
	require.NoError(t, err)
	assert.Empty(t, missing)
	require.Len(t, items, 2)
	assert.Equal(t, "Holder", items[0].Part.Name)
	assert.Equal(t, design.Origin{Library: "workspace", Version: 3}, items[1].Part.Origin)
	assert.Equal(t, items[1].Part.Origin, items[1].Footprint.Origin)
	assert.EqualValues(t, 1001, items[1].Footprint.Pads[0].Size.X)

	require.NoError(t, s.Withdraw(ctx, "slide", 3, false))
	items, _, err = s.Workspace(ctx)
	require.NoError(t, err)
	assert.Equal(t, 2, items[1].Part.Origin.Version, "the latest that is not withdrawn")
	list, err := s.PartVersions(ctx, "Slide")
	require.NoError(t, err)
	require.Len(t, list, 3)
	assert.Equal(t, []bool{true, false, false}, []bool{list[0].Withdrawn, list[1].Withdrawn, list[2].Withdrawn})
	assert.Equal(t, "Alder", list[0].Who)
	old, err := s.PartVersion(ctx, "Slide", 1)
	require.NoError(t, err)
	assert.EqualValues(t, 1000, old.Footprints[0].Pads[0].Size.X, "all versions stay")
	require.NoError(t, s.Withdraw(ctx, "Slide", 3, true))
	items, _, err = s.Workspace(ctx)
	require.NoError(t, err)
	assert.Equal(t, 3, items[1].Part.Origin.Version)
	assert.ErrorIs(t, s.Withdraw(ctx, "Slide", 9, false), store.ErrNoPart)
	_, err = s.PartVersion(ctx, "Nothing", 1)
	assert.ErrorIs(t, err, store.ErrNoPart)
}

func TestNamedMakings(t *testing.T) {
	s := open(t, t.TempDir())
	m := store.Making{Name: "Hand soldering", Making: design.UsualMaking()}
	require.NoError(t, s.PutMaking(ctx, m))
	m.Making.Gap = 300_000
	require.NoError(t, s.PutMaking(ctx, m))
	require.NoError(t, s.PutMaking(ctx, store.Making{Name: "Dense", Making: design.UsualMaking()}))
	list, err := s.Makings(ctx)
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, "Dense", list[0].Name)
	assert.Equal(t, m, list[1])
	m.Making.Round = 0
	assert.Error(t, s.PutMaking(ctx, m))
	assert.Error(t, s.PutMaking(ctx, store.Making{Making: design.UsualMaking()}))
	require.NoError(t, s.DropMaking(ctx, "dense"))
	list, err = s.Makings(ctx)
	require.NoError(t, err)
	assert.Len(t, list, 1)
}
