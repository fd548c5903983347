package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

func TestBeginningABoard(t *testing.T) {
	s := newShop(t)
	s.refuses(&edit.BeginBoard{Copper: 0}, "1 to 32 copper layers")
	s.refuses(&edit.BeginBoard{Copper: 2, Form: "rectangle", Width: 60 * units.MM}, "1 mm wide and high")
	s.refuses(&edit.BeginBoard{Copper: 2, Form: "slot", Width: 60 * units.MM}, "rectangle or a circle")
	s.refuses(&edit.BeginBoard{Copper: 2, Track: -5}, "")
	assert.Equal(t, 2, s.Doc.Board.Layers())
	s.do(&edit.BeginBoard{Copper: 4, Form: "rectangle", Width: 60 * units.MM, Height: 40 * units.MM, R: 3 * units.MM, Track: 250_000,
		OneSide: true, Parts: true})
	assert.Equal(t, 4, s.Doc.Board.Layers())
	assert.Equal(t, geom.BoxOf(at(0, 0), at(60, 40)), s.Doc.Board.Region().Outer.Box())
	assert.Len(t, s.Doc.Board.Outline, 8)
	assert.Equal(t, int64(250_000), s.Doc.Base(design.TrackWidth).Value.Fixed)
	s.refuses(&edit.BeginBoard{Copper: 2}, "begun already")

	// parts of a board with one side stay on it
	d := s.Doc
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{{Number: "1", Form: "rect", Size: at(1, 1)}}})
	p := &design.Placed{ID: d.NewID(), Part: 99, Designator: "R1", Footprint: "F", At: at(5, 5)}
	d.Put(p)
	s.refuses(&edit.FlipPlaced{IDs: []design.ID{p.ID}}, "R1 stays on the upper side")
	yes := true
	s.refuses(&edit.SetPlaced{ID: p.ID, Bottom: &yes}, "R1 stays on the upper side")
	s.do(&edit.SetLayers{Copper: 2})
	assert.True(t, s.Doc.Board.OneSide, "whatever its layers are")
	s.do(&edit.SetSides{})
	s.do(&edit.FlipPlaced{IDs: []design.ID{p.ID}})
	s.refuses(&edit.SetSides{OneSide: true}, "R1 stands on the lower side")
	s.do(&edit.FlipPlaced{IDs: []design.ID{p.ID}})
	s.do(&edit.SetSides{OneSide: true})

	s = newShop(t)
	s.do(&edit.BeginBoard{Copper: 1, Form: "circle", Width: 30 * units.MM})
	assert.InDelta(t, 706.858, s.Doc.Board.Region().Area()/1e12, 0.001) // π · 15²
	assert.True(t, s.Doc.Board.Region().Outer.Box().Holds(at(0, 0)))
	require.Len(t, s.Doc.Placed, 0)
}

// A board is begun on a ready-made stack, with planes of nets that come with its parts.
func TestBeginningWithPlanes(t *testing.T) {
	d, err := synthetic.Circuit(12, 12)
	require.NoError(t, err)
	s := &shop{t, workbench.Open(d, 0)}
	ready := &edit.TakeStack{House: "northgate", Name: "Four layers, 1.6 mm"}
	begin := edit.BeginBoard{Ready: ready, Form: "rectangle", Width: 60 * units.MM, Height: 40 * units.MM, Parts: true,
		Planes: []edit.BeginPlane{{At: 1, Net: "GND"}, {At: 2, Net: "+5V"}}}
	none, alone, lost, other, edgeless := begin, begin, begin, begin, begin
	none.Planes = []edit.BeginPlane{{At: 1, Net: "NONE"}}
	s.refuses(&none, "no part of the board has the net NONE")
	alone.Parts = false
	s.refuses(&alone, "no part of the board has the net GND")
	lost.Planes = []edit.BeginPlane{{At: 4, Net: "GND"}}
	s.refuses(&lost, "no such copper layer")
	other.Ready = &edit.TakeStack{House: "northgate", Name: "Four"}
	s.refuses(&other, "no board house offers")
	edgeless.Form = ""
	s.refuses(&edgeless, "has no outline that the area could fill")
	assert.Empty(t, s.Doc.Placed)
	s.do(&begin)
	assert.Equal(t, 4, s.Doc.Board.Layers())
	assert.EqualValues(t, 1_600_000, s.Doc.Board.Wanted)
	got := map[string]int{}
	for p := range s.Doc.Pours.All() {
		assert.Empty(t, p.Outline)
		got[s.Doc.NetName(p.Net)] = s.Doc.Board.Position(p.Layers[0])
	}
	assert.Equal(t, map[string]int{"GND": 1, "+5V": 2}, got)
}

func TestGathering(t *testing.T) {
	s := newShop(t)
	d := s.Doc
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{{Number: "1", Form: "rect", Size: at(1, 1)}}})
	var ids []design.ID
	for i := range 3 {
		p := &design.Placed{ID: d.NewID(), Part: design.ID(90 + i), Designator: "R", Footprint: "F", At: at(float64(30*i), 0), Locked: i == 2}
		d.Put(p)
		ids = append(ids, p.ID)
	}
	s.do(&edit.Gather{IDs: ids, At: at(50, 50)})
	assert.Less(t, d.Placed[ids[0]].At.Dist(d.Placed[ids[1]].At), 3e6)
	assert.Equal(t, at(60, 0), d.Placed[ids[2]].At, "locked")
	s.refuses(&edit.Gather{IDs: ids[2:], At: at(0, 0)}, "not locked")
	s.refuses(&edit.Gather{IDs: ids, At: geom.Pt(1<<60, 0)}, "beyond what a board")
}
