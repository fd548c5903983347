package paper

import (
	"fmt"
	"slices"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Drawn is what one object of a sheet looks like. Junctions have no object: their id is 0.
type Drawn struct {
	ID    design.ID   `json:"id"`
	Kind  design.Kind `json:"kind"`
	Marks []Mark      `json:"marks"`
}

// Page is one use of a sheet, ready to be shown.
type Page struct {
	Place circuit.SheetUse `json:"place"`
	Size  geom.Point       `json:"size"`
	Items []Drawn          `json:"items"` // in the order in which they are painted
}

// PageOf draws one use of a sheet.
func PageOf(d *design.Doc, n *circuit.Nets, place circuit.SheetUse) Page {
	s := d.Sheets[place.Sheet]
	p := Page{Place: place, Size: design.SheetSizes[s.Size]}
	p.Items = append(p.Items, Drawn{s.ID, design.KindSheet, Frame(d, n.Tree, place)})
	standing := d.ItemsOf(s.ID)
	for _, kind := range Layers {
		for _, o := range standing {
			if o.ObjectKind() == kind {
				p.Items = append(p.Items, Drawn{o.ObjectID(), kind, Marks(d, o, place.Path)})
			}
		}
	}
	if v := n.Views[s.ID]; v != nil {
		var dots []Mark
		for _, j := range v.Junctions {
			dots = append(dots, Junction(j, false))
		}
		for _, j := range v.BundleJunctions {
			dots = append(dots, Junction(j, true))
		}
		if len(dots) > 0 {
			p.Items = append(p.Items, Drawn{0, design.KindWire, dots})
		}
	}
	return p
}

// Field of the title block: the sheet's own entry, else the project's.
func Field(d *design.Doc, s *design.Sheet, field string) string {
	if v, ok := s.Fields[field]; ok {
		return v
	}
	p := d.Settings
	return map[string]string{"title": p.Title, "number": p.Number, "revision": p.Revision, "author": p.Author, "date": p.Date}[field]
}

// Margins of the frame.
const frameMargin = 10_000_000

// Frame draws a sheet's border with its zones, numbered across from the left and lettered
// down from the top, and the title block in the lower right corner.
func Frame(d *design.Doc, t *circuit.Tree, place circuit.SheetUse) []Mark {
	s := d.Sheets[place.Sheet]
	size := design.SheetSizes[s.Size]
	inner := geom.Box{Min: geom.Pt(frameMargin, frameMargin), Max: size.Sub(geom.Pt(frameMargin, frameMargin))}
	out := []Mark{box("", "frame", milli(0.18), geom.Box{Max: size}), box("", "frame", milli(0.5), inner)}
	out = append(out, zones(inner)...)
	return append(out, titleBlock(d, t, s, place, inner)...)
}

// zoneLength is what ISO 5457 gives a zone; those at the corners take what is left over.
const zoneLength = 50_000_000

// zones divides the frame from its middle outwards into an even number of zones on each side.
func zones(inner geom.Box) []Mark {
	var out []Mark
	c := inner.Centre()
	const half = int64(frameMargin / 2)
	for i, z := range divided(inner.Min.X, inner.Max.X) {
		for _, edge := range [][2]int64{{inner.Min.Y, -half}, {inner.Max.Y, half}} {
			y, way := edge[0], edge[1]
			if i > 0 {
				out = append(out, line("frame", milli(0.25), geom.Pt(z[0], y), geom.Pt(z[0], y+way)))
			}
			out = append(out, text(fmt.Sprint(i+1), "quiet", milli(2.6), geom.Pt((z[0]+z[1])/2, y+way/2), 0))
		}
	}
	const letters = "ABCDEFGHJKLMNPQRSTUVWXYZ" // I and O are not used
	for i, z := range divided(inner.Min.Y, inner.Max.Y) {
		top, foot := 2*c.Y-z[0], 2*c.Y-z[1] // from above
		for _, edge := range [][2]int64{{inner.Min.X, -half}, {inner.Max.X, half}} {
			x, way := edge[0], edge[1]
			if i > 0 {
				out = append(out, line("frame", milli(0.25), geom.Pt(x, top), geom.Pt(x+way, top)))
			}
			out = append(out, text(letters[i:i+1], "quiet", milli(2.6), geom.Pt(x+way/2, (top+foot)/2), 0))
		}
	}
	return out
}

// divided gives the ends of the zones between two ends of a frame, an even number of them.
func divided(from, to int64) [][2]int64 {
	middle := (from + to) / 2
	n := max(1, ((to-from)/2+zoneLength/2)/zoneLength) // on each side of the middle
	ends := []int64{from}
	for i := 1 - n; i < n; i++ {
		ends = append(ends, middle+i*zoneLength)
	}
	ends = append(ends, to)
	var out [][2]int64
	for i := range len(ends) - 1 {
		out = append(out, [2]int64{ends[i], ends[i+1]})
	}
	return out
}

// fitted sets words into a cell of the title block: as large as fits on one line, at least two
// thirds of their size; else on two lines, smaller until they fit, and cut at the very last.
func fitted(words string, size, room int64, at geom.Point, bold bool) []Mark {
	line := func(s string, size int64, at geom.Point) Mark {
		m := text(s, "ink", size, at, -1)
		m.Words, m.Bold = true, bold
		return m
	}
	if words == "" {
		return nil
	}
	one := line(words, size, at)
	width := TextWidth(one)
	if width > room {
		one.Size = size * room / width
	}
	if one.Size >= size*2/3 {
		return []Mark{one}
	}
	for small := size * 6 / 10; ; small = small * 9 / 10 {
		var list []run
		for _, w := range strings.SplitAfter(words, " ") {
			list = append(list, breakable(w, small, room, bold)...)
		}
		rows := wrap(list, small, room)
		least := small <= size*3/10
		if len(rows) > 2 && !least {
			continue
		}
		var out []Mark
		for i, row := range rows[:min(len(rows), 2)] {
			s := strings.TrimSpace(joinRuns(row))
			if i == 1 && len(rows) > 2 {
				s += " …"
			}
			out = append(out, line(s, small, at.Add(geom.Pt(0, small*6/10-int64(i)*small*12/10))))
		}
		return out
	}
}

// breakable cuts a word that is wider than the room.
func breakable(word string, size, room int64, bold bool) []run {
	var out []run
	from := 0
	for i := range word {
		m := Mark{Text: word[from:i], Size: size, Words: true, Bold: bold}
		if i > from && TextWidth(m) > room*9/10 {
			out = append(out, run{word[from:i], bold})
			from = i
		}
	}
	return append(out, run{word[from:], bold})
}

func joinRuns(row []run) string {
	var b strings.Builder
	for _, r := range row {
		b.WriteString(r.text)
	}
	return b.String()
}

func titleBlock(d *design.Doc, t *circuit.Tree, s *design.Sheet, place circuit.SheetUse, inner geom.Box) []Mark {
	w, h := int64(120*mm), int64(27*mm)
	x, y := inner.Max.X-w, inner.Min.Y
	out := []Mark{box("paper", "frame", milli(0.5), geom.Box{Min: geom.Pt(x, y), Max: geom.Pt(inner.Max.X, y+h)})}
	rule := func(x0, y0, x1, y1 float64) {
		out = append(out, line("frame", milli(0.25), geom.Pt(x+milli(x0), y+milli(y0)), geom.Pt(x+milli(x1), y+milli(y1))))
	}
	rule(0, 18, 120, 18)
	rule(0, 9, 120, 9)
	rule(70, 9, 70, 18)
	rule(44, 0, 44, 9)
	rule(70, 0, 70, 9)
	rule(100, 0, 100, 9)
	cell := func(tx, ty, room float64, head, words string, size int64, bold bool) {
		a := text(head, "quiet", milli(1.8), geom.Pt(x+milli(tx+1.6), y+milli(ty+6.9)), -1)
		a.Words = true
		out = append(out, a)
		out = append(out, fitted(words, size, milli(room-3), geom.Pt(x+milli(tx+1.6), y+milli(ty+3.1)), bold)...)
	}
	nth := slices.IndexFunc(t.Uses, func(p circuit.SheetUse) bool { return p.Path == place.Path && p.Sheet == place.Sheet })
	name := s.Name
	if place.Depth > 0 && place.Label != s.Name {
		name += " · " + place.Label
	}
	cell(0, 18, 120, "Title", Field(d, s, "title"), milli(4.4), true)
	cell(0, 9, 70, "Sheet", name, milli(3.4), true)
	cell(70, 9, 50, "Document", Field(d, s, "number"), milli(3), false)
	cell(0, 0, 44, "Author", Field(d, s, "author"), milli(2.8), false)
	cell(44, 0, 26, "Date", Field(d, s, "date"), milli(2.8), false)
	cell(70, 0, 30, "Revision", Field(d, s, "revision"), milli(2.8), false)
	cell(100, 0, 20, s.Size, fmt.Sprintf("%d of %d", nth+1, len(t.Uses)), milli(2.8), false)
	return out
}
