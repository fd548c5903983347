package design_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// carried is every mirroring and quarter turn about a place, with the same as a 2 × 2 matrix by
// hand: x' = a x + b y, y' = c x + d y about the place.
func carried(pivot geom.Point, do func(tr design.Transform, by func(geom.Point) geom.Point)) {
	turns := [4][4]int64{{1, 0, 0, 1}, {0, -1, 1, 0}, {-1, 0, 0, -1}, {0, 1, -1, 0}}
	for q, m := range turns {
		for _, mirror := range []bool{false, true} {
			by := func(p geom.Point) geom.Point {
				x, y := p.X-pivot.X, p.Y-pivot.Y
				if mirror {
					x = -x
				}
				return geom.Pt(m[0]*x+m[1]*y+pivot.X, m[2]*x+m[3]*y+pivot.Y)
			}
			do(design.Transform{Point: by, Turned: true, Mirror: mirror, Quarters: q}, by)
		}
	}
}

// What stands on a sheet goes where turning and mirroring take it, pins and ends included.
func TestTurnedAndMirroredByMatrix(t *testing.T) {
	at := geom.Pt(7_500_000, -2_500_000)
	pivot := geom.Pt(5_000_000, 2_500_000)
	way := []geom.Point{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}
	tip := func(at geom.Point, turn int) geom.Point { return at.Add(way[turn]) }
	carried(pivot, func(tr design.Transform, by func(geom.Point) geom.Point) {
		for turn := range 4 {
			for _, mirror := range []bool{false, true} {
				p := &design.Part{At: at, Turn: turn, Mirror: mirror, DesignatorAt: &geom.Point{}, ValueAt: &geom.Point{}}
				q := p.Transformed(tr).(*design.Part)
				require.Contains(t, []int{0, 1, 2, 3}, q.Turn)
				for _, pin := range []geom.Point{{X: 10, Y: 0}, {X: 3, Y: -7}} {
					assert.Equal(t, by(p.Pose().Apply(pin)), q.Pose().Apply(pin), "turned %d, mirrored %v, by %d, %v", turn, mirror, tr.Quarters, tr.Mirror)
				}
				assert.Nil(t, q.DesignatorAt, "texts that were moved by hand go back to their usual place")
				assert.Nil(t, q.ValueAt)
				assert.NotNil(t, p.DesignatorAt, "the original stays as it was")
				assert.Equal(t, turn, p.Turn)
			}
			tap := &design.Tap{At: at, Turn: turn}
			q := tap.Transformed(tr).(*design.Tap)
			assert.Equal(t, by(tap.End()), q.End(), "a tap turned %d", turn)
			assert.Equal(t, by(tap.At), q.At)
			l := (&design.Label{At: at, Turn: turn}).Transformed(tr).(*design.Label)
			o := (&design.Port{At: at, Turn: turn}).Transformed(tr).(*design.Port)
			s := (&design.Supply{At: at, Turn: turn}).Transformed(tr).(*design.Supply)
			want := by(tip(at, turn))
			assert.Equal(t, []geom.Point{want, want}, []geom.Point{tip(l.At, l.Turn), tip(o.At, o.Turn)})
			assert.Equal(t, by(at), s.At)
		}
		w := (&design.Wire{A: at, B: geom.Pt(0, 0)}).Transformed(tr).(*design.Wire)
		assert.Equal(t, [2]geom.Point{by(at), by(geom.Pt(0, 0))}, [2]geom.Point{w.A, w.B})
		g := &design.Graphic{Pts: []geom.Point{at, {X: 1, Y: 2}}}
		assert.Equal(t, []geom.Point{by(at), by(geom.Pt(1, 2))}, g.Transformed(tr).(*design.Graphic).Pts)
		assert.Equal(t, at, g.Pts[0])
		// blocks and pictures stay upright about their middle, which is on the grid
		b := (&design.SheetBlock{At: at, Size: geom.Pt(20_000_000, 10_000_000)}).Transformed(tr).(*design.SheetBlock)
		assert.Equal(t, by(at.Add(geom.Pt(10_000_000, 5_000_000))), b.At.Add(geom.Pt(10_000_000, 5_000_000)))
		pic := (&design.Picture{At: at, Size: geom.Pt(20_000_000, 10_000_000)}).Transformed(tr).(*design.Picture)
		assert.Equal(t, b.At, pic.At)
		c := (&design.Cluster{A: at, B: geom.Pt(1, 1)}).Transformed(tr).(*design.Cluster)
		assert.Equal(t, geom.BoxOf(by(at), by(geom.Pt(1, 1))), c.Box())
		assert.Equal(t, by(at), (&design.Note{At: at}).Transformed(tr).(*design.Note).At)
		assert.Equal(t, by(at), (&design.Timing{At: at}).Transformed(tr).(*design.Timing).At)
		assert.Equal(t, by(at), (&design.OpenMark{At: at}).Transformed(tr).(*design.OpenMark).At)
	})
	moved := design.Transform{Point: func(p geom.Point) geom.Point { return p.Add(geom.Pt(1, 2)) }}
	block := (&design.SheetBlock{At: at, Size: geom.Pt(15_000_000, 5_000_000)}).Transformed(moved).(*design.SheetBlock)
	assert.Equal(t, at.Add(geom.Pt(1, 2)), block.At)
	part := (&design.Part{At: at, Turn: 3, Mirror: true, ValueAt: &geom.Point{X: 5}}).Transformed(moved).(*design.Part)
	assert.Equal(t, []any{at.Add(geom.Pt(1, 2)), 3, true, int64(5)}, []any{part.At, part.Turn, part.Mirror, part.ValueAt.X}, "what is only moved keeps the rest")
}

// A tap leads one grid step away each way: up to the right, then anticlockwise.
func TestEndsOfTaps(t *testing.T) {
	at := geom.Pt(500_000, 500_000)
	for turn, want := range []geom.Point{{X: 3_000_000, Y: 3_000_000}, {X: -2_000_000, Y: 3_000_000}, {X: -2_000_000, Y: -2_000_000}, {X: 3_000_000, Y: -2_000_000}} {
		assert.Equal(t, want, (&design.Tap{At: at, Turn: turn}).End())
	}
}

// A part of several units shows the symbol of its own; one whose unit is gone shows that of the whole.
func TestSymbolsOfUnits(t *testing.T) {
	d := design.Empty()
	for i, name := range []string{"whole", "first", "second"} {
		d.Put(&design.Symbol{ID: design.ID(20 + i), Name: name})
	}
	d.Put(&design.LibraryPart{ID: 30, Name: "L", Symbol: "whole", Units: []string{"first", "second"}})
	for unit, want := range map[int]string{0: "whole", 1: "first", 2: "second", 3: "whole", -1: "whole"} {
		require.NotNil(t, d.SymbolOf(&design.Part{Library: "L", Unit: unit}), unit)
		assert.Equal(t, want, d.SymbolOf(&design.Part{Library: "L", Unit: unit}).Name, "unit %d", unit)
	}
	assert.Nil(t, d.SymbolOf(&design.Part{Library: "none"}))
}

// The objects there is one of are found by kind and number, and not by either alone.
func TestObjectsThereIsOneOf(t *testing.T) {
	d := design.New("one")
	d.Put(&design.Checks{ID: design.ChecksID})
	for _, o := range []design.Object{d.Settings, d.Checks, d.Board} {
		assert.Equal(t, o, d.GetKind(o.ObjectKind(), o.ObjectID()))
		assert.Nil(t, d.GetKind(o.ObjectKind(), 999))
		assert.Equal(t, o, d.Get(o.ObjectID()))
	}
	assert.Nil(t, d.GetKind(design.KindChecks, d.Board.ID))
	assert.Nil(t, d.GetKind(design.KindSettings, d.Board.ID))
	assert.Nil(t, d.GetKind("nothing", d.Board.ID))
}
