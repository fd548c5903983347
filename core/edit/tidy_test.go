package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// laidAlong puts a track of a net along places into a board, with ids from first on.
func laidAlong(d *design.Doc, first, net design.ID, pts ...geom.Point) (ids []design.ID) {
	for i := 0; i+1 < len(pts); i++ {
		id := first + design.ID(i)
		d.Put(&design.Track{ID: id, Layer: d.Board.Top(), A: pts[i], B: pts[i+1], Width: 300_000, Net: net})
		ids = append(ids, id)
	}
	return ids
}

func lengthOf(d *design.Doc, net design.ID, from design.ID) (sum float64, pieces int) {
	for tr := range d.Tracks.All() {
		if tr.Net == net && tr.ID >= from {
			sum += tr.A.Dist(tr.B)
			pieces++
		}
	}
	return sum / 1e6, pieces
}

// A track with needless detours is as long as the way in eight directions then: 10 mm across and 4 up are 6 straight and 4 slanted.
func TestTidyingTracks(t *testing.T) {
	k := four(t)
	ids := laidAlong(k.d, 510, synthetic.FourC, pt(18, 8), pt(18, 10), pt(22, 10), pt(22, 9), pt(26, 9), pt(28, 11), pt(28, 12))
	c := &edit.TidyTracks{IDs: ids}
	cs := k.do(c)
	long, pieces := lengthOf(k.d, synthetic.FourC, 510)
	assert.InDelta(t, 6+4*1.41421356, long, 1e-5)
	assert.LessOrEqual(t, pieces, 2)
	assert.Equal(t, "1 track is 3.17 mm shorter.", c.Said(), "it was 2 + 4 + 1 + 4 + 2.83 + 1")
	k.refuse(&edit.TidyTracks{IDs: []design.ID{510}}, "as short and straight as the rules let them")
	cs.Inverted().Apply(k.d)
	assert.Len(t, k.d.Tracks, len(ids)+len(four(t).d.Tracks))

	// a locked piece stays, and the rest with it up to there
	k.do(&edit.Lock{IDs: []design.ID{512}, Locked: true})
	c = &edit.TidyTracks{IDs: ids}
	k.do(c)
	assert.Contains(t, c.Said(), "; 1 piece stayed, locked or holding others.")
	assert.Equal(t, []geom.Point{pt(22, 10), pt(22, 9)}, []geom.Point{k.d.Tracks[512].A, k.d.Tracks[512].B})
	k.refuse(&edit.TidyTracks{IDs: []design.ID{512}}, "locked")
	k.refuse(&edit.TidyTracks{IDs: append([]design.ID{512}, laidAlong(k.d, 550, synthetic.FourB, pt(16, 27), pt(18, 27))...)}, "as short and straight")
	k.refuse(&edit.TidyTracks{IDs: make([]design.ID, 2001)}, "too many")
}

// A foreign track in the way is passed at the clearance; when it is tidied itself there is room, and the first gets straight.
func TestTidyingMakesRoom(t *testing.T) {
	k := four(t)
	own := laidAlong(k.d, 510, synthetic.FourC, pt(16, 24), pt(16, 28), pt(28, 28), pt(28, 24))
	other := laidAlong(k.d, 520, synthetic.FourB, pt(18, 22), pt(20, 26), pt(24, 26), pt(26, 22))
	k.do(&edit.TidyTracks{IDs: own})
	one, _ := lengthOf(k.d, synthetic.FourC, 510)
	gap := float64(k.d.Base(design.Clearance).Value.Fixed)/1e6 + 0.3
	for tr := range k.d.Tracks.All() {
		if tr.Net == synthetic.FourC && tr.ID >= 510 && tr.A.Y == tr.B.Y && tr.A.Dist(tr.B) > 3e6 {
			assert.InDelta(t, 26+gap, float64(tr.A.Y)/1e6, 1e-5, "above the other at the clearance")
		}
	}
	k.do(&edit.TidyTracks{IDs: append(other, 510, 511, 512, 513, 514, 515)})
	two, pieces := lengthOf(k.d, synthetic.FourC, 510)
	assert.Less(t, two, one)
	assert.InDelta(t, 12, two, 1e-5)
	assert.Equal(t, 1, pieces)
}
