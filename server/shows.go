package server

import (
	"context"
	"sync"
	"time"
)

// shows counts the tabs that wait for a project to be shown. What is made beside, of other projects, steps aside meanwhile: it would take the
// processors from somebody who waits.
type shows struct {
	mu   sync.Mutex
	n    int
	over chan struct{} // closed when nobody waits any more
}

// longestAside is how long work steps aside at most each time it looks.
const longestAside = 3 * time.Second

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

// stepAside waits until nobody waits for a project to be shown.
func (s *shows) stepAside(ctx context.Context) {
	s.mu.Lock()
	over := s.over
	if s.n == 0 {
		over = nil
	}
	s.mu.Unlock()
	if over == nil {
		return
	}
	late := time.NewTimer(longestAside)
	defer late.Stop()
	select {
	case <-over:
	case <-late.C:
	case <-ctx.Done():
	}
}
