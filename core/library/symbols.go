package library

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// pts makes points from millimetres, pair by pair.
func pts(mm ...float64) []geom.Point {
	out := make([]geom.Point, 0, len(mm)/2)
	for i := 0; i+1 < len(mm); i += 2 {
		out = append(out, geom.Pt(units.MMf(mm[i]), units.MMf(mm[i+1])))
	}
	return out
}

func line(mm ...float64) design.Figure  { return design.Figure{Form: "line", Pts: pts(mm...)} }
func area(mm ...float64) design.Figure  { return design.Figure{Form: "area", Pts: pts(mm...)} }
func solid(mm ...float64) design.Figure { return design.Figure{Form: "solid", Pts: pts(mm...)} }
func circle(x, y, r float64) design.Figure {
	return design.Figure{Form: "circle", Pts: pts(x, y), R: units.MMf(r)}
}

func box(x0, y0, x1, y1 float64) design.Figure { return area(x0, y0, x1, y0, x1, y1, x0, y1) }

func pin(number, name, kind string, x, y float64, turn int, length float64) design.Pin {
	return design.Pin{Number: number, Name: name, Type: kind, At: pts(x, y)[0], Turn: turn, Length: units.MMf(length)}
}

func twoPins(length float64) []design.Pin {
	return []design.Pin{pin("1", "", "passive", -5, 0, 0, length), pin("2", "", "passive", 5, 0, 2, length)}
}

// Texts of two-pin parts stand above and below the body.
func named(s *design.Symbol, dx, dy, vx, vy float64) *design.Symbol {
	s.DesignatorAt, s.ValueAt = pts(dx, dy)[0], pts(vx, vy)[0]
	return s
}

func symbols() map[string]*design.Symbol {
	out := map[string]*design.Symbol{}
	add := func(s *design.Symbol) { out[s.Name] = s }

	add(named(&design.Symbol{Name: "Resistor", Pins: twoPins(1.875), Figures: []design.Figure{box(-3.125, -1.25, 3.125, 1.25)}}, 0, 3.2, 0, -3.3))
	add(named(&design.Symbol{Name: "Capacitor", Pins: twoPins(4.4), Figures: []design.Figure{
		line(-0.6, -2.5, -0.6, 2.5), line(0.6, -2.5, 0.6, 2.5)}}, 0, 4.5, 0, -4.6))
	add(named(&design.Symbol{Name: "Electrolytic capacitor", Pins: twoPins(3.8), Figures: []design.Figure{
		box(-1.2, -2.5, -0.5, 2.5), solid(0.5, -2.5, 1.2, -2.5, 1.2, 2.5, 0.5, 2.5),
		line(-3, 1.1, -1.8, 1.1), line(-2.4, 0.5, -2.4, 1.7)}}, 0, 4.5, 0, -4.6))
	diode := []design.Figure{area(-1.6, -1.9, -1.6, 1.9, 1.6, 0), line(1.6, -1.9, 1.6, 1.9), line(-1.6, 0, 1.6, 0)}
	diodePins := []design.Pin{pin("1", "A", "passive", -5, 0, 0, 3.4), pin("2", "K", "passive", 5, 0, 2, 3.4)}
	add(named(&design.Symbol{Name: "Diode", Pins: diodePins, Figures: diode}, 0, 3.3, 0, -3.3))
	ray := func(x, y float64) []design.Figure {
		return []design.Figure{line(x, y, x+1.5, y+1.5), solid(x+1.9, y+1.9, x+0.95, y+1.5, x+1.5, y+0.95)}
	}
	add(named(&design.Symbol{Name: "LED", Pins: diodePins, Figures: append(append(append([]design.Figure{}, diode...), ray(-0.4, 2)...), ray(1.2, 2)...)}, -2.2, 4.6, 0, -3.3))
	bipolar := func(name string, arrow design.Figure) {
		add(named(&design.Symbol{Name: name, Pins: []design.Pin{
			pin("1", "C", "passive", 2.5, 5, 3, 2.4), pin("2", "B", "input", -5, 0, 0, 3.9), pin("3", "E", "passive", 2.5, -5, 1, 2.4)},
			Figures: []design.Figure{circle(0.75, 0, 3.5), line(-1.1, -2, -1.1, 2), line(-1.1, 0.9, 2.5, 2.6), line(-1.1, -0.9, 2.5, -2.6), arrow}}, 7.2, 1.3, 7.2, -1.3))
	}
	bipolar("NPN transistor", solid(1.75, -2.25, 0.35, -2.2, 0.85, -1.2))
	bipolar("PNP transistor", solid(-0.2, -1.35, 1.2, -1.45, 0.7, -2.4))
	add(named(&design.Symbol{Name: "Switch", Pins: twoPins(2.5), Figures: []design.Figure{
		line(-2.5, 0, 2.1, 1.9), line(2.5, 0, 2.5, 0.7), line(0, 1, 0, 3), line(-0.8, 3, 0.8, 3)}}, 0, 5.2, 0, -2.4))
	terminal := func(n int) {
		h := 2.5 * float64(n)
		s := &design.Symbol{Name: fmt.Sprintf("Terminal %d", n), Figures: []design.Figure{box(-2.5, -h, 2.5, h)}}
		for i := range n {
			y := h - 2.5 - 5*float64(i)
			s.Pins = append(s.Pins, pin(fmt.Sprint(i+1), "", "passive", 5, y, 2, 2.5))
			s.Figures = append(s.Figures, circle(0.4, y, 1.2), line(-0.45, y-0.85, 1.25, y+0.85))
		}
		add(named(s, 0, h+1.9, 0, -h-2))
	}
	terminal(2)
	header := func(n int) {
		top := 2.5 * float64(n/2)
		foot := top - 2.5*float64(n-1)
		s := &design.Symbol{Name: fmt.Sprintf("Header %d", n), Figures: []design.Figure{box(-2.5, foot-1.25, 1.25, top+1.25)}}
		for i := range n {
			y := top - 2.5*float64(i)
			s.Pins = append(s.Pins, pin(fmt.Sprint(i+1), "", "passive", 5, y, 2, 3.75))
			s.Figures = append(s.Figures, solid(-0.9, y-0.4, 0.5, y-0.4, 0.5, y+0.4, -0.9, y+0.4))
		}
		add(named(s, -0.6, top+2.7, -0.6, foot-2.7))
	}
	for _, n := range []int{2, 4, 6, 10} {
		header(n)
	}
	chip := func(name string, left, right []design.Pin) { add(chipSymbol(name, 7.5, left, right)) }
	p := func(number, name, kind string) design.Pin { return design.Pin{Number: number, Name: name, Type: kind} }
	chip("Dual amplifier",
		[]design.Pin{p("3", "1+", "input"), p("2", "1−", "input"), p("5", "2+", "input"), p("6", "2−", "input")},
		[]design.Pin{p("8", "V+", "supplyIn"), p("1", "1 out", "output"), p("7", "2 out", "output"), p("4", "V−", "supplyIn")})
	chip("Shift register",
		[]design.Pin{p("14", "DATA", "input"), p("11", "SHIFT", "input"), p("12", "STORE", "input"), p("10", "CLEAR", "input"), p("13", "OUT EN", "input"), p("16", "VCC", "supplyIn"), p("8", "GND", "supplyIn")},
		[]design.Pin{p("15", "Q0", "output"), p("1", "Q1", "output"), p("2", "Q2", "output"), p("3", "Q3", "output"), p("4", "Q4", "output"), p("5", "Q5", "output"), p("6", "Q6", "output"), p("7", "Q7", "output"), p("9", "CARRY", "output")})
	for _, s := range slices.Concat(fieldSymbols(), shapedSymbols(), switchSymbols()) {
		add(s)
	}
	terminal(3)
	return out
}
