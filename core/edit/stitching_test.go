package edit_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// filledBoard is a board of 40 × 20 mm with the ground on both sides, a track of A across the middle above, and a pad of the ground.
func filledBoard(t *testing.T) (s *shop, gnd design.ID) {
	t.Helper()
	s = newShop(t)
	d := s.Doc
	b := *d.Board
	b.Outline = geom.Corners(at(0, 0), at(40, 0), at(40, 20), at(0, 20))
	d.Put(&b)
	gnd = d.NewID()
	d.Put(&design.Net{ID: gnd, Name: "GND"})
	a := d.NewID()
	d.Put(&design.Net{ID: a, Name: "A"})
	d.Put(&design.Track{ID: d.NewID(), Layer: b.Top(), A: at(2, 10), B: at(38, 10), Width: 400_000, Net: a})
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: at(2, 2)}}})
	d.Put(&design.Placed{ID: d.NewID(), Part: 99, Designator: "R1", Footprint: "F", At: at(5, 5), Nets: map[string]design.ID{"1": gnd}})
	d.Put(&design.Pour{ID: d.NewID(), Name: "GND", Net: gnd, Layers: []design.LayerID{b.Top(), b.Bottom()}})
	s.Bench = workbench.Open(d, 0)
	return s, gnd
}

func (s *shop) vias() (out []geom.Point) {
	for v := range s.Doc.Vias.All() {
		out = append(out, v.At)
	}
	return out
}

func TestStitchingInAGrid(t *testing.T) {
	s, gnd := filledBoard(t)
	c := &edit.PutStitching{Stitching: design.Stitching{Net: gnd, Pitch: 5_000_000}}
	s.do(c)
	// 9 × 5 places from edge to edge: those on the edge have no room, those at y = 10 lie on the track, that at (5, 5) on the pad
	assert.Len(t, s.vias(), 7*3-7-1)
	assert.Equal(t, "13 vias tie the net together; at 32 places none fits.", c.Said())
	for _, p := range s.vias() {
		assert.Zero(t, p.X%5_000_000)
		assert.NotEqual(t, int64(10_000_000), p.Y)
		assert.NotEqual(t, at(5, 5), p)
	}
	assert.Empty(t, s.broken())
	var st *design.Stitching
	for st = range s.Doc.Stitchings.All() {
	}
	assert.Equal(t, "GND", st.Name)
	for v := range s.Doc.Vias.All() {
		assert.Equal(t, []design.ID{st.ID, gnd}, []design.ID{v.Group, v.Net})
	}

	// one that a person takes away stays away, a locked one stays; what moves out of the way makes room
	var one, other *design.Via
	for v := range s.Doc.Vias.All() {
		one, other = other, v
	}
	s.do(&edit.Remove{IDs: []design.ID{one.ID}})
	s.do(&edit.Lock{IDs: []design.ID{other.ID}, Locked: true})
	var track design.ID
	for tr := range s.Doc.Tracks.All() {
		track = tr.ID
	}
	s.do(&edit.Remove{IDs: []design.ID{track}})
	again := *s.Doc.Stitchings[st.ID]
	s.do(&edit.PutStitching{Stitching: again})
	assert.Len(t, s.vias(), 7*3-1-1)
	assert.NotContains(t, s.vias(), one.At)
	assert.NotNil(t, s.Doc.Vias[other.ID])
	s.do(&edit.Lock{IDs: []design.ID{other.ID}})
	s.do(&edit.Remove{IDs: []design.ID{st.ID}})
	assert.Empty(t, s.vias(), "they go with it")
	require.NoError(t, s.Doc.Whole())

	for why, bad := range map[string]design.Stitching{
		"say which it ties together":           {Pitch: 5_000_000},
		"the pitch of the stitching GND":       {Net: gnd, Pitch: 199_999},
		"would make more than 20000 vias":      {Net: gnd, Pitch: 200_000},
		`"rows" is not a pattern of stitching`: {Net: gnd, Pitch: 5_000_000, Pattern: "rows"},
		"say at which distance":                {Net: gnd, Pitch: 5_000_000, Pattern: design.AtEdge},
		"say which, and how far":               {Net: gnd, Pitch: 5_000_000, Pattern: design.AlongTracks, Apart: 1},
		"crosses itself":                       {Net: gnd, Pitch: 5_000_000, Outline: geom.Corners(at(0, 0), at(9, 9), at(9, 0), at(0, 9))},
		"nowhere does a via of GND fit": {Net: gnd, Pitch: 5_000_000,
			Outline: geom.Corners(at(2, 9.8), at(9, 9.8), at(9, 10.2), at(2, 10.2))},
		"there is no such stitching": {ID: 7, Net: gnd, Pitch: 5_000_000},
	} {
		s, _ := filledBoard(t)
		s.refuses(&edit.PutStitching{Stitching: bad}, why)
	}
	lone, gnd := filledBoard(t)
	lone.do(&edit.PutStitching{Stitching: design.Stitching{Net: gnd, Pitch: 10_000_000,
		Outline: geom.Corners(at(1, 1), at(12, 1), at(12, 8), at(1, 8))}})
	assert.Len(t, lone.vias(), 2, "within its own edge")
	for p := range lone.Doc.Pours.All() {
		q := *p
		q.Layers = q.Layers[:1]
		lone.Doc.Put(&q)
	}
	lone.refuses(&edit.PutStitching{Stitching: design.Stitching{Net: gnd, Pitch: 10_000_000, Name: "Other"}},
		"nowhere does a via of GND fit that would tie")
}

func TestStitchingAlongTheEdgeAndTracks(t *testing.T) {
	s, gnd := filledBoard(t)
	s.do(&edit.PutStitching{Stitching: design.Stitching{Net: gnd, Pitch: 4_000_000, Pattern: design.AtEdge, Apart: 1_000_000}})
	require.InDelta(t, 120.0/4, len(s.vias()), 3)
	for _, p := range s.vias() {
		d := min(p.X, p.Y, 40_000_000-p.X, 20_000_000-p.Y)
		assert.EqualValues(t, 1_000_000, d, "%v", p)
	}
	assert.Empty(t, s.broken())

	s, gnd = filledBoard(t)
	a := s.net("A")
	s.do(&edit.PutStitching{Stitching: design.Stitching{Net: gnd, Pitch: 3_000_000, Pattern: design.AlongTracks, Along: a, Apart: 900_000}})
	require.Len(t, s.vias(), 24, "36 mm in twelve, on both sides")
	for _, p := range s.vias() {
		assert.Equal(t, 900_000.0, math.Abs(float64(p.Y-10_000_000)))
	}
	assert.Empty(t, s.broken())
	s.refuses(&edit.PutStitching{Stitching: design.Stitching{Net: gnd, Pitch: 3_000_000, Pattern: design.AlongTracks, Along: a,
		Apart: 500_000, Name: "Near"}}, "nowhere does a via of GND fit")
}

// Vias of a stitching are of the barrel that it says; where they are made anew by changed sizes they stay of it.
func TestStitchingByABarrel(t *testing.T) {
	s := fine(t)
	b := s.Doc.Board
	s.Doc.Put(&design.Pour{ID: 700, Name: "A", Net: s.net("A"), Layers: []design.LayerID{b.At(0), b.At(1)}})
	s.Bench = workbench.Open(s.Doc, 0)
	s.do(&edit.PutStitching{Stitching: design.Stitching{Net: s.net("A"), Pitch: 4_000_000, Barrel: s.barrel("Top micro")}})
	require.NotEmpty(t, s.vias())
	for v := range s.Doc.Vias.All() {
		assert.Equal(t, []any{s.barrel("Top micro"), "laser", b.At(0), b.At(1)}, []any{v.Barrel, v.Kind, v.From, v.To})
	}
	n := len(s.vias())
	holes := s.Doc.Board.Holes
	holes.Barrels = append([]design.Barrel{}, holes.Barrels...)
	for i := range holes.Barrels {
		if holes.Barrels[i].Name == "Top micro" {
			holes.Barrels[i].Diameter = 300_000
		}
	}
	s.do(&edit.SetHoles{Holes: holes})
	assert.Len(t, s.vias(), n)
	for v := range s.Doc.Vias.All() {
		assert.EqualValues(t, 300_000, v.Diameter)
		assert.NotNil(t, s.Doc.Stitchings[v.Group], "still of the stitching")
	}
	s.refuses(&edit.PutStitching{Stitching: design.Stitching{Net: s.net("A"), Pitch: 4_000_000, Barrel: s.barrel("Bottom micro"),
		Name: "Other"}}, "nowhere does a via of A fit")
}

// Vias that the rules would have below the least hole are laid as large as they have to be, and it is said.
func TestStitchingKeepsTheLeastHole(t *testing.T) {
	s, gnd := filledBoard(t)
	s.do(&edit.SetRules{Rules: map[design.RuleKind]int64{design.LeastHole: 700_000, design.LeastRing: 200_000}})
	c := &edit.PutStitching{Stitching: design.Stitching{Net: gnd, Pitch: 5_000_000}}
	s.do(c)
	assert.NotEmpty(t, s.vias())
	for v := range s.Doc.Vias.All() {
		assert.Equal(t, [2]int64{700_000, 1_100_000}, [2]int64{v.Hole, v.Diameter})
	}
	assert.Empty(t, s.broken())
	assert.Equal(t, "13 vias tie the net together; at 32 places none fits. New vias are 1.1 mm with a hole of 0.7 mm: 0.8 mm with 0.4 mm, as the rules have new ones, is below the least hole or ring.", c.Said())

	net := s.net("A")
	drawn := &edit.DrawTrack{Net: net, Runs: []edit.Run{{Layer: s.Doc.Board.Top(), Path: geom.Corners(at(2, 10), at(2, 12.5))}, {Layer: s.Doc.Board.Bottom(), Path: geom.Corners(at(2, 12.5), at(8, 12.5))}}}
	s.do(drawn)
	assert.Contains(t, drawn.Said(), "New vias are 1.1 mm with a hole of 0.7 mm")
}
