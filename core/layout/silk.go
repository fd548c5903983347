package layout

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/lettering"
)

// DesignatorHeight of the capitals of designators printed on the board.
const DesignatorHeight = 1_000_000

// SilkLines are the centre lines of what is printed of a part: its footprint's drawing and
// its designator, which never stands on its head. Circles become polygons.
func SilkLines(d *design.Doc, p *design.Placed) [][]geom.Point {
	f := d.Footprint(p.Footprint)
	if f == nil {
		return nil
	}
	t := p.Pose()
	var out [][]geom.Point
	for _, fig := range f.Silk {
		for _, line := range FigureLines(fig) {
			out = append(out, t.ApplyAll(line))
		}
	}
	at := f.DesignatorAt
	if p.Label != nil {
		at = *p.Label
	}
	return append(out, TextLines(p.Designator, DesignatorHeight, t.Apply(at), p.Angle, p.Bottom)...)
}

// TextLines are the centre lines of a text around its middle; on the bottom it is mirrored,
// so that it reads from there. The angle is brought to the half turn in which it reads.
func TextLines(text string, height int64, at geom.Point, angle int32, bottom bool) [][]geom.Point {
	a := ((angle % 360_000) + 360_000) % 360_000
	if bottom {
		if a >= 90_000 && a < 270_000 {
			a = (a + 180_000) % 360_000
		}
	} else if a > 90_000 && a <= 270_000 {
		a = (a + 180_000) % 360_000
	}
	t := geom.Pose{At: at, Angle: a, Mirror: bottom}
	lines := lettering.Strokes(text, height)
	for i := range lines {
		lines[i] = t.ApplyAll(lines[i])
	}
	return lines
}

// FigureLines are the centre lines of a figure; a circle has 48 corners.
func FigureLines(f design.Figure) [][]geom.Point {
	switch f.Form {
	case "circle":
		const n = 48
		pts := make([]geom.Point, n+1)
		for i := range pts {
			s, c := math.Sincos(2 * math.Pi * float64(i%n) / n)
			pts[i] = f.Pts[0].Add(geom.Pt(int64(math.Round(float64(f.R)*c)), int64(math.Round(float64(f.R)*s))))
		}
		return [][]geom.Point{pts}
	case "area", "solid":
		return [][]geom.Point{append(append([]geom.Point{}, f.Pts...), f.Pts[0])}
	}
	return [][]geom.Point{f.Pts}
}
