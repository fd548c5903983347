package layout_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// textAt is the room of a part's designator when its label stands there, its line's width included; worked out from the strokes themselves.
func textAt(d *design.Doc, p *design.Placed, label geom.Point) geom.Box {
	q := *p
	q.Label = &label
	lines := layout.SilkLines(d, &q)
	f := d.Footprint(p.Footprint)
	drawn := 0
	for _, fig := range f.Silk {
		drawn += len(layout.FigureLines(fig))
	}
	var e geom.Extent
	for _, l := range lines[drawn:] {
		e.Add(l...)
	}
	return e.Box.Grow(75_000)
}

// Texts put in order lie on no pad, hole, via or other text of their side, and on the board where their part is; those not asked for
// stay. The same is
// found each time.
func TestLabelsInOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var nets [][2]design.ID
		for range rapid.IntRange(1, 20).Draw(t, "parts") {
			nets = append(nets, [2]design.ID{100, 101})
		}
		d := crowd(nets...)
		b := *d.Board
		b.Outline = geom.Rectangle(geom.BoxOf(mm(0, 0), mm(60, 40)), 2_000_000)
		d.Put(&b)
		for i := range nets { // on a grid with room for a text beside each
			p := d.Placed[design.ID(1000+i)]
			p.At = mm(float64(6+i%6*9), float64(6+i/6*8))
			p.Angle = int32(rapid.IntRange(0, 3).Draw(t, "angle")) * 90_000
			p.Bottom = rapid.Bool().Draw(t, "bottom")
			p.Designator = fmt.Sprint("R", rapid.IntRange(1, 999).Draw(t, "number"))
		}
		for i := range rapid.IntRange(0, 6).Draw(t, "vias") {
			d.Put(&design.Via{ID: design.ID(3000 + i), At: mm(float64(rapid.IntRange(2, 58).Draw(t, "x")),
				float64(rapid.IntRange(2, 38).Draw(t, "y"))), Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: 100})
		}
		places := layout.OrderLabels(d, nil)
		again := layout.OrderLabels(d, nil)
		for id, at := range places {
			if again[id] != at {
				t.Fatal("another time it is otherwise")
			}
		}
		if len(places) < len(nets) {
			t.Fatalf("%d of %d found a place", len(places), len(nets))
		}
		for id, at := range places {
			p := d.Placed[id]
			box := textAt(d, p, at)
			if box.Min.X < 0 || box.Min.Y < 0 || box.Max.X > 60_000_000 || box.Max.Y > 40_000_000 {
				t.Fatalf("%s stands beyond the edge: %v", p.Designator, box)
			}
			for o := range d.Placed.All() {
				if o.Bottom != p.Bottom {
					continue
				}
				for _, c := range layout.PiecesOf(d, o) {
					if overlaps(box, c.Box()) {
						t.Fatalf("%s lies on %s", p.Designator, c.Name)
					}
				}
				if o.ID != id && overlaps(box, textAt(d, o, places[o.ID])) {
					t.Fatalf("%s lies on %s", p.Designator, o.Designator)
				}
			}
			for v := range d.Vias.All() {
				if overlaps(box, geom.BoxOf(v.At).Grow(v.Hole/2)) {
					t.Fatalf("%s lies on the hole of a via", p.Designator)
				}
			}
		}
	})
}

// A lone part's text stands in line with its middle, above it; only what is asked for is moved, and keeps off the texts that stay.
func TestWhereALabelStands(t *testing.T) {
	d := crowd([2]design.ID{100, 101}, [2]design.ID{100, 101})
	d.Placed[1000].At, d.Placed[1001].At = mm(0, 0), mm(0, 4)
	places := layout.OrderLabels(d, []design.ID{1000})
	require.Len(t, places, 1)
	// the other part is above at 3 to 5 mm, its text at its footprint's place in the middle of it: there is room of 2 mm between both,
	// enough for 1 mm of text
	box := textAt(d, d.Placed[1000], places[1000])
	assert.Greater(t, box.Min.Y, int64(1_000_000))
	assert.Less(t, box.Max.Y, int64(3_000_000))
	assert.InDelta(t, 0, box.Centre().X, 300_000)
	d.Placed[1001].At = mm(0, 2.5) // none now: below
	box = textAt(d, d.Placed[1000], layout.OrderLabels(d, []design.ID{1000})[1000])
	assert.Less(t, box.Max.Y, int64(-1_000_000))

	for id, want := range map[design.ID]geom.Box{1000: geom.BoxOf(mm(-2, -1), mm(2, 1))} {
		room, ok := layout.RoomOf(d, id)
		assert.True(t, ok)
		assert.Equal(t, want, room)
	}
	_, ok := layout.RoomOf(d, 77)
	assert.False(t, ok)
	d.Put(&design.Hole{ID: 700, At: mm(5, 5), Diameter: 3_000_000, Land: 6_000_000})
	room, _ := layout.RoomOf(d, 700)
	assert.Equal(t, geom.BoxOf(mm(2, 2), mm(8, 8)), room)
}
