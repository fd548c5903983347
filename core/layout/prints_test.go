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

// gapTo is how far a place is from all shapes of a print.
func gapTo(p layout.Print, at geom.Point) float64 {
	least := math.Inf(1)
	for _, s := range p.Shapes() {
		g, _, _ := geom.Gap(s, geom.Disc(at, 0))
		least = min(least, g)
	}
	return least
}

// A line that goes straight, then in an arc of 2 mm, then straight: what a pen of 1 mm covers reaches half a millimetre beside each of its pieces.
func TestLinesWithArcs(t *testing.T) {
	k := math.Sqrt2
	mid := at(10+k, 2-k)
	f := &design.BoardFigure{ID: 9, Width: 1_000_000, Lines: [][]geom.Corner{{{Point: at(0, 0)}, {Point: at(10, 0), Mid: &mid}, {Point: at(12, 2)}, {Point: at(12, 9)}}}}
	p := layout.PrintOf(nil, f, 0)
	for _, c := range []struct {
		x, y, far float64
	}{{5, 1, 0.5}, {5, 0.4, -0.1}, {-1, 0, 0.5}, {10, 2, 1.5}, {10 + 2*k/2*1.5, 2 - 2*k/2*1.5, 0.5}, {13, 5, 0.5}, {12, 10, 0.5}, {10, 5, 1.5}} {
		assert.InDelta(t, c.far, gapTo(p, at(c.x, c.y))/1e6, 0.001, "%g, %g", c.x, c.y)
	}
	f.Closed = true
	assert.InDelta(t, -0.5, gapTo(layout.PrintOf(nil, f, 0), at(6, 4.5))/1e6, 0.001, "on the way back")
	dot := &design.BoardFigure{ID: 9, Width: 600_000, Lines: [][]geom.Corner{{{Point: at(3, 3)}}}}
	assert.InDelta(t, 0.7, gapTo(layout.PrintOf(nil, dot, 0), at(3, 4))/1e6, 1e-6)
}

// Crossing and nested lines fill by even and odd; one line alone keeps its arcs; width goes around what is filled.
func TestFilledFigures(t *testing.T) {
	square := func(a, b float64) []geom.Corner { return geom.Corners(at(a, a), at(b, a), at(b, b), at(a, b)) }
	p := layout.PrintOf(nil, &design.BoardFigure{Filled: true, Closed: true, Lines: [][]geom.Corner{square(0, 10), square(2, 8), square(4, 6)}}, 0)
	for v, in := range map[float64]bool{1: true, 3: false, 5: true, 7: false, 9: true, 11: false} {
		assert.Equal(t, in, gapTo(p, at(v, v)) <= 0, "%g", v)
	}
	disc := layout.PrintOf(nil, &design.BoardFigure{Filled: true, Closed: true, Width: 400_000, Lines: [][]geom.Corner{geom.CircleLine(at(0, 0), 3_000_000)}}, 0)
	require.Len(t, disc.Areas, 1)
	assert.Len(t, disc.Areas[0].Pts, 2, "two arcs")
	assert.InDelta(t, 0.3, gapTo(disc, at(2.1, -2.8))/1e6, 0.001, "3.5 − 3 − 0.2")
	bow := layout.PrintOf(nil, &design.BoardFigure{Filled: true, Closed: true, Lines: [][]geom.Corner{geom.Corners(at(0, 0), at(4, 4), at(4, 0), at(0, 4))}}, 0)
	assert.LessOrEqual(t, gapTo(bow, at(0.5, 2)), 0.0)
	assert.Greater(t, gapTo(bow, at(2, 0.5)), 0.0, "between its halves")
}

// The lines of a text are as wide as it says, else an eighth of its height; on silk at least what the rules ask for.
func TestWidthsOfTexts(t *testing.T) {
	width := func(l design.Legend, silk int64) int64 {
		l.ID, l.Text = 9, "I"
		return layout.PrintOf(synthetic.FourLayers(), &l, silk).Lines[0].Width
	}
	assert.EqualValues(t, 250_000, width(design.Legend{Height: 2_000_000}, 100_000))
	assert.EqualValues(t, 300_000, width(design.Legend{Height: 2_000_000}, 300_000))
	assert.EqualValues(t, 250_000, width(design.Legend{Height: 2_000_000, On: design.OnCopper}, 300_000))
	assert.EqualValues(t, 120_000, width(design.Legend{Height: 2_000_000, Stroke: 120_000}, 100_000))
	l := &design.Legend{ID: 9, Text: "II", Height: 3_000_000, At: at(10, 10), Font: design.Bold}
	box, ok := layout.RoomOf(&design.Doc{}, 9)
	assert.False(t, ok, "%v", box)
	d := synthetic.FourLayers()
	d.Put(l)
	box, ok = layout.RoomOf(d, 9)
	require.True(t, ok)
	assert.Equal(t, int64(3_000_000), box.Max.Y-box.Min.Y, "as high as its capitals")
	assert.InDelta(t, 10, float64(box.Centre().Y)/1e6, 1e-6)
}

// Index finds parts by their courtyards, where they are now.
func TestPartsByPlace(t *testing.T) {
	d := synthetic.FourLayers()
	x := layout.NewIndex(d)
	there := func(px, py float64) (ids []design.ID) {
		for id := range x.Parts(geom.BoxOf(at(px, py))) {
			ids = append(ids, id)
		}
		return ids
	}
	assert.Equal(t, []design.ID{synthetic.FourR1}, there(12.9, 10))
	assert.Empty(t, there(13.1, 10))
	p := *d.Placed[synthetic.FourR1]
	p.At = at(30, 15)
	d.Put(&p)
	x.Put(d, &p)
	assert.Empty(t, there(12.9, 10))
	assert.Equal(t, []design.ID{synthetic.FourR1}, there(30, 16.9))
	x.Remove(p.ID)
	assert.Empty(t, there(30, 16.9))
}
