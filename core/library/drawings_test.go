package library_test

import (
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/library"
)

const mm = 1_000_000

// drawn are the items whose footprint is drawn by hand; the others are generated (generated_test.go).
func drawn() (out []library.Item) {
	for _, it := range library.All() {
		if it.Footprint.Recipe == nil {
			out = append(out, it)
		}
	}
	return out
}

func boxOfFigures(list []design.Figure) geom.Box {
	var e geom.Extent
	for _, f := range list {
		for _, p := range f.Pts {
			e.AddBox(geom.BoxOf(p).Grow(f.R))
		}
	}
	return e.Box
}

// strokes are the sides of a figure.
func strokes(f design.Figure) (out [][2]geom.Point) {
	for i := 1; i < len(f.Pts); i++ {
		out = append(out, [2]geom.Point{f.Pts[i-1], f.Pts[i]})
	}
	if f.Form != "line" && len(f.Pts) > 2 {
		out = append(out, [2]geom.Point{f.Pts[len(f.Pts)-1], f.Pts[0]})
	}
	return out
}

// near is how far a place lies from what is drawn.
func near(p geom.Point, list []design.Figure) float64 {
	best := math.Inf(1)
	for _, f := range list {
		if f.Form == "circle" {
			best = min(best, math.Abs(p.Dist(f.Pts[0])-float64(f.R)))
		}
		for _, s := range strokes(f) {
			d, _, _ := geom.SegmentDistance(p, p, s[0], s[1])
			best = min(best, d)
		}
	}
	return best
}

// mirrored tells whether figures look the same when they are mirrored.
func mirrored(list []design.Figure, kx, ky int64) bool {
	key := func(f design.Figure, kx, ky int64) []string {
		var out []string
		if f.Form == "circle" {
			return []string{fmt.Sprint(f.Pts[0].X*kx, f.Pts[0].Y*ky, f.R)}
		}
		for _, s := range strokes(f) {
			a, b := geom.Pt(s[0].X*kx, s[0].Y*ky), geom.Pt(s[1].X*kx, s[1].Y*ky)
			if a.X > b.X || a.X == b.X && a.Y > b.Y {
				a, b = b, a
			}
			out = append(out, fmt.Sprint(a, b))
		}
		return out
	}
	var x, y []string
	for _, f := range list {
		x = append(x, key(f, 1, 1)...)
		y = append(y, key(f, kx, ky)...)
	}
	slices.Sort(x)
	slices.Sort(y)
	return slices.Equal(x, y)
}

// symmetry of a symbol's figures as the nature of the part has it: x, mirrored left to right; y,
// mirrored top to bottom.
var symmetry = map[string]string{
	"Solder bridge": "xy",
	"Resistor":      "xy", "Capacitor": "xy", "Fuse": "xy", "Crystal": "xy", "Coil": "x", "Clamp pair": "x",
	"Diode": "y", "Amplifier 1": "y", "Amplifier 2": "y", "Amplifier supply": "xy",
	"Bus driver": "x", "Line memory": "xy", "Clock": "xy", "Controller 48": "xy", "Dual amplifier": "x", "Memory": "x", "Regulator": "xy",
	"Button": "x", "Service port": "xy", "Shift register": "xy", "Step-down converter": "x",
}

// Every pin's line reaches the body, figures lie between the pins' ends, the designator stands
// above and the value below what is drawn; what is symmetrical by nature is drawn so.
func TestSymbolsAreDrawnWhole(t *testing.T) {
	seen := map[string]bool{}
	for _, it := range drawn() {
		for _, s := range append([]*design.Symbol{it.Symbol}, it.Units...) {
			if seen[s.Name] {
				continue
			}
			seen[s.Name] = true
			var ends geom.Extent
			for _, p := range s.Pins {
				way := []geom.Point{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}[p.Turn]
				inner := p.At.Add(geom.Pt(way.X*p.Length, way.Y*p.Length))
				assert.Zero(t, near(inner, s.Figures), "%s: the line of pin %s ends on the body", s.Name, p.Number)
				ends.AddBox(geom.BoxOf(p.At))
			}
			drawn := boxOfFigures(s.Figures)
			body := drawn
			if len(s.Pins) < 4 {
				assert.LessOrEqual(t, drawn.Max.X-drawn.Min.X, int64(15*mm), s.Name)
			}
			beside := s.DesignatorAt.X > drawn.Max.X
			assert.True(t, beside || s.DesignatorAt.Y > body.Max.Y && s.DesignatorAt.Y < body.Max.Y+6*mm, "%s: its designator stands just above it, or beside", s.Name)
			assert.True(t, beside || s.ValueAt.Y < body.Min.Y && s.ValueAt.Y > body.Min.Y-6*mm, "%s: its value stands just below it", s.Name)
			assert.True(t, !beside || s.DesignatorAt.Y == -s.ValueAt.Y && s.DesignatorAt.Y > 0, s.Name)
			assert.Equal(t, s.DesignatorAt.X == s.ValueAt.X, s.Name != "LED", s.Name) // whose rays take the place
			want := symmetry[s.Name]
			assert.Equal(t, strings.Contains(want, "x"), mirrored(s.Figures, -1, 1), "%s left to right", s.Name)
			assert.Equal(t, strings.Contains(want, "y"), mirrored(s.Figures, 1, -1), "%s top to bottom", s.Name)
			for _, f := range s.Figures {
				for _, p := range f.Pts {
					assert.True(t, ends.Box.Grow(17_500_000).Holds(p), "%s: nothing is drawn far beyond its pins", s.Name)
				}
			}
		}
	}
	for name := range symmetry {
		assert.True(t, seen[name], name)
	}
}

// Around pads and body the courtyard leaves 0.25 mm at the least (IPC-7351, nominal density), the
// same on facing sides of what is symmetrical; silk keeps clear of pads and, but for the marks of
// polarity, within the courtyard.
func TestFootprintsAreDrawnWhole(t *testing.T) {
	bodySkew := map[string]string{"DFN-8": "xy", "Supply socket": "x", "SOIC-8": "xy", "SOIC-16": "xy", "QFP-48": "xy", "Balls 6 × 14, 0.8 mm": "xy", "TO-92 wide": "y", "Service port": "y", "Battery plug 2 mm": "y"} // bevelled, or one-sided
	silkSkew := map[string]string{
		"DFN-8": "xy", "Supply socket": "xy", "Battery plug 2 mm": "xy", // pin 1, polarity, cathode, the side where wires enter
		"SOIC-8": "xy", "SOIC-16": "xy", "QFP-48": "xy", "Balls 6 × 14, 0.8 mm": "xy", "TO-92 wide": "y", "Service port": "xy", "SOT-23": "y", "Axial 7.62 mm": "x", "Can 5 mm": "xy",
		"LED 5 mm": "x", "SMA": "x", "0805 diode": "x", "Coin cell 20 mm": "xy", "Header 4": "x", "Header 6": "x", "Header 10": "x", "Screw terminal 2": "y", "Screw terminal 3": "y",
	}
	seen := map[string]bool{}
	for _, it := range drawn() {
		f := it.Footprint
		if seen[f.Name] {
			continue
		}
		seen[f.Name] = true
		var all geom.Extent
		all.AddBox(boxOfFigures(f.Body))
		for i := range f.Pads {
			pad := layout.PadShape(&f.Pads[i])
			all.AddBox(pad.Box())
			for _, g := range f.Silk {
				for _, s := range strokes(g) {
					gap, _, _ := geom.Gap(pad, geom.Stroke(s[0], s[1], 150_000))
					assert.GreaterOrEqual(t, gap, 0.12*mm, "%s: silk beside pad %s", f.Name, f.Pads[i].Number)
				}
			}
		}
		yard := geom.BoxOf(f.Courtyard...)
		left, right := all.Box.Min.X-yard.Min.X, yard.Max.X-all.Box.Max.X
		below, above := all.Box.Min.Y-yard.Min.Y, yard.Max.Y-all.Box.Max.Y
		for _, m := range []int64{left, right, below, above} {
			assert.GreaterOrEqual(t, m, int64(200_000), "%s: %v in %v", f.Name, all.Box, yard)
			assert.LessOrEqual(t, m, int64(600_000), "%s: %v in %v", f.Name, all.Box, yard)
		}
		if f.Name != "Service port" && f.Name != "Supply socket" {
			assert.Equal(t, []int64{left, below}, []int64{right, above}, f.Name)
		}
		assert.Equal(t, !strings.Contains(bodySkew[f.Name], "x"), mirrored(f.Body, -1, 1), "%s: its body, left to right", f.Name)
		assert.Equal(t, !strings.Contains(bodySkew[f.Name], "y"), mirrored(f.Body, 1, -1), "%s: its body, top to bottom", f.Name)
		assert.Equal(t, !strings.Contains(silkSkew[f.Name], "x"), mirrored(f.Silk, -1, 1), "%s: its silk, left to right", f.Name)
		assert.Equal(t, !strings.Contains(silkSkew[f.Name], "y"), mirrored(f.Silk, 1, -1), "%s: its silk, top to bottom", f.Name)
		if f.Name != "Can 5 mm" {
			silk := boxOfFigures(f.Silk)
			assert.True(t, yard.Holds(silk.Min) && yard.Holds(silk.Max), "%s: silk within the courtyard", f.Name)
		}
		if !strings.HasPrefix(f.Name, "Screw terminal") { // which bear theirs on the body, above the screws
			assert.Greater(t, f.DesignatorAt.Y, all.Box.Max.Y, "%s: its designator stands above it", f.Name)
			assert.Less(t, f.DesignatorAt.Y, all.Box.Max.Y+3*mm, f.Name)
		}
	}
}

// Pads lie alike on both sides: left and right of the middle, or above and below where a package has
// another number of leads on each side (SOT-23); only the service port's shell is held on one side.
func TestPadsLieAlikeOnBothSides(t *testing.T) {
	place := func(p design.Pad, kx, ky int64) string { return fmt.Sprint(p.At.X*kx, p.At.Y*ky, p.Size, p.Hole) }
	for _, it := range drawn() {
		f := it.Footprint
		if f.Name == "Supply socket" {
			assert.Equal(t, []geom.Point{{}, {X: 6_000_000}, {X: 3_000_000, Y: 4_700_000}}, []geom.Point{f.Pads[0].At, f.Pads[1].At, f.Pads[2].At}, "middle, sleeve 6 mm behind it, switch beside them")
			continue
		}
		if f.Name == "Service port" {
			assert.Equal(t, []geom.Point{{X: -1_300_000, Y: 2_700_000}, {X: -650_000, Y: 2_700_000}, {X: 0, Y: 2_700_000}, {X: 1_300_000, Y: 2_700_000}, {X: 3_200_000, Y: 0}},
				[]geom.Point{f.Pads[0].At, f.Pads[1].At, f.Pads[2].At, f.Pads[3].At, f.Pads[4].At}, "contacts 0.65 mm apart, the fourth of five left out")
			continue
		}
		all := map[string]int{}
		for i, p := range f.Pads {
			all[place(p, 1, 1)]++
			for j := range i {
				gap, _, _ := geom.Gap(layout.PadShape(&f.Pads[i]), layout.PadShape(&f.Pads[j]))
				assert.GreaterOrEqual(t, gap, 0.2*mm, "%s: pads %s and %s", f.Name, f.Pads[j].Number, p.Number)
			}
		}
		alike := func(kx, ky int64) bool {
			for _, p := range f.Pads {
				if all[place(p, kx, ky)] != 1 {
					return false
				}
			}
			return true
		}
		assert.True(t, alike(-1, 1) || alike(1, -1), "%s", f.Name)
	}
}

// What a footprint's description says of its pitch its first two pads have.
func TestPitchesAreAsTheDescriptionSays(t *testing.T) {
	said := regexp.MustCompile(`(?:pitch|at) ([\d.]+) mm`)
	n := 0
	for _, it := range drawn() {
		f := it.Footprint
		m := said.FindStringSubmatch(f.Description)
		if m == nil || strings.HasPrefix(f.Name, "Relay") { // whose first two are the coil's
			continue
		}
		n++
		want, err := strconv.ParseFloat(m[1], 64)
		assert.NoError(t, err)
		assert.InDelta(t, want*mm, f.Pads[0].At.Dist(f.Pads[1].At), 1, f.Name)
	}
	assert.Greater(t, n, 10)
}

// Leads of packages with leads on two and four sides are numbered anticlockwise, seen from above,
// from the upper left (IEC 60191-2, terminal numbering), once round.
func TestLeadsAreNumberedAnticlockwise(t *testing.T) {
	for _, name := range []string{"SOIC-8", "SOIC-16", "QFP-48"} {
		f := library.Footprint(name)
		first := f.Pads[0].At
		assert.True(t, first.X < 0 && first.Y > 0, "%s begins at the upper left", name)
		turned := 0.0
		for i := range f.Pads {
			a, b := f.Pads[i].At, f.Pads[(i+1)%len(f.Pads)].At
			step := math.Atan2(float64(a.X)*float64(b.Y)-float64(a.Y)*float64(b.X), float64(a.X)*float64(b.X)+float64(a.Y)*float64(b.Y))
			assert.Positive(t, step, "%s, from %s on", name, f.Pads[i].Number)
			assert.Equal(t, fmt.Sprint(i+1), f.Pads[i].Number, name)
			turned += step
		}
		assert.InDelta(t, 2*math.Pi, turned, 1e-9, name)
	}
}

// Every footprint of the library has a body in space, which stands on the board and over the pads or the outline of its component.
func TestFootprintsHaveBodies(t *testing.T) {
	for _, it := range library.All() {
		f := it.Footprint
		if f == nil || f.Name == "Solder bridge" { // which is of copper alone
			continue
		}
		require.NotEmpty(t, f.Solids, f.Name)
		require.NoError(t, f.Valid())
		var body geom.Extent
		top := int64(0)
		for _, s := range f.Solids {
			top = max(top, s.To)
			for _, c := range s.Edge {
				body.Add(c.Point)
			}
			if s.Form != design.Prism {
				body.Add(s.A)
				body.Add(s.B)
			}
		}
		assert.Greater(t, top, int64(100_000), f.Name)
		assert.Less(t, top, int64(45_000_000), f.Name)
		yard := geom.BoxOf(f.Courtyard...).Grow(600_000)
		for _, p := range []geom.Point{body.Box.Min, body.Box.Max} {
			assert.True(t, yard.Holds(p), "%s reaches to %v, beyond its courtyard", f.Name, p)
		}
	}
}
