package reading_test

import (
	"bytes"
	"encoding/json"
	"errors"
	"regexp"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/reading"
)

// Whatever is wrong, no word of a programmer's is in the sentence.
func TestWhatCannotBeReadIsSaidInWords(t *testing.T) {
	type thing struct {
		Width int64
		Name  string
		At    struct{ X, Y int64 }
		List  []string
		Flag  bool
	}
	for _, text := range []string{
		`{"Width": 12.5}`, `{"Width": "wide"}`, `{"At": {"X": 1e99}}`, `{"Name": {}}`, `{"Name": [1]}`, `{"Width": true}`, `{"Name": 5}`, `{"Width": 1`, ``, `{Width: 1}`, `{"Height": 3}`, `{"List": {"a": "b"}}`,
	} {
		dec := json.NewDecoder(bytes.NewReader([]byte(text)))
		dec.DisallowUnknownFields()
		err := dec.Decode(&thing{})
		require.Error(t, err, text)
		got := reading.Wrong(err).Error()
		assert.NotRegexp(t, regexp.MustCompile(`json|Go |int64|struct|Width|Height|\.At`), got, text)
	}
	in := func(text string) error {
		dec := json.NewDecoder(bytes.NewReader([]byte(text)))
		dec.DisallowUnknownFields()
		return reading.InFile(dec.Decode(&thing{}))
	}
	assert.EqualError(t, in(`{"Height": 3}`), `it says "Height", which this version does not know`)
	assert.EqualError(t, in(`{"At": {"X": "far"}}`), "a text stands at At.X, where it cannot be read")
	assert.EqualError(t, in(`{`), "it is not well-formed, or was cut short")
	assert.NoError(t, in(`{}`))
	assert.NoError(t, reading.Wrong(nil))
	other := errors.New("R1 stands beside the board")
	assert.Equal(t, other, reading.Wrong(other), "what is a sentence already stays")
	var w thing
	assert.EqualError(t, reading.Wrong(json.Unmarshal([]byte(`{"Width": 12.5}`), &w)), "the number 12.5 stands where it cannot be read")
	assert.EqualError(t, reading.Wrong(json.Unmarshal([]byte(`{"Name": [1]}`), &w)), "a list stands where it cannot be read")
	assert.EqualError(t, reading.Wrong(json.Unmarshal([]byte(`{"Name": {}}`), &w)), "a group stands where it cannot be read")
	assert.EqualError(t, reading.Wrong(json.Unmarshal([]byte(`{"Width": tru`), &w)), "it is not well-formed, or was cut short")
}
