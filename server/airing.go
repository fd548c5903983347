package server

import (
	"runtime/debug"
	"time"
)

// airing gives memory back to the system a while after something large was done: opening a board of 10,000 parts, or checking it, leaves
// hundreds of megabytes behind that nobody needs any more.
type airing struct {
	timer *time.Timer
}

// after is how long nothing large was done before memory is given back; finding what is free takes part of a processor for a moment.
const after = 2 * time.Second

func newAiring() *airing {
	t := time.AfterFunc(time.Hour, debug.FreeOSMemory)
	t.Stop()
	return &airing{t}
}

// soon has memory given back when nothing large follows.
func (a *airing) soon() { a.timer.Reset(after) }

func (a *airing) stop() { a.timer.Stop() }
