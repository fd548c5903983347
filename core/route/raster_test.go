package route_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
)

// What a search's grid knows of its places is what the field says of each: where a dot of the track may not stand is closed, all else is not;
// from an open place to an open one beside it the track may go.
func TestGridAgainstTheField(t *testing.T) {
	seen := map[string]int{}
	rapid.Check(t, func(t *rapid.T) {
		f, _, _, _ := crowd(t)
		if rapid.Bool().Draw(t, "more") {
			f.Doc.Put(&design.RuleArea{ID: 70, Name: "kept free", Outline: geom.Corners(mm(4, 4), mm(9, 5), mm(6, 12)), KeepOut: []design.Thing{design.ATrack}})
			mid := mm(15, 6)
			f.Doc.Put(&design.Track{ID: 71, Net: net("WALL"), Layer: 1, A: mm(12, 3), Mid: &mid, B: mm(12, 9), Width: 300 * um})
			f.Index = layout.NewIndex(f.Doc)
		}
		f.Doc.SetBase(map[design.RuleKind]int64{design.HoleCopper: rapid.SampledFrom([]int64{0, 200 * um, 600 * um}).Draw(t, "walls")})
		f.Rules = rules.Of(f.Doc)
		layer := rapid.IntRange(0, 1).Draw(t, "layer")
		width := rapid.Int64Range(1, 5).Draw(t, "width") * 100 * um
		pitch := rapid.Int64Range(1, 6).Draw(t, "pitch") * 50 * um
		origin := mm(float64(rapid.IntRange(0, 20).Draw(t, "x")), float64(rapid.IntRange(0, 20).Draw(t, "y")))
		w := route.Wish{Shape: geom.Disc(origin, width/2), Layers: 1 << layer, Net: 900, Thing: design.ATrack}
		x0, y0 := int32(rapid.IntRange(-2, 1).Draw(t, "column"))*32, int32(rapid.IntRange(-2, 1).Draw(t, "row"))*32
		free := map[[2]int]geom.Point{}
		f.RasterOf(w, origin, pitch, x0, y0, func(at geom.Point, x, y int, state string) {
			seen[state]++
			require.Equal(t, origin.Add(geom.Pt(int64(x0+int32(x))*pitch, int64(y0+int32(y))*pitch)), at)
			dot := w
			dot.Shape = geom.Disc(at, width/2)
			require.Equal(t, f.Clear(dot) != nil, state == "closed", "%v is %s: %v", at, state, f.Clear(dot))
			if state == "open" {
				free[[2]int{x, y}] = at
			}
		})
		for k, at := range free {
			for _, d := range [][2]int{{1, 0}, {1, 1}, {0, 1}, {-1, 1}} {
				to, open := free[[2]int{k[0] + d[0], k[1] + d[1]}]
				step := w
				step.Shape = geom.Stroke(at, to, width)
				require.False(t, open && f.Clear(step) != nil, "from %v to %v: %v", at, to, f.Clear(step))
			}
		}
	})
	for _, state := range []string{"open", "tight", "closed"} {
		assert.Greater(t, seen[state], 500, state)
	}
}

// A grid of vias: where a hole of the net stands that joins all layers none is needed; next to surface pads of the net, within 0.1 mm, none
// is set, as solder would run into it; else as the field says.
func TestGridOfVias(t *testing.T) {
	seen := map[string]int{}
	rapid.Check(t, func(t *rapid.T) {
		f, from, to, _ := crowd(t)
		pads := &design.Footprint{ID: 80, Name: "one", Pads: []design.Pad{{ID: 1, Number: "1", Form: design.Rect, Size: geom.Pt(1_500*um, 600*um)}}}
		f.Doc.Put(pads)
		f.Doc.Put(&design.Placed{ID: 81, Part: 5001, Designator: "R1", Footprint: "one", At: mm(10, 10), Nets: map[string]design.ID{"1": 900}})
		f.Doc.SetBase(map[design.RuleKind]int64{design.HoleCopper: rapid.SampledFrom([]int64{0, 200 * um, 700 * um}).Draw(t, "walls")})
		f.Index, f.Rules = layout.NewIndex(f.Doc), rules.Of(f.Doc)
		pad := f.Index.Of(81)[0]
		pitch := rapid.Int64Range(2, 6).Draw(t, "pitch") * 50 * um
		origin := mm(10, 10)
		w := f.Via(origin, 900)
		x0, y0 := int32(rapid.IntRange(-2, 1).Draw(t, "column"))*32, int32(rapid.IntRange(-2, 1).Draw(t, "row"))*32
		f.RasterOf(w, origin, pitch, x0, y0, func(at geom.Point, _, _ int, state string) {
			seen[state]++
			want := "free"
			gap, _, _ := geom.Gap(pad.Shape, geom.Disc(at, w.Shape.R))
			switch {
			case min(at.Dist(from), at.Dist(to)) <= 400_000:
				want = "plated"
			case f.Clear(f.Via(at, 900)) != nil || gap < 100_000:
				want = "closed"
			}
			if state == "open" || state == "tight" {
				state = "free"
			}
			require.Equal(t, want, state, "%v", at)
		})
	})
	assert.Positive(t, seen["plated"])
	assert.Positive(t, seen["closed"])
	assert.Positive(t, seen["open"])
}
