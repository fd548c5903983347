package ampacity_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/ampacity"
)

// Cases reckoned by hand from the standard's equation. 1 A, 10 K, 35 µm (1.378 mil): outside
// A = (1/(0.048·10^0.44))^(1/0.725) = (1/(0.048·2.75423))^1.37931 = 7.5642^1.37931 = 16.30 mil², 11.83 mil = 0.3005 mm;
// inside twice the base, so 2^1.37931 = 2.6014 times as wide, 0.7817 mm.
func TestWidthByHand(t *testing.T) {
	assert.InDelta(t, 300_500, ampacity.Width(1, 10, 35_000, false), 500)
	assert.InDelta(t, 781_700, ampacity.Width(1, 10, 35_000, true), 1_300)
	assert.InDelta(t, 2.6014, float64(ampacity.Width(3, 20, 35_000, true))/float64(ampacity.Width(3, 20, 35_000, false)), 0.0001)
	assert.InDelta(t, 0.5, float64(ampacity.Width(2, 10, 70_000, false))/float64(ampacity.Width(2, 10, 35_000, false)), 0.0001, "twice as thick, half as wide")
	for _, none := range []int64{ampacity.Width(0, 10, 35_000, false), ampacity.Width(1, 0, 35_000, false), ampacity.Width(1, 10, 0, false), ampacity.Width(-1, 10, 35_000, true), ampacity.Width(1, -10, 35_000, true), ampacity.Width(1, 10, -35_000, true)} {
		assert.Zero(t, none)
	}
}

// One way and back gives what one began with.
func TestThereAndBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		i := rapid.Float64Range(0.05, 35).Draw(t, "A")
		rise := rapid.Float64Range(1, 100).Draw(t, "K")
		thick := rapid.Int64Range(5_000, 200_000).Draw(t, "thickness")
		inner := rapid.Bool().Draw(t, "inner")
		w := ampacity.Width(i, rise, thick, inner)
		assert.InEpsilon(t, i, ampacity.Current(w, rise, thick, inner), 0.002)
		assert.GreaterOrEqual(t, ampacity.Current(w, rise, thick, inner), i*0.999999, "it is rounded to the safe side")
		assert.Greater(t, ampacity.Width(i*1.1, rise, thick, inner), w)
		assert.Less(t, ampacity.Width(i, rise*1.2, thick, inner), w)
	})
	for _, none := range []float64{ampacity.Current(0, 10, 35_000, false), ampacity.Current(1e6, 0, 35_000, false), ampacity.Current(1e6, 10, 0, true), ampacity.Current(-1e6, 10, -35_000, true), ampacity.Current(1e6, -10, 35_000, true)} {
		assert.Zero(t, none)
	}
}

// A square of 35 µm copper has 1.724·10⁻⁸/35·10⁻⁶ = 0.4926 mΩ at 20 °C; 100 mm of 1 mm a hundred squares; at 70 °C 1.1965 times that.
func TestResistance(t *testing.T) {
	assert.InDelta(t, 0.4926e-3, ampacity.Resistance(1_000_000, 1_000_000, 35_000, 20), 1e-7)
	assert.InDelta(t, 49.26e-3, ampacity.Resistance(100_000_000, 1_000_000, 35_000, 20), 1e-5)
	assert.InDelta(t, 1.1965, ampacity.Resistance(5, 7, 35_000, 70)/ampacity.Resistance(5, 7, 35_000, 20), 1e-4)
	assert.Zero(t, ampacity.Resistance(1, 0, 35_000, 20))
	assert.Zero(t, ampacity.Resistance(1, 5, 0, 20))
	assert.Zero(t, ampacity.Resistance(1, -5, -5, 20))
}
