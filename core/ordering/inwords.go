package ordering

import (
	"regexp"
	"strings"
)

// valueWord is a word that can be nothing but a value: a number with a prefix or a unit, as 10u, 4k7, 100nF, 22µF, 47Ω.
var valueWord = regexp.MustCompile(`(?i)^[0-9]+([.,][0-9]+)?([pnuµμmkgr][0-9]*)?(Ω|ohm|f|h|hz)?$`)

// ValueIn tells the value among the words of a search for parts, and the other words; an empty value: none is one, or no other word is left.
func ValueIn(query string) (rest, value string) {
	var others []string
	for _, w := range strings.Fields(query) {
		if value == "" && valueWord.MatchString(w) && strings.Trim(w, "0123456789.,") != "" {
			value = w
		} else {
			others = append(others, w)
		}
	}
	if len(others) == 0 {
		return query, ""
	}
	return strings.Join(others, " "), value
}
