package check_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// What a net asks for around itself does not condemn the chip that it leads to: pads of one part have a rule of their own.
func TestClearanceWithinOnePart(t *testing.T) {
	d := bare()
	f := footprint()
	d.Put(f)
	for i, id := range []design.ID{50, 51} { // their pads 1.55 mm from each other's
		d.Put(&design.Placed{ID: id, Part: id + 950, Designator: []string{"U1", "U2"}[i], Footprint: "F", At: geom.Pt(20_000_000+int64(i)*3_700_000, 20_000_000), Nets: bear(d, pads("A", "B"))})
	}
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 200_000, design.WithinPart: 150_000})
	d.Put(&design.Rule{ID: 600, Kind: design.Clearance, Order: 1, A: design.Scope{Net: "A"}, Value: design.Fixed(2_000_000)})
	assert.Equal(t, []string{"clearance 1550000 of 2000000 L1"}, found(d), "the pad of A of the one part and that of B of the other; not those of one part")

	d.Put(&design.Rule{ID: 601, Kind: design.WithinPart, Order: 2, A: design.Scope{Part: 51}, Value: design.Fixed(300_000)})
	assert.Equal(t, []string{"clearance 150000 of 300000 L1", "clearance 1550000 of 2000000 L1"}, found(d), "of the part that is named alone")

	d.Remove(design.KindRule, 601)
	d.Put(&design.Rule{ID: 601, Kind: design.WithinPart, Order: 2, A: design.Scope{Net: "B"}, Value: design.Fixed(300_000)})
	assert.Len(t, found(d), 3, "of a net: around its pads, whichever of the two is first")
}
