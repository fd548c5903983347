package server

import (
	"context"
	"fmt"
	"sync"

	"goldentrace/store"
)

// hub holds the open projects.
type hub struct {
	store *store.Store
	mu    sync.Mutex
	open  map[int64]*project
}

func newHub(s *store.Store) *hub { return &hub{store: s, open: map[int64]*project{}} }

// project opens the project, or finds it open.
func (h *hub) project(ctx context.Context, id int64) (*project, error) {
	h.mu.Lock()
	defer h.mu.Unlock()
	if p, ok := h.open[id]; ok {
		return p, nil
	}
	p, err := openProject(ctx, h.store, id)
	if err != nil {
		return nil, err
	}
	h.open[id] = p
	return p, nil
}

// opened is the project if someone has it open.
func (h *hub) opened(id int64) *project {
	h.mu.Lock()
	defer h.mu.Unlock()
	return h.open[id]
}

// forget closes the project, telling those in it that it is gone.
func (h *hub) forget(id int64) {
	h.mu.Lock()
	p := h.open[id]
	delete(h.open, id)
	h.mu.Unlock()
	if p != nil {
		_ = p.do(func() { p.tell(Message{T: "gone"}) })
		p.close()
	}
}

func (h *hub) close() {
	h.mu.Lock()
	defer h.mu.Unlock()
	for _, p := range h.open {
		p.close()
	}
}

// duplicate keeps a copy under a free name.
func (h *hub) duplicate(ctx context.Context, id int64) (int64, error) {
	d, name, _, err := h.store.Load(ctx, id)
	if err != nil {
		return 0, err
	}
	free, err := FreeName(ctx, h.store, name+" copy")
	if err != nil {
		return 0, err
	}
	return h.store.Create(ctx, free, d)
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
