package route_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/route"
)

// part is one of one round pad of net A, through the board, at a place; and where it is carried to.
func part(d *design.Doc, from, to geom.Point) route.Carried {
	d.Put(&design.Footprint{ID: 90, Name: "ONE", Pads: []design.Pad{{Number: "1", Form: design.Round, Size: mm(1, 1), Hole: 500 * um}}})
	p := &design.Placed{ID: 600, Part: 601, Designator: "P1", Footprint: "ONE", At: from, Nets: map[string]design.ID{"1": 900}}
	d.Put(p)
	q := *p
	q.At = to
	return route.Carried{Before: p, After: &q}
}

// The track of a part that is carried elsewhere keeps its line as far as it can; round what is in the way it is sought; where nothing leads it goes.
func TestTracksFollowAPart(t *testing.T) {
	wall := &design.Track{ID: 200, Net: 902, Layer: 1, A: mm(14, 1), B: mm(14, 9), Width: 250 * um}
	for name, c := range map[string]struct {
		path     []geom.Point
		to       geom.Point
		more     []design.Object
		want     []geom.Point // nil: it goes
		searched bool
	}{
		"sideways along its last piece":   {[]geom.Point{mm(2, 2), mm(6, 2), mm(10, 6)}, mm(12, 8), nil, []geom.Point{mm(2, 2), mm(6, 2), mm(12, 8)}, false},
		"across its last piece":           {[]geom.Point{mm(2, 2), mm(6, 2), mm(10, 6)}, mm(11, 6), nil, []geom.Point{mm(2, 2), mm(7, 2), mm(11, 6)}, false},
		"back over the corner":            {[]geom.Point{mm(2, 2), mm(6, 2), mm(10, 6)}, mm(5, 2), nil, []geom.Point{mm(2, 2), mm(5, 2)}, false},
		"a straight one to one side":      {[]geom.Point{mm(2, 2), mm(10, 2)}, mm(10, 3), nil, []geom.Point{mm(2, 2), mm(9, 2), mm(10, 3)}, false},
		"round a wall":                    {[]geom.Point{mm(2, 2), mm(6, 2), mm(10, 6)}, mm(17, 6), []design.Object{wall}, []geom.Point{mm(2, 2), mm(17, 6)}, true},
		"not where no way leads":          {[]geom.Point{mm(2, 2), mm(6, 2), mm(10, 6)}, mm(17, 6), []design.Object{wall, &design.Track{ID: 201, Net: 902, Layer: 1, A: mm(14, 9), B: mm(14, 30), Width: 250 * um}, &design.Track{ID: 202, Net: 902, Layer: 1, A: mm(14, -20), B: mm(14, 1), Width: 250 * um}}, nil, false},
		"with a locked piece it can't go": {[]geom.Point{mm(2, 2), mm(6, 2)}, mm(12, 8), []design.Object{&design.Track{ID: 110, Net: 900, Layer: 1, A: mm(6, 2), B: mm(10, 6), Width: 250 * um, Locked: true}}, nil, false},
	} {
		t.Run(name, func(t *testing.T) {
			f := field(append(line(100, c.path...), c.more...)...)
			carried := part(f.Doc, mm(10, 6), c.to)
			if name == "back over the corner" || name == "a straight one to one side" {
				carried = part(f.Doc, c.path[len(c.path)-1], c.to)
			}
			f.Index.Put(f.Doc, carried.Before)
			w := f.Follow([]route.Carried{carried}, route.Effort{Strands: 10, Places: 400_000})
			if c.want == nil {
				assert.Empty(t, w.Strands)
				assert.Equal(t, 1, len(w.Open)+w.Stay)
				return
			}
			require.Len(t, w.Strands, 1)
			got := w.Strands[0].To
			assert.Equal(t, []geom.Point{c.want[0], c.want[len(c.want)-1]}, []geom.Point{got[0], got[len(got)-1]}, "its ends")
			if !c.searched {
				assert.Equal(t, c.want, got)
				return
			}
			assert.Less(t, route.Length(got), int64(27_000_000), "up to the wall's end and down again")
			assert.Greater(t, route.Length(got), int64(18_000_000))
			open := f.Follow([]route.Carried{carried}, route.Effort{})
			assert.Empty(t, open.Strands)
			assert.Len(t, open.Open, 1)
			none := f.Follow([]route.Carried{carried}, route.Effort{Strands: 10, Places: 100})
			assert.Len(t, none.Open, 1, "it was not sought for long enough")
			assert.True(t, none.Sought)
		})
	}
}

// Foreign copper that a carried part would touch is told of; copper that is only near is not.
func TestFollowingTellsOfShorts(t *testing.T) {
	wall := &design.Track{ID: 200, Net: 902, Layer: 1, A: mm(14, 1), B: mm(14, 9), Width: 250 * um}
	for to, touches := range map[geom.Point]int{mm(14, 5): 1, mm(13.4, 5): 1, mm(13.3, 5): 0} { // the pad reaches 0.5 mm, the track 0.125
		f := field(wall)
		carried := part(f.Doc, mm(10, 6), to)
		f.Index.Put(f.Doc, carried.Before)
		w := f.Follow([]route.Carried{carried}, route.Effort{Strands: 10, Places: 1000})
		require.Len(t, w.Touches, touches, "%v", to)
		if touches > 0 {
			assert.Equal(t, "WALL", w.Touches[0].Net)
		}
	}
}

// Of more tracks than the effort is for, those beyond it are left, and that is told.
func TestFollowingIsBounded(t *testing.T) {
	f := field(append(line(100, mm(2, 6), mm(10, 6)), line(110, mm(10, 6), mm(10, 2))...)...)
	carried := part(f.Doc, mm(10, 6), mm(11, 7))
	f.Index.Put(f.Doc, carried.Before)
	w := f.Follow([]route.Carried{carried}, route.Effort{Strands: 1, Places: 1000})
	assert.True(t, w.Many)
	assert.Equal(t, []int{1, 1}, []int{len(w.Strands), len(w.Open)})
	w = f.Follow([]route.Carried{carried}, route.Effort{Strands: 2, Places: 1000})
	assert.False(t, w.Many)
	assert.Empty(t, w.Open)
}

// A via in a pad goes along with it, and the track on the other side follows the via.
func TestAViaInAPadGoesAlong(t *testing.T) {
	bottom := design.New("").Board.Bottom()
	f := field(&design.Track{ID: 100, Net: 900, Layer: bottom, A: mm(2, 6), B: mm(10, 6), Width: 250 * um},
		&design.Via{ID: 101, Net: 900, At: mm(10, 6), Diameter: 600 * um, Hole: 300 * um, From: 1, To: bottom})
	f.Doc.Put(&design.Footprint{ID: 90, Name: "ONE", Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: mm(1, 1)}}})
	p := &design.Placed{ID: 600, Part: 601, Designator: "P1", Footprint: "ONE", At: mm(10, 6), Nets: map[string]design.ID{"1": 900}}
	f.Doc.Put(p)
	f.Index.Put(f.Doc, p)
	q := *p
	q.At = mm(12, 6)
	w := f.Follow([]route.Carried{{Before: p, After: &q}}, route.Effort{Strands: 10, Places: 1000})
	require.Len(t, w.Vias, 1)
	assert.Equal(t, mm(12, 6), w.Vias[0].To)
	require.Len(t, w.Strands, 1)
	assert.Equal(t, []geom.Point{mm(2, 6), mm(12, 6)}, w.Strands[0].To)

	// locked ones stay, and are counted; those beside them go along all the same
	for i, x := range []float64{9.6, 9.8, 10.2, 10.4} {
		f.Index.Put(f.Doc, putVia(f.Doc, design.ID(110+i), mm(x, 6.3), bottom))
	}
	w = f.Follow([]route.Carried{{Before: p, After: &q}}, route.Effort{Strands: 10, Places: 1000})
	assert.Len(t, w.Vias, 1)
	assert.Equal(t, 4, w.Stay)
}

// putVia puts a locked via of net A into a board.
func putVia(d *design.Doc, id design.ID, at geom.Point, bottom design.LayerID) *design.Via {
	v := &design.Via{ID: id, Net: 900, At: at, Diameter: 600 * um, Hole: 300 * um, From: 1, To: bottom, Locked: true}
	d.Put(v)
	return v
}
