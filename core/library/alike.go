package library

import "strings"

// meanings are words that people use for what the trade calls otherwise; a pair of words counts as one.
var meanings = map[string][]string{
	"battery connector": {"battery", "terminal"},
	"battery holder":    {"cell"},
	"push button":       {"button"},
	"toggle switch":     {"toggle"},
	"voltage regulator": {"regulator"},
	"regulator":         {"ldo"},
	"buck converter":    {"buck", "step-down"},
	"plug":              {"header", "connector"},
	"pins":              {"header"},
	"pin header":        {"header"},
	"light":             {"led"},
	"lamp":              {"led"},
	"resistance":        {"resistor"},
	"inductor":          {"coil"},
	"choke":             {"coil"},
	"microcontroller":   {"controller"},
	"opamp":             {"amplifier"},
	"op-amp":            {"amplifier"},
	"through-hole":      {"tht"},
	"surface":           {"smd"},
	"smt":               {"smd"},
	"jack":              {"socket"},
	"quartz":            {"crystal"},
	"xtal":              {"crystal"},
	"elko":              {"electrolytic"},
	"ntc":               {"thermistor"},
}

// alike are the words of a query, each with those that mean the same.
func alike(words []string) (out [][]string) {
	for i := 0; i < len(words); i++ {
		if i+1 < len(words) {
			pair := words[i] + " " + words[i+1]
			if means := meanings[pair]; means != nil {
				out = append(out, append([]string{pair}, means...))
				i++
				continue
			}
		}
		w := words[i]
		means := meanings[w]
		if one, ok := strings.CutSuffix(w, "s"); ok && means == nil && len(one) > 2 { // the plural finds the one
			means = append([]string{one}, meanings[one]...)
		}
		out = append(out, append([]string{w}, means...))
	}
	return out
}
