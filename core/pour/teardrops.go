package pour

import (
	"maps"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/overlay"
	"goldentrace/core/teardrop"
)

// drops are the teardrops of a board, tile by tile of the ends of their tracks, as far as somebody asked for them.
type drops struct {
	*teardrop.Finder
	known map[spot][]teardrop.Teardrop
}

// spot is a tile of a layer, counted from 0 at the top.
type spot struct {
	layer int
	Tile
}

// dropsOf are those of a board; nil: it has none.
func dropsOf(g *ground) *drops {
	if f := teardrop.Of(g.doc, g.index, g.rules); f != nil {
		return &drops{f, map[spot][]teardrop.Teardrop{}}
	}
	return nil
}

func (d *drops) in(s spot) []teardrop.Teardrop {
	list, known := d.known[s]
	if !known {
		list = d.In(s.Box(), s.layer)
		d.known[s] = list
	}
	return list
}

// near are those on a layer whose boxes meet one.
func (d *drops) near(layer int, b geom.Box) (out []teardrop.Teardrop) {
	if d == nil {
		return nil
	}
	for _, t := range TilesOf(b.Grow(teardrop.Farthest)) {
		for _, one := range d.in(spot{layer, t}) {
			if one.Shape.Box().Meets(b) {
				out = append(out, one)
			}
		}
	}
	return out
}

// Teardrops is the key under which those of a layer are filled, as if they were an area.
func Teardrops(l design.LayerID) Key { return Key{Layer: l} }

// AreTeardrops tells whether the key is that of a layer's teardrops.
func (k Key) AreTeardrops() bool { return k.Pour == 0 }

// dropsAnew finds out whether the board has teardrops, and makes all their tiles stale, those in which there are some no more too.
func (f *Fills) dropsAnew() {
	f.drops = dropsOf(&f.ground)
	for _, k := range f.Keys() {
		if k.AreTeardrops() {
			for t := range f.of[k].tiles {
				f.staleDrops(k, t)
			}
		}
	}
	if f.drops == nil {
		return
	}
	for t := range f.doc.Tracks.All() {
		for _, at := range []geom.Point{t.A, t.B} {
			f.staleDrops(Teardrops(t.Layer), Tile{floor(at.X), floor(at.Y)})
		}
	}
}

func (f *Fills) staleDrops(k Key, t Tile) {
	if f.of[k] == nil {
		f.of[k] = newFill()
	}
	if f.stale[k] == nil {
		f.stale[k] = map[Tile]bool{}
	}
	f.stale[k][t] = true
}

// dropsNear makes the tiles stale whose teardrops may be others after something changed within a box, on the layers of a mask.
func (f *Fills) dropsNear(b geom.Box, layers uint32) {
	if f.drops == nil {
		return
	}
	for i, l := range f.doc.Board.Copper() {
		if layers&(1<<i) != 0 {
			for _, t := range TilesOf(b.Grow(f.drops.Reach())) {
				f.staleDrops(Teardrops(l.ID), t)
			}
		}
	}
}

// manyDrops is in how many stale tiles teardrops are held against those of before; of more, all that lies around them is filled anew.
const manyDrops = 150

// settle finds the teardrops of stale tiles anew; where they are others, the areas around them become stale.
func (f *Fills) settle() {
	if f.drops == nil {
		return
	}
	n := 0
	for k, tiles := range f.stale {
		if k.AreTeardrops() {
			n += len(tiles)
		}
	}
	for _, k := range f.Keys() {
		if !k.AreTeardrops() || len(f.stale[k]) == 0 {
			continue
		}
		layer := f.doc.Board.Position(k.Layer)
		for _, t := range slices.SortedFunc(maps.Keys(f.stale[k]), Tile.Compare) {
			s := spot{layer, t}
			was, known := f.drops.known[s]
			delete(f.drops.known, s)
			if layer < 0 {
				continue
			}
			if n > manyDrops {
				if known {
					f.areasNear(t.Box().Grow(teardrop.Farthest), 1<<layer)
				}
				continue
			}
			for _, one := range differing(was, f.drops.in(s)) {
				f.areasNear(one.Shape.Box(), 1<<layer)
			}
		}
	}
}

// differing are the teardrops that only one of two lists has.
func differing(a, b []teardrop.Teardrop) (out []teardrop.Teardrop) {
	same := func(x, y teardrop.Teardrop) bool { return slices.Equal(x.Shape.Pts, y.Shape.Pts) }
	only := func(list, other []teardrop.Teardrop) {
		for _, x := range list {
			if !slices.ContainsFunc(other, func(y teardrop.Teardrop) bool { return same(x, y) }) {
				out = append(out, x)
			}
		}
	}
	only(a, b)
	only(b, a)
	return out
}

// dropsTask has what there is in a tile ready.
func (f *Fills) dropsTask(k Key, t Tile) *Task {
	task := &Task{Key: k, Tile: t}
	if layer := f.doc.Board.Position(k.Layer); f.drops != nil && layer >= 0 {
		for _, d := range f.drops.in(spot{layer, t}) {
			p := &Piece{Area: overlay.Area{Outer: d.Shape.Pts}, Touches: []layout.Ref{d.Track, d.Pad}}
			p.doubled = doubled(p.Area)
			task.ready = append(task.ready, p)
		}
	}
	return task
}

// Net of an island.
func (f *Fills) Net(k Key, is *Island) design.ID {
	if p := f.doc.Pours[k.Pour]; p != nil {
		return p.Net
	}
	return f.NetOf(is.Pieces[0])
}

// NetOf is the net of a piece that touches something; 0: what it touched is gone.
func (f *Fills) NetOf(p *Piece) design.ID {
	of := p.Touches[0]
	for _, c := range f.index.Of(of.ID) {
		if c.Ref() == of {
			return c.Net
		}
	}
	return 0
}
