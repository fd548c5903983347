package tables_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/fab/tables"
	"goldentrace/core/synthetic"
)

func TestTablesByHand(t *testing.T) {
	d := synthetic.FourLayers()
	for i, name := range []string{"R10", "R2", "C9"} {
		p := *d.Placed[synthetic.FourR1]
		p.ID, p.Part, p.Designator = design.ID(200+i), design.ID(2000+i), name
		p.NotFitted = name == "C9"
		p.Angle = int32(i) * 45_500
		if name == "R2" {
			p.Value = `2k, 1 %`
		}
		d.Put(&p)
	}
	d.Put(&design.LibraryPart{ID: 40, Name: "Resistor", Description: "Axial", Symbol: "R", Prefix: "R"})
	d.Put(&design.Part{ID: 1000, Library: "Resistor", Designator: "R1"})
	d.Put(&design.Part{ID: 2000, Library: "Resistor", Designator: "R10"})
	assert.Equal(t, "Designator,Value,Footprint,X (mm),Y (mm),Rotation (deg),Side\r\n"+
		"R1,1k,Two pads,10,10,0,top\r\n"+
		"R2,\"2k, 1 %\",Two pads,10,10,45.5,top\r\n"+
		"R10,1k,Two pads,10,10,0,top\r\n"+
		"U1,OM-1,One of each,10,20,90,bottom\r\n", string(tables.Placement(d)), "not fitted parts are left out")
	assert.Equal(t, "Quantity,Designators,Value,Footprint,Description\r\n"+
		"2,R1 R10,1k,Two pads,Axial\r\n"+
		"1,R2,\"2k, 1 %\",Two pads,\r\n"+
		"1,U1,OM-1,One of each,\r\n", string(tables.Parts(d)))
}
