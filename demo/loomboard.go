package demo

import (
	"fmt"
	"slices"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// The copper layers of the bridge, from the top: signals lie on the outer ones and on the two in the middle, planes between.
const (
	loomTop, loomGround, loomUpper, loomLower, loomPlane, loomBottom = 0, 1, 2, 3, 4, 5
)

// loomSpots are where its parts stand: the controller in the middle, what it serves around it.
var loomSpots = []spot{
	{"U1", 38, 32, 0}, {"U2", 57, 32, 0}, {"J1", 6, 32, 270}, {"J2", 38, 5, 0}, {"J3", 22, 56, 0},
	{"U3", 24, 12, 0}, {"C5", 17, 12, 90}, {"C6", 31, 12, 90},
	{"U4", 70, 50, 0}, {"C7", 63, 50, 90}, {"C8", 75, 43.5, 0},
	{"U5", 66, 12, 0}, {"C9", 59, 12, 90}, {"C10", 73, 12, 90},
	{"Y1", 38, 50.5, 0}, {"C3", 34.5, 50.5, 90}, {"C4", 41.5, 50.5, 90},
	{"R4", 30, 48, 0}, {"C2", 30, 50, 0}, {"R5", 46, 48, 0}, {"R6", 46, 50, 0}, {"R7", 49, 48, 0}, {"R8", 49, 50, 0},
	{"R9", 53, 53, 0}, {"D1", 53, 56, 0},
	{"R1", 57, 42, 0}, {"R2", 57, 43.6, 0}, {"C1", 60, 42.8, 90}, {"R3", 64, 34, 90},
}

// loomBoard sets the board up, places its parts and leads the balls of controller and memory out; from there on it is to be routed.
func loomBoard(b *builder) {
	b.do(&edit.BeginBoard{Ready: &edit.TakeStack{House: "tallow", Name: "Six layers, 1.2 mm"}, Form: edit.EdgeRectangle, Width: 80 * units.MM, Height: 60 * units.MM,
		R: 3 * units.MM, Track: 100 * units.Micrometre, Parts: true, Planes: []edit.BeginPlane{{At: loomGround, Net: "GND"}, {At: loomPlane, Net: "+1V5"}}})
	b.do(&edit.SetRules{Rules: map[design.RuleKind]int64{
		design.Clearance: 100_000, design.WithinPart: 100_000, design.TrackWidth: 100_000, design.LeastWidth: 75_000, design.LeastRing: 75_000, design.LeastHole: 100_000,
		design.HoleClearance: 200_000, design.ViaDiameter: 450_000, design.ViaHole: 200_000, design.EdgeClearance: 300_000, design.SpokeGap: 150_000,
		design.SpokeWidth: 200_000, design.SilkWidth: 120_000,
	}})
	for _, c := range [][2]float64{{4, 4}, {76, 4}, {4, 56}, {76, 56}} {
		b.do(&edit.AddHole{At: at(c[0], c[1]), Diameter: 3_200_000, Keep: 1_000_000})
	}
	loomWays(b)
	b.lay(loomSpots)
	b.below()
	b.do(&edit.PutFiducials{})
	loomAreas(b)
	var others []design.ID
	if b.err == nil {
		for p := range b.bench.Doc.Placed.All() {
			if p.Designator != "U1" && p.Designator != "U2" {
				others = append(others, p.ID)
			}
		}
	}
	signals := b.copper(loomTop, loomUpper, loomLower, loomBottom)
	b.do(&edit.Escape{EscapeAsk: edit.EscapeAsk{Parts: []design.ID{b.placed("U1")}, Layers: signals, Beyond: 600_000}})
	b.do(&edit.Escape{EscapeAsk: edit.EscapeAsk{Parts: []design.ID{b.placed("U2")}, Layers: signals, Beyond: 400_000}})
	b.do(&edit.Escape{EscapeAsk: edit.EscapeAsk{Parts: others, Areas: true}})
	loomPrint(b)
	b.excuse("fiducials", "The capacitors below are put on by hand.")
}

// loomWays prefers, from the top to the layers of signals within, a micro via with a buried one to a hole through everything, which would
// stand in the way of all other layers.
func loomWays(b *builder) {
	if b.err != nil {
		return
	}
	board := b.bench.Doc.Board
	holes := board.Holes
	for _, to := range []int{loomUpper, loomLower} {
		ways, _ := board.WaysOf(board.Top(), board.At(to))
		chains := slices.Clone(ways)
		slices.SortStableFunc(chains, func(x, y design.Way) int { return min(len(y.Steps), 2) - min(len(x.Steps), 2) })
		holes.Ways = append(holes.Ways, chains...)
	}
	b.do(&edit.SetHoles{Holes: holes})
}

// copper are the copper layers at positions from the top.
func (b *builder) copper(at ...int) (out []design.LayerID) {
	for _, l := range at {
		out = append(out, b.bench.Doc.Board.At(l))
	}
	return out
}

// below puts the small capacitors of the supplies on the lower side, in a ring around the controller.
func (b *builder) below() {
	bottom := true
	for i := range 24 {
		// eight along each of three sides: the core's above and below, the memory's and the lines' beside what they serve
		x, y, angle := 28.2+2.8*float64(i%8), 43.2, int32(90_000)
		switch i / 8 {
		case 0:
			x, y, angle = 26.8, 22.2+2.8*float64(i%8), 0
		case 1:
			x, y, angle = 49.2, 22.2+2.8*float64(i%8), 0
		}
		px, py := units.MMf(x), units.MMf(y)
		b.do(&edit.SetPlaced{ID: b.placed(fmt.Sprintf("C%d", 11+i)), X: &px, Y: &py, Angle: &angle, Bottom: &bottom})
	}
}

// loomAreas cuts the lower plane in two, the lines' supply to the left and the memory's to the right, and lays the core's supply below the
// controller and ground around everything.
func loomAreas(b *builder) {
	if b.err != nil {
		return
	}
	for p := range b.bench.Doc.Pours.All() {
		if p.Net == b.net("+1V5") {
			b.do(&edit.CutPour{ID: p.ID, Line: places([]float64{38, -1, 38, 61}), Net: b.net("+3V3")})
			break
		}
	}
	b.do(&edit.PutPour{Pour: design.Pour{Name: "Core supply", Net: b.net("+1V2"), Layers: b.copper(loomBottom), Priority: 1,
		Outline: geom.Corners(places([]float64{24, 18, 52, 18, 52, 46, 24, 46})...)}})
	b.do(&edit.PutPour{Pour: design.Pour{Name: "Ground", Net: b.net("GND"), Layers: b.copper(loomTop, loomBottom)}})
}

// loomPrint is what is printed.
func loomPrint(b *builder) {
	for _, t := range []struct {
		text, font string
		height     float64
		x, y       float64
	}{{"Loom Bridge", design.Bold, 2.4, 60, 24}, {"HRT-034  A", design.Strokes, 1.2, 60, 21}, {"Loom", design.Bold, 1.3, 6, 47}, {"Links", design.Bold, 1.3, 54, 5.2}} {
		b.do(&edit.AddLegend{At: at(t.x, t.y), Height: units.MMf(t.height), Text: t.text, Font: t.font})
	}
	if b.err != nil {
		return
	}
	var ids []design.ID
	for p := range b.bench.Doc.Placed.All() {
		ids = append(ids, p.ID)
	}
	b.do(&edit.SetLetters{IDs: ids, Height: 800_000})
	b.do(&edit.OrderLabels{IDs: ids})
}
