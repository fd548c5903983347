package layout_test

import (
	"maps"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
)

// dots are vias and tracks of one net at random places.
func dots(t *rapid.T, d *design.Doc, n int) {
	for range n {
		a := geom.Pt(rapid.Int64Range(0, 60).Draw(t, "x")*1_000_000, rapid.Int64Range(0, 60).Draw(t, "y")*1_000_000)
		if rapid.IntRange(0, 3).Draw(t, "kind") == 0 {
			d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: a, B: a.Add(geom.Pt(rapid.Int64Range(1, 9).Draw(t, "dx")*1_000_000, 0)), Width: 300_000, Net: synthetic.Net(d, "N")})
		} else {
			d.Put(&design.Via{ID: d.NewID(), At: a, Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: synthetic.Net(d, "N")})
		}
	}
}

// prim is the length of the shortest tree, by Prim's method over a full table of distances
// in which what touches is at no distance.
func prim(pieces []*layout.Copper) float64 {
	n := len(pieces)
	far := func(i, j int) float64 {
		if layout.Touching(pieces[i], pieces[j]) {
			return 0
		}
		best := math.Inf(1)
		ends := func(c *layout.Copper) []geom.Point {
			if c.Kind == "track" {
				return c.Shape.Pts
			}
			return []geom.Point{c.At}
		}
		for _, p := range ends(pieces[i]) {
			for _, q := range ends(pieces[j]) {
				best = min(best, p.Dist(q))
			}
		}
		return best
	}
	dist := make([]float64, n)
	in := make([]bool, n)
	for i := range dist {
		dist[i] = math.Inf(1)
	}
	dist[0] = 0
	total := 0.0
	for range n {
		next := -1
		for i := range n {
			if !in[i] && (next < 0 || dist[i] < dist[next]) {
				next = i
			}
		}
		in[next] = true
		total += dist[next]
		for i := range n {
			if !in[i] {
				dist[i] = min(dist[i], far(next, i))
			}
		}
	}
	return total
}

func length(links []layout.Link) float64 {
	sum := 0.0
	for _, l := range links {
		sum += l.A.Dist(l.B)
	}
	return sum
}

func TestLinksAreAsShortAsPrims(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("links")
		dots(t, d, rapid.IntRange(1, 25).Draw(t, "n"))
		pieces := layout.NewIndex(d).NetPieces(synthetic.Net(d, "N"))
		assert.InDelta(t, prim(pieces), length(layout.Links(pieces)), 1)
	})
}

// boards are nets in different states: dots lie far apart, a row of tracks is joined wholly, half joined
// or wherever its pieces happen to meet.
var boards = map[string]func(t *rapid.T, d *design.Doc){
	"open": func(t *rapid.T, d *design.Doc) { dots(t, d, rapid.IntRange(20, 60).Draw(t, "n")) },
	"joined": func(t *rapid.T, d *design.Doc) {
		for i := range int64(rapid.IntRange(2, 60).Draw(t, "n")) {
			rung(d, i, i+1)
		}
	},
	"half joined": func(t *rapid.T, d *design.Doc) {
		for i := range int64(rapid.IntRange(2, 60).Draw(t, "n")) {
			if rapid.Bool().Draw(t, "laid") {
				rung(d, i, i+1)
			}
		}
		dots(t, d, 10)
	},
	"few over each other": func(t *rapid.T, d *design.Doc) {
		for i := range int64(rapid.IntRange(1, 6).Draw(t, "n")) {
			for range rapid.IntRange(1, 5).Draw(t, "times") {
				rung(d, i, i+1)
			}
		}
		dots(t, d, 3)
	},
	"one over the other": func(t *rapid.T, d *design.Doc) {
		for range rapid.IntRange(66, 80).Draw(t, "n") {
			rung(d, 3, 4)
		}
		dots(t, d, 5)
	},
}

// rung is a track from one place of a stair to another.
func rung(d *design.Doc, from, to int64) {
	at := func(i int64) geom.Point { return geom.Pt(i/2*2_000_000, (i+1)/2*3_000_000) }
	d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: at(from), B: at(to), Width: 300_000, Net: synthetic.Net(d, "N")})
}

// Links kept up to date through random changes are as short as Prim's, and the ones found of the same
// copper at once.
func TestLinksKeptUpToDate(t *testing.T) {
	for name, fill := range boards {
		t.Run(name, func(t *testing.T) {
			rapid.Check(t, func(t *rapid.T) {
				d := design.New("links")
				net := synthetic.Net(d, "N")
				fill(t, d)
				x := layout.NewIndex(d)
				links := layout.NewNetLinks(net)
				links.Update(x, maps.Keys(x.ObjectsOf(net)))
				for range rapid.IntRange(1, 8).Draw(t, "changes") {
					changed := change(t, d, x)
					was := links.Links()
					got := links.Update(x, slices.Values(changed))
					pieces := x.NetPieces(net)
					assert.Equal(t, len(pieces), links.Len())
					if len(pieces) > 0 {
						assert.InDelta(t, prim(pieces), length(got), 1)
					}
					assert.Equal(t, layout.Links(pieces), got)
					assert.Equal(t, got, after(was, got))
				}
			})
		})
	}
}

// change alters a few objects of the document and of the index: some go, some move, one comes.
func change(t *rapid.T, d *design.Doc, x *layout.Index) (changed []design.ID) {
	var all []design.Object
	for v := range d.Vias.All() {
		all = append(all, v)
	}
	for v := range d.Tracks.All() {
		all = append(all, v)
	}
	step := geom.Pt(rapid.Int64Range(-5, 5).Draw(t, "mx")*1_000_000, 0)
	for range rapid.IntRange(0, min(3, len(all))).Draw(t, "touched") {
		o := rapid.SampledFrom(all).Draw(t, "object")
		changed = append(changed, o.ObjectID())
		switch o := o.(type) {
		case *design.Via:
			q := *o
			q.At = q.At.Add(step)
			d.Put(&q)
		case *design.Track:
			q := *o
			q.Width += 100_000
			q.B = q.B.Add(step)
			d.Put(&q)
		}
		if rapid.Bool().Draw(t, "goes") {
			d.Remove(o.ObjectKind(), o.ObjectID())
		}
	}
	if rapid.Bool().Draw(t, "comes") {
		changed = append(changed, d.Next)
		dots(t, d, 1)
	}
	for _, id := range changed {
		if o := d.Get(id); o != nil {
			x.Put(d, o)
		} else {
			x.Remove(id)
		}
	}
	slices.Sort(changed)
	return slices.Compact(changed)
}

// after is what a browser makes of the former links and what changed of them.
func after(was, is []layout.Link) []layout.Link {
	c, anything := layout.Changed(was, is)
	if !anything {
		return was
	}
	if c.Gone == nil && c.At == nil {
		return c.Come
	}
	out := slices.Clone(was)
	for _, i := range slices.Backward(c.Gone) {
		out = slices.Delete(out, i, i+1)
	}
	for i, at := range c.At {
		out = slices.Insert(out, at, c.Come[i])
	}
	return out
}

// Pads one above the other that no copper joins have a link of no length.
func TestALinkOfNoLength(t *testing.T) {
	d := design.New("stacked")
	net := synthetic.Net(d, "N")
	for _, l := range []design.LayerID{d.Board.Top(), d.Board.Bottom()} {
		d.Put(&design.Track{ID: d.NewID(), Layer: l, A: geom.Pt(0, 0), B: geom.Pt(1_000_000, 0), Width: 200_000, Net: net})
	}
	pieces := layout.NewIndex(d).NetPieces(net)
	assert.Equal(t, []layout.Link{{A: geom.Pt(0, 0), B: geom.Pt(0, 0), FromName: "track", ToName: "track"}}, layout.Links(pieces))
}

// While a part is dragged on a net of many pieces, each of its pads links to the nearest piece
// that stays, and to nothing where it touches that.
func TestLinksOfADraggedPartOnALargeNet(t *testing.T) {
	d := design.New("large")
	first := d.Next
	for i := range 400 { // twenty by twenty vias, 10 mm apart
		d.Put(&design.Via{ID: d.NewID(), At: geom.Pt(int64(i%20)*10_000_000, int64(i/20)*10_000_000), Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: synthetic.Net(d, "N")})
	}
	x := layout.NewIndex(d)
	net := synthetic.Net(d, "N")
	whole := layout.NewNetLinks(net)
	whole.Update(x, maps.Keys(x.ObjectsOf(net)))
	dragged := &design.Via{ID: first, Diameter: 800_000, Hole: 400_000, From: d.Board.Top(), To: d.Board.Bottom(), Net: synthetic.Net(d, "N")}
	links := func(at geom.Point) []layout.Link {
		dragged.At = at
		return whole.With(map[design.ID][]*layout.Copper{dragged.ID: layout.PiecesOf(d, dragged)})
	}
	near := links(geom.Pt(53_000_000, 92_000_000))
	assert.Len(t, near, 1)
	assert.Equal(t, []geom.Point{{X: 53_000_000, Y: 92_000_000}, {X: 50_000_000, Y: 90_000_000}}, []geom.Point{near[0].A, near[0].B})
	assert.Equal(t, geom.Pt(190_000_000, 190_000_000), links(geom.Pt(260_000_000, 250_000_000))[0].B)
	assert.Empty(t, links(geom.Pt(50_300_000, 90_000_000)), "it touches the nearest")
}
