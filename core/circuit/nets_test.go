package circuit_test

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

const grid = 2_500_000

// sketch is a random drawing on a small grid, made by placing things directly.
func sketch(t *rapid.T) (*design.Doc, design.ID) {
	d := design.New("sketch")
	sheet := d.SheetsInOrder()[0].ID
	n := rapid.IntRange(1, 6).Draw(t, "parts")
	for i := range n {
		lib := rapid.SampledFrom([]string{"Resistor", "NPN transistor", "Header 4"}).Draw(t, "library")
		_, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: lib, At: place(t, fmt.Sprint("part", i)), Turn: rapid.IntRange(0, 3).Draw(t, "turn"), Mirror: rapid.Bool().Draw(t, "mirror")})
		require.NoError(t, err)
	}
	for range rapid.IntRange(0, 14).Draw(t, "wires") {
		a := place(t, "a")
		step := int64(rapid.IntRange(1, 5).Draw(t, "length")) * grid
		b := a.Add(rapid.SampledFrom([]geom.Point{{X: step}, {Y: step}, {X: step, Y: step}}).Draw(t, "way"))
		d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: a, B: b})
	}
	for range rapid.IntRange(0, 3).Draw(t, "labels") {
		d.Put(&design.Label{ID: d.NewID(), Sheet: sheet, Name: rapid.SampledFrom([]string{"A", "B"}).Draw(t, "name"), At: place(t, "label")})
	}
	for range rapid.IntRange(0, 3).Draw(t, "supplies") {
		d.Put(&design.Supply{ID: d.NewID(), Sheet: sheet, Name: rapid.SampledFrom([]string{"GND", "B"}).Draw(t, "supply"), Shape: "ground", At: place(t, "supply")})
	}
	return d, sheet
}

func place(t *rapid.T, name string) geom.Point {
	return geom.Pt(int64(rapid.IntRange(0, 8).Draw(t, name+".x"))*grid, int64(rapid.IntRange(0, 8).Draw(t, name+".y"))*grid)
}

// flood finds the nets in another way than the program: it paints. Every wire is a colour of
// its own over the cells of a raster that it covers; colours spread over shared ends, ends
// on other wires, pins, and names, until nothing changes.
func flood(d *design.Doc) map[circuit.PinRef]int {
	const cell = grid / 2
	colour := map[string]int{}
	next := 0
	paint := func(k string) { colour[k] = next; next++ }
	type spot struct{ x, y int64 }
	at := func(p geom.Point) spot { return spot{p.X / cell, p.Y / cell} }
	covers := func(w *design.Wire) []spot {
		var out []spot
		a, b := at(w.A), at(w.B)
		n := max(abs(b.x-a.x), abs(b.y-a.y))
		for i := int64(0); i <= n; i++ {
			out = append(out, spot{a.x + (b.x-a.x)*i/n, a.y + (b.y-a.y)*i/n})
		}
		return out
	}
	key := func(kind string, v any) string { return fmt.Sprintf("%s%v", kind, v) }
	var links [][2]string
	points := map[spot]bool{}
	for w := range d.Wires.All() {
		paint(key("w", w.ID))
		points[at(w.A)], points[at(w.B)] = true, true
	}
	pins := map[circuit.PinRef]spot{}
	for p := range d.Parts.All() {
		for _, pin := range d.SymbolOf(p).Pins {
			ref := circuit.PinRef{Part: p.ID, Pin: pin.Number}
			pins[ref] = at(circuit.PinPlace(p, &pin))
			points[pins[ref]] = true
		}
	}
	for l := range d.Labels.All() {
		points[at(l.At)] = true
	}
	for s := range d.Supplies.All() {
		points[at(s.At)] = true
	}
	for s := range points {
		paint(key("s", s))
	}
	for w := range d.Wires.All() {
		for _, s := range covers(w) {
			if points[s] {
				links = append(links, [2]string{key("w", w.ID), key("s", s)})
			}
		}
	}
	supply := map[string]bool{}
	for s := range d.Supplies.All() {
		supply[s.Name] = true
	}
	for s := range d.Supplies.All() {
		if _, ok := colour["n"+s.Name]; !ok {
			paint("n" + s.Name)
		}
		links = append(links, [2]string{"n" + s.Name, key("s", at(s.At))})
	}
	for l := range d.Labels.All() {
		if _, ok := colour["n"+l.Name]; !ok {
			paint("n" + l.Name)
		}
		links = append(links, [2]string{"n" + l.Name, key("s", at(l.At))})
	}
	for changed := true; changed; {
		changed = false
		for _, l := range links {
			a, b := colour[l[0]], colour[l[1]]
			if a != b {
				colour[l[0]], colour[l[1]] = min(a, b), min(a, b)
				changed = true
			}
		}
	}
	out := map[circuit.PinRef]int{}
	for ref, s := range pins {
		out[ref] = colour[key("s", s)]
	}
	return out
}

func abs(v int64) int64 { return max(v, -v) }

// partition writes which pins are together, whatever the groups are called.
func partition[K comparable](of map[circuit.PinRef]K) []string {
	groups := map[K][]string{}
	for ref, k := range of {
		groups[k] = append(groups[k], fmt.Sprintf("%d.%s@%s", ref.Part, ref.Pin, ref.Path))
	}
	var out []string
	for _, g := range groups {
		slices.Sort(g)
		out = append(out, strings.Join(g, " "))
	}
	slices.Sort(out)
	return out
}

func TestNetsAgainstFlood(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d, _ := sketch(t)
		assert.Equal(t, partition(flood(d)), partition(circuit.Find(d).OfPin))
	})
}

// A wire that crosses another without ending on it is not joined to it; one that ends on it is.
func TestCrossingIsNoJunction(t *testing.T) {
	d := design.New("cross")
	sheet := d.SheetsInOrder()[0].ID
	d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: geom.Pt(0, 0), B: geom.Pt(10*grid, 0)})
	d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: geom.Pt(5*grid, -5*grid), B: geom.Pt(5*grid, 5*grid)})
	n := circuit.Find(d)
	assert.Len(t, n.ByName, 2)
	assert.Empty(t, n.Views[sheet].Junctions)
	d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: geom.Pt(2*grid, 0), B: geom.Pt(2*grid, 3*grid)})
	n = circuit.Find(d)
	assert.Len(t, n.ByName, 2)
	assert.Equal(t, []geom.Point{geom.Pt(2*grid, 0)}, n.Views[sheet].Junctions)
}

// The bench's incremental nets equal those found from scratch after every edit and undo.
func TestIncrementalEqualsFromScratch(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d, sheet := sketch(t)
		b := workbench.Open(d, 0)
		var done []edit.ChangeSet
		for range rapid.IntRange(1, 8).Draw(t, "edits") {
			var cs edit.ChangeSet
			var err error
			all := slices.Sorted(maps.Keys(d.Parts))
			switch rapid.IntRange(0, 4).Draw(t, "kind") {
			case 0:
				cs, err = b.Edit(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{place(t, "a"), place(t, "b")}})
			case 1:
				cs, err = b.Edit(&edit.MoveItems{IDs: all[:1], Step: geom.Pt(grid, 0)})
			case 2:
				cs, err = b.Edit(&edit.PlaceSupply{Sheet: sheet, Name: "GND", Shape: "ground", At: place(t, "gnd")})
			case 3:
				cs, err = b.Edit(&edit.Remove{IDs: slices.Sorted(maps.Keys(d.Wires))[:min(1, len(d.Wires))]})
			case 4:
				if len(done) > 0 {
					b.Apply(done[len(done)-1].Inverted())
					done = done[:len(done)-1]
				}
			}
			if err == nil && cs != nil {
				done = append(done, cs)
			}
			b.Settle()
			fresh := circuit.Find(d)
			assert.Equal(t, partition(fresh.OfPin), partition(b.Nets().OfPin))
			assert.Equal(t, slices.Sorted(maps.Keys(fresh.ByName)), slices.Sorted(maps.Keys(b.Nets().ByName)))
		}
	})
}

func TestNetNames(t *testing.T) {
	d := design.New("names")
	sheet := d.SheetsInOrder()[0].ID
	do := func(c edit.Command) {
		t.Helper()
		_, err := edit.Apply(d, edit.Env{}, c)
		require.NoError(t, err)
	}
	do(&edit.PlacePart{Sheet: sheet, Library: "Resistor", At: geom.Pt(0, 0)})
	do(&edit.PlacePart{Sheet: sheet, Library: "Resistor", At: geom.Pt(20*grid, 0)})
	do(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{geom.Pt(2*grid, 0), geom.Pt(18*grid, 0)}})
	name := func() string { return circuit.Find(d).OfPin[circuit.PinRef{Part: part(d, "R1"), Pin: "2"}] }
	assert.Equal(t, "R1.2", name(), "after its first pin")
	do(&edit.PlaceLabel{Sheet: sheet, Name: "SENSE", At: geom.Pt(5*grid, 0)})
	assert.Equal(t, "SENSE", name(), "after its label")
	do(&edit.PlaceSupply{Sheet: sheet, Name: "GND", Shape: "ground", At: geom.Pt(6*grid, 0)})
	assert.Equal(t, "GND", name(), "a supply wins")
}

func part(d *design.Doc, designator string) design.ID {
	for p := range d.Parts.All() {
		if p.Designator == designator {
			return p.ID
		}
	}
	return 0
}

// The guide's rule of names: what an unnamed bundle's tap calls a net goes before its first pin,
// and gives way to every other name.
func TestNamesByAnUnnamedBundle(t *testing.T) {
	s := newSheet(t)
	lead := func(x int64) (r design.ID) {
		r = s.resistor(x, 0)
		s.do(&edit.DrawWire{Sheet: s.sheet, Path: steps(x+4, 10, x+4, 3), Bundle: true})
		s.do(&edit.PlaceTaps{Sheet: s.sheet, Members: []string{"D0"}, At: steps(x+4, 4)[0], Turn: 2})
		s.wire(x+2, 0, x+3, 0, x+3, 3) // from the part to the tap's end
		return r
	}
	name := func(r design.ID) string { return circuit.Find(s.d).OfPin[circuit.PinRef{Part: r, Pin: "2"}] }
	first := lead(0)
	assert.Equal(t, "D0", name(first))
	second := lead(20)
	assert.Equal(t, []string{"Sheet 1/R1.2", "Sheet 1/R2.2"}, []string{name(first), name(second)}, "two nets would be called so")
	s.label("SENSE", 3, 2)
	assert.Equal(t, []string{"SENSE", "D0"}, []string{name(first), name(second)}, "now one is named")
	s.label("D0", -6, 8)
	s.wire(-6, 8, -8, 8)
	assert.Equal(t, "Sheet 1/R2.2", name(second), "a label of that name goes before")
}

// Of several names of one use the first in natural order is the net's; a number counts as a number.
func TestTheFirstNameInOrderIsTheNets(t *testing.T) {
	for _, names := range [][]string{{"D10", "D9"}, {"D9", "D10"}, {"B", "A", "D9"}} {
		s := newSheet(t)
		r := s.resistor(0, 0)
		s.wire(2, 0, 2+2*int64(len(names)), 0)
		for i, name := range names {
			s.label(name, 4+2*int64(i), 0)
		}
		want := map[int]string{2: "D9", 3: "A"}[len(names)]
		assert.Equal(t, want, circuit.Find(s.d).OfPin[circuit.PinRef{Part: r, Pin: "2"}], "%v", names)
	}
}

// A net that is led out of a labelled bundle knows the bundle; one that is not has none.
func TestWhatGivesANetItsName(t *testing.T) {
	s := newSheet(t)
	r := s.resistor(0, 0)
	s.do(&edit.DrawWire{Sheet: s.sheet, Path: steps(4, 10, 4, 3), Bundle: true})
	s.label("D[1:0]", 4, 10)
	s.do(&edit.PlaceTaps{Sheet: s.sheet, Members: []string{"D0"}, At: steps(4, 4)[0], Turn: 2})
	s.wire(2, 0, 3, 0, 3, 3)
	s.label("SOLO", -2, 0)
	n := circuit.Find(s.d)
	of := func(pin string) circuit.Naming {
		return n.NamingOf(n.ByName[n.OfPin[circuit.PinRef{Part: r, Pin: pin}]])
	}
	assert.Equal(t, []string{"D0", "D[1:0]"}, []string{of("2").Name, of("2").Bundle})
	assert.Equal(t, []string{"SOLO", ""}, []string{of("1").Name, of("1").Bundle})
	assert.Len(t, of("1").Items, 1, "its label")
}
