package layout

import (
	"iter"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Index finds the copper of a board by place, by object and by net. It is kept up to date
// object by object.
type Index struct {
	tree  rtree.RTreeG[*Copper]
	of    map[design.ID][]*Copper
	byNet map[string]map[Ref]*Copper
}

// NewIndex holds all copper of the document.
func NewIndex(d *design.Doc) *Index {
	x := &Index{of: map[design.ID][]*Copper{}, byNet: map[string]map[Ref]*Copper{}}
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
	return x
}

func corners(b geom.Box) (lo, hi [2]float64) {
	return [2]float64{float64(b.Min.X), float64(b.Min.Y)}, [2]float64{float64(b.Max.X), float64(b.Max.Y)}
}

// Put takes the object's copper in, in place of what it had.
func (x *Index) Put(d *design.Doc, o design.Object) {
	x.Remove(o.ObjectID())
	pieces := PiecesOf(d, o)
	if len(pieces) == 0 {
		return
	}
	x.of[o.ObjectID()] = pieces
	for _, c := range pieces {
		lo, hi := corners(c.Shape.Box())
		x.tree.Insert(lo, hi, c)
		if c.Net != "" {
			if x.byNet[c.Net] == nil {
				x.byNet[c.Net] = map[Ref]*Copper{}
			}
			x.byNet[c.Net][c.Ref()] = c
		}
	}
}

// Remove takes the object's copper out.
func (x *Index) Remove(id design.ID) {
	for _, c := range x.of[id] {
		lo, hi := corners(c.Shape.Box())
		x.tree.Delete(lo, hi, c)
		if c.Net != "" {
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

// All gives every piece.
func (x *Index) All() iter.Seq[*Copper] {
	return func(yield func(*Copper) bool) {
		x.tree.Scan(func(_, _ [2]float64, c *Copper) bool { return yield(c) })
	}
}

// Len is the number of pieces.
func (x *Index) Len() int { return x.tree.Len() }

// NetPieces lists the copper of a net in a settled order.
func (x *Index) NetPieces(net string) []*Copper {
	out := make([]*Copper, 0, len(x.byNet[net]))
	for _, c := range x.byNet[net] {
		out = append(out, c)
	}
	sortPieces(out)
	return out
}

// Nets lists the names of all nets that have copper.
func (x *Index) Nets() []string {
	out := make([]string, 0, len(x.byNet))
	for n := range x.byNet {
		out = append(out, n)
	}
	return out
}
