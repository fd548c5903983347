package glance

import (
	"bytes"
	"context"
	"encoding/base64"
	"fmt"
	"image/png"

	"goldentrace/core/finished"
)

// picturePixels is how long the longer side of a finished board is in its small picture.
const picturePixels = 720

// Finished is an SVG of a board as it will be, from above, with its parts; nil where it is too large for a small picture, which Picture draws
// for less. The error is the context's.
func Finished(ctx context.Context, b finished.Board) ([]byte, error) {
	if shapesOf(b) > mostShapes {
		return nil, nil
	}
	view, err := b.View(ctx, false, true)
	if err != nil {
		return nil, err
	}
	img, err := view.Image(ctx, picturePixels)
	if err != nil {
		return nil, err
	}
	var data bytes.Buffer
	if err := png.Encode(&data, img); err != nil {
		return nil, err
	}
	box := view.Box.Grow(1_500_000)
	var out bytes.Buffer
	fmt.Fprintf(&out, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s"><image x="0" y="0" width="%s" height="%s" href="data:image/png;base64,%s"/></svg>`+"\n",
		mm(box.Min.X-view.Box.Min.X), mm(box.Min.Y-view.Box.Min.Y), mm(box.Max.X-box.Min.X), mm(box.Max.Y-box.Min.Y),
		mm(view.Box.Max.X-view.Box.Min.X), mm(view.Box.Max.Y-view.Box.Min.Y), base64.StdEncoding.EncodeToString(data.Bytes()))
	return out.Bytes(), nil
}

// shapesOf is how many pieces of copper there are, counted on each layer.
func shapesOf(b finished.Board) (n int) {
	for c := range b.Index.All() {
		for i := range b.Doc.Board.Layers() {
			if c.Has(i) && !c.Bare {
				n++
			}
		}
	}
	return n
}
