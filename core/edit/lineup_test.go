package edit_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// row is a board with parts 4, 6 and 8 mm wide and 2, 4 and 6 mm high, their courtyards from the origin rightwards and up.
func row(t *testing.T) (*shop, []design.ID) {
	s := newShop(t)
	var ids []design.ID
	for i, at := range []geom.Point{at(0, 0), at(10, 1), at(30, 5)} {
		w, h := float64(4+2*i), float64(2+2*i)
		name := fmt.Sprint("F", i)
		s.Doc.Put(&design.Footprint{ID: s.Doc.NewID(), Name: name, Pads: []design.Pad{{Number: "1", Form: "rect", Size: geom.Pt(units.MM, units.MM)}},
			Courtyard: []geom.Point{{}, {X: units.MMf(w)}, {X: units.MMf(w), Y: units.MMf(h)}, {Y: units.MMf(h)}}})
		p := &design.Placed{ID: s.Doc.NewID(), Part: design.ID(90 + i), Designator: fmt.Sprint("R", i+1), Footprint: name, At: at}
		s.Doc.Put(p)
		ids = append(ids, p.ID)
	}
	return s, ids
}

func TestLiningUp(t *testing.T) {
	for how, want := range map[string][]geom.Point{
		"left":   {at(0, 0), at(0, 1), at(0, 5)},
		"right":  {at(0, 0), at(-2, 1), at(-4, 5)},
		"top":    {at(0, 0), at(10, -2), at(30, -4)},
		"bottom": {at(0, 0), at(10, 0), at(30, 0)},
		"column": {at(0, 0), at(-1, 1), at(-2, 5)},
		"row":    {at(0, 0), at(10, -1), at(30, -2)},
		// over all 0 to 38, of which the parts take 18: two gaps of 10
		"across":     {at(0, 0), at(14, 1), at(30, 5)},
		"packAcross": {at(0, 0), at(5, 1), at(12, 5)}, // gaps of 1
		// downwards from the first: 0 − 1 − 4, then −5 − 1 − 6
		"packDown": {at(0, 0), at(10, -5), at(30, -12)},
	} {
		s, ids := row(t)
		s.do(&edit.LineUp{IDs: ids, How: how, Gap: units.MM})
		var got []geom.Point
		for _, id := range ids {
			got = append(got, s.Doc.Placed[id].At)
		}
		assert.Equal(t, want, got, how)
	}
	s, ids := row(t)
	// up and down 0 to 11 of which 12 are taken: gaps of −0.5, so they overlap alike
	s.do(&edit.LineUp{IDs: ids, How: "down"})
	assert.Equal(t, at(10, 1.5), s.Doc.Placed[ids[1]].At)
	s.refuses(&edit.LineUp{IDs: ids, How: "down"}, "stand so already")
	s.refuses(&edit.LineUp{IDs: ids[:2], How: "down"}, "at least 3")
	s.refuses(&edit.LineUp{IDs: ids[:1], How: "left"}, "at least 2")
	s.refuses(&edit.LineUp{IDs: []design.ID{ids[0], ids[0]}, How: "left"}, "at least 2")
	s.refuses(&edit.LineUp{IDs: ids, How: "round"}, "not a way")
	s.refuses(&edit.LineUp{IDs: ids, How: "packDown", Gap: -1}, "a gap is 0")
	s.do(&edit.Lock{IDs: ids[2:], Locked: true})
	before := s.Doc.Placed[ids[1]]
	s.refuses(&edit.LineUp{IDs: ids, How: "left"}, "R3 is locked")
	assert.Same(t, before, s.Doc.Placed[ids[1]], "all or none")
	s.do(&edit.LineUp{IDs: []design.ID{ids[2], ids[0], ids[1]}, How: "left"})
	assert.Equal(t, at(30, 0), s.Doc.Placed[ids[0]].At, "the first stays, locked as it is")
}

func TestSwappingAndLabels(t *testing.T) {
	s, ids := row(t)
	a, b := s.Doc.Placed[ids[0]], s.Doc.Placed[ids[1]]
	a.Angle, a.Bottom = 90_000, true
	s.do(&edit.SwapPlaced{A: ids[0], B: ids[1]})
	assert.Equal(t, []any{at(10, 1), int32(0), false}, []any{s.Doc.Placed[ids[0]].At, s.Doc.Placed[ids[0]].Angle, s.Doc.Placed[ids[0]].Bottom})
	assert.Equal(t, []any{at(0, 0), int32(90_000), true}, []any{s.Doc.Placed[ids[1]].At, s.Doc.Placed[ids[1]].Angle, s.Doc.Placed[ids[1]].Bottom})
	assert.Equal(t, at(0, 0), a.At)
	assert.Equal(t, at(10, 1), b.At)
	s.refuses(&edit.SwapPlaced{A: ids[0], B: ids[0]}, "two parts")
	s.refuses(&edit.SwapPlaced{A: ids[0], B: 999}, "no such part")
	s.do(&edit.Lock{IDs: ids[2:], Locked: true})
	s.refuses(&edit.SwapPlaced{A: ids[2], B: ids[0]}, "R3 is locked")
	s.refuses(&edit.SwapPlaced{A: ids[0], B: ids[2]}, "R3 is locked")

	// R2 lies at the origin, mirrored and turned by 90°: what is at (x, y) of it lies at (−y, −x) of the board
	to := at(3, 5)
	s.do(&edit.SetLabel{ID: ids[1], At: &to})
	p := s.Doc.Placed[ids[1]]
	assert.Equal(t, at(-5, -3), *p.Label)
	assert.Equal(t, to, p.Pose().Apply(*p.Label))
	s.do(&edit.SetLabel{ID: ids[1]})
	assert.Nil(t, s.Doc.Placed[ids[1]].Label)
	far := geom.Pt(1<<60, 0)
	s.refuses(&edit.SetLabel{ID: ids[1], At: &far}, "beyond")
	s.do(&edit.OrderLabels{})
	assert.NotNil(t, s.Doc.Placed[ids[1]].Label)
	s.refuses(&edit.OrderLabels{}, "in order already")
	s.do(&edit.SetLabel{ID: ids[1]})
	s.do(&edit.OrderLabels{IDs: ids[1:2]})
	assert.NotNil(t, s.Doc.Placed[ids[1]].Label)
}
