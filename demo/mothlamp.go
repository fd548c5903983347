package demo

import (
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// mothLamp is a blinker of two transistors that pulses an ultraviolet lamp, on a board with
// copper below only. The first try has its parts still beside the outline, a capacitor that
// is not grounded and a screw hole too near the edge.
func mothLamp(firstTry bool) (*design.Doc, error) {
	title := "Moth Lamp"
	if firstTry {
		title = "Moth Lamp, first try"
	}
	b := newBuilder(title)
	b.do(&edit.SetSettings{Number: text("HRT-014"), Revision: text("B"), Author: text("Harrowmere river trust"), Date: text("2026-10-02")})
	b.do(&edit.SetSheet{Sheet: b.sheet, Name: text("Blinker")})
	mothCircuit(b, firstTry)
	b.do(&edit.SetRules{Rules: map[design.RuleKind]int64{
		design.Clearance: 300 * units.Micrometre, design.WithinPart: 300 * units.Micrometre, design.TrackWidth: 800 * units.Micrometre, design.LeastWidth: 400 * units.Micrometre,
		design.EdgeClearance: 500 * units.Micrometre, design.LeastHole: 600 * units.Micrometre, design.ViaDiameter: 1400 * units.Micrometre,
		design.ViaHole: 700 * units.Micrometre}})
	b.do(&edit.SetOutline{Outline: geom.Corners(at(0, 0), at(50, 0), at(50, 40), at(0, 40))})
	b.do(&edit.Carry{All: true})
	corner := 3.5
	if firstTry {
		corner = 1.8
	}
	for _, p := range []geom.Point{at(3.5, 3.5), at(46.5, 3.5), at(46.5, 36.5), at(corner, 36.5)} {
		b.do(&edit.AddHole{At: p, Diameter: 3200 * units.Micrometre})
	}
	b.do(&edit.AddLegend{At: at(25, 2.2), Height: 1500 * units.Micrometre, Text: "Moth Lamp  B"})
	if !firstTry {
		mothBoard(b)
	}
	if !firstTry {
		b.checked()
	}
	return b.bench.Doc, b.err
}

func mothCircuit(b *builder, firstTry bool) {
	b.part("Terminal 2", "J1", "Battery", 75, 122.5, 0, false)
	b.part("Switch", "S1", "On/off", 95, 142.5, 0, false)
	b.part("Capacitor", "C3", "100n", 110, 125, 3, false)
	b.part("Resistor", "R1", "1k", 135, 137.5, 3, false)
	b.part("Resistor", "R2", "47k", 160, 137.5, 3, false)
	b.part("Resistor", "R3", "47k", 185, 137.5, 3, false)
	b.part("Resistor", "R4", "33", 210, 142.5, 3, false)
	b.part("LED", "D1", "UV 365 nm", 210, 130, 3, false)
	b.part("Electrolytic capacitor", "C1", "22µ", 147.5, 117.5, 0, false)
	b.part("Electrolytic capacitor", "C2", "22µ", 197.5, 117.5, 2, false)
	b.part("NPN transistor", "Q1", "BV170", 137.5, 92.5, 0, true)
	b.part("NPN transistor", "Q2", "BV170", 207.5, 92.5, 0, false)

	b.do(&edit.PlaceSupply{Sheet: b.sheet, Name: "+3V", Shape: "bar", At: at(110, 152.5)})
	b.wire(80, 125, 85, 125, 85, 142.5, 90, 142.5)
	b.do(&edit.PlaceLabel{Sheet: b.sheet, Name: "BATTERY", At: at(85, 135)})
	b.wire(80, 120, 85, 120, 85, 110)
	b.ground(85, 110)
	b.wire(100, 142.5, 110, 142.5, 110, 152.5)
	b.wire(110, 130, 110, 142.5)
	if !firstTry {
		b.wire(110, 120, 110, 110)
		b.ground(110, 110)
	}
	b.wire(110, 150, 210, 150)
	b.wire(135, 142.5, 135, 150)
	b.wire(160, 142.5, 160, 150)
	b.wire(185, 142.5, 185, 150)
	b.wire(210, 147.5, 210, 150)
	b.wire(210, 137.5, 210, 135)
	b.wire(135, 132.5, 135, 97.5) // collector of Q1
	b.wire(135, 117.5, 142.5, 117.5)
	b.wire(210, 125, 210, 97.5) // collector of Q2
	b.wire(202.5, 117.5, 210, 117.5)
	b.wire(160, 132.5, 160, 107.5, 195, 107.5, 195, 92.5, 202.5, 92.5) // base of Q2
	b.wire(152.5, 117.5, 160, 117.5)
	b.wire(185, 132.5, 185, 100, 150, 100, 150, 92.5, 142.5, 92.5) // base of Q1
	b.wire(185, 117.5, 192.5, 117.5)
	b.wire(135, 87.5, 135, 80)
	b.ground(135, 80)
	b.wire(210, 87.5, 210, 80)
	b.ground(210, 80)
}

// mothBoard places the parts and lays the tracks below.
func mothBoard(b *builder) {
	b.onBoard("J1", 6.35, 20.32, 270)
	b.onBoard("S1", 12.7, 33.655, 0)
	b.onBoard("C3", 13.97, 21.59, 90)
	b.onBoard("R1", 20.32, 28.575, 270)
	b.onBoard("R2", 26.67, 28.575, 270)
	b.onBoard("R3", 33.02, 28.575, 270)
	b.onBoard("R4", 39.37, 28.575, 270)
	b.onBoard("D1", 45.085, 23.495, 270)
	b.onBoard("C1", 22.225, 17.78, 0)
	b.onBoard("C2", 36.83, 17.78, 180)
	b.onBoard("Q1", 19.05, 8.89, 0)
	b.onBoard("Q2", 37.465, 8.89, 0)
	for _, t := range mothTracks {
		b.track(t.pad, 1, t.mm...)
	}
	// what is free of the lower side is ground: less to etch away or to mill
	b.do(&edit.PutPour{Pour: design.Pour{Name: "Ground", Net: b.net("GND"), Layers: []design.LayerID{b.bench.Doc.Board.Bottom()},
		Clearance: 500 * units.Micrometre, Spokes: design.Spokes{Width: 600 * units.Micrometre, Gap: 400 * units.Micrometre}}})
}
