package landpattern

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Two terminals at the ends of a body that lies along x.

var polarity = Choice{"polar", "polarity", options("no", "either way round", "yes", "terminal 1 is marked")}

func mm(v float64) int64 { return units.MMf(v) }

func chipFamily() *Family {
	return &Family{
		ID: "chip", Words: "Chip", Group: twoTerminals,
		Example: example(nil, map[string][2]float64{
			"length": {1.5, 1.7}, "width": {0.7, 0.9}, "terminal": {0.2, 0.5}, "height": {0.4, 0.55},
		}),
		Dims: dims("length", "length", "width", "width", "terminal", "length of a terminal", "height", "height"),
		Choices: []Choice{
			{"kind", "kind of part", options("RES", "resistor", "CAP", "capacitor", "IND", "inductor", "LED", "LED", "DIO", "diode",
				"FUS", "fuse", "BEA", "ferrite bead", "VAR", "varistor", "THRM", "thermistor", "XTAL", "crystal", "ANT", "antenna")},
			polarity,
		},
		check: func(m *maker) error { return m.chipLead().hold("length", "length", "terminal", "terminal") },
		make: func(m *maker) error {
			j := chipGoal
			if m.dim("length").Middle() < mm(1.6) {
				j = chipFineGoal
			}
			m.twoEnds(m.chipLead(), j, block, m.dim("length").Max, m.dim("width").Max)
			m.solidEnds()
			return nil
		},
		name: func(m *maker) string {
			letter := "C"
			if m.polar && m.choice("kind") == "CAP" {
				letter = "CP"
			}
			return m.choice("kind") + letter + tenths(m.dim("length")) + tenths(m.dim("width")) + "X" + tallest(m.dim("height")) + m.suffix()
		},
		views: func(m *maker) []BodyView {
			l, w, t, hh := m.dim("length").Middle(), m.dim("width").Middle(), m.dim("terminal").Middle(), m.dim("height").Middle()
			v := BodyView{Name: "From above"}
			v.area(styleBody, -l/2, -w/2, l/2, w/2)
			v.area(styleLead, -l/2, -w/2, -l/2+t, w/2)
			v.area(styleLead, l/2-t, -w/2, l/2, w/2)
			v.wide(m, "length", -l/2, l/2, w/2, l/4)
			v.tall(m, "width", l/2, -w/2, w/2, l/5)
			v.wide(m, "terminal", -l/2, -l/2+t, -w/2, -l/5)
			side := BodyView{Name: "From the side"}
			side.area(styleBody, -l/2, 0, l/2, hh)
			side.area(styleLead, -l/2, 0, -l/2+t, hh)
			side.area(styleLead, l/2-t, 0, l/2, hh)
			side.tall(m, "height", l/2, 0, hh, l/5)
			return []BodyView{v, side}
		},
	}
}

func (m *maker) chipLead() lead {
	return lead{m.dim("length"), m.dim("terminal"), m.dim("width")}
}

func mouldedFamily() *Family {
	return &Family{
		ID: "moulded", Words: "Moulded body, two terminals", Group: twoTerminals,
		Example: example(nil, map[string][2]float64{
			"length": {3.0, 3.4}, "width": {1.4, 1.8}, "terminal": {0.5, 1.1}, "leadWidth": {1.1, 1.3}, "height": {1.6, 1.8},
		}),
		Dims: dims("length", "length with terminals", "width", "width of the body", "terminal", "length of a terminal",
			"leadWidth", "width of a terminal", "height", "height"),
		Choices: []Choice{
			{"kind", "kind of part", options("CAP", "capacitor", "DIO", "diode", "RES", "resistor", "IND", "inductor", "FUS", "fuse", "LED", "LED")},
			{"polar", "polarity", options("yes", "terminal 1 is marked", "no", "either way round")},
		},
		check: func(m *maker) error {
			if w := m.dim("leadWidth"); w.Min > m.dim("width").Max {
				return impossible("leadWidth", "terminals %s wide do not fit a body %s wide", units.Text(w.Min), units.Text(m.dim("width").Max))
			}
			return m.mouldedLead().hold("length", "length", "terminal", "terminal")
		},
		make: func(m *maker) error {
			m.twoEnds(m.mouldedLead(), inwardGoal, inward, m.dim("length").Max, m.dim("width").Max)
			l, w, hh := m.dim("length").Middle(), m.dim("width").Middle(), m.dim("height").Middle()
			thick := min(mm(0.12), l/20)
			m.box("body", -l/2+thick, -w/2, l/2-thick, w/2, thick, hh)
			lw, t := m.dim("leadWidth").Middle(), m.dim("terminal").Middle()
			for _, s := range []int64{-1, 1} {
				m.boxAt("lead", s*(l/2-t/2), 0, t, lw, 0, thick)
				m.boxAt("lead", s*(l/2-thick/2), 0, thick, lw, 0, hh/2)
			}
			if m.polar {
				m.boxAt("band", -l/2+l/8, 0, l/10, w, hh, hh+mm(0.01))
			}
			return nil
		},
		name: func(m *maker) string {
			letter := "M"
			if m.polar && m.choice("kind") == "CAP" {
				letter = "MP"
			}
			return m.choice("kind") + letter + tenths(m.dim("length")) + tenths(m.dim("width")) + "X" + tallest(m.dim("height")) + m.suffix()
		},
		views: func(m *maker) []BodyView {
			l, w, t, lw, hh := m.dim("length").Middle(), m.dim("width").Middle(), m.dim("terminal").Middle(), m.dim("leadWidth").Middle(), m.dim("height").Middle()
			v := BodyView{Name: "From below"}
			v.area(styleBody, -l/2, -w/2, l/2, w/2)
			v.area(styleLead, -l/2, -lw/2, -l/2+t, lw/2)
			v.area(styleLead, l/2-t, -lw/2, l/2, lw/2)
			v.wide(m, "length", -l/2, l/2, w/2, l/5)
			v.tall(m, "width", l/2, -w/2, w/2, l/6)
			v.wide(m, "terminal", -l/2, -l/2+t, -w/2, -l/6)
			v.tall(m, "leadWidth", -l/2, -lw/2, lw/2, -l/6)
			side := BodyView{Name: "From the side"}
			side.area(styleBody, -l/2, hh/20, l/2, hh)
			side.area(styleLead, -l/2, 0, -l/2+t, hh/12)
			side.area(styleLead, l/2-t, 0, l/2, hh/12)
			side.tall(m, "height", l/2, 0, hh, l/6)
			return []BodyView{v, side}
		},
	}
}

func (m *maker) mouldedLead() lead {
	return lead{m.dim("length"), m.dim("terminal"), m.dim("leadWidth")}
}

func cylinderFamily() *Family {
	return &Family{
		ID: "cylinder", Words: "Cylinder with end caps", Group: twoTerminals,
		Example: example(nil, map[string][2]float64{"length": {3.3, 3.7}, "diameter": {1.3, 1.5}, "terminal": {0.3, 0.5}}),
		Dims:    dims("length", "length", "diameter", "diameter", "terminal", "length of an end cap"),
		Choices: []Choice{
			{"kind", "kind of part", options("DIO", "diode", "RES", "resistor", "CAP", "capacitor")},
			polarity,
		},
		check: func(m *maker) error { return m.cylinderLead().hold("length", "length", "terminal", "end cap") },
		make: func(m *maker) error {
			m.twoEnds(m.cylinderLead(), cylinderGoal, block, m.dim("length").Max, m.dim("diameter").Max)
			l, d, t := m.dim("length").Middle(), m.dim("diameter").Middle(), m.dim("terminal").Middle()
			m.rod("glass", -l/2+t, l/2-t, 0, d*9/10, d/20)
			m.rod("lead", -l/2, -l/2+t, 0, d, 0)
			m.rod("lead", l/2-t, l/2, 0, d, 0)
			if m.polar {
				m.rod("band", -l/2+t*3/2, -l/2+t*2, 0, d*19/20, d/40)
			}
			return nil
		},
		name: func(m *maker) string {
			return m.choice("kind") + "MELF" + tenths(m.dim("length")) + tenths(m.dim("diameter")) + m.suffix()
		},
		views: func(m *maker) []BodyView {
			l, d, t := m.dim("length").Middle(), m.dim("diameter").Middle(), m.dim("terminal").Middle()
			v := BodyView{Name: "From above"}
			v.area(styleBody, -l/2, -d*9/20, l/2, d*9/20)
			v.area(styleLead, -l/2, -d/2, -l/2+t, d/2)
			v.area(styleLead, l/2-t, -d/2, l/2, d/2)
			v.wide(m, "length", -l/2, l/2, d/2, l/5)
			v.tall(m, "diameter", l/2, -d/2, d/2, l/6)
			v.wide(m, "terminal", -l/2, -l/2+t, -d/2, -l/6)
			return []BodyView{v}
		},
	}
}

func (m *maker) cylinderLead() lead {
	return lead{m.dim("length"), m.dim("terminal"), m.dim("diameter")}
}

func canFamily() *Family {
	return &Family{
		ID: "can", Words: "Round can on a square base", Group: twoTerminals,
		Example: example(nil, map[string][2]float64{
			"base": {6.4, 6.8}, "span": {6.8, 7.3}, "terminal": {1.8, 2.4}, "leadWidth": {0.5, 0.8}, "height": {5.2, 5.7},
		}),
		Dims: dims("base", "side of the base", "span", "distance over the leads", "terminal", "length of a lead", "leadWidth", "width of a lead",
			"height", "height"),
		Choices: []Choice{{"polar", "polarity", options("yes", "lead 1 is positive", "no", "either way round")}},
		check: func(m *maker) error {
			return m.canLead().hold("span", "distance over the leads", "terminal", "lead")
		},
		make: func(m *maker) error {
			j := canGoal
			if m.dim("height").Max > mm(10) {
				j = tallCanGoal
			}
			b := m.dim("base").Max
			m.twoEnds(m.canLead(), j, gull, b, b)
			cut := b / 8
			if m.polar { // the base's corners beside lead 1 are cut off
				m.outline = geom.Corners(geom.Pt(-b/2+cut, -b/2), geom.Pt(b/2, -b/2), geom.Pt(b/2, b/2), geom.Pt(-b/2+cut, b/2), geom.Pt(-b/2, b/2-cut), geom.Pt(-b/2, -b/2+cut))
			}
			hh := m.dim("height").Middle()
			base := min(mm(0.8), hh/4)
			m.prism("body", m.outline, mm(0.1), base)
			m.cylinder("metal", 0, 0, b/2-b/40, base, hh)
			for _, s := range []int64{-1, 1} {
				m.boxAt("lead", s*(m.dim("span").Middle()/2-m.dim("terminal").Middle()/2), 0, m.dim("terminal").Middle(), m.dim("leadWidth").Middle(), 0, mm(0.15))
			}
			return nil
		},
		name: func(m *maker) string {
			return "CAPAE" + hundredths(m.dim("base")) + "X" + tallest(m.dim("height")) + m.suffix()
		},
		views: func(m *maker) []BodyView {
			b, s, t, lw, hh := m.dim("base").Middle(), m.dim("span").Middle(), m.dim("terminal").Middle(), m.dim("leadWidth").Middle(), m.dim("height").Middle()
			v := BodyView{Name: "From below"}
			v.area(styleBody, -b/2, -b/2, b/2, b/2)
			v.circle(styleLine, 0, 0, b/2-b/40)
			v.area(styleLead, -s/2, -lw/2, -s/2+t, lw/2)
			v.area(styleLead, s/2-t, -lw/2, s/2, lw/2)
			v.wide(m, "base", -b/2, b/2, b/2, b/6)
			v.wide(m, "span", -s/2, s/2, -b/2, -b/4)
			v.wide(m, "terminal", s/2-t, s/2, -b/2, -b/10)
			v.tall(m, "leadWidth", -s/2, -lw/2, lw/2, -b/6)
			side := BodyView{Name: "From the side"}
			side.area(styleBody, -b/2, 0, b/2, hh/5)
			side.area(styleLead, -b/2+b/40, hh/5, b/2-b/40, hh)
			side.tall(m, "height", b/2, 0, hh, b/6)
			return []BodyView{v, side}
		},
	}
}

func (m *maker) canLead() lead {
	return lead{m.dim("span"), m.dim("terminal"), m.dim("leadWidth")}
}

// twoEnds makes the two lands of a body so long and wide.
func (m *maker) twoEnds(l lead, g goal, as profile, long, wide int64) {
	j := g.at(m.r.Density)
	m.excess = j.yard
	m.polar = m.choice("polar") == "yes"
	p := m.pair(l.solve(j, &m.r.Making), "", "", m.r.Making.Gap)
	m.joint("Terminal", l, p, j, as)
	for i, x := range []int64{-p.span / 2, p.span / 2} {
		m.pad(m.surface(number(i+1), x, 0, p.length, p.width))
	}
	m.outline = rectangle(long, wide)
	m.marked = -1
	if m.polar {
		m.marked = 0
	}
}

// solidEnds is a body with metal ends.
func (m *maker) solidEnds() {
	l, w, t, hh := m.dim("length").Middle(), m.dim("width").Middle(), m.dim("terminal").Middle(), m.dim("height").Middle()
	what := "ceramic"
	if m.choice("kind") == "RES" {
		what = "body"
	}
	m.box(what, -l/2+t, -w/2, l/2-t, w/2, 0, hh)
	m.box("lead", -l/2, -w/2, -l/2+t, w/2, 0, hh)
	m.box("lead", l/2-t, -w/2, l/2, w/2, 0, hh)
}

// surface is a pad without a hole, of the recipe's form.
func (m *maker) surface(number string, x, y, w, h int64) design.Pad {
	p := design.Pad{Number: number, Form: m.r.Making.Form, At: geom.Pt(x, y), Size: geom.Pt(w, h)}
	if p.Form == design.Rounded { // a quarter of the lesser side, 0.25 mm at most
		p.Corner = min(min(w, h)/4, 250_000)
	}
	return p
}
