package paper

import (
	"math"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/timing"
)

// cluster is a pale frame with its title on a tab.
func cluster(c *design.Cluster) []Mark {
	b := c.Box()
	frame := box("tint-"+c.Tint, "line-"+c.Tint, milli(0.35), b)
	frame.Dash = true
	title := text(c.Title, "ink", milli(3.2), geom.Point{}, -1)
	title.Words, title.Bold = true, true
	w := TextWidth(title) + milli(4)
	at := geom.Pt(b.Min.X, b.Max.Y)
	title.Pts = flat(at.Add(geom.Pt(milli(2), milli(2.4))))
	h := milli(4.8)
	return []Mark{frame, area("tab-"+c.Tint, "line-"+c.Tint, milli(0.35), at, at.Add(geom.Pt(0, h)), at.Add(geom.Pt(w, h)), at.Add(geom.Pt(w+milli(2), 0))), title}
}

// note breaks a text into lines within its width.
func note(n *design.Note) []Mark {
	var lines []Mark
	margin := int64(0)
	if n.Tint != "none" {
		margin = n.Size * 8 / 10
	}
	y := n.At.Y - margin
	room := n.Width - 2*margin
	for _, raw := range strings.Split(n.Text, "\n") {
		size, indent, bold := n.Size, int64(0), false
		s := strings.TrimRight(raw, " ")
		head, item := strings.CutPrefix(s, "# ")
		if item {
			s, size, bold = head, n.Size*13/10, true
		} else if entry, ok := strings.CutPrefix(s, "- "); ok {
			s, indent = entry, n.Size
			lines = append(lines, Mark{Pts: flat(geom.Pt(n.At.X+margin+n.Size/3, y-size*7/10)), R: n.Size / 8, Fill: "ink"})
		}
		if s == "" {
			y -= size * 7 / 10
			continue
		}
		for _, row := range wrap(words(s, bold), size, room-indent) {
			x := n.At.X + margin + indent
			for _, w := range row {
				m := text(w.text, "ink", size, geom.Pt(x, y-size*7/10), -1)
				m.Words, m.Bold = true, w.bold
				lines = append(lines, m)
				x += TextWidth(m)
			}
			y -= size * 14 / 10
		}
	}
	if n.Tint == "none" {
		return lines
	}
	paper := box("tint-"+n.Tint, "line-"+n.Tint, milli(0.25), geom.BoxOf(n.At, geom.Pt(n.At.X+n.Width, y-margin/2)))
	return append([]Mark{paper}, lines...)
}

// run is a piece of a line in one weight.
type run struct {
	text string
	bold bool
}

// words cuts a line at spaces and stars; each word keeps the space before it.
func words(s string, bold bool) []run {
	var out []run
	strong := bold
	for i, piece := range strings.Split(s, "*") {
		if i > 0 {
			strong = !strong
		}
		from := 0
		for j := 1; j <= len(piece); j++ {
			if j == len(piece) || piece[j] == ' ' {
				if from < j {
					out = append(out, run{piece[from:j], strong || bold})
				}
				from = j
			}
		}
	}
	return out
}

// wrap breaks words into rows no wider than room; a word that is wider stands alone.
func wrap(list []run, size, room int64) [][]run {
	var rows [][]run
	var row []run
	used := int64(0)
	for _, w := range list {
		width := TextWidth(Mark{Text: w.text, Size: size, Words: true, Bold: w.bold})
		if used+width > room && len(row) > 0 {
			rows = append(rows, row)
			row, used = nil, 0
			w.text = strings.TrimLeft(w.text, " ")
			width = TextWidth(Mark{Text: w.text, Size: size, Words: true, Bold: w.bold})
		}
		if k := len(row); k > 0 && row[k-1].bold == w.bold {
			row[k-1].text += w.text
		} else {
			row = append(row, w)
		}
		used += width
	}
	if len(row) > 0 {
		rows = append(rows, row)
	}
	return rows
}

func shape(s *design.Graphic) []Mark {
	ink := "line-" + s.Tint
	if s.Tint == "none" {
		ink = "ink"
	}
	width := milli(0.4)
	var out []Mark
	switch s.Form {
	case "rectangle":
		m := box("tint-"+s.Tint, ink, width, geom.BoxOf(s.Pts...))
		if s.Tint == "none" {
			m.Fill = ""
		}
		out = []Mark{m}
	case "ellipse":
		b := geom.BoxOf(s.Pts...)
		c := b.Centre()
		pts := make([]geom.Point, 64)
		for i := range pts {
			a := 2 * math.Pi * float64(i) / float64(len(pts))
			pts[i] = geom.Pt(c.X+int64(math.Round(math.Cos(a)*float64(b.Max.X-b.Min.X)/2)), c.Y+int64(math.Round(math.Sin(a)*float64(b.Max.Y-b.Min.Y)/2)))
		}
		m := area("tint-"+s.Tint, ink, width, pts...)
		if s.Tint == "none" {
			m.Fill = ""
		}
		out = []Mark{m}
	default:
		out = []Mark{line(ink, width, s.Pts...)}
		if s.Form == "arrow" {
			out = append(out, head(s.Pts[len(s.Pts)-2], s.Pts[len(s.Pts)-1], ink))
		}
	}
	out[0].Dash = s.Dash
	return out
}

// head of an arrow from a to b.
func head(a, b geom.Point, ink string) Mark {
	l := a.Dist(b)
	if l == 0 {
		l = 1
	}
	ux, uy := float64(b.X-a.X)/l, float64(b.Y-a.Y)/l
	at := func(along, across float64) geom.Point {
		return geom.Pt(b.X+int64(math.Round((-ux*along-uy*across)*float64(mm))), b.Y+int64(math.Round((-uy*along+ux*across)*float64(mm))))
	}
	return area(ink, "", 0, b, at(2.4, 0.9), at(2.4, -0.9))
}

// timingMarks draws a timing diagram: names on the left, a row for each signal, marks and
// spans across.
func timingMarks(o *design.Timing) []Mark {
	d, err := timing.Parse(o.Text)
	if err != nil {
		m := text(err.Error(), "open", milli(2.5), o.At.Sub(geom.Pt(0, milli(3))), -1)
		m.Words = true
		return []Mark{m}
	}
	const size = 2_500_000
	names := int64(0)
	for _, r := range d.Rows {
		names = max(names, letters(r.Name, size))
	}
	x0 := o.At.X + names + milli(3)
	x := func(slot float64) int64 { return x0 + int64(math.Round(slot*float64(o.Slot))) }
	rowH, high := milli(7), milli(4.4)
	top := o.At.Y - milli(1.5)
	if len(d.Marks) > 0 {
		top -= milli(3.5)
	}
	foot := top - int64(len(d.Rows))*rowH
	var out []Mark
	for _, m := range d.Marks {
		l := line("quiet", milli(0.2), geom.Pt(x(m.At), top+milli(0.5)), geom.Pt(x(m.At), foot))
		l.Dash = true
		t := text(m.Text, "quiet", milli(2.2), geom.Pt(x(m.At), top+milli(2.2)), 0)
		t.Words = true
		out = append(out, l, t)
	}
	for i, r := range d.Rows {
		base := top - int64(i+1)*rowH + milli(1.2)
		name := text(r.Name, "ink", size, geom.Pt(x0-milli(2), base+high/2), 1)
		out = append(out, name)
		out = append(out, row(r, x, base, high)...)
	}
	if d.Slot != "" {
		t := text("one slot: "+d.Slot, "quiet", milli(2.2), geom.Pt(x0, foot-milli(1.8)), -1)
		t.Words = true
		out = append(out, t)
	}
	y := foot - milli(2)
	if d.Slot != "" {
		y -= milli(3)
	}
	for _, s := range d.Spans {
		a, b := geom.Pt(x(s.From), y), geom.Pt(x(s.To), y)
		t := text(s.Text, "ink", milli(2.2), geom.Pt((a.X+b.X)/2, y-milli(2.2)), 0)
		t.Words = true
		out = append(out, line("ink", milli(0.2), a, b), head(a, b, "ink"), head(b, a, "ink"), t,
			line("quiet", milli(0.15), geom.Pt(a.X, y-milli(0.8)), geom.Pt(a.X, foot)), line("quiet", milli(0.15), geom.Pt(b.X, y-milli(0.8)), geom.Pt(b.X, foot)))
		y -= milli(5)
	}
	return out
}

// row draws the states of one signal from x(0) on, its low at base.
func row(r timing.Row, x func(float64) int64, base, high int64) []Mark {
	var out []Mark
	pen := []geom.Point{}
	lift := func() {
		if len(pen) > 1 {
			out = append(out, line("wire", milli(0.4), pen...))
		}
		pen = nil
	}
	at := 0.0
	slant := milli(0.6)
	for _, p := range r.Pieces {
		a, b := x(at), x(at+p.Slots)
		switch p.State {
		case "high", "low", "free":
			y := map[string]int64{"high": base + high, "low": base, "free": base + high/2}[p.State]
			pen = append(pen, geom.Pt(a, y), geom.Pt(b, y))
			if p.State == "free" {
				m := line("quiet", milli(0.4), geom.Pt(a, y), geom.Pt(b, y))
				pen = pen[:len(pen)-2]
				lift()
				out = append(out, m)
			}
		case "clock":
			for k := 0.0; k < p.Slots; k++ {
				up, down, end := x(at+k), x(at+math.Min(k+0.5, p.Slots)), x(at+math.Min(k+1, p.Slots))
				pen = append(pen, geom.Pt(up, base), geom.Pt(up, base+high), geom.Pt(down, base+high), geom.Pt(down, base), geom.Pt(end, base))
			}
		case "data", "any":
			lift()
			fill := "tint-sky"
			if p.State == "any" {
				fill = "body"
			}
			out = append(out, area(fill, "wire", milli(0.4), geom.Pt(a, base+high/2), geom.Pt(a+slant, base+high), geom.Pt(b-slant, base+high),
				geom.Pt(b, base+high/2), geom.Pt(b-slant, base), geom.Pt(a+slant, base)))
			if p.State == "any" {
				const mostHatching = 400
				for h, step := a+2*slant, max(milli(1.6), (b-a)/mostHatching); h <= b-slant-milli(0.8); h += step {
					out = append(out, line("quiet", milli(0.2), geom.Pt(h, base+milli(0.3)), geom.Pt(h+milli(0.8), base+high-milli(0.3))))
				}
			}
		case "gap":
			lift()
			mid := (a + b) / 2
			for _, s := range []int64{-1, 1} {
				out = append(out, line("ink", milli(0.3), geom.Pt(mid+s*milli(0.6)-milli(0.5), base-milli(0.5)), geom.Pt(mid+s*milli(0.6)+milli(0.5), base+high+milli(0.5))))
			}
		}
		if p.Text != "" {
			t := text(p.Text, "ink", milli(2.2), geom.Pt((a+b)/2, base+high/2), 0)
			t.Words = true
			if p.State == "high" || p.State == "low" || p.State == "free" || p.State == "clock" {
				t.Pts[1] = base + high + milli(1.3)
			}
			out = append(out, t)
		}
		at += p.Slots
	}
	lift()
	return out
}
