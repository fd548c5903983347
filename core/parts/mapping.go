package parts

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"goldentrace/core/design"
)

// PinRow of the table of pins and pads.
type PinRow struct {
	Pin   string `json:"pin"` // number; empty: a pad without a pin
	Name  string `json:"name"`
	Type  string `json:"type"`
	Unit  int    `json:"unit,omitempty"` // from 1, of a part with several
	Pad   string `json:"pad"`            // number of the pad it goes to
	Pads  int    `json:"pads"`           // how many pads bear that number
	Given bool   `json:"given,omitempty"`
	Wrong string `json:"wrong,omitempty"`
}

// Mapping is which pin goes to which pad, with what does not fit. Pins go to the pad of their own number unless the part says
// otherwise. Cost: O(pins + pads).
func Mapping(p *design.LibraryPart, footprint string, from Source) (rows []PinRow, found []Flaw) {
	f := from.Footprint(footprint)
	pads := map[string]int{}
	refs := map[string][]int{}
	var order []string
	if f != nil {
		for i, pad := range f.Pads {
			if pad.Number == "" || pad.Bare && pad.Hole > 0 {
				continue
			}
			if pads[pad.Number] == 0 {
				order = append(order, pad.Number)
			}
			pads[pad.Number]++
			refs[pad.Number] = append(refs[pad.Number], design.Ref(pad.ID, i))
		}
	}
	rows, found = []PinRow{}, []Flaw{}
	taken := map[string]string{} // pad → pin
	seen := map[string]bool{}
	for i, s := range Symbols(p, from) {
		unit := 0
		if len(p.Units) > 0 {
			unit = i + 1
		}
		for _, pin := range s.Pins {
			_, given := p.PadOf[pin.Number]
			row := PinRow{Pin: pin.Number, Name: pin.Name, Type: pin.Type, Unit: unit, Pad: strings.Join(p.Pads(pin.Number), " "), Given: given}
			var at []int
			for _, pad := range p.Pads(pin.Number) {
				row.Pads += pads[pad]
				at = append(at, refs[pad]...)
				other, twice := taken[pad]
				switch {
				case row.Wrong != "":
				case seen[pin.Number]:
					row.Wrong = fmt.Sprintf("Two units have a pin %s.", pin.Number)
				case f == nil:
				case pads[pad] == 0 && pin.Type != "notConnected":
					row.Wrong = fmt.Sprintf("Pin %s goes to pad %s, which %s does not have.", called(pin), pad, f.Name)
				case twice:
					row.Wrong = fmt.Sprintf("Pins %s and %s both go to pad %s.", other, called(pin), pad)
				}
				if !seen[pin.Number] {
					taken[pad] = called(pin)
				}
			}
			if row.Wrong != "" {
				found = append(found, Flaw{Kind: "mapping", Severity: Fault, Text: row.Wrong, Pin: pin.Number, Pads: at})
			}
			seen[pin.Number] = true
			rows = append(rows, row)
		}
	}
	for _, n := range slices.Sorted(maps.Keys(p.PadOf)) {
		if !seen[n] {
			found = append(found, Flaw{Kind: "mapping", Severity: Fault, Pin: n, Text: fmt.Sprintf("The table sends pin %s to pad %s, but there is no such pin.", n, p.PadOf[n])})
		}
	}
	for _, n := range order {
		if _, ok := taken[n]; ok {
			continue
		}
		text := fmt.Sprintf("No pin goes to pad %s.", n)
		rows = append(rows, PinRow{Pad: n, Pads: pads[n], Wrong: text})
		found = append(found, Flaw{Kind: "mapping", Severity: Warning, Text: text, Pads: refs[n]})
	}
	return rows, found
}

func called(p design.Pin) string {
	if p.Name == "" {
		return p.Number
	}
	return fmt.Sprintf("%s (%s)", p.Number, p.Name)
}
