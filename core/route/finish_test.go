package route_test

import (
	"container/heap"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
)

// crowd is a board of 20 by 20 mm with random foreign tracks, vias and holes, and two vias of one net that are to be joined.
func crowd(t *rapid.T) (f route.Field, from, to geom.Point, target *layout.Copper) {
	var objects []design.Object
	id := design.ID(100)
	at := func(name string) geom.Point {
		return geom.Pt(rapid.Int64Range(2, 36).Draw(t, name+"x")*500*um, rapid.Int64Range(2, 36).Draw(t, name+"y")*500*um)
	}
	from, to = at("from"), at("to")
	d := design.New("layers")
	top, bottom := d.Board.Top(), d.Board.Bottom()
	keep := func(s geom.Shape) bool {
		for _, p := range []geom.Point{from, to} {
			if g, _, _ := geom.Gap(s, geom.Disc(p, 900*um)); g < 0 {
				return false
			}
		}
		return true
	}
	for range rapid.IntRange(0, 40).Draw(t, "things") {
		id++
		a, net := at("a"), design.ID(901+rapid.IntRange(0, 4).Draw(t, "net"))
		switch rapid.IntRange(0, 5).Draw(t, "kind") {
		case 0:
			if keep(geom.Disc(a, 400*um)) {
				objects = append(objects, &design.Via{ID: id, Net: net, At: a, Diameter: 800 * um, Hole: 400 * um, From: top, To: bottom})
			}
		case 1:
			if keep(geom.Disc(a, 500*um)) {
				objects = append(objects, &design.Hole{ID: id, At: a, Diameter: 1000 * um})
			}
		default:
			b := a.Add(geom.Pt(rapid.Int64Range(-8, 8).Draw(t, "dx")*500*um, rapid.Int64Range(-8, 8).Draw(t, "dy")*500*um))
			if a == b || min(b.X, b.Y) < 500*um || max(b.X, b.Y) > 19_500*um || !keep(geom.Stroke(a, b, 300*um)) {
				continue
			}
			objects = append(objects, &design.Track{ID: id, Net: net, Layer: rapid.SampledFrom([]design.LayerID{top, bottom}).Draw(t, "layer"), A: a, B: b, Width: 300 * um})
		}
	}
	for i, p := range []geom.Point{from, to} {
		objects = append(objects, &design.Via{ID: design.ID(50 + i), Net: 900, At: p, Diameter: 800 * um, Hole: 400 * um, From: top, To: bottom})
	}
	f = field(objects...)
	return f, from, to, f.Index.Of(51)[0]
}

type spot struct {
	cost float64
	at   geom.Point
}
type spots []spot

func (s spots) Len() int           { return len(s) }
func (s spots) Less(i, j int) bool { return s[i].cost < s[j].cost }
func (s spots) Swap(i, j int)      { s[i], s[j] = s[j], s[i] }
func (s *spots) Push(x any)        { *s = append(*s, x.(spot)) }
func (s *spots) Pop() any          { old := *s; x := old[len(old)-1]; *s = old[:len(old)-1]; return x }

// shortest is the length of the shortest way on a plain grid from a place to another, each step of it measured (Dijkstra).
func shortest(f route.Field, from, to geom.Point, layer int, pitch, width int64) float64 {
	known := map[geom.Point]float64{from: 0}
	queue := spots{{0, from}}
	done := map[geom.Point]bool{}
	for len(queue) > 0 {
		s := heap.Pop(&queue).(spot)
		if s.at == to {
			return s.cost
		}
		if done[s.at] {
			continue
		}
		done[s.at] = true
		for dx := int64(-1); dx <= 1; dx++ {
			for dy := int64(-1); dy <= 1; dy++ {
				q := s.at.Add(geom.Pt(dx*pitch, dy*pitch))
				cost := s.cost + s.at.Dist(q)
				if old, seen := known[q]; q == s.at || seen && old <= cost || q.X < 0 || q.Y < 0 || q.X > 20_000*um || q.Y > 20_000*um {
					continue
				}
				if f.Clear(route.Wish{Shape: geom.Stroke(s.at, q, width), Layers: 1 << layer, Net: 900, Thing: design.ATrack}) != nil {
					continue
				}
				known[q] = cost
				heap.Push(&queue, spot{cost, q})
			}
		}
	}
	return math.Inf(1)
}

// Finish finds a way on a layer whenever a plain grid does, within 1.1 times its length; every piece of it keeps the rules, its pieces
// hang together and its ends are where they were asked for.
func TestFinishAgainstGrid(t *testing.T) {
	made, least := 0.0, 0.0
	corners, ways := 0, 0
	defer func() {
		// all in all it is no longer than the grid's ways, whose places are coarser, and turns seldom
		assert.LessOrEqual(t, made, 1.005*least)
		assert.LessOrEqual(t, float64(corners), 2.0*float64(ways))
		t.Logf("%.4f of the grid's length, %.2f corners a way", made/least, float64(corners)/float64(ways))
	}()
	rapid.Check(t, func(t *rapid.T) {
		f, from, to, target := crowd(t)
		want := shortest(f, from, to, 0, 250*um, 250*um)
		legs := f.Finish(route.Errand{Net: 900, Width: 250 * um, From: from, Layers: 1, Goals: []*layout.Copper{target}})
		if legs == nil {
			require.True(t, math.IsInf(want, 1), "a way of %v mm was not found", want/1e6)
			return
		}
		keeps(t, f, legs, from, to)
		require.LessOrEqual(t, float64(long(legs)), 1.1*want)
		if !math.IsInf(want, 1) {
			made, least = made+float64(long(legs)), least+want
			corners, ways = corners+len(legs[0].Path)-2, ways+1
		}
	})
}

// With hops it finds a way whenever it finds one without, no dearer than that; hops stand where a via fits.
func TestFinishWithHops(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f, from, to, target := crowd(t)
		flat := f.Finish(route.Errand{Net: 900, Width: 250 * um, From: from, Layers: 1, Goals: []*layout.Copper{target}})
		legs := f.Finish(route.Errand{Net: 900, Width: 250 * um, From: from, Layers: 3, Goals: []*layout.Copper{target}, Hops: true})
		if flat != nil {
			require.NotNil(t, legs)
		}
		if legs == nil {
			return
		}
		keeps(t, f, legs, from, to)
		if flat != nil {
			assert.LessOrEqual(t, float64(long(legs)), 1.1*float64(long(flat)))
		}
	})
}

func long(legs []route.Leg) (sum int64) {
	for _, l := range legs {
		sum += route.Length(geom.Places(l.Path))
	}
	return sum
}

// keeps holds legs against the field.
func keeps(t *rapid.T, f route.Field, legs []route.Leg, from, to geom.Point) {
	t.Helper()
	require.Equal(t, from, legs[0].Path[0].Point)
	last := legs[len(legs)-1].Path
	require.Equal(t, to, last[len(last)-1].Point)
	for i, l := range legs {
		for j := 0; j+1 < len(l.Path); j++ {
			a, b := l.Path[j].Point, l.Path[j+1].Point
			d := b.Sub(a)
			require.True(t, d.X == 0 || d.Y == 0 || d.X == d.Y || d.X == -d.Y, "%v", d)
			o := f.Clear(route.Wish{Shape: geom.Stroke(a, b, l.Width), Layers: 1 << l.Layer, Net: 900, Thing: design.ATrack})
			require.Nil(t, o, "%v", o)
		}
		if i == 0 {
			continue
		}
		at := legs[i-1].Path[len(legs[i-1].Path)-1].Point
		require.Equal(t, at, l.Path[0].Point)
		require.NotEqual(t, legs[i-1].Layer, l.Layer)
		if !f.PlatedAt(at, 900, 3) {
			require.Nil(t, f.Clear(f.Via(at, 900)))
		}
	}
}

// Where a wall parts the upper layer from edge to edge, the way leads over two hops below it; without hops there is none.
func TestFinishHopsBelowAWall(t *testing.T) {
	pad := func(id design.ID, x float64) *design.Track {
		return &design.Track{ID: id, Net: 900, Layer: 1, A: mm(x, 10), B: mm(x+0.5, 10), Width: 250 * um}
	}
	f := field(pad(300, 4), pad(301, 16), &design.Track{ID: 302, Net: 902, Layer: 1, A: mm(10, -30), B: mm(10, 50), Width: 250 * um})
	e := route.Errand{Net: 900, Width: 250 * um, From: mm(4, 10), Layers: 1, Goals: f.Index.Of(301)}
	assert.Nil(t, f.Finish(e))
	e.Hops = true
	legs := f.Finish(e)
	require.Len(t, legs, 3)
	assert.Equal(t, []int{0, 1, 0}, []int{legs[0].Layer, legs[1].Layer, legs[2].Layer})
	e.Within = 1
	assert.Nil(t, f.Finish(e), "it may not lead below")
	e.Layers = 0
	assert.Nil(t, f.Finish(e), "there is no layer to begin on")
}
