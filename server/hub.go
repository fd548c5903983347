package server

import (
	"context"
	"errors"
	"fmt"
	"log/slog"
	"sync"
	"sync/atomic"
	"time"

	"goldentrace/core/design"
	"goldentrace/store"
)

// hub holds the open projects.
type hub struct {
	store *store.Store
	// library is where commands and people take parts from.
	library *shelf
	// depot is where parts are bought; nil: nowhere.
	depot *depot
	mu    sync.Mutex
	open  map[int64]*slot
	quit  chan struct{}
	once  sync.Once
	// sockets counts the live connections of all projects.
	sockets atomic.Int32
	// turns bound what is made of whole designs.
	turns *turns
	// shows are the tabs that wait for a project to be shown.
	shows shows
	// memory keeps the program small.
	memory *memory
	// examples are those that are not kept yet.
	examples   []Example
	examplesMu sync.Mutex
}

// slot is a project that is open or being opened. loaded is closed when early is there or will not come,
// done when the project is open or cannot be opened.
type slot struct {
	loaded chan struct{}
	early  atomic.Pointer[early]
	// shown tells that the tab that had the project opened shows the stage in view, nil: none did.
	shown   chan struct{}
	seen    sync.Once
	done    chan struct{}
	project *project
	err     error
}

// show tells that the tab shows something, or never will.
func (s *slot) show() {
	if s.shown != nil {
		s.seen.Do(func() { close(s.shown) })
	}
}

// longestShow is how long finding what follows from a project waits until the tab that had it opened
// shows the stage in view; both would else share the processors.
const longestShow = 1500 * time.Millisecond

// A project that nobody is in and nobody asked for is closed after a while.
const (
	idleAfter  = 10 * time.Minute
	lookEvery  = time.Minute
	mostSocket = 512 // in all
	mostInOne  = 64  // in one project
)

func newHub(s *store.Store, examples ...Example) *hub {
	h := &hub{store: s, library: newShelf(context.Background(), s), examples: examples, turns: newTurns(atWork, inTheQueue), memory: newMemory(), open: map[int64]*slot{}, quit: make(chan struct{})}
	go h.tidy()
	return h
}

// slot finds the project, or begins to open it; for a tab that is shown it before all is there, or not. Opening one
// does not hold up others.
func (h *hub) slot(ctx context.Context, id int64, forTab bool) *slot {
	h.mu.Lock()
	defer h.mu.Unlock()
	s, ok := h.open[id]
	if !ok {
		s = &slot{done: make(chan struct{}), loaded: make(chan struct{})}
		if forTab {
			s.shown = make(chan struct{})
		}
		h.open[id] = s
		go h.fill(context.WithoutCancel(ctx), id, s)
	}
	return s
}

// project opens the project, or finds it open.
func (h *hub) project(ctx context.Context, id int64) (*project, error) {
	s := h.slot(ctx, id, false)
	select {
	case <-s.done:
	case <-ctx.Done():
		return nil, ctx.Err()
	}
	if s.err != nil {
		return nil, s.err
	}
	s.project.touch()
	return s.project, nil
}

// fill opens a project and notes whether that could be done.
func (h *hub) fill(ctx context.Context, id int64, s *slot) {
	defer close(s.done)
	seen := sync.OnceFunc(func() { close(s.loaded) })
	shown := func() {}
	if s.shown != nil {
		shown = h.shows.begin()
	} else {
		h.shows.stepAside(ctx, id)
	}
	defer shown()
	s.project, s.err = openProject(ctx, h, id, func(e *early) {
		s.early.Store(e)
		seen()
		if s.shown != nil {
			select {
			case <-s.shown:
			case <-time.After(longestShow):
			}
			shown()
		}
	})
	seen()
	why := ""
	if s.err != nil {
		h.drop(id, s)
		if errors.Is(s.err, store.ErrNoProject) {
			return
		}
		why = sentence(s.err)
	} else {
		s.early.Store(nil) // nobody looks at it any more once the project is open
		s.project.broken = func(_ *project, err error) {
			h.drop(id, s)
			h.note(context.WithoutCancel(ctx), id, sentence(err))
		}
		if n := len(s.project.missing); n > 0 {
			why = fmt.Sprintf("It was opened without %d of its objects, which cannot be read.", n)
		}
		go s.project.run()
		h.memory.soon()
	}
	h.note(ctx, id, why)
}

func (h *hub) note(ctx context.Context, id int64, why string) {
	if err := h.store.SetTrouble(ctx, id, why); err != nil {
		slog.Warn("a project's trouble cannot be noted", "error", err)
	}
}

func (h *hub) drop(id int64, s *slot) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if h.open[id] == s {
		delete(h.open, id)
	}
}

// opened is the project if someone has it open.
func (h *hub) opened(id int64) *project {
	h.mu.Lock()
	s := h.open[id]
	h.mu.Unlock()
	if s == nil {
		return nil
	}
	<-s.done
	return s.project
}

// forget closes the project, telling those in it that it is gone.
func (h *hub) forget(id int64) {
	p := h.opened(id)
	h.mu.Lock()
	delete(h.open, id)
	h.mu.Unlock()
	if p != nil {
		_ = p.do(func() { p.broadcast(Gone{}) })
		p.close()
	}
}

// tidy closes projects that nobody has open any more.
func (h *hub) tidy() {
	look := time.NewTicker(lookEvery)
	defer look.Stop()
	for {
		select {
		case <-h.quit:
			return
		case <-look.C:
			h.closeIdle(time.Now().Add(-idleAfter))
		}
	}
}

// closeIdle closes the projects that nobody is in or asked for since the given time.
func (h *hub) closeIdle(since time.Time) {
	h.mu.Lock()
	defer h.mu.Unlock()
	for id, s := range h.open {
		select {
		case <-s.done:
		default:
			continue // being opened
		}
		if s.project != nil && s.project.people.Load() == 0 && s.project.used.Load() < since.Unix() {
			delete(h.open, id)
			s.project.close()
		}
	}
}

func (h *hub) close() {
	h.once.Do(func() { close(h.quit) })
	h.memory.stop()
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, s := range h.open {
		select {
		case <-s.done:
			if s.project != nil {
				s.project.close()
			}
		default:
		}
	}
}

// duplicate keeps a copy under a free name.
func (h *hub) duplicate(ctx context.Context, id int64) (int64, error) {
	p, err := h.whole(ctx, id)
	if err != nil {
		return 0, err
	}
	free, err := FreeName(ctx, h.store, p.Name+" copy")
	if err != nil {
		return 0, err
	}
	return h.store.Create(ctx, free, p.Doc)
}

// copyOf is the document of a project, for a new one.
func (h *hub) copyOf(ctx context.Context, id int64) (*design.Doc, error) {
	p, err := h.whole(ctx, id)
	return p.Doc, err
}

// whole reads a project that is to be copied.
func (h *hub) whole(ctx context.Context, id int64) (store.Loaded, error) {
	p, err := h.store.Load(ctx, id)
	if err == nil && len(p.Missing) > 0 {
		err = fmt.Errorf("the project cannot be copied whole, since some of it cannot be read: %s", p.Missing[0])
	}
	return p, err
}

// FreeName is the name, or the name with the least number that no project bears.
func FreeName(ctx context.Context, s *store.Store, name string) (string, error) {
	list, err := s.Projects(ctx)
	if err != nil {
		return "", err
	}
	taken := map[string]bool{}
	for _, p := range list {
		taken[lower(p.Name)] = true
	}
	free := name
	for n := 2; taken[lower(free)]; n++ {
		free = fmt.Sprintf("%s (%d)", name, n)
	}
	return free, nil
}
