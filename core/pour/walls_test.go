package pour_test

import (
	"context"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/pour"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// Around a via of another net that has no pad on a plane's layer, the plane keeps as far from the hole's wall as the rule asks, and no farther.
func TestAreasKeepOffTheWallsOfHoles(t *testing.T) {
	for _, need := range []int64{0, 500_000} {
		d := design.New("walls")
		d.Next = 500
		synthetic.Layers(d, 4)
		b := *d.Board
		b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(20_000_000, 0), geom.Pt(20_000_000, 20_000_000), geom.Pt(0, 20_000_000))
		d.Put(&b)
		d.SetBase(map[design.RuleKind]int64{design.Clearance: 200_000, design.HoleCopper: need})
		at := geom.Pt(10_000_000, 10_000_000)
		inner := b.At(1)
		d.Put(&design.Via{ID: 100, At: at, Diameter: 800_000, Hole: 400_000, From: b.At(0), To: b.At(3), Net: synthetic.Net(d, "SIG"), Pads: []design.ViaPad{{Layer: inner}}})
		d.Put(&design.Via{ID: 101, At: geom.Pt(5_000_000, 5_000_000), Diameter: 800_000, Hole: 400_000, From: b.At(0), To: b.At(3), Net: synthetic.Net(d, "GND")})
		d.Put(&design.Pour{ID: 102, Name: "plane", Net: synthetic.Net(d, "GND"), Layers: []design.LayerID{inner}})
		f, err := pour.Of(context.Background(), d, layout.NewIndex(d), rules.Of(d), nil)
		require.NoError(t, err)
		far := float64(max(200_000+need, 400_000)) // the hole's radius and what is asked for: of its copper, or of its wall
		if need > 200_000 {
			far = float64(200_000 + need)
		}
		for angle := 0.0; angle < 2*math.Pi; angle += 0.1 {
			place := func(r float64) geom.Point {
				return at.Add(geom.Pt(int64(r*math.Cos(angle)), int64(r*math.Sin(angle))))
			}
			k := pour.Key{Pour: 102, Layer: inner}
			assert.Nil(t, f.At(k, place(far-3_000)), "%v mm at %v", need, angle)
			assert.NotNil(t, f.At(k, place(far+6_000)), "%v mm at %v", need, angle)
		}
	}
}
