package workbench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

// How far circuit and board are, from an empty project to a board that is done, and what takes
// it back: what is open is work, what is excused is not.
func TestHowFarTheJobIs(t *testing.T) {
	d := design.New("stages")
	b := workbench.Open(d, 0)
	is := func(circuit, board, why string) {
		t.Helper()
		s := b.Settle().Stages
		assert.Equal(t, []string{circuit, board}, []string{s.Circuit, s.Board}, why)
	}
	do := func(c edit.Command) edit.ChangeSet {
		t.Helper()
		cs, err := b.Edit(c)
		require.NoError(t, err)
		return cs
	}
	excuse := func(stage string) {
		t.Helper()
		for _, f := range b.Findings() {
			if f.Stage == stage && f.Excused == "" {
				do(&edit.Excuse{Key: f.Key, Fingerprint: f.Fingerprint, Text: f.Text, Reason: "so wanted"})
			}
		}
	}
	sheet := d.SheetsInOrder()[0].ID
	is("none", "none", "nothing is there")
	cs := do(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(0, 0), geom.Pt(10_000_000, 0)}})
	assert.NotEqual(t, "none", b.Settle().Stages.Circuit, "a wire is a beginning")
	b.Apply(cs.Inverted())
	is("none", "none", "and was taken back")
	for i, p := range []string{"Resistor", "Resistor"} {
		do(&edit.PlacePart{Sheet: sheet, Library: p, At: geom.Pt(int64(i)*50_000_000, 0)})
	}
	is("work", "none", "pins are open")
	s := b.Stages()
	assert.Equal(t, []int{2, 4}, []int{s.Parts, s.Nets}, "two parts, and each pin by itself")
	excuse("circuit")
	is("done", "none", "all that was found is excused")
	do(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(5_000_000, 0), geom.Pt(45_000_000, 0)}})
	do(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(-5_000_000, 0), geom.Pt(-5_000_000, 20_000_000), geom.Pt(55_000_000, 20_000_000), geom.Pt(55_000_000, 0)}})
	is("done", "none", "joined in a ring")
	assert.Equal(t, 2, b.Stages().Nets)

	do(&edit.Carry{All: true})
	is("done", "work", "its links are open and it has no outline")
	assert.Zero(t, b.Stages().Differences)
	do(&edit.SetOutline{Outline: geom.Corners(geom.Pt(-100_000_000, -100_000_000), geom.Pt(100_000_000, -100_000_000), geom.Pt(100_000_000, 100_000_000), geom.Pt(-100_000_000, 100_000_000))})
	is("done", "work", "its links are open still")
	excuse("board")
	is("done", "done", "excused")
	var part *design.Part
	for part = range d.Parts.All() {
		break
	}
	back := do(&edit.SetPart{ID: part.ID, Value: ptr("9k")})
	is("done", "work", "the board differs from its circuit; the circuit is none the less done")
	assert.Equal(t, 1, b.Stages().Differences)
	b.Apply(back.Inverted())
	is("done", "done", "and agrees with it again")
	edge := do(&edit.AddHole{At: geom.Pt(100_000_000, 0), Diameter: 3_000_000})
	is("done", "work", "a hole on the edge breaks a rule")
	excuse("board")
	is("done", "done", "which is excused")
	b.Apply(edge.Inverted())
	outline := *d.Board
	outline.Outline = nil
	b.Apply(edit.ChangeSet{{ID: d.Board.ID, Kind: design.KindBoard, Before: d.Board, After: &outline}})
	is("done", "work", "without an outline no board is done")
}

// Findings name the sheet they are on, by its place in the tree of sheets.
func TestFindingsNameTheirSheet(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	b.Settle()
	probe := d.Bearers("J4")[0]
	require.Len(t, b.Tree().Of(probe.Sheet), 4)
	cs, err := b.Edit(&edit.PlacePart{Sheet: probe.Sheet, Library: "Resistor", At: geom.Pt(20_000_000, 20_000_000)})
	require.NoError(t, err)
	places := map[string]bool{}
	for _, f := range b.Findings() {
		if f.Kind == "openPin" {
			places[f.Place] = true
		}
	}
	assert.Equal(t, map[string]bool{"Probe 1": true}, places, "what is drawn once is found once, on its first use")
	b.Apply(cs.Inverted())
	require.NotEmpty(t, d.Placed)
	for _, f := range b.Findings() {
		if f.Stage == "board" {
			assert.Empty(t, f.Place, "what is on the board is on no sheet: %s", f.Text)
		}
	}
}

// Packages are counted anew when units come, join one package, and go.
func TestPackagesAreCountedByTheirUnits(t *testing.T) {
	d := design.New("units")
	b := workbench.Open(d, 0)
	sheet := d.SheetsInOrder()[0].ID
	var first design.ID
	for i, want := range []int{1, 1} {
		cs, err := b.Edit(&edit.PlacePart{Sheet: sheet, Library: "Dual amplifier, units", At: geom.Pt(int64(i)*60_000_000, 0)})
		require.NoError(t, err)
		for _, c := range cs {
			if p, ok := c.After.(*design.Part); ok && first == 0 {
				first = p.ID
			}
		}
		assert.Equal(t, want, b.Settle().Stages.Parts, "the second unit is of the first's package")
	}
	one := d.Parts[first]
	alone := *one
	alone.Designator = "U9"
	apart := edit.ChangeSet{{ID: first, Kind: design.KindPart, Before: one, After: &alone}}
	b.Apply(apart)
	assert.Equal(t, 2, b.Settle().Stages.Parts, "a unit by another designator is a package of its own")
	b.Apply(apart.Inverted())
	assert.Equal(t, 1, b.Settle().Stages.Parts)
}

// Two pins that meet for the first time make a net, which both their pads have to bear on the board.
func TestBothPadsOfANewNetDiffer(t *testing.T) {
	d := design.New("pads")
	b := workbench.Open(d, 0)
	sheet := d.SheetsInOrder()[0].ID
	for i := range 2 {
		_, err := b.Edit(&edit.PlacePart{Sheet: sheet, Library: "Resistor", At: geom.Pt(int64(i)*50_000_000, 0)})
		require.NoError(t, err)
	}
	_, err := b.Edit(&edit.Carry{All: true})
	require.NoError(t, err)
	assert.Zero(t, b.Settle().Stages.Differences)
	wire, err := b.Edit(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(5_000_000, 0), geom.Pt(45_000_000, 0)}})
	require.NoError(t, err)
	assert.Equal(t, 2, b.Settle().Stages.Differences, "pad 2 of the one and pad 1 of the other")
	b.Apply(wire.Inverted())
	assert.Zero(t, b.Settle().Stages.Differences, "parted again, neither has a net")
}
