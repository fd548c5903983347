package layout

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

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
	case "arc":
		return [][]geom.Point{geom.Piece{A: f.Pts[0], M: f.Pts[1], B: f.Pts[2]}.Along(arcTolerance, false)}
	case "area", "solid":
		return [][]geom.Point{append(append([]geom.Point{}, f.Pts...), f.Pts[0])}
	}
	return [][]geom.Point{f.Pts}
}

// arcTolerance is how far lines that stand for an arc of a drawing may leave it.
const arcTolerance = 5_000
