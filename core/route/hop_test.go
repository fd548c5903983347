package route_test

import (
	"math"
	"math/bits"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// drillable is a board of six layers with barrels: through 0.6/0.3 mm, lasered 0.3/0.1 outside and one below, buried 0.5/0.2.
func drillable() *design.Doc {
	d := design.New("hops")
	synthetic.Layers(d, 6)
	b := *d.Board
	b.Outline = geom.Corners(mm(0, 0), mm(20, 0), mm(20, 20), mm(0, 20))
	b.Holes.Stacked = 2
	for _, l := range []struct {
		name       string
		kind       string
		from, to   int
		size, hole int64
	}{
		{"through", "", 0, 5, 600, 300}, {"top", "laser", 0, 1, 300, 100}, {"second", "laser", 1, 2, 300, 100},
		{"buried", "", 1, 4, 500, 200}, {"bottom", "laser", 4, 5, 300, 100},
	} {
		b.Holes.Next++
		b.Holes.Barrels = append(b.Holes.Barrels, design.Barrel{ID: b.Holes.Next, Name: l.name, Kind: l.kind, From: b.At(l.from),
			To: b.At(l.to), Diameter: l.size * um, Hole: l.hole * um})
	}
	b.Holes.Next++
	d.Put(&b)
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 150 * um, design.HoleClearance: 200 * um, design.EdgeClearance: 250 * um,
		design.TrackWidth: 200 * um, design.LeastWidth: 100 * um,
		design.LeastHole: 100 * um, design.LeastRing: 75 * um})
	return d
}

func fieldOf(d *design.Doc) route.Field {
	return route.Field{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
}

// names of the barrels of a hop, and where it ends.
func holes(d *design.Doc, h *route.Hop) (out []string) {
	for _, x := range h.Holes {
		out = append(out, d.Board.Barrel(x.Barrel).Name)
	}
	return out
}

func TestHopsTakeTheBestWay(t *testing.T) {
	d := drillable()
	a := synthetic.Net(d, "A")
	f := fieldOf(d)
	ask := func(from, to int) route.HopAsk { return route.HopAsk{At: mm(10, 10), Net: a, From: from, To: to} }
	made := func(ask route.HopAsk) *route.Hop {
		tried := f.HopAt(ask)
		require.NotEmpty(t, tried)
		return tried[len(tried)-1].Hop
	}
	assert.Equal(t, []string{"top"}, holes(d, made(ask(0, 1))))
	assert.Equal(t, []string{"top"}, holes(d, made(ask(1, 0))))
	assert.Equal(t, []string{"through"}, holes(d, made(ask(0, 5))))
	chain := ask(0, 2)
	chain.Only = 2
	h := made(chain)
	require.Equal(t, []string{"top", "second"}, holes(d, h))
	assert.True(t, h.Own, "another than the best was asked for")
	chain.Only = 1
	assert.False(t, made(chain).Own, "the best was")
	chain.Only = 2
	assert.InDelta(t, 300*um, h.Holes[0].At.Dist(h.Holes[1].At), 1, "half of both holes, and 0.2 mm between them")
	up := chain
	up.From, up.To = 2, 0
	assert.Equal(t, []string{"second", "top"}, holes(d, made(up)), "from below")
	turned, far := chain, int32(90_000)
	turned.Angle, turned.Apart = &far, 500*um
	h = made(turned)
	assert.Equal(t, []geom.Point{mm(10, 10), mm(10, 10.5)}, []geom.Point{h.Holes[0].At, h.End()})
	vias, tracks := f.HopThings(h, a, 0)
	require.Len(t, tracks, 1)
	assert.Equal(t, design.Track{Layer: d.Board.At(1), A: mm(10, 10), B: mm(10, 10.5), Width: 200 * um, Net: a}, *tracks[0])
	assert.Equal(t, design.Via{At: mm(10, 10), Diameter: 300 * um, Hole: 100 * um, From: d.Board.At(0), To: d.Board.At(1),
		Kind: "laser", Barrel: 2, Net: a}, *vias[0])
	stay := chain
	stay.Only, stay.Stay = 3, true
	h = made(stay)
	assert.Equal(t, []string{"top", "second"}, holes(d, h), "stacked")
	assert.Equal(t, mm(10, 10), h.End())
	stay.Only = 2
	assert.Nil(t, made(stay), "one that stands apart ends elsewhere")

	// a wall on the fifth layer 0.5 mm to the right: through is in the way, the chain is not; on the third layer the chain goes to the left
	wall := func(layer int, x float64) {
		d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.At(layer), A: mm(x, 2), B: mm(x, 18), Width: 200 * um, Net: synthetic.Net(d, "W")})
		f = fieldOf(d)
	}
	wall(4, 10.45)
	tried := f.HopAt(ask(0, 2))
	require.Len(t, tried, 2)
	assert.EqualError(t, tried[0].Why, "this would come within 0.05 mm of track of W; the rules ask for 0.15 mm",
		"0.45 less the radius of 0.3 and half the wall")
	assert.Equal(t, []string{"top", "second"}, holes(d, tried[1].Hop))
	wall(1, 10.6)
	wall(2, 10.6)
	h = made(ask(0, 2))
	assert.LessOrEqual(t, h.End().X, mm(10, 0).X, "not towards the wall")
	wall(0, 10)
	tried = f.HopAt(ask(0, 2))
	for _, x := range tried {
		assert.Nil(t, x.Hop)
		assert.ErrorContains(t, x.Why, "this would touch track of W")
	}
	near, at, no := f.HopNear(ask(0, 1))
	require.NoError(t, no)
	assert.Equal(t, []string{"top"}, holes(d, near))
	assert.InDelta(t, 400*um, at.Dist(mm(10, 10)), float64(50*um), "a tenth, a quarter and 0.15 mm, in steps of a tenth of a millimetre")

	none := drillable()
	b := *none.Board
	b.Holes.Barrels = b.Holes.Barrels[1:2]
	none.Put(&b)
	tried = fieldOf(none).HopAt(route.HopAsk{At: mm(10, 10), From: 2, To: 4})
	require.Len(t, tried, 1)
	assert.EqualError(t, tried[0].Why, "no hole that the house makes leads from L3 to L5")
}

// The best way that fits, at the angle with the most room: against trying all ways at all angles, each held against the whole check.
func TestHopsAgainstAllWaysAndAngles(t *testing.T) {
	fit, none, chains := 0, 0, 0
	rapid.Check(t, func(t *rapid.T) {
		d := drillable()
		a, other := synthetic.Net(d, "A"), synthetic.Net(d, "W")
		at := func(what string) geom.Point {
			return geom.Pt(int64(rapid.IntRange(7_000, 13_000).Draw(t, what+" x"))*um, int64(rapid.IntRange(7_000, 13_000).Draw(t, what+" y"))*um)
		}
		for i := range rapid.IntRange(5, 40).Draw(t, "things") {
			net := rapid.SampledFrom([]design.ID{other, other, other, a, 0}).Draw(t, "net")
			if rapid.IntRange(0, 3).Draw(t, "via") == 0 {
				l := rapid.SampledFrom(d.Board.Holes.Barrels).Draw(t, "barrel")
				d.Put(&design.Via{ID: design.ID(100 + i), At: at("via"), Kind: l.Kind, From: l.From, To: l.To, Hole: l.Hole,
					Diameter: l.Diameter, Net: net})
				continue
			}
			p, q := at("from"), at("to")
			if p != q {
				d.Put(&design.Track{ID: design.ID(100 + i), Layer: d.Board.At(rapid.IntRange(0, 5).Draw(t, "layer")), A: p, B: q,
					Width: 200 * um, Net: net})
			}
		}
		f := fieldOf(d)
		for range 5 {
			from := rapid.IntRange(0, 5).Draw(t, "from")
			to := (from + rapid.IntRange(1, 5).Draw(t, "further")) % 6
			ask := route.HopAsk{At: mm(10, 10), Net: a, From: from, To: to}
			tried := f.HopAt(ask)
			if len(tried) == 0 {
				continue // a plated hole is there
			}
			ways, _ := d.Board.WaysOf(d.Board.At(from), d.Board.At(to))
			best, room := -1, int64(-1)
			for i, w := range ways {
				angles := []int32{0}
				if w.Stepped() {
					for k := int32(15); k < 360; k += 15 {
						angles = append(angles, k*1000)
					}
				}
				for _, angle := range angles {
					turned := ask
					turned.Angle, turned.Only = &angle, i+1
					hop := laid(d, w, turned)
					if r := roomOf(t, d, f, hop, a); r > room {
						best, room = i, r
					}
				}
				if best >= 0 {
					break
				}
			}
			last := tried[len(tried)-1]
			if best < 0 {
				none++
				assert.Nil(t, last.Hop)
				assert.Len(t, tried, len(ways))
				continue
			}
			fit++
			require.NotNil(t, last.Hop, "the way %d fits", best+1)
			require.Len(t, tried, best+1)
			if ways[best].Stepped() {
				chains++
				got := roomOf(t, d, f, last.Hop, a)
				assert.GreaterOrEqual(t, got, min(room, 500*um)-2*um, "it has as much room as any")
			}
		}
	})
	require.Greater(t, fit, 100)
	require.Positive(t, chains)
	require.Positive(t, none)
}

// laid places the holes of a way at an angle, by plain trigonometry: each stepped one as far from the one before as half of both holes and
// the clearance between them ask for.
func laid(d *design.Doc, w design.Way, a route.HopAsk) *route.Hop {
	steps, at := append([]design.Step{}, w.Steps...), a.At
	hop := &route.Hop{}
	if a.From > a.To {
		for i := range steps {
			steps[i].Barrel = w.Steps[len(steps)-1-i].Barrel
			if i > 0 {
				steps[i].Stepped = w.Steps[len(steps)-i].Stepped
			}
		}
	}
	for i, s := range steps {
		if i > 0 && s.Stepped {
			far := float64(d.Board.Barrel(steps[i-1].Barrel).Hole/2 + d.Board.Barrel(s.Barrel).Hole/2 + 200*um)
			rad := float64(*a.Angle) / 1000 * math.Pi / 180
			at = at.Add(geom.Pt(int64(math.Round(far*math.Cos(rad))), int64(math.Round(far*math.Sin(rad)))))
		}
		hop.Holes = append(hop.Holes, route.HopHole{Barrel: s.Barrel, At: at})
	}
	return hop
}

// roomOf is how far all of a hop could grow before the check found fault with it, −1: it does already. The check is asked with the
// clearances as they are; how much is to spare is measured piece by piece.
func roomOf(t *rapid.T, d *design.Doc, f route.Field, hop *route.Hop, net design.ID) int64 {
	mine := map[design.ID]bool{}
	with := d.Snapshot()
	vias, tracks := f.HopThings(hop, net, 0)
	for i, v := range vias {
		q := *v
		q.ID = design.ID(900 + i)
		with.Put(&q)
		mine[q.ID] = true
	}
	for i, tr := range tracks {
		q := *tr
		q.ID = design.ID(950 + i)
		with.Put(&q)
		mine[q.ID] = true
	}
	x := layout.NewIndex(with)
	board := check.NewBoard(with, x, rules.Of(with))
	board.All()
	for _, found := range board.Found {
		for _, id := range found.Objects {
			if mine[id] && found.Severity == check.Fault {
				return -1
			}
		}
	}
	room := int64(math.MaxInt64)
	for c := range x.All() {
		if !mine[c.ID] {
			continue
		}
		for o := range x.All() {
			if mine[o.ID] {
				continue
			}
			if gap, _, _, layer := layout.Gap(c, o); layer >= 0 && (o.Net != net || net == 0) {
				room = min(room, int64(gap)-150*um)
			}
			common := bits.OnesCount32(c.Layers & o.Layers)
			if c.Hole > 0 && o.Hole > 0 && common > 0 && !(c.Drill == o.Drill && common == 1) {
				gap, _, _ := geom.Gap(c.Bore(), o.Bore())
				room = min(room, int64(gap)-200*um)
			}
		}
	}
	return max(room, 0)
}
