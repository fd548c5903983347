package goods

import (
	"fmt"
	"strings"

	"goldentrace/core/ordering"
)

func (c *range_) clocks() {
	for _, x := range []struct {
		pack string
		l, w float64
	}{{"crystal 2 × 1.6 mm", 2, 1.6}, {"crystal 2.5 × 2 mm", 2.5, 2}, {"crystal 3.2 × 2.5 mm", 3.2, 2.5}, {"crystal 5 × 3.2 mm", 5, 3.2}} {
		for _, mhz := range []float64{4, 6, 7.3728, 8, 9.8304, 10, 11.0592, 12, 12.288, 13, 13.56, 14.7456, 16, 18.432, 19.2, 20, 22.1184,
			24, 24.576, 25, 26, 27, 27.12, 28.224, 30, 32, 33.333, 36, 37.4, 38.4, 40, 48, 50, 52, 54} {
			if mhz < 12 && x.l < 3 || mhz < 8 && x.l < 5 && mhz != 8 {
				continue
			}
			for _, load := range []float64{8, 10, 12, 18, 20} {
				for _, ppm := range []float64{10, 20, 30} {
					c.add(item{family: "crystal", maker: quillfeather, series: fmt.Sprintf("-X%g-%g-%g-%g", mhz, x.l*10, load, ppm), pack: x.pack,
						price: 0.3 + (30-ppm)*0.012 + 0.3/x.l, sold: tapedLarge, rare: 0.3,
						text: fmt.Sprintf("Crystal %s, %g pF, %g ppm", ordering.Quantity(mhz*1e6, "Hz"), load, ppm),
						body: bodyOf(x.l, x.w, 0.7, 4, x.w*0.62, false),
						props: []ordering.Property{num("frequency", mhz*1e6, "Hz"), num("load capacitance", load*1e-12, "F"),
							num("frequency tolerance", ppm, "ppm")}})
				}
			}
		}
	}
	for _, load := range []float64{6, 7, 9, 12.5} {
		for _, x := range []struct {
			pack string
			l, w float64
		}{{"crystal 3.2 × 1.5 mm", 3.2, 1.5}, {"crystal 2 × 1.2 mm", 2, 1.2}} {
			c.add(item{family: "crystal", maker: quillfeather, series: fmt.Sprintf("-W32-%g-%g", x.l*10, load), pack: x.pack, price: 0.42,
				sold: tapedLarge, rare: 0.1, text: fmt.Sprintf("Crystal 32.77 kHz, %g pF, 20 ppm", load),
				body: bodyOf(x.l, x.w, 0.75, 2, x.l*0.78, false),
				props: []ordering.Property{num("frequency", 32768, "Hz"), num("load capacitance", load*1e-12, "F"),
					num("frequency tolerance", 20, "ppm")}})
		}
	}
	for _, mhz := range []float64{4, 8, 10, 12, 16, 20} { // with two lands
		for _, load := range []float64{12, 18} {
			c.add(item{family: "crystal", maker: quillfeather, series: fmt.Sprintf("-Y%g-%g", mhz, load), pack: "crystal 3.2 × 1.5 mm",
				price: 0.36, sold: tapedLarge, rare: 0.2, text: fmt.Sprintf("Crystal %s, %g pF, 30 ppm", ordering.Quantity(mhz*1e6, "Hz"),
					load), body: bodyOf(3.2, 1.5, 0.75, 2, 2.5, false),
				props: []ordering.Property{num("frequency", mhz*1e6, "Hz"), num("load capacitance", load*1e-12, "F"),
					num("frequency tolerance", 30, "ppm")}})
		}
	}
	for _, mhz := range []float64{1, 4, 8, 10, 12, 16, 20, 24, 25, 26, 32, 40, 48, 50, 66.667, 100, 125} {
		for _, volts := range []float64{1.8, 3.3, 5} {
			for _, ppm := range []float64{2.5, 25, 50} {
				c.add(item{family: "oscillator", maker: quillfeather, series: fmt.Sprintf("-O%g-%g-%g", mhz, volts*10, ppm),
					pack: "oscillator 3.2 × 2.5 mm", price: 0.8 + 3/ppm, sold: tapedLarge, rare: 0.5,
					text:  fmt.Sprintf("Oscillator %s, %g V, %g ppm", ordering.Quantity(mhz*1e6, "Hz"), volts, ppm),
					body:  bodyOf(3.2, 2.5, 1, 4, 2.1, false),
					props: []ordering.Property{num("frequency", mhz*1e6, "Hz"), num("supply", volts, "V"), num("frequency tolerance", ppm, "ppm")}})
			}
		}
	}
}

func (c *range_) protection() {
	for i, size := range []string{"0402", "0603", "1206", "2512"} {
		for _, a := range []float64{0.032, 0.05, 0.063, 0.1, 0.125, 0.2, 0.25, 0.315, 0.5, 0.63, 0.75, 1, 1.25, 1.5, 2, 2.5, 3.15, 4, 5, 6.3} {
			for _, speed := range []string{"fast", "slow"} {
				if a > 1.5*float64(i+1) || a < 0.06 && i == 0 {
					continue
				}
				c.add(item{family: "fuse", maker: haldwick, series: fmt.Sprintf("F%s%g%s", size, a*1000, speed[:1]), pack: size,
					price: 0.16 + float64(i)*0.05, sold: taped, rare: 0.25, text: fmt.Sprintf("Fuse %s, %s", ordering.Quantity(a, "A"), speed),
					props: []ordering.Property{num("rated current", a, "A"), num("voltage", []float64{24, 32, 63, 125}[i], "V"), word("speed", speed)}})
			}
		}
		if size == "2512" {
			continue
		}
		for _, ohms := range []float64{1e3, 2.2e3, 4.7e3, 1e4, 2.2e4, 4.7e4, 1e5} {
			for _, b := range []float64{3380, 3435, 3950, 4250} {
				c.add(item{family: "thermistor", maker: sennick, series: fmt.Sprintf("N%s%s%g", size, code(ohms, "R"), b), pack: size,
					price: 0.09, sold: taped, rare: 0.25, text: fmt.Sprintf("Thermistor %s, B %g K", ordering.Quantity(ohms, "Ω"), b),
					props: []ordering.Property{num("resistance", ohms, "Ω"), num("tolerance", 1, "%"), num("B value", b, "K")}})
			}
		}
		for _, v := range []float64{5.5, 9, 14, 18, 26, 30, 38, 42, 56} {
			c.add(item{family: "varistor", maker: bryceVane, series: fmt.Sprintf("V%s%g", size, v), pack: size,
				price: 0.08 + float64(i)*0.03, sold: taped, rare: 0.25, text: fmt.Sprintf("Varistor %g V, chip", v),
				props: []ordering.Property{num("voltage", v, "V"), num("clamps at", round2(v*2.1), "V")}})
		}
	}
}

func (c *range_) mechanical() {
	for _, v := range []float64{3, 4.5, 5, 6, 9, 12, 24} {
		for _, a := range []float64{1, 2, 5, 10, 16} {
			for _, contacts := range []string{"one change-over", "two change-over", "one closing"} {
				if a > 5 && contacts == "two change-over" {
					continue
				}
				pack := map[bool]string{true: "relay 20 × 10 mm", false: "relay 29 × 13 mm"}[a <= 5]
				body := bodyOf(20.2, 10.2, 10.6, 5, 2.54, true)
				if a > 5 {
					body = bodyOf(29, 12.7, 15.7, 5, 5.08, true)
				}
				c.add(item{family: "relay", maker: haldwick,
					series: fmt.Sprintf("RL%g-%g%s", v*10, a, map[string]string{"one change-over": "C", "two change-over": "D",
						"one closing": "A"}[contacts]), pack: pack, price: 1 + a*0.09, sold: loose, rare: 0.4,
					text: fmt.Sprintf("Relay %g V, %g A, %s", v, a, contacts), body: body,
					props: []ordering.Property{num("coil voltage", v, "V"), num("coil resistance", round2(v*v/0.36), "Ω"), num("current", a, "A"),
						word("contacts", contacts)}})
			}
		}
	}
	c.add(item{family: "relay", maker: haldwick, series: "-R5", pack: "relay 20 × 10 mm", price: 1.75, sold: loose,
		text: "Relay 5 V, 5 A, one change-over", body: bodyOf(20.2, 10.2, 10.6, 5, 2.54, true),
		props: []ordering.Property{num("coil voltage", 5, "V"), num("coil resistance", 70, "Ω"), num("current", 5, "A"),
			word("contacts", "one change-over")}})
	for _, kind := range []string{"header", "socket"} {
		for _, pitch := range []float64{2.54, 2, 1.27} {
			for rows := 1; rows <= 2; rows++ {
				for n := 1; n <= 40; n++ {
					for _, way := range []string{"upright", "angled"} {
						if n*rows < 2 || pitch < 2 && n > 25 || kind == "socket" && n > 20 {
							continue
						}
						c.add(item{family: "connector", maker: haldwick, series: fmt.Sprintf("-%s%d%02d-%g%s", kind[:1], rows, n, pitch*100, way[:1]),
							pack: fmt.Sprintf("%s %d × %d, %g mm", kind, rows, n, pitch), price: 0.08 + float64(n*rows)*0.028, sold: loose,
							rare: 0.2 + float64(n)/100,
							text: fmt.Sprintf("Connector: %s, %d × %d, %g mm, %s", kind, rows, n, pitch, way),
							body: bodyOf(float64(n)*pitch, float64(rows)*pitch, 8.5, rows*n, pitch, true),
							props: []ordering.Property{word("kind", kind), num("ways", float64(rows*n), ""), num("rows", float64(rows), ""),
								num("pitch", pitch/1000, "m"), word("direction", way), num("current", 3*pitch/2.54, "A")}})
					}
				}
			}
		}
	}
	for _, pitch := range []float64{3.5, 3.81, 5, 5.08, 7.5} {
		for n := 2; n <= 12; n++ {
			for _, colour := range []string{"green", "grey"} {
				c.add(item{family: "screw terminal", maker: sennick, series: fmt.Sprintf("K%g%02d%s", pitch*100, n,
					strings.ToUpper(colour[:1]+colour[len(colour)-1:])), pack: fmt.Sprintf("screw terminal %d, %g mm", n, pitch),
					price: 0.2 + float64(n)*0.16, sold: loose, rare: 0.2,
					text: fmt.Sprintf("Screw terminal, %d ways, %g mm, %s", n, pitch, colour),
					body: bodyOf(float64(n)*pitch, pitch*1.7, pitch*2, n, pitch, true),
					props: []ordering.Property{num("ways", float64(n), ""), num("pitch", pitch/1000, "m"), num("current", pitch*2.8, "A"),
						num("wire, most", pitch*0.5e-6, "m²"), word("colour", colour)}})
			}
		}
	}
	for k, kind := range []string{"port, mini", "port, micro", "port, C"} {
		for _, way := range []string{"flat", "upright", "sunk"} {
			c.add(item{family: "connector", maker: haldwick, series: fmt.Sprintf("-U%d%s", k+1, way[:1]), pack: "service " + kind,
				price: 0.45 + float64(k)*0.25, sold: tapedLarge, rare: 0.3, text: "Connector: service " + kind + ", " + way,
				body:  bodyOf(8.9, 7.3, 3.2, 5, 0.65, false),
				props: []ordering.Property{word("kind", "service "+kind), num("ways", 5, ""), word("direction", way), num("current", 3, "A")}})
		}
	}
	for _, kind := range []string{"push button", "slide", "toggle", "rotary coding"} {
		for _, force := range []float64{1, 1.6, 2.5, 4} {
			for _, h := range []float64{4.3, 5, 7, 9.5, 13} {
				c.add(item{family: "switch", maker: sennick, series: fmt.Sprintf("W%c%g%g", kind[0]-32, force*10, h*10), pack: "switch 6 mm",
					price: 0.12 + h*0.03 + float64(len(kind))*0.04, sold: loose, rare: 0.3,
					text: fmt.Sprintf("Switch: %s, %g N, %g mm high", kind, force, h), body: bodyOf(6, 6, h, 4, 4.5, true),
					props: []ordering.Property{word("kind", kind), num("force", force, "N"), num("height", h/1000, "m"), num("voltage", 24, "V"),
						num("current", 0.05, "A")}})
			}
		}
	}
	for i, x := range []struct {
		cell  string
		d, hi float64
		ways  []string
	}{{"coin 12 mm", 12, 4, []string{"surface", "through"}}, {"coin 16 mm", 16, 4.5, []string{"surface", "through"}},
		{"coin 20 mm", 20, 5, []string{"surface", "through"}}, {"coin 24 mm", 24, 6, []string{"through"}},
		{"one AA", 58, 16, []string{"through"}}, {"two AA", 58, 16, []string{"through"}}, {"one AAA", 52, 12, []string{"through"}},
		{"two AAA", 52, 12, []string{"through"}}} {
		for _, way := range x.ways {
			for k, contact := range []string{"tin", "gold"} {
				c.add(item{family: "battery holder", maker: sennick, series: fmt.Sprintf("H%d%s%d", i+1, way[:1], k+1),
					pack: "holder " + x.cell, price: 0.6 + x.d*0.015 + float64(k)*0.3, sold: loose, rare: 0.3,
					text:  fmt.Sprintf("Battery holder, %s, %s, %s contacts", x.cell, way, contact),
					body:  bodyOf(x.d+2, x.d, x.hi, 2, x.d+1, way == "through"),
					props: []ordering.Property{word("cell", x.cell), word("mounting", way), word("contacts", contact)}})
			}
		}
	}
}
