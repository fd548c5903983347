package server

import (
	"runtime"
	"runtime/debug"
	"runtime/metrics"
	"sync/atomic"
	"time"
)

// memory keeps the program small without making a hand wait. The collector may let garbage grow to a multiple of what is in use, but no further than a part of it
// beyond what was in use when it ran last; and a while after something large was done, such as opening a board of 10,000 parts or checking it,
// what nobody needs any more is given back to the system.
type memory struct {
	timer  *time.Timer
	closed atomic.Bool
}

// after is how long nothing large was done before memory is given back; finding what is free takes part of a processor for a moment.
const after = 2 * time.Second

// The room for garbage beyond what is in use: a share of that, and so much in any case, in bytes.
const (
	garbageShare = 0.4
	garbageRoom  = 32 << 20
)

func newMemory() *memory {
	m := &memory{timer: time.AfterFunc(time.Hour, debug.FreeOSMemory)}
	m.timer.Stop()
	m.bound()
	return m
}

// cycle is garbage as soon as it is made: what is done when it goes is done after each run of the collector.
type cycle struct{ _ [16]byte }

// bound sets how far the heap may grow, and again after each run of the collector. What is in use is never near the bound, so that the collector does
// not run all the time.
func (m *memory) bound() {
	if m.closed.Load() {
		return
	}
	sample := []metrics.Sample{{Name: "/gc/heap/live:bytes"}}
	metrics.Read(sample)
	live := sample[0].Value.Uint64()
	debug.SetMemoryLimit(min(given, int64(float64(live)*(1+garbageShare))+garbageRoom))
	runtime.AddCleanup(new(cycle), func(m *memory) { m.bound() }, m)
}

// given is what whoever runs the program bounds it to (GOMEMLIMIT).
var given = debug.SetMemoryLimit(-1)

// soon has memory given back when nothing large follows.
func (m *memory) soon() { m.timer.Reset(after) }

func (m *memory) stop() {
	m.closed.Store(true)
	m.timer.Stop()
	debug.SetMemoryLimit(given)
}
