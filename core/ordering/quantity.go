package ordering

import (
	"math"
	"regexp"
	"strconv"
	"strings"
)

// Prefixes of units (SI), from the least. The letters that people type for them beside their own: u for µ.
var prefixes = []struct {
	letter string
	power  int
}{{"p", -12}, {"n", -9}, {"µ", -6}, {"m", -3}, {"", 0}, {"k", 3}, {"M", 6}, {"G", 9}}

// Quantity writes a value with its unit, four digits at most: 4.7 kΩ. Shares are written as they are: 1 %.
func Quantity(value float64, unit string) string { return quantity(value, unit, 4) }

func quantity(value float64, unit string, digits int) string {
	if unit == "%" || unit == "" || value == 0 || unit == "°C" || unit == "ppm" {
		return strings.TrimSpace(strconv.FormatFloat(value, 'g', 5, 64) + " " + unit)
	}
	chosen := prefixes[0]
	for _, p := range prefixes {
		if math.Abs(value) >= math.Pow10(p.power)*(1-1e-9) {
			chosen = p
		}
	}
	return strconv.FormatFloat(value/math.Pow10(chosen.power), 'g', digits, 64) + " " + chosen.letter + unit
}

// numberAtHead is a number with a prefix in the place of its point (IEC 60062) or after it, and a unit or none.
var numberAtHead = regexp.MustCompile(`^\s*([0-9]+(?:[.,][0-9]+)?)(?:([pnuµμmkKMGR])([0-9]+)|\s*([pnuµμmkKMGR]?))\s*(Ω|ohm|[A-Za-z%°]*)`)

// units by what is typed for them.
var typed = map[string]string{"ohm": "Ω", "Ohm": "Ω", "R": "Ω", "a": "A", "v": "V", "f": "F", "h": "H", "hz": "Hz", "w": "W"}

// Read reads the number at a text's head, as values of parts are written: 4k7, 100n, 22 µF, 8 MHz, 0.1 %, 2R2. The unit is empty where
// none stands there. False: there is no number.
func Read(text string) (value float64, unit string, ok bool) {
	m := numberAtHead.FindStringSubmatch(text)
	if m == nil {
		return 0, "", false
	}
	whole, letter, unit := strings.Replace(m[1], ",", ".", 1), m[2]+m[4], m[5]
	if rest := m[3]; rest != "" {
		if strings.Contains(whole, ".") {
			return 0, "", false
		}
		whole += "." + rest
	}
	value, err := strconv.ParseFloat(whole, 64)
	if err != nil {
		return 0, "", false
	}
	switch letter {
	case "u", "μ":
		letter = "µ"
	case "K":
		letter = "k"
	case "R":
		letter, unit = "", "Ω"
	}
	for _, p := range prefixes {
		if p.letter == letter {
			value *= math.Pow10(p.power)
		}
	}
	if u, known := typed[unit]; known {
		unit = u
	}
	return value, unit, true
}

// ValueKey is what the values of parts with a designator's letters are compared by, written as a quantity: 10u, 10µ and 10 uF of capacitors are 10 µF,
// 4k7 and 4700 of resistors 4.7 kΩ. What stands behind the quantity, a voltage or a tolerance, counts, but for its blanks; what is no quantity is as it is written.
func ValueKey(value, prefix string) string {
	kind, measured := byPrefix[prefix]
	at := numberAtHead.FindStringIndex(value)
	if !measured || kind.unit == "" || at == nil {
		return strings.TrimSpace(value)
	}
	v, unit, ok := Read(value)
	if unit == "" {
		unit = kind.unit
	}
	if !ok || unit != kind.unit { // a number with something else behind it is a name
		return strings.TrimSpace(value)
	}
	return strings.TrimSpace(quantity(v, unit, 9) + " " + strings.Join(strings.Fields(value[at[1]:]), ""))
}
