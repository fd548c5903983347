package library

import (
	"fmt"

	"goldentrace/core/design"
)

// passives are resistors, capacitors, coils, crystals and what looks like them.
func passives() []generated {
	var out []generated
	add := func(name, prefix, symbol, value, text, keywords string, r *design.Recipe) {
		out = append(out, generated{name: name, prefix: prefix, symbol: symbol, value: value, text: text, keywords: keywords, body: r})
	}
	for _, c := range chips {
		size := c.name
		if size != "0603" && size != "0805" && size != "1206" {
			add("Resistor "+size, "R", "Resistor", "1k", "Resistor, chip "+size, "ohm smd", chipOf(size, "RES", min(c.width*0.6, 0.6), false))
			add("Capacitor "+size, "C", "Capacitor", "100n", "Ceramic capacitor, chip "+size, "farad smd", chipOf(size, "CAP", c.width, false))
		}
		if c.length < 4 && c.length > 0.9 {
			add("Coil "+size, "L", "Coil", "10µ", "Inductor, chip "+size, "inductor henry smd", chipOf(size, "IND", c.width, false))
			add("Thermistor "+size, "R", "Resistor", "10k", "Thermistor, chip "+size, "ntc temperature smd",
				chipOf(size, "THRM", c.width*0.6, false))
			add("Varistor "+size, "R", "Resistor", "14 V", "Varistor, chip "+size, "surge protection smd", chipOf(size, "VAR", c.width*0.7, false))
			if size != "0805" {
				add("Ferrite bead "+size, "L", "Coil", "600 Ω", "Ferrite bead, chip "+size, "inductor filter smd", chipOf(size, "BEA", c.width, false))
				add("LED "+size, "D", "LED", "", "Light-emitting diode, chip "+size, "lamp light smd", chipOf(size, "LED", c.width*0.7, true))
			}
			if size != "1206" {
				add("Fuse "+size, "F", "Fuse", "500 mA", "Fuse, chip "+size, "protection smd", chipOf(size, "FUS", c.width*0.7, false))
			}
		}
	}
	for _, x := range []struct {
		letter         string
		l, w, t, tw, h float64
	}{{"A", 3.2, 1.6, 0.8, 1.2, 1.6}, {"B", 3.5, 2.8, 0.8, 2.2, 1.9}, {"C", 6.0, 3.2, 1.3, 2.2, 2.5}, {"D", 7.3, 4.3, 1.3, 2.4, 2.8},
		{"E", 7.3, 4.3, 1.3, 2.4, 4.0}} {
		add("Tantalum capacitor "+x.letter, "C", "Electrolytic capacitor", "10µ", "Tantalum capacitor, moulded, size "+x.letter,
			"farad polarised smd",
			mouldedOf("CAP", true, x.l-0.2, x.l+0.2, x.w-0.2, x.w+0.2, x.t-0.3, x.t+0.3, x.tw-0.1, x.tw+0.1, x.h-0.2, x.h+0.2))
	}
	for _, x := range []struct{ base, height float64 }{{4.3, 5.4}, {5.3, 5.4}, {6.6, 5.4}, {6.6, 7.7}, {8.3, 6.5}, {8.3, 10.2},
		{10.3, 10.2}, {12.8, 13.5}} {
		size := fmt.Sprintf("%g × %g mm", x.base, x.height)
		add("Electrolytic capacitor "+size, "C", "Electrolytic capacitor", "47µ", "Aluminium capacitor, surface can, base "+size,
			"farad polarised smd", canOf(x.base, x.height))
	}
	for _, x := range []struct{ d, h, span, lead float64 }{{4, 7, 1.5, 0.45}, {5, 11, 2, 0.5}, {6.3, 11, 2.5, 0.5}, {8, 12, 3.5, 0.6},
		{10, 16, 5, 0.6}, {12.5, 20, 5, 0.6}, {16, 25, 7.5, 0.8}, {18, 32, 7.5, 0.8}} {
		size := fmt.Sprintf("⌀ %g mm", x.d)
		add("Electrolytic capacitor "+size, "C", "Electrolytic capacitor", "100µ",
			fmt.Sprintf("Aluminium capacitor, radial, %s, %g mm high", size, x.h), "farad polarised tht",
			radialOf("CAP", x.span, x.d, x.h, x.lead, 0, true))
	}
	for _, x := range []struct{ span, l, h, th float64 }{{2.54, 4, 4, 2.5}, {5.08, 5, 5, 2.5}, {5.08, 7.2, 6.5, 2.5}, {7.5, 10, 9, 4},
		{10, 13, 11, 5}, {15, 18, 12, 6}, {22.5, 26.5, 15, 7}} {
		size := fmt.Sprintf("%g mm, %g × %g mm", x.span, x.l, x.th)
		add("Film capacitor "+size, "C", "Capacitor", "100n", "Film capacitor, box, leads at "+size, "farad tht",
			radialOf("CAP", x.span, x.l, x.h, 0.6, x.th, false))
	}
	for _, x := range []struct {
		power           string
		length, d, lead float64
	}{{"1/8 W", 3.6, 1.7, 0.45}, {"1/4 W", 6.5, 2.5, 0.6}, {"1/2 W", 9.2, 3.2, 0.65}, {"1 W", 11.5, 4.5, 0.75}, {"2 W", 15.5, 5, 0.8},
		{"5 W", 24, 8, 0.8}} {
		add("Resistor axial "+x.power, "R", "Resistor", "1k", "Resistor, axial leads, "+x.power, "ohm tht",
			axialOf("RES", x.length, x.d, x.lead, false))
		if x.d < 5 {
			add("Coil axial "+x.power, "L", "Coil", "100µ", "Inductor, axial leads, as large as a resistor of "+x.power,
				"inductor henry tht", axialOf("IND", x.length, x.d, x.lead, false))
		}
	}
	for _, x := range []struct{ side, h float64 }{{3, 1.5}, {4, 2}, {5, 3}, {7.3, 4.5}, {10, 5}, {12.5, 6}} {
		size := fmt.Sprintf("%g × %g mm", x.side, x.side)
		add("Power coil "+size, "L", "Coil", "22µ", "Shielded power inductor, "+size, "inductor henry smd",
			recipe("chip", nil, body{"length": mmRange(x.side-0.2, x.side+0.2), "width": mmRange(x.side-0.2, x.side+0.2),
				"terminal": mmRange(x.side*0.2, x.side*0.28), "height": mmRange(x.h-0.3, x.h)}, "kind", "IND"))
	}
	add("Resistor MELF 0204", "R", "Resistor", "1k", "Resistor, cylinder with end caps, 3.5 × 1.4 mm", "ohm smd", cylinderOf("RES", 3.5, 1.4))
	add("Resistor MELF 0207", "R", "Resistor", "1k", "Resistor, cylinder with end caps, 5.8 × 2.2 mm", "ohm smd", cylinderOf("RES", 5.8, 2.2))
	for _, x := range []struct{ x, y, h float64 }{{2.0, 1.6, 0.5}, {2.5, 2.0, 0.55}, {3.2, 2.5, 0.7}, {5.0, 3.2, 0.9}} {
		out = append(out, generated{name: fmt.Sprintf("Crystal %g × %g mm", x.x, x.y), prefix: "Y", symbol: "Crystal, case", value: "16 MHz",
			text: fmt.Sprintf("Quartz crystal, four lands, %g × %g mm", x.x, x.y), keywords: "quartz oscillator smd",
			body: crystalOf(x.x, x.y, x.h)})
	}
	return out
}
