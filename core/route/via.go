package route

import (
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// How far a via may be set from where it was asked for, and in which steps that is tried, in nanometres.
const (
	viaReach = 2_500_000
	viaStep  = 100_000
)

// ViaNear is the place nearest to another where a via of the net fits; false: there is none within viaReach.
func (f Field) ViaNear(at geom.Point, net design.ID) (geom.Point, bool) {
	fits := func(p geom.Point) bool {
		v := f.Via(p, net)
		return f.PlatedAt(p, net, v.Layers) || f.Free(v)
	}
	if fits(at) {
		return at, true
	}
	for r := int64(viaStep); r <= viaReach; r += viaStep {
		n := 8 * int(min(r/viaStep, 6))
		for k := range n {
			sin, cos := math.Sincos(2 * math.Pi * float64(k) / float64(n))
			p := geom.Pt(at.X+int64(math.Round(cos*float64(r))), at.Y+int64(math.Round(sin*float64(r))))
			if fits(p) {
				return p, true
			}
		}
	}
	return at, false
}
