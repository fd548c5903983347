package parts_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

// A pad of 4 × 2 mm in 2 × 1 windows over 64 %: each 1.6 × 1.6 mm, 0.4 mm apart, 0.2 mm from the edges.
func TestWindowsByHand(t *testing.T) {
	p := &design.Pad{Number: "9", Form: design.Rect, Size: geom.Pt(units.MMf(4), units.MMf(2))}
	list, err := parts.Windows(p, 2, 1, 64)
	require.NoError(t, err)
	at := func(x, y float64) geom.Point { return geom.Pt(units.MMf(x), units.MMf(y)) }
	assert.Equal(t, [][]geom.Corner{geom.Corners(at(-1.8, -0.8), at(-0.2, -0.8), at(-0.2, 0.8), at(-1.8, 0.8)), geom.Corners(at(0.2, -0.8), at(1.8, -0.8), at(1.8, 0.8), at(0.2, 0.8))}, list)
	for say, f := range map[string]func() ([][]geom.Corner, error){
		"0 by 2 windows":    func() ([][]geom.Corner, error) { return parts.Windows(p, 0, 2, 60) },
		"31 by 31":          func() ([][]geom.Corner, error) { return parts.Windows(p, 31, 31, 60) },
		"not 5 %":           func() ([][]geom.Corner, error) { return parts.Windows(p, 2, 2, 5) },
		"not 99 %":          func() ([][]geom.Corner, error) { return parts.Windows(p, 2, 2, 99) },
		"smaller than 0.05": func() ([][]geom.Corner, error) { return parts.Windows(p, 1, 60, 60) },
		"pad 9 is round": func() ([][]geom.Corner, error) {
			return parts.Windows(&design.Pad{Number: "9", Form: design.Round, Size: p.Size}, 2, 2, 60)
		},
		"pad 9 is of a free ": func() ([][]geom.Corner, error) {
			return parts.Windows(&design.Pad{Number: "9", Form: design.Free, Size: p.Size}, 2, 2, 60)
		},
	} {
		_, err := f()
		assert.ErrorContains(t, err, say)
	}
}

// Windows lie on the pad, apart from each other, and cover what was asked for.
func TestWindowsCoverWhatIsAsked(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := &design.Pad{Form: design.Rounded, Size: geom.Pt(int64(rapid.IntRange(1000, 9000).Draw(t, "w"))*1000, int64(rapid.IntRange(1000, 9000).Draw(t, "h"))*1000)}
		cols, rows, percent := rapid.IntRange(1, 5).Draw(t, "columns"), rapid.IntRange(1, 5).Draw(t, "rows"), rapid.IntRange(20, 90).Draw(t, "percent")
		list, err := parts.Windows(p, cols, rows, percent)
		require.NoError(t, err)
		require.Len(t, list, cols*rows)
		area := 0.0
		for i, w := range list {
			b := geom.BoxOf(w[0].Point, w[2].Point)
			area += float64(b.Max.X-b.Min.X) * float64(b.Max.Y-b.Min.Y)
			require.True(t, b.Min.X > -p.Size.X/2 && b.Max.X < p.Size.X/2 && b.Min.Y > -p.Size.Y/2 && b.Max.Y < p.Size.Y/2)
			for _, v := range list[:i] {
				require.False(t, b.Meets(geom.BoxOf(v[0].Point, v[2].Point)))
			}
		}
		require.InDelta(t, float64(percent)/100, area/(float64(p.Size.X)*float64(p.Size.Y)), 0.012)
	})
}
