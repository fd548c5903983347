package circuit_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// Numbers within names count as numbers, leading zeros do not.
func TestNaturalOrder(t *testing.T) {
	const nines, more = "R99999999999999999999", "R100000000000000000000" // beyond 64 bits
	list := []string{"U10", "R2", "R10", "r1", "R02", "", "R", "R1", "R2A", "R2B", "7", "10", nines, more}
	slices.SortStableFunc(list, circuit.CompareNatural)
	assert.Equal(t, []string{"", "7", "10", "R", "R1", "R2", "R02", "R2A", "R2B", "R10", nines, more, "U10", "r1"}, list)
	assert.Zero(t, circuit.CompareNatural("R1", "R1"))
	assert.Positive(t, circuit.CompareNatural("R10", "R9"))
	assert.Negative(t, circuit.CompareNatural("R9", "R10"))
	assert.Negative(t, circuit.CompareNatural("A9", "A9B"))
}

// Pins of a net are listed by their parts' designators: letters, then numbers as numbers, then pins.
func TestOrderOfPins(t *testing.T) {
	d := design.New("order")
	sheet := d.SheetsInOrder()[0].ID
	for i, name := range []string{"R10", "R9", "C3", "R100", "R2"} {
		at := geom.Pt(0, int64(i)*10_000_000)
		_, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: "Resistor", Designator: name, At: at})
		require.NoError(t, err)
	}
	var ends []geom.Point
	for p := range d.Parts.All() {
		ends = append(ends, circuit.PinPlace(p, d.SymbolOf(p).Pin("1")))
	}
	slices.SortFunc(ends, func(a, b geom.Point) int { return int(a.Y - b.Y) })
	_, err := edit.Apply(d, edit.Env{}, &edit.DrawWire{Sheet: sheet, Path: ends})
	require.NoError(t, err)
	nets := circuit.Find(d)
	var names []string
	for _, net := range nets.ByName {
		if len(net.Pins) < 5 {
			continue
		}
		for _, p := range net.Pins {
			names = append(names, d.Parts[p.Part].Designator)
		}
		assert.Equal(t, "C3.1", net.Name, "after its first pin")
	}
	assert.Equal(t, []string{"C3", "R2", "R9", "R10", "R100"}, names)
}

// Turned and mirrored about a place: x' = −x before the turn, by hand for all eight.
func TestMotions(t *testing.T) {
	pivot := geom.Pt(10, 20)
	label := func(m circuit.Motion) (geom.Point, int) {
		l := m(&design.Label{At: geom.Pt(13, 24), Turn: 0}).(*design.Label)
		return l.At.Sub(pivot), l.Turn
	}
	for _, c := range []struct {
		quarters int
		mirror   bool
		at       geom.Point
		turn     int
	}{
		{0, false, geom.Pt(3, 4), 0}, {1, false, geom.Pt(-4, 3), 1}, {2, false, geom.Pt(-3, -4), 2}, {3, false, geom.Pt(4, -3), 3},
		{0, true, geom.Pt(-3, 4), 2}, {1, true, geom.Pt(-4, -3), 3}, {2, true, geom.Pt(3, -4), 0}, {3, true, geom.Pt(4, 3), 1},
	} {
		at, turn := label(circuit.Turned(pivot, c.quarters, c.mirror))
		assert.Equal(t, c.at, at, "%d quarters, mirrored %v", c.quarters, c.mirror)
		assert.Equal(t, c.turn, turn, "%d quarters, mirrored %v", c.quarters, c.mirror)
	}
	at, turn := label(circuit.By(geom.Pt(1, -2)))
	assert.Equal(t, geom.Pt(4, 2), at)
	assert.Zero(t, turn)
	each := circuit.Each(map[design.ID]geom.Point{7: geom.Pt(5, 5)})
	assert.Equal(t, geom.Pt(5, 5), each(&design.Label{ID: 7}).(*design.Label).At)
	assert.Equal(t, geom.Pt(0, 0), each(&design.Label{ID: 8}).(*design.Label).At, "those without a step stay")
}

// found lists what the electrical check says of a kind.
func found(d *design.Doc, kind string) (out []string) {
	e := circuit.NewErc()
	e.Fill(d, circuit.Find(d))
	for _, f := range e.All() {
		if f.Kind == kind {
			out = append(out, f.Text)
		}
	}
	slices.Sort(out)
	return out
}

// What is said of inputs nothing drives, of supplies nothing feeds, and of units that are left.
func TestFindingsOfTheCircuitInWords(t *testing.T) {
	d := design.New("words")
	sheet := d.SheetsInOrder()[0].ID
	do := func(c edit.Command) {
		t.Helper()
		_, err := edit.Apply(d, edit.Env{}, c)
		require.NoError(t, err)
	}
	pin := func(designator, number string) geom.Point {
		p := d.Bearers(designator)[0]
		return circuit.PinPlace(p, d.SymbolOf(p).Pin(number))
	}
	do(&edit.PlacePart{Sheet: sheet, Library: "Bus driver", At: geom.Pt(0, 0)})
	do(&edit.PlacePart{Sheet: sheet, Library: "Bus driver", At: geom.Pt(100_000_000, 0)})
	do(&edit.PlaceSupply{Sheet: sheet, Name: "+5V", Shape: "bar", At: pin("U1", "8")})
	assert.Empty(t, found(d, "noFeed"), "a net of one pin is a finding of its own")
	do(&edit.PlacePart{Sheet: sheet, Library: "Capacitor", At: geom.Pt(200_000_000, 0)})
	do(&edit.PlaceSupply{Sheet: sheet, Name: "+5V", Shape: "bar", At: pin("C1", "1")})
	assert.Equal(t, []string{"+5V supplies U1.8 (VCC), but nothing feeds it."}, found(d, "noFeed"))
	do(&edit.PlaceSupply{Sheet: sheet, Name: "+5V", Shape: "bar", At: pin("U2", "8")})
	assert.Equal(t, []string{"+5V supplies U1.8 (VCC) and 1 more, but nothing feeds it."}, found(d, "noFeed"))
	do(&edit.PlaceSupply{Sheet: sheet, Name: "+5V", Shape: "bar", Feeds: true, At: geom.Pt(0, 100_000_000)})
	assert.Empty(t, found(d, "noFeed"))

	do(&edit.PlaceLabel{Sheet: sheet, Name: "TX", At: pin("U1", "4")})
	do(&edit.PlaceLabel{Sheet: sheet, Name: "TX", At: pin("U2", "4")})
	assert.Equal(t, []string{"Nothing drives TX; U1.4 (DI) is an input."}, found(d, "noDriver"))
	do(&edit.PlaceLabel{Sheet: sheet, Name: "TX", At: pin("U2", "1")})
	assert.Empty(t, found(d, "noDriver"), "the other's output drives it")

	do(&edit.PlacePart{Sheet: sheet, Library: "Dual amplifier, units", At: geom.Pt(0, 50_000_000)})
	assert.Equal(t, []string{"Of the package U3 the unit B, C is not placed."}, found(d, "unitLeft"))
	do(&edit.PlacePart{Sheet: sheet, Library: "Dual amplifier, units", At: geom.Pt(50_000_000, 50_000_000)})
	assert.Equal(t, []string{"Of the package U3 the unit C is not placed."}, found(d, "unitLeft"))
	do(&edit.PlacePart{Sheet: sheet, Library: "Dual amplifier, units", At: geom.Pt(100_000_000, 50_000_000)})
	assert.Empty(t, found(d, "unitLeft"))

	do(&edit.AddSheet{Name: "Below"})
	below := d.SheetsInOrder()[1].ID
	do(&edit.PlacePort{Sheet: below, Name: "A", Way: "in", At: geom.Pt(0, 0)})
	assert.Equal(t, []string{"The port A leads nowhere: no block stands for the sheet Below."}, found(d, "portUnused"))
	do(&edit.PlaceBlock{Sheet: sheet, Of: below, Name: "Stage", At: geom.Pt(0, 150_000_000)})
	assert.Empty(t, found(d, "portUnused"))
	assert.Empty(t, found(d, "portAlone"))
	do(&edit.PlacePort{Sheet: below, Name: "B", Way: "out", At: geom.Pt(0, 50_000_000)})
	assert.Equal(t, []string{
		"The block Stage lacks a pin for the port B.",
		"The port B has no pin on the block Stage.",
	}, found(d, "portAlone"))
	var port design.ID
	for p := range d.Ports.All() {
		if p.Name == "A" {
			port = p.ID
		}
	}
	do(&edit.Remove{IDs: []design.ID{port}})
	assert.Contains(t, found(d, "portAlone"), "The pin A of the block Stage has no port on its sheet.")
	do(&edit.PlacePort{Sheet: below, Name: "A", Way: "out", At: geom.Pt(0, 0)})
	assert.Contains(t, found(d, "portAlone"), "The pin A of the block Stage has another direction than its port.")
}

// A dot stands where three ways or more meet that are joined: ends of wires, pins, wires that go
// through. Where two wires cross, or two ends or an end and a pin meet, there is none.
func TestJunctionDots(t *testing.T) {
	g := func(x, y int64) geom.Point { return geom.Pt(x*2_500_000, y*2_500_000) }
	for name, c := range map[string]struct {
		wires [][4]int64
		parts []geom.Point // level resistors, their pins two steps either side
		want  []geom.Point
	}{
		"a tee":              {[][4]int64{{0, 0, 10, 0}, {5, 0, 5, 5}}, nil, []geom.Point{g(5, 0)}},
		"a crossing":         {[][4]int64{{0, 0, 10, 0}, {5, -5, 5, 5}}, nil, nil},
		"a corner":           {[][4]int64{{0, 0, 5, 0}, {5, 0, 5, 5}}, nil, nil},
		"a pin at an end":    {[][4]int64{{2, 0, 10, 0}}, []geom.Point{g(0, 0)}, nil},
		"a pin at a corner":  {[][4]int64{{2, 0, 10, 0}, {2, 0, 2, 5}}, []geom.Point{g(0, 0)}, []geom.Point{g(2, 0)}},
		"a pin on a wire":    {[][4]int64{{2, -5, 2, 5}}, []geom.Point{g(0, 0)}, []geom.Point{g(2, 0)}},
		"two pins together":  {nil, []geom.Point{g(0, 0), g(4, 0)}, nil},
		"two pins, an end":   {[][4]int64{{2, 0, 2, 5}}, []geom.Point{g(0, 0), g(4, 0)}, []geom.Point{g(2, 0)}},
		"two pins on a wire": {[][4]int64{{2, -5, 2, 5}}, []geom.Point{g(0, 0), g(4, 0)}, []geom.Point{g(2, 0)}},
		"a tee, a crossing":  {[][4]int64{{0, 0, 10, 0}, {5, 0, 5, 5}, {8, -5, 8, 5}}, nil, []geom.Point{g(5, 0)}},
		"two tees":           {[][4]int64{{0, 0, 10, 0}, {7, 0, 7, 5}, {3, 0, 3, -5}}, nil, []geom.Point{g(3, 0), g(7, 0)}},
	} {
		d := design.New("dots")
		sheet := d.SheetsInOrder()[0].ID
		for _, w := range c.wires {
			d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: g(w[0], w[1]), B: g(w[2], w[3])})
		}
		for _, at := range c.parts {
			_, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: "Resistor", At: at})
			require.NoError(t, err)
		}
		assert.ElementsMatch(t, c.want, circuit.Find(d).Views[sheet].Junctions, name)
	}
}

// What somebody agreed to is the same only when it joins and parts the same nets.
func TestOutcomesAreTheSame(t *testing.T) {
	joins := func(nets ...string) circuit.Outcome { return circuit.Outcome{Joined: []circuit.Join{{Nets: nets}}} }
	parts := func(nets ...string) (o circuit.Outcome) {
		for _, n := range nets {
			o.Parted = append(o.Parted, circuit.Part{Net: n})
		}
		return o
	}
	for _, c := range []struct {
		a, b circuit.Outcome
		same bool
	}{
		{joins("A", "B"), joins("A", "B"), true}, {joins("A", "B"), joins("A", "C"), false}, {joins("A", "B"), circuit.Outcome{}, false},
		{parts("A"), parts("A"), true}, {parts("A"), parts("B"), false}, {parts("A"), parts("A", "B"), false},
		{circuit.Outcome{}, circuit.Outcome{}, true},
	} {
		assert.Equal(t, c.same, c.a.Same(c.b), "%v and %v", c.a, c.b)
		assert.Equal(t, c.same, c.b.Same(c.a))
	}
	assert.True(t, circuit.Outcome{Joined: []circuit.Join{{Meant: true}}, Parted: []circuit.Part{{Meant: true}}}.Meant())
	assert.False(t, circuit.Outcome{Joined: []circuit.Join{{Meant: true}, {}}}.Meant())
	assert.False(t, circuit.Outcome{Parted: []circuit.Part{{Meant: true}, {}}}.Meant())
}

// What short-circuits, clashes or cannot be carried out is a fault; what may be meant is a warning.
func TestUsualSeverities(t *testing.T) {
	for kind, want := range map[string]string{
		"twoSupplies": "fault", "sameDesignator": "fault", "pinPair": "fault", "portAlone": "fault",
		"bundleWidth": "fault", "tapMember": "fault", "wireOnBundle": "fault",
		"noDriver": "warning", "noFeed": "warning", "caseNames": "warning", "caseDesignators": "warning",
		"portUnused": "warning", "labelOnBundle": "warning", "unitLeft": "warning",
	} {
		assert.Equal(t, want, circuit.SeverityOf(nil, kind), kind)
		own := &design.Checks{Kinds: map[string]string{kind: "off", "other": "fault"}}
		assert.Equal(t, "off", circuit.SeverityOf(own, kind), kind)
		assert.Equal(t, want, circuit.SeverityOf(&design.Checks{}, kind), kind)
	}
}

// Joining two nets of which at most one has a name of its own is meant when the hand ended there;
// joining two named ones is always asked, unless anything is meant.
func TestJoinsOfNamedNetsAreAsked(t *testing.T) {
	s := newSheet(t)
	s.resistor(0, 0)
	s.resistor(10, 0)
	s.label("IN", 2, 0)
	b := workbench.Open(s.d, 0)
	join := func() circuit.Join {
		_, o, err := b.Foresee(&edit.DrawWire{Sheet: s.sheet, Path: steps(2, 0, 8, 0)})
		require.NoError(t, err)
		require.Len(t, o.Joined, 1)
		return o.Joined[0]
	}
	assert.True(t, join().Meant, "one of them is named")
	_, err := b.Edit(&edit.PlaceLabel{Sheet: s.sheet, Name: "OUT", At: steps(8, 0)[0]})
	require.NoError(t, err)
	assert.Equal(t, circuit.Join{Nets: []string{"IN", "OUT"}}, join(), "both are")
}
