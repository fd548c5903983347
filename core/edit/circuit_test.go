package edit_test

import (
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

// desk is a design to run commands on.
type desk struct {
	*testing.T
	d     *design.Doc
	sheet design.ID
}

func newDesk(t *testing.T) *desk {
	d := design.New("desk")
	return &desk{t, d, d.SheetsInOrder()[0].ID}
}

func (k *desk) do(c edit.Command) edit.ChangeSet {
	k.Helper()
	cs, err := edit.Apply(k.d, edit.Env{}, c)
	require.NoError(k, err)
	return cs
}

func (k *desk) refuse(c edit.Command, why string) {
	k.Helper()
	next := k.d.Next
	_, err := edit.Apply(k.d, edit.Env{}, c)
	assert.ErrorContains(k, err, why)
	assert.Equal(k, next, k.d.Next)
}

func grid(x, y int64) geom.Point { return geom.Pt(x*2_500_000, y*2_500_000) }

func (k *desk) part(library string, x, y int64) *design.Part {
	k.Helper()
	for _, c := range k.do(&edit.PlacePart{Sheet: k.sheet, Library: library, At: grid(x, y)}) {
		if p, ok := c.After.(*design.Part); ok {
			return p
		}
	}
	return nil
}

func (k *desk) wire(xy ...int64) {
	k.Helper()
	var path []geom.Point
	for i := 0; i+1 < len(xy); i += 2 {
		path = append(path, grid(xy[i], xy[i+1]))
	}
	k.do(&edit.DrawWire{Sheet: k.sheet, Path: path})
}

func (k *desk) names() []string {
	var out []string
	for p := range k.d.Parts.All() {
		out = append(out, p.Designator+p.UnitLetter())
		out = append(out, slices.Sorted(maps.Values(p.Others))...)
	}
	return out
}

func (k *desk) net(designator, pin string) string {
	for _, p := range k.d.Bearers(designator) {
		return circuit.Find(k.d).OfPin[circuit.PinRef{Part: p.ID, Pin: pin}]
	}
	return "?"
}

func ptr[T any](v T) *T { return &v }

func TestEachUseOfASheetHasItsDesignators(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.AddSheet{Name: "Probe"})
	probe := k.d.SheetsInOrder()[1].ID
	top := k.sheet
	k.sheet = probe
	k.part("Resistor", 10, 10)
	k.sheet = top
	k.do(&edit.PlaceBlock{Sheet: top, Of: probe, At: grid(0, 0)})
	assert.Equal(t, []string{"R1"}, k.names())
	second := k.do(&edit.PlaceBlock{Sheet: top, Of: probe, At: grid(40, 0)})
	assert.Equal(t, []string{"R1", "R2"}, k.names())
	k.sheet = probe
	k.part("Resistor", 30, 10)
	assert.Equal(t, []string{"R1", "R2", "R3", "R4"}, k.names(), "a part put there later gets one for each use too")
	var blocks []*design.SheetBlock
	for b := range k.d.Blocks.All() {
		blocks = append(blocks, b)
	}
	assert.Equal(t, "Probe", blocks[0].Name)
	assert.Equal(t, "Probe 2", blocks[1].Name)
	k.do(&edit.Remove{IDs: []design.ID{blocks[1].ID}})
	assert.Equal(t, []string{"R1", "R3"}, k.names(), "designators of a use that is gone are free again")
	k.refuse(&edit.RemoveSheet{Sheet: probe}, "the block Probe on Sheet 1 stands for this sheet")
	k.refuse(&edit.PlaceBlock{Sheet: probe, Of: top, At: grid(0, 0)}, "a sheet cannot stand within itself")
	k.refuse(&edit.PlaceBlock{Sheet: probe, Of: probe, At: grid(0, 0)}, "a sheet cannot stand within itself")
	k.refuse(&edit.AddSheet{Name: "Probe"}, "already a sheet called Probe")
	_ = second
}

// All that lacks on either side is added at once, each in a place of its own, and undone as one.
func TestPortsAndPinsAreMatchedAtOnce(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Name: "Filter", At: grid(0, 0)})
	var id design.ID
	for b := range k.d.Blocks.All() {
		id = b.ID
	}
	for i, name := range []string{"IN", "OUT", "EN", "CLK", "RST", "SEL"} {
		k.do(&edit.PlacePort{Sheet: k.d.Blocks[id].Of, Name: name, Way: []string{"in", "out"}[i%2], At: grid(4, int64(10*i)), Turn: 2})
	}
	k.do(&edit.MatchPort{Block: id, Pin: "EN", How: "add"})
	cs := k.do(&edit.MatchPort{Block: id, How: "addAll"})
	at := map[geom.Point]string{}
	for _, p := range k.d.Blocks[id].Pins {
		at[k.d.Blocks[id].PinAt(p)] = p.Name
	}
	assert.ElementsMatch(t, []string{"IN", "OUT", "EN", "CLK", "RST", "SEL"}, slices.Collect(maps.Values(at)))
	k.refuse(&edit.MatchPort{Block: id, How: "addAll"}, "nothing to mend between Filter and its sheet")
	cs.Inverted().Apply(k.d)
	assert.Len(t, k.d.Blocks[id].Pins, 1)
	for p := range k.d.Ports.All() {
		if p.Name == "EN" {
			k.d.Remove(design.KindPort, p.ID)
			break
		}
	}
	k.do(&edit.MatchPort{Block: id, How: "addAll"})
	assert.Len(t, circuit.Ports(k.d, k.d.Blocks[id].Of), 6, "the pin's port is there again")
}

func TestPortsAndPinsAreMatched(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.PlaceBlock{Sheet: k.sheet, Name: "Filter", At: grid(0, 0)})
	block := func() *design.SheetBlock {
		for b := range k.d.Blocks.All() {
			return b
		}
		return nil
	}
	below := block().Of
	k.do(&edit.PlacePort{Sheet: below, Name: "IN", Way: "in", At: grid(4, 40), Turn: 2})
	k.do(&edit.MatchPort{Block: block().ID, Pin: "IN", How: "add"})
	require.Len(t, block().Pins, 1)
	assert.Equal(t, []any{"IN", "in", 2}, []any{block().Pins[0].Name, block().Pins[0].Way, block().Pins[0].Side}, "what comes in stands on the left")
	var port design.ID
	for p := range k.d.Ports.All() {
		port = p.ID
	}
	k.do(&edit.SetName{ID: port, Name: "RAW"})
	assert.Equal(t, "RAW", block().Pins[0].Name, "the pin follows the port's name")
	k.do(&edit.SetPort{ID: port, Way: "both"})
	assert.Equal(t, "both", block().Pins[0].Way)
	k.do(&edit.Remove{IDs: []design.ID{port}})
	k.do(&edit.MatchPort{Block: block().ID, Pin: "RAW", How: "add"})
	assert.Len(t, k.d.Ports, 1, "and the other way round")
	k.refuse(&edit.MatchPort{Block: block().ID, Pin: "RAW", How: "add"}, "nothing to mend")
	k.refuse(&edit.MatchPort{Block: block().ID, Pin: "NONE", How: "add"}, "neither the block")
	for range 6 { // the block grows when its side is full
		k.do(&edit.PlacePort{Sheet: below, Name: block().Name + string(rune('A'+len(block().Pins))), Way: "in", At: grid(4, int64(len(block().Pins))), Turn: 2})
		for _, p := range circuit.Ports(k.d, below) {
			if !slices.ContainsFunc(block().Pins, func(q design.BlockPin) bool { return q.Name == p.Name }) {
				k.do(&edit.MatchPort{Block: block().ID, Pin: p.Name, How: "add"})
			}
		}
	}
	seen := map[geom.Point]bool{}
	for _, p := range block().Pins {
		assert.False(t, seen[block().PinAt(p)], "two pins in one place")
		seen[block().PinAt(p)] = true
	}
}

func TestAPartDroppedOnAWireIsPutIntoIt(t *testing.T) {
	k := newDesk(t)
	k.part("Resistor", 0, 0)
	k.part("Resistor", 20, 0)
	k.wire(2, 0, 18, 0)
	k.part("Capacitor", 10, 0)
	assert.Equal(t, k.net("R1", "2"), k.net("C1", "1"))
	assert.Equal(t, k.net("R2", "1"), k.net("C1", "2"))
	assert.NotEqual(t, k.net("C1", "1"), k.net("C1", "2"), "the wire does not pass below it")
	k.part("Header 4", 10, 20)
	assert.Len(t, k.d.Wires, 2)
}

func TestReplacedPartsKeepTheirWires(t *testing.T) {
	k := newDesk(t)
	a := k.part("NPN transistor", 0, 0)
	k.wire(1, 2, 1, 8) // collector
	k.wire(-2, 0, -8, 0)
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "C", At: grid(1, 8)})
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "B", At: grid(-8, 0)})
	k.do(&edit.ReplacePart{IDs: []design.ID{a.ID}, Library: "Header 4"})
	p := k.d.Parts[a.ID]
	assert.Equal(t, "J1", p.Designator)
	assert.Equal(t, "C", k.net("J1", "1"))
	assert.Equal(t, "B", k.net("J1", "2"))
	k.refuse(&edit.ReplacePart{IDs: []design.ID{a.ID}, Library: "Dual amplifier, units"}, "place its units one by one")
	k.refuse(&edit.ReplacePart{IDs: []design.ID{a.ID}, Library: "Left-handed smoke shifter"}, "no part called")
}

func TestUnitsShareADesignator(t *testing.T) {
	k := newDesk(t)
	for i := range int64(4) {
		k.part("Dual amplifier, units", 20*i, 0)
	}
	assert.Equal(t, []string{"U1A", "U1B", "U1C", "U2A"}, k.names())
	u := k.d.Bearers("U1")
	k.do(&edit.SetPart{ID: u[1].ID, Designator: ptr("U7")})
	assert.Equal(t, []string{"U7A", "U7B", "U7C", "U2A"}, k.names(), "all units of the package go along")
	k.refuse(&edit.SetPart{ID: u[0].ID, Designator: ptr("U2")}, "already a part called U2")
	k.do(&edit.SetParts{Cells: []edit.Cell{{ID: u[0].ID, Field: "value", Text: "BV999"}}})
	for _, p := range k.d.Bearers("U7") {
		assert.Equal(t, "BV999", p.Value)
	}
	k.do(&edit.Carry{All: true})
	assert.Len(t, k.d.Placed, 2, "a package is one part on the board")
}

func TestDesignatorsMayBeExchanged(t *testing.T) {
	k := newDesk(t)
	a, b := k.part("Resistor", 0, 0), k.part("Resistor", 20, 0)
	k.do(&edit.SetParts{Cells: []edit.Cell{{ID: a.ID, Field: "designator", Text: "R2"}, {ID: b.ID, Field: "designator", Text: "R1"}}})
	assert.Equal(t, []string{"R2", "R1"}, k.names())
	k.refuse(&edit.SetParts{Cells: []edit.Cell{{ID: a.ID, Field: "designator", Text: "R1"}}}, "already a part called R1")
	k.refuse(&edit.SetParts{Cells: []edit.Cell{{ID: a.ID, Field: "fitted", Text: "perhaps"}}}, "does not say whether the part is fitted")
}

func TestNumberingByPosition(t *testing.T) {
	k := newDesk(t)
	for _, at := range [][2]int64{{40, 0}, {0, 0}, {20, 30}, {0, 31}} {
		k.part("Resistor", at[0], at[1])
	}
	k.part("Capacitor", 60, 0)
	k.do(&edit.Renumber{Numbering: circuit.Numbering{Way: "rows"}})
	assert.Equal(t, []string{"R4", "R3", "R2", "R1", "C1"}, k.names(), "row by row from the top; what is level to a few millimetres is one row")
	k.do(&edit.Renumber{Numbering: circuit.Numbering{Way: "columns", From: 10, Prefixes: []string{"R"}}})
	assert.Equal(t, []string{"R13", "R11", "R12", "R10", "C1"}, k.names())
	k.refuse(&edit.Renumber{Numbering: circuit.Numbering{Way: "columns", From: 10, Prefixes: []string{"R"}}}, "change nothing")
	k.refuse(&edit.Renumber{Numbering: circuit.Numbering{Way: "spiral"}}, "by rows or by columns")
}

func TestLinedUpAndSpread(t *testing.T) {
	k := newDesk(t)
	var ids []design.ID
	for _, at := range [][2]int64{{0, 0}, {30, 3}, {17, -2}} {
		ids = append(ids, k.part("Resistor", at[0], at[1]).ID)
	}
	k.do(&edit.Arrange{IDs: ids, How: "row"})
	k.do(&edit.Arrange{IDs: ids, How: "across"})
	for i, x := range []int64{0, 30, 15} {
		assert.Equal(t, grid(x, 0), k.d.Parts[ids[i]].At)
	}
	k.refuse(&edit.Arrange{IDs: ids, How: "row"}, "stand so already")
	k.refuse(&edit.Arrange{IDs: ids[:1], How: "row"}, "pick at least 2")
}

func TestNetsAreRenamedEverywhere(t *testing.T) {
	k := newDesk(t)
	k.part("Resistor", 0, 0)
	k.part("Resistor", 20, 0)
	k.wire(2, 0, 18, 0)
	k.do(&edit.RenameNet{Net: "R1.2", To: "MID"})
	assert.Equal(t, "MID", k.net("R2", "1"), "a net nobody named gets a label")
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "MID", At: grid(22, 0)})
	k.do(&edit.SetNets{Nets: []string{"MID"}, Current: ptr(int64(5000))})
	k.do(&edit.RenameNet{Net: "MID", To: "MITTE"})
	for l := range k.d.Labels.All() {
		assert.Equal(t, "MITTE", l.Name)
	}
	assert.EqualValues(t, 5000, k.d.NetNamed("MITTE").Current, "what is said of it goes along")
	k.do(&edit.PlaceSupply{Sheet: k.sheet, Name: "GND", Shape: "ground", At: grid(-2, 0)})
	k.refuse(&edit.RenameNet{Net: "MITTE", To: "GND"}, "renaming would join MITTE and GND")
	k.do(&edit.RenameNet{Net: "MITTE", To: "GND", Join: true})
	assert.Equal(t, "GND", k.net("R2", "1"))
	k.refuse(&edit.RenameNet{Net: "nowhere", To: "X"}, "no net called nowhere")
	k.refuse(&edit.RenameNet{Net: "GND", To: "A[1:0]"}, "would be a bundle")
}

func TestPairsAreMutual(t *testing.T) {
	k := newDesk(t)
	for i, n := range []string{"D_P", "D_N", "X"} {
		k.part("Resistor", int64(20*i), 0)
		k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: n, At: grid(int64(20*i)+2, 0)})
	}
	assert.Equal(t, [][2]string{{"D_P", "D_N"}}, circuit.Find(k.d).PairsByName())
	k.do(&edit.PairNets{Pairs: circuit.Find(k.d).PairsByName()})
	assert.Equal(t, k.d.NetNamed("D_P").ID, k.d.NetNamed("D_N").Partner)
	k.do(&edit.SetNets{Nets: []string{"D_P"}, Partner: ptr("X")})
	assert.Equal(t, k.d.NetNamed("D_P").ID, k.d.NetNamed("X").Partner)
	assert.Nil(t, k.d.NetNamed("D_N"), "its former partner is alone, and nothing is said of it")
	k.refuse(&edit.SetNets{Nets: []string{"D_P"}, Partner: ptr("none such")}, "no net called none such")
	k.refuse(&edit.SetNets{Nets: []string{"D_P", "X"}, Partner: ptr("D_N")}, "one net at a time")
}

func TestTapsAtOnce(t *testing.T) {
	k := newDesk(t)
	members, err := design.Members("D[15:0]")
	require.NoError(t, err)
	k.do(&edit.DrawWire{Sheet: k.sheet, Path: []geom.Point{grid(0, 0), grid(0, 20)}, Bundle: true})
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "D[15:0]", At: grid(0, 0), Turn: 3})
	cs := k.do(&edit.PlaceTaps{Sheet: k.sheet, Members: members, At: grid(0, 18), Step: grid(0, -1), Wire: grid(4, 0)})
	assert.Len(t, cs, 32)
	nets := circuit.Find(k.d)
	for _, m := range members {
		require.NotNil(t, nets.ByName[m], m)
		assert.Len(t, nets.ByName[m].Uses[0].Items, 2, "a tap and a wire")
	}
	k.refuse(&edit.PlaceTaps{Sheet: k.sheet, Members: members, At: grid(0, 0)}, "cannot stand in one place")
}
