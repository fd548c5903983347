package check_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
	"goldentrace/core/units"
)

const mm = 1_000_000

// What is said, where, and of which objects, for each kind of fault.
func TestFindingsInWords(t *testing.T) {
	board := bare()
	at, net := board.Board.At, func(name string) design.ID { return synthetic.Net(board, name) }
	net("A")
	net("B")
	track := func(id design.ID, layer int, a, b geom.Point, of string) *design.Track {
		return &design.Track{ID: id, Layer: at(layer), A: a, B: b, Width: 300_000, Net: net(of)}
	}
	for name, c := range map[string]struct {
		put     []design.Object
		text    string
		rule    string
		at      geom.Point
		objects []design.ID
	}{
		"apart": {[]design.Object{
			track(50, 2, geom.Pt(10*mm, 10*mm), geom.Pt(20*mm, 10*mm), "A"), track(51, 2, geom.Pt(15*mm, 10_400_000), geom.Pt(15*mm, 20*mm), "")},
			"Track (A) and track are 0.1 mm apart.", "Clearance", geom.Pt(15*mm, 10_200_000), []design.ID{50, 51}},
		"touching": {[]design.Object{
			track(50, 0, geom.Pt(10*mm, 10*mm), geom.Pt(20*mm, 10*mm), "A"), track(51, 0, geom.Pt(15*mm, 5*mm), geom.Pt(15*mm, 20*mm), "B")},
			"Track (A) and track (B) touch.", "Clearance", geom.Pt(15*mm, 10*mm), []design.ID{50, 51}},
		"just touching": {[]design.Object{
			track(50, 0, geom.Pt(10*mm, 10*mm), geom.Pt(20*mm, 10*mm), "A"),
			track(51, 0, geom.Pt(10*mm, 10_300_000), geom.Pt(20*mm, 10_300_000), "B")},
			"Track (A) and track (B) touch.", "Clearance", geom.Pt(10*mm, 10_150_000), []design.ID{50, 51}},
		"holes": {[]design.Object{
			&design.Via{ID: 50, At: geom.Pt(10*mm, 10*mm), Diameter: 800_000, Hole: 400_000, From: at(0), To: at(3), Net: net("A")},
			&design.Via{ID: 51, At: geom.Pt(10_500_000, 10*mm), Diameter: 800_000, Hole: 400_000, From: at(0), To: at(3), Net: net("A")}},
			"The holes of via (A) and via (A) are 0.1 mm apart.", "Clearance between holes", geom.Pt(10_250_000, 10*mm), []design.ID{50, 51}},
		"a screw hole": {[]design.Object{
			&design.Hole{ID: 50, At: geom.Pt(10*mm, 10*mm), Diameter: 3 * mm}, track(51, 3, geom.Pt(5*mm, 11_900_000), geom.Pt(20*mm, 11_900_000), "B")},
			"Hole and track (B) are 0.25 mm apart.", "Clearance to the edge", geom.Pt(10*mm, 11_625_000), []design.ID{50, 51}},
		"narrow": {[]design.Object{&design.Track{ID: 50, Layer: at(0), A: geom.Pt(10*mm, 10*mm), B: geom.Pt(20*mm, 10*mm), Width: 100_000, Net: net("A")}},
			"A track (A) is 0.1 mm wide.", "Least track width", geom.Pt(15*mm, 10*mm), []design.ID{50}},
		"small": {[]design.Object{&design.Via{ID: 50, At: geom.Pt(10*mm, 10*mm), Diameter: 800_000, Hole: 200_000, From: at(0), To: at(3), Net: net("A")}},
			"The hole of via (A) is 0.2 mm wide.", "Least hole", geom.Pt(10*mm, 10*mm), []design.ID{50}},
		"the ring": {[]design.Object{&design.Via{ID: 50, At: geom.Pt(10*mm, 10*mm), Diameter: 600_000, Hole: 400_000, From: at(0), To: at(3)}},
			"The copper ring around the hole of via is 0.1 mm.", "Least ring", geom.Pt(10*mm, 10*mm), []design.ID{50}},
		"the edge": {[]design.Object{track(50, 0, geom.Pt(350_000, 10*mm), geom.Pt(350_000, 20*mm), "A")},
			"Track (A) is 0.2 mm from the board's edge.", "Clearance to the edge", geom.Pt(0, 10*mm), []design.ID{50}},
		"beyond the edge": {[]design.Object{track(50, 0, geom.Pt(-5*mm, 10*mm), geom.Pt(-5*mm, 20*mm), "A")},
			"Track (A) reaches beyond the board's edge.", "Clearance to the edge", geom.Point{}, []design.ID{50}},
	} {
		d := bare()
		for _, n := range board.Nets {
			d.Put(n)
		}
		for _, o := range c.put {
			d.Put(o)
		}
		list := check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found
		require.Len(t, list, 1, name)
		for _, f := range list {
			assert.Equal(t, c.text, f.Text, name)
			assert.Equal(t, c.rule, f.Rule, name)
			assert.Equal(t, check.Fault, f.Severity, name)
			assert.Equal(t, "board", f.Stage, name)
			assert.Equal(t, c.objects, f.Objects, name)
			assert.GreaterOrEqual(t, f.Measured, int64(0), name)
			if name == "beyond the edge" {
				assert.Contains(t, []int64{0, -5 * mm}, f.At.X)
			} else {
				assert.InDelta(t, c.at.X, f.At.X, 1, name)
				assert.InDelta(t, c.at.Y, f.At.Y, 1, name)
			}
		}
	}
}

// A finding keeps its key as long as it is about the same pieces, pads by their number in the footprint.
func TestKeysNameThePieces(t *testing.T) {
	d := bare()
	d.SetBase(map[design.RuleKind]int64{design.WithinPart: 200_000})
	d.Put(footprint())
	d.Put(&design.Placed{ID: 50, Part: 1000, Designator: "U1", Footprint: "F", At: geom.Pt(20*mm, 20*mm), Nets: bear(d, pads("A", "B"))})
	d.Put(&design.Track{ID: 60, Layer: d.Board.Top(), A: geom.Pt(19_400_000, 20*mm), B: geom.Pt(10*mm, 20*mm), Width: 300_000, Net: synthetic.Net(d, "C")})
	var keys []string
	for k := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
		keys = append(keys, k)
	}
	assert.ElementsMatch(t, []string{"clearance 50.0 50.1", "clearance 50.0 60"}, keys)
}

// Copper whose edge is that of the board lies no way beyond it.
func TestOnTheEdge(t *testing.T) {
	d := bare()
	d.Put(&design.Track{ID: 50, Layer: d.Board.Top(), A: geom.Pt(150_000, 10*mm), B: geom.Pt(150_000, 20*mm), Width: 300_000, Net: synthetic.Net(d, "A")})
	for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
		assert.Equal(t, "Track (A) is 0 mm from the board's edge.", f.Text)
	}
}

// A pad's hole that lies beside its copper has no ring at all.
func TestHolesThatBreakOut(t *testing.T) {
	ringOf := func(p design.Pad) string {
		d := bare()
		f := footprint()
		f.Pads = []design.Pad{p}
		d.Put(f)
		d.Put(&design.Placed{ID: 50, Part: 1000, Designator: "U1", Footprint: "F", At: geom.Pt(20*mm, 20*mm), Nets: bear(d, pads("A"))})
		list := found(d)
		if len(list) == 0 {
			return ""
		}
		return list[0]
	}
	assert.Equal(t, "", ringOf(design.Pad{Number: "1", Form: "rect", Size: geom.Pt(2*mm, mm), Hole: 700_000}))
	assert.Equal(t, "ring 100000 of 125000", ringOf(design.Pad{Number: "1", Form: "rect", Size: geom.Pt(2*mm, mm), Hole: 800_000}))
	assert.Equal(t, "ring -100000 of 125000", ringOf(design.Pad{Number: "1", Form: "rect", Size: geom.Pt(2*mm, mm), Hole: 1_200_000}))
	assert.Equal(t, "ring 100000 of 125000", ringOf(design.Pad{Number: "1", Form: "oval", Size: geom.Pt(2*mm, mm), Hole: 800_000}))
	assert.Equal(t, "ring 100000 of 125000", ringOf(design.Pad{Number: "1", Form: "round", Size: geom.Pt(mm, mm), Hole: 800_000}))
}

func TestOpenLinksInWords(t *testing.T) {
	link := layout.Link{A: geom.Pt(2*mm, 4*mm), B: geom.Pt(6*mm, 4*mm), FromName: "pad R1.1", ToName: "pad C2.2"}
	assert.Nil(t, check.OpenLinks("GND", nil))
	f := check.OpenLinks("GND", []layout.Link{link})
	assert.Equal(t, "GND is open between pad R1.1 and pad C2.2.", f.Text)
	assert.Equal(t, geom.Pt(4*mm, 4*mm), f.At)
	assert.Equal(t, check.ToDo, f.Severity)
	assert.False(t, f.Open(), "it is still to be done, which is no trouble")
	f = check.OpenLinks("GND", []layout.Link{link, link, link})
	assert.Equal(t, "GND is open in 3 places, first between pad R1.1 and pad C2.2.", f.Text)
	assert.Equal(t, "links GND", f.Key)
}

// Where circuit and board differ, the finding lies where there is something to be seen: on the
// board, else in the circuit.
func TestDifferencesAsFindings(t *testing.T) {
	d := design.New("drift")
	part := &design.Part{ID: 60, Sheet: 10, Designator: "R1", At: geom.Pt(7, 8)}
	d.Put(part)
	diffs := []layout.Difference{
		{Key: "a", Kind: "value", Text: "R2 is 1k.", On: 50, Part: 60},
		{Key: "b", Kind: "missing", Text: "R1 is new.", Part: 60, Path: "5/"},
		{Key: "c", Kind: "none", Text: "R1 has no footprint.", Part: 60},
		{Key: "d", Kind: "net", Text: "A is called B.", On: 999, Part: 999},
	}
	assert.Empty(t, check.Drift(d, diffs), "a board on which nothing was ever put is not begun")
	d.Put(&design.Placed{ID: 50, Part: 61, Designator: "R2", At: geom.Pt(3, 4), Nets: map[string]design.ID{}})
	list := check.Drift(d, diffs)
	require.Len(t, list, 4)
	assert.Equal(t, check.Finding{Key: "drift a", Kind: "drift", Severity: check.Warning, Rule: "The board agrees with the circuit", Stage: "board",
		Text: "Not carried to the board: R2 is 1k.", At: geom.Pt(3, 4), Objects: []design.ID{50}}, list[0])
	assert.Equal(t, check.Finding{Key: "drift b", Kind: "drift", Severity: check.Warning, Rule: "The board agrees with the circuit", Stage: "circuit",
		Text: "Not carried to the board: R1 is new.", At: geom.Pt(7, 8), Sheet: 10, Path: "5/", Objects: []design.ID{60}}, list[1])
	assert.Equal(t, check.Fault, list[2].Severity, "a part without a footprint cannot be carried at all")
	assert.Equal(t, "R1 has no footprint.", list[2].Text)
	assert.Equal(t, "circuit", list[2].Stage)
	assert.Empty(t, list[3].Objects)
}

// An excuse holds while the finding says what it said; else it has lapsed, and that is said.
func TestExcusesHoldAsLongAsTheFindingStays(t *testing.T) {
	f := &check.Finding{Kind: "clearance", Severity: check.Fault, Text: "A and B are 0.1 mm apart.", Measured: 100_000}
	f.Hold(nil, 7)
	was := f.Fingerprint
	assert.NotEmpty(t, was)
	assert.True(t, f.Open())
	e := &design.Excuse{Reason: "by hand", Fingerprint: was}
	f.Hold(e, 7)
	assert.Equal(t, "by hand", f.Excused)
	assert.False(t, f.Open())
	for name, change := range map[string]func(*check.Finding){
		"closer":       func(f *check.Finding) { f.Measured-- },
		"other words":  func(f *check.Finding) { f.Text += "." },
		"another kind": func(f *check.Finding) { f.Kind = "edge" },
	} {
		g := *f
		change(&g)
		g.Hold(e, 7)
		assert.Empty(t, g.Excused, name)
		assert.Equal(t, "by hand", g.Lapsed, name)
		assert.True(t, g.Open(), name)
	}
	f.Hold(e, 8)
	assert.Equal(t, "by hand", f.Lapsed, "what it is about moved")
	f.Hold(e, 7)
	assert.Equal(t, "by hand", f.Excused, "back as it was, the excuse holds again")
	earlier := &design.Excuse{Reason: "long ago", Fingerprint: strings.Split(was, "-")[0]}
	f.Hold(earlier, 8)
	assert.Equal(t, "long ago", f.Excused, "excuses of earlier versions hold as they did")
	f.Hold(e, 7)
	assert.Empty(t, f.Lapsed)
	f.Hold(nil, 7)
	assert.True(t, f.Open())
	a := check.Electrical(circuit.Finding{Key: "k", Kind: "undriven", Severity: "warning", Text: "x", About: "R1"})
	b := check.Electrical(circuit.Finding{Key: "k", Kind: "undriven", Severity: "fault", Text: "x", About: "R2"})
	a.Hold(nil, 7)
	b.Hold(nil, 7)
	assert.NotEqual(t, a.Fingerprint, b.Fingerprint, "what it is about counts too")
	assert.Equal(t, []check.Severity{check.Warning, check.Fault}, []check.Severity{a.Severity, b.Severity})
	assert.Equal(t, "circuit", a.Stage)
}

func TestOrderOfFindings(t *testing.T) {
	var list []*check.Finding
	for _, x := range []string{"todo b", "warning k10", "fault z", "warning k9", "fault a", "todo a"} {
		var f check.Finding
		_, err := fmt.Sscanf(x, "%s %s", &f.Severity, &f.Key)
		require.NoError(t, err)
		list = append(list, &f)
	}
	check.Sort(list)
	var keys []string
	for _, f := range list {
		keys = append(keys, f.Key)
	}
	assert.Equal(t, []string{"a", "z", "a", "b", "k9", "k10"}, keys)
}

// A build that is not symmetric, or not as thick as is wanted within a tenth, is said.
func TestStackFindings(t *testing.T) {
	said := func(wanted int64, thick int64) (out []string) {
		d := bare()
		b := *d.Board
		b.Wanted = wanted
		b.Stack = slices.Clone(b.Stack)
		for i := range b.Stack {
			if b.Stack[i].ID == b.Top() {
				b.Stack[i].Thickness = thick
			}
		}
		d.Put(&b)
		x := layout.NewIndex(d)
		board := check.NewBoard(d, x, rules.Of(d))
		board.All()
		for _, f := range board.Found {
			if f.Kind == "stack" {
				assert.Equal(t, check.Warning, f.Severity)
				out = append(out, f.Text)
			}
		}
		slices.Sort(out)
		return out
	}
	d := bare()
	low, whole := d.Board.Layer(d.Board.Bottom()).Thickness, d.Board.Thickness()
	assert.Empty(t, said(0, low))
	assert.Equal(t, []string{fmt.Sprintf("The build is not symmetric, so that the board may warp: %s is 0.07 mm thick, %s on the other side 0.035 mm.", d.Board.Layer(d.Board.Top()).Name, d.Board.Layer(d.Board.Bottom()).Name)}, said(0, 70_000))
	assert.Empty(t, said(whole*100/91, low), "a tenth of what is wanted is the tolerance")
	assert.Equal(t, []string{fmt.Sprintf("The board is %s thick, and %s is wanted.", units.Text(whole), units.Text(whole*100/89))}, said(whole*100/89, low))
	assert.Len(t, said(whole*100/111, low), 1)
	assert.Empty(t, said(whole*100/109, low))
}
