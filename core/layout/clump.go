package layout

import (
	"math/bits"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// mostOfClump is how many pieces of copper that hang together are looked at for loops: more are not, as of a plane that is drawn by lines.
const mostOfClump = 2_000

// Clump is copper of one net that hangs together on one layer, areas aside.
type Clump struct {
	Layer  int
	Pieces []*Copper
	touch  [][]int // of each piece, those that it touches on the layer
}

// ClumpOf is what hangs together with a piece on a layer, of copper that is found by near. whole is false when that is too much: the clump is a part
// of it then.
func ClumpOf(near near, from *Copper, layer int) (m *Clump, whole bool) {
	m = &Clump{Layer: layer, Pieces: []*Copper{from}}
	number := map[Ref]int{from.Ref(): 0}
	for i := 0; i < len(m.Pieces); i++ {
		c := m.Pieces[i]
		shape := c.On(layer)
		m.touch = append(m.touch, nil)
		for o := range near(shape.Box()) {
			if o.Net != c.Net || o.Ref() == c.Ref() || !touchingOn(layer, c, o) {
				continue
			}
			n, known := number[o.Ref()]
			if !known {
				n = len(m.Pieces)
				if n == mostOfClump {
					return m, false
				}
				number[o.Ref()] = n
				m.Pieces = append(m.Pieces, o)
			}
			m.touch[i] = append(m.touch[i], n)
		}
	}
	return m, true
}

func touchingOn(layer int, a, b *Copper) bool {
	if a.Bare || b.Bare || !a.Has(layer) || !b.Has(layer) {
		return false
	}
	gap, _, _ := geom.Gap(a.On(layer), b.On(layer))
	return gap <= 0
}

// Loops are those of what hangs together with tracks of the net, which the last Update knew, with all tracks that were looked at. Where too
// much hangs together or lies over each other, none are found.
func (n *NetLinks) Loops(tracks []design.ID) (out []Loop, looked map[design.ID]bool) {
	looked = map[design.ID]bool{}
	number := make([]int32, len(n.pieces))
	for i := range number {
		number[i] = -1
	}
	for _, id := range tracks {
		for _, i := range n.pads[id] {
			if c := n.pieces[i]; c.Kind == "track" && !looked[id] {
				if m := n.clump(i, bits.TrailingZeros32(c.Layers), number, looked); m != nil {
					out = append(out, m.Loops()...)
				}
			}
		}
	}
	return out, looked
}

// clump is what hangs together with a piece on a layer, as noted; its tracks are marked. nil: it is too much, or not all is noted, or not enough
// touches for a loop. number is −1 for each piece, and so it is left.
func (n *NetLinks) clump(from int32, layer int, number []int32, looked map[design.ID]bool) *Clump {
	all, touches := []int32{from}, 0
	number[from] = 0
	meets := func(i, j int32) bool {
		c, o := n.pieces[i], n.pieces[j]
		return o.Has(layer) && (len(c.Other) == 0 && len(o.Other) == 0 || touchingOn(layer, c, o))
	}
	for i := 0; i < len(all); i++ {
		if c := n.pieces[all[i]]; c.Kind == "track" {
			looked[c.ID] = true
		}
		for _, j := range n.touch[all[i]] {
			if !meets(all[i], j) {
				continue
			}
			touches++
			if mayMeetTwice(n.pieces[all[i]], n.pieces[j]) {
				touches++
			}
			if number[j] < 0 {
				number[j] = int32(len(all))
				all = append(all, j)
			}
		}
	}
	defer func() {
		for _, i := range all {
			number[i] = -1
		}
	}()
	if len(all) > mostOfClump || n.crowd || touches/2 < len(all) { // a tree has one less
		return nil
	}
	m := &Clump{Layer: layer}
	for _, i := range all {
		var touch []int
		for _, j := range n.touch[i] {
			if meets(i, j) {
				touch = append(touch, int(number[j]))
			}
		}
		m.Pieces, m.touch = append(m.Pieces, n.pieces[i]), append(m.touch, touch)
	}
	return m
}

// mayMeetTwice tells whether two tracks may touch at two places: more than their ends meet.
func mayMeetTwice(a, b *Copper) bool {
	if a.Kind != "track" || b.Kind != "track" {
		return false
	}
	p, q := a.Shape.Core(), b.Shape.Core()
	wide, high := min(p.Max.X, q.Max.X)-max(p.Min.X, q.Min.X), min(p.Max.Y, q.Max.Y)-max(p.Min.Y, q.Min.Y)
	return max(wide, high) > 2*min(a.Shape.R, b.Shape.R)
}

// Doubled is how far the middles of two tracks run over each other, and where; 0: they don't. Tracks that go on from each other, cross or
// fork run over each other for no longer than they are wide.
func Doubled(a, b *Copper) (long int64, at geom.Point) {
	p, q := a.Shape.Side(0), b.Shape.Side(0)
	if p.Round() || q.Round() {
		if p == q || p == q.Back() {
			return int64(p.Length()), p.Middle()
		}
		return 0, at
	}
	if p.Length() < q.Length() {
		p, q = q, p
	}
	whole := p.Length()
	if whole == 0 {
		return 0, at
	}
	// q in the coordinates along and across p
	ux, uy := float64(p.B.X-p.A.X)/whole, float64(p.B.Y-p.A.Y)/whole
	place := func(x geom.Point) (along, across float64) {
		dx, dy := float64(x.X-p.A.X), float64(x.Y-p.A.Y)
		return dx*ux + dy*uy, dy*ux - dx*uy
	}
	s, d := place(q.A)
	t, e := place(q.B)
	if s > t {
		s, d, t, e = t, e, s, d
	}
	beside := float64(max(a.Shape.R, b.Shape.R)) / 2
	if max(d, -d) > beside || max(e, -e) > beside {
		return 0, at
	}
	from, to := max(s, 0), min(t, whole)
	if to-from <= float64(2*max(a.Shape.R, b.Shape.R)) {
		return 0, at
	}
	return int64(to - from), p.At((from + to) / 2 / whole)
}
