package edit_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
)

func pours(d *design.Doc) []*design.Pour { return slices.Collect(d.Pours.All()) }

// Areas get a name of their own, are changed under their id, and bear their net; what cannot be is said and changes nothing.
func TestCopperAreas(t *testing.T) {
	k := four(t)
	top := k.d.Board.Top()
	square := geom.Corners(pt(10, 10), pt(16, 10), pt(16, 16), pt(10, 16))
	area := design.Pour{Net: synthetic.FourA, Layers: []design.LayerID{top}, Outline: square}
	k.do(&edit.PutPour{Pour: area})
	k.do(&edit.PutPour{Pour: area})
	require.Len(t, pours(k.d), 2)
	first, second := pours(k.d)[0], pours(k.d)[1]
	assert.Equal(t, []string{"A", "A 2"}, []string{first.Name, second.Name})
	assert.Equal(t, square, first.Outline)

	changed := *first
	changed.Priority, changed.Name = 3, "Upper"
	k.do(&edit.PutPour{Pour: changed})
	assert.Equal(t, 3, k.d.Pours[first.ID].Priority)
	assert.Len(t, pours(k.d), 2)

	with := func(f func(p *design.Pour)) *edit.PutPour {
		p := area
		f(&p)
		return &edit.PutPour{Pour: p}
	}
	k.refuse(with(func(p *design.Pour) { p.Outline = geom.Corners(pt(0, 0), pt(9, 9), pt(9, 0), pt(0, 9)) }), "crosses itself at 4.5 mm, 4.5 mm")
	k.refuse(with(func(p *design.Pour) { p.Net = 0 }), "say which net is to fill it")
	k.refuse(with(func(p *design.Pour) { p.Net = 77_777 }), "of a net that is not there")
	k.refuse(with(func(p *design.Pour) { p.Layers = nil }), "lies on no layer")
	k.refuse(with(func(p *design.Pour) { p.Layers = []design.LayerID{top, top} }), "names a layer twice")
	k.refuse(with(func(p *design.Pour) { p.Layers = []design.LayerID{31} }), "lies on a copper layer that is not there")
	k.refuse(with(func(p *design.Pour) { p.LeastWidth = 5_000 }), "0.01 mm is the least")
	k.refuse(with(func(p *design.Pour) { p.Spokes.Number = 9 }), "1 to 8 are meant")
	k.refuse(with(func(p *design.Pour) { p.ID = 999_999 }), "no such copper area")
	assert.Len(t, pours(k.d), 2)

	// it moves with its edge, and what it lies on stays
	k.do(&edit.MovePlaced{IDs: []design.ID{second.ID}, Step: geom.Pt(1_000_000, 2_000_000)})
	assert.Equal(t, pt(11, 12), k.d.Pours[second.ID].Outline[0].Point)
	k.refuse(&edit.FlipPlaced{IDs: []design.ID{second.ID}}, "does not change sides by itself")
	k.do(&edit.Lock{IDs: []design.ID{second.ID}, Locked: true})
	k.refuse(&edit.Remove{IDs: []design.ID{second.ID}}, "the copper area A 2 is locked")
	k.refuse(&edit.MovePlaced{IDs: []design.ID{second.ID}, Step: geom.Pt(1, 0)}, "locked")
	locked := *k.d.Pours[second.ID]
	locked.Priority = 9
	k.refuse(&edit.PutPour{Pour: locked}, "locked")
	locked.Locked = false
	k.do(&edit.PutPour{Pour: locked})
	k.do(&edit.Remove{IDs: []design.ID{second.ID}})
	assert.Len(t, pours(k.d), 1)

	// one that fills the board has no place of its own
	whole := area
	whole.Outline = nil
	k.do(&edit.PutPour{Pour: whole})
	id := pours(k.d)[1].ID
	k.refuse(&edit.MovePlaced{IDs: []design.ID{id}, Step: geom.Pt(1, 0)}, "fills the whole board")

	// a layer that an area lies on does not go
	inner := design.Pour{Net: synthetic.FourB, Layers: []design.LayerID{k.d.Board.At(2)}, Outline: square}
	k.do(&edit.PutPour{Pour: inner})
	k.refuse(&edit.SetLayers{Copper: 2}, "1 copper area")
}

// Without an edge of the board there is nothing that a whole one could fill.
func TestAnAreaOfABoardWithoutOutline(t *testing.T) {
	k := four(t)
	b := *k.d.Board
	b.Outline = nil
	k.d.Put(&b)
	p := design.Pour{Net: synthetic.FourA, Layers: []design.LayerID{b.Top()}}
	k.refuse(&edit.PutPour{Pour: p}, "the board has no outline that the area could fill")
	p.Outline = geom.Corners(pt(0, 0), pt(5, 0), pt(5, 5))
	k.do(&edit.PutPour{Pour: p})
	assert.Len(t, pours(k.d), 1)
}

// How areas join pads is said of all pads of a part, of one, and of vias; what the rules say is what nothing is said of.
func TestHowAreasJoinPads(t *testing.T) {
	k := four(t)
	r1, through := synthetic.FourR1, synthetic.FourThrough
	k.do(&edit.SetJoins{IDs: []design.ID{r1, through}, Join: design.Solidly})
	for pad := range k.d.Placed[r1].Nets {
		assert.Equal(t, design.Solidly, k.d.Placed[r1].Joins[pad])
	}
	assert.Equal(t, design.Solidly, k.d.Vias[through].Join)
	k.do(&edit.SetJoins{IDs: []design.ID{r1}, Pad: "1", Join: design.NotJoined})
	assert.Equal(t, design.NotJoined, k.d.Placed[r1].Joins["1"])
	assert.Equal(t, design.Solidly, k.d.Placed[r1].Joins["2"])
	k.do(&edit.SetJoins{IDs: []design.ID{r1}, Join: design.ByRule})
	assert.Nil(t, k.d.Placed[r1].Joins)
	k.refuse(&edit.SetJoins{IDs: []design.ID{r1}, Pad: "9", Join: design.Solidly}, "has no pad 9 of a net")
	k.refuse(&edit.SetJoins{IDs: []design.ID{synthetic.FourScrew}, Join: design.Solidly}, "join pads and vias")
	k.refuse(&edit.SetJoins{IDs: []design.ID{through}, Join: "glue"}, "a way to join areas")
}
