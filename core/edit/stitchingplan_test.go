package edit_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// stitched is a random board of two layers with areas of the ground, tracks of others and pads of the ground.
type stitched struct {
	*design.Doc
	gnd   design.ID
	areas []area
	whole [4]geom.Point // the board's outline
}

func stitchedBoard(t *rapid.T) *stitched {
	d := design.New("stitched")
	d.Next = 1000
	s := &stitched{Doc: d, gnd: synthetic.Net(d, "GND")}
	b := *d.Board
	wide, high := rapid.Int64Range(80, 160).Draw(t, "wide")*100_000, rapid.Int64Range(80, 160).Draw(t, "high")*100_000
	slant := rapid.Int64Range(0, 30).Draw(t, "slant") * 100_000
	s.whole = [4]geom.Point{geom.Pt(0, 0), geom.Pt(wide, 0), geom.Pt(wide+slant, high), geom.Pt(slant, high)}
	b.Outline = geom.Corners(s.whole[:]...)
	if rapid.Bool().Draw(t, "cut out") {
		b.CutOuts = [][]geom.Corner{geom.Corners(mmf(4, 4), mmf(6, 4), mmf(6, 6), mmf(4, 6))}
	}
	d.Put(&b)
	for layer := range 2 {
		for range rapid.IntRange(0, 2).Draw(t, "areas") {
			a := area{layer, geom.Pt(-9*mm, -9*mm), geom.Pt(99*mm, 99*mm)}
			p := &design.Pour{ID: d.NewID(), Name: fmt.Sprint("GND", len(s.areas)), Net: s.gnd, Layers: []design.LayerID{b.At(layer)}}
			if rapid.Bool().Draw(t, "part") {
				a.low = geom.Pt(rapid.Int64Range(0, 60).Draw(t, "x")*100_001, rapid.Int64Range(0, 60).Draw(t, "y")*100_001)
				a.far = a.low.Add(geom.Pt(rapid.Int64Range(30, 99).Draw(t, "w")*100_000, rapid.Int64Range(30, 99).Draw(t, "h")*100_000))
				p.Outline = geom.Corners(a.low, geom.Pt(a.far.X, a.low.Y), a.far, geom.Pt(a.low.X, a.far.Y))
			}
			d.Put(p)
			s.areas = append(s.areas, a)
		}
	}
	d.Put(&design.Footprint{ID: d.NewID(), Name: "F", Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: geom.Pt(1_500_000, 800_000)}}})
	for i := range rapid.IntRange(0, 8).Draw(t, "things") {
		p := geom.Pt(rapid.Int64Range(10, 110).Draw(t, "x")*100_000, rapid.Int64Range(10, 90).Draw(t, "y")*100_000)
		if rapid.Bool().Draw(t, "pad") {
			d.Put(&design.Placed{ID: d.NewID(), Part: design.ID(9000 + i), Designator: fmt.Sprint("R", i+1), Footprint: "F", At: p, Nets: map[string]design.ID{"1": s.gnd}})
			continue
		}
		to := p.Add(geom.Pt(rapid.Int64Range(-30, 30).Draw(t, "dx")*100_000, 1_000_000))
		d.Put(&design.Track{ID: d.NewID(), Layer: b.At(rapid.IntRange(0, 1).Draw(t, "layer")), A: p, B: to, Width: 300_000, Net: synthetic.Net(d, "SIG")})
	}
	return s
}

// within tells whether a place lies in the board, by the slanted sides of its outline.
func (s *stitched) within(p geom.Point) bool {
	for i, a := range s.whole {
		b := s.whole[(i+1)%4]
		if (b.X-a.X)*(p.Y-a.Y)-(b.Y-a.Y)*(p.X-a.X) < 0 {
			return false
		}
	}
	return true
}

// ties tells whether areas of both layers hold a place, where there are any.
func (s *stitched) ties(p geom.Point) bool {
	on := map[int]bool{}
	for _, a := range s.areas {
		if a.holds(p) {
			on[a.layer] = true
		}
	}
	return len(s.areas) == 0 || len(on) == 2
}

// room tells whether a via of the ground may stand at a place, by the whole check, and touches no pad.
func (s *stitched) room(p geom.Point, vias []geom.Point) bool {
	with := s.Snapshot()
	via := func(at geom.Point) *design.Via {
		r := rules.Of(with)
		who := rules.Subject{Net: s.gnd, Thing: design.AVia}
		return &design.Via{ID: with.NewID(), At: at, Net: s.gnd, From: with.Board.Top(), To: with.Board.Bottom(),
			Diameter: r.For(design.ViaDiameter, who, 0, at).Of(0), Hole: r.For(design.ViaHole, who, 0, at).Of(0)}
	}
	for _, at := range vias {
		with.Put(via(at))
	}
	mine := via(p)
	with.Put(mine)
	x := layout.NewIndex(with)
	board := check.NewBoard(with, x, rules.Of(with))
	board.All()
	for _, f := range board.Found {
		if f.Severity == check.Fault && slices.Contains(f.Objects, mine.ID) {
			return false
		}
	}
	for c := range x.All() {
		if gap, _, _ := geom.Gap(c.Shape, geom.Disc(p, mine.Diameter/2)); c.Kind == "pad" && gap <= 0 {
			return false
		}
	}
	return true
}

// A grid has as many places as there is room for, the same margin on both sides; a via stands at each that is on the board, ties areas of two
// layers, breaks no rule and is on no pad, row by row. The others are counted.
func TestGridsOfAnyBoard(t *testing.T) {
	put := 0
	rapid.Check(t, func(t *rapid.T) {
		s := stitchedBoard(t)
		pitch := rapid.Int64Range(5, 40).Draw(t, "pitch") * 101_000
		st := design.Stitching{Net: s.gnd, Pitch: pitch}
		low, far := s.whole[0], s.whole[2]
		holds := s.within
		if rapid.Bool().Draw(t, "a part") {
			own := area{0, mmf(1.5, 2), mmf(9, 7.3)}
			st.Outline = geom.Corners(own.low, geom.Pt(own.far.X, own.low.Y), own.far, geom.Pt(own.low.X, own.far.Y))
			low, far, holds = own.low, own.far, own.holds
		}
		for range rapid.IntRange(0, 2).Draw(t, "free") {
			st.Out = append(st.Out, low.Add(geom.Pt(rapid.Int64Range(0, 5).Draw(t, "column")*pitch+(far.X-low.X)%pitch/2, (far.Y-low.Y)%pitch/2+9_000)))
		}
		var want []geom.Point
		none := 0
		nx, ny := (far.X-low.X)/pitch, (far.Y-low.Y)/pitch
		for j := range ny + 1 {
			for i := range nx + 1 {
				p := geom.Pt(low.X+(far.X-low.X-nx*pitch)/2+i*pitch, low.Y+(far.Y-low.Y-ny*pitch)/2+j*pitch)
				if !holds(p) || slices.ContainsFunc(st.Out, func(o geom.Point) bool { return o.Dist(p) < 10_000 }) {
					continue
				}
				if s.ties(p) && s.room(p, want) {
					want = append(want, p)
				} else {
					none++
				}
			}
		}
		c := &edit.PutStitching{Stitching: st}
		_, err := edit.Apply(s.Doc, edit.Env{}, c)
		if len(want) == 0 {
			require.ErrorContains(t, err, "nowhere does a via of GND fit that would tie its copper together")
			return
		}
		require.NoError(t, err)
		put += len(want)
		var got []geom.Point
		for v := range s.Vias.All() {
			got = append(got, v.At)
		}
		require.Equal(t, want, got)
		said := fmt.Sprintf("%d vias tie", len(want))
		if len(want) == 1 {
			said = "1 via ties"
		}
		said += " the net together"
		switch none {
		case 0:
		case 1:
			said += "; at 1 place none fits"
		default:
			said += fmt.Sprintf("; at %d places none fits", none)
		}
		require.Equal(t, said+".", c.Said())
	})
	assert.Greater(t, put, 50)
}

// Along the edge of any board all vias are as far from it as asked, and at any place as far from it where one would have room another is
// near; along tracks they are as far from the one that they go along, on both sides.
func TestEdgesAndSidesOfTracks(t *testing.T) {
	put := 0
	rapid.Check(t, func(t *rapid.T) {
		s := stitchedBoard(t)
		st := design.Stitching{Net: s.gnd, Pitch: rapid.Int64Range(10, 30).Draw(t, "pitch") * 100_000, Apart: rapid.Int64Range(6, 20).Draw(t, "apart") * 100_000}
		st.Pattern = design.AtEdge
		lines := []geom.Ring{geom.Closing(s.Board.Outline)}
		for _, c := range s.Board.CutOuts {
			lines = append(lines, geom.Closing(c))
		}
		if rapid.Bool().Draw(t, "along") {
			st.Pattern, st.Along, lines = design.AlongTracks, synthetic.Net(s.Doc, "SIG"), nil
			for tr := range s.Tracks.All() {
				lines = append(lines, geom.Ring{tr.Piece()})
			}
		}
		bare := *s
		bare.Doc = s.Snapshot()
		c := &edit.PutStitching{Stitching: st}
		if _, err := edit.Apply(s.Doc, edit.Env{}, c); err != nil {
			require.ErrorContains(t, err, "nowhere does a via of GND fit")
			return
		}
		var got []geom.Point
		for v := range s.Vias.All() {
			got = append(got, v.At)
		}
		put += len(got)
		away := func(p geom.Point) float64 {
			near := math.Inf(1)
			for _, ring := range lines {
				for _, l := range ring {
					gap, _, _ := geom.Gap(geom.Stroke(l.A, l.B, 0), geom.Disc(p, 0))
					near = min(near, gap)
				}
			}
			return near
		}
		for i, p := range got {
			near := away(p)
			if st.Pattern == design.AtEdge {
				require.InDelta(t, float64(st.Apart), near, 1100)
			} else {
				require.LessOrEqual(t, near, float64(st.Apart)+2)
			}
			require.True(t, s.within(p) && s.ties(p))
			require.True(t, bare.room(p, slices.Delete(slices.Clone(got), i, i+1)), "%v", p)
		}
		// where there is none, none fits, or others are as near as the pitch asks for
		for _, ring := range lines {
			for _, l := range ring {
				long := l.A.Dist(l.B)
				for k := 0.5; k < math.Floor(long/float64(st.Pitch)); k++ {
					m := l.A.Towards(l.B, k*float64(st.Pitch)/long)
					ux, uy, _ := dir(l.A, l.B)
					for _, side := range []float64{1, -1} {
						p := m.Add(geom.Pt(int64(-uy*side*float64(st.Apart)), int64(ux*side*float64(st.Apart))))
						if !s.within(p) || !s.ties(p) || slices.ContainsFunc(got, func(o geom.Point) bool { return o.Dist(p) <= 1.3*float64(st.Pitch) }) {
							continue
						}
						free := true // along a stretch, so that it is not by a hair that a place between two edges would do
						for share := -0.8; share <= 0.8 && free && st.Pattern == design.AtEdge; share += 0.2 {
							free = away(p.Add(geom.Pt(int64(ux*share*float64(st.Pitch)), int64(uy*share*float64(st.Pitch))))) > float64(st.Apart)-1000
						}
						for _, d := range []geom.Point{{}, {X: st.Pitch / 2}, {X: -st.Pitch / 2}, {Y: st.Pitch / 2}, {Y: -st.Pitch / 2}} {
							free = free && s.within(p.Add(d)) && s.ties(p.Add(d)) && bare.room(p.Add(d), got)
						}
						require.False(t, free, "%v stays empty", p)
					}
				}
			}
		}
	})
	assert.Greater(t, put, 50)
}

func dir(a, b geom.Point) (x, y, long float64) {
	long = a.Dist(b)
	return float64(b.X-a.X) / long, float64(b.Y-a.Y) / long, long
}
