package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/workbench"
)

func TestLayerSets(t *testing.T) {
	b := workbench.Open(design.New("sets"), 0)
	do := func(c edit.Command) edit.ChangeSet {
		t.Helper()
		cs, err := b.Edit(c)
		require.NoError(t, err)
		return cs
	}
	refuses := func(c edit.Command, says string) {
		t.Helper()
		_, err := b.Edit(c)
		require.ErrorContains(t, err, says)
	}
	top := b.Doc.Board.Top()
	do(&edit.KeepLayerSet{Set: design.LayerSet{Name: " Upper ", Layers: []design.LayerID{top}, Work: top, Hidden: []string{design.OnMask}}})
	require.Len(t, b.Doc.LayerSets, 1)
	do(&edit.KeepLayerSet{Set: design.LayerSet{Name: "Upper", Layers: []design.LayerID{top}, Others: design.OthersNext, Flipped: true}})
	require.Len(t, b.Doc.LayerSets, 1, "it takes the place of that name")
	var id design.ID
	for s := range b.Doc.LayerSets.All() {
		assert.Equal(t, &design.LayerSet{ID: s.ID, Name: "Upper", Layers: []design.LayerID{top}, Others: "next", Flipped: true}, s)
		id = s.ID
	}
	refuses(&edit.KeepLayerSet{Set: design.LayerSet{Name: "Odd", Layers: []design.LayerID{99}}}, "no such copper layer")
	refuses(&edit.KeepLayerSet{Set: design.LayerSet{Name: "None"}}, "shows no layer")
	refuses(&edit.KeepLayerSet{Set: design.LayerSet{Name: "", Layers: []design.LayerID{top}}}, "layer set's name")
	refuses(&edit.KeepLayerSet{Set: design.LayerSet{Name: "Odd", Layers: []design.LayerID{top}, Others: "blue"}}, "a way to see other layers")
	refuses(&edit.KeepLayerSet{Set: design.LayerSet{Name: "Odd", Layers: []design.LayerID{top}, Hidden: []string{"snow"}}}, "a surface")
	do(&edit.DropLayerSet{ID: id})
	assert.Empty(t, b.Doc.LayerSets)
	refuses(&edit.DropLayerSet{ID: id}, "no such layer set")
}

// A net and a class of the same name have colours of their own.
func TestTintsOfNetsAndClasses(t *testing.T) {
	d := design.New("tints")
	d.Next = 500
	d.Put(&design.Footprint{ID: 90, Name: "F"})
	b := workbench.Open(d, 0)
	_, err := b.Edit(&edit.SetTint{Name: "A", Colour: "#AABB01"})
	require.NoError(t, err)
	_, err = b.Edit(&edit.SetTint{Class: true, Name: "A", Colour: "#000000"})
	require.NoError(t, err)
	require.Len(t, d.Tints, 2)
	_, err = b.Edit(&edit.SetTint{Name: "A", Colour: "#aabb02"})
	require.NoError(t, err)
	colours := map[string]string{}
	for o := range d.Tints.All() {
		colours[map[bool]string{true: "class "}[o.Class]+o.Name] = o.Colour
	}
	assert.Equal(t, map[string]string{"A": "#aabb02", "class A": "#000000"}, colours)
	_, err = b.Edit(&edit.SetTint{Name: "B", Colour: "red"})
	require.ErrorContains(t, err, "is not a colour")
	_, err = b.Edit(&edit.SetTint{Name: "B"})
	require.ErrorContains(t, err, "no colour of its own")
	_, err = b.Edit(&edit.SetTint{Name: "A"})
	require.NoError(t, err)
	assert.Len(t, d.Tints, 1)
}

func TestHousesOfAProject(t *testing.T) {
	b := workbench.Open(design.New("houses"), 0)
	classes := []design.HouseClass{{Name: "Plain", Price: 100, Limits: map[string]int64{"track": 250_000}}}
	_, err := b.Edit(&edit.PutHouse{House: design.House{Name: "Ours", Classes: classes}})
	require.NoError(t, err)
	var id design.ID
	for h := range b.Doc.Houses.All() {
		id = h.ID
	}
	_, err = b.Edit(&edit.PutHouse{House: design.House{ID: id, Name: "Ours too", Classes: classes}})
	require.NoError(t, err)
	require.Len(t, b.Doc.Houses, 1)
	for h, says := range map[*design.House]string{
		{Name: "northgate boards", Classes: classes}:                                                            "is there already",
		{Name: "Odd", Classes: []design.HouseClass{{Name: "P", Price: 1, Limits: map[string]int64{"wind": 1}}}}: "none that is known",
		{Name: "Odd"}:                            "no class",
		{ID: 999, Name: "Odd", Classes: classes}: "no such house",
	} {
		_, err := b.Edit(&edit.PutHouse{House: *h})
		require.ErrorContains(t, err, says)
	}
	took, err := b.Edit(&edit.TakeLimits{House: "Ours too", Class: "Plain"})
	require.NoError(t, err)
	assert.NotEmpty(t, took)
	assert.Equal(t, design.Fixed(250_000), b.Doc.Base(design.LeastWidth).Value)
	_, err = b.Edit(&edit.DropHouse{ID: id})
	require.NoError(t, err)
	assert.Equal(t, design.Fixed(250_000), b.Doc.Base(design.LeastWidth).Value, "what was taken stays")
}
