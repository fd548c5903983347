package pour

import (
	"context"
	"iter"
	"maps"
	"reflect"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
)

// Fills are what all copper areas of a board fill, tile by tile, and which tiles are to be filled anew. They belong to one goroutine.
type Fills struct {
	ground
	of    map[Key]*fill
	stale map[Key]map[Tile]bool
	bonds map[design.ID][]layout.Bond // of nets that were asked for since something was taken in
}

// fill is what one area fills on one layer.
type fill struct {
	area    *area // nil: to be made ready anew
	tiles   map[Tile][]*Piece
	islands map[*Island]bool
	failed  map[Tile]error // tiles that the library failed on: they are empty
}

func newFill() *fill {
	return &fill{tiles: map[Tile][]*Piece{}, islands: map[*Island]bool{}, failed: map[Tile]error{}}
}

// New knows of no copper area yet: all tiles of those there are are to be filled.
func New(d *design.Doc, x *layout.Index, r *rules.Set) *Fills {
	f := &Fills{ground: ground{doc: d, index: x, rules: r}, of: map[Key]*fill{}, stale: map[Key]map[Tile]bool{}}
	f.Anew()
	return f
}

// Anew makes all tiles of all areas stale, as after a rule, the stack or the board's edge changed.
func (f *Fills) Anew() {
	f.bonds = nil
	f.dropsAnew()
	gone := maps.Clone(f.of)
	maps.DeleteFunc(gone, func(k Key, _ *fill) bool { return k.AreTeardrops() })
	for p := range f.doc.Pours.All() {
		for _, l := range p.Layers {
			k := Key{p.ID, l}
			delete(gone, k)
			f.whole(k)
		}
	}
	for k := range gone {
		f.whole(k)
	}
}

// whole makes all tiles of an area on a layer stale, those that it has left too.
func (f *Fills) whole(k Key) {
	was := f.of[k]
	if was == nil {
		was = newFill()
		f.of[k] = was
	}
	was.area = f.areaOf(k)
	tiles := map[Tile]bool{}
	for t := range was.tiles {
		tiles[t] = true
	}
	if was.area != nil {
		for _, t := range TilesOf(was.area.box) {
			tiles[t] = true
		}
	}
	if len(tiles) == 0 {
		delete(f.stale, k)
		if was.area == nil {
			delete(f.of, k)
		}
		return
	}
	f.stale[k] = tiles
}

// Pour follows a change of a copper area; before or after is nil when it came or went. Those that give way to it, or are one with it, are filled anew where
// they meet it. Its name and its lock change nothing.
func (f *Fills) Pour(before, after *design.Pour) {
	f.bonds = nil
	if before != nil && after != nil {
		was, is := *before, *after
		was.Name, was.Locked = is.Name, is.Locked
		if reflect.DeepEqual(was, is) {
			return
		}
	}
	for _, p := range []*design.Pour{before, after} {
		if p == nil {
			continue
		}
		for _, l := range p.Layers {
			f.whole(Key{p.ID, l})
			for o := range f.doc.Pours.All() {
				if o.ID != p.ID && o.On(l) && (o.Net == p.Net || p.Before(o)) {
					f.givesWay(Key{o.ID, l}, p)
				}
			}
		}
	}
}

// givesWay makes an area ready anew and its tiles stale where it meets another that it gives way to or is one with, or was.
func (f *Fills) givesWay(k Key, to *design.Pour) {
	is := f.of[k]
	if is == nil {
		return
	}
	if is.area = f.areaOf(k); is.area == nil || len(to.Outline) == 0 {
		f.whole(k)
		return
	}
	f.stales(k, geom.Within(to.Outline).Box().Grow(to.Clearance))
}

// Near makes the tiles around a box stale, of all areas and teardrops on the layers of a mask.
func (f *Fills) Near(b geom.Box, layers uint32) {
	f.areasNear(b, layers)
	f.dropsNear(b, layers)
}

// areasNear does so of areas.
func (f *Fills) areasNear(b geom.Box, layers uint32) {
	for k, is := range f.of {
		if is.area != nil && layers&(1<<is.area.layer) != 0 {
			f.stales(k, b)
		}
	}
}

// stales makes the tiles of an area around a box stale.
func (f *Fills) stales(k Key, b geom.Box) {
	a := f.of[k].area
	around := b.Grow(2 * a.reach)
	if !around.Meets(a.box) {
		return
	}
	if f.stale[k] == nil {
		f.stale[k] = map[Tile]bool{}
	}
	for _, t := range TilesOf(around) {
		if t.Box().Meets(a.box) {
			f.stale[k][t] = true
		}
	}
}

// Waiting is how many tiles are to be filled.
func (f *Fills) Waiting() (n int) {
	for _, tiles := range f.stale {
		n += len(tiles)
	}
	return n
}

// Due are the tiles that are stale; they count as filled from now on, as soon as outcomes for them are taken.
func (f *Fills) Due() map[Key]map[Tile]bool {
	f.settle()
	out := f.stale
	f.stale = map[Key]map[Tile]bool{}
	return out
}

// Wait makes tiles stale, as when filling them was stopped.
func (f *Fills) Wait(due map[Key]map[Tile]bool) {
	for k, tiles := range due {
		if f.stale[k] == nil {
			f.stale[k] = map[Tile]bool{}
		}
		maps.Copy(f.stale[k], tiles)
	}
}

// Tasks are what fills tiles.
func (f *Fills) Tasks(due map[Key]map[Tile]bool) (out []*Task) {
	for _, k := range slices.SortedFunc(maps.Keys(due), Key.Compare) {
		is := f.of[k]
		for _, t := range slices.SortedFunc(maps.Keys(due[k]), Tile.Compare) {
			if k.AreTeardrops() {
				out = append(out, f.dropsTask(k, t))
				continue
			}
			if is == nil || is.area == nil || !t.Box().Meets(is.area.box) {
				out = append(out, &Task{Key: k, Tile: t}) // nothing any more
				continue
			}
			out = append(out, is.area.task(t))
		}
	}
	return out
}

// Do does tasks on all processors. It may be stopped; progress, which may be nil, is told the share done.
func Do(ctx context.Context, tasks []*Task, progress func(float64)) ([]Outcome, error) {
	out := make([]Outcome, len(tasks))
	var next, done atomic.Int64
	var all sync.WaitGroup
	var told sync.Mutex
	for range min(runtime.GOMAXPROCS(0), len(tasks)) {
		all.Go(func() {
			for {
				i := int(next.Add(1)) - 1
				if i >= len(tasks) || ctx.Err() != nil {
					return
				}
				out[i] = tasks[i].Do()
				if n := done.Add(1); progress != nil && n%4 == 0 {
					told.Lock()
					progress(float64(n) / float64(len(tasks)))
					told.Unlock()
				}
			}
		})
	}
	all.Wait()
	return out, ctx.Err()
}

// Changed are the tiles of an area on a layer that look otherwise now.
type Changed struct {
	Key
	Tiles []Tile
}

// Take takes outcomes in, finds the islands of what changed anew, and tells which tiles look otherwise now.
func (f *Fills) Take(list []Outcome) (out []Changed) {
	f.bonds = nil
	by, layers := map[Key][]Outcome{}, map[design.LayerID]bool{}
	for _, o := range list {
		by[o.Key] = append(by[o.Key], o)
		layers[o.Layer] = true
	}
	changed := map[Key]map[Tile]bool{}
	for _, k := range slices.SortedFunc(maps.Keys(by), Key.Compare) {
		is := f.of[k]
		if is == nil {
			continue
		}
		changed[k] = map[Tile]bool{}
		for _, o := range by[k] {
			delete(is.failed, o.Tile)
			if o.Err != nil {
				is.failed[o.Tile] = o.Err
			}
			changed[k][o.Tile] = true
		}
		is.replace(by[k], func(i *Island) bool { return k.AreTeardrops() || stays(f.doc.Pours[k.Pour], i) }, changed[k])
		if is.area == nil && len(is.tiles) == 0 && f.stale[k] == nil {
			delete(f.of, k)
		}
	}
	for _, l := range slices.Sorted(maps.Keys(layers)) {
		f.hold(l, changed)
	}
	for _, k := range slices.SortedFunc(maps.Keys(changed), Key.Compare) {
		out = append(out, Changed{k, slices.SortedFunc(maps.Keys(changed[k]), Tile.Compare)})
	}
	return out
}

// Fill fills all that is stale, at once.
func (f *Fills) Fill(ctx context.Context, progress func(float64)) ([]Changed, error) {
	list, err := Do(ctx, f.Tasks(f.Due()), progress)
	if err != nil {
		return nil, err
	}
	return f.Take(list), nil
}

// Of fills all copper areas of a board from scratch.
func Of(ctx context.Context, d *design.Doc, x *layout.Index, r *rules.Set, progress func(float64)) (*Fills, error) {
	f := New(d, x, r)
	_, err := f.Fill(ctx, progress)
	return f, err
}

// Failed tells of an area on a layer where it could not be filled, and why; nil: it could everywhere.
func (f *Fills) Failed(k Key) (at geom.Point, why error) {
	if is := f.of[k]; is != nil {
		for _, t := range slices.SortedFunc(maps.Keys(is.failed), Tile.Compare) {
			return t.Box().Centre(), is.failed[t]
		}
	}
	return at, nil
}

// Keys of the areas that have copper, in order.
func (f *Fills) Keys() []Key { return slices.SortedFunc(maps.Keys(f.of), Key.Compare) }

// Seen are the pieces of an area within a tile, without the islands that go.
func (f *Fills) Seen(k Key, t Tile) (out []*Piece) {
	is := f.of[k]
	if is == nil {
		return nil
	}
	for _, p := range is.tiles[t] {
		if p.island != nil && p.island.Stays {
			out = append(out, p)
		}
	}
	return out
}

// Tiles are those in which an area has copper, with what is seen of it.
func (f *Fills) Tiles(k Key) iter.Seq2[Tile, []*Piece] {
	return func(yield func(Tile, []*Piece) bool) {
		is := f.of[k]
		if is == nil {
			return
		}
		for _, t := range slices.SortedFunc(maps.Keys(is.tiles), Tile.Compare) {
			if seen := f.Seen(k, t); len(seen) > 0 && !yield(t, seen) {
				return
			}
		}
	}
}

// Least is the width that no copper of an area on a layer falls below; 0: it is not there.
func (f *Fills) Least(k Key) int64 {
	if is := f.of[k]; is != nil && is.area != nil {
		return is.area.least
	}
	return 0
}

// At is the island of an area on a layer that a place lies in, of those that stay; nil: nothing is filled there.
func (f *Fills) At(k Key, at geom.Point) *Island {
	for _, p := range f.Seen(k, Tile{floor(at.X), floor(at.Y)}) {
		if p.Holds(at) {
			return p.island
		}
	}
	return nil
}
