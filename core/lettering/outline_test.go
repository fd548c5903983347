package lettering_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/geom"
	"goldentrace/core/lettering"
	"goldentrace/core/overlay"
	"goldentrace/core/typeface"
)

func box(list []overlay.Area) geom.Box {
	var e geom.Extent
	for _, a := range list {
		e.Add(a.Outer...)
	}
	return e.Box
}

// Capitals are as high as asked, their middle at the origin; letters with counters have holes, i and j two pieces.
func TestOutlines(t *testing.T) {
	bold := typeface.Shipped()[1:2]
	for text, want := range map[string][2]int{"H": {1, 0}, "O": {1, 1}, "B": {1, 2}, "i": {2, 0}, "8%": {4, 4}, "HO": {2, 1}, " ": {0, 0}} {
		got, err := lettering.Outlines(text, bold, 3_000_000)
		require.NoError(t, err)
		holes := 0
		for _, a := range got {
			holes += len(a.Holes)
		}
		assert.Equal(t, want, [2]int{len(got), holes}, text)
	}
	h, err := lettering.Outlines("H", bold, 3_000_000)
	require.NoError(t, err)
	assert.Equal(t, []int64{-1_500_000, 1_500_000}, []int64{box(h).Min.Y, box(h).Max.Y})
	assert.InDelta(t, 0, float64(box(h).Centre().X), 100_000, "its bearings are nearly alike")
	two, err := lettering.Outlines("HH", bold, 3_000_000)
	require.NoError(t, err)
	wide := func(b geom.Box) int64 { return b.Max.X - b.Min.X }
	step := wide(box(two)) - wide(box(h))
	assert.InDelta(t, bold[0].Advance('H')/bold[0].Capital()*3e6, float64(step), 2, "the second stands an advance on")
}

// A letter that the first font lacks is taken from the next; one that none has is an empty frame.
func TestOutlinesOfLettersThatLack(t *testing.T) {
	all := typeface.Shipped()
	latin, greek := all[2], all[4]
	require.Zero(t, latin.Advance('Ω'))
	got, err := lettering.Outlines("Ω", []*typeface.Face{latin, greek}, 2_000_000)
	require.NoError(t, err)
	require.Len(t, got, 1)
	assert.Greater(t, len(got[0].Outer), 12, "an omega, no frame")
	assert.InDelta(t, 2_000_000, float64(box(got).Max.Y-box(got).Min.Y), 100_000)
	_, err = lettering.Outlines("Ω", []*typeface.Face{greek}, 2_000_000)
	assert.ErrorContains(t, err, "no capital letters")
	frame, err := lettering.Outlines("漢", []*typeface.Face{latin}, 2_000_000)
	require.NoError(t, err)
	require.Len(t, frame, 1)
	assert.Len(t, frame[0].Holes, 1)
	assert.Equal(t, int64(2_000_000), box(frame).Max.Y-box(frame).Min.Y)
}
