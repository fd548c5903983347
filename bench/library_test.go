package bench

import (
	"context"
	"fmt"
	"path/filepath"
	"testing"

	"goldentrace/core/design"
	"goldentrace/core/library"
	"goldentrace/core/ordering"
	"goldentrace/standin/depot"
	"goldentrace/standin/depot/goods"
)

// manyParts is a library of n parts: the shipped ones again and again, with names, values and descriptions of their own.
func manyParts(n int) *library.Catalog {
	shipped := library.All()
	items := make([]library.Item, n)
	for i := range items {
		it := shipped[i%len(shipped)]
		p := *it.Part
		p.Origin = design.Origin{Library: "workspace", Version: 1}
		p.Name = fmt.Sprintf("%s HX-%05d", p.Name, i)
		p.Description = fmt.Sprintf("%s, lot %d, drawer %d", p.Description, i%97, i%1013)
		it.Part = &p
		items[i] = it
	}
	return library.NewCatalog(items)
}

// BenchmarkFindingParts: what is typed into the list of parts, letter by letter and whole, in a library of 50,000.
func BenchmarkFindingParts(b *testing.B) {
	c := manyParts(50_000)
	queries := []string{"", "r", "re", "res", "resistor", "resistor 0603", "0603", "8 pins", "SOIC*", "*600*", "drawer 77", "lot 5 capacitor", "hx-04711", "amplifier SOIC 8 pins", "nothing of this kind"}
	for _, q := range queries {
		b.Run(fmt.Sprintf("%q", q), func(b *testing.B) { report(b, 40, func(int) { c.Search(q, 500) }) })
	}
}

// BenchmarkFindingInTheDepot: what is typed and chosen in the depot's view, over its whole range, counts of all filters included.
func BenchmarkFindingInTheDepot(b *testing.B) {
	s, err := depot.Open(context.Background(), filepath.Join(b.TempDir(), "books.db"), goods.Version, goods.All)
	if err != nil {
		b.Fatal(err)
	}
	defer func() { _ = s.Close() }()
	is := func(pairs ...string) map[string][]string {
		out := map[string][]string{}
		for i := 0; i < len(pairs); i += 2 {
			out[pairs[i]] = append(out[pairs[i]], pairs[i+1])
		}
		return out
	}
	for _, x := range []struct {
		name string
		q    ordering.Query
	}{
		{"everything", ordering.Query{}}, {"r", ordering.Query{Words: "r"}}, {"resistor", ordering.Query{Words: "resistor"}}, {"10k 0603", ordering.Query{Words: "10k 0603"}}, {"100n 25 V", ordering.Query{Words: "100n 25 V"}},
		{"in stock, placed", ordering.Query{InStock: true, Placed: true, Quantity: 250}}, {"family", ordering.Query{Family: "resistor", Quantity: 25, InStock: true}},
		{"family by price", ordering.Query{Family: "resistor", Quantity: 25, Sort: "price"}}, {"family by value", ordering.Query{Family: "ceramic capacitor", Sort: "capacitance", Down: true}},
		{"filters", ordering.Query{Family: "resistor", Quantity: 25, Is: is("package", "0603", "package", "0805", "tolerance", "1 %"), Least: map[string]float64{"resistance": 1e3}, Most: map[string]float64{"resistance": 1e5}}},
		{"nothing", ordering.Query{Words: "nothing of this kind"}}, {"last page", ordering.Query{Skip: 20_000, Sort: "price"}},
	} {
		b.Run(x.name, func(b *testing.B) {
			report(b, 40, func(int) {
				if _, err := s.Search(context.Background(), &x.q); err != nil {
					b.Fatal(err)
				}
			})
		})
	}
}
