package pour_test

import (
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/pour"
	"goldentrace/core/synthetic"
)

// Between two tracks 0.3 mm wide whose middles are 0.9 mm apart lie 0.6 mm; less 0.2 mm of clearance on both sides an area has 0.2 mm
// there. One whose copper is 0.3 mm wide at least leaves that free; 0.2 mm is the greatest width that fills it.
func TestTheWidthThatFillsAGap(t *testing.T) {
	d, p, _ := pinned()
	sig := synthetic.Net(d, "SIG")
	for i, y := range []float64{3, 3.9} {
		d.Put(&design.Track{ID: design.ID(800 + i), Layer: d.Board.Top(), A: mm(4, y), B: mm(16, y), Width: 300_000, Net: sig})
	}
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 200_000})
	q := *p
	q.LeastWidth = 300_000
	d.Put(&q)
	k := pour.Key{Pour: p.ID, Layer: d.Board.Top()}
	f := filled(t, d)
	going := func(float64) error { return nil }
	between := []geom.Point{mm(6, 3.45), mm(9, 3.45), mm(12, 3.45)}
	on := []geom.Point{mm(6, 3), mm(9, 3.2)} // on a track, and within its clearance
	all := append(append([]geom.Point{mm(9, 8), mm(9, -3)}, between...), on...)
	assert.Equal(t, append(append([]geom.Point{}, between...), on...), f.Unfilled(k, all), "the area's own copper and what lies beyond the board are none")
	width, n, err := f.WidthFor(k, f.Unfilled(k, all), going)
	require.NoError(t, err)
	assert.EqualValues(t, 200_000, width)
	assert.Equal(t, 3, n, "what foreign copper keeps free no width fills")
	width, n, err = f.WidthFor(k, on, going)
	require.NoError(t, err)
	assert.Zero(t, width)
	assert.Zero(t, n)
	stopped := errors.New("stopped")
	_, _, err = f.WidthFor(k, between, func(float64) error { return stopped })
	assert.ErrorIs(t, err, stopped)
	q.LeastWidth = width
	d.Put(&q)
	q.LeastWidth = 200_000
	d.Put(&q)
	assert.Equal(t, on, filled(t, d).Unfilled(k, all), "and so it is")
	assert.EqualValues(t, 200_000, d.Pours[p.ID].LeastWidth, "asking has changed nothing")
}
