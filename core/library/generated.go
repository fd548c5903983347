package library

import (
	"fmt"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/landpattern"
	"goldentrace/core/parts"
)

// The parts whose footprints are generated. Each is a symbol, a package and a few words.

// generated is a part on its way.
type generated struct {
	name, prefix, symbol, value, text, keywords string
	body                                        *design.Recipe
	padOf                                       map[string]string
}

// catalogue lists them all.
func catalogue() []generated {
	var out []generated
	out = append(out, passives()...)
	out = append(out, diodesAndTransistors()...)
	out = append(out, connectors()...)
	out = append(out, chipsOfLogic()...)
	out = append(out, chipsOfAnalog()...)
	out = append(out, largeChips()...)
	return out
}

// flatDiodes are the packages of diodes.
func flatDiodes() []packed {
	return []packed{
		{"SOD-323", mouldedOf("DIO", true, 2.3, 2.7, 1.15, 1.35, 0.2, 0.4, 0.25, 0.4, 0.8, 1.1)},
		{"SOD-123", mouldedOf("DIO", true, 3.5, 3.9, 1.4, 1.8, 0.35, 0.7, 0.45, 0.65, 0.94, 1.35)},
		{"SMB", mouldedOf("DIO", true, 5.2, 5.6, 3.3, 3.95, 0.75, 1.52, 1.95, 2.2, 2.0, 2.44)},
		{"SMC", mouldedOf("DIO", true, 7.75, 8.13, 5.6, 6.2, 0.75, 1.52, 2.9, 3.2, 2.0, 2.62)},
		{"MELF", func() *design.Recipe { r := cylinderOf("DIO", 5.0, 2.5); r.Choices["polar"] = "yes"; return r }()},
		{"mini MELF", func() *design.Recipe { r := cylinderOf("DIO", 3.5, 1.5); r.Choices["polar"] = "yes"; return r }()},
		{"DO-35", axialOf("DIO", 4.2, 1.9, 0.5, true)},
		{"DO-41", axialOf("DIO", 5.2, 2.7, 0.8, true)},
		{"DO-201", axialOf("DIO", 9.5, 5.3, 1.3, true)},
	}
}

func diodesAndTransistors() []generated {
	var out []generated
	for _, kind := range []struct{ name, symbol, text, words string }{
		{"Diode", "Diode", "Diode", "rectifier"}, {"Schottky diode", "Schottky diode", "Schottky diode", "rectifier fast"},
		{"Zener diode", "Zener diode", "Zener diode", "voltage reference clamp"},
		{"Suppressor", "Suppressor", "Transient suppressor, one way", "tvs protection"},
	} {
		for _, p := range flatDiodes() {
			out = append(out, generated{name: kind.name + " " + p.name, prefix: "D", symbol: kind.symbol, text: kind.text + ", " + p.name,
				keywords: kind.words, body: p.r,
				padOf: map[string]string{"1": "2", "2": "1"}}) // the mark is the cathode's
		}
	}
	gce := map[string]string{"1": "3", "2": "1", "3": "2"} // collector or drain on lead 3
	for _, kind := range []struct{ name, symbol, text, words string }{
		{"NPN transistor", "NPN transistor", "Bipolar transistor NPN", "bjt"},
		{"PNP transistor", "PNP transistor", "Bipolar transistor PNP", "bjt"},
		{"N-channel transistor", "N-channel transistor", "Field-effect transistor, n channel", "mosfet"},
		{"P-channel transistor", "P-channel transistor", "Field-effect transistor, p channel", "mosfet"},
	} {
		for _, p := range []string{"SOT-23", "SOT-323", "TO-252", "TO-263", "SOT-223"} {
			if p == "SOT-23" && kind.words == "bjt" {
				continue
			}
			// of outlines with a tab, lead 2 is cut off or joined with the tab, which bears the number after the last lead
			m := gce
			switch p {
			case "TO-252", "TO-263":
				m = map[string]string{"1": "3", "2": "1", "3": "2"}
			case "SOT-223":
				m = map[string]string{"1": "2 4", "2": "1", "3": "3"}
			}
			out = append(out, generated{name: kind.name + " " + p, prefix: "Q", symbol: kind.symbol, text: kind.text + ", " + p,
				keywords: kind.words, body: sot(p), padOf: m})
		}
		out = append(out, generated{name: kind.name + " TO-39", prefix: "Q", symbol: kind.symbol, text: kind.text + ", metal can TO-39",
			keywords: kind.words + " tht", body: roundCan(3, 4, 5.08, 9.1), padOf: gce})
	}
	for _, d := range []float64{3, 5, 8, 10} {
		out = append(out, generated{name: fmt.Sprintf("LED ⌀ %g mm", d), prefix: "D", symbol: "LED",
			text: fmt.Sprintf("Light-emitting diode, round, %g mm", d), keywords: "lamp light tht",
			body: radialOf("LED", 2.54, d+0.9, d*1.7, 0.5, 0, true), padOf: map[string]string{"1": "2", "2": "1"}})
	}
	return out
}

func connectors() []generated {
	var out []generated
	for _, kind := range []struct{ name, id, words string }{{"Header", "pins", "connector pins"}, {"Socket", "socket", "connector female"}} {
		for _, pitch := range []float64{2.54, 2, 1.27} {
			for rows := 1; rows <= 2; rows++ {
				for _, n := range []int{1, 2, 3, 4, 5, 6, 7, 8, 10, 12, 13, 15, 16, 20} {
					if pitch < 2.5 && (n < 3 || n == 7 || n == 13 || n == 15) || n == 1 && rows == 2 {
						continue
					}
					name := fmt.Sprintf("%s %d × %d, %g mm", kind.name, rows, n, pitch)
					out = append(out, generated{name: name, prefix: "J", symbol: fmt.Sprintf("Connector %d", rows*n),
						text: fmt.Sprintf("%s, %d rows of %d at %g mm", kind.name, rows, n, pitch), keywords: kind.words + " tht",
						body: headerOf(kind.id, n, rows, pitch)})
				}
			}
		}
	}
	return out
}

// packs of chips by their numbers of pins.
type packed struct {
	name string
	r    *design.Recipe
}

func packs(pins int, names ...string) []packed {
	var out []packed
	for _, n := range names {
		p := packed{name: fmt.Sprintf("%s-%d", n, pins)}
		switch n {
		case "SOIC":
			if pins > 16 {
				p.r = soicWide(pins)
			} else {
				p.r = soic(pins)
			}
		case "SSOP":
			p.r = ssop(pins)
		case "TSSOP":
			p.r = tssop(pins)
		case "MSOP":
			p.r = msop(pins)
		case "DIP":
			p.r = dip(pins)
		case "SON":
			p.r = son(pins)
		case "QFP":
			p.r = qfp(pins)
		case "QFN":
			p.r = qfn(pins)
		case "PLCC":
			p.r = plcc(pins)
		}
		out = append(out, p)
	}
	return out
}

// each makes one part for each package. Packages with an exposed pad join it to the pin named for it.
func each(name, prefix, symbol, value, text, keywords string, list []packed) []generated {
	var out []generated
	for _, p := range list {
		out = append(out, generated{name: name + " " + p.name, prefix: prefix, symbol: symbol, value: value, text: text + ", " + p.name,
			keywords: keywords, body: p.r})
	}
	return out
}

// pinsOf makes a list of pins: number, name and type by turns.
func pinsOf(words string) []parts.Listed {
	f := strings.Fields(words)
	var out []parts.Listed
	for i := 0; i+2 < len(f); i += 3 {
		out = append(out, parts.Listed{Number: f[i], Name: f[i+1], Type: map[string]string{"i": "input", "o": "output", "b": "both",
			"p": "supplyIn", "P": "supplyOut", "x": "passive", "z": "triState", "c": "openCollector", "n": "notConnected"}[f[i+2]]})
	}
	return out
}

// gates are the pins of chips with four gates of two inputs, of six with one, and of single ones.
const (
	quadGate   = "1 1A i 2 1B i 3 1Y o 4 2A i 5 2B i 6 2Y o 7 GND p 8 3Y o 9 3A i 10 3B i 11 4Y o 12 4A i 13 4B i 14 VCC p"
	hexGate    = "1 1A i 2 1Y o 3 2A i 4 2Y o 5 3A i 6 3Y o 7 GND p 8 4Y o 9 4A i 10 5Y o 11 5A i 12 6Y o 13 6A i 14 VCC p"
	oneGate    = "1 A i 2 B i 3 GND p 4 Y o 5 VCC p"
	oneBuffer  = "1 NC n 2 A i 3 GND p 4 Y o 5 VCC p"
	octal      = "1 OE i 2 1A i 3 2A i 4 3A i 5 4A i 6 5A i 7 6A i 8 7A i 9 8A i 10 GND p 11 CLK i 12 8Y z 13 7Y z 14 6Y z 15 5Y z 16 4Y z 17 3Y z 18 2Y z 19 1Y z 20 VCC p"
	transceive = "1 DIR i 2 A1 b 3 A2 b 4 A3 b 5 A4 b 6 A5 b 7 A6 b 8 A7 b 9 A8 b 10 GND p 11 B8 b 12 B7 b 13 B6 b 14 B5 b 15 B4 b 16 B3 b 17 B2 b 18 B1 b 19 OE i 20 VCC p"
	counter    = "1 CLR i 2 CLK i 3 A i 4 B i 5 C i 6 D i 7 ENP i 8 GND p 9 LOAD i 10 ENT i 11 QD o 12 QC o 13 QB o 14 QA o 15 RCO o 16 VCC p"
	decoder    = "1 A i 2 B i 3 C i 4 G2A i 5 G2B i 6 G1 i 7 Y7 o 8 GND p 9 Y6 o 10 Y5 o 11 Y4 o 12 Y3 o 13 Y2 o 14 Y1 o 15 Y0 o 16 VCC p"
	multiplex  = "1 Y4 b 2 Y6 b 3 COM b 4 Y7 b 5 Y5 b 6 INH i 7 VEE p 8 GND p 9 C i 10 B i 11 A i 12 Y3 b 13 Y0 b 14 Y1 b 15 Y2 b 16 VCC p"
	flipFlops  = "1 1CLR i 2 1D i 3 1CLK i 4 1PRE i 5 1Q o 6 1NQ o 7 GND p 8 2NQ o 9 2Q o 10 2PRE i 11 2CLK i 12 2D i 13 2CLR i 14 VCC p"
	timer      = "1 GND p 2 TRIG i 3 OUT o 4 RESET i 5 CTRL x 6 THRES i 7 DISCH c 8 VCC p"
)

func chipsOfLogic() []generated {
	var out []generated
	for _, g := range []string{"NAND", "NOR", "AND", "OR", "XOR"} {
		out = append(out, each("Four "+g+" gates", "U", "Four gates", "", "Four "+g+" gates with two inputs each",
			"logic "+strings.ToLower(g), packs(14, "SOIC", "TSSOP", "DIP"))...)
		out = append(out, each(g+" gate", "U", "One gate", "", g+" gate with two inputs", "logic single "+strings.ToLower(g),
			[]packed{{"SOT-23-5", sot("SOT-23-5")}, {"SC-70-5", sot("SC-70-5")}})...)
	}
	for _, g := range []struct{ name, words string }{{"inverters", "not"}, {"Schmitt inverters", "not hysteresis"}, {"buffers", "driver"}} {
		out = append(out, each("Six "+g.name, "U", "Six gates", "", "Six "+g.name, "logic "+g.words, packs(14, "SOIC", "TSSOP", "DIP"))...)
		one := strings.TrimSuffix(g.name, "s")
		out = append(out, each("One "+one, "U", "One buffer", "", "One "+one, "logic single "+g.words,
			[]packed{{"SOT-23-5", sot("SOT-23-5")}, {"SC-70-5", sot("SC-70-5")}})...)
	}
	out = append(out, each("Eight latches", "U", "Octal register", "", "Eight transparent latches, three-state", "logic register",
		packs(20, "SOIC", "TSSOP", "DIP", "SSOP"))...)
	out = append(out, each("Eight flip-flops", "U", "Octal register", "", "Eight flip-flops, three-state", "logic register",
		packs(20, "SOIC", "TSSOP", "DIP", "SSOP"))...)
	out = append(out, each("Bus transceiver", "U", "Octal transceiver", "", "Eight bus lines, both ways", "logic level",
		packs(20, "SOIC", "TSSOP", "DIP", "SSOP"))...)
	out = append(out, each("Counter, four bits", "U", "Counter", "", "Counter of four bits, synchronous", "logic",
		packs(16, "SOIC", "TSSOP", "DIP"))...)
	out = append(out, each("Decoder, three to eight", "U", "Decoder", "", "Decoder of three lines to eight", "logic demultiplexer",
		packs(16, "SOIC", "TSSOP", "DIP"))...)
	out = append(out, each("Analog multiplexer, eight", "U", "Analog multiplexer", "", "Eight analog switches to one", "mux switch",
		packs(16, "SOIC", "TSSOP", "DIP"))...)
	out = append(out, each("Two flip-flops", "U", "Two flip-flops", "", "Two flip-flops with preset and clear", "logic register",
		packs(14, "SOIC", "TSSOP", "DIP"))...)
	out = append(out, each("Timer", "U", "Timer", "", "Timer, free-running or one shot", "oscillator monostable",
		packs(8, "SOIC", "DIP", "MSOP"))...)
	return out
}

const (
	dualAmp  = "1 OUT1 o 2 IN1− i 3 IN1+ i 4 V− p 5 IN2+ i 6 IN2− i 7 OUT2 o 8 V+ p"
	quadAmp  = "1 OUT1 o 2 IN1− i 3 IN1+ i 4 V+ p 5 IN2+ i 6 IN2− i 7 OUT2 o 8 OUT3 o 9 IN3− i 10 IN3+ i 11 V− p 12 IN4+ i 13 IN4− i 14 OUT4 o"
	oneAmp   = "1 OUT o 2 V− p 3 IN+ i 4 IN− i 5 V+ p"
	ldo      = "1 IN p 2 GND p 3 EN i 4 NC n 5 OUT P"
	buck     = "1 GND p 2 SW o 3 VIN p 4 FB i 5 EN i 6 BST x"
	serial   = "1 A0 i 2 A1 i 3 A2 i 4 VSS p 5 SDA b 6 SCL i 7 WP i 8 VCC p"
	spiFlash = "1 CS i 2 DO z 3 WP i 4 GND p 5 DI i 6 CLK i 7 HOLD i 8 VCC p"
	fieldBus = "1 RO z 2 RE i 3 DE i 4 DI i 5 GND p 6 A b 7 B b 8 VCC p"
	canBus   = "1 TXD i 2 GND p 3 VCC p 4 RXD o 5 SPLIT P 6 CANL b 7 CANH b 8 STB i"
	adc      = "1 CH0 i 2 CH1 i 3 CH2 i 4 CH3 i 5 CH4 i 6 CH5 i 7 CH6 i 8 CH7 i 9 DGND p 10 CS i 11 DIN i 12 DOUT z 13 CLK i 14 AGND p 15 VREF i 16 VDD p"
	dac      = "1 VDD p 2 CS i 3 SCK i 4 SDI i 5 LDAC i 6 OUTB o 7 VSS p 8 OUTA o"
	sense    = "1 SDA b 2 SCL i 3 ALERT c 4 GND p 5 A2 i 6 A1 i 7 A0 i 8 VCC p"
	esd      = "1 IO1 b 2 GND p 3 IO2 b 4 IO3 b 5 VCC p 6 IO4 b"
)

func chipsOfAnalog() []generated {
	var out []generated
	single := func(name, symbol, text, words string, p ...string) {
		var list []packed
		for _, n := range p {
			list = append(list, packed{n, sot(n)})
		}
		out = append(out, each(name, "U", symbol, "", text, words, list)...)
	}
	for _, k := range []struct{ name, text, words string }{{"amplifier", "operational amplifier", "opamp"},
		{"comparator", "comparator", "compare"}} {
		single("One "+k.name, "One amplifier", "One "+k.text, k.words, "SOT-23-5", "SC-70-5")
		out = append(out, each("Two "+k.name+"s", "U", "Two amplifiers", "", "Two "+k.text+"s", k.words,
			packs(8, "SOIC", "MSOP", "TSSOP", "DIP"))...)
		out = append(out, each("Four "+k.name+"s", "U", "Four amplifiers", "", "Four "+k.text+"s", k.words, packs(14, "SOIC", "TSSOP", "DIP"))...)
	}
	single("Regulator", "Linear regulator", "Linear regulator with enable", "ldo supply", "SOT-23-5", "SC-70-5")
	single("Step-down converter", "Small converter", "Switching regulator", "buck supply", "SOT-23-6")
	single("Step-up converter", "Small converter", "Switching regulator, upwards", "boost supply", "SOT-23-6")
	single("Line protector", "Line protector", "Suppressors for four lines", "esd tvs", "SOT-23-6", "SC-70-6")
	out = append(out, each("Serial memory, two-wire", "U", "Two-wire memory", "", "Serial memory, two-wire", "eeprom i2c",
		packs(8, "SOIC", "TSSOP", "MSOP", "DIP"))...)
	out = append(out, each("Serial memory, four-wire", "U", "Four-wire memory", "", "Serial memory, four-wire", "flash spi",
		packs(8, "SOIC", "DIP"))...)
	out = append(out, each("Field bus driver", "U", "Field bus driver", "", "Transceiver for a differential field bus", "rs-485",
		packs(8, "SOIC", "MSOP", "DIP"))...)
	out = append(out, each("Vehicle bus driver", "U", "Vehicle bus driver", "", "Transceiver for a vehicle's bus", "can", packs(8, "SOIC"))...)
	out = append(out, each("Converter to digital, eight channels", "U", "Converter to digital", "",
		"Analog to digital, eight channels, four-wire", "adc spi", packs(16, "SOIC", "DIP", "TSSOP"))...)
	out = append(out, each("Converter to analog, two channels", "U", "Converter to analog", "",
		"Digital to analog, two channels, four-wire", "dac spi", packs(8, "SOIC", "MSOP", "DIP"))...)
	out = append(out, each("Temperature sensor", "U", "Temperature sensor", "", "Temperature sensor, two-wire", "i2c",
		packs(8, "SOIC", "MSOP"))...)
	return out
}

// largeChips are controllers: supplies in the middle of each side, the others for all purposes.
func largeChips() []generated {
	var out []generated
	for _, p := range []struct {
		pins  int
		names []string
	}{{32, []string{"QFP", "QFN"}}, {44, []string{"QFP", "PLCC"}}, {48, []string{"QFN"}}, {64, []string{"QFP", "QFN"}},
		{80, []string{"QFP"}}, {100, []string{"QFP"}}, {128, []string{"QFP"}}, {144, []string{"QFP"}}, {28, []string{"QFN", "PLCC"}},
		{20, []string{"QFN"}}} {
		for _, pk := range packs(p.pins, p.names...) {
			symbol := fmt.Sprintf("Controller, %d pins", p.pins)
			if strings.HasPrefix(pk.name, "QFN") {
				symbol += ", pad"
			}
			out = append(out, generated{name: "Controller " + pk.name, prefix: "U", symbol: symbol,
				text: fmt.Sprintf("Controller, %d pins, %s", p.pins, pk.name), keywords: "microcontroller smd", body: pk.r})
		}
	}
	for _, p := range []struct {
		columns, rows     int
		pitch, ball, x, y float64
	}{{9, 9, 0.8, 0.45, 8, 8}, {10, 10, 0.8, 0.45, 9, 9}, {12, 12, 0.8, 0.45, 11, 11}, {14, 14, 0.8, 0.45, 12, 12},
		{16, 16, 1, 0.6, 17, 17}, {18, 18, 0.8, 0.45, 15, 15}} {
		n := p.columns * p.rows
		out = append(out, generated{name: fmt.Sprintf("Logic array BGA-%d", n), prefix: "U",
			symbol: fmt.Sprintf("Array of %d by %d balls", p.columns, p.rows),
			text:   fmt.Sprintf("Programmable logic, %d balls at %g mm", n, p.pitch), keywords: "fpga smd",
			body: bga(p.columns, p.rows, p.pitch, p.ball, p.x, p.y)})
	}
	return out
}

// controllerPins names the pins of a controller: on each side one pair of supplies in its middle, the first pins for reset, boot and clock.
func controllerPins(n int, pad bool) []parts.Listed {
	var out []parts.Listed
	side := n / 4
	port := 0
	for i := 1; i <= n; i++ {
		p := parts.Listed{Number: fmt.Sprint(i), Type: "both"}
		switch at := (i - 1) % side; {
		case at == side/2:
			p.Name, p.Type = "VDD", "supplyIn"
		case at == side/2-1:
			p.Name, p.Type = "VSS", "supplyIn"
		case i == 1:
			p.Name, p.Type = "/RESET", "input"
		case i == 2:
			p.Name, p.Type = "OSC IN", "input"
		case i == 3:
			p.Name, p.Type = "OSC OUT", "output"
		default:
			p.Name = fmt.Sprintf("P%c%d", 'A'+port/16, port%16)
			port++
		}
		out = append(out, p)
	}
	if pad {
		out = append(out, parts.Listed{Number: fmt.Sprint(n + 1), Name: "VSS", Type: "supplyIn"})
	}
	return out
}

// arrayPins are those of a grid of balls: supplies in the middle, a bank on each side.
func arrayPins(columns, rows int) []parts.Listed {
	var out []parts.Listed
	for r := range rows {
		for c := range columns {
			p := parts.Listed{Number: fmt.Sprintf("%s%d", landpattern.RowLetters(r), c+1), Type: "both", Name: fmt.Sprintf("IO%d", len(out))}
			if mid := min(min(r, rows-1-r), min(c, columns-1-c)); mid >= min(rows, columns)/2-2 {
				p.Name, p.Type = "VDD", "supplyIn"
				if (r+c)%2 == 0 {
					p.Name = "GND"
				}
			}
			out = append(out, p)
		}
	}
	return out
}

// generatedSymbols are those that only they have.
func generatedSymbols() []*design.Symbol {
	var out []*design.Symbol
	put := func(name string, pins []parts.Listed, layout string) {
		s, err := parts.Arrange(name, pins, layout)
		if err != nil {
			panic(fmt.Sprintf("the symbol %s cannot be laid out: %v", name, err)) // our own list
		}
		out = append(out, s)
	}
	for name, pins := range map[string]string{
		"Four gates": quadGate, "Six gates": hexGate, "One gate": oneGate, "One buffer": oneBuffer, "Octal register": octal,
		"Octal transceiver": transceive, "Counter": counter, "Decoder": decoder,
		"Analog multiplexer": multiplex, "Two flip-flops": flipFlops, "Timer": timer, "Two amplifiers": dualAmp,
		"Four amplifiers": quadAmp, "One amplifier": oneAmp, "Linear regulator": ldo, "Small converter": buck,
		"Two-wire memory": serial, "Four-wire memory": spiFlash, "Field bus driver": fieldBus, "Vehicle bus driver": canBus,
		"Converter to digital": adc, "Converter to analog": dac, "Temperature sensor": sense, "Line protector": esd,
	} {
		put(name, pinsOf(pins), parts.ByType)
	}
	for _, n := range []int{20, 28, 32, 44, 48, 64, 80, 100, 128, 144} {
		put(fmt.Sprintf("Controller, %d pins", n), controllerPins(n, false), parts.AsPackage)
		put(fmt.Sprintf("Controller, %d pins, pad", n), controllerPins(n, true), parts.AsPackage)
	}
	for _, n := range [][2]int{{9, 9}, {10, 10}, {12, 12}, {14, 14}, {16, 16}, {18, 18}} {
		put(fmt.Sprintf("Array of %d by %d balls", n[0], n[1]), arrayPins(n[0], n[1]), parts.ByType)
	}
	for n := 1; n <= 40; n++ {
		out = append(out, connectorSymbol(n))
	}
	zener := []design.Figure{area(-1.6, -1.9, -1.6, 1.9, 1.6, 0), line(0.8, -2.4, 1.6, -1.9, 1.6, 1.9), line(-1.6, 0, 1.6, 0)}
	schottky := []design.Figure{area(-1.6, -1.9, -1.6, 1.9, 1.6, 0), line(0.9, -1.2, 0.9, -1.9, 1.6, -1.9, 1.6, 1.9, 2.3, 1.9, 2.3,
		1.2), line(-1.6, 0, 1.6, 0)}
	ends := []design.Pin{pin("1", "A", "passive", -5, 0, 0, 3.4), pin("2", "K", "passive", 5, 0, 2, 3.4)}
	out = append(out, named(&design.Symbol{Name: "Zener diode", Pins: ends, Figures: zener}, 0, 3.6, 0, -3.6),
		named(&design.Symbol{Name: "Schottky diode", Pins: ends, Figures: schottky}, 0, 3.6, 0, -3.6))
	for _, n := range []bool{true, false} {
		name, tip := "N-channel transistor", []float64{-0.9, 0, 0.3, 0.6, 0.3, -0.6}
		if !n {
			name, tip = "P-channel transistor", []float64{1.4, 0, 0.2, 0.6, 0.2, -0.6}
		}
		out = append(out, named(&design.Symbol{Name: name, Pins: []design.Pin{
			pin("1", "D", "passive", 2.5, 5, 3, 3), pin("2", "G", "input", -5, 0, 0, 3), pin("3", "S", "passive", 2.5, -5, 1, 3)},
			Figures: []design.Figure{circle(0.75, 0, 3.5), line(-2, -1.9, -2, 1.9), line(-1.1, 2.4, -1.1, 1.2), line(-1.1, 0.6, -1.1, -0.6),
				line(-1.1, -1.2, -1.1, -2.4),
				line(-1.1, 1.8, 2.5, 1.8, 2.5, 2), line(-1.1, -1.8, 2.5, -1.8, 2.5, -2), line(-1.1, 0, 2.5, 0, 2.5, -1.8), solid(tip...)}}, 7.2,
			1.3, 7.2, -1.3))
	}
	out = append(out, named(&design.Symbol{Name: "Crystal, case", Pins: []design.Pin{pin("1", "", "passive", -5, 0, 0, 3.4),
		pin("3", "", "passive", 5, 0, 2, 3.4), pin("2", "", "passive", -2.5, -7.5, 1, 4), pin("4", "", "passive", 2.5, -7.5, 1, 4)},
		Figures: []design.Figure{line(-1.6, -2, -1.6, 2), line(1.6, -2, 1.6, 2), box(-0.9, -2.2, 0.9, 2.2), line(-3.5, -3.5, 3.5, -3.5)}},
		0, 4, 8, -5))
	return out
}

// connectorSymbol has its pins below each other at the right.
func connectorSymbol(n int) *design.Symbol {
	top := 2.5 * float64(n/2)
	foot := top - 2.5*float64(n-1)
	s := &design.Symbol{Name: fmt.Sprintf("Connector %d", n), Figures: []design.Figure{box(-2.5, foot-1.25, 1.25, top+1.25)}}
	for i := range n {
		y := top - 2.5*float64(i)
		s.Pins = append(s.Pins, pin(fmt.Sprint(i+1), "", "passive", 5, y, 2, 3.75))
		s.Figures = append(s.Figures, solid(-0.9, y-0.4, 0.5, y-0.4, 0.5, y+0.4, -0.9, y+0.4))
	}
	return named(s, -0.6, top+2.7, -0.6, foot-2.7)
}
