package layout_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// Notes measure from copper to copper, of the same net where both have one; from the courtyard to the edge.
func TestWhatNotesMeasure(t *testing.T) {
	d := crowd([2]design.ID{100, 101}, [2]design.ID{101, 102})
	b := *d.Board
	b.Outline = geom.Corners(mm(0, 0), mm(60, 0), mm(60, 40), mm(0, 40))
	d.Put(&b)
	edge := layout.EdgeOf(d.Board)
	p, u := d.Placed[1000], d.Placed[1001]
	at := func(id design.ID) *design.Placed { return d.Placed[id] }
	measure := func(n design.PlaceNote) layout.NoteLine {
		p.Notes = []design.PlaceNote{{Kind: design.NoteText, Text: "by hand"}, n}
		lines := layout.NoteLines(d, &edge, p, at)
		require.Len(t, lines, 1, "words measure nothing")
		assert.Equal(t, 1, lines[0].Note)
		return lines[0]
	}
	p.At, u.At = mm(10, 20), mm(30, 20)
	// pads 1 mm wide at ±1: pad 2 of R0 (net 101) ends at 11.5, pad 1 of R1 (101) begins at 28.5
	l := measure(design.PlaceNote{Kind: design.NoteWithin, Of: 1001, Pad: "1", Distance: 17_000_000})
	assert.Equal(t, int64(17_000_000), l.Has)
	assert.True(t, l.Holds)
	assert.Equal(t, []int64{11_500_000, 28_500_000}, []int64{l.A.X, l.B.X})
	assert.False(t, measure(design.PlaceNote{Kind: design.NoteWithin, Of: 1001, Pad: "1", Distance: 16_999_000}).Holds)
	// turned around, its pad of that net is the farther one, and is meant all the same
	p.Angle = 180_000
	assert.Equal(t, int64(19_000_000), measure(design.PlaceNote{Kind: design.NoteWithin, Of: 1001, Pad: "1"}).Has)
	// pad 2 of R1 bears a net that R0 does not: the nearest copper counts
	assert.Equal(t, int64(19_000_000), measure(design.PlaceNote{Kind: design.NoteWithin, Of: 1001, Pad: "2"}).Has)
	p.Angle = 0
	u.At = mm(11, 20)
	assert.Zero(t, measure(design.PlaceNote{Kind: design.NoteWithin, Of: 1001}).Has, "over each other they are no distance apart")
	for _, n := range []design.PlaceNote{{Kind: design.NoteWithin, Of: 77, Distance: 1e9},
		{Kind: design.NoteWithin, Of: 1001, Pad: "9", Distance: 1e9}} {
		l := measure(n)
		assert.True(t, l.Lost)
		assert.False(t, l.Holds)
	}
	// the courtyard reaches 2 mm left and right of the origin, 1 mm up and down
	for x, want := range map[float64]int64{10: 8_000_000, 3: 1_000_000, 2: 0, 1: 0, -5: 3_000_000, 57: 1_000_000} {
		p.At = mm(x, 20)
		assert.Equal(t, want, measure(design.PlaceNote{Kind: design.NoteEdge, Distance: 1_000_000}).Has, "%g", x)
	}
	p.At = mm(3, 20)
	assert.True(t, measure(design.PlaceNote{Kind: design.NoteEdge, Distance: 1_000_000}).Holds)
	none := layout.Edge{}
	p.Notes = []design.PlaceNote{{Kind: design.NoteEdge}}
	assert.True(t, layout.NoteLines(d, &none, p, at)[0].Lost)
}

// Courtyards that lie over each other on one side clash: the same ones that looking at every pair by itself finds; touching is none.
func TestClashingCourtyards(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var nets [][2]design.ID
		for range rapid.IntRange(2, 15).Draw(t, "parts") {
			nets = append(nets, [2]design.ID{100, 101})
		}
		d := crowd(nets...)
		moved := map[design.ID]*design.Placed{}
		now := map[design.ID]*design.Placed{}
		for i := range nets {
			p := d.Placed[design.ID(1000+i)]
			p.At = mm(float64(rapid.IntRange(0, 20).Draw(t, "x")), float64(rapid.IntRange(0, 10).Draw(t, "y")))
			p.Angle = int32(rapid.IntRange(0, 1).Draw(t, "angle")) * 90_000
			p.Bottom = rapid.Bool().Draw(t, "side")
			now[p.ID] = p
			if rapid.Bool().Draw(t, "moved") {
				q := *p
				q.At = q.At.Add(mm(float64(rapid.IntRange(-5, 5).Draw(t, "dx")), 0))
				moved[p.ID], now[p.ID] = &q, &q
			}
		}
		want := map[design.ID]bool{}
		for id := range moved {
			for other, o := range now {
				if id != other && now[id].Bottom == o.Bottom && overlaps(yardOf(d, now[id], now[id].At), yardOf(d, o, o.At)) {
					want[id], want[other] = true, true
				}
			}
		}
		moved[5], moved[9] = &design.Placed{ID: 5, Footprint: "nowhere"}, &design.Placed{ID: 9, Footprint: "nowhere"} // parts without a footprint take no place
		got := layout.Clashing(d, layout.NewIndex(d), rules.Of(d), moved)
		slices.Sort(got)
		if len(got) != len(want) {
			t.Fatalf("found %v, want %v", got, want)
		}
		for _, id := range got {
			if !want[id] {
				t.Fatalf("%d does not clash", id)
			}
		}
	})
}
