package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

func (k *desk) sheets() (names []string) {
	for _, s := range k.d.SheetsInOrder() {
		names = append(names, s.Name)
	}
	return names
}

func TestSheetsAreNamedOrderedAndTakenAway(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.AddSheet{Name: "Sheet 2", Size: "A3"})
	k.do(&edit.AddSheet{})
	assert.Equal(t, []string{"Sheet 1", "Sheet 2", "Sheet 3"}, k.sheets())
	s := k.d.SheetsInOrder()
	assert.Equal(t, []string{"A4", "A3", "A3"}, []string{s[0].Size, s[1].Size, s[2].Size}, "as large as the last one")
	k.do(&edit.OrderSheets{Sheets: []design.ID{s[2].ID, s[0].ID, s[1].ID}})
	assert.Equal(t, []string{"Sheet 3", "Sheet 1", "Sheet 2"}, k.sheets())
	k.refuse(&edit.OrderSheets{Sheets: []design.ID{s[2].ID, s[0].ID, s[0].ID}}, "the sheet Sheet 1 is named twice")
	k.refuse(&edit.OrderSheets{Sheets: []design.ID{s[2].ID, s[0].ID}}, "the order names 2 of 3 sheets")
	k.do(&edit.SetSheet{Sheet: s[0].ID, Name: ptr(" Power "), Size: ptr("A2"), Fields: map[string]string{"author": "R. Ash", "date": " "}})
	k.refuse(&edit.SetSheet{Sheet: s[1].ID, Name: ptr("Power")}, "already a sheet called Power")
	assert.Equal(t, map[string]string{"author": "R. Ash"}, k.d.Sheets[s[0].ID].Fields)
	k.do(&edit.SetSheet{Sheet: s[0].ID, Fields: map[string]string{"number": "7", "author": ""}})
	assert.Equal(t, map[string]string{"number": "7"}, k.d.Sheets[s[0].ID].Fields, "an empty entry goes back to the project's")
	k.do(&edit.SetSheet{Sheet: s[0].ID, Fields: map[string]string{"number": ""}})
	assert.Nil(t, k.d.Sheets[s[0].ID].Fields)
	k.refuse(&edit.SetSheet{Sheet: s[0].ID, Name: ptr("Power"), Size: ptr("A2")}, "would change nothing")
	k.part("Resistor", 0, 0)
	k.do(&edit.RemoveSheet{Sheet: k.sheet})
	assert.Equal(t, []string{"Sheet 3", "Sheet 2"}, k.sheets())
	assert.Empty(t, k.d.Parts, "what stood on it is gone too")
	k.do(&edit.RemoveSheet{Sheet: s[1].ID})
	k.refuse(&edit.RemoveSheet{Sheet: s[2].ID}, "a project keeps at least one sheet")
}

// A sheet that goes with a block on it takes the designators of that use along.
func TestARemovedSheetFreesDesignatorsBelowIt(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.AddSheet{Name: "Probe"})
	k.do(&edit.AddSheet{Name: "More"})
	probe, more := k.d.SheetsInOrder()[1].ID, k.d.SheetsInOrder()[2].ID
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Of: probe, At: grid(0, 0)})
	k.do(&edit.PlaceBlock{Sheet: more, Of: probe, At: grid(0, 0)})
	top := k.sheet
	k.sheet = probe
	k.part("Resistor", 0, 0)
	k.sheet = top
	assert.Equal(t, []string{"R1", "R2"}, k.names())
	k.do(&edit.RemoveSheet{Sheet: more})
	assert.Equal(t, []string{"R1"}, k.names())
}

func TestTheTitleBlocksEntries(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.SetSettings{Title: ptr("Weir"), Number: ptr("7"), Revision: ptr("C"), Author: ptr("R. Ash"), Date: ptr("2026-03-04"), Unit: ptr("mil")})
	s := *k.d.Settings
	assert.Equal(t, []string{"Weir", "7", "C", "R. Ash", "2026-03-04", "mil"}, []string{s.Title, s.Number, s.Revision, s.Author, s.Date, s.Unit})
	k.do(&edit.SetSettings{Revision: ptr("D")})
	assert.Equal(t, []string{"Weir", "D"}, []string{k.d.Settings.Title, k.d.Settings.Revision}, "what is not said stays")
	k.refuse(&edit.SetSettings{Revision: ptr("D")}, "would change nothing")
}

func TestSeveritiesAndExcuses(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.SetChecks{Kinds: map[string]string{"pinFree": "off"}, Pairs: map[string]string{"output|input": "warning"}})
	assert.Equal(t, map[string]string{"pinFree": "off"}, k.d.Checks.Kinds)
	assert.Equal(t, map[string]string{"input|output": "warning"}, k.d.Checks.Pairs, "a pair is the same either way round")
	k.do(&edit.SetChecks{Kinds: map[string]string{"pinFree": ""}, Pairs: map[string]string{"input|output": ""}})
	assert.Empty(t, k.d.Checks.Kinds)
	assert.Empty(t, k.d.Checks.Pairs)
	k.refuse(&edit.SetChecks{Pairs: map[string]string{"input": "warning"}}, "is not a pair of pin types")

	k.refuse(&edit.Excuse{Key: "k", Reason: "  "}, "say why")
	k.do(&edit.Excuse{Key: "k", Fingerprint: "f", Text: "R1 is far", Reason: " meant "})
	e := *k.d.ExcuseOf("k")
	assert.Equal(t, []string{"f", "R1 is far", "meant"}, []string{e.Fingerprint, e.Text, e.Reason})
	k.do(&edit.Excuse{Key: "k", Fingerprint: "g", Text: "R1 is far", Reason: "still"})
	assert.Equal(t, e.ID, k.d.ExcuseOf("k").ID)
	assert.Len(t, k.d.Excuses, 1)
	k.do(&edit.Excuse{Key: "k"})
	assert.Empty(t, k.d.Excuses)
}
