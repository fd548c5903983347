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
	bought := map[string]string{"maker": "Quillfeather", "part number": "QF-R-1K", "order number": "4711-1", "datasheet": "r.pdf"}
	d.Put(&design.Part{ID: 1000, Library: "Resistor", Designator: "R1", Fields: bought})
	d.Put(&design.Part{ID: 2000, Library: "Resistor", Designator: "R10", Fields: bought})
	d.Put(&design.Part{ID: 2001, Library: "Resistor", Designator: "R2", Fields: map[string]string{"maker": "=Sennick", "part number": "-SN-2"}})
	assert.Equal(t, "Designator,Value,Footprint,X (mm),Y (mm),Rotation (deg),Side\r\n"+
		"R1,1k,Two pads,10,10,0,top\r\n"+
		"R2,\"2k, 1 %\",Two pads,10,10,45.5,top\r\n"+
		"R10,1k,Two pads,10,10,0,top\r\n"+
		"U1,OM-1,One of each,10,20,90,bottom\r\n", string(tables.Placement(d)), "not fitted parts are left out")
	assert.Equal(t, "Quantity,Designators,Value,Footprint,Description,Maker,Part number,Order number\r\n"+
		"2,R1 R10,1k,Two pads,Axial,Quillfeather,QF-R-1K,4711-1\r\n"+
		"1,R2,\"2k, 1 %\",Two pads,Axial,'=Sennick,'-SN-2,\r\n"+
		"1,U1,OM-1,One of each,,,,\r\n", string(tables.Parts(d)))
	r10 := *d.Placed[200]
	r10.Value = "1.0 kΩ"
	d.Put(&r10)
	assert.Contains(t, string(tables.Parts(d)), "2,R1 R10,1k,Two pads", "one value, however it is written")
	d.Parts[2000].Fields = map[string]string{"maker": "Sennick"}
	assert.Contains(t, string(tables.Parts(d)), "1,R1,1k,Two pads,Axial,Quillfeather,QF-R-1K,4711-1\r\n", "what is bought otherwise stands in a line of its own")
	p := *d.Placed[200]
	p.At.X, p.At.Y = -1_500_000, -250_000
	d.Put(&p)
	assert.Contains(t, string(tables.Placement(d)), "R10,1.0 kΩ,Two pads,-1.5,-0.25,0,top\r\n", "numbers stay numbers")
}
