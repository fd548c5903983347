package bench

import (
	"testing"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
)

// A track finished across the board: from open links' ends to a place on the other side of the board, where a via of the net is laid.
func BenchmarkFinish(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		w := workbench.Open(d, 0)
		f := route.Field{Doc: d, Index: w.Index(), Rules: w.Rules()}
		outline := geom.BoxOf(geom.Places(d.Board.Outline)...)
		type start struct {
			at  geom.Point
			net design.ID
		}
		var starts []start
		all := w.All().Links
		for net, c := range all {
			for _, l := range c.Come {
				if l.A.X < outline.Centre().X/2 {
					starts = append(starts, start{l.A, net})
				}
			}
		}
		if len(starts) == 0 {
			b.Skip("no open links")
		}
		found, long := 0, 0.0
		report(b, 20, func(i int) {
			s := starts[i*7919%len(starts)]
			to := geom.Pt(outline.Max.X-s.at.X, outline.Max.Y-s.at.Y)
			for k := int64(0); ; k++ {
				at := to.Add(geom.Pt(k%40*250_000, k/40*250_000))
				if f.Free(f.Via(at, s.net)) {
					to = at
					break
				}
			}
			v := f.Via(to, s.net)
			laid := &layout.Copper{ID: 1 << 30, Pad: -1, Kind: "via", Thing: design.AVia, Net: s.net, Layers: v.Layers, Shape: v.Shape, At: to, Hole: v.Hole, Drill: to}
			legs := f.With(nil, laid).Finish(route.Errand{Net: s.net, From: s.at, Layers: 3, Goals: []*layout.Copper{laid}, Hops: true})
			if legs != nil {
				found++
				for _, l := range legs {
					long += float64(route.Length(geom.Places(l.Path))) / s.at.Dist(to)
				}
			}
		})
		b.ReportMetric(float64(found), "found")
		b.ReportMetric(long/float64(found), "longer")
	})
}
