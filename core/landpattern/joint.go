package landpattern

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Joint is how much solder stands around a terminal on its land, at least and at most within the body's
// tolerances, and what the density asks for.
type Joint struct {
	Words string       `json:"words"`
	Outer design.Range `json:"outer"` // beyond the terminal's outer end: the toe; of J leads the heel
	Inner design.Range `json:"inner"`
	Side  design.Range `json:"side"`
	Goal  [3]int64     `json:"goal"` // outer, inner, side
}

// Profiles of terminals, as a section shows them.
type profile int

const (
	block  profile = iota // a metal end, as of a chip
	gull                  // a foot that comes down from the body
	flat                  // a land on the body's underside
	jLead                 // bent back beneath the body
	inward                // a strap bent beneath the body
)

// joint notes how much solder stands around a pair's terminals, and draws its sections.
func (m *maker) joint(words string, l lead, p pair, j fillet, as profile) {
	smin, smax, _ := l.inner()
	m.out.Joints = append(m.out.Joints, Joint{
		Words: words,
		Outer: design.Range{Min: p.outer() - l.span.Max/2, Max: p.outer() - l.span.Min/2},
		Inner: design.Range{Min: int64(smin)/2 - p.inner(), Max: int64(smax)/2 - p.inner()},
		Side:  design.Range{Min: (p.width - l.width.Max) / 2, Max: (p.width - l.width.Min) / 2},
		Goal:  [3]int64{j.outer, j.inner, j.side},
	})
	m.sections = append(m.sections, m.along(words, l, p, as), m.across(words, l, p))
}

const foil = 70_000 // copper is drawn so thick in sections, twice its true thickness, to be seen

// along is the section through terminal and land along the lead; outwards is to the right, the terminal's outer
// end at nothing.
func (m *maker) along(words string, l lead, p pair, as profile) BodyView {
	v := BodyView{Name: words + ", along", Section: true}
	long, end := l.length.Middle(), l.span.Middle()/2
	outer, inner := p.outer()-end, p.inner()-end // as seen from the terminal's outer end
	height := min(max(m.dim("height").Middle(), 300_000), 4*long)
	thick := max(min(long/4, 200_000), 60_000)
	left := min(inner, -long) - max(300_000, long/2)
	right := max(outer, 0) + 300_000
	v.area(styleBoard, left, -foil-300_000, right, -foil)
	v.area(styleCopper, inner, -foil, outer, 0)
	rise := height // how high solder climbs at the outer end
	switch as {
	case block:
		v.area(styleBody, left, 0, -long, height)
		v.area(styleLead, -long, 0, 0, height)
		rise = height * 2 / 3
	case gull:
		v.poly(styleLead, 0, 0, 0, thick, -long+thick, thick, -long-thick, height/2+thick, left, height/2+thick, left, height/2, -long-2*thick, height/2, -long, 0)
		rise = thick
	case flat:
		v.area(styleBody, left, thick/2, 0, height)
		v.area(styleLead, -long, 0, 0, thick)
		rise = thick
	case jLead:
		v.poly(styleLead, 0, height/2, -thick, height/2, -thick, thick*2, -long/2, thick, -long, thick*2, -long, thick, -long/2, 0, 0, thick)
		v.area(styleBody, left, height/3, -thick, height)
		rise = height / 3
	case inward:
		v.area(styleBody, left, thick*3/2, -thick, height)
		v.poly(styleLead, 0, 0, 0, height/2, -thick, height/2, -thick, thick, -long, thick, -long, 0)
		rise = height / 3
	}
	if outer > 0 {
		v.fillet(0, outer, rise)
	}
	if inner < -long {
		v.fillet(-long, inner, thick)
	}
	v.say("toe", 0, outer, -foil-300_000, -1)
	v.say("heel", inner, -long, -foil-300_000, -1)
	if as == jLead {
		v.Dims[0].Words, v.Dims[1].Words = "heel", "toe"
	}
	return v
}

// across is the section across the lead.
func (m *maker) across(words string, l lead, p pair) BodyView {
	v := BodyView{Name: words + ", across", Section: true}
	w, x := l.width.Middle()/2, p.width/2
	edge := max(w, x) + 250_000
	thick := max(min(l.length.Middle()/4, 200_000), 60_000)
	v.area(styleBoard, -edge, -foil-300_000, edge, -foil)
	v.area(styleCopper, -x, -foil, x, 0)
	v.area(styleLead, -w, 0, w, thick)
	if x > w {
		v.fillet(w, x, thick*2/3)
		v.fillet(-w, -x, thick*2/3)
	}
	v.say("side", w, x, -foil-300_000, -1)
	return v
}

// fillet draws solder from the foot of a wall at one place out to another, hollow as solder is.
func (v *BodyView) fillet(wall, out, high int64) {
	pts := []geom.Point{geom.Pt(wall, 0)}
	const steps = 8
	for i := range steps + 1 {
		t := float64(i) / steps // along the land; the height falls as its square
		pts = append(pts, geom.Pt(wall+int64(t*float64(out-wall)), int64(float64(high)*(1-t)*(1-t))))
	}
	v.Strokes = append(v.Strokes, Stroke{Form: "area", Pts: pts, Style: styleSolder})
}

// say draws a measured dimension below a section.
func (v *BodyView) say(words string, a, b, y int64, way int64) {
	v.Dims = append(v.Dims, DimLine{
		Words: words,
		A:     geom.Pt(a, y),
		B:     geom.Pt(b, y),
		Off:   geom.Pt(0, way*200_000),
		Text:  units.Text(b - a),
	})
}
