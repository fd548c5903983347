package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// A track of no width of its own is as wide as the rules say by place: 0.5 mm, and 0.2 mm within an area from 21 to 25 mm, to 0.2 mm.
func TestTracksAreAsWideAsTheRulesSayByPlace(t *testing.T) {
	k := four(t)
	k.d.Put(&design.RuleArea{ID: 600, Name: "narrow", Outline: geom.Corners(pt(21, 22), pt(25, 22), pt(25, 30), pt(21, 30))})
	k.do(&edit.PutRule{Rule: design.Rule{Kind: design.TrackWidth, Value: design.Fixed(500_000), A: design.Scope{Net: "C"}}})
	k.do(&edit.PutRule{Rule: design.Rule{Kind: design.TrackWidth, Value: design.Fixed(200_000), A: design.Scope{Net: "C", Area: 600}}})
	k.do(&edit.DrawTrack{Net: synthetic.FourC, Runs: run(k, pt(16, 26), pt(29, 26))})
	got := map[int64][]float64{}
	sum := 0.0
	for tr := range k.d.Tracks.All() {
		if tr.Net == synthetic.FourC && tr.A.Y == pt(0, 26).Y {
			got[tr.Width] = append(got[tr.Width], tr.A.Dist(tr.B)/1e6)
			sum += tr.A.Dist(tr.B) / 1e6
		}
	}
	assert.InDelta(t, 13, sum, 1e-6, "all of it is laid")
	assert.Len(t, got, 2)
	assert.InDeltaSlice(t, []float64{5, 4}, got[500_000], 0.21)
	assert.InDeltaSlice(t, []float64{4}, got[200_000], 0.41)

	k.refuse(&edit.DrawTrack{Net: synthetic.FourC, Width: -1, Runs: run(k, pt(16, 24), pt(29, 24))}, "cannot be")

	// a width that is given holds everywhere
	k.do(&edit.DrawTrack{Net: synthetic.FourC, Width: 300_000, Runs: run(k, pt(16, 24), pt(29, 24))})
	for tr := range k.d.Tracks.All() {
		if tr.Net == synthetic.FourC && tr.A.Y == pt(0, 24).Y {
			assert.Equal(t, int64(300_000), tr.Width)
			assert.InDelta(t, 13, tr.A.Dist(tr.B)/1e6, 1e-6)
		}
	}
}

// A track may come as near to another as the rules say where that is: 0.2 mm, and 1 mm within an area.
func TestTracksKeepTheClearanceByPlace(t *testing.T) {
	k := four(t)
	k.d.Put(&design.RuleArea{ID: 600, Name: "apart", Outline: geom.Corners(pt(24, 22), pt(30, 22), pt(30, 30), pt(24, 30))})
	k.do(&edit.PutRule{Rule: design.Rule{Kind: design.Clearance, Value: design.Fixed(1_000_000), A: design.Scope{Area: 600}}})
	laidAlong(k.d, 510, synthetic.FourB, pt(16, 26), pt(29, 26))
	beside := func(from, to float64) []edit.Run { return run(k, pt(from, 26.9), pt(to, 26.9)) }
	k.do(&edit.DrawTrack{Net: synthetic.FourC, Width: 300_000, Runs: beside(16, 23)})
	k.refuse(&edit.DrawTrack{Net: synthetic.FourC, Width: 300_000, Runs: beside(25, 28)}, "0.6 mm of track of B; the rules ask for 1 mm")
	k.refuse(&edit.DrawTrack{Net: synthetic.FourC, Width: 300_000, Runs: beside(16, 28)}, "the rules ask for 1 mm")

	// the check says so too, and of nothing that lies outside alone
	for id, ends := range map[design.ID][2]float64{530: {16, 28}, 531: {16, 23}} {
		was := faults(k.d)
		laidAlong(k.d, id, synthetic.FourC, pt(ends[0], 25.1), pt(ends[1], 25.1))
		var new []*check.Finding
		for key, f := range faultsOf(k.d) {
			if !was[key] {
				new = append(new, f)
			}
		}
		k.d.Remove(design.KindTrack, id)
		if id == 531 {
			assert.Empty(t, new)
			continue
		}
		if assert.Len(t, new, 1) {
			assert.Equal(t, []int64{600_000, 1_000_000}, []int64{new[0].Measured, new[0].Required})
			assert.Greater(t, new[0].At.X, pt(24, 0).X-1000, "within the area")
		}
	}
}
