package edit_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// chain are parts in a row, each with its pin 1 on a net of its own and pin 2 on another, carried to
// the board 10 mm apart; net is what a pin is called.
func chain(t *testing.T, names ...[2]string) (*workbench.Bench, func(edit.Command) edit.ChangeSet) {
	t.Helper()
	b := workbench.Open(design.New("nets"), 0)
	sheet := b.Doc.SheetsInOrder()[0].ID
	do := func(c edit.Command) edit.ChangeSet {
		t.Helper()
		cs, err := b.Edit(c)
		require.NoError(t, err)
		return cs
	}
	for i, pins := range names {
		x := int64(i) * 20 * g
		do(&edit.PlacePart{Sheet: sheet, Library: "Resistor 0805", At: geom.Pt(x, 0)})
		for k, name := range pins {
			do(&edit.PlaceLabel{Sheet: sheet, Name: name, At: geom.Pt(x+int64(4*k-2)*g, 0)})
		}
	}
	do(&edit.SetOutline{Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(100_000_000, 0), geom.Pt(100_000_000, 50_000_000), geom.Pt(0, 50_000_000))})
	do(&edit.Carry{All: true})
	for i := range names {
		x, y := int64(i+1)*10_000_000, int64(10_000_000)
		do(&edit.SetPlaced{ID: placed(b.Doc, fmt.Sprint("R", i+1)).ID, X: &x, Y: &y})
	}
	return b, do
}

// pad is the middle of a part's pad on the board.
func pad(b *workbench.Bench, part, number string) geom.Point {
	for _, c := range b.Index().Of(placed(b.Doc, part).ID) {
		if c.Number == number {
			return c.At
		}
	}
	return geom.Point{}
}

// copper counts tracks and vias by the name of their net.
func copper(d *design.Doc) map[string]int {
	out := map[string]int{}
	for t := range d.Tracks.All() {
		out[d.NetName(t.Net)]++
	}
	for v := range d.Vias.All() {
		out[d.NetName(v.Net)]++
	}
	return out
}

// A net of thousands of pieces is renamed by one small change, in the circuit and on the board alike,
// and undone by another.
func TestRenamingANetIsOneSmallChange(t *testing.T) {
	b, do := chain(t, [2]string{"GND", "A"}, [2]string{"GND", "B"})
	net := b.Doc.NetNamed("GND").ID
	for i := range 3000 {
		y := int64(20_000_000 + i*1000)
		b.Doc.Put(&design.Track{ID: b.Doc.NewID(), Layer: b.Doc.Board.Bottom(), A: geom.Pt(0, y), B: geom.Pt(9, y), Width: 500, Net: net})
	}
	b = workbench.Open(b.Doc, 0)
	b.Settle()
	cs, err := b.Edit(&edit.RenameNet{Net: "GND", To: "VSS"})
	require.NoError(t, err)
	text, err := json.Marshal(cs)
	require.NoError(t, err)
	assert.Less(t, len(text), 2000, "%s", text)
	assert.Equal(t, map[string]int{"VSS": 3000}, copper(b.Doc))
	assert.Equal(t, "VSS", netOf(b.Doc, "R1", "1"))
	d := b.Settle()
	assert.Empty(t, b.Differences(), "circuit and board agree")
	assert.NotContains(t, d.Links, net, "its links are the same")
	assert.Contains(t, d.Mended, "links GND", "their finding names it")
	assert.NotNil(t, findingOf(b, "links VSS"))
	assert.Nil(t, findingOf(b, "links GND"))
	b.Apply(cs.Inverted())
	b.Settle()
	assert.Equal(t, "GND", netOf(b.Doc, "R2", "1"))
	assert.NotNil(t, findingOf(b, "links GND"))
	_ = do
}

func findingOf(b *workbench.Bench, key string) any {
	for _, f := range b.Findings() {
		if f.Key == key {
			return f
		}
	}
	return nil
}

// Where two nets of the circuit become one, the copper of the lesser goes over to the greater, which
// takes the name; only the lesser's is touched.
func TestCarryingNetsThatCameTogether(t *testing.T) {
	for _, kept := range []string{"A", "B"} { // which of the names the joined net bears
		b, do := chain(t, [2]string{"A", "X"}, [2]string{"A", "Y"}, [2]string{"B", "Z"}, [2]string{"B", "W"})
		lay := func(net, from, to string) {
			do(&edit.DrawTrack{Net: b.Doc.NetNamed(net).ID, Runs: []edit.Run{{Layer: b.Doc.Board.Top(), Path: geom.Corners(pad(b, from, "1"), pad(b, from, "1").Add(geom.Pt(0, 3_000_000)), pad(b, to, "1").Add(geom.Pt(0, 3_000_000)), pad(b, to, "1"))}}})
		}
		lay("A", "R1", "R2")
		lay("B", "R3", "R4")
		// B has more copper than A
		do(&edit.DrawTrack{Net: b.Doc.NetNamed("B").ID, Runs: []edit.Run{{Layer: b.Doc.Board.Top(), Path: geom.Corners(pad(b, "R4", "1"), pad(b, "R4", "1").Add(geom.Pt(0, -3_000_000)))}}})
		big := b.Doc.NetNamed("B").ID
		other := map[string]string{"A": "B", "B": "A"}[kept]
		do(&edit.RenameNet{Net: other, To: kept, Join: true})
		cs := do(&edit.Carry{All: true})
		assert.Equal(t, map[string]int{kept: 7}, copper(b.Doc), kept)
		for _, part := range []string{"R1", "R2", "R3", "R4"} {
			assert.Equal(t, kept, netOf(b.Doc, part, "1"))
		}
		assert.Equal(t, big, b.Doc.NetNamed(kept).ID, "the net with more copper stays, whatever it is called")
		touched := 0
		for _, c := range cs {
			if c.Kind == design.KindTrack {
				touched++
			}
		}
		assert.Equal(t, 3, touched, "the lesser's tracks alone")
		assert.Empty(t, b.Differences())
		require.NoError(t, b.Doc.Whole())
		require.NoError(t, b.Doc.Distinct())
		for _, f := range b.Findings() {
			assert.NotEqual(t, "clearance", f.Kind, f.Text)
		}
		b.Apply(cs.Inverted())
		assert.Equal(t, map[string]int{"A": 3, "B": 4}, copper(b.Doc), "and back")
	}
}

// Where a net of the circuit falls apart, the copper between pads that left goes with them; what holds
// both still together is found.
func TestCarryingANetThatFellApart(t *testing.T) {
	b, do := chain(t, [2]string{"A", "X"}, [2]string{"A", "Y"}, [2]string{"A", "Z"}, [2]string{"A", "W"})
	lay := func(from, to string) {
		do(&edit.DrawTrack{Net: b.Doc.NetNamed("A").ID, Runs: []edit.Run{{Layer: b.Doc.Board.Top(), Path: geom.Corners(pad(b, from, "1"), pad(b, from, "1").Add(geom.Pt(0, 3_000_000)), pad(b, to, "1").Add(geom.Pt(0, 3_000_000)), pad(b, to, "1"))}}})
	}
	lay("R1", "R2")
	lay("R3", "R4")
	for l := range b.Doc.Labels.All() {
		if l.Name == "A" && l.At.X > 30*g {
			do(&edit.SetName{ID: l.ID, Name: "B"})
		}
	}
	do(&edit.Carry{All: true})
	assert.Equal(t, map[string]int{"A": 3, "B": 3}, copper(b.Doc))
	assert.Equal(t, []string{"A", "A", "B", "B"}, []string{netOf(b.Doc, "R1", "1"), netOf(b.Doc, "R2", "1"), netOf(b.Doc, "R3", "1"), netOf(b.Doc, "R4", "1")})
	for _, f := range b.Findings() {
		assert.NotEqual(t, "clearance", f.Kind, f.Text)
	}
	// R2 goes to B as well: its track holds A and B together, stays A's and is said
	for l := range b.Doc.Labels.All() {
		if l.Name == "A" && l.At.X > 10*g {
			do(&edit.SetName{ID: l.ID, Name: "B"})
		}
	}
	do(&edit.Carry{All: true})
	assert.Equal(t, map[string]int{"A": 3, "B": 3}, copper(b.Doc))
	short := 0
	for _, f := range b.Findings() {
		if f.Kind == "clearance" {
			short++
		}
	}
	assert.Equal(t, 1, short, "the track of A that ends on R2's pad")
}

// What is said of a net stays with it when the board calls it otherwise for a while.
func TestWhatIsSaidOfANetThatIsRenamedByItsLabel(t *testing.T) {
	b, do := chain(t, [2]string{"A", "X"}, [2]string{"A", "Y"})
	do(&edit.SetNets{Nets: []string{"A"}, Class: ptr("power")})
	id := b.Doc.NetNamed("A").ID
	for l := range b.Doc.Labels.All() {
		if l.Name == "A" {
			do(&edit.SetName{ID: l.ID, Name: "C"})
		}
	}
	do(&edit.SetNets{Nets: []string{"C"}, Current: ptr(int64(7))})
	do(&edit.Carry{All: true})
	n := b.Doc.NetNamed("C")
	require.NotNil(t, n)
	assert.Equal(t, id, n.ID, "the copper's net is renamed")
	assert.Equal(t, "power", n.Class)
	assert.EqualValues(t, 7, n.Current, "what was said under either name")
	assert.Nil(t, b.Doc.NetNamed("A"))
	assert.Len(t, b.Doc.Nets, 3)
}
