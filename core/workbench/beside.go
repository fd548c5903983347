package workbench

import "context"

// Beside is work that would hold everybody up: it is done on a copy of the design in another goroutine.
type Beside struct {
	Kind string
	Rev  int64 // of the copy
	// Quick work is over in a moment: nobody needs to see it.
	Quick bool
	// Run does the work and may be stopped. What it gives back takes the outcome in; the bench's own
	// goroutine calls that, stopped or not, and settles.
	Run func(ctx context.Context, progress func(float64)) (take func())
}

// CheckAll checks the board against its rules from scratch at the next Settle; copper areas whose filling was stopped are filled.
func (b *Bench) CheckAll() {
	b.board.wholly()
	b.pours.Stale()
}
