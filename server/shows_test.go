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
		s.stepAside(t.Context(), 1)
		assert.Zero(t, waited(), "nobody waits")

		first, second := s.begin(), s.begin()
		go func() { time.Sleep(200 * time.Millisecond); first(); first() }()
		go func() { time.Sleep(700 * time.Millisecond); second() }()
		s.stepAside(t.Context(), 1)
		assert.Equal(t, 700*time.Millisecond, waited())
		s.stepAside(t.Context(), 1)
		assert.Zero(t, waited())

		third := s.begin()
		s.stepAside(t.Context(), 1)
		assert.Equal(t, longestAside, waited())
		stopped, stop := context.WithTimeout(t.Context(), 50*time.Millisecond)
		defer stop()
		s.stepAside(stopped, 1)
		assert.Equal(t, 50*time.Millisecond, waited())
		third()
		s.stepAside(t.Context(), 1)
		assert.Zero(t, waited())
	})
}

// It waits for the hand of another project while that moves, and not for the one it is made for.
func TestWhatIsMadeBesideWaitsForTheHand(t *testing.T) {
	synctest.Test(t, func(t *testing.T) {
		var s shows
		begun := time.Now()
		waited := func() time.Duration { d := time.Since(begun).Round(time.Millisecond); begun = time.Now(); return d }
		s.moved(7)
		s.stepAside(t.Context(), 7)
		assert.Zero(t, waited(), "its own hand")
		go func() {
			for range 5 {
				time.Sleep(100 * time.Millisecond)
				s.moved(7)
			}
		}()
		s.stepAside(t.Context(), 1)
		assert.Equal(t, 500*time.Millisecond+stillAfter, waited())
		s.stepAside(t.Context(), 1)
		assert.Zero(t, waited(), "the hand rests")

		s.moved(7)
		go func() {
			for range 200 {
				time.Sleep(20 * time.Millisecond)
				s.moved(7)
			}
		}()
		s.stepAside(t.Context(), 1)
		assert.Equal(t, longestAside, waited(), "a hand that never rests")
		time.Sleep(2 * time.Second)
	})
}
