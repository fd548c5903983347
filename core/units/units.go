// Package units converts between what people type and the whole nanometres in which
// every length of a design is kept. Angles are whole millidegrees.
//
// Sources: the inch is 25.4 mm exactly (international yard and pound agreement, 1959);
// a mil is a thousandth of an inch.
package units

import (
	"fmt"
	"math"
	"strconv"
	"strings"
)

// Lengths in nanometres.
const (
	Nanometre  int64 = 1
	Micrometre int64 = 1_000
	MM         int64 = 1_000_000
	Mil        int64 = 25_400
	Inch       int64 = 25_400_000
)

// Limit bounds every coordinate and length of a design: two metres either way.
const Limit = 2_000 * MM

// MMf turns millimetres into nanometres, rounded to the nearest.
func MMf(mm float64) int64 { return int64(math.Round(mm * float64(MM))) }

// factors gives nanometres per unit for the names people type.
var factors = map[string]float64{
	"nm": 1, "um": 1e3, "µm": 1e3, "μm": 1e3, "mm": 1e6, "cm": 1e7, "m": 1e9,
	"mil": 25_400, "mils": 25_400, "th": 25_400, "in": 25_400_000, "inch": 25_400_000, "\"": 25_400_000,
}

// Known tells whether name is a unit of length that Parse understands.
func Known(name string) bool { _, ok := factors[strings.ToLower(name)]; return ok }

// Format writes nm in the given unit with at most the decimals that a nanometre needs,
// without trailing zeros: Format(2540000, "mm") is "2.54".
func Format(nm int64, unit string) string {
	f, ok := factors[unit]
	if !ok {
		f = factors["mm"]
	}
	s := strconv.FormatFloat(float64(nm)/f, 'f', 6, 64)
	s = strings.TrimRight(s, "0")
	return strings.TrimSuffix(s, ".")
}

// Text writes nm in millimetres with its unit and three decimals at most, for sentences.
func Text(nm int64) string {
	s := strconv.FormatFloat(float64(nm)/float64(MM), 'f', 3, 64)
	s = strings.TrimSuffix(strings.TrimRight(s, "0"), ".")
	if s == "-0" {
		s = "0"
	}
	return s + " mm"
}

// Parse reads a length as people type it: a number or an arithmetic expression of numbers
// with or without units ("2.54", "7.62/2", "100mil + 0.2mm", "(1in-3mm)*2"). Numbers that
// carry no unit stand in the unit given, as long as the whole has no unit; added to a
// length they stand in that unit too. The result is nanometres.
func Parse(text, unit string) (int64, error) {
	if !Known(unit) {
		return 0, fmt.Errorf("%q is not a unit of length", unit)
	}
	p := &parser{text: text, unit: factors[strings.ToLower(unit)]}
	v, err := p.sum()
	if err != nil {
		return 0, err
	}
	p.space()
	if p.at < len(p.text) {
		return 0, fmt.Errorf("%q is not a length: %q was not expected", text, p.text[p.at:])
	}
	v = p.length(v)
	if math.IsNaN(v.num) || math.Abs(v.num) > float64(Limit) {
		return 0, fmt.Errorf("%q is beyond the largest length, %s", text, Text(Limit))
	}
	return int64(math.Round(v.num)), nil
}

// value is a number that is a length (nanometres) or a plain factor.
type value struct {
	num    float64
	length bool
}

type parser struct {
	text  string
	at    int
	unit  float64
	depth int
}

func (p *parser) length(v value) value {
	if v.length {
		return v
	}
	return value{v.num * p.unit, true}
}

func (p *parser) space() {
	for p.at < len(p.text) && (p.text[p.at] == ' ' || p.text[p.at] == '\t') {
		p.at++
	}
}

func (p *parser) accept(c byte) bool {
	p.space()
	if p.at < len(p.text) && p.text[p.at] == c {
		p.at++
		return true
	}
	return false
}

func (p *parser) sum() (value, error) {
	a, err := p.product()
	for err == nil {
		var sign float64
		switch {
		case p.accept('+'):
			sign = 1
		case p.accept('-'):
			sign = -1
		default:
			return a, nil
		}
		var b value
		if b, err = p.product(); err != nil {
			break
		}
		if a.length || b.length {
			a, b = p.length(a), p.length(b)
		}
		a.num += sign * b.num
	}
	return a, err
}

func (p *parser) product() (value, error) {
	a, err := p.factor()
	for err == nil {
		switch {
		case p.accept('*'):
			var b value
			if b, err = p.factor(); err != nil {
				return a, err
			}
			if a.length && b.length {
				return a, fmt.Errorf("%q multiplies a length by a length, which is an area", p.text)
			}
			a = value{a.num * b.num, a.length || b.length}
		case p.accept('/'):
			var b value
			if b, err = p.factor(); err != nil {
				return a, err
			}
			if b.num == 0 {
				return a, fmt.Errorf("%q divides by zero", p.text)
			}
			if b.length && !a.length {
				return a, fmt.Errorf("%q divides a number by a length", p.text)
			}
			a = value{a.num / b.num, a.length && !b.length}
		default:
			return a, nil
		}
	}
	return a, err
}

func (p *parser) factor() (value, error) {
	if p.depth++; p.depth > 50 {
		return value{}, fmt.Errorf("%q is nested too deeply", p.text)
	}
	defer func() { p.depth-- }()
	switch {
	case p.accept('-'):
		v, err := p.factor()
		v.num = -v.num
		return v, err
	case p.accept('+'):
		return p.factor()
	case p.accept('('):
		v, err := p.sum()
		if err == nil && !p.accept(')') {
			err = fmt.Errorf("%q lacks a closing bracket", p.text)
		}
		return v, err
	}
	return p.number()
}

func (p *parser) number() (value, error) {
	p.space()
	start := p.at
	for p.at < len(p.text) && (p.text[p.at] >= '0' && p.text[p.at] <= '9' || p.text[p.at] == '.') {
		p.at++
	}
	if start == p.at {
		return value{}, fmt.Errorf("%q is not a length: a number was expected", strings.TrimSpace(p.text))
	}
	n, err := strconv.ParseFloat(p.text[start:p.at], 64)
	if err != nil {
		return value{}, fmt.Errorf("%q is not a number", p.text[start:p.at])
	}
	p.space()
	rest := strings.ToLower(p.text[p.at:])
	best := ""
	for name := range factors {
		if strings.HasPrefix(rest, name) && len(name) > len(best) {
			best = name
		}
	}
	if best == "" {
		return value{num: n}, nil
	}
	p.at += len(best)
	return value{n * factors[best], true}, nil
}
