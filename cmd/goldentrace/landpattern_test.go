package main

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/landpattern"
)

// Every family has an example in docs/examples, and it can be made.
func TestExamplesOfBodies(t *testing.T) {
	for _, f := range landpattern.Families() {
		in, err := os.Open(filepath.Join("../../docs/examples", f.ID+".json"))
		require.NoError(t, err)
		r, err := landpattern.ReadFile(in)
		in.Close()
		require.NoError(t, err, f.ID)
		assert.Equal(t, f.ID, r.Family)
		_, err = landpattern.Make(r)
		assert.NoError(t, err, f.ID)
	}
}
