package landpattern

import (
	"fmt"

	"goldentrace/core/units"
)

// Transistor outlines: a few leads on the left, fewer or a tab on the right, or one lead wider than the others.

// leadsOf are the places of leads on a side, in pitches from its upper end.
type leadsOf struct {
	left, right []int
	places      int  // of the longer side
	tab         bool // the right side is a tab
	wide        bool // lead 1 is wider
}

var arrangements = map[string]leadsOf{
	"2+1":      {left: []int{0, 2}, right: []int{1}, places: 3},
	"2+2":      {left: []int{0, 1}, right: []int{1, 0}, places: 2},
	"2+2 wide": {left: []int{0, 1}, right: []int{1, 0}, places: 2, wide: true},
	"3+2":      {left: []int{0, 1, 2}, right: []int{2, 0}, places: 3},
	"3+3":      {left: []int{0, 1, 2}, right: []int{2, 1, 0}, places: 3},
	"4+4":      {left: []int{0, 1, 2, 3}, right: []int{3, 2, 1, 0}, places: 4},
	"3+tab":    {left: []int{0, 1, 2}, places: 3, tab: true},
	"2+tab":    {left: []int{0, 2}, places: 3, tab: true},
	"5+tab":    {left: []int{0, 1, 2, 3, 4}, places: 5, tab: true},
	"7+tab":    {left: []int{0, 1, 2, 3, 4, 5, 6}, places: 7, tab: true},
}

func transistorFamily() *Family {
	f := &Family{
		ID: "transistor", Words: "Transistor outline", Group: twoRows,
		Example: example(nil, rowExample(3, [2]float64{2.1, 2.64}, [2]float64{1.2, 1.4}, [2]float64{2.8, 3.04}, [2]float64{0.4, 0.6}, [2]float64{0.3, 0.51}, [2]float64{0.89, 1.12}, 0.95)),
		Dims:    rowDims,
		Choices: []Choice{
			{"leads", "leads", options("2+1", "two and one", "2+2", "two and two", "2+2 wide", "two and two, lead 1 wider", "3+2", "three and two",
				"3+3", "three and three", "4+4", "four and four", "3+tab", "three and a tab", "2+tab", "two and a tab, the middle one cut off",
				"5+tab", "five and a tab", "7+tab", "seven and a tab")},
			{"kind", "kind of outline", options("SOT", "small outline", "TO", "with a large tab")},
		},
		check: func(m *maker) error {
			a := m.arranged()
			if err := m.rowLead().hold("span", "distance over the leads", "leadLength", "lead"); err != nil {
				return err
			}
			if m.dim("bodyWidth").Max >= m.dim("span").Min {
				return impossible("span", "the distance over the leads (%s) is not more than the width of the body (%s): leads would not reach beyond it",
					units.Text(m.dim("span").Min), units.Text(m.dim("bodyWidth").Max))
			}
			switch {
			case a.tab && !(m.has("tabWidth") && m.has("tabLength")):
				return impossible("tabWidth", "a tab needs its width and length")
			case !a.tab && (m.has("tabWidth") || m.has("tabLength")):
				return impossible("tabWidth", "there is no tab that could be so wide")
			case a.wide && !m.has("wideWidth"):
				return impossible("wideWidth", "the wider lead needs its width")
			case !a.wide && m.has("wideWidth"):
				return impossible("wideWidth", "there is no wider lead")
			case a.tab && m.dim("tabLength").Max+m.dim("leadLength").Max >= m.dim("span").Min:
				return impossible("tabLength", "tab and leads together are longer than the distance over the leads")
			case a.wide && (m.dim("wideWidth").Max+m.dim("leadWidth").Max)/2 >= m.dim("pitch").Min:
				return impossible("wideWidth", "a lead %s wide touches its neighbour", units.Text(m.dim("wideWidth").Max))
			}
			return m.checkRow(a.places, "bodyLength")
		},
		make: (*maker).transistor,
		name: func(m *maker) string {
			a := m.arranged()
			n := len(a.left) + len(a.right)
			if a.tab {
				n++
			}
			return fmt.Sprintf("%s%sP%sX%s-%d%s", m.choice("kind"), hundredths(m.dim("pitch")), hundredths(m.dim("span")), tallest(m.dim("height")), n-len(m.left), m.suffix())
		},
		views: (*maker).transistorViews,
	}
	return f.optional("tabWidth", "width of the tab", "tabLength", "length of the tab on the board", "wideWidth", "width of the wider lead")
}

func (m *maker) arranged() leadsOf { return arrangements[m.choice("leads")] }

func (m *maker) transistor() error {
	a := m.arranged()
	g := gullGoal
	if m.dim("pitch").Middle() <= mm(0.625) {
		g = gullFineGoal
	}
	j := g.at(m.r.Density)
	m.excess = j.yard
	l := m.rowLead()
	land := l.solve(j, &m.r.Making)
	pitch := m.use("pitch", "pitch", m.dim("pitch").Middle())
	y := func(place int) int64 { return pitch*int64(a.places-1)/2 - pitch*int64(place) }
	m.narrow(&land, pitch)
	p := m.pair(land, "", "", m.r.Making.Gap)
	m.joint("Lead", l, p, j, gull)
	first := p.width
	if a.wide {
		w := lead{l.span, l.length, m.dim("wideWidth")}.solve(j, &m.r.Making)
		if most := 2*pitch - 2*m.r.Making.Gap - p.width; w.x > float64(most) {
			w.x = float64(most)
			m.note("The land of the wider lead is kept to %s, clear of its neighbour.", units.Text(most))
		}
		first = m.use("padWidthWide", "pad width, wider lead", round(w.x, m.r.Making.Round))
	}
	for i, place := range a.left {
		w := p.width
		if i == 0 {
			w = first
		}
		m.pad(m.surface(number(i+1), -p.span/2, y(place), p.length, w))
	}
	for i, place := range a.right {
		m.pad(m.surface(number(len(a.left)+i+1), p.span/2, y(place), p.length, p.width))
	}
	if a.tab {
		jt := lugGoal.at(m.r.Density)
		tab := lead{m.dim("span"), m.dim("tabLength"), m.dim("tabWidth")}
		t := tab.solve(jt, &m.r.Making)
		outer := round(t.z, 2*m.r.Making.Round)
		inner := round(t.g, 2*m.r.Making.Round) // of a tab that reaches beyond the middle, less than nothing
		if least := -p.span + p.length + 2*m.r.Making.Gap; inner < least {
			inner = up(float64(least), 2*m.r.Making.Round)
			m.note("The land of the tab keeps %s from the leads'.", units.Text(m.r.Making.Gap))
		}
		long := m.use("tabPadLength", "length of the tab's land", (outer-inner)/2)
		wide := m.use("tabPadWidth", "width of the tab's land", round(t.x, m.r.Making.Round))
		at := m.use("tabPadAt", "middle of the tab's land", (outer+inner)/4)
		pad := m.surface(number(len(a.left)+1), at, 0, long, wide)
		m.pad(pad)
		tp := pair{long, wide, 2 * at}
		m.joint("Tab", tab, tp, jt, gull)
	}
	m.outline = rectangle(m.dim("bodyWidth").Max, m.dim("bodyLength").Max)
	m.marked = 0
	w, hh := m.dim("bodyWidth").Middle(), m.dim("height").Middle()
	m.moulding(w, m.dim("bodyLength").Middle(), hh, gull)
	end, t, b := m.dim("span").Middle()/2, m.dim("leadLength").Middle(), m.dim("leadWidth").Middle()
	for i, place := range a.left {
		width := b
		if i == 0 && a.wide {
			width = m.dim("wideWidth").Middle()
		}
		m.leadSolid(gull, -1, 0, end, t, width, y(place), w/2, hh)
	}
	for _, place := range a.right {
		m.leadSolid(gull, 1, 0, end, t, b, y(place), w/2, hh)
	}
	if a.tab {
		m.box("lead", end-m.dim("tabLength").Middle(), -m.dim("tabWidth").Middle()/2, end, m.dim("tabWidth").Middle()/2, 0, min(hh/4, 500_000))
	}
	return nil
}

func (m *maker) transistorViews() []BodyView {
	a := m.arranged()
	s, w, d := m.dim("span").Middle(), m.dim("bodyWidth").Middle(), m.dim("bodyLength").Middle()
	t, b, e, hh := m.dim("leadLength").Middle(), m.dim("leadWidth").Middle(), m.dim("pitch").Middle(), m.dim("height").Middle()
	v := BodyView{Name: "From above"}
	y := func(place int) int64 { return e*int64(a.places-1)/2 - e*int64(place) }
	u := max(s, d) / 7
	for i, place := range a.left {
		x := b
		if i == 0 && a.wide {
			x = m.dim("wideWidth").Middle()
			v.tall(m, "wideWidth", -s/2, y(0)-x/2, y(0)+x/2, -2*u)
		}
		v.area(styleLead, -s/2, y(place)-x/2, max(-w/2, t-s/2), y(place)+x/2)
	}
	for _, place := range a.right {
		v.area(styleLead, min(w/2, s/2-t), y(place)-b/2, s/2, y(place)+b/2)
	}
	if a.tab {
		tw, tl := m.dim("tabWidth").Middle(), m.dim("tabLength").Middle()
		v.area(styleLead, s/2-tl, -tw/2, s/2, tw/2)
		v.tall(m, "tabWidth", s/2, -tw/2, tw/2, u)
		v.wide(m, "tabLength", s/2-tl, s/2, -d/2, -u)
	}
	v.area(styleBody, -w/2, -d/2, w/2, d/2)
	for _, place := range a.left {
		v.foot(t-s/2, y(place), b)
	}
	for _, place := range a.right {
		v.foot(s/2-t, y(place), b)
	}
	if a.tab {
		v.foot(s/2-m.dim("tabLength").Middle(), 0, m.dim("tabWidth").Middle())
	}
	v.circle(styleLine, -w/2+w/8, d/2-w/8, w/24)
	v.wide(m, "span", -s/2, s/2, d/2, 2*u)
	v.wide(m, "bodyWidth", -w/2, w/2, d/2, u)
	v.tall(m, "bodyLength", s/2, -d/2, d/2, 2*u)
	if a.left[1]-a.left[0] == 1 || len(a.left) > 1 {
		v.tall(m, "pitch", -s/2, y(1), y(0), -u)
	}
	v.wide(m, "leadLength", -s/2, -s/2+t, -d/2, -u)
	last := a.left[len(a.left)-1]
	v.tall(m, "leadWidth", -s/2, y(last)-b/2, y(last)+b/2, -2*u)
	side := BodyView{Name: "From the side"}
	m.sideOf(&side, gull, s, w, t, hh)
	side.tall(m, "height", s/2, 0, hh, u)
	return []BodyView{v, side}
}
