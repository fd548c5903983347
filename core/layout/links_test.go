package layout_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// dots are vias and tracks of one net at random places.
func dots(t *rapid.T, d *design.Doc, n int) {
	for range n {
		a := geom.Pt(rapid.Int64Range(0, 60).Draw(t, "x")*1_000_000, rapid.Int64Range(0, 60).Draw(t, "y")*1_000_000)
		if rapid.IntRange(0, 3).Draw(t, "kind") == 0 {
			d.Put(&design.Track{ID: d.NewID(), A: a, B: a.Add(geom.Pt(rapid.Int64Range(1, 9).Draw(t, "dx")*1_000_000, 0)), Width: 300_000, Net: "N"})
		} else {
			d.Put(&design.Via{ID: d.NewID(), At: a, Diameter: 800_000, Hole: 400_000, To: 1, Net: "N"})
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
		pieces := layout.NewIndex(d).NetPieces("N")
		assert.InDelta(t, prim(pieces), length(layout.Links("N", pieces)), 1)
	})
}

// The tree kept up to date through random changes stays as short as one made anew.
func TestTreeKeptUpToDate(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := design.New("tree")
		dots(t, d, rapid.IntRange(45, 70).Draw(t, "n"))
		x := layout.NewIndex(d)
		tree := &layout.NetTree{}
		tree.Update("N", x, x.NetPieces("N"), nil)
		for range rapid.IntRange(1, 6).Draw(t, "changes") {
			changed := map[design.ID]bool{}
			before := d.Next
			switch rapid.IntRange(0, 2).Draw(t, "change") {
			case 0:
				dots(t, d, 1)
				o := d.Get(before)
				x.Put(d, o)
				changed[before] = true
			case 1, 2:
				for v := range d.Vias.All() {
					changed[v.ID] = true
					if rapid.Bool().Draw(t, "remove") {
						d.Remove(design.KindVia, v.ID)
						x.Remove(v.ID)
					} else {
						q := *v
						q.At = q.At.Add(geom.Pt(rapid.Int64Range(-20, 20).Draw(t, "mx")*1_000_000, 0))
						d.Put(&q)
						x.Put(d, &q)
					}
					break
				}
			}
			pieces := x.NetPieces("N")
			if len(pieces) > 0 {
				assert.InDelta(t, prim(pieces), length(tree.Update("N", x, pieces, changed)), 1)
			}
		}
	})
}

// While a part is dragged on a net of many pieces, each of its pads links to the nearest piece
// that stays, and to nothing where it touches that.
func TestLinksOfADraggedPartOnALargeNet(t *testing.T) {
	d := design.New("large")
	first := d.Next
	for i := range 400 { // twenty by twenty vias, 10 mm apart
		d.Put(&design.Via{ID: d.NewID(), At: geom.Pt(int64(i%20)*10_000_000, int64(i/20)*10_000_000), Diameter: 800_000, Hole: 400_000, To: 1, Net: "N"})
	}
	x := layout.NewIndex(d)
	dragged := &design.Via{ID: first, Diameter: 800_000, Hole: 400_000, To: 1, Net: "N"}
	links := func(at geom.Point) []layout.Link {
		dragged.At = at
		return x.LinksWith("N", map[design.ID][]*layout.Copper{dragged.ID: layout.PiecesOf(d, dragged)})
	}
	near := links(geom.Pt(53_000_000, 92_000_000))
	assert.Len(t, near, 1)
	assert.Equal(t, []geom.Point{{X: 53_000_000, Y: 92_000_000}, {X: 50_000_000, Y: 90_000_000}}, []geom.Point{near[0].A, near[0].B})
	assert.Equal(t, geom.Pt(190_000_000, 190_000_000), links(geom.Pt(260_000_000, 250_000_000))[0].B)
	assert.Empty(t, links(geom.Pt(50_300_000, 90_000_000)), "it touches the nearest")
}
