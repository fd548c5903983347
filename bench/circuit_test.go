package bench

import (
	"context"
	"encoding/json"
	"fmt"
	"path/filepath"
	"testing"
	"time"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/library"
	"goldentrace/core/paper"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
	"goldentrace/store"
)

// eachCircuit runs on circuits of 50 parts a sheet, all sheets below one of blocks.
func eachCircuit(b *testing.B, f func(b *testing.B, n int, d *design.Doc)) {
	for _, n := range []int{100, 1000, 5000, 10000} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			d, err := synthetic.Circuit(n, 50)
			if err != nil {
				b.Fatal(err)
			}
			f(b, n, d)
		})
	}
}

// Moving a part in the circuit with its wires: command, disk, everything derived, and the
// message that tells it. The references in the same run: finding all nets, and checking
// everything, from scratch.
func BenchmarkCircuitEdit(b *testing.B) {
	eachCircuit(b, func(b *testing.B, _ int, d *design.Doc) {
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
		var parts []*design.Part
		for p := range d.Parts.All() {
			parts = append(parts, p)
		}
		report(b, 200, func(i int) {
			p := parts[i/2*977%len(parts)]
			cs, err := w.Edit(&edit.MoveItems{IDs: []design.ID{p.ID}, Step: geom.Pt(0, int64(1-2*(i%2))*2_500_000)})
			if err != nil {
				b.Fatal(err)
			}
			if err := s.Commit(ctx, id, store.Entry{Revision: w.Rev, Made: time.Now(), Act: "moveItems", Changes: cs}, d.Next); err != nil {
				b.Fatal(err)
			}
			if _, err := json.Marshal(w.Settle()); err != nil {
				b.Fatal(err)
			}
		})
		start := time.Now()
		n := circuit.Find(d)
		b.ReportMetric(float64(time.Since(start).Microseconds())/1000, "ms/netsFromScratch")
		start = time.Now()
		n.Findings(d)
		b.ReportMetric(float64(time.Since(start).Microseconds())/1000, "ms/fullCheck")
	})
}

// Drawing a sheet for somebody who opens it: marks and the message with them.
func BenchmarkOpenSheet(b *testing.B) {
	eachCircuit(b, func(b *testing.B, _ int, d *design.Doc) {
		n := circuit.Find(d)
		report(b, 100, func(i int) {
			page := paper.PageOf(d, n, n.Tree.Uses[i*31%len(n.Tree.Uses)])
			if _, err := json.Marshal(page); err != nil {
				b.Fatal(err)
			}
		})
	})
}

// The preview of dragging 200 parts with all that hangs on them, on a sheet of 1,000.
func BenchmarkPreviewMove200(b *testing.B) {
	d, err := synthetic.Circuit(1000, 1000)
	if err != nil {
		b.Fatal(err)
	}
	n := circuit.Find(d)
	sel := map[design.ID]bool{}
	var sheet design.ID
	for p := range d.Parts.All() {
		if len(sel) < 200 {
			sel[p.ID], sheet = true, p.Sheet
		}
	}
	report(b, 60, func(i int) {
		next := d.Next
		circuit.Move(d, n.Views[sheet], sel, circuit.By(geom.Pt(int64(i%9-4)*2_500_000, int64(i%5-2)*2_500_000)), func() design.ID { next++; return next })
	})
}

// Finding parts as somebody types, over 50,000.
func BenchmarkSearch(b *testing.B) {
	base := library.All()
	items := make([]library.Item, 50_000)
	for i := range items {
		it := base[i%len(base)]
		p := *it.Part
		p.Name = fmt.Sprintf("%s %05d", p.Name, i)
		items[i] = library.Item{Part: &p, Symbol: it.Symbol, Footprint: it.Footprint, Units: it.Units}
	}
	c := library.NewCatalog(items)
	queries := []string{"r", "re", "res", "resistor 0603", "0805 100n", "so*-8", "8 pins amp", "cap* 123"}
	report(b, 160, func(i int) { c.Search(queries[i%len(queries)], 80) })
}

// Printing all sheets as PDF.
func BenchmarkPrint(b *testing.B) {
	eachCircuit(b, func(b *testing.B, n int, d *design.Doc) {
		if n > 5000 {
			b.Skip("as many pages as a book")
		}
		nets := circuit.Find(d)
		report(b, 1, func(int) {
			if _, _, err := paper.PDF(context.Background(), d, nets, time.Now(), func(float64) {}); err != nil {
				b.Fatal(err)
			}
		})
	})
}
