package layout_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

func at(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }

// laid is the board of four layers with tracks of net A: a run of 10 mm, a quarter circle of radius 2 mm, through the via at
// (20, 20) to the lower side and 5 mm on; and a shorter way beside it that is broken.
func laid() *design.Doc {
	d := synthetic.FourLayers()
	put := func(id design.ID, layer int, a, b geom.Point, mid *geom.Point) {
		d.Put(&design.Track{ID: id, Layer: d.Board.At(layer), A: a, B: b, Mid: mid, Width: 300_000, Net: synthetic.FourA})
	}
	k := math.Sqrt2
	put(200, 0, at(8, 18), at(18, 18), nil)
	put(201, 0, at(18, 18), at(20, 20), &[]geom.Point{at(18+k, 20-k)}[0])
	put(202, 3, at(20, 20), at(20, 25), nil)
	put(203, 0, at(14, 18.1), at(14, 22), nil) // ends within the width of the first: a fork
	return d
}

func TestAlongTracks(t *testing.T) {
	d := laid()
	x := layout.NewIndex(d)
	quarter := math.Pi
	for _, c := range []struct {
		from, to geom.Point
		mm       float64
		vias     int
	}{
		{at(8, 18), at(18, 18), 10, 0},
		{at(10, 18), at(15, 18), 5, 0}, // within one track
		{at(8, 18), at(20, 20), 10 + quarter, 0},
		{at(8, 18), at(20, 25), 10 + quarter + 5, 1},
		{at(8, 18), at(14, 22), 6 + 0.1 + 3.9, 0},
		{at(14, 22), at(20, 23), 3.9 + 0.1 + 4 + quarter + 3, 1},
	} {
		w, ok := layout.Along(d, x, synthetic.FourA, c.from, c.to)
		require.True(t, ok)
		assert.InDelta(t, c.mm, float64(w.Length)/1e6, 0.0001, "%v to %v", c.from, c.to)
		assert.Equal(t, c.vias, w.Vias)
		assert.Equal(t, c.from, w.Line[0].Point)
		assert.Equal(t, c.to, w.Line[len(w.Line)-1].Point)
		total := 0.0
		for i := 0; i+1 < len(w.Line); i++ {
			total += geom.Closing(w.Line[i : i+2])[0].Length()
		}
		assert.InDelta(t, c.mm, total/1e6, 0.0001, "its line is as long")
	}
	_, ok := layout.Along(d, x, synthetic.FourA, at(8, 18), at(5, 1)) // another track of the net, not joined
	assert.False(t, ok)
	_, ok = layout.Along(d, x, synthetic.FourA+900, at(0, 0), at(1, 1))
	assert.False(t, ok)
}

// What joins pads of the parts alone goes along; as soon as it reaches another part it stays.
func TestBetween(t *testing.T) {
	d := synthetic.FourLayers()
	put := func(id design.ID, layer int, a, b geom.Point) {
		d.Put(&design.Track{ID: id, Layer: d.Board.At(layer), A: a, B: b, Width: 300_000, Net: synthetic.FourA})
	}
	put(200, 0, at(8, 10), at(8, 15)) // from R1.1
	put(201, 0, at(8, 15), at(20, 20))
	between := func(ids ...design.ID) []design.ID { return layout.Between(d, layout.NewIndex(d), ids) }
	assert.Equal(t, []design.ID{120, 200, 201}, between(synthetic.FourR1), "a stub with its via")
	put(202, 1, at(20, 20), at(10, 20)) // through the via to U1.1
	assert.Empty(t, between(synthetic.FourR1))
	assert.Empty(t, between(synthetic.FourU1))
	assert.Equal(t, []design.ID{120, 200, 201, 202}, between(synthetic.FourR1, synthetic.FourU1))
	assert.Empty(t, between(999))
}

// A dimension's line lies off the first place: to the left looking to the second, up, or to the right.
func TestDimensionLines(t *testing.T) {
	d := synthetic.FourLayers()
	free := func(x, y float64) design.Anchor { return design.Anchor{At: at(x, y)} }
	for _, c := range []struct {
		way  string
		a, b geom.Point
		mm   float64
	}{
		{design.Straight, at(1-1.6, 2+1.2), at(4-1.6, 6+1.2), 5}, // the way is (3, 4), left of it (−4, 3)
		{design.AlongX, at(1, 4), at(4, 4), 3},
		{design.AlongY, at(3, 2), at(3, 6), 4},
	} {
		got := layout.DimensionOf(d, &design.BoardDimension{From: free(1, 2), To: free(4, 6), Way: c.way, Off: 2_000_000})
		assert.Equal(t, []geom.Point{c.a, c.b}, []geom.Point{got.A, got.B}, c.way)
		assert.Equal(t, int64(c.mm*1e6), got.Length)
	}
	same := layout.DimensionOf(d, &design.BoardDimension{From: free(1, 2), To: free(1, 2), Off: 5})
	assert.Zero(t, same.Length)
}

// Places of things: U1 is turned by 90° and lies on the lower side, so that its pad 2 at (5, 0) lies 5 mm below it; its courtyard, −6 to 7 by −2 to 5,
// reaches from x = 8 to 15 and from y = 13 to 26.
func TestPlacesOfThings(t *testing.T) {
	d := laid()
	for name, c := range map[string]struct {
		a    design.Anchor
		want geom.Point
	}{
		"pad":       {design.Anchor{Of: synthetic.FourU1, Pad: "2"}, at(10, 15)},
		"origin":    {design.Anchor{Of: synthetic.FourU1}, at(10, 20)},
		"left":      {design.Anchor{Of: synthetic.FourR1, Spot: design.Left}, at(7, 10)},
		"right":     {design.Anchor{Of: synthetic.FourR1, Spot: design.Right}, at(13, 10)},
		"upper":     {design.Anchor{Of: synthetic.FourR1, Spot: design.Top}, at(10, 12)},
		"lower":     {design.Anchor{Of: synthetic.FourR1, Spot: design.Bottom}, at(10, 8)},
		"via":       {design.Anchor{Of: synthetic.FourThrough}, at(20, 20)},
		"hole":      {design.Anchor{Of: synthetic.FourScrew}, at(37, 3)},
		"text":      {design.Anchor{Of: synthetic.FourTextTop}, at(30, 5)},
		"begin":     {design.Anchor{Of: 200, Spot: design.Begin}, at(8, 18)},
		"end":       {design.Anchor{Of: 200, Spot: design.End}, at(18, 18)},
		"of track":  {design.Anchor{Of: 200}, at(13, 18)},
		"corner":    {design.Anchor{Of: design.BoardID, Corner: 2}, at(40, 30)},
		"no corner": {design.Anchor{Of: design.BoardID, Corner: 9, At: at(1, 1)}, at(1, 1)},
		"no pad":    {design.Anchor{Of: synthetic.FourR1, Pad: "9", At: at(1, 1)}, at(1, 1)},
		"nothing":   {design.Anchor{Of: 999, At: at(1, 1)}, at(1, 1)},
	} {
		got, there := layout.Place(d, c.a)
		assert.Equal(t, c.want, got, name)
		assert.Equal(t, c.a.At == geom.Point{}, there, name)
	}
}
