package main

import (
	"bytes"
	"context"
	"fmt"
	"image/png"
	"os"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"goldentrace/core/finished"
	"goldentrace/core/workbench"
)

func pictureCommand() *cobra.Command {
	var side, out string
	var pixels int
	var bare bool
	c := &cobra.Command{Use: "picture FILE", Short: "Draw the finished board of a project file", Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			if side != "top" && side != "bottom" {
				return fmt.Errorf("a board has two sides, top and bottom, and is not seen from %q", side)
			}
			form := strings.ToLower(filepath.Ext(out))
			if form != ".png" && form != ".svg" {
				return fmt.Errorf("a picture is written as .png or .svg, not as %s", filepath.Base(out))
			}
			if pixels < 16 || pixels > finished.MostPixels {
				return fmt.Errorf("the longer side of a picture is 16 to %d pixels long, not %d", finished.MostPixels, pixels)
			}
			_, b, err := openFile(args[0])
			if err != nil {
				return err
			}
			v, err := viewOf(cmd.Context(), b, side == "bottom", !bare)
			if err != nil {
				return err
			}
			if form == ".svg" {
				data, err := v.SVG(cmd.Context())
				if err != nil {
					return err
				}
				return os.WriteFile(out, data, 0o644)
			}
			img, err := v.Image(cmd.Context(), pixels)
			if err != nil {
				return err
			}
			var buf bytes.Buffer
			if err := png.Encode(&buf, img); err != nil {
				return err
			}
			data := buf.Bytes()
			return os.WriteFile(out, data, 0o644)
		}}
	c.Flags().StringVar(&side, "side", "top", "the side that is seen: top, bottom")
	c.Flags().StringVar(&out, "out", "", "the file to write, .png or .svg")
	c.Flags().IntVar(&pixels, "pixels", 1600, "length of the longer side of a PNG")
	c.Flags().BoolVar(&bare, "bare", false, "without parts")
	_ = c.MarkFlagRequired("out")
	return c
}

// viewOf is a face of the finished board, areas filled anew.
func viewOf(ctx context.Context, b *workbench.Bench, bottom, parts bool) (*finished.View, error) {
	board, err := finishedOf(ctx, b)
	if err != nil {
		return nil, err
	}
	return board.View(ctx, bottom, parts)
}

// finishedOf is the board as it will be, areas filled anew.
func finishedOf(ctx context.Context, b *workbench.Bench) (*finished.Board, error) {
	return finished.Filled(ctx, b.Doc, b.Index(), b.Rules(), nil)
}
