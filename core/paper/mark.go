// Package paper draws the sheets of a circuit: every object becomes marks, which a browser's
// canvas, an SVG file and a PDF show alike. Places and lengths are nanometres, x right and
// y up. Shapes of symbols follow IEC 60617, frames ISO 5457.
package paper

import (
	"unicode/utf8"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Mark is one stroke, area, text or picture. Colours are names that the medium gives a
// colour: ink, body, wire, bundle, label, port, supply, frame, quiet, open, paper, link, and
// tint-… and line-… for each of design.Tints.
type Mark struct {
	Pts    []int64   `json:"p,omitempty"` // x, y by turns; of a text its place, of a picture two corners
	Closed bool      `json:"c,omitempty"`
	R      int64     `json:"r,omitempty"` // a circle around the first point
	Stroke string    `json:"s,omitempty"`
	Fill   string    `json:"f,omitempty"`
	Width  int64     `json:"w,omitempty"`
	Dash   bool      `json:"d,omitempty"`
	Text   string    `json:"t,omitempty"`
	Size   int64     `json:"z,omitempty"` // of the text's em
	Align  int       `json:"a,omitempty"` // -1: begins at its place, 0: centred, 1: ends there
	Up     bool      `json:"u,omitempty"` // reads from below upwards
	Words  bool      `json:"m,omitempty"` // in the type for words, else in that for figures and names
	Bold   bool      `json:"b,omitempty"`
	Field  string    `json:"k,omitempty"` // what can be edited there: designator or value of a part, name of a block
	Asset  design.ID `json:"i,omitempty"`
}

const mm = units.MM

// perMM turns nanometres into millimetres.
const perMM = float64(units.MM)

func milli(f float64) int64 { return units.MMf(f) }

func flat(pts ...geom.Point) []int64 {
	out := make([]int64, 0, 2*len(pts))
	for _, p := range pts {
		out = append(out, p.X, p.Y)
	}
	return out
}

func line(ink string, width int64, pts ...geom.Point) Mark {
	return Mark{Pts: flat(pts...), Stroke: ink, Width: width}
}

func area(fill, ink string, width int64, pts ...geom.Point) Mark {
	return Mark{Pts: flat(pts...), Closed: true, Fill: fill, Stroke: ink, Width: width}
}

func box(fill, ink string, width int64, b geom.Box) Mark {
	return area(fill, ink, width, b.Min, geom.Pt(b.Max.X, b.Min.Y), b.Max, geom.Pt(b.Min.X, b.Max.Y))
}

func text(s, ink string, size int64, at geom.Point, align int) Mark {
	return Mark{Pts: flat(at), Text: s, Fill: ink, Size: size, Align: align}
}

// nameSize is the height of designators, values and names of nets.
const nameSize = 3_100_000

// letters is the width of a text in the type for figures and names, whose letters are all
// 0.6 em wide; a little more is reckoned.
func letters(s string, size int64) int64 { return int64(utf8.RuneCountInString(s)) * size * 62 / 100 }

// ways are the directions of quarter turns.
var ways = []geom.Point{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}

// local turns places given in millimetres about the origin and moves them to at.
func local(at geom.Point, turn int, xy ...float64) []geom.Point {
	out := make([]geom.Point, 0, len(xy)/2)
	for i := 0; i+1 < len(xy); i += 2 {
		out = append(out, geom.Turn(geom.Pt(milli(xy[i]), milli(xy[i+1])), int32(turn)*90_000).Add(at))
	}
	return out
}

// Marks draws one object of a sheet, in the use of the sheet with the path.
func Marks(d *design.Doc, o design.Object, path string) []Mark {
	switch o := o.(type) {
	case *design.Part:
		return part(d, o, path)
	case *design.Wire:
		return wire(o)
	case *design.Label:
		return label(o)
	case *design.Port:
		return port(o)
	case *design.Tap:
		return tap(o)
	case *design.Supply:
		return supply(o)
	case *design.OpenMark:
		r := milli(1.1)
		return []Mark{line("open", milli(0.35), o.At.Sub(geom.Pt(r, r)), o.At.Add(geom.Pt(r, r))),
			line("open", milli(0.35), o.At.Add(geom.Pt(-r, r)), o.At.Add(geom.Pt(r, -r)))}
	case *design.SheetBlock:
		return block(d, o)
	case *design.Cluster:
		return cluster(o)
	case *design.Note:
		return note(o)
	case *design.Picture:
		return []Mark{{Pts: flat(o.At, o.At.Add(o.Size)), Asset: o.Asset}}
	case *design.Timing:
		return timingMarks(o)
	case *design.Graphic:
		return shape(o)
	}
	return nil
}

// Layers are the kinds of objects in the order in which they are painted.
var Layers = []design.Kind{design.KindSheet, design.KindCluster, design.KindPicture, design.KindShape, design.KindNote, design.KindTiming, design.KindBlock,
	design.KindPart, design.KindWire, design.KindTap, design.KindLabel, design.KindPort, design.KindSupply, design.KindOpenMark}

// Box around marks; texts are reckoned by their letters.
func Box(marks []Mark) geom.Box {
	var b geom.Box
	first := true
	with := func(p geom.Point) {
		if first {
			b, first = geom.Box{Min: p, Max: p}, false
		}
		b = b.With(p)
	}
	for _, m := range marks {
		for i := 0; i+1 < len(m.Pts); i += 2 {
			p := geom.Pt(m.Pts[i], m.Pts[i+1])
			grow := m.R + m.Width/2
			with(p.Sub(geom.Pt(grow, grow)))
			with(p.Add(geom.Pt(grow, grow)))
		}
		if m.Text != "" {
			for _, p := range textBox(m) {
				with(p)
			}
		}
	}
	return b
}

func textBox(m Mark) [2]geom.Point {
	w := TextWidth(m)
	left := -w / 2
	switch m.Align {
	case -1:
		left = 0
	case 1:
		left = -w
	}
	at := geom.Pt(m.Pts[0], m.Pts[1])
	a, b := geom.Pt(left, -m.Size*55/100), geom.Pt(left+w, m.Size*55/100)
	if m.Up {
		a, b = geom.Pt(-m.Size*55/100, left), geom.Pt(m.Size*55/100, left+w)
	}
	return [2]geom.Point{at.Add(a), at.Add(b)}
}
