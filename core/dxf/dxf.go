// Package dxf reads closed outlines from DXF drawings and writes them. A drawing is a text of pairs, a group code and a value; what is read are
// the curves of its model: lines, arcs, circles, polylines with bulges, ellipses and splines. Curves that are neither straight nor round become arcs within
// a tolerance. Lengths that come out are whole nanometres.
//
// Source: DXF Reference, public specification of the ASCII format: group codes, ENTITIES section, $INSUNITS; bulge is the tangent of a quarter
// of the arc's angle, above nothing where it turns anticlockwise.
package dxf

import (
	"bufio"
	"bytes"
	"errors"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"
)

// Bounds of what is read.
const (
	LargestFile = 32 << 20 // bytes
	mostCurves  = 50_000
	mostPoles   = 20_000 // of one spline or polyline
)

// Drawing is what a file draws.
type Drawing struct {
	Unit    float64  `json:"unit"`    // nanometres of one unit; 0: the file does not say
	Layers  []string `json:"layers"`  // that hold curves, in the order of their names
	Skipped []string `json:"skipped"` // kinds of things that are no outline, each with how many there were
	curves  []curve
}

// curve in units of the drawing.
type curve struct {
	layer string
	path
}

// path is a curve by its parameter from 0 to 1.
type path interface {
	at(t float64) vec
	cuts() []float64               // parameters between which it is smooth
	plain() (straight, exact bool) // exact: lines and arcs are all of it
}

type vec struct{ x, y float64 }

func (v vec) plus(w vec) vec      { return vec{v.x + w.x, v.y + w.y} }
func (v vec) minus(w vec) vec     { return vec{v.x - w.x, v.y - w.y} }
func (v vec) times(k float64) vec { return vec{v.x * k, v.y * k} }
func (v vec) length() float64     { return math.Hypot(v.x, v.y) }

// unitsOf are the units that $INSUNITS names, in nanometres.
var unitsOf = map[int]float64{1: 25.4e6, 2: 304.8e6, 4: 1e6, 5: 10e6, 6: 1e9, 8: 25.4, 9: 25.4e3, 10: 914.4e6, 11: 0.1, 12: 1, 13: 1e3, 14: 100e6}

// pair is a group code and its value.
type pair struct {
	code  int
	value string
	line  int
}

// number reads the value; not ok: it is none.
func (p pair) number() (float64, error) {
	v, err := strconv.ParseFloat(p.value, 64)
	if err != nil || math.IsNaN(v) || math.IsInf(v, 0) || math.Abs(v) > 1e12 {
		return 0, fmt.Errorf("line %d says %.40q where a number is meant", p.line, p.value)
	}
	return v, nil
}

// Read reads a drawing. Errors say in a sentence what is wrong and where. Cost: O(length).
func Read(data []byte) (*Drawing, error) {
	if len(data) > LargestFile {
		return nil, fmt.Errorf("the drawing has %d MB; %d are the most", len(data)>>20, LargestFile>>20)
	}
	if bytes.IndexByte(data[:min(len(data), 256)], 0) >= 0 {
		return nil, errors.New("this is a binary file; a DXF drawing as text is read")
	}
	if !utf8.Valid(data) { // names may be in any code page; numbers and kinds are plain letters
		data = bytes.ToValidUTF8(data, []byte("?"))
	}
	r := &reader{scan: bufio.NewScanner(bytes.NewReader(data)), out: &Drawing{Layers: []string{}, Skipped: []string{}}, skipped: map[string]int{}}
	r.scan.Buffer(make([]byte, 64<<10), 1<<20)
	if err := r.whole(); err != nil {
		return nil, err
	}
	return r.out, nil
}

type reader struct {
	scan    *bufio.Scanner
	line    int
	back    *pair
	out     *Drawing
	skipped map[string]int
}

// next pair; nil at the end.
func (r *reader) next() (*pair, error) {
	if p := r.back; p != nil {
		r.back = nil
		return p, nil
	}
	if !r.scan.Scan() {
		if r.scan.Err() != nil {
			return nil, fmt.Errorf("line %d is too long to be of a drawing", r.line+1)
		}
		return nil, nil
	}
	r.line++
	code, err := strconv.Atoi(strings.TrimSpace(r.scan.Text()))
	if err != nil {
		return nil, fmt.Errorf("this is not a DXF drawing: line %d says %.40q where a group code is meant", r.line, r.scan.Text())
	}
	if !r.scan.Scan() {
		if r.scan.Err() != nil {
			return nil, fmt.Errorf("line %d is too long to be of a drawing", r.line+1)
		}
		return nil, errors.New("the drawing is cut short: its last group code has no value")
	}
	r.line++
	return &pair{code, strings.TrimSpace(r.scan.Text()), r.line}, nil
}

// whole reads sections until the end of the file.
func (r *reader) whole() error {
	section, ended, seen := "", false, false
	for {
		p, err := r.next()
		if err != nil {
			return err
		}
		if p == nil {
			break
		}
		switch {
		case p.code == 0 && p.value == "SECTION":
			q, err := r.next()
			if err != nil {
				return err
			}
			if q != nil && q.code == 2 {
				section = q.value
			}
			seen = seen || section == "ENTITIES"
		case p.code == 0 && p.value == "ENDSEC":
			section = ""
		case p.code == 0 && p.value == "EOF":
			ended = true
		case section == "HEADER" && p.code == 9 && p.value == "$INSUNITS":
			q, err := r.next()
			if err != nil {
				return err
			}
			if q != nil {
				n, _ := strconv.Atoi(q.value) // what is none names no unit
				r.out.Unit = unitsOf[n]
			}
		case section == "ENTITIES" && p.code == 0:
			if err := r.entity(p.value); err != nil {
				return err
			}
		}
	}
	switch {
	case !seen:
		return errors.New("this is not a DXF drawing: it has no section of entities")
	case !ended:
		return errors.New("the drawing is cut short: its end is missing")
	case len(r.out.curves) == 0 && len(r.skipped) == 0:
		return errors.New("the drawing is empty")
	}
	for _, c := range r.out.curves {
		if !slices.Contains(r.out.Layers, c.layer) {
			r.out.Layers = append(r.out.Layers, c.layer)
		}
	}
	slices.Sort(r.out.Layers)
	for k, n := range r.skipped {
		r.out.Skipped = append(r.out.Skipped, fmt.Sprintf("%d × %s", n, k))
	}
	slices.Sort(r.out.Skipped)
	return nil
}

// fields are the pairs of an entity up to the next one.
func (r *reader) fields() ([]pair, error) {
	var out []pair
	for {
		p, err := r.next()
		if err != nil || p == nil {
			return out, err
		}
		if p.code == 0 {
			r.back = p
			return out, nil
		}
		if out = append(out, *p); len(out) > 8*mostPoles {
			return nil, fmt.Errorf("line %d: one thing of the drawing has too many points", p.line)
		}
	}
}

// body of an entity: its layer and its numbers by code, each as often as it stands there.
type body struct {
	layer string
	flat  bool // seen from below, where the third axis points down
	by    map[int][]float64
}

func bodyOf(fields []pair) (*body, error) {
	b := &body{layer: "0", by: map[int][]float64{}}
	for _, p := range fields {
		switch {
		case p.code == 8:
			b.layer = p.value
		case p.code >= 10 && p.code < 100 || p.code == 210 || p.code == 220 || p.code == 230:
			v, err := p.number()
			if err != nil {
				return nil, err
			}
			b.by[p.code] = append(b.by[p.code], v)
		}
	}
	b.flat = b.one(230, 1) < 0
	return b, nil
}

// one is the number of a code; several: the first, none: the one given.
func (b *body) one(code int, none float64) float64 {
	if l := b.by[code]; len(l) > 0 {
		return l[0]
	}
	return none
}

func (r *reader) add(b *body, p path) error {
	if len(r.out.curves) >= mostCurves {
		return fmt.Errorf("the drawing has more than %d curves; an outline has fewer", mostCurves)
	}
	if b.flat { // given as seen from the other side
		p = mirrored{p}
	}
	r.out.curves = append(r.out.curves, curve{b.layer, p})
	return nil
}

// entity reads one thing of the model.
func (r *reader) entity(kind string) error {
	fields, err := r.fields()
	if err != nil {
		return err
	}
	b, err := bodyOf(fields)
	if err != nil {
		return err
	}
	centre := vec{b.one(10, 0), b.one(20, 0)}
	switch kind {
	case "LINE":
		return r.add(&body{layer: b.layer}, chord{centre, vec{b.one(11, 0), b.one(21, 0)}})
	case "CIRCLE":
		return r.add(b, round(centre, b.one(40, 0), 0, 2*math.Pi))
	case "ARC":
		from, to := b.one(50, 0)*math.Pi/180, b.one(51, 360)*math.Pi/180
		for to <= from {
			to += 2 * math.Pi
		}
		return r.add(b, round(centre, b.one(40, 0), from, to-from))
	case "ELLIPSE":
		long := vec{b.one(11, 1), b.one(21, 0)}
		from, to := b.one(41, 0), b.one(42, 2*math.Pi)
		for to <= from {
			to += 2 * math.Pi
		}
		return r.add(&body{layer: b.layer}, ellipse{centre, long, vec{-long.y, long.x}.times(b.one(40, 1) * sign(!b.flat)), from, to - from})
	case "LWPOLYLINE":
		pts, bulges := vertices(fields)
		return r.polyline(b, pts, bulges, int(b.one(70, 0))&1 != 0)
	case "POLYLINE":
		return r.oldPolyline(b, int(b.one(70, 0)))
	case "SPLINE":
		s, err := splineOf(b)
		if err != nil {
			return err
		}
		return r.add(&body{layer: b.layer}, s)
	}
	r.skipped[kind]++
	return nil
}

func sign(plus bool) float64 {
	if plus {
		return 1
	}
	return -1
}

// vertices of a light polyline; a bulge belongs to the vertex before it.
func vertices(fields []pair) (pts []vec, bulges []float64) {
	for _, p := range fields {
		v, _ := p.number() // looked through before
		switch p.code {
		case 10:
			pts, bulges = append(pts, vec{v, 0}), append(bulges, 0)
		case 20:
			if len(pts) > 0 {
				pts[len(pts)-1].y = v
			}
		case 42:
			if len(pts) > 0 {
				bulges[len(pts)-1] = v
			}
		}
	}
	return pts, bulges
}

// oldPolyline reads a polyline whose vertices are things of their own.
func (r *reader) oldPolyline(b *body, flags int) error {
	var pts []vec
	var bulges []float64
	for {
		p, err := r.next()
		if err != nil {
			return err
		}
		if p == nil || p.code == 0 && p.value != "VERTEX" {
			if p != nil && p.value == "SEQEND" {
				if _, err = r.fields(); err != nil {
					return err
				}
			} else {
				r.back = p
			}
			break
		}
		fields, err := r.fields()
		if err != nil {
			return err
		}
		v, err := bodyOf(fields)
		if err != nil {
			return err
		}
		if int(v.one(70, 0))&16 != 0 { // a pole of a frame, not of the line
			continue
		}
		if len(pts) > mostPoles {
			return fmt.Errorf("line %d: a polyline has more than %d corners", r.line, mostPoles)
		}
		pts, bulges = append(pts, vec{v.one(10, 0), v.one(20, 0)}), append(bulges, v.one(42, 0))
	}
	if flags&(16|64) != 0 { // a mesh
		r.skipped["mesh"]++
		return nil
	}
	return r.polyline(b, pts, bulges, flags&1 != 0)
}

func (r *reader) polyline(b *body, pts []vec, bulges []float64, closed bool) error {
	n := len(pts)
	for i := range n {
		if i == n-1 && !closed {
			break
		}
		a, c := pts[i], pts[(i+1)%n]
		if a == c {
			continue
		}
		var p path = chord{a, c}
		if bulges[i] != 0 {
			p = bulged(a, c, bulges[i])
		}
		if err := r.add(b, p); err != nil {
			return err
		}
	}
	return nil
}
