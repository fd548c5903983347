package handoff_test

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// poured is a board of four layers with parts of a plated pad, tracks, vias of all spans and copper areas of several nets, a plane among them.
// What would break a rule is left out.
func poured(t *rapid.T) *design.Doc {
	d := design.New("Poured")
	d.Next = 300
	synthetic.Layers(d, 4)
	mm := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	b := *d.Board
	b.Outline = geom.Corners(mm(0, 0), mm(24, 0), mm(24, 18), mm(0, 18))
	d.Put(&b)
	d.Put(&design.Footprint{ID: 90, Name: "Pin", Pads: []design.Pad{{Number: "1", Form: design.Round, Size: mm(1.6, 1.6), Hole: 800_000}}})
	d.Put(&design.Footprint{ID: 91, Name: "Land", Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: mm(1.2, 0.9)}}})
	nets := []design.ID{synthetic.Net(d, "GND"), synthetic.Net(d, "VCC"), synthetic.Net(d, "SIG")}
	net := func() design.ID { return nets[[]int{0, 0, 0, 1, 1, 2}[rapid.IntRange(0, 5).Draw(t, "net")]] }
	whole := func(name string, lo, hi int64) int64 { return rapid.Int64Range(lo, hi).Draw(t, name) * 100_000 }
	at := func() geom.Point { return geom.Pt(whole("x", 10, 230), whole("y", 10, 170)) }
	put := func(o design.Object) {
		f := route.Field{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
		for _, c := range layout.PiecesOf(d, o) {
			if f.ClearOf(c) != nil {
				return
			}
		}
		d.Put(o)
	}
	for i := range rapid.IntRange(5, 12).Draw(t, "parts") {
		id := d.NewID()
		put(&design.Placed{ID: id, Part: id + 1000, Designator: fmt.Sprint("P", i), At: at(),
			Footprint: rapid.SampledFrom([]string{"Pin", "Land"}).Draw(t, "footprint"),
			Bottom:    rapid.Bool().Draw(t, "bottom"), Nets: map[string]design.ID{"1": net()}})
	}
	for range rapid.IntRange(0, 10).Draw(t, "tracks") {
		a := at()
		put(&design.Track{ID: d.NewID(), Layer: d.Board.At(rapid.IntRange(0, 3).Draw(t, "layer")), Width: 250_000, Net: net(),
			A: a, B: a.Add(geom.Pt(whole("dx", -60, 60), whole("dy", 1, 40)))})
	}
	for range rapid.IntRange(0, 10).Draw(t, "vias") {
		s := rapid.SampledFrom([][2]int{{0, 3}, {0, 1}, {1, 2}, {2, 3}}).Draw(t, "span")
		v := &design.Via{ID: d.NewID(), At: at(), Diameter: 600_000, Hole: 300_000, From: d.Board.At(s[0]), To: d.Board.At(s[1]), Net: net(),
			Join: rapid.SampledFrom(design.Joins).Draw(t, "join")}
		if s == [2]int{0, 1} {
			v.Kind = design.Lasered
		}
		put(v)
	}
	for i := range rapid.IntRange(1, 4).Draw(t, "areas") {
		p := &design.Pour{ID: d.NewID(), Name: fmt.Sprint("A", i), Net: net(), Priority: rapid.IntRange(0, 2).Draw(t, "priority"),
			Join:    append(slices.Clone(design.Joins), design.ByRule, design.BySpokes, design.Solidly)[rapid.IntRange(0, 6).Draw(t, "joins")],
			Islands: rapid.SampledFrom([]string{design.IslandsGo, design.IslandsStay}).Draw(t, "islands")}
		for _, l := range rapid.SliceOfNDistinct(rapid.IntRange(0, 3), 1, 3, rapid.ID[int]).Draw(t, "layers") {
			p.Layers = append(p.Layers, d.Board.At(l))
		}
		if i > 0 || rapid.IntRange(0, 3).Draw(t, "edged") == 0 {
			a := at()
			p.Outline = geom.Corners(a, a.Add(mm(7, -1)), a.Add(mm(6, 6)), a.Add(mm(-2, 5)))
		}
		d.Put(p)
	}
	if rapid.Bool().Draw(t, "teardrops") {
		b := *d.Board
		b.Teardrops = &design.Teardrops{Length: 900, Breadth: 1000, Most: 2_000_000, On: design.TeardropThings}
		d.Put(&b)
	}
	require.NoError(t, d.Whole())
	return d
}

// The files' copper and holes, read back, join the pads that the design says are joined, over areas, planes and vias of every span; and no copper
// of two nets is one.
func TestFilesOfPouredBoards(t *testing.T) {
	joined := 0
	rapid.Check(t, func(t *rapid.T) {
		d := poured(t)
		x := layout.NewIndex(d)
		fills, err := pour.Of(context.Background(), d, x, rules.Of(d), nil)
		require.NoError(t, err)
		var want [][]string
		for _, net := range x.Nets() {
			for _, is := range layout.Islands(x.NetPieces(net), fills.Bonds(net)...) {
				var pins []string
				for _, c := range is {
					if c.Kind == "pad" {
						pins = append(pins, strings.TrimPrefix(c.Name, "pad "))
					}
				}
				if len(pins) > 0 {
					slices.Sort(pins)
					want = append(want, pins)
				}
				if len(pins) > 1 {
					joined++
				}
			}
		}
		var got [][]string
		for _, is := range trace(t, files(t, d, "poured")) {
			require.LessOrEqual(t, len(is.Nets), 1, "%v", is)
			got = append(got, is.Pins)
		}
		require.ElementsMatch(t, want, got)
	})
	require.Greater(t, joined, 10, "areas joined pads")
	t.Logf("%d times several pads were joined", joined)
}
