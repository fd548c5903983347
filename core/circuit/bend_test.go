package circuit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

// bend in steps, from one place to another.
func (s *sheetBench) bend(lead circuit.Lead, xy ...int64) (out []int64) {
	v := circuit.Find(s.d).Views[s.sheet]
	for _, p := range circuit.Bend(s.d, v, steps(xy[:2]...)[0], steps(xy[2:]...)[0], lead, false) {
		out = append(out, p.X/grid, p.Y/grid)
	}
	return out
}

// Resistors have their pins 2 steps left and right of their middle; wires leave them sideways.
func TestAWireLeavesItsPinInThePinsDirection(t *testing.T) {
	s := newSheet(t)
	s.resistor(0, 0)
	assert.Equal(t, []int64{2, 0, 10, 0, 10, 6}, s.bend(circuit.LeadOwn, 2, 0, 10, 6), "sideways out of the right pin")
	assert.Equal(t, []int64{10, 6, 10, 0, 2, 0}, s.bend(circuit.LeadOwn, 10, 6, 2, 0), "and into it")
	assert.Equal(t, []int64{-2, 0, -10, 0, -10, 6}, s.bend(circuit.LeadOwn, -2, 0, -10, 6))
	assert.Equal(t, []int64{2, 0, 2, 6, 10, 6}, s.bend(circuit.LeadUpright, 2, 0, 10, 6), "unless upright is asked for")
	assert.Equal(t, []int64{20, 20, 20, 26, 30, 26}, s.bend(circuit.LeadUpright, 20, 20, 30, 26))
	assert.Equal(t, []int64{20, 20, 30, 20, 30, 26}, s.bend(circuit.LeadLevel, 20, 20, 30, 26))
	assert.Equal(t, []int64{2, 0, 7, 3}, s.bend(circuit.LeadStraight, 2, 0, 7, 3))
	assert.Equal(t, []int64{20, 20, 20, 26}, s.bend(circuit.LeadLevel, 20, 20, 20, 26), "no corner where none is needed")
	assert.Equal(t, []int64{20, 20}, s.bend(circuit.LeadOwn, 20, 20, 20, 20))
}

// From the left pin to the right one of the same part: the straight way runs through the body.
func TestAWireGoesRoundWhatItWouldTouch(t *testing.T) {
	s := newSheet(t)
	s.resistor(0, 0)
	way := s.bend(circuit.LeadOwn, -2, 0, 6, 4)
	assert.Equal(t, []int64{-2, 0}, way[:2])
	assert.NotEqual(t, []int64{-2, 0, 6, 0, 6, 4}, way, "that would short the resistor")
	assert.NotContains(t, pairs(way), [2]int64{2, 0})

	// A pin of another part stands on the usual way's corner.
	s = newSheet(t)
	s.resistor(0, 0)
	s.resistor(12, 0) // its left pin is at 10, 0
	way = s.bend(circuit.LeadOwn, 2, 0, 10, 8)
	assert.NotContains(t, pairs(way), [2]int64{10, 0})
	before := circuit.Find(s.d)
	s.do(&edit.DrawWire{Sheet: s.sheet, Path: steps(way...)})
	after := circuit.Find(s.d)
	for ref, name := range before.OfPin {
		assert.Equal(t, name, after.OfPin[ref])
	}

	// A wire of another net lies along the usual way, a label on it between.
	s = newSheet(t)
	s.wire(4, 0, 8, 0)
	s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: "A", At: steps(6, 0)[0]})
	s.wire(0, 3, 12, 3)
	way = s.bend(circuit.LeadLevel, 0, 0, 12, 6)
	assert.NotEqual(t, []int64{0, 0, 12, 0, 12, 6}, way)
	s.do(&edit.DrawWire{Sheet: s.sheet, Path: steps(way...)})
	n := circuit.Find(s.d)
	assert.NotEqual(t, n.At(s.sheet, steps(0, 0)[0], false), n.At(s.sheet, steps(6, 0)[0], false))
	assert.NotEqual(t, n.At(s.sheet, steps(0, 0)[0], false), n.At(s.sheet, steps(5, 3)[0], false), "crossed, not joined")
}

func pairs(way []int64) (out [][2]int64) {
	for i := 0; i+1 < len(way); i += 2 {
		out = append(out, [2]int64{way[i], way[i+1]})
	}
	return out
}

// What ends on something is meant to: only what lies on the way is gone round.
func TestAWireMayEndOnWhatIsThere(t *testing.T) {
	s := newSheet(t)
	s.wire(0, 6, 20, 6)
	assert.Equal(t, []int64{10, 0, 10, 6}, s.bend(circuit.LeadOwn, 10, 0, 10, 6))
	s.resistor(40, 0)
	s.resistor(40, 4)
	assert.Equal(t, []int64{42, 0, 42, 4}, s.bend(circuit.LeadUpright, 42, 0, 42, 4), "from pin to pin")
}

func TestNetsOfAPlace(t *testing.T) {
	s := newSheet(t)
	s.resistor(0, 0)
	s.wire(2, 0, 8, 0)
	s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: "OUT", At: steps(8, 0)[0]})
	s.do(&edit.DrawWire{Sheet: s.sheet, Path: steps(20, 0, 20, 10), Bundle: true})
	s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: "D[1:0]", At: steps(20, 0)[0]})
	s.do(&edit.PlaceTaps{Sheet: s.sheet, Members: []string{"D1", "D0"}, At: steps(20, 4)[0], Step: steps(0, 3)[0], Wire: steps(4, 0)[0]})
	n := circuit.Find(s.d)
	at := func(x, y int64, bundle bool) []string { return n.At(s.sheet, geom.Pt(x*grid, y*grid), bundle) }
	assert.Equal(t, []string{"OUT"}, at(2, 0, false), "a pin")
	assert.Equal(t, []string{"OUT"}, at(5, 0, false), "within a wire")
	assert.Equal(t, []string{"OUT"}, at(8, 0, false), "a label")
	assert.Equal(t, []string{"R1.1"}, at(-2, 0, false))
	assert.Empty(t, at(5, 1, false))
	assert.Equal(t, []string{"D0", "D1"}, at(20, 2, true), "within a bundle")
	assert.Equal(t, []string{"D1"}, at(21, 5, false), "the end of a tap")
	assert.Empty(t, at(20, 2, false), "no wire is there")
	assert.Empty(t, at(5, 0, true))
	assert.Equal(t, []string{"OUT"}, n.Bearing(s.sheet, "OUT"))
	assert.Equal(t, []string{"D1"}, n.Bearing(s.sheet, "D1"))
	assert.Empty(t, n.Bearing(s.sheet, "IN"))
	assert.Empty(t, n.Bearing(s.sheet+1, "OUT"), "names of another sheet are its own")
	naming := n.NamingOf(n.ByName["D1"])
	assert.Equal(t, "D[1:0]", naming.Bundle)
	assert.Equal(t, "OUT", n.NamingOf(n.ByName["OUT"]).Name)
	assert.Empty(t, n.NamingOf(n.ByName["R1.1"]).Name)
	assert.Len(t, n.NamingOf(n.ByName["OUT"]).Wires, 1)
	assert.Len(t, n.NamingOf(n.ByName["OUT"]).Items, 1)
	var r *design.Part
	for p := range s.d.Parts.All() {
		r = p
	}
	assert.Equal(t, steps(-2, 0), n.FreePins(s.d, r))
}
