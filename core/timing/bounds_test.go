package timing_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/timing"
)

// What is just at a bound is drawn, what is just beyond is refused with a sentence.
func TestBoundsOfADiagram(t *testing.T) {
	many := strings.Repeat("A: high\n", timing.MostRows)
	long := func(n int) string { return strings.TrimSuffix(strings.Repeat("high, ", n), ", ") }
	for text, why := range map[string]string{
		many:                    "",
		many + "B: low":         "101 signals; 100 are the most",
		"A: high 1000":          "",
		"A: high 1000.5":        "\"1000.5\" is not a number of slots",
		"A: low 0":              "\"0\" is not a number of slots",
		"A: high 1000, low 0.5": "1000.5 slots long; 1000 are the most",
		"A: " + long(1000):      "",
		"A: clock 999\n" + strings.Repeat("B: clock 999\n", 4): "",
		strings.Repeat("A: clock 999\n", 5) + "B: high":        "5001 states and clock periods; 5000 are the most",
		"A: high\nmark 0":     "",
		"A: high\nmark 1000":  "",
		"A: high\nmark 1001":  "\"1001\" is not a number of slots from 0 to 1000",
		"A: high\nmark -1":    "is not a number of slots",
		"A: high\nspan 2 2":   "from an earlier to a later slot",
		"A: high\nspan 1 2 3": "2 numbers are meant before the text, not 3",
		": high":              "line 1 of the timing diagram: \": high\" is neither",
		"mark 1 \"then: \"":   "has no signal",
	} {
		_, err := timing.Parse(text)
		if why == "" {
			assert.NoError(t, err, "%.40q", text)
			continue
		}
		assert.ErrorContains(t, err, why, "%.40q", text)
	}
}

func TestTextsMayLackTheirClosingQuote(t *testing.T) {
	d, err := timing.Parse("A: data \"D7\nB: high \"\"\nmark 2\nmark 1 \"now")
	require.NoError(t, err)
	assert.Equal(t, "D7", d.Rows[0].Pieces[0].Text)
	assert.Empty(t, d.Rows[1].Pieces[0].Text)
	assert.Equal(t, []timing.Mark{{At: 2}, {At: 1, Text: "now"}}, d.Marks)
}

// The widest sheet is 34 inches across the long side.
func TestADiagramFitsOnASheet(t *testing.T) {
	d, err := timing.Parse("A: high 100")
	require.NoError(t, err)
	require.NoError(t, d.Fits(8_636_000), "100 × 8.636 mm is 34 inches")
	err = d.Fits(10_000_000)
	require.ErrorContains(t, err, fmt.Sprintf("would be %d mm wide: 100 slots of 10 mm; 864 mm is the most", 1000))
	require.Error(t, d.Fits(8_636_001))
}
