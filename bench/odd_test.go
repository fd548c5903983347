package bench

import (
	"fmt"
	"testing"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// BenchmarkOdd opens boards on which one net's copper lies as no designer draws it: it grows with the copper, not with its square.
func BenchmarkOdd(b *testing.B) {
	at := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	for _, odd := range []struct {
		name string
		put  func(d *design.Doc, net design.ID, i int)
	}{
		{"in a row", func(d *design.Doc, net design.ID, i int) {
			x := 10 + 0.17*float64(i)
			d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: at(x, 20), B: at(x+0.01, 20), Width: 150_000, Net: net})
		}},
		{"upright", func(d *design.Doc, net design.ID, i int) {
			y := 10 + 0.17*float64(i)
			d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: at(20, y), B: at(20, y+0.01), Width: 150_000, Net: net})
		}},
		{"in one place", func(d *design.Doc, net design.ID, _ int) {
			d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: at(10, 20), B: at(12, 20), Width: 150_000, Net: net})
		}},
		{"vias in one place", func(d *design.Doc, net design.ID, _ int) {
			d.Put(&design.Via{ID: d.NewID(), At: at(20, 20), Diameter: 600_000, Hole: 300_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: net})
		}},
		{"flat arcs", func(d *design.Doc, net design.ID, i int) {
			x := 10 + 0.1*float64(i)
			mid := at(x+0.05, 20).Add(geom.Pt(0, 1))
			d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: at(x, 20), Mid: &mid, B: at(x+0.1, 20), Width: 150_000, Net: net})
		}},
	} {
		for _, n := range []int{2_500, 10_000} {
			b.Run(fmt.Sprintf("%s/%d", odd.name, n), func(b *testing.B) {
				d := design.New("odd")
				o := *d.Board
				o.Outline = geom.Corners(at(0, 0), at(1900, 0), at(1900, 1900), at(0, 1900))
				d.Put(&o)
				net := synthetic.Net(d, "A")
				for i := range n {
					odd.put(d, net, i)
				}
				report(b, 3, func(int) { workbench.Open(d, 0) })
			})
		}
	}
}
