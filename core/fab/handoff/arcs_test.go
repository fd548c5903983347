package handoff_test

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/fab/reread"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

// A track of 10 mm to the right and 10 up on each layer, its corner rounded with 4 mm, lies in the artwork as an arc (G02 or G03): what the
// independent reader reads of it holds the places on its middle and up to half its width beside, and none beyond, at every degree of the
// quarter circle about (26, 12). The straight corner holds no copper.
func TestRoundTracksAreArcsInTheArtwork(t *testing.T) {
	d := synthetic.FourLayers()
	mm := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	for layer := range 4 {
		for i, ends := range [][2]geom.Point{{mm(20, 8), mm(30, 8)}, {mm(30, 8), mm(30, 18)}} {
			d.Put(&design.Track{ID: design.ID(600 + 2*layer + i), Layer: d.Board.At(layer), A: ends[0], B: ends[1], Width: 300_000, Net: synthetic.FourC})
		}
		_, err := edit.Apply(d, edit.Env{}, &edit.RoundTracks{IDs: []design.ID{design.ID(600 + 2*layer)}, Radius: 4_000_000})
		require.NoError(t, err)
	}
	f := files(t, d, "Arcs")
	for layer := range 4 {
		data := f[fmt.Sprintf("copper-%d.gbr", layer+1)]
		assert.Equal(t, 1, bytes.Count(data, []byte("G02*"))+bytes.Count(data, []byte("G03*")), "layer %d", layer)
		art, err := reread.Gerber(data)
		require.NoError(t, err)
		copper := func(p geom.Point) bool {
			for _, m := range art.Marks {
				for _, s := range m.Shapes {
					if s.Holds(p) {
						return true
					}
				}
			}
			return false
		}
		centre := mm(26, 12)
		for degree := int32(-90); degree <= 0; degree++ {
			at := func(r int64) geom.Point { return geom.Turn(geom.Pt(r, 0), degree*1000).Add(centre) }
			for r, want := range map[int64]bool{4_000_000: true, 4_147_000: true, 3_853_000: true, 4_153_000: false, 3_847_000: false} {
				assert.Equal(t, want, copper(at(r)), "layer %d, %d°, %d nm from the centre", layer, degree, r)
			}
		}
		assert.False(t, copper(mm(30, 8)), "the corner that was")
	}
}
