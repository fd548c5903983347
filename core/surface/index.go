package surface

import (
	"iter"

	"github.com/tidwall/rtree"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// Index finds openings of the mask and what is printed by place and by object. It is kept up to date object by object.
type Index struct {
	Board
	faces [2]face // top, bottom
}

// face is one face of the board.
type face struct {
	openings rtree.RTreeG[*Opening]
	of       map[design.ID][]*Opening
	printed  rtree.RTreeG[design.ID]
	box      map[design.ID]geom.Box // around what is printed of an object
}

// NewIndex holds all of a document.
func NewIndex(d *design.Doc, x *layout.Index, r *rules.Set) *Index {
	i := &Index{Board: Board{d, x, r}}
	i.Anew()
	return i
}

// Anew makes all of it anew, as after rules changed that say how large openings are.
func (x *Index) Anew() {
	for i := range x.faces {
		x.faces[i] = face{of: map[design.ID][]*Opening{}, box: map[design.ID]geom.Box{}}
	}
	for o := range Objects(x.Doc) {
		x.put(o)
	}
}

func corners(b geom.Box) (lo, hi [2]float64) {
	return [2]float64{float64(b.Min.X), float64(b.Min.Y)}, [2]float64{float64(b.Max.X), float64(b.Max.Y)}
}

// Renew takes an object in as it is now, or out when it is gone. The index of copper has to be up to date.
func (x *Index) Renew(id design.ID) {
	for i := range x.faces {
		f := &x.faces[i]
		for _, o := range f.of[id] {
			lo, hi := corners(o.Shape.Box())
			f.openings.Delete(lo, hi, o)
		}
		delete(f.of, id)
		if b, ok := f.box[id]; ok {
			lo, hi := corners(b)
			f.printed.Delete(lo, hi, id)
			delete(f.box, id)
		}
	}
	if o := x.Doc.Get(id); o != nil {
		x.put(o)
	}
}

func (x *Index) put(o design.Object) {
	for i := range x.faces {
		f, bottom, id := &x.faces[i], i == 1, o.ObjectID()
		for _, open := range x.Openings(o, bottom) {
			p := &open
			f.of[id] = append(f.of[id], p)
			lo, hi := corners(p.Shape.Box())
			f.openings.Insert(lo, hi, p)
		}
		if box, any := x.silkBox(o, bottom); any {
			f.box[id] = box
			lo, hi := corners(box)
			f.printed.Insert(lo, hi, id)
		}
	}
}

// silkBox holds what is printed of an object on a face; false: nothing is.
func (x *Index) silkBox(o design.Object, bottom bool) (geom.Box, bool) {
	if p, ok := o.(*design.Placed); ok {
		if p.Bottom != bottom {
			return geom.Box{}, false
		}
		return layout.SilkBox(x.Doc, p, x.SilkWidth(bottom))
	}
	var e geom.Extent
	for _, s := range x.Silk(o, bottom) {
		e.AddBox(s.Shape.Box())
	}
	return e.Box, e.Any
}

func (x *Index) face(bottom bool) *face {
	if bottom {
		return &x.faces[1]
	}
	return &x.faces[0]
}

// Of are the openings of an object on a face.
func (x *Index) Of(id design.ID, bottom bool) []*Opening { return x.face(bottom).of[id] }

// Near gives the openings on a face whose box meets the box.
func (x *Index) Near(b geom.Box, bottom bool) iter.Seq[*Opening] {
	return func(yield func(*Opening) bool) {
		lo, hi := corners(b)
		x.face(bottom).openings.Search(lo, hi, func(_, _ [2]float64, o *Opening) bool { return yield(o) })
	}
}

// Printed gives the objects of which something is printed on a face in a box that meets the box.
func (x *Index) Printed(b geom.Box, bottom bool) iter.Seq[design.ID] {
	return func(yield func(design.ID) bool) {
		lo, hi := corners(b)
		x.face(bottom).printed.Search(lo, hi, func(_, _ [2]float64, id design.ID) bool { return yield(id) })
	}
}

// PrintedBox is a box around what is printed of an object on a face, which holds little beside; false: nothing is.
func (x *Index) PrintedBox(id design.ID, bottom bool) (geom.Box, bool) {
	b, ok := x.face(bottom).box[id]
	return b, ok
}
