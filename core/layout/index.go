package layout

import (
	"iter"
	"maps"
	"math"
	"slices"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Index finds the copper of a board by place, by object and by net. It is kept up to date
// object by object.
type Index struct {
	tree  rtree.RTreeG[*Copper]
	of    map[design.ID][]*Copper
	byNet map[design.ID]map[Ref]*Copper
	edge  Edge
	stack []design.LayerID // copper layers as they were when the pieces were made
	kept  []KeepOut
	// the courtyards of parts by place, and the box of each
	yards  rtree.RTreeG[design.ID]
	yardOf map[design.ID]geom.Box
}

// NewIndex holds all copper of the document.
func NewIndex(d *design.Doc) *Index {
	x := &Index{}
	x.fill(d)
	return x
}

func (x *Index) fill(d *design.Doc) {
	*x = Index{of: map[design.ID][]*Copper{}, yardOf: map[design.ID]geom.Box{}, byNet: map[design.ID]map[Ref]*Copper{}, edge: EdgeOf(d.Board), stack: copperIDs(d.Board), kept: KeepOuts(d)}
	for p := range d.Placed.All() {
		x.Put(d, p)
	}
	for t := range d.Tracks.All() {
		x.Put(d, t)
	}
	for v := range d.Vias.All() {
		x.Put(d, v)
	}
	for h := range d.Holes.All() {
		x.Put(d, h)
	}
	for l := range d.Legends.All() {
		x.Put(d, l)
	}
	for f := range d.Figures.All() {
		x.Put(d, f)
	}
}

func copperIDs(b *design.Board) []design.LayerID {
	var out []design.LayerID
	for _, l := range b.Copper() {
		out = append(out, l.ID)
	}
	return out
}

// Edge of the board.
func (x *Index) Edge() *Edge { return &x.edge }

// Board follows a change of the board: its edge; when its copper layers changed, all pieces are made
// anew. It tells whether they were.
func (x *Index) Board(d *design.Doc) bool {
	if !slices.Equal(x.stack, copperIDs(d.Board)) {
		x.fill(d)
		return true
	}
	x.edge = EdgeOf(d.Board)
	return false
}

// KeepOuts are the areas that keep something out.
func (x *Index) KeepOuts() []KeepOut { return x.kept }

// Areas follows a change of rule areas.
func (x *Index) Areas(d *design.Doc) { x.kept = KeepOuts(d) }

func corners(b geom.Box) (lo, hi [2]float64) {
	return [2]float64{float64(b.Min.X), float64(b.Min.Y)}, [2]float64{float64(b.Max.X), float64(b.Max.Y)}
}

// Put takes the object's copper in, in place of what it had.
func (x *Index) Put(d *design.Doc, o design.Object) {
	x.Remove(o.ObjectID())
	if p, ok := o.(*design.Placed); ok {
		x.putYard(d, p)
	}
	pieces := PiecesOf(d, o)
	if len(pieces) == 0 {
		return
	}
	x.of[o.ObjectID()] = pieces
	for _, c := range pieces {
		lo, hi := corners(c.Box())
		x.tree.Insert(lo, hi, c)
		if c.Net != 0 {
			if x.byNet[c.Net] == nil {
				x.byNet[c.Net] = map[Ref]*Copper{}
			}
			x.byNet[c.Net][c.Ref()] = c
		}
	}
}

// Remove takes the object's copper out.
func (x *Index) Remove(id design.ID) {
	x.removeYard(id)
	for _, c := range x.of[id] {
		lo, hi := corners(c.Box())
		x.tree.Delete(lo, hi, c)
		if c.Net != 0 {
			delete(x.byNet[c.Net], c.Ref())
			if len(x.byNet[c.Net]) == 0 {
				delete(x.byNet, c.Net)
			}
		}
	}
	delete(x.of, id)
}

// Of lists the object's copper.
func (x *Index) Of(id design.ID) []*Copper { return x.of[id] }

// Near gives every piece whose box meets b.
func (x *Index) Near(b geom.Box) iter.Seq[*Copper] {
	return func(yield func(*Copper) bool) {
		lo, hi := corners(b)
		x.tree.Search(lo, hi, func(_, _ [2]float64, c *Copper) bool { return yield(c) })
	}
}

// NearLine gives the pieces whose boxes come nearer than so much to the straight line from a to b.
func (x *Index) NearLine(a, b geom.Point, reach int64) iter.Seq[*Copper] {
	ax, ay := float64(a.X), float64(a.Y)
	ux, uy := float64(b.X)-ax, float64(b.Y)-ay
	l2 := ux*ux + uy*uy
	return func(yield func(*Copper) bool) {
		lo, hi := corners(geom.BoxOf(a, b).Grow(reach))
		x.tree.Search(lo, hi, func(lo, hi [2]float64, c *Copper) bool {
			px, py := (lo[0]+hi[0])/2-ax, (lo[1]+hi[1])/2-ay
			k := 0.0
			if l2 > 0 {
				k = max(0, min(1, (px*ux+py*uy)/l2))
			}
			far := float64(reach) + math.Hypot(hi[0]-lo[0], hi[1]-lo[1])/2 + 1
			if px, py = px-k*ux, py-k*uy; px*px+py*py > far*far {
				return true
			}
			return yield(c)
		})
	}
}

// All gives every piece.
func (x *Index) All() iter.Seq[*Copper] {
	return func(yield func(*Copper) bool) {
		x.tree.Scan(func(_, _ [2]float64, c *Copper) bool { return yield(c) })
	}
}

// Len is the number of pieces.
func (x *Index) Len() int { return x.tree.Len() }

// NetPieces lists the copper of a net in a settled order.
func (x *Index) NetPieces(net design.ID) []*Copper {
	out := make([]*Copper, 0, len(x.byNet[net]))
	for _, c := range x.byNet[net] {
		out = append(out, c)
	}
	sortPieces(out)
	return out
}

// ObjectsOf are the objects that have copper of a net.
func (x *Index) ObjectsOf(net design.ID) map[design.ID]bool {
	out := make(map[design.ID]bool, len(x.byNet[net]))
	for r := range x.byNet[net] {
		out[r.ID] = true
	}
	return out
}

// Bears tells whether a net has any copper.
func (x *Index) Bears(net design.ID) bool { return len(x.byNet[net]) > 0 }

// Nets lists all nets that have copper, in the order of their ids.
func (x *Index) Nets() []design.ID { return slices.Sorted(maps.Keys(x.byNet)) }
