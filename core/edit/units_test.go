package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/library"
	"goldentrace/core/parts"
)

func (k *desk) pinsOf(symbol string) (out []string) {
	k.Helper()
	s := k.d.Symbol(symbol)
	require.NotNil(k, s, symbol)
	for _, p := range s.Pins {
		out = append(out, p.Number)
	}
	return out
}

// A part of one symbol becomes one of three units, its pins go where they belong, and back again.
func TestUnitsOfAPart(t *testing.T) {
	k := newDesk(t)
	var pins []parts.Listed
	for _, n := range []string{"1", "2", "3", "5", "6", "7", "4", "8"} {
		pins = append(pins, parts.Listed{Number: n, Name: "P" + n, Type: "passive"})
	}
	k.do(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "Amp", Prefix: "U"}, Pins: pins, Layout: "order"})
	part := func() *design.LibraryPart { return k.d.LibraryPart("Amp") }
	placed := k.part("Amp", 10, 10)
	k.do(&edit.AddUnit{Part: part().ID})
	assert.Equal(t, []string{"Amp", "Amp B"}, part().Units)
	assert.Equal(t, 1, k.d.Parts[placed.ID].Unit, "what stands in the circuit is unit A now")
	k.do(&edit.AddUnit{Part: part().ID})
	assert.Equal(t, []string{"Amp", "Amp B", "Amp C"}, part().Units)

	ref := func(symbol, number string) int {
		s, _, _ := k.d.Symbol(symbol).Named()
		return s.Pin(number).ID
	}
	k.do(&edit.MoveToUnit{Part: part().ID, From: k.d.Symbol("Amp").ID, Pins: []int{ref("Amp", "5"), ref("Amp", "6"), ref("Amp", "7")}, Unit: 2})
	k.do(&edit.MoveToUnit{Part: part().ID, From: k.d.Symbol("Amp").ID, Pins: []int{ref("Amp", "4"), ref("Amp", "8")}, Unit: 3})
	assert.ElementsMatch(t, []string{"1", "2", "3"}, k.pinsOf("Amp"))
	assert.ElementsMatch(t, []string{"5", "6", "7"}, k.pinsOf("Amp B"))
	assert.ElementsMatch(t, []string{"4", "8"}, k.pinsOf("Amp C"))
	assert.Equal(t, "P8", k.d.Symbol("Amp C").Pin("8").Name)
	rows, found := parts.Mapping(part(), "", k.d)
	assert.Len(t, rows, 8)
	assert.Empty(t, found)

	k.refuse(&edit.MoveToUnit{Part: part().ID, From: k.d.Symbol("Amp B").ID, Pins: []int{ref("Amp B", "5")}, Unit: 2}, "of that unit already")
	k.refuse(&edit.MoveToUnit{Part: part().ID, From: k.d.Symbol("Amp B").ID, Pins: []int{ref("Amp B", "5")}, Unit: 4}, "has no unit 4")
	k.refuse(&edit.MoveToUnit{Part: part().ID, From: k.d.Symbol("Amp B").ID, Pins: []int{99}, Unit: 1}, "no pins are named")
	k.refuse(&edit.RemoveUnit{Part: part().ID, Unit: 1}, "stands in the circuit")
	k.refuse(&edit.RemoveUnit{Part: part().ID, Unit: 9}, "has no unit 9")
	k.do(&edit.RemoveUnit{Part: part().ID, Unit: 2})
	assert.Equal(t, []string{"Amp", "Amp C"}, part().Units)
	assert.Nil(t, k.d.Symbol("Amp B"), "its symbol goes with it")
	k.do(&edit.RemoveUnit{Part: part().ID, Unit: 2})
	assert.Empty(t, part().Units)
	assert.Equal(t, "Amp", part().Symbol)
	assert.Zero(t, k.d.Parts[placed.ID].Unit, "a part of one unit is whole")
	for range 25 {
		k.do(&edit.AddUnit{Part: part().ID})
	}
	k.refuse(&edit.AddUnit{Part: part().ID}, "26 units; no part has more")
}

// Units after one that is taken away move up, in the circuit too.
func TestUnitsMoveUp(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "Gate", Prefix: "U"}, Pins: []parts.Listed{{Number: "1", Type: "passive"}}, Layout: "order"})
	id := k.d.LibraryPart("Gate").ID
	k.do(&edit.AddUnit{Part: id})
	k.do(&edit.AddUnit{Part: id})
	p := k.part("Gate", 10, 10)
	c := *k.d.Parts[p.ID]
	c.Unit = 3
	k.d.Put(&c)
	k.do(&edit.RemoveUnit{Part: id, Unit: 2})
	assert.Equal(t, 2, k.d.Parts[p.ID].Unit)
	assert.Equal(t, "Gate C", k.d.SymbolOf(k.d.Parts[p.ID]).Name)
}

// A part taken from the library can be released as it is in the project: with the densities that were chosen, and without those that never came.
func TestReleaseOfATakenPart(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.TakeParts{Names: []string{"Resistor 0402"}})
	p := k.d.LibraryPart("Resistor 0402")
	require.Len(t, p.Densities, 3)
	r, err := library.ReleaseOf(k.d, p)
	require.NoError(t, err)
	assert.Equal(t, map[string]string{"nominal": p.Footprint}, r.Part.Densities)
	assert.Len(t, p.Densities, 3, "the project's part stays as it is")
	q := *p
	q.Footprint = p.Densities["most"]
	k.do(&edit.PutLibraryPart{Part: q})
	r, err = library.ReleaseOf(k.d, k.d.LibraryPart("Resistor 0402"))
	require.NoError(t, err)
	assert.Len(t, r.Footprints, 3, "they came with the choice")
	assert.Len(t, r.Part.Densities, 3)
}

func TestATableOfParts(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.TakePartTable{Text: "Name,Like,Value,Footprint,Part number\nTen k,Resistor 0603,10k,,QF-10\nBig ten k,Resistor 0603,10k,0805,QF-11\n"})
	p := k.d.LibraryPart("Big ten k")
	require.NotNil(t, p)
	assert.Equal(t, "0805", p.Footprint)
	assert.NotNil(t, k.d.Footprint("0805"), "what it needs comes with it")
	assert.NotNil(t, k.d.Symbol(p.Symbol))
	assert.Equal(t, "QF-11", p.Order["part number"])
	assert.Empty(t, p.Origin)
	k.do(&edit.TakePartTable{Text: "Name,Value\nTen k,12k\nBig ten k,10k\n"})
	assert.Equal(t, "12k", k.d.LibraryPart("Ten k").Value)
	assert.Equal(t, "QF-10", k.d.LibraryPart("Ten k").Order["part number"])
	k.refuse(&edit.TakePartTable{Text: "Name,Value\nTen k,12k\n"}, "would change nothing")
	k.refuse(&edit.TakePartTable{Text: "Name,Like\nX,Resistor 0603\nY,None\n"}, "There is no part called “None”")
	assert.Nil(t, k.d.LibraryPart("X"), "all or nothing")
	k.refuse(&edit.TakePartTable{Text: "a,b\n1,2\n"}, "names no parts")
}
