package pour_test

import (
	"context"
	"errors"
	"math"
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

func mm(x, y float64) geom.Point { return geom.Pt(int64(math.Round(x*1e6)), int64(math.Round(y*1e6))) }

// plate is a board of the size in millimetres with two nets and an area of the first on its upper side.
func plate(w, h float64) (d *design.Doc, gnd, sig design.ID) {
	d = design.New("Plate")
	d.Next = 100
	b := *d.Board
	b.Outline = geom.Corners(mm(0, 0), mm(w, 0), mm(w, h), mm(0, h))
	d.Put(&b)
	gnd, sig = synthetic.Net(d, "GND"), synthetic.Net(d, "SIG")
	d.Put(&design.Pour{ID: d.NewID(), Name: "GND", Net: gnd, Layers: []design.LayerID{d.Board.Top()}})
	return d, gnd, sig
}

func filled(t *testing.T, d *design.Doc) *pour.Fills {
	t.Helper()
	require.NoError(t, d.Whole())
	f, err := pour.Of(context.Background(), d, layout.NewIndex(d), rules.Of(d), nil)
	require.NoError(t, err)
	return f
}

func size(f *pour.Fills, k pour.Key) (sum float64) {
	for _, i := range f.Islands(k) {
		if i.Stays {
			sum += i.Size / 1e12
		}
	}
	return sum
}

func TestEmptyPlate(t *testing.T) {
	d, gnd, _ := plate(20, 12)
	top := d.Board.Top()
	var p *design.Pour
	for p = range d.Pours.All() {
	}
	k := pour.Key{Pour: p.ID, Layer: top}
	f := filled(t, d)
	assert.Zero(t, size(f, k), "nothing of the net reaches it")
	require.Len(t, f.Islands(k), 1)
	d.Put(&design.Track{ID: d.NewID(), Layer: top, A: mm(5, 5), B: mm(9, 5), Width: 300_000, Net: gnd})
	f = filled(t, d)
	// edge clearance 0.3 mm all around, corners rounded by half the least width, 0.075 mm
	want := 19.4*11.4 - (4-math.Pi)*0.075*0.075
	assert.InEpsilon(t, want, size(f, k), 1e-5)
}

// A tile that the library fails on is empty and said, until it is filled.
func TestWhatCannotBeFilledIsSaid(t *testing.T) {
	d, p, pin := pinned()
	k := pour.Key{Pour: p.ID, Layer: p.Layers[0]}
	f := filled(t, d)
	_, why := f.Failed(k)
	require.NoError(t, why)
	tile := pour.Tile{X: 1, Y: 1}
	at := pin.At.Add(geom.Pt(-1_000_000, 3_000_000))
	require.NotNil(t, f.At(k, at))
	f.Take([]pour.Outcome{{Key: k, Tile: tile, Err: errors.New("no luck")}})
	place, why := f.Failed(k)
	require.EqualError(t, why, "no luck")
	assert.Equal(t, mm(7.5, 7.5), place)
	assert.Nil(t, f.At(k, at))
	f.Wait(map[pour.Key]map[pour.Tile]bool{k: {tile: true}})
	assert.Equal(t, 1, f.Waiting())
	_, err := f.Fill(context.Background(), nil)
	require.NoError(t, err)
	_, why = f.Failed(k)
	require.NoError(t, why)
	assert.NotNil(t, f.At(k, at))
	assert.Zero(t, f.Waiting())
}

// What changes somewhere makes the tiles around it stale, on its layers alone; an area that goes is emptied; one of another net that comes is given way to.
func TestWhatBecomesStale(t *testing.T) {
	d, p, _ := pinned()
	k := pour.Key{Pour: p.ID, Layer: p.Layers[0]}
	f := filled(t, d)
	f.Near(geom.BoxOf(mm(2, 2)), 2)
	assert.Zero(t, f.Waiting(), "on the lower layer there is no area")
	f.Near(geom.BoxOf(mm(2, 2)), 1)
	assert.Equal(t, map[pour.Key]map[pour.Tile]bool{k: {{X: 0, Y: 0}: true}}, f.Due())
	f.Near(geom.BoxOf(mm(4.9, 4.9)), 1)
	assert.Len(t, f.Due()[k], 4, "at a corner of four tiles")
	f.Near(geom.BoxOf(mm(200, 200)), 1)
	assert.Zero(t, f.Waiting(), "far from the board")

	other := &design.Pour{ID: d.NewID(), Name: "SIG", Net: d.NetNamed("SIG").ID, Layers: p.Layers, Priority: 1, Islands: design.IslandsStay,
		Outline: geom.Corners(mm(1, 1), mm(6, 1), mm(6, 6))}
	d.Put(other)
	f.Pour(nil, other)
	_, err := f.Fill(context.Background(), nil)
	require.NoError(t, err)
	assert.Nil(t, f.At(k, mm(5, 3)))
	assert.NotNil(t, f.At(pour.Key{Pour: other.ID, Layer: p.Layers[0]}, mm(5, 3)))
	d.Remove(design.KindPour, other.ID)
	f.Pour(other, nil)
	changed, err := f.Fill(context.Background(), nil)
	require.NoError(t, err)
	assert.NotNil(t, f.At(k, mm(5, 3)))
	assert.Equal(t, []pour.Key{k}, f.Keys(), "what is gone is forgotten")
	assert.Len(t, changed, 2)
}

// A corner in which a disc of the least width just has room is filled: of a right triangle with legs of a the inner circle has the radius a(1 − 1/√2).
func TestWhatIsJustWideEnough(t *testing.T) {
	for _, c := range []struct {
		leg  float64
		some bool
	}{{0.36, true}, {0.345, true}, {0.325, false}, {0.3, false}} {
		d, p, _ := pinned()
		q := *p
		q.Outline, q.LeastWidth, q.Islands = geom.Corners(mm(3, 3), mm(3+c.leg, 3), mm(3, 3+c.leg)), 200_000, design.IslandsStay
		d.Put(&q)
		f := filled(t, d)
		got := size(f, pour.Key{Pour: p.ID, Layer: p.Layers[0]})
		if !c.some {
			assert.Zero(t, got, "%v", c)
			continue
		}
		assert.Greater(t, got, math.Pi*0.099*0.099, "%v", c)
		assert.Less(t, got, c.leg*c.leg/2, "%v", c)
	}
}
