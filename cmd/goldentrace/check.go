package main

import (
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"time"

	"github.com/spf13/cobra"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/fab/handoff"
	"goldentrace/core/units"
	"goldentrace/core/workbench"
)

func openFile(file string) (string, *workbench.Bench, error) {
	f, err := os.Open(file)
	if err != nil {
		return "", nil, err
	}
	defer f.Close()
	name, d, err := design.ReadFile(f)
	if err != nil {
		return "", nil, fmt.Errorf("%s: %w", file, err)
	}
	return name, workbench.Open(d, 0), nil
}

func checkCommand() *cobra.Command {
	var asJSON bool
	c := &cobra.Command{Use: "check FILE", Short: "Check a project file: exit 0 clean, 1 findings, 2 unusable input", Args: cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			_, b, err := openFile(args[0])
			if err != nil {
				return err
			}
			found := b.OpenFindings()
			if asJSON {
				if err := json.NewEncoder(os.Stdout).Encode(struct {
					Findings []*check.Finding `json:"findings"`
				}{b.Findings()}); err != nil {
					return err
				}
			} else {
				printFindings(found)
			}
			if len(found) > 0 {
				return errFindings
			}
			return nil
		}}
	c.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	return c
}

func printFindings(found []*check.Finding) {
	for _, f := range found {
		fmt.Printf("%-8s %s", f.Severity, f.Text)
		if f.Required > 0 {
			fmt.Printf(" Measured %s, required %s.", units.Text(f.Measured), units.Text(f.Required))
		}
		place := f.Stage
		if f.Place != "" {
			place = "sheet " + f.Place
		}
		fmt.Printf(" [%s; %s %s, %s]\n", f.Rule, place, units.Text(f.At.X), units.Text(f.At.Y))
	}
	if len(found) == 0 {
		fmt.Println("No findings.")
	} else {
		fmt.Printf("%d findings.\n", len(found))
	}
}

func handoffCommand() *cobra.Command {
	var out string
	c := &cobra.Command{Use: "handoff FILE", Short: "Make the fabrication and assembly files of a project file", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			name, b, err := openFile(args[0])
			if err != nil {
				return err
			}
			if found := b.OpenFindings(); len(found) > 0 {
				fmt.Fprintf(os.Stderr, "goldentrace: the checks have %d findings; `goldentrace check` lists them\n", len(found))
			}
			at := time.Now()
			files, err := handoff.Make(cmd.Context(), b.Doc, b.Index(), name, at, nil)
			if err != nil {
				return err
			}
			archive, err := handoff.Zip(files, at)
			if err != nil {
				return err
			}
			if err := os.MkdirAll(out, 0o755); err != nil {
				return err
			}
			for _, f := range files {
				if err := os.WriteFile(filepath.Join(out, f.Name), f.Data, 0o644); err != nil {
					return err
				}
				fmt.Printf("%-36s %s\n", f.Name, f.Text)
			}
			zip := handoff.Stem(name) + "-handoff.zip"
			fmt.Printf("%-36s All of them\n", zip)
			return os.WriteFile(filepath.Join(out, zip), archive, 0o644)
		}}
	c.Flags().StringVar(&out, "out", "", "the directory to write to")
	_ = c.MarkFlagRequired("out")
	return c
}
