package circuit

import (
	"cmp"
	"slices"
	"strings"

	"goldentrace/core/design"
)

// PinName is how people call a pin: "R3.2".
func PinName(d *design.Doc, p PinRef) string {
	if part := d.Parts[p.Part]; part != nil {
		return part.Called(p.Path) + "." + p.Pin
	}
	return "?." + p.Pin
}

// sortPins puts pins in the order of their names.
func sortPins(d *design.Doc, pins []PinRef) {
	if len(pins) < 2 {
		return
	}
	type keyed struct {
		prefix string
		number int
		pin    PinRef
	}
	list := make([]keyed, len(pins))
	for i, p := range pins {
		list[i].pin = p
		if part := d.Parts[p.Part]; part != nil {
			name := part.Called(p.Path)
			k := len(name)
			for k > 0 && len(name)-k < 9 && name[k-1] >= '0' && name[k-1] <= '9' {
				k--
			}
			list[i].prefix = name[:k]
			for _, c := range name[k:] {
				list[i].number = list[i].number*10 + int(c-'0')
			}
		}
	}
	slices.SortFunc(list, func(a, b keyed) int {
		if c := cmp.Or(cmp.Compare(a.prefix, b.prefix), cmp.Compare(a.number, b.number)); c != 0 {
			return c
		}
		return comparePins(a.pin, b.pin)
	})
	for i := range list {
		pins[i] = list[i].pin
	}
}

// CompareNatural orders "R2" before "R10".
func CompareNatural(a, b string) int {
	for a != "" && b != "" {
		da, db := digits(a), digits(b)
		if da > 0 && db > 0 {
			na, nb := strings.TrimLeft(a[:da], "0"), strings.TrimLeft(b[:db], "0")
			if c := cmp.Or(cmp.Compare(len(na), len(nb)), cmp.Compare(na, nb)); c != 0 {
				return c
			}
			a, b = a[da:], b[db:]
			continue
		}
		if a[0] != b[0] {
			return cmp.Compare(a[0], b[0])
		}
		a, b = a[1:], b[1:]
	}
	return cmp.Compare(len(a), len(b))
}

func digits(s string) int {
	n := 0
	for n < len(s) && s[n] >= '0' && s[n] <= '9' {
		n++
	}
	return n
}
