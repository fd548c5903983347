package main

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"goldentrace/core/space"
)

func modelCommand() *cobra.Command {
	var out string
	c := &cobra.Command{Use: "model FILE", Short: "Make the finished board of a project file as a body in space (glTF)", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if strings.ToLower(filepath.Ext(out)) != ".glb" {
				return fmt.Errorf("a body in space is written as .glb (binary glTF 2.0), not as %s", filepath.Base(out))
			}
			name, b, err := openFile(args[0])
			if err != nil {
				return err
			}
			board, err := finishedOf(cmd.Context(), b)
			if err != nil {
				return err
			}
			data, err := space.Model(cmd.Context(), name, *board, nil)
			if err != nil {
				return err
			}
			return os.WriteFile(out, data, 0o644)
		}}
	c.Flags().StringVar(&out, "out", "", "the file to write, .glb")
	_ = c.MarkFlagRequired("out")
	return c
}
