package question_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/question"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

func weigh(t *testing.T, b *workbench.Bench, tracks string, cmd map[string]any) (*question.Weighed, error) {
	t.Helper()
	cmd["v"] = 1
	asked, err := json.Marshal(map[string]any{"kind": "weigh", "cmd": cmd, "tracks": tracks})
	require.NoError(t, err)
	var q question.Weigh
	require.NoError(t, json.Unmarshal(asked, &q))
	return q.Answer(b)
}

// What carries parts elsewhere is told before it is done: where they would stand, what they would touch, which tracks go; nothing changes by that.
func TestCarryingIsForeseen(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	b := workbench.Open(d, 1)
	print, next := b.Fingerprint(), d.Next
	by := map[string]*design.Placed{}
	for p := range d.Placed.All() {
		by[p.Designator] = p
	}
	a, z := by["R1"], by["C3"]

	told, err := weigh(t, b, "along", map[string]any{"kind": "swapPlaced", "a": a.ID, "b": z.ID})
	require.NoError(t, err)
	require.Len(t, told.Parts, 2)
	at := map[string]geom.Point{}
	for _, p := range told.Parts {
		at[p.Designator] = p.At
	}
	assert.Equal(t, map[string]geom.Point{"R1": z.At, "C3": a.At}, at)

	told, err = weigh(t, b, "open", map[string]any{"kind": "flipPlaced", "ids": []design.ID{a.ID}})
	require.NoError(t, err)
	assert.Equal(t, !a.Bottom, told.Parts[0].Bottom)
	hangs := map[design.ID]bool{} // tracks that end on one of its pads
	for tr := range d.Tracks.All() {
		for _, c := range b.Index().Of(a.ID) {
			layer := d.Board.Position(tr.Layer)
			if c.Net == tr.Net && c.Has(layer) && (c.On(layer).Holds(tr.A) || c.On(layer).Holds(tr.B)) {
				hangs[tr.ID] = true
			}
		}
	}
	require.NotEmpty(t, hangs)
	going := map[design.ID]bool{}
	for _, id := range told.Going {
		going[id] = true
	}
	for id := range hangs {
		assert.True(t, going[id], "track %d would go", id)
	}

	// put so that a pad stands on one of another part: that is named
	told, err = weigh(t, b, "along", map[string]any{"kind": "setPlaced", "id": a.ID, "x": by["Q1"].At.X, "y": by["Q1"].At.Y - 5_080_000})
	require.NoError(t, err)
	require.NotEmpty(t, told.Touches)

	// 1.75 mm beside it the pads, of 1.7 and 1.6 mm, are 0.1 mm apart
	told, err = weigh(t, b, "along", map[string]any{"kind": "setPlaced", "id": a.ID, "x": by["Q1"].At.X + 1_750_000, "y": by["Q1"].At.Y - 5_080_000})
	require.NoError(t, err)
	found := false
	for _, o := range told.Near {
		found = found || o.Name == "pad Q1.2" && o.Measured == 100_000 && o.Required == d.Base(design.Clearance).Value.Fixed
	}
	assert.True(t, found, "%v", told.Near)

	_, err = weigh(t, b, "along", map[string]any{"kind": "swapPlaced", "a": a.ID, "b": a.ID})
	assert.ErrorContains(t, err, "two parts are needed")
	_, err = weigh(t, b, "along", map[string]any{"kind": "nothing of the kind"})
	assert.Error(t, err)

	assert.Equal(t, print, b.Fingerprint())
	assert.Equal(t, next, d.Next)
	assert.Same(t, a, d.Placed[a.ID])
}
