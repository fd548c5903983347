package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

// What was done is recounted by what it is called and where it stands; many are counted, and what is gone is named, but not gone to.
func TestStepsAreRecounted(t *testing.T) {
	k := newDesk(t)
	one := edit.ChangeSet{{Kind: design.KindNote, ID: 70, After: &design.Note{ID: 70, Sheet: k.sheet, At: geom.Pt(0, 0)}}}
	r := edit.RecountOf(k.d, one)
	assert.Equal(t, "sheet Sheet 1", r.Where)
	assert.Equal(t, "circuit", r.Stage)
	assert.Equal(t, design.ID(70), r.ID)
	gone := edit.RecountOf(k.d, one.Inverted())
	assert.Equal(t, r.What, gone.What)
	assert.Zero(t, gone.ID)
	assert.Empty(t, gone.Stage)

	var many edit.ChangeSet
	for i, name := range []string{"R1", "R2", "C1", "C2", "U1"} {
		p := &design.Placed{ID: design.ID(80 + i), Designator: name}
		many = append(many, edit.Change{Kind: design.KindPlaced, ID: p.ID, Before: p, After: p})
	}
	r = edit.RecountOf(k.d, many)
	assert.Equal(t, []any{"R1, R2, C1 and 2 more", "the board", "board", design.ID(80)}, []any{r.What, r.Where, r.Stage, r.ID})
	assert.Equal(t, "R1, R2, C1 and C2", edit.RecountOf(k.d, many[:4]).What, "one more is named")
	assert.Equal(t, "R1 and R2", edit.RecountOf(k.d, many[:2]).What)
}
