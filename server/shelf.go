package server

import (
	"context"
	"log/slog"
	"sync/atomic"

	"goldentrace/core/design"
	"goldentrace/core/library"
	"goldentrace/store"
)

// shelf is where parts are taken from: the library of the workspace, which changes, before the shipped one.
type shelf struct {
	now atomic.Pointer[library.Sources]
}

func newShelf(ctx context.Context, s *store.Store) *shelf {
	out := &shelf{}
	out.now.Store(&library.Sources{library.Shipped()})
	if err := out.renew(ctx, s); err != nil {
		slog.Error("the library of the workspace cannot be read", "error", err)
	}
	return out
}

// renew reads the library of the workspace again.
func (h *shelf) renew(ctx context.Context, s *store.Store) error {
	items, missing, err := s.Workspace(ctx)
	if err != nil {
		return err
	}
	for _, m := range missing {
		slog.Error("a part of the workspace is left out", "part", m)
	}
	h.now.Store(&library.Sources{library.NewCatalog(items), library.Shipped()})
	return nil
}

// Find is the item with the exact name.
func (h *shelf) Find(name string) (library.Item, bool) { return h.now.Load().Find(name) }

// Footprint by its name, or nil.
func (h *shelf) Footprint(name string) *design.Footprint { return h.now.Load().Footprint(name) }

// Asset that the footprint of the name refers to, or nil.
func (h *shelf) Asset(footprint string, id design.ID) *design.Asset {
	return h.now.Load().Asset(footprint, id)
}

// Search lists the items that a query finds.
func (h *shelf) Search(query string, most int) ([]library.Item, int) {
	return h.now.Load().Search(query, most)
}

// SearchMounted lists the items that a query finds, among equals those first that are mounted so.
func (h *shelf) SearchMounted(query string, like library.Mounting, most int) ([]library.Item, int) {
	return h.now.Load().SearchMounted(query, like, most)
}

// Feet are the footprints of all of it.
func (h *shelf) Feet() []library.Foot { return h.now.Load().Feet() }
