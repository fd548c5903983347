package circuit

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Where stretching wires would join or part nets, the wires of what moves are led anew: those
// that lead to it are taken back to the last place where something else stands, and every net
// that fell apart is put together again by ways that touch nothing foreign (lead.go).

// netOf numbers what touches in a drawing, by wire and by place.
type netOf struct {
	wire  map[design.ID]int
	place map[geom.Point]int
}

func (g *drawing) numbered() netOf {
	out := netOf{map[design.ID]int{}, map[geom.Point]int{}}
	n := 0
	g.sets(func(wires []*design.Wire, places []geom.Point) {
		for _, w := range wires {
			out.wire[w.ID] = n
		}
		for _, p := range places {
			out.place[p] = n
		}
		n++
	})
	return out
}

// reroute is one drawing's share of a move whose wires are led anew.
type reroute struct {
	*mover
	nets netOf
	// claim are the nets of the places as they will be; several where something lands on
	// something else, which cannot be helped.
	claim   map[geom.Point]map[int]bool
	claimed map[int][]geom.Point // the same by net
	wires   map[design.ID]int
	laid    map[int][]*design.Wire // the same by net
	bodies  []geom.Box
	out     map[geom.Point]geom.Point
}

func (m *mover) rerouted(items []design.OnSheet) {
	r := &reroute{mover: m, nets: m.old.numbered(), claim: map[geom.Point]map[int]bool{}, claimed: map[int][]geom.Point{}, wires: map[design.ID]int{}, laid: map[int][]*design.Wire{}}
	var now []design.OnSheet
	for _, o := range items {
		if m.goes(o.ObjectID()) {
			o = m.moved(o)
		}
		now = append(now, o)
	}
	r.bodies, r.out = bodiesOf(m.doc, now)
	torn := r.takeBack()
	r.moveAllAttached()
	for _, w := range m.fixed.wires { // those that were picked are there already
		if net, ok := r.nets.wire[w.ID]; ok {
			r.wires[w.ID] = net
		}
	}
	for p := range m.old.points() {
		net := r.nets.place[p]
		if to, ok := m.anchors[p]; ok {
			for _, q := range to {
				r.claims(q, net)
			}
		}
		if !r.leaves(p) && r.stands(p, net) {
			r.claims(p, net)
		}
	}
	for _, w := range m.fixed.wires {
		if net, ok := r.wires[w.ID]; ok {
			r.laid[net] = append(r.laid[net], w)
		}
	}
	slices.Sort(torn)
	for _, net := range torn {
		r.mend(net)
	}
}

func (r *reroute) claims(p geom.Point, net int) {
	if r.claim[p] == nil {
		r.claim[p] = map[int]bool{}
	}
	if !r.claim[p][net] {
		r.claim[p][net] = true
		r.claimed[net] = append(r.claimed[net], p)
	}
}

// leaves tells whether nothing stays at a place of which something moves.
func (r *reroute) leaves(p geom.Point) bool {
	if _, ok := r.anchors[p]; !ok {
		return false
	}
	return !r.holds(p)
}

// stands tells whether anything of the net is left at a place; a corner of wires that were taken
// back is not.
func (r *reroute) stands(p geom.Point, net int) bool {
	for _, pin := range r.old.pins[p] {
		if !r.goes(pin.Part) {
			return true
		}
	}
	for _, o := range r.old.attached[p] {
		if connecting(o) && !r.goes(o.ObjectID()) {
			return true
		}
	}
	left := false
	r.fixed.through(p, func(w *design.Wire) {
		n, ok := r.wires[w.ID]
		left = left || ok && n == net
	})
	return left
}

// takeBack takes the wires of what moves back to where something stays, and lists the nets
// that have to be put together again.
func (r *reroute) takeBack() []int {
	torn := map[int]bool{}
	for p := range r.anchors {
		if net, ok := r.nets.place[p]; ok {
			torn[net] = true
		}
	}
	left := map[int]map[design.ID]*design.Wire{} // of the torn nets
	for _, w := range r.old.wires {
		if net := r.nets.wire[w.ID]; !r.sel[w.ID] && torn[net] {
			if left[net] == nil {
				left[net] = map[design.ID]*design.Wire{}
			}
			left[net][w.ID] = w
		}
	}
	for _, of := range left {
		r.shorten(of)
	}
	for _, w := range r.old.wires {
		net := r.nets.wire[w.ID]
		now := w
		if torn[net] {
			now = left[net][w.ID]
		}
		switch {
		case r.sel[w.ID]:
			continue
		case now == nil:
			r.gone[w.ID] = w
			continue
		case now.A != w.A || now.B != w.B:
			r.now[w.ID] = now
		}
		r.fixed.addWire(now)
		r.wires[w.ID] = net
	}
	out := make([]int, 0, len(torn))
	for net := range torn {
		out = append(out, net)
	}
	return out
}

// shorten takes the wires of one net back to where something stays.
func (r *reroute) shorten(left map[design.ID]*design.Wire) {
	for changed := true; changed; {
		changed = false
		for _, id := range sortedKeys(left) {
			w := left[id]
			a, b := r.stays(left, w, w.A), r.stays(left, w, w.B)
			if a && b {
				continue
			}
			ends := r.hooks(left, w)
			if len(ends) < 2 {
				delete(left, id)
			} else { // at one end nothing stays: it is shorter
				c := *w
				c.A, c.B = ends[0], ends[1]
				left[id] = &c
			}
			changed = true
		}
	}
}

// stays tells whether something other than the wire stays at its end; left are the wires of its net.
func (r *reroute) stays(left map[design.ID]*design.Wire, w *design.Wire, p geom.Point) bool {
	for _, pin := range r.old.pins[p] {
		if !r.goes(pin.Part) {
			return true
		}
	}
	for _, v := range left {
		if v.ID != w.ID && geom.OnSegment(p, v.A, v.B) {
			return true
		}
	}
	_, anchored := r.anchors[p]
	for _, o := range r.old.attached[p] {
		if !r.goes(o.ObjectID()) && connecting(o) && !anchored {
			return true
		}
	}
	// a loose end is somebody's intent and stays
	return !anchored && r.looseBefore(w, p)
}

func (r *reroute) looseBefore(w *design.Wire, p geom.Point) bool {
	n := 0
	r.old.through(p, func(*design.Wire) { n++ })
	return n == 1 && len(r.old.pins[p]) == 0 && (p == w.A || p == w.B)
}

// hooks are the outermost places of a wire at which something stays.
func (r *reroute) hooks(left map[design.ID]*design.Wire, w *design.Wire) []geom.Point {
	var on []geom.Point
	try := func(p geom.Point) {
		if geom.OnSegment(p, w.A, w.B) && r.stays(left, w, p) {
			on = append(on, p)
		}
	}
	try(w.A)
	try(w.B)
	r.old.between(w.A, w.B, try)
	r.old.attachedAlong(w.A, w.B, func(p geom.Point, _ []design.OnSheet) { try(p) })
	for _, v := range left {
		if v.ID != w.ID {
			try(v.A)
			try(v.B)
		}
	}
	if len(on) == 0 {
		return nil
	}
	slices.SortFunc(on, func(a, b geom.Point) int {
		return cmpPoint(a, b)
	})
	if on[0] == on[len(on)-1] {
		return on[:1]
	}
	return []geom.Point{on[0], on[len(on)-1]}
}

// moveAllAttached moves labels and marks at places where nothing stays.
func (r *reroute) moveAllAttached() {
	for p, to := range r.anchors {
		if !r.holds(p) && to[0] != p {
			r.moveAttached(p, to[0])
		}
	}
}

// mend puts a net together again.
func (r *reroute) mend(net int) {
	f := &field{
		g:        r.fixed,
		ownPlace: func(p geom.Point) bool { return r.claim[p][net] && len(r.claim[p]) == 1 || r.onlyWires(p, net) },
		ownWire:  func(w *design.Wire) bool { n, ok := r.wires[w.ID]; return ok && n == net },
		bodies:   r.bodies,
		outward:  r.out,
	}
	for range 1000 {
		parts := r.piecesOf(net)
		if len(parts) < 2 {
			return
		}
		first := parts[0]
		var places []geom.Point
		var wires []*design.Wire
		for _, p := range parts[1:] {
			places, wires = append(places, p.places...), append(wires, p.wires...)
		}
		way := f.way(first.sources(), places, wires)
		if way == nil {
			return // the comparison says that the net falls apart
		}
		before := len(r.fixed.wires)
		for i := 0; i+1 < len(way); i++ {
			r.lay(way[i], way[i+1])
		}
		for _, w := range r.fixed.wires[before:] {
			r.wires[w.ID] = net
			r.laid[net] = append(r.laid[net], w)
		}
		for _, p := range way {
			r.claims(p, net)
		}
	}
}

// onlyWires tells whether nothing but wires of the net end at a place.
func (r *reroute) onlyWires(p geom.Point, net int) bool {
	if len(r.claim[p]) > 0 || len(r.fixed.pins[p]) > 0 || len(r.fixed.attached[p]) > 0 {
		return false
	}
	for _, w := range r.fixed.ends[p] {
		if n, ok := r.wires[w.ID]; !ok || n != net {
			return false
		}
	}
	return true
}

// fragment is a part of a net that hangs together.
type fragment struct {
	wires  []*design.Wire
	places []geom.Point
}

// sources are the places a way can leave a fragment from: its places and the ends of its wires.
func (f fragment) sources() []geom.Point {
	out := slices.Clone(f.places)
	for _, w := range f.wires {
		out = append(out, w.A, w.B)
	}
	return out
}

// piecesOf lists what hangs together of a net, as laid by now.
func (r *reroute) piecesOf(net int) []fragment {
	set := geom.NewForest(0)
	wires, places := r.laid[net], slices.Clone(r.claimed[net])
	sortPoints(places)
	node := make(map[design.ID]int, len(wires))
	for _, w := range wires {
		node[w.ID] = set.Add()
	}
	meet := func(p geom.Point, n int) {
		r.fixed.through(p, func(w *design.Wire) {
			if i, own := node[w.ID]; own {
				set.Join(n, i)
			}
		})
	}
	spot := map[geom.Point]int{}
	for _, p := range places {
		spot[p] = set.Add()
		meet(p, spot[p])
	}
	for _, w := range wires {
		meet(w.A, node[w.ID])
		meet(w.B, node[w.ID])
	}
	byRoot := map[int]int{}
	var out []fragment
	of := func(n int) *fragment {
		root := set.Root(n)
		i, ok := byRoot[root]
		if !ok {
			i = len(out)
			byRoot[root] = i
			out = append(out, fragment{})
		}
		return &out[i]
	}
	for _, p := range places {
		f := of(spot[p])
		f.places = append(f.places, p)
	}
	for _, w := range wires {
		f := of(node[w.ID])
		f.wires = append(f.wires, w)
	}
	return out
}
