package demo_test

import (
	"context"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

// The bridge's circuit is whole: a controller of 324 balls in five units, its memory, two connectors, a bundle of 32 lines, eleven pairs.
func TestLoomBridgeCircuit(t *testing.T) {
	d, err := demo.Build("Loom Bridge")
	require.NoError(t, err)
	require.NoError(t, d.Whole())
	b := workbench.Open(d, 0)
	for _, f := range b.Findings() { // notes, and what is yet to be routed
		assert.False(t, f.Open(), f.Text)
	}
	nets := b.Nets()
	packages := map[string]circuit.Package{}
	for _, k := range circuit.Packages(d, nets.Tree) {
		packages[k.Designator] = k
	}
	require.Len(t, packages["U1"].Units, 5)
	assert.Len(t, d.Sheets, 6)
	placed := map[string]*design.Placed{}
	for p := range d.Placed.All() {
		placed[p.Designator] = p
	}
	assert.Len(t, placed["U1"].Nets, 324)
	assert.Len(t, placed["U2"].Nets, 84)
	assert.Len(t, placed["J1"].Nets, 40)
	assert.Len(t, placed["J2"].Nets, 40)
	of := func(part, pad string) string { return d.NetName(placed[part].Nets[pad]) }
	// the third needle's pin of the socket, past no ground yet, leads to the third line
	assert.Equal(t, "LN2", of("J1", "3"))
	assert.Equal(t, "LN4", of("J1", "6"), "the fifth pin is ground")
	assert.Equal(t, "GND", of("J1", "5"))
	joined := map[string]int{}
	for _, n := range placed["U1"].Nets {
		joined[d.NetName(n)]++
	}
	both := 0
	for _, n := range placed["U2"].Nets {
		if name := d.NetName(n); joined[name] == 1 {
			both++
		}
	}
	assert.Equal(t, 48, both, "lines between controller and memory")
	assert.NotEqual(t, of("R1", "2"), of("U2", "G8"), "the reference is not the supply")
	assert.Equal(t, of("R1", "2"), of("R2", "1"))
	assert.NotEqual(t, of("R1", "1"), of("R1", "2"))
	pairs := 0
	for n := range d.Nets.All() {
		if n.Partner != 0 {
			pairs++
			assert.EqualValues(t, 100_000, n.Impedance, n.Name)
		}
	}
	assert.Equal(t, 2*11, pairs)
}

// The bridge is begun: all balls lead out or into areas, by micro, blind and buried vias too; a plane is split in two; no rule is broken, and the
// files' copper joins no two nets.
func TestLoomBridgeIsBegun(t *testing.T) {
	d, err := demo.Build("Loom Bridge")
	require.NoError(t, err)
	b := workbench.Open(d, 0)
	x := b.Index()
	assert.Equal(t, 6, d.Board.Layers())
	kinds := map[string]int{}
	top, bottom := d.Board.Top(), d.Board.Bottom()
	for v := range d.Vias.All() {
		switch {
		case v.Kind == design.Lasered:
			kinds["micro"]++
		case v.From == top && v.To == bottom:
			kinds["through"]++
		case v.From == top || v.To == bottom:
			kinds["blind"]++
		default:
			kinds["buried"]++
		}
	}
	assert.Positive(t, kinds["micro"])
	assert.Positive(t, kinds["buried"])
	assert.Positive(t, kinds["through"])
	areas := map[design.LayerID][]*design.Pour{}
	for p := range d.Pours.All() {
		for _, l := range p.Layers {
			areas[l] = append(areas[l], p)
		}
	}
	plane := areas[d.Board.At(4)]
	require.Len(t, plane, 2, "split")
	one, other := geom.Within(plane[0].Outline).Box(), geom.Within(plane[1].Outline).Box()
	assert.True(t, one.Max.X <= other.Min.X || other.Max.X <= one.Min.X, "side by side")
	assert.Len(t, areas[bottom], 2)
	supplies := map[string]bool{"GND": true, "+3V3": true, "+1V5": true, "+1V2": true}
	for p := range d.Placed.All() {
		if p.Designator != "U1" && p.Designator != "U2" {
			continue
		}
		var balls geom.Extent
		for _, c := range x.Of(p.ID) {
			balls.Add(c.At)
		}
		edge := balls.Box.Grow(390_000)
		for _, c := range x.Of(p.ID) {
			net := d.NetName(c.Net)
			led := supplies[net]
			for _, is := range layout.Islands(x.NetPieces(c.Net), b.Bonds(c.Net)...) {
				ours, vias := false, 0
				out := false
				for _, o := range is {
					ours = ours || o == c
					if o.Kind == "via" {
						vias++
					}
					if o.Kind == "track" {
						tr := d.Tracks[o.ID]
						out = out || !edge.Holds(tr.A) || !edge.Holds(tr.B)
					}
				}
				if ours && supplies[net] {
					led = vias > 10
				} else if ours {
					led = out
				}
			}
			assert.True(t, led, "%s of %s", c.Name, net)
		}
	}
	files, err := handoff.Make(context.Background(), d, x, "Loom Bridge", time.Unix(0, 0), nil)
	require.NoError(t, err)
	var copper []*reread.Artwork
	var drills []*reread.Drilling
	for _, f := range files {
		switch {
		case strings.Contains(f.Name, "-copper-"):
			art, err := reread.Gerber(f.Data)
			require.NoError(t, err)
			copper = append(copper, art)
		case strings.HasSuffix(f.Name, ".xnc") && !strings.HasSuffix(f.Name, "-unplated.xnc"):
			drilled, err := reread.Drill(f.Data)
			require.NoError(t, err)
			drills = append(drills, drilled)
		}
	}
	islands, err := reread.Trace(copper, drills)
	require.NoError(t, err)
	most := map[string]int{}
	for _, is := range islands {
		require.LessOrEqual(t, len(is.Nets), 1, "%v", is.Nets)
		if len(is.Nets) == 1 {
			most[is.Nets[0]] = max(most[is.Nets[0]], len(is.Pins))
		}
	}
	assert.Greater(t, most["GND"], 150, "ground hangs together")
	assert.Greater(t, most["+1V5"], 20)
	assert.Greater(t, most["+3V3"], 10)
}
