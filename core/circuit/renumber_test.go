package circuit_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// scattered puts parts with their designators at places in steps.
func scattered(at map[string][2]int64) *design.Doc {
	d := design.New("scattered")
	id := design.ID(100)
	d.Put(&design.LibraryPart{ID: 99, Name: "Resistor"})
	for name, p := range at {
		id++
		d.Put(&design.Part{ID: id, Sheet: d.SheetsInOrder()[0].ID, Library: "Resistor", Designator: name, At: steps(p[0], p[1])[0]})
	}
	return d
}

func renumbered(t *testing.T, d *design.Doc, by circuit.Numbering) string {
	t.Helper()
	list, err := circuit.Renumber(d, circuit.TreeOf(d), by)
	require.NoError(t, err)
	var out []string
	for _, r := range list {
		out = append(out, fmt.Sprintf("%s→%s", r.Old, r.New))
	}
	return strings.Join(out, " ")
}

// A row is 7.5 mm, three steps: what differs by less in height stands in one.
func TestNumbersByRowsAndColumns(t *testing.T) {
	d := scattered(map[string][2]int64{"R1": {30, 10}, "R2": {10, 11}, "R3": {20, 40}, "C7": {0, 40}, "R4": {10, 40}})
	assert.Equal(t, "C7→C1 R4→R1 R3→R2 R2→R3 R1→R4", renumbered(t, d, circuit.Numbering{Way: "rows"}))
	assert.Equal(t, "C7→C1 R4→R1 R1→R4", renumbered(t, d, circuit.Numbering{Way: "columns"}), "R2 stays R2, R3 R3")
	assert.Equal(t, "C7→C11 R4→R11 R3→R12 R2→R13 R1→R14", renumbered(t, d, circuit.Numbering{Way: "rows", From: 11}))
	assert.Equal(t, "C7→C1", renumbered(t, d, circuit.Numbering{Way: "rows", Prefixes: []string{"C"}}))
	assert.Empty(t, renumbered(t, d, circuit.Numbering{Way: "rows", Sheets: []design.ID{999}}))
	_, err := circuit.Renumber(d, circuit.TreeOf(d), circuit.Numbering{Way: "spiral"})
	require.ErrorContains(t, err, "not by \"spiral\"")
	for _, from := range []int{-1, 1_000_001} {
		_, err = circuit.Renumber(d, circuit.TreeOf(d), circuit.Numbering{Way: "rows", From: from})
		require.ErrorContains(t, err, "cannot begin")
	}
	assert.NotEmpty(t, renumbered(t, d, circuit.Numbering{Way: "rows", From: 1_000_000}))
}

// Numbers that parts on other sheets keep are skipped.
func TestNumbersThatAreKeptAreSkipped(t *testing.T) {
	d := scattered(map[string][2]int64{"R5": {0, 40}, "R6": {10, 40}, "R7": {20, 40}})
	d.Put(&design.Sheet{ID: 50, Name: "Other", Order: 2, Size: "A4"})
	d.Put(&design.Part{ID: 200, Sheet: 50, Library: "Resistor", Designator: "R2", At: steps(0, 0)[0]})
	assert.Equal(t, "R5→R1 R6→R3 R7→R4", renumbered(t, d, circuit.Numbering{Way: "rows", Sheets: []design.ID{d.SheetsInOrder()[0].ID}}))
	assert.Equal(t, "R5→R1 R6→R2 R7→R3 R2→R4", renumbered(t, d, circuit.Numbering{Way: "rows"}), "sheet by sheet")
}

func TestPairsOfNamesAndTypes(t *testing.T) {
	s := newSheet(t)
	for i, name := range []string{"A_P", "A_N", "B+", "B-", "C_P", "D_DP", "D_DM", "_P", "_N", "E-", "F_p", "F_n"} {
		s.wire(0, int64(4*i), 4, int64(4*i))
		s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: name, At: steps(0, int64(4*i))[0]})
	}
	assert.Equal(t, [][2]string{{"A_P", "A_N"}, {"B+", "B-"}, {"D_DP", "D_DM"}, {"F_p", "F_n"}}, circuit.Find(s.d).PairsByName())
	assert.Equal(t, "input|output", circuit.PairKey("output", "input"))
	assert.Equal(t, "input|output", circuit.PairKey("input", "output"))
	own := &design.Checks{Pairs: map[string]string{"output|output": "off"}}
	for _, c := range []struct {
		own        *design.Checks
		a, b, want string
	}{{nil, "output", "output", "fault"}, {own, "output", "output", "off"}, {own, "output", "supplyOut", "fault"}, {nil, "input", "input", "off"}, {nil, "notConnected", "input", "fault"}, {nil, "input", "notConnected", "fault"}} {
		assert.Equal(t, c.want, circuit.PairSeverity(c.own, c.a, c.b))
	}
}

// The oldest unit stands for the package; each use of the sheet has a package of its own.
func TestPackagesOfUnitsAndUses(t *testing.T) {
	d := scattered(nil)
	top := d.SheetsInOrder()[0].ID
	d.Put(&design.Sheet{ID: 50, Name: "Probe", Order: 2, Size: "A4"})
	for i, name := range []string{"Probe", "Probe 2"} {
		d.Put(&design.SheetBlock{ID: design.ID(60 + i), Sheet: top, Of: 50, Name: name, At: steps(int64(30*i), 0)[0], Size: steps(16, 6)[0]})
	}
	d.Put(&design.LibraryPart{ID: 98, Name: "Dual", Units: []string{"a", "b"}})
	for i := range 2 {
		d.Put(&design.Part{ID: design.ID(70 + i), Sheet: 50, Library: "Dual", Unit: i + 1, Designator: "U1", Others: map[string]string{"61": "U2"}})
	}
	d.Put(&design.Part{ID: 80, Sheet: top, Library: "Resistor", Designator: "U1"})
	tree := circuit.TreeOf(d)
	var got []string
	for _, k := range circuit.Packages(d, tree) {
		got = append(got, fmt.Sprint(k.Designator, k.Units))
	}
	assert.Equal(t, []string{"U1[{70 60} {71 60}]", "U1[{80 }]", "U2[{70 61} {71 61}]"}, got)
	k, ok := circuit.PackageOf(d, tree, circuit.PartRef{Part: 71, Path: "61"})
	assert.True(t, ok)
	assert.Equal(t, circuit.PartRef{Part: 70, Path: "61"}, k.Lead())
	for _, ref := range []circuit.PartRef{{Part: 71, Path: "62"}, {Part: 71}, {Part: 999, Path: "60"}} {
		_, ok = circuit.PackageOf(d, tree, ref)
		assert.False(t, ok)
	}
	assert.Equal(t, "Probe 2", tree.LabelOf("61", 50))
	assert.Empty(t, tree.LabelOf("62", 50))
}

func TestDesignatorsThatDifferByCaseAlone(t *testing.T) {
	d := scattered(map[string][2]int64{"R1": {0, 0}, "r1": {10, 0}, "R2": {20, 0}})
	var got []string
	for _, f := range circuit.Find(d).Findings(d) {
		if f.Kind == "caseDesignators" {
			got = append(got, f.Text)
			assert.Len(t, f.Objects, 2)
			assert.Equal(t, d.SheetsInOrder()[0].ID, f.Sheet)
		}
	}
	assert.Equal(t, []string{"The designators R1 and r1 differ by case alone."}, got)
}
