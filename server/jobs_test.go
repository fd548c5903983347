package server

import (
	"context"
	"fmt"
	"net/http"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// large is a board of more copper than is checked while everybody waits.
func (k *desk) large() int64 {
	k.Helper()
	d, err := synthetic.Design(2600)
	require.NoError(k, err)
	id, err := k.store.Create(context.Background(), "Large", d)
	require.NoError(k, err)
	return id
}

func clearance(nm int64) map[string]any {
	return map[string]any{"t": "edit", "cmd": map[string]any{"kind": "setRules", "rules": map[string]any{"clearance": nm}}}
}

// A rule changed on a large board is answered at once; what it breaks is found beside, and said to be of an
// earlier revision until then. What others do meanwhile is in it.
func TestALargeBoardIsCheckedBeside(t *testing.T) {
	k := newDesk(t)
	id := k.large()
	l, other := k.dial(id), k.dialAs(id, "ben-browser", "Ben")
	l.opened()
	other.opened()
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	first := l.asked(clearance(1_300_000))
	require.Equal(t, "done", first.T, first.Why)
	hole := other.asked(map[string]any{"t": "edit", "cmd": map[string]any{"kind": "addHole", "at": xy(20_000_000, 9_000_000), "diameter": 3_000_000}})
	require.Equal(t, "done", hole.T, hole.Why)
	end := other.until("the end of the check", func(m raw) bool { return m.T == "job" && m.Job.Ended })
	assert.Equal(t, "check", end.Job.Kind)
	assert.Empty(t, end.Job.Why)
	require.Eventually(t, func() (settled bool) {
		require.NoError(t, p.do(func() { settled = p.bench.Settle().Behind == nil }))
		return settled
	}, 20*time.Second, 20*time.Millisecond)
	require.NoError(t, p.do(func() {
		want := workbench.Open(p.bench.Doc.Snapshot(), p.bench.Rev).Findings()
		assert.Greater(t, len(want), 1000)
		assert.Equal(t, want, p.bench.Findings())
	}))
}

// Who follows is told that the check is behind before it is told what it found.
func TestWhatIsBehindSaysSo(t *testing.T) {
	k := newDesk(t)
	l := k.dial(k.large())
	l.opened()
	l.until("what is checked beside from the opening on", func(m raw) bool { return m.T == "derived" && m.Derived.Behind == nil })
	l.say(map[string]any{"t": "edit", "ref": "rule", "cmd": clearance(1_300_000)["cmd"]})
	said := l.until("the word that the check is behind", func(m raw) bool {
		return m.T == "derived" && m.Derived.Behind["board rules"] == 0 && len(m.Derived.Behind) == 1
	})
	assert.Contains(t, said.Derived.Behind, "board rules")
	l.until("a state that is not behind", func(m raw) bool { return m.T == "derived" && m.Derived.Behind == nil })
}

// A job that is stopped leaves things as they were, and is heard although the project is busy.
func TestAJobIsStoppedWhileTheProjectIsBusy(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	l := k.dial(id)
	l.opened()
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	ctx, progress, end, err := p.begin(context.Background(), "files", 0, p.tellJob)
	require.NoError(t, err)
	job := l.next("job").Job
	assert.Equal(t, JobState{ID: job.ID, Kind: "files"}, job)
	progress(0.25)
	assert.InDelta(t, 0.25, l.next("job").Job.Share, 1e-9)
	free := make(chan bool)
	go func() { _ = p.do(func() { <-free }) }()
	l.say(asks("find", map[string]any{"query": map[string]any{"text": "R"}})) // waits
	l.say(map[string]any{"t": "giveUp", "ref": "s", "job": job.ID})
	select {
	case <-ctx.Done():
	case <-time.After(5 * time.Second):
		require.Fail(t, "it was not heard")
	}
	close(free)
	end(ctx.Err())
	ended := l.until("its end", func(m raw) bool { return m.T == "job" && m.Job.Ended })
	assert.Empty(t, ended.Job.Why, "to stop it is no fault")
	assert.Equal(t, "done", l.asked(map[string]any{"t": "giveUp", "job": "999"}).T, "one that is over can be stopped again")
}

// What keeps everybody waiting is seen as a job, and can be stopped; the project goes on afterwards.
func TestWhatTakesLongIsSeenAndStopped(t *testing.T) {
	k := newDesk(t)
	id := k.demo("Moth Lamp")
	l := k.dial(id)
	l.opened()
	p, err := k.hub.project(context.Background(), id)
	require.NoError(t, err)
	ended := make(chan error, 1)
	go func() {
		_ = p.do(func() {
			p.attended("act", func() {
				deadline := time.Now().Add(10 * time.Second)
				for time.Now().Before(deadline) {
					if err := p.bench.Far(0.5); err != nil {
						ended <- err
						return
					}
					time.Sleep(time.Millisecond)
				}
				ended <- nil
			})
		})
	}()
	job := l.next("job").Job
	assert.Equal(t, "act", job.Kind)
	l.say(map[string]any{"t": "giveUp", "ref": "s", "job": job.ID})
	require.ErrorIs(t, <-ended, errStopped)
	l.until("its end", func(m raw) bool { return m.T == "job" && m.Job.ID == job.ID && m.Job.Ended })
	assert.Equal(t, "answer", l.asked(asks("find", map[string]any{"query": map[string]any{"text": "R"}})).T)
	require.NoError(t, p.bench.Far(1), "nothing is asked any more once it is over")
}

// The files that nobody waits for any more are not made.
func TestFilesThatAreStoppedAreNotKept(t *testing.T) {
	k := newDesk(t)
	id := k.large()
	l := k.dial(id)
	l.opened()
	answered := make(chan int)
	go func() {
		code, _ := k.ask(http.MethodPost, fmt.Sprintf("/projects/%d/handoff?despite=1", id), "")
		answered <- code
	}()
	job := l.until("the job of the files", func(m raw) bool { return m.T == "job" && m.Job.Kind == "files" && !m.Job.Ended }).Job // beside the check
	l.say(map[string]any{"t": "giveUp", "ref": "s", "job": job.ID})
	assert.GreaterOrEqual(t, <-answered, 400)
	code, _ := k.ask(http.MethodGet, fmt.Sprintf("/projects/%d/handoff.zip", id), "")
	assert.GreaterOrEqual(t, code, 400)
}

// Only so many jobs run at a time.
func TestJobsAreBounded(t *testing.T) {
	k := newDesk(t)
	p, err := k.hub.project(context.Background(), k.demo("Moth Lamp"))
	require.NoError(t, err)
	var ends []func(error)
	for range mostJobs {
		_, _, end, err := p.begin(context.Background(), "files", 0, p.tellJob)
		require.NoError(t, err)
		ends = append(ends, end)
	}
	_, _, _, err = p.begin(context.Background(), "files", 0, p.tellJob)
	assert.ErrorContains(t, err, "4 long jobs run in this project already")
	ends[0](nil)
	_, _, end, err := p.begin(context.Background(), "files", 0, p.tellJob)
	require.NoError(t, err)
	end(nil)
}
