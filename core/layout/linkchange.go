package layout

import (
	"cmp"

	"goldentrace/core/geom"
)

// LinkChange is what changed of a net's open links, which have an order. With neither Gone nor At, Come
// is all there are now.
type LinkChange struct {
	Gone []int  `json:"gone,omitempty"` // places in the former list, ascending
	Come []Link `json:"come,omitempty"`
	At   []int  `json:"at,omitempty"` // places in the list as it is now, ascending
}

// Changed tells what changed from one list to the other, and whether anything did. Of lists that have
// little in common it gives the later one whole.
func Changed(was, is []Link) (c LinkChange, anything bool) {
	i, j := 0, 0
	for i < len(was) || j < len(is) {
		switch {
		case j == len(is), i < len(was) && was[i] != is[j] && was[i].compare(is[j]) <= 0:
			c.Gone = append(c.Gone, i)
			i++
		case i < len(was) && was[i] == is[j]:
			i, j = i+1, j+1
		default:
			c.Come, c.At = append(c.Come, is[j]), append(c.At, j)
			j++
		}
	}
	if n := len(c.Gone) + len(c.Come); n == 0 || n <= len(is)/2 {
		return c, n > 0
	}
	return LinkChange{Come: is}, true
}

// compare is the order of links, as NetLinks finds them.
func (l Link) compare(o Link) int {
	order := func(p, q geom.Point) int { return cmp.Or(cmp.Compare(p.Y, q.Y), cmp.Compare(p.X, q.X)) }
	ends := func(l Link) (d float64, low, high geom.Point) {
		if order(l.A, l.B) > 0 {
			l.A, l.B = l.B, l.A
		}
		x, y := float64(l.A.X-l.B.X), float64(l.A.Y-l.B.Y)
		return x*x + y*y, l.A, l.B
	}
	d, a, b := ends(l)
	e, p, q := ends(o)
	return cmp.Or(cmp.Compare(d, e), order(a, p), order(b, q))
}
