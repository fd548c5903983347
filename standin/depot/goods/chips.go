package goods

import (
	"fmt"

	"goldentrace/core/ordering"
)

func (c *range_) analog() {
	for _, n := range []int{1, 2, 4} {
		packs := map[int][]string{1: {"SOT-23-5", "SOIC-8", "SON-6"}, 2: {"SOIC-8", "MSOP-8", "TSSOP-8", "DIP-8"},
			4: {"SOIC-14", "TSSOP-14", "DIP-14"}}[n]
		for i, hz := range []float64{1e5, 1e6, 5e6, 1e7, 5e7, 2e8} {
			for k, offset := range []float64{5e-3, 1e-3, 1e-4, 1e-5} {
				for _, rails := range []string{"in and out", "out", "no"} {
					for _, pack := range packs {
						if pack[:3] == "DIP" && i > 3 || offset < 5e-5 && hz > 2e7 {
							continue
						}
						volts := []float64{5.5, 5.5, 16, 36}[(i+k)%4]
						c.add(item{family: "amplifier", maker: bryceVane, series: fmt.Sprintf("%d%d%d%s-%s", n, 2+i, 1+k,
							map[string]string{"in and out": "R", "out": "O", "no": ""}[rails], pack), pack: pack,
							price: 0.25 + float64(n)*0.12 + float64(i)*0.15 + float64(k)*0.35, sold: soldIn(pack), rare: 0.3,
							text: fmt.Sprintf("Amplifier, %d in one, %s, %s offset", n, ordering.Quantity(hz, "Hz"), ordering.Quantity(offset, "V")),
							props: []ordering.Property{num("channels", float64(n), ""), num("bandwidth", hz, "Hz"), num("offset", offset, "V"),
								num("supply, most", volts, "V"), word("rail to rail", rails)}})
					}
				}
			}
		}
		for _, out := range []string{"push-pull", "open drain"} {
			for _, ns := range []float64{40, 200, 1000, 8000} {
				for _, pack := range packs {
					c.add(item{family: "comparator", maker: bryceVane, series: fmt.Sprintf("C%d%g%s-%s", n, ns, out[:1], pack), pack: pack,
						price: 0.2 + float64(n)*0.08 + 30/ns, sold: soldIn(pack), rare: 0.3,
						text: fmt.Sprintf("Comparator, %d in one, %s, %s", n, ordering.Quantity(ns*1e-9, "s"), out),
						props: []ordering.Property{num("channels", float64(n), ""), num("delay", ns*1e-9, "s"), word("output", out),
							num("supply, most", 5.5, "V")}})
				}
			}
		}
	}
	for _, pack := range []string{"SOIC-8", "DIP-8"} {
		c.add(item{family: "amplifier", maker: bryceVane, series: map[string]string{"SOIC-8": "272", "DIP-8": "272P"}[pack], pack: pack,
			price: 0.62, sold: soldIn(pack), text: "Amplifier, 2 in one, 2 MHz, 500 µV offset",
			props: []ordering.Property{num("channels", 2, ""), num("bandwidth", 2e6, "Hz"), num("offset", 5e-4, "V"),
				num("supply, most", 16, "V"), word("rail to rail", "out")}})
	}
	for _, what := range []struct {
		name, unit  string
		least, most float64
	}{{"temperature", "°C", -40, 125}, {"humidity", "%", 0, 100}, {"pressure", "Pa", 3e4, 1.1e5}, {"light", "lx", 0.01, 1e5},
		{"magnetic field", "T", -0.1, 0.1}, {"acceleration", "m/s²", -160, 160}} {
		for k, bus := range []string{"two-wire", "four-wire", "analog", "one-wire"} {
			for i, pack := range []string{"SOT-23", "SOT-23-6", "SON-6", "SOIC-8"} {
				if bus == "four-wire" && i < 2 {
					continue
				}
				for _, class := range []string{"A", "B"} {
					c.add(item{family: "sensor", maker: sennick, series: fmt.Sprintf("%c%d%d%s", what.name[0]-32, k+1, i+1, class), pack: pack,
						price: 1.1 + float64(k)*0.2 + float64(len(what.name))*0.1, sold: tapedLarge, rare: 0.4,
						text: fmt.Sprintf("Sensor of %s, %s, class %s", what.name, bus, class),
						props: []ordering.Property{word("measures", what.name), word("bus", bus), word("class", class),
							num("from", what.least, what.unit), num("to", what.most, what.unit)}})
				}
			}
		}
	}
}

// names of logic functions, with the number of their leads.
var logic = []struct {
	name, code string
	pins       int
}{
	{"four NAND gates", "00", 14}, {"four NOR gates", "02", 14}, {"six inverters", "04", 14}, {"four AND gates", "08", 14},
	{"six Schmitt inverters", "14", 14}, {"four OR gates", "32", 14},
	{"two D flip-flops", "74", 14}, {"four XOR gates", "86", 14}, {"two JK flip-flops", "112", 16}, {"decoder 3 to 8", "138", 16},
	{"two decoders 2 to 4", "139", 16}, {"selector 8 to 1", "151", 16},
	{"counter, 4 bits", "163", 16}, {"shift register, parallel in", "165", 16}, {"eight buffers", "244", 20},
	{"eight transceivers", "245", 20}, {"eight latches", "373", 20}, {"eight D flip-flops", "374", 20},
	{"shift register with latch", "595", 16}, {"analog switch 8 to 1", "4051", 16}, {"four analog switches", "4066", 14},
	{"counter, 14 bits", "4060", 16},
}

func (c *range_) digital() {
	for _, f := range logic {
		for i, family := range []struct {
			name  string
			volts float64
			ns    float64
		}{{"HC", 6, 12}, {"HCT", 5.5, 14}, {"LV", 5.5, 7}, {"LVC", 3.6, 4}} {
			for _, p := range []string{"SOIC", "TSSOP", "DIP"} {
				if p == "DIP" && i > 1 {
					continue
				}
				pack := fmt.Sprintf("%s-%d", p, f.pins)
				c.add(item{family: "logic", maker: haldwick, series: fmt.Sprintf("%s%s-%s", family.name, f.code, p[:1]), pack: pack,
					price: 0.2 + float64(f.pins)*0.012 + float64(i)*0.04, sold: soldIn(pack), rare: 0.2,
					text: fmt.Sprintf("Logic: %s, %s", f.name, family.name),
					props: []ordering.Property{word("function", f.name), word("series", family.name), num("supply, most", family.volts, "V"),
						num("delay", family.ns*1e-9, "s")}})
			}
		}
	}
	for _, x := range []struct {
		packs []string
		pins  float64
	}{{[]string{"SOIC-8", "SON-8"}, 8}, {[]string{"TSSOP-20", "QFN-20"}, 20}, {[]string{"QFP-32", "QFN-32"}, 32},
		{[]string{"QFP-48", "QFN-48"}, 48}, {[]string{"QFP-64", "QFN-64"}, 64}, {[]string{"QFP-100", "QFP-144"}, 100}} {
		for k, flash := range []float64{16, 32, 64, 128, 256, 512, 1024, 2048} {
			if flash > x.pins*20 || flash < x.pins/3 {
				continue
			}
			for _, mhz := range []float64{24, 48, 80, 170} {
				for _, hot := range []float64{85, 125} {
					for _, pack := range x.packs {
						c.add(item{family: "controller", maker: haldwick, series: fmt.Sprintf("-%gC%g%c%g%s-%s", x.pins, flash, 'A'+k, mhz,
							map[float64]string{85: "", 125: "T"}[hot], pack), pack: pack,
							price: 0.6 + x.pins*0.03 + flash*0.003 + mhz*0.006 + (hot-85)*0.008, sold: soldIn(pack), rare: 0.5,
							text: fmt.Sprintf("Controller, 32 bits, %g kB flash, %g MHz, %g °C", flash, mhz, hot),
							props: []ordering.Property{num("flash", flash*1000, "B"), num("memory", flash*1000/8, "B"), num("clock", mhz*1e6, "Hz"),
								num("pins", x.pins, ""), num("temperature", hot, "°C")}})
					}
				}
			}
		}
	}
	c.add(item{family: "controller", maker: haldwick, series: "-48C", pack: "QFP-48", price: 3.4, sold: trayed,
		text: "Controller, 32 bits, 256 kB flash, 48 MHz, 85 °C",
		props: []ordering.Property{num("flash", 256e3, "B"), num("memory", 32e3, "B"), num("clock", 48e6, "Hz"), num("pins", 48, ""),
			num("temperature", 85, "°C")}})
	for _, kind := range []string{"EEPROM", "flash", "FRAM"} {
		for k, kb := range []float64{2, 4, 8, 16, 32, 64, 128, 512, 2048, 8192, 16384} {
			if kind == "EEPROM" && kb > 128 || kind == "flash" && kb < 512 || kind == "FRAM" && kb > 512 {
				continue
			}
			for _, bus := range []string{"two-wire", "four-wire"} {
				for _, pack := range []string{"SOIC-8", "TSSOP-8", "MSOP-8", "SON-8", "DIP-8"} {
					for _, hot := range []float64{85, 125} {
						if kind == "flash" && bus == "two-wire" {
							continue
						}
						c.add(item{family: "memory", maker: quillfeather, series: fmt.Sprintf("-%s%g%s%g-%s", kind[:2], kb, bus[:1], hot, pack),
							pack: pack, price: 0.18 + float64(k)*0.09 + (hot-85)*0.004, sold: soldIn(pack), rare: 0.3,
							text:  fmt.Sprintf("Memory %s, %g kB, %s", kind, kb, bus),
							props: []ordering.Property{word("kind", kind), num("size", kb*1000, "B"), word("bus", bus), num("temperature", hot, "°C")}})
					}
				}
			}
		}
	}
	for _, x := range []struct {
		family, series, text string
		price                float64
	}{{"memory", "-24C", "Memory EEPROM, 32 kB, two-wire", 0.41}, {"clock", "-RT8", "Clock with calendar, two-wire, coin cell input", 1.12}} {
		props := []ordering.Property{word("kind", "EEPROM"), num("size", 32e3, "B"), word("bus", "two-wire"), num("temperature", 85, "°C")}
		if x.family == "clock" {
			props = []ordering.Property{word("bus", "two-wire"), num("supply current", 4.5e-7, "A"), word("quartz inside", "no")}
		}
		c.add(item{family: x.family, maker: quillfeather, series: x.series, pack: "SOIC-8", price: x.price, sold: tapedChips,
			text: x.text, props: props})
	}
	for k, inside := range []string{"no", "yes"} {
		for _, pack := range []string{"SOIC-8", "MSOP-8", "SON-8", "SOIC-16"} {
			for _, bus := range []string{"two-wire", "four-wire"} {
				c.add(item{family: "clock", maker: quillfeather, series: fmt.Sprintf("-RT%d%s-%s", k+3, bus[:1], pack), pack: pack,
					price: 0.9 + float64(k)*0.9, sold: tapedChips, rare: 0.4, text: "Clock with calendar, " + bus,
					props: []ordering.Property{word("bus", bus), num("supply current", 4e-7, "A"), word("quartz inside", inside)}})
			}
		}
	}
	for _, kind := range []string{"RS-485", "RS-232", "CAN", "level shifter"} {
		for _, rate := range []float64{2.5e5, 1e6, 1e7, 5e7} {
			for _, volts := range []float64{3.3, 5} {
				for k, pack := range []string{"SOIC-8", "MSOP-8", "SON-8", "TSSOP-16"} {
					for _, kv := range []float64{8, 15} {
						c.add(item{family: "interface", maker: sennick,
							series: fmt.Sprintf("%s%g%g%d-%s", map[string]string{"RS-485": "4", "RS-232": "2", "CAN": "C", "level shifter": "L"}[kind],
								rate/1e4, volts*10, int(kv), pack), pack: pack, price: 0.7 + rate/4e7 + kv*0.03 + float64(k)*0.05, sold: tapedChips, rare: 0.35,
							text: fmt.Sprintf("Interface %s, %s, %g V", kind, ordering.Quantity(rate, "bit/s"), volts),
							props: []ordering.Property{word("kind", kind), num("rate", rate, "bit/s"), num("supply", volts, "V"),
								num("discharge withstood", kv*1000, "V")}})
					}
				}
			}
		}
	}
	c.add(item{family: "interface", maker: sennick, series: "-485", pack: "SOIC-8", price: 0.93, sold: tapedChips,
		text: "Interface RS-485, 10 Mbit/s, 3.3 V",
		props: []ordering.Property{word("kind", "RS-485"), num("rate", 1e7, "bit/s"), num("supply", 3.3, "V"),
			num("discharge withstood", 15e3, "V")}})
}
