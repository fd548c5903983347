package library

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

func through(number, form string, x, y, size, hole float64) design.Pad {
	return design.Pad{Number: number, Form: form, At: pts(x, y)[0], Size: pts(size, size)[0], Hole: units.MMf(hole)}
}

func surface(number string, x, y, w, h float64) design.Pad {
	return design.Pad{Number: number, Form: "rounded", At: pts(x, y)[0], Size: pts(w, h)[0], Corner: units.MMf(min(w, h) / 4)}
}

func rect(x0, y0, x1, y1 float64) design.Figure { return line(x0, y0, x1, y0, x1, y1, x0, y1, x0, y0) }

func yard(x0, y0, x1, y1 float64) []geom.Point { return pts(x0, y0, x1, y0, x1, y1, x0, y1) }

func footprints() map[string]*design.Footprint {
	out := map[string]*design.Footprint{}
	add := func(f *design.Footprint, dx, dy float64) {
		f.DesignatorAt = pts(dx, dy)[0]
		giveBody(f)
		out[f.Name] = f
	}
	// axial parts lie along x, pin 1 at the left
	axial := func(name, text string, pitch, length, dia, pad, hole float64, band bool) {
		h, l, r := pitch/2, length/2, dia/2
		f := &design.Footprint{Name: name, Description: text,
			Pads:      []design.Pad{through("1", "round", -h, 0, pad, hole), through("2", "round", h, 0, pad, hole)},
			Silk:      []design.Figure{rect(-l, -r, l, r)},
			Body:      []design.Figure{rect(-l, -r, l, r), line(-h, 0, -l, 0), line(l, 0, h, 0)},
			Courtyard: yard(-h-pad/2-0.25, -max(r, pad/2)-0.25, h+pad/2+0.25, max(r, pad/2)+0.25)}
		if gap := h - pad/2 - 0.2; gap > l {
			f.Silk = append(f.Silk, line(-gap, 0, -l, 0), line(l, 0, gap, 0))
		}
		if band {
			f.Pads[0].Form = "round"
			f.Pads[1].Form = "rect"
			f.Silk = append(f.Silk, line(l-0.6, -r, l-0.6, r), line(l-0.8, -r, l-0.8, r))
		}
		add(f, 0, r+0.9)
	}
	axial("Axial 10.16 mm", "Axial leads, pitch 10.16 mm, body 6.3 × 2.4 mm", 10.16, 6.3, 2.4, 1.7, 0.8, false)
	axial("Axial 7.62 mm", "Axial leads, pitch 7.62 mm, body 4.0 × 2.0 mm, band at pin 2", 7.62, 4, 2, 1.6, 0.8, true)

	disc := func(name, text string, pitch, w, d, pad, hole float64) {
		h := pitch / 2
		add(&design.Footprint{Name: name, Description: text,
			Pads:      []design.Pad{through("1", "round", -h, 0, pad, hole), through("2", "round", h, 0, pad, hole)},
			Silk:      []design.Figure{line(-w/2, d/2, w/2, d/2), line(-w/2, -d/2, w/2, -d/2)},
			Body:      []design.Figure{rect(-w/2, -d/2, w/2, d/2)},
			Courtyard: yard(-h-pad/2-0.25, -d/2-0.25, h+pad/2+0.25, d/2+0.25)}, 0, d/2+0.9)
	}
	disc("Disc 5.08 mm", "Radial leads, pitch 5.08 mm, body 5.0 × 2.5 mm", 5.08, 5, 2.5, 1.6, 0.8)

	can := func(name, text string, pitch, dia, pad, hole float64, plus bool) {
		h, r := pitch/2, dia/2
		f := &design.Footprint{Name: name, Description: text,
			Pads:      []design.Pad{through("1", "rect", -h, 0, pad, hole), through("2", "round", h, 0, pad, hole)},
			Silk:      []design.Figure{circle(0, 0, r+0.1)},
			Body:      []design.Figure{circle(0, 0, r)},
			Courtyard: yard(-r-0.35, -r-0.35, r+0.35, r+0.35)}
		if plus {
			f.Silk = append(f.Silk, line(-r-0.9, r-0.1, -r+0.1, r-0.1), line(-r-0.4, r-0.6, -r-0.4, r+0.4))
		} else {
			f.Silk = append(f.Silk, line(r+0.35, -1, r+0.35, 1))
		}
		add(f, 0, r+1)
	}
	can("Can 5 mm", "Radial can, diameter 5 mm, pitch 2.54 mm, pin 1 positive", 2.54, 5, 1.6, 0.8, true)
	can("LED 5 mm", "Round lamp, diameter 5 mm, pitch 2.54 mm, flat at the cathode (2)", 2.54, 5.8, 1.7, 0.9, false)

	add(&design.Footprint{Name: "TO-92 wide", Description: "TO-92, leads in line at 2.54 mm",
		Pads: []design.Pad{through("1", "rect", -2.54, 0, 1.6, 0.8), through("2", "round", 0, 0, 1.6, 0.8), through("3", "round", 2.54, 0, 1.6, 0.8)},
		Silk: []design.Figure{line(-2.2, -1.4, 2.2, -1.4), line(-2.2, 1.3, -1.3, 2.1, 1.3, 2.1, 2.2, 1.3)},
		Body: []design.Figure{line(-2.2, -1.4, 2.2, -1.4, 2.2, 1.2, 1.3, 2.1, -1.3, 2.1, -2.2, 1.2, -2.2, -1.4)}, Courtyard: yard(-3.6, -1.65, 3.6, 2.35)}, 0, 3)

	add(&design.Footprint{Name: "Toggle 5.08 mm", Description: "Toggle switch, two pins at 5.08 mm, body 8 × 5 mm",
		Pads: []design.Pad{through("1", "round", -2.54, 0, 2, 1.1), through("2", "round", 2.54, 0, 2, 1.1)},
		Silk: []design.Figure{rect(-4, -2.5, 4, 2.5)}, Body: []design.Figure{rect(-4, -2.5, 4, 2.5), circle(0, 0, 1.2)},
		Courtyard: yard(-4.25, -2.75, 4.25, 2.75)}, 0, 3.4)

	add(&design.Footprint{Name: "Screw terminal 2", Description: "Screw terminal, two ways at 5.08 mm, wires enter from below",
		Pads: []design.Pad{through("1", "rect", -2.54, 0, 2.4, 1.3), through("2", "round", 2.54, 0, 2.4, 1.3)},
		Silk: []design.Figure{rect(-5.08, -4, 5.08, 4), line(-5.08, -2.6, 5.08, -2.6)}, Body: []design.Figure{rect(-5.08, -4, 5.08, 4)},
		Courtyard: yard(-5.33, -4.25, 5.33, 4.25)}, 0, 2.6)

	for _, n := range []int{2, 4, 6, 10} {
		f := &design.Footprint{Name: fmt.Sprintf("Header %d", n), Description: fmt.Sprintf("Pin header, one row of %d at 2.54 mm", n)}
		half := 1.27 * float64(n-1)
		for i := range n {
			form := "round"
			if i == 0 {
				form = "rect"
			}
			f.Pads = append(f.Pads, through(fmt.Sprint(i+1), form, -half+2.54*float64(i), 0, 1.7, 1))
		}
		f.Silk = []design.Figure{rect(-half-1.35, -1.35, half+1.35, 1.35), line(-half+1.27, -1.35, -half+1.27, 1.35)}
		f.Body = []design.Figure{rect(-half-1.27, -1.27, half+1.27, 1.27)}
		f.Courtyard = yard(-half-1.6, -1.6, half+1.6, 1.6)
		add(f, 0, 2.3)
	}

	drawn := func(name, text string, at, w, h, bl, bw float64, cathode bool) {
		edge := at + w/2 + 0.2
		top := max(h/2, bw/2) + 0.2
		f := &design.Footprint{Name: name, Description: text,
			Pads:      []design.Pad{surface("1", -at, 0, w, h), surface("2", at, 0, w, h)},
			Silk:      []design.Figure{line(-edge, top, edge, top), line(-edge, -top, edge, -top)},
			Body:      []design.Figure{rect(-bl/2, -bw/2, bl/2, bw/2)},
			Courtyard: yard(-edge-0.05, -top-0.05, edge+0.05, top+0.05)}
		if cathode { // the silk goes around its pad
			f.Silk = []design.Figure{line(-edge, top, edge+0.1, top, edge+0.1, -top, -edge, -top)}
			f.Courtyard = yard(-edge-0.2, -top-0.05, edge+0.2, top+0.05)
		}
		add(f, 0, top+0.8)
	}
	chip := func(name string, at, w, h, bl, bw float64) { drawn(name, "Chip "+name, at, w, h, bl, bw, false) }
	chip("0603", 0.8, 0.8, 0.95, 1.6, 0.8)
	chip("0805", 0.95, 1.0, 1.45, 2.0, 1.25)
	drawn("0805 diode", "Chip 0805 with a polarity, silk around the cathode (2)", 0.95, 1.0, 1.45, 2.0, 1.25, true)

	add(&design.Footprint{Name: "SOT-23", Description: "SOT-23, three leads",
		Pads: []design.Pad{surface("1", -0.95, -1, 0.6, 0.9), surface("2", 0.95, -1, 0.6, 0.9), surface("3", 0, 1, 0.6, 0.9)},
		Silk: []design.Figure{line(-1.55, 0.7, -1.55, -0.5), line(1.55, 0.7, 1.55, -0.5), line(-1.55, 0.7, -0.5, 0.7), line(0.5, 0.7, 1.55, 0.7)},
		Body: []design.Figure{rect(-1.45, -0.65, 1.45, 0.65)}, Courtyard: yard(-1.75, -1.7, 1.75, 1.7)}, 0, 2.4)

	small := func(pins int) {
		f := &design.Footprint{Name: fmt.Sprintf("SOIC-%d", pins), Description: fmt.Sprintf("SOIC, %d leads at 1.27 mm, body 3.9 mm wide", pins)}
		half := pins / 2
		y0 := 1.27 * float64(half-1) / 2
		for i := range half {
			f.Pads = append(f.Pads, surface(fmt.Sprint(i+1), -2.7, y0-1.27*float64(i), 1.55, 0.6))
		}
		for i := range half {
			f.Pads = append(f.Pads, surface(fmt.Sprint(half+i+1), 2.7, -y0+1.27*float64(i), 1.55, 0.6))
		}
		l := y0 + 0.8
		f.Silk = []design.Figure{line(-1.7, l, 1.7, l), line(-1.7, -l, 1.7, -l), circle(-3.1, y0+0.85, 0.15)}
		f.Body = []design.Figure{rect(-1.95, -l, 1.95, l), circle(-1.3, l-0.7, 0.3)}
		f.Courtyard = yard(-3.75, -l-0.25, 3.75, l+0.25)
		add(f, 0, l+0.9)
	}
	small(8)
	small(16)
	chip("1206", 1.5, 1.1, 1.8, 3.2, 1.6)
	drawn("SMA", "Diode SMA, silk around the cathode (2)", 2.0, 1.8, 1.8, 4.3, 2.6, true)
	chip("Coil 6 mm", 2.4, 2.0, 5.6, 6.0, 6.0)
	chip("Crystal 3.2 mm", 1.25, 1.0, 1.5, 3.2, 1.5)
	fieldFootprints(add)
	shapedFootprints(add)
	switchFootprints(add)
	return out
}

func handmade() []*design.LibraryPart {
	lp := func(name, prefix, symbol, footprint, value, text, keywords string) *design.LibraryPart {
		return &design.LibraryPart{Name: name, Prefix: prefix, Symbol: symbol, Footprint: footprint, Value: value, Description: text, Keywords: keywords}
	}
	padOf := func(p *design.LibraryPart, m map[string]string) *design.LibraryPart {
		p.PadOf = m
		return p
	}
	// The surface transistor has base, emitter and collector on leads 1, 2 and 3.
	flat := map[string]string{"1": "3", "2": "1", "3": "2"}
	return append([]*design.LibraryPart{
		lp("Resistor", "R", "Resistor", "Axial 10.16 mm", "1k", "Resistor, axial leads", "ohm tht"),
		lp("Resistor 0805", "R", "Resistor", "0805", "1k", "Resistor, chip 0805", "ohm smd"),
		lp("Resistor 0603", "R", "Resistor", "0603", "1k", "Resistor, chip 0603", "ohm smd"),
		lp("Capacitor", "C", "Capacitor", "Disc 5.08 mm", "100n", "Ceramic capacitor, radial leads", "farad tht"),
		lp("Capacitor 0805", "C", "Capacitor", "0805", "100n", "Ceramic capacitor, chip 0805", "farad smd"),
		lp("Capacitor 0603", "C", "Capacitor", "0603", "100n", "Ceramic capacitor, chip 0603", "farad smd"),
		lp("Electrolytic capacitor", "C", "Electrolytic capacitor", "Can 5 mm", "10µ", "Polarised capacitor, radial can 5 mm", "farad polarised tht"),
		lp("LED", "D", "LED", "LED 5 mm", "", "Light-emitting diode, 5 mm", "lamp light tht"),
		lp("LED 0805", "D", "LED", "0805 diode", "", "Light-emitting diode, chip 0805", "lamp light smd"),
		lp("Diode", "D", "Diode", "Axial 7.62 mm", "", "Diode, axial leads", "rectifier tht"),
		lp("NPN transistor", "Q", "NPN transistor", "TO-92 wide", "", "Bipolar transistor NPN, TO-92", "bjt tht"),
		padOf(lp("NPN transistor SOT-23", "Q", "NPN transistor", "SOT-23", "", "Bipolar transistor NPN, SOT-23", "bjt smd"), flat),
		lp("PNP transistor", "Q", "PNP transistor", "TO-92 wide", "", "Bipolar transistor PNP, TO-92", "bjt tht"),
		padOf(lp("PNP transistor SOT-23", "Q", "PNP transistor", "SOT-23", "", "Bipolar transistor PNP, SOT-23", "bjt smd"), flat),
		lp("Switch", "S", "Switch", "Toggle 5.08 mm", "", "Switch, one contact", "toggle spst tht"),
		lp("Terminal 2", "J", "Terminal 2", "Screw terminal 2", "", "Screw terminal, two ways", "connector tht"),
		lp("Header 2", "J", "Header 2", "Header 2", "", "Pin header, 2 pins", "connector tht"),
		lp("Header 4", "J", "Header 4", "Header 4", "", "Pin header, 4 pins", "connector tht"),
		lp("Header 6", "J", "Header 6", "Header 6", "", "Pin header, 6 pins", "connector tht"),
		lp("Header 10", "J", "Header 10", "Header 10", "", "Pin header, 10 pins", "connector tht"),
		lp("Resistor 1206", "R", "Resistor", "1206", "100", "Resistor, chip 1206", "ohm smd power"),
		lp("Capacitor 1206", "C", "Capacitor", "1206", "10µ", "Ceramic capacitor, chip 1206", "farad smd"),
		lp("Fuse 1206", "F", "Fuse", "1206", "500 mA", "Fuse, chip 1206", "protection smd"),
		lp("Coil", "L", "Coil", "Coil 6 mm", "22µ", "Shielded power inductor, 6 × 6 mm", "inductor henry smd"),
		lp("Ferrite bead", "L", "Coil", "0805", "600 Ω", "Ferrite bead, chip 0805", "inductor filter smd"),
		lp("Diode SMA", "D", "Diode", "SMA", "", "Diode, SMA", "rectifier schottky smd"),
		lp("Suppressor SMA", "D", "Suppressor", "SMA", "33 V", "Transient suppressor, one way, SMA", "tvs protection smd"),
		lp("Crystal", "Y", "Crystal", "Crystal 3.2 mm", "", "Quartz crystal, two pads", "quartz oscillator smd"),
		lp("Terminal 3", "J", "Terminal 3", "Screw terminal 3", "", "Screw terminal, three ways", "connector tht"),
		lp("Coin cell", "B", "Cell", "Coin cell 20 mm", "3 V", "Holder for a coin cell of 20 mm", "battery tht"),
		lp("Relay", "K", "Relay", "Relay", "", "Relay with one change-over contact", "coil contact tht"),
		lp("Service port", "J", "Service port", "Service port", "", "Socket for a service cable: supply, data pair, shield", "connector usb smd"),
		lp("Clamp pair", "D", "Clamp pair", "SOT-23", "", "Two clamping diodes in series, SOT-23", "esd protection smd"),
		lp("Step-down converter", "U", "Step-down converter", "SOIC-8", "OM-2405", "Switching regulator, 36 V in, 2 A, SOIC-8", "buck supply smd"),
		lp("Regulator SOT-223", "U", "Regulator", "SOT-223", "OM-1133", "Linear regulator, SOT-223", "ldo supply smd"),
		lp("Bus driver", "U", "Bus driver", "SOIC-8", "SK-485", "Transceiver for a differential field bus, SOIC-8", "rs-485 smd"),
		lp("Memory", "U", "Memory", "SOIC-8", "QF-24C", "Serial memory, two-wire, SOIC-8", "eeprom i2c smd"),
		lp("Clock", "U", "Clock", "SOIC-8", "QF-RT8", "Real-time clock, two-wire, SOIC-8", "rtc i2c smd"),
		lp("Controller 48", "U", "Controller 48", "QFP-48", "HX-48C", "Controller, 48 pins, QFP 7 × 7 mm", "microcontroller smd"),
		&design.LibraryPart{Name: "Dual amplifier, units", Prefix: "U", Symbol: "Amplifier 1", Footprint: "SOIC-8", Value: "BV272", Description: "Two operational amplifiers drawn apart, SOIC-8",
			Keywords: "opamp smd", Units: []string{"Amplifier 1", "Amplifier 2", "Amplifier supply"}},
		lp("Dual amplifier", "U", "Dual amplifier", "SOIC-8", "", "Two operational amplifiers, SOIC-8", "opamp smd"),
		lp("Dual amplifier DFN", "U", "Dual amplifier", "DFN-8", "BV274", "Two operational amplifiers, DFN-8 with heat pad", "opamp smd"),
		lp("Supply socket", "J", "Terminal 3", "Supply socket", "9 V", "Socket for a mains adapter: middle, sleeve, switch", "connector power jack tht"),
		lp("Solder bridge", "S", "Solder bridge", "Solder bridge", "open", "Two pads that a drop of solder joins", "jumper link option"),
		lp("Shift register", "U", "Shift register", "SOIC-16", "", "Eight-bit shift register, SOIC-16", "logic serial smd"),
	}, switchParts(lp)...)
}
