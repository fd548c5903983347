package layout_test

import (
	"encoding/json"
	"flag"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

var update = flag.Bool("update", false, "write testdata/drawn.json anew")

// drawn is what core lays; the browser's own drawing routines are held against the same file
// (web/src/canvas/geometry.test.ts), so that what is seen is what the files contain.
type drawn struct {
	Texts []struct {
		Text   string         `json:"text"`
		Height int64          `json:"height"`
		At     geom.Point     `json:"at"`
		Angle  int32          `json:"angle"`
		Bottom bool           `json:"bottom"`
		Lines  [][]geom.Point `json:"lines"`
	} `json:"texts"`
	Places []struct {
		At     geom.Point `json:"at"`
		Angle  int32      `json:"angle"`
		Mirror bool       `json:"mirror"`
		From   geom.Point `json:"from"`
		To     geom.Point `json:"to"`
	} `json:"places"`
	Pads []struct {
		Pad design.Pad `json:"pad"`
		Box geom.Box   `json:"box"`
	} `json:"pads"`
}

func TestDrawnAsTheBrowserDraws(t *testing.T) {
	const file = "../../testdata/drawn.json"
	data, err := os.ReadFile(file)
	require.NoError(t, err)
	var d drawn
	require.NoError(t, json.Unmarshal(data, &d))
	for i := range d.Texts {
		c := &d.Texts[i]
		lines := layout.TextLines(c.Text, c.Height, c.At, c.Angle, c.Bottom)
		if *update {
			c.Lines = lines
		}
		assert.Equal(t, c.Lines, lines, c.Text)
	}
	for i := range d.Places {
		c := &d.Places[i]
		to := geom.Pose{At: c.At, Angle: c.Angle, Mirror: c.Mirror}.Apply(c.From)
		if *update {
			c.To = to
		}
		assert.Equal(t, c.To, to)
	}
	for i := range d.Pads {
		c := &d.Pads[i]
		box := layout.PadShape(&c.Pad).Box()
		if *update {
			c.Box = box
		}
		assert.Equal(t, c.Box, box)
	}
	if *update {
		out, err := json.MarshalIndent(d, "", " ")
		require.NoError(t, err)
		require.NoError(t, os.WriteFile(file, append(out, '\n'), 0o644))
	}
}
