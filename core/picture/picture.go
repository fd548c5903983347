// Package picture reads pictures that are put on a sheet: PNG, JPEG and SVG. What a file is
// is told by its content. Of an SVG only what draws is kept: elements and attributes of a
// list, no scripts, no references to other files.
package picture

import (
	"bytes"
	"fmt"
	"image"
	_ "image/jpeg" // the formats that can be read
	_ "image/png"
	"path/filepath"
	"strings"

	"goldentrace/core/design"
)

// MostPixels bounds a picture.
const MostPixels = 50_000_000

// Read makes an asset of a picture's file.
func Read(name string, data []byte) (*design.Asset, error) {
	name = strings.TrimSpace(filepath.Base(strings.ReplaceAll(name, "\\", "/")))
	if name == "" || name == "." {
		name = "picture"
	}
	if len(data) == 0 {
		return nil, fmt.Errorf("the file %s is empty", name)
	}
	if len(data) > design.LargestAsset {
		return nil, fmt.Errorf("the picture %s has %d MB; %d MB is the most", name, len(data)>>20, design.LargestAsset>>20)
	}
	if head := bytes.TrimLeft(data, "\xef\xbb\xbf \t\r\n"); bytes.HasPrefix(head, []byte("<")) {
		clean, w, h, err := cleanSVG(data)
		if err != nil {
			return nil, fmt.Errorf("the file %s is not a picture that can be used: %w", name, err)
		}
		if err := bounded(clean, w, h); err != nil {
			return nil, fmt.Errorf("the picture %s cannot be shown: %w", name, err)
		}
		return &design.Asset{Name: name, Type: "svg", Width: w, Height: h, Data: clean}, nil
	}
	c, format, err := image.DecodeConfig(bytes.NewReader(data))
	if err != nil || format != "png" && format != "jpeg" {
		return nil, fmt.Errorf("the file %s is not a picture: only PNG, JPEG and SVG can be put on a sheet", name)
	}
	if c.Width*c.Height > MostPixels {
		return nil, fmt.Errorf("the picture %s has %d × %d pixels, which is more than can be shown", name, c.Width, c.Height)
	}
	if _, _, err := image.Decode(bytes.NewReader(data)); err != nil {
		return nil, fmt.Errorf("the picture %s is damaged: %w", name, err)
	}
	return &design.Asset{Name: name, Type: format, Width: c.Width, Height: c.Height, Data: data}, nil
}
