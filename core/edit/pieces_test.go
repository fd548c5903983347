package edit_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

// ends lists the wires of the sheet as places in steps of the grid, lower end first.
func (k *desk) ends() (out [][4]int64) {
	for w := range k.d.Wires.All() {
		a, b := w.A, w.B
		if b.X < a.X || b.X == a.X && b.Y < a.Y {
			a, b = b, a
		}
		out = append(out, [4]int64{a.X / 2_500_000, a.Y / 2_500_000, b.X / 2_500_000, b.Y / 2_500_000})
	}
	return out
}

// A wire that is drawn through several places is there with all its pieces.
func TestAWireThroughSeveralPlaces(t *testing.T) {
	k := newDesk(t)
	k.wire(0, 0, 4, 0, 4, 5, 9, 5)
	assert.ElementsMatch(t, [][4]int64{{0, 0, 4, 0}, {4, 0, 4, 5}, {4, 5, 9, 5}}, k.ends())
	k.refuse(&edit.DrawWire{Sheet: k.sheet, Path: []geom.Point{grid(0, 0)}}, "2 to 1000 places, not 1")
	k.refuse(&edit.DrawWire{Sheet: k.sheet, Path: make([]geom.Point, 1001)}, "not 1001")
}

// A sheet that keeps its place in the order is not changed.
func TestOnlySheetsThatChangePlacesAreTouched(t *testing.T) {
	k := newDesk(t)
	for range 3 {
		k.do(&edit.AddSheet{})
	}
	var ids []design.ID
	for _, s := range k.d.SheetsInOrder() {
		ids = append(ids, s.ID)
	}
	k.refuse(&edit.OrderSheets{Sheets: ids}, "would change nothing")
	cs := k.do(&edit.OrderSheets{Sheets: []design.ID{ids[0], ids[2], ids[1], ids[3]}})
	require.Len(t, cs, 2)
	for _, c := range cs {
		assert.Contains(t, ids[1:3], c.ID)
	}
	assert.Equal(t, 4, k.d.Sheets[ids[3]].Order)
	k.refuse(&edit.OrderSheets{Sheets: ids[:3]}, "names 3 of 4 sheets")
}

// A block has room for its pins two steps apart, and is never narrower than four steps.
func TestTheLeastSizeOfABlock(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.AddSheet{Name: "Below"})
	below := k.d.SheetsInOrder()[1].ID
	for i, name := range []string{"A", "B", "C", "D", "E"} {
		k.do(&edit.PlacePort{Sheet: below, Name: name, Way: "in", At: grid(0, int64(4*i))})
	}
	place := func(size geom.Point) geom.Point {
		name := fmt.Sprint("with ", size.X, " ", size.Y)
		k.do(&edit.PlaceBlock{Sheet: k.sheet, Of: below, Name: name, At: grid(int64(40*len(k.d.Blocks)), 0), Size: &size})
		return k.block(name).Size
	}
	assert.Equal(t, grid(4, 12), place(grid(1, 1)), "five pins and one step of two above and below")
	assert.Equal(t, grid(4, 12), place(grid(4, 12)))
	assert.Equal(t, grid(20, 30), place(grid(20, 30)))
}

// What is said of a net goes when nothing is left of it, and is not written anew when it says the same.
func TestWhatIsSaidOfANetIsKeptOnce(t *testing.T) {
	k := newDesk(t)
	k.wire(0, 0, 4, 0)
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "A", At: grid(0, 0)})
	first := k.do(&edit.SetNets{Nets: []string{"A"}, Class: ptr("power")})
	require.Len(t, first, 1)
	id := k.d.NetNamed("A").ID
	k.refuse(&edit.SetNets{Nets: []string{"A"}, Class: ptr("power")}, "would change nothing")
	k.do(&edit.SetNets{Nets: []string{"A"}, Current: ptr(int64(250_000))})
	assert.Equal(t, id, k.d.NetNamed("A").ID, "the same object says more")
	assert.Len(t, k.d.Nets, 1)
	k.do(&edit.SetNets{Nets: []string{"A"}, Class: ptr(""), Current: ptr(int64(0))})
	assert.Nil(t, k.d.NetNamed("A"))
}

// A part in the place of another takes its usual value when the old one had its usual value, and
// keeps one that somebody gave it.
func TestReplacedPartsKeepWhatSomebodySaid(t *testing.T) {
	k := newDesk(t)
	usual, own, none := k.part("Bus driver", 0, 0), k.part("Bus driver", 20, 0), k.part("Bus driver", 40, 0)
	k.do(&edit.SetPart{ID: own.ID, Value: ptr("BV999")})
	k.do(&edit.SetPart{ID: none.ID, Value: ptr("")})
	to := k.part("Memory", 60, 0)
	require.NotEqual(t, usual.Value, to.Value)
	k.do(&edit.ReplacePart{IDs: []design.ID{usual.ID, own.ID, none.ID}, Library: "Memory"})
	assert.Equal(t, []string{to.Value, "BV999", to.Value}, []string{k.d.Parts[usual.ID].Value, k.d.Parts[own.ID].Value, k.d.Parts[none.ID].Value})
	for _, p := range []*design.Part{usual, own, none} {
		assert.Equal(t, to.Footprint, k.d.Parts[p.ID].Footprint)
		assert.Equal(t, p.Designator, k.d.Parts[p.ID].Designator, "the same letter before its number")
	}
	k.do(&edit.ReplacePart{IDs: []design.ID{usual.ID}, Library: "Resistor"})
	assert.Equal(t, "R1", k.d.Parts[usual.ID].Designator, "another letter takes the first free number")
}

// Words in several texts are replaced in all of them.
func TestReplacingInSeveralTexts(t *testing.T) {
	k := newDesk(t)
	for i := range int64(3) {
		k.do(edit.Drawn(design.KindNote, &design.Note{Sheet: k.sheet, Text: "old weir", Width: 10_000_000, Size: 2_500_000, Tint: "none", At: grid(0, 10*i)}))
	}
	c := &edit.ReplaceText{With: "new"}
	c.Text = "old"
	k.do(c)
	for n := range k.d.Notes.All() {
		assert.Equal(t, "new weir", n.Text)
	}
}
