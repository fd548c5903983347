package route

import (
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// reachOf is over how many corners a shortcut is tried.
const reachOf = 14

// leastBevel is how much of a square corner is cut off at least, in nanometres.
const leastBevel = 50_000

// lane is what a path is of: the width, layer and net of a track, and the field that it lies in.
type lane struct {
	f     Field
	width int64
	layer int
	net   design.ID
}

func (l lane) passes(path []geom.Point) bool { return l.f.passes(path, l.width, l.layer, l.net) }

// tightened is a path of the same ends that is no longer than the given one: shortcuts are taken where they fit, pieces are slid towards
// the inside of their turns as far as the rules let them, and square corners are cut off.
func (l lane) tightened(path []geom.Point) []geom.Point {
	path = plain(path)
	for range 8 {
		next := l.slack(l.shortcuts(path))
		if Length(next) >= Length(path) && len(next) >= len(path) {
			break
		}
		path = next
	}
	return l.gentle(path)
}

// shortcuts leads the path straight past corners where that fits.
func (l lane) shortcuts(path []geom.Point) []geom.Point {
	for i := 0; i+2 < len(path); i++ {
		for j := min(i+reachOf, len(path)-1); j >= i+2; j-- {
			was := Length(path[i : j+1])
			best := l.between(path, i, j, was)
			if best == nil {
				continue
			}
			next := append(append([]geom.Point{}, path[:i]...), best...)
			path = plain(append(next, path[j+1:]...))
			i = max(i-2, -1)
			break
		}
	}
	return path
}

// between is a way with one corner at most that is better than the path from i to j; nil: there is none that fits.
func (l lane) between(path []geom.Point, i, j int, was int64) (best []geom.Point) {
	for _, style := range []Corner{StraightFirst, DiagonalFirst} {
		way := Path(path[i], path[j], style)
		long := Length(way)
		if long > was+1 || long > was-1 && len(way) >= j-i+1 || best != nil && long >= was {
			continue
		}
		if sharp(path, i, j, way) || !l.passes(way) {
			continue
		}
		best, was = way, long
	}
	return best
}

// gentle leads square corners over cut-off ones, where that is shorter and free.
func (l lane) gentle(path []geom.Point) []geom.Point {
	for k := 1; k+1 < len(path); k++ {
		u, v := path[k].Sub(path[k-1]), path[k+1].Sub(path[k])
		if u.X*v.X+u.Y*v.Y != 0 {
			continue
		}
	around:
		for i := k - 1; i >= max(k-2, 0); i-- {
			for j := k + 1; j <= min(k+2, len(path)-1); j++ {
				for _, corner := range []geom.Point{geom.Pt(path[i].X, path[j].Y), geom.Pt(path[j].X, path[i].Y), path[k]} {
					if corner == path[k] && (i != k-1 || j != k+1) {
						continue
					}
					way := l.bevelled(path[i], corner, path[j])
					if way != nil && Length(way) < Length(path[i:j+1])-1 && !sharp(path, i, j, way) {
						path = plain(append(append(slices.Clone(path[:i]), way...), path[j+1:]...))
						break around
					}
				}
			}
		}
	}
	return path
}

// bevelled is the way over a square corner of axes or of diagonals with the corner cut off as far as that is free; nil: it is not free at all.
func (l lane) bevelled(a, corner, b geom.Point) []geom.Point {
	if !octal(corner.Sub(a)) || !octal(b.Sub(corner)) {
		return nil
	}
	most := min(steps(a, corner), steps(corner, b))
	cut := func(by int64) []geom.Point {
		u, v := unit(a.Sub(corner)), unit(b.Sub(corner))
		return plain([]geom.Point{a, corner.Add(geom.Pt(u.X*by, u.Y*by)), corner.Add(geom.Pt(v.X*by, v.Y*by)), b})
	}
	lo, hi := int64(leastBevel), most
	if lo >= hi || !l.passes(cut(lo)) {
		return nil
	}
	for hi-lo > 1000 {
		if mid := (lo + hi) / 2; l.passes(cut(mid)) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return cut(lo)
}

// steps is how long a piece along an axis or a diagonal is, in steps of its unit.
func steps(a, b geom.Point) int64 { return max(abs(b.X-a.X), abs(b.Y-a.Y)) }

// sharp tells whether a way in place of the path from i to j would make a turn of more than 90° where the path had none.
func sharp(path []geom.Point, i, j int, way []geom.Point) bool {
	n := len(way)
	if n < 2 {
		return false
	}
	return i > 0 && !along(way[1].Sub(way[0]), path[i].Sub(path[i-1])) ||
		j+1 < len(path) && !along(path[j+1].Sub(path[j]), way[n-1].Sub(way[n-2]))
}

// slack slides every piece between two others towards the side on which the path gets shorter, as far as it may.
func (l lane) slack(path []geom.Point) []geom.Point {
	for i := 1; i+2 < len(path); i++ {
		e, _ := normal(path[i], path[i+1])
		if e == (geom.Point{}) {
			continue
		}
		for _, way := range []int64{1, -1} {
			step := geom.Pt(way*e.X, way*e.Y)
			if next, moved := l.furthestSlide(path, i, step); moved {
				path = plain(next)
				break
			}
		}
	}
	return path
}

// furthestSlide slides a piece as far as it may while the path gets shorter, to a nanometre's step.
func (l lane) furthestSlide(path []geom.Point, i int, e geom.Point) ([]geom.Point, bool) {
	was := Length(path)
	try := func(k int64) []geom.Point {
		next, ok := slid(path, i, geom.Pt(k*e.X, k*e.Y))
		if !ok || Length(next) >= was || !l.passes(next[i-1:i+3]) {
			return nil
		}
		return next
	}
	if try(1000) == nil { // a micrometre is the least that is worth a change
		return nil, false
	}
	// how far the pieces beside it let it go at most
	top := int64(1000)
	for top < 1<<40 {
		if _, ok := slid(path, i, geom.Pt(2*top*e.X, 2*top*e.Y)); !ok {
			break
		}
		top *= 2
	}
	lo, hi := int64(1000), 2*top
	if whole := try(lo + dissolving(path, i, e)); whole != nil {
		return whole, true
	}
	for hi-lo > 1 {
		mid := (lo + hi) / 2
		if try(mid) != nil {
			lo = mid
		} else {
			hi = mid
		}
	}
	return try(lo), true
}

// dissolving is how far beyond a micrometre a piece may be slid until it or one beside it has no length left.
func dissolving(path []geom.Point, i int, e geom.Point) int64 {
	lo, hi := int64(1000), int64(1)<<41
	for hi-lo > 1 {
		mid := (lo + hi) / 2
		if _, ok := slid(path, i, geom.Pt(mid*e.X, mid*e.Y)); ok {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo - 1000
}
