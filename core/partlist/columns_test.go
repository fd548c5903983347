package partlist_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/partlist"
)

// two is a circuit of R1 and R2 with fields of their own.
func two(t *testing.T) (*design.Doc, *circuit.Tree) {
	t.Helper()
	d := design.New("Two")
	sheet := d.SheetsInOrder()[0]
	d.Put(&design.LibraryPart{ID: 20, Name: "Resistor"})
	d.Put(&design.Part{ID: 31, Sheet: sheet.ID, Designator: "R1", Value: "1k", Library: "Resistor", Fields: map[string]string{"Row 10": "x", "Row 9": "y"}})
	d.Put(&design.Part{ID: 32, Sheet: sheet.ID, Designator: "R2", Value: "2, or 3", Library: "Resistor", Footprint: "0603", NotFitted: true})
	return d, circuit.TreeOf(d)
}

// RFC 4180: lines end in CR LF, a cell with a comma stands in quotes.
func TestATableByHand(t *testing.T) {
	d, tree := two(t)
	name := d.SheetsInOrder()[0].Name
	assert.Equal(t, []string{"Row 9", "Row 10"}, partlist.OwnFields(d))
	assert.Equal(t, "Designator,Value,Footprint,Fitted,Library part,Sheet,Row 9,Row 10\r\n"+
		"R1,1k,,yes,Resistor,"+name+",y,x\r\n"+
		"R2,\"2, or 3\",0603,no,Resistor,"+name+",,\r\n", string(partlist.Write(d, tree)))
}

func TestEachChangeSaysItsCellAndWhatWasThere(t *testing.T) {
	d, tree := two(t)
	for _, sep := range []string{",", ";", "\t"} {
		table := strings.ReplaceAll("Row 9|Sheet|designator|FITTED|footprint\n z |elsewhere|R1|yes|0805\n|any| R2 |yes|0603\n||\n|q|\n", "|", sep)
		p, err := partlist.Read(t.Context(), d, tree, []byte(table))
		require.NoError(t, err)
		var got [][4]string
		for _, c := range p.Changes {
			got = append(got, [4]string{c.Designator, c.Field, c.Old, c.Text})
		}
		assert.Equal(t, [][4]string{{"R1", "Row 9", "y", "z"}, {"R1", "footprint", "", "0805"}, {"R2", "fitted", "no", "yes"}}, got)
		assert.Equal(t, design.ID(31), p.Changes[0].ID)
		assert.Equal(t, []string{"Line 5 names no part."}, p.Problems, "an empty line is nothing to speak of")
	}
	// The first line has commas and semicolons alike: commas part.
	p, err := partlist.Read(t.Context(), d, tree, []byte("Designator,a;b\nR1,1\n"))
	require.NoError(t, err)
	assert.Equal(t, "a;b", p.Changes[0].Field)
}

func TestTablesThatAreTooLarge(t *testing.T) {
	d, tree := two(t)
	_, err := partlist.Read(t.Context(), d, tree, make([]byte, partlist.LargestTable+1))
	require.ErrorContains(t, err, "larger than 16 MB")
	_, err = partlist.Read(t.Context(), d, tree, append([]byte("Designator,Value\nR1,"), []byte(strings.Repeat("x", partlist.LargestTable-20))...))
	require.NoError(t, err)
	p, err := partlist.Read(t.Context(), d, tree, []byte("Value,Designator\n9\n8,R1\n"))
	require.NoError(t, err)
	assert.Equal(t, []string{"Line 2 names no part."}, p.Problems)
	assert.Len(t, p.Changes, 1)
}
