package geom

// Snap rounds a point to the grid.
func Snap(p Point, grid int64) Point {
	r := func(v int64) int64 {
		if v < 0 {
			return -((-v + grid/2) / grid * grid)
		}
		return (v + grid/2) / grid * grid
	}
	return Pt(r(p.X), r(p.Y))
}
