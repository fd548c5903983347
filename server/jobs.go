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
	news    []JobState // not told yet, the newest of each job, in the order in which they first had some
	telling bool       // somebody is about to tell them
}

type job struct {
	state JobState
	stop  context.CancelFunc
	told  time.Time
}

// mostJobs bounds the long work in one project at a time.
const mostJobs = 4

var errManyJobs = fmt.Errorf("%d long jobs run in this project already; wait for one or stop one", mostJobs)

// errGivenUp answers whoever asked for what somebody stopped.
var errGivenUp = errors.New("it was stopped before it was done")

// givenUp says in a sentence that a job was stopped, unless nobody waits for the answer any more.
func givenUp(outer, inner context.Context, err error) error {
	if errors.Is(err, context.Canceled) && inner.Err() != nil && outer.Err() == nil {
		return errGivenUp
	}
	return err
}

// begin notes a job of the kind on the present design; it is over when end is called. progress may be
// called as often as one likes, from anywhere that tell may be called from. What is told of a job is told in the
// order in which it happened, its end last: tell is called one at a time, with the jobs locked.
func (p *project) begin(ctx context.Context, kind string, rev int64, tell func(JobState)) (at context.Context, progress func(float64), end func(error), err error) {
	at, stop := context.WithCancel(ctx)
	j := &job{state: JobState{Kind: kind, Rev: rev}, stop: stop}
	p.jobs.mu.Lock()
	if len(p.jobs.running) >= mostJobs {
		p.jobs.mu.Unlock()
		stop()
		return nil, nil, nil, errManyJobs
	}
	p.jobs.last++
	j.state.ID = strconv.Itoa(p.jobs.last)
	p.jobs.running[j.state.ID] = j
	tell(j.state)
	p.jobs.mu.Unlock()
	progress = func(share float64) {
		p.jobs.mu.Lock()
		defer p.jobs.mu.Unlock()
		if j.state.Ended { // somebody still works on what was stopped
			return
		}
		if j.state.Share = share; time.Since(j.told) > 100*time.Millisecond {
			j.told = time.Now()
			tell(j.state)
		}
	}
	end = func(err error) {
		stopped := at.Err() != nil
		stop()
		p.jobs.mu.Lock()
		defer p.jobs.mu.Unlock()
		delete(p.jobs.running, j.state.ID)
		j.state.Ended = true
		if err != nil && !stopped {
			j.state.Why = sentence(err)
		}
		tell(j.state)
	}
	return at, progress, end, nil
}

// job does long work on the present design, which ends with it whatever happens.
func (p *project) job(outer context.Context, kind string, rev int64, work func(ctx context.Context, progress func(float64)) error) (err error) {
	ctx, progress, end, err := p.begin(outer, kind, rev, p.tellJob)
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
	err = givenUp(outer, ctx, work(ctx, progress))
	whole = true
	return err
}

// late does work on a copy of the design that is a job only when it takes longer than anybody waits without a word.
func (p *project) late(outer context.Context, kind string, rev int64, work func(ctx context.Context, progress func(float64)) error) error {
	ctx, stop := context.WithCancel(outer)
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
	err = givenUp(outer, ctx, err)
	return err
}

// tellJob has everybody told how a job is getting on, without waiting for the project's goroutine: what of one job
// was not told yet is replaced. The jobs are locked.
func (p *project) tellJob(s JobState) {
	j := &p.jobs
	if i := slices.IndexFunc(j.news, func(o JobState) bool { return o.ID == s.ID }); i >= 0 {
		j.news[i] = s
	} else {
		j.news = append(j.news, s)
	}
	if !j.telling {
		j.telling = true
		go p.tellJobs()
	}
}

// tellJobs tells everybody the news of jobs.
func (p *project) tellJobs() {
	_ = p.do(func() {
		p.jobs.mu.Lock()
		news := p.jobs.news
		p.jobs.news, p.jobs.telling = nil, false
		p.jobs.mu.Unlock()
		for _, s := range news {
			p.broadcast(Job{s})
		}
	})
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
			take := w.Run(ctx, func(share float64) {
				progress(share)
				p.stepAside(ctx)
			})
			end(taken(take))
			p.largeDone()
		}()
	}
}

// settled brings what is derived up to date and tells everybody.
func (p *project) settled() {
	d := p.bench.Settle()
	p.relate(Derived{Derived: &d})
	p.wake()
}
