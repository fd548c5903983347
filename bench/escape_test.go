package bench

import (
	"testing"

	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/question"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

// bridge is the demo's dense board, with the controller's balls led out or bare.
func bridge(b *testing.B, bare bool) (*workbench.Bench, *design.Placed) {
	d, err := demo.Build("Loom Bridge")
	require.NoError(b, err)
	if bare {
		for t := range d.Tracks.All() {
			d.Remove(design.KindTrack, t.ID)
		}
		for v := range d.Vias.All() {
			d.Remove(design.KindVia, v.ID)
		}
	}
	for p := range d.Placed.All() {
		if p.Designator == "U1" {
			return workbench.Open(d, 0), p
		}
	}
	b.Fatal("no controller")
	return nil, nil
}

// BenchmarkEscape finds how 324 balls are led out over four layers.
func BenchmarkEscape(b *testing.B) {
	w, p := bridge(b, true)
	board := w.Doc.Board
	ask := question.Escape{EscapeAsk: edit.EscapeAsk{Parts: []design.ID{p.ID}, Beyond: 600_000,
		Layers: []design.LayerID{board.At(0), board.At(2), board.At(3), board.At(5)}}}
	report(b, 10, func(int) {
		out, err := ask.Answer(w)
		require.NoError(b, err)
		require.Empty(b, out.Stuck)
	})
}

// BenchmarkHops tries hops all over the dense board, whose best ways are chains of holes; and what a track's head costs that asks for one.
func BenchmarkHops(b *testing.B) {
	w, p := bridge(b, false)
	f := w.Field()
	net := w.Doc.NetNamed("LN0").ID
	at := func(i int) geom.Point { return p.At.Add(geom.Pt(int64(i%29-14)*700_000, int64(i*7%31-15)*700_000)) }
	b.Run("at a place", func(b *testing.B) {
		report(b, 500, func(i int) { f.HopAt(route.HopAsk{At: at(i), Net: net, From: 0, To: 2}) })
	})
	b.Run("nearest", func(b *testing.B) {
		report(b, 200, func(i int) { _, _, _ = f.HopNear(route.HopAsk{At: at(i), Net: net, From: 0, To: 2}) })
	})
	b.Run("head", func(b *testing.B) {
		report(b, 300, func(i int) {
			q := question.Track{From: p.At.Add(geom.Pt(-11_000_000, 0)), To: at(i), Layer: w.Doc.Board.At(0), Net: net, HopTo: w.Doc.Board.At(2)}
			_, err := q.Answer(w)
			require.NoError(b, err)
		})
	})
}
