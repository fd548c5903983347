package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/synthetic"
)

// A track with a fork: from a pad over a corner and a via to the fork, from where two arms lead on. Piece, stretch, net and everything go; what
// is locked stays and is told of.
func TestTakingTracksAway(t *testing.T) {
	type did struct {
		left []design.ID
		said string
	}
	all := []design.ID{510, 511, 512, 513, 514, 515, 516}
	make := func(locked ...design.ID) *desk {
		k := four(t)
		top, bottom := k.d.Board.Top(), k.d.Board.Bottom()
		line := func(id design.ID, layer design.LayerID, net design.ID, x0, y0, x1, y1 float64) {
			k.d.Put(&design.Track{ID: id, Layer: layer, A: pt(x0, y0), B: pt(x1, y1), Width: 300_000, Net: net})
		}
		for _, tr := range k.d.Tracks { // those of the board as it comes
			k.d.Remove(design.KindTrack, tr.ID)
		}
		for _, v := range k.d.Vias {
			k.d.Remove(design.KindVia, v.ID)
		}
		line(510, top, synthetic.FourA, 20, 20, 20, 22)
		line(511, top, synthetic.FourA, 20, 22, 22, 24)
		k.d.Put(&design.Via{ID: 512, At: pt(22, 24), Diameter: 800_000, Hole: 400_000, From: top, To: bottom, Net: synthetic.FourA})
		line(513, bottom, synthetic.FourA, 22, 24, 26, 24)
		line(514, bottom, synthetic.FourA, 26, 24, 28, 26)
		line(515, bottom, synthetic.FourA, 26, 24, 28, 22)
		line(516, top, synthetic.FourB, 10, 26, 14, 26)
		for _, id := range locked {
			k.do(&edit.Lock{IDs: []design.ID{id}, Locked: true})
		}
		return k
	}
	take := func(k *desk, c edit.Command) did {
		k.do(c)
		out := did{said: c.(edit.Sayer).Said()}
		for _, id := range all {
			if k.d.Get(id) != nil {
				out.left = append(out.left, id)
			}
		}
		return out
	}
	assert.Equal(t, did{left: []design.ID{510, 512, 513, 514, 515, 516}}, take(make(), &edit.Remove{IDs: []design.ID{511}}), "a piece")
	assert.Equal(t, did{left: []design.ID{514, 515, 516}}, take(make(), &edit.RemoveTrack{ID: 511}), "from the pad over the via to the fork")
	assert.Equal(t, did{left: []design.ID{510, 511, 512, 513, 515, 516}}, take(make(), &edit.RemoveTrack{ID: 514}), "an arm")
	assert.Equal(t, did{left: []design.ID{516}}, take(make(), &edit.RemoveNetTracks{Net: synthetic.FourA}))
	assert.Equal(t, did{}, take(make(), &edit.RemoveAllTracks{}))
	assert.Equal(t, did{left: []design.ID{511, 514, 515, 516}, said: "One that is locked stays."}, take(make(511), &edit.RemoveTrack{ID: 510}))
	assert.Equal(t, did{left: []design.ID{512, 513}, said: "2 that are locked stay."}, take(make(512, 513), &edit.RemoveAllTracks{}))
	assert.Equal(t, did{left: []design.ID{511, 513, 514, 515, 516}, said: "One that is locked stays."}, take(make(511), &edit.Remove{IDs: []design.ID{510, 511, 512}}))

	make(511).refuse(&edit.Remove{IDs: []design.ID{511}}, "a track of A is locked; unlock it first")
	make(512).refuse(&edit.Remove{IDs: []design.ID{512}}, "a via of A is locked")
	make(all...).refuse(&edit.RemoveAllTracks{}, "all of the board is locked")
	make().refuse(&edit.RemoveNetTracks{Net: synthetic.FourC}, "there are no tracks of C")
	make().refuse(&edit.RemoveTrack{ID: 9999}, "no such track")
}
