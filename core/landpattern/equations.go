package landpattern

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/units"
)

// lead is what the equations need of a pair of terminals that face away from each other: their outer
// distance, how long each is, how wide.
type lead struct {
	span, length, width design.Range
}

// lands are what the equations give: outer and inner distance and width of the lands.
type lands struct{ z, g, x float64 }

// inner is the distance between the terminals, Smin and Smax, with the tolerance taken as the root of
// the sum of squares of what makes it (IPC-7351B 3.1.5.2).
func (l lead) inner() (least, most, tolerance float64) {
	least = float64(l.span.Min - 2*l.length.Max)
	most = float64(l.span.Max - 2*l.length.Min)
	worst := most - least
	tolerance = math.Sqrt(square(l.span.Max-l.span.Min) + 2*square(l.length.Max-l.length.Min))
	return least + (worst-tolerance)/2, most - (worst-tolerance)/2, tolerance
}

func square(v int64) float64 { return float64(v) * float64(v) }

// solve is the standard's three equations (IPC-7351B 3.1.5.5):
//
//	Zmax = Lmin + 2·JT + √(CL² + F² + P²)
//	Gmin = Smax − 2·JH − √(CS² + F² + P²)
//	Xmax = Wmin + 2·JS + √(CW² + F² + P²)
func (l lead) solve(j fillet, m *design.Making) lands {
	fp := square(m.Fabrication) + square(m.Placement)
	_, smax, cs := l.inner()
	return lands{
		z: float64(l.span.Min+2*j.outer) + math.Sqrt(square(l.span.Max-l.span.Min)+fp),
		g: smax - float64(2*j.inner) - math.Sqrt(cs*cs+fp),
		x: float64(l.width.Min+2*j.side) + math.Sqrt(square(l.width.Max-l.width.Min)+fp),
	}
}

// hold checks that a pair of terminals can be.
func (l lead) hold(spanKey, span, lengthKey, length string) error {
	if 2*l.length.Max >= l.span.Min {
		return impossible(lengthKey, "the %s (up to %s) is too long: two do not fit into the %s of %s",
			length, units.Text(l.length.Max), span, units.Text(l.span.Min))
	}
	return nil
}

// pair is a pair of lands: how long and wide each is, and how far their middles are apart.
type pair struct{ length, width, span int64 }

// outer and inner edge, from the middle between both.
func (p pair) outer() int64 { return (p.span + p.length) / 2 }
func (p pair) inner() int64 { return (p.span - p.length) / 2 }

// pair rounds the lands to the grid, keeps the gap between them, and lets the recipe override. Suffix tells
// several pairs of a footprint apart.
func (m *maker) pair(l lands, suffix, words string, leastGap int64) pair {
	grid := 2 * m.r.Making.Round
	z, g := round(l.z, grid), round(l.g, grid)
	if g < leastGap {
		was := g
		g = up(float64(leastGap), grid)
		m.note("The lands%s would be %s apart inside; they are kept %s apart.", words, units.Text(was), units.Text(g))
	}
	if z <= g {
		z = g + grid
	}
	return pair{
		length: m.use("padLength"+suffix, "pad length"+words, (z-g)/2),
		width:  m.use("padWidth"+suffix, "pad width"+words, max(round(l.x, m.r.Making.Round), m.r.Making.Round)),
		span:   m.use("padSpan"+suffix, "distance between middles"+words, (z+g)/2),
	}
}

// narrow keeps the gap between neighbours at a pitch, by taking it off the width.
func (m *maker) narrow(l *lands, pitch int64) {
	most := pitch - m.r.Making.Gap
	if l.x > float64(most) {
		if most <= 0 {
			most = pitch / 2
		}
		most = max(most/m.r.Making.Round, 1) * m.r.Making.Round
		m.note("The lands would be %s wide; at a pitch of %s they are kept to %s.", units.Text(int64(l.x)), units.Text(pitch), units.Text(most))
		l.x = float64(most)
	}
}

// hole is the drill for a lead of so thick at most, and the land around it.
func (m *maker) hole(thickest int64, pitch int64) (drill, land int64) {
	i := level(m.r.Density)
	drill = m.use("hole", "hole", up(float64(thickest+holeOver[i]), 50_000))
	most := up(float64(drill+2*ring+allowance[i]), 50_000)
	if pitch > 0 && most > pitch-m.r.Making.Gap {
		least := drill + 2*ring
		kept := max(least, pitch-m.r.Making.Gap)
		m.note("The lands would be %s; at a pitch of %s they are kept to %s.", units.Text(most), units.Text(pitch), units.Text(kept))
		most = kept
	}
	return drill, m.use("padDiameter", "land around the hole", most)
}
