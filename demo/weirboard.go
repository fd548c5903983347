package demo

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// spot is a part's place on the board, millimetres and degrees.
type spot struct {
	designator string
	x, y       float64
	angle      int
}

// weirBoard sets the board up and places its parts: probes along the left edge, the field supply above, the
// controller in the middle, relay and bus on the right, clock and service port below. Then it lays its tracks.
func weirBoard(b *builder, tracks func(*builder)) {
	b.do(&edit.BeginBoard{Ready: &edit.TakeStack{House: "northgate", Name: "Four layers, 1.6 mm, 35 µm inside"}, Form: edit.EdgeRectangle, Width: 100 * units.MM,
		Height: 70 * units.MM, R: 3 * units.MM, Track: 200 * units.Micrometre, Parts: true})
	for _, c := range [][2]float64{{4, 4}, {96, 4}, {4, 66}, {96, 66}} {
		b.do(&edit.AddHole{At: at(c[0], c[1]), Diameter: 3_200_000, Keep: 1_500_000})
	}
	for _, list := range [][]spot{weirSupply, weirController48, weirRight, weirBelow} {
		b.lay(list)
	}
	for i, channel := range weirChannels {
		b.lay(channel.at(13 + 12.5*float64(i)))
	}
	weirRules(b)
	weirPlaceNotes(b)
	tracks(b)
	b.do(&edit.PutFiducials{})
	weirPours(b)
	b.do(&edit.SetTeardrops{Teardrops: &design.Teardrops{On: []design.Thing{design.ThroughPad, design.AVia}}})
	weirPrint(b)
}

func (b *builder) lay(list []spot) {
	for _, s := range list {
		b.onBoard(s.designator, s.x, s.y, s.angle)
	}
}

// From the 24 V terminal along the upper edge: fuse, suppressor and diode, the step-down converter with its loop kept
// small, the regulator, the bead to the measuring supply.
var weirSupply = []spot{
	{"J1", 16, 65.4, 180}, {"F1", 25, 65.4, 0}, {"D1", 28.6, 61.6, 0}, {"D2", 33.2, 65.4, 0}, {"C1", 38, 65, 90},
	{"U1", 39.5, 59.4, 0}, {"C3", 41.8, 63.8, 0}, {"C2", 42.2, 65.6, 0}, {"L1", 48.4, 60.4, 0}, {"D3", 47.8, 55.2, 180}, {"C4", 54.8,
		61.8, 0}, {"C5", 54.2, 59.2, 0},
	{"R2", 42.6, 55, 180}, {"R1", 42.6, 53.2, 180},
	{"U2", 63.5, 62.4, 0}, {"C6", 65, 56.6, 180}, {"C7", 71.2, 64.6, 0}, {"C8", 70.4, 62.4, 0}, {"L2", 70.8, 60.5, 0}, {"C9", 74.6, 60.5, 0},
	{"R3", 70.4, 67.4, 0}, {"D4", 74.8, 67.4, 0},
}

// Around the controller: blocking capacitors at their pins, the crystal at its left, the headers above and below.
var weirController48 = []spot{
	{"U3", 52, 36, 0}, {"C10", 44.4, 40.3, 180}, {"C13", 44.2, 32.8, 180}, {"C11", 56.6, 28.8, 0}, {"C12", 59.8, 40.4, 0},
	{"Y1", 43.6, 36.5, 270}, {"C15", 40.6, 37.9, 180}, {"C16", 40.6, 35.1, 180}, {"C14", 44.2, 31.1, 180}, {"R4", 40.9, 31.1, 0},
	{"R9", 44.4, 41.9, 0}, {"R5", 50.4, 43.8, 0}, {"R8", 47.2, 43.8, 180}, {"D5", 43.2, 43.8, 180}, {"R6", 54.4, 43.8, 180}, {"R7", 54.4,
		45.6, 180},
	{"J2", 50, 3.4, 0}, {"J3", 67, 38.6, 0},
}

// The relay with its terminal and the field bus along the right edge.
var weirRight = []spot{
	{"J7", 95.4, 51, 90}, {"K1", 80.6, 51, 270}, {"D9", 67.2, 51, 90}, {"Q1", 67.4, 44.8, 0}, {"R19", 63.4, 43.8, 0},
	{"J5", 95.4, 33, 90}, {"U5", 76, 32.4, 0}, {"C20", 80.6, 36.8, 0}, {"R13", 88.6, 33, 90}, {"R14", 84.4, 30, 0}, {"R15", 84.4, 36, 180},
}

// The clock with its cell, the memory, the service port at the lower edge.
var weirBelow = []spot{
	{"B1", 47, 17, 0}, {"U7", 66, 20.4, 0}, {"Y2", 60.8, 21.8, 270}, {"R18", 72.6, 21.1, 180}, {"U6", 66, 28.6, 180}, {"C22", 60.8, 27.4, 90},
	{"J6", 80, 2.9, 0}, {"R16", 78.8, 9.8, 90}, {"R17", 80.6, 9.8, 90}, {"D7", 75.2, 9.4, 0}, {"D8", 84.4, 9.4, 0}, {"C21", 88.6, 4.6, 0},
}

// weirChannel names the parts of one probe input.
type weirChannel struct{ terminal, fuse, shunt, series, filter, clamp, amplifier, out, hold, block string }

var weirChannels = []weirChannel{
	{"J10", "F5", "R26", "R27", "C29", "D12", "U10", "R28", "C30", "C31"},
	{"J9", "F4", "R23", "R24", "C26", "D11", "U9", "R25", "C27", "C28"},
	{"J8", "F3", "R20", "R21", "C23", "D10", "U8", "R22", "C24", "C25"},
	{"J4", "F2", "R10", "R11", "C17", "D6", "U4", "R12", "C18", "C19"},
}

// at lays the channel along a row at the height.
func (c weirChannel) at(y float64) []spot {
	return []spot{
		{c.terminal, 4.6, y, 270}, {c.fuse, 12.4, y + 3.2, 0}, {c.shunt, 12.4, y - 3.2, 0}, {c.series, 16.8, y - 3.2, 0}, {c.clamp, 17.2,
			y + 0.4, 180}, {c.filter, 20, y - 3.2, 0},
		{c.amplifier, 25.8, y, 0}, {c.out, 22.4, y + 4.1, 0}, {c.hold, 25.8, y + 4.1, 0}, {c.block, 31.4, y + 1.9, 0},
	}
}

// weirRules: supplies wide and apart, the relay's contacts far from everything, the area of the crystal kept free below.
func weirRules(b *builder) {
	mm := func(v float64) design.Amount { return design.Fixed(units.MMf(v)) }
	b.do(&edit.SetRules{Rules: map[design.RuleKind]int64{
		design.Clearance: 150_000, design.TrackWidth: 200_000, design.ViaDiameter: 600_000, design.ViaHole: 300_000,
		design.EdgeClearance: 400_000, design.Spacing: 100_000,
	}})
	b.say(&edit.SetNets{Nets: []string{"J7.1", "J7.2", "J7.3"}, Class: text("Sluice"), Current: amperes(3), Voltage: volts(24)})
	b.say(&edit.SetNets{Nets: []string{"F1.1", "D1.2"}, Class: text("Supply"), Current: amperes(0.3), Voltage: volts(24)})
	b.say(&edit.SetNets{Nets: []string{"C3.2"}, Class: text("Supply"), Current: amperes(1)})
	b.say(&edit.SetNets{Nets: []string{"BUS_P", "BUS_N"}, Class: text("Field bus")})
	b.area("Sluice contacts", nil, nil, 85, 43, 99, 59)
	b.area("Crystal", []design.Thing{design.ATrack, design.AVia}, []int{2, 3}, 39, 34, 46, 39)
	rule := func(k design.RuleKind, a, other design.Scope, v design.Amount) {
		b.do(&edit.PutRule{Rule: design.Rule{Kind: k, A: a, B: other, Value: v}})
	}
	rule(design.Clearance, design.Scope{Class: "Supply", Thing: design.ATrack}, design.Scope{}, mm(0.25))
	b.area("Controller", nil, nil, 42, 27, 61.6, 45)
	near := design.Scope{Class: "Supply", Area: b.areaNamed("Controller")}
	rule(design.Clearance, design.Scope{Class: "Supply", Thing: design.ATrack, Area: near.Area}, design.Scope{}, mm(0.15))
	rule(design.TrackWidth, near, design.Scope{}, mm(0.2))
	rule(design.LeastWidth, near, design.Scope{}, mm(0.2))
	rule(design.TrackWidth, design.Scope{Net: "GND", Area: near.Area}, design.Scope{}, mm(0.2))
	rule(design.Clearance, design.Scope{Class: "Sluice"}, design.Scope{}, mm(1))
	rule(design.Clearance, design.Scope{Class: "Sluice", Area: b.areaNamed("Sluice contacts")}, design.Scope{Class: "Sluice"}, mm(0.8))
	rule(design.TrackWidth, design.Scope{Class: "Field bus"}, design.Scope{}, mm(0.3))
	rule(design.TrackWidth, design.Scope{Net: "GND"}, design.Scope{}, mm(0.3))
	for _, layer := range []int{ground, power} {
		rule(design.TrackWidth, design.Scope{Net: "GND", Layer: b.bench.Doc.Board.At(layer)}, design.Scope{}, mm(0.8))
	}
	rule(design.Spacing, design.Scope{Part: b.placed("K1")}, design.Scope{}, mm(0.5))
	var nets []design.ID
	for _, name := range []string{"+24V", "+5V", "C3.2", "J7.1", "J7.2", "J7.3"} {
		if n := b.bench.Doc.NetNamed(name); n != nil {
			nets = append(nets, n.ID)
		}
	}
	b.do(&edit.TakeWidths{Nets: nets, Classes: true})
}

func amperes(a float64) *int64 { v := int64(a * 1e6); return &v }
func volts(v float64) *int64   { u := int64(v * 1e6); return &u }

func (b *builder) say(c *edit.SetNets) { b.do(c) }

// area draws a rectangular area between two corners in millimetres, on the copper layers counted from 0; none: all.
func (b *builder) area(name string, keep []design.Thing, layers []int, x0, y0, x1, y1 float64) {
	a := design.RuleArea{Name: name, KeepOut: keep, Outline: geom.Corners(at(x0, y0), at(x1, y0), at(x1, y1), at(x0, y1))}
	for _, l := range layers {
		a.Layers = append(a.Layers, b.bench.Doc.Board.At(l))
	}
	b.do(&edit.PutArea{Area: a})
}

func (b *builder) areaNamed(name string) design.ID {
	for a := range b.bench.Doc.RuleAreas.All() {
		if a.Name == name {
			return a.ID
		}
	}
	return 0
}

// placed is the part with the designator.
func (b *builder) placed(designator string) design.ID {
	for p := range b.bench.Doc.Placed.All() {
		if p.Designator == designator {
			return p.ID
		}
	}
	if b.err == nil {
		b.err = fmt.Errorf("%s did not arrive on the board", designator)
	}
	return 0
}

// weirPlaceNotes say why parts stand where they do.
func weirPlaceNotes(b *builder) {
	near := func(designator, other, pad string, mm float64) {
		b.do(&edit.SetNotes{ID: b.placed(designator), Notes: []design.PlaceNote{{Kind: design.NoteWithin, Of: b.placed(other), Pad: pad,
			Distance: units.MMf(mm)}}})
	}
	for _, n := range []struct {
		part, other, pad string
		mm               float64
	}{
		{"C10", "U3", "1", 3}, {"C11", "U3", "24", 3}, {"C12", "U3", "36", 3}, {"C13", "U3", "9", 3}, {"Y1", "U3", "5", 5}, {"C20", "U5",
			"8", 2}, {"C22", "U6", "8", 3},
		{"C1", "U1", "2", 4}, {"C3", "U1", "1", 4}, {"R2", "U1", "5", 3}, {"D3", "U1", "6", 5}, {"C6", "U2", "3", 3}, {"Y2", "U7", "1", 3},
	} {
		near(n.part, n.other, n.pad, n.mm)
	}
	for _, c := range weirChannels {
		near(c.block, c.amplifier, "8", 2)
	}
	for _, j := range []string{"J1", "J4", "J5", "J6", "J7", "J8", "J9", "J10"} {
		b.do(&edit.SetNotes{ID: b.placed(j), Notes: []design.PlaceNote{{Kind: design.NoteEdge, Distance: units.MM}}})
	}
	b.do(&edit.SetNotes{ID: b.placed("L2"), Notes: []design.PlaceNote{{Kind: design.NoteText,
		Text: "The measuring supply leaves the logic supply here and nowhere else."}}})
}

// weirPrint is what is printed: names at the terminals, the board's own name, its measures on the drawing.
func weirPrint(b *builder) {
	say := func(text, font string, height, x, y float64, degrees int32) {
		b.do(&edit.AddLegend{At: at(x, y), Height: units.MMf(height), Text: text, Font: font, Angle: degrees * 1000})
	}
	say("Weir Gauge", design.Bold, 2.6, 86.5, 20.6, 0)
	say("HRT-021  C", design.Strokes, 1.2, 86.5, 17.4, 0)
	for i, n := range []string{"4", "3", "2", "1"} {
		say("Probe "+n, design.Bold, 1.3, 12.4, 13+12.5*float64(i), 0)
	}
	say("24 V", design.Bold, 1.3, 13, 59.4, 0)
	say("Sluice", design.Bold, 1.3, 95.4, 41.9, 0)
	say("Bus", design.Bold, 1.3, 95.4, 24, 0)
	say("Service", design.Bold, 1.3, 70.6, 2.4, 0)
	wave := make([]geom.Corner, 0, 7)
	for i := range 7 { // three arcs: the trust's water
		c := geom.Corner{Point: at(77.5+3*float64(i), 14.4)}
		if i < 6 {
			m := at(79+3*float64(i), 14.4+0.9*float64(1-2*(i%2)))
			c.Mid = &m
		}
		wave = append(wave, c)
	}
	b.do(&edit.AddFigure{Name: "Water", Width: 350_000, Lines: [][]geom.Corner{wave}})
	corner := func(n int) design.Anchor { return design.Anchor{Of: design.BoardID, Corner: n} }
	if b.err == nil {
		left, right := b.edgeCorner(0, 3), b.edgeCorner(100, 3)
		b.do(&edit.AddDimension{From: corner(left), To: corner(right), Way: design.AlongX, Off: -11 * units.MM})
		b.do(&edit.AddDimension{From: b.holeAt(4, 4), To: b.holeAt(96, 4), Way: design.AlongX, Off: -8 * units.MM})
		b.do(&edit.AddDimension{From: b.holeAt(96, 4), To: b.holeAt(96, 66), Way: design.AlongY, Off: 9 * units.MM})
	}
	var ids []design.ID
	for p := range b.bench.Doc.Placed.All() {
		ids = append(ids, p.ID)
	}
	b.do(&edit.SetLetters{IDs: ids, Height: 800_000})
	b.do(&edit.OrderLabels{IDs: ids})
}

// edgeCorner is the number of the outline's corner at the place.
func (b *builder) edgeCorner(x, y float64) int {
	for i, c := range b.bench.Doc.Board.Outline {
		if c.Point == at(x, y) {
			return i
		}
	}
	if b.err == nil {
		b.err = fmt.Errorf("the outline has no corner at %g, %g", x, y)
	}
	return 0
}

// holeAt is the middle of the hole at the place.
func (b *builder) holeAt(x, y float64) design.Anchor {
	for h := range b.bench.Doc.Holes.All() {
		if h.At == at(x, y) {
			return design.Anchor{Of: h.ID}
		}
	}
	if b.err == nil {
		b.err = fmt.Errorf("there is no hole at %g, %g", x, y)
	}
	return design.Anchor{}
}
