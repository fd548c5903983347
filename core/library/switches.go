package library

import "goldentrace/core/design"

// Buttons, slide switches and the plug of a battery.

func switchSymbols() []*design.Symbol {
	return []*design.Symbol{
		named(&design.Symbol{Name: "Button", Pins: twoPins(2.5), Figures: []design.Figure{
			circle(-1.9, 0, 0.6), circle(1.9, 0, 0.6), line(-2.4, 1.3, 2.4, 1.3), line(0, 1.3, 0, 3), line(-0.9, 3, 0.9, 3)}}, 0, 5.2, 0, -2.4),
		named(&design.Symbol{Name: "Slide switch", Pins: []design.Pin{
			pin("1", "", "passive", 5, 2.5, 2, 2.5), pin("2", "", "passive", -5, 0, 0, 2.5), pin("3", "", "passive", 5, -2.5, 2, 2.5)},
			Figures: []design.Figure{circle(-1.9, 0, 0.6), circle(1.9, 2.5, 0.6), circle(1.9, -2.5, 0.6), line(-1.4, 0.35, 1.6, 2)}}, 0, 5.2, 0, -5.2),
	}
}

func switchFootprints(add func(f *design.Footprint, dx, dy float64)) {
	both := [][]string{{"1"}, {"2"}} // each end of the contact comes out on both sides
	add(&design.Footprint{
		Name: "Button 6 mm", Description: "Push button, body 6 × 6 mm, four leads at 6.5 × 4.5 mm", Together: both,
		Pads: []design.Pad{
			through("1", "rect", -3.25, 2.25, 1.8, 1), through("1", "round", 3.25, 2.25, 1.8, 1),
			through("2", "round", -3.25, -2.25, 1.8, 1),
			through("2", "round", 3.25, -2.25, 1.8, 1),
		},
		Silk: []design.Figure{
			line(-3.1, -1, -3.1, 1), line(3.1, -1, 3.1, 1), line(-2, 3.1, 2, 3.1), line(-2, -3.1, 2, -3.1), circle(0, 0, 1.75),
		},
		Body:      []design.Figure{rect(-3, -3, 3, 3), circle(0, 0, 2.1)},
		Courtyard: yard(-4.4, -3.4, 4.4, 3.4),
	}, 0, 4.2)
	add(&design.Footprint{
		Name: "Button 5.2 mm surface", Description: "Push button, body 5.2 × 5.2 mm, four pads", Together: both,
		Pads: []design.Pad{
			surface("1", -3.1, 1.85, 1.8, 1.1), surface("1", 3.1, 1.85, 1.8, 1.1),
			surface("2", -3.1, -1.85, 1.8, 1.1),
			surface("2", 3.1, -1.85, 1.8, 1.1),
		},
		Silk: []design.Figure{
			line(-2.7, -1, -2.7, 1), line(2.7, -1, 2.7, 1), line(-2.7, 2.75, 2.7, 2.75), line(-2.7, -2.75, 2.7, -2.75), circle(0, 0, 1.2),
		},
		Body:      []design.Figure{rect(-2.6, -2.6, 2.6, 2.6), circle(0, 0, 2.05)},
		Courtyard: yard(-4.25, -3, 4.25, 3),
	}, 0, 3.8)
	add(&design.Footprint{
		Name: "Slide switch 2.5 mm", Description: "Slide switch, three leads at 2.5 mm, body 8.6 × 3.6 mm",
		Pads: []design.Pad{
			through("1", "rect", -2.5, 0, 1.6, 0.9),
			through("2", "round", 0, 0, 1.6, 0.9),
			through("3", "round", 2.5, 0, 1.6, 0.9),
		},
		Silk: []design.Figure{rect(-4.4, -1.9, 4.4, 1.9)}, Body: []design.Figure{rect(-4.3, -1.8, 4.3, 1.8), rect(-1.2, -0.8, 1.2, 0.8)},
		Courtyard: yard(-4.65, -2.15, 4.65, 2.15),
	}, 0, 2.8)
	add(&design.Footprint{
		Name: "Battery plug 2 mm", Description: "Keyed plug, two leads at 2 mm, wires leave below",
		Pads: []design.Pad{
			through("1", "rect", -1, 0, 1.4, 0.8),
			through("2", "round", 1, 0, 1.4, 0.8),
		},
		Silk: []design.Figure{
			line(-3, 2.4, 3, 2.4, 3, -3.6, -3, -3.6, -3, 2.4), line(-2.6, 1.4, -1.8, 1.4), line(-2.2, 1, -2.2, 1.8),
		},
		Body:      []design.Figure{rect(-2.95, -3.5, 2.95, 2.3)},
		Courtyard: yard(-3.25, -3.85, 3.25, 2.65),
	}, 0, 3.3)
}

func switchParts(lp func(name, prefix, symbol, footprint, value, text, keywords string) *design.LibraryPart) []*design.LibraryPart {
	return []*design.LibraryPart{
		lp("Button", "S", "Button", "Button 6 mm", "", "Push button, 6 × 6 mm, four leads", "tactile key switch tht"),
		lp("Button surface", "S", "Button", "Button 5.2 mm surface", "", "Push button, 5.2 × 5.2 mm, four pads", "tactile key switch smd"),
		lp("Slide switch", "S", "Slide switch", "Slide switch 2.5 mm", "", "Slide switch, one change-over contact", "spdt tht"),
		lp("Battery plug", "J", "Header 2", "Battery plug 2 mm", "", "Keyed plug for a battery's leads, 2 mm, pin 1 positive", "battery connector cell tht"),
	}
}
