package landpattern

import (
	"fmt"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Balls or pins in a grid: rows named by letters from the top, columns by numbers from the left.

func gridCounts(cols, rows int) []Count {
	return []Count{
		{Key: "columns", Words: "columns", Least: 1, Most: 60, Usual: cols},
		{Key: "rows", Words: "rows", Least: 1, Most: 60, Usual: rows},
		{Key: "rings", Words: "rings from the outside; 0: all", Least: 0, Most: 30, Usual: 0},
	}
}

func ballGridFamily() *Family {
	f := &Family{
		ID: "ballGrid", Words: "Grid of balls", Group: grids,
		Example: example(map[string]int{"columns": 9, "rows": 9}, map[string][2]float64{
			"bodyX": {7.9, 8.1}, "bodyY": {7.9, 8.1}, "pitch": {0.8, 0.8}, "ball": {0.4, 0.5}, "height": {1, 1.2},
		}),
		Dims:   dims("bodyX", "body, left to right", "bodyY", "body, up and down", "pitch", "pitch", "ball", "diameter of a ball", "height", "height"),
		Counts: gridCounts(9, 9),
		Choices: []Choice{
			{"balls", "balls", options("collapsing", "melt and sink in", "firm", "keep their shape")},
		},
		check: func(m *maker) error { return m.checkGrid("ball", "ball") },
		make: func(m *maker) error {
			m.excess = ballYard[level(m.r.Density)]
			land := ballLand(m.dim("ball").Middle(), m.choice("balls") == "firm")
			px, py := m.gridPitch()
			if kept := min(px, py) - m.r.Making.Gap; land > kept && kept > 0 {
				kept = max(kept/m.r.Making.Round, 1) * m.r.Making.Round
				m.note("The lands would be %s; at a pitch of %s they are kept to %s.", units.Text(land), units.Text(min(px, py)), units.Text(kept))
				land = kept
			}
			size := m.use("padDiameter", "diameter of a land", land)
			m.each(func(number string, at geom.Point) {
				m.pad(design.Pad{Number: number, Form: design.Round, At: at, Size: geom.Pt(size, size)})
			})
			m.outline = rectangle(m.dim("bodyX").Max, m.dim("bodyY").Max)
			m.marked = 0
			r, hh := m.dim("ball").Middle()/2, m.dim("height").Middle()
			lift := min(r*3/2, hh/2)
			m.box("body", -m.dim("bodyX").Middle()/2, -m.dim("bodyY").Middle()/2, m.dim("bodyX").Middle()/2, m.dim("bodyY").Middle()/2, lift, hh)
			for i := range m.f.Pads {
				m.f.Solids = append(m.f.Solids, design.Solid{Form: design.Ball, Material: "lead", A: m.f.Pads[i].At, From: 0, To: lift})
			}
			m.cylinder("band", -m.dim("bodyX").Middle()*2/5, m.dim("bodyY").Middle()*2/5, m.dim("bodyX").Middle()/30, hh, hh+10_000)
			return nil
		},
		name: func(m *maker) string {
			letter := "C"
			if m.choice("balls") == "firm" {
				letter = "N"
			}
			return fmt.Sprintf("BGA%d%s%sP%dX%d_%sX%sX%s%s", len(m.f.Pads), letter, hundredths(m.dim("pitch")), m.count("columns"), m.count("rows"),
				hundredths(m.dim("bodyX")), hundredths(m.dim("bodyY")), tallest(m.dim("height")), m.suffix())
		},
		views: func(m *maker) []BodyView { return m.gridViews("ball") },
	}
	return f.optional("pitchY", "pitch up and down, where it differs")
}

func pinGridFamily() *Family {
	f := &Family{
		ID: "pinGrid", Words: "Grid of pins", Group: grids,
		Example: example(map[string]int{"columns": 10, "rows": 10, "rings": 2}, map[string][2]float64{
			"bodyX": {27, 27.4}, "bodyY": {27, 27.4}, "pitch": {2.54, 2.54}, "pin": {0.43, 0.51}, "height": {3.5, 4},
		}),
		Dims:   dims("bodyX", "body, left to right", "bodyY", "body, up and down", "pitch", "pitch", "pin", "diameter of a pin", "height", "height"),
		Counts: gridCounts(10, 10),
		check:  func(m *maker) error { return m.checkGrid("pin", "pin") },
		make: func(m *maker) error {
			m.excess = holeYard[level(m.r.Density)]
			pitch := m.dim("pitch").Middle()
			if m.has("pitchY") {
				pitch = min(pitch, m.dim("pitchY").Middle())
			}
			drill, land := m.hole(m.dim("pin").Max, pitch)
			m.each(func(number string, at geom.Point) { m.pad(m.through(number, at, drill, land)) })
			m.outline = rectangle(m.dim("bodyX").Max, m.dim("bodyY").Max)
			m.marked = 0
			m.box("ceramic", -m.dim("bodyX").Middle()/2, -m.dim("bodyY").Middle()/2, m.dim("bodyX").Middle()/2, m.dim("bodyY").Middle()/2, 500_000, m.dim("height").Middle())
			for i := range m.f.Pads {
				m.cylinder("lead", m.f.Pads[i].At.X, m.f.Pads[i].At.Y, m.dim("pin").Middle()/2, -2_500_000, 500_000)
			}
			return nil
		},
		name: func(m *maker) string {
			return fmt.Sprintf("PGA%dP%sC%dR%dL%sX%sH%s%s", len(m.f.Pads), hundredths(m.dim("pitch")), m.count("columns"), m.count("rows"),
				hundredths(m.dim("bodyX")), hundredths(m.dim("bodyY")), tallest(m.dim("height")), m.holeSuffix())
		},
		views: func(m *maker) []BodyView { return m.gridViews("pin") },
	}
	return f.optional("pitchY", "pitch up and down, where it differs")
}

// ballLand is the land for a ball (IPC-7351B table 3-17): of collapsing ones smaller than the ball by a quarter
// above 0.5 mm and by a fifth from there down; of firm ones larger by about a tenth. Rounded to 0.05 mm.
func ballLand(ball int64, firm bool) int64 {
	share := 0.8
	switch {
	case firm:
		share = 1.1
	case ball > 500_000:
		share = 0.75
	}
	return max(round(float64(ball)*share, 50_000), 50_000)
}

func (m *maker) checkGrid(key, words string) error {
	px, py := m.gridPitch()
	d := m.dim(key)
	if d.Max >= min(px, py) {
		return impossible(key, "%ss of %s at a pitch of %s would touch", words, units.Text(d.Max), units.Text(min(px, py)))
	}
	for _, x := range []struct {
		n     int
		pitch int64
		body  string
	}{{m.count("columns"), px, "bodyX"}, {m.count("rows"), py, "bodyY"}} {
		if row := int64(x.n-1)*x.pitch + d.Min; row > m.dim(x.body).Max {
			return impossible("pitch", "%d %ss at a pitch of %s take %s; the body is %s", x.n, words, units.Text(x.pitch), units.Text(row), units.Text(m.dim(x.body).Max))
		}
	}
	return nil
}

func (m *maker) gridPitch() (x, y int64) {
	x = m.dim("pitch").Middle()
	if m.has("pitchY") {
		return x, m.dim("pitchY").Middle()
	}
	return x, x
}

// each goes through the places of the grid, those of missing rings left out.
func (m *maker) each(do func(number string, at geom.Point)) {
	px, py := m.gridPitch()
	cols, rows, rings := m.count("columns"), m.count("rows"), m.count("rings")
	for r := range rows {
		for c := range cols {
			if depth := min(r, c, rows-1-r, cols-1-c); rings > 0 && depth >= rings {
				continue
			}
			do(fmt.Sprintf("%s%d", RowLetters(r), c+1), geom.Pt(-px*int64(cols-1)/2+px*int64(c), py*int64(rows-1)/2-py*int64(r)))
		}
	}
}

// rowLetters are those that are not mistaken for others or for digits (JEDEC JEP95, section 3): without I, O,
// Q, S, X and Z.
const rowLetters = "ABCDEFGHJKLMNPRTUVWY"

// RowLetters names a row of a grid, from 0: A to Y, then AA to YY.
func RowLetters(row int) string {
	if row < len(rowLetters) {
		return rowLetters[row : row+1]
	}
	row -= len(rowLetters)
	return RowLetters(row/len(rowLetters)) + RowLetters(row%len(rowLetters))
}

func (m *maker) gridViews(key string) []BodyView {
	px, py := m.gridPitch()
	w, d, r, hh := m.dim("bodyX").Middle(), m.dim("bodyY").Middle(), m.dim(key).Middle()/2, m.dim("height").Middle()
	cols, rows := m.count("columns"), m.count("rows")
	v := BodyView{Name: "From above, as through glass"}
	v.area(styleBody, -w/2, -d/2, w/2, d/2)
	missing := map[string]bool{}
	for _, s := range m.r.Missing {
		missing[s] = true
	}
	m.each(func(number string, at geom.Point) {
		if !missing[number] {
			v.circle(styleLead, at.X, at.Y, r)
		}
	})
	u := max(w, d) / 8
	x0, y0 := -px*int64(cols-1)/2, py*int64(rows-1)/2
	v.wide(m, "bodyX", -w/2, w/2, d/2, 2*u)
	v.tall(m, "bodyY", w/2, -d/2, d/2, 2*u)
	if cols > 1 {
		v.wide(m, "pitch", x0, x0+px, d/2, u)
	}
	if rows > 1 && m.has("pitchY") {
		v.tall(m, "pitchY", w/2, y0-py, y0, u)
	}
	v.wide(m, key, x0-r, x0+r, -d/2, -u)
	side := BodyView{Name: "From the side"}
	lift := min(3*r/2, hh/2)
	side.area(styleBody, -w/2, lift, w/2, hh)
	for c := range cols {
		side.circle(styleLead, x0+px*int64(c), lift/2, lift/2)
	}
	side.tall(m, "height", w/2, 0, hh, u)
	return []BodyView{v, side}
}
