package server

import (
	"runtime/debug"
	"time"
)

// givingBack gives memory back to the system a while after something large was done: opening a board of 10,000 parts, or checking it, leaves
// hundreds of megabytes behind that nobody needs any more.
type givingBack struct {
	timer *time.Timer
}

// after is how long nothing large was done before memory is given back; finding what is free takes part of a processor for a moment.
const after = 2 * time.Second

func newGivingBack() *givingBack {
	t := time.AfterFunc(time.Hour, debug.FreeOSMemory)
	t.Stop()
	return &givingBack{t}
}

// soon has memory given back when nothing large follows.
func (a *givingBack) soon() { a.timer.Reset(after) }

func (a *givingBack) stop() { a.timer.Stop() }
