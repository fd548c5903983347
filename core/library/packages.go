package library

import (
	"goldentrace/core/design"
	"goldentrace/core/units"
)

// Packages are component bodies by the names the trade gives them, with dimensions as the standards for such packages have them
// (JEDEC MO and MS outlines, EIA and IEC chip sizes). Footprints are generated from them. Dimensions are millimetres,
// least and most.

// mmRange makes a range from millimetres.
func mmRange(least, most float64) design.Range {
	return design.Range{Min: units.MMf(least), Max: units.MMf(most)}
}

type body = map[string]design.Range

func recipe(family string, counts map[string]int, dims body, choices ...string) *design.Recipe {
	r := &design.Recipe{Family: family, Counts: counts, Dims: dims, Density: design.Nominal, Making: design.UsualMaking()}
	for i := 0; i+1 < len(choices); i += 2 {
		if r.Choices == nil {
			r.Choices = map[string]string{}
		}
		r.Choices[choices[i]] = choices[i+1]
	}
	return r
}

// chips are the chip sizes by their names in hundredths of an inch: length, width, terminal, each with its tolerance.
var chips = []struct {
	name                                     string
	length, lengthBy, width, widthBy, t0, t1 float64
}{
	{"0201", 0.6, 0.03, 0.3, 0.03, 0.1, 0.2},
	{"0402", 1.0, 0.05, 0.5, 0.05, 0.15, 0.35},
	{"0603", 1.6, 0.1, 0.8, 0.1, 0.2, 0.5},
	{"0805", 2.0, 0.15, 1.25, 0.15, 0.25, 0.65},
	{"1206", 3.2, 0.15, 1.6, 0.15, 0.25, 0.75},
	{"1210", 3.2, 0.2, 2.5, 0.2, 0.25, 0.75},
	{"1812", 4.5, 0.2, 3.2, 0.2, 0.3, 0.9},
	{"2010", 5.0, 0.2, 2.5, 0.2, 0.3, 0.9},
	{"2220", 5.7, 0.3, 5.0, 0.3, 0.3, 1.0},
	{"2512", 6.35, 0.2, 3.2, 0.2, 0.3, 0.95},
}

func chipOf(name, kind string, height float64, polar bool) *design.Recipe {
	for _, c := range chips {
		if c.name == name {
			r := recipe("chip", nil, body{
				"length": mmRange(c.length-c.lengthBy, c.length+c.lengthBy), "width": mmRange(c.width-c.widthBy, c.width+c.widthBy),
				"terminal": mmRange(c.t0, c.t1), "height": mmRange(height*0.9, height),
			}, "kind", kind)
			if polar {
				r.Choices["polar"] = "yes"
			}
			return r
		}
	}
	return nil
}

// moulded bodies: length over the terminals, width, terminal's length and width, height.
func mouldedOf(kind string, polar bool, l0, l1, w0, w1, t0, t1, tw0, tw1, h0, h1 float64) *design.Recipe {
	p := "no"
	if polar {
		p = "yes"
	}
	return recipe("moulded", nil, body{"length": mmRange(l0, l1), "width": mmRange(w0, w1), "terminal": mmRange(t0, t1), "leadWidth": mmRange(tw0, tw1), "height": mmRange(h0, h1)}, "kind", kind, "polar", p)
}

// rows of gull-wing leads.
func gullOf(pins int, pitch, s0, s1, bw0, bw1, bl, ll0, ll1, lw0, lw1, h0, h1 float64) *design.Recipe {
	return recipe("gullTwo", map[string]int{"pins": pins}, body{
		"span": mmRange(s0, s1), "bodyWidth": mmRange(bw0, bw1), "bodyLength": mmRange(bl-0.1, bl+0.1), "pitch": mmRange(pitch, pitch),
		"leadLength": mmRange(ll0, ll1), "leadWidth": mmRange(lw0, lw1), "height": mmRange(h0, h1),
	})
}

// soic, ssop, tssop, msop and dip are packages with two rows by their numbers of pins.
func soic(pins int) *design.Recipe { // JEDEC MS-012, narrow
	length := map[int]float64{8: 4.9, 14: 8.65, 16: 9.9}[pins]
	return gullOf(pins, 1.27, 5.8, 6.2, 3.8, 4.0, length, 0.4, 1.27, 0.31, 0.51, 1.35, 1.75)
}

func soicWide(pins int) *design.Recipe { // JEDEC MS-013
	length := map[int]float64{16: 10.3, 18: 11.55, 20: 12.8, 24: 15.4, 28: 17.9}[pins]
	return gullOf(pins, 1.27, 10.0, 10.65, 7.4, 7.6, length, 0.4, 1.27, 0.31, 0.51, 2.35, 2.65)
}

func ssop(pins int) *design.Recipe { // JEDEC MO-150
	length := map[int]float64{16: 6.2, 20: 7.2, 24: 8.2, 28: 10.2}[pins]
	return gullOf(pins, 0.65, 7.4, 8.2, 5.0, 5.6, length, 0.55, 0.95, 0.22, 0.38, 1.65, 2.0)
}

func tssop(pins int) *design.Recipe { // JEDEC MO-153
	length := map[int]float64{8: 3.0, 14: 5.0, 16: 5.0, 20: 6.5, 24: 7.8, 28: 9.7}[pins]
	return gullOf(pins, 0.65, 6.2, 6.6, 4.3, 4.5, length, 0.45, 0.75, 0.19, 0.3, 1.0, 1.2)
}

func msop(pins int) *design.Recipe { // JEDEC MO-187
	pitch := map[int]float64{8: 0.65, 10: 0.5}[pins]
	return gullOf(pins, pitch, 4.75, 5.05, 2.9, 3.1, 3.0, 0.4, 0.8, 0.17, 0.33, 0.9, 1.1)
}

func dip(pins int) *design.Recipe { // JEDEC MS-001
	length := 2.54*float64(pins)/2 - 0.9
	span, width := 7.62, 6.35
	if pins >= 28 {
		span, width = 15.24, 13.8
	}
	return recipe("dualInline", map[string]int{"pins": pins}, body{
		"span": mmRange(span, span), "bodyWidth": mmRange(width-0.25, width+0.25), "bodyLength": mmRange(length-0.3, length+0.3), "pitch": mmRange(2.54, 2.54),
		"leadWidth": mmRange(0.41, 0.51), "leadThickness": mmRange(0.2, 0.3), "height": mmRange(4.5, 5.08),
	})
}

func son(pins int) *design.Recipe { // JEDEC MO-229
	width, length, pitch, th, tw := 3.0, 3.0, 0.65, 2.4, 1.6
	if pins == 6 {
		width, length, pitch, th, tw = 2, 2, 0.65, 1.4, 0.9
	} else if pins == 10 {
		pitch = 0.5
	}
	return recipe("noLeadTwo", map[string]int{"pins": pins}, body{
		"bodyWidth": mmRange(width-0.1, width+0.1), "bodyLength": mmRange(length-0.1, length+0.1), "pitch": mmRange(pitch, pitch),
		"leadLength": mmRange(0.3, 0.5), "leadWidth": mmRange(0.2, 0.3), "height": mmRange(0.7, 0.8),
		"thermalLength": mmRange(th-0.1, th+0.1), "thermalWidth": mmRange(tw-0.1, tw+0.1),
	})
}

func qfp(pins int) *design.Recipe { // JEDEC MS-026
	n := pins / 4
	bodies := map[int]float64{32: 7, 44: 10, 48: 7, 64: 10, 80: 12, 100: 14, 128: 14, 144: 20}
	pitch := map[int]float64{32: 0.8, 44: 0.8, 128: 0.4}[pins]
	if pitch == 0 {
		pitch = 0.5
	}
	b := bodies[pins]
	lead := mmRange(0.17, 0.27)
	if pitch == 0.8 {
		lead = mmRange(0.3, 0.45)
	} else if pitch == 0.4 {
		lead = mmRange(0.13, 0.23)
	}
	return recipe("gullFour", map[string]int{"tall": n, "wide": n}, body{
		"spanX": mmRange(b+1.8, b+2.2), "spanY": mmRange(b+1.8, b+2.2), "bodyX": mmRange(b-0.1, b+0.1), "bodyY": mmRange(b-0.1, b+0.1),
		"pitch": mmRange(pitch, pitch), "leadLength": mmRange(0.45, 0.75), "leadWidth": lead, "height": mmRange(1.4, 1.6),
	})
}

func qfn(pins int) *design.Recipe { // JEDEC MO-220
	n := pins / 4
	b := map[int]float64{16: 3, 20: 4, 24: 4, 28: 5, 32: 5, 40: 6, 48: 7, 64: 9}[pins]
	thermal := map[int]float64{16: 1.7, 20: 2.6, 24: 2.6, 28: 3.3, 32: 3.3, 40: 4.4, 48: 5.4, 64: 7.2}[pins]
	return recipe("noLeadFour", map[string]int{"tall": n, "wide": n}, body{
		"bodyX": mmRange(b-0.1, b+0.1), "bodyY": mmRange(b-0.1, b+0.1), "pitch": mmRange(0.5, 0.5), "leadLength": mmRange(0.3, 0.5), "leadWidth": mmRange(0.18, 0.3),
		"height": mmRange(0.8, 1.0), "thermalLength": mmRange(thermal-0.1, thermal+0.1), "thermalWidth": mmRange(thermal-0.1, thermal+0.1),
	}, "vias", "grid")
}

func plcc(pins int) *design.Recipe { // JEDEC MS-018
	n := pins / 4
	b := map[int]float64{20: 8.97, 28: 11.5, 44: 16.6}[pins]
	return recipe("jLeadFour", map[string]int{"tall": n, "wide": n}, body{
		"spanX": mmRange(b+0.8, b+1.05), "spanY": mmRange(b+0.8, b+1.05), "bodyX": mmRange(b-0.08, b+0.08), "bodyY": mmRange(b-0.08, b+0.08), "pitch": mmRange(1.27, 1.27),
		"leadLength": mmRange(1.5, 2), "leadWidth": mmRange(0.33, 0.53), "height": mmRange(4.2, 4.57),
	})
}

func bga(columns, rows int, pitch, ball, x, y float64) *design.Recipe {
	return recipe("ballGrid", map[string]int{"columns": columns, "rows": rows}, body{
		"bodyX": mmRange(x-0.1, x+0.1), "bodyY": mmRange(y-0.1, y+0.1), "pitch": mmRange(pitch, pitch), "ball": mmRange(ball-0.05, ball+0.05), "height": mmRange(1.1, 1.4),
	})
}

// outline of a transistor: arrangement, pitch, span, body width and length, foot, lead width, height.
func outline(kind, leads string, pitch, s0, s1, bw0, bw1, bl0, bl1, ll0, ll1, lw0, lw1, h0, h1 float64) *design.Recipe {
	return recipe("transistor", nil, body{
		"span": mmRange(s0, s1), "bodyWidth": mmRange(bw0, bw1), "bodyLength": mmRange(bl0, bl1), "pitch": mmRange(pitch, pitch),
		"leadLength": mmRange(ll0, ll1), "leadWidth": mmRange(lw0, lw1), "height": mmRange(h0, h1),
	}, "leads", leads, "kind", kind)
}

func tabbed(r *design.Recipe, w0, w1, l0, l1 float64) *design.Recipe {
	r.Dims["tabWidth"], r.Dims["tabLength"] = mmRange(w0, w1), mmRange(l0, l1)
	return r
}

// sot are transistor outlines by their names (JEDEC TO-236, TO-253, MO-178, MO-203, TO-261, TO-252, TO-263).
func sot(name string) *design.Recipe {
	switch name {
	case "SOT-23":
		return outline("SOT", "2+1", 0.95, 2.1, 2.64, 1.2, 1.4, 2.8, 3.04, 0.4, 0.6, 0.3, 0.51, 0.89, 1.12)
	case "SOT-323":
		return outline("SOT", "2+1", 0.65, 1.8, 2.4, 1.15, 1.35, 1.8, 2.2, 0.26, 0.46, 0.25, 0.4, 0.8, 1.1)
	case "SOT-143":
		r := outline("SOT", "2+2 wide", 1.9, 2.1, 2.64, 1.2, 1.4, 2.8, 3.04, 0.4, 0.6, 0.36, 0.5, 0.8, 1.22)
		r.Dims["wideWidth"] = mmRange(0.76, 0.94)
		return r
	case "SOT-23-5":
		return outline("SOT", "3+2", 0.95, 2.6, 3.0, 1.5, 1.75, 2.8, 3.0, 0.3, 0.6, 0.3, 0.5, 0.9, 1.45)
	case "SOT-23-6":
		return outline("SOT", "3+3", 0.95, 2.6, 3.0, 1.5, 1.75, 2.8, 3.0, 0.3, 0.6, 0.3, 0.5, 0.9, 1.45)
	case "SOT-23-8":
		return outline("SOT", "4+4", 0.65, 2.6, 3.0, 1.5, 1.75, 2.8, 3.0, 0.3, 0.6, 0.22, 0.38, 0.9, 1.45)
	case "SC-70-5":
		return outline("SOT", "3+2", 0.65, 1.8, 2.4, 1.15, 1.35, 1.8, 2.2, 0.26, 0.46, 0.15, 0.3, 0.8, 1.1)
	case "SC-70-6":
		return outline("SOT", "3+3", 0.65, 1.8, 2.4, 1.15, 1.35, 1.8, 2.2, 0.26, 0.46, 0.15, 0.3, 0.8, 1.1)
	case "SOT-223":
		return tabbed(outline("SOT", "3+tab", 2.3, 6.7, 7.3, 3.3, 3.7, 6.3, 6.7, 0.9, 1.15, 0.6, 0.84, 1.5, 1.8), 2.9, 3.1, 0.9, 1.15)
	case "TO-252":
		return tabbed(outline("TO", "2+tab", 2.28, 9.4, 10.4, 5.97, 6.22, 6.35, 6.73, 1.4, 1.78, 0.64, 0.89, 2.18, 2.39), 4.95, 5.46, 5.2, 5.6)
	case "TO-263":
		return tabbed(outline("TO", "2+tab", 2.54, 14.6, 15.8, 8.38, 9.65, 9.65, 10.67, 1.78, 2.79, 0.51, 0.99, 4.06, 4.83), 6.22, 8.0, 6.9, 7.5)
	}
	return nil
}

// headerOf so many positions in rows.
func headerOf(kind string, positions, rows int, pitch float64) *design.Recipe {
	pin := map[float64]float64{2.54: 0.64, 2: 0.5, 1.27: 0.41}[pitch]
	height := map[string]float64{"pins": 8.5, "socket": 8.5}[kind]
	if pitch < 2 {
		height = 4.2
	}
	r := recipe("header", map[string]int{"positions": positions, "rows": rows}, body{
		"pitch": mmRange(pitch, pitch), "pin": mmRange(pin-0.02, pin+0.02), "bodyWidth": mmRange(pitch*float64(rows)-0.1, pitch*float64(rows)), "height": mmRange(height-0.2, height+0.2),
	}, "kind", kind)
	if pitch < 2 { // makers ask for a tighter hole, which leaves a ring
		r.Overrides, r.Making.Gap = map[string]int64{"hole": units.MMf(0.7)}, units.MMf(0.2)
	}
	return r
}

func axialOf(kind string, length, diameter, lead float64, polar bool) *design.Recipe {
	r := recipe("axial", nil, body{"bodyLength": mmRange(length*0.95, length), "diameter": mmRange(diameter*0.95, diameter), "lead": mmRange(lead-0.05, lead+0.05)}, "kind", kind)
	if polar {
		r.Choices["polar"] = "yes"
	}
	return r
}

func radialOf(kind string, span, length, height, lead float64, thickness float64, polar bool) *design.Recipe {
	r := recipe("radial", nil, body{"span": mmRange(span, span), "lead": mmRange(lead-0.05, lead+0.05), "length": mmRange(length*0.96, length), "height": mmRange(height*0.95, height)}, "kind", kind, "polar", "no")
	if polar {
		r.Choices["polar"] = "yes"
	}
	if thickness > 0 {
		r.Choices["body"] = "box"
		r.Dims["thickness"] = mmRange(thickness*0.95, thickness)
	}
	return r
}

func canOf(base, height float64) *design.Recipe {
	lead := 0.65
	if base > 9 {
		lead = 0.9
	}
	return recipe("can", nil, body{"base": mmRange(base-0.2, base+0.2), "span": mmRange(base+0.3, base+0.8), "terminal": mmRange(base*0.3, base*0.38), "leadWidth": mmRange(lead-0.15, lead+0.15), "height": mmRange(height-0.3, height)})
}

func cylinderOf(kind string, length, diameter float64) *design.Recipe {
	return recipe("cylinder", nil, body{"length": mmRange(length-0.2, length+0.2), "diameter": mmRange(diameter-0.1, diameter+0.1), "terminal": mmRange(0.3, 0.5)}, "kind", kind)
}

func crystalOf(x, y, h float64) *design.Recipe { // four lands at the corners
	return recipe("noLeadTwo", map[string]int{"pins": 4}, body{
		"bodyWidth": mmRange(x-0.1, x+0.1), "bodyLength": mmRange(y-0.1, y+0.1), "pitch": mmRange(y*0.62, y*0.62),
		"leadLength": mmRange(x*0.25, x*0.32), "leadWidth": mmRange(y*0.3, y*0.36), "height": mmRange(h-0.1, h+0.1),
	})
}

func roundCan(pins, places int, circle, diameter float64) *design.Recipe {
	return recipe("circular", map[string]int{"pins": pins, "places": places}, body{
		"circle": mmRange(circle, circle), "lead": mmRange(0.41, 0.48), "diameter": mmRange(diameter-0.3, diameter+0.1), "height": mmRange(4.2, 4.7),
	})
}
