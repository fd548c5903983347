package route_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
)

// line is a track of net A on top along places, with ids from first on.
func line(first design.ID, pts ...geom.Point) (out []design.Object) {
	for i := 0; i+1 < len(pts); i++ {
		out = append(out, &design.Track{ID: first + design.ID(i), Net: 900, Layer: 1, A: pts[i], B: pts[i+1], Width: 250 * um})
	}
	return out
}

// A piece slides, those beside it keep their directions; where one gets no length the next takes over; at an end a slanted piece comes in.
func TestPullingPieces(t *testing.T) {
	for name, c := range map[string]struct {
		path     []geom.Point
		from, to geom.Point
		corner   bool
		want     []geom.Point
	}{
		"between slanted ones": {
			[]geom.Point{mm(2, 2), mm(4, 4), mm(10, 4), mm(12, 2)}, mm(7, 4), mm(7.3, 5), false,
			[]geom.Point{mm(2, 2), mm(5, 5), mm(9, 5), mm(12, 2)},
		},
		"between upright ones": {
			[]geom.Point{mm(2, 2), mm(2, 4), mm(10, 4), mm(10, 2)}, mm(7, 4), mm(6, 7), false,
			[]geom.Point{mm(2, 2), mm(2, 7), mm(10, 7), mm(10, 2)},
		},
		"a slanted one": {
			[]geom.Point{mm(2, 2), mm(6, 2), mm(10, 6), mm(10, 12)}, mm(8, 4), mm(9, 3), false,
			[]geom.Point{mm(2, 2), mm(8, 2), mm(10, 4), mm(10, 12)},
		},
		"until one has no length": {
			[]geom.Point{mm(2, 2), mm(5, 2), mm(6, 3), mm(10, 3), mm(14, 7)}, mm(8, 3), mm(8, 2), false,
			[]geom.Point{mm(2, 2), mm(9, 2), mm(14, 7)},
		},
		"a first one": {
			[]geom.Point{mm(2, 2), mm(10, 2), mm(10, 8)}, mm(6, 2), mm(6, 4), false,
			[]geom.Point{mm(2, 2), mm(4, 4), mm(10, 4), mm(10, 8)},
		},
		"a last one": {
			[]geom.Point{mm(2, 8), mm(2, 2), mm(10, 2)}, mm(6, 2), mm(6, 1), false,
			[]geom.Point{mm(2, 8), mm(2, 1), mm(9, 1), mm(10, 2)},
		},
		"one alone": {
			[]geom.Point{mm(2, 2), mm(10, 2)}, mm(6, 2), mm(7, 5), false,
			[]geom.Point{mm(2, 2), mm(5, 5), mm(7, 5), mm(10, 2)},
		},
		"a corner": {
			[]geom.Point{mm(2, 2), mm(8, 2), mm(12, 6), mm(12, 12)}, mm(8, 2), mm(9, 3), false,
			[]geom.Point{mm(2, 2), mm(3, 3), mm(9, 3), mm(12, 6), mm(12, 12)},
		},
		"a jog pulled out": {
			[]geom.Point{mm(2, 2), mm(10, 2)}, mm(6, 2), mm(6, 4), true,
			[]geom.Point{mm(2, 2), mm(3, 2), mm(5, 4), mm(7, 4), mm(9, 2), mm(10, 2)},
		},
		"a jog of a slanted one": {
			[]geom.Point{mm(2, 2), mm(10, 10)}, mm(6, 6), mm(5, 7), true,
			[]geom.Point{mm(2, 2), mm(4.5, 4.5), mm(4.5, 6.5), mm(5.5, 7.5), mm(7.5, 7.5), mm(10, 10)},
		},
		"a jog near an end": {
			[]geom.Point{mm(2, 2), mm(10, 2)}, mm(3, 2), mm(3, 1), true,
			[]geom.Point{mm(2, 2), mm(2.25, 2), mm(3.25, 1), mm(4.25, 1), mm(5.25, 2), mm(10, 2)},
		},
		"along itself: it stays": {
			[]geom.Point{mm(2, 2), mm(10, 2), mm(12, 4)}, mm(6, 2), mm(8, 2), false,
			[]geom.Point{mm(2, 2), mm(10, 2), mm(12, 4)},
		},
		"until neighbours line up": {
			[]geom.Point{mm(2, 2), mm(4, 4), mm(8, 4), mm(12, 8)}, mm(6, 4), mm(6, 6), false,
			nil,
		}, // they are parallel: it gets shorter up to nothing
	} {
		f := field(line(100, c.path...)...)
		got, err := f.Pull(route.Pull{Track: 100, From: c.from, To: c.to, Grip: 300 * um, Corner: c.corner})
		require.NoError(t, err, name)
		if c.want != nil {
			assert.Equal(t, c.want, got.To, name)
		}
		assert.Equal(t, []geom.Point{c.path[0], c.path[len(c.path)-1]}, []geom.Point{got.To[0], got.To[len(got.To)-1]}, "%s: the ends stay", name)
	}
}

// A jog turns by 45° at each of its corners, wherever it is pulled out of whatever straight piece, or goes only as far as there is room for it.
func TestJogsAreFlat(t *testing.T) {
	r := rand.New(rand.NewPCG(34, 2))
	for range 300 {
		way := []geom.Point{{X: 1}, {X: 1, Y: 1}, {Y: 1}, {X: -1, Y: 1}}[r.IntN(4)]
		long := 1 + r.Int64N(8_000_000)
		a := mm(10, 10)
		b := a.Add(geom.Pt(way.X*long, way.Y*long))
		f := field(line(100, a, b)...)
		from := a.Towards(b, r.Float64())
		hand := from.Add(geom.Pt(r.Int64N(6_000_000)-3_000_000, r.Int64N(6_000_000)-3_000_000))
		got, err := f.Pull(route.Pull{Track: 100, From: from, To: hand, Corner: true})
		require.NoError(t, err)
		assert.Equal(t, []geom.Point{a, b}, []geom.Point{got.To[0], got.To[len(got.To)-1]})
		require.Contains(t, []int{2, 6}, len(got.To), "%v", got.To)
		for i := 2; i < len(got.To); i++ {
			u, v := got.To[i-1].Sub(got.To[i-2]), got.To[i].Sub(got.To[i-1])
			across, along := float64(u.X)*float64(v.Y)-float64(u.Y)*float64(v.X), float64(u.X)*float64(v.X)+float64(u.Y)*float64(v.Y)
			turn := math.Abs(math.Atan2(across, along))
			assert.InDelta(t, math.Pi/4, turn, 1e-9, "%v", got.To)
		}
	}
}

// What lies in the way stops a piece at the clearance, or makes way for it.
func TestPullingAgainstOthers(t *testing.T) {
	wall := &design.Track{ID: 200, Net: 902, Layer: 1, A: mm(1, 6), B: mm(19, 6), Width: 250 * um}
	f := field(append(line(100, mm(2, 2), mm(4, 4), mm(14, 4), mm(16, 2)), wall)...)
	got, err := f.Pull(route.Pull{Track: 101, From: mm(9, 4), To: mm(9, 5.9)})
	require.NoError(t, err)
	require.NotNil(t, got.Blocked)
	assert.Equal(t, "WALL", got.Blocked.Net)
	assert.InDelta(t, 6_000_000-250*um-200*um, got.To[1].Y, 200, "0.25 mm from middle to edge twice, and 0.2 mm apart")
	got, err = f.Pull(route.Pull{Track: 101, From: mm(9, 4), To: mm(9, 5.9), Aside: true})
	require.NoError(t, err)
	require.Nil(t, got.Blocked)
	assert.Equal(t, mm(5.9, 5.9), got.To[1])
	require.Len(t, got.Aside.Strands, 1)
	assert.EqualValues(t, 200, got.Aside.Strands[0].IDs[0])
	for id, want := range map[design.ID]string{999: "no such track", 300: "locked", 400: "hangs on the middle"} {
		l := &design.Track{ID: 300, Net: 900, Layer: 1, A: mm(2, 10), B: mm(8, 10), Width: 250 * um, Locked: true}
		m := &design.Track{ID: 400, Net: 900, Layer: 1, A: mm(2, 14), B: mm(8, 14), Width: 250 * um}
		n := &design.Track{ID: 401, Net: 900, Layer: 1, A: mm(5, 14), B: mm(5, 18), Width: 250 * um}
		_, err := field(l, m, n).Pull(route.Pull{Track: id, From: mm(5, 10), To: mm(5, 12)})
		assert.ErrorContains(t, err, want)
	}
}

// A via goes where the hand goes, and its tracks follow on both layers; a locked one and one that a pad lies on stay.
func TestPullingAVia(t *testing.T) {
	via := &design.Via{ID: 50, Net: 900, At: mm(10, 10), Diameter: 800 * um, Hole: 400 * um, From: 1, To: 3}
	low := &design.Track{ID: 60, Net: 900, Layer: 3, A: mm(10, 10), B: mm(16, 10), Width: 250 * um}
	f := field(append(line(100, mm(2, 10), mm(10, 10)), via, low)...)
	a, no, err := f.PullVia(50, mm(11, 12), false)
	require.NoError(t, err)
	require.Nil(t, no)
	require.Equal(t, []route.MovedVia{{ID: 50, At: mm(10, 10), To: mm(11, 12)}}, a.Vias)
	require.Len(t, a.Strands, 2)
	for _, s := range a.Strands {
		ends := []geom.Point{s.To[0], s.To[len(s.To)-1]}
		assert.Contains(t, ends, mm(11, 12))
		for i := 0; i+1 < len(s.To); i++ {
			d := s.To[i+1].Sub(s.To[i])
			assert.True(t, d.X == 0 || d.Y == 0 || d.X == d.Y || d.X == -d.Y, "%v", s.To)
		}
	}
	short := field(append(line(100, mm(10, 4), mm(10, 9.6), mm(9.6, 10)), &design.Via{ID: 50, Net: 900, At: mm(9.6, 10), Diameter: 800 * um, Hole: 400 * um, From: 1, To: 3})...)
	a, no, err = short.PullVia(50, mm(12, 8), false)
	require.NoError(t, err)
	require.Nil(t, no, "the long piece touches the via too, beside the short one that ends there")
	assert.Equal(t, mm(12, 8), a.Vias[0].To)
	wall := &design.Track{ID: 200, Net: 902, Layer: 1, A: mm(1, 13), B: mm(19, 13), Width: 250 * um}
	f = field(append(line(100, mm(2, 10), mm(10, 10)), via, low, wall)...)
	a, no, err = f.PullVia(50, mm(10, 15), false)
	require.NoError(t, err)
	require.NotNil(t, no)
	require.Len(t, a.Vias, 1)
	assert.InDelta(t, 13_000_000-125*um-400*um-200*um, a.Vias[0].To.Y, 2*um)
	locked := *via
	locked.Locked = true
	_, _, err = field(&locked).PullVia(50, mm(1, 1), false)
	assert.ErrorContains(t, err, "locked")
	_, _, err = f.PullVia(51, mm(1, 1), false)
	assert.ErrorContains(t, err, "no such via")
}
