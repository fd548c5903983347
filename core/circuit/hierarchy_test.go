package circuit_test

import (
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
)

var (
	thinNames   = []string{"A", "B", "D0", "D1", "Q1"}
	memberNames = []string{"A", "B", "D0", "D1", "Q1", "Q0", "D2"}
	bundleNames = []string{"D[1:0]", "Q[0:1]", "A, B", "D[2:0]"}
)

func anyName(t *rapid.T) string {
	return rapid.SampledFrom(slices.Concat(thinNames, bundleNames)).Draw(t, "name")
}

// nested is a random drawing on several sheets, of which earlier ones hold blocks of later
// ones, with bundles, taps and ports.
func nested(t *rapid.T) *design.Doc {
	d := design.New("nested")
	sheets := []design.ID{d.SheetsInOrder()[0].ID}
	for i := range rapid.IntRange(1, 3).Draw(t, "sheets") {
		s := &design.Sheet{ID: d.NewID(), Name: fmt.Sprint("S", i+2), Order: i + 2, Size: "A4"}
		d.Put(s)
		sheets = append(sheets, s.ID)
	}
	// half of what is put down stands where something stands already
	seen := map[design.ID][]geom.Point{}
	for n := range rapid.IntRange(0, 4).Draw(t, "blocks") {
		from := rapid.IntRange(0, len(sheets)-2).Draw(t, "on")
		b := &design.SheetBlock{ID: d.NewID(), Sheet: sheets[from], Name: fmt.Sprint("K", n), Of: sheets[rapid.IntRange(from+1, len(sheets)-1).Draw(t, "of")], At: place(t, "block"), Size: geom.Pt(2*grid, 2*grid)}
		for i, name := range rapid.SliceOfNDistinct(rapid.SampledFrom(slices.Concat(thinNames, bundleNames)), 0, 4, rapid.ID).Draw(t, "pins") {
			b.Pins = append(b.Pins, design.BlockPin{Name: name, Way: "both", Side: i, Pos: grid})
		}
		d.Put(b)
		for _, pin := range b.Pins {
			seen[b.Sheet] = append(seen[b.Sheet], b.PinAt(pin))
		}
	}
	for i, sheet := range sheets {
		place := func(t *rapid.T, name string) geom.Point {
			p := place(t, name)
			if list := seen[sheet]; len(list) > 0 && rapid.Bool().Draw(t, name+" again") {
				p = rapid.SampledFrom(list).Draw(t, name+" where")
			}
			seen[sheet] = append(seen[sheet], p)
			return p
		}
		_, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: "Header 4", At: place(t, "header")})
		require.NoError(t, err)
		_, err = edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: "Resistor", At: place(t, "resistor"), Turn: rapid.IntRange(0, 3).Draw(t, "turn")})
		require.NoError(t, err)
		for range rapid.IntRange(0, 8).Draw(t, "wires") {
			a := place(t, "a")
			step := int64(rapid.IntRange(1, 5).Draw(t, "length")) * grid
			b := a.Add(rapid.SampledFrom([]geom.Point{{X: step}, {Y: step}, {X: step, Y: step}}).Draw(t, "way"))
			d.Put(&design.Wire{ID: d.NewID(), Sheet: sheet, A: a, B: b, Bundle: rapid.IntRange(0, 2).Draw(t, "bundle") == 0})
		}
		for range rapid.IntRange(0, 4).Draw(t, "labels") {
			d.Put(&design.Label{ID: d.NewID(), Sheet: sheet, Name: anyName(t), At: place(t, "label")})
		}
		for range rapid.IntRange(0, 3).Draw(t, "taps") {
			tap := &design.Tap{ID: d.NewID(), Sheet: sheet, Member: rapid.SampledFrom(memberNames).Draw(t, "member"), At: place(t, "tap"), Turn: rapid.IntRange(0, 3).Draw(t, "slant")}
			d.Put(tap)
			seen[sheet] = append(seen[sheet], tap.End())
		}
		if i > 0 {
			for range rapid.IntRange(0, 3).Draw(t, "ports") {
				d.Put(&design.Port{ID: d.NewID(), Sheet: sheet, Name: anyName(t), Way: "both", At: place(t, "port")})
			}
		}
		for range rapid.IntRange(0, 2).Draw(t, "supplies") {
			d.Put(&design.Supply{ID: d.NewID(), Sheet: sheet, Name: rapid.SampledFrom([]string{"A", "GND"}).Draw(t, "supply"), Shape: "ground", At: place(t, "supply")})
		}
	}
	return d
}

// members spells a bundle's name out, in another way than the program: by hand for the few
// names of these tests.
func members(name string) []string {
	switch name {
	case "D[1:0]":
		return []string{"D1", "D0"}
	case "D[2:0]":
		return []string{"D2", "D1", "D0"}
	case "Q[0:1]":
		return []string{"Q0", "Q1"}
	case "A, B":
		return []string{"A", "B"}
	}
	return []string{name}
}

// paint finds the nets of a nested circuit in another way than the program: it copies every
// sheet for every use and lets colours spread over names, places and wires until nothing
// changes. A colour belongs to a text: "<use>@x,y" is a place of wires, "<use>=NAME" a name
// within a use, "<use>^NAME#n" the nth member of a port, "<use>~...#n" of a bundle, "!NAME" a supply.
func paint(d *design.Doc) map[circuit.PinRef]string {
	colour := map[string]string{}
	var links [][2]string
	link := func(a, b string) {
		for _, k := range []string{a, b} {
			if _, ok := colour[k]; !ok {
				colour[k] = k
			}
		}
		links = append(links, [2]string{a, b})
	}
	pins := map[circuit.PinRef]string{}
	supplies := map[string]bool{}
	for s := range d.Supplies.All() {
		if len(d.Uses(s.Sheet)) > 0 || isRoot(d, s.Sheet) {
			supplies[s.Name] = true
		}
	}
	var use func(path string, sheet design.ID)
	use = func(path string, sheet design.ID) {
		u := fmt.Sprintf("%s#%d", path, sheet)
		spot := func(p geom.Point) string { return fmt.Sprintf("%s@%d,%d", u, p.X, p.Y) }
		thick := func(p geom.Point) string { return fmt.Sprintf("%s*%d,%d", u, p.X, p.Y) }
		named := func(name string) string {
			if supplies[name] {
				link(u+"="+name, "!"+name)
			}
			return u + "=" + name
		}
		covered := map[geom.Point]bool{} // by a bundle
		// every place where something is, and which wires cover it
		var wireAt, bundleAt []geom.Point
		type end struct {
			rank  int
			id    design.ID
			text  string
			at    geom.Point
			outer []string // of a port or pin: what its members are called in the other sheet
		}
		var ends []end
		var taps []*design.Tap
		for _, o := range d.ItemsOf(sheet) {
			switch o := o.(type) {
			case *design.Part:
				for i := range d.SymbolOf(o).Pins {
					pin := &d.SymbolOf(o).Pins[i]
					at := circuit.PinPlace(o, pin)
					wireAt = append(wireAt, at)
					pins[circuit.PinRef{Part: o.ID, Pin: pin.Number, Path: path}] = spot(at)
					link(spot(at), spot(at))
				}
			case *design.Label:
				if m := members(o.Name); len(m) == 1 {
					wireAt = append(wireAt, o.At)
					link(spot(o.At), named(o.Name))
				} else {
					bundleAt = append(bundleAt, o.At)
					ends = append(ends, end{0, o.ID, o.Name, o.At, nil})
				}
			case *design.Port:
				if m := members(o.Name); len(m) == 1 {
					wireAt = append(wireAt, o.At)
					link(spot(o.At), named(o.Name))
					link(spot(o.At), u+"^"+o.Name+"#0")
				} else {
					bundleAt = append(bundleAt, o.At)
					var outer []string
					for i := range m {
						outer = append(outer, fmt.Sprintf("%s^%s#%d", u, o.Name, i))
					}
					ends = append(ends, end{1, o.ID, o.Name, o.At, outer})
				}
			case *design.Supply:
				wireAt = append(wireAt, o.At)
				link(spot(o.At), "!"+o.Name)
			case *design.Tap:
				wireAt, bundleAt = append(wireAt, o.End()), append(bundleAt, o.At)
				taps = append(taps, o)
			case *design.Wire:
				if o.Bundle {
					bundleAt = append(bundleAt, o.A, o.B)
				} else {
					wireAt = append(wireAt, o.A, o.B)
				}
			case *design.SheetBlock:
				below := fmt.Sprintf("%s/%d", path, o.ID)
				if path == "" {
					below = fmt.Sprint(o.ID)
				}
				use(below, o.Of)
				for _, pin := range o.Pins {
					at := o.At.Add([]geom.Point{{X: 2 * grid, Y: grid}, {X: grid, Y: 2 * grid}, {Y: grid}, {X: grid}}[pin.Side])
					under := fmt.Sprintf("%s#%d^", below, o.Of)
					if m := members(pin.Name); len(m) == 1 {
						wireAt = append(wireAt, at)
						link(spot(at), under+pin.Name+"#0")
					} else {
						bundleAt = append(bundleAt, at)
						var outer []string
						for i := range m {
							outer = append(outer, fmt.Sprintf("%s%s#%d", under, pin.Name, i))
						}
						ends = append(ends, end{2, o.ID, pin.Name, at, outer})
					}
				}
			}
		}
		for _, o := range d.ItemsOf(sheet) {
			w, ok := o.(*design.Wire)
			if !ok {
				continue
			}
			list, f := wireAt, spot
			if w.Bundle {
				list, f = bundleAt, thick
			}
			for _, p := range list {
				if cross := (w.B.X-w.A.X)*(p.Y-w.A.Y) == (w.B.Y-w.A.Y)*(p.X-w.A.X); cross && geom.BoxOf(w.A, w.B).Holds(p) {
					covered[p] = covered[p] || w.Bundle
					link(f(p), f(w.A))
				}
			}
		}
		for _, p := range bundleAt {
			link(thick(p), thick(p))
		}
		spread(colour, links)
		// what stands on one bundle
		groups := map[string][]end{}
		for _, e := range ends {
			groups[colour[thick(e.at)]] = append(groups[colour[thick(e.at)]], e)
		}
		for c, list := range groups {
			slices.SortFunc(list, func(a, b end) int {
				if a.rank != b.rank {
					return a.rank - b.rank
				}
				if a.id != b.id {
					return int(a.id - b.id)
				}
				return strings.Compare(a.text, b.text)
			})
			groups[c] = list
		}
		// what is in one place of the lists is joined; only labels and ports name it
		for c, list := range groups {
			width := len(members(list[0].text))
			for _, e := range list {
				if len(members(e.text)) != width {
					continue
				}
				for i, name := range members(e.text) {
					place := fmt.Sprintf("%s~%s#%d", u, c, i)
					if e.rank < 2 {
						link(place, named(name))
					}
					if e.outer != nil {
						link(place, e.outer[i])
					}
				}
			}
		}
		for _, t := range taps {
			c := colour[thick(t.At)]
			link(spot(t.End()), spot(t.End()))
			if list := groups[c]; len(list) > 0 {
				for _, e := range list {
					i := slices.Index(members(e.text), t.Member)
					if i >= 0 && len(members(e.text)) == len(members(list[0].text)) && (e.rank < 2 || list[0].rank == 2) {
						link(spot(t.End()), fmt.Sprintf("%s~%s#%d", u, c, i))
						break
					}
				}
			} else if covered[t.At] {
				link(spot(t.End()), fmt.Sprintf("%s~%s=%s", u, c, t.Member))
			}
		}
	}
	for _, s := range d.SheetsInOrder() {
		if isRoot(d, s.ID) {
			use("", s.ID)
		}
	}
	spread(colour, links)
	out := map[circuit.PinRef]string{}
	for ref, s := range pins {
		out[ref] = colour[s]
	}
	return out
}

func isRoot(d *design.Doc, sheet design.ID) bool { return len(d.Uses(sheet)) == 0 }

func spread(colour map[string]string, links [][2]string) {
	for changed := true; changed; {
		changed = false
		for _, l := range links {
			if a, b := colour[l[0]], colour[l[1]]; a != b {
				colour[l[0]], colour[l[1]] = min(a, b), min(a, b)
				changed = true
			}
		}
	}
}

// often tries a property many hundred times: what is drawn at random seldom meets.
func often(t *testing.T, hundreds int, property func(t *rapid.T)) {
	for range hundreds {
		rapid.Check(t, property)
	}
}

func TestNestedNetsAgainstPaint(t *testing.T) {
	often(t, 20, func(t *rapid.T) {
		d := nested(t)
		assert.Equal(t, partition(paint(d)), partition(circuit.Find(d).OfPin))
	})
}

// After every edit and undo the nets, their names, the findings and the differences kept up to
// date equal those found from scratch.
func TestNestedIncrementalEqualsFromScratch(t *testing.T) {
	often(t, 2, func(t *rapid.T) {
		d := nested(t)
		b := workbench.Open(d, 0)
		var done []edit.ChangeSet
		sheet := func() design.ID {
			return rapid.SampledFrom(slices.Sorted(maps.Keys(d.Sheets))).Draw(t, "sheet")
		}
		for range rapid.IntRange(1, 10).Draw(t, "edits") {
			var c edit.Command
			switch rapid.IntRange(0, 12).Draw(t, "kind") {
			case 0:
				c = &edit.DrawWire{Sheet: sheet(), Path: []geom.Point{place(t, "a"), place(t, "b")}, Bundle: rapid.Bool().Draw(t, "bundle")}
			case 1:
				c = &edit.PlacePort{Sheet: sheet(), Name: anyName(t), Way: "in", At: place(t, "port")}
			case 2:
				c = &edit.PlaceBlock{Sheet: sheet(), Of: sheet(), At: place(t, "block")}
			case 3:
				c = &edit.PlaceLabel{Sheet: sheet(), Name: anyName(t), At: place(t, "label")}
			case 4:
				c = &edit.PlaceSupply{Sheet: sheet(), Name: "A", Shape: "bar", At: place(t, "supply")}
			case 5:
				var all []design.ID
				for o := range d.All() {
					if _, ok := o.(design.OnSheet); ok {
						all = append(all, o.ObjectID())
					}
				}
				c = &edit.Remove{IDs: []design.ID{rapid.SampledFrom(all).Draw(t, "removed")}}
			case 6:
				name := fmt.Sprint("Renamed ", rapid.IntRange(0, 5).Draw(t, "n"))
				c = &edit.SetSheet{Sheet: sheet(), Name: &name}
			case 7:
				ids := slices.Sorted(maps.Keys(d.Sheets))
				slices.Reverse(ids)
				c = &edit.OrderSheets{Sheets: ids}
			case 8:
				c = &edit.PlaceTaps{Sheet: sheet(), Members: []string{"D1", "D0"}, At: place(t, "tap"), Step: geom.Pt(grid, 0)}
			case 9:
				c = &edit.PlacePart{Sheet: sheet(), Library: "Resistor", At: place(t, "part")}
			case 10:
				ids := slices.Sorted(maps.Keys(d.Parts))
				name := fmt.Sprint("X", rapid.IntRange(1, 2).Draw(t, "designator"))
				if len(ids) == 0 {
					continue
				}
				c = &edit.SetPart{ID: ids[0], Designator: &name}
			case 11:
				c = &edit.Carry{All: true}
			case 12:
				if n := len(done); n > 0 {
					b.Apply(done[n-1].Inverted())
					done = done[:n-1]
				}
			}
			if c != nil {
				if cs, err := b.Edit(c); err == nil {
					done = append(done, cs)
				}
			}
			if rapid.Bool().Draw(t, "settle") {
				b.Settle()
			}
		}
		b.Settle()
		fresh := workbench.Open(d.Snapshot(), 0)
		assert.Equal(t, fresh.Nets().OfPin, b.Nets().OfPin)
		assert.Equal(t, fresh.Nets().OfItem, b.Nets().OfItem)
		assert.Equal(t, slices.Sorted(maps.Keys(fresh.Nets().ByName)), slices.Sorted(maps.Keys(b.Nets().ByName)))
		assert.Equal(t, fresh.Differences(), b.Differences())
		texts := func(b *workbench.Bench) []string {
			var out []string
			for _, f := range b.Findings() {
				out = append(out, f.Key+" | "+f.Text)
			}
			slices.Sort(out)
			return out
		}
		assert.Equal(t, texts(fresh), texts(b))
	})
}
