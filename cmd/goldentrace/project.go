package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"text/tabwriter"
	"time"

	"github.com/spf13/cobra"

	"goldentrace/core/design"
	"goldentrace/demo"
	"goldentrace/server"
	"goldentrace/store"
)

func projectCommand() *cobra.Command {
	c := &cobra.Command{Use: "project", Short: "List, export and import projects"}
	var data, name, out string
	var asJSON, asKept bool
	with := func(f func(cmd *cobra.Command, s *store.Store, args []string) error) func(*cobra.Command, []string) error {
		return func(cmd *cobra.Command, args []string) error {
			s, err := store.Open(data)
			if err != nil {
				return err
			}
			return errors.Join(f(cmd, s, args), s.Close())
		}
	}
	list := &cobra.Command{Use: "list", Short: "List the projects", Args: cobra.NoArgs, RunE: with(func(cmd *cobra.Command, s *store.Store, _ []string) error {
		projects, err := s.Projects(cmd.Context())
		if err != nil {
			return err
		}
		if asJSON {
			return json.NewEncoder(os.Stdout).Encode(projects)
		}
		w := tabwriter.NewWriter(os.Stdout, 0, 4, 2, ' ', 0)
		fmt.Fprintln(w, "NAME\tPARTS\tREVISION\tCHANGED")
		for _, p := range projects {
			fmt.Fprintf(w, "%s\t%d\t%d\t%s\n", p.Name, p.Parts, p.Revision, p.Changed.Local().Format(time.DateTime))
		}
		return w.Flush()
	})}
	list.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	export := &cobra.Command{Use: "export", Short: "Write a project to a file", Args: cobra.NoArgs, RunE: with(func(cmd *cobra.Command, s *store.Store, _ []string) error {
		id, err := s.Named(cmd.Context(), name)
		if err != nil {
			return err
		}
		if asKept {
			return writeRaw(cmd.Context(), s, out, id)
		}
		p, err := s.Load(cmd.Context(), id)
		if err != nil {
			return err
		}
		for _, m := range p.Missing {
			fmt.Fprintln(cmd.ErrOrStderr(), "left out:", m)
		}
		return writeProject(out, p.Name, p.Doc)
	})}
	export.Flags().StringVar(&name, "project", "", "the project's name")
	export.Flags().BoolVar(&asKept, "as-kept", false, "its objects as they are kept, be they readable or not")
	export.Flags().StringVar(&out, "out", "", "the file to write")
	imp := &cobra.Command{Use: "import FILE", Short: "Read a project from a file", Args: cobra.ExactArgs(1), RunE: with(func(cmd *cobra.Command, s *store.Store, args []string) error {
		f, err := os.Open(args[0])
		if err != nil {
			return err
		}
		defer f.Close()
		_, got, err := server.Import(cmd.Context(), s, f)
		if err != nil {
			return fmt.Errorf("%s: %w", args[0], err)
		}
		fmt.Printf("imported as %q\n", got)
		return nil
	})}
	for _, sub := range []*cobra.Command{list, export, imp} {
		sub.Flags().StringVar(&data, "data", "", "directory that holds the projects")
		_ = sub.MarkFlagRequired("data")
		c.AddCommand(sub)
	}
	_ = export.MarkFlagRequired("project")
	_ = export.MarkFlagRequired("out")
	return c
}

// writeRaw writes a project's objects as they are kept.
func writeRaw(ctx context.Context, s *store.Store, file string, id int64) error {
	var b bytes.Buffer
	if _, err := s.WriteRaw(ctx, &b, id); err != nil {
		return err
	}
	return os.WriteFile(file, b.Bytes(), 0o644)
}

// writeProject writes the file whole or not at all.
func writeProject(file, name string, d *design.Doc) error {
	var b bytes.Buffer
	if err := design.WriteFile(&b, name, d); err != nil {
		return err
	}
	return os.WriteFile(file, b.Bytes(), 0o644)
}

func demoProjectCommand() *cobra.Command {
	var out string
	c := &cobra.Command{Use: "demo-project NAME", Short: "Write a demo project to a file", Args: cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			d, err := demo.Build(args[0])
			if err != nil {
				return err
			}
			return writeProject(out, args[0], d)
		}}
	c.Flags().StringVar(&out, "out", "", "the file to write")
	_ = c.MarkFlagRequired("out")
	return c
}
