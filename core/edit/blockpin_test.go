package edit_test

import (
	"fmt"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

// filter is a desk with a sheet Filter, ports IN, OUT1, OUT2 and OUT10 on it, and a block for it of
// 16 × 10 grid steps at the origin.
func filter(t *testing.T) (*desk, *design.SheetBlock) {
	k := newDesk(t)
	k.do(&edit.AddSheet{Name: "Filter"})
	of := k.d.SheetsInOrder()[1].ID
	k.do(&edit.PlacePort{Sheet: of, Name: "IN", Way: "in", At: grid(4, 40), Turn: 2})
	for i, name := range []string{"OUT1", "OUT2", "OUT10"} {
		k.do(&edit.PlacePort{Sheet: of, Name: name, Way: "out", At: grid(40, int64(40-2*i))})
	}
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Of: of, At: grid(0, 0)})
	return k, k.block("Filter")
}

func (k *desk) block(name string) *design.SheetBlock {
	for b := range k.d.Blocks.All() {
		if b.Name == name {
			return b
		}
	}
	return nil
}

// pins writes a block's pins as name@side:steps.
func (k *desk) pins(block string) (out []string) {
	for _, p := range k.block(block).Pins {
		out = append(out, fmt.Sprintf("%s@%d:%d", p.Name, p.Side, p.Pos/2_500_000))
	}
	return out
}

func (k *desk) ports(sheet design.ID) (out []string) {
	for _, p := range circuit.Ports(k.d, sheet) {
		out = append(out, p.Name+" "+p.Way)
	}
	slices.Sort(out)
	return out
}

// What comes in stands on the left, all else on the right, two steps apart from the top down.
func TestABlockMirrorsItsSheetsPorts(t *testing.T) {
	k, b := filter(t)
	assert.Equal(t, grid(16, 8), b.Size, "room for three pins")
	assert.ElementsMatch(t, []string{"IN@2:6", "OUT1@0:6", "OUT2@0:4", "OUT10@0:2"}, k.pins("Filter"))
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Of: b.Of, Name: "Large", At: grid(40, 0), Size: ptr(grid(3, 20))})
	assert.Equal(t, grid(4, 20), k.block("Large").Size, "four steps wide at least")
	assert.Contains(t, k.pins("Large"), "IN@2:18")
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Name: " Empty ", At: grid(80, 0)})
	assert.Equal(t, grid(16, 6), k.block("Empty").Size)
	assert.Equal(t, "Empty", k.d.Sheets[k.block("Empty").Of].Name)
}

func TestPinsAreMovedAndWiresFollow(t *testing.T) {
	k, b := filter(t)
	k.part("Resistor", 30, 6)
	k.wire(16, 6, 28, 6)
	at := k.net("R1", "1")
	k.do(&edit.MovePin{Block: b.ID, Pin: "OUT1", Side: 1, Pos: 8 * g})
	assert.Contains(t, k.pins("Filter"), "OUT1@1:8")
	assert.Equal(t, at, k.net("R1", "1"))
	nets := circuit.Find(k.d)
	assert.NotEmpty(t, nets.At(k.sheet, grid(8, 8), false), "the wire ends at the pin's new place")
	assert.Equal(t, nets.At(k.sheet, grid(8, 8), false), nets.At(k.sheet, grid(28, 6), false))
	k.refuse(&edit.MovePin{Block: b.ID, Pin: "OUT2", Side: 1, Pos: 8 * g}, "the pin OUT1 stands there already")
	k.refuse(&edit.MovePin{Block: b.ID, Pin: "OUT3", Side: 1, Pos: 8 * g}, "the block Filter has no pin OUT3 any more")
	k.refuse(&edit.MovePin{Block: 999, Pin: "OUT3"}, "no such block")
	// To where it stands: nothing happens, and nobody stands in its way.
	k.do(&edit.MovePin{Block: b.ID, Pin: "OUT1", Side: 1, Pos: 8 * g})
	// On the same side at another place, and at the same place of another side.
	k.do(&edit.MovePin{Block: b.ID, Pin: "OUT2", Side: 1, Pos: 4 * g})
	k.do(&edit.MovePin{Block: b.ID, Pin: "IN", Side: 3, Pos: 4 * g})
	assert.ElementsMatch(t, []string{"IN@3:4", "OUT1@1:8", "OUT2@1:4", "OUT10@0:2"}, k.pins("Filter"))
}

// Names with numbers are ordered by the numbers; each side keeps its places.
func TestPinsInTheOrderOfTheirNames(t *testing.T) {
	k, b := filter(t)
	k.do(&edit.SetBlock{ID: b.ID, Pins: []design.BlockPin{
		{Name: "OUT10", Way: "out", Side: 0, Pos: 6 * g}, {Name: "OUT2", Way: "out", Side: 0, Pos: 4 * g}, {Name: "OUT1", Way: "out", Side: 0, Pos: 2 * g},
		{Name: "IN", Way: "in", Side: 1, Pos: 2 * g}, {Name: "GATE", Way: "in", Side: 1, Pos: 10 * g},
	}})
	k.do(&edit.OrderPins{Block: b.ID})
	assert.ElementsMatch(t, []string{"OUT1@0:6", "OUT2@0:4", "OUT10@0:2", "GATE@1:2", "IN@1:10"}, k.pins("Filter"))
	k.refuse(&edit.OrderPins{Block: 999}, "no such block")
}

func TestAPinFromOutsideMakesItsPort(t *testing.T) {
	k, b := filter(t)
	k.do(&edit.AddPin{Block: b.ID, Name: " TRIM ", Way: "in", Side: 3, Pos: 4 * g})
	assert.Contains(t, k.pins("Filter"), "TRIM@3:4")
	assert.Equal(t, []string{"IN in", "OUT1 out", "OUT10 out", "OUT2 out", "TRIM in"}, k.ports(b.Of))
	for p := range k.d.Ports.All() {
		if p.Name == "TRIM" {
			assert.Equal(t, []any{grid(4, 38), 2}, []any{p.At, p.Turn}, "below the last that comes in, open to the left")
		}
	}
	k.refuse(&edit.AddPin{Block: b.ID, Name: "X", Way: "in", Side: 3, Pos: 4 * g}, "the pin TRIM stands there already")
	k.refuse(&edit.AddPin{Block: b.ID, Name: "TRIM", Way: "in", Side: 3, Pos: 8 * g}, "")
	// A port that is there answers the pin; no second one is made.
	k.do(&edit.PlacePort{Sheet: b.Of, Name: "EN", Way: "in", At: grid(4, 10)})
	k.do(&edit.AddPin{Block: b.ID, Name: "EN", Way: "in", Side: 3, Pos: 8 * g})
	assert.Len(t, k.ports(b.Of), 6)
	// An output's port stands on the right.
	k.do(&edit.AddPin{Block: b.ID, Name: "OUT3", Way: "out", Side: 0, Pos: 1 * g})
	for p := range k.d.Ports.All() {
		if p.Name == "OUT3" {
			assert.Equal(t, 0, p.Turn)
			assert.Equal(t, grid(40, 0).X, p.At.X)
		}
	}
}

func TestAPinThatGoesTakesItsPortUnlessAnotherBlockHasIt(t *testing.T) {
	k, b := filter(t)
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Of: b.Of, At: grid(40, 0)})
	k.do(&edit.RemovePin{Block: b.ID, Pin: "IN"})
	assert.Equal(t, []string{"IN in", "OUT1 out", "OUT10 out", "OUT2 out"}, k.ports(b.Of), "the other block has it still")
	assert.ElementsMatch(t, []string{"OUT1@0:6", "OUT2@0:4", "OUT10@0:2"}, k.pins("Filter"))
	k.do(&edit.RemovePin{Block: k.block("Filter 2").ID, Pin: "IN"})
	assert.Equal(t, []string{"OUT1 out", "OUT10 out", "OUT2 out"}, k.ports(b.Of))
	k.refuse(&edit.RemovePin{Block: b.ID, Pin: "IN"}, "has no pin IN any more")
}

func TestAPinIsRenamedOnBothSidesOfItsBlock(t *testing.T) {
	k, b := filter(t)
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Of: b.Of, At: grid(40, 0)})
	k.do(&edit.RenamePin{Block: b.ID, Pin: "IN", To: " RAW "})
	assert.Contains(t, k.pins("Filter"), "RAW@2:6")
	assert.Contains(t, k.pins("Filter 2"), "RAW@2:6")
	assert.Contains(t, k.ports(b.Of), "RAW in")
	// Without a port the pins alone change.
	for p := range k.d.Ports.All() {
		if p.Name == "RAW" {
			k.do(&edit.Remove{IDs: []design.ID{p.ID}})
		}
	}
	k.do(&edit.RenamePin{Block: b.ID, Pin: "RAW", To: "IN"})
	assert.Contains(t, k.pins("Filter 2"), "IN@2:6")
	k.refuse(&edit.RenamePin{Block: b.ID, Pin: "RAW", To: "IN"}, "has no pin RAW any more")
}

// Members keep their place in the list: D[3:0] counts down, Q[0:3] up.
func TestABundleIsRenamedWhole(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.DrawWire{Sheet: k.sheet, Path: []geom.Point{grid(0, 0), grid(0, 20)}, Bundle: true})
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "D[3:0]", At: grid(0, 0), Turn: 3})
	members, err := design.Members("D[3:0]")
	require.NoError(t, err)
	k.do(&edit.PlaceTaps{Sheet: k.sheet, Members: members, At: grid(0, 18), Step: grid(0, -2), Wire: grid(4, 0)})
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "D2", At: grid(30, 30)})
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "OTHER", At: grid(30, 40)})
	for l := range k.d.Labels.All() {
		if l.Name == "D[3:0]" {
			k.do(&edit.SetName{ID: l.ID, Name: "Q[0:3]"})
			break
		}
	}
	var taps, labels []string
	for p := range k.d.Taps.All() {
		taps = append(taps, p.Member)
	}
	for l := range k.d.Labels.All() {
		labels = append(labels, l.Name)
	}
	assert.Equal(t, []string{"Q0", "Q1", "Q2", "Q3"}, taps)
	assert.Equal(t, []string{"Q[0:3]", "Q1", "OTHER"}, labels)
}

func TestFreePinsAreMarkedOpen(t *testing.T) {
	k := newDesk(t)
	r1, r2 := k.part("Resistor", 0, 0), k.part("Resistor", 20, 0)
	k.wire(2, 0, 18, 0)
	k.do(&edit.MarkOpen{IDs: []design.ID{r1.ID, r2.ID}})
	var at []geom.Point
	for m := range k.d.OpenMarks.All() {
		at = append(at, m.At)
	}
	assert.Equal(t, []geom.Point{grid(-2, 0), grid(22, 0)}, at)
	k.refuse(&edit.MarkOpen{IDs: []design.ID{r1.ID}}, "no pin of what was picked is free")
	k.refuse(&edit.MarkOpen{IDs: []design.ID{999}}, "no such part")
	k.refuse(&edit.PlaceOpenMark{Sheet: k.sheet, At: grid(-2, 0)}, "no-connect mark here already")
	k.do(&edit.PlaceOpenMark{Sheet: k.sheet, At: grid(50, 0)})
}

// Pins on the far sides stay there; those that no longer fit come along.
func TestABlockIsMadeSmaller(t *testing.T) {
	k, b := filter(t)
	k.do(&edit.MovePin{Block: b.ID, Pin: "OUT1", Side: 1, Pos: 14 * g})
	k.do(&edit.SetBlock{ID: b.ID, Size: ptr(grid(10, 5)), Name: ptr(" Low pass ")})
	assert.ElementsMatch(t, []string{"IN@2:5", "OUT1@1:10", "OUT2@0:4", "OUT10@0:2"}, k.pins("Low pass"))
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Of: b.Of, At: grid(40, 0)})
	k.refuse(&edit.SetBlock{ID: b.ID, Name: ptr("Filter")}, "already a block called Filter")
	k.do(&edit.SetBlock{ID: b.ID, At: ptr(grid(0, 20))})
	assert.Equal(t, grid(0, 20), k.block("Low pass").At)
}

func TestAPairThatDiffersIsMended(t *testing.T) {
	k, b := filter(t)
	k.do(&edit.PlacePort{Sheet: b.Of, Name: "EN", Way: "in", At: grid(4, 10)})
	k.do(&edit.MatchPort{Block: b.ID, Pin: "EN", How: "drop"})
	assert.NotContains(t, k.ports(b.Of), "EN in")
	pins := append(slices.Clone(k.block("Filter").Pins), design.BlockPin{Name: "ODD", Way: "in", Side: 3, Pos: 2 * g})
	pins[0].Way = "both"
	k.do(&edit.SetBlock{ID: b.ID, Pins: pins})
	k.do(&edit.MatchPort{Block: b.ID, Pin: "ODD", How: "drop"})
	assert.Len(t, k.pins("Filter"), 4)
	k.do(&edit.MatchPort{Block: b.ID, Pin: pins[0].Name, How: "way"})
	assert.NotEqual(t, "both", k.block("Filter").Pins[0].Way)
	k.refuse(&edit.MatchPort{Block: b.ID, Pin: "IN", How: "drop"}, "nothing to mend between Filter and IN")
}
