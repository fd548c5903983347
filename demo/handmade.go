package demo

import (
	_ "embed"
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/library"
	"goldentrace/core/parts"
	"goldentrace/core/units"
)

//go:embed drawings/slide-potentiometer.svg
var slideDrawing []byte

// Parts makes the parts of the demo's workspace by hand, as a person with their datasheets would.
func Parts() ([]*library.Release, error) {
	b := newBuilder("Workspace")
	slidePotentiometer(b)
	batteryHolder(b)
	barometer(b)
	b.checked()
	var out []*library.Release
	for _, name := range []string{"Slide potentiometer 30 mm", "Battery holder, one AA", "Barometer HX-8B"} {
		if b.err != nil {
			return nil, b.err
		}
		r, err := library.ReleaseOf(b.bench.Doc, b.bench.Doc.LibraryPart(name))
		if err != nil {
			return nil, err
		}
		out = append(out, r)
	}
	return out, b.err
}

// plated is a round pad with a hole; lengths are millimetres.
func plated(number string, x, y, size, hole float64) design.Pad {
	return design.Pad{Number: number, Form: design.Round, At: at(x, y), Size: at(size, size), Hole: units.MMf(hole)}
}

func pad(ref int, spot string) design.Feature {
	return design.Feature{Of: design.OfPad, Pad: ref, Spot: spot}
}

func says(mm float64) *design.Range { return &design.Range{Min: units.MMf(mm), Max: units.MMf(mm)} }

func box(x0, y0, x1, y1 float64) []geom.Point {
	return []geom.Point{at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1)}
}

func prism(material string, x0, y0, x1, y1, from, to float64) design.Solid {
	s := design.Solid{Form: design.Prism, Material: material, From: units.MMf(from), To: units.MMf(to)}
	for _, p := range box(x0, y0, x1, y1) {
		s.Edge = append(s.Edge, geom.Corner{Point: p})
	}
	return s
}

// footprint makes one of the builder's project and gives its id.
func (b *builder) footprint(name, description string) design.ID {
	b.do(&edit.PutFootprint{Name: name})
	f := b.bench.Doc.Footprint(name)
	if f == nil {
		b.err = fmt.Errorf("the footprint %s could not be made: %w", name, b.err)
		return 0
	}
	b.do(&edit.SetFootprint{Footprint: f.ID, Description: text(description)})
	return f.ID
}

// slidePotentiometer has its datasheet's drawing beneath it, and the drawing's dimensions held against it.
func slidePotentiometer(b *builder) {
	id := b.footprint("Slide potentiometer 30 mm", "Slide potentiometer, 30 mm of travel, three leads and two lugs through the board")
	b.do(&edit.LayBeneath{Footprint: id, Name: "SK-SP30.svg", Data: slideDrawing, At: at(-14, -8), Width: units.MMf(26)})
	yard := box(-6.9, -5.6, 3.7, 42.8)
	up := at(-9, 20)
	b.do(&edit.FootprintPieces{Footprint: id,
		Pads: []design.Pad{plated("1", 0, 0, 2, 1.2), plated("2", -3.25, 17.5, 2, 1.2), plated("3", 0, 37.2, 2, 1.2), plated("4", -1.6, -4.1, 2.6, 1.8), plated("4", -1.6, 41.3, 2.6, 1.8)},
		Body: []design.Figure{{Form: "area", Pts: box(-6.5, -5, 3.3, 42.2)}},
		Silk: []design.Figure{
			{Form: "line", Pts: []geom.Point{at(-3.3, -5.2), at(-6.7, -5.2), at(-6.7, 42.4), at(-3.3, 42.4)}, Width: 120_000},
			{Form: "line", Pts: []geom.Point{at(0.1, -5.2), at(3.5, -5.2), at(3.5, 42.4), at(0.1, 42.4)}, Width: 120_000},
			{Form: "line", Pts: []geom.Point{at(1.5, -0.6), at(1.5, 0.6)}, Width: 200_000}},
		Courtyard: &yard, DesignatorAt: &up,
		Dimensions: []design.Dimension{
			{A: pad(1, design.Centre), B: pad(2, design.Centre), Way: design.AlongY, Says: says(17.5)}, {A: pad(1, design.Centre), B: pad(2, design.Centre), Way: design.AlongX, Says: says(3.25)},
			{A: pad(1, design.Centre), B: pad(3, design.Centre), Way: design.AlongY, Says: says(37.2)},
			{A: design.Feature{Of: design.OfBody, Spot: design.Left}, B: design.Feature{Of: design.OfBody, Spot: design.Right}, Way: design.AlongX, Says: says(9.8)}}})
	solids := []design.Solid{prism("metal", -6.5, -5, 3.3, 42.2, 0, 6), prism("body", -2.4, 0, -0.8, 37, 6, 6.4), prism("body", -3.6, 17.8, 0.4, 23, 6, 15)}
	lugs := [][]string{{"4"}} // both go to the case
	b.do(&edit.SetFootprint{Footprint: id, Solids: &solids, Together: &lugs})
	b.do(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "Slide potentiometer 30 mm", Prefix: "R", Footprint: "Slide potentiometer 30 mm", Value: "10k", Description: "Slide potentiometer, 30 mm of travel, linear",
		Keywords: "fader slider ohm tht", Datasheet: "Sennick SK-SP30", PadOf: map[string]string{"M": "4"}},
		Pins: []parts.Listed{{Number: "1", Name: "LOW", Type: "passive"}, {Number: "2", Name: "WIPER", Type: "passive"}, {Number: "3", Name: "HIGH", Type: "passive"}, {Number: "M", Name: "CASE", Type: "passive"}}, Layout: parts.ByType})
}

// batteryHolder has two leads and two pegs of plastic in holes without plating.
func batteryHolder(b *builder) {
	id := b.footprint("Battery holder AA", "Holder for one AA cell, two leads, two pegs")
	peg := func(x, y float64) design.Pad {
		return design.Pad{Form: design.Round, At: at(x, y), Size: at(3, 3), Hole: units.MMf(3), Bare: true}
	}
	yard := box(-29.5, -8.8, 29.5, 8.8)
	up := at(0, 10)
	plus := plated("1", 26.1, 0, 3, 1.7)
	plus.Form = design.Rect
	b.do(&edit.FootprintPieces{Footprint: id,
		Pads: []design.Pad{plus, plated("2", -26.1, 0, 3, 1.7), peg(-14.3, 5.1), peg(14.3, -5.1)},
		Body: []design.Figure{{Form: "area", Pts: box(-28.9, -8.2, 28.9, 8.2)}},
		Silk: []design.Figure{
			{Form: "line", Pts: []geom.Point{at(-29.1, -8.4), at(29.1, -8.4), at(29.1, 8.4), at(-29.1, 8.4), at(-29.1, -8.4)}, Width: 120_000},
			{Form: "line", Pts: []geom.Point{at(21.5, 5), at(24.5, 5)}, Width: 200_000}, {Form: "line", Pts: []geom.Point{at(23, 3.5), at(23, 6.5)}, Width: 200_000}},
		Courtyard: &yard, DesignatorAt: &up,
		Dimensions: []design.Dimension{
			{A: pad(1, design.Centre), B: pad(2, design.Centre), Way: design.AlongX, Says: says(52.2)}, {A: pad(3, design.Centre), B: pad(4, design.Centre), Way: design.AlongX, Says: says(28.6)},
			{A: pad(3, design.Centre), B: pad(4, design.Centre), Way: design.AlongY, Says: says(10.2)}}})
	solids := []design.Solid{prism("body", -28.9, -8.2, 28.9, 8.2, 0, 4), prism("body", -28.9, -8.2, -27.5, 8.2, 4, 14), prism("body", 27.5, -8.2, 28.9, 8.2, 4, 14),
		{Form: design.Rod, Material: "band", A: at(-25, 0), B: at(25, 0), From: units.MMf(2.5), To: units.MMf(16.7)}}
	b.do(&edit.SetFootprint{Footprint: id, Solids: &solids})
	b.do(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "Battery holder, one AA", Prefix: "B", Footprint: "Battery holder AA", Value: "1.5 V", Description: "Holder for one AA cell, leads through the board",
		Keywords: "cell battery holder tht", Datasheet: "Sennick SK-H5"}, Pins: []parts.Listed{{Number: "1", Name: "+", Type: "passive"}, {Number: "2", Name: "−", Type: "passive"}}, Layout: parts.ByType})
}

// barometer has its footprint from its body's dimensions.
func barometer(b *builder) {
	r := library.PackageNamed("MSOP-8")
	b.do(&edit.PutFootprint{Recipe: r})
	name := ""
	for f := range b.bench.Doc.Footprints.All() {
		if f.Recipe != nil {
			name = f.Name
		}
	}
	b.do(&edit.PutLibraryPart{Part: design.LibraryPart{Name: "Barometer HX-8B", Prefix: "U", Footprint: name, Value: "HX-8B", Description: "Barometer, 300 to 1100 hPa, two-wire", Keywords: "pressure sensor smd", Datasheet: "Haldwick HX-8B"},
		Pins: []parts.Listed{{Number: "1", Name: "VDD", Type: "supplyIn"}, {Number: "2", Name: "SCL", Type: "input"}, {Number: "3", Name: "SDA", Type: "both"}, {Number: "4", Name: "ADDR", Type: "input"},
			{Number: "5", Name: "GND", Type: "supplyIn"}, {Number: "6", Name: "INT", Type: "openCollector"}, {Number: "7", Name: "NC", Type: "notConnected"}, {Number: "8", Name: "VIO", Type: "supplyIn"}}, Layout: parts.ByType})
}
