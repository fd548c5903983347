package demo_test

import (
	"bytes"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
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
		assert.Equal(t, d.Board.Bottom(), tr.Layer, "one-sided: copper below only")
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
		if f.Severity != check.ToDo && f.Severity != check.Note {
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

// The gauge's circuit is whole: a block diagram above six sheets, four probe inputs from
// one sheet with designators of their own, and one finding that is excused.
func TestWeirGaugeCircuit(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	require.NoError(t, d.Whole())
	b := workbench.Open(d, 0)
	nets := b.Nets()
	packages := circuit.Packages(d, nets.Tree)
	assert.InDelta(t, 100, len(packages), 6)
	seen := map[string]bool{}
	for _, k := range packages {
		assert.False(t, seen[k.Designator], k.Designator)
		seen[k.Designator] = true
	}
	assert.Len(t, d.Sheets, 7)
	assert.Len(t, nets.Tree.Uses, 10)
	excused := 0
	var notes []string
	for _, f := range b.Findings() {
		if f.Severity == check.Note {
			notes = append(notes, f.Text)
			continue
		}
		excused++
		assert.NotEmpty(t, f.Excused, f.Text)
	}
	assert.Equal(t, 1, excused)
	assert.Equal(t, []string{"The part Coin cell has not been checked against a datasheet.", "The part Relay has not been checked against a datasheet."}, notes)
	assert.NotEmpty(t, d.Timings)
	assert.NotEmpty(t, d.Clusters)
	assert.NotEmpty(t, d.Notes)

	// from the probe's output through the bundle of the overview to the controller's pin
	net := func(designator, pin string) *circuit.Net {
		for _, k := range packages {
			if k.Designator == designator {
				for _, u := range k.Units {
					if n := nets.ByName[nets.OfPin[circuit.PinRef{Part: u.Part, Pin: pin, Path: u.Path}]]; n != nil {
						return n
					}
				}
			}
		}
		return nil
	}
	ain := net("U3", "10")
	require.NotNil(t, ain)
	assert.Equal(t, "AIN0", ain.Name)
	assert.Len(t, ain.Pins, 3, "the controller, a resistor and a capacitor of the first probe")
	assert.Equal(t, "SVC_N", d.NetName(d.NetNamed("SVC_P").Partner))
	assert.EqualValues(t, 90_000, d.NetNamed("SVC_P").Impedance)
}

// A demo project built twice is the same to the last byte: the examples that are kept are told by
// that from those of another version of the program.
func TestDemosAreBuiltAlike(t *testing.T) {
	for _, name := range demo.Names() {
		var files [2]bytes.Buffer
		for i := range files {
			d, err := demo.Build(name)
			require.NoError(t, err)
			require.NoError(t, design.WriteFile(&files[i], name, d))
		}
		assert.Equal(t, files[0].String(), files[1].String(), name)
	}
}
