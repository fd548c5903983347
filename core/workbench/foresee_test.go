package workbench_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

func TestWhatWouldBeJoinedInWords(t *testing.T) {
	join := func(meant bool, nets ...string) circuit.Join { return circuit.Join{Nets: nets, Meant: meant} }
	for want, o := range map[string]circuit.Outcome{
		"":                                     {},
		"This would join GND and VIN.":         {Joined: []circuit.Join{join(false, "GND", "VIN")}},
		"This would join A, B and C.":          {Joined: []circuit.Join{join(false, "A", "B", "C"), join(true, "D", "E")}},
		"This would join A, B, C, D, E and F.": {Joined: []circuit.Join{join(false, "A", "B", "C", "D", "E", "F")}},
		"This would join A, B, C, D, E and 2 more.":  {Joined: []circuit.Join{join(false, "A", "B", "C", "D", "E", "F", "G")}},
		"This would join A and B, and part C and E.": {Joined: []circuit.Join{join(false, "A", "B")}, Parted: []circuit.Part{{Net: "C"}, {Net: "D", Meant: true}, {Net: "E"}}},
		"This would part VIN.":                       {Parted: []circuit.Part{{Net: "VIN"}}},
		"This would join A and B, and join C and D.": {Joined: []circuit.Join{join(false, "A", "B"), join(false, "C", "D")}},
	} {
		assert.Equal(t, want, workbench.Sentence(o))
	}
}

// two is a sheet with two wires of two nets, one above the other, each with a part at its end.
func two(t *testing.T) (b *workbench.Bench, sheet design.ID) {
	t.Helper()
	d := design.New("two")
	b = workbench.Open(d, 0)
	sheet = d.SheetsInOrder()[0].ID
	for _, c := range []edit.Command{
		&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(0, 0), geom.Pt(20_000_000, 0)}},
		&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(0, 10_000_000), geom.Pt(20_000_000, 10_000_000)}},
		&edit.PlaceLabel{Sheet: sheet, Name: "A", At: geom.Pt(0, 0)},
		&edit.PlaceLabel{Sheet: sheet, Name: "B", At: geom.Pt(0, 10_000_000)},
	} {
		_, err := b.Edit(c)
		require.NoError(t, err)
		b.Settle()
	}
	return b, sheet
}

// bridge is a wire from the one to the other, which joins two nets that bear names.
func bridge(sheet design.ID) edit.Command {
	return &edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(10_000_000, 0), geom.Pt(10_000_000, 10_000_000)}}
}

func named(b *workbench.Bench) []string {
	var out []string
	for _, n := range b.All().Nets {
		if n.Named {
			out = append(out, n.Name)
		}
	}
	return out
}

var joined = circuit.Outcome{Joined: []circuit.Join{{Nets: []string{"A", "B"}}}, Parted: []circuit.Part{}, Onto: []string{}}

// What is foreseen is what is done later, and foreseeing leaves everything as it was.
func TestForeseeingDoesNothing(t *testing.T) {
	b, sheet := two(t)
	before, next, rev, all := b.Fingerprint(), b.Doc.Next, b.Rev, text(b.All())
	cs, said, err := b.Foresee(bridge(sheet))
	require.NoError(t, err)
	assert.Len(t, cs, 1)
	assert.True(t, said.Same(joined), "%+v", said)
	assert.False(t, said.Meant())
	assert.Equal(t, before, b.Fingerprint())
	assert.Equal(t, next, b.Doc.Next)
	assert.Equal(t, rev, b.Rev)
	assert.Equal(t, all, text(b.All()), "nets, findings and all")
	told := b.Settle()
	assert.Empty(t, told.Nets, "nothing is told to anybody")
	assert.Empty(t, told.Findings)
	_, _, err = b.Foresee(&edit.DrawWire{Sheet: 999, Path: []geom.Point{geom.Pt(0, 0), geom.Pt(10, 0)}})
	assert.Error(t, err)
	assert.Equal(t, all, text(b.All()))
}

// A command that joins nets is not done unless somebody agreed to exactly that.
func TestNothingIsJoinedUnasked(t *testing.T) {
	b, sheet := two(t)
	before, next, all := b.Fingerprint(), b.Doc.Next, text(b.All())
	other := circuit.Outcome{Joined: []circuit.Join{{Nets: []string{"A", "C"}}}}
	for _, agreed := range []*circuit.Outcome{nil, {}, &other} {
		cs, out, err := b.Try(bridge(sheet), agreed)
		var asks *workbench.Asks
		require.ErrorAs(t, err, &asks)
		assert.Equal(t, "This would join A and B.", err.Error())
		assert.True(t, asks.Outcome.Same(out))
		assert.Empty(t, cs)
		assert.Equal(t, []any{before, next, all}, []any{b.Fingerprint(), b.Doc.Next, text(b.All())})
	}
	cs, out, err := b.Try(bridge(sheet), &joined)
	require.NoError(t, err)
	assert.Len(t, cs, 1)
	assert.True(t, out.Same(joined))
	assert.Equal(t, []string{"A"}, named(b), "the name that comes first is the net's")
	assert.Equal(t, text(workbench.Open(b.Doc.Snapshot(), b.Rev).All()), text(b.All()), "and all that follows from it is so")

	// parting it again is what removing a wire is for, so that nobody is asked
	var wire design.ID
	for w := range b.Doc.Wires.All() {
		if w.A.X == w.B.X {
			wire = w.ID
		}
	}
	_, out, err = b.Try(&edit.Remove{IDs: []design.ID{wire}}, nil)
	require.NoError(t, err)
	assert.True(t, out.Meant())
	require.Len(t, out.Parted, 1)
	assert.Equal(t, []string{"A", "B"}, named(b))
	assert.Equal(t, text(workbench.Open(b.Doc.Snapshot(), b.Rev).All()), text(b.All()))
}

// A step of the journal that would leave something without what it stands on is refused whole.
func TestAStepThatLeavesNothingWholeIsRefused(t *testing.T) {
	b, sheet := two(t)
	before, all := b.Fingerprint(), text(b.All())
	s := b.Doc.Sheets[sheet]
	gone := edit.ChangeSet{{ID: s.ID, Kind: design.KindSheet, Before: s}}
	assert.Error(t, b.Step(gone), "the wires on it would stand nowhere")
	assert.Equal(t, []string{before, all}, []string{b.Fingerprint(), text(b.All())})
	cs, err := b.Edit(bridge(sheet))
	require.NoError(t, err)
	require.NoError(t, b.Step(cs.Inverted()))
	assert.Equal(t, before, b.Fingerprint())
	assert.Equal(t, []string{"A", "B"}, named(b))
}

// What is counted and listed is what the demo projects were drawn with.
func TestWhatTheBenchCounts(t *testing.T) {
	d, err := demo.Build("Moth Lamp, first try")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	b.Settle()
	assert.Equal(t, len(d.Parts), b.Parts(), "every part is a package of its own")
	assert.NotEmpty(t, b.Links(), "it was never routed")
	total := 0
	for _, l := range b.All().Links {
		total += len(l.Come)
	}
	assert.Len(t, b.Links(), total)
	open := len(b.OpenFindings())
	notes := 0
	for _, f := range b.Findings() {
		if f.Severity == check.Note {
			notes++
		}
	}
	assert.Equal(t, open+notes, len(b.Findings()))
	require.NotEmpty(t, b.Findings())
	f := b.Findings()[0]
	_, err = b.Edit(&edit.Excuse{Key: f.Key, Fingerprint: f.Fingerprint, Text: f.Text, Reason: "so wanted"})
	require.NoError(t, err)
	assert.Len(t, b.OpenFindings(), open-1)
	assert.Len(t, b.Findings(), open+notes, "what is excused is listed still")

	assert.Empty(t, b.Differences())
	var part *design.Part
	for part = range d.Parts.All() {
		break
	}
	_, err = b.Edit(&edit.SetPart{ID: part.ID, Value: ptr("4k7x")})
	require.NoError(t, err)
	require.Len(t, b.Differences(), 1)
	assert.Contains(t, b.Differences()[0].Text, "4k7x")
	before := text(b.Findings())
	assert.Equal(t, before, text(workbench.Open(d.Snapshot(), b.Rev).Findings()), "checking all over again finds the same")
}

func ptr[T any](v T) *T { return &v }

// Each edit, its undoing too, is a revision of its own, which what follows from it names.
func TestRevisionsAreCounted(t *testing.T) {
	b, sheet := two(t)
	rev := b.Rev
	cs, err := b.Edit(&edit.PlaceLabel{Sheet: sheet, Name: "C", At: geom.Pt(50_000_000, 0)})
	require.NoError(t, err)
	assert.Equal(t, rev+1, b.Rev)
	assert.Equal(t, rev+1, b.Settle().Rev)
	b.Apply(cs.Inverted())
	assert.Equal(t, rev+2, b.Settle().Rev)
	_, _, err = b.Try(bridge(sheet), nil)
	assert.Error(t, err)
	assert.Equal(t, rev+2, b.Rev, "what was only asked about is none")
}

// A part that is turned in the hand shows the links it would have there.
func TestTurnedLinksAreTheRealOnes(t *testing.T) {
	d, err := demo.Build("Moth Lamp, first try")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	b.Settle()
	sum := func(l []layout.Link) (s float64) {
		for _, x := range l {
			s += x.A.Dist(x.B)
		}
		return s
	}
	for p := range d.Placed.All() {
		for _, angle := range []int32{90_000, -90_000, 37_000} {
			pivot := p.At.Add(geom.Pt(5_000_000, 0))
			said := b.Drag([]design.ID{p.ID}, geom.Point{}, pivot, angle, edit.TracksStay)
			cs, err := b.Edit(&edit.TurnPlaced{IDs: []design.ID{p.ID}, Pivot: pivot, Angle: angle})
			require.NoError(t, err)
			b.Settle()
			got := b.All()
			for net, links := range said.Links {
				assert.InDelta(t, sum(got.Links[net].Come), sum(links), 2, "%s of %s by %d", net, p.Designator, angle)
			}
			b.Apply(cs.Inverted())
			b.Settle()
		}
	}
}

// A board that is not begun differs from nothing; one that is says what it lacks.
func TestDifferencesBeginWithTheBoard(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	kinds := func(b *workbench.Bench) map[string]int {
		out := map[string]int{}
		for _, f := range b.Findings() {
			out[f.Kind]++
		}
		return out
	}
	for p := range d.Placed.All() { // as if nothing had been carried over yet
		d.Remove(design.KindPlaced, p.ID)
	}
	b := workbench.Open(d, 0)
	assert.Zero(t, kinds(b)["drift"])
	all := len(b.Differences())
	require.Greater(t, all, 10)
	cs, err := b.Edit(&edit.Carry{Keys: []string{b.Differences()[0].Key}})
	require.NoError(t, err)
	assert.Len(t, d.Placed, 1)
	assert.Equal(t, len(b.Differences()), kinds(b)["drift"])
	assert.Equal(t, all-1, kinds(b)["drift"])
	b.Apply(cs.Inverted())
	assert.Zero(t, kinds(b)["drift"], "taken back, it is not begun again")
}

// A label at the pin of a block that bears the same name asks nothing, though nets of that name are elsewhere on the sheet already; one of another
// name does.
func TestALabelAtAPinOfItsName(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	b := workbench.Open(d, 1)
	var blocks []*design.SheetBlock
	for x := range d.Blocks.All() {
		blocks = append(blocks, x)
	}
	sheet := blocks[0].Sheet
	var drawn []design.ID
	for o := range d.All() {
		switch o := o.(type) {
		case *design.Wire, *design.Label, *design.Tap, *design.Supply:
			if o.(design.OnSheet).SheetID() == sheet {
				drawn = append(drawn, o.ObjectID())
			}
		}
	}
	_, err = b.Edit(&edit.Remove{IDs: drawn})
	require.NoError(t, err)
	probes := 0
	at, net := map[string]geom.Point{}, map[string]string{}
	for _, block := range blocks {
		for _, pin := range block.Pins {
			at[block.Name+"/"+pin.Name] = block.PinAt(pin)
			if block.Name == "Clock, memory, relay" && pin.Name == "RELAY" {
				continue
			}
			_, _, err := b.Try(&edit.PlaceLabel{Sheet: sheet, Name: pin.Name, At: block.PinAt(pin)}, nil)
			if strings.HasPrefix(block.Name, "Probe") && probes > 0 { // four uses of one sheet: their outputs are no net of one name
				require.ErrorContains(t, err, "join")
				continue
			} else if strings.HasPrefix(block.Name, "Probe") {
				probes++
			}
			require.NoError(t, err, "%s of %s", pin.Name, block.Name)
		}
	}
	for name, p := range at {
		if n := b.Nets().At(sheet, p, false); len(n) == 1 {
			net[name] = n[0]
		}
	}
	assert.Equal(t, net["Controller/ALARM"], net["Clock, memory, relay/ALARM"])
	assert.NotEqual(t, net["Controller/RELAY"], net["Clock, memory, relay/RELAY"])
	b.Settle()
	_, _, err = b.Try(&edit.PlaceLabel{Sheet: sheet, Name: "ALARM", At: at["Clock, memory, relay/RELAY"]}, nil)
	var asks *workbench.Asks
	require.ErrorAs(t, err, &asks)
	assert.Contains(t, err.Error(), "RELAY")
	_, _, err = b.Try(&edit.PlaceLabel{Sheet: sheet, Name: "RELAY", At: at["Clock, memory, relay/RELAY"]}, nil)
	require.NoError(t, err)
}
