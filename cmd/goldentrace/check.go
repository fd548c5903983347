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
	"goldentrace/core/house"
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
	var name string
	c := &cobra.Command{Use: "check FILE", Short: "Check a project file: exit 0 clean, 1 findings, 2 unusable input", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			_, b, err := openFile(args[0])
			if err != nil {
				return err
			}
			var h *house.House
			if name != "" {
				if h, err = house.In(b.Doc, name); err != nil {
					return err
				}
			}
			said := checked{Findings: b.Findings()}
			if h != nil {
				found, err := house.Measure(cmd.Context(), b.Doc, b.Index(), b.Rules(), nil)
				if err != nil {
					return err
				}
				said.House = heldAgainst(h, found)
			}
			if asJSON {
				if err := json.NewEncoder(os.Stdout).Encode(said); err != nil {
					return err
				}
			} else {
				printFindings(b.OpenFindings())
				said.House.print()
			}
			if len(b.OpenFindings()) > 0 || h != nil && said.House.Class == "" {
				return errFindings
			}
			return nil
		}}
	c.Flags().BoolVar(&asJSON, "json", false, "as JSON")
	c.Flags().StringVar(&name, "house", "", "hold the board against what a board house makes, too: northgate or tallow")
	return c
}

// checked is what a check says.
type checked struct {
	Findings []*check.Finding `json:"findings"`
	House    *held            `json:"house,omitempty"`
}

// held is a board held against what a house makes.
type held struct {
	Name   string     `json:"name"`
	Class  string     `json:"class"` // the cheapest that makes it; empty: none does
	Price  int        `json:"price,omitempty"`
	Limits []heldLine `json:"limits"` // of that class, else of the finest
}

// heldLine is a limit held against the board. Lengths are nanometres.
type heldLine struct {
	Limit house.Limit  `json:"limit"`
	Bound int64        `json:"bound"` // 0 of what the house does not make
	Found *house.Found `json:"found,omitempty"`
	Keeps bool         `json:"keeps"`
}

func heldAgainst(h *house.House, found map[house.Limit]*house.Found) *held {
	out := &held{Name: h.Name}
	class := &h.Classes[len(h.Classes)-1]
	if i := h.Cheapest(found); i >= 0 {
		class = &h.Classes[i]
		out.Class, out.Price = class.Name, class.Price
	}
	for _, l := range class.Hold(found) {
		out.Limits = append(out.Limits, heldLine{l.Limit, l.Bound, l.Found, l.Keeps})
	}
	return out
}

// print tells it, when a house was named.
func (h *held) print() {
	if h == nil {
		return
	}
	if h.Class == "" {
		fmt.Printf("%s does not make this board.\n", h.Name)
	} else {
		fmt.Printf("%s makes it as %s, at %d.%02d times the price of a plain board.\n", h.Name, h.Class, h.Price/100, h.Price%100)
	}
	for _, l := range h.Limits {
		say := func(v int64) string {
			switch {
			case l.Limit.Length():
				return units.Text(v)
			case l.Limit == house.Aspect:
				return fmt.Sprintf("%.2f", float64(v)/100)
			}
			return fmt.Sprint(v)
		}
		is, bound, sign, place := "none", say(l.Bound), "least", ""
		if l.Limit.Most() {
			sign = "most"
		}
		if l.Bound == 0 {
			sign, bound = "", "not made"
		}
		if l.Found != nil {
			is = say(l.Found.Value)
			if len(l.Found.Objects) > 0 {
				place = fmt.Sprintf(" at %s, %s", units.Text(l.Found.At.X), units.Text(l.Found.At.Y))
			}
		}
		mark := "  "
		if !l.Keeps {
			mark = "✗ "
		}
		fmt.Printf("%s%-26s %10s  %5s %10s%s\n", mark, l.Limit.Words(), is, sign, bound, place)
	}
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
