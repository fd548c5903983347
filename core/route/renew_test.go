package route_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/route"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// branch is a track of a net that is a tree, between two of its places.
type branch struct {
	id     design.ID
	from   int
	to     int
	layer  int
	locked bool
}

const treeNet = 3000

// tree is a random one of tracks on the outer layers of a board of four, over a grid of places a few mm apart, with vias where its layers
// meet. Place 0 and the last have vias of their own.
type tree struct {
	at       []geom.Point
	branches []branch
	vias     map[int]design.ID // by place
	locked   map[int]bool      // vias
	d        *design.Doc
}

func treeOf(t *rapid.T) *tree {
	tr := &tree{vias: map[int]design.ID{}, locked: map[int]bool{}, d: synthetic.FourLayers()}
	d := tr.d
	d.Put(&design.Net{ID: treeNet, Name: "TREE"})
	const columns, rows = 4, 3
	for i := range columns * rows {
		jitter := func(n string) int64 { return rapid.Int64Range(-9, 9).Draw(t, n) * 100 * um }
		odd := int64(i*i) * 1_237 // so that no two ways are equally long
		tr.at = append(tr.at, geom.Pt(int64(i%columns)*6_000*um+4_000*um+jitter("x")+odd,
			int64(i/columns)*6_000*um+4_000*um+jitter("y")-odd))
	}
	// joined tells what hangs together already
	group := make([]int, len(tr.at))
	for i := range group {
		group[i] = i
	}
	var steps [][2]int
	for i := range tr.at {
		if i%columns+1 < columns {
			steps = append(steps, [2]int{i, i + 1})
		}
		if i+columns < len(tr.at) {
			steps = append(steps, [2]int{i, i + columns})
		}
	}
	for k, at := range rapid.Permutation(steps).Draw(t, "steps") {
		a, b := group[at[0]], group[at[1]]
		if a == b || rapid.IntRange(0, 9).Draw(t, "left out") == 0 {
			continue
		}
		for i, g := range group {
			if g == a {
				group[i] = b
			}
		}
		tr.branches = append(tr.branches, branch{design.ID(1000 + k), at[0], at[1], rapid.SampledFrom([]int{0, 0, 3}).Draw(t, "layer"),
			rapid.IntRange(0, 7).Draw(t, "locked") == 0})
	}
	for i, at := range tr.at {
		layers := tr.layersAt(i, nil)
		if i != 0 && i != len(tr.at)-1 && len(layers) < 2 {
			continue
		}
		tr.vias[i] = design.ID(2000 + i)
		tr.locked[i] = rapid.IntRange(0, 7).Draw(t, "locked") == 0
		d.Put(&design.Via{ID: tr.vias[i], At: at, Diameter: 800 * um, Hole: 400 * um, From: d.Board.At(0), To: d.Board.At(3),
			Net: treeNet, Locked: tr.locked[i]})
	}
	for _, b := range tr.branches {
		d.Put(&design.Track{ID: b.id, Layer: d.Board.At(b.layer), A: tr.at[b.from], B: tr.at[b.to], Width: 300 * um, Net: treeNet,
			Locked: b.locked})
	}
	return tr
}

// layersAt are those of the branches at a place, without some.
func (tr *tree) layersAt(node int, without []design.ID) map[int]bool {
	out := map[int]bool{}
	for _, b := range tr.branches {
		if (b.from == node || b.to == node) && !slices.Contains(without, b.id) {
			out[b.layer] = true
		}
	}
	return out
}

// way is that through the tree from a place to the last one; false: there is none.
func (tr *tree) way(from, last int, before design.ID) ([]branch, []int, bool) {
	if from == last {
		return nil, []int{from}, true
	}
	for _, b := range tr.branches {
		if b.id == before || b.from != from && b.to != from {
			continue
		}
		if way, places, ok := tr.way(b.from+b.to-from, last, b.id); ok {
			return append([]branch{b}, way...), append([]int{from}, places...), true
		}
	}
	return nil, nil, false
}

// superseded is what a new way from place 0 to the last one on another layer makes needless, worked out over the tree: of the old way's
// stretches between places where more hangs, or something is locked, the longest goes, with the vias that join nothing any more.
func (tr *tree) superseded() []design.ID {
	last := len(tr.at) - 1
	way, places, ok := tr.way(0, last, 0)
	if !ok {
		return nil
	}
	degree := func(node int) (n int) {
		for _, b := range tr.branches {
			if b.from == node || b.to == node {
				n++
			}
		}
		return n
	}
	var best []int // of the way
	var now []int
	long := func(list []int) (sum float64) {
		for _, i := range list {
			sum += tr.at[way[i].from].Dist(tr.at[way[i].to])
		}
		return sum
	}
	for i, b := range way {
		if b.locked || i > 0 && (degree(places[i]) > 2 || tr.locked[places[i]]) {
			now = nil
		}
		if b.locked {
			continue
		}
		if now = append(slices.Clip(now), i); long(now) > long(best) {
			best = now
		}
	}
	var out []design.ID
	for _, i := range best {
		out = append(out, way[i].id)
	}
	for _, i := range best {
		for _, p := range []int{way[i].from, way[i].to} {
			if via := tr.vias[p]; via != 0 && p != 0 && p != last && !tr.locked[p] && len(tr.layersAt(p,
				out)) < 2 && !slices.Contains(out, via) {
				out = append(out, via)
			}
		}
	}
	slices.Sort(out)
	return out
}

// On random trees of tracks and vias what a new way supersedes is what the tree says.
func TestWhatANewWaySupersedes(t *testing.T) {
	some := 0
	rapid.Check(t, func(t *rapid.T) {
		tr := treeOf(t)
		last := len(tr.at) - 1
		f := route.Field{Doc: tr.d, Index: layout.NewIndex(tr.d), Rules: rules.Of(tr.d)}
		a, b := tr.at[0], tr.at[last]
		aside := geom.Corners(a, geom.Pt(a.X, 1_000*um), geom.Pt(39_000*um, 1_000*um), geom.Pt(39_000*um, b.Y), b)
		fresh := f.HandOf([]route.Leg{{Layer: 1, Width: 300 * um, Path: aside}}, treeNet)
		want := tr.superseded()
		require.Equal(t, want, f.Superseded(treeNet, fresh), "%+v", tr.branches)
		if len(want) > 0 {
			some++
		}
		require.Nil(t, f.Superseded(treeNet, nil))
	})
	assert.Greater(t, some, 20)
}

// Where a branch leaves the old way in the middle of a track, that track stays for it: from there on what lies to the nearest other branch or
// end goes. What led nowhere before does not go along; what leads nowhere now does.
func TestBranchesOfTheOldWayStay(t *testing.T) {
	d := synthetic.FourLayers()
	d.Put(&design.Net{ID: treeNet, Name: "TREE"})
	via := func(id design.ID, at geom.Point) {
		d.Put(&design.Via{ID: id, At: at, Diameter: 800 * um, Hole: 400 * um, From: d.Board.At(0), To: d.Board.At(3), Net: treeNet})
	}
	put := func(id design.ID, layer int, a, b geom.Point) {
		d.Put(&design.Track{ID: id, Layer: d.Board.At(layer), A: a, B: b, Width: 300 * um, Net: treeNet})
	}
	via(2001, mm(4, 4))
	via(2002, mm(24, 4))
	put(1001, 0, mm(4, 4), mm(8, 6))
	put(1002, 0, mm(8, 6), mm(14, 6))
	put(1003, 0, mm(11, 6), mm(11, 9)) // the branch, from the middle
	via(2003, mm(11, 9))
	put(1004, 0, mm(14, 6), mm(18, 6))
	put(1005, 0, mm(18, 6), mm(24, 4))
	put(1006, 0, mm(16, 6), mm(16, 8)) // leads nowhere
	f := fieldOf(d)
	fresh := f.HandOf([]route.Leg{{Layer: 1, Width: 300 * um, Path: geom.Corners(mm(4, 4), mm(4, 1), mm(24, 1), mm(24, 4))}}, treeNet)
	assert.Equal(t, []design.ID{1005}, f.Superseded(treeNet, fresh), "the longest between branches, loose ones too, as somebody laid them")
	d.Remove(design.KindTrack, 1006)
	f = fieldOf(d)
	assert.Equal(t, []design.ID{1004, 1005}, f.Superseded(treeNet, fresh))
	for _, id := range []design.ID{1001, 1005} {
		l := *d.Tracks[id]
		l.Locked = true
		d.Put(&l)
	}
	d.Remove(design.KindTrack, 1003)
	f = fieldOf(d)
	assert.Equal(t, []design.ID{1002, 1004}, f.Superseded(treeNet, fresh), "what is locked holds")
}

// Of two old ways the shorter one goes, in whichever order they were laid.
func TestTheShorterOldWayGoes(t *testing.T) {
	for _, ids := range [][]design.ID{{1001, 1002, 1003}, {1003, 1002, 1001}, {1002, 1003, 1001}} {
		d := synthetic.FourLayers()
		d.Put(&design.Net{ID: treeNet, Name: "TREE"})
		for i, at := range []geom.Point{mm(4, 4), mm(24, 4)} {
			d.Put(&design.Via{ID: design.ID(2001 + i), At: at, Diameter: 800 * um, Hole: 400 * um, From: d.Board.At(0),
				To: d.Board.At(3), Net: treeNet})
		}
		put := func(id design.ID, a, b geom.Point) {
			d.Put(&design.Track{ID: id, Layer: d.Board.At(0), A: a, B: b, Width: 300 * um, Net: treeNet})
		}
		put(ids[0], mm(4, 4), mm(24, 4))
		put(ids[1], mm(4, 4), mm(14, 12))
		put(ids[2], mm(14, 12), mm(24, 4))
		f := fieldOf(d)
		fresh := f.HandOf([]route.Leg{{Layer: 1, Width: 300 * um, Path: geom.Corners(mm(4, 4), mm(4, 1), mm(24, 1), mm(24, 4))}}, treeNet)
		assert.Equal(t, []design.ID{ids[0]}, f.Superseded(treeNet, fresh))
	}
}

// Whatever a net is like, with loops, crossings and branches from the middle of tracks: what stays hangs together as before, nothing locked
// goes, and no track or via that joined two things is left with one of them alone.
func TestRenewedWaysPartNothing(t *testing.T) {
	went, more := 0, 0
	rapid.Check(t, func(t *rapid.T) {
		tr := treeOf(t)
		for i := range rapid.IntRange(0, 6).Draw(t, "more") {
			spot := func(what string) geom.Point {
				if rapid.Bool().Draw(t, what+" node") || len(tr.branches) == 0 {
					return tr.at[rapid.IntRange(0, len(tr.at)-1).Draw(t, what)]
				}
				b := rapid.SampledFrom(tr.branches).Draw(t, what)
				return tr.at[b.from].Towards(tr.at[b.to], 0.5)
			}
			if a, b := spot("from"), spot("to"); a != b {
				tr.d.Put(&design.Track{ID: design.ID(5000 + i), Layer: tr.d.Board.At(rapid.SampledFrom([]int{0, 3}).Draw(t,
					"layer")), A: a, B: b, Width: 300 * um, Net: treeNet})
			}
		}
		f := fieldOf(tr.d)
		a, b := tr.at[0], tr.at[len(tr.at)-1]
		fresh := f.HandOf([]route.Leg{{Layer: 1, Width: 300 * um,
			Path: geom.Corners(a, geom.Pt(a.X, 1_000*um), geom.Pt(39_000*um, 1_000*um), geom.Pt(39_000*um, b.Y), b)}}, treeNet)
		gone := f.Superseded(treeNet, fresh)
		all := append(f.Index.NetPieces(treeNet), fresh...)
		var left []*layout.Copper
		for _, c := range all {
			if !slices.Contains(gone, c.ID) {
				left = append(left, c)
			}
		}
		require.LessOrEqual(t, len(layout.Islands(left)), len(layout.Islands(all)))
		for _, id := range gone {
			if v := tr.d.Vias[id]; v != nil {
				require.False(t, v.Locked || v.At == a || v.At == b)
			} else {
				require.False(t, tr.d.Tracks[id].Locked)
			}
		}
		touching := func(c *layout.Copper, list []*layout.Copper) (near []*layout.Copper) {
			for _, o := range list {
				if o != c && layout.Touching(o, c) {
					near = append(near, o)
				}
			}
			return near
		}
		// joins tells whether both ends of a track are on others, or others on two layers are on a via
		joins := func(c *layout.Copper, near []*layout.Copper) bool {
			on := func(p geom.Point) bool {
				return slices.ContainsFunc(near, func(o *layout.Copper) bool { return o.Shape.Holds(p) })
			}
			if tr := tr.d.Tracks[c.ID]; tr != nil {
				return on(tr.A) && on(tr.B)
			}
			layers := map[uint32]bool{}
			for _, o := range near {
				layers[o.Layers] = true
			}
			return len(layers) > 1
		}
		if len(gone) > 0 {
			went++
			if len(gone) > 2 {
				more++
			}
		}
		for _, c := range f.Index.NetPieces(treeNet) {
			tr, v := tr.d.Tracks[c.ID], tr.d.Vias[c.ID]
			if slices.Contains(gone, c.ID) || tr != nil && tr.Locked || v != nil && (v.Locked || v.At == a || v.At == b) {
				continue
			}
			now := touching(c, left)
			require.False(t, len(now) < 2 && joins(c, touching(c, all)) && !joins(c, now), "%d is left over, without %v", c.ID, gone)
		}
	})
	assert.Positive(t, went)
	assert.Positive(t, more)
}
