package question

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// A track on Tallow's board is asked what a hop to another layer would take at its end, and why not something better.
func TestWhatAHopWouldTake(t *testing.T) {
	d := design.New("hops")
	w := workbench.Open(d, 0)
	_, err := w.Edit(&edit.TakeStack{House: "tallow", Name: "Six layers, 1.2 mm"})
	require.NoError(t, err)
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(20_000_000, 0), geom.Pt(20_000_000, 20_000_000), geom.Pt(0, 20_000_000))
	d.Put(&b)
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 100_000, design.TrackWidth: 100_000, design.LeastWidth: 75_000,
		design.HoleClearance: 200_000})
	net := synthetic.Net(d, "A")
	d.Put(&design.Track{ID: 500, Layer: b.Top(), A: geom.Pt(2_000_000, 10_000_000), B: geom.Pt(4_000_000, 10_000_000), Width: 100_000,
		Net: net})
	d.Put(&design.Track{ID: 501, Layer: b.Bottom(), A: geom.Pt(10_000_000, 2_000_000), B: geom.Pt(10_000_000, 18_000_000),
		Width: 200_000, Net: synthetic.Net(d, "WALL")})
	w = workbench.Open(d, 0)
	ask := Track{From: geom.Pt(4_000_000, 10_000_000), To: geom.Pt(10_000_000, 10_000_000), Layer: b.Top(), Net: net, HopTo: b.At(3)}
	way, err := ask.Answer(w)
	require.NoError(t, err)
	require.Greater(t, len(way.Ways), 2)
	assert.Equal(t, HopTried{Says: "Through", Why: "this would touch track of WALL"}, way.Ways[0])
	assert.Equal(t, HopTried{Says: "Top micro, beside it Buried", Fits: true}, way.Ways[1])
	assert.Equal(t, HopTried{Says: "Top micro, on it Buried"}, way.Ways[2], "not tried")
	require.NotNil(t, way.Hop)
	assert.Len(t, way.Hop.Vias, 2)
	assert.Len(t, way.Hop.Tracks, 1)
	assert.False(t, way.Hop.Own)
	assert.Equal(t, []int64{250_000, 100_000}, []int64{way.ViaSize, way.ViaHole})

	ask.HopBy = 3
	way, err = ask.Answer(w)
	require.NoError(t, err)
	assert.True(t, way.Ways[2].Fits)
	assert.Empty(t, way.Hop.Tracks, "stacked")
	assert.True(t, way.Hop.Own)
	ask.HopBy = 1
	way, err = ask.Answer(w)
	require.NoError(t, err)
	assert.Nil(t, way.Hop)
	assert.Equal(t, "this would touch track of WALL", way.Via)

	ask.HopBy, ask.Hop, ask.HopTo = 1, true, b.Bottom()
	way, err = ask.Answer(w)
	require.NoError(t, err)
	end := way.Runs[len(way.Runs)-1].Path
	assert.InDelta(t, 500_000, end[len(end)-1].Point.Dist(geom.Pt(10_000_000, 10_000_000)), 10,
		"the nearest place: half of 0.45 mm, 0.1 mm, half the wall, in steps of a tenth")
	turned := int32(90_000)
	ask = Track{From: geom.Pt(4_000_000, 10_000_000), To: geom.Pt(6_000_000, 10_000_000), Layer: b.Top(), Net: net, HopTo: b.At(3),
		HopBy: 2, Turned: &turned}
	way, err = ask.Answer(w)
	require.NoError(t, err)
	assert.Equal(t, geom.Pt(6_000_000, 10_350_000), way.Hop.Holes[1].At, "upwards by half of both holes and 0.2 mm")
	ask.HopTo = b.Top()
	way, err = ask.Answer(w)
	require.NoError(t, err)
	assert.Nil(t, way.Hop)
	assert.Empty(t, way.Ways)
}

// Vias that were drawn before the house's table was there count as what they are: a through one is one of the table's through ones.
func TestViasAreCountedByWhatTheyAre(t *testing.T) {
	d := design.New("counted")
	w := workbench.Open(d, 0)
	_, err := w.Edit(&edit.TakeStack{House: "tallow", Name: "Six layers, 1.2 mm"})
	require.NoError(t, err)
	b, net := d.Board, synthetic.Net(d, "A")
	put := func(id design.ID, kind string, from, to int, barrel design.BarrelID) {
		d.Put(&design.Via{ID: id, At: geom.Pt(int64(id)*1_000_000, 0), Kind: kind, From: b.At(from), To: b.At(to), Hole: 200_000, Diameter: 450_000, Net: net, Barrel: barrel})
	}
	put(50, "", 0, 5, 0)
	put(51, "", 0, 5, b.Holes.Barrels[0].ID)
	put(52, "", 0, 5, 999)
	put(53, design.Lasered, 0, 1, 0)
	put(54, "", 0, 3, 0)
	seen, err := (&HolesOf{From: b.At(0), To: b.At(5)}).Answer(workbench.Open(d, 0))
	require.NoError(t, err)
	got := map[design.BarrelID]int{}
	for _, l := range seen.Barrels {
		got[l.ID] = l.Vias
	}
	assert.Equal(t, 3, got[b.Holes.Barrels[0].ID], "all that go through")
	assert.Equal(t, 1, got[b.Holes.Barrels[1].ID])
}
