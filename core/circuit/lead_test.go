package circuit_test

import (
	"maps"
	"slices"
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

const pitch = 2_500_000

// maze is what stands on a sheet, as somebody sees it who looks at every grid place by itself.
type maze struct {
	places map[geom.Point]bool // ends of wires, pins, labels, marks
	wires  [][2]geom.Point
	bodies []geom.Box
	out    map[geom.Point]geom.Point // the way out of a pin
	box    geom.Box                  // within which a way may go
	from   geom.Point
	to     geom.Point
	twice  bool // a pin stands on another thing: which way leads out of it nobody can say
}

var four = []geom.Point{{X: 1}, {Y: 1}, {X: -1}, {Y: -1}}

func mazeOf(d *design.Doc, sheet design.ID, from, to geom.Point) *maze {
	m := &maze{places: map[geom.Point]bool{}, out: map[geom.Point]geom.Point{}, from: from, to: to, box: geom.BoxOf(from, to).Grow(8 * pitch)}
	for _, o := range d.ItemsOf(sheet) {
		switch o := o.(type) {
		case *design.Wire:
			m.wires = append(m.wires, [2]geom.Point{o.A, o.B})
			m.places[o.A], m.places[o.B] = true, true
		case *design.Label:
			m.places[o.At] = true
		case *design.OpenMark:
			m.places[o.At] = true
		case *design.Part:
			var body geom.Extent
			sym := d.SymbolOf(o)
			for i := range sym.Pins {
				p := &sym.Pins[i]
				at := circuit.PinPlace(o, p)
				inner := o.Pose().Apply(p.At.Add(geom.Pt(four[p.Turn].X*p.Length, four[p.Turn].Y*p.Length)))
				m.twice = m.twice || m.places[at]
				m.places[at] = true
				step := at.Sub(inner)
				switch {
				case step.X > 0:
					m.out[at] = four[0]
				case step.X < 0:
					m.out[at] = four[2]
				case step.Y > 0:
					m.out[at] = four[1]
				case step.Y < 0:
					m.out[at] = four[3]
				default:
					m.out[at] = geom.Point{}
				}
				body.AddBox(geom.BoxOf(inner))
			}
			for _, f := range sym.Figures {
				for _, p := range f.Pts {
					body.AddBox(geom.BoxOf(o.Pose().Apply(p.Add(geom.Pt(f.R, f.R))), o.Pose().Apply(p.Sub(geom.Pt(f.R, f.R)))))
				}
			}
			m.bodies = append(m.bodies, body.Box)
		}
	}
	delete(m.places, from)
	delete(m.places, to)
	return m
}

func (m *maze) onWire(p geom.Point) bool {
	for _, w := range m.wires {
		if geom.OnSegment(p, w[0], w[1]) {
			return true
		}
	}
	return false
}

// step is what a step of the grid costs, or false where none may be made: 10, 80 more within a
// body; not along a wire.
func (m *maze) step(a geom.Point, dir int) (geom.Point, int, bool) {
	b := a.Add(geom.Pt(four[dir].X*pitch, four[dir].Y*pitch))
	mid := geom.Pt((a.X+b.X)/2, (a.Y+b.Y)/2)
	if !m.box.Holds(b) || m.places[b] || b == m.from { // nor back to where it began
		return b, 0, false
	}
	if m.places[mid] { // things may stand between the lines of the grid
		return b, 0, false
	}
	for _, w := range m.wires {
		if geom.OnSegment(mid, w[0], w[1]) && geom.OnSegment(a, w[0], w[1]) && geom.OnSegment(b, w[0], w[1]) {
			return b, 0, false
		}
	}
	cost := 10
	for _, box := range m.bodies {
		if box.Holds(mid) {
			cost += 80
		}
	}
	return b, cost, true
}

// leaving a pin aside costs a corner, towards its body 150.
func (m *maze) leaving(p geom.Point, dir geom.Point) int {
	out, ok := m.out[p]
	switch {
	case !ok || out == dir:
		return 0
	case out.X == -dir.X && out.Y == -dir.Y:
		return 150
	}
	return 14
}

// arriving at b by dir, having come to a by from (−1: from nowhere).
func (m *maze) arriving(a geom.Point, from, dir int, b geom.Point, cost int) (int, bool) {
	if from >= 0 && dir == (from+2)%4 || from >= 0 && dir != from && m.onWire(a) {
		return 0, false
	}
	if from >= 0 && dir != from {
		cost += 14
	}
	if m.onWire(b) {
		cost += 9
	}
	if from < 0 {
		cost += m.leaving(a, four[dir])
	}
	if b == m.to {
		cost += m.leaving(b, four[(dir+2)%4])
	}
	return cost, true
}

// best is the least cost of all ways, found by trying all of them again and again until none is
// better; −1: there is none.
func (m *maze) best(from geom.Point) int {
	type state struct {
		at  geom.Point
		dir int
	}
	cost := map[state]int{{from, -1}: 0}
	todo := []state{{from, -1}}
	least := -1
	for len(todo) > 0 {
		s := todo[0]
		todo = todo[1:]
		if s.at == m.to && s.dir >= 0 {
			if least < 0 || cost[s] < least {
				least = cost[s]
			}
			continue
		}
		for dir := range four {
			b, c, ok := m.step(s.at, dir)
			if !ok {
				continue
			}
			if c, ok = m.arriving(s.at, s.dir, dir, b, c); !ok {
				continue
			}
			next := state{b, dir}
			if old, seen := cost[next]; !seen || cost[s]+c < old {
				cost[next] = cost[s] + c
				todo = append(todo, next)
			}
		}
	}
	return least
}

// costOf goes a way step by step; false where it goes as none may.
func (m *maze) costOf(way []geom.Point) (int, bool) {
	at, from, total := way[0], -1, 0
	for _, corner := range way[1:] {
		for at != corner {
			dir := -1
			for i, d := range four {
				if v := corner.Sub(at); v.X*d.X > 0 && v.Y == 0 || v.Y*d.Y > 0 && v.X == 0 {
					dir = i
				}
			}
			if dir < 0 {
				return 0, false // slanted
			}
			b, c, ok := m.step(at, dir)
			if !ok {
				return 0, false
			}
			if c, ok = m.arriving(at, from, dir, b, c); !ok {
				return 0, false
			}
			at, from, total = b, dir, total+c
		}
	}
	return total, true
}

// A wire that has to be led round takes a way that touches nothing and costs the least of all
// there are: the same as an exhaustive search over every place of the grid finds.
func TestWaysRoundAgainstAllWays(t *testing.T) {
	led := 0
	often(t, 10, func(t *rapid.T) {
		d := design.New("maze")
		sheet := d.SheetsInOrder()[0].ID
		at := func(name string) geom.Point {
			return geom.Pt(rapid.Int64Range(-4, 10).Draw(t, name+" x")*pitch, rapid.Int64Range(-3, 7).Draw(t, name+" y")*pitch)
		}
		var pins, on []geom.Point // and places of the grid on wires
		for range rapid.IntRange(1, 4).Draw(t, "parts") {
			lib := rapid.SampledFrom([]string{"Resistor", "NPN transistor", "Regulator SOT-223", "Header 4"}).Draw(t, "part")
			_, _ = edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: lib, At: at("part"), Turn: rapid.IntRange(0, 3).Draw(t, "turn"), Mirror: rapid.Bool().Draw(t, "mirror")})
		}
		for p := range d.Parts.All() {
			for i := range d.SymbolOf(p).Pins {
				pins = append(pins, circuit.PinPlace(p, &d.SymbolOf(p).Pins[i]))
			}
		}
		for range rapid.IntRange(0, 4).Draw(t, "wires") {
			a, b := at("wire"), at("end")
			if rapid.Bool().Draw(t, "level") {
				b.Y = a.Y
			} else {
				b.X = a.X
			}
			if a != b {
				_, _ = edit.Apply(d, edit.Env{}, &edit.DrawWire{Sheet: sheet, Path: []geom.Point{a, b}})
				on = append(on, a, geom.Pt((a.X+b.X)/2/pitch*pitch, (a.Y+b.Y)/2/pitch*pitch))
			}
		}
		for range rapid.IntRange(0, 2).Draw(t, "marks") {
			half := geom.Pt(rapid.Int64Range(0, 1).Draw(t, "half x")*pitch/2, rapid.Int64Range(0, 1).Draw(t, "half y")*pitch/2)
			_, _ = edit.Apply(d, edit.Env{}, &edit.PlaceLabel{Sheet: sheet, Name: "L", At: at("label").Add(half)})
		}
		end := func(name string) geom.Point {
			where := rapid.IntRange(0, 5).Draw(t, name+" on")
			switch {
			case where < 3 && len(pins) > 0:
				return rapid.SampledFrom(pins).Draw(t, name)
			case where == 3 && len(on) > 0:
				return rapid.SampledFrom(on).Draw(t, name)
			}
			return at(name)
		}
		from, to := end("from"), end("to")
		if from == to {
			return
		}
		view := circuit.Find(d).Views[sheet]
		way := circuit.Bend(d, view, from, to, circuit.LeadOwn, false)
		require.Equal(t, from, way[0])
		require.Equal(t, to, way[len(way)-1])
		if len(way) < 4 {
			return // one corner at most: it needed no leading
		}
		m := mazeOf(d, sheet, from, to)
		if m.twice {
			return
		}
		led++
		cost, ok := m.costOf(way)
		require.True(t, ok, "%v touches something", way)
		assert.Equal(t, m.best(from), cost, "%v", way)
	})
	assert.Greater(t, led, 100)
}

// A wire with one corner does not go through a part's body where the other corner keeps clear of it.
func TestACornerKeepsOutOfBodies(t *testing.T) {
	d := design.New("bodies")
	sheet := d.SheetsInOrder()[0].ID
	_, err := edit.Apply(d, edit.Env{}, &edit.PlacePart{Sheet: sheet, Library: "Regulator SOT-223", At: geom.Pt(0, 0)}) // its body reaches from −7.5 to 7.5 mm and from −5 to 5 mm
	require.NoError(t, err)
	view := circuit.Find(d).Views[sheet]
	// between its pins on the left and on the right, through the middle
	way := circuit.Bend(d, view, geom.Pt(-20_000_000, 0), geom.Pt(20_000_000, 20_000_000), circuit.LeadOwn, false)
	assert.Equal(t, []geom.Point{geom.Pt(-20_000_000, 0), geom.Pt(-20_000_000, 20_000_000), geom.Pt(20_000_000, 20_000_000)}, way)
	along := []geom.Point{geom.Pt(-20_000_000, 5_000_000), geom.Pt(20_000_000, 5_000_000), geom.Pt(20_000_000, 20_000_000)}
	assert.Equal(t, along, circuit.Bend(d, view, along[0], along[2], circuit.LeadOwn, false), "along its edge is not through it")
	way = circuit.Bend(d, view, geom.Pt(-20_000_000, 20_000_000), geom.Pt(20_000_000, 0), circuit.LeadOwn, false)
	assert.Equal(t, []geom.Point{geom.Pt(-20_000_000, 20_000_000), geom.Pt(20_000_000, 20_000_000), geom.Pt(20_000_000, 0)}, way)
}

// A wire with one corner does not pass over a label or a mark where the other corner keeps clear of it.
func TestACornerKeepsOffLabels(t *testing.T) {
	d := design.New("labels")
	sheet := d.SheetsInOrder()[0].ID
	from, to := geom.Pt(0, 0), geom.Pt(20_000_000, 20_000_000)
	bend := func() []geom.Point {
		return circuit.Bend(d, circuit.Find(d).Views[sheet], from, to, circuit.LeadOwn, false)
	}
	assert.Equal(t, []geom.Point{from, geom.Pt(to.X, from.Y), to}, bend(), "level first, when nothing is in the way")
	_, err := edit.Apply(d, edit.Env{}, &edit.PlaceLabel{Sheet: sheet, Name: "A", At: geom.Pt(10_000_000, 0)})
	require.NoError(t, err)
	assert.Equal(t, []geom.Point{from, geom.Pt(from.X, to.Y), to}, bend())
	_, err = edit.Apply(d, edit.Env{}, &edit.PlaceLabel{Sheet: sheet, Name: "B", At: geom.Pt(0, 10_000_000)})
	require.NoError(t, err)
	way := bend()
	assert.Greater(t, len(way), 3, "both are barred: it is led round")
}

// The way of a wire over a drawing kept up to date is that over the same drawing read anew: what
// went away is in nobody's way.
func TestWaysOverWhatWentAway(t *testing.T) {
	often(t, 3, func(t *rapid.T) {
		d := nested(t)
		b := workbench.Open(d, 0)
		sheets := slices.Sorted(maps.Keys(d.Sheets))
		for range rapid.IntRange(1, 6).Draw(t, "edits") {
			sheet := rapid.SampledFrom(sheets).Draw(t, "sheet")
			switch rapid.IntRange(0, 3).Draw(t, "kind") {
			case 0:
				_, _ = b.Edit(&edit.PlacePart{Sheet: sheet, Library: "Resistor", At: place(t, "part")})
			case 1:
				_, _ = b.Edit(&edit.DrawWire{Sheet: sheet, Path: []geom.Point{place(t, "a"), place(t, "b")}})
			default:
				var all []design.ID
				for o := range d.All() {
					if _, ok := o.(design.OnSheet); ok {
						all = append(all, o.ObjectID())
					}
				}
				if len(all) > 0 {
					_, _ = b.Edit(&edit.Remove{IDs: []design.ID{rapid.SampledFrom(all).Draw(t, "removed")}})
				}
			}
			b.Settle()
		}
		kept, fresh := b.Nets(), circuit.Find(d)
		for range 4 {
			sheet, from, to := rapid.SampledFrom(sheets).Draw(t, "on"), place(t, "from"), place(t, "to")
			if kept.Views[sheet] == nil || fresh.Views[sheet] == nil {
				assert.Equal(t, fresh.Views[sheet] == nil, kept.Views[sheet] == nil)
				continue
			}
			assert.Equal(t, circuit.Bend(d, fresh.Views[sheet], from, to, circuit.LeadOwn, false), circuit.Bend(d, kept.Views[sheet], from, to, circuit.LeadOwn, false))
		}
	})
}
