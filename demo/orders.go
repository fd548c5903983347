package demo

import (
	"fmt"
	"maps"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/edit"
	"goldentrace/core/ordering"
	"goldentrace/standin/depot/goods"
)

// choice names what is ordered for parts of a library part with a value; an empty value: with any.
type choice struct{ library, value string }

// weirOrders are the makers' numbers of what Weir Gauge is built from.
var weirOrders = map[choice]string{
	{"Terminal 2", ""}: "SKK50802GN", {"Terminal 3", ""}: "SKK50803GN", {"Header 4", ""}: "HX-h104-254u", {"Header 10", ""}: "HX-h110-254u", {"Service port", ""}: "HX-U2f",
	{"Fuse 1206", "1 A"}: "HXF12061000s", {"Fuse 1206", "63 mA"}: "HXF120663f", {"Suppressor SMA", "33 V"}: "BVTSA33A", {"Diode SMA", "BV36S"}: "BV36S", {"Clamp pair", "BV99"}: "BV99",
	{"Capacitor 1206", "10µ"}: "QFC120610U0V35", {"Capacitor 1206", "22µ"}: "QFC120622U0V16", {"Capacitor 1206", "4n7"}: "QFC12064N70X100",
	{"Capacitor 0603", "12p"}: "QFC060312P0G50", {"Capacitor 0603", "10n"}: "QFC060310N0X50", {"Capacitor 0603", "22n"}: "QFC060322N0X50", {"Capacitor 0603", "100n"}: "QFC0603100NX50",
	{"Capacitor 0603", "1µ"}: "QFC06031U00X16", {"Coil", "22µ 1.2 A"}: "OML6022U0", {"Ferrite bead", "600 Ω"}: "OMF0805-600-2",
	{"Resistor 0603", "22"}: "QF-R0603-22R0-F", {"Resistor 0603", "680"}: "QF-R0603-680R-F", {"Resistor 0603", "1k"}: "QF-R0603-1K00-F", {"Resistor 0603", "2k2"}: "QF-R0603-2K20-F",
	{"Resistor 0603", "4k7"}: "QF-R0603-4K70-F", {"Resistor 0603", "10k"}: "QF-R0603-10K0-F", {"Resistor 0603", "52k3"}: "QF-R0603-52K3-F",
	{"Resistor 1206", "100 0.1 %"}: "SKL1206100RB", {"Resistor 1206", "120"}: "QF-R1206-120R-F", {"LED 0805", "green"}: "SKD0805G2", {"LED 0805", "amber"}: "SKD0805A2",
	{"Step-down converter", ""}: "OM-2405", {"Regulator SOT-223", ""}: "OM-1133", {"Controller 48", ""}: "HX-48C", {"Dual amplifier, units", ""}: "BV272", {"Bus driver", ""}: "SK-485",
	{"Memory", ""}: "QF-24C", {"Clock", ""}: "QF-RT8", {"Crystal", "8 MHz"}: "QF-Y8-12", {"Crystal", "32.768 kHz"}: "QF-W32-32-12.5", {"NPN transistor SOT-23", "BV817"}: "BV817",
}

// order chooses in the depot for the parts of the circuit.
func (b *builder) order(choices map[choice]string) {
	if b.err != nil {
		return
	}
	byNumber := map[string]*ordering.Part{}
	list := goods.All()
	for i := range list {
		byNumber[list[i].MakerNumber] = &list[i]
	}
	used := map[choice]bool{}
	c := &edit.SetParts{}
	for _, k := range circuit.Packages(b.bench.Doc, b.bench.Tree()) {
		p := b.bench.Doc.Parts[k.Lead().Part]
		of := choice{p.Library, p.Value}
		number, ok := choices[of]
		if !ok {
			of.value = ""
			number, ok = choices[of]
		}
		if !ok {
			continue
		}
		chosen := byNumber[number]
		if chosen == nil {
			b.err = fmt.Errorf("the depot has no part %s for %s", number, p.Designator)
			return
		}
		used[of] = true
		fields := chosen.Fields()
		for _, name := range slices.Sorted(maps.Keys(fields)) {
			c.Cells = append(c.Cells, edit.Cell{ID: p.ID, Field: name, Text: fields[name]})
		}
	}
	if len(used) < len(choices) {
		b.err = fmt.Errorf("%d of what is ordered is for no part of the circuit", len(choices)-len(used))
		return
	}
	b.do(c)
	boards, spares := 25, 2
	b.do(&edit.SetBasket{Boards: &boards, Spares: &spares})
}
