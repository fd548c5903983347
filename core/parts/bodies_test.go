package parts_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

func listed(n int, of func(i int) parts.Listed) []parts.Listed {
	var out []parts.Listed
	for i := range n {
		p := of(i)
		p.Number = fmt.Sprint(i + 1)
		out = append(out, p)
	}
	return out
}

// onSides counts the pins of a symbol by their sides: left, bottom, right, top (quarter turns of the way into the body).
func onSides(s *design.Symbol) (out [4]int) {
	for _, p := range s.Pins {
		out[p.Turn]++
	}
	return out
}

// Pins on any side keep the body around them: it grows along the side they stand on, and along no other.
func TestBodiesGrowAlongTheSideOfAPin(t *testing.T) {
	long := units.MMf(2.5)
	for _, c := range []struct {
		name string
		pin  design.Pin
		want geom.Box
	}{
		{"right, above", design.Pin{At: at(7.5, 10), Turn: 2}, geom.Box{Min: at(-5, -5), Max: at(5, 12.5)}},
		{"left, below", design.Pin{At: at(-7.5, -5), Turn: 0}, geom.Box{Min: at(-5, -7.5), Max: at(5, 5)}},
		{"top, to the right", design.Pin{At: at(10, 7.5), Turn: 3}, geom.Box{Min: at(-5, -5), Max: at(12.5, 5)}},
		{"bottom, to the left", design.Pin{At: at(-15, -7.5), Turn: 1}, geom.Box{Min: at(-17.5, -5), Max: at(5, 5)}},
		{"on its edge, but along it", design.Pin{At: at(-7.5, -5), Turn: 1}, geom.Box{Min: at(-5, -5), Max: at(5, 5)}},
		{"in line with the top, but beside it", design.Pin{At: at(10, 5), Turn: 2}, geom.Box{Min: at(-5, -5), Max: at(5, 5)}},
		{"from above, but not to it", design.Pin{At: at(20, 20), Turn: 3}, geom.Box{Min: at(-5, -5), Max: at(5, 5)}},
		{"on its edge, but out of it", design.Pin{At: at(10, 7.5), Turn: 2}, geom.Box{Min: at(-5, -5), Max: at(5, 5)}},
		{"nowhere near", design.Pin{At: at(-20, -20), Turn: 0}, geom.Box{Min: at(-5, -5), Max: at(5, 5)}},
	} {
		c.pin.Number, c.pin.Length = "1", long
		s := &design.Symbol{Name: "S", Figures: []design.Figure{{Form: "area", Pts: []geom.Point{at(-5, -5), at(5, -5), at(5, 5), at(-5,
			5)}}}, Pins: []design.Pin{c.pin}}
		out, err := parts.Fit(s)
		require.NoError(t, err)
		box, _ := parts.BodyOf(out)
		assert.Equal(t, c.want, box, c.name)
	}
	small, large := design.Figure{Form: "area", Pts: []geom.Point{at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)}}, design.Figure{Form: "area",
		Pts: []geom.Point{at(-5, -5), at(5, -5), at(5, 5), at(-5, 5)}}
	_, first := parts.BodyOf(&design.Symbol{Figures: []design.Figure{large, small}})
	_, last := parts.BodyOf(&design.Symbol{Figures: []design.Figure{small, large}})
	assert.Equal(t, []int{0, 1}, []int{first, last}, "the larger one, wherever it stands")
	// a line around four places is no body, nor is a rectangle that stands on its tip
	for _, f := range []design.Figure{
		{Form: "line", Pts: []geom.Point{at(-5, -5), at(5, -5), at(5, 5), at(-5, 5)}},
		{Form: "area", Pts: []geom.Point{at(0, -5), at(5, 0), at(0, 5), at(-5, 0)}},
		{Form: "area", Pts: []geom.Point{at(-5, -5), at(5, -5), at(5, 5), at(-5, 5), at(-5, 0)}},
	} {
		_, i := parts.BodyOf(&design.Symbol{Figures: []design.Figure{f}})
		assert.Equal(t, -1, i)
	}
}

// Texts above and below make room for pins that stand there.
func TestTextsKeepClearOfPins(t *testing.T) {
	for _, side := range []string{"left", "top", "bottom"} {
		s, err := parts.Arrange("S", listed(2, func(int) parts.Listed { return parts.Listed{Name: "A", Type: "passive", Side: side} }),
			parts.InOrder)
		require.NoError(t, err)
		high, low := s.DesignatorAt.Y, s.ValueAt.Y
		for _, p := range s.Pins {
			assert.Less(t, p.At.Y, high, side)
			assert.Greater(t, p.At.Y, low, side)
		}
		box, _ := parts.BodyOf(s)
		assert.Equal(t, side == "top", high-box.Max.Y > 2*parts.PinLength-units.MM, side)
		assert.Equal(t, side == "bottom", box.Min.Y-low > 2*parts.PinLength-units.MM, side)
	}
}

// By type, what may stand on either side goes over to the shorter one until the sides differ by two; what belongs on a side stays.
func TestSidesAreEvened(t *testing.T) {
	left, right := func(kind string, n int) int {
		s, err := parts.Arrange("S", listed(n, func(int) parts.Listed { return parts.Listed{Name: "A", Type: kind} }), parts.ByType)
		require.NoError(t, err)
		return onSides(s)[0]
	}, func(kind string, n int) int {
		s, err := parts.Arrange("S", listed(n, func(int) parts.Listed { return parts.Listed{Name: "A", Type: kind} }), parts.ByType)
		require.NoError(t, err)
		return onSides(s)[2]
	}
	assert.Equal(t, 6, left("passive", 10))
	assert.Equal(t, 4, right("passive", 10))
	assert.Equal(t, 6, right("both", 10), "from the right as well")
	assert.Equal(t, 2, left("passive", 2), "two more are not many")
	assert.Equal(t, 2, left("passive", 3))
	assert.Equal(t, 1, right("passive", 3))
	assert.Equal(t, 10, left("input", 10), "inputs stay on the left")
	assert.Equal(t, 10, right("output", 10), "outputs on the right")
	assert.Equal(t, 6, left("notConnected", 10))
	s, err := parts.Arrange("S", listed(10, func(int) parts.Listed { return parts.Listed{Name: "A", Type: "passive", Side: "left"} }),
		parts.ByType)
	require.NoError(t, err)
	assert.Equal(t, 10, onSides(s)[0], "where somebody said it, it stays")
}

// A list put into a symbol that has pins: those of its numbers take its names, the others come in below, on both sides.
func TestListsIntoASymbol(t *testing.T) {
	s, err := parts.Arrange("S", listed(4, func(i int) parts.Listed { return parts.Listed{Name: fmt.Sprint("OLD", i), Type: "passive"} }),
		parts.InOrder)
	require.NoError(t, err)
	list := listed(8, func(i int) parts.Listed { return parts.Listed{Name: fmt.Sprint("NEW", i), Type: "input"} })
	out, err := parts.AddListed(s, list, parts.InOrder)
	require.NoError(t, err)
	require.Len(t, out.Pins, 8)
	for i, p := range out.Pins {
		assert.Equal(t, fmt.Sprint("NEW", i), p.Name)
		assert.Equal(t, "input", p.Type)
		if i < 4 {
			assert.Equal(t, s.Pins[i].At, p.At, "where it stood")
		}
	}
	// the list alone lays 1 to 4 on the left and 5 to 8 on the right: so do 5 to 8 come in, below what was there
	lowest := min(s.Pins[0].At.Y, s.Pins[1].At.Y, s.Pins[2].At.Y, s.Pins[3].At.Y)
	for i, p := range out.Pins[4:] {
		assert.Equal(t, 2, p.Turn)
		assert.Equal(t, s.Pins[3].At.X, p.At.X)
		assert.Equal(t, lowest-int64(i+1)*parts.Pitch, p.At.Y)
	}
	box, _ := parts.BodyOf(out)
	assert.Equal(t, out.Pins[7].At.Y-parts.Pitch, box.Min.Y)
	// into an empty one it is laid out anew, and what else is drawn stays
	empty := &design.Symbol{ID: 9, Name: "E", ShowNames: false, Figures: []design.Figure{
		{Form: "line", Pts: []geom.Point{at(0, 0), at(1, 1)}}, {Form: "area", Pts: []geom.Point{at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)}}}}
	out, err = parts.AddListed(empty, list, parts.InOrder)
	require.NoError(t, err)
	assert.Equal(t, design.ID(9), out.ID)
	assert.Len(t, out.Figures, 2)
	assert.Equal(t, "line", out.Figures[1].Form)
	empty.Figures[0], empty.Figures[1] = empty.Figures[1], empty.Figures[0] // the body first, as it mostly is
	out, err = parts.AddListed(empty, list, parts.InOrder)
	require.NoError(t, err)
	assert.Len(t, out.Figures, 2)
	assert.Equal(t, "line", out.Figures[1].Form)
	_, err = parts.AddListed(s, nil, parts.InOrder)
	assert.Error(t, err)
	// one without a body takes new pins below its own
	bare := &design.Symbol{Name: "B", Pins: []design.Pin{{Number: "1", At: at(-5, 0), Turn: 0, Length: parts.PinLength},
		{Number: "2", At: at(5, -2.5), Turn: 2, Length: parts.PinLength}}}
	out, err = parts.AddListed(bare, listed(4, func(int) parts.Listed { return parts.Listed{Type: "passive"} }), parts.InOrder)
	require.NoError(t, err)
	assert.Equal(t, []geom.Point{at(5, -5), at(5, -7.5)}, []geom.Point{out.Pins[2].At, out.Pins[3].At})
}

// A footprint is as generated until something of it is changed by hand; what it is called and who looked at it is no change.
func TestWhatCountsAsTheSame(t *testing.T) {
	r := landpattern.FamilyOf("gullTwo").Example.Clone()
	f, err := landpattern.Footprint(r)
	require.NoError(t, err)
	assert.True(t, parts.AsGenerated(f))
	g := *f
	g.Name, g.Description, g.Checked, g.Model = "other", "words", &design.Checked{By: "Alder"}, 5
	assert.True(t, parts.AsGenerated(&g))
	g.Pads = append([]design.Pad{}, f.Pads...)
	g.Pads[3].Size.X += 1000
	assert.False(t, parts.AsGenerated(&g))
	assert.False(t, parts.SameFootprint(f, &g))
	g.Pads[3].Size.X -= 1000
	g.Recipe, g.Name, g.Description, g.Model = nil, f.Name, f.Description, 0
	assert.False(t, parts.AsGenerated(&g), "it has nothing to be generated from")
	assert.True(t, parts.SameFootprint(f, &g), "where it comes from is not the footprint")
	g.Recipe = r.Clone()
	g.Recipe.Dims["pitch"] = design.Range{Min: 5, Max: 4}
	assert.False(t, parts.AsGenerated(&g), "what cannot be made is not as made")

	a := &design.Symbol{ID: 4, Name: "A", Pins: []design.Pin{{ID: 3, Number: "1", Type: "passive"}},
		Figures: []design.Figure{{ID: 2, Form: "circle", Pts: []geom.Point{{}}, R: 1}}}
	b := &design.Symbol{ID: 5, Name: "B", Pins: []design.Pin{{ID: 9, Number: "1", Type: "passive"}},
		Figures: []design.Figure{{ID: 8, Form: "circle", Pts: []geom.Point{{}}, R: 1}}}
	assert.True(t, parts.SameSymbol(a, b))
	b.Pins[0].Type = "input"
	assert.False(t, parts.SameSymbol(a, b))
}

// What is said of a match is what is known: nothing of pitch, body or leads, nothing of them.
func TestMatchesSayWhatIsKnown(t *testing.T) {
	through := parts.Match{Name: "T", Shape: shape(2, 5, 5, 5, true)}
	assert.Equal(t, []string{"2 pins equal"}, parts.Rank(parts.Shape{Pins: 2}, []parts.Match{through}, 0)[0].Words)
	assert.Equal(t, []string{"2 pins equal", "pitch equal", "through the board"}, parts.Rank(parts.Shape{Pins: 2, Pitch: units.MMf(5)},
		[]parts.Match{through}, 0)[0].Words)
	assert.Equal(t, []string{"2 pins equal", "body equal", "on the surface"},
		parts.Rank(parts.Shape{Pins: 2, Length: units.MMf(5), Width: units.MMf(5), Through: true},
			[]parts.Match{{Name: "S", Shape: shape(2, 0, 5, 5, false)}}, 0)[0].Words)
	assert.Equal(t, []string{"1 pin equal", "pitch 0.03 mm less", "body 0.11 mm longer", "body 0.2 mm narrower"},
		parts.Rank(parts.Shape{Pins: 1, Pitch: units.MMf(1.03), Length: units.MMf(5), Width: units.MMf(4)},
			[]parts.Match{{Name: "S", Shape: shape(1, 1, 5.11, 3.8, false)}}, 0)[0].Words)
	assert.Empty(t, parts.Rank(parts.Shape{}, []parts.Match{through}, 0)[0].Words, "nothing is known, nothing is said")
	// a body too large for its footprint is worse than one that has room
	room := parts.Match{Name: "a room", Shape: shape(2, 1, 6, 4, false)}
	tight := parts.Match{Name: "a tight", Shape: shape(2, 1, 4, 4, false)}
	assert.Equal(t, "a room", parts.Rank(shape(2, 1, 5, 4, false), []parts.Match{tight, room}, 0)[0].Name)
	// of two that are equal the usual density stands first, then the name
	var names []string
	for _, m := range parts.Rank(shape(2, 1, 4, 4, false), []parts.Match{{Name: "L", Density: design.Least,
		Shape: shape(2, 1, 4, 4, false)}, {Name: "N", Density: design.Nominal, Shape: shape(2, 1, 4, 4, false)},
		{Name: "A", Density: design.Most, Shape: shape(2, 1, 4, 4, false)}, {Name: "H", Shape: shape(2, 1, 4, 4, false)}}, 3) {
		names = append(names, m.Name)
	}
	assert.Equal(t, []string{"H", "N", "A"}, names)
}

// All pairs of up to 64 pads are looked at for the pitch; of more, neighbours in their order.
func TestPitchOfManyPads(t *testing.T) {
	zigzag := func(n int) *design.Footprint { // odd ones in one row, even ones in another; 1 and 3 are 1 mm apart, 1 and 2 five
		f := &design.Footprint{}
		for i := range n {
			f.Pads = append(f.Pads, pad(fmt.Sprint(i+1), float64(i/2), 5*float64(i%2), 0.5, 0.5))
		}
		return f
	}
	assert.Equal(t, units.MM, parts.ShapeOf(zigzag(64)).Pitch)
	assert.Equal(t, 5*units.MM, parts.ShapeOf(zigzag(65)).Pitch)
	assert.Zero(t, parts.ShapeOf(zigzag(1)).Pitch)
}

// A table keeps its rows as wide as its widest, and its headings where most of what they say is known.
func TestTablesAreSquare(t *testing.T) {
	l, err := parts.ReadPinList("1\tA\n2\tB\tI\n", nil)
	require.NoError(t, err)
	assert.Equal(t, [][]string{{"1", "A", ""}, {"2", "B", "I"}}, l.Cells)
	assert.Equal(t, []string{"", "", ""}, l.Head)
	l, err = parts.ReadPinList("word\tNAME\n1\tA\n2\tB\n", nil) // one word of two, and not the first: a pin called NAME
	require.NoError(t, err)
	assert.Len(t, l.Cells, 3)
	l, err = parts.ReadPinList("NAME\tword\nA\t1\nB\t2\n", nil)
	require.NoError(t, err)
	assert.Equal(t, []string{"NAME", "word"}, l.Head)
	assert.Len(t, l.Cells, 2)
	l, err = parts.ReadPinList("Name\nA\nB\n", nil)
	require.NoError(t, err)
	assert.Len(t, l.Cells, 2)
	l, err = parts.ReadPinList("Pin\tPin\tName\n1\t9\tA\n", nil) // the same word twice holds once
	require.NoError(t, err)
	assert.Equal(t, []string{"number", "skip", "name"}, l.Columns)
	for text, width := range map[string]int{"1\tA\n2\tB\n3;C\n": 2, "a b c\nd e f\n": 3, "1, 2\tA\n3\tB\n": 2} {
		l, err = parts.ReadPinList(text, nil)
		require.NoError(t, err)
		assert.Len(t, l.Columns, width, text)
	}
}

// On four sides no pin's name comes where those of a neighbouring side are written.
func TestNamesKeepOutOfCorners(t *testing.T) {
	for side := range 4 {
		namesKeepOut(t, side)
	}
}

// namesKeepOut checks a body with names on one side that are much longer than the others.
func namesKeepOut(t *testing.T, side int) {
	s, err := parts.Arrange("Q", listed(16, func(i int) parts.Listed {
		if i/4 == side {
			return parts.Listed{Name: "LONGEST_NAME", Type: "both"}
		}
		return parts.Listed{Name: "A", Type: "both"}
	}), parts.FourSides)
	require.NoError(t, err)
	box, _ := parts.BodyOf(s)
	letter := units.MMf(1.25)
	name := func(p design.Pin) geom.Box { // the line of its letters, from the foot inwards
		return geom.BoxOf(parts.Foot(&p), parts.Foot(&p).Add(geom.Turn(geom.Pt(letter*int64(len(p.Name)), 0), int32(p.Turn)*90_000)))
	}
	for i, p := range s.Pins {
		assert.True(t, box.Holds(parts.Foot(&p)))
		assert.Zero(t, p.At.X%parts.Pitch+p.At.Y%parts.Pitch)
		for k := range i {
			if s.Pins[k].Turn%2 != p.Turn%2 {
				assert.False(t, name(p).Meets(name(s.Pins[k])), "%s and %s", p.Number, s.Pins[k].Number)
			}
		}
	}
}

// Copper around a hole that lies off the middle of a long round pad: 0.5 mm to its side, less 0.1 mm off the middle line and the hole's
// half.
func TestRingsOffTheMiddle(t *testing.T) {
	oval := pad("1", 0, 0, 3, 1)
	oval.Form, oval.Hole, oval.HoleAt = design.Oval, units.MMf(0.6), at(0.4, 0.1)
	assert.InDelta(t, 0.1e6, parts.Ring(&oval), 1)
	rounded := pad("1", 0, 0, 2, 1) // the hole at the very corner's middle: 0.25 mm of radius, less the hole's 0.1
	rounded.Form, rounded.Corner, rounded.Hole, rounded.HoleAt = design.Rounded, units.MMf(0.25), units.MMf(0.2), at(0.75, 0.25)
	assert.InDelta(t, 0.15e6, parts.Ring(&rounded), 1)
	rounded.HoleAt = at(0.85, 0.25) // a tenth nearer to the side
	assert.InDelta(t, 0.05e6, parts.Ring(&rounded), 1)
}

// Pins that stand on the edge of a body, but along it, stay when it grows.
func TestPinsAlongAnEdgeStay(t *testing.T) {
	for _, turn := range []int{0, 1, 2, 3} {
		corner := map[int]geom.Point{0: at(2.5, 5), 1: at(5, 2.5), 2: at(-2.5, -5), 3: at(-5,
			-2.5)}[turn] // its foot 2.5 mm on, on an edge that it runs along
		s := &design.Symbol{Name: "S", Figures: []design.Figure{{Form: "area", Pts: []geom.Point{at(-5, -5), at(5, -5), at(5, 5), at(-5, 5)}}},
			Pins: []design.Pin{{Number: "1", At: corner.Sub(geom.Turn(at(2.5, 0), int32(turn)*90_000)), Turn: turn, Length: units.MMf(2.5)}}}
		out, err := parts.Resize(s, geom.Box{Min: at(-10, -10), Max: at(10, 10)})
		require.NoError(t, err)
		assert.Equal(t, s.Pins[0].At, out.Pins[0].At, "turn %d", turn)
	}
}

// Uses of a part with several units count once, in the order people count.
func TestUsesCountOnce(t *testing.T) {
	d := design.New("uses")
	for i, n := range []string{"U10", "U2", "U2", "U1"} {
		d.Put(&design.Part{ID: design.ID(30 + i), Designator: n, Library: "Gate", Footprint: "F"})
	}
	d.Put(&design.Part{ID: 40, Designator: "R1", Library: "Resistor"})
	assert.Equal(t, []string{"U1", "U2", "U10"}, parts.UsesOfPart(d, "Gate"))
	d.Put(&design.LibraryPart{ID: 50, Name: "Gate", Symbol: "S", Units: []string{"A", "B"}, Footprint: "F"})
	d.Put(&design.LibraryPart{ID: 51, Name: "Dense", Symbol: "T", Densities: map[string]string{design.Most: "F"}})
	d.Put(&design.Placed{ID: 60, Part: 30, Designator: "U10", Footprint: "F"})
	d.Put(&design.Placed{ID: 61, Part: 40, Designator: "X9", Footprint: "F"})
	assert.Equal(t, []string{"Gate", "Dense", "U1", "U2", "U10", "X9"}, parts.UsesOfFootprint(d, "F"))
	assert.Equal(t, []string{"Gate"}, parts.UsesOfSymbol(d, "B"))
	assert.Equal(t, []string{"Gate"}, parts.UsesOfSymbol(d, "S"))
	assert.Empty(t, parts.UsesOfSymbol(d, "U"))
}

// A hole just as large as the board's least is none too small; pegs and pads without numbers do not tell where pin 1 is.
func TestFootprintsAtTheEdge(t *testing.T) {
	assert.Empty(t, check(design.Footprint{Pads: []design.Pad{through("1", 0, 0, 1.1, 0.3)}, Courtyard: yard(5, 5)}))
	two := []design.Pad{pad("1", -2, 0, 1, 1), pad("2", 2, 0, 1, 1)}
	peg := design.Pad{Form: design.Round, At: at(0, 4), Size: at(1, 1), Hole: units.MM, Bare: true}
	assert.Empty(t, check(design.Footprint{Pads: append(two, peg), Courtyard: yard(5, 5)}),
		"of two pads nobody asks for a mark, whatever pegs there are")
	three := []design.Pad{pad("1", -2, 0, 1, 1), pad("2", 0, 0, 1, 1), pad("3", 2, 0, 1, 1)}
	assert.Equal(t, []string{"mark"}, kinds(check(design.Footprint{Pads: three, Courtyard: yard(5, 5)})))
	assert.Empty(t, check(design.Footprint{Pads: append(three, peg), Courtyard: yard(5, 5)}), "a peg beside the row tells it")
	odd := func(numbers ...string) design.Footprint {
		f := design.Footprint{Courtyard: yard(50, 3), Silk: []design.Figure{{Form: "circle", Pts: []geom.Point{at(-3, 2)}, R: 100_000}}}
		for i, n := range numbers {
			f.Pads = append(f.Pads, pad(n, float64(2*i), 0, 1, 1))
		}
		return f
	}
	assert.Empty(t, check(odd("0", "1", "3")), "0 is a number like a letter")
	f := design.Footprint{Pads: []design.Pad{pad("1", 0, 0, 1, 1)}, Courtyard: []geom.Point{at(-3, -2), at(3, -2), at(0, 4)}}
	assert.Empty(t, check(f), "a courtyard has three corners at least")
	f.Courtyard = f.Courtyard[:2]
	assert.Equal(t, []string{"courtyard"}, kinds(check(f)))
}

// Grounds stand below all others on their side, however they are called.
func TestGroundsStandBelow(t *testing.T) {
	for _, name := range []string{"GND", "AGND1", "VSS", "VSS2", "EP", "V-", "V−"} {
		s, err := parts.Arrange("S", []parts.Listed{{Number: "1", Name: name, Type: "supplyIn"}, {Number: "2", Name: "IN", Type: "input"}},
			parts.ByType)
		require.NoError(t, err)
		assert.Less(t, s.Pin("1").At.Y, s.Pin("2").At.Y, name)
	}
	for _, name := range []string{"VDD", "VCC_GOOD", "EPS"} {
		s, err := parts.Arrange("S", []parts.Listed{{Number: "1", Name: name, Type: "supplyIn"}, {Number: "2", Name: "IN", Type: "input"}},
			parts.ByType)
		require.NoError(t, err)
		assert.Greater(t, s.Pin("1").At.Y, s.Pin("2").At.Y, name)
	}
	s, err := parts.Arrange("S", []parts.Listed{{Number: "1", Name: "GND", Type: "passive"},
		{Number: "2", Name: "X", Type: "notConnected"}}, parts.ByType)
	require.NoError(t, err)
	assert.Greater(t, s.Pin("1").At.Y, s.Pin("2").At.Y, "what is no supply is no ground")
	_, err = parts.Arrange("S", listed(parts.MostListed, func(int) parts.Listed { return parts.Listed{Type: "passive"} }), parts.InOrder)
	assert.NoError(t, err)
	_, err = parts.Arrange("S", listed(parts.MostListed+1, func(int) parts.Listed { return parts.Listed{Type: "passive"} }), parts.InOrder)
	assert.ErrorContains(t, err, "2001 pins are too many")
}

// A part is checked until what was checked is another.
func TestCheckLapses(t *testing.T) {
	s := source{symbols: map[string]*design.Symbol{"S": {Name: "S", Pins: []design.Pin{{Number: "1", Name: "A", Type: "passive"}}}},
		footprints: map[string]*design.Footprint{"F": {Name: "F", Pads: []design.Pad{pad("1", 0, 0, 1, 1)}},
			"G": {Name: "G", Pads: []design.Pad{pad("1", 0, 0, 2, 1)}}}}
	p := &design.LibraryPart{Name: "P", Symbol: "S", Footprint: "F", Densities: map[string]string{design.Most: "G"}}
	assert.Equal(t, parts.Unchecked, parts.CheckState(p, s))
	p.Checked = &design.Checked{By: "Alder", Print: parts.Print(p, s)}
	assert.Equal(t, parts.IsChecked, parts.CheckState(p, s))
	for what, change := range map[string]func() func(){
		"pin's name": func() func() { x := &s.symbols["S"].Pins[0].Name; *x = "B"; return func() { *x = "A" } },
		"pin's type": func() func() { x := &s.symbols["S"].Pins[0].Type; *x = "input"; return func() { *x = "passive" } },
		"pad":        func() func() { x := &s.footprints["F"].Pads[0].Size.X; *x++; return func() { *x-- } },
		"density":    func() func() { x := &s.footprints["G"].Pads[0].Size.X; *x++; return func() { *x-- } },
		"mapping":    func() func() { p.PadOf = map[string]string{"1": "2"}; return func() { p.PadOf = nil } },
	} {
		back := change()
		assert.Equal(t, parts.Lapsed, parts.CheckState(p, s), what)
		back()
		assert.Equal(t, parts.IsChecked, parts.CheckState(p, s), what)
	}
	s.footprints["F"].Pads[0].ID, s.footprints["F"].Dimensions = 7, []design.Dimension{{ID: 1}}
	assert.Equal(t, parts.IsChecked, parts.CheckState(p, s), "refs and dimensions are no part of it")
}

// Of inputs and of others on the left, supplies come first, inputs next, then what is passive, then what is not connected; a place is
// left free
// between kinds.
func TestOrderOfPinsByType(t *testing.T) {
	kinds := []string{"notConnected", "passive", "input", "supplyIn"}
	s, err := parts.Arrange("S", listed(4, func(i int) parts.Listed { return parts.Listed{Name: "A", Type: kinds[i], Side: "left"} }),
		parts.ByType)
	require.NoError(t, err)
	for i, n := range []string{"3", "2", "1"} {
		assert.EqualValues(t, 2*parts.Pitch, s.Pin(fmt.Sprint(4-i)).At.Y-s.Pin(n).At.Y, n)
	}
	kinds = []string{"both", "output", "supplyOut"}
	s, err = parts.Arrange("S", listed(3, func(i int) parts.Listed { return parts.Listed{Name: "A", Type: kinds[i], Side: "right"} }),
		parts.ByType)
	require.NoError(t, err)
	assert.Equal(t, []int64{2 * parts.Pitch, 2 * parts.Pitch}, []int64{s.Pin("3").At.Y - s.Pin("2").At.Y, s.Pin("2").At.Y - s.Pin("1").At.Y})
}

// A column of a grid needs no step across, a row none down; one pad none at all.
func TestRepeatsOfOneColumn(t *testing.T) {
	for _, r := range []parts.Repeat{{Kind: parts.InGrid, Count: 1, Rows: 3, Step: at(0, 1)},
		{Kind: parts.InGrid, Count: 3, Rows: 1, Step: at(1, 0)}, {Kind: parts.InGrid, Count: 1, Rows: 1}, {Kind: parts.InRow, Count: 1}} {
		r.First, r.Order = "1", parts.Along
		_, err := r.Pads(pad("x", 0, 0, 1, 1))
		assert.NoError(t, err)
	}
	_, err := parts.Repeat{Kind: parts.InGrid, Count: 100, Rows: design.MostPins/100 + 1, Step: at(0.01, 0.01), First: "1",
		Order: parts.Along}.Pads(pad("x", 0, 0, 1, 1))
	assert.ErrorContains(t, err, "too many")
	_, err = parts.Repeat{Kind: parts.InGrid, Count: 100, Rows: design.MostPins / 100, Step: at(0.01, 0.01), First: "1",
		Order: parts.Along}.Pads(pad("x", 0, 0, 1, 1))
	assert.NoError(t, err)
}

// Eight pins and one beneath on four sides: 1 2 down the left, 3 4 and 9 along the bottom, 5 6 up the right, 7 8 back along the top.
func TestFourSides(t *testing.T) {
	s, err := parts.Arrange("Quad", listed(9, func(int) parts.Listed { return parts.Listed{Name: "P", Type: "passive"} }), parts.FourSides)
	require.NoError(t, err)
	sides := map[int][]string{}
	for _, p := range s.Pins {
		sides[p.Turn] = append(sides[p.Turn], p.Number)
	}
	assert.Equal(t, map[int][]string{0: {"1", "2"}, 1: {"3", "4", "9"}, 2: {"5", "6"}, 3: {"7", "8"}}, sides)
	down := func(first, then string) {
		assert.Greater(t, s.Pin(first).At.Y, s.Pin(then).At.Y, "%s above %s", first, then)
	}
	right := func(first, then string) {
		assert.Less(t, s.Pin(first).At.X, s.Pin(then).At.X, "%s left of %s", first, then)
	}
	down("1", "2")
	down("6", "5")
	right("3", "4")
	right("4", "9")
	right("8", "7")
}
