package edit_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/question"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// fine is a board of Tallow's six layers, 20 × 20 mm, with pads of the net A above at (2, 10) and below at (18, 10), and one of the net B.
func fine(t *testing.T) *shop {
	t.Helper()
	s := newShop(t)
	s.do(&edit.TakeStack{House: "tallow", Name: "Six layers, 1.2 mm"})
	d := s.Doc
	b := *d.Board
	b.Outline = geom.Corners(at(0, 0), at(20, 0), at(20, 20), at(0, 20))
	d.Put(&b)
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 100_000, design.HoleClearance: 200_000, design.TrackWidth: 100_000,
		design.LeastWidth: 75_000, design.LeastHole: 100_000, design.LeastRing: 75_000})
	d.Put(&design.Footprint{ID: 90, Name: "Pad", Pads: []design.Pad{{Number: "1", Form: design.Round, Size: at(0.5, 0.5)}}})
	for i, p := range []struct {
		net    string
		at     geom.Point
		bottom bool
	}{{"A", at(2, 10), false}, {"A", at(18, 10), true}, {"B", at(2, 4), false}} {
		d.Put(&design.Placed{ID: design.ID(200 + i), Part: design.ID(300 + i), Designator: string(rune('P' + i)), Footprint: "Pad",
			At: p.at, Bottom: p.bottom,
			Nets: map[string]design.ID{"1": synthetic.Net(d, p.net)}})
	}
	d.Next = max(d.Next, 1000)
	s.Bench = workbench.Open(d, 0)
	return s
}

// open counts the open links of a net.
func (s *shop) open(name string) int { return len(s.All().Links[s.net(name)].Come) }

func (s *shop) net(name string) design.ID { return s.Doc.NetNamed(name).ID }

// broken are the faults that the check finds.
func (s *shop) broken() (out []string) {
	board := check.NewBoard(s.Doc, layout.NewIndex(s.Doc), rules.Of(s.Doc))
	board.All()
	for _, f := range board.Found {
		if f.Severity == check.Fault {
			out = append(out, f.Text)
		}
	}
	return out
}

// barrels names the barrels of all vias, in the order of their ids.
func (s *shop) barrels() (out []string) {
	for v := range s.Doc.Vias.All() {
		name := "none"
		if l := s.Doc.Board.Barrel(v.Barrel); l != nil {
			name = l.Name
		}
		out = append(out, name)
	}
	return out
}

func (s *shop) barrel(name string) design.BarrelID {
	for _, l := range s.Doc.Board.Holes.Barrels {
		if l.Name == name {
			return l.ID
		}
	}
	return 0
}

// hop of two holes, each of a barrel at a place.
func (s *shop) hop(one string, a geom.Point, two string, b geom.Point) *route.Hop {
	return &route.Hop{Holes: []route.HopHole{{Barrel: s.barrel(one), At: a}, {Barrel: s.barrel(two), At: b}}}
}

// stepped draws A from the upper pad to the middle, down to the fourth layer by a micro via and a buried one beside it, and on to x = 16.
func stepped(s *shop) {
	b := s.Doc.Board
	s.do(&edit.DrawTrack{Net: s.net("A"), Runs: []edit.Run{
		{Layer: b.At(0), Path: geom.Corners(at(2, 10), at(8, 10))},
		{Layer: b.At(3), Path: geom.Corners(at(8.5, 10), at(16, 10)), Hop: s.hop("Top micro", at(8, 10), "Buried", at(8.5, 10))},
	}})
}

func TestAHopOfTwoHolesIsDrawn(t *testing.T) {
	s := fine(t)
	stepped(s)
	assert.Equal(t, []string{"Top micro", "Buried"}, s.barrels())
	assert.Empty(t, s.broken())
	var vias []*design.Via
	for v := range s.Doc.Vias.All() {
		vias = append(vias, v)
		assert.NotZero(t, v.Group)
		assert.Equal(t, vias[0].Group, v.Group)
	}
	assert.Equal(t, []any{"laser", "filled", int64(100_000), int64(250_000)},
		[]any{vias[0].Kind, vias[0].Cover, vias[0].Hole, vias[0].Diameter})
	joint := 0
	for tr := range s.Doc.Tracks.All() {
		if tr.Group == vias[0].Group {
			joint++
			assert.Equal(t, []any{s.Doc.Board.At(1), at(8, 10), at(8.5, 10)}, []any{tr.Layer, tr.A, tr.B})
		}
	}
	assert.Equal(t, 1, joint)
	assert.Equal(t, 1, s.open("A"), "only the lower pad is open")

	b := s.Doc.Board
	refused := func(says string, to int, holes ...route.HopHole) {
		t.Helper()
		s.refuses(&edit.DrawTrack{Net: s.net("B"), Runs: []edit.Run{{Layer: b.At(0), Path: geom.Corners(at(2, 4), at(6, 4))},
			{Layer: b.At(to), Path: geom.Corners(at(7, 4), at(9, 4)), Hop: &route.Hop{Holes: holes}}}}, says)
	}
	refused("a hop of a track has 1 to 8 holes", 1)
	refused("do not meet its holes", 1, route.HopHole{Barrel: s.barrel("Top micro"), At: at(6, 4)})
	refused("do not meet its holes", 1, route.HopHole{Barrel: s.barrel("Top micro"), At: at(7, 4)})
	refused("does not lead on from", 4, route.HopHole{Barrel: s.barrel("Buried"), At: at(6, 4)},
		route.HopHole{Barrel: s.barrel("Buried"), At: at(7, 4)})
	refused("the board's house does not make (id 99)", 1, route.HopHole{Barrel: 99, At: at(6, 4)},
		route.HopHole{Barrel: s.barrel("Buried"), At: at(7, 4)})
}

// Where the house stacks nothing, holes beside each other are drawn, and none on another.
func TestAHopWhereNothingIsStacked(t *testing.T) {
	s := fine(t)
	b := *s.Doc.Board
	b.Holes.Stacked = 0
	s.Doc.Put(&b)
	s.refuses(&edit.DrawTrack{Net: s.net("A"), Runs: []edit.Run{
		{Layer: b.At(0), Path: geom.Corners(at(2, 10), at(8, 10))},
		{Layer: b.At(3), Path: geom.Corners(at(8, 10), at(16, 10)), Hop: s.hop("Top micro", at(8, 10), "Buried", at(8, 10))},
	}}, "the house stacks none on another")
	stepped(s)
	assert.Equal(t, []string{"Top micro", "Buried"}, s.barrels())
	up := fine(t)
	b = *up.Doc.Board
	b.Holes.Stacked = 0
	up.Doc.Put(&b)
	up.do(&edit.DrawTrack{Net: up.net("A"), Runs: []edit.Run{ // and from below
		{Layer: b.At(3), Path: geom.Corners(at(16, 10), at(8.5, 10))},
		{Layer: b.At(0), Path: geom.Corners(at(8, 10), at(2, 10)), Hop: up.hop("Buried", at(8.5, 10), "Top micro", at(8, 10))},
	}})
	assert.Empty(t, up.broken())
}

// Where no hop is said, the best that fits where the track changes its layer is made.
func TestTheBestHopIsMade(t *testing.T) {
	s := fine(t)
	b := s.Doc.Board
	draw := func(net string, y float64, from, to int) edit.Command {
		return &edit.DrawTrack{Net: s.net(net), Runs: []edit.Run{{Layer: b.At(from), Path: geom.Corners(at(2, y), at(6, y))},
			{Layer: b.At(to), Path: geom.Corners(at(6, y), at(9, y))}}}
	}
	s.do(draw("A", 10, 0, 1))
	assert.Equal(t, []string{"Top micro"}, s.barrels(), "the shallowest")
	s.do(draw("B", 4, 0, 5))
	assert.Equal(t, []string{"Top micro", "Through"}, s.barrels())
	assert.Empty(t, s.broken())
	assert.Zero(t, s.Doc.Board.Barrel(s.barrel("Through")).Kind)
}

// A via that is set by itself is of the barrel through all layers; a way that is finished by search hops by those, and can be taken.
func TestViasThroughAllLayers(t *testing.T) {
	s := fine(t)
	s.do(&edit.AddVia{At: at(15, 15), Net: s.net("A")})
	for v := range s.Doc.Vias.All() {
		assert.Equal(t, []any{s.barrel("Through"), int64(450_000), int64(200_000)}, []any{v.Barrel, v.Diameter, v.Hole})
	}
	s = fine(t)
	s.Doc.Put(&design.Track{ID: 900, Layer: s.Doc.Board.Top(), A: at(10, 1), B: at(10, 19), Width: 300_000, Net: s.net("B")})
	s.Bench = workbench.Open(s.Doc, 0)
	way, err := (&question.Finish{From: at(2, 10), Begun: at(2, 10), Layer: s.Doc.Board.Top(), Net: s.net("A"), Hops: true}).Answer(s.Bench)
	require.NoError(t, err)
	require.Positive(t, way.Hops)
	s.do(&edit.DrawTrack{Net: s.net("A"), Runs: way.Runs})
	assert.Zero(t, s.open("A"))
	assert.Empty(t, s.broken())
}

// Where nothing leads to the layer, or only aside, a track is refused: its parts would not be joined.
func TestNoHopLeadsThere(t *testing.T) {
	draw := func(s *shop, to int) edit.Command {
		b := s.Doc.Board
		return &edit.DrawTrack{Net: s.net("A"), Runs: []edit.Run{
			{Layer: b.At(0), Path: geom.Corners(at(2, 10), at(6, 10))},
			{Layer: b.At(to), Path: geom.Corners(at(6, 10), at(9, 10))},
		}}
	}
	only := func(stacked int, names ...string) *shop {
		s := fine(t)
		b := *s.Doc.Board
		b.Holes.Stacked = stacked
		b.Holes.Barrels = slices.DeleteFunc(slices.Clone(b.Holes.Barrels), func(l design.Barrel) bool { return !slices.Contains(names, l.Name) })
		s.Doc.Put(&b)
		return s
	}
	s := only(1, "Top micro")
	s.refuses(draw(s, 3), "no hole that the house makes leads from Top to Inner 3")
	s = only(1, "Top micro", "Buried")
	s.refuses(draw(s, 3), "from Top to Inner 3 only holes beside each other lead")
	assert.Empty(t, s.Doc.Tracks)
	s = only(2, "Top micro", "Buried")
	s.do(draw(s, 3))
	assert.Equal(t, []string{"Top micro", "Buried"}, s.barrels(), "on each other")
	assert.Empty(t, s.broken())
}

// A hop that stands is turned, gets its holes further apart, takes another way and the first again; what came to it stays joined.
func TestAHopIsMadeAnew(t *testing.T) {
	s := fine(t)
	stepped(s)
	first := func() *design.Via {
		for v := range s.Doc.Vias.All() {
			return v
		}
		return nil
	}
	open := s.open("A")
	whole := func() {
		t.Helper()
		assert.Empty(t, s.broken())
		assert.Equal(t, open, s.open("A"), "joined as before")
		require.NoError(t, s.Doc.Whole())
	}
	turn := int32(90_000)
	s.do(&edit.SetHop{ID: first().ID, Turned: &turn, Apart: 700_000})
	whole()
	var ends []geom.Point
	for v := range s.Doc.Vias.All() {
		ends = append(ends, v.At)
		assert.True(t, v.Own)
	}
	assert.Equal(t, []geom.Point{at(8, 10), at(8, 10.7)}, ends)

	m := s.Field().MadeOf(first())
	assert.Equal(t, []int{0, 3}, []int{m.From, m.To})
	assert.Equal(t, at(8.5, 10), m.Z, "where the track comes to it on the fourth layer")
	ways, _ := s.Doc.Board.WaysOf(s.Doc.Board.At(0), s.Doc.Board.At(3))
	require.Greater(t, len(ways), 1)
	require.Len(t, ways[0].Steps, 1)
	s.do(&edit.SetHop{ID: first().ID, Way: 1})
	whole()
	assert.Equal(t, []string{"Through"}, s.barrels())
	s.do(&edit.SetHop{ID: first().ID, Way: 2})
	whole()
	assert.Equal(t, []string{"Top micro", "Buried"}, s.barrels())
	s.refuses(&edit.SetHop{ID: first().ID, Way: 99}, "and no number 99")
	s.refuses(&edit.SetHop{ID: first().ID, Apart: 11_000_000}, "up to 10 mm apart")
	s.refuses(&edit.SetHop{ID: 5}, "there is no such via")
	s.do(&edit.Lock{IDs: []design.ID{first().ID}, Locked: true})
	s.refuses(&edit.SetHop{ID: first().ID, Way: 1}, "locked")
}

// Changed recipes make the vias anew that follow them; those that a person chose, or that are locked, keep their way.
func TestRecipesAreFollowed(t *testing.T) {
	s := fine(t)
	b := s.Doc.Board
	for i, net := range []string{"A", "B"} {
		y := []float64{10, 4}[i]
		s.do(&edit.DrawTrack{Net: s.net(net), Runs: []edit.Run{{Layer: b.At(0), Path: geom.Corners(at(2, y), at(6, y))},
			{Layer: b.At(1), Path: geom.Corners(at(6, y), at(9, y))}}})
	}
	require.Equal(t, []string{"Top micro", "Top micro"}, s.barrels())
	holes := s.Doc.Board.Holes
	wider := holes
	wider.Barrels = append([]design.Barrel{}, holes.Barrels...)
	for i := range wider.Barrels {
		if wider.Barrels[i].Name == "Top micro" {
			wider.Barrels[i].Diameter = 300_000
		}
	}
	c := &edit.SetHoles{Holes: wider}
	s.do(c)
	assert.Equal(t, "2 hops: Top micro 0.25 mm/0.1 mm → Top micro 0.3 mm/0.1 mm.", c.Said())
	for v := range s.Doc.Vias.All() {
		assert.EqualValues(t, 300_000, v.Diameter)
	}
	assert.Empty(t, s.broken())

	more := wider
	more.Barrels = append(append([]design.Barrel{}, wider.Barrels...), design.Barrel{Name: "One", From: b.At(0), To: b.At(5)},
		design.Barrel{Name: "Two", From: b.At(0), To: b.At(5)})
	s.do(&edit.SetHoles{Holes: more})
	assert.NotEqual(t, s.barrel("One"), s.barrel("Two"), "new ones have ids of their own")
	assert.NotZero(t, s.barrel("One"))
	s.do(&edit.SetHoles{Holes: wider})

	// the second is somebody's own; then through vias are to be best
	var ids []design.ID
	for v := range s.Doc.Vias.All() {
		ids = append(ids, v.ID)
	}
	s.do(&edit.SetHop{ID: ids[1], Way: 1})
	through := wider
	through.Ways = []design.Way{{From: b.At(0), To: b.At(1), Steps: []design.Step{{Barrel: s.barrel("Through")}}},
		{From: b.At(0), To: b.At(1), Steps: []design.Step{{Barrel: s.barrel("Top micro")}}}}
	c = &edit.SetHoles{Holes: through}
	s.do(c)
	assert.Equal(t, []string{"Through", "Top micro"}, s.barrels())
	assert.Equal(t, "1 hop: Top micro 0.3 mm/0.1 mm → Through 0.45 mm/0.2 mm.", c.Said())
	assert.Empty(t, s.broken())

	// that of its own is of its barrel still, where the barrel changes
	thin := through
	thin.Barrels = slices.Clone(through.Barrels)
	for i := range thin.Barrels {
		if thin.Barrels[i].Name == "Top micro" {
			thin.Barrels[i].Diameter = 280_000
		}
	}
	s.do(&edit.SetHoles{Holes: thin})
	assert.EqualValues(t, 280_000, s.Doc.Vias[ids[1]].Diameter)
	assert.True(t, s.Doc.Vias[ids[1]].Own)
	assert.False(t, s.Doc.Vias[ids[0]].Own)
}

// A hop that nothing comes to below is turned without anything that joins it there.
func TestAHopThatLeadsNowhereIsTurned(t *testing.T) {
	s := fine(t)
	stepped(s)
	var first design.ID
	for tr := range s.Doc.Tracks.All() {
		if tr.Layer == s.Doc.Board.At(3) {
			s.do(&edit.Remove{IDs: []design.ID{tr.ID}})
		}
	}
	for v := range s.Doc.Vias.All() {
		first = v.ID
		break
	}
	turn := int32(270_000)
	s.do(&edit.SetHop{ID: first, Turned: &turn})
	assert.Len(t, s.Doc.Tracks, 2, "that from the pad, and what joins both holes")
	assert.Len(t, s.Doc.Vias, 2)
	for tr := range s.Doc.Tracks.All() {
		assert.Positive(t, tr.Width)
	}
	assert.Empty(t, s.broken())
}

// Holes of one hop are up to 10 mm apart, and no more.
func TestHolesOfAHopAreNotFarApart(t *testing.T) {
	s := fine(t)
	b := s.Doc.Board
	draw := func(to float64) edit.Command {
		return &edit.DrawTrack{Net: s.net("A"), Runs: []edit.Run{{Layer: b.At(0), Path: geom.Corners(at(2, 10), at(5, 10))},
			{Layer: b.At(3), Path: geom.Corners(at(to, 10), at(16, 10)), Hop: s.hop("Top micro", at(5, 10), "Buried", at(to, 10))}}}
	}
	s.refuses(draw(15.1), "holes of a hop are up to 10 mm apart, not 10.1 mm")
	s.do(draw(15))
	assert.Empty(t, s.broken())
}
