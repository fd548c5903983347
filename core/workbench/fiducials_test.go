package workbench_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

// A side with surface parts wants three fiducials. They are put near corners where nothing lies, with bare board around them that copper keeps off
// from then on; taken away, they are wanted again.
func TestFiducials(t *testing.T) {
	d := design.New("fiducials")
	d.Next = 500
	board := *d.Board
	board.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40_000_000, 0), geom.Pt(40_000_000, 30_000_000), geom.Pt(0, 30_000_000))
	d.Put(&board)
	d.Put(&design.Footprint{ID: 90, Name: "F", Pads: []design.Pad{{ID: 1, Number: "1", Form: design.Rect, Size: geom.Pt(1_000_000, 1_000_000)}},
		Courtyard: []geom.Point{geom.Pt(-1_000_000, -1_000_000), geom.Pt(1_000_000, -1_000_000), geom.Pt(1_000_000, 1_000_000), geom.Pt(-1_000_000, 1_000_000)}})
	d.Put(&design.Placed{ID: 100, Part: 200, Designator: "U1", Footprint: "F", At: geom.Pt(2_000_000, 2_000_000), Bottom: true})
	b := workbench.Open(d, 0)
	wants := func() (out []string) {
		for _, f := range b.Findings() {
			if f.Kind == "fiducials" {
				out = append(out, f.Text)
			}
		}
		return out
	}
	require.Equal(t, []string{"On the lower side are one surface part and no fiducial; an assembler’s machine finds the board by three."}, wants())
	do := func(c edit.Command) {
		t.Helper()
		_, err := b.Edit(c)
		require.NoError(t, err)
	}
	do(&edit.PutFiducials{Bottom: true})
	assert.Empty(t, wants())
	var dots []geom.Point
	for f := range b.Doc.Figures.All() {
		at := f.Lines[0][0].Point
		assert.Equal(t, b.Doc.Board.Bottom(), f.Layer)
		assert.EqualValues(t, 1_000_000, f.Width)
		assert.EqualValues(t, 2_000_000, f.Fiducial)
		for _, e := range []int64{at.X, at.Y, 40_000_000 - at.X, 30_000_000 - at.Y} {
			assert.GreaterOrEqual(t, e, int64(2_000_000), "its bare board and a millimetre are within the edge")
		}
		assert.False(t, max(at.X, at.Y) < 4_000_000, "the part is in the way there: %v", at)
		dots = append(dots, at)
	}
	require.Len(t, dots, 3)
	for i, p := range dots {
		for _, q := range dots[:i] {
			assert.Greater(t, p.Dist(q), 20_000_000.0, "at different corners")
		}
	}
	// a track half a millimetre off is near enough to keep the rule, one nearer is not
	net := design.ID(0)
	d.Put(&design.Net{ID: 300, Name: "A"})
	net = 300
	near := func(gap int64) int {
		at := dots[0].Add(geom.Pt(-5_000_000, 500_000+100_000+gap))
		d.Put(&design.Track{ID: 310, Layer: b.Doc.Board.Bottom(), A: at, B: at.Add(geom.Pt(10_000_000, 0)), Width: 200_000, Net: net})
		n := 0
		for _, f := range workbench.Open(d, 0).Findings() {
			if f.Kind == "clearance" {
				n++
			}
		}
		return n
	}
	assert.Zero(t, near(500_000))
	assert.Equal(t, 1, near(499_000))
	b = workbench.Open(d, 0)
	for f := range b.Doc.Figures.All() {
		do(&edit.Remove{IDs: []design.ID{f.ID}})
		break
	}
	require.Len(t, wants(), 1)
	assert.Contains(t, wants()[0], "two fiducials")
	_, err := b.Edit(&edit.PutFiducials{Bottom: true, Opening: 29_000_000})
	require.ErrorContains(t, err, "a side needs 3")
	bare := workbench.Open(design.New("bare"), 0)
	_, err = bare.Edit(&edit.PutFiducials{})
	require.ErrorContains(t, err, "no outline")
}
