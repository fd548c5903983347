package testnet

import (
	"fmt"
	"strconv"
	"strings"
)

// aliases are short names for those that a field cannot hold, each for one name. The file tells what they stand for.
type aliases struct {
	width int    // of the field
	stem  string // how aliases begin
	told  string // how the record that tells one begins
	used  map[string]bool
	of    map[string]string
	lines []string
}

// newAliases are those of a field, for names of which all are given: no alias is one of them.
func newAliases(width int, stem, told string, names []string) *aliases {
	a := &aliases{width: width, stem: stem, told: told, used: map[string]bool{}, of: map[string]string{}}
	for _, n := range names {
		a.used[n] = true
	}
	return a
}

// name is what stands in the field for a name.
func (a *aliases) name(n string) string {
	if short, ok := a.of[n]; ok {
		return short
	}
	if len(n) > a.width || spelt(n) != n {
		return a.alias(n)
	}
	a.of[n] = n
	return n
}

// number tells aliases apart: in narrow fields with letters, too, so that thousands have room.
func (a *aliases) number(i int) string {
	if a.width > 6 {
		return strconv.Itoa(i)
	}
	return strings.ToUpper(strconv.FormatInt(int64(i), 36))
}

// alias is a name's alias, be it needed or not.
func (a *aliases) alias(n string) string {
	short := ""
	for i := len(a.lines) + 1; short == "" || a.used[short]; i++ {
		short = a.stem + a.number(i)
	}
	a.used[short], a.of[n] = true, short
	a.lines = append(a.lines, fmt.Sprintf("%s%-10s%s", a.told, short, spelt(n)))
	return short
}

// spelt is a name in the letters of the format; others, and the stroke that tells of them, as \u and four digits or \U and eight.
func spelt(s string) string {
	var b strings.Builder
	for _, r := range s {
		switch {
		case r > 0xffff:
			fmt.Fprintf(&b, `\U%08X`, r)
		case r < ' ' || r > 126 || r == '\\':
			fmt.Fprintf(&b, `\u%04X`, r)
		default:
			b.WriteRune(r)
		}
	}
	return b.String()
}
