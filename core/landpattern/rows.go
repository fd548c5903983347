package landpattern

import (
	"fmt"
	"math"

	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Two rows of leads along y, left and right of the body; pin 1 at the upper left, then counter-clockwise.

var rowDims = dims("span", "distance over the leads", "bodyWidth", "width of the body", "bodyLength", "length of the body",
	"pitch", "pitch", "leadLength", "length of a lead's foot", "leadWidth", "width of a lead", "height", "height")

func rowExample(pins int, span, bodyWidth, bodyLength, leadLength, leadWidth, height [2]float64, pitch float64) map[string][2]float64 {
	return map[string][2]float64{"span": span, "bodyWidth": bodyWidth, "bodyLength": bodyLength, "pitch": {pitch, pitch},
		"leadLength": leadLength, "leadWidth": leadWidth, "height": height}
}

func gullTwoFamily() *Family {
	f := &Family{
		ID: "gullTwo", Words: "Two rows of gull-wing leads", Group: twoRows,
		Example: example(map[string]int{"pins": 8},
			rowExample(8, [2]float64{5.8, 6.2}, [2]float64{3.8, 4}, [2]float64{4.8, 5}, [2]float64{0.4, 1.27}, [2]float64{0.31, 0.51}, [2]float64{1.35, 1.75}, 1.27)),
		Dims:   rowDims,
		Counts: []Count{{Key: "pins", Words: "leads", Least: 4, Most: 100, Step: 2, Usual: 8}},
		check: func(m *maker) error {
			if err := m.checkRows(); err != nil {
				return err
			}
			if m.dim("bodyWidth").Max >= m.dim("span").Min {
				return impossible("span", "the distance over the leads (%s) is not more than the width of the body (%s): leads would not reach beyond it",
					units.Text(m.dim("span").Min), units.Text(m.dim("bodyWidth").Max))
			}
			return nil
		},
		make: func(m *maker) error {
			g := gullGoal
			if m.dim("pitch").Middle() <= mm(0.625) {
				g = gullFineGoal
			}
			return m.twoRows(g, gull)
		},
		name: func(m *maker) string {
			what := "SOP"
			if m.dim("pitch").Middle() == mm(1.27) {
				what = "SOIC"
			}
			return fmt.Sprintf("%s%sP%sX%s-%d%s", what, hundredths(m.dim("pitch")), hundredths(m.dim("span")), tallest(m.dim("height")), m.terminals(), m.suffix())
		},
		views: func(m *maker) []BodyView { return m.rowViews(gull) },
	}
	return f.withThermal()
}

func noLeadTwoFamily() *Family {
	f := &Family{
		ID: "noLeadTwo", Words: "Two rows of lands, no leads", Group: twoRows,
		Example: example(map[string]int{"pins": 8}, map[string][2]float64{
			"bodyWidth": {2.9, 3.1}, "bodyLength": {2.9, 3.1}, "pitch": {0.65, 0.65}, "leadLength": {0.3, 0.5}, "leadWidth": {0.25, 0.35}, "height": {0.7, 0.8},
			"thermalLength": {2.3, 2.5}, "thermalWidth": {1.5, 1.7},
		}),
		Dims: dims("bodyWidth", "width of the body", "bodyLength", "length of the body", "pitch", "pitch",
			"leadLength", "length of a land", "leadWidth", "width of a land", "height", "height"),
		Counts: []Count{{Key: "pins", Words: "lands", Least: 2, Most: 60, Step: 2, Usual: 8}},
		check:  func(m *maker) error { return m.checkRows() },
		make:   func(m *maker) error { return m.twoRows(noLeadGoal, flat) },
		name: func(m *maker) string {
			return fmt.Sprintf("SON%sP%sX%sX%s-%d%s", hundredths(m.dim("pitch")), hundredths(m.dim("bodyLength")), hundredths(m.dim("bodyWidth")), tallest(m.dim("height")), m.terminals(), m.suffix())
		},
		views: func(m *maker) []BodyView { return m.rowViews(flat) },
	}
	return f.withThermal()
}

func jLeadTwoFamily() *Family {
	return &Family{
		ID: "jLeadTwo", Words: "Two rows of J leads", Group: twoRows,
		Example: example(map[string]int{"pins": 20},
			rowExample(20, [2]float64{8.51, 8.76}, [2]float64{7.5, 7.75}, [2]float64{12.7, 12.95}, [2]float64{1.7, 2.1}, [2]float64{0.38, 0.51}, [2]float64{3.25, 3.76}, 1.27)),
		Dims:   rowDims,
		Counts: []Count{{Key: "pins", Words: "leads", Least: 4, Most: 100, Step: 2, Usual: 20}},
		check:  func(m *maker) error { return m.checkRows() },
		make:   func(m *maker) error { return m.twoRows(jGoal, jLead) },
		name: func(m *maker) string {
			return fmt.Sprintf("SOJ%sP%sX%s-%d%s", hundredths(m.dim("pitch")), hundredths(m.dim("span")), tallest(m.dim("height")), m.terminals(), m.suffix())
		},
		views: func(m *maker) []BodyView { return m.rowViews(jLead) },
	}
}

// span of the rows: over the leads, or of a body without leads its own width.
func (m *maker) rowSpan() (string, string) {
	if m.has("span") {
		return "span", "distance over the leads"
	}
	return "bodyWidth", "width of the body"
}

func (m *maker) rowLead() lead {
	key, _ := m.rowSpan()
	return lead{m.dim(key), m.dim("leadLength"), m.dim("leadWidth")}
}

func (m *maker) checkRows() error {
	n := m.count("pins") / 2
	key, words := m.rowSpan()
	if err := m.rowLead().hold(key, words, "leadLength", "lead"); err != nil {
		return err
	}
	if err := m.checkRow(n, "bodyLength"); err != nil {
		return err
	}
	return m.checkThermal("bodyLength", "bodyWidth")
}

// checkRow checks that so many leads at the pitch fit along a side of the body.
func (m *maker) checkRow(n int, side string) error {
	pitch, width, body := m.dim("pitch"), m.dim("leadWidth"), m.dim(side)
	if n > 1 && width.Max >= pitch.Min {
		return impossible("leadWidth", "leads %s wide at a pitch of %s would touch", units.Text(width.Max), units.Text(pitch.Min))
	}
	if row := int64(n-1)*pitch.Min + width.Min; row > body.Max {
		return impossible("pitch", "%d leads at a pitch of %s take %s; the side of the body they stand on is %s long",
			n, units.Text(pitch.Middle()), units.Text(row), units.Text(body.Max))
	}
	return nil
}

// twoRows makes lands in two columns.
func (m *maker) twoRows(g goal, as profile) error {
	j := g.at(m.r.Density)
	m.excess = j.yard
	l := m.rowLead()
	land := l.solve(j, &m.r.Making)
	pitch, n := m.use("pitch", "pitch", m.dim("pitch").Middle()), m.count("pins")/2
	if n > 1 {
		m.narrow(&land, pitch)
	}
	thermal := m.thermalSize("thermalWidth", "thermalLength")
	least := m.r.Making.Gap
	if thermal.X > 0 {
		least = thermal.X + 2*m.r.Making.Gap
	}
	p := m.pair(land, "", "", least)
	m.joint("Lead", l, p, j, as)
	for i := range 2 * n {
		x, at := -p.span/2, i
		if i >= n {
			x, at = p.span/2, 2*n-1-i
		}
		y := pitch*int64(n-1)/2 - pitch*int64(at)
		m.pad(m.surface(number(i+1), x, y, p.length, p.width))
	}
	m.outline = rectangle(m.dim("bodyWidth").Max, m.dim("bodyLength").Max)
	m.marked = 0
	m.thermal(thermal, 2*n+1)
	m.rowSolids(as, pitch, n)
	return nil
}

// rowSolids is the body with its leads.
func (m *maker) rowSolids(as profile, pitch int64, n int) {
	w, d, hh := m.dim("bodyWidth").Middle(), m.dim("bodyLength").Middle(), m.dim("height").Middle()
	m.moulding(w, d, hh, as)
	key, _ := m.rowSpan()
	end, t, b := m.dim(key).Middle()/2, m.dim("leadLength").Middle(), m.dim("leadWidth").Middle()
	for i := range n {
		y := pitch*int64(n-1)/2 - pitch*int64(i)
		for _, s := range []int64{-1, 1} {
			m.leadSolid(as, s, 0, end, t, b, y, w/2, hh)
		}
	}
}

// moulding is a body over the board, with a dint at pin 1.
func (m *maker) moulding(w, d, hh int64, as profile) {
	lift := int64(100_000)
	if as == flat {
		lift = 20_000
	}
	m.box("body", -w/2, -d/2, w/2, d/2, min(lift, hh/4), hh)
	r := min(w, d) / 12
	m.cylinder("band", -w/2+2*r, d/2-2*r, r, hh, hh+10_000)
}

// leadSolid is one lead on a side: its outer end so far from the middle, its place along the side. Leads on
// the upper and lower side (vertical) swap x and y.
func (m *maker) leadSolid(as profile, s, vertical, end, t, b, along, wall, hh int64) {
	thick := max(min(t/4, 200_000), 50_000)
	put := func(from, to, z0, z1 int64) { // from the middle outwards
		x0, x1 := s*from, s*to
		if vertical != 0 {
			m.box("lead", along-b/2, min(x0, x1), along+b/2, max(x0, x1), z0, z1)
			return
		}
		m.box("lead", min(x0, x1), along-b/2, max(x0, x1), along+b/2, z0, z1)
	}
	switch as {
	case gull:
		put(end-t, end, 0, thick)
		put(end-t-thick, end-t, 0, hh/2+thick/2)
		if end-t-thick > wall {
			put(wall, end-t-thick, hh/2-thick/2, hh/2+thick/2)
		}
	case flat:
		put(end-t, end, 0, 20_000)
	default:
		put(end-t, end, 0, thick)
		put(end-thick, end, 0, hh/2)
	}
}

// rowViews draw a body with two rows of leads: from above, leads left and right, and along the rows.
func (m *maker) rowViews(as profile) []BodyView {
	n := m.count("pins") / 2
	key, _ := m.rowSpan()
	s, w, d := m.dim(key).Middle(), m.dim("bodyWidth").Middle(), m.dim("bodyLength").Middle()
	t, b, e, hh := m.dim("leadLength").Middle(), m.dim("leadWidth").Middle(), m.dim("pitch").Middle(), m.dim("height").Middle()
	v := BodyView{Name: "From above"}
	if as == flat {
		v.Name = "From below, as through glass"
		v.area(styleBody, -w/2, -d/2, w/2, d/2)
	}
	y := func(i int) int64 { return e*int64(n-1)/2 - e*int64(i) }
	inner := s/2 - t // where leads end in the drawing: those that carry a body go to it
	if as != flat {
		inner = min(inner, w/2)
	}
	for i := range n {
		for _, k := range []int64{-1, 1} {
			v.area(styleLead, k*s/2, y(i)-b/2, k*inner, y(i)+b/2)
		}
	}
	if as != flat {
		v.area(styleBody, -w/2, -d/2, w/2, d/2)
		for i := range n {
			v.foot(t-s/2, y(i), b)
			v.foot(s/2-t, y(i), b)
		}
	}
	v.circle(styleLine, -w/2+w/8, d/2-w/8, w/24)
	if m.has("thermalLength") {
		tl, tw := m.dim("thermalLength").Middle(), m.dim("thermalWidth").Middle()
		style := styleLine
		if as == flat {
			style = styleLead
		}
		v.area(style, -tw/2, -tl/2, tw/2, tl/2)
		v.tall(m, "thermalLength", tw/2, -tl/2, tl/2, -tw/4)
		v.wide(m, "thermalWidth", -tw/2, tw/2, -tl/2, tl/4)
	}
	u := max(s, d) / 7
	if key == "span" {
		v.wide(m, "span", -s/2, s/2, d/2, 2*u)
	}
	v.wide(m, "bodyWidth", -w/2, w/2, d/2, u)
	v.tall(m, "bodyLength", s/2, -d/2, d/2, 2*u)
	if n > 1 {
		v.tall(m, "pitch", s/2, y(1), y(0), u)
	}
	v.wide(m, "leadLength", -s/2, -s/2+t, -d/2, -u)
	v.tall(m, "leadWidth", -s/2, y(n-1)-b/2, y(n-1)+b/2, -u)
	side := BodyView{Name: "From the side"}
	m.sideOf(&side, as, s, w, t, hh)
	side.tall(m, "height", max(s, w)/2, 0, hh, u)
	return []BodyView{v, side}
}

// foot draws where the foot of a lead on the left or right ends, also beneath the body.
func (v *BodyView) foot(x, y, wide int64) { v.line(styleLine, x, y-wide/2, x, y+wide/2) }

// sideOf draws a body from the side, leads left and right.
func (m *maker) sideOf(v *BodyView, as profile, s, w, t, hh int64) {
	thick := max(min(t/4, 200_000), 50_000)
	v.area(styleBody, -w/2, min(hh/10, thick), w/2, hh)
	for _, k := range []int64{-1, 1} {
		switch as {
		case gull:
			v.poly(styleLead, k*s/2, 0, k*s/2, thick, k*(s/2-t+thick), thick, k*(s/2-t), hh/2+thick/2, k*w/2, hh/2+thick/2,
				k*w/2, hh/2-thick/2, k*(s/2-t-thick), hh/2-thick/2, k*(s/2-t), 0)
		case flat:
			v.area(styleLead, k*s/2, 0, k*(s/2-t), thick)
		default:
			v.poly(styleLead, k*s/2, hh/2, k*s/2, thick, k*(s/2-t/2), 0, k*(s/2-t), thick, k*(s/2-t), 2*thick, k*(s/2-t/2), thick, k*(s/2-thick), 2*thick, k*(s/2-thick), hh/2)
		}
	}
}

// number writes a terminal's number.
func number(n int) string { return fmt.Sprint(n) }

// rectangle about the origin.
func rectangle(w, h int64) []geom.Corner {
	return geom.Corners(geom.Pt(-w/2, -h/2), geom.Pt(w/2, -h/2), geom.Pt(w/2, h/2), geom.Pt(-w/2, h/2))
}

func diagonal(a, b int64) int64 { return int64(math.Ceil(math.Hypot(float64(a), float64(b)))) }
