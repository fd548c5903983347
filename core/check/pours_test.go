package check_test

import (
	"context"
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// Of an area that nothing reaches, of a plane in pieces and of what could not be filled there is a finding; of what is whole there is none.
func TestFindingsOfCopperAreas(t *testing.T) {
	mm := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	d := design.New("Planes")
	d.Next = 100
	synthetic.Layers(d, 4)
	b := *d.Board
	b.Outline = geom.Corners(mm(0, 0), mm(20, 0), mm(20, 10), mm(0, 10))
	d.Put(&b)
	gnd, sig := synthetic.Net(d, "GND"), synthetic.Net(d, "SIG")
	p := &design.Pour{ID: 200, Name: "Ground", Net: gnd, Layers: []design.LayerID{b.At(0), b.At(1)}}
	d.Put(p)
	said := func() map[string]string {
		f, err := pour.Of(context.Background(), d, layout.NewIndex(d), rules.Of(d), nil)
		require.NoError(t, err)
		out := map[string]string{}
		for _, l := range p.Layers {
			if x := check.Pours(d, f, pour.Key{Pour: p.ID, Layer: l}); x != nil {
				assert.Equal(t, check.PourKey(pour.Key{Pour: p.ID, Layer: l}), x.Key)
				assert.Equal(t, l, x.Layer)
				assert.True(t, x.Open())
				assert.True(t, geom.BoxOf(mm(0, 0), mm(20, 10)).Holds(x.At))
				out[d.Board.Layer(l).Name] = x.Text
			}
		}
		return out
	}
	assert.Equal(t, map[string]string{
		"L1": "Nothing of GND reaches the copper area Ground on L1, so that it is left empty.",
		"L2": "Nothing of GND reaches the copper area Ground on L2, so that it is left empty.",
	}, said())
	via := func(id design.ID, at geom.Point) {
		d.Put(&design.Via{ID: id, At: at, Diameter: 600_000, Hole: 300_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: gnd})
	}
	via(210, mm(4, 5))
	assert.Empty(t, said())
	for i, layer := range p.Layers {
		d.Put(&design.Track{ID: 220 + design.ID(i), Layer: layer, A: mm(10, -1), B: mm(10, 11), Width: 300_000, Net: sig})
	}
	assert.Empty(t, said(), "the other half is an island, which goes")
	via(211, mm(16, 5))
	assert.Equal(t, map[string]string{"L2": "The plane of GND on L2 falls into 2 pieces."}, said(), "on an outer layer it is no plane")

	f := pour.New(d, layout.NewIndex(d), rules.Of(d))
	k := pour.Key{Pour: p.ID, Layer: b.At(1)}
	f.Take([]pour.Outcome{{Key: k, Tile: pour.Tile{X: 1, Y: 0}, Err: errors.New("the library failed")}})
	x := check.Pours(d, f, k)
	require.NotNil(t, x)
	assert.Equal(t, check.Fault, x.Severity)
	assert.Equal(t, "The copper area Ground cannot be filled near 7.5 mm, 2.5 mm on L2: the library failed.", x.Text)
}

// An area within another of the same or a higher priority gets nothing, and is told why: its priority. With a higher one it fills, and says nothing.
func TestAnAreaWithinAnother(t *testing.T) {
	d := design.New("within")
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40*mm, 0), geom.Pt(40*mm, 30*mm), geom.Pt(0, 30*mm))
	d.Put(&b)
	top := []design.LayerID{b.Top()}
	around := &design.Pour{ID: d.NewID(), Name: "Ground", Net: synthetic.Net(d, "GND"), Layers: top, Islands: design.IslandsStay}
	within := &design.Pour{ID: d.NewID(), Name: "Supply", Net: synthetic.Net(d, "+5V"), Layers: top, Islands: design.IslandsStay,
		Outline: geom.Corners(geom.Pt(10*mm, 10*mm), geom.Pt(20*mm, 10*mm), geom.Pt(20*mm, 20*mm), geom.Pt(10*mm, 20*mm))}
	d.Put(around)
	d.Put(within)
	said := func() string {
		f, err := pour.Of(context.Background(), d, layout.NewIndex(d), rules.Of(d), nil)
		require.NoError(t, err)
		if found := check.Pours(d, f, pour.Key{Pour: within.ID, Layer: b.Top()}); found != nil && found.Rule == "Copper areas fill something" {
			return found.Text
		}
		return ""
	}
	assert.Equal(t, "The copper area Supply gets nothing on "+b.Layer(b.Top()).Name+": Ground lies over it and goes before it. Give Supply a higher priority than 0.", said())
	higher := *within
	higher.Priority = 1
	d.Put(&higher)
	assert.Empty(t, said())
	d.Remove(design.KindPour, around.ID)
	d.Put(within)
	assert.Empty(t, said())
	d.Put(&design.RuleArea{ID: d.NewID(), Name: "none", KeepOut: []design.Thing{design.APour}, Outline: geom.Corners(geom.Pt(5*mm, 5*mm), geom.Pt(25*mm, 5*mm), geom.Pt(25*mm, 25*mm), geom.Pt(5*mm, 25*mm))})
	assert.Contains(t, said(), "there is no room for it")
}
