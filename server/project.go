package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"sync/atomic"
	"time"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/layout"
	"goldentrace/core/library"
	"goldentrace/core/paper"
	"goldentrace/core/workbench"
	"goldentrace/store"
)

// project is one open project: a goroutine that owns its bench and serves edits one after
// the other. What follows from an edit and how it looks is computed before the edit is kept,
// so that nothing is kept that cannot be opened or drawn again.
type project struct {
	id    int64
	store *store.Store
	// library is where commands take parts from.
	library library.Source
	bench   *workbench.Bench
	in      chan func()
	quit    chan struct{}
	once    sync.Once

	name    string
	missing []string // what could not be read
	example bool     // nobody changes it
	clients map[*client]bool
	shares  map[string]*Shared // what each author picked last
	history history
	changed map[design.ID]lastChange // in this session
	last    time.Time
	handoff *HandoffState
	jobs    jobs
	awaited []chan struct{} // closed once nothing of the design is behind
	tale    tale
	// used is when somebody last asked for the project, in Unix seconds; people counts the clients.
	used   atomic.Int64
	people atomic.Int32
	// here are the names of who is in the project, each once, in order; one who gave none is "".
	here atomic.Pointer[[]string]
	// largeDone tells the hub that something large was done, moved that a hand moved; stepAside lets those come first who wait for a project to be
	// shown, or whose hand moves in another.
	largeDone func()
	moved     func()
	stepAside func(context.Context)
	// broken tells the hub that the project cannot go on.
	broken func(p *project, why error)
}

// lastChange is who last changed an object, and when.
type lastChange struct {
	rev    int64
	author store.Author
}

// openProject reads a project and finds what follows from it. What can be shown before that is given to
// seen.
func openProject(ctx context.Context, home *hub, id int64, seen func(*early)) (*project, error) {
	s := home.store
	p := &project{
		id: id, store: s, library: home.library, in: make(chan func(), 64), quit: make(chan struct{}), clients: map[*client]bool{}, shares: map[string]*Shared{}, jobs: jobs{running: map[string]*job{}},
		changed: map[design.ID]lastChange{}, broken: func(*project, error) {}, largeDone: home.memory.soon, moved: func() { home.shows.moved(id) },
		stepAside: func(ctx context.Context) { home.shows.stepAside(ctx, id) },
	}
	if err := p.read(ctx, seen); err != nil {
		return nil, err
	}
	h, ok, err := s.LastHandoff(ctx, id)
	if err != nil {
		return nil, err
	}
	if ok {
		if p.handoff, err = handoffState(h); err != nil {
			slog.Warn("the last handoff cannot be read", "project", p.name, "error", err)
		}
	}
	p.touch()
	return p, nil
}

// read reads the project from the store and derives everything from it. A fault of ours in
// doing so is an error, not the end of the program.
func (p *project) read(ctx context.Context, seen func(*early)) (err error) {
	defer func() {
		if fault := recover(); fault != nil {
			slog.Error("opening a project failed", "project", p.id, "fault", fault)
			err = fmt.Errorf("the program fails on what this project holds (%v)", fault)
		}
	}()
	loaded, err := p.store.Load(ctx, p.id)
	if err != nil {
		return err
	}
	steps, err := p.store.Steps(ctx, p.id)
	if err != nil {
		return err
	}
	p.name, p.missing, p.example = loaded.Name, loaded.Missing, loaded.Example
	tale := newTale()
	seen(&early{tale.run, loaded.Revision, loaded.Name, loaded.Missing, loaded.Example, loaded.Doc.Share()})
	p.bench = workbench.OpenWith(loaded.Doc, loaded.Revision, p.beside)
	p.bench.Library = p.library
	p.history, p.tale = newHistory(), tale
	for _, st := range steps {
		p.history.record(st)
	}
	return nil
}

func (p *project) touch() { p.used.Store(time.Now().Unix()) }

func (p *project) run() {
	for {
		select {
		case <-p.quit:
			return
		case f := <-p.in:
			p.safely(f)
		}
	}
}

// safely runs f. Should it panic, what is open may be in pieces: it is thrown away and read
// again from the store, and everybody gets it anew.
func (p *project) safely(f func()) {
	defer func() {
		if fault := recover(); fault != nil {
			slog.Error("a fault in an open project", "project", p.name, "fault", fault)
			p.reopen()
		}
	}()
	f()
}

// reopen reads the project again. One that cannot be read any more is closed.
func (p *project) reopen() {
	if err := p.read(context.Background(), func(*early) {}); err != nil {
		p.broadcast(Broken{sentence(err)})
		p.broken(p, err)
		p.close()
		return
	}
	p.wake()
	for c := range p.clients {
		p.handOver(c, nil)
	}
}

func ptr[T any](v T) *T { return &v }

var (
	errClosed = errors.New("the project was closed")
	errLooks  = errors.New("this project is open to be looked at; take a copy of it to change it")
	errFault  = errors.New("the program failed on this; nothing of it was kept, and the project was read again from the disk")
)

// do runs f on the project's goroutine and waits for it. f must not wait for anybody: no
// sockets, no responses.
func (p *project) do(f func()) error {
	p.touch()
	done := make(chan struct{})
	whole := false
	select {
	case p.in <- func() { defer close(done); f(); whole = true }:
	case <-p.quit:
		return errClosed
	}
	select {
	case <-done:
		if !whole {
			return errFault
		}
		return nil
	case <-p.quit:
		return errClosed
	}
}

// ask runs f on the project's goroutine and brings back what it answers.
func ask[T any](p *project, f func() (T, error)) (out T, err error) {
	failed := p.do(func() { out, err = f() })
	return out, errors.Join(failed, err)
}

func (p *project) close() {
	p.once.Do(func() {
		close(p.quit)
		p.jobs.stopAll()
	})
}

// broadcast sends a message to everyone in the project.
func (p *project) broadcast(m any) {
	data, err := encode(m)
	if err != nil {
		slog.Error("a message cannot be written", "error", err)
		return
	}
	for c := range p.clients {
		c.send(data)
	}
}

// edit applies a command, keeps it and tells everyone. It answers with the revision it made;
// an edit whose ref was kept already is answered with that revision and done only once. agreed
// is what the person was told the command would join and part.
func (p *project) edit(ctx context.Context, c *client, req Request) (done Done, err error) {
	done.Ref = req.Ref
	if rev, ok, err := p.kept(ctx, req.Ref); err != nil || ok {
		done.Rev = rev
		return done, err
	}
	kind, cmd, err := edit.Decode(req.Cmd)
	if err != nil {
		return done, err
	}
	cs, _, err := p.bench.Try(cmd, req.Agreed)
	if err != nil {
		return done, err
	}
	done.Over = p.overwritten(cs, c, req.Rev)
	if s, ok := cmd.(edit.Sayer); ok {
		done.Said = s.Said()
	}
	if l, ok := cmd.(edit.Loser); ok {
		done.Lost = l.Lost()
	}
	done.Rev, err = p.keep(ctx, store.Entry{Act: kind, Ref: req.Ref, Author: c.author, Changes: cs})
	return done, err
}

// kept finds the edit with the sender's ref among those kept already.
func (p *project) kept(ctx context.Context, ref string) (int64, bool, error) {
	if ref == "" {
		return 0, false, nil
	}
	e, ok, err := p.store.ByRef(ctx, p.id, ref)
	return e.Revision, ok, err
}

// step undoes (or redoes) the person's own last step, as long as what others did since does not
// stand in its way.
func (p *project) step(ctx context.Context, c *client, act, ref string) (done Done, err error) {
	done.Ref = ref
	if rev, ok, err := p.kept(ctx, ref); err != nil || ok {
		done.Rev = rev
		return done, err
	}
	target, ok := p.history.next(act, c.author.ID)
	if !ok {
		return done, fmt.Errorf("there is nothing of yours to %s", act)
	}
	e, err := p.store.At(ctx, p.id, target)
	if err != nil {
		return done, fmt.Errorf("the step cannot be read from the journal: %w", err)
	}
	if e.Earlier {
		return done, fmt.Errorf("%s ends here: that step was made by an earlier version of Golden Trace, which kept boards otherwise", act)
	}
	cs := e.Changes
	if act == "undo" {
		cs = cs.Inverted()
	}
	if err := p.inTheWay(ctx, cs, target, act); err != nil {
		return done, err
	}
	if err := p.bench.Step(cs); err != nil {
		return done, fmt.Errorf("the step cannot be taken: %w", err)
	}
	done.Took = &Took{e.Act, edit.RecountOf(p.bench.Doc, cs)}
	done.Rev, err = p.keep(ctx, store.Entry{Act: act, Reverses: target, Ref: ref, Author: c.author, Changes: cs})
	return done, err
}

// tooMuch bounds what is drawn of one edit, in points of marks.
const tooMuch = 500_000

// keep draws what changed, derives what follows, and makes durable what the bench already
// holds. When that cannot be, the project is read again from the store.
func (p *project) keep(ctx context.Context, e store.Entry) (int64, error) {
	e.Revision, e.Made = p.bench.Rev, time.Now()
	drawn := p.drawn(e.Changes)
	points := 0
	for _, d := range drawn {
		for _, m := range d.Marks {
			points += len(m.Pts)
		}
	}
	if points > tooMuch {
		p.reopen()
		return 0, fmt.Errorf("this would draw %d points on the sheets at once; %d are the most", points/2, tooMuch/2)
	}
	derived := p.bench.Settle()
	p.wake()
	e.Parts = p.bench.Parts()
	bodies, err := e.Changes.Bodies()
	if err != nil {
		p.reopen()
		return 0, err
	}
	e.Bodies = bodies
	if err := p.store.Commit(ctx, p.id, e, p.bench.Doc.Next); err != nil {
		p.reopen()
		return 0, fmt.Errorf("the edit could not be kept on the disk, so it was taken back: %w", err)
	}
	p.history.record(store.Step{Revision: e.Revision, Act: e.Act, Reverses: e.Reverses, Author: e.Author})
	for _, x := range e.Changes {
		p.changed[x.ID] = lastChange{e.Revision, e.Author}
	}
	p.last = e.Made
	p.relate(Changed{Rev: e.Revision, Act: e.Act, Changes: light(e), Drawn: drawn, Patterns: patterns(e.Changes), Texts: p.texts(e.Changes)})
	for c := range p.clients {
		c.tell(Told{ptr(p.historyOf(c))})
	}
	p.relate(Derived{Derived: &derived})
	return e.Revision, nil
}

// drawn is what changed on sheets as it looks now, in the first use of each sheet.
func (p *project) drawn(cs edit.ChangeSet) []paper.Drawn {
	var out []paper.Drawn
	for _, c := range cs {
		if o, ok := c.After.(design.OnSheet); ok {
			out = append(out, paper.Drawn{ID: c.ID, Kind: c.Kind, Marks: paper.Marks(p.bench.Doc, o, p.firstPath(o.SheetID()))})
		}
	}
	return out
}

// patterns of the footprints that came or changed.
func patterns(cs edit.ChangeSet) (out []layout.Pattern) {
	for _, c := range cs {
		if f, ok := c.After.(*design.Footprint); ok {
			out = append(out, layout.PatternOf(f))
		}
	}
	return out
}

// texts in outline fonts that came or changed.
func (p *project) texts(cs edit.ChangeSet) (out []layout.Lettered) {
	for _, c := range cs {
		out = lettered(out, p.bench.Doc.Asset, c.After)
	}
	return out
}

func (p *project) firstPath(sheet design.ID) string {
	if uses := p.bench.Tree().Of(sheet); len(uses) > 0 {
		return uses[0].Path
	}
	return ""
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

// light are the changes of an act as they go to browsers.
func light(e store.Entry) []ObjectChange {
	out := make([]ObjectChange, len(e.Bodies))
	for i, b := range e.Bodies {
		out[i] = ObjectChange{b.Kind, b.ID, b.After}
		if o := e.Changes[i].After; b.Kind == design.KindAsset && o != nil {
			out[i].After, _ = json.Marshal(lightObject(o)) // it was written once already
		}
	}
	return out
}
