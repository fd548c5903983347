package geom

import (
	"cmp"
	"errors"
	"fmt"
	"slices"

	"goldentrace/core/units"
)

// CutAcross cuts a closed line in two along a line that leads across it, from edge to edge; what of that lies outside does not count.
// Both parts are closed lines the same way round.
func CutAcross(c []Corner, line []Point) (one, other []Corner, err error) {
	type meeting struct {
		side int
		at   Point
		leg  int
		far  float64
	}
	var met []meeting
	for i, p := range Closing(c) {
		for _, part := range p.quarters() {
			for j := 0; j+1 < len(line); j++ {
				if line[j] == line[j+1] {
					continue
				}
				d, _, at := PieceDistance(Straight(line[j], line[j+1]), part)
				if d > 1 || slices.ContainsFunc(met, func(m meeting) bool { return m.at.Dist(at) < 1000 }) {
					continue
				}
				met = append(met, meeting{i, at, j, line[j].Dist(at)})
			}
		}
	}
	switch {
	case len(met) < 2:
		return nil, nil, errors.New("the line does not lead across: it has to cross the edge on both sides")
	case len(met) > 2:
		return nil, nil, fmt.Errorf("the line crosses the edge %d times; it has to lead across once", len(met))
	}
	slices.SortFunc(met, func(x, y meeting) int { return cmp.Or(cmp.Compare(x.leg, y.leg), cmp.Compare(x.far, y.far)) })
	first, second := met[0], met[1]
	inner := slices.Clone(line[first.leg+1 : second.leg+1])
	ring := cloned(c)
	// corners at both, the later side first, so that the other keeps its place
	put := func(m meeting) int {
		n := len(ring)
		for _, i := range []int{m.side, (m.side + 1) % n} {
			if ring[i].Point.Dist(m.at) < 1000 {
				return i
			}
		}
		ring = SplitSide(ring, m.side, m.at)
		return m.side + 1
	}
	p, q := first, second
	turned := first.side > second.side || first.side == second.side && ring[first.side].Dist(first.at) > ring[first.side].Dist(second.at)
	if turned {
		p, q = second, first
		slices.Reverse(inner)
	}
	b := put(q)
	n := len(ring)
	a := put(p)
	if len(ring) > n && a <= b {
		b++
	}
	straight := func(from, to int) (out []Corner) {
		for i := from; ; i = (i + 1) % len(ring) {
			if i == to {
				return append(out, Corner{Point: ring[i].Point})
			}
			out = append(out, ring[i])
		}
	}
	one = straight(a, b)
	for _, x := range slices.Backward(inner) {
		one = append(one, Corner{Point: x})
	}
	other = straight(b, a)
	for _, x := range inner {
		other = append(other, Corner{Point: x})
	}
	for _, part := range [][]Corner{one, other} {
		ring := Closing(part)
		if at, bad := Crossing(ring); bad || ring.Area() < 1e6 {
			return nil, nil, fmt.Errorf("the line crosses itself, or runs along the edge, near %s, %s", units.Text(at.X), units.Text(at.Y))
		}
	}
	return one, other, nil
}

// quarters are the parts of a round piece, none longer than a quarter of a turn; a straight one is its only part.
func (p Piece) quarters() []Piece {
	if !p.Round() {
		return []Piece{p}
	}
	var out []Piece
	last := p.A
	for k := 1; k <= 4; k++ {
		next := p.B
		if k < 4 {
			next = p.At(float64(k) / 4)
		}
		out = append(out, Piece{A: last, M: p.At((float64(k) - 0.5) / 4), B: next})
		last = next
	}
	return out
}
