package goods_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/ordering"
	"goldentrace/standin/depot/goods"
)

func TestTheRangeIsLargeAndEachPartIsOneOfItsOwn(t *testing.T) {
	all := goods.All()
	assert.GreaterOrEqual(t, len(all), 20_000)
	numbers, makers := map[string]bool{}, map[string]bool{}
	for _, p := range all {
		require.False(t, numbers[p.Number], "twice: %s", p.Number)
		require.False(t, makers[p.MakerNumber], "twice: %s", p.MakerNumber)
		numbers[p.Number], makers[p.MakerNumber] = true, true
		require.NotEmpty(t, p.Maker, p.MakerNumber)
		require.NotEmpty(t, p.Family, p.MakerNumber)
		require.Positive(t, p.Body.Pins, "%s in %s has no leads", p.MakerNumber, p.Package)
		require.Positive(t, p.Body.Length, p.MakerNumber)
		require.Positive(t, p.Body.Height, "%s in %s is flat", p.MakerNumber, p.Package)
		require.Contains(t, ordering.Statuses, p.Status)
	}
}

// Prices fall with the quantity, minimum and multiple agree, and a reel costs more than nothing and less each than a single one.
func TestPricesFallAsTheyDo(t *testing.T) {
	for _, p := range goods.All() {
		single := int64(0)
		for _, o := range p.Offers {
			require.NotEmpty(t, o.Breaks, p.MakerNumber)
			require.GreaterOrEqual(t, o.Breaks[0].From, o.Minimum, p.MakerNumber)
			require.Contains(t, ordering.Packagings, o.Packaging)
			for i, b := range o.Breaks {
				require.Positive(t, b.Price, p.MakerNumber)
				if i > 0 {
					require.Greater(t, b.From, o.Breaks[i-1].From, p.MakerNumber)
					require.LessOrEqual(t, b.Price, o.Breaks[i-1].Price, p.MakerNumber)
				}
			}
			if o.Packaging == ordering.Reel {
				require.Equal(t, o.Minimum, o.Multiple)
				if single > 0 {
					require.Less(t, o.Breaks[0].Price, single, p.MakerNumber)
				}
			} else {
				single = o.Breaks[0].Price
			}
		}
		if len(p.Offers) == 0 {
			require.Equal(t, "ended", p.Status, "%s is made and not sold", p.MakerNumber)
			require.Zero(t, p.Stock)
		}
	}
}

// Resistors of 1 % come in all values of E96 and E24 from 1 Ω to 10 MΩ (IEC 60063: 10.0, 10.2, 10.5 … 97.6; 24 in a decade).
func TestValuesOfTheSeries(t *testing.T) {
	of := map[string]map[float64]bool{}
	for _, p := range goods.All() {
		if p.Family == "resistor" && p.Package == "0603" && strings.HasPrefix(p.MakerNumber,
			"QF-R0603") && strings.HasSuffix(p.MakerNumber, "-F") {
			v := p.Property("resistance").Value
			decade := math.Pow(10, math.Floor(math.Log10(v*1.0000001)))
			key := fmt.Sprintf("%g", decade)
			if of[key] == nil {
				of[key] = map[float64]bool{}
			}
			of[key][math.Round(v/decade*100)/100] = true
		}
	}
	for _, decade := range []string{"1", "100", "100000"} {
		for _, v := range []float64{1, 1.02, 1.05, 1.13, 1.54, 2.21, 3.32, 4.75, 4.99, 6.81, 8.25, 9.76, 1.1, 2.4, 4.7, 9.1} {
			assert.True(t, of[decade][v], "%s × %g", decade, v)
		}
		assert.Len(t, of[decade], 96+24-6, "1, 1.1, 1.3, 1.5, 2 and 7.5 are in both")
	}
}

// Bodies are the greatest of the standards for the packages: EIA 0603, JEDEC MS-012 with 8 leads, MS-026 with 48.
func TestBodiesOfPackages(t *testing.T) {
	want := map[string][4]float64{"0603": {1.7, 0.9, 2, 0}, "SOIC-8": {5, 4, 8, 1.27}, "QFP-48": {7.1, 7.1, 48, 0.5},
		"SOT-23": {3.04, 1.4, 3, 0}}
	seen := map[string]bool{}
	for _, p := range goods.All() {
		w, ok := want[p.Package]
		if !ok || seen[p.Package] {
			continue
		}
		seen[p.Package] = true
		assert.InDelta(t, w[0], float64(p.Body.Length)/1e6, 0.001, p.Package)
		assert.InDelta(t, w[1], float64(p.Body.Width)/1e6, 0.001, p.Package)
		assert.Equal(t, int(w[2]), p.Body.Pins, p.Package)
		if w[3] > 0 {
			assert.InDelta(t, w[3], float64(p.Body.Pitch)/1e6, 0.001, p.Package)
		}
	}
	assert.Len(t, seen, len(want))
}
