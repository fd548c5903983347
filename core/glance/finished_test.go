package glance_test

import (
	"bytes"
	"context"
	"encoding/base64"
	"image/png"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/finished"
	"goldentrace/core/geom"
	"goldentrace/core/glance"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// The small picture of a finished board is its true colours: mask over laminate, bare copper in the opening of a pad, nothing in a hole.
func TestFinishedSmall(t *testing.T) {
	d := design.New("Small")
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40_000_000, 0), geom.Pt(40_000_000, 20_000_000), geom.Pt(0, 20_000_000))
	d.Put(&b)
	d.Put(&design.Hole{ID: 100, At: geom.Pt(10_000_000, 10_000_000), Diameter: 4_000_000})
	d.Put(&design.Footprint{ID: 101, Name: "F", Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: geom.Pt(6_000_000, 6_000_000)}}})
	d.Put(&design.Placed{ID: 102, Part: 103, Designator: "R1", Footprint: "F", At: geom.Pt(30_000_000, 10_000_000)})
	board := finished.Board{Doc: d, Index: layout.NewIndex(d), Rules: rules.Of(d)}
	svg, err := glance.Finished(context.Background(), board)
	require.NoError(t, err)
	m := regexp.MustCompile(`base64,([^"]+)"`).FindSubmatch(svg)
	require.NotNil(t, m)
	data, err := base64.StdEncoding.DecodeString(string(m[1]))
	require.NoError(t, err)
	img, err := png.Decode(bytes.NewReader(data))
	require.NoError(t, err)
	assert.Equal(t, 720, img.Bounds().Dx())
	assert.Equal(t, 360, img.Bounds().Dy())
	at := func(x, y int) (r, g, b, a uint32) { return img.At(x*18, 360-y*18).RGBA() }
	_, _, _, a := at(10, 10)
	assert.Zero(t, a, "a hole is a hole")
	r, g, bl, a := at(20, 10)
	assert.Equal(t, uint32(0xFFFF), a)
	assert.True(t, g > r && g > bl, "green mask: %d %d %d", r, g, bl)
	r, g, bl, _ = at(30, 10)
	assert.False(t, g > r+0x1000 && g > bl+0x1000, "the pad is free of mask: %d %d %d", r, g, bl)
	box := regexp.MustCompile(`viewBox="([-0-9.]+) ([-0-9.]+) ([0-9.]+) ([0-9.]+)"`).FindSubmatch(svg)
	require.NotNil(t, box)
	wide, err := strconv.ParseFloat(string(box[3]), 64)
	require.NoError(t, err)
	assert.Greater(t, wide, 40.0, "the whole board is seen")

	ended, cancel := context.WithCancel(context.Background())
	cancel()
	_, err = glance.Finished(ended, board)
	assert.ErrorIs(t, err, context.Canceled)
}
