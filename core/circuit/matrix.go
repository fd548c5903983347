package circuit

import (
	"slices"

	"goldentrace/core/design"
)

// usualPairs are the pairs of pin types that do not suit one another on a net; what is not
// listed does. Two things that both drive, or a driver on a supply, are faults; what may be
// meant but must be looked at is a warning.
var usualPairs = map[string]string{
	"output|output": "fault", "output|triState": "warning", "output|supplyOut": "fault", "output|openCollector": "fault", "output|openEmitter": "fault",
	"both|supplyOut": "warning", "triState|supplyOut": "fault", "triState|openCollector": "warning", "triState|openEmitter": "warning",
	"supplyOut|supplyOut": "fault", "supplyOut|openCollector": "warning", "supplyOut|openEmitter": "warning", "openCollector|openEmitter": "warning",
}

// PairKey writes a pair of pin types in the order of design.PinTypes.
func PairKey(a, b string) string {
	if slices.Index(design.PinTypes, a) > slices.Index(design.PinTypes, b) {
		a, b = b, a
	}
	return a + "|" + b
}

// PairSeverity is fault, warning or off for two pins of the types on one net, with the
// project's own choice.
func PairSeverity(c *design.Checks, a, b string) string {
	key := PairKey(a, b)
	if c != nil {
		if s, ok := c.Pairs[key]; ok {
			return s
		}
	}
	if s, ok := usualPairs[key]; ok {
		return s
	}
	if a == "notConnected" || b == "notConnected" {
		return "fault"
	}
	return "off"
}
