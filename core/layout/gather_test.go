package layout_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

// crowd is a board with parts of two pads, 4 × 2 mm, each on two nets.
func crowd(nets ...[2]design.ID) *design.Doc {
	d := design.New("crowd")
	d.Put(&design.Footprint{ID: 10, Name: "F", Pads: []design.Pad{
		{Number: "1", Form: design.Rect, At: mm(-1, 0), Size: mm(1, 1)}, {Number: "2", Form: design.Rect, At: mm(1, 0), Size: mm(1, 1)}},
		Courtyard: []geom.Point{mm(-2, -1), mm(2, -1), mm(2, 1), mm(-2, 1)}})
	for i, n := range nets {
		for _, id := range n {
			d.Put(&design.Net{ID: id, Name: fmt.Sprint("N", id)})
		}
		d.Put(&design.Placed{ID: design.ID(1000 + i), Part: design.ID(2000 + i), Designator: fmt.Sprint("R", i), Footprint: "F",
			At: mm(200, float64(10*i)), Nets: map[string]design.ID{"1": n[0], "2": n[1]}})
	}
	return d
}

func yardOf(d *design.Doc, p *design.Placed, at geom.Point) geom.Box {
	t := p.Pose()
	t.At = at
	return geom.BoxOf(layout.Courtyard(d.Footprint(p.Footprint), t)...)
}

func overlaps(a, b geom.Box) bool {
	return a.Min.X < b.Max.X && b.Min.X < a.Max.X && a.Min.Y < b.Max.Y && b.Min.Y < a.Max.Y
}

// A chain of parts gathered keeps its neighbours together: what is joined lies nearer than what is not.
func TestGatheringAChain(t *testing.T) {
	var nets [][2]design.ID
	for i := range 6 {
		nets = append(nets, [2]design.ID{design.ID(100 + i), design.ID(101 + i)})
	}
	d := crowd(nets...)
	ids := []design.ID{1000, 1001, 1002, 1003, 1004, 1005}
	at, err := layout.Gather(d, ids, mm(50, 40))
	require.NoError(t, err)
	require.Len(t, at, 6)
	joined, all, n := 0.0, 0.0, 0
	for i := range ids {
		for k := range i {
			dist := at[ids[i]].Dist(at[ids[k]])
			all, n = all+dist, n+1
			if i-k == 1 {
				joined += dist
			}
		}
		assert.Less(t, at[ids[i]].Dist(mm(50, 40)), 24e6)
	}
	assert.Less(t, joined/5, all/float64(n)*0.8)
}

// Gathered parts never lie over each other nor over what is there already on their side; locked ones stay and draw the others to them;
// what was not
// picked stays; the same is found each time.
func TestGatheringKeepsApart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(1, 25).Draw(t, "parts")
		var nets [][2]design.ID
		for range n {
			nets = append(nets, [2]design.ID{design.ID(rapid.IntRange(100, 108).Draw(t, "net")), design.ID(rapid.IntRange(100, 108).Draw(t, "net"))})
		}
		d := crowd(nets...)
		var ids []design.ID
		for i := range n {
			p := d.Placed[design.ID(1000+i)]
			p.Angle = int32(rapid.IntRange(0, 3).Draw(t, "angle")) * 90_000
			p.Bottom = rapid.IntRange(0, 3).Draw(t, "side") == 0
			if rapid.IntRange(0, 4).Draw(t, "there") == 0 { // in the way, where the others are to go
				p.At = mm(float64(rapid.IntRange(40, 60).Draw(t, "x")), float64(rapid.IntRange(30, 50).Draw(t, "y")))
				p.Locked = rapid.Bool().Draw(t, "locked")
				if p.Locked {
					ids = append(ids, p.ID)
				}
				continue
			}
			ids = append(ids, p.ID)
		}
		movable := 0
		for _, id := range ids {
			if !d.Placed[id].Locked {
				movable++
			}
		}
		at, err := layout.Gather(d, ids, mm(50, 40))
		if movable == 0 {
			if err == nil {
				t.Fatal("nothing could be moved, and that was not said")
			}
			return
		}
		if err != nil || len(at) != movable {
			t.Fatalf("%v, %d of %d", err, len(at), movable)
		}
		again, _ := layout.Gather(d, ids, mm(50, 40))
		for id, p := range at {
			if again[id] != p {
				t.Fatal("another time it is otherwise")
			}
			for o := range d.Placed.All() {
				other, lies := at[o.ID]
				if !lies {
					other = o.At
				}
				if o.ID != id && o.Bottom == d.Placed[id].Bottom && overlaps(yardOf(d, d.Placed[id], p), yardOf(d, o, other)) {
					t.Fatalf("%s at %v lies over %s at %v", d.Placed[id].Designator, p, o.Designator, other)
				}
			}
		}
	})
}

// Gathered on a board, parts stay within its edge as long as there is room.
func TestGatheringStaysOnTheBoard(t *testing.T) {
	var nets [][2]design.ID
	for i := range 12 { // a long chain, which would run straight out over the edge
		nets = append(nets, [2]design.ID{design.ID(100 + i), design.ID(101 + i)})
	}
	d := crowd(nets...)
	b := *d.Board
	b.Outline = geom.Rectangle(geom.BoxOf(mm(0, 0), mm(20, 16)), 1_000_000)
	d.Put(&b)
	var ids []design.ID
	for i := range nets {
		ids = append(ids, design.ID(1000+i))
	}
	at, err := layout.Gather(d, ids, mm(10, 8))
	require.NoError(t, err)
	for id, p := range at {
		yard := yardOf(d, d.Placed[id], p)
		assert.True(t, yard.Min.X >= 0 && yard.Min.Y >= 0 && yard.Max.X <= 20*units.MM && yard.Max.Y <= 16*units.MM, "%v", yard)
	}
}

// A small part goes beside the pin it serves, on that side of a long one.
func TestGatheringAtAPin(t *testing.T) {
	d := crowd([2]design.ID{100, 101})
	d.Put(&design.Net{ID: 102, Name: "N102"})
	long := &design.Footprint{ID: 11, Name: "Long", Courtyard: []geom.Point{mm(-20, -2), mm(20, -2), mm(20, 2), mm(-20, 2)}}
	for i := range 20 {
		long.Pads = append(long.Pads, design.Pad{Number: fmt.Sprint(i + 1), Form: design.Rect, At: mm(float64(2*i-19), 0), Size: mm(1, 1)})
	}
	d.Put(long)
	d.Put(&design.Placed{ID: 1100, Part: 2100, Designator: "U1", Footprint: "Long", At: mm(50, 40), Locked: true,
		Nets: map[string]design.ID{"20": 100, "1": 102}})
	at, err := layout.Gather(d, []design.ID{1000, 1100}, mm(50, 40))
	require.NoError(t, err)
	assert.Less(t, at[1000].Dist(mm(69, 40)), 8e6, "at the end where its net is")
	_, err = layout.Gather(d, []design.ID{1100}, mm(0, 0))
	assert.ErrorContains(t, err, "not locked")
	_, err = layout.Gather(d, nil, mm(0, 0))
	assert.Error(t, err)
}

// Parts arrive in groups: the smallest cluster around them, else their sheet in its use; the room of one group and that of another do
// not meet.
func TestArrivingInGroups(t *testing.T) {
	d := design.New("groups")
	sheet := d.SheetsInOrder()[0].ID
	d.Put(&design.Cluster{ID: 300, Sheet: sheet, A: mm(0, 0), B: mm(100, 100), Title: "Supply"})
	d.Put(&design.Cluster{ID: 301, Sheet: sheet, A: mm(40, 40), B: mm(20, 20), Title: "Filter"})
	for i, at := range []geom.Point{mm(30, 30), mm(40, 40), mm(41, 40), mm(120, 10)} {
		d.Put(&design.Part{ID: design.ID(400 + i), Sheet: sheet, At: at, Designator: fmt.Sprint("R", i)})
	}
	of := func(id design.ID) layout.Group { return layout.GroupOf(d, circuit.PartRef{Part: id, Path: "/7"}) }
	assert.Equal(t, layout.Group{Path: "/7", Sheet: sheet, Cluster: 301}, of(400), "the smaller one")
	assert.Equal(t, design.ID(301), of(401).Cluster, "its border belongs to it")
	assert.Equal(t, design.ID(300), of(402).Cluster)
	assert.Equal(t, layout.Group{Path: "/7", Sheet: sheet}, of(403))
	assert.Zero(t, of(999))

	rapid.Check(t, func(t *rapid.T) {
		var list []layout.Newcomer
		for i := range rapid.IntRange(2, 40).Draw(t, "parts") {
			w, h := float64(rapid.IntRange(1, 30).Draw(t, "width")), float64(rapid.IntRange(1, 30).Draw(t, "height"))
			list = append(list, layout.Newcomer{Footprint: &design.Footprint{Name: fmt.Sprint(i),
				Courtyard: []geom.Point{mm(-w/3, 0), mm(w, 0), mm(w, h), mm(-w/3, h)}},
				Group: layout.Group{Cluster: design.ID(rapid.IntRange(1, 5).Draw(t, "group"))}})
		}
		rooms := map[layout.Group]geom.Box{}
		var boxes []geom.Box
		for i, at := range layout.Arrive(d, list) {
			b := geom.BoxOf(layout.Courtyard(list[i].Footprint, geom.Pose{At: at})...)
			if b.Min.X < 100*units.MM || at != geom.Snap(at, 1_270_000) {
				t.Fatalf("it arrives at %v", at)
			}
			for _, o := range boxes {
				if overlaps(b.Grow(500_000), o) {
					t.Fatal("two parts lie over each other")
				}
			}
			boxes = append(boxes, b)
			if r, ok := rooms[list[i].Group]; ok {
				b = r.Union(b)
			}
			rooms[list[i].Group] = b
		}
		for g, a := range rooms {
			for h, b := range rooms {
				if g != h && overlaps(a, b) {
					t.Fatalf("the rooms of two groups meet: %v, %v", a, b)
				}
			}
		}
	})
}

// Courtyards that only touch do not clash, and what is gathered may stand as near as the grid allows; the one that moves and the one
// that stays are both told.
func TestTouchingIsNoClash(t *testing.T) {
	d := crowd([2]design.ID{100, 101}, [2]design.ID{100, 101})
	for x, want := range map[float64][]design.ID{4: {}, 3.9: {1000, 1001}} {
		p, q := *d.Placed[1000], *d.Placed[1001]
		p.At, q.At = mm(0, 0), mm(x, 0)
		d.Put(&q)
		assert.ElementsMatch(t, want, layout.Clashing(d, layout.NewIndex(d), rules.Of(d), map[design.ID]*design.Placed{1000: &p}))
	}
}
