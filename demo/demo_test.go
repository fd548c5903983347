package demo_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

func TestMothLampIsFinishedAndClean(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	require.NoError(t, d.Whole())
	b := workbench.Open(d, 0)
	assert.Empty(t, b.Findings())
	assert.Len(t, d.Parts, 12)
	assert.Empty(t, d.Vias)
	for tr := range d.Tracks.All() {
		assert.Equal(t, 1, tr.Sheet, "one-sided: copper below only")
	}
	assert.EqualValues(t, 50_000_000, d.Board.Outline[2].X)
	assert.EqualValues(t, 40_000_000, d.Board.Outline[2].Y)
	assert.Len(t, b.Nets().ByName, 8)
}

func TestFirstTryHasTwoFaultsToFind(t *testing.T) {
	d, err := demo.Build("Moth Lamp, first try")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	var faults []string
	for _, f := range b.Findings() {
		if f.Severity != check.ToDo {
			faults = append(faults, f.Text)
		}
	}
	assert.Equal(t, []string{"Hole is 0.2 mm from the board's edge.", "Pin C3.2 is open and not marked as left open on purpose."}, faults)
	beside := 0
	for _, f := range b.Findings() {
		if f.Kind == "outside" {
			beside++
		}
	}
	assert.Equal(t, 12, beside)
}
