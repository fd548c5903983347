package goods

import (
	"fmt"
	"math"

	"goldentrace/core/ordering"
)

func (c *range_) diodes() {
	for _, v := range values(e24, 2.4, 75) {
		for _, x := range []struct {
			pack  string
			watts float64
		}{{"SOD-323", 0.2}, {"SOD-123", 0.5}, {"DO-35", 0.5}, {"DO-41", 1}, {"SMA", 1}, {"SMB", 2}} {
			for _, tol := range []float64{2, 5} {
				s := taped
				if x.pack[:2] == "DO" {
					s = loose
				}
				c.add(item{family: "Zener diode", maker: bryceVane, series: fmt.Sprintf("Z%s-%s-%g", code(v, "V"), x.pack, tol), pack: x.pack,
					price: 0.06 + x.watts*0.08 + (5-tol)*0.01, sold: s, rare: 0.2,
					text:  fmt.Sprintf("Zener diode %s %g %% %s", ordering.Quantity(v, "V"), tol, ordering.Quantity(x.watts, "W")),
					props: []ordering.Property{num("voltage", v, "V"), num("tolerance", tol, "%"), num("power", x.watts, "W")}})
			}
		}
	}
	for _, v := range []float64{5, 6, 6.5, 7, 8, 9, 10, 12, 13, 14, 15, 16, 18, 20, 22, 24, 26, 28, 30, 33, 36, 40, 43, 48, 51, 58, 64,
		70, 85, 100, 120, 150, 170} {
		for i, pack := range []string{"SMA", "SMB", "SMC"} {
			for _, ways := range []string{"one way", "both ways"} {
				watts := []float64{400, 600, 1500}[i]
				c.add(item{family: "suppressor", maker: bryceVane, series: fmt.Sprintf("TS%s%g%s", pack[2:], v,
					map[string]string{"one way": "A", "both ways": "CA"}[ways]), pack: pack, price: 0.28 + float64(i)*0.15, sold: tapedChips, rare: 0.2,
					text: fmt.Sprintf("Transient suppressor %g V, %g W, %s", v, watts, ways),
					props: []ordering.Property{num("voltage", v, "V"), num("clamps at", round2(v*1.6), "V"), num("pulse power", watts, "W"),
						word("ways", ways)}})
			}
		}
	}
	diode := func(family, series, pack, text string, volts, amps, drop, nanoseconds, price float64, s sale) {
		props := []ordering.Property{num("voltage", volts, "V"), num("current", amps, "A"), num("forward voltage", drop, "V")}
		if nanoseconds > 0 {
			props = append(props, num("recovery", nanoseconds*1e-9, "s"))
		}
		c.add(item{family: family, maker: bryceVane, series: series, pack: pack, price: price, sold: s, rare: 0.15,
			text: fmt.Sprintf("%s %g V, %s", text, volts, ordering.Quantity(amps, "A")), props: props})
	}
	for _, x := range []struct {
		pack string
		amps []float64
	}{{"SOD-323", []float64{0.2, 0.5}}, {"SOD-123", []float64{0.5, 1}}, {"SMA", []float64{1, 2, 3}}, {"SMB", []float64{2, 3, 5}},
		{"SMC", []float64{3, 5, 8}}, {"DO-41", []float64{1, 2}}, {"DO-201", []float64{3, 5}}} {
		s := tapedChips
		if x.pack[:2] == "DO" {
			s = loose
		}
		for _, a := range x.amps {
			for _, v := range []float64{20, 30, 40, 60, 80, 100} {
				if a >= 0.5 || v <= 40 {
					diode("Schottky diode", fmt.Sprintf("S%g-%s-%g", v, x.pack, a*10), x.pack, "Schottky diode", v, a, round2(0.3+v*0.004+a*0.01),
						0, 0.09+a*0.07, s)
				}
			}
			for _, v := range []float64{50, 100, 200, 400, 600, 1000} {
				diode("diode", fmt.Sprintf("D%g-%s-%g", v, x.pack, a*10), x.pack, "Rectifier", v, a, 1.0, 2000, 0.05+a*0.05, s)
				diode("diode", fmt.Sprintf("F%g-%s-%g", v, x.pack, a*10), x.pack, "Fast rectifier", v, a, 1.2, 50, 0.09+a*0.07, s)
			}
		}
	}
	for _, p := range []string{"SOD-323", "SOD-123", "DO-35", "mini MELF"} {
		diode("diode", "148-"+p, p, "Switching diode", 100, 0.15, 0.72, 4, 0.03, taped)
	}
	diode("diode", "36S", "SMA", "Schottky diode", 60, 3, 0.52, 0, 0.31, tapedChips)
	diode("diode", "36S-B", "SMB", "Schottky diode", 60, 3, 0.5, 0, 0.34, tapedChips)
	for _, p := range []string{"SOT-23", "SOT-323"} {
		c.add(item{family: "diode", maker: bryceVane, series: map[string]string{"SOT-23": "99", "SOT-323": "99W"}[p], pack: p,
			price: 0.05, sold: taped, text: "Clamp pair, two diodes in line, 70 V, 200 mA",
			props: []ordering.Property{num("voltage", 70, "V"), num("current", 0.2, "A"), num("forward voltage", 0.8, "V"),
				num("recovery", 4e-9, "s")}})
	}
	for _, x := range []struct {
		colour, code string
		nm, volts    float64
	}{
		{"red", "R", 625, 2}, {"amber", "A", 605, 2.05}, {"yellow", "Y", 590, 2.1}, {"green", "G", 525, 3.1}, {"yellow-green", "YG", 570, 2.1},
		{"blue", "B", 468, 3.1}, {"white", "W", 0, 3.1}, {"UV", "UV", 365, 3.6}, {"infrared", "IR", 940, 1.3},
	} {
		for _, pack := range []struct {
			name, code string
			round      float64 // diameter
		}{{"0402", "0402", 0}, {"0603", "0603", 0}, {"0805", "0805", 0}, {"1206", "1206", 0}, {"LED ⌀ 3 mm", "3", 3}, {"LED ⌀ 5 mm", "5", 5}} {
			for k, bright := range []float64{40, 150, 600, 2000} {
				for m, maker := range []string{sennick, quillfeather} {
					it := item{family: "LED", maker: maker, pack: pack.name, price: 0.06 + float64(k)*0.05, sold: taped, rare: 0.15,
						series: fmt.Sprintf("D%s%s%d", pack.code, x.code, k+1),
						text:   fmt.Sprintf("LED %s, %g mcd, %g V", x.colour, bright*(1+float64(m)*0.2), x.volts),
						props: []ordering.Property{word("colour", x.colour), num("brightness", bright*(1+float64(m)*0.2)/1000, "cd"),
							num("forward voltage", x.volts, "V"), num("current", 0.02, "A")}}
					if x.nm > 0 {
						it.props = append(it.props, num("wavelength", x.nm*1e-9, "m"))
					}
					if d := pack.round; d > 0 {
						it.sold, it.body = loose, bodyOf(d+0.9, d+0.9, d*1.7, 2, 2.54, true)
					}
					if x.colour == "UV" {
						it.price *= 6
					}
					c.add(it)
				}
			}
		}
	}
}

func (c *range_) transistors() {
	for _, kind := range []string{"NPN", "PNP"} {
		for _, pack := range []string{"SOT-23", "SOT-323", "SOT-223", "TO-92"} {
			for _, volts := range []float64{30, 45, 60, 80, 140} {
				for _, amps := range []float64{0.1, 0.5, 1} {
					for g, gain := range []float64{110, 200, 420} {
						if amps == 1 && pack == "SOT-323" || g == 2 && volts > 60 {
							continue
						}
						it := item{family: "bipolar transistor", maker: bryceVane, series: fmt.Sprintf("T%s%g%g%c-%s", kind[:1], volts, amps*10,
							'A'+g, pack), pack: pack, price: 0.05 + amps*0.12, sold: taped, rare: 0.2,
							text: fmt.Sprintf("Transistor %s %g V, %s, gain %g", kind, volts, ordering.Quantity(amps, "A"), gain),
							props: []ordering.Property{word("polarity", kind), num("voltage", volts, "V"), num("current", amps, "A"),
								num("gain", gain, ""), num("power", map[string]float64{"SOT-23": 0.25, "SOT-323": 0.2, "SOT-223": 1.3, "TO-92": 0.6}[pack], "W")}}
						if pack == "TO-92" {
							it.sold, it.body = loose, bodyOf(4.8, 3.8, 4.9, 3, 2.54, true)
						}
						c.add(it)
					}
				}
			}
		}
	}
	for _, x := range []struct{ name, pack, kind string }{{"817", "SOT-23", "NPN"}, {"807", "SOT-23", "PNP"}, {"170", "TO-92", "NPN"},
		{"171", "TO-92", "PNP"}} {
		it := item{family: "bipolar transistor", maker: bryceVane, series: x.name, pack: x.pack, price: 0.09, sold: taped,
			text: fmt.Sprintf("Transistor %s 45 V, 500 mA, gain 250", x.kind),
			props: []ordering.Property{word("polarity", x.kind), num("voltage", 45, "V"), num("current", 0.5, "A"), num("gain", 250, ""),
				num("power", 0.3, "W")}}
		if x.pack == "TO-92" {
			it.sold, it.body = loose, bodyOf(4.8, 3.8, 4.9, 3, 2.54, true)
		}
		c.add(it)
	}
	for _, kind := range []string{"n channel", "p channel"} {
		for i, pack := range []string{"SOT-323", "SOT-23", "SOIC-8", "SOT-223", "TO-252", "TO-263"} {
			for _, volts := range []float64{12, 20, 30, 40, 60, 100, 150, 200} {
				for k := range 5 {
					ohms := round2(0.9 / math.Pow(2.6, float64(i)) / math.Pow(2.2, float64(k)) * math.Pow(volts/20, 1.4))
					if kind == "p channel" {
						ohms = round2(ohms * 2.2)
					}
					amps := round2(math.Sqrt([]float64{0.3, 0.5, 2, 1.8, 40, 60}[i] / ohms))
					c.add(item{family: "field-effect transistor", maker: ottermere, series: fmt.Sprintf("%s%g%d-%s",
						map[string]string{"n channel": "N", "p channel": "P"}[kind], volts, k+1, pack), pack: pack,
						price: 0.07 + float64(i)*0.09 + float64(k)*0.07, sold: tapedChips, rare: 0.25,
						text: fmt.Sprintf("Transistor %s, %g V, %s, %s", kind, volts, ordering.Quantity(amps, "A"), ordering.Quantity(ohms, "Ω")),
						props: []ordering.Property{word("channel", kind), num("voltage", volts, "V"), num("current", amps, "A"),
							num("resistance when on", ohms, "Ω"), num("gate threshold", round2(0.7+0.4*float64((k+i)%4)), "V")}})
				}
			}
		}
	}
}

// how chips of a package are sold.
func soldIn(pack string) sale {
	switch pack[:3] {
	case "DIP", "PLC":
		return tubed
	case "QFP":
		return trayed
	}
	return tapedChips
}

func (c *range_) power() {
	for _, v := range []float64{0, 1.2, 1.5, 1.8, 2.5, 2.8, 3, 3.3, 5, 9, 12} {
		for _, a := range []float64{0.1, 0.15, 0.3, 0.5, 0.8, 1} {
			for i, pack := range []string{"SOT-23", "SOT-23-5", "SOT-223", "SON-6", "TO-252"} {
				if a > 0.3 && i < 2 || a > 0.5 && i == 3 || v == 0 && i == 0 {
					continue
				}
				out, series := ordering.Quantity(v, "V"), fmt.Sprintf("%g%02.0f-%s", a*100, v*10, pack)
				if v == 0 {
					out = "adjustable"
				}
				props := []ordering.Property{word("output", out), num("current", a, "A"),
					num("input, most", []float64{16, 6, 15, 6, 30}[i], "V"), num("dropout", round2(0.1+a*0.5), "V"),
					num("quiescent current", round2(2e-6*math.Pow(10, float64(i%3))), "A")}
				c.add(item{family: "linear regulator", maker: ottermere, series: "V" + series, pack: pack, price: 0.22 + a*0.4,
					sold: tapedChips, rare: 0.2, text: fmt.Sprintf("Regulator %s, %s", out, ordering.Quantity(a, "A")), props: props})
			}
		}
	}
	c.add(item{family: "linear regulator", maker: ottermere, series: "-1133", pack: "SOT-223", price: 0.48, sold: tapedChips,
		text: "Regulator 3.3 V, 800 mA",
		props: []ordering.Property{word("output", "3.3 V"), num("current", 0.8, "A"), num("input, most", 15, "V"),
			num("dropout", 1.1, "V"), num("quiescent current", 5e-3, "A")}})
	for _, kind := range []string{"step-down", "step-up", "inverting"} {
		for _, in := range []float64{5.5, 17, 36, 60} {
			for _, a := range []float64{0.3, 0.6, 1, 2, 3, 5} {
				for _, mhz := range []float64{0.3, 0.6, 1.2, 2.2} {
					for i, pack := range []string{"SOT-23-6", "SON-10", "SOIC-8", "QFN-16"} {
						if a > 1 && i == 0 || in > 36 && i < 2 || mhz > 1.2 && in > 17 || kind == "inverting" && i != 1 && i != 2 {
							continue
						}
						c.add(item{family: "switching regulator", maker: ottermere, series: fmt.Sprintf("%s%g%g%g-%s",
							map[string]string{"step-down": "B", "step-up": "U", "inverting": "I"}[kind], in, a*10, mhz*10, pack), pack: pack,
							price: 0.9 + a*0.35 + in*0.012, sold: tapedChips, rare: 0.35,
							text: fmt.Sprintf("Converter %s, %g V, %s, %s", kind, in, ordering.Quantity(a, "A"), ordering.Quantity(mhz*1e6, "Hz")),
							props: []ordering.Property{word("kind", kind), num("input, most", in, "V"), num("current", a, "A"),
								num("frequency", mhz*1e6, "Hz")}})
					}
				}
			}
		}
	}
	c.add(item{family: "switching regulator", maker: ottermere, series: "-2405", pack: "SOIC-8", price: 1.82, sold: tapedChips,
		text: "Converter step-down, 36 V, 1.5 A, 600 kHz",
		props: []ordering.Property{word("kind", "step-down"), num("input, most", 36, "V"), num("current", 1.5, "A"),
			num("frequency", 6e5, "Hz")}})
}
