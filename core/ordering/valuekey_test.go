package ordering_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/ordering"
)

// What is written in several ways is one value; what differs in anything that counts is another.
func TestValuesThatAreOne(t *testing.T) {
	for _, same := range [][]string{
		{"C", "10u", "10µ", "10 uF", "10 µF", "10uF", "10.0u", " 10u ", "0.01m", "10000n"},
		{"C", "100n 16V", "100 nF 16V", "0.1µ 16 V"},
		{"R", "4k7", "4.7k", "4700", "4.7 kΩ", "4,7 kohm"},
		{"R", "2R2", "2.2", "2.2 Ω"},
		{"L", "22µ", "22u", "22 µH"},
		{"Y", "8M", "8 MHz", "8.000 MHz"},
	} {
		for _, v := range same[2:] {
			assert.Equal(t, ordering.ValueKey(same[1], same[0]), ordering.ValueKey(v, same[0]), v)
		}
	}
	assert.Equal(t, "10 µF", ordering.ValueKey("10u", "C"))
	assert.Equal(t, "4.7 kΩ", ordering.ValueKey("4k7", "R"))
	for _, other := range [][3]string{
		{"C", "10u", "10n"}, {"C", "10u 16V", "10u 25V"}, {"C", "10u", "10u 16V"}, {"R", "1k", "1M"}, {"Y", "8 MHz", "8.0001 MHz"}, {"R", "10m", "10M"},
		{"U", "74HC595", "74 HC595"}, {"U", "10u", "10µ"}, {"R", "10 V", "10"}, {"R", "open", "Open"},
	} {
		assert.NotEqual(t, ordering.ValueKey(other[1], other[0]), ordering.ValueKey(other[2], other[0]), other)
	}
}
