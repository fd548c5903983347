package pour_test

import (
	"context"
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
