package library_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/library"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

// gear is a project with a part of two units, footprints of two densities, one of which has a picture beneath and a body in a file, and another
// part that has nothing to do with it.
func gear() (*design.Doc, *design.LibraryPart) {
	d := design.New("gear")
	symbol := func(id design.ID, name string, pins ...string) {
		s := &design.Symbol{ID: id, Name: name, Origin: design.Origin{Library: "elsewhere"}}
		for i, n := range pins {
			s.Pins = append(s.Pins, design.Pin{Number: n, Type: "passive", At: geom.Pt(0, int64(i)*parts.Pitch), Length: parts.PinLength})
		}
		d.Put(s)
	}
	foot := func(id design.ID, name string) *design.Footprint {
		f := &design.Footprint{ID: id, Name: name, Silk: []design.Figure{}, Body: []design.Figure{}}
		for i := range 4 {
			f.Pads = append(f.Pads, design.Pad{Number: fmt.Sprint(i + 1), Form: design.Rect, At: geom.Pt(int64(i)*2*units.MM, 0), Size: geom.Pt(units.MM, units.MM)})
		}
		d.Put(f)
		return f
	}
	symbol(20, "A", "1", "2")
	symbol(21, "B", "3", "4")
	symbol(22, "Whole", "1", "2", "3", "4")
	symbol(23, "Other", "1")
	foot(30, "Foot N")
	most := foot(31, "Foot M")
	foot(32, "Foot other")
	d.Put(&design.Asset{ID: 40, Name: "page", Type: "png", Width: 1, Height: 1, Data: []byte("p")})
	d.Put(&design.Asset{ID: 41, Name: "case", Type: "glb", Data: []byte("b")})
	d.Put(&design.Asset{ID: 42, Name: "of another", Type: "glb", Data: []byte("c")})
	most.Beneath, most.Model = &design.Beneath{Asset: 40, Width: units.MM, Opacity: 50}, 41
	p := &design.LibraryPart{ID: 50, Name: "Gear", Prefix: "U", Symbol: "Whole", Units: []string{"A", "B"}, Footprint: "Foot N", Origin: design.Origin{Library: "elsewhere"},
		Densities: map[string]string{design.Nominal: "Foot N", design.Most: "Foot M", design.Least: "Foot L"}}
	d.Put(p)
	return d, p
}

func released(t *testing.T) *library.Release {
	t.Helper()
	d, p := gear()
	r, err := library.ReleaseOf(d, p)
	require.NoError(t, err)
	return r
}

func named[T any](list []T, name func(T) string) (out []string) {
	for _, x := range list {
		out = append(out, name(x))
	}
	return out
}

func symbolName(s *design.Symbol) string  { return s.Name }
func footName(f *design.Footprint) string { return f.Name }
func assetName(a *design.Asset) string    { return a.Name }

// A release holds all that its part is drawn with, each thing once, and nothing else; what comes back from a library is the same.
func TestWhatAReleaseHolds(t *testing.T) {
	r := released(t)
	assert.Equal(t, []string{"A", "B", "Whole"}, named(r.Symbols, symbolName))
	assert.Equal(t, []string{"Foot N", "Foot M"}, named(r.Footprints, footName))
	assert.Equal(t, []string{"page", "case"}, named(r.Assets, assetName))
	assert.Equal(t, map[string]string{design.Nominal: "Foot N", design.Most: "Foot M"}, r.Part.Densities, "what the project does not have is not promised")
	assert.Zero(t, r.Part.ID)
	assert.Zero(t, r.Part.Origin)
	for _, s := range r.Symbols {
		assert.Zero(t, s.ID)
		assert.Zero(t, s.Origin)
		assert.Same(t, s, r.Symbol(s.Name))
	}
	for _, f := range r.Footprints {
		assert.Zero(t, f.ID)
		assert.Same(t, f, r.Footprint(f.Name))
	}
	assert.Nil(t, r.Symbol("C"))
	assert.Nil(t, r.Footprint("Foot L"))

	from := design.Origin{Library: "workspace", Version: 4}
	it := r.Item(from)
	assert.Equal(t, from, it.Part.Origin)
	assert.Equal(t, "Whole", it.Symbol.Name)
	assert.Equal(t, []string{"A", "B"}, named(it.Units, symbolName))
	assert.Equal(t, "Foot N", it.Footprint.Name)
	assert.Equal(t, "Foot M", it.Others[design.Most].Name)
	assert.Equal(t, "Foot N", it.Others[design.Nominal].Name)
	assert.Equal(t, []design.Origin{from, from, from}, []design.Origin{it.Symbol.Origin, it.Units[1].Origin, it.Footprint.Origin})
	assert.Len(t, it.Assets, 2)
	back := library.ReleaseFrom(it)
	assert.True(t, r.Equal(back) && back.Equal(r))
	assert.Len(t, back.Footprints, 2, "the usual one stands in the item twice, in the release once")
	assert.Equal(t, []string{"page", "case"}, named(back.Assets, assetName))
}

// What is checked, called or drawn otherwise is another release; another id of a picture in another project is not.
func TestWhenReleasesAreTheSame(t *testing.T) {
	for what, change := range map[string]func(*library.Release){
		"value":   func(r *library.Release) { r.Part.Value = "1k" },
		"pin":     func(r *library.Release) { r.Symbols[1].Pins[0].Name = "X" },
		"pad":     func(r *library.Release) { r.Footprints[1].Pads[2].Hole = 300_000 },
		"opacity": func(r *library.Release) { b := *r.Footprints[1].Beneath; b.Opacity = 70; r.Footprints[1].Beneath = &b },
	} {
		a, b := released(t), released(t)
		require.True(t, a.Same(b) && a.Equal(b))
		change(b)
		assert.False(t, a.Same(b), what)
		assert.False(t, a.Equal(b), what)
	}
	a, b := released(t), released(t)
	b.Footprints[1].Model = 99
	beneath := *b.Footprints[1].Beneath
	beneath.Asset = 98
	b.Footprints[1].Beneath = &beneath
	assert.True(t, a.Same(b))
	assert.Equal(t, design.ID(99), b.Footprints[1].Model, "nothing was changed by looking")
	b.Part.Checked = &design.Checked{By: "Alder", Print: "1"}
	assert.True(t, a.Same(b), "who checked it is not the part")
	assert.False(t, a.Equal(b))
	assert.False(t, b.Equal(a))
	a.Part.Checked = &design.Checked{By: "Alder", Print: "1"}
	assert.True(t, a.Equal(b))
	a.Part.Checked.By = "Rowan"
	assert.False(t, a.Equal(b))
	b.Footprints[0].Checked = &design.Checked{By: "Rowan"}
	assert.True(t, a.Same(b))
	b.Part.Description = "A gear"
	assert.Equal(t, []string{"The description is “A gear” instead of nothing."}, library.Changes(a, b))
}

// A release that lacks something, or has too much, is refused with what it is.
func TestReleasesThatCannotBe(t *testing.T) {
	fill := func(n int) func(*library.Release) {
		return func(r *library.Release) {
			for i := range n - len(r.Symbols) - len(r.Footprints) - len(r.Assets) {
				r.Symbols = append(r.Symbols, &design.Symbol{Name: fmt.Sprint("more ", i)})
			}
		}
	}
	heavy := func(last int) func(*library.Release) {
		return func(r *library.Release) {
			r.Assets = r.Assets[:2]
			for i, n := range []int{8 << 20, 8 << 20, last} {
				r.Assets = append(r.Assets, &design.Asset{ID: design.ID(60 + i), Name: "p", Type: "glb", Data: make([]byte, n)})
			}
		}
	}
	for says, change := range map[string]func(*library.Release){
		"":                      func(*library.Release) {},
		"%":                     fill(40),
		"%%":                    heavy(8<<20 - 2), // the two there are have a byte each
		"no part":               func(r *library.Release) { r.Part = nil },
		"drawn with 41 things":  fill(41),
		"have 24 MB together":   heavy(8<<20 - 1),
		"name is empty":         func(r *library.Release) { r.Part.Name = "" },
		"unknown type":          func(r *library.Release) { r.Symbols[0].Pins[0].Type = "odd" },
		"picture page has 0":    func(r *library.Release) { a := *r.Assets[0]; a.Data = nil; r.Assets[0] = &a },
		"picture of the foot":   func(r *library.Release) { r.Assets = r.Assets[:1] },
		"picture of the footp":  func(r *library.Release) { r.Assets = r.Assets[1:] },
		"symbol B of Gear":      func(r *library.Release) { r.Symbols = append(r.Symbols[:1], r.Symbols[2]) },
		"symbol Whole of Gear":  func(r *library.Release) { r.Symbols = r.Symbols[:2] },
		"footprint Foot M of":   func(r *library.Release) { r.Footprints = r.Footprints[:1] },
		"footprint Foot N of G": func(r *library.Release) { r.Footprints = r.Footprints[1:] },
	} {
		r := released(t)
		change(r)
		err := r.Valid()
		if strings.Trim(says, "%") == "" {
			assert.NoError(t, err)
		} else {
			assert.ErrorContains(t, err, says)
		}
	}
	r := released(t)
	r.Part.Footprint, r.Part.Densities = "", nil
	assert.NoError(t, r.Valid(), "a part needs no footprint")
}

// What is wrong with pins and pads is said for every footprint of the release.
func TestFlawsOfARelease(t *testing.T) {
	r := released(t)
	r.Footprints[1].Pads = r.Footprints[1].Pads[:3]
	var found []string
	for _, f := range r.Flaws(parts.UsualLimits()) {
		if f.Kind == "mapping" {
			found = append(found, f.Text)
		}
	}
	assert.Equal(t, []string{"Pin 4 goes to pad 4, which Foot M does not have."}, found)
}

// Controllers have a pair of supplies on every side, next to each other, and reset, clock and ports in order.
func TestPinsOfControllers(t *testing.T) {
	it, ok := library.Shipped().Find("Controller QFP-48")
	if !ok {
		for _, x := range library.All() {
			if strings.HasPrefix(x.Part.Symbol, "Controller, 48 pins") {
				it, ok = x, true
				break
			}
		}
	}
	require.True(t, ok)
	at := map[string]string{}
	for _, p := range it.Symbol.Pins {
		at[p.Number] = p.Name
	}
	for side := range 4 {
		assert.Equal(t, []string{"VSS", "VDD"}, []string{at[fmt.Sprint(side*12+6)], at[fmt.Sprint(side*12+7)]}, "side %d", side)
	}
	assert.Equal(t, []string{"/RESET", "OSC IN", "OSC OUT", "PA0", "PA1"}, []string{at["1"], at["2"], at["3"], at["4"], at["5"]})
	assert.Equal(t, "PC4", at["48"]) // 48 pins less eight supplies and three: 37 ports, the last one 2·16 + 4
}

// Connectors have their pins below each other in the order of their numbers, a mark beside each.
func TestPinsOfConnectors(t *testing.T) {
	n := 0
	for _, it := range library.All() {
		if !strings.HasPrefix(it.Symbol.Name, "Connector ") {
			continue
		}
		n++
		for i, p := range it.Symbol.Pins {
			assert.Equal(t, fmt.Sprint(i+1), p.Number)
			assert.Equal(t, it.Symbol.Pins[0].At.Sub(geom.Pt(0, int64(i)*parts.Pitch)), p.At, it.Symbol.Name)
			mark := geom.BoxOf(it.Symbol.Figures[i+1].Pts...)
			assert.Equal(t, p.At.Y, mark.Centre().Y, it.Symbol.Name)
		}
	}
	assert.Greater(t, n, 5)
}

// Chips drawn with room for soldering by hand have generated footprints beside them, as high as their kind is: a resistor flat, a
// capacitor as high as it is wide.
func TestAlternativesOfChips(t *testing.T) {
	for name, want := range map[string]string{"Resistor 0603": "RESC1608X48N", "Capacitor 0603": "CAPC1608X80N", "Capacitor 1206": "CAPC3216X160N"} {
		it, ok := library.Shipped().Find(name)
		require.True(t, ok, name)
		if assert.NotNil(t, it.Others[design.Nominal], name) {
			assert.Equal(t, want, it.Others[design.Nominal].Name, name)
		}
	}
}

// Leads of drawn footprints stand in their plated holes and fill two thirds of them, square; outlines stand as high as their kind of component.
func TestBodiesOfDrawnFootprints(t *testing.T) {
	for name, top := range map[string]float64{"TO-92 wide": 4.9, "Screw terminal 2": 10, "Disc 5.08 mm": 4.5, "Toggle 5.08 mm": 9.5} {
		f := library.Footprint(name)
		if !assert.NotNil(t, f, name) {
			continue
		}
		highest, leads := int64(0), 0
		for _, s := range f.Solids {
			highest = max(highest, s.To)
			if s.Material != "lead" {
				continue
			}
			leads++
			box := geom.BoxOf(geom.Named(s.Edge)...)
			in := false
			for i := range f.Pads {
				p := &f.Pads[i]
				side := p.Hole / 3 * 2
				in = in || box.Centre() == p.At && box.Max.X-box.Min.X == side && box.Max.Y-box.Min.Y == side
			}
			assert.True(t, in, "%s: a lead at %v", name, box.Centre())
			assert.Equal(t, []int64{-2 * units.MM, units.MM}, []int64{s.From, s.To})
		}
		assert.Equal(t, units.MMf(top), highest, name)
		holes := 0
		for i := range f.Pads {
			if f.Pads[i].Hole > 0 && !f.Pads[i].Bare {
				holes++
			}
		}
		assert.Equal(t, holes, leads, name)
	}
}

// Packages are found by the names that the trade gives them, and by no others.
func TestPackagesByName(t *testing.T) {
	for name, family := range map[string]string{"0603": "chip", "2512": "chip", "SMA": "moulded", "SOIC-8": "gullTwo", "TSSOP-20": "gullTwo", "DIP-14": "dualInline", "QFN-32": "noLeadFour", "PLCC-44": "jLeadFour", "SOT-23": "transistor"} {
		r := library.PackageNamed(name)
		if assert.NotNil(t, r, name) {
			assert.Equal(t, family, r.Family, name)
		}
	}
	for _, name := range []string{"", "0604", "SOIC", "SOIC-9", "SOIC-", "-8", "QFN-33", "soic-8", "SMD"} {
		assert.Nil(t, library.PackageNamed(name), name)
	}
	assert.Equal(t, int64(1_600_000), library.PackageNamed("0603").Dims["length"].Middle())
}

// Grids of balls have supplies in their middle, ground and supply by turns, and a bank of numbered ones around; headers come in the numbers of positions that are
// sold.
func TestPinsOfArraysAndHeaders(t *testing.T) {
	it, ok := library.Shipped().Find("Logic array BGA-81")
	require.True(t, ok)
	kind := map[string]string{}
	for _, p := range it.Symbol.Pins {
		kind[p.Number] = p.Name
	}
	require.Len(t, kind, 81)
	assert.Equal(t, "GND", kind["E5"], "the middle")
	assert.Equal(t, []string{"VDD", "VDD", "GND", "GND"}, []string{kind["D5"], kind["E6"], kind["D4"], kind["F6"]})
	supplies := 0
	for _, n := range kind {
		if n == "VDD" || n == "GND" {
			supplies++
		}
	}
	assert.Equal(t, 25, supplies, "five by five")
	assert.Equal(t, []string{"IO0", "IO8", "IO9", "IO80"}, []string{kind["A1"], kind["A9"], kind["B1"], kind["J9"]})
	for name, there := range map[string]bool{"Header 1 × 1, 2.54 mm": true, "Header 2 × 1, 2.54 mm": false, "Header 1 × 13, 2.54 mm": true, "Header 1 × 13, 1.27 mm": false, "Header 1 × 2, 2 mm": false,
		"Socket 2 × 20, 1.27 mm": true, "Header 1 × 3, 2 mm": true, "Header 2 × 15, 2 mm": false, "Header 1 × 7, 1.27 mm": false} {
		_, ok := library.Shipped().Find(name)
		assert.Equal(t, there, ok, name)
	}
}
