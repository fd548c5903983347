// Package synthetic makes designs of any size for tests and benchmarks: blocks of a chip
// with its resistors and capacitors on sheets of 50 parts, a supply net that reaches every
// chip, local nets of two to four pins, and a board on which all parts stand in a grid, ground
// and supply joined through vias and spines on the bottom and a share of the other tracks laid. Pin
// counts, nets and copper per part are those of ordinary mixed boards: about three pins a part, two
// thirds of them passive, six tracks and vias.
package synthetic

import (
	"cmp"
	"fmt"
	"maps"
	"math"
	"slices"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/library"
	"goldentrace/core/rules"
	"goldentrace/core/units"
)

const grid = 2_500_000

// Design makes a design of n parts on sheets side by side, carried to a board and placed.
func Design(n int) (*design.Doc, error) {
	d, err := begin(fmt.Sprintf("Synthetic %d", n))
	if err != nil {
		return nil, err
	}
	fill(d, n, 50)
	return d, board(d, n)
}

// Circuit makes a circuit of n parts without a board: one sheet of blocks above sheets of so
// many parts each, every one with ports for a net and for a bundle of eight.
func Circuit(n, perSheet int) (*design.Doc, error) {
	d, err := begin(fmt.Sprintf("Synthetic circuit %d", n))
	if err != nil {
		return nil, err
	}
	top := d.SheetsInOrder()[0]
	fill(d, n, perSheet)
	s := *top
	s.Name, s.Size, s.Order = "Overview", "A1", 0
	over := &design.Sheet{ID: d.NewID(), Name: s.Name, Size: s.Size, Order: 0}
	d.Put(over)
	for i, sheet := range d.SheetsInOrder() {
		if sheet.ID == over.ID {
			continue
		}
		d.Put(&design.Port{ID: d.NewID(), Sheet: sheet.ID, Name: "IN", Way: "in", At: geom.Pt(5*grid, 5*grid), Turn: 2})
		d.Put(&design.Port{ID: d.NewID(), Sheet: sheet.ID, Name: "D[7:0]", Way: "both", At: geom.Pt(5*grid, 10*grid), Turn: 2})
		d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet.ID, A: geom.Pt(5*grid, 10*grid), B: geom.Pt(9*grid, 10*grid), Bundle: true})
		at := geom.Pt(int64(10+i%10*30)*grid, int64(10+i/10*20)*grid)
		d.Put(&design.SheetBlock{ID: d.NewID(), Sheet: over.ID, Name: sheet.Name, Of: sheet.ID, At: at, Size: geom.Pt(16*grid, 8*grid),
			Pins: []design.BlockPin{{Name: "IN", Way: "in", Side: 2, Pos: 6 * grid}, {Name: "D[7:0]", Way: "both", Side: 2, Pos: 2 * grid}}})
		d.Put(&design.Wire{ID: d.NewID(), Sheet: over.ID, A: at.Add(geom.Pt(0, 2*grid)), B: at.Add(geom.Pt(-4*grid, 2*grid)), Bundle: true})
		d.Put(&design.Label{ID: d.NewID(), Sheet: over.ID, Name: fmt.Sprintf("X%d[7:0]", i/10), At: at.Add(geom.Pt(-4*grid, 2*grid)), Turn: 2})
	}
	return d, nil
}

// begin is an empty design with what the parts need.
func begin(title string) (*design.Doc, error) {
	d := design.New(title)
	for _, name := range []string{"Resistor 0603", "Capacitor 0603", "Dual amplifier"} {
		it, ok := library.Find(name)
		if !ok {
			return nil, fmt.Errorf("the library lacks %s", name)
		}
		d.Put(design.WithID(it.Symbol, d.NewID()))
		if d.Footprint(it.Footprint.Name) == nil {
			d.Put(design.WithID(it.Footprint, d.NewID()))
		}
		d.Put(design.WithID(it.Part, d.NewID()))
	}
	// the halves of each chip work in parallel, which is meant
	d.Put(&design.Checks{ID: design.ChecksID, Pairs: map[string]string{"output|output": "off"}})
	return d, nil
}

// fill draws n parts on as many sheets as they need.
func fill(d *design.Doc, n, perSheet int) {
	sheet := d.SheetsInOrder()[0].ID
	onSheet, number := 0, map[string]int{}
	put := func(library string, at geom.Point, turn int) *design.Part {
		l := d.LibraryPart(library)
		number[l.Prefix]++
		p := &design.Part{ID: d.NewID(), Sheet: sheet, Library: library, Designator: fmt.Sprintf("%s%d", l.Prefix, number[l.Prefix]), Value: l.Value, Footprint: l.Footprint, At: at, Turn: turn}
		d.Put(p)
		onSheet++
		return p
	}
	wire := func(a, b geom.Point) { d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: a, B: b}) }
	ground := func(at geom.Point) {
		d.Put(&design.Supply{ID: d.NewID(), Sheet: sheet, Name: "GND", Shape: "ground", At: at, Feeds: true})
	}
	for made := 0; made < n; {
		if onSheet >= perSheet {
			s := &design.Sheet{ID: d.NewID(), Name: fmt.Sprintf("Sheet %d", len(d.Sheets)+1), Order: len(d.Sheets) + 1, Size: "A3"}
			d.Put(s)
			sheet, onSheet = s.ID, 0
		}
		block := onSheet / 5
		o := geom.Pt(int64(20+block%5*30)*grid, int64(20+block/5*40)*grid)
		u := put("Dual amplifier", o, 0)
		made++
		pins := d.SymbolOf(u).Pins
		at := func(number string) geom.Point {
			for i := range pins {
				if pins[i].Number == number {
					return circuit.PinPlace(u, &pins[i])
				}
			}
			return geom.Point{}
		}
		d.Put(&design.Supply{ID: d.NewID(), Sheet: sheet, Name: "+5V", Shape: "bar", At: at("8"), Feeds: true})
		ground(at("4"))
		// a resistor or capacitor on each input, to ground
		for i, pin := range []string{"3", "2", "5", "6"} {
			if made >= n {
				break
			}
			kind := "Resistor 0603"
			if i%2 == 1 {
				kind = "Capacitor 0603"
			}
			p := at(pin)
			part := put(kind, p.Add(geom.Pt(-6*grid, 0)), 0)
			made++
			wire(part.At.Add(geom.Pt(2*grid, 0)), p)
			ground(part.At.Add(geom.Pt(-2*grid, 0)))
		}
		wire(at("1"), at("1").Add(geom.Pt(3*grid, 0)))
		wire(at("1").Add(geom.Pt(3*grid, 0)), at("7").Add(geom.Pt(3*grid, 0)))
		wire(at("7").Add(geom.Pt(3*grid, 0)), at("7"))
	}
}

// board carries all parts over, places each block together and joins its inputs.
func board(d *design.Doc, n int) error {
	side := int64(math.Ceil(math.Sqrt(float64(n)/5))) * 14 * units.MM
	b := *d.Board
	edge := side + 10*units.MM
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(edge, 0), geom.Pt(edge, edge), geom.Pt(0, edge))
	d.Put(&b)
	d.SetBase(map[design.RuleKind]int64{design.TrackWidth: 200 * units.Micrometre, design.LetterHeight: 300 * units.Micrometre})
	if _, err := edit.Apply(d, edit.Env{}, &edit.Carry{All: true}); err != nil {
		return err
	}
	perRow := side / (14 * units.MM)
	block := int64(-1)
	within := 0
	for part := range d.Parts.All() {
		p := d.PlacedOf(part.ID, "")
		q := *p
		if p.Footprint == "SOIC-8" {
			block++
			within = 0
		}
		o := geom.Pt(12*units.MM+block%perRow*14*units.MM, 10*units.MM+block/perRow*14*units.MM)
		if within > 0 {
			o = o.Add(geom.Pt(-7*units.MM, int64(within)*2*units.MM-5*units.MM))
		}
		q.At = o
		if within > 0 { // small enough to stand beside parts that stand so close
			q.Letters, q.Label = 300*units.Micrometre, &geom.Point{X: 2300 * units.Micrometre}
		}
		within++
		d.Put(&q)
	}
	supplies(d)
	x := layout.NewIndex(d)
	set := rules.Of(d)
	env := edit.Env{Index: func() *layout.Index { return x }, Rules: func() *rules.Set { return set }}
	nets := slices.Collect(d.Nets.All())
	slices.SortFunc(nets, func(a, b *design.Net) int { return cmp.Compare(a.Name, b.Name) })
	for _, net := range nets {
		if net.Name == "GND" || net.Name == "+5V" {
			continue
		}
		for _, l := range layout.Links(x.NetPieces(net.ID)) {
			mid := geom.Pt(l.A.X+(l.B.X-l.A.X)/2, l.A.Y)
			cs, err := edit.Apply(d, env, &edit.DrawTrack{Net: net.ID, Runs: []edit.Run{{Layer: d.Board.Top(), Path: geom.Corners(l.A, mid, geom.Pt(mid.X, l.B.Y), l.B)}}})
			if err != nil {
				continue // a way that is not free stays an open link
			}
			for _, c := range cs {
				x.Put(d, c.After)
			}
		}
	}
	return nil
}

// supplies joins ground and supply: from each pad a track to a via beside it, from there on the bottom to
// the spine of its column, and all spines to a trunk, ground's below and the supply's above.
func supplies(d *design.Doc) {
	top, bottom := d.Board.Top(), d.Board.Bottom()
	track := func(net design.ID, layer design.LayerID, a, b geom.Point) {
		if a != b {
			d.Put(&design.Track{ID: d.NewID(), Layer: layer, A: a, B: b, Width: 300 * units.Micrometre, Net: net})
		}
	}
	high := d.Board.Outline[2].Y - 2_500_000
	for _, w := range []struct {
		name  string
		spine int64 // from the left of its column
		trunk int64
		fan   func(c *layout.Copper) geom.Point // to the via
	}{
		{"GND", 3_000_000, 2_500_000, func(c *layout.Copper) geom.Point {
			if c.Number == "4" {
				return geom.Pt(0, -2_095_000)
			}
			return geom.Pt(-1_200_000, 0)
		}},
		{"+5V", 12_000_000, high, func(*layout.Copper) geom.Point { return geom.Pt(0, 2_000_000) }},
	} {
		net := d.NetNamed(w.name)
		if net == nil {
			continue
		}
		spines := map[int64][]int64{} // places of a spine at which something joins it
		for _, c := range layout.NewIndex(d).NetPieces(net.ID) {
			via := c.At.Add(w.fan(c))
			x := (c.At.X-units.MM)/(14*units.MM)*14*units.MM + w.spine
			track(net.ID, top, c.At, via)
			d.Put(&design.Via{ID: d.NewID(), At: via, Diameter: 600_000, Hole: 300_000, From: top, To: bottom, Net: net.ID})
			track(net.ID, bottom, via, geom.Pt(x, via.Y))
			spines[x] = append(spines[x], via.Y)
		}
		columns := slices.Sorted(maps.Keys(spines))
		for i, x := range columns {
			ys := append(spines[x], w.trunk)
			slices.Sort(ys)
			for k, y := range ys[1:] {
				track(net.ID, bottom, geom.Pt(x, ys[k]), geom.Pt(x, y))
			}
			if i > 0 {
				track(net.ID, bottom, geom.Pt(columns[i-1], w.trunk), geom.Pt(x, w.trunk))
			}
		}
	}
}
