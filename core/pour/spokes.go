package pour

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// FarSpoke is how far beyond a pad's copper spokes are looked for where what is filled changed, in nanometres.
const FarSpoke = 2_000_000

// Spokes are by how many spokes an area joins a pad or via of its net on its layer, and how many there were to be; 0 of 0: it is not joined by
// spokes, or does not lie within the area's edge. What is stale is told as it was.
func (f *Fills) Spokes(k Key, c *layout.Copper) (has, wanted int) {
	a := f.areaOf(k)
	if a == nil || c.Bare || !c.Has(a.layer) || !a.owns(c) || len(a.Outline) > 0 && !geom.Closing(a.Outline).Holds(c.At) {
		return 0, 0
	}
	j := a.joins(c)
	if j.how != design.BySpokes {
		return 0, 0
	}
	for _, s := range spokesOf(c.On(a.layer), c.At, j.spokes.Number, j.spokes.Width, j.spokes.Gap, j.spokes.Angle+a.turned(c), a.least) {
		if wanted++; f.At(k, s.place(s.reach-float64(j.spokes.Gap)/2, 0)) != nil { // the gap is filled by nothing else
			has++
		}
	}
	return has, wanted
}
