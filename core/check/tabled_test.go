package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// What stands in the house's own table of holes is no fault, whatever the rules and the house say of drilled holes at large: each hole of each
// ready-made stack as the table has it, on a board with the usual rules. A micrometre less is one.
func TestHolesOfTheHousesTableAreNoFaults(t *testing.T) {
	for _, stack := range []string{"Four layers, 0.8 mm", "Six layers, 1.2 mm", "Eight layers, 1.6 mm", "Ten layers, 1.6 mm"} {
		d := design.New("table")
		_, err := edit.Apply(d, edit.Env{}, &edit.TakeStack{House: "tallow", Name: stack})
		require.NoError(t, err)
		b := *d.Board
		b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(80*mm, 0), geom.Pt(80*mm, 40*mm), geom.Pt(0, 40*mm))
		b.Holes.Drilled.Aspect = 300 // which the deep ones pass
		d.Put(&b)
		net := synthetic.Net(d, "A")
		faults := func(shrink int64) (n int) {
			for i, l := range b.Holes.Barrels {
				d.Put(&design.Via{ID: design.ID(100 + i), At: geom.Pt(int64(4+6*i)*mm, 10*mm), Kind: l.Kind, From: l.From, To: l.To, Hole: l.Hole - shrink, Diameter: l.Diameter - 2*shrink, Net: net, Barrel: l.ID})
			}
			for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
				if f.Kind == "hole" || f.Kind == "ring" || f.Kind == "deep" {
					n++
				}
			}
			return n
		}
		assert.Zero(t, faults(0), stack)
		assert.GreaterOrEqual(t, faults(1_000), len(b.Holes.Barrels), stack)
	}
}
