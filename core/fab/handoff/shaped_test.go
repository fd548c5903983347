package handoff_test

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// A board with a bit of every shape, made by commands, is clean and complete; its files are read back
// as it was drawn and join what the circuit joins.
func TestABoardOfEveryShape(t *testing.T) {
	d, err := synthetic.Shaped()
	require.NoError(t, err)
	require.NoError(t, d.Whole())
	b := workbench.Open(d, 0)
	for _, f := range b.OpenFindings() {
		if f.Kind != "corner" && f.Kind != "silkOn" { // three of its tracks turn by 90°, and its silk lies on a via
			assert.Fail(t, "it is clean", "%s: %s", f.Kind, f.Text)
		}
	}
	f := files(t, d, "Reed")

	want := map[string][]string{}
	for name, n := range b.Nets().ByName {
		for _, p := range n.Pins {
			if len(n.Pins) > 1 {
				want[name] = append(want[name], d.Parts[p.Part].Designator+"."+p.Pin)
			}
		}
		slices.Sort(want[name])
	}
	maps.DeleteFunc(want, func(_ string, pins []string) bool { return len(pins) == 0 })
	got := map[string][]string{}
	for _, is := range trace(t, f) {
		require.Len(t, is.Nets, 1)
		if is.Nets[0] != "N/C" {
			got[is.Nets[0]] = append(got[is.Nets[0]], is.Pins...)
		}
	}
	assert.Equal(t, want, got)

	// every point of a fine grid is copper in the files where it is in the design
	for layer := range 4 {
		art, err := reread.Gerber(f[fmt.Sprintf("copper-%d.gbr", layer+1)])
		require.NoError(t, err)
		x := layout.NewIndex(d)
		for px := int64(-1); px < 61; px++ {
			for py := int64(-1); py < 41; py++ {
				p := geom.Pt(px*1_000_000+137_000, py*1_000_000+291_000)
				gap := math.Inf(1)
				for c := range x.All() {
					if c.Has(layer) && !c.Bare {
						g, _, _ := geom.Gap(c.On(layer), geom.Disc(p, 0))
						gap = min(gap, g)
					}
				}
				if math.Abs(gap) < 5_000 { // the reader follows arcs in steps
					continue
				}
				in := slices.ContainsFunc(art.Marks, func(m reread.Mark) bool {
					return slices.ContainsFunc(m.Shapes, func(s geom.Shape) bool { return s.Holds(p) })
				})
				assert.Equal(t, gap < 0, in, "layer %d at %v", layer+1, p)
			}
		}
	}

	// the edge: its length, arcs included, round corners and the cut-out
	edge := string(f["outline.gbr"])
	assert.Equal(t, 6, strings.Count(edge, "J")-strings.Count(edge, "Job"), "four corners and two ends of the cut-out are arcs")
	art, err := reread.Gerber(f["outline.gbr"])
	require.NoError(t, err)
	length := 0.0
	for _, m := range art.Marks {
		for _, s := range m.Shapes {
			for i := 0; i+1 < len(s.Pts); i++ {
				length += s.Pts[i].Dist(s.Pts[i+1])
			}
		}
	}
	assert.InDelta(t, 2*50+2*30+10*math.Pi+2*10+4*math.Pi, length/1e6, 0.02)

	// holes: three slots among the plated ones, the blind via in a file of its own
	plated, err := reread.Drill(f["plated.xnc"])
	require.NoError(t, err)
	var slots []string
	for _, h := range plated.Holes {
		if h.Slot != (geom.Point{}) {
			slots = append(slots, fmt.Sprintf("%d,%d %+d,%+d ø%d", h.At.X/1000, h.At.Y/1000, h.Slot.X/1000, h.Slot.Y/1000, h.Diameter/1000))
		}
	}
	assert.ElementsMatch(t, []string{"10000,11000 +0,+2000 ø1000", "16000,11100 +0,+1800 ø1000", "12100,16700 +1800,+0 ø1000"}, slots)
	blind, err := reread.Drill(f["plated-1-2.xnc"])
	require.NoError(t, err)
	require.Len(t, blind.Holes, 1)
	assert.Equal(t, []int{1, 2}, []int{blind.From, blind.To})
	assert.Equal(t, geom.Pt(34_550_000, 9_500_000), blind.Holes[0].At)

	// openings: the heat pad gets two windows of paste, the bridge none, the open via is free of mask
	paste, err := reread.Gerber(f["paste-top.gbr"])
	require.NoError(t, err)
	near := func(art *reread.Artwork, x, y float64) (n int) {
		for _, m := range art.Marks {
			for _, s := range m.Shapes {
				if m.Dark && s.Holds(geom.Pt(int64(x*1e6), int64(y*1e6))) {
					n++
				}
			}
		}
		return n
	}
	assert.Equal(t, []int{0, 1, 1, 0}, []int{near(paste, 36, 12), near(paste, 36, 12.55), near(paste, 36, 11.45), near(paste, 23.4, 12)})
	mask, err := reread.Gerber(f["mask-bottom.gbr"])
	require.NoError(t, err)
	assert.Equal(t, []int{1, 0, 1}, []int{near(mask, 36.95, 22.5), near(mask, 32, 20), near(mask, 10, 12)}, "the open via, a covered one, a plated pad")

	// the test netlist has a record for each pad and via that can be reached
	probes, err := reread.TestNetlist(f["netlist.ipc"])
	require.NoError(t, err)
	assert.Len(t, probes, 3+2+9+2+5, "socket, bridge, amplifier, resistor, vias")
	for _, p := range probes {
		if p.Part == "J1" {
			assert.Equal(t, map[string]string{"1": "VIN", "2": "GND", "3": "GND"}[p.Pin], p.Net)
		}
	}

	// what was removed and brought again stands as it was
	before := b.Fingerprint()
	for v := range d.Vias.All() {
		if v.Cover == design.Open {
			assert.EqualValues(t, 400_000, v.On(d.Board.At(1)), "no pad on the inner layers, only the barrel")
		}
	}
	assert.Equal(t, before, b.Fingerprint())
}
