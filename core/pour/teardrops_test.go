package pour_test

import (
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
)

// sizes are how much all areas and teardrops of a board fill, tile by tile, in square millimetres.
func sizes(f *pour.Fills) map[string]float64 {
	out := map[string]float64{}
	for _, k := range f.Keys() {
		for t, list := range f.Tiles(k) {
			for _, p := range list {
				for _, ring := range append([][]geom.Point{p.Outer}, p.Holes...) {
					out[fmt.Sprint(k, t)] += geom.Area(ring) / 1e12
				}
			}
		}
	}
	return out
}

// Whatever moves, comes or goes: once what is stale is filled, all is as if it were filled from scratch.
func TestTeardropsKeepUp(t *testing.T) {
	some := 0
	rapid.Check(t, func(t *rapid.T) {
		d, _ := scattered(t)
		b := *d.Board
		b.Teardrops = &design.Teardrops{Length: 800, Breadth: 950, Most: 1_500_000, On: design.TeardropThings}
		d.Put(&b)
		x := layout.NewIndex(d)
		f, err := pour.Of(context.Background(), d, x, rules.Of(d), nil)
		require.NoError(t, err)
		change := func(o design.Object, is design.Object) {
			for _, c := range x.Of(o.ObjectID()) {
				f.Near(c.Box(), c.Layers)
			}
			x.Remove(o.ObjectID())
			if is == nil {
				d.Remove(o.ObjectKind(), o.ObjectID())
				return
			}
			d.Put(is)
			x.Put(d, is)
			for _, c := range x.Of(is.ObjectID()) {
				f.Near(c.Box(), c.Layers)
			}
		}
		by := func(name string) int64 { return rapid.Int64Range(-20, 20).Draw(t, name) * 100_000 }
		for range rapid.IntRange(1, 4).Draw(t, "changes") {
			var all []design.Object
			for o := range d.Tracks.All() {
				all = append(all, o)
			}
			for o := range d.Vias.All() {
				all = append(all, o)
			}
			for o := range d.Placed.All() {
				all = append(all, o)
			}
			if len(all) == 0 {
				return
			}
			step := geom.Pt(by("x"), by("y"))
			switch o := rapid.SampledFrom(all).Draw(t, "which").(type) {
			case *design.Track:
				n := *o
				n.B = n.B.Add(step)
				if rapid.Bool().Draw(t, "gone") || n.A == n.B {
					change(o, nil)
				} else {
					change(o, &n)
				}
			case *design.Via:
				n := *o
				n.At = n.At.Add(step)
				change(o, &n)
			case *design.Placed:
				n := *o
				n.At = n.At.Add(step)
				change(o, &n)
			}
			_, err = f.Fill(context.Background(), nil)
			require.NoError(t, err)
		}
		again, err := pour.Of(context.Background(), d, layout.NewIndex(d), rules.Of(d), nil)
		require.NoError(t, err)
		want, got := sizes(again), sizes(f)
		for at := range got {
			require.Contains(t, want, at)
		}
		for at, size := range want {
			require.InDelta(t, size, got[at], 1e-6, at)
		}
		some += len(f.Islands(pour.Teardrops(d.Board.Top())))
	})
	require.Positive(t, some)
}

// Without the board's word there are none any more, and areas take the room.
func TestTeardropsGo(t *testing.T) {
	d, _, pin := pinned()
	sig := d.NetNamed("SIG").ID
	d.Put(&design.Via{ID: d.NewID(), At: pin.At.Add(mm(0, 4)), Diameter: 1_600_000, Hole: 800_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: sig})
	d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: pin.At.Add(mm(0, 4)), B: pin.At.Add(mm(5, 4)), Width: 300_000, Net: sig})
	b := *d.Board
	b.Teardrops = &design.Teardrops{Length: 800, Breadth: 950, Most: 1_500_000, On: design.TeardropThings}
	d.Put(&b)
	f := filled(t, d)
	require.Len(t, f.Islands(pour.Teardrops(d.Board.Top())), 1)
	with := sizes(f)
	b.Teardrops = nil
	d.Put(&b)
	f.Anew()
	_, err := f.Fill(context.Background(), nil)
	require.NoError(t, err)
	require.Empty(t, f.Islands(pour.Teardrops(d.Board.Top())))
	var before, after float64
	for k, size := range with {
		if !strings.HasPrefix(k, "{0 ") {
			before += size
		}
	}
	for _, size := range sizes(f) {
		after += size
	}
	require.Greater(t, after, before+0.1)
}
