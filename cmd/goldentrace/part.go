package main

import (
	"encoding/json"
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"goldentrace/core/pack"
	"goldentrace/core/parts"
)

// partCommand is for parts in files of their own.
func partCommand() *cobra.Command {
	c := &cobra.Command{Use: "part", Short: "Parts in packs"}
	c.AddCommand(partCheckCommand())
	return c
}

// partFindings are those of one part of a pack.
type partFindings struct {
	Part     string       `json:"part"`
	Findings []parts.Flaw `json:"findings"`
}

func partCheckCommand() *cobra.Command {
	var asJSON bool
	c := &cobra.Command{Use: "check PACK.zip", Short: "Check the parts of a pack: exit 0 clean, 1 findings, 2 unusable input", Args: cobra.ExactArgs(1),
		RunE: func(_ *cobra.Command, args []string) error {
			data, err := os.ReadFile(args[0])
			if err != nil {
				return err
			}
			p, err := pack.Read(data)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			list, bad := []partFindings{}, 0
			for _, r := range p.Releases {
				f := partFindings{r.Part.Name, r.Flaws(parts.UsualLimits())}
				bad += len(f.Findings)
				list = append(list, f)
			}
			if asJSON {
				if err := json.NewEncoder(os.Stdout).Encode(struct {
					Parts []partFindings `json:"parts"`
				}{list}); err != nil {
					return err
				}
			} else {
				printPartFindings(list)
			}
			if bad > 0 {
				return errFindings
			}
			return nil
		}}
	c.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	return c
}

func printPartFindings(list []partFindings) {
	for _, p := range list {
		if len(p.Findings) == 0 {
			fmt.Printf("%s: no findings.\n", p.Part)
		}
		for _, f := range p.Findings {
			fmt.Printf("%s: %s: %s\n", p.Part, f.Severity, f.Text)
		}
	}
}
