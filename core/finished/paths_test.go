package finished_test

import (
	"fmt"
	"image/color"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/finished"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
	"goldentrace/core/rules"
)

// Shapes as paths of SVG (SVG 1.1, 8.3), written by hand: micrometres, what is filled winding anticlockwise.
func TestShapesAsPaths(t *testing.T) {
	straight := geom.Shape{Pts: []geom.Point{geom.Pt(1*mm, 2*mm), geom.Pt(3*mm, 2*mm+500)}, R: 100 * um}
	bent := geom.Shape{Pts: []geom.Point{geom.Pt(0, 0), geom.Pt(1*mm, 0), geom.Pt(1*mm, 1*mm)}, R: 250 * um}
	clockwise := geom.Shape{Pts: []geom.Point{geom.Pt(0, 0), geom.Pt(0, 2*mm), geom.Pt(1*mm, 0)}, Area: true}
	round := geom.Shape{Pts: []geom.Point{geom.Pt(0, 0), geom.Pt(2*mm, 0), geom.Pt(2*mm, 1*mm)}, Area: true, R: 50 * um}
	far := geom.Disc(geom.Pt(-9*mm, 0), 300*um)
	v := finished.View{Bottom: true, Box: geom.BoxOf(geom.Pt(0, 0), geom.Pt(5*mm, 5*mm)), Coats: []finished.Coat{
		{Name: "copper", Colour: color.NRGBA{1, 2, 255, 51}, Shapes: []geom.Shape{straight, bent, clockwise, round, geom.Disc(geom.Pt(1*mm, 1*mm), 500*um), far},
			Without: []geom.Shape{geom.Disc(geom.Pt(1*mm, 1*mm), 200*um)}},
		{Name: "nothing"},
		{Name: "area", Colour: color.NRGBA{0, 0, 0, 255}, Areas: []overlay.Area{{Outer: []geom.Point{geom.Pt(0, 0), geom.Pt(1*mm, 0), geom.Pt(0, 1*mm)}}},
			Within: []geom.Shape{straight}},
	}}
	p, err := v.Paths(t.Context())
	require.NoError(t, err)
	assert.True(t, p.Bottom)
	assert.Equal(t, v.Box, p.Box)
	require.Len(t, p.Coats, 2, "what has nothing is left out")
	c := p.Coats[0]
	assert.Equal(t, "#0102ff", c.Colour)
	assert.InDelta(t, 0.2, c.Opacity, 1e-9)
	assert.True(t, c.All)
	assert.Empty(t, c.Areas)
	require.Len(t, c.Cells, 2, "what is far away stands by itself")
	assert.Equal(t, "M-9300 0a300 300 0 1 1 600 0a300 300 0 1 1 -600 0Z", c.Cells[0].Fill)
	assert.Equal(t, geom.BoxOf(geom.Pt(-9*mm-300*um, -300*um), geom.Pt(-9*mm+300*um, 300*um)), c.Cells[0].Box)
	near := c.Cells[1]
	assert.Equal(t, "M1000 0L0 2000L0 0ZM0 0L2000 0L2000 1000ZM500 1000a500 500 0 1 1 1000 0a500 500 0 1 1 -1000 0Z", near.Fill)
	assert.Equal(t, []finished.PaintedLine{{Width: 100, Path: "M0 0L2000 0L2000 1000Z"}, {Width: 200, Path: "M1000 2000L3000 2000.5"},
		{Width: 500, Path: "M0 0L1000 0L1000 1000"}}, near.Lines)
	assert.Equal(t, geom.BoxOf(geom.Pt(-250*um, -250*um), geom.Pt(3*mm+100*um, 2*mm+100*um+500)), near.Box)
	assert.Equal(t, "M800 1000a200 200 0 1 1 400 0a200 200 0 1 1 -400 0Z", c.Without[0].Fill)
	assert.Equal(t, "M0 0L1000 0L0 1000Z", p.Coats[1].Areas)
	assert.False(t, p.Coats[1].All)
	assert.Equal(t, "M1000 2000L3000 2000.5", p.Coats[1].Within[0].Lines[0].Path)
}

// The copper of a board of one layer is on that face alone.
func TestBoardsOfOneLayer(t *testing.T) {
	for _, below := range []bool{false, true} {
		d := design.New("One")
		b := *d.Board
		b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(12*mm, 0), geom.Pt(12*mm, 9*mm), geom.Pt(0, 9*mm))
		b.Stack = []design.StackLayer{{ID: 1, Kind: "copper", Name: "Copper", Thickness: 35 * um}, {ID: 2, Kind: "core", Thickness: 1500 * um}}
		if below {
			b.Stack[0], b.Stack[1] = b.Stack[1], b.Stack[0]
		}
		b.Next = 3
		d.Put(&b)
		require.Equal(t, below, d.Board.OnlyBelow())
		d.Put(&design.Track{ID: 50, Layer: d.Board.Top(), A: geom.Pt(3*mm, 3*mm), B: geom.Pt(9*mm, 3*mm), Width: 1 * mm})
		for _, bottom := range []bool{false, true} {
			v, err := finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}.View(t.Context(), bottom, false)
			require.NoError(t, err)
			img, err := v.Image(t.Context(), 120)
			require.NoError(t, err)
			track, board := img.NRGBAAt(60, 60), img.NRGBAAt(60, 20)
			assert.Equal(t, bottom == below, track != board, "below %v, seen from below %v", below, bottom)
		}
	}
}

// A bow is drawn in chords from where it begins to where it ends, near its circle all along.
func TestBowsAsPaths(t *testing.T) {
	bow := geom.Bow(geom.Piece{A: geom.Pt(0, 0), M: geom.Pt(2*mm, 2*mm), B: geom.Pt(4*mm, 0)}, 200*um) // half a circle about (2, 0)
	v := finished.View{Coats: []finished.Coat{{Name: "copper", Shapes: []geom.Shape{bow}}}}
	painted, err := v.Paths(t.Context())
	require.NoError(t, err)
	line := painted.Coats[0].Cells[0].Lines[0]
	assert.InDelta(t, 200, line.Width, 1e-9)
	var at [][2]float64
	for _, place := range strings.FieldsFunc(line.Path, func(r rune) bool { return r == 'M' || r == 'L' }) {
		var x, y float64
		_, err := fmt.Sscan(place, &x, &y)
		require.NoError(t, err)
		at = append(at, [2]float64{x, y})
		assert.InDelta(t, 2000, math.Hypot(x-2000, y), 0.01)
	}
	require.Greater(t, len(at), 8)
	assert.Equal(t, [2]float64{0, 0}, at[0])
	assert.Equal(t, [2]float64{4000, 0}, at[len(at)-1])
}
