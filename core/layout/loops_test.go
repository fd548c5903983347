package layout_test

import (
	"maps"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

// tenths are places of a line, given in tenths of a millimetre.
func tenths(xy ...int64) (out []geom.Point) {
	for i := 0; i < len(xy); i += 2 {
		out = append(out, geom.Pt(xy[i]*100_000, xy[i+1]*100_000))
	}
	return out
}

func boardOfTracks(width int64, lines ...[]geom.Point) *design.Doc {
	d := design.New("tracks")
	for _, line := range lines {
		for i := range len(line) - 1 {
			d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: line[i], B: line[i+1], Width: width, Net: synthetic.Net(d, "N")})
		}
	}
	return d
}

// loopsOf are the loops of the net, by each of the two ways of knowing what touches.
func loopsOf(t require.TestingT, d *design.Doc) []layout.Loop {
	x, net := layout.NewIndex(d), synthetic.Net(d, "N")
	n := layout.NewNetLinks(net)
	n.Update(x, maps.Keys(x.ObjectsOf(net)))
	ids := slices.Sorted(maps.Keys(x.ObjectsOf(net)))
	loops, _ := n.Loops(ids)
	var near []layout.Loop
	seen := map[design.ID]bool{}
	for _, id := range ids {
		if c := x.Of(id)[0]; c.Kind == "track" && !seen[id] {
			m, whole := layout.ClumpOf(x.Near, c, 0)
			require.True(t, whole)
			for _, p := range m.Pieces {
				seen[p.ID] = true
			}
			near = append(near, m.Loops()...)
		}
	}
	order := func(list []layout.Loop) (out [][]design.ID) {
		for _, l := range list {
			out = append(out, l.Tracks)
		}
		slices.SortFunc(out, func(a, b []design.ID) int { return int(a[0] - b[0]) })
		return out
	}
	require.Equal(t, order(loops), order(near))
	return loops
}

func TestLoops(t *testing.T) {
	for name, c := range map[string]struct {
		lines  [][]geom.Point
		tracks int     // of the loop
		around float64 // what it goes around, in mm²: within the middles of its tracks, less half their width
		over   int64
	}{
		"one way":                    {lines: [][]geom.Point{tenths(0, 0, 50, 0, 50, 50)}},
		"a fork":                     {lines: [][]geom.Point{tenths(0, 0, 50, 0, 90, 40), tenths(50, 0, 90, -40)}},
		"an end on a side":           {lines: [][]geom.Point{tenths(0, 0, 50, 0), tenths(20, 0, 20, 30)}},
		"many ends at one place":     {lines: [][]geom.Point{tenths(0, 0, 50, 0), tenths(0, 0, 50, 10), tenths(0, 0, 50, 20), tenths(0, 0, 10, 50)}},
		"a crossing":                 {lines: [][]geom.Point{tenths(0, 0, 50, 50), tenths(0, 50, 50, 0)}},
		"a square":                   {lines: [][]geom.Point{tenths(0, 0, 50, 0, 50, 50, 0, 50, 0, 0)}, tracks: 4, around: 4.8 * 4.8},
		"a square with tails":        {lines: [][]geom.Point{tenths(-20, 0, 0, 0, 50, 0, 50, 50, 0, 50, 0, 0), tenths(50, 50, 80, 50)}, tracks: 4, around: 4.8 * 4.8},
		"a way that crosses itself":  {lines: [][]geom.Point{tenths(0, 0, 60, 0, 60, 40, 30, 40, 30, -20)}, tracks: 4, around: 2.8 * 3.8},
		"ends on sides":              {lines: [][]geom.Point{tenths(0, 0, 60, 0), tenths(0, 40, 60, 40), tenths(10, 0, 10, 40), tenths(50, 0, 50, 40)}, tracks: 4, around: 3.8 * 3.8},
		"two ways":                   {lines: [][]geom.Point{tenths(0, 0, 60, 0), tenths(0, 0, 30, 30, 60, 0)}, tracks: 3, around: 9 * math.Pow(1-.1/(math.Sqrt(18)-3), 2)},
		"twice":                      {lines: [][]geom.Point{tenths(0, 0, 60, 0), tenths(60, 0, 0, 0)}, tracks: 2, over: 6_000_000},
		"a bit of it twice":          {lines: [][]geom.Point{tenths(0, 0, 60, 0), tenths(20, 0, 90, 0)}, tracks: 2, over: 4_000_000},
		"back along itself":          {lines: [][]geom.Point{tenths(0, 0, 60, 0, 20, 0, 20, 30)}, tracks: 2, over: 4_000_000},
		"beside each other, as wide": {lines: [][]geom.Point{tenths(0, 0, 60, 0, 61, 1), tenths(0, 1, 60, 1)}},
	} {
		t.Run(name, func(t *testing.T) {
			got := loopsOf(t, boardOfTracks(200_000, c.lines...))
			if c.tracks == 0 {
				assert.Empty(t, got)
				return
			}
			require.Len(t, got, 1)
			assert.Len(t, got[0].Tracks, c.tracks)
			assert.InDelta(t, c.around, got[0].Around/1e12, 0.01)
			if c.around == 0 {
				assert.Equal(t, c.over, got[0].Over)
			}
		})
	}
}

// A net's tracks have a loop if and only if a picture of them has a place that cannot be reached from its edge.
func TestLoopsAsAPictureHasThem(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var lines [][]geom.Point
		for range rapid.IntRange(3, 9).Draw(t, "tracks") {
			a := geom.Pt(rapid.Int64Range(0, 6).Draw(t, "x")*1_000_000, rapid.Int64Range(0, 6).Draw(t, "y")*1_000_000)
			way := rapid.SampledFrom([]geom.Point{{X: 1}, {Y: 1}, {X: 1, Y: 1}, {X: 1, Y: -1}}).Draw(t, "way")
			long := rapid.Int64Range(1, 5).Draw(t, "long") * 1_000_000
			lines = append(lines, []geom.Point{a, a.Add(geom.Pt(way.X*long, way.Y*long))})
		}
		around := false
		for _, l := range loopsOf(t, boardOfTracks(200_000, lines...)) {
			around = around || l.Around > 0
		}
		assert.Equal(t, enclosed(lines, 200_000), around, "%v", lines)
	})
}

// enclosed paints lines and tells whether a place beside them is not reached from the edge.
func enclosed(lines [][]geom.Point, width int64) bool {
	const cell, n, from = 50_000, 370, -5_500_000
	var full [n][n]bool
	for i := range n {
		for j := range n {
			p := geom.Disc(geom.Pt(from+int64(i)*cell, from+int64(j)*cell), 0)
			for _, l := range lines {
				box := geom.BoxOf(l...).Grow(width)
				if !box.Holds(p.Pts[0]) {
					continue
				}
				if gap, _, _ := geom.Gap(p, geom.Stroke(l[0], l[1], width)); gap <= 0 {
					full[i][j] = true
				}
			}
		}
	}
	for stack := [][2]int{{0, 0}}; len(stack) > 0; {
		at := stack[len(stack)-1]
		stack = stack[:len(stack)-1]
		if at[0] < 0 || at[1] < 0 || at[0] >= n || at[1] >= n || full[at[0]][at[1]] {
			continue
		}
		full[at[0]][at[1]] = true
		stack = append(stack, [2]int{at[0] - 1, at[1]}, [2]int{at[0] + 1, at[1]}, [2]int{at[0], at[1] - 1}, [2]int{at[0], at[1] + 1})
	}
	for i := range n {
		for j := range n {
			if !full[i][j] {
				return true
			}
		}
	}
	return false
}
