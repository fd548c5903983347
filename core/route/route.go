// Package route lays tracks by hand: the way from a start to the hand at the corner style
// in use, cut short before it would come nearer to foreign copper, a hole or the edge than
// the rules allow. Lengths are nanometres.
package route

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Corner says how a track turns between two places.
type Corner string

// Corner styles: with one 45° elbow, the diagonal last or first; one square elbow; none.
const (
	StraightFirst Corner = "straightFirst"
	DiagonalFirst Corner = "diagonalFirst"
	Square        Corner = "square"
	Free          Corner = "free"
)

// Path is the way from a to b in the corner style, both included.
func Path(a, b geom.Point, style Corner) []geom.Point {
	dx, dy := b.X-a.X, b.Y-a.Y
	ax, ay := abs(dx), abs(dy)
	if a == b {
		return []geom.Point{a}
	}
	if style == Free || dx == 0 || dy == 0 || ax == ay && style != Square {
		return []geom.Point{a, b}
	}
	if style == Square {
		return []geom.Point{a, geom.Pt(b.X, a.Y), b}
	}
	diagonal := min(ax, ay)
	step := geom.Pt(sign(dx)*diagonal, sign(dy)*diagonal)
	if style == DiagonalFirst {
		return []geom.Point{a, a.Add(step), b}
	}
	return []geom.Point{a, b.Sub(step), b}
}

func abs(v int64) int64 {
	if v < 0 {
		return -v
	}
	return v
}

func sign(v int64) int64 {
	if v < 0 {
		return -1
	}
	return 1
}

// Probe is how far a track may go on one straight or bent way.
type Probe struct {
	Path    []geom.Point // what may be laid, from the start
	Blocked *Obstacle    // why it ends before the hand
	Rest    []geom.Point // from there to the hand, not allowed
}

// Draw finds how far a track of the net may go from a to b. Each piece is tried whole; one
// that may not lie whole is halved until its allowed length is known to a micrometre.
func (f Field) Draw(a, b geom.Point, style Corner, layer int, net design.ID, width int64) Probe {
	way := Path(a, b, style)
	out := Probe{Path: []geom.Point{a}}
	for i := 0; i+1 < len(way); i++ {
		p, q := way[i], way[i+1]
		if o := f.Clear(track(p, q, width, layer, net)); o != nil {
			out.Blocked = o
			end := f.furthest(p, q, layer, net, width)
			if end != p {
				out.Path = append(out.Path, end)
			}
			out.Rest = append([]geom.Point{end}, way[i+1:]...)
			break
		}
		out.Path = append(out.Path, q)
	}
	return out
}

func track(p, q geom.Point, width int64, layer int, net design.ID) Wish {
	return Wish{Shape: geom.Stroke(p, q, width), Layers: 1 << layer, Net: net, Thing: design.ATrack}
}

func (f Field) furthest(p, q geom.Point, layer int, net design.ID, width int64) geom.Point {
	lo, hi := 0.0, 1.0
	total := p.Dist(q)
	for (hi-lo)*total > 1000 {
		mid := (lo + hi) / 2
		if f.Clear(track(p, p.Towards(q, mid), width, layer, net)) == nil {
			lo = mid
		} else {
			hi = mid
		}
	}
	end := p.Towards(q, lo)
	if lo == 0 || f.Clear(track(p, end, width, layer, net)) != nil {
		return p
	}
	return end
}

// Length of a path in nanometres.
func Length(path []geom.Point) int64 {
	sum := 0.0
	for i := 0; i+1 < len(path); i++ {
		sum += path[i].Dist(path[i+1])
	}
	return int64(math.Round(sum))
}
