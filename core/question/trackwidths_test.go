package question

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// The widths that are offered are those of the rules that may hold for the net on that layer, and of the net's own tracks.
func TestWidthsThatAreOffered(t *testing.T) {
	d := synthetic.FourLayers()
	for i, r := range []design.Rule{
		{Kind: design.TrackWidth, A: design.Scope{Net: "A"}, Value: design.Fixed(500_000)},
		{Kind: design.TrackWidth, A: design.Scope{Net: "B"}, Value: design.Fixed(700_000)},
		{Kind: design.TrackWidth, A: design.Scope{Layer: d.Board.Bottom()}, Value: design.Fixed(900_000)},
		{Kind: design.LeastWidth, A: design.Scope{Net: "A*", Thing: design.ATrack}, Value: design.Fixed(200_000)},
	} {
		r.ID = design.ID(1000 + i)
		d.Put(&r)
	}
	for _, tr := range d.Tracks {
		d.Remove(design.KindTrack, tr.ID)
	}
	d.Put(&design.Track{ID: 1010, Layer: d.Board.Top(), A: geom.Pt(15_000_000, 2_000_000), B: geom.Pt(16_000_000, 2_000_000), Width: 330_000, Net: synthetic.FourA})
	d.Put(&design.Track{ID: 1011, Layer: d.Board.Top(), A: geom.Pt(15_000_000, 3_000_000), B: geom.Pt(16_000_000, 3_000_000), Width: 440_000, Net: synthetic.FourB})
	usual, least := d.Base(design.TrackWidth).Value.Fixed, d.Base(design.LeastWidth).Value.Fixed
	b := workbench.Open(d, 0)
	ask := func(net design.ID, layer design.LayerID) []int64 {
		out, err := (&TrackWidths{Net: net, Layer: layer}).Answer(b)
		require.NoError(t, err)
		return out
	}
	assert.ElementsMatch(t, []int64{least, usual, 200_000, 330_000, 500_000}, ask(synthetic.FourA, d.Board.Top()))
	assert.ElementsMatch(t, []int64{least, usual, 200_000, 330_000, 500_000, 900_000}, ask(synthetic.FourA, d.Board.Bottom()))
	assert.ElementsMatch(t, []int64{least, usual, 440_000, 700_000}, ask(synthetic.FourB, d.Board.Top()))
	_, err := (&TrackWidths{Net: 7777, Layer: d.Board.Top()}).Answer(b)
	assert.ErrorContains(t, err, "no such net")
	_, err = (&TrackWidths{Net: synthetic.FourA, Layer: 99}).Answer(b)
	assert.ErrorContains(t, err, "no such copper layer")
}
