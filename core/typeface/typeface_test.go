package typeface_test

import (
	"encoding/binary"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"golang.org/x/image/font/gofont/goregular"

	"goldentrace/core/typeface"
)

// tables of a font: its head says the units of an em, its OS/2 table the height of capitals (OpenType 1.9, "head", "OS/2").
func table(data []byte, tag string) []byte {
	for i := range int(binary.BigEndian.Uint16(data[4:])) {
		if e := data[12+16*i:]; string(e[:4]) == tag {
			return data[binary.BigEndian.Uint32(e[8:]):]
		}
	}
	return nil
}

// Go Regular, a font that is not ours, is as high as its own tables say.
func TestRead(t *testing.T) {
	f, err := typeface.Read("Go Regular.ttf", goregular.TTF)
	require.NoError(t, err)
	em := float64(binary.BigEndian.Uint16(table(goregular.TTF, "head")[18:]))
	assert.InDelta(t, float64(binary.BigEndian.Uint16(table(goregular.TTF, "OS/2")[88:]))/em, f.Capital(), 0.001)
	l, ok := f.Letter('O')
	require.True(t, ok)
	require.Len(t, l.Contours, 2, "an outer and an inner line")
	assert.Positive(t, l.Advance)
	area := func(c [][2]float64) (s float64) {
		for i, p := range c {
			q := c[(i+1)%len(c)]
			s += (p[0]*q[1] - q[0]*p[1]) / 2
		}
		return s
	}
	assert.Negative(t, area(l.Contours[0])*area(l.Contours[1]), "they go opposite ways about")
	_, ok = f.Letter('漢')
	assert.False(t, ok)
	assert.Zero(t, f.Advance('漢'))
}

// What is no font is refused with a sentence, however it is broken.
func TestReadBroken(t *testing.T) {
	for n := 0; n < len(goregular.TTF); n += len(goregular.TTF)/60 + 1 {
		_, err := typeface.Read("x.ttf", goregular.TTF[:n])
		assert.Error(t, err, "%d bytes of it", n)
	}
	for i := 12; i < len(goregular.TTF); i += len(goregular.TTF)/400 + 1 { // whatever comes of it, nothing falls over
		data := append([]byte{}, goregular.TTF...)
		data[i] ^= 0xff
		if f, err := typeface.Read("x.ttf", data); err == nil {
			for _, r := range "Ag8€" {
				f.Letter(r)
			}
		}
	}
}

// Chords of a curve stray from it by less than the tolerance, and there are no more of them than twice what a circle would need.
func TestCubic(t *testing.T) {
	const k = 0.5522847498 // a quarter circle, to within 0.03 %
	line := typeface.Cubic([][2]float64{{1, 0}}, [2]float64{1, 0}, [2]float64{1, k}, [2]float64{k, 1}, [2]float64{0, 1}, 0.001)
	assert.Equal(t, [2]float64{0, 1}, line[len(line)-1])
	for i := 0; i+1 < len(line); i++ {
		x, y := (line[i][0]+line[i+1][0])/2, (line[i][1]+line[i+1][1])/2
		assert.InDelta(t, 1, math.Hypot(x, y), 0.0013)
	}
	assert.LessOrEqual(t, len(line), 40)
	straight := typeface.Cubic(nil, [2]float64{0, 0}, [2]float64{1, 0}, [2]float64{2, 0}, [2]float64{3, 0}, 0.001)
	assert.Len(t, straight, 1)
}
