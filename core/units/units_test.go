package units_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/units"
)

// The same table is read by the browser's parser, so that both agree.
func TestParseTable(t *testing.T) {
	data, err := os.ReadFile("../../testdata/lengths.json")
	require.NoError(t, err)
	var table []struct {
		Text, Unit string
		NM         int64
		Bad        bool
	}
	require.NoError(t, json.Unmarshal(data, &table))
	for _, c := range table {
		got, err := units.Parse(c.Text, c.Unit)
		if c.Bad {
			assert.Error(t, err, "%q", c.Text)
			continue
		}
		if assert.NoError(t, err, "%q", c.Text) {
			assert.Equal(t, c.NM, got, "%q in %s", c.Text, c.Unit)
		}
	}
}

func TestFormatReadsBack(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		nm := rapid.Int64Range(-units.Limit, units.Limit).Draw(t, "nm")
		got, err := units.Parse(units.Format(nm, "mm"), "mm")
		require.NoError(t, err)
		assert.Equal(t, nm, got)
	})
}

func TestNothingTypedPanics(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.StringMatching(`[-+*/() .0-9a-zµ"]{0,20}`).Draw(t, "text")
		if v, err := units.Parse(s, "mm"); err == nil {
			assert.LessOrEqual(t, v, units.Limit)
		}
	})
}
