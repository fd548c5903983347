package library

import (
	"fmt"
	"strings"

	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/landpattern"
	"goldentrace/core/units"
)

// Dense parts: a controller in a grid of 324 balls, drawn in units by what its balls are for, and its memory in a grid of 84. What lies at
// a side of the one faces what lies at that of the other.

// ball of a grid, its row from above and its column from the left, both from 0.
type ball struct{ row, col int }

func (b ball) number() string { return fmt.Sprintf("%s%d", landpattern.RowLetters(b.row), b.col+1) }

// loomSide is the count of balls of the controller along each side.
const loomSide = 18

// loomBalls are the balls of the controller by what they are for: signals by their names, supplies by theirs.
func loomBalls() (signal map[string]string, supply map[string][]string) {
	signal, supply = map[string]string{}, map[string][]string{}
	taken := map[ball]bool{}
	give := func(b ball, name string) {
		signal[name], taken[b] = b.number(), true
	}
	var left, right []ball
	for r := range loomSide {
		for c := range 4 { // four ranks of the left side, and of the right one
			if r > c && r < loomSide-1-c {
				left, right = append(left, ball{r, c}), append(right, ball{r, loomSide - 1 - c})
			}
		}
	}
	spread(left, 32, func(b ball, i int) { give(b, fmt.Sprintf("LN%d", i)) })
	spread(right, len(memoryLines), func(b ball, i int) { give(b, memoryLines[i]) })
	for i := range 8 { // pairs side by side, in the two lowest rows by turns
		row := loomSide - 1 - i%2
		give(ball{row, 1 + 2*i}, fmt.Sprintf("LK%d+", i))
		give(ball{row, 2 + 2*i}, fmt.Sprintf("LK%d−", i))
	}
	for i, name := range controlLines {
		give(ball{0, 3 + i}, name)
	}
	for r := range loomSide {
		for c := range loomSide {
			b := ball{r, c}
			rank := min(r, c, loomSide-1-r, loomSide-1-c)
			name := "GND"
			switch {
			case taken[b]:
				continue
			case rank < 4 || (r+c)%2 != 0:
			case rank >= 6:
				name = "VCORE"
			case c < loomSide/2:
				name = "VIO"
			default:
				name = "VMEM"
			}
			supply[name] = append(supply[name], b.number())
		}
	}
	return signal, supply
}

// spread gives so many of the balls away, evenly spread among them.
func spread(list []ball, n int, give func(ball, int)) {
	for i, b := range list {
		if k := i * n / len(list); (i+1)*n/len(list) > k {
			give(b, k)
		}
	}
}

// memoryLines are what leads from the controller to the memory, in the order in which it lies at both.
var memoryLines = strings.Fields("MD0 MD1 MD2 MD3 DM0 DQS0+ DQS0− MD4 MD5 MD6 MD7 MA0 MA1 MA2 MA3 MA4 MA5 MA6 MA7 CK+ CK− CKE /CS /RAS /CAS /WE " +
	"MA8 MA9 MA10 MA11 MA12 MA13 MB0 MB1 MB2 ODT /RST MD8 MD9 MD10 MD11 DM1 DQS1+ DQS1− MD12 MD13 MD14 MD15")

// controlLines are what else the controller has.
var controlLines = strings.Fields("/RESET BOOT OSC_IN OSC_OUT SCL SDA TX RX PROG_IO PROG_CK LAMP HALT")

// both are pins of balls by their names, an empty one being a gap.
func both(balls map[string]string, names ...string) []design.Pin {
	out := make([]design.Pin, len(names))
	for i, n := range names {
		if n == "" {
			continue
		}
		out[i] = design.Pin{Number: balls[n], Name: n, Type: "both"}
		switch n {
		case "/RESET", "BOOT", "OSC_IN", "RX", "PROG_CK", "HALT":
			out[i].Type = "input"
		case "OSC_OUT", "TX", "LAMP":
			out[i].Type = "output"
		}
	}
	return out
}

// gapped puts a gap after every so many names.
func gapped(n int, names []string) (out []string) {
	for i, name := range names {
		if i > 0 && i%n == 0 {
			out = append(out, "")
		}
		out = append(out, name)
	}
	return out
}

// loomParts are the controller and the memory with their symbols and footprints.
func loomParts() (made []*design.LibraryPart, symbols []*design.Symbol, feet []*design.Footprint) {
	signal, supply := loomBalls()
	var lines, links []string
	for i := range 32 {
		lines = append(lines, fmt.Sprintf("LN%d", i))
	}
	for i := range 8 {
		links = append(links, fmt.Sprintf("LK%d+", i), fmt.Sprintf("LK%d−", i))
	}
	controller := &design.LibraryPart{Name: "Loom controller", Prefix: "U", Value: "HX-324", PadOf: map[string]string{},
		Description: "Controller for 32 needle lines and 8 links, 324 balls at 0.8 mm, drawn in units", Keywords: "fpga bga loom smd"}
	unit := func(name string, s *design.Symbol) {
		s.Name = "Loom controller, " + name
		symbols = append(symbols, s)
		controller.Units = append(controller.Units, s.Name)
	}
	unit("lines", chipSymbol("", 12.5, nil, both(signal, gapped(8, lines)...)))
	unit("memory", chipSymbol("", 12.5, nil, both(signal, gapped(4, memoryLines)...)))
	unit("links", chipSymbol("", 12.5, nil, both(signal, gapped(2, links)...)))
	unit("control", chipSymbol("", 12.5, both(signal, "/RESET", "BOOT", "HALT", "", "OSC_IN", "OSC_OUT"),
		both(signal, "SCL", "SDA", "", "TX", "RX", "", "PROG_IO", "PROG_CK", "", "LAMP")))
	var fed []design.Pin
	for _, name := range []string{"VCORE", "", "VIO", "", "VMEM"} {
		p := design.Pin{Number: name, Name: name, Type: "supplyIn"}
		fed = append(fed, p)
		if name != "" {
			controller.PadOf[name] = strings.Join(supply[name], " ")
		}
	}
	controller.PadOf["GND"] = strings.Join(supply["GND"], " ")
	unit("supply", chipSymbol("", 10, fed, list("GND", "GND", "supplyIn")))
	controller.Symbol = controller.Units[0]
	feet = append(feet, dense(controller, bga(loomSide, loomSide, 0.8, 0.45, 15, 15))...)
	controller.Footprint = controller.Densities[design.Nominal]

	memory, symbol, foot := lineMemory()
	return append(made, controller, memory), append(symbols, symbol), append(feet, foot)
}

// lineMemory is the controller's memory: 14 rows of balls, three columns to either side of a gap as wide as three.
func lineMemory() (*design.LibraryPart, *design.Symbol, *design.Footprint) {
	p := &design.LibraryPart{Name: "Line memory", Prefix: "U", Symbol: "Line memory", Footprint: "Balls 6 × 14, 0.8 mm", Value: "QF-84D",
		Description: "Dynamic memory, 16 bits wide, 84 balls at 0.8 mm", Keywords: "dram ddr bga smd", PadOf: map[string]string{}}
	f := &design.Footprint{Name: p.Footprint, Description: "Grid of 84 balls at 0.8 mm in two groups of three columns, body 8 × 12.5 mm"}
	var all []ball
	for r := range 14 {
		for _, c := range []int{0, 1, 2, 6, 7, 8} {
			all = append(all, ball{r, c})
			x, y := 0.8*float64(c-4), 0.8*(6.5-float64(r))
			f.Pads = append(f.Pads, design.Pad{Number: ball{r, c}.number(), Form: design.Round, At: pts(x, y)[0], Size: pts(0.35, 0.35)[0]})
			f.Solids = append(f.Solids, design.Solid{Form: design.Ball, Material: "lead", A: pts(x, y)[0], From: 0, To: units.MMf(0.35)})
		}
	}
	balls, supply := map[string]string{}, map[string][]string{}
	taken := map[ball]bool{}
	spread(all, len(memoryLines), func(b ball, i int) { balls[memoryLines[i]], taken[b] = b.number(), true })
	others := 0
	for _, b := range all {
		if taken[b] {
			continue
		}
		name := []string{"VMEM", "GND"}[others%2]
		switch others {
		case 17:
			name = "VREF"
		case 35:
			name = "ZQ"
		}
		supply[name] = append(supply[name], b.number())
		others++
	}
	right := list("VMEM", "VMEM", "supplyIn", "", "", "", supply["VREF"][0], "VREF", "input", "", "", "", supply["ZQ"][0], "ZQ", "passive", "", "", "", "GND", "GND", "supplyIn")
	p.PadOf["VMEM"], p.PadOf["GND"] = strings.Join(supply["VMEM"], " "), strings.Join(supply["GND"], " ")
	s := chipSymbol("Line memory", 12.5, both(balls, gapped(4, memoryLines)...), right)
	f.Silk = []design.Figure{line(-4.15, 5.4, -4.15, 6.4, -3.2, 6.4), line(4.15, 5.4, 4.15, 6.4, 3.2, 6.4), line(4.15, -5.4, 4.15, -6.4, 3.2, -6.4),
		line(-4.15, -5.4, -4.15, -6.4, -3.2, -6.4), circle(-4.25, 4.9, 0.1)}
	f.Body = []design.Figure{rect(-4, -6.25, 4, 6.25), circle(-3.4, 5.7, 0.3)}
	f.Courtyard = yard(-4.5, -6.75, 4.5, 6.75)
	f.DesignatorAt = geom.Pt(0, units.MMf(7.8))
	f.Solids = append(f.Solids, design.Solid{Form: design.Prism, Material: "body", Edge: geom.Corners(pts(-4, -6.25, 4, -6.25, 4, 6.25, -4, 6.25)...),
		From: units.MMf(0.35), To: units.MMf(1.1)})
	return p, s, f
}
