package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

// four is a desk with the board of four layers.
func four(t *testing.T) *desk {
	return &desk{t, synthetic.FourLayers(), 0}
}

func (k *desk) board(c edit.Command) {
	k.Helper()
	_, err := edit.Apply(k.d, edit.Env{Index: func() *layout.Index { return layout.NewIndex(k.d) }}, c)
	require.NoError(k, err)
}

func pt(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }

func TestThingsOnTheBoardAreMovedTurnedAndFlipped(t *testing.T) {
	k := four(t)
	all := []design.ID{synthetic.FourR1, synthetic.FourScrew, synthetic.FourTextTop}
	r1 := func() *design.Placed { return k.d.Placed[synthetic.FourR1] }
	text := func() *design.Legend { return k.d.Legends[synthetic.FourTextTop] }
	k.do(&edit.MovePlaced{IDs: all, Step: pt(1, -2)})
	assert.Equal(t, []geom.Point{pt(11, 8), pt(38, 1), pt(31, 3)}, []geom.Point{r1().At, k.d.Holes[synthetic.FourScrew].At, text().At})
	// A quarter turn anticlockwise about (10, 8): one to the right comes to lie one above.
	k.do(&edit.TurnPlaced{IDs: all[:1], Pivot: pt(10, 8), Angle: 90_000})
	assert.Equal(t, []any{pt(10, 9), int32(90_000)}, []any{r1().At, r1().Angle})
	k.do(&edit.TurnPlaced{IDs: all[:1], Pivot: pt(10, 8), Angle: -180_000})
	assert.Equal(t, []any{pt(10, 7), int32(270_000)}, []any{r1().At, r1().Angle}, "angles run from 0 to less than 360°")
	k.do(&edit.FlipPlaced{IDs: []design.ID{synthetic.FourR1, synthetic.FourTextTop}})
	assert.Equal(t, []any{pt(10, 7), int32(90_000), true}, []any{r1().At, r1().Angle, r1().Bottom}, "about its own origin")
	assert.True(t, text().Bottom)
	k.do(&edit.SetPlaced{ID: synthetic.FourR1, X: ptr(int64(5_000_000)), Bottom: ptr(false)})
	assert.Equal(t, []any{pt(5, 7), int32(90_000), false}, []any{r1().At, r1().Angle, r1().Bottom}, "what is not said stays")
	k.do(&edit.SetPlaced{ID: synthetic.FourTextTop, Y: ptr(int64(4_000_000)), Angle: ptr(int32(-30_000))})
	assert.Equal(t, []any{pt(31, 4), int32(330_000)}, []any{text().At, text().Angle})
	before := *k.d.Tracks[synthetic.FourTop]
	k.do(&edit.MovePlaced{IDs: []design.ID{synthetic.FourTop, synthetic.FourThrough}, Step: pt(1, 2)})
	assert.Equal(t, before.A.Add(pt(1, 2)), k.d.Tracks[synthetic.FourTop].A, "copper goes along rigidly")
	assert.Equal(t, before.B.Add(pt(1, 2)), k.d.Tracks[synthetic.FourTop].B)
	k.refuse(&edit.FlipPlaced{IDs: []design.ID{synthetic.FourTop}}, "does not change sides by itself")
	k.refuse(&edit.SetPlaced{ID: synthetic.FourTop, X: ptr(int64(1))}, "has no place to be set")
	k.refuse(&edit.MovePlaced{IDs: []design.ID{design.BoardID}, Step: pt(1, 0)}, "cannot be moved on the board")
	k.refuse(&edit.MovePlaced{IDs: all}, "would change nothing")
}

func TestWhatIsLockedStays(t *testing.T) {
	k := four(t)
	ids := []design.ID{synthetic.FourR1, synthetic.FourTop, synthetic.FourThrough, synthetic.FourScrew}
	k.do(&edit.Lock{IDs: ids, Locked: true})
	k.refuse(&edit.MovePlaced{IDs: ids[:1], Step: pt(1, 0)}, "R1 is locked; unlock it first")
	k.refuse(&edit.MovePlaced{IDs: ids[3:], Step: pt(1, 0)}, "the hole is locked")
	k.refuse(&edit.Remove{IDs: ids[1:2]}, "a track of A is locked")
	k.refuse(&edit.Remove{IDs: ids[2:3]}, "a via of A is locked")
	k.refuse(&edit.Remove{IDs: ids[3:]}, "the hole is locked")
	k.refuse(&edit.Remove{IDs: ids[:1]}, "R1 belongs to the circuit")
	k.refuse(&edit.Remove{IDs: []design.ID{design.BoardID}}, "cannot be removed")
	k.refuse(&edit.Lock{IDs: []design.ID{design.BoardID}, Locked: true}, "cannot be locked")
	k.do(&edit.Lock{IDs: []design.ID{synthetic.FourTextTop}, Locked: true})
	k.refuse(&edit.Remove{IDs: []design.ID{synthetic.FourTextTop}}, `"HI" is locked`)
	k.refuse(&edit.MovePlaced{IDs: []design.ID{synthetic.FourTextTop}, Step: pt(1, 0)}, "locked")
	k.refuse(&edit.SetLegend{IDs: []design.ID{synthetic.FourTextTop}, Text: ptr("HO")}, "locked")
	k.refuse(&edit.MovePlaced{IDs: ids[1:2], Step: pt(1, 0)}, "a track is locked")
	k.refuse(&edit.MovePlaced{IDs: ids[2:3], Step: pt(1, 0)}, "a via is locked")
	k.do(&edit.Lock{IDs: append([]design.ID{synthetic.FourTextTop}, ids...)})
	k.do(&edit.Remove{IDs: append([]design.ID{synthetic.FourTextTop, 9999}, ids[1:]...)})
	assert.Len(t, k.d.Tracks, 3)
	assert.Len(t, k.d.Vias, 3)
	assert.Empty(t, k.d.Holes)
	assert.Len(t, k.d.Legends, 1)
}

func TestHolesTextsOutlineAndRules(t *testing.T) {
	k := four(t)
	k.do(&edit.AddHole{At: pt(3, 27), Diameter: 3_000_000})
	k.do(&edit.AddLegend{At: pt(20, 28), Angle: 90_000, Bottom: true, Height: 1_500_000, Text: "REV C"})
	assert.Len(t, k.d.Holes, 2)
	var l *design.Legend
	for x := range k.d.Legends.All() {
		l = x
	}
	assert.Equal(t, design.Legend{ID: l.ID, At: pt(20, 28), Angle: 90_000, Bottom: true, Height: 1_500_000, Text: "REV C"}, *l)
	k.do(&edit.SetLegend{IDs: []design.ID{l.ID}, Text: ptr("REV D")})
	assert.Equal(t, []any{"REV D", int64(1_500_000)}, []any{k.d.Legends[l.ID].Text, k.d.Legends[l.ID].Height})
	k.do(&edit.SetLegend{IDs: []design.ID{l.ID}, Height: ptr(int64(2_000_000))})
	assert.Equal(t, []any{"REV D", int64(2_000_000)}, []any{k.d.Legends[l.ID].Text, k.d.Legends[l.ID].Height})
	k.refuse(&edit.SetLegend{IDs: []design.ID{999}}, "no such text")
	tri := geom.Corners(pt(0, 0), pt(9, 0), pt(0, 9))
	k.do(&edit.SetOutline{Outline: tri})
	assert.Equal(t, tri, k.d.Board.Outline)
	k.refuse(&edit.SetOutline{Outline: tri}, "would change nothing")
	r := k.d.Numbers()
	k.refuse(&edit.SetRules{Rules: r}, "would change nothing")
	k.do(&edit.SetRules{Rules: map[design.RuleKind]int64{design.Clearance: 250_000}})
	assert.Equal(t, int64(250_000), k.d.Numbers()[design.Clearance])
	r[design.Clearance] = 250_000
	assert.Equal(t, r, k.d.Numbers(), "the others stay")
	k.refuse(&edit.SetRules{Rules: map[design.RuleKind]int64{design.ViaHole: 900_000}}, "is not smaller than its diameter")
	k.do(&edit.SetTrack{IDs: []design.ID{synthetic.FourTop, synthetic.FourBottom}, Width: 500_000})
	assert.Equal(t, []int64{500_000, 300_000, 300_000, 500_000}, []int64{k.d.Tracks[110].Width, k.d.Tracks[111].Width, k.d.Tracks[112].Width, k.d.Tracks[113].Width})
	k.refuse(&edit.SetTrack{IDs: []design.ID{synthetic.FourR1}, Width: 500_000}, "no such track")
}

// A track of net B has a bend on the second layer, a hop, and goes on below.
func TestTracksAreTakenAwayWhole(t *testing.T) {
	k := four(t)
	at := k.d.Board.At
	k.board(&edit.DrawTrack{Net: synthetic.FourB, Runs: []edit.Run{{Layer: at(1), Path: geom.Corners(pt(20, 10), pt(24, 10), pt(26, 12))}, {Layer: at(2), Path: geom.Corners(pt(26, 12), pt(30, 12))}}})
	require.Len(t, k.d.Tracks, 7)
	require.Len(t, k.d.Vias, 5)
	var first, last design.ID
	for x := range k.d.Tracks.All() {
		if x.ID > 200 || x.ID > 132 {
			if first == 0 {
				first = x.ID
			}
			last = x.ID
			assert.Equal(t, k.d.Numbers()[design.TrackWidth], x.Width)
		}
	}
	k.do(&edit.Lock{IDs: []design.ID{last}, Locked: true})
	k.board(&edit.RemoveTrack{ID: first})
	assert.Len(t, k.d.Tracks, 5, "what is locked stays")
	assert.NotNil(t, k.d.Tracks[last])
	assert.Len(t, k.d.Vias, 4)
	k.refuse(&edit.RemoveTrack{ID: synthetic.FourR1}, "no such track")
	k.do(&edit.Lock{IDs: []design.ID{synthetic.FourBuried}, Locked: true})
	k.board(&edit.RemoveNetTracks{Net: synthetic.FourB})
	assert.Len(t, k.d.Tracks, 3, "A, C and the locked one")
	assert.NotNil(t, k.d.Vias[synthetic.FourBuried])
}

func TestTracksThatCannotBe(t *testing.T) {
	k := four(t)
	at := k.d.Board.At
	no := func(c *edit.DrawTrack, why string) {
		t.Helper()
		_, err := edit.Apply(k.d, edit.Env{Index: func() *layout.Index { return layout.NewIndex(k.d) }}, c)
		assert.ErrorContains(t, err, why)
	}
	free := geom.Corners(pt(20, 10), pt(24, 10))
	no(&edit.DrawTrack{Runs: []edit.Run{{Layer: at(1), Path: free}}}, "no such net on the board (id 0)")
	no(&edit.DrawTrack{Net: 77, Runs: []edit.Run{{Layer: at(1), Path: free}}}, "no such net on the board (id 77)")
	no(&edit.DrawTrack{Net: synthetic.FourB, Width: 149_999, Runs: []edit.Run{{Layer: at(1), Path: free}}}, "narrower than the least width, 0.15 mm")
	no(&edit.DrawTrack{Net: synthetic.FourB, Runs: []edit.Run{{Layer: 99, Path: free}}}, "no such copper layer (id 99)")
	no(&edit.DrawTrack{Net: synthetic.FourB, Runs: []edit.Run{{Layer: 2, Path: free}}}, "no such copper layer (id 2)")
	no(&edit.DrawTrack{Net: synthetic.FourB, Runs: []edit.Run{{Layer: at(1)}}}, "1 to 10000 places, not 0")
	no(&edit.DrawTrack{Net: synthetic.FourB, Runs: []edit.Run{{Layer: at(1), Path: make([]geom.Corner, 10_001)}}}, "not 10001")
	no(&edit.DrawTrack{Net: synthetic.FourB, Runs: []edit.Run{{Layer: at(1), Path: free}, {Layer: at(2), Path: geom.Corners(pt(25, 10), pt(27, 10))}}}, "do not meet")
	no(&edit.DrawTrack{Net: synthetic.FourB, Runs: []edit.Run{{Layer: at(0), Path: geom.Corners(pt(5, 1.54), pt(15, 1.54))}}}, "A")
	// A hop where a buried via of another net's layers lies in the way.
	no(&edit.DrawTrack{Net: synthetic.FourA, Runs: []edit.Run{{Layer: at(0), Path: geom.Corners(pt(30, 22), pt(30, 20.5))}, {Layer: at(3), Path: geom.Corners(pt(30, 20.5))}}}, "no via fits here")
	k.board(&edit.DrawTrack{Net: synthetic.FourB, Width: 150_000, Runs: []edit.Run{{Layer: at(3), Path: geom.Corners(pt(20, 10), pt(20, 10), pt(24, 10))}}})
	assert.Len(t, k.d.Tracks, 5, "a piece without length is none")
	// Its own plated hole is a hop already.
	k.board(&edit.DrawTrack{Net: synthetic.FourA, Runs: []edit.Run{{Layer: at(0), Path: geom.Corners(pt(20, 22), pt(20, 20))}, {Layer: at(3), Path: geom.Corners(pt(20, 20), pt(22, 20))}}})
	assert.Len(t, k.d.Vias, 4)
}
