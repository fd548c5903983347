package bench

import (
	"fmt"
	"testing"

	"goldentrace/core/design"
	"goldentrace/core/library"
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
