package depot_test

import (
	"context"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/ordering"
	"goldentrace/standin/depot"
	"goldentrace/standin/depot/goods"
)

func number(name string, v float64, unit string) ordering.Property {
	return ordering.Property{Name: name, Unit: unit, Value: v, Text: ordering.Quantity(v, unit), Number: true}
}

func offer(packaging string, least int, prices ...int64) ordering.Offer {
	o := ordering.Offer{Packaging: packaging, Minimum: least, Multiple: 1}
	for i, p := range prices {
		o.Breaks = append(o.Breaks, ordering.Break{From: least * []int{1, 10, 100}[i], Price: p})
	}
	if packaging == ordering.Reel {
		o.Multiple = least
	}
	return o
}

// few are parts of which everything is known by heart.
func few() []ordering.Part {
	r := func(n string, ohms float64, pack string, stock int, placed bool, offers ...ordering.Offer) ordering.Part {
		return ordering.Part{Number: n, Maker: "Quillfeather", MakerNumber: "QF-" + n, Family: "resistor", Text: "Resistor", Package: pack, Status: "made", Stock: stock, Placed: placed,
			Properties: []ordering.Property{number("resistance", ohms, "Ω"), number("tolerance", 1, "%")}, Offers: offers}
	}
	sized := func(p ordering.Part, length, pitch int64, pins int) ordering.Part {
		p.Body = ordering.Body{Length: length, Pitch: pitch, Pins: pins}
		return p
	}
	c := r("C1", 0, "0603", 10, false, offer("cut tape", 1, 90_000))
	c.Family, c.Text, c.Maker, c.Properties = "capacitor", "Capacitor", "Sennick", []ordering.Property{number("capacitance", 4.7e-6, "F")}
	return []ordering.Part{
		r("R1", 4700, "0603", 1000, true, offer("cut tape", 1, 10_000, 6_000, 2_000), offer("full reel", 5000, 1_000)),
		r("R2", 4700, "0805", 0, false, offer("cut tape", 100, 4_000, 3_000)),
		sized(r("R3", 10_000, "0603", 50, false, offer("cut tape", 1, 8_000, 7_000, 6_000)), 1_600_000, 1_540_000, 2),
		sized(r("R4", 22_000, "0603", 9000, true, offer("full reel", 4000, 500)), 3_200_000, 0, 4),
		r("R5", 33_000, "0402", 0, false),
		c,
	}
}

func open(t *testing.T, of func() []ordering.Part) *depot.Stock {
	t.Helper()
	s, err := depot.Open(context.Background(), filepath.Join(t.TempDir(), "books.db"), 1, of)
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func ask(t *testing.T, s *depot.Stock, q ordering.Query) (*ordering.Answer, string) {
	t.Helper()
	a, err := s.Search(context.Background(), &q)
	require.NoError(t, err)
	var list []string
	for _, r := range a.Rows {
		list = append(list, r.Number)
	}
	return a, strings.Join(list, " ")
}

func counts(list []ordering.Count) map[string]int {
	out := map[string]int{}
	for _, c := range list {
		out[c.Text] = c.Count
	}
	return out
}

func facet(a *ordering.Answer, name string) map[string]int {
	for _, f := range a.Facets {
		if f.Name == name {
			return counts(f.Values)
		}
	}
	return nil
}

func TestWordsAsPeopleWriteThem(t *testing.T) {
	s := open(t, few)
	for words, want := range map[string]string{
		"4k7": "R1 R2", "4.7k": "R1 R2", "4.7 kΩ": "R1 R2", "4k7 0805": "R2", "qf-r1": "R1", "QFR3": "R3", "10k": "R3", "sennick": "C1", "4.7u": "C1", "4u7": "C1", "4.7µF": "C1",
		"capacitor 0603": "C1", "nothing of it": "", `"; DROP TABLE part; --`: "", "r3 OR r1": "", "%": "C1 R1 R3 R2 R5", "": "C1 R1 R3 R2 R5",
	} {
		_, list := ask(t, s, ordering.Query{Words: words, Sort: "number"})
		assert.ElementsMatch(t, strings.Fields(want), strings.Fields(list), words)
	}
}

func TestFiltersAndTheirCounts(t *testing.T) {
	s := open(t, few)
	a, list := ask(t, s, ordering.Query{Sort: "number"})
	assert.Equal(t, "C1 R1 R2 R3 R5", list, "what comes in full reels only is out of the way; what is not sold at all is shown")
	assert.Equal(t, map[string]int{"resistor": 4, "capacitor": 1}, counts(a.Families))
	assert.Equal(t, map[string]int{"cut tape": 4, "full reel": 2}, facet(a, "packaging"), "R1 and R4 come in reels")
	assert.Nil(t, facet(a, "resistance"), "properties are those of a family")

	a, list = ask(t, s, ordering.Query{Family: "resistor", Is: map[string][]string{"package": {"0603"}}, Sort: "number", Reels: true})
	assert.Equal(t, "R1 R3 R4", list)
	assert.Equal(t, map[string]int{"resistor": 3, "capacitor": 1}, counts(a.Families), "were no family chosen")
	assert.Equal(t, map[string]int{"0603": 3, "0805": 1, "0402": 1}, facet(a, "package"), "were no package chosen")
	assert.Equal(t, map[string]int{"4.7 kΩ": 1, "10 kΩ": 1, "22 kΩ": 1}, facet(a, "resistance"))

	a, list = ask(t, s, ordering.Query{Family: "resistor", Least: map[string]float64{"resistance": 10e3}, Most: map[string]float64{"resistance": 22e3}, Sort: "number", Reels: true})
	assert.Equal(t, "R3 R4", list, "bounds count themselves")
	assert.Equal(t, map[string]int{"4.7 kΩ": 2, "10 kΩ": 1, "22 kΩ": 1, "33 kΩ": 1}, facet(a, "resistance"), "were there no bounds")
	assert.Equal(t, map[string]int{"0603": 2}, facet(a, "package"))

	_, list = ask(t, s, ordering.Query{InStock: true, Quantity: 51, Sort: "number"})
	assert.Equal(t, "R1", list, "the whole quantity is in stock")
	_, list = ask(t, s, ordering.Query{InStock: true, Quantity: 50, Sort: "number"})
	assert.Equal(t, "R1 R3", list)
	_, list = ask(t, s, ordering.Query{Placed: true, Reels: true, Sort: "number"})
	assert.Equal(t, "R1 R4", list)
	_, list = ask(t, s, ordering.Query{Is: map[string][]string{"packaging": {"full reel"}}, Sort: "number"})
	assert.Equal(t, "R1 R4", list)
	_, list = ask(t, s, ordering.Query{Numbers: []string{"R3", "C1", "none"}, Sort: "number"})
	assert.Equal(t, "C1 R3", list)
	_, list = ask(t, s, ordering.Query{Is: map[string][]string{"resistance": {"10 kΩ", "1 MΩ"}}})
	assert.Equal(t, "R3", list)
}

// Bodies are filtered by too: R3 is 1.6 mm long with two leads 1.54 mm apart, R4 3.2 mm with four; nothing is said of the others.
func TestBodiesAreFilteredBy(t *testing.T) {
	s := open(t, few)
	a, list := ask(t, s, ordering.Query{Family: "resistor", Reels: true, Least: map[string]float64{"body length": 0.0015}, Sort: "body length", Down: true})
	assert.Equal(t, "R4 R3", list)
	assert.Equal(t, map[string]int{"1.6 mm": 1, "3.2 mm": 1}, facet(a, "body length"))
	assert.Equal(t, map[string]int{"2": 1, "4": 1}, facet(a, "leads"))
	assert.Equal(t, map[string]int{"1.54 mm": 1}, facet(a, "lead pitch"))
	assert.Empty(t, facet(a, "body height"))
	_, list = ask(t, s, ordering.Query{Reels: true, Is: map[string][]string{"leads": {"4"}}})
	assert.Equal(t, "R4", list)
}

// At 25 pieces: R1 costs 6,000 each, 150,000 in all; R3 7,000; C1 90,000 each; R2 has to be bought by the hundred, 400,000.
func TestOrders(t *testing.T) {
	s := open(t, few)
	a, list := ask(t, s, ordering.Query{Quantity: 25, Sort: "price"})
	assert.Equal(t, "R1 R3 R2 C1 R5", list, "what is not sold comes last")
	assert.Equal(t, &ordering.Cost{Packaging: "cut tape", Pieces: 25, Each: 6_000, Total: 150_000}, a.Rows[0].Cost)
	assert.Equal(t, &ordering.Cost{Packaging: "cut tape", Pieces: 100, Each: 4_000, Total: 400_000}, a.Rows[2].Cost)
	assert.Nil(t, a.Rows[4].Cost)
	_, list = ask(t, s, ordering.Query{Quantity: 25, Sort: "price", Down: true})
	assert.Equal(t, "C1 R2 R3 R1 R5", list)
	_, list = ask(t, s, ordering.Query{Quantity: 25})
	assert.Equal(t, "R1 R3 R2 C1 R5", list, "what is in stock first: C1 has 10, R2 and R5 none")
	_, list = ask(t, s, ordering.Query{Quantity: 25, Family: "resistor", Sort: "resistance", Down: true})
	assert.Equal(t, "R5 R3 R1 R2", list)
	_, list = ask(t, s, ordering.Query{Sort: "stock", Down: true})
	assert.Equal(t, "R1 R3 C1 R2 R5", list)
	_, list = ask(t, s, ordering.Query{Sort: "number", Down: true})
	assert.Equal(t, "R5 R3 R2 R1 C1", list)
	a, list = ask(t, s, ordering.Query{Sort: "number", Skip: 1, Limit: 2})
	assert.Equal(t, "R1 R2", list)
	assert.Equal(t, 5, a.Found)
	_, list = ask(t, s, ordering.Query{Sort: "number", Skip: 50})
	assert.Empty(t, list)
}

// The first of many are those that sorting all of them gives.
func TestTheFirstOfMany(t *testing.T) {
	s := open(t, goods.All)
	for _, q := range []ordering.Query{{Sort: "price", Quantity: 30}, {Sort: "stock", Down: true}, {Family: "resistor", Sort: "resistance", Down: true}} {
		q.Limit = 7
		var parts []string
		for q.Skip = 0; q.Skip < 35; q.Skip += 7 {
			_, list := ask(t, s, q)
			parts = append(parts, list)
		}
		q.Skip, q.Limit = 0, 35
		_, whole := ask(t, s, q)
		assert.Equal(t, whole, strings.Join(parts, " "), q.Sort)
	}
}

func TestWhatCannotBeAsked(t *testing.T) {
	s := open(t, few)
	for say, q := range map[string]ordering.Query{
		"no family called": {Family: "cheese"}, "nothing called \"smell\" to filter": {Is: map[string][]string{"smell": {"good"}}}, "no number called": {Least: map[string]float64{"maker": 1}},
		"nothing called \"smell\" to sort": {Sort: "smell"}, "up to 200 rows": {Limit: 201}, "between 1 and": {Quantity: -1}, "too many words": {Words: strings.Repeat("x", 501)},
	} {
		_, err := s.Search(context.Background(), &q)
		assert.ErrorContains(t, err, say)
	}
	_, err := s.Parts(context.Background(), make([]string, ordering.MostNumbers+1))
	assert.ErrorContains(t, err, "up to 2000 numbers")
	list, err := s.Parts(context.Background(), []string{"R3", "none", "C1", "R3"})
	require.NoError(t, err)
	require.Len(t, list, 2)
	assert.Equal(t, "R3", list[0].Number)
	assert.Equal(t, "C1", list[1].Number)
}

// Books of another version are made anew; those of this one are not.
func TestBooksAreMadeOnce(t *testing.T) {
	file := filepath.Join(t.TempDir(), "books.db")
	made := 0
	of := func() []ordering.Part { made++; return few()[:made] }
	for _, v := range []int{1, 1, 2} {
		s, err := depot.Open(context.Background(), file, v, of)
		require.NoError(t, err)
		_, list := ask(t, s, ordering.Query{Sort: "number"})
		assert.Equal(t, map[int]string{1: "R1", 2: "R1 R2"}[made], list)
		require.NoError(t, s.Close())
	}
	assert.Equal(t, 2, made)
}
