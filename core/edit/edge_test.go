package edit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/units"
)

func TestDrawingTheEdge(t *testing.T) {
	s := newShop(t)
	size := func() geom.Point { b := s.Doc.Board.Region().Outer.Box(); return b.Max.Sub(b.Min) }
	s.do(&edit.DrawEdge{Form: "rectangle", A: at(0, 0), B: at(60, 40), R: 3 * units.MM})
	assert.Equal(t, at(60, 40), size())
	assert.Len(t, s.Doc.Board.Outline, 8)
	s.do(&edit.DrawEdge{Form: "circle", A: at(20, 20), B: at(24, 20), Cut: true})
	s.do(&edit.DrawEdge{Form: "slot", A: at(40, 10), B: at(40, 20), R: units.MM, Cut: true})
	assert.Len(t, s.Doc.Board.CutOuts, 2)
	before := s.Doc.Board
	s.refuses(&edit.DrawEdge{Form: "circle", A: at(22, 20), B: at(24, 20), Cut: true}, "meets the outline or another cut-out")
	s.refuses(&edit.DrawEdge{Form: "circle", A: at(90, 20), B: at(91, 20), Cut: true}, "does not lie within the board")
	s.refuses(&edit.DrawEdge{Form: "rectangle", A: at(0, 0), B: at(0, 40)}, "a width and a height")
	s.refuses(&edit.DrawEdge{Form: "circle", A: at(0, 0), B: at(0, 0)}, "has a radius")
	s.refuses(&edit.DrawEdge{Form: "slot", A: at(0, 0), B: at(1, 0)}, "has a width")
	s.refuses(&edit.DrawEdge{Form: "star"}, "not a form")
	s.refuses(&edit.DrawEdge{Form: "free", Corners: geom.Corners(at(0, 0), at(10, 10), at(10, 0), at(0, 10))}, "crosses itself")
	s.refuses(&edit.DrawEdge{Form: "rectangle", A: at(0, 0), B: geom.Pt(1<<60, 5)}, "can be drawn")
	s.refuses(&edit.DrawEdge{Form: "rectangle", A: at(30, 0), B: at(60, 40)}, "does not lie within the board")
	assert.Same(t, before, s.Doc.Board, "what was refused changed nothing")
	s.do(&edit.DropCut{Line: 1})
	assert.Len(t, s.Doc.Board.CutOuts, 1)
	assert.InDelta(t, 20+3.14159, s.Doc.Board.Region().Outer.Area()/1e12-s.Doc.Board.Region().Area()/1e12, 0.01, "the slot is left")
	s.refuses(&edit.DropCut{Line: 2}, "no such edge")
	s.refuses(&edit.DropCut{Line: 0}, "the outline stays")
}

// Two numbers size what the outline is: rounded corners stay round, arcs stay arcs, a circle stays a circle, and dimensions follow.
func TestSizingTheEdge(t *testing.T) {
	s := newShop(t)
	size := func() geom.Point { b := s.Doc.Board.Region().Outer.Box(); return b.Max.Sub(b.Min) }
	area := func() float64 { return s.Doc.Board.Region().Outer.Area() / 1e12 }
	s.refuses(&edit.SizeEdge{}, "a width and a height")
	s.do(&edit.SizeEdge{Width: 50 * units.MM})
	assert.Equal(t, at(50, 50), size(), "a square until the other number comes")
	s.do(&edit.DrawEdge{Form: "rectangle", A: at(10, 10), B: at(70, 50), R: 3 * units.MM})
	corners := len(s.Doc.Board.Outline)
	s.do(&edit.SizeEdge{Width: 80 * units.MM})
	assert.Equal(t, at(80, 40), size())
	assert.Equal(t, at(10, 10), s.Doc.Board.Region().Outer.Box().Min, "left and below stay")
	assert.Len(t, s.Doc.Board.Outline, corners)
	assert.InDelta(t, 80*40-(4-3.14159265)*9, area(), 0.001, "its corners are as round as they were")
	s.do(&edit.SizeEdge{Width: 20 * units.MM, Height: 100 * units.MM})
	assert.InDelta(t, 20*100-(4-3.14159265)*9, area(), 0.001)
	s.refuses(&edit.SizeEdge{Width: 6 * units.MM}, "more than 6 mm wide")
	s.refuses(&edit.SizeEdge{Height: 5 * units.MM}, "more than 6 mm high")
	s.refuses(&edit.SizeEdge{Width: -1}, "up to 2000 mm wide")
	s.refuses(&edit.SizeEdge{Width: 20 * units.MM}, "would change nothing")

	s.do(&edit.DrawEdge{Form: "circle", A: at(30, 30), B: at(50, 30)})
	s.do(&edit.SizeEdge{Height: 30 * units.MM})
	assert.InDelta(t, 30e6, float64(size().X), 4)
	assert.InDelta(t, 30e6, float64(size().Y), 4)
	assert.InDelta(t, 3.14159265*225, area(), 0.001)
	assert.InDelta(t, 0, at(10, 10).Dist(s.Doc.Board.Region().Outer.Box().Min), 4, "left and below stay")
	s.refuses(&edit.SizeEdge{Width: 20 * units.MM, Height: 25 * units.MM}, "as wide as it is high")

	// a house: its ridge stays in the middle, a dimension to the right lower corner goes along
	s.do(&edit.DrawEdge{Form: "free", Corners: geom.Corners(at(0, 0), at(40, 0), at(40, 20), at(20, 30), at(0, 20))})
	s.do(&edit.SizeEdge{Width: 60 * units.MM})
	assert.Equal(t, geom.Corners(at(0, 0), at(60, 0), at(60, 20), at(30, 30), at(0, 20)), s.Doc.Board.Outline)
	s.do(&edit.SizeEdge{Height: 40 * units.MM})
	assert.Equal(t, geom.Corners(at(0, 0), at(60, 0), at(60, 30), at(30, 40), at(0, 30)), s.Doc.Board.Outline)
	where, ok := layout.Place(s.Doc, design.Anchor{Of: design.BoardID, Corner: 1})
	assert.True(t, ok)
	assert.Equal(t, at(60, 0), where)

	// a drawn edge whose upper side is one arc: it can be made higher, not wider
	s.do(&edit.ShapeEdge{Act: "drop", Corner: 3})
	s.do(&edit.ShapeEdge{Act: "bend", Corner: 2, To: at(30, 45)})
	s.refuses(&edit.SizeEdge{Width: 70 * units.MM}, "bends across its middle")
	low := s.Doc.Board.Region().Outer.Box()
	s.do(&edit.SizeEdge{Height: low.Max.Y - low.Min.Y + 5*units.MM})
	assert.Equal(t, low.Max.Y+5*units.MM, s.Doc.Board.Region().Outer.Box().Max.Y)
}

func TestShapingTheEdge(t *testing.T) {
	s := newShop(t)
	s.refuses(&edit.ShapeEdge{Act: "move"}, "no such edge")
	s.do(&edit.DrawEdge{Form: "rectangle", A: at(0, 0), B: at(60, 40)})
	area := func() float64 { return s.Doc.Board.Region().Area() / 1e12 }
	s.do(&edit.ShapeEdge{Act: "round", Corner: 1, Size: 10 * units.MM})
	assert.InDelta(t, 2400-21.46, area(), 0.01) // (1 − π/4) · 100
	s.do(&edit.ShapeEdge{Act: "bevel", Corner: 0, Size: 5 * units.MM})
	assert.InDelta(t, 2400-21.46-12.5, area(), 0.01)
	s.do(&edit.ShapeEdge{Act: "roundAll", Size: 2 * units.MM})
	assert.Len(t, s.Doc.Board.Outline, 10, "four of six corners were between straight sides")
	s.refuses(&edit.ShapeEdge{Act: "roundAll", Size: units.MM}, "no corner between two straight sides")
	s.do(&edit.DrawEdge{Form: "rectangle", A: at(0, 0), B: at(60, 40)})
	s.refuses(&edit.ShapeEdge{Act: "roundAll", Size: 21 * units.MM}, "cannot be rounded by 21 mm: its sides are too short")
	s.do(&edit.ShapeEdge{Act: "add", Corner: 2, To: at(30, 50)})
	assert.InDelta(t, 2400+300, area(), 1e-6)
	s.do(&edit.ShapeEdge{Act: "move", Corner: 3, To: at(30, 60)})
	assert.InDelta(t, 2400+600, area(), 1e-6)
	s.do(&edit.ShapeEdge{Act: "drop", Corner: 3})
	s.do(&edit.ShapeEdge{Act: "bend", Corner: 0, To: at(30, -30)})
	assert.InDelta(t, 2400+1413.72, area(), 0.01) // half a circle of 30
	s.do(&edit.ShapeEdge{Act: "radius", Corner: 0})
	s.do(&edit.ShapeEdge{Act: "length", Corner: 0, Size: 50 * units.MM})
	assert.InDelta(t, 2200, area(), 1e-6)
	s.do(&edit.DrawEdge{Form: "circle", A: at(20, 20), B: at(24, 20), Cut: true})
	s.do(&edit.ShapeEdge{Line: 1, Act: "moveAll", To: at(5, 5)})
	assert.Equal(t, at(29, 25), s.Doc.Board.CutOuts[0][0].Point)
	before := s.Doc.Board
	s.refuses(&edit.ShapeEdge{Line: 1, Act: "moveAll", To: at(50, 0)}, "does not lie within")
	s.refuses(&edit.ShapeEdge{Line: 2, Act: "moveAll"}, "no such edge")
	s.refuses(&edit.ShapeEdge{Corner: 4, Act: "drop"}, "there is none 5")
	s.refuses(&edit.ShapeEdge{Corner: -1, Act: "drop"}, "there is none")
	s.refuses(&edit.ShapeEdge{Corner: 0, Act: "spin"}, "not a way to shape")
	s.refuses(&edit.ShapeEdge{Corner: 0, Act: "move", To: at(30, 60)}, "crosses itself")
	s.refuses(&edit.ShapeEdge{Corner: 0, Act: "move", To: geom.Pt(1<<62, 0)}, "beyond what a board")
	assert.Same(t, before, s.Doc.Board)
}
