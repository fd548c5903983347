package landpattern

import (
	"fmt"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// The pad beneath a body that carries its heat away.

func (m *maker) checkThermal(lengthOf, widthOf string) error {
	if m.has("thermalLength") != m.has("thermalWidth") {
		return impossible("thermalWidth", "the exposed pad needs both length and width")
	}
	for _, x := range [][2]string{{"thermalLength", lengthOf}, {"thermalWidth", widthOf}} {
		if t, b := m.dim(x[0]), m.dim(x[1]); m.has(x[0]) && t.Max > b.Max {
			return impossible(x[0], "the exposed pad is up to %s, more than the body's %s", units.Text(t.Max), units.Text(b.Max))
		}
	}
	return nil
}

// thermalSize is the land for the exposed pad, as large as it is at most; nothing where there is none.
func (m *maker) thermalSize(x, y string) geom.Point {
	if !m.has("thermalLength") {
		return geom.Point{}
	}
	return geom.Pt(
		m.use("thermalWidth", "width of the land below", round(float64(m.dim(x).Max), m.r.Making.Round)),
		m.use("thermalLength", "length of the land below", round(float64(m.dim(y).Max), m.r.Making.Round)),
	)
}

// Windows parts a rectangle around the origin into columns and rows of windows whose sides are the given share of their cells': all alike, with
// half a gap at the edges.
func Windows(size geom.Point, columns, rows int64, share float64) [][]geom.Corner {
	var out [][]geom.Corner
	cell := geom.Pt(size.X/columns, size.Y/rows)
	half := geom.Pt(int64(float64(cell.X)*share)/2, int64(float64(cell.Y)*share)/2)
	for i := range columns {
		for k := range rows {
			c := geom.Pt(-size.X/2+cell.X/2+i*cell.X, -size.Y/2+cell.Y/2+k*cell.Y)
			out = append(out, geom.Corners(
				c.Add(geom.Pt(-half.X, -half.Y)), c.Add(geom.Pt(half.X, -half.Y)), c.Add(half), c.Add(geom.Pt(-half.X, half.Y))))
		}
	}
	return out
}

// thermal lays the land below with its paste windows and vias.
func (m *maker) thermal(size geom.Point, pin int) {
	if size.X <= 0 || size.Y <= 0 {
		return
	}
	p := design.Pad{Number: number(pin), Form: design.Rect, Size: size}
	// windows of about 1.2 mm with bridges between, together so much of the land
	cover := m.useCount("pasteCover", "paste on the land below, per cent", 65)
	share := math.Sqrt(float64(min(max(cover, 1), 100)) / 100)
	nx, ny := windows(size.X), windows(size.Y)
	p.Paste = &design.Opening{}
	p.Paste.Windows = Windows(size, nx, ny, share)
	m.pad(p)
	if m.choice("vias") != "grid" {
		return
	}
	drill := m.use("viaHole", "hole of a via in the land below", 300_000)
	land := m.use("viaLand", "land of such a via", 600_000)
	pitch := m.use("viaPitch", "distance of such vias", 1_200_000)
	if pitch <= 0 || land <= 0 || drill <= 0 {
		return
	}
	kx, ky := 1+(size.X-land)/pitch, 1+(size.Y-land)/pitch
	if size.X < land || size.Y < land {
		m.note("The land below is too small for vias of %s.", units.Text(land))
		return
	}
	kx, ky = min(kx, 40), min(ky, 40)
	for i := range kx {
		for k := range ky {
			m.pad(design.Pad{
				Number: number(pin), Form: design.Round, At: geom.Pt(-pitch*(kx-1)/2+i*pitch, -pitch*(ky-1)/2+k*pitch),
				Size: geom.Pt(land, land), Hole: drill, Paste: &design.Opening{None: true},
			})
		}
	}
}

func windows(size int64) int64 { return min(max((size+600_000)/1_200_000, 1), 10) }

// terminals is how many a name counts, the exposed pad among them.
func (m *maker) terminals() int {
	n := m.count("pins")
	if m.has("thermalLength") {
		n++
	}
	return n - len(m.left)
}

// hundredths writes the middle of a span in hundredths of a millimetre, as the standard's names do.
func hundredths(s design.Range) string {
	return fmt.Sprint(round(float64(s.Middle()), 10_000) / 10_000)
}

// tallest writes the greatest height in hundredths of a millimetre: names say the nominal length and width of a component, and how high it may be.
func tallest(s design.Range) string {
	return fmt.Sprint(round(float64(s.Max), 10_000) / 10_000)
}

// tenths writes the middle of a span in tenths of a millimetre, two digits at least, as names of two-terminal parts do.
func tenths(s design.Range) string {
	n := round(float64(s.Middle()), 100_000) / 100_000
	return fmt.Sprintf("%02d", n)
}

// suffix is the density's letter at the end of a name.
func (m *maker) suffix() string { return string("MNL"[level(m.r.Density)]) }

// holeSuffix is that of parts with leads through the board.
func (m *maker) holeSuffix() string { return string("ABC"[level(m.r.Density)]) }
