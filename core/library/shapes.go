package library

import (
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Parts whose pads are no plain rectangles or circles: slots, cut corners, free forms.

func shapedSymbols() []*design.Symbol {
	half := func(dx float64) design.Figure { // of a disc, its straight side towards the middle
		return design.Figure{Form: "arc", Pts: pts(dx*0.5, 1.8, dx*2.3, 0, dx*0.5, -1.8)}
	}
	return []*design.Symbol{
		named(&design.Symbol{Name: "Solder bridge", Pins: twoPins(2.7), Figures: []design.Figure{
			half(-1), line(-0.5, -1.8, -0.5, 1.8), half(1), line(0.5, -1.8, 0.5, 1.8)}}, 0, 3.3, 0, -3.3),
	}
}

func shapedFootprints(add func(f *design.Footprint, dx, dy float64)) {
	// a slot takes the flat lugs of a socket: 1 mm wide, as long as said
	lug := func(number string, x, y, w, h, long float64, upright bool) design.Pad {
		p := design.Pad{Number: number, Form: design.Oval, At: pts(x, y)[0], Size: pts(w, h)[0], Hole: units.MM}
		way := geom.Pt(units.MMf(long)-p.Hole, 0)
		if upright {
			way = geom.Pt(0, way.X)
		}
		p.HoleAt, p.Slot = geom.Pt(-way.X/2, -way.Y/2), way
		return p
	}
	add(&design.Footprint{Name: "Supply socket", Description: "Round socket for a mains adapter, lying at the edge, three flat lugs in slots",
		Pads: []design.Pad{lug("1", 0, 0, 2.2, 4.2, 3, true), lug("2", 6, 0, 2.2, 4, 2.8, true), lug("3", 3, 4.7, 4, 2.2, 2.8, false)},
		Silk: []design.Figure{line(-7.7, -4.5, -7.7, 4.5), line(-7.7, 4.5, 0.7, 4.5), line(5.3, 4.5, 6.5, 4.5), line(6.5, 4.5, 6.5, 2.3), line(6.5, -2.3, 6.5, -4.5), line(6.5, -4.5, -7.7, -4.5)},
		Body: []design.Figure{rect(-7.5, -4.5, 6.5, 4.5), circle(-4, 0, 3)}, Courtyard: yard(-7.95, -4.75, 7.35, 6.05)}, 0, 7)

	moon := func(number string, side float64) design.Pad { // half of a disc of 1 mm, 0.15 mm from the middle
		from, to := pts(-side*0.45, -side)[0], pts(-side*0.45, side)[0]
		return design.Pad{Number: number, Form: design.Free, At: pts(side*0.6, 0)[0], Size: pts(1, 2)[0],
			Edge: []geom.Corner{{Point: from}, to.Through(pts(side*0.55, 0)[0])}, Paste: &design.Opening{None: true}}
	}
	add(&design.Footprint{Name: "Solder bridge", Description: "Two half discs that a drop of solder joins",
		Pads: []design.Pad{moon("1", -1), moon("2", 1)}, Silk: []design.Figure{}, Body: []design.Figure{circle(0, 0, 1.2)}, Courtyard: yard(-1.5, -1.4, 1.5, 1.4)}, 0, 2.2)

	f := &design.Footprint{Name: "DFN-8", Description: "Leadless package, eight pads at 0.65 mm, heat pad below joined with pad 4, body 3 × 3 mm"}
	for i := range 4 {
		y := 0.975 - 0.65*float64(i)
		f.Pads = append(f.Pads, surface(string(rune('1'+i)), -1.45, y, 0.75, 0.35))
	}
	for i := range 4 {
		y := -0.975 + 0.65*float64(i)
		f.Pads = append(f.Pads, surface(string(rune('5'+i)), 1.45, y, 0.75, 0.35))
	}
	heat := design.Pad{Number: "4", Form: design.Chamfered, Size: pts(1.6, 2.3)[0], Corner: units.MMf(0.35), Cut: 2} // pin 1 is where the corner is cut
	window := func(y float64) []geom.Corner {
		return geom.Corners(pts(-0.6, y-0.45, 0.6, y-0.45, 0.6, y+0.45, -0.6, y+0.45)...)
	}
	heat.Paste = &design.Opening{Windows: [][]geom.Corner{window(0.55), window(-0.55)}}
	f.Pads = append(f.Pads, heat)
	f.Together = [][]string{{"4"}} // two pads of one number on purpose
	f.Silk = []design.Figure{line(-1.5, 1.65, 1.5, 1.65), line(-1.5, -1.65, 1.5, -1.65), circle(-1.85, 1.55, 0.12)}
	f.Body = []design.Figure{rect(-1.5, -1.5, 1.5, 1.5), circle(-1, 1, 0.2)}
	f.Courtyard = yard(-2.1, -1.75, 2.1, 1.75)
	add(f, 0, 2.6)
}
