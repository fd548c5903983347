package parts

import (
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"goldentrace/core/design"
)

// What a column of a pasted pin list holds.
const (
	NumberColumn = "number"
	NameColumn   = "name"
	TypeColumn   = "type"
	SideColumn   = "side"
	SkipColumn   = "skip"
)

// PinColumns lists them.
var PinColumns = []string{NumberColumn, NameColumn, TypeColumn, SideColumn, SkipColumn}

// Bounds of a pasted list: more pins than any part has.
const (
	MostListed  = 2000
	LargestList = 1 << 20 // bytes
)

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
	Columns []string   `json:"columns"` // what each holds
	Head    []string   `json:"head"`    // its heading, where there is one
	Cells   [][]string `json:"cells"`   // as pasted, the heading left out
	Pins    []Listed   `json:"pins"`
	Notes   []string   `json:"notes"`
}

// ReadPinList reads a table of pins pasted from a datasheet or a file: cells apart by tabs, commas, semicolons, bars or by
// two spaces and more. What the columns hold is told by their heading or by what stands in them, unless it is given. Cost: O(length).
func ReadPinList(text string, columns []string) (*PinList, error) {
	if len(text) > LargestList {
		return nil, fmt.Errorf("the list is %d kB long; %d kB are the most", len(text)>>10, LargestList>>10)
	}
	if !utf8.ValidString(text) {
		return nil, fmt.Errorf("the list is not proper text (UTF-8)")
	}
	cells := split(text)
	if len(cells) > MostListed+1 {
		return nil, fmt.Errorf("the list has %d rows; no part has more than %d pins", len(cells), MostListed)
	}
	if len(cells) == 0 {
		return nil, fmt.Errorf("the list is empty; paste a table of pins, one pin in a row")
	}
	width := 0
	for _, row := range cells {
		width = max(width, len(row))
	}
	if width > 50 {
		return nil, fmt.Errorf("the list has %d columns; 50 are the most", width)
	}
	for i := range cells {
		for len(cells[i]) < width {
			cells[i] = append(cells[i], "")
		}
	}
	out := &PinList{Pins: []Listed{}, Notes: []string{}, Head: make([]string, width)}
	told := headed(cells[0])
	if told != nil {
		out.Head, cells = cells[0], cells[1:]
	}
	out.Cells = cells
	switch {
	case len(columns) > 0:
		if len(columns) != width {
			return nil, fmt.Errorf("the list has %d columns, %d were named", width, len(columns))
		}
		for _, c := range columns {
			if !slices.Contains(PinColumns, c) {
				return nil, fmt.Errorf("%q is not something a column of pins holds", c)
			}
		}
		out.Columns = columns
	default:
		out.Columns = recognised(cells, told, width)
	}
	out.read()
	return out, nil
}

// split finds the cells: by the character that parts most rows into equally many.
func split(text string) [][]string {
	var lines []string
	for _, l := range strings.Split(strings.ReplaceAll(text, "\r", "\n"), "\n") {
		if strings.TrimSpace(l) != "" && strings.Trim(l, "-=+| \t") != "" { // rules of drawn tables say nothing
			lines = append(lines, l)
		}
	}
	best, at := "", 0
	for _, sep := range []string{"\t", ";", "|", ","} {
		n := 0
		for _, l := range lines {
			if strings.Contains(l, sep) {
				n++
			}
		}
		if n > at {
			best, at = sep, n
		}
	}
	var out [][]string
	for _, l := range lines {
		var row []string
		switch {
		case at*2 < len(lines) || at == 0:
			row = aligned.Split(strings.TrimSpace(l), -1)
			if len(row) == 1 {
				row = strings.Fields(l)
			}
		case best == "|":
			row = strings.Split(strings.Trim(strings.TrimSpace(l), "|"), "|")
		default:
			row = quoted(l, rune(best[0]))
		}
		for i := range row {
			row[i] = strings.TrimSpace(row[i])
		}
		out = append(out, row)
	}
	return out
}

var aligned = regexp.MustCompile(`\s{2,}|\t`)

// quoted splits a line at a separator outside double quotes.
func quoted(l string, sep rune) []string {
	var out []string
	var cell strings.Builder
	in := false
	for _, r := range l {
		switch {
		case r == '"':
			in = !in
		case r == sep && !in:
			out = append(out, cell.String())
			cell.Reset()
		default:
			cell.WriteRune(r)
		}
	}
	return append(out, cell.String())
}

var headings = map[string][]string{
	NumberColumn: {"pin", "no", "no.", "nr", "number", "pin no", "pin no.", "pin number", "#", "ball", "pad", "terminal", "pin #"},
	NameColumn:   {"name", "pin name", "signal", "symbol", "function", "mnemonic", "label"},
	TypeColumn:   {"type", "i/o", "io", "dir", "direction", "pin type", "kind"},
	SideColumn:   {"side", "position"},
}

// headed reads a row as headings; nil: it is none.
func headed(row []string) []string {
	out := make([]string, len(row))
	known := 0
	for i, c := range row {
		out[i] = SkipColumn
		for _, kind := range PinColumns {
			if slices.Contains(headings[kind], strings.ToLower(c)) && !slices.Contains(out[:i], kind) {
				out[i] = kind
				known++
				break
			}
		}
	}
	if known == 0 || known == 1 && len(row) > 1 && out[0] == SkipColumn {
		return nil
	}
	if !slices.Contains(out, NumberColumn) && !slices.Contains(out, NameColumn) {
		return nil
	}
	return out
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
	at := func(row []string, kind string) string {
		for i, c := range l.Columns {
			if c == kind {
				return row[i]
			}
		}
		return ""
	}
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
