package main

import (
	"fmt"
	"os"
	"os/signal"
	"path/filepath"
	"syscall"

	"github.com/spf13/cobra"

	"goldentrace/standin/depot"
)

// depotCommand serves the simulated depot by itself.
func depotCommand() *cobra.Command {
	var data, addr string
	c := &cobra.Command{Use: "depot", Short: "Serve the simulated depot by itself; serve and demo start it anyway", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			ctx, stop := signal.NotifyContext(cmd.Context(), os.Interrupt, syscall.SIGTERM)
			defer stop()
			if err := os.MkdirAll(data, 0o755); err != nil {
				return err
			}
			s := depot.NewService(filepath.Join(data, depotFile))
			at, err := s.Start(ctx, addr)
			if err != nil {
				return err
			}
			fmt.Printf("listening on %s\n", at)
			<-ctx.Done()
			return s.Close()
		}}
	c.Flags().StringVar(&data, "data", dataDir(), "directory that holds its books")
	c.Flags().StringVar(&addr, "addr", "127.0.0.1:8412", "address to listen on; port 0 takes a free one")
	return c
}
