package partlist_test

import (
	"encoding/csv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/partlist"
	"goldentrace/demo"
)

func gauge(t *testing.T) (*design.Doc, *circuit.Tree) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	return d, circuit.TreeOf(d)
}

func TestTableOut(t *testing.T) {
	d, tree := gauge(t)
	rows, err := csv.NewReader(strings.NewReader(string(partlist.Write(d, tree)))).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"Designator", "Value", "Footprint", "Fitted", "Library part", "Sheet", "datasheet", "maker", "order number", "part number"}, rows[0])
	assert.Len(t, rows, 1+len(circuit.Packages(d, tree)))
	of := map[string][]string{}
	for _, r := range rows[1:] {
		of[r[0]] = r
	}
	assert.Equal(t, []string{"R13", "120", "1206", "yes", "Resistor 1206", "Field bus"}, of["R13"][:6])
	assert.Equal(t, "QF-R1206-120R-F", of["R13"][9])
	units := 0
	for _, r := range rows {
		if r[4] == "Dual amplifier, units" {
			units++
		}
	}
	assert.Equal(t, 4, units, "one line for a package, whatever its units, in each use of the sheet")
}

// What goes out comes in unchanged, whatever the separator; a change is told, and taken as
// one step.
func TestTableIn(t *testing.T) {
	d, tree := gauge(t)
	out := string(partlist.Write(d, tree))
	for _, table := range []string{out, "\xef\xbb\xbf" + out} {
		p, err := partlist.Read(t.Context(), d, tree, []byte(table))
		require.NoError(t, err)
		assert.Empty(t, p.Changes)
		assert.Empty(t, p.Problems)
	}
	p, err := partlist.Read(t.Context(), d, tree, []byte("value;DESIGNATOR;Maker;Fitted\n\"150; 1 %\";R13;Sennick;no\n1k;R999;;\n;;;\n9;R13;;\nx;;;\n"))
	require.NoError(t, err)
	require.Len(t, p.Changes, 3)
	assert.Equal(t, []string{"Line 3: there is no part called R999 in the circuit.", "Line 5: R13 stands in the table twice; the first line counts.", "Line 6 names no part."}, p.Problems)
	var cells []edit.Cell
	for _, c := range p.Changes {
		assert.Equal(t, "R13", c.Designator)
		cells = append(cells, c.Cell)
	}
	_, err = edit.Apply(d, edit.Env{}, &edit.SetParts{Cells: cells})
	require.NoError(t, err)
	r := d.Bearers("R13")[0]
	assert.Equal(t, "150; 1 %", r.Value)
	assert.Equal(t, "Sennick", r.Fields["Maker"])
	assert.True(t, r.NotFitted)
	p, err = partlist.Read(t.Context(), d, tree, partlist.Write(d, tree))
	require.NoError(t, err)
	assert.Empty(t, p.Changes)
}

func TestTablesThatCannotBe(t *testing.T) {
	d, tree := gauge(t)
	for table, why := range map[string]string{
		"":                                 "the table is empty",
		"Value,Sheet\n1k,Power":            "has no column called Designator",
		"Designator,Value,Value\nR1,1k,2k": "two columns called Value",
	} {
		_, err := partlist.Read(t.Context(), d, tree, []byte(table))
		assert.ErrorContains(t, err, why)
	}
}
