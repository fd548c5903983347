package parts

import (
	"fmt"
	"regexp"
	"slices"
	"strings"

	"goldentrace/core/design"
)

// What a column of a pasted pin list holds.
const (
	NumberColumn = "number"
	NameColumn   = "name"
	TypeColumn   = "type"
	SideColumn   = "side"
)

// MostListed bounds a pasted list: more pins than any part has.
const MostListed = 2000

// Listed is one pin of a pasted list.
type Listed struct {
	Number string `json:"number"`
	Name   string `json:"name"`
	Type   string `json:"type"`
	Side   string `json:"side,omitempty"` // left, right, top, bottom
	Wrong  string `json:"wrong,omitempty"`
}

// PinList is a pasted list as it was understood.
type PinList struct {
	Table
	Pins []Listed `json:"pins"`
}

// ReadPinList reads a table of pins pasted from a datasheet or a file: cells apart by tabs, commas, semicolons, bars or by
// two spaces and more. What the columns hold is told by their heading or by what stands in them, unless it is given. Cost: O(length).
func ReadPinList(text string, columns []string) (*PinList, error) {
	t, told, err := readTable(text, columns, pinHeadings, "pins", MostListed, func(told []string) bool {
		return slices.Contains(told, NumberColumn) || slices.Contains(told, NameColumn)
	})
	if err != nil {
		return nil, err
	}
	if len(columns) == 0 {
		t.Columns = recognised(t.Cells, told, len(t.Head))
	}
	out := &PinList{Table: *t, Pins: []Listed{}}
	out.read()
	return out, nil
}

var pinHeadings = []heading{
	{NumberColumn, []string{"pin", "no", "no.", "nr", "number", "pin no", "pin no.", "pin number", "#", "ball", "pad", "terminal", "pin #"}},
	{NameColumn, []string{"name", "pin name", "signal", "symbol", "function", "mnemonic", "label"}},
	{TypeColumn, []string{"type", "i/o", "io", "dir", "direction", "pin type", "kind"}},
	{SideColumn, []string{"side", "position"}},
}

var numberLike = regexp.MustCompile(`^([0-9]{1,4}|[A-Z]{1,2}[0-9]{1,3}|EP|TAB|PAD)$`)

// recognised tells by what stands in the columns what they hold.
func recognised(cells [][]string, told []string, width int) []string {
	out := make([]string, width)
	for i := range out {
		out[i] = SkipColumn
		if told != nil {
			out[i] = told[i]
		}
	}
	share := func(c int, is func(string) bool) float64 {
		n := 0
		for _, row := range cells {
			if is(row[c]) {
				n++
			}
		}
		return float64(n) / float64(max(len(cells), 1))
	}
	take := func(kind string, least float64, is func(string) bool) {
		if slices.Contains(out, kind) {
			return
		}
		best, at := least, -1
		for c := range width {
			if out[c] == SkipColumn {
				if s := share(c, is); s > best {
					best, at = s, c
				}
			}
		}
		if at >= 0 {
			out[at] = kind
		}
	}
	take(NumberColumn, 0.5, func(s string) bool { return numberLike.MatchString(strings.ToUpper(s)) })
	take(TypeColumn, 0.6, func(s string) bool { return TypeOf(s) != "" })
	take(SideColumn, 0.6, func(s string) bool { return sideOf(s) != "" })
	take(NameColumn, 0, func(s string) bool { return s != "" && !strings.Contains(s, " ") })
	take(NameColumn, 0, func(s string) bool { return s != "" })
	return out
}

// words people write for the electrical types, in lower case.
var typeWords = map[string]string{
	"i": "input", "in": "input", "input": "input", "di": "input", "ai": "input", "digital input": "input", "analog input": "input",
	"o": "output", "out": "output", "output": "output", "do": "output", "ao": "output", "digital output": "output", "analog output": "output",
	"i/o": "both", "io": "both", "in/out": "both", "bidirectional": "both", "bidir": "both", "both": "both", "b": "both", "dio": "both", "input/output": "both",
	"tristate": "triState", "tri-state": "triState", "three-state": "triState", "z": "triState",
	"passive": "passive", "analog": "passive", "a": "passive", "-": "passive",
	"p": "supplyIn", "power": "supplyIn", "pwr": "supplyIn", "supply": "supplyIn", "s": "supplyIn", "ground": "supplyIn", "gnd": "supplyIn", "g": "supplyIn", "power input": "supplyIn", "power in": "supplyIn", "supply in": "supplyIn",
	"power output": "supplyOut", "power out": "supplyOut", "supply out": "supplyOut",
	"od": "openCollector", "oc": "openCollector", "open drain": "openCollector", "open collector": "openCollector", "open-drain": "openCollector", "open-collector": "openCollector",
	"open emitter": "openEmitter", "open source": "openEmitter", "oe": "openEmitter",
	"nc": "notConnected", "n/c": "notConnected", "n.c.": "notConnected", "not connected": "notConnected", "no connect": "notConnected", "dnc": "notConnected",
}

// TypeOf reads how people write an electrical type; empty: it says none.
func TypeOf(s string) string {
	s = strings.TrimSpace(s)
	for _, t := range design.PinTypes {
		if s == t {
			return t
		}
	}
	return typeWords[strings.ToLower(s)]
}

var supplyName = regexp.MustCompile(`^(A|D|P)?(VCC|VDD|VSS|VEE|GND|VBAT|VIN)[A-Z0-9_]*$`)

// guess is the type a pin's name suggests, where the list says none.
func guess(name string) string {
	n := strings.ToUpper(name)
	switch {
	case n == "NC" || n == "N.C." || n == "DNC":
		return "notConnected"
	case supplyName.MatchString(n):
		return "supplyIn"
	}
	return "passive"
}

func sideOf(s string) string {
	switch s = strings.ToLower(strings.TrimSpace(s)); s {
	case "l", "left":
		return "left"
	case "r", "right":
		return "right"
	case "t", "top", "up":
		return "top"
	case "b", "bottom", "down":
		return "bottom"
	}
	return ""
}

// read makes pins of the rows. A row may name several numbers ("4, 12" or "7-9"): as many pins of one name.
func (l *PinList) read() {
	at := l.cell
	if !slices.Contains(l.Columns, NumberColumn) {
		l.Notes = append(l.Notes, "No column holds the pins' numbers; they are numbered as they stand.")
	}
	seen := map[string]int{}
	for i, row := range l.Cells {
		numbers := spread(at(row, NumberColumn))
		if !slices.Contains(l.Columns, NumberColumn) {
			numbers = []string{fmt.Sprint(i + 1)}
		}
		p := Listed{Name: at(row, NameColumn), Type: TypeOf(at(row, TypeColumn)), Side: sideOf(at(row, SideColumn))}
		if said := at(row, TypeColumn); p.Type == "" && said != "" {
			l.Notes = append(l.Notes, fmt.Sprintf("“%s” in row %d is no type that is known; the pin is taken as passive.", said, i+1))
			p.Type = "passive"
		} else if p.Type == "" {
			p.Type = guess(p.Name)
		}
		if len(numbers) == 0 {
			p.Wrong = fmt.Sprintf("Row %d has no number.", i+1)
			l.Pins = append(l.Pins, p)
			continue
		}
		for _, n := range numbers {
			q := p
			q.Number = n
			if first, twice := seen[n]; twice {
				q.Wrong = fmt.Sprintf("Pin %s stands in rows %d and %d; a number may not repeat.", n, first, i+1)
			}
			seen[n] = i + 1
			l.Pins = append(l.Pins, q)
			if len(l.Pins) > MostListed {
				l.Notes = append(l.Notes, fmt.Sprintf("Only the first %d pins are taken.", MostListed))
				return
			}
		}
	}
}

var ranged = regexp.MustCompile(`^([0-9]{1,4})\s*(?:-|–|to)\s*([0-9]{1,4})$`)

// spread reads "4", "4, 12" and "7-9".
func spread(s string) []string {
	var out []string
	for _, part := range strings.FieldsFunc(s, func(r rune) bool { return r == ',' || r == ' ' || r == ';' || r == '/' }) {
		if m := ranged.FindStringSubmatch(part); m != nil {
			var a, b int
			_, _ = fmt.Sscan(m[1], &a) // digits only
			_, _ = fmt.Sscan(m[2], &b)
			for n := a; n <= b && n < a+MostListed; n++ {
				out = append(out, fmt.Sprint(n))
			}
			continue
		}
		out = append(out, part)
	}
	return out
}
