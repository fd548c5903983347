package layout_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// A part at the edge: of a body of 4 by 2 mm whose middle is 1 mm within the edge, 1 mm reaches beyond it; at a rounded corner as far as from the
// corner's middle, less its radius.
func TestOverhang(t *testing.T) {
	d := design.New("edge")
	b := *d.Board
	b.Outline = []geom.Corner{{Point: geom.Pt(0, 0)}, {Point: geom.Pt(20_000_000, 0)}, {Point: geom.Pt(20_000_000, 15_000_000)},
		{Point: geom.Pt(5_000_000, 15_000_000), Mid: &geom.Point{X: 1_464_466, Y: 13_535_534}}, {Point: geom.Pt(0, 10_000_000)}}
	d.Put(&b)
	d.Put(&design.Footprint{ID: 90, Name: "F", Solids: []design.Solid{{Form: design.Prism, Material: "body", From: 0, To: 3_000_000,
		Edge: geom.Corners(geom.Pt(-2_000_000, -1_000_000), geom.Pt(2_000_000, -1_000_000), geom.Pt(2_000_000, 1_000_000), geom.Pt(-2_000_000, 1_000_000))}}})
	d.Put(&design.Footprint{ID: 91, Name: "G", Model: 92})
	d.Put(&design.Asset{ID: 92, Name: "g", Type: "glb", Reach: &design.Reach{Min: geom.Pt(-500_000, -1_000_000), Max: geom.Pt(2_000_000, 1_000_000), From: -2_000_000, To: 7_000_000}})
	at := func(name string, x, y int64, angle int32) *design.Placed {
		return &design.Placed{ID: 100, Part: 200, Footprint: name, At: geom.Pt(x, y), Angle: angle}
	}
	assert.EqualValues(t, 1_000_000, layout.Overhang(d, at("F", 19_000_000, 5_000_000, 0)))
	assert.Zero(t, layout.Overhang(d, at("F", 18_000_000, 5_000_000, 0)))
	assert.EqualValues(t, 1, layout.Overhang(d, at("F", 18_000_001, 5_000_000, 0)))
	assert.Zero(t, layout.Overhang(d, at("F", 18_500_000, 5_000_000, 90_000)))
	// its corner at (1, 14): √(4² + 4²) − 5 from the middle (5, 10) of the rounding
	assert.InDelta(t, 656_854, layout.Overhang(d, at("F", 3_000_000, 13_000_000, 0)), 2)
	assert.EqualValues(t, 1_000_000, layout.Overhang(d, at("G", 19_000_000, 5_000_000, 0)))
	above, beyond := layout.Heights(d, at("G", 10_000_000, 5_000_000, 0))
	assert.EqualValues(t, 7_000_000, above)
	assert.EqualValues(t, max(0, 2_000_000-d.Board.Thickness()), beyond)
	assert.Zero(t, layout.Overhang(design.New("none"), at("F", 0, 0, 0)))
}
