// Package bench measures the work that a hand waits for, on designs of 100, 1,000 and 10,000
// parts, and how its cost grows. Where there is a reference, it is measured in the same run.
package bench

import (
	"context"
	"encoding/json"
	"fmt"
	"maps"
	"math"
	"os"
	"path/filepath"
	"runtime/debug"
	"slices"
	"testing"
	"time"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
	"goldentrace/store"
)

func TestMain(m *testing.M) {
	debug.SetGCPercent(300) // as serve does
	os.Exit(m.Run())
}

var sizes = []int{100, 1000, 10000}

func each(b *testing.B, f func(b *testing.B, n int, d *design.Doc)) {
	for _, n := range sizes {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			d, err := synthetic.Design(n)
			if err != nil {
				b.Fatal(err)
			}
			f(b, n, d)
		})
	}
}

// report gives the median and the 95th percentile in milliseconds of work done several times.
func report(b *testing.B, times int, work func(i int)) {
	b.Helper()
	var took []float64
	b.ResetTimer()
	for i := range times {
		start := time.Now()
		work(i)
		took = append(took, float64(time.Since(start).Microseconds())/1000)
	}
	b.StopTimer()
	slices.Sort(took)
	b.ReportMetric(took[len(took)/2], "ms/median")
	b.ReportMetric(took[int(math.Ceil(0.95*float64(len(took))))-1], "ms/p95")
	b.ReportMetric(0, "ns/op")
}

func first[T any](seq func(func(T) bool)) (out T) {
	for v := range seq {
		return v
	}
	return out
}

// An edit's round trip without the network: command, disk (SQLite, synchronous=FULL), and
// everything derived.
func BenchmarkEditRoundTrip(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		s, err := store.Open(filepath.Join(b.TempDir(), "data"))
		if err != nil {
			b.Fatal(err)
		}
		defer func() { _ = s.Close() }()
		ctx := context.Background()
		id, err := s.Create(ctx, "bench", d)
		if err != nil {
			b.Fatal(err)
		}
		w := workbench.Open(d, 0)
		placed := first(d.Placed.All())
		run := func(step geom.Point, i int) {
			cs, err := w.Edit(&edit.MovePlaced{IDs: []design.ID{placed.ID}, Step: step})
			if err != nil {
				b.Fatal(err)
			}
			if err := s.Commit(ctx, id, store.Entry{Revision: w.Rev, Made: time.Now(), Act: "movePlaced", Changes: cs}, d.Next); err != nil {
				b.Fatal(err)
			}
			w.Settle()
		}
		report(b, 200, func(i int) { run(geom.Pt(int64(1-2*(i%2))*635_000, 0), i) })
	})
}

// The preview of a track being drawn and of a part being dragged.
func BenchmarkPreviewTrack(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		w := workbench.Open(d, 0)
		f := route.Field{Doc: d, Index: w.Index(), Rules: w.Rules()}
		type start struct {
			at  geom.Point
			net design.ID
		}
		var starts []start
		all := w.All().Links
		for _, net := range slices.Sorted(maps.Keys(all)) {
			for _, l := range all[net].Come {
				starts = append(starts, start{l.A, net})
			}
		}
		report(b, 500, func(i int) { // from a pad somewhere to the hand, up to 30 mm away, free or blocked
			l := starts[i*7919%len(starts)]
			f.Draw(l.at, l.at.Add(geom.Pt(int64(i%61-30)*1_000_000, int64(i%47-23)*1_000_000)), route.StraightFirst, i%2, l.net, 200_000)
		})
	})
}

func BenchmarkPreviewDrag(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		w := workbench.Open(d, 0)
		p := first(d.Placed.All())
		report(b, 100, func(i int) {
			w.Drag([]design.ID{p.ID}, geom.Pt(int64(i)*100_000, 0), geom.Point{}, 0, edit.TracksAlong)
		})
	})
}

// Open links of a ground net of about 10,000 pieces, joined and half joined: from scratch, and after a track
// of it came or went.
func BenchmarkLinks(b *testing.B) {
	for _, state := range []string{"joined", "half"} {
		b.Run(state, func(b *testing.B) {
			d, err := synthetic.Design(2400)
			if err != nil {
				b.Fatal(err)
			}
			net := d.NetNamed("GND").ID
			var tracks []*design.Track
			for t := range d.Tracks.All() {
				if t.Net == net {
					tracks = append(tracks, t)
				}
			}
			if state == "half" {
				for i, t := range tracks {
					if i%2 == 0 {
						d.Remove(design.KindTrack, t.ID)
					}
				}
			}
			x := layout.NewIndex(d)
			all := x.ObjectsOf(net)
			var links *layout.NetLinks
			b.Run("scratch", func(b *testing.B) {
				report(b, 5, func(int) {
					links = layout.NewNetLinks(net)
					links.Update(x, maps.Keys(all))
				})
				b.ReportMetric(float64(links.Len()), "pieces")
				b.ReportMetric(float64(len(links.Links())), "links")
			})
			b.Run("edit", func(b *testing.B) {
				report(b, 300, func(i int) {
					t := tracks[i/2*7919%len(tracks)]
					if i%2 == 0 {
						x.Remove(t.ID)
					} else {
						x.Put(d, t)
					}
					links.Update(x, maps.Keys(map[design.ID]bool{t.ID: true}))
				})
			})
		})
	}
}

// The full design-rule check, beside brute force over all pairs in the same run.
func BenchmarkFullCheck(b *testing.B) {
	each(b, func(b *testing.B, n int, d *design.Doc) {
		x := layout.NewIndex(d)
		c := check.NewBoard(d, x, rules.Of(d))
		report(b, 5, func(int) { c.All() })
		if n <= 1000 {
			start := time.Now()
			bruteForce(d, x)
			b.ReportMetric(float64(time.Since(start).Microseconds())/1000, "ms/bruteForce")
		}
	})
}

func bruteForce(d *design.Doc, x *layout.Index) int {
	pieces := slices.Collect(x.All())
	found, clearance := 0, float64(d.Numbers()[design.Clearance])
	for i, p := range pieces {
		for _, q := range pieces[:i] {
			if p.Net == q.Net && p.Net != 0 || p.Layers&q.Layers == 0 || p.ID == q.ID {
				continue
			}
			if gap, _, _ := geom.Gap(p.Shape, q.Shape); gap < clearance {
				found++
			}
		}
	}
	return found
}

// The check after one edit.
func BenchmarkCheckAfterEdit(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		w := workbench.Open(d, 0)
		p := first(d.Placed.All())
		c := check.NewBoard(d, w.Index(), w.Rules())
		report(b, 300, func(int) { c.Update(map[design.ID]bool{p.ID: true}) })
	})
}

// A rule's number changed, to and fro, until the findings are up to date.
func BenchmarkRuleChange(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		w := workbench.Open(d, 0)
		report(b, 40, func(i int) {
			n := int64(200_000)
			if i%2 == 0 {
				n = 210_000
			}
			if _, err := w.Edit(&edit.SetRules{Rules: map[design.RuleKind]int64{design.Clearance: n}}); err != nil {
				b.Fatal(err)
			}
			w.Settle()
		})
	})
}

// A net of 30,000 pieces more than the design has is renamed, to and fro, until all that follows is up
// to date; and how much of it goes to the journal.
func BenchmarkRenameNet(b *testing.B) {
	d, err := synthetic.Design(1000)
	if err != nil {
		b.Fatal(err)
	}
	net := d.NetNamed("GND").ID
	for i := range 30_000 {
		at := geom.Pt(int64(i%200)*500_000, int64(i/200)*500_000)
		d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Bottom(), A: at, B: at.Add(geom.Pt(500_000, 0)), Width: 250_000, Net: net})
	}
	w := workbench.Open(d, 0)
	w.Settle()
	size := 0
	report(b, 20, func(i int) {
		names := []string{"GND", "VSS"}
		cs, err := w.Edit(&edit.RenameNet{Net: names[i%2], To: names[1-i%2]})
		if err != nil {
			b.Fatal(err)
		}
		w.Settle()
		text, _ := json.Marshal(cs)
		size = max(size, len(text))
	})
	b.ReportMetric(float64(size)/1000, "kB/journal")
}

// Opening a project: from the disk until it can be worked on, and what of it is found beside the hand then.
func BenchmarkOpen(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		s, err := store.Open(filepath.Join(b.TempDir(), "data"))
		if err != nil {
			b.Fatal(err)
		}
		defer func() { _ = s.Close() }()
		id, err := s.Create(context.Background(), "bench", d)
		if err != nil {
			b.Fatal(err)
		}
		var later []workbench.Beside
		var w *workbench.Bench
		report(b, 3, func(int) {
			loaded, err := s.Load(context.Background(), id)
			if err != nil {
				b.Fatal(err)
			}
			later = nil
			w = workbench.OpenWith(loaded.Doc, loaded.Revision, func(*workbench.Bench) func(workbench.Beside) {
				return func(x workbench.Beside) { later = append(later, x) }
			})
		})
		begun := time.Now()
		for len(later) > 0 {
			x := later[0]
			later = later[1:]
			x.Run(context.Background(), func(float64) {})()
			w.Settle()
		}
		b.ReportMetric(float64(time.Since(begun).Milliseconds()), "ms/checkedBeside")
	})
}

// Producing all files and the zip.
func BenchmarkHandoff(b *testing.B) {
	each(b, func(b *testing.B, _ int, d *design.Doc) {
		x := layout.NewIndex(d)
		report(b, 3, func(int) {
			files, err := handoff.Make(context.Background(), d, x, "bench", time.Now(), nil)
			if err != nil {
				b.Fatal(err)
			}
			if _, err := handoff.Zip(files, time.Now()); err != nil {
				b.Fatal(err)
			}
		})
	})
}
