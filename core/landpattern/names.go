package landpattern

import (
	"fmt"
	"regexp"
	"strconv"

	"goldentrace/core/design"
)

// Named is what a standard name says: nominal dimensions by their keys in the family, in nanometres, and counts.
type Named struct {
	Family  string
	Kind    string // the letters at the head: RES, CAP …
	Density string
	Dims    map[string]int64
	Counts  map[string]int
	Pins    int // terminals, as the name counts them
}

// pattern of a family's names: the keys of its groups in their order, each with what it is a multiple of. A key that begins with # is
// a count, with = it is the number of terminals, with ! the kind, with % the density.
type pattern struct {
	family string
	form   *regexp.Regexp
	keys   []string
}

const (
	num     = `(\d+)`
	density = `([MNL])$`
	levels  = `([ABC])$`
)

var patterns = []pattern{
	{"can", regexp.MustCompile(`^CAPAE` + num + `X` + num + density), []string{"base", "height", "%"}},
	{"cylinder", regexp.MustCompile(`^(DIO|RES|CAP)MELF(\d\d+)(\d\d)` + density), []string{"!", "~length", "~diameter", "%"}},
	{"moulded", regexp.MustCompile(`^(CAP|DIO|RES|IND|FUS|LED)MP?(\d\d+)(\d\d)X` + num + density), []string{"!", "~length", "~width", "height", "%"}},
	{"chip", regexp.MustCompile(`^(RES|CAP|IND|LED|DIO|FUS|BEA|VAR|THRM|XTAL|ANT)CP?(\d\d+)(\d\d)X` + num + density), []string{"!", "~length", "~width", "height", "%"}},
	{"gullTwo", regexp.MustCompile(`^(?:SOIC|SOP)` + num + `P` + num + `X` + num + `-` + num + density), []string{"pitch", "span", "height", "=", "%"}},
	{"noLeadTwo", regexp.MustCompile(`^SON` + num + `P` + num + `X` + num + `X` + num + `-` + num + density), []string{"pitch", "bodyLength", "bodyWidth", "height", "=", "%"}},
	{"jLeadTwo", regexp.MustCompile(`^SOJ` + num + `P` + num + `X` + num + `-` + num + density), []string{"pitch", "span", "height", "=", "%"}},
	{"transistor", regexp.MustCompile(`^(SOT|TO)` + num + `P` + num + `X` + num + `-` + num + density), []string{"!", "pitch", "span", "height", "=", "%"}},
	{"gullFour", regexp.MustCompile(`^QFP` + num + `P` + num + `X` + num + `X` + num + `-` + num + density), []string{"pitch", "spanX", "spanY", "height", "=", "%"}},
	{"noLeadFour", regexp.MustCompile(`^QFN` + num + `P` + num + `X` + num + `X` + num + `-` + num + density), []string{"pitch", "bodyX", "bodyY", "height", "=", "%"}},
	{"jLeadFour", regexp.MustCompile(`^PLCC` + num + `P` + num + `X` + num + `X` + num + `-` + num + density), []string{"pitch", "spanX", "spanY", "height", "=", "%"}},
	{"ballGrid", regexp.MustCompile(`^BGA` + num + `[CN]` + num + `P` + num + `X` + num + `_` + num + `X` + num + `X` + num + density), []string{"=", "pitch", "#columns", "#rows", "bodyX", "bodyY", "height", "%"}},
	{"pinGrid", regexp.MustCompile(`^PGA` + num + `P` + num + `C` + num + `R` + num + `L` + num + `X` + num + `H` + num + levels), []string{"=", "pitch", "#columns", "#rows", "bodyX", "bodyY", "height", "%"}},
	{"dualInline", regexp.MustCompile(`^DIP` + num + `W` + num + `P` + num + `L` + num + `H` + num + `Q` + num + levels), []string{"span", "leadWidth", "pitch", "bodyLength", "height", "=", "%"}},
	{"header", regexp.MustCompile(`^HDR[VS]` + num + `[LR]?W` + num + `P` + num + `_` + num + `X` + num + `_` + num + `X` + num + `X` + num + levels), []string{"=", "pin", "pitch", "#rows", "#positions", "bodyLength", "bodyWidth", "height", "%"}},
	{"axial", regexp.MustCompile(`^(RES|DIO|CAP|IND|FUS)ADP?` + num + `W` + num + `L` + num + `D` + num + levels), []string{"!", "span", "lead", "bodyLength", "diameter", "%"}},
	{"radial", regexp.MustCompile(`^(CAP|RES|IND|LED|VAR|XTAL)RDN?` + num + `W` + num + `D` + num + `H` + num + levels), []string{"!", "span", "lead", "length", "height", "%"}},
	{"radial", regexp.MustCompile(`^(CAP|RES|IND|LED|VAR|XTAL)RRN?` + num + `W` + num + `L` + num + `T` + num + `H` + num + levels), []string{"!", "span", "lead", "length", "thickness", "height", "%"}},
	{"circular", regexp.MustCompile(`^TO` + num + `W` + num + `D` + num + `H` + num + `-` + num + `X` + num + levels), []string{"circle", "lead", "diameter", "height", "#places", "=", "%"}},
}

// ReadName reads a name of the standard's convention.
func ReadName(name string) (*Named, error) {
	for _, p := range patterns {
		groups := p.form.FindStringSubmatch(name)
		if groups == nil {
			continue
		}
		out := &Named{Family: p.family, Dims: map[string]int64{}, Counts: map[string]int{}}
		for i, key := range p.keys {
			s := groups[i+1]
			n, _ := strconv.ParseInt(s, 10, 32) // digits only, where it is a number; too many give the largest there is
			switch key[0] {
			case '!':
				out.Kind = s
			case '=':
				out.Pins = int(n)
			case '#':
				out.Counts[key[1:]] = int(n)
			case '%':
				out.Density = map[string]string{"M": design.Most, "A": design.Most, "N": design.Nominal, "B": design.Nominal, "L": design.Least, "C": design.Least}[s]
			case '~':
				out.Dims[key[1:]] = n * 100_000
			default:
				out.Dims[key] = n * 10_000
			}
		}
		return out, nil
	}
	return nil, fmt.Errorf("%q is not a name of the standard's convention", name)
}
