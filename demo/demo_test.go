package demo_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/question"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

func TestMothLampIsFinishedAndClean(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	require.NoError(t, d.Whole())
	b := workbench.Open(d, 0)
	assert.Empty(t, b.OpenFindings())
	assert.Len(t, d.Parts, 12)
	assert.Empty(t, d.Vias)
	for tr := range d.Tracks.All() {
		assert.Equal(t, d.Board.Bottom(), tr.Layer, "one-sided: copper below only")
	}
	assert.EqualValues(t, 50_000_000, d.Board.Outline[2].X)
	assert.EqualValues(t, 40_000_000, d.Board.Outline[2].Y)
	assert.Len(t, b.Nets().ByName, 8)
}

func TestFirstTryHasAFaultAndAPinToFind(t *testing.T) {
	d, err := demo.Build("Moth Lamp, first try")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	var faults []string
	for _, f := range b.Findings() {
		if f.Severity != check.ToDo && f.Severity != check.Note || f.Kind == "openPin" {
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
		if f.Kind == "links" { // its tracks are not drawn yet
			continue
		}
		excused++
		assert.NotEmpty(t, f.Excused, f.Text)
	}
	assert.Equal(t, 4, excused, "a pin alone, and three trunks that end in nothing")
	assert.Equal(t, []string{"The part Coin cell has not been checked against a datasheet.",
		"The part Relay has not been checked against a datasheet.", "2 parts have no ordering data: B1, K1."}, notes)
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

// The board of Weir Gauge is set up and placed: within its edge, nothing over anything, every note about a place held, connectors at
// the edges, blocking capacitors at their pins, rules that hold for something, no designator on a pad.
func TestWeirGaugeIsPlaced(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	assert.Equal(t, 4, d.Board.Layers())
	assert.Equal(t, geom.BoxOf(geom.Pt(0, 0), geom.Pt(100*units.MM, 70*units.MM)), d.Board.Region().Outer.Box())
	arcs := 0
	for _, c := range d.Board.Outline {
		if c.Mid != nil {
			arcs++
		}
	}
	assert.Equal(t, 4, arcs, "its corners are round")
	assert.Len(t, d.Holes, 4)
	assert.Len(t, d.Placed, 103)
	parts := map[string]*design.Placed{}
	for p := range d.Placed.All() {
		parts[p.Designator] = p
		yard, ok := layout.Yard(d, p)
		require.True(t, ok)
		for _, q := range yard.Pts {
			assert.True(t, q.X >= 0 && q.X <= 100*units.MM && q.Y >= 0 && q.Y <= 70*units.MM, p.Designator)
		}
	}
	all := map[design.ID]*design.Placed{}
	for _, p := range parts {
		all[p.ID] = p
	}
	assert.Empty(t, layout.Clashing(d, b.Index(), b.Rules(), all))
	pad := func(name string) geom.Shape {
		designator, number, _ := strings.Cut(name, ".")
		for _, c := range b.Index().Of(parts[designator].ID) {
			if c.Number == number {
				return c.Shape
			}
		}
		t.Fatal(name)
		return geom.Shape{}
	}
	for _, c := range []struct {
		a, b string
		mm   float64
	}{{"C10.1", "U3.1", 3}, {"C11.1", "U3.24", 3}, {"C12.1", "U3.36", 3}, {"C13.1", "U3.9", 3}, {"C20.1", "U5.8", 2}, {"C22.1", "U6.8",
		3}, {"C19.1", "U4.8", 2}, {"C25.1", "U8.8", 2}, {"C28.1", "U9.8", 2}, {"C31.1", "U10.8", 2}, {"Y1.1", "U3.5", 5}} {
		gap, _, _ := geom.Gap(pad(c.a), pad(c.b))
		assert.Less(t, gap/1e6, c.mm, "%s to %s", c.a, c.b)
	}
	shown, err := (&question.RulesSeen{}).Answer(b)
	require.NoError(t, err)
	assert.GreaterOrEqual(t, len(shown.Rules), 8)
	for _, r := range shown.Rules {
		assert.Empty(t, r.Trouble, r.Says)
	}
	notes := 0
	for p := range d.Placed.All() {
		notes += len(p.Notes)
	}
	assert.GreaterOrEqual(t, notes, 25)
	room, hard := map[bool][]geom.Box{}, map[bool][]geom.Box{}
	for c := range b.Index().All() {
		for bottom, layer := range map[bool]int{false: 0, true: 3} {
			if c.Has(layer) && c.Kind != "track" && c.Kind != "via" {
				hard[bottom] = append(hard[bottom], c.On(layer).Box())
			}
		}
	}
	on := 0
	for p := range d.Placed.All() {
		at := d.Footprint(p.Footprint).DesignatorAt
		if p.Label != nil {
			at = *p.Label
		}
		var e geom.Extent
		for _, l := range layout.TextLines(p.Designator, p.LetterHeight(), p.Pose().Apply(at), p.Angle, p.Bottom) {
			e.Add(l...)
		}
		box := e.Box
		for _, h := range append(hard[p.Bottom], room[p.Bottom]...) {
			if h.Meets(box) {
				on++
			}
		}
		room[p.Bottom] = append(room[p.Bottom], box)
	}
	assert.LessOrEqual(t, on, 2, "designators on pads or on one another")
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
