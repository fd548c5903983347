package circuit_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// chip makes a library part of two pins of given types, as a sheet to try them on.
func chip(d *design.Doc, name, a, b string) {
	d.Put(&design.Symbol{ID: d.NewID(), Name: name, Pins: []design.Pin{{Number: "1", Name: "A", Type: a, At: geom.Pt(-2*grid, 0)}, {Number: "2", Name: "B", Type: b, At: geom.Pt(2*grid, 0), Turn: 2}}})
	d.Put(&design.LibraryPart{ID: d.NewID(), Name: name, Prefix: "U", Symbol: name})
}

func kinds(d *design.Doc) []string {
	var out []string
	for _, x := range circuit.Find(d).Findings(d) {
		out = append(out, x.Kind+" "+x.Severity)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// The matrix, pair by pair: two parts whose pins 2 and 1 are joined, their outer pins on
// labelled nets that are driven and fed.
func TestPinPairs(t *testing.T) {
	for _, c := range []struct{ a, b, want string }{
		{"output", "input", ""}, {"output", "output", "fault"}, {"output", "passive", ""}, {"output", "triState", "warning"}, {"triState", "triState", ""},
		{"output", "supplyOut", "fault"}, {"supplyOut", "supplyOut", "fault"}, {"openCollector", "openCollector", ""}, {"openCollector", "output", "fault"},
		{"openCollector", "openEmitter", "warning"}, {"both", "both", ""}, {"both", "supplyOut", "warning"}, {"notConnected", "passive", "fault"}, {"supplyOut", "supplyIn", ""},
	} {
		d := design.New("pairs")
		sheet := d.SheetsInOrder()[0].ID
		chip(d, "Left", "passive", c.a)
		chip(d, "Right", c.b, "passive")
		for i, lib := range []string{"Left", "Right"} {
			_, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: lib, At: geom.Pt(int64(i)*4*grid, 0)})
			require.NoError(t, err)
		}
		var got string
		for _, x := range circuit.Find(d).Findings(d) {
			if x.Kind == "pinPair" {
				got = x.Severity
				assert.Len(t, x.Objects, 2)
			}
		}
		assert.Equal(t, c.want, got, "%s with %s", c.a, c.b)
	}
}

// Each kind of finding: a drawing that has it, and what mends it.
func TestEveryKindOfDoubt(t *testing.T) {
	var d *design.Doc
	var sheet design.ID
	do := func(c edit.Command) {
		t.Helper()
		_, err := edit.Apply(d, edit.Env{}, c)
		require.NoError(t, err)
	}
	place := func(lib string, x, y int64) { do(&edit.PlacePart{Sheet: sheet, Library: lib, At: steps(x, y)[0]}) }
	wire := func(xy ...int64) { do(&edit.DrawWire{Sheet: sheet, Path: steps(xy...)}) }
	bundle := func(xy ...int64) { do(&edit.DrawWire{Sheet: sheet, Path: steps(xy...), Bundle: true}) }
	label := func(name string, x, y int64) { do(&edit.PlaceLabel{Sheet: sheet, Name: name, At: steps(x, y)[0]}) }
	ground := func(name string, x, y int64, feeds bool) {
		do(&edit.PlaceSupply{Sheet: sheet, Name: name, Shape: "ground", Feeds: feeds, At: steps(x, y)[0]})
	}
	has := func(kind string) bool {
		return slices.ContainsFunc(circuit.Find(d).Findings(d), func(x circuit.Finding) bool { return x.Kind == kind })
	}
	for kind, c := range map[string]struct{ spoil, mend func() }{
		"openPin": {func() { place("Resistor", 0, 0) }, func() {
			do(&edit.PlaceOpenMark{Sheet: sheet, At: steps(-2, 0)[0]})
			do(&edit.PlaceOpenMark{Sheet: sheet, At: steps(2, 0)[0]})
		}},
		"singlePin": {func() { place("Resistor", 0, 0); wire(2, 0, 6, 0) }, func() { place("Resistor", 8, 0) }},
		"looseEnd":  {func() { wire(0, 0, 5, 0) }, func() { label("A", 0, 0); label("B", 5, 0) }},
		"markOnNet": {func() {
			place("Resistor", 0, 0)
			wire(2, 0, 5, 0)
			do(&edit.PlaceOpenMark{Sheet: sheet, At: steps(2, 0)[0]})
		}, func() { do(&edit.Remove{IDs: []design.ID{only(d.OpenMarks)}}) }},
		"twoSupplies":   {func() { wire(0, 0, 5, 0); ground("GND", 0, 0, true); ground("VSS", 5, 0, true) }, func() { do(&edit.Remove{IDs: []design.ID{only(d.Wires)}}) }},
		"noDriver":      {func() { chip(d, "In", "input", "input"); place("In", 0, 0); place("In", 4, 0) }, func() { place("Resistor", 4, 0) }},
		"noFeed":        {func() { chip(d, "Fed", "supplyIn", "supplyIn"); place("Fed", 0, 0); place("Fed", 4, 0) }, func() { ground("GND", 2, 0, true) }},
		"caseNames":     {func() { label("Gate", 0, 0); wire(0, 0, 2, 0); label("GATE", 9, 0); wire(9, 0, 12, 0) }, func() { do(&edit.RenameNet{Net: "Gate", To: "Door"}) }},
		"wireOnBundle":  {func() { bundle(0, 0, 0, 9); wire(0, 5, 5, 5) }, func() { do(&edit.Remove{IDs: []design.ID{thin(d)}}) }},
		"labelOnBundle": {func() { bundle(0, 0, 0, 9); label("ONE", 0, 9) }, func() { do(&edit.Remove{IDs: []design.ID{only(d.Labels)}}) }},
		"tapMember": {func() {
			bundle(0, 0, 0, 9)
			label("D[3:0]", 0, 0)
			do(&edit.PlaceTaps{Sheet: sheet, Members: []string{"D7"}, At: steps(0, 5)[0]})
		}, func() { do(&edit.SetName{ID: only(d.Taps), Name: "D2"}) }},
		"bundleWidth": {func() { bundle(0, 0, 0, 9); label("D[3:0]", 0, 0); label("Q[7:0]", 0, 9) }, func() { do(&edit.RenameNet{Net: "x", To: "y"}) }},
		"unitLeft":    {func() { place("Dual amplifier, units", 0, 0) }, func() { place("Dual amplifier, units", 20, 0); place("Dual amplifier, units", 40, 0) }},
		"portAlone": {func() {
			do(&edit.PlaceBlock{Sheet: sheet, Name: "K", At: steps(0, 0)[0]})
			do(&edit.PlacePort{Sheet: d.SheetsInOrder()[1].ID, Name: "P", Way: "in", At: steps(0, 0)[0]})
		}, func() { do(&edit.MatchPort{Block: only(d.Blocks), Pin: "P", How: "add"}) }},
	} {
		t.Run(kind, func(t *testing.T) {
			d = design.New(kind)
			sheet = d.SheetsInOrder()[0].ID
			assert.False(t, has(kind))
			c.spoil()
			require.True(t, has(kind), "%v", kinds(d))
			if kind != "bundleWidth" {
				c.mend()
				assert.False(t, has(kind), "%v", kinds(d))
			}
			// switched off it is not looked for
			if kind == "bundleWidth" {
				do(&edit.SetChecks{Kinds: map[string]string{kind: "off"}})
				assert.False(t, has(kind))
			}
		})
	}
}

func only[T design.Object](t design.Table[T]) design.ID {
	for id := range t {
		return id
	}
	return 0
}

func thin(d *design.Doc) design.ID {
	for w := range d.Wires.All() {
		if !w.Bundle {
			return w.ID
		}
	}
	return 0
}

// An excuse holds while the finding looks as it did, through moves and undo, and lapses when
// what it was about changes.
func TestExcuses(t *testing.T) {
	d := design.New("excuses")
	sheet := d.SheetsInOrder()[0].ID
	b := workbench.Open(d, 0)
	do := func(c edit.Command) {
		t.Helper()
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	find := func(kind string) *check.Finding {
		for _, f := range b.Findings() {
			if f.Kind == kind {
				return f
			}
		}
		return nil
	}
	do(&edit.PlacePart{Sheet: sheet, Library: "Resistor", At: steps(0, 0)[0]})
	do(&edit.DrawWire{Sheet: sheet, Path: steps(2, 0, 6, 0)})
	do(&edit.PlaceLabel{Sheet: sheet, Name: "SPARE", At: steps(6, 0)[0]})
	f := find("singlePin")
	require.NotNil(t, f)
	_, err := b.Edit(&edit.Excuse{Key: f.Key, Fingerprint: f.Fingerprint, Text: f.Text, Reason: " "})
	assert.ErrorContains(t, err, "say why")
	do(&edit.Excuse{Key: f.Key, Fingerprint: f.Fingerprint, Text: f.Text, Reason: "for later"})
	assert.Equal(t, "for later", find("singlePin").Excused)
	part := only(d.Parts)
	do(&edit.MoveItems{IDs: []design.ID{part}, Step: steps(0, 3)[0]})
	assert.Equal(t, "for later", find("singlePin").Excused, "moving changes nothing about it")
	do(&edit.RenameNet{Net: "SPARE", To: "OTHER"})
	assert.Empty(t, find("singlePin").Excused)
	assert.Equal(t, "for later", find("singlePin").Lapsed)
	do(&edit.RenameNet{Net: "OTHER", To: "SPARE"})
	assert.Equal(t, "for later", find("singlePin").Excused, "it is as it was")
	assert.Equal(t, find("singlePin").Excused, func() string {
		for _, f := range workbench.Open(d.Snapshot(), 0).Findings() {
			if f.Kind == "singlePin" {
				return f.Excused
			}
		}
		return ""
	}(), "and so it is after opening anew")
}

// What is found on a sheet that stands in blocks is found in its first use, and says which that is.
func TestFindingsNameTheFirstUse(t *testing.T) {
	s := newSheet(t)
	d, top, do := s.d, s.sheet, s.do
	do(&edit.PlaceBlock{Sheet: top, Name: "Sluice", At: steps(0, 0)[0]})
	var block *design.SheetBlock
	for b := range d.Blocks.All() {
		block = b
	}
	do(&edit.PlaceBlock{Sheet: top, Of: block.Of, At: steps(40, 0)[0]}) // a second use
	do(&edit.DrawWire{Sheet: block.Of, Path: steps(0, 0, 5, 0)})
	do(&edit.DrawWire{Sheet: top, Path: steps(0, 60, 5, 60)})
	paths := map[design.ID]string{}
	for _, f := range circuit.Find(d).Findings(d) {
		if f.Kind == "looseEnd" {
			paths[f.Sheet] = f.Path
		}
	}
	assert.Equal(t, map[design.ID]string{block.Of: fmt.Sprint(block.ID), top: ""}, paths)
}

// A port that no pin stands for is found where it is drawn and at the block that lacks the pin,
// each time said from there.
func TestPortsWithoutPinsAreSaidOnBothSheets(t *testing.T) {
	s := newSheet(t)
	d, top := s.d, s.sheet
	s.do(&edit.PlaceBlock{Sheet: top, Name: "Sluice", At: steps(0, 0)[0]})
	inner := d.SheetsInOrder()[1].ID
	s.do(&edit.PlacePort{Sheet: inner, Name: "LEVEL", Way: "in", At: steps(3, 3)[0]})
	texts := map[design.ID][]string{}
	for _, f := range circuit.Find(d).Findings(d) {
		if f.Kind == "portAlone" {
			texts[f.Sheet] = append(texts[f.Sheet], f.Text)
		}
	}
	assert.Equal(t, map[design.ID][]string{
		top:   {"The block Sluice lacks a pin for the port LEVEL."},
		inner: {"The port LEVEL has no pin on the block Sluice."},
	}, texts)
}
