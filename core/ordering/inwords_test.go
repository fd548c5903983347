package ordering_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/ordering"
)

func TestValuesAmongWords(t *testing.T) {
	for query, want := range map[string][2]string{
		"capacitor 10u":       {"capacitor", "10u"},
		"10µ capacitor 0805":  {"capacitor 0805", "10µ"},
		"resistor 4k7 0603":   {"resistor 0603", "4k7"},
		"resistor 47Ω":        {"resistor", "47Ω"},
		"capacitor 2.2uF":     {"capacitor", "2.2uF"},
		"resistor 0603":       {"resistor 0603", ""}, // a size
		"resistor 10":         {"resistor 10", ""},   // what it says is not known
		"soic 8 pins":         {"soic 8 pins", ""},
		"10u":                 {"10u", ""}, // of what?
		"header 2x5":          {"header 2x5", ""},
		"":                    {"", ""},
		"capacitor 10u 100n":  {"capacitor 100n", "10u"}, // which finds nothing
		"transistor BC10u":    {"transistor BC10u", ""},
		"crystal 8MHz":        {"crystal", "8MHz"},
		"inductor 100uH 0805": {"inductor 0805", "100uH"},
	} {
		rest, value := ordering.ValueIn(query)
		assert.Equal(t, want, [2]string{rest, value}, query)
	}
}
