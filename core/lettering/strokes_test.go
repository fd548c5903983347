package lettering_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/geom"
	"goldentrace/core/lettering"
)

// One grid unit is a sixth of a capital's height: here 100 nm.
func TestStrokesOfLettersByHand(t *testing.T) {
	p := func(x, y int64) geom.Point { return geom.Pt(x, y) }
	// L: from the upper left down and to the right, four units wide; its middle is the origin.
	assert.Equal(t, [][]geom.Point{{p(-200, 300), p(-200, -300), p(200, -300)}}, lettering.Strokes("L", 600))
	// T has two strokes; L stands two units to its left, a blank of three units and its own gap
	// go between: 4 + 2 + 3 + 2 + 4 = 15 units.
	assert.Equal(t, [][]geom.Point{
		{p(-750, 300), p(-750, -300), p(-350, -300)},
		{p(550, -300), p(550, 300)}, {p(350, 300), p(750, 300)},
	}, lettering.Strokes("L T", 600))
	// A p hangs two units below the line on which the others stand.
	assert.Equal(t, []geom.Point{p(-200, 100), p(-200, -500)}, lettering.Strokes("p", 600)[0])
	assert.Equal(t, []geom.Point{p(150, 100), p(150, -400), p(50, -500), p(-50, -500)}, lettering.Strokes("j", 600)[0])
	// What the alphabet lacks shows as a frame.
	assert.Equal(t, [][]geom.Point{{p(-200, -300), p(-200, 300), p(200, 300), p(200, -300), p(-200, -300)}}, lettering.Strokes("Ж", 600))
	assert.Empty(t, lettering.Strokes("", 600))
}

func TestWidthsByHand(t *testing.T) {
	for text, width := range map[string]int64{"": 0, "L": 400, " ": 300, "LL": 1000, "L T": 1500, ".": 200, "Ж": 400} {
		assert.Equal(t, width, lettering.Width(text, 600), "%q", text)
	}
}
