package pour_test

import (
	"context"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// pinned is a plate of 20 × 12 mm with an area of GND on top and a round plated pad of GND, 1.6 mm wide, in its middle.
func pinned() (d *design.Doc, p *design.Pour, pin *design.Placed) {
	d, gnd, _ := plate(20, 12)
	for p = range d.Pours.All() {
	}
	d.Put(&design.Footprint{ID: 90, Name: "Pin", Pads: []design.Pad{{Number: "1", Form: design.Round, Size: mm(1.6, 1.6), Hole: 800_000}}})
	pin = &design.Placed{ID: d.NewID(), Part: 999, Designator: "P1", Footprint: "Pin", At: mm(10, 6), Nets: map[string]design.ID{"1": gnd}}
	d.Put(pin)
	return d, p, pin
}

// strips are the directions in degrees in which copper leads through the middle of the gap around the pad, each with how wide it is in
// nanometres, found by going round it.
func strips(f *pour.Fills, k pour.Key, at geom.Point, r float64) (out [][2]float64) {
	const steps = 7200
	filled := func(i int) bool {
		sin, cos := math.Sincos(2 * math.Pi * float64(i) / steps)
		return f.At(k, geom.Pt(at.X+int64(r*cos), at.Y+int64(r*sin))) != nil
	}
	first := 0
	for first < steps && filled(first) {
		first++
	}
	if first == steps {
		return nil // all around
	}
	for i := first; i < first+steps; i++ {
		if !filled(i) {
			continue
		}
		j := i
		for filled(j) {
			j++
		}
		angle := math.Mod(float64(i+j-1)/2*360/steps, 360)
		out = append(out, [2]float64{angle, 2 * r * math.Sin(math.Pi*float64(j-i)/steps)})
		i = j
	}
	return out
}

// A pad is joined by as many spokes as asked for, as wide, in the directions asked for, across a gap that is free otherwise.
func TestSpokes(t *testing.T) {
	for _, c := range []struct {
		spokes design.Spokes
		turned int32
		want   []float64
		width  float64
		gap    float64
	}{
		{design.Spokes{}, 0, []float64{0, 90, 180, 270}, 300_000, 250_000},
		{design.Spokes{}, 45_000, []float64{45, 135, 225, 315}, 300_000, 250_000},
		{design.Spokes{Number: 3, Width: 400_000, Gap: 500_000, Angle: 90_000}, 0, []float64{90, 210, 330}, 400_000, 500_000},
		{design.Spokes{Number: 1, Angle: 200_000}, 0, []float64{200}, 300_000, 250_000},
	} {
		d, p, pin := pinned()
		q := *p
		q.Spokes = c.spokes
		d.Put(&q)
		turned := *pin
		turned.Angle = c.turned
		d.Put(&turned)
		f := filled(t, d)
		k := pour.Key{Pour: p.ID, Layer: p.Layers[0]}
		got := strips(f, k, pin.At, 800_000+c.gap/2)
		require.Len(t, got, len(c.want), "%v", c)
		for _, want := range c.want {
			found := false
			for _, g := range got {
				off := math.Abs(math.Mod(g[0]-want+540, 360) - 180)
				found = found || off < 0.2 && math.Abs(g[1]-c.width) < 3_000
			}
			assert.True(t, found, "at %v°: %v", want, got)
		}
		assert.Nil(t, f.At(k, pin.At.Add(geom.Pt(int64((800_000+c.gap*0.98)*math.Cos(0.35)),
			int64((800_000+c.gap*0.98)*math.Sin(0.35))))), "the gap is free")
		require.Len(t, f.Islands(k), 1)
		assert.Equal(t, []int{1}, []int{len(f.Islands(k)[0].Touches)})
	}
}

// A spoke that would come too near to something, or that would end in nothing, is left out; the rest stay.
func TestSpokesThatFindNoRoom(t *testing.T) {
	d, p, pin := pinned()
	sig := d.NetNamed("SIG").ID
	k := pour.Key{Pour: p.ID, Layer: p.Layers[0]}
	d.Put(&design.Track{ID: d.NewID(), Layer: p.Layers[0], A: mm(11.3, 5), B: mm(11.3, 7), Width: 200_000, Net: sig})
	f := filled(t, d)
	got := strips(f, k, pin.At, 925_000)
	require.Len(t, got, 3, "to the right the track is in the way")
	for _, g := range got {
		assert.Greater(t, math.Min(g[0], 360-g[0]), 80.0)
	}
	// on both other sides too: the pad is joined from the left alone
	d.Put(&design.Track{ID: d.NewID(), Layer: p.Layers[0], A: mm(9, 7.3), B: mm(11, 7.3), Width: 200_000, Net: sig})
	d.Put(&design.Track{ID: d.NewID(), Layer: p.Layers[0], A: mm(9, 4.7), B: mm(11, 4.7), Width: 200_000, Net: sig})
	got = strips(filled(t, d), k, pin.At, 925_000)
	require.Len(t, got, 1)
	assert.InDelta(t, 180, got[0][0], 0.2)
}

// What a pad says of how it is joined goes before what its part says, that before its footprint, that before the area, and the rules come last. Vias
// are joined solidly, unless a rule for vias says otherwise.
func TestWhoSaysHowPadsAreJoined(t *testing.T) {
	const r = 925_000
	joined := func(change func(d *design.Doc, p *design.Pour, pin *design.Placed)) int {
		d, p, pin := pinned()
		change(d, p, pin)
		f := filled(t, d)
		got := strips(f, pour.Key{Pour: p.ID, Layer: p.Layers[0]}, pin.At, r)
		if len(got) == 0 && f.At(pour.Key{Pour: p.ID, Layer: p.Layers[0]}, pin.At.Add(geom.Pt(r, 0))) != nil {
			return -1 // all around
		}
		return len(got)
	}
	put := func(d *design.Doc, p design.Pour, join string) { p.Join = join; d.Put(&p) }
	pads := func(d *design.Doc, join string) {
		foot := *d.Footprints[90]
		foot.Pads = []design.Pad{foot.Pads[0]}
		foot.Pads[0].Join = join
		d.Put(&foot)
	}
	assert.Equal(t, 4, joined(func(*design.Doc, *design.Pour, *design.Placed) {}), "by the rules")
	assert.Equal(t, -1, joined(func(d *design.Doc, p *design.Pour, _ *design.Placed) { put(d, *p, design.Solidly) }))
	assert.Equal(t, 4, joined(func(d *design.Doc, p *design.Pour, _ *design.Placed) {
		put(d, *p, design.Solidly)
		pads(d, design.BySpokes)
	}))
	assert.Equal(t, -1, joined(func(d *design.Doc, p *design.Pour, pin *design.Placed) {
		put(d, *p, design.BySpokes)
		pads(d, design.BySpokes)
		q := *pin
		q.Joins = map[string]string{"1": design.Solidly}
		d.Put(&q)
	}))
	rule := func(k design.RuleKind, s design.Scope, v int64) func(*design.Doc, *design.Pour, *design.Placed) {
		return func(d *design.Doc, _ *design.Pour, _ *design.Placed) {
			d.Put(&design.Rule{ID: d.NewID(), Kind: k, Order: 99, A: s, Value: design.Fixed(v)})
		}
	}
	assert.Equal(t, -1, joined(rule(design.SpokeGap, design.Scope{Thing: design.ThroughPad}, 0)), "a gap of nothing is solid")
	assert.Equal(t, 4, joined(rule(design.SpokeGap, design.Scope{Thing: design.SurfacePad}, 0)), "of other pads")

	d, p, pin := pinned()
	d.Put(&design.Via{ID: d.NewID(), At: mm(4, 6), Diameter: 1_600_000, Hole: 800_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: p.Net})
	k := pour.Key{Pour: p.ID, Layer: p.Layers[0]}
	assert.NotNil(t, filled(t, d).At(k, mm(4, 6).Add(geom.Pt(900_000, 100_000))), "vias solidly")

	gap := design.Rule{ID: d.NewID(), Kind: design.SpokeGap, Order: 99, A: design.Scope{Thing: design.AVia}, Value: design.Fixed(200_000)}
	d.Put(&gap)
	assert.Len(t, strips(filled(t, d), k, mm(4, 6), 900_000), 4, "unless a rule for vias says otherwise")
	d.Remove(design.KindRule, gap.ID)

	// one that is not joined at all keeps the clearance of foreign copper, and does not count as reached
	put(d, *p, design.NotJoined)
	f := filled(t, d)
	assert.Empty(t, strips(f, k, pin.At, r))
	require.Len(t, f.Islands(k), 1)
	assert.Empty(t, f.Islands(k)[0].Touches)
	assert.False(t, f.Islands(k)[0].Stays)
}

// Islands that nothing of the net reaches go, or stay from a size on; a via of the net makes one copper of the board; one that goes is no longer
// there for anybody.
func TestIslands(t *testing.T) {
	d, p, _ := pinned()
	sig := d.NetNamed("SIG").ID
	top := p.Layers[0]
	// a foreign track from edge to edge parts the plate at x = 15: what lies beyond is 4.5 mm wide and 11.4 mm high
	d.Put(&design.Track{ID: d.NewID(), Layer: top, A: mm(15, -1), B: mm(15, 13), Width: 200_000, Net: sig})
	k := pour.Key{Pour: p.ID, Layer: top}
	beyond := (19.7 - 15.3) * 11.4
	f := filled(t, d)
	require.Len(t, f.Islands(k), 2)
	assert.Nil(t, f.At(k, mm(18, 6)))
	assert.NotNil(t, f.At(k, mm(3, 6)))
	assert.InEpsilon(t, beyond, f.Islands(k)[1].Size/1e12, 0.001)
	for _, c := range []struct {
		least int64
		stays bool
	}{{0, true}, {50_000, true}, {51_000, false}} {
		q := *p
		q.Islands, q.Smallest = design.IslandsStay, c.least
		d.Put(&q)
		assert.Equal(t, c.stays, filled(t, d).At(k, mm(18, 6)) != nil, "%d", c.least)
	}
	d.Put(p)
	d.Put(&design.Via{ID: d.NewID(), At: mm(17, 3), Diameter: 600_000, Hole: 300_000, From: top, To: d.Board.Bottom(), Net: p.Net})
	f = filled(t, d)
	assert.NotNil(t, f.At(k, mm(18, 6)))
	whole, err := f.Islands(k)[1].Whole()
	require.NoError(t, err)
	require.Len(t, whole, 1, "across its tiles it is one")
	assert.InEpsilon(t, beyond, (geom.Area(whole[0].Outer))/1e12, 0.001)
}

// What touches an area is told pad by pad: by spokes, solidly, not at all, or passing through it; what lies beyond its edge is not.
func TestWhatTouchesAnArea(t *testing.T) {
	d, p, pin := pinned()
	other := d.NewID()
	d.Put(&design.Net{ID: other, Name: "OTHER"})
	via := func(net design.ID, at geom.Point, join string) design.ID {
		id := d.NewID()
		d.Put(&design.Via{ID: id, At: at, Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: net, Join: join})
		return id
	}
	solid, none, passes := via(p.Net, mm(4, 6), ""), via(p.Net, mm(4, 9), design.NotJoined), via(other, mm(7, 6), "")
	k := pour.Key{Pour: p.ID, Layer: p.Layers[0]}
	hows := func() map[design.ID]string {
		out := map[design.ID]string{}
		for _, x := range filled(t, d).Touching(k) {
			out[x.Ref.ID] = x.How
		}
		return out
	}
	assert.Equal(t, map[design.ID]string{pin.ID: design.BySpokes, solid: design.Solidly, none: design.NotJoined, passes: pour.Passes}, hows())
	q := *p
	q.Outline = geom.Corners(mm(3, 5), mm(5, 5), mm(5, 7), mm(3, 7))
	d.Put(&q)
	assert.Equal(t, map[design.ID]string{solid: design.Solidly}, hows(), "within its edge")
	assert.Empty(t, filled(t, d).Touching(pour.Key{Pour: 999, Layer: p.Layers[0]}))
}

// Areas of one net that lie over each other join what either touches, also by a third that touches nothing; one that lies apart does not.
func TestAreasOverEachOtherJoin(t *testing.T) {
	d, p, pin := pinned()
	other := *pin
	other.ID, other.Part, other.At = d.NewID(), 998, mm(3, 6)
	d.Put(&other)
	area := func(id design.ID, name string, x0, x1 float64, islands string) {
		q := design.Pour{ID: id, Name: name, Net: p.Net, Layers: p.Layers, Islands: islands,
			Outline: geom.Corners(mm(x0, 2), mm(x1, 2), mm(x1, 10), mm(x0, 10))}
		d.Put(&q)
	}
	pads := func() (out []int) {
		for _, b := range filled(t, d).Bonds(p.Net) {
			out = append(out, len(b))
		}
		return out
	}
	area(p.ID, "right", 7, 13, "")
	area(d.NewID(), "left", 1, 5, "")
	assert.Empty(t, pads(), "each touches one pad")
	bridge := d.NewID()
	area(bridge, "between", 4, 8, design.IslandsStay)
	assert.Equal(t, []int{2}, pads())
	area(bridge, "between", 4, 6.5, design.IslandsStay)
	assert.Empty(t, pads(), "it ends before the right one")
	size := func(name string) (sum float64) {
		f := filled(t, d)
		for _, k := range f.Keys() {
			if d.Pours[k.Pour].Name == name {
				sum += size(f, k)
			}
		}
		return sum
	}
	area(bridge, "between", 4, 6.5, "")
	assert.InDelta(t, 2.5*8, size("between"), 0.5, "what nothing reaches stays where it lies over what stays")
	far := d.NewID()
	area(far, "further", 5.5, 6.8, "")
	assert.InDelta(t, 1.3*8, size("further"), 0.3, "and what lies over that")
	area(bridge, "between", 5.2, 5.4, "")
	assert.Zero(t, size("between"), "not what lies over nothing")
	assert.Zero(t, size("further"))
	d.Remove(design.KindPour, far)
	area(bridge, "between", 4.5, 7.001, design.IslandsStay)
	assert.Equal(t, []int{2}, pads(), "by a hair")
}

// What an area measures is the same however its tiles were taken in.
func TestSizesDoNotDependOnTheOrder(t *testing.T) {
	d := plain(t)
	o := &design.Pour{ID: d.NewID(), Name: "A", Net: synthetic.Net(d, "GND"), Layers: []design.LayerID{d.Board.Copper()[0].ID}, Islands: design.IslandsStay}
	d.Put(o)
	k := pour.Key{Pour: o.ID, Layer: o.Layers[0]}
	x, r := layout.NewIndex(d), rules.Of(d)
	var first float64
	for i := range 3 {
		f := pour.New(d, x, r)
		list, err := pour.Do(context.Background(), f.Tasks(f.Due()), nil)
		require.NoError(t, err)
		rand.New(rand.NewPCG(uint64(i), 7)).Shuffle(len(list), func(a, b int) { list[a], list[b] = list[b], list[a] })
		for _, one := range list { // one by one, as edits bring them
			f.Take([]pour.Outcome{one})
		}
		require.Len(t, f.Islands(k), 1)
		if size := f.Islands(k)[0].Size; i == 0 {
			first = size
			assert.Positive(t, size)
		} else {
			assert.Equal(t, first, size, "to the last bit")
		}
	}
}

// plain is a board with a curved edge, wide enough that sums of its tiles' sizes do not fit a float's digits.
func plain(t *testing.T) *design.Doc {
	d := design.New("plain")
	b := *d.Board
	b.Outline = []geom.Corner{{Point: geom.Pt(0, 0)}, {Point: geom.Pt(110_000_001, 0), Mid: &geom.Point{X: 118_000_007, Y: 45_000_003}}, {Point: geom.Pt(110_000_001, 90_000_007)}, {Point: geom.Pt(0, 90_000_007)}}
	d.Put(&b)
	require.NoError(t, b.Valid())
	return d
}
