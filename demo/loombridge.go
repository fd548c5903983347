package demo

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/edit"
)

// loomBridge stands between an old loom and whoever writes patterns for it: 32 needle lines come in over one connector, eight fast links
// lead on over another, and a memory holds what is woven.
func loomBridge() (*design.Doc, error) {
	b := newBuilder("Loom Bridge")
	b.do(&edit.SetSettings{Number: text("HRT-034"), Revision: text("A"), Author: text("Harrowmere river trust"), Date: text("2026-11-26")})
	top := b.sheet
	b.do(&edit.SetSheet{Sheet: top, Name: text("Overview"), Size: text("A4")})
	lines := b.newSheet("Needle lines", "A4")
	loomLines(b)
	memory := b.newSheet("Memory", "A3")
	loomMemory(b)
	links := b.newSheet("Links", "A4")
	loomLinks(b)
	control := b.newSheet("Control", "A4")
	loomControl(b)
	power := b.newSheet("Power", "A4")
	loomPower(b)
	b.sheet = top
	loomOverview(b, lines, memory, links, control, power)
	loomNets(b)
	loomBoard(b)
	return b.bench.Doc, b.err
}

// unit places one unit of a part.
func (b *builder) unit(library, designator string, n int, x, y float64) {
	value := "HX-324"
	b.do(&edit.PlacePart{Sheet: b.sheet, Library: library, Designator: designator, Unit: n, Value: &value, At: at(x, y)})
}

// comb leads pins that lie above each other into a bundle beside them, each by a tap of its own; to the left of the bundle, or to its right.
// The bundle ends at the lowest tap, at foot.
func (b *builder) comb(x float64, left bool, pins, members []string) (foot float64) {
	var high float64
	for i, p := range pins {
		place := b.pin(p)
		if b.err != nil {
			return 0
		}
		y := float64(place.Y) / 1e6
		if i == 0 {
			high, foot = y, y
		}
		high, foot = max(high, y), min(foot, y)
		turn, end := 0, x+2.5
		if left {
			turn, end = 1, x-2.5
		}
		b.taps(x, y-2.5, 0, -2.5, turn, members[i])
		if to := at(end, y); to != place {
			b.run(p, to)
		}
	}
	b.bundle(at(x, high-2.5), ver(foot-2.5))
	return foot - 2.5
}

// numbered are names with numbers behind them, from 0 on.
func numbered(stem string, n int) (out []string) {
	for i := range n {
		out = append(out, fmt.Sprintf("%s%d", stem, i))
	}
	return out
}

// of puts a part's name before its pins.
func of(part string, pins []string) (out []string) {
	for _, p := range pins {
		out = append(out, part+"."+p)
	}
	return out
}

// connectorPins are the pins of a connector that bear signals: every fifth is of ground.
func connectorPins(n int) (signals, grounds []string) {
	for i := 1; i <= n; i++ {
		if i%5 == 0 {
			grounds = append(grounds, fmt.Sprint(i))
		} else {
			signals = append(signals, fmt.Sprint(i))
		}
	}
	return signals, grounds
}

// grounds leads pins of ground that lie above each other to one mark.
func (b *builder) grounds(part string, pins []string, x, foot float64, mark func(x, y float64)) {
	for i, p := range pins {
		if i == 0 {
			b.run(part+"."+p, hor(x), ver(foot))
			continue
		}
		b.run(part+"."+p, hor(x))
	}
	mark(x, foot)
}

func loomLines(b *builder) {
	b.unit("Loom controller", "U1", 1, 75, 105)
	b.part("Socket 2 × 20, 1.27 mm", "J1", "Loom", 210, 105, 0, true)
	names := numbered("LN", 32)
	signals, grounds := connectorPins(40)
	one := b.comb(110, true, of("U1A", names), names)
	other := b.comb(175, false, of("J1", signals), names)
	b.bundle(at(110, one), ver(45), hor(175), ver(other))
	b.label("LN[31:0]", 142.5, 45, 1)
	b.grounds("J1", grounds, 192.5, 47.5, b.ground)
	b.cluster("From the loom", "sky", 165, 37.5, 225, 172.5)
	b.note(20, 190, 115, "sand", "# Needle lines\nOne line for each needle’s coil. *LN0* is the leftmost needle as the weaver sees it; each fifth pin of the socket is ground.")
}

// memoryNets are the nets between controller and memory, by the controller's pins.
func memoryNets() (pins, nets []string) {
	for i := range 16 {
		pins, nets = append(pins, fmt.Sprintf("MD%d", i)), append(nets, fmt.Sprintf("MD%d", i))
	}
	for i := range 14 {
		pins, nets = append(pins, fmt.Sprintf("MA%d", i)), append(nets, fmt.Sprintf("MA%d", i))
	}
	for i := range 3 {
		pins, nets = append(pins, fmt.Sprintf("MB%d", i)), append(nets, fmt.Sprintf("MB%d", i))
	}
	for _, n := range []string{"CK", "DQS0", "DQS1"} {
		pins, nets = append(pins, n+"+", n+"−"), append(nets, n+"_P", n+"_N")
	}
	for _, n := range []string{"CS", "RAS", "CAS", "WE", "RST"} {
		pins, nets = append(pins, "/"+n), append(nets, n+"B")
	}
	return append(pins, "DM0", "DM1", "CKE", "ODT"), append(nets, "DM0", "DM1", "CKE", "ODT")
}

func loomMemory(b *builder) {
	b.unit("Loom controller", "U1", 2, 95, 150)
	b.part("Line memory", "U2", "QF-84D", 270, 150, 0, false)
	pins, nets := memoryNets()
	one := b.comb(142.5, true, of("U1B", pins), nets)
	other := b.comb(225, false, of("U2", pins), nets)
	y := min(one, other) - 12.5
	b.bundle(at(142.5, one), ver(y), hor(225), ver(other))
	b.label("MD[15:0], MA[13:0], MB[2:0], CK_P, CK_N, DQS0_P, DQS0_N, DQS1_P, DQS1_N, DM0, DM1, CSB, RASB, CASB, WEB, CKE, ODT, RSTB", 147.5, y, 0)
	b.run("U2.VMEM", hor(297.5))
	b.supply("+1V5", "ring", 297.5, float64(b.pin("U2.VMEM").Y)/1e6, 3)
	ref := float64(b.pin("U2.VREF").Y) / 1e6
	b.upright("Resistor 0402", "R1", "1k", 325, ref+10)
	b.grounded("Resistor 0402", "R2", "1k", 325, ref-10)
	b.grounded("Capacitor 0402", "C1", "100n", 345, ref-10)
	b.run("R1.2", "R2.1")
	b.run("U2.VREF", hor(345), "C1.1")
	b.supply("+1V5", "ring", 325, ref+15, 0)
	b.upright("Resistor 0402", "R3", "240", 300, ref-20)
	b.run("U2.ZQ", hor(300), "R3.1")
	b.ground(300, ref-25)
	b.run("U2.GND", hor(292.5), ver(float64(b.pin("U2.GND").Y)/1e6-7.5))
	b.ground(292.5, float64(b.pin("U2.GND").Y)/1e6-7.5)
	b.cluster("Reference, half of the supply", "lilac", 312.5, ref-27.5, 360, ref+27.5)
	b.note(20, 280, 150, "sand", "# Memory\nEverything between controller and memory runs in *one bundle*, in the order in which the balls of both lie. Clock and strobes are pairs of 100 Ω.")
}

func loomLinks(b *builder) {
	b.unit("Loom controller", "U1", 3, 75, 127.5)
	b.part("Socket 2 × 20, 1.27 mm", "J2", "Links", 210, 107.5, 0, true)
	for i := range 8 {
		for k, side := range []string{"+", "−"} {
			from := fmt.Sprintf("U1C.LK%d%s", i, side)
			b.run(from, fmt.Sprintf("J2.%d", 2+3*i+k))
			b.label(fmt.Sprintf("LK%d_%s", i, []string{"P", "N"}[k]), 100+22.5*float64(k), float64(b.pin(from).Y)/1e6, 0)
		}
	}
	var ground []string
	for i := range 9 {
		ground = append(ground, fmt.Sprint(1+3*i))
	}
	b.grounds("J2", append(ground, "26", "27", "28", "33", "34", "35", "36"), 192.5, 55, func(x, y float64) { b.feed("GND", "ground", x, y) })
	b.run("J2.40", hor(185))
	for _, p := range []string{"37", "38", "39"} {
		b.run("J2."+p, hor(185))
	}
	feed := float64(b.pin("J2.37").Y) / 1e6
	b.run(at(185, feed), ver(float64(b.pin("J2.40").Y)/1e6))
	b.run(at(185, feed), hor(177.5), ver(feed+5))
	b.feed("+5V", "bar", 177.5, feed+5)
	foot := b.comb(165, false, []string{"J2.29", "J2.30", "J2.31", "J2.32"}, []string{"SCL", "SDA", "TX", "RX"})
	b.bundle(at(165, foot), hor(140))
	b.port("SCL, SDA, TX, RX", "both", 140, foot, 2)
	b.cluster("To the other looms", "moss", 160, 45, 225, 165)
	b.note(20, 187.5, 115, "sand", "# Links\nEight pairs of 100 Ω, each with a pin of ground beside it; supply and service share the lower end of the socket.")
}

func loomControl(b *builder) {
	b.unit("Loom controller", "U1", 4, 140, 120)
	y := func(pin string) float64 { return float64(b.pin("U1D."+pin).Y) / 1e6 }
	b.upright("Resistor 0402", "R4", "10k", 60, y("/RESET")+10)
	b.supply("+3V3", "arrow", 60, y("/RESET")+15, 0)
	b.grounded("Capacitor 0402", "C2", "100n", 45, y("/RESET")-10)
	b.run("U1D./RESET", hor(45), "C2.1")
	b.run("R4.2", at(60, y("/RESET")))
	for i, pin := range []string{"BOOT", "HALT"} {
		x := []float64{87.5, 72.5}[i]
		b.grounded("Resistor 0402", fmt.Sprintf("R%d", 5+i), "10k", x, y(pin)-27.5)
		b.run("U1D."+pin, hor(x), fmt.Sprintf("R%d.1", 5+i))
	}
	b.part("Crystal", "Y1", "25 MHz", 65, 60, 0, false)
	b.grounded("Capacitor 0402", "C3", "12p", 55, 47.5)
	b.grounded("Capacitor 0402", "C4", "12p", 75, 47.5)
	b.run("Y1.1", hor(55), "C3.1")
	b.run("Y1.2", hor(75), "C4.1")
	b.run(at(55, 60), hor(50))
	b.label("OSC_IN", 50, 60, 2)
	b.run(at(75, 60), hor(80))
	b.label("OSC_OUT", 80, 60, 0)
	b.run("U1D.OSC_IN", hor(117.5), ver(y("OSC_IN")+2.5), hor(110))
	b.label("OSC_IN", 110, y("OSC_IN")+2.5, 2)
	b.run("U1D.OSC_OUT", hor(110))
	b.label("OSC_OUT", 110, y("OSC_OUT"), 2)

	b.comb(195, true, []string{"U1D.SCL", "U1D.SDA", "U1D.TX", "U1D.RX"}, []string{"SCL", "SDA", "TX", "RX"})
	b.bundle(at(195, y("SCL")-2.5), ver(y("SCL")+5), hor(215))
	b.port("SCL, SDA, TX, RX", "both", 215, y("SCL")+5, 0)
	for i, pin := range []string{"SCL", "SDA"} {
		x := []float64{170, 180}[i]
		b.upright("Resistor 0402", fmt.Sprintf("R%d", 7+i), "2k2", x, y("SCL")+15)
		b.run(fmt.Sprintf("R%d.2", 7+i), at(x, y(pin)))
	}
	b.run("R7.1", "R8.1")
	b.supply("+3V3", "arrow", 170, y("SCL")+20, 0)
	b.part("Header 4", "J3", "Program", 240, y("PROG_IO")-5, 0, true)
	b.run("U1D.PROG_IO", "J3.1")
	b.run("U1D.PROG_CK", "J3.2")
	b.run("J3.3", hor(222.5), ver(y("PROG_IO")-20))
	b.ground(222.5, y("PROG_IO")-20)
	b.run("J3.4", hor(215))
	b.supply("+3V3", "arrow", 215, float64(b.pin("J3.4").Y)/1e6, 1)
	b.upright("Resistor 0402", "R9", "1k", 180, y("LAMP")-10)
	b.part("LED 0603", "D1", "green", 180, y("LAMP")-25, 3, false)
	b.run("U1D.LAMP", hor(180), "R9.1")
	b.run("R9.2", "D1.1")
	b.ground(180, y("LAMP")-30)
	b.cluster("Clock", "lilac", 30, 35, 105, 70)
	b.note(20, 187.5, 110, "sand", "# Control\nBoot and halt are pulled low: the controller begins with what its memory holds.")
}

func loomPower(b *builder) {
	b.unit("Loom controller", "U1", 5, 270, 120)
	for i, s := range []struct{ number, value, net string }{{"U3", "OM-1133", "+3V3"}, {"U4", "OM-1115", "+1V5"}, {"U5", "OM-1112", "+1V2"}} {
		y := 165 - 42.5*float64(i)
		shape := []string{"arrow", "ring", "bar"}[i]
		b.part("Regulator SOT-223", s.number, s.value, 75, y, 0, false)
		rail := float64(b.pin(s.number+".IN").Y) / 1e6
		b.supply("+5V", "bar", 30, rail, 1)
		b.run(at(30, rail), s.number+".IN")
		b.grounded("Capacitor 0603", fmt.Sprintf("C%d", 5+2*i), "1µ", 42.5, rail-10)
		b.run(at(42.5, rail), fmt.Sprintf("C%d.1", 5+2*i))
		b.run(s.number+".GND", hor(60), ver(rail-15))
		b.ground(60, rail-15)
		b.run(s.number+".TAB", hor(90), ver(rail))
		b.run(s.number+".OUT", at(240, rail))
		b.grounded("Capacitor 1206", fmt.Sprintf("C%d", 6+2*i), "10µ", 102.5, rail-10)
		b.run(at(102.5, rail), fmt.Sprintf("C%d.1", 6+2*i))
		for k := range 8 {
			x := 117.5 + 15*float64(k)
			name := fmt.Sprintf("C%d", 11+8*i+k)
			b.grounded("Capacitor 0402", name, "100n", x, rail-10)
			b.run(at(x, rail), name+".1")
		}
		b.feed(s.net, shape, 240, rail)
	}
	for i, s := range []struct{ pin, net string }{{"VIO", "+3V3"}, {"VMEM", "+1V5"}, {"VCORE", "+1V2"}} {
		y := float64(b.pin("U1E."+s.pin).Y) / 1e6
		b.run("U1E."+s.pin, hor(252.5))
		b.supply(s.net, []string{"arrow", "ring", "bar"}[i], 252.5, y, 1)
	}
	b.run("U1E.GND", hor(287.5), ver(110))
	b.ground(287.5, 110)
	b.cluster("3.3 V for lines and links", "moss", 25, 137.5, 245, 182.5)
	b.cluster("1.5 V for the memory", "sky", 25, 95, 245, 135)
	b.cluster("1.2 V for the core", "rose", 25, 52.5, 245, 92.5)
	b.note(25, 45, 180, "none", "The small capacitors stand *around the controller*, on the other side of the board.")
}

func loomOverview(b *builder, lines, memory, links, control, power design.ID) {
	b.blockOf(lines, "Needle lines", 30, 112.5, 55, 35)
	b.blockOf(control, "Control", 117.5, 112.5, 60, 35, blockPin("SCL, SDA, TX, RX", 0, 27.5))
	b.blockOf(links, "Links", 212.5, 112.5, 55, 35, blockPin("SCL, SDA, TX, RX", 2, 27.5))
	b.blockOf(memory, "Memory", 117.5, 57.5, 60, 30)
	b.blockOf(power, "Power", 30, 57.5, 55, 30)
	b.bundle("Control.SCL, SDA, TX, RX", "Links.SCL, SDA, TX, RX")
	for _, n := range []struct {
		x, y  float64
		words string
	}{
		{30, 110, "*J1*, 32 lines of the needles"}, {117.5, 110, "*U1*, reset, clock, program"}, {212.5, 110, "*J2*, eight pairs, supply"},
		{117.5, 55, "*U2*, 16 bits wide, in one bundle"}, {30, 55, "*U3 to U5*, three supplies of 5 V"},
	} {
		b.note(n.x, n.y, 60, "none", n.words)
	}
	b.note(30, 190, 237.5, "sand", "# Loom Bridge\nTells *32 needles* of an old loom when to rise, and passes the pattern on over *eight links*. The controller, a grid of 324 balls, is drawn in five units, each on the sheet of what it serves.\n- Supply 5 V over the links, 1.2 A at most\n- Double click on a block enters its sheet")
}

func loomNets(b *builder) {
	supply := "Supply"
	b.say(&edit.SetNets{Nets: []string{"+5V"}, Class: &supply, Current: amperes(1.2), Voltage: volts(5)})
	for i, net := range []string{"+3V3", "+1V5", "+1V2"} { // planes and areas carry their currents
		b.say(&edit.SetNets{Nets: []string{net}, Class: &supply, Voltage: volts([]float64{3.3, 1.5, 1.2}[i])})
	}
	if b.err != nil {
		return
	}
	b.do(&edit.PairNets{Pairs: b.bench.Nets().PairsByName()})
	class, ohms := "Pair 100 Ω", int64(100_000)
	var pairs []string
	for _, n := range append(numbered("LK", 8), "CK", "DQS0", "DQS1") {
		pairs = append(pairs, n+"_P", n+"_N")
	}
	b.do(&edit.SetNets{Nets: pairs, Class: &class, Impedance: &ohms})
}
