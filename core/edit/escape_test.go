package edit_test

import (
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/escape"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// Of 8 × 8 balls 0.8 mm apart two ranks find room on top, as one track fits between two balls, and some of the third; the innermost hop,
// and lead out on another layer. Turned by any angle it is the same.
func TestRankByRank(t *testing.T) {
	for _, angle := range []int32{0, 90_000, 45_000, 30_000} {
		s := denseBoard(t, "Four layers, 0.8 mm", 8, 800_000, 400_000, angle)
		said, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0, 1, 3), Beyond: 500_000})
		require.NoError(t, err)
		assert.Equal(t, "64 pads lead out.", said)
		for i := range 64 {
			x, y := i%8, i/8
			rank := min(x, 7-x, y, 7-y) + 1
			on := s.outside(i, 500_000)
			require.NotEmpty(t, on, "ball %d", i+1)
			switch rank {
			case 1, 2:
				assert.Equal(t, 0, on[0], "ball %d of rank %d", i+1, rank)
			case 4:
				assert.Equal(t, 1, on[0], "ball %d of rank %d: on the nearest layer", i+1, rank)
			}
			assert.Contains(t, []int{0, 1}, on[0])
			assert.InDelta(t, 3.5*800_000+500_000, s.farthest(i), 3, "just so far beyond")
			assert.Equal(t, on[0] != 0, len(s.viasOf(i)) > 0)
		}
		_, err = s.escapes(t, edit.EscapeAsk{Layers: s.layers(0, 1, 3), Beyond: 500_000})
		require.EqualError(t, err, "no pad could be led out: of all, something leads away already")
	}
}

// Where two tracks fit between two balls, three ranks find room on top.
func TestTwoTracksBetweenBalls(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 8, 1_000_000, 400_000, 0)
	said, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0), Beyond: 300_000})
	require.NoError(t, err)
	led := 0
	for i := range 64 {
		x, y := i%8, i/8
		if min(x, 7-x, y, 7-y) < 3 {
			assert.NotEmpty(t, s.outside(i, 300_000), "ball %d", i+1)
		}
		if len(s.outside(i, 300_000)) > 0 {
			led++
		}
	}
	assert.GreaterOrEqual(t, led, 60)
	assert.Contains(t, said, fmt.Sprintf("%d pads lead out.", led))
}

// What has nothing to be joined with stays: pads of no net, of nets that nothing else has, unplated holes. What lies in an area of its net
// on the top alone is there already; pads of nets without an area can be left aside.
func TestEscapesThatNeedNotBe(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 4, 800_000, 400_000, 0)
	f := *s.FootprintNamed(t, "Balls")
	f.Pads = append(slices.Clone(f.Pads), design.Pad{ID: 17, Number: "", Form: design.Round, Size: geom.Pt(mm, mm), Hole: mm,
		Bare: true, At: mmf(8, 0)})
	s.Put(&f)
	p := *s.part
	p.Nets = maps.Clone(s.part.Nets)
	delete(p.Nets, "1")
	delete(p.Nets, "16")
	p.Nets["2"] = synthetic.Net(s.Doc, "ALONE")
	gnd := s.nets[3]
	p.Nets["5"], p.Nets["6"] = gnd, gnd
	s.Put(&p)
	s.Put(&design.Pour{ID: s.NewID(), Name: "GND", Net: gnd, Layers: s.layers(0),
		Outline: geom.Corners(mmf(0, 0), mmf(60, 0), mmf(60, 60), mmf(0, 60))})
	require.NoError(t, s.Whole())
	_, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0, 3), Beyond: 500_000, Areas: true})
	require.EqualError(t, err, "no pad could be led out: of all, something leads away already")
	said, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0, 3), Beyond: 500_000})
	require.NoError(t, err)
	assert.Equal(t, "10 pads lead out.", said, "16 but for two of no net, one alone and three in the area")
	for i := range 16 {
		if on := s.outside(i, 500_000); len(on) > 0 {
			assert.InDelta(t, 1.5*800_000+500_000, s.farthest(i), 3, "the hole beside the pads is none of them")
		}
	}
}

// A part with two rows of long pads: the pads of ground reach their plane by a via right beyond the pad, no farther than the rules need.
func TestEscapesBesideLongPads(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 4, 800_000, 400_000, 0)
	rows := &design.Footprint{ID: 92, Name: "Rows"}
	nets := map[string]design.ID{}
	for i := range 8 {
		n := fmt.Sprint(i + 1)
		rows.Pads = append(rows.Pads, design.Pad{ID: i + 1, Number: n, Form: design.Rect, Size: geom.Pt(400_000, 1_600_000),
			At: geom.Pt(int64(i%4)*650_000-975_000, int64(i/4)*5_000_000-2_500_000)})
		nets[n] = s.nets[i]
	}
	s.Put(rows)
	s.Put(&design.Placed{ID: s.part.ID, Part: 5001, Designator: "U1", Footprint: "Rows", At: s.part.At, Nets: nets})
	s.part = s.Placed[s.part.ID]
	s.Put(&design.Pour{ID: s.NewID(), Name: "plane", Net: s.nets[1], Layers: s.layers(1)})
	said, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0), Areas: true})
	require.NoError(t, err)
	assert.Equal(t, "1 pad leads out.", said)
	vias := s.viasOf(1)
	require.Len(t, vias, 1)
	var pad *layout.Copper
	for _, c := range s.x.Of(s.part.ID) {
		if c.Number == "2" {
			pad = c
		}
	}
	gap, _, _ := geom.Gap(pad.Shape, geom.Disc(vias[0].At, vias[0].Diameter/2))
	assert.Less(t, gap, 0.3*mm, "right beside the pad")
	assert.Equal(t, pad.At.X, vias[0].At.X, "straight on")
	assert.Less(t, vias[0].At.Y, pad.At.Y-800_000, "away from the part's middle")
}

// FootprintNamed is one there is.
func (s *dense) FootprintNamed(t *testing.T, name string) *design.Footprint {
	f := s.Footprint(name)
	require.NotNil(t, f)
	return f
}

// A hop takes the best way of the board: from the top to the first inner layer a micro via, not one through all layers.
func TestEscapesTakeTheBestHop(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 6, 800_000, 400_000, 0)
	_, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(1), Beyond: 500_000})
	require.NoError(t, err)
	for i := range 36 {
		vias := s.viasOf(i)
		require.Len(t, vias, 1, "ball %d", i+1)
		assert.Equal(t, design.Lasered, vias[0].Kind)
		assert.Equal(t, s.Board.At(1), vias[0].To)
		assert.Contains(t, s.outside(i, 500_000), 1)
	}
	holes := denseBoard(t, "Four layers, 0.8 mm", 6, 800_000, 400_000, 0)
	said, err := holes.escapes(t, edit.EscapeAsk{Layers: holes.layers(3), Holes: true})
	require.NoError(t, err)
	assert.Equal(t, "36 pads lead out.", said)
	for i := range 36 {
		require.NotEmpty(t, holes.viasOf(i))
		for _, c := range holes.reached(i) {
			if c.Kind == "track" {
				tr := holes.Tracks[c.ID]
				assert.LessOrEqual(t, max(tr.A.Dist(tr.B), 0), 1.2*mm, "short")
			}
		}
	}
}

// Pads of a net that has a plane only reach that, at once; filled, the plane joins them.
func TestEscapesIntoAPlane(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 8, 800_000, 400_000, 0)
	gnd := s.nets[27] // in the inner ranks
	s.Put(&design.Pour{ID: s.NewID(), Name: "GND", Net: gnd, Layers: s.layers(1)})
	p := *s.part
	p.Nets = map[string]design.ID{}
	for n, id := range s.part.Nets {
		p.Nets[n] = id
	}
	for _, n := range []string{"1", "20", "36", "64"} {
		p.Nets[n] = gnd
	}
	s.Put(&p)
	_, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0, 3), Beyond: 500_000})
	require.NoError(t, err)
	f, err := pour.Of(context.Background(), s.Doc, s.x, rules.Of(s.Doc), nil)
	require.NoError(t, err)
	for _, is := range layout.Islands(s.x.NetPieces(gnd), f.Bonds(gnd)...) {
		balls := 0
		for _, c := range is {
			if c.ID == s.part.ID {
				balls++
			}
		}
		if balls > 0 {
			assert.Equal(t, 5, balls, "all hang together over the plane")
		}
	}
}

// What is asked for that cannot be is said.
func TestEscapesThatCannotBe(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 4, 800_000, 400_000, 0)
	for says, c := range map[string]*edit.Escape{
		"pick the parts first whose pads are to escape":   {},
		"there is no such part any more (id 7)":           {EscapeAsk: edit.EscapeAsk{Parts: []design.ID{7}}},
		"the board has no such copper layer (id 99)":      {EscapeAsk: edit.EscapeAsk{Parts: []design.ID{s.part.ID}, Layers: []design.LayerID{99}}},
		"tracks lead 0 to 20 mm beyond a part, not 21 mm": {EscapeAsk: edit.EscapeAsk{Parts: []design.ID{s.part.ID}, Beyond: 21 * mm}},
		"no layer that may be led out on is there for it": {EscapeAsk: edit.EscapeAsk{Parts: []design.ID{s.part.ID}}},
	} {
		_, err := edit.Apply(s.Doc, edit.Env{}, c)
		require.ErrorContains(t, err, says)
	}
	assert.Empty(t, s.Tracks)
}

// Whatever stands around: what is laid keeps every rule, each pad led out is joined to an end beyond the part, and of those that are not a
// straight way out on top would break a rule.
func TestEscapesOfAnyPart(t *testing.T) {
	stuck := 0
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 7).Draw(t, "balls")
		pitch := rapid.Int64Range(10, 20).Draw(t, "pitch") * 50_000
		s := denseBoard(t, rapid.SampledFrom([]string{"Four layers, 0.8 mm", "Six layers, 1.2 mm"}).Draw(t, "stack"), n, pitch, pitch/2,
			int32(rapid.IntRange(0, 23).Draw(t, "angle"))*15_000)
		for range rapid.IntRange(0, 8).Draw(t, "obstacles") {
			a := geom.Pt(30*mm+rapid.Int64Range(-50, 50).Draw(t, "x")*100_000, 30*mm+rapid.Int64Range(-50, 50).Draw(t, "y")*100_000)
			tr := &design.Track{ID: s.NewID(), Layer: s.Board.At(rapid.IntRange(0, s.Board.Layers()-1).Draw(t, "layer")), Width: 200_000,
				A: a, B: a.Add(geom.Pt(rapid.Int64Range(-30, 30).Draw(t, "dx")*100_000, 1_500_000)), Net: synthetic.Net(s.Doc, "WALL")}
			s.Put(tr)
		}
		walls := len(s.Tracks)
		layers := s.layers(rapid.SliceOfNDistinct(rapid.IntRange(0, s.Board.Layers()-1), 1, 3, rapid.ID[int]).Draw(t, "layers")...)
		beyond := rapid.Int64Range(0, 20).Draw(t, "beyond") * 100_000
		ask := edit.EscapeAsk{Parts: []design.ID{s.part.ID}, Layers: layers, Beyond: beyond}
		act := &edit.Escape{EscapeAsk: ask}
		before := s.Snapshot()
		cs, err := edit.Apply(s.Doc, edit.Env{}, act)
		if err != nil {
			require.Len(t, s.Tracks, walls)
			return
		}
		s.keepsRules(t, cs)
		led := 0
		for i := range n * n {
			if len(s.outside(i, float64(beyond))) > 0 {
				led++
				continue
			}
			require.Len(t, s.reached(i), 1, "nothing is left half done")
			if layers[0] != s.Board.Top() {
				continue
			}
			stuck++
			// straight on over the nearest side, on the board as it is now
			require.False(t, s.straight(i, beyond), "ball %d has a way out", i+1)
		}
		require.Contains(t, act.Said(), fmt.Sprintf("%d pad", led))
		cs.Inverted().Apply(s.Doc)
		require.Equal(t, len(before.Tracks), len(s.Tracks))
		require.Empty(t, s.Vias)
	})
	require.Positive(t, stuck)
}

// Stopped, nothing is said to be led out; what stands in the way of a ball is named.
func TestEscapesAreStoppedAndSaid(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 6, 800_000, 400_000, 0)
	f := &route.Field{Doc: s.Doc, Index: layout.NewIndex(s.Doc), Rules: rules.Of(s.Doc)}
	ask := edit.EscapeAsk{Parts: []design.ID{s.part.ID}, Layers: s.layers(0)}
	var told []float64
	out, err := ask.Of(f, func(share float64) error {
		if told = append(told, share); len(told) > 18 {
			return errors.New("enough")
		}
		return nil
	})
	require.EqualError(t, err, "enough")
	assert.Empty(t, out.Led)
	assert.InDelta(t, 0.5, told[18], 1e-9)
	// walls of another net around the part, on every layer: no ball gets out
	for _, l := range s.Board.Copper() {
		for _, c := range [][4]float64{{27, 27, 33, 27}, {33, 27, 33, 33}, {33, 33, 27, 33}, {27, 33, 27, 27}} {
			s.Put(&design.Track{ID: s.NewID(), Layer: l.ID, A: mmf(c[0], c[1]), B: mmf(c[2], c[3]), Width: 200_000,
				Net: synthetic.Net(s.Doc, "WALL")})
		}
	}
	ask.Layers, ask.Beyond = s.layers(0, 1, 3), 2*mm
	f = &route.Field{Doc: s.Doc, Index: layout.NewIndex(s.Doc), Rules: rules.Of(s.Doc)}
	out, err = ask.Of(f, func(float64) error { return nil })
	require.NoError(t, err)
	assert.Empty(t, out.Led)
	require.Len(t, out.Stuck, 36)
	for _, k := range out.Stuck {
		assert.NotNil(t, k.Why)
		assert.Contains(t, k.Name, "pad U1.")
	}
	corner := out.Stuck[slices.IndexFunc(out.Stuck, func(k escape.Stuck) bool { return k.Name == "pad U1.2" })]
	require.EqualError(t, corner.Why, "this would touch track of WALL", "straight down")
	_, err = edit.Apply(s.Doc, edit.Env{}, &edit.Escape{EscapeAsk: ask})
	require.ErrorContains(t, err, "no pad could be led out; of pad U1.")
}

// Where the ways lead, place by place, from the middle of the part: straight out from the outer rank; from the next one by half a right angle
// away from the middle into the gap between two balls, and out; into a plane by a hop between four balls outward, then to either side, then
// inward.
func TestWhereEscapesLead(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 8, 800_000, 400_000, 0)
	_, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0), Beyond: 500_000})
	require.NoError(t, err)
	ways := func(i int) (out [][2]geom.Point) {
		for tr := range s.Tracks.All() {
			if tr.Net == s.nets[i] {
				out = append(out, [2]geom.Point{tr.A.Sub(s.part.At), tr.B.Sub(s.part.At)})
			}
		}
		return out
	}
	ball := func(col, row int) int { return row*8 + col }
	assert.Equal(t, [][2]geom.Point{{mmf(-2.8, -0.4), mmf(-3.3, -0.4)}}, ways(ball(0, 3)))
	assert.Equal(t, [][2]geom.Point{{mmf(-2, -0.4), mmf(-2.4, -0.8)}, {mmf(-2.4, -0.8), mmf(-3.3, -0.8)}}, ways(ball(1, 3)))
	assert.Equal(t, [][2]geom.Point{{mmf(-2, 0.4), mmf(-2.4, 0.8)}, {mmf(-2.4, 0.8), mmf(-3.3, 0.8)}}, ways(ball(1, 4)))
	assert.Equal(t, [][2]geom.Point{{mmf(0.4, 2), mmf(0.8, 2.4)}, {mmf(0.8, 2.4), mmf(0.8, 3.3)}}, ways(ball(4, 6)))

	spots := []geom.Point{mmf(-0.8, -0.8), mmf(-0.8, 0), mmf(0, -0.8), mmf(0, 0)}
	for taken := range spots {
		s := denseBoard(t, "Four layers, 0.8 mm", 8, 800_000, 400_000, 0)
		s.Put(&design.Pour{ID: s.NewID(), Name: "plane", Net: s.nets[ball(3, 3)], Layers: s.layers(1)})
		for _, at := range spots[:taken] {
			s.Put(&design.Via{ID: s.NewID(), At: s.part.At.Add(at), Diameter: 250_000, Hole: 100_000,
				From: s.Board.At(0), To: s.Board.At(1), Kind: design.Lasered, Net: synthetic.Net(s.Doc, "WALL")})
		}
		ask := edit.EscapeAsk{Parts: []design.ID{s.part.ID}, Layers: s.layers(0), Areas: true}
		_, err := edit.Apply(s.Doc, edit.Env{}, &edit.Escape{EscapeAsk: ask})
		require.NoError(t, err)
		for v := range s.Vias.All() {
			if v.Net == s.nets[ball(3, 3)] {
				assert.Equal(t, spots[taken], v.At.Sub(s.part.At))
			}
		}
		require.Len(t, s.Tracks, 1)
	}
}

// Tracks that need lead no farther than the outermost pads leave those as they are; a plane elsewhere is no way out.
func TestEscapesNoFartherThanThePads(t *testing.T) {
	s := denseBoard(t, "Four layers, 0.8 mm", 4, 800_000, 400_000, 0)
	said, err := s.escapes(t, edit.EscapeAsk{Layers: s.layers(0)})
	require.NoError(t, err)
	assert.Equal(t, "4 pads lead out.", said, "12 lie outermost")
	away := denseBoard(t, "Four layers, 0.8 mm", 4, 800_000, 400_000, 0)
	away.Put(&design.Pour{ID: away.NewID(), Name: "far", Net: away.nets[5], Layers: away.layers(1),
		Outline: geom.Corners(mmf(2, 40), mmf(9, 40), mmf(9, 50))})
	f := &route.Field{Doc: away.Doc, Index: layout.NewIndex(away.Doc), Rules: rules.Of(away.Doc)}
	ask := edit.EscapeAsk{Parts: []design.ID{away.part.ID}, Layers: away.layers(0), Areas: true}
	out, err := ask.Of(f, func(float64) error { return nil })
	require.NoError(t, err)
	require.Len(t, out.Stuck, 1)
	require.EqualError(t, out.Stuck[0].Why, "no area of N6 on another layer lies beside it")
}
