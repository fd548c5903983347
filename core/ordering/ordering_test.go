package ordering_test

import (
	"bytes"
	"encoding/csv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/ordering"
)

// A cut tape from ten pieces on and a reel of 1000, with prices in millionths.
var (
	tape = ordering.Offer{Packaging: "cut tape", Minimum: 10, Multiple: 1, Breaks: []ordering.Break{{From: 10, Price: 50_000}, {From: 100,
		Price: 20_000}, {From: 500, Price: 10_000}}}
	reel = ordering.Offer{Packaging: "full reel", Minimum: 1000, Multiple: 1000, Breaks: []ordering.Break{{From: 1000, Price: 4_000},
		{From: 4000, Price: 3_000}}}
	both = []ordering.Offer{tape, reel}
)

func TestWhatSoManyCost(t *testing.T) {
	for _, x := range []struct {
		quantity      int
		reels         bool
		packaging     string
		pieces        int
		each, total   int64
		more, cheaper int64 // pieces that cost less, and what they cost
	}{
		{1, false, "cut tape", 10, 50_000, 500_000, 0, 0},
		{10, false, "cut tape", 10, 50_000, 500_000, 0, 0},
		{39, false, "cut tape", 39, 50_000, 1_950_000, 0, 0}, // 100 would be 2.00 €
		{41, false, "cut tape", 41, 50_000, 2_050_000, 100, 2_000_000},
		{99, false, "cut tape", 99, 50_000, 4_950_000, 100, 2_000_000}, // 500 would be 5.00 €
		{100, false, "cut tape", 100, 20_000, 2_000_000, 0, 0},
		{400, false, "cut tape", 400, 20_000, 8_000_000, 500, 5_000_000},
		{400, true, "full reel", 1000, 4_000, 4_000_000, 0, 0}, // and the tape 8.00 €
		{150, true, "cut tape", 150, 20_000, 3_000_000, 0, 0},
		{1001, true, "full reel", 2000, 4_000, 8_000_000, 0, 0},
		{3500, true, "full reel", 4000, 3_000, 12_000_000, 0, 0},
	} {
		var packagings []string
		if x.reels {
			packagings = ordering.Packagings
		}
		c, ok := ordering.Cheapest(both, x.quantity, packagings)
		require.True(t, ok)
		assert.Equal(t, ordering.Cost{Packaging: x.packaging, Pieces: x.pieces, Each: x.each, Total: x.total}, c, x.quantity)
		more, ok := ordering.Cheaper(both, c, packagings)
		assert.Equal(t, x.more > 0, ok, x.quantity)
		assert.Equal(t, int(x.more), more.Pieces, x.quantity)
		assert.Equal(t, x.cheaper, more.Total, x.quantity)
	}
	turned := []ordering.Offer{reel, tape} // in whatever order they are offered
	c, ok := ordering.Cheapest(turned, 41, nil)
	assert.True(t, ok)
	assert.Equal(t, "cut tape", c.Packaging)
	more, ok := ordering.Cheaper(turned, c, nil)
	assert.True(t, ok)
	assert.Equal(t, 100, more.Pieces)
	flat := ordering.Offer{Packaging: "tube", Minimum: 1, Multiple: 1, Breaks: []ordering.Break{{From: 1, Price: 10}, {From: 20, Price: 5},
		{From: 40, Price: 2}, {From: 50, Price: 2}}}
	c, _ = ordering.Cheapest([]ordering.Offer{flat}, 10, nil)
	assert.EqualValues(t, 100, c.Total)
	more, ok = ordering.Cheaper([]ordering.Offer{flat}, c, nil)
	assert.True(t, ok, "40 cost 80; 20 and 50 cost the same 100 as 10")
	assert.Equal(t, 40, more.Pieces)
	even := ordering.Offer{Packaging: "tube", Minimum: 1, Multiple: 1, Breaks: []ordering.Break{{From: 1, Price: 10}, {From: 20, Price: 5}}}
	_, ok = ordering.Cheaper([]ordering.Offer{even}, c, nil)
	assert.False(t, ok, "as much for more is not less")
	_, ok = ordering.Cheapest([]ordering.Offer{reel}, 5, nil)
	assert.False(t, ok, "full reels are out of the way")
	_, ok = ordering.Cheapest([]ordering.Offer{{Packaging: "tube"}}, 5, nil)
	assert.False(t, ok, "nothing is asked for it")
	c, ok = ordering.Cheapest([]ordering.Offer{reel}, 5, []string{"full reel"})
	assert.True(t, ok)
	assert.Equal(t, 1000, c.Pieces)
}

// Whatever is bought: it is enough, it is a multiple, no other offer costs less, and what is said to cost less does.
func TestBuyingProperties(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var offers []ordering.Offer
		for range rapid.IntRange(1, 4).Draw(t, "offers") {
			o := ordering.Offer{Packaging: rapid.SampledFrom(ordering.Packagings).Draw(t, "packaging"),
				Multiple: rapid.IntRange(1, 50).Draw(t, "multiple")}
			o.Minimum = o.Multiple * rapid.IntRange(1, 5).Draw(t, "minimum")
			from, price := o.Minimum, int64(rapid.IntRange(1000, 1_000_000).Draw(t, "price"))
			for range rapid.IntRange(1, 4).Draw(t, "breaks") {
				o.Breaks = append(o.Breaks, ordering.Break{From: from, Price: price})
				from, price = from*rapid.IntRange(2, 9).Draw(t, "step"), price*int64(rapid.IntRange(30, 95).Draw(t, "falls"))/100
			}
			offers = append(offers, o)
		}
		n := rapid.IntRange(1, 100_000).Draw(t, "quantity")
		best, ok := ordering.Cheapest(offers, n, ordering.Packagings)
		require.True(t, ok)
		require.GreaterOrEqual(t, best.Pieces, n)
		require.Equal(t, best.Each*int64(best.Pieces), best.Total)
		for i := range offers {
			c, _ := offers[i].For(n)
			require.Zero(t, c.Pieces%offers[i].Multiple)
			require.GreaterOrEqual(t, c.Pieces, offers[i].Minimum)
			require.LessOrEqual(t, best.Total, c.Total)
		}
		if more, ok := ordering.Cheaper(offers, best, ordering.Packagings); ok {
			require.Less(t, more.Total, best.Total)
			require.Greater(t, more.Pieces, best.Pieces)
		}
	})
}

func TestQuantitiesAsTheyAreWritten(t *testing.T) {
	for _, x := range []struct {
		value float64
		unit  string
		text  string
	}{
		{4700, "Ω", "4.7 kΩ"}, {1e-7, "F", "100 nF"}, {2.2e-5, "F", "22 µF"}, {0.0125, "W", "12.5 mW"}, {8e6, "Hz", "8 MHz"}, {1, "%",
			"1 %"}, {0.1, "%", "0.1 %"}, {85, "°C", "85 °C"},
		{0, "V", "0 V"}, {8, "", "8"}, {999.95, "Ω", "1000 Ω"}, {1e-12, "F", "1 pF"}, {1e10, "Ω", "10 GΩ"}, {52300, "Ω", "52.3 kΩ"}, {-40,
			"V", "-40 V"},
	} {
		assert.Equal(t, x.text, ordering.Quantity(x.value, x.unit))
	}
	for text, want := range map[string]struct {
		value float64
		unit  string
	}{
		"4k7": {4700, ""}, "52k3": {52300, ""}, "100n": {1e-7, ""}, "22 µF": {2.2e-5, "F"}, "22uF": {2.2e-5, "F"}, "8 MHz": {8e6,
			"Hz"}, "0.1 %": {0.1, "%"}, "2R2": {2.2, "Ω"}, "100 0.1 %": {100, ""},
		"22µ 1.2 A": {2.2e-5, ""}, "600 Ω": {600, "Ω"}, "63 mA": {0.063, "A"}, "2,5 V": {2.5, "V"}, "10K": {1e4, ""}, "47 ohm": {47, "Ω"},
	} {
		v, unit, ok := ordering.Read(text)
		require.True(t, ok, text)
		assert.InEpsilon(t, want.value, v, 1e-9, text)
		assert.Equal(t, want.unit, unit, text)
	}
	for _, text := range []string{"green", "", "BV99", "OM-2405", "4.7k7"} {
		_, _, ok := ordering.Read(text)
		assert.False(t, ok, text)
	}
}

func TestWhatAQueryMayAsk(t *testing.T) {
	many := func(n int) map[string]float64 {
		out := map[string]float64{}
		for i := range n {
			out[strings.Repeat("x", i+1)] = 1
		}
		return out
	}
	for say, q := range map[string][2]ordering.Query{ // what may just be asked, and what may not
		"too many words":        {{Words: strings.Repeat("x", 500)}, {Words: strings.Repeat("x", 501)}},
		"up to 2000 numbers":    {{Numbers: make([]string, 2000)}, {Numbers: make([]string, 2001)}},
		"between 1 and":         {{Quantity: ordering.MostPieces}, {Quantity: ordering.MostPieces + 1}},
		"1 and 10000000 pieces": {{Quantity: 0}, {Quantity: -1}},
		"up to 200 rows":        {{Limit: 200}, {Limit: 201}},
		"has up to 200 rows":    {{Skip: 0}, {Skip: -1}},
		"an answer has up":      {{Limit: 0}, {Limit: -1}},
		"too many filters":      {{Least: many(30), Most: many(30)}, {Least: many(30), Most: many(31)}},
		"are too many filters":  {{Is: map[string][]string{"a": nil}, Least: many(59)}, {Is: map[string][]string{"a": nil}, Least: many(60)}},
		"too many values of a":  {{Is: map[string][]string{"a": make([]string, 1000)}}, {Is: map[string][]string{"a": make([]string, 1001)}}},
	} {
		assert.NoError(t, q[0].Check(), say)
		assert.ErrorContains(t, q[1].Check(), say)
	}
}

func TestMoney(t *testing.T) {
	assert.Equal(t, "12.40 €", ordering.Euro(12_400_000))
	assert.Equal(t, "0.10 €", ordering.Euro(100_000))
	assert.Equal(t, "0.0042 €", ordering.Euro(4_200))
	assert.Equal(t, "0.000900 €", ordering.Euro(900))
	assert.Equal(t, "0.0010 €", ordering.Euro(1_000))
	assert.Equal(t, "0.0999 €", ordering.Euro(99_900))
	assert.Equal(t, "0.00 €", ordering.Euro(0))
}

func TestWhatIsAskedForAPart(t *testing.T) {
	for _, x := range []struct {
		library, prefix, value, footprint string
		want                              ordering.Query
	}{
		{"Resistor 0603", "R", "4k7", "0603", ordering.Query{Family: "resistor", Is: map[string][]string{"package": {"0603"},
			"resistance": {"4.7 kΩ"}}}},
		{"Resistor 1206", "R", "100 0.1 %", "1206", ordering.Query{Family: "resistor", Is: map[string][]string{"package": {"1206"},
			"resistance": {"100 Ω"}}}},
		{"Capacitor 0603", "C", "100n", "0603", ordering.Query{Family: "ceramic capacitor",
			Is: map[string][]string{"package": {"0603"}, "capacitance": {"100 nF"}}}},
		{"Ferrite bead", "L", "600 Ω", "0805", ordering.Query{Family: "ferrite bead", Is: map[string][]string{"package": {"0805"},
			"impedance at 100 MHz": {"600 Ω"}}}},
		{"LED 0805", "D", "green", "0805", ordering.Query{Family: "LED", Is: map[string][]string{"package": {"0805"}}, Words: "green"}},
		{"Clamp pair", "D", "BV99", "SOT-23", ordering.Query{Family: "diode", Is: map[string][]string{"package": {"SOT-23"}}, Words: "BV99"}},
		{"Suppressor SMA", "D", "33 V", "SMA", ordering.Query{Family: "suppressor", Is: map[string][]string{"package": {"SMA"},
			"voltage": {"33 V"}}}},
		{"Bus driver", "U", "SK-485", "SOIC-8", ordering.Query{Is: map[string][]string{"package": {"SOIC-8"}}, Words: "SK-485"}},
		{"Odd thing", "U", "", "", ordering.Query{Is: map[string][]string{}, Words: "Odd thing"}},
		{"Resistor 0603", "R", "12 V", "0603", ordering.Query{Family: "resistor", Is: map[string][]string{"package": {"0603"}}}},
	} {
		got := ordering.Wanted(&design.Part{Library: x.library, Value: x.value, Footprint: x.footprint},
			&design.LibraryPart{Name: x.library, Prefix: x.prefix})
		assert.Equal(t, x.want, got, x.library)
	}
	assert.Equal(t, "SOT-23-5", ordering.PackageIn("Amplifier SOT-23-5"))
	assert.Empty(t, ordering.PackageIn("Header 10603"))
}

// A circuit of two alike resistors, one not fitted, one of another number, and one for which nothing was chosen.
func needy(t *testing.T) []ordering.Need {
	t.Helper()
	d := design.New("Basket")
	sheet := d.SheetsInOrder()[0].ID
	d.Put(&design.LibraryPart{ID: 20, Name: "Resistor", Symbol: "R", Prefix: "R"})
	d.Put(&design.LibraryPart{ID: 21, Name: "Ordered", Symbol: "R", Prefix: "R", Order: map[string]string{ordering.FieldNumber: "OF-B"}})
	number := func(n string) map[string]string { return map[string]string{ordering.FieldNumber: n} }
	for _, p := range []*design.Part{
		{ID: 31, Designator: "R10", Library: "Resistor", Value: "1k", Fields: number("OF-A")}, {ID: 32, Designator: "R2", Library: "Resistor",
			Value: "1k0", Fields: number("OF-A")},
		{ID: 33, Designator: "R3", Library: "Resistor", Fields: number("OF-A"), NotFitted: true}, {ID: 34, Designator: "R4", Library: "Ordered"},
		{ID: 35, Designator: "R5", Library: "Resistor", Value: "2k"}, {ID: 36, Designator: "R6", Library: "Ordered", Fields: number("OF-C")},
		{ID: 37, Designator: "R7", Library: "Resistor", Value: "2.0 kΩ"}, // one value with R5's, however it is written
	} {
		p.Sheet = sheet
		d.Put(p)
	}
	return ordering.Needs(d, circuit.TreeOf(d))
}

func TestABasketByHand(t *testing.T) {
	needs := needy(t)
	assert.Equal(t, []ordering.Need{
		{Number: "OF-A", Value: "1k0", Library: "Resistor", Designators: []string{"R2", "R10"}}, {Number: "OF-B", Library: "Ordered",
			Designators: []string{"R4"}},
		{Value: "2k", Library: "Resistor", Designators: []string{"R5", "R7"}}, {Number: "OF-C", Library: "Ordered", Designators: []string{"R6"}},
	}, needs)
	known := map[string]*ordering.Part{
		"OF-A": {Number: "OF-A", Maker: "Sennick", MakerNumber: "=SK", Text: "Resistor, 1 kΩ", Status: "made", Stock: 30, Weeks: 6,
			Offers: []ordering.Offer{tape}},
		"OF-B": {Number: "OF-B", Status: "last orders", Stock: 5000, Offers: []ordering.Offer{reel}},
	}
	b := &design.Basket{Boards: 25, Spares: 3, Least: 1, Held: map[string]int{"OF-A": 2}}
	f := ordering.Fill(b, needs, known, "its price is not known")
	require.Len(t, f.Lines, 3)
	a := f.Lines[0]
	assert.Equal(t, []int{50, 2, 2, 50}, []int{a.Need, a.Spare, a.Held, a.Wanted}, "3 % of 50 are 1.5: two")
	assert.Equal(t, &ordering.Cost{Packaging: "cut tape", Pieces: 50, Each: 50_000, Total: 2_500_000}, a.Cost)
	assert.Equal(t, []string{"30 of 50 in stock; more in 6 weeks"}, a.Warnings)
	assert.Equal(t, "100 cost 0.50 € less", a.Hint)
	l := f.Lines[1]
	assert.Equal(t, []string{"the maker takes last orders", "it is sold in full reels only", "1000 have to be bought for 26"}, l.Warnings)
	assert.Equal(t, int64(4_000_000), l.Cost.Total)
	assert.Equal(t, []string{"its price is not known"}, f.Lines[2].Warnings)
	assert.Nil(t, f.Lines[2].Cost)
	assert.Equal(t, []string{"R5", "R7"}, f.Unchosen[0].Designators)
	assert.Equal(t, int64(6_500_000), f.Total)
	assert.Equal(t, int64(260_000), f.PerBoard)
	assert.Equal(t, []string{"2 parts of the board are ordered nowhere"}, f.Warnings)

	none := *b
	none.Boards = 0
	assert.Zero(t, ordering.Fill(&none, needs, known, "").PerBoard)

	b.Buy = map[string]int{"OF-A": 100}
	b.Packaging = map[string]string{"OF-A": "tube"}
	a = ordering.Fill(b, needs, known, "").Lines[0]
	assert.Equal(t, int64(2_000_000), a.Cost.Total)
	assert.Equal(t, []string{"it is not sold as tube", "30 of 100 in stock; more in 6 weeks"}, a.Warnings)
	b.Buy, b.Packaging, b.Held = nil, nil, map[string]int{"OF-A": 60}
	a = ordering.Fill(b, needs, known, "").Lines[0]
	assert.Zero(t, a.Wanted)
	assert.Nil(t, a.Cost, "all of it is here")
	known["OF-A"].Offers, known["OF-A"].Status, known["OF-A"].Stock = nil, "ended", 0
	b.Held = nil
	a = ordering.Fill(b, needs, known, "").Lines[0]
	assert.Equal(t, []string{"not made any more", "it is not sold at present"}, a.Warnings)
	known["OF-A"].Offers = []ordering.Offer{tape}
	a = ordering.Fill(b, needs, known, "").Lines[0]
	assert.Equal(t, []string{"not made any more", "none in stock; more in 6 weeks"}, a.Warnings)

	rows, err := csv.NewReader(bytes.NewReader(f.CSV())).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 5)
	assert.Equal(t, []string{"OF-A", "Sennick", "'=SK", "Resistor, 1 kΩ", "50", "cut tape", "0.05", "2.5", "50", "2", "2", "R2 R10",
		"30 of 50 in stock; more in 6 weeks"}, rows[1], "no text is a formula")
	assert.Equal(t, "nothing chosen: Resistor 2k", rows[4][12])
	assert.True(t, strings.HasSuffix(string(f.CSV()), "\r\n"), "RFC 4180")
}

func TestSpares(t *testing.T) {
	for _, x := range [][4]int{{50, 3, 0, 2}, {100, 2, 0, 2}, {1, 2, 0, 1}, {50, 0, 5, 5}, {50, 0, 0, 0}, {1000, 10, 5, 100}} {
		assert.Equal(t, x[3], ordering.Spares(x[0], x[1], x[2]), x)
	}
}

func TestFieldsOfAChoice(t *testing.T) {
	p := &ordering.Part{Number: "OF-1", Maker: "Sennick", MakerNumber: "SK-1"}
	assert.Equal(t, map[string]string{"maker": "Sennick", "part number": "SK-1", "order number": "OF-1"}, p.Fields())
	p.Datasheet = "d"
	assert.Equal(t, "d", p.Fields()["datasheet"])
	assert.Nil(t, p.Property("none"))
}
