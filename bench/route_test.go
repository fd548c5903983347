package bench

import (
	"fmt"
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

// busBeside puts twenty long tracks side by side, each a little longer than the one before, beside the parts, on a board made wider for it; left is the x of the first.
func busBeside(d *design.Doc) (net design.ID, left int64, y int64) {
	net = 1 << 29
	outline := geom.BoxOf(geom.Places(d.Board.Outline)...)
	left = outline.Max.X + 10_000_000
	wide := *d.Board
	wide.Outline = geom.Corners(outline.Min, geom.Pt(outline.Max.X+80_000_000, outline.Min.Y), geom.Pt(outline.Max.X+80_000_000, outline.Max.Y), geom.Pt(outline.Min.X, outline.Max.Y))
	d.Put(&wide)
	for i := range int64(20) {
		x := left + i*500_000
		d.Put(&design.Net{ID: net + design.ID(i), Name: fmt.Sprintf("BUS%d", i)})
		d.Put(&design.Track{ID: net + 100 + design.ID(i), Net: net + design.ID(i), Layer: d.Board.Top(), A: geom.Pt(x, outline.Min.Y+(24-i)*1_000_000), B: geom.Pt(x, outline.Max.Y-(24-i)*1_000_000), Width: 250_000})
	}
	return net, left, outline.Centre().Y
}

// A piece pulled against ten others, which make way.
func BenchmarkPull(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		net, left, y := busBeside(d)
		w := workbench.Open(d, 0)
		f := w.Field()
		moved := 0
		report(b, 60, func(i int) {
			from := geom.Pt(left+9*500_000, y)
			p, err := f.Pull(route.Pull{Track: net + 109, From: from, To: from.Add(geom.Pt(500_000+int64(i)*20_000, 0)), Aside: true})
			if err != nil || p.Blocked != nil {
				b.Fatal(err, p)
			}
			moved += len(p.Aside.Strands)
		})
		b.ReportMetric(float64(moved)/60, "moved")
	})
}

// A track drawn through a bus of twenty, which make way, between the parts of the board.
func BenchmarkMakeWay(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		net, left, y := busBeside(d)
		d.Put(&design.Net{ID: net + 50, Name: "HAND"})
		w := workbench.Open(d, 0)
		f := route.Field{Doc: d, Index: w.Index(), Rules: w.Rules()}
		moved := 0
		report(b, 60, func(i int) {
			to := geom.Pt(left+int64(i%20)*500_000, y+int64(i%7)*300_000)
			path := route.Path(geom.Pt(left-4_000_000, y), to, route.StraightFirst)
			var hand []*layout.Copper
			for k := 0; k+1 < len(path); k++ {
				hand = append(hand, &layout.Copper{ID: 1 << 30, Pad: -1 - k, Kind: "track", Thing: design.ATrack, Net: net + 50, Layers: 1, Shape: geom.Stroke(path[k], path[k+1], 250_000), At: path[k], Name: "track"})
			}
			aside, o := f.MakeWay(hand, nil)
			if o != nil {
				b.Fatal(o, i)
			}
			moved += len(aside.Strands)
		})
		b.ReportMetric(float64(moved)/60, "moved")
	})
}

// The preview of a track's head: ended before obstacles, round them, and with what makes way, up to 12 mm from ends of open links.
func BenchmarkHead(b *testing.B) {
	for _, manner := range []route.Manner{route.Stop, route.GoAround, route.MoveThem} {
		b.Run(string(manner), func(b *testing.B) {
			each(b, func(b *testing.B, _ int, d *design.Doc) {
				w := workbench.Open(d, 0)
				f := w.Field()
				type start struct {
					at  geom.Point
					net design.ID
				}
				var starts []start
				for net, c := range w.All().Links {
					for _, l := range c.Come {
						starts = append(starts, start{l.A, net})
					}
				}
				report(b, 300, func(i int) {
					s := starts[i*7919%len(starts)]
					f.Head(route.Drawing{Net: s.net, Style: route.StraightFirst, Manner: manner, From: s.at, Layer: 0, To: s.at.Add(geom.Pt(int64(i%25-12)*1_000_000, int64(i%17-8)*1_000_000))})
				})
			})
		})
	}
}
