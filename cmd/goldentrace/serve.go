package main

import (
	"context"
	"errors"
	"fmt"
	"net"
	"os"
	"os/signal"
	"path/filepath"
	"runtime/debug"
	"sync"
	"syscall"

	"github.com/spf13/cobra"

	"goldentrace/core/design"
	"goldentrace/demo"
	"goldentrace/server"
	"goldentrace/standin/depot"
	"goldentrace/store"
)

// depotFile is where the simulated depot keeps its books, in the data directory.
const depotFile = "depot.db"

// dataDir is where projects are kept when nothing else is said.
func dataDir() string {
	if base, err := os.UserConfigDir(); err == nil {
		return filepath.Join(base, "goldentrace")
	}
	return "goldentrace-data"
}

func serveCommand(withDemo bool) *cobra.Command {
	var data, addr, books string
	c := &cobra.Command{Use: "serve", Short: "Serve the web application", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			projects := allDemos()
			debug.SetGCPercent(300) // memory is plenty; a hand should not wait for the collector
			ctx, stop := signal.NotifyContext(cmd.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			s, err := store.Open(data)
			if err != nil {
				return err
			}
			if withDemo {
				err = projects.put(ctx, s)
			}
			if err == nil && books == "" {
				supplier := depot.NewService(filepath.Join(data, depotFile))
				defer func() { _ = supplier.Close() }()
				books, err = supplier.Start(ctx, "127.0.0.1:0")
			}
			if err == nil {
				err = server.Serve(ctx, s, addr, books, projects.examples(), func(a net.Addr) { fmt.Printf("listening on http://%s\n", a) })
			}
			return errors.Join(err, s.Close())
		}}
	if withDemo {
		c.Use, c.Short = "demo", "Serve the web application with the demo projects"
	}
	c.Flags().StringVar(&data, "data", dataDir(), "directory that holds the projects")
	c.Flags().StringVar(&books, "depot", "", "address of the service of a depot; without it, the simulated one is started")
	c.Flags().StringVar(&addr, "addr", "127.0.0.1:8411", "address to listen on; port 0 takes a free one")
	return c
}

// demos are the demo projects in their order, each built once when it is first asked for.
type demos []demoProject

type demoProject struct {
	name  string
	build func() (*design.Doc, error)
}

func allDemos() (out demos) {
	for _, name := range demo.Names() {
		once := sync.OnceValues(func() (*design.Doc, error) { return demo.Build(name) })
		out = append(out, demoProject{name, func() (*design.Doc, error) {
			d, err := once()
			if err != nil {
				return nil, fmt.Errorf("the demo project %s cannot be built: %w", name, err)
			}
			return d.Snapshot(), nil
		}})
	}
	return out
}

// examples are the demo projects to look at and to take copies of.
func (list demos) examples() (out []server.Example) {
	for _, p := range list {
		out = append(out, server.Example{Name: p.name, Build: p.build})
	}
	return out
}

// put puts the demo projects in where they are absent; those are built beside each other.
func (list demos) put(ctx context.Context, s *store.Store) error {
	var absent demos
	for _, p := range list {
		if _, err := s.Named(ctx, p.name); errors.Is(err, store.ErrNoProject) {
			absent = append(absent, p)
			go func() { _, _ = p.build() }() // what fails says so below
		} else if err != nil {
			return err
		}
	}
	for _, p := range absent {
		d, err := p.build()
		if err != nil {
			return err
		}
		if _, err := s.Create(ctx, p.name, d); err != nil {
			return err
		}
	}
	return putDemoParts(ctx, s)
}

// putDemoParts puts the parts of the demo's workspace in, where its library is empty.
func putDemoParts(ctx context.Context, s *store.Store) error {
	if items, missing, err := s.Workspace(ctx); err != nil || len(items)+len(missing) > 0 {
		return err
	}
	list, err := demo.Parts()
	if err != nil {
		return fmt.Errorf("the demo's parts cannot be made: %w", err)
	}
	_, err = s.KeepParts(ctx, list, "M. Alder", "made from the datasheet")
	return err
}
