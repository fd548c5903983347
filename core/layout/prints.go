package layout

import (
	"cmp"
	"sync"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/lettering"
	"goldentrace/core/overlay"
	"goldentrace/core/typeface"
)

// Print is what a text or a figure of the board consists of: lines of a width and filled areas.
type Print struct {
	Lines []Printed
	Areas []geom.Shape
}

// Shapes of all of it.
func (p Print) Shapes() []geom.Shape {
	out := append([]geom.Shape{}, p.Areas...)
	for _, l := range p.Lines {
		out = append(out, l.Shape())
	}
	return out
}

// Shape is the area that a round pen covers along the line.
func (l Printed) Shape() geom.Shape {
	s := geom.Shape{R: l.Width / 2}
	bent := false
	for _, p := range l.Line {
		bent = bent || p.Round()
	}
	for _, p := range l.Line {
		s.Pts = append(s.Pts, p.A)
		if bent {
			s.Mids = append(s.Mids, p.M)
		}
	}
	last := l.Line[len(l.Line)-1].B
	if len(l.Line) == 1 && l.Line[0].A == last {
		return geom.Disc(last, s.R)
	}
	s.Pts = append(s.Pts, last)
	if bent {
		s.Mids = append(s.Mids, last)
		for i, p := range l.Line {
			if !p.Round() {
				s.Mids[i] = p.A
			}
		}
	}
	return s
}

// PrintOf is what a text or figure of the board consists of; silk is the width that the rules ask for of
// printed lines. Anything else has none.
func PrintOf(d *design.Doc, o design.Object, silk int64) Print {
	switch o := o.(type) {
	case *design.Legend:
		return legendPrint(d, o, silk)
	case *design.BoardFigure:
		return figurePrint(o)
	}
	return Print{}
}

func legendPrint(d *design.Doc, l *design.Legend, silk int64) (out Print) {
	if l.Font == design.Strokes {
		width := cmp.Or(l.Stroke, l.Height/8)
		if l.On == design.OnSilk {
			width = max(width, silk)
		}
		for _, line := range TextLines(l.Text, l.Height, l.At, l.Angle, l.Bottom) {
			out.Lines = append(out.Lines, Printed{straight(line), width, false})
		}
		return out
	}
	t := TextPose(l.At, l.Angle, l.Bottom)
	for _, a := range textAreas(d.Asset, l) {
		out.Areas = append(out.Areas, geom.Shape{Pts: t.ApplyAll(a.One()), Area: true})
	}
	return out
}

// TextRings are the outlines of a text in an outline font around its middle, filled where an odd number of
// them surround; of our own alphabet none. asset finds the files of the project.
func TextRings(asset func(design.ID) *design.Asset, l *design.Legend) [][]geom.Point {
	if l.Font == design.Strokes {
		return nil
	}
	return overlay.Rings(textAreas(asset, l))
}

// Lettered is a text of the board in an outline font as it is drawn around its middle.
type Lettered struct {
	ID    design.ID      `json:"id"`
	Rings [][]geom.Point `json:"rings"` // filled where an odd number surround
}

// asSet is what a text that was set looks like.
type asSet struct {
	face   *typeface.Face
	height int64
	text   string
}

// set remembers texts that were set.
var set = struct {
	sync.Mutex
	texts map[asSet][]overlay.Area
}{texts: map[asSet][]overlay.Area{}}

// mostSet bounds the texts that are remembered.
const mostSet = 2_000

func textAreas(asset func(design.ID) *design.Asset, l *design.Legend) []overlay.Area {
	faces := facesOf(asset, l.Font, l.Face)
	if len(faces) == 0 {
		return nil
	}
	key := asSet{faces[0], l.Height, l.Text}
	set.Lock()
	defer set.Unlock()
	if known, ok := set.texts[key]; ok {
		return known
	}
	areas, err := lettering.Outlines(l.Text, faces, l.Height)
	if err != nil {
		return nil
	}
	if len(set.texts) >= mostSet {
		clear(set.texts)
	}
	set.texts[key] = areas
	return areas
}

// own remembers the fonts of projects, by their bytes.
var own = struct {
	sync.Mutex
	faces map[*byte]*typeface.Face
}{faces: map[*byte]*typeface.Face{}}

// facesOf are the fonts in which letters of a text are looked for, the first best. A font of the project that
// cannot be read is left out.
func facesOf(asset func(design.ID) *design.Asset, font string, face design.ID) []*typeface.Face {
	all := typeface.Shipped()
	switch font {
	case design.Words:
		return append([]*typeface.Face{all[0]}, all[2:]...)
	case design.Bold:
		return append([]*typeface.Face{all[1]}, all[2:]...)
	case design.Mono:
		return all[2:]
	case design.Own:
		if f := ownFace(asset(face)); f != nil {
			return append([]*typeface.Face{f}, all[2:]...)
		}
		return facesOf(asset, design.Words, 0)
	}
	return nil
}

func ownFace(a *design.Asset) *typeface.Face {
	if a == nil || a.Type != design.FontAsset || len(a.Data) == 0 {
		return nil
	}
	own.Lock()
	defer own.Unlock()
	if f, ok := own.faces[&a.Data[0]]; ok {
		return f
	}
	f, err := typeface.Read(a.Name, a.Data)
	if err != nil {
		return nil
	}
	if len(own.faces) > 50 {
		clear(own.faces)
	}
	own.faces[&a.Data[0]] = f
	return f
}

func figurePrint(f *design.BoardFigure) (out Print) {
	if f.Filled {
		out.Areas = figureAreas(f)
	}
	if f.Width == 0 {
		return out
	}
	for _, l := range f.Lines {
		var ring geom.Ring
		switch {
		case len(l) == 1:
			ring = geom.Ring{geom.Straight(l[0].Point, l[0].Point)}
		case f.Closed:
			ring = geom.Closing(l)
		default:
			ring = geom.Closing(l)[:len(l)-1]
		}
		out.Lines = append(out.Lines, Printed{ring, f.Width, false})
	}
	return out
}

// figureAreas are the areas that a filled figure consists of: a line alone that crosses itself nowhere bounds
// one, with its arcs as they are; of several or crossing ones arcs become chords that stray by less than a micrometre.
func figureAreas(f *design.BoardFigure) (out []geom.Shape) {
	if len(f.Lines) == 1 {
		if _, bad := geom.Crossing(geom.Closing(f.Lines[0])); !bad {
			return []geom.Shape{geom.Within(f.Lines[0])}
		}
	}
	var lines [][]geom.Point
	for _, l := range f.Lines {
		lines = append(lines, geom.Closing(l).Flat(chord, false))
	}
	areas, err := overlay.Filled(lines, overlay.EvenOdd)
	if err != nil {
		return nil
	}
	for _, a := range areas {
		out = append(out, geom.Shape{Pts: a.One(), Area: true})
	}
	return out
}

// chord is how far chords may stray from arcs, in nanometres.
const chord = 1_000
