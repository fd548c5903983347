package server

import (
	"context"
	"sync"
	"time"
)

// shows counts the tabs that wait for a project to be shown, and knows where a hand moved last. What is made beside, of other projects, steps
// aside meanwhile: it would take the processors from somebody who waits.
type shows struct {
	mu   sync.Mutex
	n    int
	over chan struct{} // closed when nobody waits any more
	last motion
}

// motion is the last motion of a hand that asked something: in which project, and when.
type motion struct {
	project int64
	at      time.Time
}

// longestAside is how long work steps aside at most each time it looks; a hand rests that has not moved for stillAfter.
const (
	longestAside = 3 * time.Second
	stillAfter   = 150 * time.Millisecond
)

// begin tells that somebody waits; calling what it returns, as often as one likes, that it is over.
func (s *shows) begin() (end func()) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.n++; s.n == 1 {
		s.over = make(chan struct{})
	}
	return sync.OnceFunc(func() {
		s.mu.Lock()
		defer s.mu.Unlock()
		if s.n--; s.n == 0 {
			close(s.over)
		}
	})
}

// moved tells that a hand in a project moved.
func (s *shows) moved(project int64) {
	s.mu.Lock()
	defer s.mu.Unlock()
	s.last = motion{project, time.Now()}
}

// stepAside waits until nobody waits for a project to be shown and the hands in other projects than this rest.
func (s *shows) stepAside(ctx context.Context, project int64) {
	late := time.NewTimer(longestAside)
	defer late.Stop()
	for {
		shown, rests := s.waiting(project)
		if shown == nil && rests == nil {
			return
		}
		select {
		case <-shown:
		case <-rests:
		case <-late.C:
			return
		case <-ctx.Done():
			return
		}
	}
}

// waiting gives what to wait for: that nobody waits any more, or that it is worth a look whether the hand rests; nil: there is nothing to.
func (s *shows) waiting(project int64) (shown <-chan struct{}, rests <-chan time.Time) {
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.n > 0 {
		return s.over, nil
	}
	if still := stillAfter - time.Since(s.last.at); s.last.project != project && still > 0 {
		return nil, time.After(still)
	}
	return nil, nil
}
