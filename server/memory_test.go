package server

import (
	"runtime"
	"runtime/debug"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// Garbage grows to a part of what is in use, though the collector by itself would let it grow to three times that.
func TestGarbageIsBounded(t *testing.T) {
	defer debug.SetGCPercent(debug.SetGCPercent(300))
	m := newMemory()
	defer m.stop()
	const block = 1 << 20
	var kept [][]byte
	for range 96 {
		kept = append(kept, make([]byte, block))
	}
	runtime.GC()
	time.Sleep(50 * time.Millisecond) // the bound is set once it has run
	var stats runtime.MemStats
	runtime.ReadMemStats(&stats)
	used, most := stats.HeapAlloc, uint64(0)
	for range 600 {
		kept[0] = make([]byte, block)
		runtime.ReadMemStats(&stats)
		most = max(most, stats.HeapAlloc)
	}
	assert.Greater(t, used, uint64(90<<20))
	assert.Less(t, most, used*2, "%d MB of %d in use", most>>20, used>>20)
	runtime.KeepAlive(kept)
}
