package edit_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

func theOne[P design.Object](t *testing.T, k *desk, table design.Table[P]) P {
	t.Helper()
	var found []P
	for _, o := range table {
		found = append(found, o)
	}
	require.Len(t, found, 1)
	return found[0]
}

// A figure is drawn, changed, turned rigidly about a place, carried to the other side and its layer; what is locked stays.
func TestFiguresAreDrawnAndCarried(t *testing.T) {
	k := four(t)
	arc := []geom.Corner{{Point: pt(20, 10), Mid: ptr(pt(21, 11))}, {Point: pt(22, 10)}}
	k.do(&edit.AddFigure{On: design.OnCopper, Lines: [][]geom.Corner{arc}, Width: 200_000})
	f := func() *design.BoardFigure { return theOne(t, k, k.d.Figures) }
	assert.Equal(t, k.d.Board.Top(), f().Layer, "the outer layer of its side when none is said")
	id := []design.ID{f().ID}
	k.do(&edit.TurnPlaced{IDs: id, Pivot: pt(20, 10), Angle: 90_000})
	assert.Equal(t, []geom.Point{pt(20, 10), pt(19, 11), pt(20, 12)}, []geom.Point{f().Lines[0][0].Point, *f().Lines[0][0].Mid,
		f().Lines[0][1].Point})
	k.do(&edit.SetFigure{IDs: id, Layer: ptr(k.d.Board.At(1))})
	k.do(&edit.FlipPlaced{IDs: id})
	assert.Equal(t, k.d.Board.At(2), f().Layer, "as far from the lower side as it was from the upper")
	assert.True(t, f().Bottom)
	assert.Equal(t, []geom.Point{pt(19, 10), pt(20, 11)}, []geom.Point{f().Lines[0][0].Point, *f().Lines[0][0].Mid},
		"mirrored about the middle of its box")
	k.do(&edit.SetFigure{IDs: id, On: ptr(design.OnSilk)})
	assert.Zero(t, f().Layer)
	k.do(&edit.SetFigure{IDs: id, Filled: ptr(true), Width: ptr(int64(0))})
	assert.True(t, f().Closed, "what is filled is closed")
	k.do(&edit.Lock{IDs: id, Locked: true})
	k.refuse(&edit.SetFigure{IDs: id, Width: ptr(int64(1))}, "locked")
	k.refuse(&edit.Remove{IDs: id}, "locked")
	k.do(&edit.Lock{IDs: id})
	k.do(&edit.Remove{IDs: id})
	assert.Empty(t, k.d.Figures)
}

func TestFiguresThatCannotBe(t *testing.T) {
	k := four(t)
	line := [][]geom.Corner{geom.Corners(pt(1, 1), pt(2, 1), pt(2, 2))}
	many := make([]geom.Corner, design.MostFigure+1)
	for i := range many {
		many[i].Point = pt(float64(i%100), float64(i%97)+float64(i)/1e4)
	}
	for why, c := range map[string]*edit.AddFigure{
		"lines of a width":          {Lines: line},
		"has closed lines":          {Lines: line, Filled: true},
		"has no line":               {Width: 1},
		"has no corner":             {Width: 1, Lines: [][]geom.Corner{{}}},
		"surface of the board":      {Width: 1, Lines: line, On: "moss"},
		"copper layer that is not":  {Width: 1, Lines: line, On: design.OnCopper, Layer: 99},
		"needs 3 corners":           {Filled: true, Closed: true, Lines: [][]geom.Corner{geom.Corners(pt(1, 1), pt(2, 2))}},
		"two corners in one place":  {Width: 1, Lines: [][]geom.Corner{geom.Corners(pt(1, 1), pt(1, 1))}},
		"more than 5000 corners":    {Width: 1, Lines: [][]geom.Corner{many}},
		"the width of a figure's":   {Width: -1, Lines: line},
		"what a figure is kept off": {Width: 1, Apart: -1, Lines: line},
		"a figure lies":             {Width: 1, Lines: [][]geom.Corner{geom.Corners(geom.Pt(1<<50, 0))}},
	} {
		k.refuse(c, why)
	}
}

// Texts are set in fonts; one of a file is kept in the project for as long as a text is set in it.
func TestFontsOfTexts(t *testing.T) {
	k := four(t)
	id := []design.ID{synthetic.FourTextTop}
	text := func() *design.Legend { return k.d.Legends[synthetic.FourTextTop] }
	data, err := os.ReadFile("../typeface/fonts/barlow-600.ttf")
	require.NoError(t, err)
	k.do(&edit.AddFont{Name: "Harrowmere.ttf", Data: data, IDs: id})
	a := theOne(t, k, k.d.Assets)
	assert.Equal(t, []any{design.Own, a.ID, "Harrowmere.ttf"}, []any{text().Font, text().Face, a.Name})
	bold := *text()
	bold.Font, bold.Face = design.Bold, 0
	assert.Equal(t, layout.TextRings(k.d.Asset, &bold), layout.TextRings(k.d.Asset, text()), "it is the same font as the shipped one")
	k.do(&edit.SetLegend{IDs: id, Font: ptr(design.Mono)})
	assert.Empty(t, k.d.Assets, "nothing is set in it any more")
	assert.Zero(t, text().Face)
	k.refuse(&edit.SetLegend{IDs: id, Font: ptr(design.Own)}, "names it")
	k.refuse(&edit.SetLegend{IDs: id, Font: ptr(design.Own), Face: ptr(design.ID(77))}, "not in the project")
	k.refuse(&edit.SetLegend{IDs: id, Font: ptr("gothic")}, "a font")
	k.refuse(&edit.SetLegend{IDs: id, Height: ptr(int64(201_000_000))}, "200 mm is the most")
	for why, bad := range map[string][]byte{"is empty": nil, "not a font": []byte("no letters"), "MB is the most": make([]byte, 5<<20),
		"font": data[:len(data)/3]} {
		k.refuse(&edit.AddFont{Name: "x.ttf", Data: bad}, why)
	}
	k.do(&edit.AddFont{Name: "Harrowmere.ttf", Data: data, IDs: id})
	k.do(&edit.Remove{IDs: id})
	assert.Empty(t, k.d.Assets)
}

// A dimension follows what it measures: a part that moves, a pad of it, a corner of the edge whose number changes; what goes
// leaves it where it was, and comes back with undo.
func TestDimensionsFollow(t *testing.T) {
	k := four(t)
	edge, r1 := design.Anchor{Of: design.BoardID, Corner: 1}, design.Anchor{Of: synthetic.FourR1, Pad: "2"}
	k.do(&edit.AddDimension{From: r1, To: edge, Way: design.AlongX, Off: 3_000_000})
	m := func() layout.DimensionDrawn { return layout.DimensionOf(k.d, theOne(t, k, k.d.Dimensions)) }
	assert.Equal(t, int64(28_000_000), m().Length, "pad 2 at (12, 10), the corner at (40, 0)")
	assert.Equal(t, []geom.Point{pt(12, 13), pt(40, 13)}, []geom.Point{m().A, m().B})
	k.do(&edit.MovePlaced{IDs: []design.ID{synthetic.FourR1}, Step: pt(1, 4)})
	assert.Equal(t, []any{int64(27_000_000), pt(13, 17)}, []any{m().Length, m().A})
	k.do(&edit.ShapeEdge{Corner: 0, Act: edit.AddCorner, To: pt(20, 0)})
	assert.Equal(t, pt(40, 0), m().To, "its corner is the third now")
	k.do(&edit.ShapeEdge{Corner: 2, Act: edit.MoveCorner, To: pt(45, 0)})
	assert.Equal(t, int64(32_000_000), m().Length)
	cs := k.do(&edit.ShapeEdge{Corner: 2, Act: edit.DropCorner})
	assert.Equal(t, []any{pt(45, 0), design.ID(0)}, []any{m().To, theOne(t, k, k.d.Dimensions).To.Of}, "it stays where the corner was")
	cs.Inverted().Apply(k.d)
	assert.Equal(t, design.BoardID, theOne(t, k, k.d.Dimensions).To.Of)
	k.do(&edit.SetDimension{ID: theOne(t, k, k.d.Dimensions).ID, Way: ptr(""), Off: ptr(int64(-2_000_000)), Text: ptr("to the wall")})
	assert.Equal(t, int64(34_928_498), m().Length, "√(32² + 14²)")
}
