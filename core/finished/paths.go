package finished

import (
	"cmp"
	"context"
	"fmt"
	"maps"
	"slices"
	"strconv"

	"goldentrace/core/geom"
	"goldentrace/core/overlay"
)

// Painted is a view as paths (SVG 1.1, 8.3), which a browser paints as they are. Lengths are micrometres, y goes up, and a view from below
// is not mirrored.
type Painted struct {
	Bottom bool          `json:"bottom,omitempty"`
	Box    geom.Box      `json:"box"` // nanometres
	Coats  []PaintedCoat `json:"coats"`
}

// PaintedCoat is a coat: it is painted within others where there are any, and not where what is left out is.
type PaintedCoat struct {
	Name    string        `json:"name"`
	Colour  string        `json:"colour"`
	Opacity float64       `json:"opacity"`
	Cells   []PaintedCell `json:"cells"`
	Areas   string        `json:"areas,omitempty"` // all at once, so that no seams are seen
	Within  []PaintedCell `json:"within,omitempty"`
	All     bool          `json:"all,omitempty"` // it is not within others
	Without []PaintedCell `json:"without,omitempty"`
}

// PaintedCell are shapes that lie near each other.
type PaintedCell struct {
	Box   geom.Box      `json:"box"` // that holds them, nanometres
	Fill  string        `json:"fill,omitempty"`
	Lines []PaintedLine `json:"lines,omitempty"`
}

// PaintedLine are lines of a width with round ends.
type PaintedLine struct {
	Width float64 `json:"width"`
	Path  string  `json:"path"`
}

// Paths are the view as a browser paints it. When the context ends, its error is given back after the coat in work.
func (v *View) Paths(ctx context.Context) (*Painted, error) {
	out := &Painted{Bottom: v.Bottom, Box: v.Box}
	for _, t := range v.Coats {
		if err := ctx.Err(); err != nil {
			return nil, err
		}
		c := PaintedCoat{Name: t.Name, Colour: hex(t.Colour), Opacity: float64(t.Colour.A) / 255, Cells: cells(t.Shapes), All: t.Within == nil,
			Within: cells(t.Within), Without: cells(t.Without)}
		var p path
		for _, line := range overlay.Rings(t.Areas) {
			p.line(line, true)
		}
		c.Areas = string(p)
		if len(c.Cells) > 0 || c.Areas != "" {
			out.Coats = append(out.Coats, c)
		}
	}
	return out, nil
}

// cell is the side of a cell, in nanometres.
const cell = 8_000_000

// cells puts shapes together by where their middles lie.
func cells(list []geom.Shape) []PaintedCell {
	type made struct {
		e     geom.Extent
		fill  path
		lines map[int64]*path
	}
	by := map[geom.Point]*made{}
	for _, s := range list {
		box := s.Box()
		key := geom.Pt(floor(box.Centre().X), floor(box.Centre().Y))
		m := by[key]
		if m == nil {
			m = &made{lines: map[int64]*path{}}
			by[key] = m
		}
		m.e.AddBox(box)
		switch {
		case len(s.Pts) == 1:
			m.fill.disc(s.Pts[0], s.R)
			continue
		case s.Area:
			line := flat(s)
			if geom.Area(line) < 0 { // what winds otherwise would cancel what lies over it
				line = slices.Clone(line)
				slices.Reverse(line)
			}
			m.fill.line(line, true)
		}
		if s.R > 0 {
			if m.lines[s.R] == nil {
				m.lines[s.R] = new(path)
			}
			m.lines[s.R].line(flat(s), s.Area)
		}
	}
	var out []PaintedCell
	for _, key := range slices.SortedFunc(maps.Keys(by), func(a, b geom.Point) int { return cmp.Or(cmp.Compare(a.Y, b.Y), cmp.Compare(a.X, b.X)) }) {
		m := by[key]
		c := PaintedCell{Box: m.e.Box, Fill: string(m.fill)}
		for _, r := range slices.Sorted(maps.Keys(m.lines)) {
			c.Lines = append(c.Lines, PaintedLine{float64(2*r) / 1000, string(*m.lines[r])})
		}
		out = append(out, c)
	}
	return out
}

func floor(v int64) int64 {
	if v < 0 {
		return (v+1)/cell - 1
	}
	return v / cell
}

// flat is a shape's line with chords for arcs.
func flat(s geom.Shape) []geom.Point {
	if s.Mids == nil {
		return s.Pts
	}
	line := s.Edges().Flat(chord, false)
	if !s.Area {
		line = append(line, s.Pts[len(s.Pts)-1])
	}
	return line
}

// path is a path's text.
type path []byte

func (p *path) length(nm int64) {
	*p = strconv.AppendFloat(*p, float64(nm)/1000, 'f', -1, 64)
}

func (p *path) line(list []geom.Point, closed bool) {
	for i, at := range list {
		*p = append(*p, "ML"[min(i, 1)])
		p.length(at.X)
		*p = append(*p, ' ')
		p.length(at.Y)
	}
	if closed && len(list) > 0 {
		*p = append(*p, 'Z')
	}
}

// disc goes around anticlockwise.
func (p *path) disc(at geom.Point, r int64) {
	*p = fmt.Appendf(*p, "M%g %ga%g %g 0 1 1 %g 0a%g %g 0 1 1 %g 0Z", um(at.X-r), um(at.Y), um(r), um(r), um(2*r), um(r), um(r), um(-2*r))
}

func um(nm int64) float64 { return float64(nm) / 1000 }
