package circuit

import (
	"cmp"
	"container/heap"
	"math"
	"slices"
	"sort"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Leading wires round.
//
// A field finds a right-angled way between two sets of places of a drawing that touches nothing
// of another net: it ends on nothing foreign, passes no foreign end or pin, runs along no foreign
// wire and turns on none; it may cross them. It prefers short ways with few corners that leave a
// pin away from its body, cross little and stay out of bodies. The method is A* (Hart, Nilsson
// and Raphael, 1968) over the lattice of the grid lines and of those through the ends; a state is
// a node with the direction the way arrived in.

const (
	pitch       = 2_500_000 // of the lattice
	margin      = 8 * pitch // that a way may go beyond its ends
	mostLines   = 400       // of the lattice, each way; farther ends are not led to
	costStep    = 10        // a pitch of wire
	costCorner  = 14
	costCross   = 9
	costBody    = 80  // a pitch through a body
	costInto    = 150 // leaving a pin towards its body
	mostVisited = 400_000
)

// field is what a way has to respect.
type field struct {
	g *drawing
	// own tells whether a place, or a wire, belongs to the net that is led.
	ownPlace func(p geom.Point) bool
	ownWire  func(w *design.Wire) bool
	bodies   []geom.Box
	// meets tells that the way may end on foreign wires: to join them is what it is for.
	meets bool
	// outward is the direction in which a wire leaves the pin at a place, if a pin is there.
	outward map[geom.Point]geom.Point
}

// lattice of lines between which a way is sought.
type lattice struct {
	xs, ys []int64
	// node tells what a way may do there, edge right of and above it.
	node   []uint8
	right  []int32 // cost of the edge to the right, −1: none
	up     []int32
	target []bool
}

const (
	nodeShut   uint8 = 1 << iota // foreign: no way goes here
	nodeNoTurn                   // on a foreign wire: a way crosses straight
)

// lines are the coordinates of a lattice: the pitch from the first of the ends on, and all ends.
func lines(lo, hi int64, ends []int64) []int64 {
	out := slices.Clone(ends)
	first := ends[0] - (ends[0]-lo)/pitch*pitch
	for v := first; v <= hi; v += pitch {
		out = append(out, v)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// way finds a way from one of the sources to one of the targets, both places of the same net;
// nil when there is none.
func (f *field) way(sources, targets []geom.Point, targetWires []*design.Wire) []geom.Point {
	if len(sources) == 0 || len(targets)+len(targetWires) == 0 {
		return nil
	}
	box := geom.BoxOf(sources...)
	var ex, ey []int64
	add := func(p geom.Point) {
		box = box.With(p)
		ex, ey = append(ex, p.X), append(ey, p.Y)
	}
	for _, p := range sources {
		add(p)
	}
	for _, p := range targets {
		add(p)
	}
	for _, w := range targetWires {
		add(w.A)
		add(w.B)
	}
	box = box.Grow(margin)
	if (box.Max.X-box.Min.X)/pitch+int64(len(ex)) > mostLines || (box.Max.Y-box.Min.Y)/pitch+int64(len(ey)) > mostLines {
		return nil
	}
	l := &lattice{xs: lines(box.Min.X, box.Max.X, ex), ys: lines(box.Min.Y, box.Max.Y, ey)}
	f.survey(l)
	l.target = make([]bool, len(l.node))
	for _, p := range targets {
		l.target[l.at(p)] = true
	}
	for _, w := range targetWires {
		for i, x := range l.xs {
			for j, y := range l.ys {
				if geom.OnSegment(geom.Pt(x, y), w.A, w.B) {
					l.target[j*len(l.xs)+i] = true
				}
			}
		}
	}
	return f.search(l, sources)
}

func (l *lattice) at(p geom.Point) int {
	i, _ := slices.BinarySearch(l.xs, p.X)
	j, _ := slices.BinarySearch(l.ys, p.Y)
	return j*len(l.xs) + i
}

func (l *lattice) point(n int) geom.Point { return geom.Pt(l.xs[n%len(l.xs)], l.ys[n/len(l.xs)]) }

// survey finds what may be passed where.
func (f *field) survey(l *lattice) {
	nx, ny := len(l.xs), len(l.ys)
	l.node, l.right, l.up = make([]uint8, nx*ny), make([]int32, nx*ny), make([]int32, nx*ny)
	box := geom.Box{Min: geom.Pt(l.xs[0], l.ys[0]), Max: geom.Pt(l.xs[nx-1], l.ys[ny-1])}
	for n := range l.node {
		l.right[n], l.up[n] = -1, -1
		i, j := n%nx, n/nx
		if i+1 < nx {
			l.right[n] = stepCost(l.xs[i+1]-l.xs[i], 0)
		}
		if j+1 < ny {
			l.up[n] = stepCost(l.ys[j+1]-l.ys[j], 0)
		}
	}
	f.crossed(l)
	shut := func(p geom.Point) { // a foreign place shuts its node and the edges it lies within
		if !box.Holds(p) || f.ownPlace(p) {
			return
		}
		i, onX := slices.BinarySearch(l.xs, p.X)
		j, onY := slices.BinarySearch(l.ys, p.Y)
		switch {
		case onX && onY:
			l.node[j*nx+i] |= nodeShut
		case onY && i > 0:
			l.right[j*nx+i-1] = -1
		case onX && j > 0:
			l.up[(j-1)*nx+i] = -1
		}
	}
	for y, places := range f.g.byRow {
		if y < box.Min.Y || y > box.Max.Y {
			continue
		}
		for _, p := range places {
			if len(f.g.ends[p])+len(f.g.pins[p]) > 0 {
				shut(p)
			}
		}
	}
	for p := range f.g.attached { // marks of pins left open too
		shut(p)
	}
	for _, w := range f.g.wires {
		if f.ownWire(w) || !geom.BoxOf(w.A, w.B).Meets(box) {
			continue
		}
		f.avoid(l, w)
	}
}

// avoid lets ways cross a foreign wire straight, and no more.
func (f *field) avoid(l *lattice, w *design.Wire) {
	nx := len(l.xs)
	b := geom.BoxOf(w.A, w.B)
	i0, _ := slices.BinarySearch(l.xs, b.Min.X)
	j0, _ := slices.BinarySearch(l.ys, b.Min.Y)
	for j := j0; j < len(l.ys) && l.ys[j] <= b.Max.Y; j++ {
		for i := i0; i < nx && l.xs[i] <= b.Max.X; i++ {
			if geom.OnSegment(geom.Pt(l.xs[i], l.ys[j]), w.A, w.B) {
				l.node[j*nx+i] |= nodeNoTurn
			}
		}
	}
	if w.A.Y == w.B.Y {
		if j, ok := slices.BinarySearch(l.ys, w.A.Y); ok {
			for i := max(i0-1, 0); i+1 < nx && l.xs[i] < b.Max.X; i++ {
				if l.xs[i+1] > b.Min.X {
					l.right[j*nx+i] = -1
				}
			}
		}
	}
	if w.A.X == w.B.X {
		if i, ok := slices.BinarySearch(l.xs, w.A.X); ok {
			for j := max(j0-1, 0); j+1 < len(l.ys) && l.ys[j] < b.Max.Y; j++ {
				if l.ys[j+1] > b.Min.Y {
					l.up[j*nx+i] = -1
				}
			}
		}
	}
}

// stepCost is what an edge of a length costs that goes through so many bodies.
func stepCost(long int64, bodies int) int32 {
	return int32(max(long*costStep/pitch+int64(bodies)*(long*costBody/pitch), 1))
}

// crossed makes the edges dearer whose middle lies within bodies. Cost: the edges within them.
func (f *field) crossed(l *lattice) {
	nx := len(l.xs)
	through := map[int]int{} // edges, by their node, those upwards after those to the right; how many bodies each goes through
	for _, b := range f.bodies {
		i0, i1 := within(l.xs, b.Min.X, b.Max.X)
		j0, j1 := within(l.ys, b.Min.Y, b.Max.Y)
		mi0, mi1 := midWithin(l.xs, b.Min.X, b.Max.X)
		mj0, mj1 := midWithin(l.ys, b.Min.Y, b.Max.Y)
		for j := j0; j < j1; j++ {
			for i := mi0; i < mi1; i++ {
				through[j*nx+i]++
			}
		}
		for j := mj0; j < mj1; j++ {
			for i := i0; i < i1; i++ {
				through[len(l.node)+j*nx+i]++
			}
		}
	}
	for edge, bodies := range through {
		if n := edge - len(l.node); n >= 0 {
			l.up[n] = stepCost(l.ys[n/nx+1]-l.ys[n/nx], bodies)
		} else {
			l.right[edge] = stepCost(l.xs[edge%nx+1]-l.xs[edge%nx], bodies)
		}
	}
}

// within are the lines from low to high, both included: from the first to before the second.
func within(lines []int64, low, high int64) (from, to int) {
	from, _ = slices.BinarySearch(lines, low)
	to, _ = slices.BinarySearch(lines, high+1)
	return from, to
}

// midWithin are the steps to the next line whose middle lies from low to high.
func midWithin(lines []int64, low, high int64) (from, to int) {
	mid := func(i int) int64 { return lines[i] + int64(math.Round(float64(lines[i+1]-lines[i])/2)) }
	n := len(lines) - 1
	from = sort.Search(n, func(i int) bool { return mid(i) >= low })
	to = from + sort.Search(n-from, func(i int) bool { return mid(from+i) > high })
	return from, to
}

// state is a node with the direction in which the way came there: 0 right, 1 up, 2 left, 3 down.
type state struct {
	node, dir int
}

type visit struct {
	state
	cost, ahead int32
}

type queue []visit

func (q queue) Len() int           { return len(q) }
func (q queue) Less(i, j int) bool { return q[i].cost+q[i].ahead < q[j].cost+q[j].ahead }
func (q queue) Swap(i, j int)      { q[i], q[j] = q[j], q[i] }
func (q *queue) Push(x any)        { *q = append(*q, x.(visit)) }
func (q *queue) Pop() any {
	old := *q
	x := old[len(old)-1]
	*q = old[:len(old)-1]
	return x
}

var compass = []geom.Point{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}

func (f *field) search(l *lattice, sources []geom.Point) []geom.Point {
	nx := len(l.xs)
	ahead := l.distances()
	best := map[state]int32{}
	from := map[state]state{}
	var q queue
	push := func(s state, cost int32, back state) {
		if old, ok := best[s]; ok && old <= cost {
			return
		}
		best[s] = cost
		from[s] = back
		heap.Push(&q, visit{s, cost, ahead(s.node)})
	}
	for _, p := range sources {
		n := l.at(p)
		for dir := range compass {
			push(state{n, dir}, 0, state{-1, dir})
		}
	}
	for visited := 0; q.Len() > 0 && visited < mostVisited; visited++ {
		v := heap.Pop(&q).(visit)
		if v.cost > best[v.state] {
			continue
		}
		start := from[v.state].node < 0
		if l.target[v.node] && !start {
			return l.trace(v.state, from)
		}
		for dir, d := range compass {
			if dir == (v.dir+2)%4 || !start && dir != v.dir && l.node[v.node]&nodeNoTurn != 0 || start && dir != v.dir {
				continue
			}
			to := v.node + int(d.X) + int(d.Y)*nx
			if to < 0 {
				continue // below the lattice; on its other sides no edges lead out of it
			}
			edge := l.right
			if d.X == 0 {
				edge = l.up
			}
			step := edge[min(v.node, to)]
			if step < 0 || l.node[to]&nodeShut != 0 && !l.target[to] || l.target[to] && l.node[to]&nodeNoTurn != 0 && !f.meets {
				continue
			}
			cost := v.cost + step
			if dir != v.dir {
				cost += costCorner
			}
			if l.node[to]&nodeNoTurn != 0 {
				cost += costCross
			}
			if start {
				cost += f.into(l.point(v.node), d)
			}
			if l.target[to] {
				cost += f.into(l.point(to), geom.Pt(-d.X, -d.Y))
			}
			push(state{to, dir}, cost, v.state)
		}
	}
	return nil
}

// into is what it costs to leave a place in a direction that is not its pin's.
func (f *field) into(p, d geom.Point) int32 {
	out, ok := f.outward[p]
	switch {
	case !ok || out == d:
		return 0
	case out.X == -d.X && out.Y == -d.Y:
		return costInto
	}
	return costCorner
}

// distances gives a lower bound of the cost from a node to the nearest target.
func (l *lattice) distances() func(node int) int32 {
	var at []geom.Point
	for n, t := range l.target {
		if t {
			at = append(at, l.point(n))
		}
	}
	b := geom.BoxOf(at...)
	return func(node int) int32 {
		p := l.point(node)
		dx := max(b.Min.X-p.X, p.X-b.Max.X, 0)
		dy := max(b.Min.Y-p.Y, p.Y-b.Max.Y, 0)
		return int32((dx + dy) * costStep / pitch)
	}
}

// trace follows the way back and keeps its corners.
func (l *lattice) trace(end state, from map[state]state) []geom.Point {
	var out []geom.Point
	for s := end; s.node >= 0; s = from[s] {
		p := l.point(s.node)
		if k := len(out); k >= 2 && geom.OnSegment(out[k-1], out[k-2], p) {
			out = out[:k-1]
		}
		if k := len(out); k == 0 || out[k-1] != p {
			out = append(out, p)
		}
	}
	slices.Reverse(out)
	return out
}

// bodiesOf are the boxes of what stands on a sheet and should not be drawn across, and the
// directions in which wires leave the pins.
func bodiesOf(d *design.Doc, items []design.OnSheet) (boxes []geom.Box, outward map[geom.Point]geom.Point) {
	outward = map[geom.Point]geom.Point{}
	for _, o := range items {
		switch o := o.(type) {
		case *design.Part:
			sym := d.SymbolOf(o)
			if sym == nil {
				continue
			}
			pose := o.Pose()
			var body []geom.Point
			for i := range sym.Pins {
				p := &sym.Pins[i]
				way := compass[p.Turn&3]
				at, in := pose.Apply(p.At), pose.Apply(p.At.Add(geom.Pt(way.X*p.Length, way.Y*p.Length)))
				body = append(body, in)
				outward[at] = geom.Pt(int64(cmp.Compare(at.X, in.X)), int64(cmp.Compare(at.Y, in.Y)))
			}
			for _, fig := range sym.Figures {
				for _, p := range fig.Pts {
					body = append(body, pose.Apply(p.Sub(geom.Pt(fig.R, fig.R))), pose.Apply(p.Add(geom.Pt(fig.R, fig.R))))
				}
			}
			if len(body) > 0 {
				boxes = append(boxes, geom.BoxOf(body...))
			}
		case *design.SheetBlock:
			boxes = append(boxes, geom.BoxOf(o.At, o.At.Add(o.Size)).Grow(-1))
			for _, p := range o.Pins {
				outward[o.PinAt(p)] = compass[p.Side&3]
			}
		}
	}
	return boxes, outward
}
