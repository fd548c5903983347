package edit_test

import (
	"reflect"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

func TestSpreadDownOnTheGridOfEach(t *testing.T) {
	k := newDesk(t)
	var ids []design.ID
	for _, at := range [][2]int64{{0, 0}, {10, 30}, {5, 4}, {7, 29}} {
		ids = append(ids, k.part("Resistor", at[0], at[1]).ID)
	}
	half := geom.Pt(0, 1_250_000)
	k.do(&edit.MoveItems{IDs: ids[2:3], Step: half}) // stands between the lines
	k.do(&edit.Arrange{IDs: ids, How: "down"})
	at := func(i int) geom.Point { return k.d.Parts[ids[i]].At }
	assert.Equal(t, grid(0, 0), at(0))
	assert.Equal(t, grid(10, 30), at(1))
	assert.Equal(t, grid(5, 10).Add(half).X, at(2).X)
	assert.Contains(t, []int64{grid(0, 10).Y - 1_250_000, grid(0, 10).Y + 1_250_000}, at(2).Y, "a third of the way, between the lines still")
	assert.Equal(t, grid(7, 20), at(3), "two thirds of the way")
	k.do(&edit.Arrange{IDs: ids, How: "column"})
	for i := range ids {
		assert.Equal(t, grid(0, 0).X, at(i).X)
	}
	k.refuse(&edit.Arrange{IDs: ids, How: "circle"}, "cannot be arranged by \"circle\"")
	k.refuse(&edit.Arrange{IDs: ids[:2], How: "across"}, "pick at least 3")
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "A", At: grid(50, 50)})
	k.do(edit.Drawn(design.KindNote, &design.Note{Sheet: k.sheet, Text: "x", Width: 10_000_000, Size: 2_500_000, Tint: "none", At: grid(40, 60)}))
	k.do(edit.Drawn(design.KindCluster, &design.Cluster{Sheet: k.sheet, Title: "x", A: grid(90, 90), B: grid(80, 80), Tint: "none"}))
	var mixed []design.ID
	for l := range k.d.Labels.All() {
		mixed = append(mixed, l.ID)
	}
	for n := range k.d.Notes.All() {
		mixed = append(mixed, n.ID)
	}
	for c := range k.d.Clusters.All() {
		mixed = append(mixed, c.ID)
	}
	k.do(&edit.Arrange{IDs: mixed, How: "row"})
	for n := range k.d.Notes.All() {
		assert.Equal(t, grid(40, 50), n.At)
	}
	for c := range k.d.Clusters.All() {
		assert.Equal(t, grid(80, 50), c.Box().Min, "by its lower left corner")
	}
}

func TestUnitsThatAreAskedFor(t *testing.T) {
	k := newDesk(t)
	place := func(unit int, name string, x int64) *design.Part {
		for _, c := range k.do(&edit.PlacePart{Sheet: k.sheet, Library: "Dual amplifier, units", Unit: unit, Designator: name, At: grid(x, 0)}) {
			if p, ok := c.After.(*design.Part); ok {
				return p
			}
		}
		return nil
	}
	assert.Equal(t, "U1B", place(2, "", 0).Designator+"B")
	assert.Equal(t, 1, place(0, "", 20).Unit, "the first that U1 lacks")
	assert.Equal(t, 2, k.d.Bearers("U1")[0].Unit)
	next := place(2, "", 40)
	assert.Equal(t, []any{"U2", 2}, []any{next.Designator, next.Unit}, "U1 has its B")
	third := place(3, "", 60)
	assert.Equal(t, []any{"U1", 3}, []any{third.Designator, third.Unit})
	assert.Equal(t, 1, place(0, "U2", 80).Unit)
	k.refuse(&edit.PlacePart{Sheet: k.sheet, Library: "Dual amplifier, units", Unit: 1, Designator: "U2", At: grid(90, 0)}, "already a part called U2")
	k.refuse(&edit.PlacePart{Sheet: k.sheet, Library: "Dual amplifier, units", Unit: 4, At: grid(90, 0)}, "has 3 units; there is no unit 4")
	k.refuse(&edit.PlacePart{Sheet: k.sheet, Library: "Resistor", Designator: "17", At: grid(90, 0)}, "")
	k.refuse(&edit.PlacePart{Sheet: 999, Library: "Resistor"}, "sheet")
	k.do(&edit.PlacePart{Sheet: k.sheet, Library: "Resistor", Designator: "R77", Value: ptr("47k"), At: grid(120, 0), Turn: 1, Mirror: true})
	r := k.d.Bearers("R77")[0]
	assert.Equal(t, []any{"47k", 1, true}, []any{r.Value, r.Turn, r.Mirror})
}

// Units that share a designator in the first use share one in the others.
func TestUnitsShareADesignatorInEachUse(t *testing.T) {
	k := newDesk(t)
	k.do(&edit.AddSheet{Name: "Probe"})
	top, probe := k.sheet, k.d.SheetsInOrder()[1].ID
	k.do(&edit.PlaceBlock{Sheet: top, Of: probe, At: grid(0, 0)})
	k.do(&edit.PlaceBlock{Sheet: top, Of: probe, At: grid(40, 0)})
	k.sheet = probe
	k.part("Dual amplifier, units", 0, 0)
	k.part("Dual amplifier, units", 20, 0)
	var others []string
	for p := range k.d.Parts.All() {
		assert.Equal(t, "U1", p.Designator)
		for _, name := range p.Others {
			others = append(others, name)
		}
	}
	assert.Equal(t, []string{"U2", "U2"}, others)
}

func TestHowFarAWireAndATurnGo(t *testing.T) {
	k := newDesk(t)
	path := make([]geom.Point, 1001)
	for i := range path {
		path[i] = grid(int64(i%500), int64(i/500*3+i%2))
	}
	k.refuse(&edit.DrawWire{Sheet: k.sheet, Path: path}, "2 to 1000 places, not 1001")
	k.do(&edit.DrawWire{Sheet: k.sheet, Path: path[:1000]})
	k.refuse(&edit.DrawWire{Sheet: k.sheet, Path: path[:1]}, "not 1")
	r := k.part("Resistor", 0, 40)
	for _, q := range []int{-3, 3} {
		k.do(&edit.TurnItems{IDs: []design.ID{r.ID}, Pivot: r.At, Quarters: q})
	}
	k.refuse(&edit.TurnItems{IDs: []design.ID{r.ID}, Pivot: r.At, Quarters: 4}, "more than a whole one")
	k.refuse(&edit.TurnItems{IDs: []design.ID{r.ID}, Pivot: r.At, Quarters: -4}, "more than a whole one")
	k.do(&edit.AddSheet{Name: "B"})
	k.sheet = k.d.SheetsInOrder()[1].ID
	other := k.part("Resistor", 0, 0)
	k.refuse(&edit.MoveItems{IDs: []design.ID{r.ID, other.ID}, Step: grid(1, 0)}, "lies on several sheets")
	k.refuse(&edit.MoveItems{IDs: []design.ID{9999}, Step: grid(1, 0)}, "not in the circuit any more (id 9999)")
	k.refuse(&edit.MoveItems{Step: grid(1, 0)}, "nothing was picked")
	k.refuse(&edit.MoveItems{IDs: []design.ID{r.ID}}, "would change nothing")
	k.do(&edit.MoveText{ID: r.ID, Text: "value", At: ptr(grid(1, 2))})
	k.do(&edit.MoveText{ID: r.ID, Text: "designator", At: ptr(grid(3, 4))})
	assert.Equal(t, []geom.Point{grid(1, 2), grid(3, 4)}, []geom.Point{*k.d.Parts[r.ID].ValueAt, *k.d.Parts[r.ID].DesignatorAt})
	k.do(&edit.MoveText{ID: r.ID, Text: "value"})
	assert.Nil(t, k.d.Parts[r.ID].ValueAt)
	k.refuse(&edit.MoveText{ID: r.ID, Text: "price"}, "no text called \"price\"")
}

// The wire's ends stay joined to what is put into it, whichever way round it was drawn.
func TestAPartInAWireDrawnEitherWay(t *testing.T) {
	for _, ends := range [][4]int64{{0, 0, 20, 0}, {20, 0, 0, 0}} {
		k := newDesk(t)
		k.wire(ends[:]...)
		k.part("Resistor", 10, 0)
		var wires [][2]geom.Point
		for w := range k.d.Wires.All() {
			a, b := w.A, w.B
			if a.X > b.X {
				a, b = b, a
			}
			wires = append(wires, [2]geom.Point{a, b})
		}
		assert.ElementsMatch(t, [][2]geom.Point{{grid(0, 0), grid(8, 0)}, {grid(12, 0), grid(20, 0)}}, wires)
	}
	k := newDesk(t)
	k.wire(8, 0, 12, 0) // just as long as the part: nothing of it is left
	k.part("Resistor", 10, 0)
	assert.Empty(t, k.d.Wires)
}

// What an act is for: the nets that need not be asked about.
func TestWhatCommandsMean(t *testing.T) {
	k := newDesk(t)
	k.part("Resistor", 0, 0)
	k.part("Resistor", 20, 0)
	k.wire(22, 0, 40, 0)
	k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: "OUT", At: grid(40, 0)})
	n := circuit.Find(k.d)
	means := func(c edit.Command) circuit.Means {
		return edit.Means(c, k.d, edit.Env{Nets: func() *circuit.Nets { return n }})
	}
	assert.Equal(t, []string{"R1.2", "R2.1"}, means(&edit.DrawWire{Sheet: k.sheet, Path: []geom.Point{grid(2, 0), grid(10, 5), grid(18, 0)}}).Joins, "the ends, not the corner")
	assert.Empty(t, means(&edit.DrawWire{Sheet: k.sheet}).Joins)
	for _, c := range []edit.Command{
		&edit.PlaceLabel{Sheet: k.sheet, Name: " OUT ", At: grid(2, 0)}, &edit.PlacePort{Sheet: k.sheet, Name: "OUT", At: grid(2, 0)},
		&edit.PlaceSupply{Sheet: k.sheet, Name: "OUT", At: grid(2, 0)},
	} {
		assert.Equal(t, []string{"R1.2", "OUT"}, means(c).Joins, "what stands there with what bears the name")
	}
	assert.Equal(t, []string{"OUT"}, means(&edit.PlacePart{Sheet: k.sheet, Library: "Resistor", At: grid(30, 0)}).Parts)
	assert.Empty(t, means(&edit.PlacePart{Sheet: k.sheet, Library: "Resistor", At: grid(30, 5)}).Parts)
	assert.Empty(t, means(&edit.PlacePart{Sheet: k.sheet, Library: "Header 4", At: grid(30, 0)}).Parts)
	assert.Empty(t, means(&edit.PlacePart{Sheet: k.sheet, Library: "no such", At: grid(30, 0)}).Parts)
	assert.True(t, means(&edit.Remove{}).Any)
	assert.True(t, means(&edit.RemoveSheet{}).Any)
	assert.True(t, means(&edit.RenameNet{Join: true}).Any)
	assert.False(t, means(&edit.RenameNet{}).Any)
	assert.Equal(t, circuit.Means{}, means(&edit.MoveItems{}))
}

// Several differences are carried at once; each that is not named stays.
func TestCarrySeveralAtOnce(t *testing.T) {
	b := pair(t)
	do := func(c edit.Command) {
		t.Helper()
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	r1, r2 := placed(b.Doc, "R1"), placed(b.Doc, "R2")
	do(&edit.DrawTrack{Net: r1.Nets["2"], Runs: []edit.Run{
		{Layer: b.Doc.Board.Top(), Path: geom.Corners(r1.Pose().Apply(geom.Pt(950_000, 0)), geom.Pt(8_000_000, 10_000_000))},
		{Layer: b.Doc.Board.Bottom(), Path: geom.Corners(geom.Pt(8_000_000, 10_000_000), geom.Pt(8_000_000, 14_000_000))},
	}})
	sheet := b.Doc.SheetsInOrder()[0].ID
	do(&edit.PlaceLabel{Sheet: sheet, Name: "SENSE", At: geom.Pt(5*g, 0)})
	do(&edit.PlaceLabel{Sheet: sheet, Name: "LAMP", At: geom.Pt(15*g, 0)})
	for _, name := range []string{"R1", "R2"} {
		do(&edit.SetPart{ID: partOf(b.Doc, name).ID, Value: ptr("9k1")})
	}
	do(&edit.PlacePart{Sheet: sheet, Library: "Capacitor", At: geom.Pt(0, 10*g)})
	do(&edit.PlacePart{Sheet: sheet, Library: "Resistor 0805", At: geom.Pt(0, 20*g)})
	do(&edit.Remove{IDs: []design.ID{partOf(b.Doc, "D1").ID}})
	var keys []string
	for _, d := range b.Differences() {
		if d.Text != "The net R2.2 is called LAMP now." && d.Part != partOf(b.Doc, "R2").ID {
			keys = append(keys, d.Key)
		}
	}
	do(&edit.Carry{Keys: keys})
	assert.Equal(t, "9k1", placed(b.Doc, "R1").Value)
	assert.Equal(t, "1k", placed(b.Doc, "R2").Value, "not named")
	assert.Equal(t, r2.At, placed(b.Doc, "R2").At)
	assert.NotNil(t, placed(b.Doc, "C1"))
	assert.NotNil(t, placed(b.Doc, "R3"))
	assert.Nil(t, placed(b.Doc, "D1"))
	assert.Equal(t, []string{"SENSE", "SENSE"}, []string{netOf(b.Doc, "R1", "2"), netOf(b.Doc, "R2", "1")})
	nets := map[string]int{}
	for x := range b.Doc.Tracks.All() {
		nets[b.Doc.NetName(x.Net)]++
	}
	for x := range b.Doc.Vias.All() {
		nets[b.Doc.NetName(x.Net)]++
	}
	assert.Equal(t, map[string]int{"SENSE": 3}, nets, "tracks and vias alike")
	do(&edit.Carry{All: true})
	assert.Equal(t, []string{"9k1", "LAMP"}, []string{placed(b.Doc, "R2").Value, netOf(b.Doc, "R2", "2")})
	assert.Empty(t, b.Differences())
}

func TestCommandsAreReadStrictly(t *testing.T) {
	kind, c, err := edit.Decode([]byte(`{"kind":"addHole","v":1,"at":{"x":1,"y":2},"diameter":3}`))
	require.NoError(t, err)
	assert.Equal(t, "addHole", kind)
	assert.Equal(t, &edit.AddHole{At: geom.Pt(1, 2), Diameter: 3}, c)
	for text, why := range map[string]string{
		`{`: "cannot be read", `{"kind":"fly"}`: `no edit called "fly"`, `{"kind":"addHole","v":2}`: "is of version 2; this program knows version 1",
		`{"kind":"addHole","size":3}`: "cannot be read", `{"kind":"addHole","diameter":"3"}`: "cannot be read", `[]`: "cannot be read",
	} {
		_, _, err := edit.Decode([]byte(text))
		assert.ErrorContains(t, err, why, text)
	}
	assert.Nil(t, edit.Blank("fly"))
	assert.True(t, slices.IsSorted(edit.Kinds()))
	assert.Contains(t, edit.Kinds(), "addHole")
}

// What a command is called and its version travel beside its fields, so that none of these is called so.
func TestNoFieldOfACommandHidesItsName(t *testing.T) {
	for _, kind := range edit.Kinds() {
		of := reflect.TypeOf(edit.Blank(kind)).Elem()
		for _, f := range reflect.VisibleFields(of) {
			name, _, _ := strings.Cut(f.Tag.Get("json"), ",")
			assert.NotContains(t, []string{"kind", "v"}, name, "%s of %s", f.Name, kind)
		}
	}
}
