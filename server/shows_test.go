package server

import (
	"context"
	"testing"
	"testing/synctest"
	"time"

	"github.com/stretchr/testify/assert"
)

// What is made beside waits while anybody waits for a project to be shown, however often one of them says that it is over, and no longer than a
// while; it stops waiting when it is stopped.
func TestWhatIsMadeBesideStepsAside(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		var s shows
		begun := time.Now()
		waited := func() time.Duration { d := time.Since(begun).Round(time.Millisecond); begun = time.Now(); return d }
		s.stepAside(t.Context())
		assert.Zero(t, waited(), "nobody waits")

		first, second := s.begin(), s.begin()
		go func() { time.Sleep(200 * time.Millisecond); first(); first() }()
		go func() { time.Sleep(700 * time.Millisecond); second() }()
		s.stepAside(t.Context())
		assert.Equal(t, 700*time.Millisecond, waited())
		s.stepAside(t.Context())
		assert.Zero(t, waited())

		third := s.begin()
		s.stepAside(t.Context())
		assert.Equal(t, longestAside, waited())
		stopped, stop := context.WithTimeout(t.Context(), 50*time.Millisecond)
		defer stop()
		s.stepAside(stopped)
		assert.Equal(t, 50*time.Millisecond, waited())
		third()
		s.stepAside(t.Context())
		assert.Zero(t, waited())
	})
}
