package route

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// sample is how far apart the places are at which it is asked which width holds, in nanometres.
const sample = 200_000

// widths cuts a line into legs of one width each: as the rules say by place, unless one was typed; and narrower, where the track may
// narrow and only that fits.
func (f Field) widths(d Drawing, line []geom.Corner, usual int64) []Leg {
	byPlace := d.Width == 0 && f.Rules.ByPlace(design.TrackWidth)
	if len(line) < 2 || !byPlace && !d.Neck {
		return []Leg{{Layer: d.Layer, Width: usual, Path: line}}
	}
	at := func(a, b geom.Point) int64 {
		w := Wish{Shape: geom.Disc(a.Towards(b, 0.5), 0), Layers: 1 << d.Layer, Net: d.Net, Thing: design.ATrack}
		width := usual
		if byPlace {
			width = f.Usual(design.TrackWidth, w)
		}
		if d.Neck && !f.Free(track(a, b, width, d.Layer, d.Net)) {
			if least := f.Usual(design.LeastWidth, w); least < width {
				width = least
			}
		}
		return width
	}
	var out []Leg
	add := func(width int64, from geom.Corner, to geom.Point) {
		if n := len(out) - 1; n >= 0 && out[n].Width == width {
			p := out[n].Path
			p[len(p)-1] = from
			if k := len(p); from.Mid == nil && k >= 2 && p[k-2].Mid == nil && straight(p[k-2].Point, from.Point, to) {
				p = p[:k-1]
			}
			out[n].Path = append(p, geom.Corner{Point: to})
			return
		}
		out = append(out, Leg{Layer: d.Layer, Width: width, Path: []geom.Corner{from, {Point: to}}})
	}
	for i := 0; i+1 < len(line); i++ {
		p := line[i].PieceTo(line[i+1])
		if p.Round() {
			add(at(p.Middle(), p.Middle()), line[i], p.B)
			continue
		}
		steps := max(1, int(p.Length()/sample))
		last := p.A
		for k := 1; k <= steps; k++ {
			next := p.A.Towards(p.B, float64(k)/float64(steps))
			add(at(last, next), geom.Corner{Point: last}, next)
			last = next
		}
	}
	return out
}

// Widened are the legs that a leg without a width of its own makes: cut where the rules ask for another width.
func (f Field) Widened(l Leg, net design.ID) []Leg {
	if l.Width > 0 || len(l.Path) == 0 {
		return []Leg{l}
	}
	usual := f.Usual(design.TrackWidth, Wish{Shape: geom.Disc(l.Path[0].Point, 0), Layers: 1 << l.Layer, Net: net, Thing: design.ATrack})
	out := f.widths(Drawing{Net: net, Layer: l.Layer}, l.Path, usual)
	out[0].Hop = l.Hop
	return out
}
