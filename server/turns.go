package server

import (
	"context"
	"errors"
	"sync/atomic"
)

// turns bound the work on whole designs that makes files, pictures and models, for everybody together: so many at a time, so many more
// that wait for their turn. One that nobody waits for any more gives its place away.
type turns struct {
	free    chan struct{} // holds one for each that is at work
	waiting atomic.Int32
	most    int32 // that may wait
}

// Bounds of turns: each piece of work holds a copy of the design's indexes and the file it makes, tens of megabytes on a large board.
const (
	atWork     = 2
	inTheQueue = 16
)

func newTurns(atWork, inTheQueue int) *turns {
	return &turns{free: make(chan struct{}, atWork), most: int32(inTheQueue)}
}

var errBusy = errors.New("the program has as many pictures, models and files to make as it takes on at a time; ask again in a moment")

// take waits for a turn, which is over when done is called. It refuses where too many wait already.
func (t *turns) take(ctx context.Context) (done func(), err error) {
	if t.waiting.Add(1) > t.most {
		t.waiting.Add(-1)
		return nil, errBusy
	}
	defer t.waiting.Add(-1)
	select {
	case t.free <- struct{}{}:
		return func() { <-t.free }, nil
	case <-ctx.Done():
		return nil, ctx.Err()
	}
}
