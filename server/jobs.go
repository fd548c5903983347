package server

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"sync"
	"time"

	"goldentrace/core/workbench"
)

// JobState is how long work beside the hand is getting on.
type JobState struct {
	ID    string  `json:"id"`
	Kind  string  `json:"kind"`  // files, print, check, compare, import, fill, act, search
	Rev   int64   `json:"rev"`   // of the design it works on
	Share float64 `json:"share"` // that is done, 0 to 1
	Ended bool    `json:"ended,omitempty"`
	Why   string  `json:"why,omitempty"` // it could not be done
}

// jobs are the long work of a project that runs now: each on a copy of the design, so that nobody waits
// for it.
type jobs struct {
	mu      sync.Mutex
	running map[string]*job
	last    int
}

type job struct {
	state JobState
	stop  context.CancelFunc
	told  time.Time
}

// mostJobs bounds the long work in one project at a time.
const mostJobs = 4

// begin notes a job of the kind on the present design; it is over when end is called. progress may be
// called as often as one likes, from anywhere that tell may be called from.
func (p *project) begin(ctx context.Context, kind string, rev int64, tell func(JobState)) (at context.Context, progress func(float64), end func(error), err error) {
	at, stop := context.WithCancel(ctx)
	j := &job{state: JobState{Kind: kind, Rev: rev}, stop: stop}
	p.jobs.mu.Lock()
	if len(p.jobs.running) >= mostJobs {
		p.jobs.mu.Unlock()
		stop()
		return nil, nil, nil, fmt.Errorf("%d long jobs run in this project already; wait for one or stop one", mostJobs)
	}
	p.jobs.last++
	j.state.ID = strconv.Itoa(p.jobs.last)
	p.jobs.running[j.state.ID] = j
	p.jobs.mu.Unlock()
	tell(j.state)
	progress = func(share float64) {
		p.jobs.mu.Lock()
		j.state.Share = share
		state, due := j.state, time.Since(j.told) > 100*time.Millisecond
		if due {
			j.told = time.Now()
		}
		p.jobs.mu.Unlock()
		if due {
			tell(state)
		}
	}
	end = func(err error) {
		stopped := at.Err() != nil
		stop()
		p.jobs.mu.Lock()
		delete(p.jobs.running, j.state.ID)
		state := j.state
		p.jobs.mu.Unlock()
		state.Ended = true
		if err != nil && !stopped {
			state.Why = sentence(err)
		}
		tell(state)
	}
	return at, progress, end, nil
}

// job does long work on the present design, which ends with it whatever happens.
func (p *project) job(ctx context.Context, kind string, rev int64, work func(ctx context.Context, progress func(float64)) error) (err error) {
	ctx, progress, end, err := p.begin(ctx, kind, rev, p.tellJob)
	if err != nil {
		return err
	}
	whole := false
	defer func() {
		if !whole {
			err = errFault // which the fault that goes on upwards is answered with
		}
		end(err)
	}()
	err = work(ctx, progress)
	whole = true
	return err
}

// late does work on a copy of the design that is a job only when it takes longer than anybody waits without a word.
func (p *project) late(ctx context.Context, kind string, rev int64, work func(ctx context.Context, progress func(float64)) error) error {
	ctx, stop := context.WithCancel(ctx)
	defer stop()
	var mu sync.Mutex
	over := false
	tell, end := func(float64) {}, func(error) {}
	timer := time.AfterFunc(patience, func() {
		mu.Lock()
		defer mu.Unlock()
		if over {
			return
		}
		at, progress, ended, err := p.begin(ctx, kind, rev, p.tellJob)
		if err == nil { // else it goes on unseen
			tell, end = progress, ended
			context.AfterFunc(at, stop)
		}
	})
	defer timer.Stop()
	var err error
	defer func() { // whatever happens
		mu.Lock()
		defer mu.Unlock()
		over = true
		end(err)
	}()
	err = errFault
	err = work(ctx, func(share float64) {
		mu.Lock()
		t := tell
		mu.Unlock()
		t(share)
	})
	return err
}

// tellJob tells everybody how a job is getting on, without waiting for the project's goroutine.
func (p *project) tellJob(s JobState) {
	go func() { _ = p.do(func() { p.broadcast(Job{s}) }) }()
}

// patience is how long an act may keep everybody waiting without a word.
const patience = 200 * time.Millisecond

var errStopped = errors.New("it was stopped; nothing has changed")

// attended does something on the project's goroutine that may take a while: then it is a job, that is seen by everybody and can be stopped.
func (p *project) attended(kind string, work func()) {
	begun := time.Now()
	var at context.Context
	var progress func(float64)
	var end func(error)
	p.bench.Going = func(share float64) error {
		if end == nil && time.Since(begun) > patience {
			var err error
			at, progress, end, err = p.begin(context.Background(), kind, p.bench.Rev, func(s JobState) { p.broadcast(Job{s}) })
			if err != nil { // it goes on unseen
				at, progress, end = context.Background(), func(float64) {}, func(error) {}
			}
		}
		if end == nil {
			return nil
		}
		progress(share)
		if at.Err() != nil {
			return errStopped
		}
		return nil
	}
	bench := p.bench
	defer func() {
		bench.Going = nil
		if end != nil {
			end(nil)
		}
	}()
	work()
}

// stop stops a job; one that has ended already is none.
func (j *jobs) stop(id string) {
	j.mu.Lock()
	defer j.mu.Unlock()
	if job := j.running[id]; job != nil {
		job.stop()
	}
}

func (j *jobs) stopAll() {
	j.mu.Lock()
	defer j.mu.Unlock()
	for _, job := range j.running {
		job.stop()
	}
}

// list are the jobs that run now, in the order in which they began.
func (j *jobs) list() []JobState {
	j.mu.Lock()
	defer j.mu.Unlock()
	var out []JobState
	for _, job := range j.running {
		out = append(out, job.state)
	}
	slices.SortFunc(out, func(a, b JobState) int { return cmp.Or(cmp.Compare(len(a.ID), len(b.ID)), cmp.Compare(a.ID, b.ID)) })
	return out
}

// beside makes a result of the bench on a copy of the design; what comes of it is taken in by the
// project's goroutine and told to everybody.
func (p *project) beside(bench *workbench.Bench) func(workbench.Beside) {
	taken := func(take func()) error {
		return p.do(func() {
			if p.bench == bench {
				take()
				p.settled()
			}
		})
	}
	return func(w workbench.Beside) {
		if w.Quick {
			go func() { _ = taken(w.Run(context.Background(), func(float64) {})) }()
			return
		}
		ctx, progress, end, err := p.begin(context.Background(), w.Kind, w.Rev, p.tellJob)
		if err != nil { // it is made at once, with everybody waiting
			w.Run(context.Background(), func(float64) {})()
			return
		}
		go func() {
			take := w.Run(ctx, progress)
			end(taken(take))
		}()
	}
}

// settled brings what is derived up to date and tells everybody.
func (p *project) settled() {
	d := p.bench.Settle()
	p.relate(Derived{Derived: &d})
}
