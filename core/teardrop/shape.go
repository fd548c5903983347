package teardrop

import (
	"math"

	"goldentrace/core/geom"
)

// What is worth a teardrop: how much broader than the track it begins at the pad, on either side, in nanometres.
const worth = 25_000

// chords is into how many straight sides the curve of a flank is cut.
const chords = 8

// shape is the teardrop of an end in a share of its whole size: from across the pad its flanks bend, each a parabola, into the sides of
// the track. false: the pad is not broad enough, or the track too short.
func (f *Finder) shape(of end, share float64) (s geom.Shape, ok bool) {
	pad, at := of.pad.On(of.layer), of.from.A
	full := of.from.Length()
	way := line{of.from, full}
	half := float64(of.track.Shape.R)
	ahead := way.ahead(0)
	broad := min(inside(pad, at, ahead.left()), inside(pad, at, ahead.right()))
	leaves := way.within(pad)
	end := min(leaves+share*min(2*broad*float64(f.like.Length)/1000, float64(f.like.Most)), full, Farthest*5/6)
	// nowhere is it steeper than half a right angle
	begin := half + min(share*(min(broad*float64(f.like.Breadth)/1000, Farthest/2)-half), end-leaves)
	if begin-half < worth {
		return s, false
	}
	flank := func(side direction) []geom.Point {
		base := side.from(at, begin)
		along := min(inside(pad, base, ahead), end)
		a := ahead.from(base, along)
		b := way.beside(end, half, side == ahead.left())
		c := way.beside((along+end)/2, half, side == ahead.left())
		out := make([]geom.Point, 0, chords+1)
		for i := range chords + 1 {
			t := float64(i) / chords
			out = append(out, a.Towards(c, t).Towards(c.Towards(b, t), t))
		}
		return out
	}
	pts := flank(ahead.right())
	other := flank(ahead.left())
	for i := len(other) - 1; i >= 0; i-- {
		pts = append(pts, other[i])
	}
	return geom.Shape{Pts: pts, Area: true}, true
}

// direction of length 1.
type direction struct{ x, y float64 }

func (d direction) left() direction  { return direction{-d.y, d.x} }
func (d direction) right() direction { return direction{d.y, -d.x} }

// from is the place so far from another in the direction.
func (d direction) from(p geom.Point, far float64) geom.Point {
	return geom.Pt(p.X+int64(math.Round(d.x*far)), p.Y+int64(math.Round(d.y*far)))
}

// line is the middle of a track, with its length.
type line struct {
	geom.Piece
	full float64
}

// ahead is the direction of the line so far along it.
func (l line) ahead(along float64) direction {
	p, way := l.Piece, 1.0
	if along > 0 {
		p, way = l.Between(l.A, l.At(along/l.full)).Back(), -1
	}
	x, y := p.Leaves()
	n := math.Hypot(x, y) * way
	return direction{x / n, y / n}
}

// beside is the place beside the line so far along it.
func (l line) beside(along, far float64, left bool) geom.Point {
	d := l.ahead(along)
	if left {
		return d.left().from(l.At(along/l.full), far)
	}
	return d.right().from(l.At(along/l.full), far)
}

// within is how far along the line a pad reaches in which it begins.
func (l line) within(pad geom.Shape) float64 {
	lo, hi := 0.0, l.full
	if pad.Holds(l.B) && !l.Round() {
		return hi
	}
	for hi-lo > 100 {
		if mid := (lo + hi) / 2; pad.Holds(l.At(mid / l.full)) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return hi
}

// inside is how far in a direction from a place within it a pad reaches.
func inside(pad geom.Shape, at geom.Point, d direction) float64 {
	b := pad.Box()
	lo, hi := 0.0, float64(b.Max.X-b.Min.X+b.Max.Y-b.Min.Y)
	for hi-lo > 100 {
		if mid := (lo + hi) / 2; pad.Holds(d.from(at, mid)) {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo
}
