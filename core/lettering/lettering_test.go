package lettering_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/lettering"
)

func TestLettersStayOnTheirGrid(t *testing.T) {
	for r, code := range lettering.Letters {
		for i := 0; i < len(code); i++ {
			if code[i] == ' ' {
				continue
			}
			x, y := code[i], code[i+1]
			assert.True(t, x >= '0' && x <= '4', "%c: x of %q", r, code)
			assert.True(t, y >= '0' && y <= '6' || y == 'a' || y == 'b', "%c: y of %q", r, code)
			i++
		}
	}
	for r := 'A'; r <= 'Z'; r++ {
		assert.Contains(t, lettering.Letters, r)
		assert.Contains(t, lettering.Letters, r+32)
	}
	for r := '0'; r <= '9'; r++ {
		assert.Contains(t, lettering.Letters, r)
	}
}

func TestSizeAndMiddle(t *testing.T) {
	lines := lettering.Strokes("HH", 1_200_000)
	lo, hi := lines[0][0], lines[0][0]
	for _, l := range lines {
		for _, p := range l {
			lo.X, lo.Y, hi.X, hi.Y = min(lo.X, p.X), min(lo.Y, p.Y), max(hi.X, p.X), max(hi.Y, p.Y)
		}
	}
	assert.EqualValues(t, 1_200_000, hi.Y-lo.Y, "capitals have the height asked for")
	assert.Equal(t, -lo.X, hi.X, "the middle at the origin")
	assert.EqualValues(t, 2_000_000, lettering.Width("HH", 1_200_000), "four units, a gap of two, four units")
	assert.Equal(t, hi.X-lo.X, lettering.Width("HH", 1_200_000))
	assert.Empty(t, lettering.Strokes("", 1_000_000))
	assert.NotEmpty(t, lettering.Strokes("中", 1_000_000), "a letter it lacks is a frame, not nothing")
}
