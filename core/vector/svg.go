// Package vector reads drawings (SVG 1.1) as what they fill: areas in nanometres, curves as chords, lines as
// what their pen covers. Colours say only whether something is put down or, when it is white, taken away from
// what lies beneath.
package vector

import (
	"bytes"
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"math"
	"slices"
	"strconv"
	"strings"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
)

// Bounds of a drawing: its bytes, and how often white and dark take turns, each of which goes over all that lies beneath.
const (
	Largest   = 2 << 20
	mostTurns = 1_000
)

const mostDepth = 100

// Drawing is what was read.
type Drawing struct {
	Areas   []overlay.Area // its middle at the origin, y upwards
	Size    geom.Point     // of what is drawn
	LeftOut []string       // kinds of what could not be taken, as text
}

// SVG reads a drawing and makes what is drawn of it so wide. It refuses with a sentence what is no SVG, or draws
// nothing that can be filled. Putting many shapes together takes a while, and stops when the context ends.
func SVG(ctx context.Context, data []byte, width int64) (*Drawing, error) {
	if len(data) > Largest {
		return nil, fmt.Errorf("the drawing has %d MB; %d MB is the most", len(data)>>20, Largest>>20)
	}
	r := &reader{fine: math.Inf(1), left: map[string]bool{}}
	if err := r.read(data); err != nil {
		return nil, err
	}
	lo, hi := r.extent()
	if size := max(hi[0]-lo[0], hi[1]-lo[1]); size > 0 { // again, now that its size is known
		r = &reader{fine: size / 50_000, left: map[string]bool{}}
		if err := r.read(data); err != nil {
			return nil, err
		}
		lo, hi = r.extent()
	}
	if !(hi[0]-lo[0] > 0) && !(hi[1]-lo[1] > 0) {
		if len(r.left) > 0 {
			return nil, fmt.Errorf("it draws nothing that can be taken: %s cannot", strings.Join(r.leftOut(), ", "))
		}
		return nil, errors.New("it draws nothing")
	}
	wide := max(hi[0]-lo[0], (hi[1]-lo[1])/1000)
	return r.drawn(ctx, lo, hi, float64(width)/wide)
}

// painted is one thing that was put down.
type painted struct {
	runs  []run
	by    overlay.Filling
	pen   float64 // width of its lines; 0: it is filled
	white bool
}

type reader struct {
	fine float64 // how far chords may stray, in units of the drawing
	list []painted
	left map[string]bool
	full int
}

// look is how something is painted, as its elements pass it on.
type look struct {
	fill, stroke string
	width        float64
	rule         overlay.Filling
	hidden       bool
	t            matrix
}

func (r *reader) leftOut() (out []string) {
	for k := range r.left {
		out = append(out, k)
	}
	slices.Sort(out)
	return out
}

func (r *reader) read(data []byte) error {
	in := xml.NewDecoder(bytes.NewReader(data))
	in.Entity = map[string]string{} // no entities of one's own
	in.CharsetReader = func(_ string, r io.Reader) (io.Reader, error) { return r, nil }
	stack := []look{{fill: "black", stroke: "none", width: 1, t: matrix{1, 0, 0, 1, 0, 0}}}
	skip := 0
	seen := false
	for {
		t, err := in.Token()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return fmt.Errorf("it is not well-formed SVG (%w)", err)
		}
		switch t := t.(type) {
		case xml.StartElement:
			if !seen && t.Name.Local != "svg" {
				return fmt.Errorf("it is not SVG, its first element is %s", t.Name.Local)
			}
			seen = true
			if len(stack)+skip > mostDepth {
				return fmt.Errorf("its elements are nested more than %d deep", mostDepth)
			}
			if skip > 0 || r.passes(t.Name.Local) {
				skip++
				continue
			}
			l := stack[len(stack)-1].under(t)
			stack = append(stack, l)
			if err := r.element(t, l); err != nil {
				return err
			}
		case xml.EndElement:
			if skip > 0 {
				skip--
			} else {
				stack = stack[:len(stack)-1]
			}
		}
	}
	if !seen {
		return errors.New("it is not SVG")
	}
	return nil
}

// passes tells whether an element is left out with all that is in it, and notes what people would miss.
func (r *reader) passes(name string) bool {
	switch name {
	case "svg", "g", "a", "switch", "path", "rect", "circle", "ellipse", "line", "polyline", "polygon":
		return false
	case "text", "image", "use":
		r.left[map[string]string{"text": "text that was not made into outlines", "image": "pictures", "use": "repeated pieces"}[name]] = true
	}
	return true
}

// under is the look of an element within another.
func (l look) under(t xml.StartElement) look {
	say := func(name, v string) {
		v = strings.TrimSpace(v)
		if v == "inherit" {
			return
		}
		switch name {
		case "fill":
			l.fill = v
		case "stroke":
			l.stroke = v
		case "stroke-width":
			l.width = number(v)
		case "fill-rule":
			l.rule = overlay.NonZero
			if v == "evenodd" {
				l.rule = overlay.EvenOdd
			}
		case "display":
			l.hidden = l.hidden || v == "none"
		case "visibility":
			l.hidden = l.hidden || v == "hidden"
		}
	}
	style := ""
	for _, a := range t.Attr {
		switch a.Name.Local {
		case "style":
			style = a.Value
		case "transform":
			l.t = l.t.times(transform(a.Value))
		default:
			say(a.Name.Local, a.Value)
		}
	}
	for d := range strings.SplitSeq(style, ";") { // it counts more than attributes
		if name, v, ok := strings.Cut(d, ":"); ok {
			say(strings.TrimSpace(name), v)
		}
	}
	return l
}

func number(s string) float64 {
	s = strings.TrimSpace(s)
	end := 0
	for end < len(s) && strings.ContainsRune("0123456789.+-eE", rune(s[end])) {
		end++
	}
	for ; end > 0; end-- { // "1em" is 1
		if v, err := strconv.ParseFloat(s[:end], 64); err == nil && math.Abs(v) <= 1e9 {
			return v
		}
	}
	return 0
}

func (r *reader) element(t xml.StartElement, l look) error {
	get := func(name string) float64 {
		for _, a := range t.Attr {
			if a.Name.Local == name {
				return number(a.Value)
			}
		}
		return 0
	}
	str := func(name string) string {
		for _, a := range t.Attr {
			if a.Name.Local == name {
				return a.Value
			}
		}
		return ""
	}
	var runs []run
	fine := r.fine / max(l.t.scale(), 1e-9)
	switch t.Name.Local {
	case "path":
		var err error
		if runs, err = readPath(str("d"), fine); err != nil {
			return err
		}
	case "rect":
		rx, ry := get("rx"), get("ry") // of one that is not said the other holds; 0 of either rounds nothing
		if str("rx") == "" {
			rx = ry
		}
		if str("ry") == "" {
			ry = rx
		}
		runs = rectangle(get("x"), get("y"), get("width"), get("height"), rx, ry, fine)
	case "circle":
		if q := get("r"); q > 0 {
			runs = []run{{ellipse(get("cx"), get("cy"), q, q, 0, 1, 0, 2*math.Pi, fine), true}}
		}
	case "ellipse":
		if rx, ry := get("rx"), get("ry"); rx > 0 && ry > 0 {
			runs = []run{{ellipse(get("cx"), get("cy"), rx, ry, 0, 1, 0, 2*math.Pi, fine), true}}
		}
	case "line":
		runs = []run{{[]spot{{get("x1"), get("y1")}, {get("x2"), get("y2")}}, false}}
	case "polyline", "polygon":
		p, err := readPath("M"+str("points"), fine)
		if err != nil {
			return err
		}
		for i := range p {
			p[i].closed = t.Name.Local == "polygon"
		}
		runs = p
	}
	return r.paint(runs, l)
}

func rectangle(x, y, w, h, rx, ry, fine float64) []run {
	if w <= 0 || h <= 0 {
		return nil
	}
	rx, ry = min(max(rx, 0), w/2), min(max(ry, 0), h/2)
	if rx == 0 || ry == 0 {
		return []run{{[]spot{{x, y}, {x + w, y}, {x + w, y + h}, {x, y + h}}, true}}
	}
	var out []spot
	for i, c := range []spot{{x + w - rx, y + h - ry}, {x + rx, y + h - ry}, {x + rx, y + ry}, {x + w - rx, y + ry}} {
		out = append(out, ellipse(c[0], c[1], rx, ry, 0, 1, float64(i)*math.Pi/2, math.Pi/2, fine)...)
	}
	return []run{{out, true}}
}

// paint puts lines down as their look says: filled, then along them.
func (r *reader) paint(runs []run, l look) error {
	if l.hidden || len(runs) == 0 {
		return nil
	}
	moved := make([]run, len(runs))
	for i, q := range runs {
		moved[i] = run{make([]spot, len(q.pts)), q.closed}
		for k, p := range q.pts {
			moved[i].pts[k] = l.t.at(p)
		}
		if r.full += len(q.pts); r.full > mostPlaces {
			return fmt.Errorf("it has more than %d places", mostPlaces)
		}
	}
	if l.fill != "none" && l.fill != "transparent" {
		r.list = append(r.list, painted{runs: moved, by: l.rule, white: white(l.fill)})
	}
	if pen := l.width * l.t.scale(); l.stroke != "none" && l.stroke != "transparent" && pen > 0 {
		r.list = append(r.list, painted{runs: moved, pen: pen, white: white(l.stroke)})
	}
	return nil
}

// white tells whether a colour is white.
func white(c string) bool {
	c = strings.ToLower(strings.ReplaceAll(c, " ", ""))
	return slices.Contains([]string{"white", "#fff", "#ffffff", "rgb(255,255,255)", "rgb(100%,100%,100%)"}, c)
}

// extent of all that is put down.
func (r *reader) extent() (lo, hi spot) {
	lo, hi = spot{math.Inf(1), math.Inf(1)}, spot{math.Inf(-1), math.Inf(-1)}
	for _, p := range r.list {
		if p.white {
			continue
		}
		for _, q := range p.runs {
			for _, at := range q.pts {
				for k := range 2 {
					lo[k], hi[k] = min(lo[k], at[k]-p.pen/2), max(hi[k], at[k]+p.pen/2)
				}
			}
		}
	}
	return lo, hi
}

// drawn makes areas of it all, a nanometre being a unit over scale.
func (r *reader) drawn(ctx context.Context, lo, hi spot, scale float64) (*Drawing, error) {
	if !(scale > 0) || (hi[1]-lo[1])*scale > 1e9 {
		return nil, errors.New("it is far higher than wide, so that it would be more than a metre high")
	}
	mid := spot{(lo[0] + hi[0]) / 2, (lo[1] + hi[1]) / 2}
	out := &Drawing{LeftOut: r.leftOut(), Size: geom.Pt(int64(math.Round((hi[0]-lo[0])*scale)), int64(math.Round((hi[1]-lo[1])*scale)))}
	var laid [][]overlay.Area // of the colour in hand, to be laid over what there is
	white, turns := false, 0
	lay := func() (err error) {
		var all []overlay.Area
		if all, err = overlay.All(ctx, laid); err != nil || len(all) == 0 {
			return err
		}
		if laid = nil; white {
			out.Areas, err = overlay.Without(out.Areas, all)
		} else {
			out.Areas, err = overlay.Joined(out.Areas, all)
		}
		return err
	}
	for _, p := range r.list {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		if p.white != white {
			if turns++; turns > mostTurns {
				return nil, fmt.Errorf("it paints white over dark and dark over white more than %d times; make it simpler", mostTurns)
			}
			if err := lay(); err != nil {
				return nil, err
			}
			white = p.white
		}
		var lines [][]geom.Point
		var pens []overlay.Line
		for _, q := range p.runs {
			l := make([]geom.Point, len(q.pts))
			for i, at := range q.pts {
				l[i] = geom.Pt(int64(math.Round((at[0]-mid[0])*scale)), int64(math.Round((mid[1]-at[1])*scale)))
			}
			lines = append(lines, l)
			pens = append(pens, overlay.Line{Pts: l, Closed: q.closed})
		}
		var areas []overlay.Area
		var err error
		if p.pen > 0 {
			areas, err = overlay.Covered(pens, int64(math.Round(p.pen*scale)), 2_000)
		} else {
			areas, err = overlay.Filled(lines, p.by)
		}
		if err != nil {
			return nil, err
		}
		laid = append(laid, areas)
	}
	if err := lay(); err != nil {
		return nil, err
	}
	if len(out.Areas) == 0 {
		return nil, errors.New("it draws nothing that can be seen")
	}
	return out, nil
}
