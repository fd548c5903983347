// Package reread reads fabrication files back, our own or anybody's: Gerber artwork, XNC or
// Excellon drill files in decimal metric or inch, IPC-D-356A netlists. It shares no code
// with the writers, so that what it says of a file is evidence. Lengths are nanometres.
//
// Sources: the published Gerber layer format (2022.02), its X2 attributes, the XNC format.
package reread

import (
	"fmt"
	"math"
	"strconv"
	"strings"

	"goldentrace/core/geom"
)

// Mark is one thing an artwork file draws, made of shapes.
type Mark struct {
	Kind     string       `json:"kind"` // flash, line, region
	Dark     bool         `json:"dark"`
	Shapes   []geom.Shape `json:"-"`
	At       geom.Point   `json:"at"`
	Net      string       `json:"net,omitempty"`
	Part     string       `json:"part,omitempty"`
	Pin      string       `json:"pin,omitempty"`
	Function string       `json:"function,omitempty"` // of the aperture
}

// Artwork is a Gerber file as read.
type Artwork struct {
	Attributes map[string]string // file attributes by name
	Marks      []Mark
}

type aperture struct {
	shapes   []geom.Shape // around the origin
	function string
	round    int64 // diameter when it is a plain circle
}

type reader struct {
	art       *Artwork
	scale     float64 // nm per unit of coordinates
	unit      float64 // nm per unit of decimal numbers
	decimals  int
	apertures map[int]aperture
	macros    map[string][]string
	current   int
	at        geom.Point
	dark      bool
	region    [][]geom.Point
	inRegion  bool
	mode      int // 1 line, 2 clockwise, 3 anticlockwise
	aperAttr  string
	objAttr   map[string]string
	ended     bool
}

// LargestFile bounds what is read, in bytes.
const LargestFile = 128 << 20

// Gerber reads an artwork file. Errors name the block that cannot be read.
func Gerber(data []byte) (*Artwork, error) {
	if len(data) > LargestFile {
		return nil, fmt.Errorf("the file is larger than %d MiB", LargestFile>>20)
	}
	r := &reader{art: &Artwork{Attributes: map[string]string{}}, apertures: map[int]aperture{}, macros: map[string][]string{}, dark: true, mode: 1,
		objAttr: map[string]string{}, current: -1}
	text := strings.NewReplacer("\r", "", "\n", "").Replace(string(data))
	for i := 0; i < len(text) && !r.ended; {
		if text[i] == '%' {
			end := strings.IndexByte(text[i+1:], '%')
			if end < 0 {
				return nil, fmt.Errorf("an extended block is not closed: %.40q", text[i:])
			}
			if err := r.extended(text[i+1 : i+1+end]); err != nil {
				return nil, err
			}
			i += end + 2
			continue
		}
		end := strings.IndexByte(text[i:], '*')
		if end < 0 {
			break
		}
		if word := strings.TrimSpace(text[i : i+end]); word != "" {
			if err := r.word(word); err != nil {
				return nil, fmt.Errorf("%.60q: %w", word, err)
			}
		}
		i += end + 1
	}
	if r.scale == 0 {
		return nil, fmt.Errorf("this is not a Gerber file: it states no format")
	}
	if !r.ended {
		return nil, fmt.Errorf("the file is cut short: its end mark is missing")
	}
	return r.art, nil
}

func (r *reader) extended(block string) error {
	words := strings.Split(strings.TrimSuffix(block, "*"), "*")
	if strings.HasPrefix(words[0], "AM") {
		r.macros[words[0][2:]] = words[1:]
		return nil
	}
	for _, w := range words {
		if err := r.parameter(strings.TrimSpace(w)); err != nil {
			return fmt.Errorf("%.60q: %w", w, err)
		}
	}
	return nil
}

func (r *reader) parameter(w string) error {
	if len(w) < 2 {
		return nil
	}
	switch w[:2] {
	case "FS":
		at := strings.IndexByte(w, 'X')
		if at < 0 || at+2 >= len(w) || !strings.HasPrefix(w, "FSLA") {
			return fmt.Errorf("only absolute coordinates without leading zeros are read")
		}
		r.decimals = int(w[at+2] - '0')
		r.rescale()
	case "MO":
		r.unit = 1e6
		if w == "MOIN" {
			r.unit = 25.4e6
		}
		r.rescale()
	case "AD":
		return r.define(w[2:])
	case "LP":
		r.dark = w == "LPD"
	case "TF":
		name, value, _ := strings.Cut(w[2:], ",")
		r.art.Attributes[name] = unescape(value)
	case "TA":
		if rest, ok := strings.CutPrefix(w, "TA.AperFunction,"); ok {
			r.aperAttr = rest
		}
	case "TO":
		name, value, _ := strings.Cut(w[2:], ",")
		r.objAttr[name] = value
	case "TD":
		switch w[2:] {
		case "":
			r.aperAttr, r.objAttr = "", map[string]string{}
		case ".AperFunction":
			r.aperAttr = ""
		default:
			delete(r.objAttr, w[2:])
		}
	case "LM", "LR", "LS":
		if v := strings.Trim(w[2:], "N0."); v != "" && w != "LS1" && w != "LS1.0" {
			return fmt.Errorf("turned, mirrored or scaled apertures are not read yet")
		}
	case "SR", "AB":
		if w != "SR" && w != "SRX1Y1I0J0" {
			return fmt.Errorf("repeated blocks are not read yet")
		}
	}
	return nil
}

func (r *reader) rescale() {
	if r.unit > 0 && r.decimals > 0 {
		r.scale = r.unit / math.Pow10(r.decimals)
	}
}

func (r *reader) define(w string) error {
	if !strings.HasPrefix(w, "D") {
		return fmt.Errorf("an aperture has no number")
	}
	n := 1
	for n < len(w) && w[n] >= '0' && w[n] <= '9' {
		n++
	}
	code, err := strconv.Atoi(w[1:n])
	if err != nil || code < 10 {
		return fmt.Errorf("an aperture's number is not one")
	}
	name, rest, _ := strings.Cut(w[n:], ",")
	var par []float64
	if rest != "" {
		for _, f := range strings.Split(rest, "X") {
			v, err := strconv.ParseFloat(f, 64)
			if err != nil {
				return fmt.Errorf("%q is not a number", f)
			}
			par = append(par, v)
		}
	}
	a := aperture{function: r.aperAttr}
	need := map[string]int{"C": 1, "R": 2, "O": 2, "P": 2}[name]
	if len(par) < need {
		return fmt.Errorf("the aperture %s lacks sizes", name)
	}
	nm := func(v float64) int64 { return int64(math.Round(v * r.unit)) }
	switch name {
	case "C":
		a.round = nm(par[0])
		a.shapes = []geom.Shape{geom.Disc(geom.Point{}, a.round/2)}
	case "R":
		w, h := nm(par[0])/2, nm(par[1])/2
		a.shapes = []geom.Shape{{Pts: []geom.Point{{X: -w, Y: -h}, {X: w, Y: -h}, {X: w, Y: h}, {X: -w, Y: h}}, Area: true}}
	case "O":
		w, h := nm(par[0]), nm(par[1])
		d := min(w, h)
		a.shapes = []geom.Shape{{Pts: []geom.Point{{X: -(w - d) / 2, Y: -(h - d) / 2}, {X: (w - d) / 2, Y: (h - d) / 2}}, R: d / 2}}
	case "P":
		sides, turn := int(par[1]), 0.0
		if len(par) > 2 {
			turn = par[2] * math.Pi / 180
		}
		a.shapes = []geom.Shape{polygon(sides, float64(nm(par[0]))/2, turn, 0, 0)}
	default:
		body, ok := r.macros[name]
		if !ok {
			return fmt.Errorf("the aperture macro %s is not defined", name)
		}
		if a.shapes, err = macro(body, par, r.unit); err != nil {
			return fmt.Errorf("macro %s: %w", name, err)
		}
	}
	r.apertures[code] = a
	return nil
}

func polygon(sides int, radius, turn, cx, cy float64) geom.Shape {
	s := geom.Shape{Area: true}
	for i := range sides {
		sin, cos := math.Sincos(turn + 2*math.Pi*float64(i)/float64(sides))
		s.Pts = append(s.Pts, geom.Pt(int64(math.Round(cx+radius*cos)), int64(math.Round(cy+radius*sin))))
	}
	return s
}

func (r *reader) word(w string) error {
	if strings.HasPrefix(w, "G04") || strings.HasPrefix(w, "G4") {
		return nil
	}
	for strings.HasPrefix(w, "G") {
		n := 1
		for n < len(w) && w[n] >= '0' && w[n] <= '9' {
			n++
		}
		code, _ := strconv.Atoi(w[1:n])
		w = w[n:]
		switch code {
		case 1, 2, 3:
			r.mode = code
		case 36:
			r.inRegion, r.region = true, nil
		case 37:
			r.closeRegion()
		case 54, 55, 70, 71, 74, 75, 90:
		default:
			return fmt.Errorf("G%02d is not known", code)
		}
	}
	switch {
	case w == "":
		return nil
	case w == "M02" || w == "M00" || w == "M2":
		r.ended = true
		return nil
	case w[0] == 'D':
		code, err := strconv.Atoi(w[1:])
		if err != nil {
			return fmt.Errorf("not an aperture")
		}
		if code >= 10 {
			if _, ok := r.apertures[code]; !ok {
				return fmt.Errorf("the aperture D%d is not defined", code)
			}
			r.current = code
			return nil
		}
	}
	return r.operation(w)
}

func (r *reader) operation(w string) error {
	if r.scale == 0 {
		return fmt.Errorf("coordinates come before their format")
	}
	to, op := r.at, -1
	var i, j float64
	for k := 0; k < len(w); {
		letter := w[k]
		n := k + 1
		for n < len(w) && (w[n] >= '0' && w[n] <= '9' || w[n] == '-' || w[n] == '+') {
			n++
		}
		v, err := strconv.ParseInt(strings.TrimPrefix(w[k+1:n], "+"), 10, 64)
		if err != nil {
			return fmt.Errorf("%q is not a coordinate", w[k:n])
		}
		nm := float64(v) * r.scale
		switch letter {
		case 'X':
			to.X = int64(math.Round(nm))
		case 'Y':
			to.Y = int64(math.Round(nm))
		case 'I':
			i = nm
		case 'J':
			j = nm
		case 'D':
			op = int(v)
		default:
			return fmt.Errorf("%q is not known", letter)
		}
		k = n
	}
	from := r.at
	r.at = to
	switch op {
	case 1:
		path := []geom.Point{from, to}
		if r.mode > 1 {
			path = arc(from, to, i, j, r.mode == 3)
		}
		if r.inRegion {
			if len(r.region) == 0 {
				return fmt.Errorf("a region begins without a place")
			}
			last := len(r.region) - 1
			r.region[last] = append(r.region[last], path[1:]...)
			return nil
		}
		return r.drawLine(path)
	case 2:
		if r.inRegion {
			r.region = append(r.region, []geom.Point{to})
		}
	case 3:
		a, ok := r.apertures[r.current]
		if !ok {
			return fmt.Errorf("a flash without an aperture")
		}
		m := r.mark("flash", a.function, to)
		for _, s := range a.shapes {
			m.Shapes = append(m.Shapes, shifted(s, to))
		}
		r.art.Marks = append(r.art.Marks, m)
	default:
		return fmt.Errorf("a coordinate without an operation")
	}
	return nil
}

func shifted(s geom.Shape, by geom.Point) geom.Shape {
	out := geom.Shape{Area: s.Area, R: s.R, Pts: make([]geom.Point, len(s.Pts))}
	for i, p := range s.Pts {
		out.Pts[i] = p.Add(by)
	}
	return out
}

func (r *reader) mark(kind, function string, at geom.Point) Mark {
	m := Mark{Kind: kind, Dark: r.dark, At: at, Function: function, Net: unescape(r.objAttr[".N"]), Part: unescape(r.objAttr[".C"])}
	if part, pin, ok := strings.Cut(r.objAttr[".P"], ","); ok {
		pin, _, _ = strings.Cut(pin, ",")
		m.Part, m.Pin = unescape(part), unescape(pin)
	}
	return m
}

func (r *reader) drawLine(path []geom.Point) error {
	a, ok := r.apertures[r.current]
	if !ok {
		return fmt.Errorf("a line without an aperture")
	}
	if a.round == 0 {
		return fmt.Errorf("a line with an aperture that is not round")
	}
	m := r.mark("line", a.function, path[0])
	m.Shapes = []geom.Shape{{Pts: path, R: a.round / 2}}
	r.art.Marks = append(r.art.Marks, m)
	return nil
}

func (r *reader) closeRegion() {
	r.inRegion = false
	for _, c := range r.region {
		if len(c) > 3 {
			m := r.mark("region", r.aperAttr, c[0])
			m.Shapes = []geom.Shape{{Pts: c[:len(c)-1], Area: true}}
			r.art.Marks = append(r.art.Marks, m)
		}
	}
}

// arc follows a circle in steps of at most three degrees.
func arc(from, to geom.Point, i, j float64, anticlockwise bool) []geom.Point {
	cx, cy := float64(from.X)+i, float64(from.Y)+j
	radius := math.Hypot(i, j)
	a0, a1 := math.Atan2(float64(from.Y)-cy, float64(from.X)-cx), math.Atan2(float64(to.Y)-cy, float64(to.X)-cx)
	if anticlockwise && a1 <= a0+1e-12 {
		a1 += 2 * math.Pi
	}
	if !anticlockwise && a1 >= a0-1e-12 {
		a1 -= 2 * math.Pi
	}
	steps := max(2, int(math.Ceil(math.Abs(a1-a0)/(math.Pi/60))))
	out := []geom.Point{from}
	for k := 1; k < steps; k++ {
		s, c := math.Sincos(a0 + (a1-a0)*float64(k)/float64(steps))
		out = append(out, geom.Pt(int64(math.Round(cx+radius*c)), int64(math.Round(cy+radius*s))))
	}
	return append(out, to)
}

func unescape(s string) string {
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		if s[i] == '\\' && i+1 < len(s) {
			n := map[byte]int{'u': 4, 'U': 8}[s[i+1]]
			if n > 0 && i+2+n <= len(s) {
				if v, err := strconv.ParseUint(s[i+2:i+2+n], 16, 32); err == nil {
					b.WriteRune(rune(v))
					i += 1 + n
					continue
				}
			}
		}
		b.WriteByte(s[i])
	}
	return b.String()
}
