package ordering

import (
	"regexp"
	"strings"

	"goldentrace/core/design"
)

// packages as their names stand in the names of parts and footprints: chip sizes, moulded sizes, outlines with a number.
var packages = regexp.MustCompile(`(?:^|[^0-9A-Za-z])(0201|0402|0603|0805|1206|1210|1812|2010|2220|2512|SM[ABC]|[A-Z]{2,5}-[0-9]+(?:-[0-9]+)?)(?:$|[^0-9A-Za-z])`)

// PackageIn finds a package's name in a text, or nothing.
func PackageIn(text string) string {
	if m := packages.FindStringSubmatch(text); m != nil {
		return m[1]
	}
	return ""
}

// byPrefix are families by the letters of designators (IEEE 315), and what property a value says.
var byPrefix = map[string]struct{ family, property, unit string }{
	"R": {"resistor", "resistance", "Ω"}, "C": {"ceramic capacitor", "capacitance", "F"}, "L": {"inductor", "inductance", "H"},
	"F": {"fuse", "rated current", "A"}, "Y": {"crystal", "frequency", "Hz"}, "D": {"diode", "", ""}, "Q": {"bipolar transistor", "", ""},
	"K": {"relay", "", ""}, "J": {"connector", "", ""}, "S": {"switch", "", ""}, "B": {"battery holder", "", ""},
}

// byWord are families by words of the library part's name, which count more.
var byWord = []struct{ word, family, property, unit string }{
	{"electrolytic", "electrolytic capacitor", "capacitance", "F"}, {"tantalum", "tantalum capacitor", "capacitance", "F"}, {"film", "film capacitor", "capacitance", "F"},
	{"bead", "ferrite bead", "impedance at 100 MHz", "Ω"}, {"thermistor", "thermistor", "resistance", "Ω"}, {"varistor", "varistor", "voltage", "V"},
	{"zener", "Zener diode", "voltage", "V"}, {"schottky", "Schottky diode", "", ""}, {"suppressor", "suppressor", "voltage", "V"}, {"led", "LED", "", ""},
	{"channel", "field-effect transistor", "", ""}, {"terminal", "screw terminal", "", ""}, {"cell", "battery holder", "", ""},
}

// Wanted is what to ask a depot for a part of the circuit: its family, its value, its package, or the number that it bears as value. It is
// a beginning, to be changed by hand.
func Wanted(p *design.Part, l *design.LibraryPart) Query {
	q := Query{Is: map[string][]string{}}
	prefix, name := "", p.Library
	if l != nil {
		prefix, name = l.Prefix, l.Name
	}
	kind := byPrefix[prefix]
	for _, w := range byWord {
		if strings.Contains(strings.ToLower(name), w.word) {
			kind.family, kind.property, kind.unit = w.family, w.property, w.unit
			break
		}
	}
	q.Family = kind.family
	if pack := PackageIn(name); pack != "" {
		q.Is[FilterPackage] = []string{pack}
	} else if pack := PackageIn(p.Footprint); pack != "" {
		q.Is[FilterPackage] = []string{pack}
	}
	value, unit, ok := Read(p.Value)
	switch {
	case ok && kind.property != "" && (unit == "" || unit == kind.unit):
		q.Is[kind.property] = []string{Quantity(value, kind.unit)}
	case p.Value != "" && !ok:
		q.Words = p.Value
	}
	if kind.family == "" && q.Words == "" {
		q.Words = name
	}
	return q
}
