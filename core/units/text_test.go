package units_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/units"
)

func TestMillimetresRoundToTheNearestNanometre(t *testing.T) {
	assert.Equal(t, int64(1_234_568), units.MMf(1.2345678))
	assert.Equal(t, int64(-2_500_000), units.MMf(-2.5))
	assert.Equal(t, int64(2_000_000_000), units.Limit, "two metres")
	assert.Equal(t, 1000*units.Mil, units.Inch)
}

func TestSentencesSayThreeDecimalsAtMost(t *testing.T) {
	for nm, text := range map[int64]string{
		1_234_567: "1.235 mm", 1_200_000: "1.2 mm", 10_000_000: "10 mm", 0: "0 mm", -100: "0 mm", -250_000: "-0.25 mm",
	} {
		assert.Equal(t, text, units.Text(nm))
	}
	assert.Equal(t, "0.5", units.Format(12_700_000, "inch"))
	assert.Equal(t, "2.54", units.Format(2_540_000, "furlong"), "an unknown unit writes millimetres")
	assert.True(t, units.Known("MIL"))
	assert.False(t, units.Known("furlong"))
}

// Fifty are enough for anybody; a long sum is not a deep one.
func TestBracketsNestFiftyDeep(t *testing.T) {
	nested := func(n int) error {
		_, err := units.Parse(strings.Repeat("(", n)+"1"+strings.Repeat(")", n), "mm")
		return err
	}
	require.NoError(t, nested(49))
	require.ErrorContains(t, nested(50), "nested too deeply")
	got, err := units.Parse(strings.Repeat("1+", 199)+"1", "mm")
	require.NoError(t, err)
	assert.Equal(t, 200*units.MM, got)
}

func TestLengthsReachTwoMetresAndNoFurther(t *testing.T) {
	got, err := units.Parse("2000", "mm")
	require.NoError(t, err)
	assert.Equal(t, units.Limit, got)
	got, err = units.Parse("-2 m", "mm")
	require.NoError(t, err)
	assert.Equal(t, -units.Limit, got)
	for _, s := range []string{"2000.000001", "-2000.000001 mm"} {
		_, err := units.Parse(s, "mm")
		require.Error(t, err, s)
	}
}

func TestDigitsOfTheTenAndTheirNeighbours(t *testing.T) {
	got, err := units.Parse("1234567.89 nm + 90 nm", "mm")
	require.NoError(t, err)
	assert.Equal(t, int64(1_234_658), got)
	for _, s := range []string{"/1", ":", "9:", "1/0", "1..2", ""} {
		_, err := units.Parse(s, "mm")
		require.Error(t, err, "%q", s)
	}
}
