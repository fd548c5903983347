package library

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// What a word is said to mean is found in the shipped library, or it would mean nothing.
func TestMeaningsFindSomething(t *testing.T) {
	for word, means := range meanings {
		for _, w := range append([]string{word}, means...) {
			_, found := shipped().Search(w, 0)
			assert.Positive(t, found, "%s: %s", word, w)
		}
	}
}
