package paper_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/paper"
)

// A text of a symbol stands where it is put, upright however the symbol lies, in letters of its height.
func TestTextsOfSymbols(t *testing.T) {
	f := design.Figure{Form: "text", Text: "FIELD", R: 2_000_000, Pts: []geom.Point{geom.Pt(5_000_000, 0)}}
	m := paper.FigureMark(f, geom.Pose{At: geom.Pt(100_000_000, 50_000_000), Angle: 90_000})
	assert.Equal(t, "FIELD", m.Text)
	assert.Equal(t, []int64{100_000_000, 55_000_000}, m.Pts)
	assert.EqualValues(t, 2_000_000, m.Size)
	assert.False(t, m.Up)
	assert.Zero(t, m.Align, "its middle")

	s := &design.Symbol{ID: 20, Name: "S", Pins: []design.Pin{}, Figures: []design.Figure{f}}
	assert.NoError(t, s.Valid())
	s.Figures[0].Text = ""
	assert.ErrorContains(t, s.Valid(), "text of the symbol S")
	s.Figures[0].Text, s.Figures[0].R = "x", 0
	assert.ErrorContains(t, s.Valid(), "has a text with 1 points")
	silk := &design.Footprint{ID: 21, Name: "F", Silk: []design.Figure{f}}
	assert.ErrorContains(t, silk.Valid(), "the footprint F has no texts of its own")
}
