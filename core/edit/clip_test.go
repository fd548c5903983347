package edit_test

import (
	"encoding/json"
	"fmt"
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

func TestNamesCountUp(t *testing.T) {
	for from, to := range map[string]string{
		"IN": "IN1", "IN0": "IN1", "IN9": "IN10", "IN09": "IN10", "D[7:0]": "D1[7:0]", "D2[0:3]": "D3[0:3]", "SCL, SDA": "SCL1, SDA1",
		"3": "4", "A1234567890123": "A1234567890124",
	} {
		assert.Equal(t, to, edit.NextName(from), from)
	}
}

func clipped(objects ...design.Object) []edit.Clipped {
	var out []edit.Clipped
	for i, o := range objects {
		if o.ObjectID() == 0 {
			o = design.WithID(o, design.ID(500+i))
		}
		data, err := json.Marshal(o)
		if err != nil {
			panic(err)
		}
		out = append(out, edit.Clipped{Kind: o.ObjectKind(), Object: data})
	}
	return out
}

func TestCopiesTakeFreeDesignatorsAndTheirPlace(t *testing.T) {
	k := newDesk(t)
	r := k.part("Resistor", 10, 4)
	k.do(&edit.AddSheet{Name: "Second"})
	second := k.d.SheetsInOrder()[1].ID
	k.do(&edit.Paste{Sheet: second, Step: grid(1, 2), Items: clipped(r, &design.Wire{A: grid(12, 4), B: grid(20, 4)})})
	copies := k.d.Bearers("R2")
	require.Len(t, copies, 1)
	assert.Equal(t, []any{second, grid(11, 6), "R2"}, []any{copies[0].Sheet, copies[0].At, copies[0].Designator})
	for w := range k.d.Wires.All() {
		assert.Equal(t, [2]geom.Point{grid(13, 6), grid(21, 6)}, [2]geom.Point{w.A, w.B})
	}
	// Turned by a quarter about a place before it is moved: (10, 4) is 6 steps right of (4, 4), so
	// it comes to lie 6 above.
	k.do(&edit.Paste{Sheet: second, About: grid(4, 4), Quarters: 1, Step: grid(30, 0), Items: clipped(r)})
	assert.Equal(t, []any{grid(34, 10), 1}, []any{k.d.Bearers("R3")[0].At, k.d.Bearers("R3")[0].Turn})
	// Mirrored: 6 steps to the left.
	k.do(&edit.Paste{Sheet: second, About: grid(4, 4), Mirror: true, Step: grid(30, 0), Items: clipped(r)})
	assert.Equal(t, []any{grid(28, 4), true}, []any{k.d.Bearers("R4")[0].At, k.d.Bearers("R4")[0].Mirror})
	k.refuse(&edit.Paste{Sheet: second, Quarters: 4, Items: clipped(r)}, "4 quarter turns are more than a whole one")
	k.refuse(&edit.Paste{Sheet: second, Quarters: -4, Items: clipped(r)}, "more than a whole one")
	k.do(&edit.Paste{Sheet: second, About: grid(60, 60), Quarters: -3, Items: clipped(r)})
	k.do(&edit.Paste{Sheet: second, About: grid(90, 60), Quarters: 3, Items: clipped(r)})
}

// The sheet bears IN0 and D[1:0] already. Copies say so, and can be counted on.
func TestCopiesOfNamesAreCountedOn(t *testing.T) {
	k := newDesk(t)
	for i, name := range []string{"IN0", "IN1", "D[1:0]"} {
		k.do(&edit.PlaceLabel{Sheet: k.sheet, Name: name, At: grid(int64(10*i), 0)})
		k.do(&edit.DrawWire{Sheet: k.sheet, Path: []geom.Point{grid(int64(10*i), 0), grid(int64(10*i), 4)}, Bundle: name == "D[1:0]"})
	}
	k.do(&edit.PlaceTaps{Sheet: k.sheet, Members: []string{"D1", "D0"}, At: grid(20, 1), Step: grid(0, 2), Wire: grid(4, 0)})
	var items []design.Object
	for i, name := range []string{"IN0", "D[1:0]", "FREE", "IN0", "IN1"} {
		items = append(items, &design.Label{Name: name, At: grid(int64(6*i), 0)})
	}
	items = append(items, &design.Port{Name: "IN0", Way: "in", At: grid(40, 0)}, &design.Note{Text: "IN0", At: grid(50, 0), Size: 2_500_000, Width: 50_000_000, Tint: "none"})
	paste := &edit.Paste{Sheet: k.sheet, Step: grid(0, 40), Items: clipped(items...)}
	assert.Equal(t, []string{"D[1:0]", "IN0", "IN1"}, paste.Bears(k.d, circuit.Find(k.d)))
	before := map[design.ID]bool{}
	for id := range k.d.Labels {
		before[id] = true
	}
	paste.NumberOn = true
	k.do(paste)
	var names []string
	for l := range k.d.Labels.All() {
		if !before[l.ID] {
			names = append(names, l.Name)
		}
	}
	assert.Equal(t, []string{"IN2", "D1[1:0]", "FREE", "IN2", "IN3"}, names, "one name stays one name; no two become the same")
	for p := range k.d.Ports.All() {
		assert.Equal(t, "IN2", p.Name)
	}
}

func TestCopiesOfUnitsStayInOnePackage(t *testing.T) {
	k := newDesk(t)
	a, b := k.part("Dual amplifier, units", 0, 0), k.part("Dual amplifier, units", 0, 30)
	require.Equal(t, a.Designator, b.Designator)
	k.do(&edit.Paste{Sheet: k.sheet, Step: grid(40, 0), Items: clipped(a, b)})
	assert.Len(t, k.d.Bearers("U2"), 2)
	k.do(&edit.Paste{Sheet: k.sheet, Step: grid(80, 0), Items: clipped(a, a)})
	assert.Len(t, k.d.Bearers("U3"), 1, "a second unit A cannot be in the same package")
	assert.Len(t, k.d.Bearers("U4"), 1)
}

func TestWhatCannotBePasted(t *testing.T) {
	k := newDesk(t)
	note := func(n int) design.Object {
		return &design.Note{Text: strings.Repeat("x", n), Size: 2_500_000, Width: 50_000_000, Tint: "none"}
	}
	many := make([]edit.Clipped, 20_001)
	long := slices.Repeat(clipped(note(9_000)), 60)
	for _, c := range []struct {
		items []edit.Clipped
		why   string
	}{
		{many, "20001 things at once are too many"},
		{long, "characters; 500000 are the most on a sheet"},
		{clipped(design.New("x").Board), "cannot be pasted on a sheet"},
		{[]edit.Clipped{{Kind: "wire", Object: json.RawMessage(`{"a":7}`)}}, "cannot be pasted"},
		{[]edit.Clipped{{Kind: "ghost", Object: json.RawMessage(`{}`)}}, "cannot be pasted"},
		{clipped(&design.Part{Library: "Flux pump", Designator: "U9"}), `no part called "Flux pump"`},
		{clipped(&design.Part{Library: "Resistor", Designator: "R9", Footprint: "R-9"}), `no footprint called "R-9"`},
		{clipped(&design.Picture{Asset: 77, Size: grid(4, 4)}), "a picture that this project does not have"},
		{clipped(&design.SheetBlock{Name: "B", Of: 88, Size: grid(16, 6)}), "a sheet that is not in this project"},
		{clipped(&design.Timing{Text: "nonsense", Slot: 5_000_000}), "neither a signal"},
	} {
		k.refuse(&edit.Paste{Sheet: k.sheet, Items: c.items}, c.why)
	}
	k.refuse(&edit.Paste{Sheet: 999, Items: clipped(note(1))}, "sheet")
	assert.Empty(t, k.d.Parts, "a refusal leaves nothing behind")
}

// A sheet has room for 500,000 characters of notes and 50,000 things.
func TestASheetHasRoomForSoMuch(t *testing.T) {
	k := newDesk(t)
	note := &design.Note{Sheet: k.sheet, Text: strings.Repeat("x", 10_000), Size: 2_500_000, Width: 50_000_000, Tint: "none"}
	for i := range 49 {
		n := *note
		n.ID = design.ID(1000 + i)
		k.d.Put(&n)
	}
	k.do(edit.Drawn(design.KindNote, note))
	note.Text = "y"
	k.refuse(edit.Drawn(design.KindNote, note), "would have 500001 characters; 500000 are the most")
	k.do(&edit.AddSheet{Name: "Dots"})
	dots := k.d.SheetsInOrder()[1].ID
	for i := range 49_999 {
		k.d.Put(&design.OpenMark{ID: design.ID(100_000 + i), Sheet: dots, At: grid(int64(i), 0)})
	}
	k.d.Next = 200_000
	note.Sheet = dots
	k.do(edit.Drawn(design.KindNote, note))
	k.refuse(edit.Drawn(design.KindNote, note), "50001 things would stand on the sheet Dots; 50000 are the most")
	require.NoError(t, edit.Gate(k.d))
	k.d.Put(&design.OpenMark{ID: 199_999, Sheet: dots, At: grid(0, 9)})
	require.ErrorContains(t, edit.Gate(k.d), "50001 things")
}

func TestDrawnThingsAreChangedByTheirIds(t *testing.T) {
	k := newDesk(t)
	k.do(edit.Drawn(design.KindTiming, &design.Timing{Sheet: k.sheet, Text: "A: high 2", Slot: 5_000_000, At: grid(0, 0)}))
	var id design.ID
	for x := range k.d.Timings.All() {
		id = x.ID
	}
	k.do(edit.Drawn(design.KindTiming, &design.Timing{ID: id, Sheet: k.sheet, Text: "A: low 2", Slot: 5_000_000}))
	require.Len(t, k.d.Timings, 1)
	assert.Equal(t, "A: low 2", k.d.Timings[id].Text)
	k.refuse(edit.Drawn(design.KindTiming, &design.Timing{ID: 999, Sheet: k.sheet, Text: "A: low"}), "no such timing any more")
	k.refuse(edit.Drawn(design.KindTiming, &design.Timing{Sheet: k.sheet, Text: "A: high 100", Slot: 10_000_000}), "1000 mm wide")
	k.refuse(edit.Drawn(design.KindWire, &design.Wire{Sheet: k.sheet}), "a wire cannot be drawn beside the circuit")
	k.refuse(edit.Drawn(design.KindNote, &design.Note{Sheet: 999, Text: "x"}), "sheet")
	k.refuse(&edit.DrawItem{Item: edit.Clipped{Kind: design.KindNote, Object: json.RawMessage("{")}}, "cannot be read")
	k.refuse(edit.Drawn(design.KindPicture, &design.Picture{Sheet: k.sheet, Asset: 66}), "no such picture")
}

// A picture of 30 × 20 is 60 mm wide unless it is said otherwise, and as high as it must be.
func TestPicturesKeepTheirShape(t *testing.T) {
	k := newDesk(t)
	data := []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"><rect/></svg>`)
	size := func(width int64, data []byte) geom.Point {
		var out geom.Point
		for _, c := range k.do(&edit.AddPicture{Sheet: k.sheet, Name: "weir.svg", Data: data, At: grid(1, 1), Width: width}) {
			if p, ok := c.After.(*design.Picture); ok {
				out = p.Size
				assert.Equal(t, "weir.svg", k.d.Assets[p.Asset].Name)
			}
		}
		return out
	}
	assert.Equal(t, geom.Pt(60_000_000, 40_000_000), size(0, data))
	assert.Equal(t, geom.Pt(15_000_000, 10_000_000), size(15_000_000, data))
	assert.Equal(t, geom.Pt(60_000_000, 1_000_000), size(0, []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="3000" height="2"/>`)), "one millimetre high at least")
	k.refuse(&edit.AddPicture{Sheet: k.sheet, Name: "x", Data: []byte("no")}, "not a picture")
	k.refuse(&edit.AddPicture{Sheet: 999, Name: "x", Data: data}, "sheet")
}

// What a file brings from elsewhere is held to what the commands would have refused.
func TestTheGate(t *testing.T) {
	fresh := func() *design.Doc { return newDesk(t).d }
	sheet := fresh().SheetsInOrder()[0].ID
	d := fresh()
	d.Put(&design.Asset{ID: 50, Name: "a.svg", Type: "svg", Width: 3, Height: 4, Data: []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"><script>x</script><rect/></svg>`)})
	require.NoError(t, edit.Gate(d))
	assert.NotContains(t, string(d.Assets[50].Data), "script", "pictures are cleaned")
	assert.Equal(t, [2]int{30, 20}, [2]int{d.Assets[50].Width, d.Assets[50].Height})
	d.Put(&design.Asset{ID: 51, Name: "b.png", Type: "png", Data: []byte("x")})
	require.ErrorContains(t, edit.Gate(d), "b.png is not a picture")
	for text, slot := range map[string]int64{"nonsense": 1_000_000, "A: high 1000": 1_000_000} {
		d = fresh()
		d.Put(&design.Timing{ID: 52, Sheet: sheet, Text: text, Slot: slot})
		require.ErrorContains(t, edit.Gate(d), "a timing diagram (id 52) cannot be drawn")
	}
	// Each sheet has two blocks of the next: 2^11 uses of the last.
	d = fresh()
	last := sheet
	for i := range 11 {
		next := &design.Sheet{ID: design.ID(1000 + i), Name: fmt.Sprint("S", i), Order: i + 2, Size: "A4"}
		d.Put(next)
		for j := range 2 {
			d.Put(&design.SheetBlock{ID: design.ID(2000 + 2*i + j), Sheet: last, Of: next.ID, Name: fmt.Sprint("B", j), At: grid(0, int64(20*j)), Size: grid(16, 6)})
		}
		last = next.ID
	}
	require.ErrorContains(t, edit.Gate(d), "used more than 2000 times")
}
