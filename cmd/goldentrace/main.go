// Command goldentrace is the whole product: the server of the web application and the
// command line for projects.
package main

import (
	"errors"
	"fmt"
	"os"
	"strings"

	"github.com/spf13/cobra"
)

// exit codes: 0 clean, 1 findings, 2 unusable input.
const (
	exitFindings = 1
	exitUnusable = 2
)

// errFindings ends a check that found something; it was said already.
var errFindings = errors.New("findings")

// command is the program with all that it can be asked to do.
func command() *cobra.Command {
	root := &cobra.Command{Use: "goldentrace", Short: "From a circuit to a box of boards", SilenceErrors: true, SilenceUsage: true,
		CompletionOptions: cobra.CompletionOptions{DisableDefaultCmd: true}}
	root.AddCommand(serveCommand(false), serveCommand(true), projectCommand(), demoProjectCommand(), checkCommand(), handoffCommand(),
		landPatternCommand(), partCommand(), depotCommand(), pictureCommand(), modelCommand())
	return root
}

func main() {
	switch err := command().Execute(); {
	case err == nil:
	case errors.Is(err, errFindings):
		os.Exit(exitFindings)
	default:
		fmt.Fprintln(os.Stderr, "goldentrace: "+strings.ReplaceAll(err.Error(), "\n", "; "))
		os.Exit(exitUnusable)
	}
}
