package vector

import (
	"fmt"
	"math"
	"strconv"

	"goldentrace/core/typeface"
)

// spot in the drawing's own units, y downwards.
type spot = [2]float64

// run of a path: a line through places.
type run struct {
	pts    []spot
	closed bool
}

// mostPlaces bounds the places of a drawing.
const mostPlaces = 40_000

// pathReader goes through the data of a path (SVG 1.1, 8.3).
type pathReader struct {
	data string
	at   int
	out  []run
	line []spot
	pen  spot
	ctrl spot // the last control place of a curve
	last byte // the command before
	fine float64
	full int
}

// readPath gives the lines of a path's data, curves as chords that stray from them by less than fine. What is
// wrong ends it there, as the standard asks for: what came before is drawn.
func readPath(data string, fine float64) ([]run, error) {
	r := &pathReader{data: data, fine: fine}
	err := r.all()
	r.flush(false)
	return r.out, err
}

func (r *pathReader) flush(closed bool) {
	if len(r.line) > 1 || closed && len(r.line) == 1 {
		r.out = append(r.out, run{r.line, closed})
	}
	r.line = nil
}

func (r *pathReader) skip() {
	for r.at < len(r.data) {
		switch r.data[r.at] {
		case ' ', '\t', '\n', '\r', '\f', ',':
			r.at++
		default:
			return
		}
	}
}

// number reads a number; they need no space between them where a sign or a second point tells them apart.
func (r *pathReader) number() (float64, error) {
	r.skip()
	from, point, exp := r.at, false, false
	for ; r.at < len(r.data); r.at++ {
		c := r.data[r.at]
		switch {
		case c >= '0' && c <= '9':
			continue
		case (c == '+' || c == '-') && (r.at == from || r.data[r.at-1] == 'e' || r.data[r.at-1] == 'E'):
			continue
		case c == '.' && !point && !exp:
			point = true
			continue
		case (c == 'e' || c == 'E') && !exp && r.at > from:
			exp = true
			continue
		}
		break
	}
	v, err := strconv.ParseFloat(r.data[from:r.at], 64)
	if err != nil || math.IsInf(v, 0) || math.Abs(v) > 1e9 {
		return 0, fmt.Errorf("a path has something at its place %d that is no number", from+1)
	}
	return v, nil
}

// flag reads one of the two flags of an arc: a single figure, which the next number may follow at once.
func (r *pathReader) flag() (bool, error) {
	r.skip()
	if r.at < len(r.data) && (r.data[r.at] == '0' || r.data[r.at] == '1') {
		r.at++
		return r.data[r.at-1] == '1', nil
	}
	return false, fmt.Errorf("an arc of a path has a flag at its place %d that is neither 0 nor 1", r.at+1)
}

func (r *pathReader) more() bool {
	r.skip()
	if r.at >= len(r.data) {
		return false
	}
	c := r.data[r.at]
	return c >= '0' && c <= '9' || c == '.' || c == '-' || c == '+'
}

func (r *pathReader) all() error {
	for {
		r.skip()
		if r.at >= len(r.data) {
			return nil
		}
		c := r.data[r.at]
		r.at++
		if r.last == 0 && c != 'M' && c != 'm' {
			return fmt.Errorf("a path begins with %q, not with M", c)
		}
		if c == 'Z' || c == 'z' {
			r.close()
			r.last = c
			continue
		}
		for first := true; first || r.more(); first = false {
			if err := r.command(c, first); err != nil {
				return err
			}
			r.last = c
			if r.full += len(r.line); len(r.line) > mostPlaces || r.full > 100*mostPlaces {
				return fmt.Errorf("a path has more than %d places", mostPlaces)
			}
		}
	}
}

// close goes back to where the line began, and on from there.
func (r *pathReader) close() {
	if len(r.line) == 0 {
		return
	}
	r.pen = r.line[0]
	r.flush(true)
}

// places reads so many, relative to the pen where the command is small.
func (r *pathReader) places(c byte, n int) ([]spot, error) {
	out := make([]spot, n)
	for i := range out {
		for k := range 2 {
			v, err := r.number()
			if err != nil {
				return nil, err
			}
			if c >= 'a' {
				v += r.pen[k]
			}
			out[i][k] = v
		}
	}
	return out, nil
}

func (r *pathReader) to(p spot) {
	if len(r.line) == 0 {
		r.line = append(r.line, r.pen)
	}
	r.line = append(r.line, p)
	r.pen = p
}

func (r *pathReader) cubic(b, c, d spot) {
	if len(r.line) == 0 {
		r.line = append(r.line, r.pen)
	}
	r.line = typeface.Cubic(r.line, r.pen, b, c, d, r.fine)
	r.pen = d
}

// command does one command with its numbers.
func (r *pathReader) command(c byte, first bool) error {
	upper := c &^ 0x20
	mirrored := func(of string) spot { // the control place that goes on smoothly
		for i := range len(of) {
			if r.last&^0x20 == of[i] {
				return spot{2*r.pen[0] - r.ctrl[0], 2*r.pen[1] - r.ctrl[1]}
			}
		}
		return r.pen
	}
	switch upper {
	case 'M', 'L':
		p, err := r.places(c, 1)
		if err != nil {
			return err
		}
		if upper == 'M' && first {
			r.flush(false)
			r.pen = p[0]
			r.line = []spot{p[0]}
			return nil
		}
		r.to(p[0])
	case 'H', 'V':
		v, err := r.number()
		if err != nil {
			return err
		}
		p, k := r.pen, 0
		if upper == 'V' {
			k = 1
		}
		if c >= 'a' {
			v += p[k]
		}
		p[k] = v
		r.to(p)
	case 'C', 'S':
		n := 3
		if upper == 'S' {
			n = 2
		}
		p, err := r.places(c, n)
		if err != nil {
			return err
		}
		if upper == 'S' {
			p = append([]spot{mirrored("CS")}, p...)
		}
		r.cubic(p[0], p[1], p[2])
		r.ctrl = p[1]
	case 'Q', 'T':
		n := 2
		if upper == 'T' {
			n = 1
		}
		p, err := r.places(c, n)
		if err != nil {
			return err
		}
		if upper == 'T' {
			p = append([]spot{mirrored("QT")}, p...)
		}
		r.cubic(typeface.Between(r.pen, p[0], 2.0/3), typeface.Between(p[1], p[0], 2.0/3), p[1])
		r.ctrl = p[0]
	case 'A':
		return r.arc(c)
	default:
		return fmt.Errorf("a path has the command %q, which there is not", c)
	}
	return nil
}

// arc goes on along an elliptical arc (SVG 1.1, F.6.5 and F.6.6).
func (r *pathReader) arc(c byte) error {
	var v [3]float64
	for i := range v {
		var err error
		if v[i], err = r.number(); err != nil {
			return err
		}
	}
	large, err := r.flag()
	if err != nil {
		return err
	}
	sweep, err := r.flag()
	if err != nil {
		return err
	}
	p, err := r.places(c, 1)
	if err != nil {
		return err
	}
	a, b := r.pen, p[0]
	rx, ry := math.Abs(v[0]), math.Abs(v[1])
	if a == b {
		return nil
	}
	if rx == 0 || ry == 0 {
		r.to(b)
		return nil
	}
	sin, cos := math.Sincos(v[2] * math.Pi / 180)
	dx, dy := (a[0]-b[0])/2, (a[1]-b[1])/2
	x, y := cos*dx+sin*dy, cos*dy-sin*dx
	if k := x*x/(rx*rx) + y*y/(ry*ry); k > 1 {
		rx, ry = rx*math.Sqrt(k), ry*math.Sqrt(k)
	}
	k := math.Sqrt(max(0, (rx*rx*ry*ry-rx*rx*y*y-ry*ry*x*x)/(rx*rx*y*y+ry*ry*x*x)))
	if large == sweep {
		k = -k
	}
	cx, cy := k*rx*y/ry, -k*ry*x/rx
	from := math.Atan2((y-cy)/ry, (x-cx)/rx)
	way := math.Atan2((-y-cy)/ry, (-x-cx)/rx) - from
	switch {
	case sweep && way < 0:
		way += 2 * math.Pi
	case !sweep && way > 0:
		way -= 2 * math.Pi
	}
	mx, my := cos*cx-sin*cy+(a[0]+b[0])/2, sin*cx+cos*cy+(a[1]+b[1])/2
	for _, q := range ellipse(mx, my, rx, ry, sin, cos, from, way, r.fine)[1:] {
		r.to(q)
	}
	r.line[len(r.line)-1] = b
	r.pen = b
	return nil
}

// ellipse gives places along an arc of an ellipse, both ends included, so that chords stray by less than fine.
func ellipse(mx, my, rx, ry, sin, cos, from, way, fine float64) []spot {
	step := min(2*math.Acos(max(0, 1-fine/max(rx, ry))), math.Pi/2)
	n := min(max(int(math.Ceil(math.Abs(way)/step)), 1), 2_000)
	out := make([]spot, 0, n+1)
	for i := range n + 1 {
		s, c := math.Sincos(from + way*float64(i)/float64(n))
		out = append(out, spot{mx + cos*rx*c - sin*ry*s, my + sin*rx*c + cos*ry*s})
	}
	return out
}
