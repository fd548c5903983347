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
	rules := b.bench.Doc.Board.Rules
	rules.Clearance, rules.TrackWidth, rules.LeastWidth = 300*units.Micrometre, 800*units.Micrometre, 400*units.Micrometre
	rules.EdgeClearance, rules.LeastHole = 500*units.Micrometre, 600*units.Micrometre
	b.do(&edit.SetRules{Rules: rules})
	b.do(&edit.SetOutline{Outline: []geom.Point{at(0, 0), at(50, 0), at(50, 40), at(0, 40)}})
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
	return b.bench.Doc, b.err
}

func mothCircuit(b *builder, firstTry bool) {
	b.part("Terminal 2", "J1", "Battery 3 V", 45, 130, 0, false)
	b.part("Switch", "S1", "On/off", 65, 150, 0, false)
	b.part("Capacitor", "C3", "100n", 80, 132.5, 3, false)
	b.part("Resistor", "R1", "1k", 105, 145, 3, false)
	b.part("Resistor", "R2", "47k", 130, 145, 3, false)
	b.part("Resistor", "R3", "47k", 155, 145, 3, false)
	b.part("Resistor", "R4", "33", 180, 150, 3, false)
	b.part("LED", "D1", "UV 365 nm", 180, 137.5, 3, false)
	b.part("Electrolytic capacitor", "C1", "22µ", 117.5, 125, 0, false)
	b.part("Electrolytic capacitor", "C2", "22µ", 167.5, 125, 2, false)
	b.part("NPN transistor", "Q1", "BV170", 107.5, 100, 0, true)
	b.part("NPN transistor", "Q2", "BV170", 177.5, 100, 0, false)

	b.do(&edit.PlaceSupply{Sheet: b.sheet, Name: "+3V", Shape: "bar", At: at(80, 160)})
	b.wire(50, 132.5, 55, 132.5, 55, 150, 60, 150)
	b.do(&edit.PlaceLabel{Sheet: b.sheet, Name: "BATTERY", At: at(55, 142.5)})
	b.wire(50, 127.5, 55, 127.5, 55, 117.5)
	b.ground(55, 117.5)
	b.wire(70, 150, 80, 150, 80, 160)
	b.wire(80, 137.5, 80, 150)
	if !firstTry {
		b.wire(80, 127.5, 80, 117.5)
		b.ground(80, 117.5)
	}
	b.wire(80, 157.5, 180, 157.5)
	b.wire(105, 150, 105, 157.5)
	b.wire(130, 150, 130, 157.5)
	b.wire(155, 150, 155, 157.5)
	b.wire(180, 155, 180, 157.5)
	b.wire(180, 145, 180, 142.5)
	b.wire(105, 140, 105, 105) // collector of Q1
	b.wire(105, 125, 112.5, 125)
	b.wire(180, 132.5, 180, 105) // collector of Q2
	b.wire(172.5, 125, 180, 125)
	b.wire(130, 140, 130, 115, 165, 115, 165, 100, 172.5, 100) // base of Q2
	b.wire(122.5, 125, 130, 125)
	b.wire(155, 140, 155, 107.5, 120, 107.5, 120, 100, 112.5, 100) // base of Q1
	b.wire(155, 125, 162.5, 125)
	b.wire(105, 95, 105, 87.5)
	b.ground(105, 87.5)
	b.wire(180, 95, 180, 87.5)
	b.ground(180, 87.5)
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
}
