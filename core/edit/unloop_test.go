package edit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// What leads round goes: of a way that crosses itself what lies between, of two ways to one place the longer, or the thinner, and what lies twice.
func TestTidyingTakesLoops(t *testing.T) {
	for name, c := range map[string]struct {
		lines [][]geom.Point
		long  float64
		left  int
		said  string
	}{
		"a way that crosses itself": {[][]geom.Point{{pt(16, 22), pt(28, 22), pt(28, 28), pt(20, 28), pt(20, 18)}}, 4 * math.Sqrt2, 1, "4 pieces are gone"},
		"two ways":                  {[][]geom.Point{{pt(16, 22), pt(26, 22)}, {pt(16, 22), pt(16, 28), pt(26, 28), pt(26, 22), pt(30, 22)}}, 14, 1, "3 pieces are gone"},
		"what lies on another":      {[][]geom.Point{{pt(16, 22), pt(26, 22)}, {pt(20, 22), pt(30, 22)}}, 14, 1, "1 piece is gone"},
		"a track laid twice":        {[][]geom.Point{{pt(16, 22), pt(26, 22)}, {pt(26, 22), pt(16, 22)}}, 10, 1, "1 piece is gone"},
	} {
		t.Run(name, func(t *testing.T) {
			k := four(t)
			viaAt(k.d, synthetic.FourC, pt(16, 22))
			var ids []design.ID
			for i, line := range c.lines {
				ids = append(ids, laidAlong(k.d, design.ID(510+10*i), synthetic.FourC, line...)...)
			}
			cmd := &edit.TidyTracks{IDs: ids}
			before := len(k.d.Tracks)
			cs := k.do(cmd)
			long, left := lengthOf(k.d, synthetic.FourC, 510)
			assert.InDelta(t, c.long, long, 1e-6)
			assert.Equal(t, c.left, left)
			assert.Contains(t, cmd.Said(), c.said+" that lay twice or led round")
			cs.Inverted().Apply(k.d)
			assert.Len(t, k.d.Tracks, before)
		})
	}
}

// viaAt puts a via of a net into a board.
func viaAt(d *design.Doc, net design.ID, at geom.Point) {
	d.Put(&design.Via{ID: d.NewID(), At: at, Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: net})
}

// A locked way stays, and the other goes; both locked, nothing does.
func TestTidyingLeavesLockedLoops(t *testing.T) {
	k := four(t)
	viaAt(k.d, synthetic.FourC, pt(16, 22))
	viaAt(k.d, synthetic.FourC, pt(26, 22))
	short := laidAlong(k.d, 510, synthetic.FourC, pt(16, 22), pt(26, 22))
	long := laidAlong(k.d, 520, synthetic.FourC, pt(16, 22), pt(16, 28), pt(26, 28), pt(26, 22))
	k.do(&edit.Lock{IDs: long, Locked: true})
	k.do(&edit.TidyTracks{IDs: append(short, long...)})
	assert.Nil(t, k.d.Tracks[510])
	assert.Len(t, long, 3)
	for _, id := range long {
		assert.NotNil(t, k.d.Tracks[id])
	}
	again := laidAlong(k.d, 530, synthetic.FourC, pt(16, 22), pt(26, 22))
	k.do(&edit.Lock{IDs: again, Locked: true})
	k.refuse(&edit.TidyTracks{IDs: append(again, long...)}, "locked")
}

// Of two ways of one length the thinner goes; a way that is not picked stays.
func TestTidyingKeepsTheWideWay(t *testing.T) {
	k := four(t)
	viaAt(k.d, synthetic.FourC, pt(16, 22))
	viaAt(k.d, synthetic.FourC, pt(26, 22))
	wide := laidAlong(k.d, 510, synthetic.FourC, pt(16, 22), pt(16, 27), pt(26, 27), pt(26, 22))
	for _, id := range wide {
		k.d.Tracks[id].Width = 600_000
	}
	thin := laidAlong(k.d, 520, synthetic.FourC, pt(16, 22), pt(26, 22))
	k.do(&edit.TidyTracks{IDs: append(wide, thin...)})
	assert.Nil(t, k.d.Tracks[520], "though it is the shorter")
	thin = laidAlong(k.d, 520, synthetic.FourC, pt(16, 22), pt(26, 22))
	k.do(&edit.TidyTracks{IDs: wide})
	assert.NotNil(t, k.d.Tracks[thin[0]])
}
