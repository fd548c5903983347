package server

import (
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/finished"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/space"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// grounded is a board whose ground is joined by copper areas alone, and that takes a moment to be filled.
func (k *desk) grounded() (id int64) {
	k.Helper()
	d, err := synthetic.Design(60)
	require.NoError(k, err)
	gnd := d.NetNamed("GND").ID
	for t := range d.Tracks.All() {
		if t.Net == gnd {
			d.Remove(design.KindTrack, t.ID)
		}
	}
	layers := []design.LayerID{}
	for _, l := range d.Board.Copper() {
		layers = append(layers, l.ID)
	}
	d.Put(&design.Pour{ID: d.NewID(), Name: "Ground", Net: gnd, Layers: layers})
	id, err = k.store.Create(k.Context(), "Grounded", d)
	require.NoError(k, err)
	return id
}

// What is asked of a board that was just opened is what is answered later, or says that it is behind.
func TestABoardJustOpenedDoesNotPassForFinished(t *testing.T) {
	k := newDesk(t)
	id := k.grounded()
	at := func(path string) string { return fmt.Sprintf("/projects/%d%s", id, path) }
	calm := func() { // all is known
		p, err := k.hub.project(t.Context(), id)
		require.NoError(t, err)
		require.Eventually(t, func() bool {
			known, err := ask(p, func() (bool, error) { return p.bench.Settle().Behind == nil, nil })
			return err == nil && known
		}, time.Minute, 20*time.Millisecond)
	}
	for _, path := range []string{"/finished", "/finished.svg", "/findings.csv", "/model.glb?closed=1", "/glance"} {
		t.Run(path, func(t *testing.T) {
			k.hub.forget(id)
			code, soon := k.ask("GET", at(path), "")
			calm()
			_, later := k.ask("GET", at(path), "")
			if code == http.StatusServiceUnavailable {
				return // it said so
			}
			require.Equal(t, 200, code)
			var said struct {
				Behind bool
				Board  string
			}
			if json.Unmarshal([]byte(soon), &said) == nil && (said.Behind || said.Board == "pending") {
				return
			}
			assert.True(t, soon == later, "%d bytes soon, %d later", len(soon), len(later))
		})
	}
	t.Run("/handoff", func(t *testing.T) {
		k.hub.forget(id)
		_, soon := k.ask("POST", at("/handoff"), "")
		calm()
		_, later := k.ask("POST", at("/handoff"), "")
		if strings.Contains(soon, "still being filled") {
			return
		}
		var a, b HandoffState
		require.NoError(t, json.Unmarshal([]byte(soon), &a), soon)
		require.NoError(t, json.Unmarshal([]byte(later), &b), later)
		assert.Equal(t, b.Unjoined, a.Unjoined)
		assert.Equal(t, b.Findings, a.Findings)
	})
	t.Run("a window", func(t *testing.T) {
		k.hub.forget(id)
		l := k.dial(id)
		ready := l.until("all", func(m raw) bool { return m.T == "ready" })
		if ready.Derived.Behind == nil {
			t.Skip("it was filled before anybody could look")
		}
		assert.Equal(t, int64(-1), ready.Derived.Behind["fills"])
		assert.Equal(t, int64(-1), ready.Derived.Behind["links"], "nobody knows yet what areas join")
		assert.Contains(t, []string{"pending", "work"}, ready.Derived.Stages.Board)
		p, err := k.hub.project(t.Context(), id)
		require.NoError(t, err)
		gnd, _ := ask(p, func() (design.ID, error) { return p.bench.Doc.NetNamed("GND").ID, nil })
		assert.NotEmpty(t, ready.Derived.Links, "nets without areas are known")
		assert.NotContains(t, ready.Derived.Links, fmt.Sprint(gnd), "of the net of the area nothing is said yet")
		for _, f := range ready.Derived.Findings {
			assert.NotEqual(t, "links GND", f.Key, f.Text)
		}
		said := l.until("that all is known", func(m raw) bool { return m.T == "derived" && m.Derived.Behind == nil })
		assert.NotEqual(t, "pending", said.Derived.Stages.Board)
	})
}

// Bench of a design whose areas are filled beside: at opening its results are not known yet, whatever their revision.
func TestOpeningIsBehindUntilAreasAreFilled(t *testing.T) {
	k := newDesk(t)
	id := k.grounded()
	loaded, err := k.store.Load(t.Context(), id)
	require.NoError(t, err)
	var work []workbench.Beside
	b := workbench.OpenWith(loaded.Doc, loaded.Revision, func(*workbench.Bench) func(workbench.Beside) {
		return func(w workbench.Beside) { work = append(work, w) }
	})
	b.Settle()
	for _, of := range []string{"fills", "links", "ends", "spokes"} {
		assert.Equal(t, int64(-1), b.Behind()[of], of)
	}
	assert.NotEqual(t, "done", b.Stages().Board)
	for len(work) > 0 {
		w := work[0]
		work = work[1:]
		w.Run(t.Context(), func(float64) {})()
		b.Settle()
	}
	assert.Nil(t, b.Behind())
	whole := workbench.Open(loaded.Doc.Snapshot(), loaded.Revision)
	assert.Equal(t, whole.Findings(), b.Findings(), "as from scratch")
	nets, links := b.Open()
	n, l := whole.Open()
	assert.Equal(t, []int{n, l}, []int{nets, links})
	assert.Equal(t, len(whole.Links()), links)
}

// A job that ended is never last heard of as running.
func TestJobsAreToldInOrder(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	l := k.dial(id)
	l.opened()
	p, err := k.hub.project(t.Context(), id)
	require.NoError(t, err)
	const many = 200
	last := map[string]JobState{}
	for range many {
		_, progress, end, err := p.begin(t.Context(), "files", 0, p.tellJob)
		require.NoError(t, err)
		progress(0.5)
		progress(1)
		end(nil)
		progress(0.7) // of somebody who has not noticed
	}
	l.say(map[string]any{"t": "ask", "ref": "x", "question": map[string]any{"kind": "find", "query": map[string]any{"text": "R"}}})
	deadline := time.Now().Add(20 * time.Second)
	for over := 0; over < many && time.Now().Before(deadline); {
		m := l.until("a job", func(m raw) bool { return m.T == "job" })
		require.False(t, last[m.Job.ID].Ended, "nothing is said of a job that ended")
		if last[m.Job.ID] = m.Job; m.Job.Ended {
			over++
		}
	}
	assert.Len(t, last, many)
	for _, s := range last {
		assert.True(t, s.Ended, s.ID)
	}
}

// So much is made at a time for everybody together; what is too much is refused at once, with a word when to come again.
func TestPicturesAreBoundedForEverybodyTogether(t *testing.T) {
	k := newDesk(t)
	id := k.grounded()
	_, _ = k.ask("GET", fmt.Sprintf("/projects/%d/finished.svg", id), "")
	busy := make([]func(), atWork)
	for i := range busy {
		var err error
		busy[i], err = k.hub.turns.take(t.Context())
		require.NoError(t, err)
	}
	codes := make(chan int, 60)
	var all sync.WaitGroup
	for range 60 {
		all.Go(func() {
			res, err := http.Get(fmt.Sprintf("%s/api/projects/%d/finished.svg", k.url, id))
			if !assert.NoError(t, err) {
				return
			}
			defer res.Body.Close()
			if res.StatusCode == 503 {
				assert.NotEmpty(t, res.Header.Get("Retry-After"))
			}
			codes <- res.StatusCode
		})
	}
	assert.Eventually(t, func() bool { return len(codes) == 60-inTheQueue }, 20*time.Second, 10*time.Millisecond, "the others wait")
	for _, done := range busy {
		done()
	}
	all.Wait()
	close(codes)
	got := map[int]int{}
	for c := range codes {
		got[c]++
	}
	assert.Equal(t, map[int]int{200: inTheQueue, 503: 60 - inTheQueue}, got)
}

// Who goes away gives the place in the queue away, and what was begun for them stops.
func TestWhatNobodyWaitsForStops(t *testing.T) {
	q := newTurns(1, 2)
	done, err := q.take(t.Context())
	require.NoError(t, err)
	ctx, leave := context.WithCancel(t.Context())
	gone := make(chan error, 1)
	go func() { _, err := q.take(ctx); gone <- err }()
	leave()
	assert.ErrorIs(t, <-gone, context.Canceled)
	assert.Zero(t, q.waiting.Load())
	done()
	again, err := q.take(t.Context())
	require.NoError(t, err)
	again()

	k := newDesk(t)
	loaded, err := k.store.Load(t.Context(), k.grounded())
	require.NoError(t, err)
	d := loaded.Doc
	b := finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
	v, err := b.View(t.Context(), false, true)
	require.NoError(t, err)
	over, cancel := context.WithCancel(t.Context())
	cancel()
	for name, work := range map[string]func() error{
		"view":  func() error { _, err := b.View(over, false, true); return err },
		"svg":   func() error { _, err := v.SVG(over); return err },
		"paths": func() error { _, err := v.Paths(over); return err },
		"image": func() error { _, err := v.Image(over, 2400); return err },
		"model": func() error { _, err := space.Model(over, "x", b, nil); return err },
		"shut":  func() error { _, err := space.Closed(over, "x", b); return err },
	} {
		assert.ErrorIs(t, work(), context.Canceled, name)
	}
}

// The nets that are not joined are said first, apart from all else.
func TestTheGateSaysWhatIsNotJoinedFirst(t *testing.T) {
	assert.Nil(t, gate(false, 0, 0, 0))
	f := gate(false, 7, 2, 5)
	assert.Equal(t, 7, f.Findings)
	assert.Equal(t, 2, f.Unjoined)
	assert.True(t, strings.HasPrefix(f.Error, "2 nets are not joined: 5 links are open. The checks have 5 findings beside."), f.Error)
	assert.True(t, strings.HasPrefix(gate(false, 1, 1, 1).Error, "1 net is not joined: 1 link is open. Look"), gate(false, 1, 1, 1).Error)
	assert.True(t, strings.HasPrefix(gate(false, 1, 0, 0).Error, "The checks have 1 finding. "))
	assert.Contains(t, gate(true, 7, 2, 5).Error, "still being filled and checked")
	assert.Zero(t, gate(true, 7, 2, 5).Unjoined)
}
