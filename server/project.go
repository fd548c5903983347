package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"time"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/paper"
	"goldentrace/core/workbench"
	"goldentrace/store"
)

// project is one open project: a goroutine that owns its bench and serves edits one after
// the other.
type project struct {
	id    int64
	name  string
	store *store.Store
	bench *workbench.Bench
	in    chan func()
	quit  chan struct{}
	once  sync.Once

	clients map[*client]bool
	undo    []int64 // revisions that can be undone, the last on top
	redo    []int64
	acts    map[int64]string
	last    time.Time
	dirty   bool
	handoff *HandoffState
}

func openProject(ctx context.Context, s *store.Store, id int64) (*project, error) {
	d, name, rev, err := s.Load(ctx, id)
	if err != nil {
		return nil, err
	}
	steps, err := s.Steps(ctx, id)
	if err != nil {
		return nil, err
	}
	p := &project{id: id, name: name, store: s, bench: workbench.Open(d, rev), in: make(chan func(), 64), quit: make(chan struct{}), clients: map[*client]bool{}, acts: map[int64]string{}}
	for _, st := range steps {
		p.record(st.Revision, st.Act, st.Reverses)
	}
	if h, ok, err := s.LastHandoff(ctx, id); err != nil {
		return nil, err
	} else if ok {
		if p.handoff, err = handoffState(h); err != nil {
			slog.Warn("the last handoff cannot be read", "project", name, "error", err)
		}
	}
	go p.run()
	return p, nil
}

// record follows the journal: what can be undone and redone after a step.
func (p *project) record(rev int64, act string, reverses int64) {
	switch act {
	case "undo":
		p.undo, p.redo = without(p.undo, reverses), append(p.redo, reverses)
	case "redo":
		p.redo, p.undo = without(p.redo, reverses), append(p.undo, reverses)
	default:
		p.undo, p.redo = append(p.undo, rev), nil
		p.acts[rev] = act
	}
}

func without(stack []int64, top int64) []int64 {
	if n := len(stack); n > 0 && stack[n-1] == top {
		return stack[:n-1]
	}
	return stack
}

func (p *project) run() {
	for {
		select {
		case <-p.quit:
			return
		case f := <-p.in:
			f()
			if p.dirty && len(p.in) == 0 { // the hand first, then what follows from it
				p.dirty = false
				p.tell(Message{T: "derived", Derived: ptr(p.bench.Settle())})
			}
		}
	}
}

func ptr[T any](v T) *T { return &v }

var errClosed = errors.New("the project was closed")

// do runs f on the project's goroutine and waits for it.
func (p *project) do(f func()) error {
	done := make(chan struct{})
	select {
	case p.in <- func() { defer close(done); f() }:
	case <-p.quit:
		return errClosed
	}
	select {
	case <-done:
		return nil
	case <-p.quit:
		return errClosed
	}
}

func (p *project) close() { p.once.Do(func() { close(p.quit) }) }

// tell sends a message to everyone in the project.
func (p *project) tell(m Message) {
	data, err := json.Marshal(m)
	if err != nil {
		slog.Error("a message cannot be written", "error", err)
		return
	}
	for c := range p.clients {
		c.send(data)
	}
}

// History is what can be undone and redone.
type History struct {
	Undo  string    `json:"undo"` // the act that would be undone; empty: none
	Redo  string    `json:"redo"`
	Steps int       `json:"steps"`
	Kept  time.Time `json:"kept"` // when the last edit was kept; zero: none this session
}

func (p *project) history() History {
	h := History{Steps: len(p.undo), Kept: p.last}
	if n := len(p.undo); n > 0 {
		h.Undo = p.acts[p.undo[n-1]]
	}
	if n := len(p.redo); n > 0 {
		h.Redo = p.acts[p.redo[n-1]]
	}
	return h
}

// edit applies a command, keeps it and tells everyone. It answers with the revision it made;
// an edit whose ref was kept already is answered with that revision and done only once.
func (p *project) edit(ctx context.Context, kind, ref string, c edit.Command) (int64, error) {
	if ref != "" {
		e, ok, err := p.store.ByRef(ctx, p.id, ref)
		if err != nil {
			return 0, err
		}
		if ok {
			return e.Revision, nil
		}
	}
	cs, err := p.bench.Edit(c)
	if err != nil {
		return 0, err
	}
	return p.keep(ctx, store.Entry{Act: kind, Ref: ref, Changes: cs})
}

// step undoes (or redoes) the last step.
func (p *project) step(ctx context.Context, act, ref string) (int64, error) {
	if ref != "" {
		if e, ok, err := p.store.ByRef(ctx, p.id, ref); err != nil || ok {
			return e.Revision, err
		}
	}
	stack := p.undo
	if act == "redo" {
		stack = p.redo
	}
	if len(stack) == 0 {
		return 0, fmt.Errorf("there is nothing to %s", act)
	}
	target := stack[len(stack)-1]
	e, err := p.store.At(ctx, p.id, target)
	if err != nil {
		return 0, fmt.Errorf("the step cannot be read from the journal: %w", err)
	}
	cs := e.Changes
	if act == "undo" {
		cs = cs.Inverted()
	}
	p.bench.Apply(cs)
	return p.keep(ctx, store.Entry{Act: act, Reverses: target, Ref: ref, Changes: cs})
}

// keep makes durable what the bench already holds; when the disk refuses, the bench goes
// back too.
func (p *project) keep(ctx context.Context, e store.Entry) (int64, error) {
	e.Revision, e.Made = p.bench.Rev, time.Now()
	p.dirty = true
	if err := p.store.Commit(ctx, p.id, e, p.bench.Doc.Next); err != nil {
		p.bench.Apply(e.Changes.Inverted())
		p.bench.Rev -= 2
		return 0, fmt.Errorf("the edit could not be kept on the disk, so it was taken back: %w", err)
	}
	p.record(e.Revision, e.Act, e.Reverses)
	p.last = e.Made
	p.tell(Message{T: "changes", Rev: e.Revision, Act: e.Act, Changes: light(e.Changes), Drawn: p.drawn(e.Changes), History: ptr(p.history())})
	return e.Revision, nil
}

// opening is everything a browser needs to show the project.
func (p *project) opening() Message {
	m := Message{T: "open", Rev: p.bench.Rev, Name: p.name, Derived: ptr(p.bench.All()), History: ptr(p.history()), Handoff: p.handoff}
	for o := range p.bench.Doc.All() {
		m.Objects = append(m.Objects, Boxed{o.ObjectKind(), lightObject(o)})
	}
	return m
}

// drawn is what changed on sheets as it looks now, in the first use of each sheet.
func (p *project) drawn(cs edit.ChangeSet) []paper.Drawn {
	var out []paper.Drawn
	for _, c := range cs {
		if o, ok := c.After.(design.OnSheet); ok {
			path := ""
			if places := p.bench.Tree().Of(o.SheetID()); len(places) > 0 {
				path = places[0].Path
			}
			out = append(out, paper.Drawn{ID: c.ID, Kind: c.Kind, Marks: paper.Marks(p.bench.Doc, o, path)})
		}
	}
	return out
}

// lightObject is an object as it goes to browsers: pictures without their bytes, which they
// fetch by themselves.
func lightObject(o design.Object) design.Object {
	if a, ok := o.(*design.Asset); ok {
		c := *a
		c.Data = nil
		return &c
	}
	return o
}

func light(cs edit.ChangeSet) edit.ChangeSet {
	out := make(edit.ChangeSet, len(cs))
	for i, c := range cs {
		out[i] = c
		if c.Kind == design.KindAsset {
			out[i].Before = nil
			if c.After != nil {
				out[i].After = lightObject(c.After)
			}
		}
	}
	return out
}

// Boxed is an object with its kind.
type Boxed struct {
	Kind   design.Kind   `json:"kind"`
	Object design.Object `json:"object"`
}
