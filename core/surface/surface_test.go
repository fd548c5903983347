package surface_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/surface"
	"goldentrace/core/synthetic"
)

// Parts that are not fitted get paste, or none, as the board says; those that are fitted always do.
func TestPasteOfPartsThatAreNotFitted(t *testing.T) {
	d := synthetic.FourLayers()
	pastes := func() int {
		b := surface.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
		return len(b.Pastes(d.Placed[synthetic.FourR1], false))
	}
	require.Equal(t, 2, pastes())
	p := *d.Placed[synthetic.FourR1]
	p.NotFitted = true
	d.Put(&p)
	assert.Equal(t, 2, pastes(), "so that it can be soldered later")
	_, err := edit.Apply(d, edit.Env{}, &edit.SetPaste{})
	require.NoError(t, err)
	assert.Zero(t, pastes())
	p.NotFitted = false
	d.Put(&p)
	assert.Equal(t, 2, pastes())
	_, err = edit.Apply(d, edit.Env{}, &edit.SetPaste{Unfitted: true})
	require.NoError(t, err)
	assert.False(t, d.Board.NoPaste)
}

// Paste on a surface pad is smaller by the margin all around, and opens the mask by its own; a pad with a hole gets none unless it says so, and a pad of the
// other face none here.
func TestPasteAndMaskOfPads(t *testing.T) {
	d := design.New("pads")
	d.SetBase(map[design.RuleKind]int64{design.MaskMargin: 50_000, design.PasteMargin: 80_000})
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{
		{Number: "1", Form: "rect", Size: geom.Pt(1_000_000, 600_000)},
		{Number: "2", Form: "round", At: geom.Pt(3_000_000, 0), Size: geom.Pt(1_600_000, 1_600_000), Hole: 800_000},
		{Number: "3", Form: "rect", At: geom.Pt(6_000_000, 0), Size: geom.Pt(1_000_000, 600_000), Far: true},
	}})
	p := &design.Placed{ID: d.NewID(), Designator: "U1", Footprint: "F"}
	d.Put(p)
	b := surface.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
	boxes := func(list []surface.Opening) (out []geom.Box) {
		for _, o := range list {
			out = append(out, o.Shape.Box())
		}
		return out
	}
	at := func(x, w, h int64) geom.Box { return geom.Box{Min: geom.Pt(x-w/2, -h/2), Max: geom.Pt(x+w/2, h/2)} }
	assert.Equal(t, []geom.Box{at(0, 840_000, 440_000)}, boxes(b.Pastes(p, false)))
	assert.Equal(t, []geom.Box{at(6_000_000, 840_000, 440_000)}, boxes(b.Pastes(p, true)))
	assert.Equal(t, []geom.Box{at(0, 1_100_000, 700_000), at(3_000_000, 1_700_000, 1_700_000)}, boxes(b.Openings(p, false)))
	assert.Equal(t, []geom.Box{at(3_000_000, 1_700_000, 1_700_000), at(6_000_000, 1_100_000, 700_000)}, boxes(b.Openings(p, true)))
}

// A via is open in the mask only when it says so, a track only when it lies bare on that face.
func TestMaskOfViasAndTracks(t *testing.T) {
	d := design.New("open")
	d.SetBase(map[design.RuleKind]int64{design.MaskMargin: 50_000})
	via := &design.Via{ID: d.NewID(), At: geom.Pt(0, 0), Diameter: 600_000, Hole: 300_000, From: d.Board.Top(), To: d.Board.Bottom(), Cover: design.Open}
	track := &design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: geom.Pt(0, 0), B: geom.Pt(2_000_000, 0), Width: 400_000, Bare: true}
	opened := func(o design.Object, bottom bool) int {
		d.Put(o)
		return len(surface.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}.Openings(o, bottom))
	}
	assert.Equal(t, []int{1, 1, 1, 0}, []int{opened(via, false), opened(via, true), opened(track, false), opened(track, true)})
	closed, covered := *via, *track
	closed.Cover, covered.Bare = design.Tented, false
	assert.Equal(t, []int{0, 0, 0, 0}, []int{opened(&closed, false), opened(&closed, true), opened(&covered, false), opened(&covered, true)})
}
