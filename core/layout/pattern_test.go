package layout_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

func TestThePatternOfAFootprint(t *testing.T) {
	at := func(x, y int64) geom.Corner { return geom.Corner{Point: geom.Pt(x, y)} }
	square := func(x, half int64) layout.Outline {
		return layout.Outline{Area: true, Corners: []geom.Corner{at(x-half, -half), at(x+half, -half), at(x+half, half), at(x-half, half)}}
	}
	disc := func(x, y, r int64) layout.Outline { return layout.Outline{Corners: []geom.Corner{at(x, y)}, R: r} }
	size := func(x, y int64) geom.Point { return geom.Pt(x, y) }
	f := &design.Footprint{ID: 77, DesignatorAt: geom.Pt(0, 9), Pads: []design.Pad{
		{Number: "1", Form: design.Rect, At: geom.Pt(100, 0), Size: size(20, 20)},
		{Number: "2", Form: design.Oval, At: geom.Pt(200, 0), Size: size(30, 10), Angle: 90_000, Far: true},
		{Number: "3", Form: design.Round, At: geom.Pt(300, 0), Size: size(40, 40), Hole: 20, HoleAt: geom.Pt(3, 0), Slot: geom.Pt(0, 8),
			On: map[string]design.PadShape{design.Inner: {Form: design.Rect, Size: size(10, 10)}}},
		{Number: "4", Form: design.Round, At: geom.Pt(400, 0), Size: size(40, 40), Hole: 30, Bare: true},
		{Number: "5", Form: design.Rounded, At: geom.Pt(0, 0), Size: size(30, 20), Corner: 4, On: map[string]design.PadShape{design.Near: {Form: design.Round, Size: size(6, 6)}}},
	}, Silk: []design.Figure{
		{Form: "line", Pts: []geom.Point{geom.Pt(0, 0), geom.Pt(5, 5)}},
		{Form: "area", Pts: []geom.Point{geom.Pt(0, 0), geom.Pt(5, 5), geom.Pt(5, 0)}},
		{Form: "arc", Pts: []geom.Point{geom.Pt(-10, 0), geom.Pt(0, 10), geom.Pt(10, 0)}},
		{Form: "circle", Pts: []geom.Point{geom.Pt(50, 60)}, R: 10},
	}}
	p := layout.PatternOf(f)
	bore3, barrel3, bore4 := layout.Outline{Corners: []geom.Corner{at(303, 0), at(303, 8)}, R: 10}, disc(300, 0, 20), disc(400, 0, 15)
	assert.Equal(t, design.ID(77), p.Footprint)
	assert.Equal(t, []layout.PadOutlines{
		{On: map[string]layout.Outline{design.Near: square(100, 10)}},
		{On: map[string]layout.Outline{design.Far: {Corners: []geom.Corner{at(200, -10), at(200, 10)}, R: 5}}},
		{On: map[string]layout.Outline{design.Inner: square(300, 5)}, Barrel: &barrel3, Bore: &bore3},
		{Bore: &bore4},
		{On: map[string]layout.Outline{design.Near: disc(0, 0, 3)}},
	}, p.Pads)
	mid := func(x, y int64) *geom.Point { m := geom.Pt(x, y); return &m }
	assert.Equal(t, []layout.Outline{
		{Corners: []geom.Corner{at(0, 0), at(5, 5)}},
		{Corners: []geom.Corner{at(0, 0), at(5, 5), at(5, 0)}, Area: true},
		{Corners: []geom.Corner{{Point: geom.Pt(-10, 0), Mid: mid(0, 10)}, at(10, 0)}},
		{Corners: []geom.Corner{{Point: geom.Pt(60, 60), Mid: mid(50, 70)}, {Point: geom.Pt(40, 60), Mid: mid(50, 50)}}, Area: true},
	}, p.Silk)
	assert.Equal(t, []geom.Point{geom.Pt(-250_015, -250_020), geom.Pt(250_420, -250_020), geom.Pt(250_420, 250_020), geom.Pt(-250_015, 250_020)}, p.Courtyard,
		"without a courtyard: a quarter of a millimetre around the pads")

	f.Courtyard = []geom.Point{geom.Pt(0, 0), geom.Pt(9, 0), geom.Pt(0, 9)}
	assert.Equal(t, f.Courtyard, layout.PatternOf(f).Courtyard)

	bent := &design.Footprint{Pads: []design.Pad{{Form: design.Free, At: geom.Pt(1000, 0), Angle: 180_000,
		Edge: []geom.Corner{{Point: geom.Pt(-500, 0), Mid: mid(0, 500)}, at(500, 0)}}}}
	assert.Equal(t, map[string]layout.Outline{design.Near: {Corners: []geom.Corner{{Point: geom.Pt(1500, 0), Mid: mid(1000, -500)}, at(500, 0)}, Area: true}}, layout.PatternOf(bent).Pads[0].On)
}
