// Package gerber writes artwork in the published Gerber layer format with X2 attributes:
// millimetres with six decimals, so that every nanometre stands in the file as it is.
package gerber

import (
	"bytes"
	"fmt"
	"strings"

	"goldentrace/core/geom"
)

// Plot is one file being drawn.
type Plot struct {
	out       bytes.Buffer // the drawing
	apertures []string     // definitions in order
	codes     map[string]int
	macros    []string
	macroName map[string]string
	current   int
	clear     bool
	way       int               // 1 straight, 2 clockwise, 3 anticlockwise
	bent      bool              // arcs were begun
	regional  bool              // a region's function is in force
	attrs     map[string]string // object attributes in force
	file      []string
}

// NewPlot begins a file with its function, as "Copper,L1,Top".
func NewPlot(function, polarity string, file ...string) *Plot {
	p := &Plot{way: 1, codes: map[string]int{}, macroName: map[string]string{}, attrs: map[string]string{}}
	p.file = append([]string{"TF.FileFunction," + function}, file...)
	if polarity != "" {
		p.file = append(p.file, "TF.FilePolarity,"+polarity)
	}
	return p
}

// Escape makes a text fit for an attribute's field.
func Escape(s string) string {
	var b strings.Builder
	for _, r := range s {
		switch {
		case r == '%' || r == '*' || r == ',' || r == '\\' || r < ' ' || r > 126 && r <= 0xffff:
			fmt.Fprintf(&b, `\u%04X`, r)
		case r > 0xffff:
			fmt.Fprintf(&b, `\U%08X`, r)
		default:
			b.WriteRune(r)
		}
	}
	return b.String()
}

// Object sets the attributes of what is drawn next: name without the dot, and fields.
// Attributes not given are taken off.
func (p *Plot) Object(attrs map[string]string) {
	drop := false
	for k := range p.attrs {
		if _, ok := attrs[k]; !ok {
			drop = true
		}
	}
	if drop {
		p.out.WriteString("%TD*%\n")
		p.attrs = map[string]string{}
	}
	for _, k := range []string{"P", "N", "C"} {
		v, ok := attrs[k]
		if ok && p.attrs[k] != v {
			fmt.Fprintf(&p.out, "%%TO.%s,%s*%%\n", k, v)
			p.attrs[k] = v
		}
	}
}

// Polarity makes what follows dark, or clears what is beneath it.
func (p *Plot) Polarity(dark bool) {
	if p.clear == !dark {
		return
	}
	p.clear = !dark
	if dark {
		p.out.WriteString("%LPD*%\n")
	} else {
		p.out.WriteString("%LPC*%\n")
	}
}

func (p *Plot) use(function, def string) {
	key := function + "\x00" + def
	code, ok := p.codes[key]
	if !ok {
		code = 10 + len(p.apertures)
		p.codes[key] = code
		text := ""
		if function != "" {
			text = "%TA.AperFunction," + function + "*%\n"
		}
		text += fmt.Sprintf("%%ADD%d%s*%%\n", code, def)
		if function != "" {
			text += "%TD.AperFunction*%\n"
		}
		p.apertures = append(p.apertures, text)
	}
	if p.current != code {
		p.current = code
		fmt.Fprintf(&p.out, "D%d*\n", code)
	}
}

// mm writes nanometres as millimetres.
func mm(nm int64) string {
	sign := ""
	if nm < 0 {
		sign, nm = "-", -nm
	}
	return fmt.Sprintf("%s%d.%06d", sign, nm/1_000_000, nm%1_000_000)
}

func at(p geom.Point) string { return fmt.Sprintf("X%dY%d", p.X, p.Y) }

// Flash puts a shape down as one flash at its middle.
func (p *Plot) Flash(function string, s geom.Shape, middle geom.Point) {
	p.use(function, p.aperture(s, middle))
	fmt.Fprintf(&p.out, "%sD03*\n", at(middle))
}

// aperture is the standard aperture of the shape where there is one, else a macro.
func (p *Plot) aperture(s geom.Shape, middle geom.Point) string {
	box := geom.BoxOf(s.Pts...)
	w, h := box.Max.X-box.Min.X, box.Max.Y-box.Min.Y
	centred := box.Centre() == middle
	switch {
	case len(s.Pts) == 1 && centred:
		return "C," + mm(2*s.R)
	case len(s.Pts) == 2 && centred && (w == 0 || h == 0):
		return "O," + mm(w+2*s.R) + "X" + mm(h+2*s.R)
	case s.Area && s.R == 0 && centred && len(s.Pts) == 4 && geom.Area(s.Pts) != 0 && boxy(s.Pts):
		return "R," + mm(w) + "X" + mm(h)
	}
	return p.macro(s, middle)
}

func boxy(pts []geom.Point) bool {
	for i, a := range pts {
		b := pts[(i+1)%len(pts)]
		if a.X != b.X && a.Y != b.Y {
			return false
		}
	}
	return true
}

// macro composes the shape of an outline, and with a radius of lines and discs around it.
func (p *Plot) macro(s geom.Shape, middle geom.Point) string {
	var b strings.Builder
	rel := func(q geom.Point) string { d := q.Sub(middle); return mm(d.X) + "," + mm(d.Y) }
	if s.Area {
		fmt.Fprintf(&b, "4,1,%d,", len(s.Pts))
		for _, q := range s.Pts {
			b.WriteString(rel(q) + ",")
		}
		b.WriteString(rel(s.Pts[0]) + ",0*\n")
	}
	if s.R > 0 {
		n := len(s.Pts)
		for i, q := range s.Pts {
			fmt.Fprintf(&b, "1,1,%s,%s*\n", mm(2*s.R), rel(q))
			if s.Area || i+1 < n {
				fmt.Fprintf(&b, "20,1,%s,%s,%s,0*\n", mm(2*s.R), rel(q), rel(s.Pts[(i+1)%n]))
			}
		}
	}
	body := b.String()
	name, ok := p.macroName[body]
	if !ok {
		name = fmt.Sprintf("SHAPE%d", len(p.macros)+1)
		p.macroName[body] = name
		p.macros = append(p.macros, fmt.Sprintf("%%AM%s*\n%s%%\n", name, body))
	}
	return name
}

// Put puts a shape down: as one flash at its middle, or, when it has arcs, as a region.
func (p *Plot) Put(function string, s geom.Shape, middle geom.Point) {
	if s.Mids == nil {
		p.Flash(function, s, middle)
		return
	}
	p.Draw(function, s)
}

// Draw puts a shape down as it is drawn: an area as a region, a line by a round pen, a dot as one flash.
func (p *Plot) Draw(function string, s geom.Shape) {
	switch {
	case s.Area:
		p.aperFunction(function)
		p.Region(s.Edges())
		p.aperFunction("")
		if s.R > 0 { // as much around it
			p.Pieces(function, 2*s.R, s.Edges())
		}
	case len(s.Pts) == 1:
		p.Flash(function, s, s.Pts[0])
	default:
		p.Pieces(function, 2*s.R, s.Edges())
	}
}

// aperFunction gives regions the function that apertures have.
func (p *Plot) aperFunction(function string) {
	if function == "" {
		if p.regional {
			p.out.WriteString("%TD.AperFunction*%\n")
			p.regional = false
		}
		return
	}
	fmt.Fprintf(&p.out, "%%TA.AperFunction,%s*%%\n", function)
	p.regional = true
}

// Line draws a line of round ends through the points.
func (p *Plot) Line(function string, width int64, pts ...geom.Point) {
	p.use(function, "C,"+mm(width))
	fmt.Fprintf(&p.out, "%sD02*\n", at(pts[0]))
	for _, q := range pts[1:] {
		p.to(geom.Straight(pts[0], q))
	}
}

// Pieces draws a line of round ends along pieces, each of which begins where the one before it ends.
func (p *Plot) Pieces(function string, width int64, pieces geom.Ring) {
	p.use(function, "C,"+mm(width))
	fmt.Fprintf(&p.out, "%sD02*\n", at(pieces[0].A))
	for _, q := range pieces {
		p.to(q)
	}
}

// to goes on along a piece: straight (G01), clockwise (G02) or anticlockwise (G03). The middle of an
// arc is given from its beginning; both radii differ by less than the nanometre that is written.
func (p *Plot) to(q geom.Piece) {
	if !q.Round() {
		p.mode(1)
		fmt.Fprintf(&p.out, "%sD01*\n", at(q.B))
		return
	}
	c, anticlockwise := q.Centre()
	if anticlockwise {
		p.mode(3)
	} else {
		p.mode(2)
	}
	fmt.Fprintf(&p.out, "%sI%dJ%dD01*\n", at(q.B), c.X-q.A.X, c.Y-q.A.Y)
}

func (p *Plot) mode(g int) {
	if p.way == g {
		return
	}
	if g > 1 && !p.bent {
		p.bent = true
		p.out.WriteString("G75*\n")
	}
	p.way = g
	fmt.Fprintf(&p.out, "G%02d*\n", g)
}

// Region fills a closed line.
func (p *Plot) Region(ring geom.Ring) {
	fmt.Fprintf(&p.out, "G36*\n%sD02*\n", at(ring[0].A))
	for _, q := range ring {
		p.to(q)
	}
	p.out.WriteString("G37*\n")
}

// Bytes is the whole file.
func (p *Plot) Bytes() []byte {
	var b bytes.Buffer
	b.WriteString("G04 Written by Golden Trace*\n")
	for _, a := range p.file {
		fmt.Fprintf(&b, "%%%s*%%\n", a)
	}
	b.WriteString("%FSLAX46Y46*%\n%MOMM*%\n")
	for _, m := range p.macros {
		b.WriteString(strings.ReplaceAll(m, "*\n%\n", "*%\n"))
	}
	for _, a := range p.apertures {
		b.WriteString(a)
	}
	b.WriteString("G01*\n%LPD*%\n")
	b.Write(p.out.Bytes())
	b.WriteString("M02*\n")
	return b.Bytes()
}
