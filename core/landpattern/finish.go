package landpattern

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// What a footprint has beside its pads: silk, assembly outline, mark, courtyard, places of texts.

// finish draws it all, as far as the recipe wants it.
func (m *maker) finish() {
	mk := &m.r.Making
	if mk.Makes(design.MakeSilk) {
		m.silk()
	}
	if mk.Makes(design.MakeMark) && m.marked >= 0 && m.marked < len(m.f.Pads) {
		m.mark()
	}
	if mk.Makes(design.MakeOutline) {
		m.assembly()
	}
	yard := m.yard()
	if mk.Makes(design.MakeCourtyard) {
		m.f.Courtyard = yard
	}
	if !mk.Makes(design.MakeBody) {
		m.f.Solids = nil
	}
	box := geom.BoxOf(yard...)
	m.f.DesignatorAt = geom.Pt(0, box.Max.Y+850_000)
	at := geom.Pt(0, box.Min.Y-850_000)
	m.f.ValueAt = &at
	m.f.Description = m.family.Words + ", " + m.out.Name
}

// padBox is the room of a pad's copper, the hole's own included.
func padBox(p *design.Pad) geom.Box {
	half := geom.Pt(p.Size.X/2, p.Size.Y/2)
	return geom.BoxOf(p.At.Sub(half), p.At.Add(half))
}

// keepOff is how far the middle of a silk line stays from a pad's copper.
func (m *maker) keepOff() int64 { return m.r.Making.SilkGap + m.r.Making.SilkWidth/2 }

// silk draws the body's outline, its line just outside, where no pad is in the way.
func (m *maker) silk() {
	out := m.r.Making.SilkWidth / 2
	if c, r, ok := circleOf(m.outline); ok {
		m.silkCircle(c, r+out)
		return
	}
	ring := grown(geom.Places(m.outline), out)
	for i := range ring {
		m.silkLine(ring[i], ring[(i+1)%len(ring)])
	}
}

// leastSilk is how long a piece of silk must be to say something; between the leads of a row more is asked for than between two lands.
func (m *maker) leastSilk() float64 {
	if len(m.f.Pads) > 2 {
		return 450_000
	}
	return 200_000
}

// silkLine draws what of a straight line keeps off the pads.
func (m *maker) silkLine(a, b geom.Point) {
	type gap struct{ from, to float64 }
	var gaps []gap
	for i := range m.f.Pads {
		box := padBox(&m.f.Pads[i]).Grow(m.keepOff())
		from, to := 0.0, 1.0
		clip := func(p, d, lo, hi int64) bool { // the part of the line between two limits
			if d == 0 {
				return p > lo && p < hi
			}
			t0, t1 := float64(lo-p)/float64(d), float64(hi-p)/float64(d)
			from, to = max(from, min(t0, t1)), min(to, max(t0, t1))
			return true
		}
		if clip(a.X, b.X-a.X, box.Min.X, box.Max.X) && clip(a.Y, b.Y-a.Y, box.Min.Y, box.Max.Y) && from < to {
			gaps = append(gaps, gap{from, to})
		}
	}
	long := a.Dist(b)
	at := 0.0
	for at < 1 {
		next, past := 1.0, 1.0 // where the line is stopped next, and from where it goes on
		for _, g := range gaps {
			if g.from <= at && g.to > at {
				next, past = at, g.to
				break
			}
			if g.from > at && g.from < next {
				next, past = g.from, g.to
			}
		}
		if (next-at)*long >= m.leastSilk() {
			m.f.Silk = append(m.f.Silk, m.stroke(along(a, b, at), along(a, b, next)))
		}
		at = max(past, next)
	}
}

func along(a, b geom.Point, t float64) geom.Point {
	return geom.Pt(a.X+int64(math.Round(t*float64(b.X-a.X))), a.Y+int64(math.Round(t*float64(b.Y-a.Y))))
}

// silkCircle draws what of a circle keeps off the pads.
func (m *maker) silkCircle(c geom.Point, r int64) {
	const steps = 720
	at := func(i int) geom.Point {
		a := 2 * math.Pi * float64(i) / steps
		return c.Add(geom.Pt(int64(math.Round(float64(r)*math.Cos(a))), int64(math.Round(float64(r)*math.Sin(a)))))
	}
	open := make([]bool, steps)
	first := -1 // a stop, from where to go round
	for i := range steps {
		open[i] = true
		for k := range m.f.Pads {
			if padBox(&m.f.Pads[k]).Grow(m.keepOff()).Holds(at(i)) {
				open[i] = false
				first = i
			}
		}
	}
	if first < 0 {
		m.f.Silk = append(m.f.Silk, design.Figure{Form: "circle", Pts: []geom.Point{c}, R: r, Width: m.r.Making.SilkWidth})
		return
	}
	for i := 1; i <= steps; i++ {
		if !open[(first+i)%steps] {
			continue
		}
		from := i
		for i < steps && open[(first+i+1)%steps] {
			i++
		}
		if float64(i-from)*2*math.Pi/steps*float64(r) >= m.leastSilk() {
			m.f.Silk = append(m.f.Silk, design.Figure{Form: "arc", Pts: []geom.Point{at(first + from), at(first + (from+i)/2), at(first + i)}, Width: m.r.Making.SilkWidth})
		}
	}
}

func (m *maker) stroke(pts ...geom.Point) design.Figure {
	return design.Figure{Form: "line", Pts: pts, Width: m.r.Making.SilkWidth}
}

// mark tells which pad is the first: a bar beyond the marked pad of two, else a dot beside it, outside the body
// and nearer to it than to any other.
func (m *maker) mark() {
	pad := padBox(&m.f.Pads[m.marked])
	body := geom.BoxOf(geom.Named(m.outline)...)
	if len(m.f.Pads) == 2 {
		x := min(pad.Min.X-m.keepOff(), body.Min.X-m.r.Making.SilkWidth*3/2)
		half := max((pad.Max.Y-pad.Min.Y)/2, 300_000)
		y := pad.Centre().Y
		m.f.Silk = append(m.f.Silk, m.stroke(geom.Pt(x, y-half), geom.Pt(x, y+half)))
		return
	}
	r := min(max(min(pad.Max.X-pad.Min.X, pad.Max.Y-pad.Min.Y)/3, 100_000), 250_000)
	off := r + m.r.Making.SilkGap
	c := pad.Centre()
	left, top := min(pad.Min.X, body.Min.X)-off, max(pad.Max.Y, body.Max.Y)+off
	tries := []geom.Point{
		geom.Pt(c.X, pad.Max.Y+off), geom.Pt(pad.Min.X-off, c.Y),
		geom.Pt(body.Min.X-off, pad.Max.Y+off), geom.Pt(left, c.Y), geom.Pt(c.X, top), geom.Pt(left, top),
	}
	for _, at := range tries {
		if m.marks(at, r, body) {
			m.dot(at, r)
			return
		}
	}
	m.dot(geom.Pt(left, top), r)
}

func (m *maker) dot(at geom.Point, r int64) {
	// a ring filled by its own line
	m.f.Silk = append(m.f.Silk, design.Figure{Form: "circle", Pts: []geom.Point{at}, R: r / 2, Width: r})
}

// marks tells whether a dot says which pad is meant, and is clear of body and copper.
func (m *maker) marks(at geom.Point, r int64, body geom.Box) bool {
	room := geom.BoxOf(at).Grow(r)
	if body.Grow(m.r.Making.SilkWidth).Meets(room) {
		return false
	}
	own := math.Inf(1)
	others := math.Inf(1)
	for i := range m.f.Pads {
		b := padBox(&m.f.Pads[i])
		if b.Grow(m.r.Making.SilkGap).Grow(-1).Meets(room) {
			return false
		}
		d := b.Centre().Dist(at)
		if i == m.marked {
			own = d
		} else {
			others = min(others, d)
		}
	}
	return own < others
}

// assembly draws the body for the assembly drawing; of a body with more than two terminals, or two that differ,
// the corner at the first is cut off.
func (m *maker) assembly() {
	if c, r, ok := circleOf(m.outline); ok {
		m.f.Body = append(m.f.Body, design.Figure{Form: "circle", Pts: []geom.Point{c}, R: r})
		if m.marked >= 0 {
			p := m.f.Pads[m.marked].At
			m.f.Body = append(m.f.Body, design.Figure{Form: "circle", Pts: []geom.Point{p}, R: max(r/10, 100_000)})
		}
		return
	}
	pts := geom.Places(m.outline)
	if m.marked >= 0 && len(pts) == 4 {
		b := geom.BoxOf(pts...)
		cut := min(min(b.Max.X-b.Min.X, b.Max.Y-b.Min.Y)/4, 1_000_000)
		pts = []geom.Point{b.Min, geom.Pt(b.Max.X, b.Min.Y), b.Max, geom.Pt(b.Min.X+cut, b.Max.Y), geom.Pt(b.Min.X, b.Max.Y-cut)}
	}
	m.f.Body = append(m.f.Body, design.Figure{Form: "line", Pts: append(pts, pts[0])})
}

// yard is the courtyard: body, pads and what is printed, with the excess of the density around body and pads, rounded
// outwards.
func (m *maker) yard() []geom.Point {
	var e geom.Extent
	for i := range m.f.Pads {
		e.AddBox(padBox(&m.f.Pads[i]))
	}
	c, r, round := circleOf(m.outline)
	if !round {
		e.Add(geom.Named(m.outline)...)
	} else {
		e.AddBox(geom.BoxOf(c).Grow(r))
	}
	e.Box = e.Box.Grow(m.excess)
	for _, f := range m.f.Silk {
		e.AddBox(geom.BoxOf(f.Pts...).Grow(f.R + f.Width/2))
	}
	to := m.r.Making.YardRound
	x0, y0 := -up(float64(-e.Box.Min.X), to), -up(float64(-e.Box.Min.Y), to)
	x1, y1 := up(float64(e.Box.Max.X), to), up(float64(e.Box.Max.Y), to)
	l := m.use("yardLeft", "courtyard, left", -x0)
	b := m.use("yardBottom", "courtyard, below", -y0)
	rr := m.use("yardRight", "courtyard, right", x1)
	t := m.use("yardTop", "courtyard, above", y1)
	return []geom.Point{geom.Pt(-l, -b), geom.Pt(rr, -b), geom.Pt(rr, t), geom.Pt(-l, t)}
}

// circleOf is the circle that two arcs make.
func circleOf(edge []geom.Corner) (c geom.Point, r int64, ok bool) {
	if len(edge) != 2 || edge[0].Mid == nil {
		return geom.Point{}, 0, false
	}
	c = edge[0].Towards(edge[1].Point, 0.5)
	return c, int64(math.Round(c.Dist(edge[0].Point))), true
}

// grown is a convex polygon, anticlockwise, with every side moved outwards.
func grown(pts []geom.Point, by int64) []geom.Point {
	n := len(pts)
	out := make([]geom.Point, n)
	normal := func(i int) (x, y float64) {
		a, b := pts[i], pts[(i+1)%n]
		d := a.Dist(b)
		return float64(b.Y-a.Y) / d, float64(a.X-b.X) / d
	}
	for i := range pts { // the corner between side i−1 and side i
		x0, y0 := normal((i + n - 1) % n)
		x1, y1 := normal(i)
		k := float64(by) / (1 + x0*x1 + y0*y1)
		out[i] = pts[i].Add(geom.Pt(int64(math.Round(k*(x0+x1))), int64(math.Round(k*(y0+y1)))))
	}
	return out
}
