package paper

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

func part(d *design.Doc, p *design.Part, path string) []Mark {
	s := d.SymbolOf(p)
	if s == nil {
		return nil
	}
	out := symbol(s, p.Pose())
	name := p.Called(path) + p.UnitLetter()
	for _, t := range []Mark{partText(p, s, "designator", name, s.DesignatorAt, p.DesignatorAt), partText(p, s, "value", p.Value, s.ValueAt, p.ValueAt)} {
		if t.Text != "" {
			out = append(out, t)
		}
	}
	if p.NotFitted { // crossed out
		b := symbolBox(s, p.Pose())
		out = append(out, line("open", milli(0.3), b.Min, b.Max), line("open", milli(0.3), geom.Pt(b.Min.X, b.Max.Y), geom.Pt(b.Max.X, b.Min.Y)))
	}
	return out
}

// partText stands beside an upright part, above and below a level one, or where it was moved.
func partText(p *design.Part, s *design.Symbol, field, words string, usual geom.Point, moved *geom.Point) Mark {
	ink := "ink"
	if field == "value" {
		ink = "quiet"
	}
	up := milli(1.9)
	if field == "value" {
		up = -up
	}
	place := func(at geom.Point, align int) Mark {
		m := text(words, ink, nameSize, p.At.Add(at), align)
		m.Field = field
		return m
	}
	aside := max(usual.X, -usual.X) > max(usual.Y, -usual.Y)
	switch {
	case moved != nil:
		return place(*moved, 0)
	case p.Turn%2 == 0 && !aside:
		return place(usual, 0)
	case p.Turn%2 == 0:
		if (p.Turn == 2) != p.Mirror {
			return place(geom.Pt(-usual.X+milli(1.6), up), 1)
		}
		return place(geom.Pt(usual.X-milli(1.6), up), -1)
	}
	reach := int64(0)
	for _, f := range s.Figures {
		for _, q := range f.Pts {
			reach = max(reach, max(q.Y, -q.Y)+f.R)
		}
	}
	return place(geom.Pt(reach+milli(1.3), up), -1)
}

func symbolBox(s *design.Symbol, t geom.Pose) geom.Box {
	var pts []geom.Point
	for _, f := range s.Figures {
		for _, p := range f.Pts {
			if f.Form == "circle" {
				pts = append(pts, t.Apply(p.Sub(geom.Pt(f.R, f.R))), t.Apply(p.Add(geom.Pt(f.R, f.R))))
			} else {
				pts = append(pts, t.Apply(p))
			}
		}
	}
	return geom.BoxOf(pts...)
}

// symbol draws figures, pins, and the names and numbers of pins where the symbol shows them.
func symbol(s *design.Symbol, t geom.Pose) []Mark {
	var out []Mark
	for _, f := range s.Figures {
		out = append(out, FigureMark(f, t))
	}
	for i := range s.Pins {
		out = append(out, PinMarks(&s.Pins[i], t, s.ShowNames)...)
	}
	return out
}

// FigureMark draws a figure of a symbol.
func FigureMark(f design.Figure, t geom.Pose) Mark {
	pts := t.ApplyAll(f.Pts)
	switch f.Form {
	case "text":
		return text(f.Text, "ink", f.R, pts[0], 0)
	case "circle":
		return Mark{Pts: flat(pts...), R: f.R, Stroke: "ink", Width: milli(0.3)}
	case "area":
		return area("body", "ink", milli(0.3), pts...)
	case "solid":
		return area("ink", "", 0, pts...)
	case "arc":
		return line("ink", milli(0.3), geom.Piece{A: pts[0], M: pts[1], B: pts[2]}.Along(milli(0.02), false)...)
	}
	return line("ink", milli(0.3), pts...)
}

// PinMarks draws a pin: its line, what its shape adds where it meets the body, and its name and number.
func PinMarks(pin *design.Pin, t geom.Pose, names bool) []Mark {
	way := ways[pin.Turn]
	along := func(d, aside int64) geom.Point { // from the pin's place towards the body, and to its left
		return pin.At.Add(geom.Pt(way.X*d-way.Y*aside, way.Y*d+way.X*aside))
	}
	inner, end := along(pin.Length, 0), pin.Length
	var out []Mark
	ring := milli(1.6)
	if pin.Shape == "negated" || pin.Shape == "negatedClock" { // the line ends at the ring's far side
		end = max(pin.Length-ring, 0)
		out = append(out, Mark{Pts: flat(t.Apply(along(pin.Length-ring/2, 0))), R: ring / 2, Stroke: "ink", Width: milli(0.3)})
	}
	if pin.Shape == "low" {
		out = append(out, line("ink", milli(0.3), t.Apply(inner), t.Apply(along(pin.Length-milli(2), milli(1.2))), t.Apply(along(pin.Length-milli(2), 0))))
	}
	if pin.Shape == "clock" || pin.Shape == "negatedClock" {
		out = append(out, line("ink", milli(0.3), t.Apply(along(pin.Length, milli(1))), t.Apply(along(pin.Length+milli(1.7), 0)), t.Apply(along(pin.Length, -milli(1)))))
	}
	if end > 0 {
		out = append(out, line("ink", milli(0.3), t.Apply(pin.At), t.Apply(along(end, 0))))
	}
	if !names {
		return out
	}
	dir := t.Apply(way).Sub(t.At) // towards the body, on the sheet
	align := -1
	if dir.X < 0 || dir.Y < 0 {
		align = 1
	}
	gap := milli(0.8)
	if pin.Shape == "clock" || pin.Shape == "negatedClock" {
		gap += milli(1.5)
	}
	name := text(pin.Name, "ink", milli(2.1), t.Apply(along(pin.Length+gap, 0)), align)
	mid := t.Apply(geom.Pt((pin.At.X+inner.X)/2, (pin.At.Y+inner.Y)/2))
	number := text(pin.Number, "quiet", milli(1.6), mid.Add(geom.Pt(0, milli(0.95))), 0)
	if dir.X == 0 {
		name.Up = true
		number = text(pin.Number, "quiet", milli(1.6), mid.Add(geom.Pt(-milli(0.95), 0)), 0)
		number.Up = true
	}
	if pin.Name != "" {
		out = append(out, name)
	}
	return append(out, number)
}

// BundleWidth and WireWidth are how thick wires are drawn.
const (
	WireWidth   = 420_000
	BundleWidth = 1_250_000
)

func wire(w *design.Wire) []Mark {
	if w.Bundle {
		return []Mark{line("bundle", BundleWidth, w.A, w.B)}
	}
	return []Mark{line("wire", WireWidth, w.A, w.B)}
}

// flag is the outline of a label or port of a given width, its point at the origin.
func flagText(name, ink string, at geom.Point, turn int, from, width int64) Mark {
	mid := geom.Pt(ways[turn].X*(from+width)/2, ways[turn].Y*(from+width)/2).Add(at)
	m := text(name, ink, nameSize, mid, 0)
	m.Up = turn%2 == 1
	return m
}

func label(l *design.Label) []Mark {
	w := letters(l.Name, nameSize) + milli(2.6)
	f := float64(w) / perMM
	return []Mark{area("paper", "label", milli(0.25), local(l.At, l.Turn, 0, 0, 1.4, 1.7, f, 1.7, f, -1.7, 1.4, -1.7)...),
		flagText(l.Name, "label", l.At, l.Turn, milli(1), w)}
}

// port is pointed where the signal goes: towards its place when it comes in, away from it
// when it goes out, both ways when it does both.
func port(p *design.Port) []Mark {
	w := letters(p.Name, nameSize) + milli(4.6)
	f := float64(w) / perMM
	outline := []float64{0, 0, 2, 2, f, 2, f, -2, 2, -2} // in
	from := milli(1.6)
	switch p.Way {
	case "out":
		outline = []float64{0, 2, f - 2, 2, f, 0, f - 2, -2, 0, -2}
		from = -milli(1.2)
	case "both":
		outline = []float64{0, 0, 2, 2, f - 2, 2, f, 0, f - 2, -2, 2, -2}
		from = 0
	}
	return []Mark{area("tint-port", "port", milli(0.35), local(p.At, p.Turn, outline...)...), flagText(p.Name, "port", p.At, p.Turn, from, w)}
}

func tap(t *design.Tap) []Mark {
	end := t.End()
	out := []Mark{line("bundle", WireWidth, t.At, end)}
	side, align := milli(0.7), -1
	if t.Turn == 1 || t.Turn == 2 {
		side, align = -side, 1
	}
	return append(out, text(t.Member, "label", milli(2), end.Add(geom.Pt(side, milli(1.25))), align))
}

// supply hangs below its place at turn 0 when it is a ground, else it stands above it.
func supply(s *design.Supply) []Mark {
	k := 1.0
	if design.Grounds(s.Shape) {
		k = -1
	}
	width := milli(0.35)
	put := func(xy ...float64) Mark {
		for i := 1; i < len(xy); i += 2 {
			xy[i] *= k
		}
		return line("supply", width, local(s.At, s.Turn, xy...)...)
	}
	out := []Mark{put(0, 0, 0, 2.5)}
	reach := 4.3
	switch s.Shape {
	case "ground", "earth":
		out = append(out, put(-2.2, 2.5, 2.2, 2.5), put(-1.4, 3.3, 1.4, 3.3), put(-0.6, 4.1, 0.6, 4.1))
		reach = 6
		if s.Shape == "earth" {
			out = append(out, Mark{Pts: flat(local(s.At, s.Turn, 0, 2.9*k)...), R: milli(2.9), Stroke: "supply", Width: width})
			reach = 7.4
		}
	case "chassis":
		out = append(out, put(-2.2, 2.5, 2.2, 2.5), put(-2.2, 2.5, -3, 4.2), put(0, 2.5, -0.8, 4.2), put(2.2, 2.5, 1.4, 4.2))
		reach = 6.2
	case "arrow":
		out = append(out, put(-1.2, 1.3, 0, 2.9, 1.2, 1.3), put(0, 2.5, 0, 2.9))
		reach = 4.8
	case "ring":
		out = append(out, Mark{Pts: flat(local(s.At, s.Turn, 0, 3.4*k)...), R: milli(0.9), Stroke: "supply", Width: width})
		reach = 6
	default:
		out = append(out, put(-2.2, 2.5, 2.2, 2.5))
	}
	if s.Feeds { // a small wedge points at the line: the supply comes in here
		out = append(out, area("supply", "", 0, local(s.At, s.Turn, 0.4, 1.25*k, 1.9, 1.9*k, 1.9, 0.6*k)...))
	}
	away := geom.Pt(0, milli(reach*k))
	align := 0
	at := s.At.Add(geom.Turn(away, int32(s.Turn)*90_000))
	if s.Turn%2 == 1 { // beside, not across
		align = -1
		if at.X < s.At.X {
			align = 1
		}
		at.X += int64(-align) * -milli(1.2)
	}
	return append(out, text(s.Name, "supply", milli(2.5), at, align))
}

// block draws a sheet's stand-in: its name, the sheet it stands for, its pins with wedges
// that show their direction.
func block(d *design.Doc, b *design.SheetBlock) []Mark {
	frame := geom.Box{Min: b.At, Max: b.At.Add(b.Size)}
	out := []Mark{box("block", "port", milli(0.5), frame)}
	name := text(b.Name, "ink", milli(3.4), geom.Pt(frame.Centre().X, frame.Max.Y+milli(2.6)), 0)
	name.Words, name.Bold, name.Field = true, true, "name"
	out = append(out, name)
	if of := d.Sheets[b.Of]; of != nil && of.Name != b.Name {
		sub := text(of.Name, "quiet", milli(2.4), geom.Pt(frame.Centre().X, frame.Min.Y-milli(2.2)), 0)
		sub.Words = true
		out = append(out, sub)
	}
	for _, p := range b.Pins {
		at := b.PinAt(p)
		turn := (p.Side + 2) % 4 // inwards
		wedge := []float64{0, 0.9, 1.6, 0, 0, -0.9}
		switch p.Way {
		case "out":
			wedge = []float64{1.6, 0.9, 0, 0, 1.6, -0.9}
		case "both":
			wedge = []float64{0, 0, 1, 0.9, 2, 0, 1, -0.9}
		}
		width := milli(0.3)
		if design.IsBundle(p.Name) {
			width = milli(0.7)
		}
		out = append(out, area("port", "port", width, local(at, turn, wedge...)...))
		inner := local(at, turn, 2.6, 0)[0]
		t := text(p.Name, "ink", milli(2.5), inner, -1)
		if turn == 2 || turn == 3 {
			t.Align = 1
		}
		t.Up = turn%2 == 1
		out = append(out, t)
	}
	return out
}

// Junction is the dot where wires, or bundles, are joined.
func Junction(p geom.Point, bundle bool) Mark {
	if bundle {
		return Mark{Pts: flat(p), R: milli(1.3), Fill: "bundle"}
	}
	return Mark{Pts: flat(p), R: milli(0.85), Fill: "wire"}
}
