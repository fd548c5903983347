package route

import "goldentrace/core/geom"

// RasterOf tells what a search knows of the places of a tile of its grid, row by row.
func (f Field) RasterOf(w Wish, origin geom.Point, pitch int64, x0, y0 int32, each func(at geom.Point, x, y int, state string)) {
	r := newRaster(f, origin, pitch, w)
	var t [tileSide * tileSide]uint8
	r.fill(&t, x0, y0)
	for i, s := range t {
		x, y := i%tileSide, i/tileSide
		each(r.at(x0+int32(x), y0+int32(y)), x, y, [...]string{"open", "tight", "closed", "plated"}[s])
	}
}
