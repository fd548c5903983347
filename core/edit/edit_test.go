package edit_test

import (
	"bytes"
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
)

const g = 2_500_000

func file(t require.TestingT, d *design.Doc) string {
	c := d.Snapshot()
	c.Next = 0 // ids that were taken and given back again do not count
	var b bytes.Buffer
	require.NoError(t, design.WriteFile(&b, "x", c))
	return b.String()[bytes.IndexByte(b.Bytes(), '\n'):]
}

// pair is two resistors and a lamp on a small board.
func pair(t require.TestingT) *workbench.Bench {
	b := workbench.Open(design.New("pair"), 0)
	sheet := b.Doc.SheetsInOrder()[0].ID
	for _, c := range []edit.Command{
		&edit.PlacePart{Sheet: sheet, Library: "Resistor 0805", At: geom.Pt(0, 0)},
		&edit.PlacePart{Sheet: sheet, Library: "Resistor 0805", At: geom.Pt(10*g, 0)},
		&edit.PlacePart{Sheet: sheet, Library: "LED", At: geom.Pt(20*g, 0)},
		&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(2*g, 0), geom.Pt(8*g, 0)}},
		&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(12*g, 0), geom.Pt(18*g, 0)}},
		&edit.SetOutline{Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(30_000_000, 0), geom.Pt(30_000_000, 20_000_000), geom.Pt(0, 20_000_000))},
		&edit.Carry{All: true},
	} {
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	for i, p := range []string{"R1", "R2", "D1"} {
		on := placed(b.Doc, p)
		_, err := b.Edit(&edit.MovePlaced{IDs: []design.ID{on.ID}, Step: geom.Pt(int64(5+9*i)*1_000_000, 10_000_000).Sub(on.At)})
		require.NoError(t, err)
	}
	return b
}

func placed(d *design.Doc, designator string) *design.Placed {
	for p := range d.Placed.All() {
		if p.Designator == designator {
			return p
		}
	}
	return nil
}

func partOf(d *design.Doc, designator string) *design.Part {
	for p := range d.Parts.All() {
		if p.Designator == designator {
			return p
		}
	}
	return nil
}

// Whatever is done, undoing it gives the same document again, and redoing the other; the
// change sets go through JSON as they do through the journal.
func TestUndoGivesTheSameAgain(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := pair(t)
		sheet := b.Doc.SheetsInOrder()[0].ID
		at := func(n string) geom.Point {
			return geom.Pt(rapid.Int64Range(-5, 25).Draw(t, n+"x")*g, rapid.Int64Range(-5, 5).Draw(t, n+"y")*g)
		}
		some := func(ids []design.ID) []design.ID {
			n := rapid.IntRange(1, len(ids)).Draw(t, "n")
			return ids[:n]
		}
		circuit, board := []design.ID{}, []design.ID{}
		for p := range b.Doc.Parts.All() {
			circuit = append(circuit, p.ID)
		}
		for w := range b.Doc.Wires.All() {
			circuit = append(circuit, w.ID)
		}
		for p := range b.Doc.Placed.All() {
			board = append(board, p.ID)
		}
		v := rapid.StringMatching(`[0-9]{1,3}k`).Draw(t, "value")
		commands := []edit.Command{
			&edit.MoveItems{IDs: some(circuit), Step: at("step")},
			&edit.TurnItems{IDs: some(circuit), Pivot: at("pivot"), Quarters: 1, Mirror: rapid.Bool().Draw(t, "mirror")},
			&edit.DrawWire{Sheet: sheet, Path: []geom.Point{at("a"), at("b"), at("c")}},
			&edit.Remove{IDs: some(circuit)},
			&edit.SetPart{ID: circuit[0], Value: &v},
			&edit.PlaceLabel{Sheet: sheet, Name: "N", At: at("label")},
			&edit.Carry{All: true},
			&edit.MovePlaced{IDs: some(board), Step: at("move")},
			&edit.TurnPlaced{IDs: some(board), Pivot: at("p"), Angle: rapid.Int32Range(1, 359_999).Draw(t, "angle")},
			&edit.FlipPlaced{IDs: some(board)},
			&edit.SetOutline{Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(9, 0), geom.Pt(0, 9))},
		}
		var done []edit.ChangeSet
		var states []string
		for range rapid.IntRange(1, 5).Draw(t, "edits") {
			before := file(t, b.Doc)
			cs, err := b.Edit(rapid.SampledFrom(commands).Draw(t, "command"))
			if err != nil {
				assert.Equal(t, before, file(t, b.Doc), "a refused edit changes nothing: %v", err)
				continue
			}
			data, err := json.Marshal(cs)
			require.NoError(t, err)
			var read edit.ChangeSet
			require.NoError(t, json.Unmarshal(data, &read))
			done, states = append(done, read), append(states, before)
		}
		last := file(t, b.Doc)
		for i := len(done) - 1; i >= 0; i-- {
			b.Apply(done[i].Inverted())
			assert.Equal(t, states[i], file(t, b.Doc))
		}
		for _, cs := range done {
			b.Apply(cs)
		}
		assert.Equal(t, last, file(t, b.Doc))
	})
}

// Tracks drawn by hand, wherever the hand goes, never break a clearance.
func TestTracksNeverBreakARule(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		b := pair(t)
		for range rapid.IntRange(1, 6).Draw(t, "tracks") {
			part := placed(b.Doc, rapid.SampledFrom([]string{"R1", "R2", "D1"}).Draw(t, "part"))
			pieces := b.Index().Of(part.ID)
			c := pieces[rapid.IntRange(0, len(pieces)-1).Draw(t, "pad")]
			if c.Net == 0 {
				continue
			}
			field := route.Field{Doc: b.Doc, Index: b.Index(), Rules: b.Rules()}
			to := geom.Pt(rapid.Int64Range(-2_000, 32_000).Draw(t, "x")*1000, rapid.Int64Range(-2_000, 22_000).Draw(t, "y")*1000)
			style := rapid.SampledFrom([]route.Corner{route.StraightFirst, route.DiagonalFirst, route.Square, route.Free}).Draw(t, "style")
			probe := field.Draw(c.At, to, style, 0, c.Net, 400_000)
			if len(probe.Path) < 2 {
				continue
			}
			runs := []edit.Run{{Layer: b.Doc.Board.Top(), Path: geom.Corners(probe.Path...)}}
			if rapid.Bool().Draw(t, "hop") {
				end := probe.Path[len(probe.Path)-1]
				below := field.Draw(end, geom.Pt(end.Y, end.X), style, 1, c.Net, 400_000)
				runs = append(runs, edit.Run{Layer: b.Doc.Board.Bottom(), Path: geom.Corners(below.Path...)})
			}
			if _, err := b.Edit(&edit.DrawTrack{Net: c.Net, Runs: runs}); err != nil && !strings.Contains(err.Error(), "no via fits") { // no via was promised
				assert.NotContains(t, err.Error(), "this would touch track", "the probe promised a free way")
			}
			for _, f := range b.OpenFindings() {
				assert.Contains(t, []string{"links", "openPin", "corner", "end", "unordered", "loop", "doubled"}, f.Kind, f.Text)
			}
		}
	})
}

// Carrying lists what differs and does only what was accepted.
func TestCarry(t *testing.T) {
	b := pair(t)
	do := func(c edit.Command) {
		t.Helper()
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	kinds := func() map[string]string {
		out := map[string]string{}
		for _, d := range b.Differences() {
			out[d.Kind] = d.Text
		}
		return out
	}
	require.Empty(t, kinds())
	r1 := placed(b.Doc, "R1")
	do(&edit.DrawTrack{Net: r1.Nets["2"], Runs: []edit.Run{{Layer: b.Doc.Board.Top(), Path: geom.Corners(r1.Pose().Apply(geom.Pt(950_000, 0)), geom.Pt(9_000_000, 10_000_000))}}})

	// a renamed net takes its track along, and its colour
	do(&edit.SetTint{Name: "R1.2", Colour: "#4ad6e0"})
	do(&edit.SetTint{Class: true, Name: "R1.2", Colour: "#ffffff"})
	sheet := b.Doc.SheetsInOrder()[0].ID
	do(&edit.PlaceLabel{Sheet: sheet, Name: "SENSE", At: geom.Pt(5*g, 0)})
	require.Equal(t, map[string]string{"rename": "The net R1.2 is called SENSE now."}, kinds())
	do(&edit.Carry{All: true})
	require.Empty(t, kinds())
	for tr := range b.Doc.Tracks.All() {
		assert.Equal(t, "SENSE", b.Doc.NetName(tr.Net))
	}
	assert.Equal(t, "SENSE", netOf(b.Doc, "R1", "2"))
	for o := range b.Doc.Tints.All() {
		assert.Equal(t, map[bool]string{true: "R1.2", false: "SENSE"}[o.Class], o.Name)
	}

	// values, footprints and new parts; what was placed stays where it is
	before := placed(b.Doc, "R2").At
	value, foot := "4k7", "0603"
	do(&edit.SetPart{ID: partOf(b.Doc, "R2").ID, Value: &value, Footprint: &foot})
	do(&edit.PlacePart{Sheet: sheet, Library: "Capacitor", At: geom.Pt(0, 10*g)})
	none := ""
	do(&edit.SetPart{ID: partOf(b.Doc, "D1").ID, Footprint: &none})
	assert.Equal(t, `R2 has the value "4k7" instead of "1k", and has the footprint 0603 instead of 0805.`, kinds()["change"])
	var only string
	for _, d := range b.Differences() {
		if d.Kind == "change" {
			only = d.Key
		}
	}
	do(&edit.Carry{Keys: []string{only}})
	assert.Equal(t, "0603", placed(b.Doc, "R2").Footprint)
	assert.Equal(t, before, placed(b.Doc, "R2").At)
	assert.Nil(t, placed(b.Doc, "C1"), "declined")
	do(&edit.Carry{All: true})
	c1 := placed(b.Doc, "C1")
	assert.Greater(t, c1.At.X, int64(30_000_000), "beside the outline")

	// gone from the circuit
	do(&edit.Remove{IDs: []design.ID{partOf(b.Doc, "C1").ID}})
	assert.Equal(t, "C1 is no longer in the circuit.", kinds()["remove"])
	do(&edit.Carry{All: true})
	assert.Nil(t, placed(b.Doc, "C1"))

	// a part without a footprint cannot be carried, and says so
	do(&edit.PlacePart{Sheet: sheet, Library: "Switch", At: geom.Pt(0, 20*g)})
	do(&edit.SetPart{ID: partOf(b.Doc, "S1").ID, Footprint: &none})
	assert.Contains(t, kinds()["none"], "S1 has no footprint and cannot be carried")
	_, err := b.Edit(&edit.Carry{All: true})
	assert.ErrorContains(t, err, "change nothing")
}

// The document after edits equals the document read back from its file.
func TestFileReadsBack(t *testing.T) {
	b := pair(t)
	var out bytes.Buffer
	require.NoError(t, design.WriteFile(&out, "Pair", b.Doc))
	name, d, err := design.ReadFile(bytes.NewReader(out.Bytes()))
	require.NoError(t, err)
	assert.Equal(t, "Pair", name)
	assert.Equal(t, b.Doc.Next, d.Next)
	assert.Equal(t, file(t, b.Doc), file(t, d))
	assert.Equal(t, b.Fingerprint(), workbench.Open(d, 0).Fingerprint())
}

// A locked part does not move; a turned pad lies where geometry says.
func TestBoardEdits(t *testing.T) {
	b := pair(t)
	r1 := placed(b.Doc, "R1")
	_, err := b.Edit(&edit.Lock{IDs: []design.ID{r1.ID}, Locked: true})
	require.NoError(t, err)
	_, err = b.Edit(&edit.MovePlaced{IDs: []design.ID{r1.ID}, Step: geom.Pt(1000, 0)})
	assert.ErrorContains(t, err, "R1 is locked")
	d1 := placed(b.Doc, "D1")
	a := int32(90_000)
	_, err = b.Edit(&edit.SetPlaced{ID: d1.ID, Angle: &a})
	require.NoError(t, err)
	pads := b.Index().Of(d1.ID)
	assert.Equal(t, geom.Pt(d1.At.X, d1.At.Y-1_270_000), pads[0].At, "pin 1, left of the middle, goes below it")
	_, err = b.Edit(&edit.FlipPlaced{IDs: []design.ID{placed(b.Doc, "R2").ID}})
	require.NoError(t, err)
	for _, c := range b.Index().Of(placed(b.Doc, "R2").ID) {
		assert.False(t, c.Has(0))
		assert.True(t, c.Has(1))
	}
	_, err = b.Edit(&edit.Remove{IDs: []design.ID{d1.ID}})
	assert.ErrorContains(t, err, "belongs to the circuit")
}

// netOf is the name of the net that a part's pad bears on the board.
func netOf(d *design.Doc, part, pad string) string { return d.NetName(placed(d, part).Nets[pad]) }
