package landpattern

import (
	"fmt"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Components whose leads go through the board.

// through is a plated hole with its land; that of terminal 1 is square.
func (m *maker) through(number string, at geom.Point, drill, land int64) design.Pad {
	form := design.Round
	if number == "1" || number == "A1" {
		form = design.Rect
	}
	return design.Pad{Number: number, Form: form, At: at, Size: geom.Pt(land, land), Hole: drill}
}

func dualInlineFamily() *Family {
	return &Family{
		ID: "dualInline", Words: "Two rows of leads through the board", Group: twoRows,
		Example: example(map[string]int{"pins": 8}, map[string][2]float64{
			"span": {7.62, 7.62}, "bodyWidth": {6.1, 6.6}, "bodyLength": {9.0, 9.6}, "pitch": {2.54, 2.54}, "leadWidth": {0.41,
				0.51}, "leadThickness": {0.2, 0.3}, "height": {4.5, 5.08},
		}),
		Dims: dims("span", "distance of the rows", "bodyWidth", "width of the body", "bodyLength", "length of the body", "pitch", "pitch",
			"leadWidth", "width of a lead", "leadThickness", "thickness of a lead", "height", "height"),
		Counts: []Count{{Key: "pins", Words: "leads", Least: 4, Most: 80, Step: 2, Usual: 8}},
		check: func(m *maker) error {
			return m.checkRow(m.count("pins")/2, "bodyLength")
		},
		make: func(m *maker) error {
			n := m.count("pins") / 2
			m.excess = holeYard[level(m.r.Density)]
			pitch, span := m.use("pitch", "pitch", m.dim("pitch").Middle()), m.use("padSpan", "distance of the rows", m.dim("span").Middle())
			drill, land := m.hole(diagonal(m.dim("leadWidth").Max, m.dim("leadThickness").Max), min(pitch, span))
			for i := range 2 * n {
				x, at := -span/2, i
				if i >= n {
					x, at = span/2, 2*n-1-i
				}
				m.pad(m.through(number(i+1), geom.Pt(x, pitch*int64(n-1)/2-pitch*int64(at)), drill, land))
			}
			w, d, hh := m.dim("bodyWidth").Middle(), m.dim("bodyLength").Middle(), m.dim("height").Middle()
			m.outline = rectangle(m.dim("bodyWidth").Max, m.dim("bodyLength").Max)
			m.marked = 0
			m.box("body", -w/2, -d/2, w/2, d/2, 500_000, hh)
			m.cylinder("band", 0, d/2-w/10, w/14, hh, hh+10_000)
			for _, p := range m.f.Pads {
				m.boxAt("lead", p.At.X, p.At.Y, m.dim("leadThickness").Middle(), m.dim("leadWidth").Middle(), -3_000_000, hh/2)
				if s := sign(p.At.X); s*p.At.X > w/2 {
					m.box("lead", min(s*w/2, p.At.X), p.At.Y-m.dim("leadWidth").Middle()/2, max(s*w/2, p.At.X), p.At.Y+m.dim("leadWidth").Middle()/2,
						hh/2-250_000, hh/2)
				}
			}
			return nil
		},
		name: func(m *maker) string {
			return fmt.Sprintf("DIP%sW%sP%sL%sH%sQ%d%s", hundredths(m.dim("span")), hundredths(m.dim("leadWidth")), hundredths(m.dim("pitch")),
				hundredths(m.dim("bodyLength")), tallest(m.dim("height")), m.count("pins")-len(m.left), m.holeSuffix())
		},
		views: func(m *maker) []BodyView {
			n := m.count("pins") / 2
			s, w, d := m.dim("span").Middle(), m.dim("bodyWidth").Middle(), m.dim("bodyLength").Middle()
			b, c, e, hh := m.dim("leadWidth").Middle(), m.dim("leadThickness").Middle(), m.dim("pitch").Middle(), m.dim("height").Middle()
			y := func(i int) int64 { return e*int64(n-1)/2 - e*int64(i) }
			v := BodyView{Name: "From above"}
			for i := range n {
				v.area(styleLead, -s/2-c/2, y(i)-b/2, s/2+c/2, y(i)+b/2)
			}
			v.area(styleBody, -w/2, -d/2, w/2, d/2)
			v.circle(styleLine, -w/2+w/8, d/2-w/8, w/20)
			for _, k := range []int64{-1, 1} { // the middles of the rows
				v.line(styleLine, k*s/2, y(0)+b, k*s/2, y(n-1)-b)
			}
			u := max(s, d) / 8
			v.wide(m, "span", -s/2, s/2, d/2, 2*u)
			v.wide(m, "bodyWidth", -w/2, w/2, d/2, u)
			v.tall(m, "bodyLength", s/2, -d/2, d/2, 2*u)
			v.tall(m, "pitch", s/2, y(1), y(0), u)
			v.tall(m, "leadWidth", -s/2, y(n-1)-b/2, y(n-1)+b/2, -u)
			side := BodyView{Name: "From the end"}
			side.area(styleBody, -w/2, hh/8, w/2, hh)
			side.area(styleLead, -s/2-c/2, -hh/2, -s/2+c/2, hh/2)
			side.area(styleLead, s/2-c/2, -hh/2, s/2+c/2, hh/2)
			side.line(styleLine, -s/2-u, 0, s/2+u, 0)
			side.wide(m, "leadThickness", -s/2-c/2, -s/2+c/2, -hh/2, -u/2)
			side.tall(m, "height", s/2, 0, hh, u)
			return []BodyView{v, side}
		},
	}
}

func sign(v int64) int64 {
	if v < 0 {
		return -1
	}
	return 1
}

func headerFamily() *Family {
	f := &Family{
		ID: "header", Words: "Header or socket", Group: leaded,
		Example: example(map[string]int{"positions": 6, "rows": 1}, map[string][2]float64{
			"pitch": {2.54, 2.54}, "pin": {0.62, 0.66}, "bodyWidth": {2.4, 2.54}, "height": {8.3, 8.7},
		}),
		Dims: dims("pitch", "pitch", "pin", "side of a square pin", "bodyWidth", "width of the body", "height", "height"),
		Counts: []Count{
			{Key: "positions", Words: "positions in a row", Least: 1, Most: 64, Usual: 6},
			{Key: "rows", Words: "rows", Least: 1, Most: 4, Usual: 1},
		},
		Choices: []Choice{
			{"kind", "kind", options("pins", "pins", "socket", "socket")},
			{"order", "numbers run", options("across", "across the rows, then on", "along", "along each row", "around",
				"along one row, back along the other")},
		},
		check: func(m *maker) error {
			py := m.rowPitch()
			switch {
			case m.dim("pin").Max >= min(m.dim("pitch").Min, py):
				return impossible("pin", "pins of %s at a pitch of %s would touch", units.Text(m.dim("pin").Max),
					units.Text(min(m.dim("pitch").Min, py)))
			case m.choice("order") == "around" && m.count("rows") > 2:
				return impossible("rows", "numbers run around two rows, not %d", m.count("rows"))
			case int64(m.count("rows")-1)*py+m.dim("pin").Min > m.dim("bodyWidth").Max:
				return impossible("bodyWidth", "%d rows %s apart do not fit a body %s wide", m.count("rows"), units.Text(py),
					units.Text(m.dim("bodyWidth").Max))
			}
			return nil
		},
		make: func(m *maker) error {
			n, rows := m.count("positions"), m.count("rows")
			m.excess = holeYard[level(m.r.Density)]
			px := m.use("pitch", "pitch", m.dim("pitch").Middle())
			py := px
			if rows > 1 {
				py = m.use("rowPitch", "distance of the rows", m.rowPitch())
			}
			drill, land := m.hole(diagonal(m.dim("pin").Max, m.dim("pin").Max), min(px, py))
			for i := range n * rows {
				pos, row := i/rows, i%rows
				switch m.choice("order") {
				case "along":
					pos, row = i%n, i/n
				case "around":
					if pos, row = i%n, i/n; row == 1 {
						pos = n - 1 - pos
					}
				}
				at := geom.Pt(-px*int64(n-1)/2+px*int64(pos), py*int64(rows-1)/2-py*int64(row))
				m.pad(m.through(number(i+1), at, drill, land))
			}
			l, w, hh := px*int64(n), m.dim("bodyWidth").Max, m.dim("height").Middle()
			if m.has("bodyLength") {
				l = m.dim("bodyLength").Max
			}
			m.outline = rectangle(l, w)
			m.marked = 0
			base := min(px, hh)
			if m.choice("kind") == "socket" {
				base = hh
			}
			m.box("socket", -l/2, -w/2, l/2, w/2, 0, base)
			a := m.dim("pin").Middle()
			for _, p := range m.f.Pads {
				m.boxAt("lead", p.At.X, p.At.Y, a, a, -3_000_000, 0)
				if base < hh {
					m.boxAt("lead", p.At.X, p.At.Y, a, a, base, hh)
				} else {
					m.boxAt("band", p.At.X, p.At.Y, a*3/2, a*3/2, hh, hh+10_000)
				}
			}
			return nil
		},
		name: func(m *maker) string {
			l := m.dim("pitch").Middle() * int64(m.count("positions"))
			if m.has("bodyLength") {
				l = m.dim("bodyLength").Middle()
			}
			what := "HDRV"
			if m.choice("kind") == "socket" {
				what = "HDRS"
			}
			order := map[string]string{"across": "", "along": "L", "around": "R"}[m.choice("order")]
			return fmt.Sprintf("%s%d%sW%sP%s_%dX%d_%dX%sX%s%s", what, m.count("rows")*m.count("positions")-len(m.left), order,
				hundredths(m.dim("pin")), hundredths(m.dim("pitch")),
				m.count("rows"), m.count("positions"), l/10_000, hundredths(m.dim("bodyWidth")), tallest(m.dim("height")), m.holeSuffix())
		},
		views: func(m *maker) []BodyView {
			n, rows := m.count("positions"), m.count("rows")
			e, py, a, w, hh := m.dim("pitch").Middle(), m.rowPitch(), m.dim("pin").Middle(), m.dim("bodyWidth").Middle(), m.dim("height").Middle()
			l := e * int64(n)
			if m.has("bodyLength") {
				l = m.dim("bodyLength").Middle()
			}
			v := BodyView{Name: "From above"}
			v.area(styleBody, -l/2, -w/2, l/2, w/2)
			x0, y0 := -e*int64(n-1)/2, py*int64(rows-1)/2
			for i := range n {
				for r := range rows {
					x, y := x0+e*int64(i), y0-py*int64(r)
					v.area(styleLead, x-a/2, y-a/2, x+a/2, y+a/2)
				}
			}
			u := max(l, w) / 10
			if n > 1 {
				v.wide(m, "pitch", x0, x0+e, w/2, u)
			}
			if rows > 1 {
				v.tall(m, "rowPitch", -l/2, y0-py, y0, -u)
			}
			v.wide(m, "pin", x0-a/2, x0+a/2, -w/2, -u)
			v.tall(m, "bodyWidth", l/2, -w/2, w/2, u)
			v.wide(m, "bodyLength", -l/2, l/2, w/2, 2*u)
			side := BodyView{Name: "From the side"}
			side.area(styleBody, -l/2, 0, l/2, min(e, hh))
			for i := range n {
				side.area(styleLead, x0+e*int64(i)-a/2, -e, x0+e*int64(i)+a/2, hh)
			}
			side.line(styleLine, -l/2-u, 0, l/2+u, 0)
			side.tall(m, "height", l/2, 0, hh, u)
			return []BodyView{v, side}
		},
	}
	return f.optional("rowPitch", "distance of the rows, where it differs", "bodyLength", "length of the body, where it is not the pitch each")
}

func (m *maker) rowPitch() int64 {
	if m.has("rowPitch") {
		return m.dim("rowPitch").Middle()
	}
	return m.dim("pitch").Middle()
}

func axialFamily() *Family {
	f := &Family{
		ID: "axial", Words: "Axial leads", Group: leaded,
		Example: example(nil, map[string][2]float64{"bodyLength": {6, 6.5}, "diameter": {2.2, 2.5}, "lead": {0.55, 0.65}}),
		Dims:    dims("bodyLength", "length of the body", "diameter", "diameter of the body", "lead", "diameter of a lead"),
		Choices: []Choice{{"kind", "kind of part", options("RES", "resistor", "DIO", "diode", "CAP", "capacitor", "IND", "inductor", "FUS",
			"fuse")}, polarity},
		check: func(m *maker) error {
			if m.dim("lead").Max >= m.dim("diameter").Max {
				return impossible("lead", "leads of %s are thicker than the body of %s", units.Text(m.dim("lead").Max),
					units.Text(m.dim("diameter").Max))
			}
			if m.has("span") && m.dim("span").Min < m.dim("bodyLength").Max {
				return impossible("span", "leads %s apart lie under the body of %s", units.Text(m.dim("span").Min), units.Text(m.dim("bodyLength").Max))
			}
			return nil
		},
		make: func(m *maker) error {
			m.excess = holeYard[level(m.r.Density)]
			m.polar = m.choice("polar") == "yes"
			drill, land := m.hole(m.dim("lead").Max, 0)
			span := m.use("padSpan", "distance of the holes", m.axialSpan())
			m.pad(m.end("1", -span/2, drill, land))
			m.pad(m.end("2", span/2, drill, land))
			m.outline = rectangle(m.dim("bodyLength").Max, m.dim("diameter").Max)
			m.marked = -1
			if m.polar {
				m.marked = 0
			}
			l, d, a := m.dim("bodyLength").Middle(), m.dim("diameter").Middle(), m.dim("lead").Middle()
			m.rod("body", -l/2, l/2, 0, d, 100_000)
			if m.polar {
				m.rod("band", -l/2+l/8, -l/2+l/4, 0, d+d/50, 100_000-d/100)
			}
			m.rod("lead", -span/2, -l/2, 0, a, 100_000+d/2-a/2)
			m.rod("lead", l/2, span/2, 0, a, 100_000+d/2-a/2)
			m.cylinder("lead", -span/2, 0, a/2, -2_500_000, 100_000+d/2)
			m.cylinder("lead", span/2, 0, a/2, -2_500_000, 100_000+d/2)
			return nil
		},
		name: func(m *maker) string {
			polar := ""
			if m.polar {
				polar = "P"
			}
			return fmt.Sprintf("%sAD%s%dW%sL%sD%s%s", m.choice("kind"), polar, m.axialSpan()/10_000, hundredths(m.dim("lead")),
				hundredths(m.dim("bodyLength")), hundredths(m.dim("diameter")), m.holeSuffix())
		},
		views: func(m *maker) []BodyView {
			l, d, a, s := m.dim("bodyLength").Middle(), m.dim("diameter").Middle(), m.dim("lead").Middle(), m.axialSpan()
			v := BodyView{Name: "From above"}
			v.area(styleLead, -s/2, -a/2, s/2, a/2)
			v.circle(styleLead, -s/2, 0, a/2)
			v.circle(styleLead, s/2, 0, a/2)
			v.area(styleBody, -l/2, -d/2, l/2, d/2)
			v.wide(m, "bodyLength", -l/2, l/2, d/2, l/6)
			v.wide(m, "span", -s/2, s/2, d/2, l/3)
			v.tall(m, "diameter", l/2, -d/2, d/2, (s-l)/2+l/6)
			v.tall(m, "lead", -s/2, -a/2, a/2, -l/6)
			return []BodyView{v}
		},
	}
	return f.optional("span", "distance of the holes, where it is given")
}

// axialSpan is the distance of the holes: as given, or what bending the leads needs (IPC-2222 table: 0.8 mm straight
// from the body, bent about a radius of the lead's diameter), up to the next multiple of 2.54 mm.
func (m *maker) axialSpan() int64 {
	if m.has("span") {
		return m.dim("span").Middle()
	}
	a := m.dim("lead").Max
	return up(float64(m.dim("bodyLength").Max+2*(max(800_000, a)+a+a/2)), 2_540_000)
}

// end is the hole of a two-terminal part; its terminal 1 is square only when it matters which is which.
func (m *maker) end(number string, x, drill, land int64) design.Pad {
	p := m.through(number, geom.Pt(x, 0), drill, land)
	if !m.polar {
		p.Form = design.Round
	}
	return p
}

func radialFamily() *Family {
	f := &Family{
		ID: "radial", Words: "Radial leads", Group: leaded,
		Example: example(nil, map[string][2]float64{"span": {2, 2}, "lead": {0.45, 0.55}, "length": {5, 5.5}, "height": {11, 12}}),
		Dims: dims("span", "distance of the leads", "lead", "diameter of a lead", "length", "diameter or length of the body", "height",
			"height"),
		Choices: []Choice{
			{"kind", "kind of part", options("CAP", "capacitor", "RES", "resistor", "IND", "inductor", "LED", "LED", "VAR", "varistor", "XTAL",
				"crystal")},
			{"body", "body", options("round", "round", "box", "a box or a disc")},
			{"polar", "polarity", options("yes", "lead 1 is marked", "no", "either way round")},
		},
		check: func(m *maker) error {
			box := m.choice("body") == "box"
			switch {
			case box != m.has("thickness"):
				return impossible("thickness", "a box needs its thickness, a round body has none")
			case m.dim("lead").Max >= m.dim("span").Min:
				return impossible("lead", "leads of %s at a distance of %s would touch", units.Text(m.dim("lead").Max), units.Text(m.dim("span").Min))
			}
			return nil
		},
		make: func(m *maker) error {
			m.excess = holeYard[level(m.r.Density)]
			m.polar = m.choice("polar") == "yes"
			span := m.use("padSpan", "distance of the holes", m.dim("span").Middle())
			drill, land := m.hole(m.dim("lead").Max, span)
			m.pad(m.end("1", -span/2, drill, land))
			m.pad(m.end("2", span/2, drill, land))
			l, hh, a := m.dim("length").Max, m.dim("height").Middle(), m.dim("lead").Middle()
			if m.has("thickness") {
				m.outline = rectangle(l, m.dim("thickness").Max)
			} else {
				m.outline = round2(geom.Point{}, l/2)
			}
			m.marked = -1
			if m.polar {
				m.marked = 0
			}
			what := "metal"
			if m.choice("kind") == "LED" {
				what = "glass"
			} else if m.has("thickness") {
				what = "ceramic"
			}
			m.prism(what, m.outline, 300_000, hh)
			m.cylinder("lead", -span/2, 0, a/2, -2_500_000, 300_000)
			m.cylinder("lead", span/2, 0, a/2, -2_500_000, 300_000)
			return nil
		},
		name: func(m *maker) string {
			polar := ""
			if !m.polar {
				polar = "N"
			}
			body := "D" + hundredths(m.dim("length"))
			what := "RD"
			if m.has("thickness") {
				what, body = "RR", "L"+hundredths(m.dim("length"))+"T"+hundredths(m.dim("thickness"))
			}
			return fmt.Sprintf("%s%s%s%sW%s%sH%s%s", m.choice("kind"), what, polar, hundredths(m.dim("span")), hundredths(m.dim("lead")), body,
				tallest(m.dim("height")), m.holeSuffix())
		},
		views: func(m *maker) []BodyView {
			l, s, a, hh := m.dim("length").Middle(), m.dim("span").Middle(), m.dim("lead").Middle(), m.dim("height").Middle()
			v := BodyView{Name: "From above"}
			w := l
			if m.has("thickness") {
				w = m.dim("thickness").Middle()
				v.area(styleBody, -l/2, -w/2, l/2, w/2)
				v.tall(m, "thickness", l/2, -w/2, w/2, l/6)
			} else {
				v.circle(styleBody, 0, 0, l/2)
			}
			v.circle(styleLead, -s/2, 0, a/2)
			v.circle(styleLead, s/2, 0, a/2)
			v.wide(m, "length", -l/2, l/2, w/2, l/6)
			v.wide(m, "span", -s/2, s/2, -w/2, -l/6)
			side := BodyView{Name: "From the side"}
			side.area(styleBody, -l/2, hh/20, l/2, hh)
			side.area(styleLead, -s/2-a/2, -hh/3, -s/2+a/2, hh/20)
			side.area(styleLead, s/2-a/2, -hh/3, s/2+a/2, hh/20)
			side.line(styleLine, -l*2/3, 0, l*2/3, 0)
			side.wide(m, "lead", s/2-a/2, s/2+a/2, -hh/3, -l/8)
			side.tall(m, "height", l/2, 0, hh, l/6)
			return []BodyView{v, side}
		},
	}
	return f.optional("thickness", "thickness of a box")
}

func circularFamily() *Family {
	f := &Family{
		ID: "circular", Words: "Leads in a circle", Group: leaded,
		Example: example(map[string]int{"pins": 8, "places": 8}, map[string][2]float64{
			"circle": {5.08, 5.08}, "lead": {0.41, 0.48}, "diameter": {8.9, 9.4}, "height": {4.2, 4.7},
		}),
		Dims: dims("circle", "diameter of the circle of leads", "lead", "diameter of a lead", "diameter", "diameter of the body", "height",
			"height"),
		Counts: []Count{
			{Key: "pins", Words: "leads", Least: 2, Most: 48, Usual: 3},
			{Key: "places", Words: "places around the circle", Least: 2, Most: 48, Usual: 4},
		},
		check: func(m *maker) error {
			n, k := m.count("pins"), m.count("places")
			chord := float64(m.dim("circle").Min) * math.Sin(math.Pi/float64(k))
			switch {
			case k < n:
				return impossible("places", "%d leads do not fit %d places", n, k)
			case m.dim("circle").Max >= m.dim("diameter").Max:
				return impossible("circle", "the circle of leads (%s) is not within the body (%s)", units.Text(m.dim("circle").Max),
					units.Text(m.dim("diameter").Max))
			case float64(m.dim("lead").Max) >= chord:
				return impossible("lead", "%d leads of %s on a circle of %s would touch", k, units.Text(m.dim("lead").Max),
					units.Text(m.dim("circle").Min))
			}
			return nil
		},
		make: func(m *maker) error {
			m.excess = holeYard[level(m.r.Density)]
			c, k := m.use("circle", "diameter of the circle of holes", m.dim("circle").Middle()), m.count("places")
			drill, land := m.hole(m.dim("lead").Max, int64(float64(c)*math.Sin(math.Pi/float64(k))))
			for i := range m.count("pins") {
				m.pad(m.through(number(i+1), onCircle(c/2, i, k), drill, land))
			}
			r, hh := m.dim("diameter").Max/2, m.dim("height").Middle()
			m.outline = round2(geom.Point{}, r)
			m.marked = 0
			m.cylinder("metal", 0, 0, r, 300_000, 800_000)
			m.cylinder("metal", 0, 0, r*9/10, 800_000, hh)
			for _, p := range m.f.Pads {
				m.cylinder("lead", p.At.X, p.At.Y, m.dim("lead").Middle()/2, -3_000_000, 300_000)
			}
			return nil
		},
		name: func(m *maker) string {
			return fmt.Sprintf("TO%sW%sD%sH%s-%dX%d%s", hundredths(m.dim("circle")), hundredths(m.dim("lead")), hundredths(m.dim("diameter")),
				tallest(m.dim("height")),
				m.count("places"), m.count("pins")-len(m.left), m.holeSuffix())
		},
		views: func(m *maker) []BodyView {
			c, a, d, hh := m.dim("circle").Middle(), m.dim("lead").Middle(), m.dim("diameter").Middle(), m.dim("height").Middle()
			v := BodyView{Name: "From above, as through glass"}
			v.circle(styleBody, 0, 0, d/2)
			v.circle(styleLine, 0, 0, c/2)
			for i := range m.count("pins") {
				p := onCircle(c/2, i, m.count("places"))
				v.circle(styleLead, p.X, p.Y, a/2)
			}
			v.wide(m, "diameter", -d/2, d/2, d/2, d/6)
			v.wide(m, "circle", -c/2, c/2, -d/2, -d/6)
			side := BodyView{Name: "From the side"}
			side.area(styleBody, -d/2, hh/12, d/2, hh)
			for i := range m.count("pins") {
				p := onCircle(c/2, i, m.count("places"))
				side.area(styleLead, p.X-a/2, -hh/2, p.X+a/2, hh/12)
			}
			side.line(styleLine, -d*2/3, 0, d*2/3, 0)
			side.wide(m, "lead", -c/2-a/2, -c/2+a/2, -hh/2, -d/10)
			side.tall(m, "height", d/2, 0, hh, d/6)
			return []BodyView{v, side}
		},
	}
	return f
}

// onCircle is a place on a circle, the first at the left, then counter-clockwise.
func onCircle(r int64, i, n int) geom.Point {
	a := math.Pi + 2*math.Pi*float64(i)/float64(n)
	return geom.Pt(int64(math.Round(float64(r)*math.Cos(a))), int64(math.Round(float64(r)*math.Sin(a))))
}
