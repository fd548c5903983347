package workbench_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// Layers come and go between edits of copper on all of them: open links and findings are those of a fresh opening.
func TestLayersThatComeAndGoBetweenEdits(t *testing.T) {
	d, err := synthetic.Design(40)
	require.NoError(t, err)
	w := workbench.Open(d, 0)
	r := rand.New(rand.NewPCG(3, 14))
	nets := []design.ID{}
	for n := range d.Nets.All() {
		nets = append(nets, n.ID)
	}
	at := func() geom.Point { return geom.Pt(int64(r.IntN(40))*1_270_000, int64(r.IntN(40))*1_270_000) }
	put := func(o design.Object) {
		w.Apply(edit.ChangeSet{{Kind: o.ObjectKind(), ID: o.ObjectID(), After: o}})
	}
	changed, kept := 0, 0
	for range 120 {
		layers := w.Doc.Board.Layers()
		switch r.IntN(5) {
		case 0, 1:
			if _, err := w.Edit(&edit.SetLayers{Copper: 2 + 2*r.IntN(3)}); err == nil && w.Doc.Board.Layers() != layers {
				changed++
			} else {
				kept++
			}
		case 2:
			put(&design.Track{ID: w.Doc.NewID(), Layer: w.Doc.Board.At(r.IntN(layers)), A: at(), B: at(), Width: 250_000, Net: nets[r.IntN(len(nets))]})
		case 3:
			from := r.IntN(layers - 1)
			put(&design.Via{ID: w.Doc.NewID(), At: at(), Diameter: 800_000, Hole: 400_000, From: w.Doc.Board.At(from), To: w.Doc.Board.At(from + 1 + r.IntN(layers-from-1)), Net: nets[r.IntN(len(nets))]})
		case 4:
			var gone edit.ChangeSet
			for o := range w.Doc.Tracks.All() {
				if o.Layer != w.Doc.Board.Top() && o.Layer != w.Doc.Board.Bottom() || r.IntN(30) == 0 {
					gone = append(gone, edit.Change{Kind: design.KindTrack, ID: o.ID, Before: o})
				}
			}
			for o := range w.Doc.Vias.All() {
				if o.From != w.Doc.Board.Top() || o.To != w.Doc.Board.Bottom() {
					gone = append(gone, edit.Change{Kind: design.KindVia, ID: o.ID, Before: o})
				}
			}
			w.Apply(gone)
		}
		fresh := workbench.Open(w.Doc.Snapshot(), w.Rev)
		require.Equal(t, fresh.Links(), w.Links())
		require.Equal(t, fresh.Findings(), w.Findings())
	}
	assert.Greater(t, changed, 8)
	assert.Greater(t, kept, 3, "a layer that holds copper stays")
}

// Layers that change their order, or an outer one that becomes another, join other copper than before.
func TestLayersThatChangeTheirOrder(t *testing.T) {
	d := synthetic.FourLayers()
	stack := d.Board.Copper()
	net := d.NewID()
	d.Put(&design.Net{ID: net, Name: "Crossing"})
	for i, l := range stack {
		d.Put(&design.Track{ID: d.NewID(), Layer: l.ID, A: geom.Pt(2_000_000+int64(i)*10_000, 2_000_000), B: geom.Pt(9_000_000, 2_000_000+int64(i)*10_000), Width: 250_000, Net: net})
	}
	d.Put(&design.Via{ID: d.NewID(), At: geom.Pt(2_000_000, 2_000_000), Diameter: 800_000, Hole: 400_000, From: stack[0].ID, To: stack[1].ID, Net: net})
	w := workbench.Open(d, 0)
	swap := func(i, j int) {
		was := w.Doc.Board
		is := *was
		is.Stack = append([]design.StackLayer{}, was.Stack...)
		at := func(id design.LayerID) int {
			for k := range is.Stack {
				if is.Stack[k].ID == id {
					return k
				}
			}
			return -1
		}
		a, b := at(was.At(i)), at(was.At(j))
		is.Stack[a], is.Stack[b] = is.Stack[b], is.Stack[a]
		w.Apply(edit.ChangeSet{{Kind: design.KindBoard, ID: is.ID, Before: was, After: &is}})
		fresh := workbench.Open(w.Doc.Snapshot(), w.Rev)
		require.Equal(t, fresh.Links(), w.Links(), "%d and %d", i, j)
	}
	before := w.Links()
	swap(1, 2)
	require.NotEqual(t, before, w.Links(), "the via joins the track of another layer now")
	swap(1, 2)
	require.Equal(t, before, w.Links())
	swap(1, 3)
	swap(0, 2)
	swap(2, 3)
}
