package landpattern

import (
	"goldentrace/core/geom"
)

// BodyView is a drawing of a body, or of a section through a joint, with dimension lines.
type BodyView struct {
	Name    string    `json:"name"`
	Section bool      `json:"section,omitempty"`
	Strokes []Stroke  `json:"strokes"`
	Dims    []DimLine `json:"dims"`
}

// Stroke is a piece of a drawing, in the order in which they are painted.
type Stroke struct {
	Form  string       `json:"form"` // area, line or circle
	Pts   []geom.Point `json:"pts"`
	R     int64        `json:"r,omitempty"`
	Style string       `json:"style"`
}

// Styles of strokes.
const (
	styleBody   = "body"
	styleLead   = "lead"
	styleCopper = "copper"
	styleSolder = "solder"
	styleBoard  = "board"
	styleLine   = "line"
)

// DimLine is a dimension line from A to B, drawn away from them by Off. With a key it is where the dimension
// of the recipe is typed; without, it says what was measured.
type DimLine struct {
	Key   string     `json:"key,omitempty"`
	Words string     `json:"words"`
	A     geom.Point `json:"a"`
	B     geom.Point `json:"b"`
	Off   geom.Point `json:"off"`
	Text  string     `json:"text,omitempty"`
}

// Area is a rectangle of a style, for drawings made elsewhere.
func Area(style string, x0, y0, x1, y1 int64) Stroke {
	var v BodyView
	v.area(style, x0, y0, x1, y1)
	return v.Strokes[0]
}

// Disc is a circle of a style.
func Disc(style string, x, y, r int64) Stroke {
	var v BodyView
	v.circle(style, x, y, r)
	return v.Strokes[0]
}

// Measure is a dimension line between two places, drawn away from them.
func Measure(key, words string, x0, y0, x1, y1, dx, dy int64) DimLine {
	return DimLine{Key: key, Words: words, A: geom.Pt(x0, y0), B: geom.Pt(x1, y1), Off: geom.Pt(dx, dy)}
}

func (v *BodyView) area(style string, x0, y0, x1, y1 int64) {
	v.poly(style, x0, y0, x1, y0, x1, y1, x0, y1)
}

func (v *BodyView) poly(style string, xy ...int64) {
	s := Stroke{Form: "area", Style: style}
	for i := 0; i+1 < len(xy); i += 2 {
		s.Pts = append(s.Pts, geom.Pt(xy[i], xy[i+1]))
	}
	v.Strokes = append(v.Strokes, s)
}

func (v *BodyView) line(style string, xy ...int64) {
	v.poly(style, xy...)
	v.Strokes[len(v.Strokes)-1].Form = "line"
}

func (v *BodyView) circle(style string, x, y, r int64) {
	v.Strokes = append(v.Strokes, Stroke{Form: "circle", Pts: []geom.Point{geom.Pt(x, y)}, R: r, Style: style})
}

// wide is a dimension along x, its line above (up more than nothing) or below.
func (v *BodyView) wide(m *maker, key string, x0, x1, y, off int64) {
	v.dim(m, key, geom.Pt(x0, y), geom.Pt(x1, y), geom.Pt(0, off))
}

// tall is a dimension along y, its line to the right (off more than nothing) or to the left.
func (v *BodyView) tall(m *maker, key string, x, y0, y1, off int64) {
	v.dim(m, key, geom.Pt(x, y0), geom.Pt(x, y1), geom.Pt(off, 0))
}

func (v *BodyView) dim(m *maker, key string, a, b, off geom.Point) {
	for _, d := range m.family.Dims {
		if d.Key == key {
			v.Dims = append(v.Dims, DimLine{Key: key, Words: d.Words, A: a, B: b, Off: off})
		}
	}
}

// views are the body's drawings and the joints' sections.
func (m *maker) views() []BodyView {
	out := append(m.family.views(m), m.sections...)
	for i := range out {
		if out[i].Strokes == nil {
			out[i].Strokes = []Stroke{}
		}
		if out[i].Dims == nil {
			out[i].Dims = []DimLine{}
		}
	}
	return out
}
