package layout

import (
	"math"

	"goldentrace/core/geom"
)

// Ring is the least copper around a piece's hole where its copper has the shape, below zero where the
// hole breaks out.
func Ring(c *Copper, shape geom.Shape) float64 {
	bore := c.Bore()
	core := shape
	core.R = 0
	if !core.Area {
		least := math.Inf(1)
		for _, p := range bore.Pts { // farthest from the middle line at one of the slot's ends
			gap, _, _ := geom.Gap(core, geom.Disc(p, 0))
			least = min(least, float64(shape.R)-gap-float64(bore.R))
		}
		return least
	}
	least := math.Inf(1)
	line := geom.Straight(bore.Pts[0], bore.Pts[len(bore.Pts)-1])
	for _, side := range core.Edges() {
		d, _, _ := geom.PieceDistance(line, side)
		least = min(least, d)
	}
	if !core.Holds(bore.Pts[0]) {
		least = -least
	}
	return least + float64(shape.R) - float64(bore.R)
}
