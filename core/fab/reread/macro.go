package reread

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"goldentrace/core/geom"
)

// macro works an aperture macro out for the given parameters: circles (1), lines (20, 21),
// outlines (4) and polygons (5); exposures that clear are refused.
func macro(body []string, par []float64, unit float64) ([]geom.Shape, error) {
	vars := map[int]float64{}
	for i, v := range par {
		vars[i+1] = v
	}
	var out []geom.Shape
	for _, w := range body {
		w = strings.TrimSpace(w)
		if w == "" || strings.HasPrefix(w, "0") {
			continue
		}
		if strings.HasPrefix(w, "$") {
			name, value, ok := strings.Cut(w[1:], "=")
			n, err := strconv.Atoi(name)
			if !ok || err != nil {
				return nil, fmt.Errorf("%q cannot be read", w)
			}
			if vars[n], err = evaluate(value, vars); err != nil {
				return nil, err
			}
			continue
		}
		var v []float64
		for _, f := range strings.Split(w, ",") {
			x, err := evaluate(f, vars)
			if err != nil {
				return nil, err
			}
			v = append(v, x)
		}
		s, err := primitive(v, unit)
		if err != nil {
			return nil, err
		}
		out = append(out, s)
	}
	return out, nil
}

func primitive(v []float64, unit float64) (geom.Shape, error) {
	code := int(v[0])
	least := map[int]int{1: 5, 20: 7, 21: 6, 4: 10, 5: 6}[code]
	if least == 0 {
		return geom.Shape{}, fmt.Errorf("the macro primitive %d is not read yet", code)
	}
	if len(v) < least {
		return geom.Shape{}, fmt.Errorf("the macro primitive %d lacks numbers", code)
	}
	if v[1] != 1 {
		return geom.Shape{}, fmt.Errorf("a macro primitive that clears is not read yet")
	}
	turn := 0.0
	pt := func(x, y float64) geom.Point {
		s, c := math.Sincos(turn * math.Pi / 180)
		return geom.Pt(int64(math.Round((x*c-y*s)*unit)), int64(math.Round((x*s+y*c)*unit)))
	}
	switch code {
	case 1:
		if len(v) > 5 {
			turn = v[5]
		}
		return geom.Disc(pt(v[3], v[4]), int64(math.Round(v[2]*unit/2))), nil
	case 20:
		turn = v[len(v)-1]
		dx, dy := v[5]-v[3], v[6]-v[4]
		l := math.Hypot(dx, dy)
		if l == 0 {
			return geom.Disc(pt(v[3], v[4]), 0), nil
		}
		nx, ny := -dy/l*v[2]/2, dx/l*v[2]/2
		if len(v) == 7 {
			turn = 0
		}
		return geom.Shape{Area: true, Pts: []geom.Point{pt(v[3]-nx, v[4]-ny), pt(v[5]-nx, v[6]-ny), pt(v[5]+nx, v[6]+ny), pt(v[3]+nx, v[4]+ny)}}, nil
	case 21:
		if len(v) > 6 {
			turn = v[6]
		}
		w, h := v[2]/2, v[3]/2
		return geom.Shape{Area: true, Pts: []geom.Point{pt(v[4]-w, v[5]-h), pt(v[4]+w, v[5]-h), pt(v[4]+w, v[5]+h), pt(v[4]-w, v[5]+h)}}, nil
	case 4:
		n := int(v[2])
		if n < 3 || len(v) < 3+2*(n+1) {
			return geom.Shape{}, fmt.Errorf("an outline lacks corners")
		}
		if len(v) > 3+2*(n+1) {
			turn = v[3+2*(n+1)]
		}
		s := geom.Shape{Area: true}
		for i := range n {
			s.Pts = append(s.Pts, pt(v[3+2*i], v[4+2*i]))
		}
		return s, nil
	default: // 5
		if len(v) > 6 {
			turn = v[6]
		}
		centre := pt(v[3], v[4])
		return polygon(int(v[2]), v[5]*unit/2, turn*math.Pi/180, float64(centre.X), float64(centre.Y)), nil
	}
}

// evaluate works out an arithmetic expression of a macro: + - x / and $n.
func evaluate(text string, vars map[int]float64) (float64, error) {
	e := &expression{text: strings.ReplaceAll(text, " ", ""), vars: vars}
	v, err := e.sum()
	if err == nil && e.at < len(e.text) {
		err = fmt.Errorf("%q cannot be read", text)
	}
	return v, err
}

type expression struct {
	text string
	at   int
	vars map[int]float64
}

func (e *expression) peek() byte {
	if e.at < len(e.text) {
		return e.text[e.at]
	}
	return 0
}

func (e *expression) sum() (float64, error) {
	a, err := e.product()
	for err == nil && (e.peek() == '+' || e.peek() == '-') {
		op := e.peek()
		e.at++
		var b float64
		if b, err = e.product(); op == '-' {
			b = -b
		}
		a += b
	}
	return a, err
}

func (e *expression) product() (float64, error) {
	a, err := e.factor()
	for err == nil && (e.peek() == 'x' || e.peek() == 'X' || e.peek() == '/') {
		op := e.peek()
		e.at++
		var b float64
		b, err = e.factor()
		if op == '/' {
			a /= b
		} else {
			a *= b
		}
	}
	return a, err
}

func (e *expression) factor() (float64, error) {
	switch c := e.peek(); {
	case c == '-' || c == '+':
		e.at++
		v, err := e.factor()
		if c == '-' {
			v = -v
		}
		return v, err
	case c == '(':
		e.at++
		v, err := e.sum()
		if e.peek() != ')' {
			return v, fmt.Errorf("%q lacks a bracket", e.text)
		}
		e.at++
		return v, err
	}
	start := e.at
	variable := e.peek() == '$'
	if variable {
		e.at++
	}
	for c := e.peek(); c >= '0' && c <= '9' || c == '.'; c = e.peek() {
		e.at++
	}
	if variable {
		n, err := strconv.Atoi(e.text[start+1 : e.at])
		return e.vars[n], err
	}
	v, err := strconv.ParseFloat(e.text[start:e.at], 64)
	if err != nil {
		return 0, fmt.Errorf("%q is not a number", e.text)
	}
	return v, nil
}
