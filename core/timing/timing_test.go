package timing_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/timing"
)

func TestParse(t *testing.T) {
	d, err := timing.Parse("slot 10 ns\n\nCLK: clock 8\n/CS: high, low 6.5, high\nDATA: free 2, data 4 \"D7, D6: all\", free 2\nmark 3 \"sampled\"\nspan 1 4.5 \"t1 = 35 ns\"")
	require.NoError(t, err)
	assert.Equal(t, "10 ns", d.Slot)
	require.Len(t, d.Rows, 3)
	assert.Equal(t, "/CS", d.Rows[1].Name)
	assert.Equal(t, []timing.Piece{{State: "high", Slots: 1}, {State: "low", Slots: 6.5}, {State: "high", Slots: 1}}, d.Rows[1].Pieces)
	assert.Equal(t, "D7, D6: all", d.Rows[2].Pieces[1].Text, "commas and colons within quotes are text")
	assert.Equal(t, []timing.Mark{{At: 3, Text: "sampled"}}, d.Marks)
	assert.Equal(t, []timing.Span{{From: 1, To: 4.5, Text: "t1 = 35 ns"}}, d.Spans)
	assert.EqualValues(t, 8.5, d.Slots)
}

func TestSentences(t *testing.T) {
	for text, why := range map[string]string{
		"":                               "has no signal",
		"CLK: clock 8\nhello":            "line 2 of the timing diagram: \"hello\" is neither a signal",
		"CS: hihg 2":                     "\"hihg\" is not a state of a signal; there are high, low",
		"CS: high two":                   "\"two\" is not a number of slots",
		"CS: high -1":                    "is not a number of slots",
		"CS: high, , low":                "has an empty state",
		"CS: high 1 2":                   "says more than a state and a number",
		"A: high\nspan 4 2 \"x\"":        "from an earlier to a later slot",
		"A: high\nmark":                  "1 numbers are meant before the text, not 0",
		"A: high 999\nB: low 2000":       "is not a number of slots",
		strings.Repeat("A: high\n", 101): "101 signals; 100 are the most",
	} {
		_, err := timing.Parse(text)
		assert.ErrorContains(t, err, why, text)
	}
}

// Whatever is typed, it is read or refused, never worse.
func TestAnyText(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := rapid.StringOf(rapid.SampledFrom([]rune("AB: high low,\"\n0123.-clock"))).Draw(t, "text")
		d, err := timing.Parse(text)
		if err == nil {
			assert.NotEmpty(t, d.Rows)
			assert.Positive(t, d.Slots)
		}
	})
}
