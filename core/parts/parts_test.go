package parts_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

func at(x, y float64) geom.Point { return geom.Pt(units.MMf(x), units.MMf(y)) }

func pad(number string, x, y, w, h float64) design.Pad {
	return design.Pad{Number: number, Form: design.Rect, At: at(x, y), Size: at(w, h)}
}

func through(number string, x, y, size, hole float64) design.Pad {
	p := pad(number, x, y, size, size)
	p.Form, p.Hole = design.Round, units.MMf(hole)
	return p
}

func yard(x, y float64) []geom.Point { return []geom.Point{at(-x, -y), at(x, -y), at(x, y), at(-x, y)} }

var limits = parts.Limits{Clearance: units.MMf(0.2), Hole: units.MMf(0.3), Ring: units.MMf(0.15), Silk: units.MMf(0.15),
	Mask: units.MMf(0.05)}

func kinds(list []parts.Flaw) []string {
	out := []string{}
	for _, f := range list {
		out = append(out, f.Kind)
	}
	return out
}

func check(f design.Footprint) []parts.Flaw { return parts.CheckFootprint(&f, limits) }

// What every family makes has nothing to be found fault with, at any density.
func TestGeneratedFootprintsAreClean(t *testing.T) {
	for _, f := range landpattern.Families() {
		for _, density := range design.Densities {
			r := f.Example.Clone()
			r.Density = density
			res, err := landpattern.Make(r)
			require.NoError(t, err)
			own := parts.UsualLimits()
			own.Clearance = r.Making.Gap
			assert.Empty(t, parts.CheckFootprint(res.Footprint, own), "%s %s", f.ID, density)
		}
	}
}

func TestPadsAtTheLimit(t *testing.T) {
	two := func(x float64) design.Footprint {
		return design.Footprint{Pads: []design.Pad{pad("1", 0, 0, 1, 1), pad("2", x, 0, 1, 1)}, Courtyard: yard(3, 3)}
	}
	assert.Empty(t, check(two(1.2)))
	found := check(two(1.199))
	require.Equal(t, []string{"near"}, kinds(found))
	assert.Contains(t, found[0].Text, "Pad 1 and pad 2 are 0.199 mm apart; the board's rule is 0.2 mm")
	assert.Equal(t, []int{1, 2}, found[0].Pads)
	found = check(two(0.9))
	require.Equal(t, []string{"overlap"}, kinds(found))
	assert.Equal(t, parts.Fault, found[0].Severity)
	f := two(0.9)
	f.Pads[1].Number = "1" // one piece of copper
	assert.Empty(t, check(f))
	f.Pads[1].Number = "2"
	f.Together = [][]string{{"1", "2"}}
	assert.Empty(t, check(f))
	f = two(0.9)
	f.Pads[1].Far = true // on the other side
	assert.Empty(t, check(f))
}

func TestNumbers(t *testing.T) {
	with := func(numbers ...string) []parts.Flaw {
		f := design.Footprint{Courtyard: yard(50, 3), Silk: []design.Figure{{Form: "circle", Pts: []geom.Point{at(-3, 2)}, R: 100_000}}}
		for i, n := range numbers {
			f.Pads = append(f.Pads, pad(n, float64(2*i), 0, 1, 1))
		}
		return check(f)
	}
	assert.Empty(t, with("1", "2", "3"))
	assert.Empty(t, with("A", "K"))
	assert.Equal(t, []string{"number"}, kinds(with("1", "2", "4")))
	assert.Empty(t, with("1", "3")) // two of them, on purpose
	found := with("1", "2", "2", "3")
	require.Equal(t, []string{"number"}, kinds(found))
	assert.Equal(t, []int{2, 3}, found[0].Pads)
	assert.Contains(t, found[0].Text, "2 pads bear the number 2")
	assert.Equal(t, []string{"number"}, kinds(with("1", "", "2")))
	f := design.Footprint{Pads: []design.Pad{pad("1", 0, 0, 1, 1), pad("1", 3, 0, 1, 1)}, Courtyard: yard(5, 3), Together: [][]string{{"1"}}}
	assert.Empty(t, check(f), "one number for several pads on purpose")
}

func TestHolesAndRings(t *testing.T) {
	one := func(p design.Pad) []parts.Flaw {
		return check(design.Footprint{Pads: []design.Pad{p}, Courtyard: yard(5, 5)})
	}
	assert.Empty(t, one(through("1", 0, 0, 1.1, 0.8)))
	found := one(through("1", 0, 0, 1.099, 0.8)) // a ring of 0.1495 mm
	require.Equal(t, []string{"ring"}, kinds(found))
	assert.Equal(t, parts.Warning, found[0].Severity)
	found = one(through("1", 0, 0, 0.8, 0.8))
	require.Equal(t, []string{"ring"}, kinds(found))
	assert.Equal(t, parts.Fault, found[0].Severity)
	assert.Equal(t, []string{"hole"}, kinds(one(through("1", 0, 0, 1.1, 0.299))))
	bare := through("", 0, 0, 0.8, 0.8)
	bare.Bare = true
	assert.Empty(t, one(bare), "an unplated hole needs no ring, no number")
	off := through("1", 0, 0, 2, 0.8) // the hole 0.5 mm off the middle: 1 − 0.5 − 0.4 = 0.1
	off.HoleAt = at(0.5, 0)
	found = one(off)
	require.Equal(t, []string{"ring"}, kinds(found))
	assert.Contains(t, found[0].Text, "is 0.1 mm")
	slot := pad("1", 0, 0, 3, 1.2) // a slot of 2 mm, 0.8 mm wide: (1.2 − 0.8)/2 = 0.2 beside, (3 − 2)/2 = 0.5 at the ends
	slot.Hole, slot.HoleAt, slot.Slot = units.MMf(0.8), at(-0.6, 0), at(1.2, 0)
	assert.InDelta(t, 0.2e6, parts.Ring(&slot), 1)
	slot.Slot = at(1.8, 0) // its end at 1.2 + 0.4 breaks out
	assert.InDelta(t, -0.1e6, parts.Ring(&slot), 1)
	round := through("1", 0, 0, 2, 1)
	assert.InDelta(t, 0.5e6, parts.Ring(&round), 1)
	rounded := pad("1", 0, 0, 2, 1)
	rounded.Form, rounded.Corner, rounded.Hole = design.Rounded, units.MMf(0.25), units.MMf(0.6)
	assert.InDelta(t, 0.2e6, parts.Ring(&rounded), 1)
	oval := pad("1", 0, 0, 3, 1)
	oval.Form, oval.Hole, oval.HoleAt = design.Oval, units.MMf(0.6), at(1, 0) // in the middle of its round end
	assert.InDelta(t, 0.2e6, parts.Ring(&oval), 1)
}

func TestSilkCourtyardAndMark(t *testing.T) {
	four := func() design.Footprint {
		return design.Footprint{Pads: []design.Pad{pad("1", -1, 1, 1, 0.5), pad("2", -1, -1, 1, 0.5), pad("3", 1, -1, 1, 0.5),
			pad("4", 1, 1, 1, 0.5)}, Courtyard: yard(2, 2)}
	}
	f := four()
	found := check(f)
	require.Equal(t, []string{"mark"}, kinds(found))
	assert.Contains(t, found[0].Text, "turned by 180°")
	dot := design.Figure{Form: "circle", Pts: []geom.Point{at(-1, 1.6)}, R: 100_000, Width: 100_000}
	f.Silk = []design.Figure{dot}
	assert.Empty(t, check(f))
	// the dot's ink begins 1.6 − 0.15 = 1.45 up, the pad ends at 1.25, its opening at 1.3; lower by 0.15 they meet
	f.Silk[0].Pts = []geom.Point{at(-1, 1.45)}
	assert.Empty(t, check(f))
	f.Silk[0].Pts = []geom.Point{at(-1, 1.449)}
	found = check(f)
	require.Equal(t, []string{"silkOnPad"}, kinds(found))
	assert.Equal(t, []int{1}, found[0].Pads)
	f = four()
	f.Pads[0].Form = design.Round // the first pad looks different
	f.Pads[0].Size = at(0.5, 0.5)
	assert.Empty(t, check(f))
	f = four()
	f.Silk = []design.Figure{{Form: "line", Pts: []geom.Point{at(-0.3, 1.5), at(0.3, 1.5)}},
		{Form: "line", Pts: []geom.Point{at(-0.3, -1.5), at(0.3, -1.5)}}}
	assert.Equal(t, []string{"mark"}, kinds(check(f)), "two lines that fall on each other say nothing")
	f.Silk = f.Silk[:1]
	assert.Empty(t, check(f))
	square := design.Footprint{Courtyard: yard(4, 4)}
	for i, p := range []geom.Point{at(-2, 0), at(0, -2), at(2, 0), at(0, 2)} {
		square.Pads = append(square.Pads, design.Pad{Number: fmt.Sprint(i + 1), Form: design.Round, At: p, Size: at(1, 1)})
	}
	square.Silk = []design.Figure{{Form: "circle", Pts: []geom.Point{at(0, 3)}, R: 100_000},
		{Form: "circle", Pts: []geom.Point{at(0, -3)}, R: 100_000}}
	assert.Contains(t, check(square)[0].Text, "turned by 180°")
	f = four()
	f.Silk, f.Courtyard = []design.Figure{dot}, nil
	assert.Equal(t, []string{"courtyard"}, kinds(check(f)))
	f.Courtyard = yard(1.5, 2) // the pads end at 1.5 exactly
	assert.Empty(t, check(f))
	f.Courtyard = yard(1.499, 2)
	found = check(f)
	assert.Len(t, found, 4)
	assert.Contains(t, found[0].Text, "Pad 1 reaches beyond the courtyard")
	assert.Equal(t, []string{"empty"}, kinds(check(design.Footprint{})))
}

// source is where a test's symbols and footprints are found.
type source struct {
	symbols    map[string]*design.Symbol
	footprints map[string]*design.Footprint
}

func (s source) Symbol(name string) *design.Symbol       { return s.symbols[name] }
func (s source) Footprint(name string) *design.Footprint { return s.footprints[name] }

func TestMapping(t *testing.T) {
	pin := func(number, name, kind string) design.Pin { return design.Pin{Number: number, Name: name, Type: kind} }
	s := source{
		symbols: map[string]*design.Symbol{
			"A": {Name: "A", Pins: []design.Pin{pin("1", "B", "input"), pin("2", "C", "passive"), pin("3", "E", "passive")}},
			"B": {Name: "B", Pins: []design.Pin{pin("4", "V", "supplyIn"), pin("3", "W", "passive")}},
			"N": {Name: "N", Pins: []design.Pin{pin("1", "", "passive"), pin("9", "NC", "notConnected")}},
		},
		footprints: map[string]*design.Footprint{
			"F": {Name: "F", Pads: []design.Pad{pad("1", 0, 0, 1, 1), pad("2", 2, 0, 1, 1), pad("3", 4, 0, 1, 1), pad("3", 6, 0, 1, 1),
				{Hole: 1, Bare: true}}},
		},
	}
	rows, found := parts.Mapping(&design.LibraryPart{Name: "P", Symbol: "A"}, "F", s)
	assert.Empty(t, found)
	require.Len(t, rows, 3)
	assert.Equal(t, parts.PinRow{Pin: "3", Name: "E", Type: "passive", Pad: "3", Pads: 2}, rows[2], "several pads on one pin")

	rows, found = parts.Mapping(&design.LibraryPart{Name: "P", Symbol: "A", PadOf: map[string]string{"1": "2", "2": "1", "3": "5"}}, "F", s)
	assert.True(t, rows[0].Given)
	assert.Equal(t, "2", rows[0].Pad)
	require.Len(t, found, 2)
	assert.Equal(t, "Pin 3 (E) goes to pad 5, which F does not have.", found[0].Text)
	assert.Equal(t, []string{parts.Fault, parts.Warning}, []string{found[0].Severity, found[1].Severity})
	assert.Equal(t, "No pin goes to pad 3.", found[1].Text)
	assert.Equal(t, []int{3, 4}, found[1].Pads)

	_, found = parts.Mapping(&design.LibraryPart{Name: "P", Symbol: "A", PadOf: map[string]string{"1": "2", "7": "3"}}, "F", s)
	texts := []string{}
	for _, x := range found {
		texts = append(texts, x.Text)
	}
	assert.Equal(t, []string{"Pins 1 (B) and 2 (C) both go to pad 2.", "The table sends pin 7 to pad 3, but there is no such pin.",
		"No pin goes to pad 1."}, texts)

	rows, found = parts.Mapping(&design.LibraryPart{Name: "P", Symbol: "A", Units: []string{"A", "B"}}, "F", s)
	assert.Equal(t, 2, rows[3].Unit)
	assert.Equal(t, "Two units have a pin 3.", found[1].Text)

	_, found = parts.Mapping(&design.LibraryPart{Name: "P", Symbol: "N"}, "F", s)
	assert.Equal(t, []string{"No pin goes to pad 2.", "No pin goes to pad 3."}, []string{found[0].Text, found[1].Text},
		"a pin that is not connected needs no pad")
	_, found = parts.Mapping(&design.LibraryPart{Name: "P", Symbol: "A"}, "none", s)
	assert.Empty(t, found, "without a footprint nothing can be wrong with the pads")
}

func TestPinLists(t *testing.T) {
	read := func(text string, columns ...string) *parts.PinList {
		l, err := parts.ReadPinList(text, columns)
		require.NoError(t, err)
		return l
	}
	want := []parts.Listed{{Number: "1", Name: "VDD", Type: "supplyIn"}, {Number: "2", Name: "SCL", Type: "input"},
		{Number: "3", Name: "SDA", Type: "both"}}
	for name, text := range map[string]string{
		"tabs":         "Pin\tName\tType\n1\tVDD\tPower\n2\tSCL\tI\n3\tSDA\tI/O\n",
		"commas":       "1,VDD,P,\"supply, 3 V\"\n2,SCL,I,clock\n3,SDA,I/O,data\n",
		"aligned":      "NAME     NO   TYPE\nVDD      1    power\nSCL      2    input\nSDA      3    I/O\n",
		"bars":         "| Pin | Name | I/O |\n|-----|------|-----|\n| 1 | VDD | P |\n| 2 | SCL | I |\n| 3 | SDA | IO |\n",
		"semicolons":   "1;VDD;P\r\n2;SCL;I\r\n3;SDA;I/O\r\n",
		"single space": "1 VDD P\n2 SCL I\n3 SDA IO\n",
		"other order":  "Type\tDescription\tSignal\tBall\nP\tsupply\tVDD\t1\nI\tclock line\tSCL\t2\nIO\tdata line\tSDA\t3",
	} {
		assert.Equal(t, want, read(text).Pins, name)
	}
	l := read("1\tVDD\n2\tGND\n3\tNC\n4\tX")
	assert.Equal(t, []string{"number", "name"}, l.Columns)
	types := []string{}
	for _, p := range l.Pins {
		types = append(types, p.Type)
	}
	assert.Equal(t, []string{"supplyIn", "supplyIn", "notConnected", "passive"}, types)
	l = read("1, 4\tVDD\n5-7\tGND\n2\tA\n2\tB", "number", "name")
	numbers := []string{}
	for _, p := range l.Pins {
		numbers = append(numbers, p.Number)
	}
	assert.Equal(t, []string{"1", "4", "5", "6", "7", "2", "2"}, numbers)
	assert.Equal(t, "Pin 2 stands in rows 3 and 4; a number may not repeat.", l.Pins[6].Wrong)
	l = read("VDD\nGND", "name")
	assert.Equal(t, "2", l.Pins[1].Number)
	assert.Contains(t, l.Notes[0], "No column holds the pins' numbers")
	l = read("A1\tVDD\tstrange\nA2\tX\tI\nB1\tY\tO\nB2\tZ\tO")
	assert.Contains(t, l.Notes[0], "“strange” in row 1")
	assert.Equal(t, "passive", l.Pins[0].Type)
	l = read("1\tA\tleft\n2\tB\tright\n3\tC\ttop\n4\tD\tbottom")
	assert.Equal(t, []string{"number", "name", "side"}, l.Columns)
	assert.Equal(t, "top", l.Pins[2].Side)
	assert.Equal(t, "Row 2 has no number.", read("1\tA\n\tB", "number", "name").Pins[1].Wrong)
}

func TestPinListsThatCannotBe(t *testing.T) {
	refused := func(text, says string, columns ...string) {
		t.Helper()
		_, err := parts.ReadPinList(text, columns)
		assert.ErrorContains(t, err, says)
	}
	var many strings.Builder
	for i := range 3000 {
		fmt.Fprintf(&many, "%d\tP%d\n", i+1, i)
	}
	refused(many.String(), "has 3000 rows; 2000 pins are the most")
	refused("", "is empty")
	refused(" \n\t\n", "is empty")
	refused(strings.Repeat("x", parts.LargestList+1), "kB long")
	refused("a\xff", "not proper text")
	refused(strings.Repeat("a,", 60), "61 columns")
	refused("1\tA", "has 2 columns, 1 were named", "number")
	refused("1\tA", "not something a column", "number", "colour")
}

func TestArrange(t *testing.T) {
	list := func(spec ...string) []parts.Listed {
		var out []parts.Listed
		for i := 0; i < len(spec); i += 3 {
			out = append(out, parts.Listed{Number: spec[i], Name: spec[i+1], Type: spec[i+2]})
		}
		return out
	}
	spotOf := func(s *design.Symbol, n string) geom.Point { return s.Pin(n).At }
	pins := list("1", "VDD", "supplyIn", "2", "GND", "supplyIn", "3", "SCL", "input", "4", "SDA", "both", "5", "INT", "openCollector", "6",
		"CS", "input")
	s, err := parts.Arrange("Sensor", pins, parts.ByType)
	require.NoError(t, err)
	box, i := parts.BodyOf(s)
	require.Equal(t, 0, i)
	left := func(n string) bool { return spotOf(s, n).X < 0 }
	assert.True(t, left("1") && left("3") && left("6") && left("2"))
	assert.False(t, left("4") || left("5"))
	assert.Greater(t, spotOf(s, "1").Y, spotOf(s, "3").Y, "supplies above")
	assert.Greater(t, spotOf(s, "6").Y, spotOf(s, "2").Y, "grounds below all")
	for _, p := range s.Pins {
		foot := parts.Foot(&p)
		assert.True(t, foot.X == box.Min.X || foot.X == box.Max.X, "pin %s meets the body", p.Number)
		assert.True(t, foot.Y > box.Min.Y && foot.Y < box.Max.Y)
		assert.Zero(t, p.At.X%parts.Pitch+p.At.Y%parts.Pitch, "pin %s lies on the grid", p.Number)
	}
	assert.Equal(t, []string{"1", "2", "3", "4", "5", "6"}, []string{s.Pins[0].Number, s.Pins[1].Number, s.Pins[2].Number,
		s.Pins[3].Number, s.Pins[4].Number, s.Pins[5].Number})

	s, err = parts.Arrange("Sensor", pins, parts.AsPackage)
	require.NoError(t, err)
	assert.Equal(t, spotOf(s, "1").Y, spotOf(s, "6").Y, "opposite, as on the package")
	assert.Less(t, spotOf(s, "4").Y, spotOf(s, "5").Y)
	s, err = parts.Arrange("Sensor", pins, parts.InOrder)
	require.NoError(t, err)
	assert.Equal(t, spotOf(s, "1").Y, spotOf(s, "4").Y)
	assert.Greater(t, spotOf(s, "4").Y, spotOf(s, "5").Y)

	sided := list("1", "A", "passive", "2", "B", "passive", "3", "C", "passive")
	sided[0].Side, sided[1].Side, sided[2].Side = "top", "bottom", "right"
	s, err = parts.Arrange("S", sided, parts.InOrder)
	require.NoError(t, err)
	assert.Equal(t, []int{3, 1, 2}, []int{s.Pins[0].Turn, s.Pins[1].Turn, s.Pins[2].Turn})
	_, err = parts.Arrange("S", []parts.Listed{{Number: "1", Wrong: "Pin 1 stands twice."}}, parts.InOrder)
	assert.EqualError(t, err, "Pin 1 stands twice")
	_, err = parts.Arrange("S", nil, parts.InOrder)
	assert.Error(t, err)
	var many []parts.Listed // a long list is laid out evenly
	for i := range 48 {
		many = append(many, parts.Listed{Number: fmt.Sprint(i + 1), Name: fmt.Sprintf("P%d", i), Type: "both"})
	}
	s, err = parts.Arrange("M", many, parts.ByType)
	require.NoError(t, err)
	n := 0
	for _, p := range s.Pins {
		if p.At.X < 0 {
			n++
		}
	}
	assert.InDelta(t, 24, n, 1)
}

func TestBodies(t *testing.T) {
	s := &design.Symbol{Name: "S", Figures: []design.Figure{
		{Form: "line", Pts: []geom.Point{at(-9, 0), at(9, 0)}},
		{Form: "area", Pts: []geom.Point{at(-5, -5), at(5, -5), at(5, 5), at(-5, 5)}},
		{Form: "area", Pts: []geom.Point{at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)}},
		{Form: "area", Pts: []geom.Point{at(-9, -9), at(9, -9), at(0, 9)}},
	}, Pins: []design.Pin{
		{Number: "1", At: at(-7.5, 2.5), Turn: 0, Length: units.MMf(2.5)}, {Number: "2", At: at(7.5, 2.5), Turn: 2, Length: units.MMf(2.5)},
		{Number: "3", At: at(0, 7.5), Turn: 3, Length: units.MMf(2.5)}, {Number: "4", At: at(0, -7.5), Turn: 1, Length: units.MMf(2.5)},
		{Number: "5", At: at(-20, 0), Turn: 0, Length: units.MMf(2.5)},
	}, DesignatorAt: at(0, 7), ValueAt: at(0, -7)}
	box, i := parts.BodyOf(s)
	assert.Equal(t, 1, i)
	assert.Equal(t, geom.Box{Min: at(-5, -5), Max: at(5, 5)}, box)
	out, err := parts.Resize(s, geom.Box{Min: at(-10, -7.5), Max: at(7.5, 12.5)})
	require.NoError(t, err)
	places := []geom.Point{}
	for _, p := range out.Pins {
		places = append(places, p.At)
	}
	assert.Equal(t, []geom.Point{at(-12.5, 2.5), at(10, 2.5), at(0, 15), at(0, -10), at(-20, 0)}, places)
	assert.Equal(t, []geom.Point{at(0, 14.5), at(0, -9.5)}, []geom.Point{out.DesignatorAt, out.ValueAt})
	assert.Equal(t, at(-7.5, 2.5), s.Pins[0].At, "the symbol itself is as it was")
	_, err = parts.Resize(s, geom.Box{Min: at(0, 0), Max: at(0.9, 5)})
	assert.ErrorContains(t, err, "too small")
	_, err = parts.Resize(&design.Symbol{Name: "L"}, box)
	assert.ErrorContains(t, err, "no rectangle")

	s.Pins = append(s.Pins, design.Pin{Number: "6", At: at(7.5, -10), Turn: 2, Length: units.MMf(2.5)})
	out, err = parts.Fit(s)
	require.NoError(t, err)
	box, _ = parts.BodyOf(out)
	assert.Equal(t, geom.Box{Min: at(-5, -12.5), Max: at(5, 5)}, box)
	assert.Equal(t, at(0, -15), out.Pins[3].At)
	same, err := parts.Fit(out)
	require.NoError(t, err)
	assert.Same(t, out, same)
}

func TestRepeats(t *testing.T) {
	repeat := func(r parts.Repeat) []design.Pad {
		p := pad("x", 1, 2, 0.5, 1)
		p.ID = 7
		list, err := r.Pads(p)
		require.NoError(t, err)
		return list
	}
	numbers := func(list []design.Pad) (out []string) {
		for _, p := range list {
			out = append(out, p.Number)
		}
		return out
	}
	row := repeat(parts.Repeat{Kind: parts.InRow, Count: 4, Step: at(1.27, 0), First: "1", Order: parts.Along})
	assert.Equal(t, []string{"1", "2", "3", "4"}, numbers(row))
	assert.Equal(t, at(4.81, 2), row[3].At)
	assert.Equal(t, []int{7, 0}, []int{row[0].ID, row[3].ID})
	assert.Equal(t, []string{"A10", "A8", "A6"}, numbers(repeat(parts.Repeat{Kind: parts.InRow, Count: 3, Step: at(1, 0), First: "A10",
		By: -2, Order: parts.Along})))
	grid := parts.Repeat{Kind: parts.InGrid, Count: 3, Rows: 3, Step: at(1, -1), First: "1"}
	for order, want := range map[string][]string{ // row by row from above
		parts.Along:        {"1", "2", "3", "4", "5", "6", "7", "8", "9"},
		parts.BackAndForth: {"1", "2", "3", "6", "5", "4", "7", "8", "9"},
		parts.Around:       {"1", "8", "7", "2", "9", "6", "3", "4", "5"},
		parts.Letters:      {"A1", "A2", "A3", "B1", "B2", "B3", "C1", "C2", "C3"},
		parts.Same:         {"1", "1", "1", "1", "1", "1", "1", "1", "1"},
	} {
		grid.Order = order
		assert.Equal(t, want, numbers(repeat(grid)), order)
	}
	grid.Order, grid.Step = parts.Around, at(1, 1) // rows go up: counter-clockwise is along the first row
	assert.Equal(t, []string{"1", "2", "3", "8", "9", "4", "7", "6", "5"}, numbers(repeat(grid)))
	assert.Equal(t, at(3, 4), repeat(grid)[8].At)
	two := parts.Repeat{Kind: parts.InGrid, Count: 2, Rows: 4, Step: at(6, -1.27), First: "1", Order: parts.Around} // a package with two rows
	assert.Equal(t, []string{"1", "8", "2", "7", "3", "6", "4", "5"}, numbers(repeat(two)))

	circle := repeat(parts.Repeat{Kind: parts.InCircle, Count: 4, Centre: at(0, 2), First: "1", Order: parts.Along, Turned: true})
	assert.Equal(t, []geom.Point{at(1, 2), at(0, 3), at(-1, 2), at(0, 1)}, []geom.Point{circle[0].At, circle[1].At, circle[2].At,
		circle[3].At})
	assert.Equal(t, []int32{0, 90_000, 180_000, 270_000}, []int32{circle[0].Angle, circle[1].Angle, circle[2].Angle, circle[3].Angle})
	half := repeat(parts.Repeat{Kind: parts.InCircle, Count: 3, Centre: at(0, 2), Sweep: -180_000, First: "1", Order: parts.Along,
		Turned: true})
	assert.Equal(t, []geom.Point{at(0, 1), at(-1, 2)}, []geom.Point{half[1].At, half[2].At}, "clockwise, from the first to the last")
	assert.Equal(t, int32(270_000), half[1].Angle)

	for says, r := range map[string]parts.Repeat{
		"too many":           {Kind: parts.InRow, Count: 5001, Step: at(1, 0), First: "1", Order: parts.Along},
		"over each other":    {Kind: parts.InRow, Count: 2, First: "1", Order: parts.Along},
		"give both steps":    {Kind: parts.InGrid, Count: 2, Rows: 2, Step: at(1, 0), First: "1", Order: parts.Along},
		"middle of the":      {Kind: parts.InCircle, Count: 2, Centre: at(1, 2), First: "1", Order: parts.Along},
		"360°":               {Kind: parts.InCircle, Count: 2, Sweep: 400_000, First: "1", Order: parts.Along},
		"does not end in":    {Kind: parts.InRow, Count: 2, Step: at(1, 0), First: "A", Order: parts.Along},
		"below nothing":      {Kind: parts.InRow, Count: 3, Step: at(1, 0), First: "1", By: -1, Order: parts.Along},
		"not an order":       {Kind: parts.InRow, Count: 3, Step: at(1, 0), First: "1", Order: "spiral"},
		"not a kind":         {Kind: "helix", Count: 3, Order: parts.Along},
		"beyond what":        {Kind: parts.InRow, Count: 5000, Step: at(1, 0), First: "1", Order: parts.Along},
		"too large a number": {Kind: parts.InRow, Count: 2, Step: at(1, 0), First: "9999999999", Order: parts.Along},
	} {
		_, err := r.Pads(pad("x", 1, 2, 0.5, 1))
		assert.ErrorContains(t, err, says)
	}
}
