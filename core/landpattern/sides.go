package landpattern

import (
	"fmt"
	"math"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Leads on all four sides; pin 1 at the top of the left side, then counter-clockwise.

func sideCounts(usual int) []Count {
	return []Count{
		{Key: "tall", Words: "leads on the left and right side, each", Least: 1, Most: 100, Usual: usual},
		{Key: "wide", Words: "leads on the upper and lower side, each", Least: 1, Most: 100, Usual: usual},
	}
}

var sideDims = dims("spanX", "distance over the leads, left to right", "spanY", "distance over the leads, up and down",
	"bodyX", "body, left to right", "bodyY", "body, up and down", "pitch", "pitch",
	"leadLength", "length of a lead's foot", "leadWidth", "width of a lead", "height", "height")

func sideExample(span, body, length, width, height [2]float64, pitch float64) map[string][2]float64 {
	return map[string][2]float64{"spanX": span, "spanY": span, "bodyX": body, "bodyY": body, "pitch": {pitch, pitch},
		"leadLength": length, "leadWidth": width, "height": height}
}

func gullFourFamily() *Family {
	f := &Family{
		ID: "gullFour", Words: "Four sides of gull-wing leads", Group: fourSides,
		Example: example(map[string]int{"tall": 12, "wide": 12},
			sideExample([2]float64{8.8, 9.2}, [2]float64{6.9, 7.1}, [2]float64{0.45, 0.75}, [2]float64{0.17, 0.27}, [2]float64{1.4, 1.6}, 0.5)),
		Dims:   sideDims,
		Counts: sideCounts(12),
		check: func(m *maker) error {
			for _, x := range [][2]string{{"spanX", "bodyX"}, {"spanY", "bodyY"}} {
				if m.dim(x[1]).Max >= m.dim(x[0]).Min {
					return impossible(x[0], "the distance over the leads (%s) is not more than the body (%s): leads would not reach beyond it",
						units.Text(m.dim(x[0]).Min), units.Text(m.dim(x[1]).Max))
				}
			}
			return m.checkSides()
		},
		make: func(m *maker) error {
			g := gullGoal
			if m.dim("pitch").Middle() <= mm(0.625) {
				g = gullFineGoal
			}
			return m.fourSides(g, gull)
		},
		name:  func(m *maker) string { return m.sideName("QFP", "spanX", "spanY") },
		views: func(m *maker) []BodyView { return m.sideViews(gull) },
	}
	return f.withThermal()
}

func noLeadFourFamily() *Family {
	f := &Family{
		ID: "noLeadFour", Words: "Four sides of lands, no leads", Group: fourSides,
		Example: example(map[string]int{"tall": 8, "wide": 8}, map[string][2]float64{
			"bodyX": {4.9, 5.1}, "bodyY": {4.9, 5.1}, "pitch": {0.5, 0.5}, "leadLength": {0.3, 0.5}, "leadWidth": {0.18, 0.3}, "height": {0.8, 1},
			"thermalLength": {3.2, 3.4}, "thermalWidth": {3.2, 3.4},
		}),
		Dims: dims("bodyX", "body, left to right", "bodyY", "body, up and down", "pitch", "pitch",
			"leadLength", "length of a land", "leadWidth", "width of a land", "height", "height"),
		Counts: sideCounts(8),
		check:  func(m *maker) error { return m.checkSides() },
		make:   func(m *maker) error { return m.fourSides(noLeadGoal, flat) },
		name:   func(m *maker) string { return m.sideName("QFN", "bodyX", "bodyY") },
		views:  func(m *maker) []BodyView { return m.sideViews(flat) },
	}
	return f.withThermal()
}

func jLeadFourFamily() *Family {
	return &Family{
		ID: "jLeadFour", Words: "Four sides of J leads", Group: fourSides,
		Example: example(map[string]int{"tall": 5, "wide": 5},
			sideExample([2]float64{9.78, 10.03}, [2]float64{8.89, 9.04}, [2]float64{1.5, 2}, [2]float64{0.33, 0.53}, [2]float64{4.2, 4.57}, 1.27)),
		Dims:   sideDims,
		Counts: sideCounts(5),
		check:  func(m *maker) error { return m.checkSides() },
		make:   func(m *maker) error { return m.fourSides(jGoal, jLead) },
		name:   func(m *maker) string { return m.sideName("PLCC", "spanX", "spanY") },
		views:  func(m *maker) []BodyView { return m.sideViews(jLead) },
	}
}

func (m *maker) sideName(what, x, y string) string {
	n := 2*(m.count("tall")+m.count("wide")) - len(m.left)
	if m.has("thermalLength") {
		n++
	}
	return fmt.Sprintf("%s%sP%sX%sX%s-%d%s", what, hundredths(m.dim("pitch")), hundredths(m.dim(x)), hundredths(m.dim(y)), tallest(m.dim("height")), n, m.suffix())
}

// sideLead is the pair left and right (x) or up and down.
func (m *maker) sideLead(axis string) (l lead, key string) {
	key = "body" + axis
	if m.has("span" + axis) {
		key = "span" + axis
	}
	return lead{m.dim(key), m.dim("leadLength"), m.dim("leadWidth")}, key
}

func (m *maker) checkSides() error {
	for _, axis := range []string{"X", "Y"} {
		l, key := m.sideLead(axis)
		if err := l.hold(key, "distance over the leads", "leadLength", "lead"); err != nil {
			return err
		}
	}
	if err := m.checkRow(m.count("tall"), "bodyY"); err != nil {
		return err
	}
	if err := m.checkRow(m.count("wide"), "bodyX"); err != nil {
		return err
	}
	return m.checkThermal("bodyY", "bodyX")
}

// fourSides makes lands on four sides. Where rows meet at a corner the inner ends give way, so that the gap is kept.
func (m *maker) fourSides(g goal, as profile) error {
	j := g.at(m.r.Density)
	m.excess = j.yard
	lx, _ := m.sideLead("X")
	ly, _ := m.sideLead("Y")
	landX, landY := lx.solve(j, &m.r.Making), ly.solve(j, &m.r.Making)
	pitch := m.use("pitch", "pitch", m.dim("pitch").Middle())
	m.narrow(&landX, pitch)
	landY.x = landX.x
	nt, nw := m.count("tall"), m.count("wide")
	thermal := m.thermalSize("thermalWidth", "thermalLength")
	gap := m.r.Making.Gap
	leastX, leastY := gap, gap
	if thermal.X > 0 {
		leastX, leastY = thermal.X+2*gap, thermal.Y+2*gap
	}
	// the ends of the rows, at the corners: the gap between two lands that lie diagonally
	corner := int64(math.Ceil(float64(gap) / math.Sqrt2))
	wide := up(landX.x, m.r.Making.Round)
	leastX = max(leastX, pitch*int64(nw-1)+wide+2*corner)
	leastY = max(leastY, pitch*int64(nt-1)+wide+2*corner)
	suffix, words := "", ""
	square := lx == ly && nt == nw
	if !square {
		suffix, words = "X", ", left and right"
	}
	px := m.pair(landX, suffix, words, leastX)
	py := px
	if !square {
		py = m.pair(landY, "Y", ", up and down", leastY)
	}
	m.joint("Lead", lx, px, j, as)
	i := 0
	next := func(x, y, w, hh int64) {
		i++
		m.pad(m.surface(number(i), x, y, w, hh))
	}
	for k := range nt {
		next(-px.span/2, pitch*int64(nt-1)/2-pitch*int64(k), px.length, px.width)
	}
	for k := range nw {
		next(-pitch*int64(nw-1)/2+pitch*int64(k), -py.span/2, py.width, py.length)
	}
	for k := range nt {
		next(px.span/2, -pitch*int64(nt-1)/2+pitch*int64(k), px.length, px.width)
	}
	for k := range nw {
		next(pitch*int64(nw-1)/2-pitch*int64(k), py.span/2, py.width, py.length)
	}
	m.outline = rectangle(m.dim("bodyX").Max, m.dim("bodyY").Max)
	m.marked = 0
	m.thermal(thermal, 2*(nt+nw)+1)
	m.sideSolids(as, pitch, nt, nw)
	return nil
}

func (m *maker) sideSolids(as profile, pitch int64, nt, nw int) {
	w, d, hh := m.dim("bodyX").Middle(), m.dim("bodyY").Middle(), m.dim("height").Middle()
	m.moulding(w, d, hh, as)
	t, b := m.dim("leadLength").Middle(), m.dim("leadWidth").Middle()
	_, kx := m.sideLead("X")
	_, ky := m.sideLead("Y")
	for _, s := range []int64{-1, 1} {
		for i := range nt {
			m.leadSolid(as, s, 0, m.dim(kx).Middle()/2, t, b, pitch*int64(nt-1)/2-pitch*int64(i), w/2, hh)
		}
		for i := range nw {
			m.leadSolid(as, s, 1, m.dim(ky).Middle()/2, t, b, pitch*int64(nw-1)/2-pitch*int64(i), d/2, hh)
		}
	}
}

func (m *maker) sideViews(as profile) []BodyView {
	nt, nw := m.count("tall"), m.count("wide")
	_, kx := m.sideLead("X")
	_, ky := m.sideLead("Y")
	sx, sy, w, d := m.dim(kx).Middle(), m.dim(ky).Middle(), m.dim("bodyX").Middle(), m.dim("bodyY").Middle()
	t, b, e, hh := m.dim("leadLength").Middle(), m.dim("leadWidth").Middle(), m.dim("pitch").Middle(), m.dim("height").Middle()
	v := BodyView{Name: "From above"}
	if as == flat {
		v.Name = "From below, as through glass"
		v.area(styleBody, -w/2, -d/2, w/2, d/2)
	}
	at := func(i, n int) int64 { return e*int64(n-1)/2 - e*int64(i) }
	innerX, innerY := sx/2-t, sy/2-t // where leads end in the drawing: those that carry a body go to it
	if as != flat {
		innerX, innerY = min(innerX, w/2), min(innerY, d/2)
	}
	for _, s := range []int64{-1, 1} {
		for i := range nt {
			v.area(styleLead, s*sx/2, at(i, nt)-b/2, s*innerX, at(i, nt)+b/2)
		}
		for i := range nw {
			v.area(styleLead, at(i, nw)-b/2, s*sy/2, at(i, nw)+b/2, s*innerY)
		}
	}
	if as != flat {
		v.area(styleBody, -w/2, -d/2, w/2, d/2)
		for _, s := range []int64{-1, 1} {
			for i := range nt {
				v.foot(s*(sx/2-t), at(i, nt), b)
			}
			for i := range nw {
				v.line(styleLine, at(i, nw)-b/2, s*(sy/2-t), at(i, nw)+b/2, s*(sy/2-t))
			}
		}
	}
	v.circle(styleLine, -w/2+w/8, d/2-w/8, w/30)
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
	u := max(sx, sy) / 8
	if kx == "spanX" {
		v.wide(m, "spanX", -sx/2, sx/2, sy/2, 2*u)
		v.tall(m, "spanY", sx/2, -sy/2, sy/2, 2*u)
	}
	v.wide(m, "bodyX", -w/2, w/2, sy/2, u)
	v.tall(m, "bodyY", sx/2, -d/2, d/2, u)
	if nt > 1 {
		v.tall(m, "pitch", -sx/2, at(1, nt), at(0, nt), -u)
	}
	v.wide(m, "leadLength", -sx/2, -sx/2+t, -sy/2, -u)
	v.tall(m, "leadWidth", -sx/2, at(nt-1, nt)-b/2, at(nt-1, nt)+b/2, -u)
	side := BodyView{Name: "From the side"}
	m.sideOf(&side, as, sx, w, t, hh)
	side.tall(m, "height", max(sx, w)/2, 0, hh, u)
	return []BodyView{v, side}
}

// prism and its like add solids to the body in space.
func (m *maker) prism(material string, edge []geom.Corner, from, to int64) {
	if from < to {
		m.f.Solids = append(m.f.Solids, design.Solid{Form: design.Prism, Material: material, Edge: edge, From: from, To: to})
	}
}

func (m *maker) box(material string, x0, y0, x1, y1, from, to int64) {
	if x0 < x1 && y0 < y1 {
		m.prism(material, geom.Corners(geom.Pt(x0, y0), geom.Pt(x1, y0), geom.Pt(x1, y1), geom.Pt(x0, y1)), from, to)
	}
}

// boxAt is a box about a middle.
func (m *maker) boxAt(material string, x, y, w, d, from, to int64) {
	m.box(material, x-w/2, y-d/2, x+w/2, y+d/2, from, to)
}

func (m *maker) cylinder(material string, x, y, r, from, to int64) {
	if r > 0 {
		m.prism(material, round2(geom.Pt(x, y), r), from, to)
	}
}

// rod lies along x from one place to another, its lower side on the board but for a rise.
func (m *maker) rod(material string, x0, x1, y, d, rise int64) {
	if x0 < x1 && d > 0 {
		m.f.Solids = append(m.f.Solids, design.Solid{Form: design.Rod, Material: material, A: geom.Pt(x0, y), B: geom.Pt(x1, y), From: rise, To: rise + d})
	}
}

// round2 is a circle as two arcs.
func round2(c geom.Point, r int64) []geom.Corner {
	return []geom.Corner{
		geom.Pt(c.X+r, c.Y).Through(geom.Pt(c.X, c.Y+r)),
		geom.Pt(c.X-r, c.Y).Through(geom.Pt(c.X, c.Y-r)),
	}
}
