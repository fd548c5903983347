package workbench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

// What is found in the parts of a circuit comes and goes with them, and with what they are drawn with.
func TestFindingsOfParts(t *testing.T) {
	b := workbench.Open(design.New("parts"), 0)
	do := func(c edit.Command) {
		t.Helper()
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	found := func() map[string]check.Severity {
		b.Settle()
		out := map[string]check.Severity{}
		for _, f := range b.Findings() {
			if f.Stage == "parts" && f.Kind != "unordered" {
				out[f.Text] = f.Severity
			}
		}
		fresh := map[string]check.Severity{}
		for _, f := range workbench.Open(b.Doc.Snapshot(), 0).Findings() {
			if f.Stage == "parts" && f.Kind != "unordered" {
				fresh[f.Text] = f.Severity
			}
		}
		require.Equal(t, fresh, out, "as found from scratch")
		return out
	}
	sheet := b.Doc.SheetsInOrder()[0].ID
	do(&edit.TakeParts{Names: []string{"Memory", "Clock"}})
	assert.Empty(t, found(), "parts that are not used say nothing")
	assert.Equal(t, "none", b.Stages().Library)
	do(&edit.PlacePart{Sheet: sheet, Library: "Memory", At: geom.Pt(0, 0)})
	unchecked := "The part Memory has not been checked against a datasheet."
	assert.Equal(t, map[string]check.Severity{unchecked: check.Note}, found())
	assert.Equal(t, "done", b.Stages().Library, "a note stands in nobody's way")
	for _, f := range b.OpenFindings() {
		assert.NotEqual(t, unchecked, f.Text)
	}
	l := b.Doc.LibraryPart("Memory")
	do(&edit.SetChecked{Parts: []design.ID{l.ID}, By: "Alder", On: "2026-11-26"})
	assert.Empty(t, found())

	f := b.Doc.Footprint("SOIC-8")
	pad := f.Pads[0]
	pad.ID, pad.Number = 1, "9"
	do(&edit.FootprintPieces{Footprint: f.ID, Pads: []design.Pad{pad}})
	assert.Equal(t, map[string]check.Severity{
		"Memory: Pin 1 (A0) goes to pad 1, which SOIC-8 does not have.":              check.Fault,
		"The part Memory was checked by Alder on 2026-11-26, and has changed since.": check.Note,
	}, found())
	assert.Equal(t, "work", b.Stages().Library)
	q := *b.Doc.LibraryPart("Memory")
	q.PadOf = map[string]string{"1": "9"}
	do(&edit.PutLibraryPart{Part: q})
	assert.Len(t, found(), 1, "the table sends it to the pad")
	other := f.Pads[1]
	other.ID, other.At = 2, pad.At.Add(geom.Pt(units.MM/10, 0))
	do(&edit.FootprintPieces{Footprint: f.ID, Pads: []design.Pad{other}})
	assert.Contains(t, found(), "The footprint SOIC-8: Pad 9 and pad 2 overlap.")

	part := b.Doc.Bearers("U1")[0]
	do(&edit.SetParts{Cells: []edit.Cell{{ID: part.ID, Field: "footprint", Text: ""}}})
	assert.NotContains(t, found(), "The footprint SOIC-8: Pad 9 and pad 2 overlap.")
	assert.Equal(t, "work", b.Stages().Library, "a part lacks its footprint")
	do(&edit.Remove{IDs: []design.ID{part.ID}})
	assert.Empty(t, found())
}
