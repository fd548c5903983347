package parts

import (
	"slices"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
)

// poles are the names that the two pins of a part with a polarity bear, in lower case.
var poles = [][2]string{{"a", "k"}, {"a", "c"}, {"anode", "cathode"}, {"+", "-"}, {"+", "−"}, {"pos", "neg"}, {"p", "n"}}

// Polar tells whether a part of two pins has a polarity: its pins are named so, its symbol bears a plus, or its words say that it is polarised.
func Polar(l *design.LibraryPart, from Source) bool {
	list := Symbols(l, from)
	if len(list) != 1 || list[0] == nil || len(list[0].Pins) != 2 {
		return false
	}
	s := list[0]
	x, y := strings.ToLower(s.Pins[0].Name), strings.ToLower(s.Pins[1].Name)
	if slices.Contains(poles, [2]string{x, y}) || slices.Contains(poles, [2]string{y, x}) {
		return true
	}
	if slices.ContainsFunc(s.Figures, func(f design.Figure) bool { return f.Form == "text" && f.Text == "+" }) {
		return true
	}
	return slices.ContainsFunc(strings.Fields(strings.ToLower(l.Keywords)), func(w string) bool { return strings.HasPrefix(w, "polari") })
}

// Undirected tells whether the silk of a footprint of two pads looks the same when it is turned by half around the middle of the pads, so that nobody sees
// which is which once they are under solder.
func Undirected(f *design.Footprint) bool {
	numbers := map[string]bool{}
	var e geom.Extent
	for i := range f.Pads {
		if p := &f.Pads[i]; copper(p) && p.Number != "" {
			numbers[p.Number] = true
			e.AddBox(layout.PadShape(p).Box())
		}
	}
	if len(numbers) != 2 {
		return false
	}
	silk := &footprintCheck{f: &design.Footprint{Silk: f.Silk}}
	return silk.same(e.Box.Centre(), 180_000)
}
