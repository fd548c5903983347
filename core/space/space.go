// Package space puts the finished board together as bodies in space, and writes it as glTF: laminate, copper, mask, finish and silk with
// their true thickness, holes through them with their walls, and what stands on both faces. It is made of the same shapes as the artwork.
// Lengths are nanometres; in the file they are metres, its nodes count in millimetres. The upper face of the laminate with its copper is at
// height 0.
package space

import (
	"context"
	"errors"
	"fmt"
	"image/color"
	"math"
	"runtime"
	"slices"
	"sync"
	"sync/atomic"

	"goldentrace/core/design"
	"goldentrace/core/finished"
	"goldentrace/core/geom"
	"goldentrace/core/gltf"
	"goldentrace/core/overlay"
)

// chord is how far straight lines may stray from arcs in the model.
const chord = 8_000

// leastCoat is how thin a coat is drawn at least: thinner ones could not be told from what they lie on.
const leastCoat = 4_000

// wall is how thick the copper of a plated hole's wall is drawn.
const wall = 25_000

// Kinds of what the model consists of, as its nodes say in their extras.
const (
	KindSheet  = "laminate"
	KindCopper = "copper"
	KindCoat   = "coat" // mask, finish or silk
	KindWalls  = "walls"
	KindRim    = "rim" // of the closed board: its edge, and the walls of holes that are not plated
	KindPart   = "part"
)

// maker makes a model.
type maker struct {
	finished.Board
	scene *gltf.Scene
	looks map[look]int
	nodes []int
}

// look is a material of the scene.
type look struct {
	name string
	c    color.NRGBA
}

// layer is a layer of the model: a coat from one height to another.
type layer struct {
	finished.Coat
	kind, name   string
	id           design.LayerID // 0: none of the stack
	whole        bool           // its parts must not lie over one another, since it is seen through
	from, to     int64
	metal, rough float64
	shell        shell
	err          error
}

// Model makes the board as a GLB file. Progress is told as a share.
func Model(ctx context.Context, name string, b finished.Board, progress func(float64)) (file []byte, err error) {
	m := &maker{Board: b, scene: gltf.New("Golden Trace"), looks: map[look]int{}}
	list, err := m.layers(ctx)
	if err != nil {
		return nil, err
	}
	walls := make(chan shell, 1)
	var work sync.WaitGroup
	work.Go(func() { walls <- m.walls(ctx) })
	if err := put(ctx, list, progress); err != nil {
		return nil, err
	}
	work.Wait()
	for i, l := range list {
		m.add(l.kind, l.name, i, l.id, l.shell.primitives(m.material(l.Coat.Name, l.Colour, l.metal, l.rough)))
	}
	w := <-walls
	m.add(KindWalls, "Walls of holes", len(list), 0, w.primitives(m.material("walls", m.Plated(), 0.7, 0.4)))
	return m.end(name)
}

// Closed makes what is seen of the board beside its two faces as a GLB file: its edge, the walls of its holes, and what stands on it.
func Closed(ctx context.Context, name string, b finished.Board) ([]byte, error) {
	region := b.Doc.Board.Region()
	if len(region.Outer) == 0 {
		return nil, finished.ErrNoOutline
	}
	m := &maker{Board: b, scene: gltf.New("Golden Trace"), looks: map[look]int{}}
	cut := overlay.Cut{Shapes: []geom.Shape{region.Outer.Filled()}, Tolerance: chord}
	for _, h := range region.Holes {
		cut.Without = append(cut.Without, h.Filled())
	}
	for c := range b.Index.All() {
		if c.Hole > 0 && c.Bare {
			cut.Without = append(cut.Without, c.Bore())
		}
	}
	list, err := cut.One(ctx)
	if err != nil {
		return nil, fmt.Errorf("the edge of the board cannot be put together: %w", err)
	}
	look := b.Sheet(0)
	rim := extruded(list, -b.Doc.Board.Thickness(), 0)
	m.add(KindRim, "Edge", 0, 0, rim.sides(m.material(look.Name, look.Colour, 0, 0.8)))
	w := m.walls(ctx)
	if err := ctx.Err(); err != nil {
		return nil, err
	}
	m.add(KindWalls, "Walls of holes", 1, 0, w.sides(m.material("walls", m.Plated(), 0.7, 0.4)))
	return m.end(name)
}

// end puts in what stands on the board and writes the file.
func (m *maker) end(name string) ([]byte, error) {
	if err := m.parts(); err != nil {
		return nil, err
	}
	half := math.Sqrt(0.5)
	root := m.scene.Node(gltf.Node{Name: name, Mesh: -1, Children: m.nodes, Turn: [4]float64{-half, 0, 0, half}, Scale: 1e-3,
		Extras: map[string]any{"thickness": mm(m.Doc.Board.Thickness())}})
	return m.scene.Binary(root)
}

// put puts the layers together, several at a time.
func put(ctx context.Context, list []*layer, progress func(float64)) error {
	todo := make(chan *layer)
	var work sync.WaitGroup
	var done atomic.Int64
	var telling sync.Mutex
	for range runtime.GOMAXPROCS(0) {
		work.Go(func() {
			for l := range todo {
				l.put(ctx)
				n := done.Add(1)
				if progress != nil {
					telling.Lock()
					progress(float64(n) / float64(len(list)))
					telling.Unlock()
				}
			}
		})
	}
	for _, l := range list {
		if ctx.Err() == nil {
			todo <- l
		}
	}
	close(todo)
	work.Wait()
	errs := []error{ctx.Err()}
	for _, l := range list {
		errs = append(errs, l.err)
	}
	return errors.Join(errs...)
}

func (l *layer) put(ctx context.Context) {
	cut := overlay.Cut{Shapes: l.Shapes, Areas: l.Areas, Within: l.Within, Without: l.Without, Tolerance: chord}
	list, err := cut.Each(ctx)
	if l.whole {
		list, err = cut.One(ctx)
	}
	if err != nil {
		l.err = fmt.Errorf("%s cannot be put together: %w", l.name, err)
		return
	}
	l.shell = extruded(list, l.from, l.to)
}

func mm(nm int64) float64 { return float64(nm) / 1e6 }

// material is the place of a material.
func (m *maker) material(name string, c color.NRGBA, metal, rough float64) int {
	k := look{name, c}
	at, ok := m.looks[k]
	if !ok {
		at = m.scene.Material(gltf.Material{Name: name, R: c.R, G: c.G, B: c.B, A: c.A, Metal: metal, Rough: rough})
		m.looks[k] = at
	}
	return at
}

// add puts a layer of the board in; levels count from the top.
func (m *maker) add(kind, name string, level int, id design.LayerID, list []gltf.Primitive) {
	extras := map[string]any{"kind": kind, "level": level}
	if id != 0 {
		extras["layer"] = id
	}
	if mesh := m.scene.Mesh(name, list...); mesh >= 0 {
		m.nodes = append(m.nodes, m.scene.Node(gltf.Node{Name: name, Mesh: mesh, Extras: extras}))
	}
}

// face is what a face of the board looks like, coat by coat.
func (m *maker) face(ctx context.Context, bottom bool) (map[string]finished.Coat, error) {
	v, err := m.View(ctx, bottom, false)
	if err != nil {
		return nil, err
	}
	coats := map[string]finished.Coat{}
	for _, t := range v.Coats {
		coats[t.Name] = t
	}
	return coats, nil
}

// layers are those of the whole board, from the top.
func (m *maker) layers(ctx context.Context) (out []*layer, err error) {
	above, err := m.coated(ctx, false)
	if err != nil {
		return nil, err
	}
	slices.Reverse(above)
	below, err := m.coated(ctx, true)
	return slices.Concat(above, m.within(), below), err
}

// coated are the coats of a face, from the laminate outwards.
func (m *maker) coated(ctx context.Context, bottom bool) (out []*layer, err error) {
	coats, err := m.face(ctx, bottom)
	if err != nil {
		return nil, err
	}
	board := m.Doc.Board
	first, last := design.Laminate(board.Stack)
	list := slices.Clone(board.Stack[:first])
	slices.Reverse(list)
	outer := board.Stack[first]
	if bottom {
		list, outer = board.Stack[len(board.Stack)-last:], board.Stack[len(board.Stack)-last-1]
	}
	sunk := int64(0) // how far the laminate lies below the face
	if outer.Copper() {
		sunk = outer.Thickness
	}
	mask := int64(-1) // how high it reaches; less: there is none
	for _, l := range list {
		t, ok := coats[string(l.Kind)]
		if !ok {
			continue
		}
		a := &layer{Coat: t, kind: KindCoat, name: l.Name, id: l.ID, to: max(l.Thickness, leastCoat), rough: 0.6}
		switch l.Kind {
		case design.MaskLayer:
			a.from, mask, a.whole = -sunk, a.to, true
		case design.FinishLayer:
			a.metal, a.rough = 0.7, 0.35
		case design.SilkLayer:
			a.from, a.to = mask, mask+a.to
			if mask < 0 {
				a.from, a.to = -sunk, -sunk+max(l.Thickness, leastCoat)
			}
		}
		if bottom {
			a.from, a.to = -board.Thickness()-a.to, -board.Thickness()-a.from
		}
		out = append(out, a)
	}
	return out, nil
}

// within are copper and laminate from the top down.
func (m *maker) within() (out []*layer) {
	board := m.Doc.Board
	first, last := design.Laminate(board.Stack)
	z, at := int64(0), -1
	for _, l := range board.Stack[first : len(board.Stack)-last] {
		a := &layer{kind: KindSheet, name: l.Name, id: l.ID, from: z - l.Thickness, to: z, whole: true, rough: 0.8}
		if l.Copper() {
			at++
			a.kind, a.whole, a.metal, a.rough = KindCopper, false, 0.7, 0.4
			a.Coat = m.Copper(at)
		} else {
			a.Coat = m.Sheet(at)
		}
		out = append(out, a)
		z -= l.Thickness
	}
	return out
}

// walls are the walls of plated holes, as many of them as there was time for.
func (m *maker) walls(ctx context.Context) (all shell) {
	tops, bottoms := m.heights()
	for c := range m.Index.All() {
		if ctx.Err() != nil {
			break
		}
		upper, lower := -1, -1
		for i := range tops {
			if c.Has(i) {
				lower = i
				if upper < 0 {
					upper = i
				}
			}
		}
		if c.Hole == 0 || c.Bare || upper < 0 {
			continue
		}
		outer := c.Bore()
		inner := outer
		inner.R -= min(wall, inner.R/2)
		a := overlay.Area{Outer: overlay.Round(outer, chord), Holes: [][]geom.Point{overlay.Round(inner, chord)}}
		slices.Reverse(a.Holes[0])
		all.join(extruded([]overlay.Area{a}, bottoms[lower], tops[upper]))
	}
	return all
}

// heights of the upper and lower side of each copper layer.
func (m *maker) heights() (tops, bottoms []int64) {
	board := m.Doc.Board
	first, last := design.Laminate(board.Stack)
	z := int64(0)
	for _, l := range board.Stack[first : len(board.Stack)-last] {
		if l.Copper() {
			tops, bottoms = append(tops, z), append(bottoms, z-l.Thickness)
		}
		z -= l.Thickness
	}
	return tops, bottoms
}

// parts are the bodies of what stands on the board.
func (m *maker) parts() error {
	on := m.Doc.Board.Region().Outer.Box()
	meshes := map[string]*body{}
	var list []*design.Placed
	for p := range m.Doc.Placed.All() {
		if on.Holds(p.At) && !p.NotFitted {
			list = append(list, p)
		}
	}
	slices.SortFunc(list, func(a, b *design.Placed) int { return int(a.ID - b.ID) })
	for _, p := range list {
		f := m.Doc.Footprint(p.Footprint)
		if f == nil {
			continue
		}
		b, ok := meshes[p.Footprint]
		if !ok {
			var err error
			if b, err = m.body(f); err != nil {
				return fmt.Errorf("the body of %s: %w", p.Designator, err)
			}
			meshes[p.Footprint] = b
		}
		n := gltf.Node{Name: p.Designator, Mesh: b.mesh, Move: [3]float64{mm(p.At.X), mm(p.At.Y), 0}, Turn: turned(p),
			Extras: map[string]any{"kind": KindPart, "part": p.ID, "bottom": p.Bottom}}
		if p.Bottom {
			n.Move[2] = -mm(m.Doc.Board.Thickness())
		}
		if b.file != nil { // its nodes are held by one alone
			n.Children = []int{m.file(b.file)}
		}
		if n.Mesh >= 0 || len(n.Children) > 0 {
			m.nodes = append(m.nodes, m.scene.Node(n))
		}
	}
	return nil
}

// turned is how a part is turned as a quaternion: about the height by its angle, after half a turn about y when it lies below.
func turned(p *design.Placed) [4]float64 {
	sin, cos := math.Sincos(float64(p.Pose().Angle) / 360_000 * math.Pi)
	if p.Pose().Mirror {
		return [4]float64{-sin, cos, 0, 0}
	}
	return [4]float64{0, 0, sin, cos}
}
