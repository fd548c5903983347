package design_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
)

func TestMembers(t *testing.T) {
	for name, want := range map[string]string{
		"SENSE": "SENSE", "D[3:0]": "D3 D2 D1 D0", "A[0:2]": "A0 A1 A2", "SCL, SDA": "SCL SDA", "D[1:0],CLK , /CS": "D1 D0 CLK /CS",
		"水位[1:0]": "水位1 水位0", "D[7]": "D[7]", "R1.2": "R1.2",
	} {
		got, err := design.Members(name)
		require.NoError(t, err, name)
		assert.Equal(t, want, strings.Join(got, " "), name)
	}
}

func TestMembersThatCannotBe(t *testing.T) {
	for name, why := range map[string]string{
		"D[3:0], D2":         "the bundle D[3:0], D2 holds D2 twice",
		"A, A":               "holds A twice",
		"A,,B":               "has an empty member",
		"[3:0]":              "a range without a name before it",
		"D[0:4000]":          "more than 1024 members",
		"D[0:100], E[0:999]": "more than 1024 members",
	} {
		_, err := design.Members(name)
		assert.ErrorContains(t, err, why, name)
	}
	assert.ErrorContains(t, (&design.Supply{Name: "V[1:0]", Shape: "bar"}).Valid(), "a supply has one name")
	assert.ErrorContains(t, (&design.Tap{Member: "A, B"}).Valid(), "a tap leads out one net")
}

// A sheet within itself does not come in from a file.
func TestFileWithSheetsInACircle(t *testing.T) {
	d := design.New("circle")
	a := d.SheetsInOrder()[0].ID
	b := &design.Sheet{ID: d.NewID(), Name: "B", Order: 2, Size: "A4"}
	d.Put(b)
	block := func(on, of design.ID, name string) {
		d.Put(&design.SheetBlock{ID: d.NewID(), Sheet: on, Of: of, Name: name, Size: design.SheetSizes["A4"]})
	}
	block(a, b.ID, "down")
	require.NoError(t, d.Whole())
	block(b.ID, a, "up")
	var file strings.Builder
	require.NoError(t, design.WriteFile(&file, "circle", d))
	_, _, err := design.ReadFile(strings.NewReader(file.String()))
	assert.ErrorContains(t, err, "stand within itself")
}
