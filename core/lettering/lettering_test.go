package lettering_test

import (
	"strings"
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
			assert.True(t, y >= '0' && y <= '8' || y == 'a' || y == 'b', "%c: y of %q", r, code)
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

// All of ASCII and of Latin-1 that is printed is there, and the letters of units; what is not is told.
func TestWhatTheAlphabetHas(t *testing.T) {
	for r := rune(' '); r <= 0xff; r++ {
		if r < 0x7f || r >= 0xa0 {
			assert.Empty(t, lettering.Lacking(string(r)), "%c", r)
		}
	}
	assert.Empty(t, lettering.Lacking("10 µF 4.7 kΩ 0.5 Å Δθ = λ/4, 20 °C"))
	assert.Equal(t, []rune("ЖЯ"), lettering.Lacking("Ж R1 ЯЖ"))
	seen := map[string]rune{}
	for r, code := range lettering.Letters { // letters that people tell apart look apart
		if other, twin := seen[code]; twin && !strings.ContainsRune("-–−\u00ad'‘’\"“”µμΩ\u2126\u00c5\u212b", r) {
			t.Errorf("%c looks like %c", r, other)
		}
		seen[code] = r
	}
}

// Accents stand clear above their letters: a capital's above its height, a small letter's above its own.
func TestAccentsStandAbove(t *testing.T) {
	height := func(text string) (top int64) {
		for _, l := range lettering.Strokes(text, 600) {
			for _, p := range l {
				top = max(top, p.Y)
			}
		}
		return top
	}
	for _, pair := range []string{"AÄ", "OÖ", "UÜ", "EÉ", "NÑ", "AÅ", "IÎ"} {
		r := []rune(pair)
		assert.EqualValues(t, 300, height(string(r[0])))
		assert.EqualValues(t, 500, height(string(r[1])), pair)
		assert.Equal(t, lettering.Width(string(r[0]), 600), lettering.Width(string(r[1]), 600))
	}
	for _, pair := range []string{"aä", "oö", "uü", "eé", "nñ", "aå", "cç"} {
		r := []rune(pair)
		assert.EqualValues(t, 100, height(string(r[0])))
		if r[1] != 'ç' {
			assert.EqualValues(t, 300, height(string(r[1])), pair)
		}
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
