package library

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/units"
)

// What a gauge in the field is made of: chips with named pins, relay, crystal, suppressors.

// chipSymbol draws a box with pins left and right, row by row from the top; a pin without a
// number leaves its row empty. Half is half the body's width in millimetres.
func chipSymbol(name string, half float64, left, right []design.Pin) *design.Symbol {
	n := max(len(left), len(right))
	top := 2.5 * float64(n/2)
	s := &design.Symbol{Name: name, ShowNames: true, Figures: []design.Figure{box(-half, top-2.5*float64(n), half, top+2.5)}}
	side := func(list []design.Pin, x float64, turn int) {
		for i, p := range list {
			if p.Number == "" {
				continue
			}
			p.At, p.Turn, p.Length = pts(x, top-2.5*float64(i))[0], turn, units.MMf(2.5)
			s.Pins = append(s.Pins, p)
		}
	}
	side(left, -half-2.5, 0)
	side(right, half+2.5, 2)
	// the odd row count keeps the body symmetrical about the origin
	return named(s, 0, top+4.8, 0, top-2.5*float64(n)-2.3)
}

// row is a pin of a chip; list makes several: number, name and type by turns.
func list(words ...string) []design.Pin {
	var out []design.Pin
	for i := 0; i+2 < len(words); i += 3 {
		out = append(out, design.Pin{Number: words[i], Name: words[i+1], Type: words[i+2]})
	}
	return out
}

func fieldSymbols() []*design.Symbol {
	out := []*design.Symbol{
		named(&design.Symbol{Name: "Fuse", Pins: twoPins(1.875), Figures: []design.Figure{box(-3.125, -1.1, 3.125, 1.1), line(-3.125, 0, 3.125, 0)}}, 0, 3, 0, -3.1),
		named(&design.Symbol{Name: "Coil", Pins: twoPins(1), Figures: []design.Figure{
			arc(-3, 0, 1), arc(-1, 0, 1), arc(1, 0, 1), arc(3, 0, 1)}}, 0, 3, 0, -2.2),
		named(&design.Symbol{Name: "Suppressor", Pins: []design.Pin{pin("1", "A", "passive", -5, 0, 0, 3.4), pin("2", "K", "passive", 5, 0, 2, 3.4)},
			Figures: []design.Figure{area(-1.6, -1.9, -1.6, 1.9, 1.6, 0), line(0.6, -2.5, 1.6, -1.9, 1.6, 1.9, 2.6, 2.5), line(-1.6, 0, 1.6, 0)}}, 0, 3.8, 0, -3.8),
		named(&design.Symbol{Name: "Crystal", Pins: twoPins(3.4), Figures: []design.Figure{
			line(-1.6, -2, -1.6, 2), line(1.6, -2, 1.6, 2), box(-0.9, -2.2, 0.9, 2.2)}}, 0, 4, 0, -4.1),
		named(&design.Symbol{Name: "Cell", Pins: []design.Pin{pin("1", "+", "passive", -5, 0, 0, 4.4), pin("2", "−", "passive", 5, 0, 2, 4.4)}, Figures: []design.Figure{
			line(-0.6, -3, -0.6, 3), line(0.6, -1.5, 0.6, 1.5), line(-2.6, 1.6, -1.4, 1.6), line(-2, 1, -2, 2.2)}}, 0, 4.8, 0, -4.8),
		named(&design.Symbol{Name: "Clamp pair", Pins: []design.Pin{pin("1", "A", "passive", 0, -7.5, 1, 2.6), pin("2", "K", "passive", 0, 7.5, 3, 2.6), pin("3", "", "passive", -5, 0, 0, 5)},
			Figures: []design.Figure{area(-1.6, -4.3, 1.6, -4.3, 0, -1.5), line(-1.6, -1.5, 1.6, -1.5), area(-1.6, 1.5, 1.6, 1.5, 0, 4.3), line(-1.6, 4.3, 1.6, 4.3), line(0, -4.9, 0, 4.9)}}, 6.5, 1.5, 6.5, -1.5),
		named(&design.Symbol{Name: "Relay", Pins: []design.Pin{pin("1", "A1", "passive", -7.5, 7.5, 3, 3.5), pin("2", "A2", "passive", -7.5, -7.5, 1, 3.5),
			pin("3", "COM", "passive", 7.5, -7.5, 1, 3), pin("4", "NO", "passive", 10, 7.5, 3, 3), pin("5", "NC", "passive", 5, 7.5, 3, 3)},
			Figures: []design.Figure{box(-10, -4, -5, 4), line(-10, -4, -5, 4), line(7.5, -4.5, 5.4, 3.4), line(5, 4.5, 5, 2.6, 6.3, 2.6), line(10, 4.5, 10, 2.6, 8.7, 2.6), line(-5, 0, -3.5, 0), line(-2.4, 0, -0.9, 0), line(0.2, 0, 1.7, 0), line(2.8, 0, 4.3, 0)}}, 0, 10, 0, -10),
		chipSymbol("Service port", 7.5, nil, list("1", "VBUS", "passive", "", "", "", "2", "D−", "both", "3", "D+", "both", "", "", "", "4", "GND", "passive", "5", "SHIELD", "passive")),
		chipSymbol("Step-down converter", 10, list("2", "VIN", "supplyIn", "", "", "", "3", "EN", "input", "8", "SS", "passive", "", "", "", "4", "GND", "supplyIn"),
			list("1", "BST", "passive", "6", "SW", "output", "", "", "", "5", "FB", "input", "7", "GOOD", "openCollector")),
		chipSymbol("Regulator", 7.5, list("3", "IN", "supplyIn", "", "", "", "1", "GND", "supplyIn"), list("2", "OUT", "supplyOut", "4", "TAB", "passive")),
		chipSymbol("Bus driver", 7.5, list("4", "DI", "input", "3", "DE", "input", "2", "/RE", "input", "1", "RO", "triState"),
			list("8", "VCC", "supplyIn", "6", "A", "both", "7", "B", "both", "5", "GND", "supplyIn")),
		chipSymbol("Memory", 7.5, list("6", "SCL", "input", "5", "SDA", "both", "7", "WP", "input", "1", "A0", "input", "2", "A1", "input", "3", "A2", "input"),
			list("8", "VCC", "supplyIn", "", "", "", "", "", "", "4", "GND", "supplyIn")),
		chipSymbol("Clock", 7.5, list("6", "SCL", "input", "5", "SDA", "both", "", "", "", "1", "X1", "passive", "2", "X2", "passive"),
			list("8", "VCC", "supplyIn", "3", "VBAT", "passive", "7", "ALARM", "openCollector", "4", "GND", "supplyIn")),
		controller(),
		chipSymbol("Amplifier supply", 5, list("8", "V+", "supplyIn", "", "", "", "4", "V−", "supplyIn"), nil),
	}
	for i, pins := range [][3]string{{"3", "2", "1"}, {"5", "6", "7"}} {
		out = append(out, named(&design.Symbol{Name: fmt.Sprintf("Amplifier %d", i+1), Pins: []design.Pin{
			pin(pins[0], "+", "input", -10, 2.5, 0, 2.5), pin(pins[1], "−", "input", -10, -2.5, 0, 2.5), pin(pins[2], "", "output", 10, 0, 2, 2.5)},
			Figures:   []design.Figure{box(-7.5, -5, 7.5, 5), line(-3.2, 1.6, -3.2, -1.6, 0.2, 0, -3.2, 1.6), circle(2.4, 0, 0.8), circle(4, 0, 0.8)},
			ShowNames: true}, 0, 6.6, 0, -6.6))
	}
	return out
}

// arc is the upper half of a circle, as a line.
func arc(x, y, r float64) design.Figure {
	f := design.Figure{Form: "line"}
	for _, q := range [][2]float64{{-1, 0}, {-0.924, 0.383}, {-0.707, 0.707}, {-0.383, 0.924}, {0, 1}, {0.383, 0.924}, {0.707, 0.707}, {0.924, 0.383}, {1, 0}} {
		f.Pts = append(f.Pts, pts(x+q[0]*r, y+q[1]*r)...)
	}
	return f
}

// controller is a chip of 48 pins, grouped by what they are for.
func controller() *design.Symbol {
	gap := design.Pin{}
	left := list("1", "VDD", "supplyIn", "24", "VDD", "supplyIn", "36", "VDD", "supplyIn", "9", "VDDA", "supplyIn")
	left = append(left, gap)
	left = append(left, list("7", "/RESET", "input", "44", "BOOT", "input", "5", "OSC IN", "input", "6", "OSC OUT", "output")...)
	left = append(left, gap)
	left = append(left, list("10", "AIN0", "input", "11", "AIN1", "input", "12", "AIN2", "input", "13", "AIN3", "input")...)
	left = append(left, gap)
	for i, n := range []string{"14", "15", "16", "17", "18", "19", "20", "21"} {
		left = append(left, design.Pin{Number: n, Name: fmt.Sprintf("T%d", i), Type: "both"})
	}
	left = append(left, gap)
	left = append(left, list("8", "VSSA", "supplyIn", "23", "VSS", "supplyIn", "35", "VSS", "supplyIn", "47", "VSS", "supplyIn")...)
	right := list("42", "SCL", "both", "43", "SDA", "both", "", "", "", "30", "TX", "output", "31", "RX", "input", "32", "DE", "output", "", "", "",
		"34", "SVC+", "both", "33", "SVC−", "both", "", "", "", "45", "RELAY", "output", "46", "LAMP", "output", "39", "ALARM", "input", "", "", "",
		"37", "PROG IO", "both", "38", "PROG CK", "input", "", "", "")
	for i, n := range []string{"2", "3", "4", "22", "25", "26", "27", "28", "29", "40", "41", "48"} {
		right = append(right, design.Pin{Number: n, Name: fmt.Sprintf("IO%d", i), Type: "both"})
	}
	return chipSymbol("Controller 48", 15, left, right)
}

func fieldFootprints(add func(f *design.Footprint, dx, dy float64)) {
	f := &design.Footprint{Name: "QFP-48", Description: "Quad flat package, 48 leads at 0.5 mm, body 7 × 7 mm"}
	for i := range 48 {
		along := -2.75 + 0.5*float64(i%12)
		x, y, w, h := -4.2, -along, 1.5, 0.28
		switch i / 12 {
		case 1:
			x, y, w, h = along, -4.2, 0.28, 1.5
		case 2:
			x, y = 4.2, along
		case 3:
			x, y, w, h = -along, 4.2, 0.28, 1.5
		}
		f.Pads = append(f.Pads, surface(fmt.Sprint(i+1), x, y, w, h))
	}
	f.Silk = []design.Figure{line(-3.6, 3.2, -3.6, 3.6, -3.2, 3.6), line(3.6, 3.2, 3.6, 3.6, 3.2, 3.6), line(3.6, -3.2, 3.6, -3.6, 3.2, -3.6), line(-3.6, -3.2, -3.6, -3.6, -3.2, -3.6), circle(-4.2, 3.5, 0.15)}
	f.Body = []design.Figure{rect(-3.5, -3.5, 3.5, 3.5), circle(-2.8, 2.8, 0.3)}
	f.Courtyard = yard(-5.2, -5.2, 5.2, 5.2)
	add(f, 0, 5.9)

	add(&design.Footprint{Name: "SOT-223", Description: "SOT-223, three leads and tab",
		Pads: []design.Pad{surface("1", -2.3, -3.15, 0.95, 2), surface("2", 0, -3.15, 0.95, 2), surface("3", 2.3, -3.15, 0.95, 2), surface("4", 0, 3.15, 3.3, 2)},
		Silk: []design.Figure{line(-3.4, -1.9, -3.4, 1.9), line(3.4, -1.9, 3.4, 1.9)}, Body: []design.Figure{rect(-3.25, -1.75, 3.25, 1.75)}, Courtyard: yard(-3.65, -4.4, 3.65, 4.4)}, 0, 5.2)

	through3 := []design.Pad{through("1", "rect", -5.08, 0, 2.4, 1.3), through("2", "round", 0, 0, 2.4, 1.3), through("3", "round", 5.08, 0, 2.4, 1.3)}
	add(&design.Footprint{Name: "Screw terminal 3", Description: "Screw terminal, three ways at 5.08 mm, wires enter from below", Pads: through3,
		Silk: []design.Figure{rect(-7.62, -4, 7.62, 4), line(-7.62, -2.6, 7.62, -2.6)}, Body: []design.Figure{rect(-7.62, -4, 7.62, 4)}, Courtyard: yard(-7.87, -4.25, 7.87, 4.25)}, 0, 2.6)

	add(&design.Footprint{Name: "Coin cell 20 mm", Description: "Holder for a coin cell of 20 mm, lying",
		Pads: []design.Pad{through("1", "rect", -10.2, 0, 2.6, 1.4), through("2", "round", 10.2, 0, 2.6, 1.4)},
		Silk: []design.Figure{circle(0, 0, 8.4), line(-9.8, 4, -7.8, 4), line(-8.8, 3, -8.8, 5)}, Body: []design.Figure{circle(0, 0, 10), rect(-11, -5, 11, 5)}, Courtyard: yard(-11.8, -10.6, 11.8, 10.6)}, 0, 11.5)

	add(&design.Footprint{Name: "Relay", Description: "Relay, coil at 12.2 mm, one change-over contact",
		Pads: []design.Pad{through("1", "rect", -6, -7.6, 2, 1.1), through("2", "round", 6, -7.6, 2, 1.1), through("3", "round", 0, 7.6, 2.4, 1.3), through("4", "round", -6, 7.6, 2.4, 1.3), through("5", "round", 6, 7.6, 2.4, 1.3)},
		Silk: []design.Figure{rect(-7.8, -9.7, 7.8, 9.7)}, Body: []design.Figure{rect(-7.6, -9.5, 7.6, 9.5)}, Courtyard: yard(-8, -9.9, 8, 9.9)}, 0, 10.8)

	add(&design.Footprint{Name: "Service port", Description: "Socket for a service cable, lying at the edge",
		Pads: []design.Pad{surface("1", -1.3, 2.7, 0.4, 1.4), surface("2", -0.65, 2.7, 0.4, 1.4), surface("3", 0, 2.7, 0.4, 1.4), surface("4", 1.3, 2.7, 0.4, 1.4), surface("5", 3.2, 0, 1.6, 2.2)},
		Silk: []design.Figure{line(-3.8, 1.7, -3.8, -2.5), line(3.8, -1.7, 3.8, -2.5)}, Body: []design.Figure{rect(-3.75, -2.6, 3.75, 2.2)}, Courtyard: yard(-4.3, -2.8, 4.3, 3.7)}, 0, 4.6)
}
