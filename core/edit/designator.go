package edit

import (
	"fmt"
	"regexp"
)

// designator is the form every designator is given: a prefix of letters, a number, and for a
// unit of a package perhaps its letter. Projects from elsewhere may hold others; they stay
// until somebody changes them.
var designator = regexp.MustCompile(`^[\p{L}_]{1,10}[0-9]{1,6}[A-Za-z]?$`)

// designatorForm says what is wrong with a designator's form, if anything is.
func designatorForm(s string) error {
	if designator.MatchString(s) {
		return nil
	}
	return fmt.Errorf("%q cannot be a designator: it begins with letters and goes on with a number, as R12 or U3A", s)
}
