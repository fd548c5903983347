package reread

import (
	"fmt"
	"slices"
	"strings"

	"github.com/tidwall/rtree"

	"goldentrace/core/geom"
)

// Island is copper that is one piece through layers and plated holes.
type Island struct {
	Pins  []string // "R1.2", sorted
	Nets  []string // the net names its marks bear, sorted
	Marks int
}

// Trace follows the copper of the layers (top first) and the plated holes of the drill files,
// each through its own layers, and tells the islands that have pins, in the order of their
// first pin. Only what the files draw counts.
func Trace(copper []*Artwork, drills []*Drilling) ([]Island, error) {
	type piece struct{ layer, mark int }
	var pieces []piece
	trees := make([]rtree.RTreeG[int], len(copper))
	up := []int{}
	root := func(n int) int {
		for up[n] != n {
			up[n] = up[up[n]]
			n = up[n]
		}
		return n
	}
	join := func(a, b int) {
		ra, rb := root(a), root(b)
		up[max(ra, rb)] = min(ra, rb)
	}
	bounds := func(b geom.Box) (lo, hi [2]float64) {
		return [2]float64{float64(b.Min.X), float64(b.Min.Y)}, [2]float64{float64(b.Max.X), float64(b.Max.Y)}
	}
	for s, art := range copper {
		for m, mark := range art.Marks {
			if !mark.Dark {
				return nil, fmt.Errorf("copper layer %d clears copper, which cannot be traced yet", s+1)
			}
			n := len(pieces)
			pieces, up = append(pieces, piece{s, m}), append(up, n)
			for _, shape := range mark.Shapes {
				lo, hi := bounds(shape.Box())
				trees[s].Search(lo, hi, func(_, _ [2]float64, o int) bool {
					if o != n && root(o) != root(n) && touch(shape, art.Marks[pieces[o].mark].Shapes) {
						join(n, o)
					}
					return true
				})
			}
			for _, shape := range mark.Shapes {
				lo, hi := bounds(shape.Box())
				trees[s].Insert(lo, hi, n)
			}
		}
	}
	for _, d := range drills {
		if !d.Plated {
			continue
		}
		for _, h := range d.Holes {
			barrel := geom.Stroke(h.At, h.At.Add(h.Slot), h.Diameter)
			first := -1
			for s, art := range copper {
				if s+1 < d.From || s+1 > d.To {
					continue
				}
				lo, hi := bounds(barrel.Box())
				trees[s].Search(lo, hi, func(_, _ [2]float64, o int) bool {
					if touch(barrel, art.Marks[pieces[o].mark].Shapes) {
						if first >= 0 {
							join(first, o)
						}
						first = o
					}
					return true
				})
			}
		}
	}
	islands := map[int]*Island{}
	for n, p := range pieces {
		m := copper[p.layer].Marks[p.mark]
		is := islands[root(n)]
		if is == nil {
			is = &Island{}
			islands[root(n)] = is
		}
		is.Marks++
		if m.Pin != "" {
			is.Pins = append(is.Pins, m.Part+"."+m.Pin)
		}
		if m.Net != "" {
			is.Nets = append(is.Nets, m.Net)
		}
	}
	var out []Island
	for _, is := range islands {
		slices.Sort(is.Pins)
		slices.Sort(is.Nets)
		is.Pins, is.Nets = slices.Compact(is.Pins), slices.Compact(is.Nets)
		if len(is.Pins) > 0 {
			out = append(out, *is)
		}
	}
	slices.SortFunc(out, func(a, b Island) int { return strings.Compare(a.Pins[0], b.Pins[0]) })
	return out, nil
}

func touch(s geom.Shape, others []geom.Shape) bool {
	for _, o := range others {
		if meet(s, o) {
			return true
		}
	}
	return false
}

// meet tells whether two shapes touch or overlap. Of a region of many sides only those near the other shape are measured.
func meet(s, o geom.Shape) bool {
	const many = 24
	if len(s.Pts) > len(o.Pts) {
		s, o = o, s
	}
	if !o.Area || o.R != 0 || o.Mids != nil || len(o.Pts) < many {
		gap, _, _ := geom.Gap(s, o)
		return gap <= 0
	}
	box := s.Box()
	for i, a := range o.Pts {
		b := o.Pts[(i+1)%len(o.Pts)]
		if max(a.X, b.X) < box.Min.X || min(a.X, b.X) > box.Max.X || max(a.Y, b.Y) < box.Min.Y || min(a.Y, b.Y) > box.Max.Y {
			continue
		}
		if gap, _, _ := geom.Gap(s, geom.Stroke(a, b, 0)); gap <= 0 {
			return true
		}
	}
	return geom.InPolygon(s.Pts[0], o.Pts) // none of its sides is met: all within, or all without
}
