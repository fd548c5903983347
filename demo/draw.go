package demo

import (
	"fmt"
	"strings"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/units"
)

// Ways of drawing a circuit by hand: to pins, along and across.

// hor goes level to an x, ver upright to a y, in millimetres.
type hor float64
type ver float64

// newSheet adds a sheet and goes on drawing there.
func (b *builder) newSheet(name, size string) design.ID {
	before := map[design.ID]bool{}
	for id := range b.bench.Doc.Sheets {
		before[id] = true
	}
	b.do(&edit.AddSheet{Name: name, Size: size})
	for id := range b.bench.Doc.Sheets {
		if !before[id] {
			b.sheet = id
		}
	}
	return b.sheet
}

// pin is the place of a pin of a part on the sheet: "U1.VIN" by name, "U1.2" by number,
// "U4A.1" of a unit.
func (b *builder) pin(name string) geom.Point {
	of, pin, _ := strings.Cut(name, ".")
	for _, o := range b.bench.Doc.ItemsOf(b.sheet) {
		switch o := o.(type) {
		case *design.Part:
			if o.Designator+o.UnitLetter() != of {
				continue
			}
			sym := b.bench.Doc.SymbolOf(o)
			for i := range sym.Pins {
				if sym.Pins[i].Number == pin || sym.Pins[i].Name == pin {
					return circuit.PinPlace(o, &sym.Pins[i])
				}
			}
		case *design.SheetBlock:
			for _, p := range o.Pins {
				if o.Name == of && p.Name == pin {
					return o.PinAt(p)
				}
			}
		}
	}
	if b.err == nil {
		b.err = fmt.Errorf("there is no pin %s on this sheet", name)
	}
	return geom.Point{}
}

// way turns pins, places and directions into a line with right angles; where two places are
// not in line it goes level first.
func (b *builder) way(steps ...any) []geom.Point {
	var path []geom.Point
	last := "v"
	for i := 0; i < len(steps); i++ {
		var to geom.Point
		switch s := steps[i].(type) {
		case hor:
			path, last = append(path, geom.Pt(units.MMf(float64(s)), path[len(path)-1].Y)), "h"
			continue
		case ver:
			path, last = append(path, geom.Pt(path[len(path)-1].X, units.MMf(float64(s)))), "v"
			continue
		case string:
			to = b.pin(s)
		case geom.Point:
			to = s
		}
		if k := len(path); k > 0 && path[k-1].X != to.X && path[k-1].Y != to.Y {
			if last == "h" {
				path = append(path, geom.Pt(path[k-1].X, to.Y))
			} else {
				path = append(path, geom.Pt(to.X, path[k-1].Y))
			}
		}
		path = append(path, to)
	}
	return path
}

// run draws a wire, bundle a bundle.
func (b *builder) run(steps ...any) {
	if path := b.way(steps...); b.err == nil {
		b.do(&edit.DrawWire{Sheet: b.sheet, Path: path})
		if b.err != nil {
			b.err = fmt.Errorf("wire %v: %w", steps, b.err)
		}
	}
}

func (b *builder) bundle(steps ...any) {
	if path := b.way(steps...); b.err == nil {
		b.do(&edit.DrawWire{Sheet: b.sheet, Path: path, Bundle: true})
	}
}

func (b *builder) supply(name, shape string, x, y float64, turn int) {
	b.do(&edit.PlaceSupply{Sheet: b.sheet, Name: name, Shape: shape, At: at(x, y), Turn: turn})
}

// feed is a supply mark where the supply comes in.
func (b *builder) feed(name, shape string, x, y float64) {
	b.do(&edit.PlaceSupply{Sheet: b.sheet, Name: name, Shape: shape, Feeds: true, At: at(x, y)})
}

func (b *builder) label(name string, x, y float64, turn int) {
	b.do(&edit.PlaceLabel{Sheet: b.sheet, Name: name, At: at(x, y), Turn: turn})
}

func (b *builder) port(name, way string, x, y float64, turn int) {
	b.do(&edit.PlacePort{Sheet: b.sheet, Name: name, Way: way, At: at(x, y), Turn: turn})
}

// taps leads members out of a bundle, each a step further.
func (b *builder) taps(x, y, dx, dy float64, turn int, members ...string) {
	b.do(&edit.PlaceTaps{Sheet: b.sheet, Members: members, At: at(x, y), Step: at(dx, dy), Turn: turn})
}

func (b *builder) open(pins ...string) {
	for _, p := range pins {
		if at := b.pin(p); b.err == nil {
			b.do(&edit.PlaceOpenMark{Sheet: b.sheet, At: at})
		}
	}
}

// upright places a two-pin part with pin 1 above; its pins lie 5 mm from its middle.
func (b *builder) upright(library, designator, value string, x, y float64) {
	b.part(library, designator, value, x, y, 3, false)
}

// grounded is an upright part with ground at its foot.
func (b *builder) grounded(library, designator, value string, x, y float64) {
	b.upright(library, designator, value, x, y)
	b.ground(x, y-5)
}

func (b *builder) draw(kind design.Kind, o design.Object) {
	b.do(edit.Drawn(kind, o))
}

func (b *builder) cluster(title, tint string, x0, y0, x1, y1 float64) {
	b.draw(design.KindCluster, &design.Cluster{Sheet: b.sheet, Title: title, Tint: tint, A: at(x0, y0), B: at(x1, y1)})
}

func (b *builder) note(x, y, width float64, tint, words string) {
	b.draw(design.KindNote, &design.Note{Sheet: b.sheet, At: at(x, y), Width: units.MMf(width), Size: units.MMf(2.8), Text: words, Tint: tint})
}

// blockOf places a block and lays its pins out: name, side and millimetres from below or
// from the left.
func (b *builder) blockOf(of design.ID, name string, x, y, w, h float64, pins ...design.BlockPin) {
	size := at(w, h)
	b.do(&edit.PlaceBlock{Sheet: b.sheet, Of: of, Name: name, At: at(x, y), Size: &size})
	if b.err != nil {
		return
	}
	for _, o := range b.bench.Doc.ItemsOf(b.sheet) {
		k, ok := o.(*design.SheetBlock)
		if !ok || k.Name != name || len(pins) == 0 {
			continue
		}
		ways := map[string]string{}
		for _, p := range k.Pins {
			ways[p.Name] = p.Way
		}
		for i := range pins {
			pins[i].Way = ways[pins[i].Name]
		}
		b.do(&edit.SetBlock{ID: k.ID, Size: &size, Pins: pins})
	}
}

func blockPin(name string, side int, pos float64) design.BlockPin {
	return design.BlockPin{Name: name, Side: side, Pos: units.MMf(pos)}
}

// moveText moves a part's designator or value away from its usual place, in millimetres
// from the part's origin.
func (b *builder) moveText(designator, which string, dx, dy float64) {
	for _, p := range b.bench.Doc.Bearers(designator) {
		to := at(dx, dy)
		b.do(&edit.MoveText{ID: p.ID, Text: which, At: &to})
	}
}
