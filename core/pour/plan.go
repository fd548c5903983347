package pour

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/teardrop"
)

// ground is what areas are laid out on.
type ground struct {
	doc   *design.Doc
	index *layout.Index
	rules *rules.Set
	drops *drops // nil: the board has none
}

// kerbs are closed lines with the box around them.
type kerbs struct {
	list []kerb
	box  geom.Box
}

// area is a copper area on a layer, made ready for its tiles.
type area struct {
	ground
	*design.Pour
	key    Key
	layer  int // counted from 0 at the top
	least  int64
	region [][]kerb
	box    geom.Box
	before []*design.Pour // which it gives way to
	beside []*area        // others of its net, which lie over it or meet it
	reach  int64          // no farther than this anything matters to a place
}

// areaOf makes an area ready; nil: it is not on the layer, or there is nothing that it could fill.
func (g *ground) areaOf(k Key) *area {
	a := g.alone(k)
	if a == nil {
		return nil
	}
	for o := range g.doc.Pours.All() {
		if o.Net == a.Net && o.ID != a.ID && o.On(k.Layer) {
			if b := g.alone(Key{o.ID, k.Layer}); b != nil && b.box.Meets(a.box) {
				a.beside = append(a.beside, b)
			}
		}
	}
	return a
}

// alone makes an area ready, but for the others of its net.
func (g *ground) alone(k Key) *area {
	p := g.doc.Pours[k.Pour]
	layer := g.doc.Board.Position(k.Layer)
	if p == nil || layer < 0 || !p.On(k.Layer) {
		return nil
	}
	a := &area{ground: *g, Pour: p, key: k, layer: layer, least: g.least(p, layer)}
	board := g.boardsEdge(p.Net, layer)
	if board != nil {
		a.region, a.box = append(a.region, board.list), board.box
	}
	if len(p.Outline) > 0 {
		own := kerbOf(p.Outline, false, func(geom.Piece) int64 { return 0 })
		a.region = append(a.region, []kerb{own})
		a.box = geom.BoxOf(own.line...)
	}
	if len(a.region) == 0 {
		return nil
	}
	for o := range g.doc.Pours.All() {
		if o.Net != p.Net && o.On(k.Layer) && o.Before(p) {
			a.before = append(a.before, o)
		}
	}
	a.reach = g.reach(p, layer)
	return a
}

// least is the least width of an area's copper.
func (g *ground) least(p *design.Pour, layer int) int64 {
	if p.LeastWidth > 0 {
		return p.LeastWidth
	}
	at := geom.Point{}
	if len(p.Outline) > 0 {
		at = p.Outline[0].Point
	}
	return max(g.rules.For(design.LeastWidth, subject(p), layer, at).Of(0), design.LeastFill)
}

func subject(p *design.Pour) rules.Subject { return rules.Subject{Net: p.Net, Thing: design.APour} }

// reach is how near to a place something must lie to matter there.
func (g *ground) reach(p *design.Pour, layer int) int64 {
	gap := max(g.rules.Greatest(design.SpokeGap), p.Spokes.Gap, usualGap)
	width := max(g.rules.Greatest(design.SpokeWidth), p.Spokes.Width, usualWidth)
	return max(g.rules.Reach(1<<layer), p.Clearance, gap) + 2*g.least(p, layer) + width + joint + 10*stray
}

// boardsEdge is the board's edge with its cut-outs, with what copper of a net keeps from it on a layer.
func (g *ground) boardsEdge(net design.ID, layer int) *kerbs {
	b := g.doc.Board
	if len(b.Outline) == 0 {
		return nil
	}
	keeps := func(p geom.Piece) int64 {
		var most int64
		for _, at := range []geom.Point{p.A, p.A.Towards(p.B, 0.5), p.B} {
			most = max(most, g.rules.For(design.EdgeClearance, rules.Subject{Net: net, Thing: design.APour}, layer, at).Of(0))
		}
		return most
	}
	out := &kerbs{list: []kerb{kerbOf(b.Outline, false, keeps)}}
	for _, c := range b.CutOuts {
		out.list = append(out.list, kerbOf(c, true, keeps))
	}
	out.box = geom.BoxOf(out.list[0].line...)
	return out
}

func kerbOf(corners []geom.Corner, out bool, keep func(geom.Piece) int64) kerb {
	k := kerb{pieces: geom.Closing(corners), out: out}
	for _, p := range k.pieces {
		line := p.Along(chord, false)
		k.line = append(k.line, line[:len(line)-1]...)
		k.keeps = append(k.keeps, keep(p))
	}
	return k
}

// task gathers what it takes to fill a tile.
func (a *area) task(at Tile) *Task {
	t := &Task{Key: a.key, Tile: at, least: a.least, room: room{region: a.region}}
	box := at.Box()
	t.window = box
	var near []*layout.Copper
	for c := range a.index.Near(box.Grow(2 * a.reach)) {
		near = append(near, c)
	}
	slices.SortFunc(near, func(x, y *layout.Copper) int { return x.Ref().Compare(y.Ref()) })
	var gaps []guard // around pads of the net, which spokes cross
	for _, c := range near {
		if a.owns(c) {
			gaps = append(gaps, a.join(t, c, box)...)
		}
	}
	t.window = t.window.Grow(a.least + 10*stray)
	t.guards = append(a.keepsFree(near, t.window), gaps...)
	t.spokes = slices.DeleteFunc(t.spokes, a.offEdge)
	for _, b := range a.beside {
		if b.box.Meets(t.window) {
			t.beside = append(t.beside, b.room(t.window))
		}
	}
	return t
}

// room is what another area of the net may fill within a window.
func (a *area) room(window geom.Box) room {
	var near []*layout.Copper
	for c := range a.index.Near(window.Grow(2 * a.reach)) {
		near = append(near, c)
	}
	slices.SortFunc(near, func(x, y *layout.Copper) int { return x.Ref().Compare(y.Ref()) })
	out := room{region: a.region, guards: a.keepsFree(near, window)}
	for _, c := range near {
		if a.owns(c) {
			out.guards = append(out.guards, a.join(&Task{}, c, window)...)
		}
	}
	return out
}

// keepsFree is what an area keeps free within a window of what lies near, but for its own pads.
func (a *area) keepsFree(near []*layout.Copper, window geom.Box) (out []guard) {
	margin := window.Grow(a.reach)
	for _, c := range near {
		if !a.owns(c) && (c.Bare || c.Has(a.layer)) && c.Box().Meets(margin) {
			for _, g := range a.guardsOf(c) {
				if g.shape.Box().Grow(g.keep + a.least).Meets(window) {
					out = append(out, g)
				}
			}
		}
	}
	for _, d := range a.drops.near(a.layer, margin) {
		if d.Net != a.Net {
			out = append(out, guard{shape: d.Shape, keep: a.dropClearance(d)})
		}
	}
	for i := range a.index.KeepOuts() {
		k := &a.index.KeepOuts()[i]
		if k.Keeps(design.APour, 1<<a.layer) && k.Box().Meets(margin) {
			out = append(out, guard{shape: geom.Within(k.Outline)})
		}
	}
	for _, p := range a.before {
		out = append(out, a.wayFor(p, margin)...)
	}
	return out
}

func (a *area) owns(c *layout.Copper) bool {
	return !c.Bare && c.Net == a.Net && c.Has(a.layer)
}

// guardsOf is what is kept free around a piece.
func (a *area) guardsOf(c *layout.Copper) (out []guard) {
	if c.Bare {
		return []guard{{shape: c.Shape, keep: a.rules.For(design.EdgeClearance, subject(a.Pour), a.layer, c.At).Of(0)}}
	}
	for _, s := range a.rules.Stretches(design.Clearance, c.On(a.layer)) {
		out = append(out, guard{shape: s, keep: a.clearance(c, s)})
	}
	if c.Hole > 0 { // where its copper keeps the area away less than its hole's wall asks for
		need := a.rules.Between(design.HoleCopper, subject(a.Pour), c.Subject(), a.layer, c.At).Of(0)
		own := c.On(a.layer)
		if ring := own.R - c.Hole/2; need > 0 && (len(own.Pts) != 1 || own.Pts[0] != c.Drill || ring+a.clearance(c, own) < need) {
			out = append(out, guard{shape: c.Bore(), keep: need})
		}
	}
	return out
}

// clearance to a stretch of a piece.
func (a *area) clearance(c *layout.Copper, s geom.Shape) int64 {
	most := a.Clearance
	places := []geom.Point{c.At}
	if c.Kind == "track" {
		places = append(slices.Clone(s.Pts), s.Pts[0].Towards(s.Pts[len(s.Pts)-1], 0.5))
	}
	for _, at := range places {
		most = max(most, a.rules.Between(design.Clearance, subject(a.Pour), c.Subject(), a.layer, at).Of(0))
		if !a.rules.ByPlace(design.Clearance) {
			break
		}
	}
	return most
}

// dropClearance is that to a teardrop of another net.
func (a *area) dropClearance(d teardrop.Teardrop) int64 {
	track := rules.Subject{Net: d.Net, Thing: design.ATrack}
	most := a.Clearance
	for _, at := range d.Shape.Pts {
		most = max(most, a.rules.Between(design.Clearance, subject(a.Pour), track, a.layer, at).Of(0))
		if !a.rules.ByPlace(design.Clearance) {
			break
		}
	}
	return most
}

// wayFor is what is kept free for an area that this one gives way to.
func (a *area) wayFor(p *design.Pour, margin geom.Box) []guard {
	at := a.box.Centre()
	keep := max(a.Clearance, a.rules.Between(design.Clearance, subject(a.Pour), subject(p), a.layer, at).Of(0), p.Clearance)
	if len(p.Outline) == 0 { // it fills the board
		return []guard{{shape: geom.Within(a.doc.Board.Outline), keep: keep}}
	}
	s := geom.Within(p.Outline)
	if !s.Box().Grow(keep + a.least).Meets(margin) {
		return nil
	}
	return []guard{{shape: s, keep: keep}}
}

// offEdge tells whether a spoke comes too near to the board's edge.
func (a *area) offEdge(s spoke) bool {
	strip := geom.Shape{Pts: s.strip(0, s.reach+joint), Area: true}
	need := a.rules.For(design.EdgeClearance, subject(a.Pour), a.layer, s.from).Of(0)
	gap, _, near := a.index.Edge().Gap(strip, need)
	return near && geom.Short(gap, need)
}
