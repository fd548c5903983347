package handoff_test

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

func files(t require.TestingT, d *design.Doc, name string) map[string][]byte {
	list, err := handoff.Make(context.Background(), d, layout.NewIndex(d), name, time.Date(2026, 3, 4, 5, 6, 7, 0, time.UTC), nil)
	require.NoError(t, err)
	out := map[string][]byte{}
	for _, f := range list {
		out[strings.TrimPrefix(f.Name, handoff.Stem(name)+"-")] = f.Data
	}
	return out
}

func trace(t require.TestingT, f map[string][]byte) []reread.Island {
	var copper []*reread.Artwork
	for i := 1; f[fmt.Sprintf("copper-%d.gbr", i)] != nil; i++ {
		a, err := reread.Gerber(f[fmt.Sprintf("copper-%d.gbr", i)])
		require.NoError(t, err)
		copper = append(copper, a)
	}
	var drills []*reread.Drilling
	for name, data := range f {
		if strings.HasSuffix(name, ".xnc") {
			d, err := reread.Drill(data)
			require.NoError(t, err)
			drills = append(drills, d)
		}
	}
	islands, err := reread.Trace(copper, drills)
	require.NoError(t, err)
	return islands
}

// The demo's files, read back, join what the circuit joins; the test netlist names the same
// nets at the same places.
func TestFilesSayWhatTheCircuitSays(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	f := files(t, d, "Moth Lamp")
	var want [][]string
	for _, n := range workbench.Open(d, 0).Nets().ByName {
		var pins []string
		for _, p := range n.Pins {
			pins = append(pins, d.Parts[p.Part].Designator+"."+p.Pin)
		}
		slices.Sort(pins)
		want = append(want, pins)
	}
	slices.SortFunc(want, func(a, b []string) int { return strings.Compare(a[0], b[0]) })
	var got [][]string
	for _, is := range trace(t, f) {
		got = append(got, is.Pins)
		assert.Len(t, is.Nets, 1)
	}
	assert.Equal(t, want, got)

	probes, err := reread.TestNetlist(f["netlist.ipc"])
	require.NoError(t, err)
	art, err := reread.Gerber(f["copper-2.gbr"])
	require.NoError(t, err)
	seen := 0
	for _, p := range probes {
		for _, m := range art.Marks {
			if m.Kind == "flash" && m.At == p.At {
				assert.Equal(t, p.Net, m.Net, "%s.%s", p.Part, p.Pin)
				assert.Equal(t, p.Part, m.Part)
				seen++
			}
		}
	}
	assert.Equal(t, len(probes), seen, "every test point is a pad of the artwork")
	assert.Len(t, probes, 26)
}

// Every kind of pad, turned by odd angles, lies in the artwork where the design has it.
func TestPadsAtOddAngles(t *testing.T) {
	b := workbench.Open(design.New("odd"), 0)
	sheet := b.Doc.SheetsInOrder()[0].ID
	do := func(c edit.Command) {
		t.Helper()
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	for i, lib := range []string{"Resistor 0805", "Dual amplifier", "Header 4", "LED"} {
		do(&edit.PlacePart{Sheet: sheet, Library: lib, At: geom.Pt(int64(i)*25_000_000, 0)})
	}
	do(&edit.SetOutline{Outline: geom.Corners(geom.Pt(0, 0), geom.Pt(60_000_000, 0), geom.Pt(60_000_000, 60_000_000), geom.Pt(0, 60_000_000))})
	do(&edit.Carry{All: true})
	n := int64(0)
	for p := range b.Doc.Placed.All() {
		x, y, a, bottom := 10_000_000+n*12_000_000, int64(30_000_000), int32(17_300+31_000*n), n == 1
		do(&edit.SetPlaced{ID: p.ID, X: &x, Y: &y, Angle: &a, Bottom: &bottom})
		n++
	}
	f := files(t, b.Doc, "odd")
	for layer := range 2 {
		art, err := reread.Gerber(f[fmt.Sprintf("copper-%d.gbr", layer+1)])
		require.NoError(t, err)
		count := 0
		for p := range b.Doc.Placed.All() {
			for _, c := range b.Index().Of(p.ID) {
				if !c.Has(layer) {
					continue
				}
				count++
				i := slices.IndexFunc(art.Marks, func(m reread.Mark) bool { return m.At == c.At })
				require.GreaterOrEqual(t, i, 0, c.Name)
				// points just inside and outside the design's pad are so in the file
				box := c.Shape.Box()
				for dx := int64(-1); dx <= 9; dx++ {
					for dy := int64(-1); dy <= 9; dy++ {
						q := geom.Pt(box.Min.X+dx*(box.Max.X-box.Min.X)/8, box.Min.Y+dy*(box.Max.Y-box.Min.Y)/8)
						gap, _, _ := geom.Gap(c.Shape, geom.Disc(q, 0))
						if gap > -200 && gap < 200 {
							continue // within a hair of the border
						}
						in := slices.ContainsFunc(art.Marks[i].Shapes, func(s geom.Shape) bool { return s.Holds(q) })
						assert.Equal(t, gap < 0, in, "%s at %v", c.Name, q)
					}
				}
			}
		}
		assert.Len(t, art.Marks, count)
	}
}

// On a larger board the copper in the files falls into the same pieces as in the design.
func TestGeneratedBoardTraces(t *testing.T) {
	d, err := synthetic.Design(200)
	require.NoError(t, err)
	f := files(t, d, "generated")
	x := layout.NewIndex(d)
	pieces := 0
	for _, net := range x.Nets() {
		pieces += 1 + len(layout.Links(x.NetPieces(net)))
	}
	islands := trace(t, f)
	withNet := 0
	for _, is := range islands {
		assert.Len(t, is.Nets, 1, "a short: %v", is.Nets)
		if is.Nets[0] != "N/C" {
			withNet++
		}
	}
	assert.Equal(t, pieces, withNet)
}

func TestDrillAndMaskAndTables(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	f := files(t, d, "Moth Lamp")
	plated, err := reread.Drill(f["plated.xnc"])
	require.NoError(t, err)
	unplated, err := reread.Drill(f["unplated.xnc"])
	require.NoError(t, err)
	assert.Len(t, plated.Holes, 26)
	assert.True(t, plated.Plated)
	assert.False(t, unplated.Plated)
	var screws []geom.Point
	for _, h := range unplated.Holes {
		assert.EqualValues(t, 3_200_000, h.Diameter)
		screws = append(screws, h.At)
	}
	assert.ElementsMatch(t, []geom.Point{{X: 3_500_000, Y: 3_500_000}, {X: 46_500_000, Y: 3_500_000}, {X: 46_500_000, Y: 36_500_000}, {X: 3_500_000, Y: 36_500_000}}, screws)
	mask, err := reread.Gerber(f["mask-bottom.gbr"])
	require.NoError(t, err)
	assert.Len(t, mask.Marks, 30, "26 pads and 4 screw holes are open")
	assert.Equal(t, "Negative", mask.Attributes[".FilePolarity"])
	outline, err := reread.Gerber(f["outline.gbr"])
	require.NoError(t, err)
	assert.Equal(t, "Profile,NP", outline.Attributes[".FileFunction"])
	rows, err := csv.NewReader(bytes.NewReader(f["placement.csv"])).ReadAll()
	require.NoError(t, err)
	assert.Len(t, rows, 13)
	assert.Equal(t, []string{"C1", "22µ", "Can 5 mm", "22.225", "17.78", "0", "top"}, rows[1])
	rows, err = csv.NewReader(bytes.NewReader(f["parts.csv"])).ReadAll()
	require.NoError(t, err)
	assert.Equal(t, []string{"2", "C1 C2"}, rows[1][:2])
}

func TestNoOutlineNoFiles(t *testing.T) {
	d := design.New("bare")
	_, err := handoff.Make(context.Background(), d, layout.NewIndex(d), "bare", time.Now(), nil)
	assert.ErrorContains(t, err, "no outline")
}

// Files of elsewhere, written by hand after the format's specification.
func TestReaderOnForeignFiles(t *testing.T) {
	art, err := reread.Gerber([]byte("G04 hand-made*%FSLAX24Y24*%%MOIN*%%AMDONUT*1,1,$1,0,0*20,1,$2,-0.1,0,0.1,0,0*%%ADD10C,0.02*%%ADD11DONUT,0.05X0.01*%G75*D10*X0Y0D02*X10000D01*G03X20000Y10000I0J10000D01*D11*X5000Y5000D03*G36*X0Y0D02*G01X10000D01*Y10000D01*X0Y0D01*G37*M02*"))
	require.NoError(t, err)
	require.Len(t, art.Marks, 4)
	assert.Equal(t, geom.Pt(25_400_000, 0), art.Marks[0].Shapes[0].Pts[1], "one inch in 2.4 inch format")
	end := art.Marks[1].Shapes[0].Pts
	assert.Equal(t, geom.Pt(50_800_000, 25_400_000), end[len(end)-1])
	for _, p := range end {
		assert.InDelta(t, 25_400_000, p.Dist(geom.Pt(25_400_000, 25_400_000)), 2, "on the arc")
	}
	assert.Len(t, art.Marks[2].Shapes, 2)
	assert.Equal(t, "region", art.Marks[3].Kind)
	for _, bad := range []string{"", "hello", "%FSLAX24Y24*%%MOIN*%X0Y0D03*M02*", "%FSLAX24Y24*%%MOIN*%%ADD10C,0.02*%D10*X0Y0D03*", "%FSLAX24Y24*%%MOMM*%%ADD10Q,1*%M02*"} {
		_, err := reread.Gerber([]byte(bad))
		assert.Error(t, err, bad)
	}
	for _, bad := range []string{"", "M48\nMETRIC\nT1C0.8\n%\nT2\nX1Y1\nM30\n", "M48\nMETRIC\nT1C0.8\n%\nT1\nX1.0Y1.0\n"} {
		_, err := reread.Drill([]byte(bad))
		assert.Error(t, err, bad)
	}
}
