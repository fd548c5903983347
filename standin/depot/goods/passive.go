package goods

import (
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"goldentrace/core/ordering"
	"goldentrace/core/units"
)

// Series of preferred values (IEC 60063).
var (
	e3  = []float64{1, 2.2, 4.7}
	e6  = []float64{1, 1.5, 2.2, 3.3, 4.7, 6.8}
	e12 = []float64{1, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2}
	e24 = []float64{1, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2, 2.2, 2.4, 2.7, 3, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8, 7.5, 8.2, 9.1}
)

// e96 follows from its rule: the 96th roots of ten, to two places.
var e96 = func() (out []float64) {
	for i := range 96 {
		out = append(out, math.Round(math.Pow(10, float64(i)/96)*100)/100)
	}
	return out
}()

// values of a series from the least to the most, both included.
func values(series []float64, least, most float64) (out []float64) {
	for power := math.Floor(math.Log10(least)); power <= math.Log10(most)+1; power++ {
		for _, s := range series {
			v := s * math.Pow(10, power)
			v, _ = strconv.ParseFloat(strconv.FormatFloat(v, 'e', 4, 64), 64) // as it would be written
			if v >= least*(1-1e-9) && v <= most*(1+1e-9) {
				out = append(out, v)
			}
		}
	}
	return out
}

// code of a value in a part number: 4R70, 10K0, 2U20.
func code(v float64, point string) string {
	letter, power := point, 0
	for _, p := range []struct {
		letter string
		power  int
	}{{"P", -12}, {"N", -9}, {"U", -6}, {"M", -3}, {point, 0}, {"K", 3}, {"M", 6}} {
		if v >= math.Pow10(p.power)*(1-1e-9) {
			letter, power = p.letter, p.power
		}
	}
	s := strconv.FormatFloat(v/math.Pow10(power), 'f', 3, 64)
	whole, rest, _ := strings.Cut(s, ".")
	return whole + letter + rest[:max(0, 3-len(whole))]
}

// sizes of chips: what they bear.
var chipWatts = []struct {
	size  string
	watts float64
	volts float64
}{{"0201", 0.05, 25}, {"0402", 0.063, 50}, {"0603", 0.1, 75}, {"0805", 0.125, 150}, {"1206", 0.25, 200}}

func (c *range_) resistors() {
	add := func(maker, series, size, kind string, ohms, tolerance, watts, volts, ppm, price float64, s sale, rare float64) {
		c.add(item{family: "resistor", maker: maker, series: series, pack: size, price: price, sold: s, rare: rare,
			text: fmt.Sprintf("Resistor %s %g %% %s, %s", ordering.Quantity(ohms, "Ω"), tolerance, ordering.Quantity(watts, "W"), kind),
			props: []ordering.Property{num("resistance", ohms, "Ω"), num("tolerance", tolerance, "%"), num("power", watts, "W"),
				num("voltage", volts, "V"),
				num("temperature coefficient", ppm, "ppm"), word("make", kind)}})
	}
	both := append(values(e96, 1, 1e7), values(e24, 1, 1e7)...) // as resistors of 1 % are made
	slices.Sort(both)
	both = slices.Compact(both)
	for _, s := range chipWatts {
		for _, v := range both {
			add(quillfeather, "-R"+s.size+"-"+code(v, "R")+"-F", s.size, "thick film", v, 1, s.watts, s.volts, 100, 0.011+s.watts*0.05,
				tapedTens, 0.1)
			if s.size == "0201" {
				continue
			}
			add(ottermere, "R"+s.size+"F"+code(v, "R"), s.size, "thick film", v, 1, s.watts, s.volts, 200, 0.009+s.watts*0.05, taped, 0.2)
		}
		for _, v := range values(e24, 1, 1e7) {
			sold := tapedTens
			if s.size == "0201" { // nobody cuts tapes for them
				sold = reelOnly
			}
			add(quillfeather, "-R"+s.size+"-"+code(v, "R")+"-J", s.size, "thick film", v, 5, s.watts, s.volts, 200, 0.008+s.watts*0.04, sold, 0.1)
		}
		if s.size != "0402" && s.size != "0201" {
			for _, v := range values(e96, 10, 1e6) {
				add(sennick, "T"+s.size+code(v, "R")+"B", s.size, "thin film", v, 0.1, s.watts, s.volts, 25, 0.19+s.watts*0.4, taped, 0.4)
			}
			for _, v := range []float64{50, 100, 120, 250} { // of loops and lines, which the series leave out
				add(sennick, "L"+s.size+code(v, "R")+"B", s.size, "thin film", v, 0.1, s.watts, s.volts, 10, 0.42+s.watts*0.4, taped, 0.2)
			}
		}
	}
	for _, v := range values(e6, 0.001, 0.68) {
		add(ottermere, "S2512"+code(v, "R"), "2512", "metal strip", v, 1, 2, 50, 75, 0.42, tapedLarge, 0.3)
	}
	for _, x := range []struct {
		pack        string
		watts       float64
		length, dia float64
	}{{"axial 1/4 W", 0.25, 6.3, 2.5}, {"axial 1/2 W", 0.5, 9.2, 3.2}} {
		for _, v := range values(e24, 1, 1e7) {
			c.add(item{family: "resistor", maker: quillfeather, series: fmt.Sprintf("-A%g-%s", x.watts*100, code(v, "R")), pack: x.pack,
				price: 0.06 + x.watts*0.1, sold: loose, rare: 0.1,
				text: fmt.Sprintf("Resistor %s 1 %% %s, metal film, axial leads", ordering.Quantity(v, "Ω"), ordering.Quantity(x.watts, "W")),
				body: bodyOf(x.length, x.dia, x.dia, 2, 10.16, true),
				props: []ordering.Property{num("resistance", v, "Ω"), num("tolerance", 1, "%"), num("power", x.watts, "W"),
					num("voltage", 250, "V"), num("temperature coefficient", 50, "ppm"), word("make", "metal film")}})
		}
	}
	for _, v := range values(e3, 100, 1e6) {
		for _, k := range []string{"side", "top"} {
			c.add(item{family: "trimmer", maker: sennick, series: "P" + code(v, "R") + strings.ToUpper(k[:1]), pack: "trimmer 9.5 mm",
				price: 0.95, sold: loose, rare: 0.3,
				text: fmt.Sprintf("Trimmer %s, 25 turns, set from the %s", ordering.Quantity(v, "Ω"), k), body: bodyOf(9.5, 4.8, 9.9, 3, 2.54, true),
				props: []ordering.Property{num("resistance", v, "Ω"), num("tolerance", 10, "%"), num("power", 0.5, "W"), word("set from", k)}})
		}
	}
}

// bodyOf dimensions in millimetres.
func bodyOf(length, width, height float64, pins int, pitch float64, through bool) ordering.Body {
	return ordering.Body{Length: units.MMf(length), Width: units.MMf(width), Height: units.MMf(height), Pins: pins,
		Pitch: units.MMf(pitch), Through: through}
}

func (c *range_) capacitors() {
	ceramic := func(maker, series, size, kind string, v, tolerance, volts, price, rare float64) {
		c.add(item{family: "ceramic capacitor", maker: maker, series: series, pack: size, price: price, sold: taped, rare: rare,
			text: fmt.Sprintf("Capacitor %s %g %% %g V, ceramic %s", ordering.Quantity(v, "F"), tolerance, volts, kind),
			props: []ordering.Property{num("capacitance", v, "F"), num("tolerance", tolerance, "%"), num("voltage", volts, "V"),
				word("dielectric", kind)}})
	}
	for i, size := range []string{"0402", "0603", "0805", "1206"} {
		room := math.Pow(4, float64(i)) // the larger, the more fits in
		for _, maker := range []string{quillfeather, sennick} {
			for _, v := range values(e12, 1e-12, 1e-8) {
				for _, volts := range []float64{50, 100} {
					if v*volts > 1.5e-7*room {
						continue
					}
					ceramic(maker, fmt.Sprintf("C%s%sG%g", size, code(v, "F"), volts), size, "C0G", v, 5, volts, 0.02+v*6e6+volts*1e-4, 0.15)
				}
			}
			for _, v := range values(e12, 1e-10, 2.2e-6) {
				for _, volts := range []float64{16, 25, 50, 100} {
					if v*volts > 6e-6*room || v >= 1e-7 && !one(e6, v) {
						continue
					}
					ceramic(maker, fmt.Sprintf("C%s%sX%g", size, code(v, "F"), volts), size, "X7R", v, 10, volts, 0.014+v*8e4+volts*4e-5, 0.1)
				}
			}
			for _, v := range values(e6, 1e-6, 1e-4) {
				for _, volts := range []float64{6.3, 10, 16, 25, 35} {
					if v*volts > 4e-5*room {
						continue
					}
					ceramic(maker, fmt.Sprintf("C%s%sV%g", size, code(v, "F"), volts), size, "X5R", v, 20, volts, 0.05+v*1.2e4+volts*2e-3, 0.2)
				}
			}
		}
	}
	for _, v := range values(e6, 1e-6, 1e-2) {
		for _, volts := range []float64{6.3, 10, 16, 25, 35, 50, 63, 100} {
			energy := v * volts * math.Sqrt(volts) // what its can has room for
			for _, hot := range []float64{85, 105} {
				if d := can(energy, []float64{4, 5, 6.3, 8, 10, 12.5, 16, 18}, 7e-4); d > 0 {
					c.electrolytic(v, volts, hot, d, true)
				}
				if d := can(energy, []float64{4.3, 5.3, 6.6, 8.3, 10.3, 12.8}, 4e-4); d > 0 {
					c.electrolytic(v, volts, hot, d, false)
				}
			}
		}
	}
	for i, size := range []string{"A", "B", "C", "D"} {
		for _, v := range values(e6, 1e-6, 4.7e-4) {
			for _, volts := range []float64{6.3, 10, 16, 25, 35} {
				if q := v * volts; q > 1.2e-4*math.Pow(2.6, float64(i)) || q < 2e-5*math.Pow(2, float64(i)) {
					continue
				}
				c.add(item{family: "tantalum capacitor", maker: ottermere, series: fmt.Sprintf("T%s%s%g", size, code(v, "F"), volts),
					pack: "tantalum " + size, price: 0.22 + v*6e3, sold: tapedLarge, rare: 0.4,
					text: fmt.Sprintf("Capacitor %s 10 %% %g V, tantalum, size %s", ordering.Quantity(v, "F"), volts, size),
					body: bodyOf([]float64{3.2, 3.5, 6, 7.3}[i], []float64{1.6, 2.8, 3.2, 4.3}[i], []float64{1.6, 1.9, 2.5, 2.8}[i], 2,
						[]float64{2.6, 2.7, 4.7, 6}[i], false),
					props: []ordering.Property{num("capacitance", v, "F"), num("tolerance", 10, "%"), num("voltage", volts, "V"),
						num("series resistance", 0.4+0.1/math.Sqrt(v*1e6), "Ω")}})
			}
		}
	}
	for _, v := range values(e6, 1e-9, 1e-5) {
		for _, volts := range []float64{63, 100, 250, 400, 630} {
			x := v * volts * volts
			if x > 1.6 || x < 1e-6 {
				continue
			}
			span := []float64{5.08, 7.5, 10, 15, 22.5}[min(4, int(2.5+math.Log10(x+1e-3)*1.3+1.4))]
			c.add(item{family: "film capacitor", maker: quillfeather, series: fmt.Sprintf("-P%s-%g", code(v, "F"), volts),
				pack: fmt.Sprintf("box %g mm", span), price: 0.12 + x*0.9, sold: loose, rare: 0.3,
				text: fmt.Sprintf("Capacitor %s 5 %% %g V, polypropylene film", ordering.Quantity(v, "F"), volts),
				body: bodyOf(span+2.5, span*0.5, span*0.9, 2, span, true),
				props: []ordering.Property{num("capacitance", v, "F"), num("tolerance", 5, "%"), num("voltage", volts, "V"),
					num("lead spacing", span/1000, "m")}})
		}
	}
}

// one tells whether a value is of the series, whatever its decade.
func one(series []float64, v float64) bool {
	for _, x := range values(series, v*0.999, v*1.001) {
		return x > 0
	}
	return false
}

// can is the least diameter that has room, 0: none has.
func can(energy float64, diameters []float64, each float64) float64 {
	for _, d := range diameters {
		if energy <= each*math.Pow(d/4, 3)*20 {
			return d
		}
	}
	return 0
}

func (c *range_) electrolytic(v, volts, hot, d float64, leads bool) {
	props := []ordering.Property{num("capacitance", v, "F"), num("tolerance", 20, "%"), num("voltage", volts, "V"),
		num("temperature", hot, "°C"), num("life", 1000+1000*math.Round(d/4)*(hot-75)/10, "h")}
	price := 0.05 + d*d*0.004 + (hot-85)*0.001
	text := fmt.Sprintf("Capacitor %s %g V, aluminium, %g °C", ordering.Quantity(v, "F"), volts, hot)
	if leads {
		span := map[float64]float64{4: 1.5, 5: 2, 6.3: 2.5, 8: 3.5, 10: 5, 12.5: 5, 16: 7.5, 18: 7.5}[d]
		c.add(item{family: "electrolytic capacitor", maker: ottermere, series: fmt.Sprintf("E%s%gR%g", code(v, "F"), volts, hot),
			pack: fmt.Sprintf("radial ⌀ %g mm", d), price: price, sold: loose, rare: 0.2, text: text + ", radial leads",
			body: bodyOf(d, d, d*1.7, 2, span, true), props: append(props, num("lead spacing", span/1000, "m"), num("diameter", d/1000, "m"))})
		return
	}
	c.add(item{family: "electrolytic capacitor", maker: quillfeather, series: fmt.Sprintf("-V%s-%g-%g", code(v, "F"), volts, hot),
		pack: fmt.Sprintf("can %g mm", d), price: price * 1.4, sold: tapedLarge, rare: 0.3, text: text + ", surface can",
		body: bodyOf(d, d, d*0.95, 2, d*0.75, false), props: append(props, num("diameter", d/1000, "m"))})
}

func (c *range_) coils() {
	for i, size := range []string{"0402", "0603", "0805", "1206"} {
		for _, v := range values(e12, 1e-9, 1e-6*math.Pow(10, float64(i)*0.7)) {
			c.add(item{family: "inductor", maker: ottermere, series: "N" + size + code(v, "H"), pack: size, price: 0.06 + float64(i)*0.02,
				sold: taped, rare: 0.3,
				text: fmt.Sprintf("Inductor %s 5 %%, chip", ordering.Quantity(v, "H")),
				props: []ordering.Property{num("inductance", v, "H"), num("tolerance", 5, "%"),
					num("rated current", round2(0.7/math.Pow(v*1e9, 0.22)), "A"), num("resistance", round2(0.05*math.Pow(v*1e9, 0.45)), "Ω"),
					word("shielded", "no")}})
		}
		for _, z := range []float64{30, 60, 120, 220, 330, 470, 600, 1000, 1500} {
			for _, k := range []float64{1, 2, 3} {
				amps := round2(0.5 * k * (1 + float64(i)*0.4) * math.Sqrt(120/z))
				c.add(item{family: "ferrite bead", maker: ottermere, series: fmt.Sprintf("F%s-%g-%g", size, z, k), pack: size,
					price: 0.02 + 0.01*k, sold: taped, rare: 0.15,
					text: fmt.Sprintf("Ferrite bead %s at 100 MHz, %s", ordering.Quantity(z, "Ω"), ordering.Quantity(amps, "A")),
					props: []ordering.Property{num("impedance at 100 MHz", z, "Ω"), num("rated current", amps, "A"),
						num("resistance", round2(0.02+z/4000/k), "Ω")}})
			}
		}
	}
	for _, side := range []float64{3, 4, 5, 6, 7.3, 10, 12.5} {
		for _, v := range values(e12, 4.7e-7, 1e-3) {
			if !one(e6, v) && v > 1e-4 {
				continue
			}
			for _, shielded := range []string{"yes", "no"} {
				amps := round2(0.0045 * side / math.Sqrt(v) * side / 8)
				if amps < 0.05 || amps > 30 {
					continue
				}
				if shielded == "no" {
					amps = round2(amps * 1.15)
				}
				c.add(item{family: "inductor", maker: map[string]string{"yes": ottermere, "no": bryceVane}[shielded],
					series: fmt.Sprintf("L%g%s", side*10, code(v, "H")), pack: fmt.Sprintf("power coil %g mm", side), price: 0.3 + side*0.05,
					sold: tapedLarge, rare: 0.2,
					text: fmt.Sprintf("Power inductor %s 20 %%, %s", ordering.Quantity(v, "H"), ordering.Quantity(amps, "A")),
					body: bodyOf(side, side, side*0.45, 2, side*0.75, false),
					props: []ordering.Property{num("inductance", v, "H"), num("tolerance", 20, "%"), num("rated current", amps, "A"),
						num("resistance", round2(0.11*math.Pow(v*1e6, 0.8)/side), "Ω"), word("shielded", shielded)}})
			}
		}
	}
}

// round2 keeps two digits, as datasheets do.
func round2(v float64) float64 {
	if v == 0 {
		return 0
	}
	p := math.Pow(10, math.Floor(math.Log10(math.Abs(v)))-1)
	out, _ := strconv.ParseFloat(strconv.FormatFloat(math.Round(v/p)*p, 'g', 6, 64), 64)
	return out
}
