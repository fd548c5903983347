package route

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// goal is what a search may end at: any place of a shape on one of the layers, led on to its own place, or, on a line, to
// the nearest of its middle.
type goal struct {
	at     geom.Point
	shape  geom.Shape
	layers uint32
	line   bool
}

// quest is a search for a way of a net over a grid that begins at a place.
type quest struct {
	net    design.ID
	width  func(layer int) int64
	from   geom.Point
	layers uint32 // on which it may begin
	within uint32 // on which it may lead; 0: on all
	goals  []goal
	hops   bool
	box    geom.Box // it stays within
	pitch  int64
	most   int // places that are looked at
	// eager is how much the way that is left counts: above 1 fewer places are looked at, and the way may be as much
	// longer than the shortest of the grid.
	eager  float32
	limit  float32               // in steps: ways that cannot be shorter than this are left; 0: none
	stop   func(looked int) bool // asked now and then; nil: never
	fence  [][2]geom.Point       // lines that it may not cross
	square bool                  // it goes along the axes alone
}

// stand is a place of a way that a search found.
type stand struct {
	at    geom.Point
	layer int
}

const (
	fromStart = 255
	fromHop   = 8 // + the layer
)

// ways are the eight neighbours of a place, anticlockwise from the right.
var ways = [8][2]int32{{1, 0}, {1, 1}, {0, 1}, {-1, 1}, {-1, 0}, {-1, -1}, {0, -1}, {1, -1}}

// turns is what a turn by so many eighths costs, in steps of the grid.
var turns = [5]float32{0, 0.15, 0.5, 4, 8}

// hopCost is what a hop costs, in nanometres of track.
const hopCost = 4_000_000

// mazeTile is what is known of the places of a tile on a layer.
type mazeTile struct {
	state [tileSide * tileSide]uint8
	cost  [tileSide * tileSide]float32
	from  [tileSide * tileSide]uint8
	done  [tileSide * tileSide]bool
}

type node struct {
	f     float32
	x, y  int32
	layer uint8
}

// maze is a search at work: A* with weights (Hart, Nilsson, Raphael 1968; Pohl 1970) over the eight
// neighbours of the places of a grid, on several layers.
type maze struct {
	quest
	f       Field
	rasters []*raster // by layer
	vias    *raster
	// the window's tiles, row by row and layer by layer, and those of the vias
	tiles        pages[mazeTile]
	viaTiles     pages[[tileSide * tileSide]uint8]
	tx, ty       int32 // the lowest tile
	columns, row int32 // tiles in a row, and rows
	heap         []node
	nearest      node
	lowest       float32 // the least that was left anywhere
	looked       int     // how many places were looked at
}

func (f Field) newMaze(q quest) *maze {
	m := &maze{quest: q, f: f, lowest: math.MaxFloat32}
	n := f.Doc.Board.Layers()
	m.rasters = make([]*raster, n)
	for i := range n {
		m.rasters[i] = newRaster(f, q.from, q.pitch, Wish{Shape: geom.Disc(q.from, q.width(i)/2), Layers: 1 << i, Net: q.net, Thing: design.ATrack})
	}
	m.box = m.box.With(q.from)
	lx, ly := m.rasters[0].index(m.box.Min, true)
	hx, hy := m.rasters[0].index(m.box.Max, false)
	m.tx, m.ty = lx>>5, ly>>5
	m.columns, m.row = hx>>5-m.tx+1, hy>>5-m.ty+1
	m.tiles = newPages[mazeTile](n * int(m.columns) * int(m.row))
	if q.hops {
		m.vias = newRaster(f, q.from, q.pitch, f.Via(q.from, q.net))
		m.viaTiles = newPages[[tileSide * tileSide]uint8](int(m.columns) * int(m.row))
	}
	return m
}

// tile holds a place of the window on a layer; i is where.
func (m *maze) tile(x, y int32, layer uint8) (t *mazeTile, i int) {
	k := (int32(layer)*m.row+y>>5-m.ty)*m.columns + x>>5 - m.tx
	t = m.tiles.at(k)
	if t == nil {
		t = &mazeTile{}
		for i := range t.cost {
			t.cost[i] = math.MaxFloat32
		}
		m.rasters[layer].fill(&t.state, x&^31, y&^31)
		m.tiles.put(k, t)
	}
	return t, int((y&31)<<5 | x&31)
}

// via is the state of a place for a via.
func (m *maze) via(x, y int32) uint8 {
	k := (y>>5-m.ty)*m.columns + x>>5 - m.tx
	t := m.viaTiles.at(k)
	if t == nil {
		t = &[tileSide * tileSide]uint8{}
		m.vias.fill(t, x&^31, y&^31)
		m.viaTiles.put(k, t)
	}
	return t[(y&31)<<5|x&31]
}

func (m *maze) place(n node) geom.Point { return m.rasters[n.layer].at(n.x, n.y) }

// left is the least that a way from a place to a goal can take, in steps of the grid.
func (m *maze) left(p geom.Point) float32 {
	best := math.Inf(1)
	for i := range m.goals {
		b := m.goals[i].shape.Box()
		dx := float64(max(b.Min.X-p.X, p.X-b.Max.X, 0))
		dy := float64(max(b.Min.Y-p.Y, p.Y-b.Max.Y, 0))
		best = min(best, max(dx, dy)+(math.Sqrt2-1)*min(dx, dy))
	}
	return float32(best / float64(m.pitch))
}

// run searches; it gives the way to a goal, or, when there is none, to the place that came nearest to one.
func (m *maze) run() (way []stand, arrived bool) {
	for l := range m.rasters {
		if m.layers&(1<<l) == 0 || m.barred(l) {
			continue
		}
		t, i := m.tile(0, 0, uint8(l))
		t.cost[i], t.from[i] = 0, fromStart
		m.nearest.layer = uint8(l)
		m.push(node{f: m.eager * m.left(m.from), layer: uint8(l)})
	}
	if len(m.heap) == 0 {
		return nil, false // there is no layer that it may begin on
	}
	for ; len(m.heap) > 0 && m.looked < m.most; m.looked++ {
		if m.stop != nil && m.looked&1023 == 0 && m.stop(m.looked) {
			break
		}
		n := m.pop()
		t, i := m.tile(n.x, n.y, n.layer)
		if t.done[i] {
			continue
		}
		t.done[i] = true
		at := m.place(n)
		if rest, ok := m.lands(at, int(n.layer)); ok {
			return append(m.back(n), rest...), true
		}
		left := m.left(at)
		if left < m.lowest {
			m.lowest, m.nearest = left, n
		}
		if m.limit > 0 && t.cost[i]+left >= m.limit {
			continue
		}
		m.further(n, at, t, i)
	}
	return m.back(m.nearest), false
}

// further goes on from a place to its neighbours, and to other layers.
func (m *maze) further(n node, at geom.Point, own *mazeTile, o int) {
	here, cost, from := own.state[o], own.cost[o], own.from[o]
	for k, d := range ways {
		if m.square && k&1 == 1 {
			continue
		}
		x, y := n.x+d[0], n.y+d[1]
		to := geom.Pt(at.X+int64(d[0])*m.pitch, at.Y+int64(d[1])*m.pitch)
		if !m.box.Holds(to) {
			continue
		}
		t, i := m.tile(x, y, n.layer)
		if t.done[i] || t.state[i] == closed {
			continue
		}
		step := float32(1)
		if k&1 == 1 {
			step = math.Sqrt2
		}
		if from < fromHop {
			turn := (k - int(from) + 8) % 8
			step += turns[min(turn, 8-turn)]
		}
		if cost+step >= t.cost[i] || len(m.fence) > 0 && m.fenced(at, to) {
			continue
		}
		if (here != open || t.state[i] != open) && !m.f.Free(track(at, to, m.width(int(n.layer)), int(n.layer), m.net)) {
			continue
		}
		t.cost[i], t.from[i] = cost+step, uint8(k)
		m.push(node{f: cost + step + m.eager*m.left(to), x: x, y: y, layer: n.layer})
	}
	if !m.hops || from >= fromHop && from != fromStart {
		return
	}
	state := m.via(n.x, n.y)
	if state == closed {
		return
	}
	price := float32(hopCost / float64(m.pitch))
	if state == plated {
		price = 0
	}
	for l := range m.rasters {
		t, i := m.tile(n.x, n.y, uint8(l))
		if l == int(n.layer) || m.barred(l) || t.state[i] == closed || t.done[i] || cost+price >= t.cost[i] {
			continue
		}
		t.cost[i], t.from[i] = cost+price, fromHop+n.layer
		m.push(node{f: cost + price + m.eager*m.left(at), x: n.x, y: n.y, layer: uint8(l)})
	}
}

func (m *maze) barred(layer int) bool { return m.within != 0 && m.within&(1<<layer) == 0 }

// fenced tells whether a step goes over a line that must not be crossed.
func (m *maze) fenced(a, b geom.Point) bool {
	for _, f := range m.fence {
		if _, over := geom.Cross(a, b, f[0], f[1]); over {
			return true
		}
	}
	return false
}

// lands tells whether a place belongs to a goal, and how the way goes on from there to the goal's own place.
func (m *maze) lands(at geom.Point, layer int) ([]stand, bool) {
	for i := range m.goals {
		g := &m.goals[i]
		if g.layers&(1<<layer) == 0 {
			continue
		}
		if !g.shape.Box().Grow(m.pitch).Holds(at) {
			continue
		}
		to := g.at
		if g.line {
			core := g.shape
			core.R = 0
			_, to, _ = geom.Gap(core, geom.Disc(at, 0))
		}
		if max(abs(at.X-to.X), abs(at.Y-to.Y)) > m.pitch && !g.shape.Holds(at) {
			continue
		}
		for _, style := range m.styles() {
			path := Path(at, to, style)
			if !m.f.passes(path, m.width(layer), layer, m.net) {
				continue
			}
			var rest []stand
			for _, p := range path[1:] {
				rest = append(rest, stand{p, layer})
			}
			return rest, true
		}
	}
	return nil, false
}

func (m *maze) styles() []Corner {
	if m.square {
		return []Corner{Square}
	}
	return []Corner{StraightFirst, DiagonalFirst}
}

// passes tells whether all pieces of a path may lie.
func (f Field) passes(path []geom.Point, width int64, layer int, net design.ID) bool {
	for i := 0; i+1 < len(path); i++ {
		if !f.Free(track(path[i], path[i+1], width, layer, net)) {
			return false
		}
	}
	return true
}

// back is the way from the start to a node, with the places where it turns or hops.
func (m *maze) back(n node) []stand {
	var out []stand
	last := uint8(fromStart)
	for {
		t, i := m.tile(n.x, n.y, n.layer)
		from := t.from[i]
		if from != last || from >= fromHop {
			out = append(out, stand{m.place(n), int(n.layer)})
		}
		if from == fromStart {
			break
		}
		last = from
		if from >= fromHop {
			n.layer = from - fromHop
			continue
		}
		n.x, n.y = n.x-ways[from][0], n.y-ways[from][1]
	}
	for i, j := 0, len(out)-1; i < j; i, j = i+1, j-1 {
		out[i], out[j] = out[j], out[i]
	}
	return out
}

// ---- the heap of places yet to be looked at, the most promising first

func (m *maze) push(n node) {
	h := append(m.heap, n)
	i := len(h) - 1
	for i > 0 {
		up := (i - 1) / 2
		if h[up].f <= h[i].f {
			break
		}
		h[up], h[i] = h[i], h[up]
		i = up
	}
	m.heap = h
}

func (m *maze) pop() node {
	h := m.heap
	top := h[0]
	last := len(h) - 1
	h[0] = h[last]
	h = h[:last]
	for i := 0; ; {
		least, l := i, 2*i+1
		if l < last && h[l].f < h[least].f {
			least = l
		}
		if r := l + 1; r < last && h[r].f < h[least].f {
			least = r
		}
		if least == i {
			break
		}
		h[i], h[least] = h[least], h[i]
		i = least
	}
	m.heap = h
	return top
}
