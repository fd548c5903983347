package bench

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"github.com/twpayne/go-geos"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// strewn is a board with an area over all of it and so many foreign tracks of up to 4 mm, one to 4 mm².
func strewn(n int) (*design.Doc, pour.Key) {
	d := design.New("Strewn")
	d.Next = 1000
	side := int64(math.Sqrt(float64(4*n)) * 1e6)
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(side, 0), geom.Pt(side, side), geom.Pt(0, side))
	d.Put(&b)
	d.Put(&design.Net{ID: 900, Name: "GND"})
	d.Put(&design.Net{ID: 901, Name: "SIG"})
	r := rand.New(rand.NewPCG(7, 9))
	top := d.Board.Top()
	for range n {
		a := geom.Pt(r.Int64N(side), r.Int64N(side))
		sin, cos := math.Sincos(float64(r.IntN(8)) * math.Pi / 4)
		l := 1e6 + 3e6*r.Float64()
		d.Put(&design.Track{ID: d.NewID(), Layer: top, A: a, B: a.Add(geom.Pt(int64(l*cos), int64(l*sin))), Width: 250_000, Net: 901})
	}
	p := &design.Pour{ID: d.NewID(), Name: "GND", Net: 900, Layers: []design.LayerID{top}, Islands: design.IslandsStay}
	d.Put(p)
	return d, pour.Key{Pour: p.ID, Layer: top}
}

// BenchmarkFill fills an area among 10,000 tracks in tiles, and by the library's overlay in one piece.
func BenchmarkFill(b *testing.B) {
	d, k := strewn(10_000)
	x, set := layout.NewIndex(d), rules.Of(d)
	for range b.N {
		begun := time.Now()
		f, err := pour.Of(context.Background(), d, x, set, nil)
		require.NoError(b, err)
		tiles := time.Since(begun)
		sum := 0.0
		for _, i := range f.Islands(k) {
			sum += i.Size
		}
		begun = time.Now()
		c := geos.NewContext()
		n := d.Numbers()
		var all []*geos.Geom
		for t := range d.Tracks.All() {
			line := c.NewLineString([][]float64{{float64(t.A.X), float64(t.A.Y)}, {float64(t.B.X), float64(t.B.Y)}})
			all = append(all, line.Buffer(float64(t.Width/2+n[design.Clearance]), 16))
		}
		kept := c.NewCollection(geos.TypeIDMultiPolygon, all).UnaryUnionPrec(1)
		o := d.Board.Outline
		edge := float64(n[design.EdgeClearance])
		room := c.NewGeomFromBounds(float64(o[0].X)+edge, float64(o[0].Y)+edge, float64(o[2].X)-edge, float64(o[2].Y)-edge)
		half := float64(n[design.LeastWidth]) / 2
		whole := room.DifferencePrec(kept, 1).Buffer(-half, 8).Buffer(half, 8)
		one := time.Since(begun)
		b.ReportMetric(tiles.Seconds(), "s/tiles")
		b.ReportMetric(one.Seconds(), "s/one-piece")
		b.ReportMetric(one.Seconds()/tiles.Seconds(), "ratio")
		b.ReportMetric(math.Abs(sum/whole.Area()-1)*100, "%area")
	}
}

// BenchmarkRefill moves a track beneath an area and fills what follows from it.
func BenchmarkRefill(b *testing.B) {
	for _, n := range []int{8_000, 80_000} {
		b.Run(fmt.Sprint(n), func(b *testing.B) { refill(b, n, nil) })
		b.Run(fmt.Sprint(n, " with teardrops"), func(b *testing.B) {
			refill(b, n, &design.Teardrops{Length: 600, Breadth: 900, Most: 1_000_000, On: design.TeardropThings})
		})
	}
}

func refill(b *testing.B, n int, like *design.Teardrops) {
	d, _ := strewn(n)
	board := *d.Board
	board.Teardrops = like
	d.Put(&board)
	x, set := layout.NewIndex(d), rules.Of(d)
	f, err := pour.Of(context.Background(), d, x, set, nil)
	require.NoError(b, err)
	var tracks []*design.Track
	for t := range d.Tracks.All() {
		tracks = append(tracks, t)
	}
	report(b, 200, func(i int) {
		t := tracks[i*len(tracks)/200]
		q := *t
		q.A, q.B = q.A.Add(geom.Pt(300_000, 0)), q.B.Add(geom.Pt(300_000, 0))
		for _, put := range []*design.Track{t, &q} {
			d.Put(put)
			x.Put(d, put)
			for _, c := range x.Of(put.ID) {
				f.Near(c.Box(), c.Layers)
			}
		}
		_, err := f.Fill(context.Background(), nil)
		require.NoError(b, err)
	})
}

// BenchmarkPoured edits boards with a ground area on each of four layers: what the hand waits for, and how long until the areas have followed.
func BenchmarkPoured(b *testing.B) {
	for _, n := range []int{1_000, 10_000} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			d, err := synthetic.Design(n)
			require.NoError(b, err)
			stack, _, err := d.Board.WithLayers(4)
			require.NoError(b, err)
			d.Put(stack)
			var layers []design.LayerID
			for _, l := range d.Board.Copper() {
				layers = append(layers, l.ID)
			}
			d.Put(&design.Pour{ID: d.NewID(), Name: "GND", Net: d.NetNamed("GND").ID, Layers: layers})
			var wait []workbench.Beside
			begun := time.Now()
			w := workbench.OpenWith(d, 0, func(*workbench.Bench) func(workbench.Beside) {
				return func(x workbench.Beside) { wait = append(wait, x) }
			})
			opened := time.Since(begun)
			follow := func() {
				for len(wait) > 0 {
					x := wait[0]
					wait = wait[1:]
					x.Run(context.Background(), func(float64) {})()
					w.Settle()
				}
			}
			begun = time.Now()
			follow()
			filled := time.Since(begun)
			var parts []*design.Placed
			for p := range d.Placed.All() {
				parts = append(parts, p)
			}
			var hand []float64
			report(b, 60, func(i int) {
				begun := time.Now()
				_, err := w.Edit(&edit.MovePlaced{IDs: []design.ID{parts[i*len(parts)/60].ID}, Step: geom.Pt(100_000, 0)})
				require.NoError(b, err)
				w.Settle()
				hand = append(hand, float64(time.Since(begun).Microseconds())/1000)
				follow()
			})
			slices.Sort(hand)
			b.ReportMetric(hand[57], "ms/p95-hand")
			b.ReportMetric(opened.Seconds(), "s/opened")
			b.ReportMetric(filled.Seconds(), "s/filled")
		})
	}
}
