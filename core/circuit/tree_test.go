package circuit_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// stacked puts each sheet so many times on the one before it.
func stacked(levels, times int) *design.Doc {
	d := design.New("stacked")
	above := d.SheetsInOrder()[0].ID
	for i := range levels {
		s := &design.Sheet{ID: d.NewID(), Name: fmt.Sprint("S", i), Size: "A4", Order: i + 2}
		d.Put(s)
		for k := range times {
			d.Put(&design.SheetBlock{ID: d.NewID(), Sheet: above, Of: s.ID, Name: fmt.Sprintf("B%d.%d", i, k), At: geom.Pt(int64(k)*50_000_000, 0), Size: geom.Pt(20_000_000, 20_000_000)})
		}
		above = s.ID
	}
	return d
}

// Sheets within sheets are followed 50 deep and no deeper, and up to the most uses in all.
func TestHowFarSheetsAreFollowed(t *testing.T) {
	uses := func(levels, times int) []circuit.SheetUse { return circuit.Find(stacked(levels, times)).Tree.Uses }
	assert.Len(t, uses(3, 1), 4)
	assert.Len(t, uses(3, 2), 1+2+4+8)
	for i, u := range uses(3, 1) {
		assert.Equal(t, i, u.Depth)
	}
	deep := uses(60, 1)
	assert.Len(t, deep, 51, "the first, and 50 below it")
	assert.Equal(t, 50, deep[50].Depth)
	assert.Len(t, uses(13, 2), circuit.MostUses, "of 16,383 uses as many as there may be")
}

// Uses come in the order of their sheets, and among those of one sheet as they were placed; each
// has a label of its own.
func TestOrderOfUses(t *testing.T) {
	d := stacked(2, 2)
	n := circuit.Find(d)
	var labels []string
	for _, u := range n.Tree.Uses {
		labels = append(labels, u.Label)
		assert.Equal(t, u.Label, n.Tree.LabelOf(u.Path, u.Sheet))
	}
	assert.Len(t, labels, 7)
	seen := map[string]bool{}
	for _, l := range labels {
		assert.False(t, seen[l], "%s names one use", l)
		seen[l] = true
	}
	assert.Empty(t, n.Tree.LabelOf("9/9", d.SheetsInOrder()[0].ID))
	// a sheet that comes later in the order comes later among the uses, wherever its block was placed
	late, early := &design.Sheet{ID: d.NewID(), Name: "Late", Size: "A4", Order: 50}, &design.Sheet{ID: d.NewID(), Name: "Early", Size: "A4", Order: 40}
	d.Put(late)
	d.Put(early)
	top := d.SheetsInOrder()[0].ID
	for _, s := range []*design.Sheet{late, early} {
		d.Put(&design.SheetBlock{ID: d.NewID(), Sheet: top, Of: s.ID, Name: s.Name, Size: geom.Pt(20_000_000, 20_000_000)})
	}
	labels = nil
	for _, u := range circuit.Find(d).Tree.Uses {
		labels = append(labels, u.Label)
	}
	assert.Equal(t, []string{"Early", "Late"}, labels[len(labels)-2:])
}
