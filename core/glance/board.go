// Package glance draws small pictures of projects, for lists of them.
package glance

import (
	"bytes"
	"fmt"
	"strconv"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/paper"
)

// Picture is an SVG of the board, where parts stand on it, else of the first sheet; nil: nothing is
// drawn yet. of is "board", "circuit" or empty.
func Picture(d *design.Doc, n *circuit.Nets) (svg []byte, of string) {
	if len(d.Board.Outline) > 0 && stands(d) {
		return Board(d), "board"
	}
	for _, use := range n.Tree.Uses {
		if svg := paper.Extract(d, n, use); svg != nil {
			return svg, "circuit"
		}
	}
	if len(d.Board.Outline) > 0 {
		return Board(d), "board"
	}
	return nil, ""
}

// stands tells whether a part stands on the board; the others still wait beside it.
func stands(d *design.Doc) bool {
	board := geom.Closing(d.Board.Outline).Box()
	for p := range d.Placed.All() {
		if board.Holds(p.At) {
			return true
		}
	}
	return false
}

// colours of the copper layers: the first, the last, and those between.
const (
	topColour, bottomColour = "#E7B549", "#35B7A6"
	boreColour              = "#17131E"
	groundColour            = "#2A2036"
	edgeColour, silkColour  = "#F4ECDC", "#F4ECDC"
	platedColour            = "#D9906F"
)

var innerColours = []string{"#8088F5", "#E27BB1", "#93C05B", "#C98A4B", "#63B4E8", "#B79BEA"}

// Board draws a board from above: its edge, the copper from the lowest layer up, holes and silk.
func Board(d *design.Doc) []byte {
	var e geom.Extent
	e.AddRing(d.Board.Outline)
	index := layout.NewIndex(d)
	copper := make([][]*layout.Copper, d.Board.Layers())
	for c := range index.All() {
		if !e.Box.Grow(1_000_000).Meets(c.Box()) {
			continue // still beside the board
		}
		for i := range copper {
			if c.Layers&(1<<i) != 0 && !c.Bare {
				copper[i] = append(copper[i], c)
			}
		}
	}
	b := e.Box.Grow(1_500_000)
	w := &writer{foot: b.Max.Y + b.Min.Y}
	fmt.Fprintf(w, `<svg xmlns="http://www.w3.org/2000/svg" viewBox="%s %s %s %s">`+"\n", mm(b.Min.X), mm(b.Min.Y), mm(b.Max.X-b.Min.X), mm(b.Max.Y-b.Min.Y))
	var edge strings.Builder
	region := d.Board.Region()
	for _, ring := range append([]geom.Ring{region.Outer}, region.Holes...) {
		edge.WriteString(w.path(ring.Flat(flat, false)) + "Z")
	}
	fmt.Fprintf(w, `<path d="%s" fill="%s" fill-rule="evenodd" stroke="%s" stroke-width="0.3" stroke-linejoin="round"/>`+"\n", edge.String(), groundColour, edgeColour)
	shapes := 0
	for _, layer := range copper {
		shapes += len(layer)
	}
	if shapes > mostShapes {
		w.WriteString(pointed(b, copper).element() + "</svg>\n")
		return w.Bytes()
	}
	for i := len(copper) - 1; i >= 0; i-- {
		colour := colourOf(i, len(copper))
		if i == 0 || i == len(copper)-1 && !poured(d, 0) {
			w.areas(d, i, copper[i], colour, edge.String())
		}
		fmt.Fprintf(w, `<g fill="%s" stroke="%s" stroke-linecap="round" stroke-linejoin="round">`+"\n", colour, colour)
		for _, c := range copper[i] {
			w.shape(c.On(i))
		}
		w.WriteString("</g>\n")
	}
	for c := range index.All() {
		if c.Hole > 0 && c.Slot != (geom.Point{}) && e.Box.Grow(1_000_000).Holds(c.At) {
			fmt.Fprintf(w, `<path d="%s" fill="none" stroke="%s" stroke-width="%s" stroke-linecap="round"/>`+"\n", w.path(c.Bore().Pts), boreColour, mm(c.Hole))
		} else if c.Hole > 0 && e.Box.Grow(1_000_000).Holds(c.At) {
			fmt.Fprintf(w, `<circle cx="%s" cy="%s" r="%s" fill="%s" stroke="%s" stroke-width="0.1"/>`+"\n", mm(c.Drill.X), mm(w.foot-c.Drill.Y), mm(c.Hole/2), boreColour, platedColour)
		}
	}
	fmt.Fprintf(w, `<g fill="none" stroke="%s" stroke-width="0.15" stroke-linecap="round" stroke-linejoin="round">`+"\n", silkColour)
	for p := range d.Placed.All() {
		if p.Bottom || !e.Box.Holds(p.At) {
			continue
		}
		for _, line := range layout.SilkLines(d, p) {
			fmt.Fprintf(w, `<path d="%s"/>`+"\n", w.path(line))
		}
	}
	w.WriteString("</g>\n</svg>\n")
	return w.Bytes()
}

// apartShown is how far copper of other nets is drawn apart from areas, in nanometres.
const apartShown = 250_000

// poured tells whether a layer has a copper area.
func poured(d *design.Doc, layer int) bool {
	for p := range d.Pours.All() {
		if p.On(d.Board.At(layer)) {
			return true
		}
	}
	return false
}

// areas draws the copper areas of a layer in a shade of it, and keeps what lies there of other nets apart from them.
func (w *writer) areas(d *design.Doc, layer int, copper []*layout.Copper, colour, board string) {
	nets := map[design.ID]bool{}
	for p := range d.Pours.All() {
		if !p.On(d.Board.At(layer)) {
			continue
		}
		nets[p.Net] = true
		line := board
		if len(p.Outline) > 0 {
			line = w.path(geom.Closing(p.Outline).Flat(flat, false)) + "Z"
		}
		fmt.Fprintf(w, `<path d="%s" fill="%s" fill-opacity="0.4" fill-rule="evenodd"/>`+"\n", line, colour)
	}
	if len(nets) == 0 {
		return
	}
	fmt.Fprintf(w, `<g fill="%s" stroke="%s" stroke-linecap="round" stroke-linejoin="round">`+"\n", groundColour, groundColour)
	for _, c := range copper {
		if !nets[c.Net] {
			s := c.On(layer)
			s.R += apartShown
			w.shape(s)
		}
	}
	w.WriteString("</g>\n")
}

// colourOf a copper layer at a place among so many.
func colourOf(i, layers int) string {
	switch {
	case i == layers-1 && i > 0:
		return bottomColour
	case i > 0:
		return innerColours[(i-1)%len(innerColours)]
	}
	return topColour
}

// pointed draws copper and holes into points: silk could not be told from it.
func pointed(b geom.Box, copper [][]*layout.Copper) *raster {
	r := newRaster(b)
	for i := len(copper) - 1; i >= 0; i-- {
		for _, c := range copper[i] {
			r.shape(c.On(i))
		}
		r.fill(colourOf(i, len(copper)))
	}
	for _, layer := range copper {
		for _, c := range layer {
			if c.Hole > 0 {
				r.shape(c.Bore())
			}
		}
	}
	r.fill(boreColour)
	return r
}

// writer writes places in millimetres, y downwards.
type writer struct {
	bytes.Buffer
	foot int64 // sum of the least and the greatest y
}

func mm(nm int64) string { return strconv.FormatFloat(float64(nm/1000)/1000, 'f', -1, 64) }

func (w *writer) path(pts []geom.Point) string {
	var b bytes.Buffer
	for i, p := range pts {
		c := "L"
		if i == 0 {
			c = "M"
		}
		fmt.Fprintf(&b, "%s%s %s", c, mm(p.X), mm(w.foot-p.Y))
	}
	return b.String()
}

// flat is how far lines that stand for an arc may leave it in these small pictures.
const flat = 20_000

func (w *writer) shape(s geom.Shape) {
	if s.Mids != nil {
		pts := s.Edges().Flat(flat, false)
		if !s.Area {
			pts = append(pts, s.Pts[len(s.Pts)-1])
		}
		s = geom.Shape{Pts: pts, Area: s.Area, R: s.R}
	}
	switch {
	case len(s.Pts) == 1:
		fmt.Fprintf(w, `<circle cx="%s" cy="%s" r="%s" stroke="none"/>`+"\n", mm(s.Pts[0].X), mm(w.foot-s.Pts[0].Y), mm(s.R))
	case s.Area:
		fmt.Fprintf(w, `<path d="%sZ" stroke-width="%s"/>`+"\n", w.path(s.Pts), mm(2*s.R))
	default:
		fmt.Fprintf(w, `<path d="%s" fill="none" stroke-width="%s"/>`+"\n", w.path(s.Pts), mm(2*s.R))
	}
}
