package teardrop_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"github.com/twpayne/go-geos"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
	"goldentrace/core/teardrop"
)

func mm(x, y float64) geom.Point { return geom.Pt(int64(math.Round(x*1e6)), int64(math.Round(y*1e6))) }

// board is one of 40 by 40 mm with teardrops and a net.
func board(like design.Teardrops) (d *design.Doc, net design.ID) {
	d = design.New("Drops")
	d.Next = 100
	b := *d.Board
	b.Outline = geom.Corners(mm(0, 0), mm(40, 0), mm(40, 40), mm(0, 40))
	b.Teardrops = &like
	d.Put(&b)
	return d, synthetic.Net(d, "SIG")
}

func find(d *design.Doc, layer int) []teardrop.Teardrop {
	return teardrop.Of(d, layout.NewIndex(d), rules.Of(d)).In(geom.BoxOf(mm(-50, -50), mm(90, 90)), layer)
}

func via(d *design.Doc, at geom.Point, diameter int64, net design.ID) *design.Via {
	v := &design.Via{ID: d.NewID(), At: at, Diameter: diameter, Hole: diameter / 2, From: d.Board.Top(), To: d.Board.Bottom(), Net: net}
	d.Put(v)
	return v
}

func track(d *design.Doc, a, b geom.Point, width int64, net design.ID) *design.Track {
	t := &design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: a, B: b, Width: width, Net: net}
	d.Put(t)
	return t
}

// A via of 2 mm and a track of 0.4 mm at any angle: the teardrop begins 1.8 mm broad on the via's circle and ends as broad as the track,
// 0.8 mm from the circle, growing narrower all the way, the same on either side.
func TestFormOfATeardrop(t *testing.T) {
	for _, degrees := range []float64{0, 30, 45, 117, 200, 271} {
		d, net := board(design.Teardrops{Length: 400, Breadth: 900, Most: 3_000_000, On: []design.Thing{design.AVia}})
		sin, cos := math.Sincos(degrees * math.Pi / 180)
		c := mm(20, 20)
		via(d, c, 2_000_000, net)
		track(d, c, mm(20+9*cos, 20+9*sin), 400_000, net)
		list := find(d, 0)
		require.Len(t, list, 1)
		pts := list[0].Shape.Pts
		along := func(p geom.Point) float64 { return (float64(p.X-c.X)*cos + float64(p.Y-c.Y)*sin) / 1e6 }
		aside := func(p geom.Point) float64 { return (float64(p.Y-c.Y)*cos - float64(p.X-c.X)*sin) / 1e6 }
		half := pts[:len(pts)/2]
		first, last := half[0], half[len(half)-1]
		assert.InDelta(t, 1, c.Dist(first)/1e6, 1e-3, "on the circle")
		assert.InDelta(t, 0.9, math.Abs(aside(first)), 1e-3)
		assert.InDelta(t, 1.8, along(last), 1e-3)
		assert.InDelta(t, 0.2, math.Abs(aside(last)), 1e-5)
		for i, p := range half {
			q := pts[len(pts)-1-i]
			assert.InDelta(t, along(p), along(q), 1e-3)
			assert.InDelta(t, aside(p), -aside(q), 1e-3)
			if i > 0 {
				assert.Greater(t, along(p), along(half[i-1]))
				assert.Less(t, math.Abs(aside(p)), math.Abs(aside(half[i-1]))+1e-6)
			}
		}
		before := half[len(half)-2]
		assert.Less(t, (math.Abs(aside(before))-0.2)/(along(last)-along(before)), 0.1, "it bends into the track's side")
		require.True(t, geom.InPolygon(c.Towards(mm(20+1.7*cos, 20+1.7*sin), 1), pts))
	}
}

// What has none: the other end, ends in nothing, pads of another kind, pads hardly broader than the track, pads that the track does not leave far enough.
func TestWhatHasNoTeardrop(t *testing.T) {
	like := design.Teardrops{Length: 600, Breadth: 900, Most: 1_000_000, On: []design.Thing{design.AVia}}
	for name, c := range map[string]struct {
		like             design.Teardrops
		width, length    float64
		other, lower, on bool
	}{
		"as it should":          {like, 0.3, 5, false, false, true},
		"a broad track":         {like, 0.88, 5, false, false, false},
		"a short track":         {like, 0.3, 0.52, false, false, false},
		"another net":           {like, 0.3, 5, true, false, false},
		"another kind":          {design.Teardrops{Length: 600, Breadth: 900, Most: 1_000_000, On: []design.Thing{design.ThroughPad}}, 0.3, 5, false, false, false},
		"from the layer beyond": {like, 0.3, 5, false, true, false},
	} {
		d, net := board(c.like)
		of := net
		if c.other {
			of = synthetic.Net(d, "ELSE")
		}
		via(d, mm(20, 20), 1_000_000, net)
		track(d, mm(20, 20), mm(20+c.length, 20), int64(c.width*1e6), of)
		layer := 0
		if c.lower {
			layer = 1
		}
		assert.Equal(t, c.on, len(find(d, layer)) == 1, name)
	}
}

// Between a pad and a wall of copper the teardrop is as large as there is room: a wall beside it makes it smaller, a nearer one takes it away.
func TestTeardropsGiveWay(t *testing.T) {
	size := func(wall float64) float64 {
		d, net := board(design.Teardrops{Length: 600, Breadth: 1000, Most: 1_500_000, On: []design.Thing{design.AVia}})
		via(d, mm(20, 20), 2_000_000, net)
		track(d, mm(20, 20), mm(30, 20), 300_000, net)
		// the wall keeps its clearance from the via and the track: it lies beside the bend
		track(d, mm(21.35, 20+wall), mm(30, 20+wall), 200_000, synthetic.Net(d, "WALL"))
		list := find(d, 0)
		if len(list) == 0 {
			return 0
		}
		return geom.Area(list[0].Shape.Pts) / 1e12
	}
	whole := size(3)
	require.Greater(t, math.Abs(whole), 0.5)
	assert.InDelta(t, whole, size(0.95), 1e-9)
	some := size(0.55)
	assert.Less(t, math.Abs(some), math.Abs(whole))
	assert.Greater(t, math.Abs(some), 0.1)
	assert.Zero(t, size(0.46))
}

// roundness is how far the sides of solids stray from round ones at most, in nanometres: quarters of up to 2 mm about are of 64 chords.
const roundness = 100

func solid(c *geos.Context, s geom.Shape) *geos.Geom {
	line := make([][]float64, 0, len(s.Pts)+1)
	for _, p := range s.Pts {
		line = append(line, []float64{float64(p.X), float64(p.Y)})
	}
	var core *geos.Geom
	switch {
	case len(s.Pts) == 1:
		core = c.NewPoint(line[0])
	case s.Area:
		core = c.NewPolygon([][][]float64{append(line, line[0])})
	default:
		core = c.NewLineString(line)
	}
	return core.Buffer(float64(s.R), 64)
}

// On crowded boards, by the library's distances: no teardrop comes nearer to what is not of its net than the rules say, not to another
// teardrop either. One that is whole on an otherwise empty board is whole here unless that, or a whole one of another net, stands in its way.
func TestTeardropsAgainstDistances(t *testing.T) {
	smaller, kept := 0, 0
	rapid.Check(t, func(t *rapid.T) {
		like := design.Teardrops{Length: 700, Breadth: 950, Most: 1_200_000, On: design.TeardropThings}
		d, net := board(like)
		nets := []design.ID{net, synthetic.Net(d, "B"), synthetic.Net(d, "C")}
		at := func() geom.Point {
			return geom.Pt(rapid.Int64Range(0, 40).Draw(t, "x")*250_000, rapid.Int64Range(0, 40).Draw(t, "y")*250_000)
		}
		alone := map[design.ID][]teardrop.Teardrop{} // by track
		for range rapid.IntRange(2, 10).Draw(t, "vias") {
			n := rapid.SampledFrom(nets).Draw(t, "net")
			v := via(d, at(), rapid.Int64Range(3, 9).Draw(t, "diameter")*200_000, n)
			tr := track(d, v.At, v.At.Add(geom.Pt(rapid.Int64Range(-12, 12).Draw(t, "dx")*250_000, rapid.Int64Range(1, 12).Draw(t, "dy")*250_000)), 200_000, n)
			lonely, _ := board(like)
			lonely.Put(d.Nets[n])
			lonely.Put(v)
			lonely.Put(tr)
			b := *lonely.Board
			b.Outline = nil
			lonely.Put(&b)
			alone[tr.ID] = find(lonely, 0)
		}
		clearance := float64(d.Numbers()[design.Clearance])
		x := layout.NewIndex(d)
		c := geos.NewContext()
		free := func(drop teardrop.Teardrop, others func(yield func(design.ID, geom.Shape))) bool {
			g, ok := solid(c, drop.Shape), true
			others(func(n design.ID, s geom.Shape) {
				if n != drop.Net && g.Distance(solid(c, s)) < clearance-geom.Slack {
					ok = false
				}
			})
			edge := c.NewLineString([][]float64{{0, 0}, {40e6, 0}, {40e6, 40e6}, {0, 40e6}, {0, 0}})
			return ok && g.Distance(edge) >= float64(d.Numbers()[design.EdgeClearance])-geom.Slack && drop.Shape.Box().Min.X > 0 && drop.Shape.Box().Min.Y > 0
		}
		copper := func(yield func(design.ID, geom.Shape)) {
			for p := range x.All() {
				if p.Has(0) {
					yield(p.Net, p.On(0))
				}
			}
		}
		wholes := func(yield func(design.ID, geom.Shape)) {
			for _, list := range alone {
				for _, w := range list {
					yield(w.Net, w.Shape)
				}
			}
		}
		// what of its own net it would touch that neither its track nor its pad does, copper or what other teardrops would be
		joins := func(drop teardrop.Teardrop) (yes bool) {
			g := solid(c, drop.Shape)
			hangs := func(s geom.Shape) bool {
				for p := range x.All() {
					if (p.Ref() == drop.Track || p.Ref() == drop.Pad) && solid(c, p.On(0)).Distance(solid(c, s)) < roundness {
						return true
					}
				}
				return false
			}
			for p := range x.All() {
				if p.Net == drop.Net && p.Has(0) && p.Ref() != drop.Track && p.Ref() != drop.Pad && g.Distance(solid(c, p.On(0))) == 0 && !hangs(p.On(0)) {
					yes = true
				}
			}
			for _, list := range alone {
				for _, w := range list {
					if w.Net == drop.Net && w.Track != drop.Track && g.Distance(solid(c, w.Shape)) == 0 && !hangs(w.Shape) {
						yes = true
					}
				}
			}
			return yes
		}
		got := map[design.ID][]teardrop.Teardrop{}
		all := find(d, 0)
		for _, drop := range all {
			got[drop.Track.ID] = append(got[drop.Track.ID], drop)
			require.True(t, free(drop, copper), "it keeps its clearance")
			for p := range x.All() {
				if p.Net == drop.Net && p.Has(0) && solid(c, drop.Shape).Distance(solid(c, p.On(0))) == 0 {
					touches := p.Ref() == drop.Track || p.Ref() == drop.Pad
					for q := range x.All() {
						touches = touches || (q.Ref() == drop.Track || q.Ref() == drop.Pad) && solid(c, q.On(0)).Distance(solid(c, p.On(0))) < roundness
					}
					require.True(t, touches, "it joins nothing")
				}
			}
			require.True(t, free(drop, func(yield func(design.ID, geom.Shape)) {
				for _, o := range all {
					yield(o.Net, o.Shape)
				}
			}), "from other teardrops too")
		}
		for id, list := range alone {
			in := 0
			for v := range d.Vias.All() {
				if tr := d.Tracks[id]; v.Net == tr.Net && (v.At.Dist(tr.A) <= float64(v.Diameter)/2 || v.At.Dist(tr.B) <= float64(v.Diameter)/2) {
					in++
				}
			}
			if in > 1 {
				continue // it leads to several
			}
			for _, w := range list {
				in := false
				if joins(w) {
					continue
				}
				for _, g := range got[id] {
					in = in || assert.ObjectsAreEqual(w.Shape, g.Shape)
				}
				if free(w, copper) && free(w, wholes) {
					kept++
					require.True(t, in, "%v has room", w.Shape)
				} else if !in && len(got[id]) > 0 {
					smaller++
				}
			}
		}
	})
	require.Positive(t, kept)
	require.Positive(t, smaller)
}

// Of a track that leaves its via in an arc the teardrop bends along: its tip lies on the arc's sides, 0.8 mm of arc from where the via ends.
func TestTeardropOfAnArc(t *testing.T) {
	d, net := board(design.Teardrops{Length: 400, Breadth: 900, Most: 3_000_000, On: []design.Thing{design.AVia}})
	via(d, mm(25, 20), 2_000_000, net)
	const r = 5.0 // about 20, 20: a quarter of a circle upwards
	mid := mm(20+r*math.Sqrt2/2, 20+r*math.Sqrt2/2)
	d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: mm(25, 20), Mid: &mid, B: mm(20, 25), Width: 400_000, Net: net})
	list := find(d, 0)
	require.Len(t, list, 1)
	pts := list[0].Shape.Pts
	half := len(pts) / 2
	tips := []geom.Point{pts[half-1], pts[half]}
	centre := mm(20, 20)
	assert.InDelta(t, 5.2e6, math.Max(centre.Dist(tips[0]), centre.Dist(tips[1])), 3000)
	assert.InDelta(t, 4.8e6, math.Min(centre.Dist(tips[0]), centre.Dist(tips[1])), 3000)
	// the circle of the via, 1 mm about 25, 20, meets the arc where the chord is 1 mm: at 2·asin(1/10)
	leaves := r * 2 * math.Asin(0.1)
	for _, p := range tips {
		angle := math.Atan2(float64(p.Y-centre.Y), float64(p.X-centre.X))
		assert.InDelta(t, (leaves+0.8)/r, angle, 1e-3)
	}
}

// Each teardrop belongs to one tile, that of its track's end.
func TestTeardropsTileByTile(t *testing.T) {
	d, net := board(design.Teardrops{Length: 600, Breadth: 900, Most: 1_000_000, On: []design.Thing{design.AVia}})
	for i := range 64 { // ends on the sides and corners of tiles too
		at := mm(2.5+5*float64(i%8), 2.5+5*float64(i/8))
		if i%3 == 0 {
			at = mm(5*float64(i%8), 5*float64(i/8))
		}
		via(d, at, 1_000_000, net)
		track(d, at, at.Add(mm(0, 1.8)), 200_000, net)
	}
	b := *d.Board
	b.Outline = nil
	d.Put(&b)
	f := teardrop.Of(d, layout.NewIndex(d), rules.Of(d))
	all := f.In(geom.BoxOf(mm(-50, -50), mm(90, 90)), 0)
	require.Len(t, all, 64)
	var tiles []teardrop.Teardrop
	for x := -2.0; x < 10; x++ {
		for y := -2.0; y < 10; y++ {
			tiles = append(tiles, f.In(geom.BoxOf(mm(5*x, 5*y), mm(5*x+5, 5*y+5)), 0)...)
		}
	}
	assert.ElementsMatch(t, all, tiles)
	// a track that ends where it leaves its via has none
	lone, n := board(design.Teardrops{Length: 600, Breadth: 900, Most: 1_000_000, On: []design.Thing{design.AVia}})
	via(lone, mm(20, 20), 3_000_000, n)
	track(lone, mm(20, 20), mm(21, 20), 200_000, n)
	assert.Empty(t, find(lone, 0))
}

// Of a pad as large as a coin the teardrop stays near the end of its track: at most 3 mm broad where it begins, and within 3 mm. Copper of its
// net on another layer is none that it could touch.
func TestTeardropOfALargePad(t *testing.T) {
	d, net := board(design.Teardrops{Length: 3000, Breadth: 1000, Most: 3_000_000, On: []design.Thing{design.AVia}})
	via(d, mm(20, 20), 12_000_000, net)
	end := mm(25.5, 20)
	track(d, end, mm(38, 20), 300_000, net)
	d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Bottom(), A: mm(27.2, 19), B: mm(27.2, 23), Width: 300_000, Net: net})
	list := find(d, 0)
	require.Len(t, list, 1)
	pts := list[0].Shape.Pts
	assert.InDelta(t, 3e6, pts[0].Dist(pts[len(pts)-1]), 2000)
	for _, p := range pts {
		assert.LessOrEqual(t, p.Dist(end), float64(teardrop.Farthest))
	}
	assert.Greater(t, pts[len(pts)/2].X, end.X+2_000_000, "it leads on along the track")
}
