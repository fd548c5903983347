package main

import (
	"encoding/json"
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"goldentrace/core/landpattern"
)

// landPatternCommand makes a footprint from a body's dimensions.
func landPatternCommand() *cobra.Command {
	var out, density string
	c := &cobra.Command{Use: "landpattern FILE", Short: "Make a footprint from a body's dimensions: exit 2 for an impossible body", Args: cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			in, err := os.Open(args[0])
			if err != nil {
				return err
			}
			defer in.Close()
			r, err := landpattern.ReadFile(in)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			if density != "" {
				r.Density = density
			}
			made, err := landpattern.Make(r)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			body, err := json.MarshalIndent(landpattern.FileOf(made), "", "  ")
			if err != nil {
				return err
			}
			body = append(body, '\n')
			if out == "" {
				_, err = os.Stdout.Write(body)
				return err
			}
			return os.WriteFile(out, body, 0o644)
		}}
	c.Flags().StringVar(&out, "out", "", "the file to write; without it, to the output")
	c.Flags().StringVar(&density, "density", "", "most, nominal or least, whatever the file says")
	return c
}
