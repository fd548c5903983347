package workbench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// An excuse lapses when what it excuses moves or changes, even where the finding reads the same, and holds again once all is as it was.
func TestExcusesLapseWhenThingsMove(t *testing.T) {
	d := synthetic.FourLayers()
	area := &design.RuleArea{ID: d.NewID(), Name: "no vias", KeepOut: []design.Thing{design.AVia}, Outline: geom.Corners(geom.Pt(15_000_000, 15_000_000), geom.Pt(28_000_000, 15_000_000), geom.Pt(28_000_000, 25_000_000), geom.Pt(15_000_000, 25_000_000))}
	d.Put(area)
	b := workbench.Open(d, 0)
	of := func() *check.Finding {
		for _, f := range b.Findings() {
			if f.Kind == "keepOut" {
				return f
			}
		}
		require.Fail(t, "the via is kept out")
		return nil
	}
	was := of()
	_, err := b.Edit(&edit.Excuse{Key: was.Key, Fingerprint: was.Fingerprint, Text: was.Text, Reason: "as drawn"})
	require.NoError(t, err)
	require.Equal(t, "as drawn", of().Excused)

	moved := *area
	moved.Outline = geom.Corners(geom.Pt(17_000_000, 15_000_000), geom.Pt(30_000_000, 15_000_000), geom.Pt(30_000_000, 25_000_000), geom.Pt(17_000_000, 25_000_000))
	b.Apply(edit.ChangeSet{{Kind: design.KindRuleArea, ID: area.ID, Before: area, After: &moved}})
	b.Settle()
	assert.Equal(t, was.Text, of().Text, "it reads the same")
	assert.Equal(t, "as drawn", of().Lapsed, "the area moved by two millimetres")
	assert.Empty(t, of().Excused)
	b.Apply(edit.ChangeSet{{Kind: design.KindRuleArea, ID: area.ID, Before: &moved, After: area}})
	b.Settle()
	assert.Equal(t, "as drawn", of().Excused, "it is back")

	named := *area
	named.Locked = true
	b.Apply(edit.ChangeSet{{Kind: design.KindRuleArea, ID: area.ID, Before: area, After: &named}})
	b.Settle()
	assert.Equal(t, "as drawn", of().Excused, "a lock changes nothing of it")
	v := d.Vias[synthetic.FourThrough]
	wide := *v
	wide.Diameter += 1000
	b.Apply(edit.ChangeSet{{Kind: design.KindVia, ID: v.ID, Before: v, After: &wide}})
	b.Settle()
	assert.Equal(t, "as drawn", of().Lapsed, "the via is larger")
}

// Copper on another layer, of whatever net, never holds a track's end: only what is on the track's own layer does.
func TestOtherLayersHoldNoEnd(t *testing.T) {
	d := synthetic.FourLayers()
	a := synthetic.Net(d, "A")
	for id := range d.Tracks {
		d.Remove(design.KindTrack, id)
	}
	x := func(mm float64) int64 { return int64(mm * 1e6) }
	end := geom.Pt(x(30), x(5))
	d.Put(&design.Track{ID: 900, Layer: d.Board.At(0), A: geom.Pt(x(33), x(5)), B: end, Width: 200_000, Net: a})
	d.Put(&design.Track{ID: 901, Layer: d.Board.At(1), A: geom.Pt(x(30), x(3)), B: geom.Pt(x(30), x(8)), Width: 200_000, Net: a}) // beneath, of the same net
	d.Put(&design.Track{ID: 902, Layer: d.Board.At(1), A: geom.Pt(x(27), x(5)), B: geom.Pt(x(29.7), x(5)), Width: 200_000, Net: synthetic.Net(d, "B")})
	held := func(far bool) bool {
		return check.Held(d, workbench.Open(d, 0).Index(), check.End{Track: 900, Far: far})
	}
	assert.False(t, held(true), "a track on another layer")
	d.Put(&design.Via{ID: 903, At: end, Diameter: 600_000, Hole: 300_000, From: d.Board.At(1), To: d.Board.At(3), Net: a})
	assert.False(t, held(true), "a blind via that does not reach the layer")
	d.Put(&design.Via{ID: 903, At: end, Diameter: 600_000, Hole: 300_000, From: d.Board.At(0), To: d.Board.At(3), Net: synthetic.Net(d, "B")})
	assert.False(t, held(true), "another net's")
	d.Put(&design.Via{ID: 903, At: end, Diameter: 600_000, Hole: 300_000, From: d.Board.At(0), To: d.Board.At(1), Net: a})
	assert.True(t, held(true))
	assert.False(t, held(false), "its beginning lies bare")
	// nor does a copper area of another layer, though the net is joined by it; one of its own layer does
	z := synthetic.Net(d, "Z")
	for _, id := range []design.ID{901, 902} {
		d.Remove(design.KindTrack, id)
	}
	d.Put(&design.Track{ID: 900, Layer: d.Board.At(0), A: geom.Pt(x(33), x(5)), B: end, Width: 200_000, Net: z})
	d.Put(&design.Via{ID: 903, At: geom.Pt(x(33), x(5)), Diameter: 600_000, Hole: 300_000, From: d.Board.At(0), To: d.Board.At(1), Net: z})
	loose := func(layer int) (n int) {
		d.Put(&design.Pour{ID: 904, Name: "area", Net: z, Layers: []design.LayerID{d.Board.At(layer)}, Islands: design.IslandsStay})
		for _, f := range workbench.Open(d, 0).Findings() {
			if f.Key == "end 900 b" {
				n++
			}
		}
		return n
	}
	assert.Equal(t, 1, loose(1))
	assert.Equal(t, 0, loose(0))
}
