package synthetic

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// Ids of FourLayers' objects.
const (
	FourR1, FourU1                                      design.ID = 100, 101
	FourTop, FourInner1, FourInner2, FourBottom         design.ID = 110, 111, 112, 113
	FourThrough, FourBlindTop, FourBuried, FourBlindBot design.ID = 120, 121, 122, 123
	FourScrew, FourTextTop, FourTextBot                 design.ID = 130, 131, 132
	FourA, FourB, FourC                                 design.ID = 140, 141, 142
)

// FourLayers is a board of 40 × 30 mm with four copper layers and one of everything, each at a
// place that is easy to reckon with: R1 on top, U1 turned by 90° on the bottom, a track of 0.3 mm
// on each layer at y = 1, 2, 3 and 4 mm, a via of each kind of span at x = 20 to 35 mm,
// y = 20 mm, a screw hole, a text on each side. Nets: A on the top and through, B within, C
// below.
//
// R1's footprint has two surface pads of 1 × 2 mm at x = ∓2 mm. U1's has a plated round pad of
// 1.6 mm with a hole of 0.8 mm at (0, 0), an oval surface pad of 2 × 1 mm at (5, 0), a rounded one
// at (5, 3) and an unplated hole of 1 mm at (−5, 0).
func FourLayers() *design.Doc {
	d := design.New("Four layers")
	const mm = 1_000_000
	at := func(x, y int64) geom.Point { return geom.Pt(x*mm, y*mm) }
	b := *d.Board
	b.Outline = geom.Corners(at(0, 0), at(40, 0), at(40, 30), at(0, 30))
	stack := []design.StackLayer{
		{Name: "Top", Kind: design.CopperLayer, Thickness: 35_000, Material: "Copper"},
		{Name: "Prepreg 1", Kind: design.PrepregLayer, Thickness: 200_000, Material: "FR-4"},
		{Name: "Inner 1", Kind: design.CopperLayer, Thickness: 18_000, Material: "Copper"},
		{Name: "Core", Kind: design.CoreLayer, Thickness: 1_094_000, Material: "FR-4"},
		{Name: "Inner 2", Kind: design.CopperLayer, Thickness: 18_000, Material: "Copper"},
		{Name: "Prepreg 2", Kind: design.PrepregLayer, Thickness: 200_000, Material: "FR-4"},
		{Name: "Bottom", Kind: design.CopperLayer, Thickness: 35_000, Material: "Copper"},
	}
	b.Next = 0
	d.Put(b.Stacked(design.WithCoats(stack)))
	d.SetBase(map[design.RuleKind]int64{design.MaskMargin: 100_000, design.PasteMargin: 50_000})
	for id, name := range map[design.ID]string{FourA: "A", FourB: "B", FourC: "C"} {
		d.Put(&design.Net{ID: id, Name: name})
	}
	d.Put(&design.Footprint{
		ID: 90, Name: "Two pads", Courtyard: []geom.Point{at(-3, -2), at(3, -2), at(3, 2), at(-3, 2)}, DesignatorAt: at(0, 3),
		Pads: []design.Pad{{Number: "1", Form: "rect", At: at(-2, 0), Size: at(1, 2)}, {Number: "2", Form: "rect", At: at(2, 0), Size: at(1, 2)}},
		Silk: []design.Figure{{Form: "line", Pts: []geom.Point{at(-1, -1), at(1, -1)}}},
	})
	d.Put(&design.Footprint{
		ID: 91, Name: "One of each", Courtyard: []geom.Point{at(-6, -2), at(7, -2), at(7, 5), at(-6, 5)}, DesignatorAt: at(0, 4),
		Pads: []design.Pad{
			{Number: "1", Form: "round", At: at(0, 0), Size: geom.Pt(1_600_000, 1_600_000), Hole: 800_000},
			{Number: "2", Form: "oval", At: at(5, 0), Size: at(2, 1)},
			{Number: "3", Form: "rounded", At: at(5, 3), Size: at(2, 1), Corner: 250_000},
			{Number: "", Form: "round", At: at(-5, 0), Size: at(1, 1), Hole: 1_000_000, Bare: true},
		},
	})
	d.Put(&design.Placed{ID: FourR1, Part: 1000, Designator: "R1", Value: "1k", Footprint: "Two pads", At: at(10, 10), Nets: map[string]design.ID{"1": FourA, "2": FourB}})
	d.Put(&design.Placed{ID: FourU1, Part: 1001, Designator: "U1", Value: "OM-1", Footprint: "One of each", At: at(10, 20), Angle: 90_000, Bottom: true,
		Nets: map[string]design.ID{"1": FourA, "2": FourC}})
	for i, id := range []design.ID{FourTop, FourInner1, FourInner2, FourBottom} {
		y := int64(i + 1)
		d.Put(&design.Track{ID: id, Layer: d.Board.At(i), A: at(5, y), B: at(15, y), Width: 300_000, Net: []design.ID{FourA, FourB, FourB, FourC}[i]})
	}
	via := func(id design.ID, x int64, from, to int, net design.ID) {
		d.Put(&design.Via{ID: id, At: at(x, 20), Diameter: 800_000, Hole: 400_000, From: d.Board.At(from), To: d.Board.At(to), Net: net})
	}
	via(FourThrough, 20, 0, 3, FourA)
	via(FourBlindTop, 25, 0, 1, FourA)
	via(FourBuried, 30, 1, 2, FourB)
	via(FourBlindBot, 35, 2, 3, FourC)
	d.Put(&design.Hole{ID: FourScrew, At: at(37, 3), Diameter: 3_200_000})
	d.Put(&design.Legend{ID: FourTextTop, At: at(30, 5), Height: 2 * mm, Text: "HI"})
	d.Put(&design.Legend{ID: FourTextBot, At: at(30, 10), Height: 2 * mm, Text: "LO", Bottom: true})
	return d
}
