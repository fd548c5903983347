package circuit_test

import (
	"errors"
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

// act is one act of a hand on a random drawing: any command that a tool or a key gives.
func act(t *rapid.T, d *design.Doc) edit.Command {
	sheet := rapid.SampledFrom(slices.Sorted(maps.Keys(d.Sheets))).Draw(t, "sheet")
	var ids []design.ID
	for _, o := range d.ItemsOf(sheet) {
		if rapid.IntRange(0, 2).Draw(t, "picked") == 0 {
			ids = append(ids, o.ObjectID())
		}
	}
	switch rapid.IntRange(0, 11).Draw(t, "act") {
	case 0, 1:
		return &edit.TurnItems{IDs: ids, Pivot: place(t, "pivot"), Quarters: rapid.IntRange(0, 3).Draw(t, "quarters"), Mirror: rapid.Bool().Draw(t, "flip")}
	case 2, 3:
		return &edit.MoveItems{IDs: ids, Step: geom.Pt(int64(rapid.IntRange(-4, 4).Draw(t, "dx"))*grid, int64(rapid.IntRange(-4, 4).Draw(t, "dy"))*grid)}
	case 4:
		return &edit.DrawWire{Sheet: sheet, Path: []geom.Point{place(t, "from"), place(t, "by"), place(t, "to")}, Bundle: rapid.Bool().Draw(t, "bundle")}
	case 5:
		return &edit.PlaceLabel{Sheet: sheet, Name: anyName(t), At: place(t, "label")}
	case 6:
		return &edit.PlacePort{Sheet: sheet, Name: anyName(t), Way: "in", At: place(t, "port")}
	case 7:
		return &edit.PlaceSupply{Sheet: sheet, Name: rapid.SampledFrom([]string{"A", "GND"}).Draw(t, "supply"), Shape: "bar", At: place(t, "supply")}
	case 8:
		return &edit.PlacePart{Sheet: sheet, Library: rapid.SampledFrom([]string{"Resistor", "NPN transistor"}).Draw(t, "library"), At: place(t, "part"), Turn: rapid.IntRange(0, 3).Draw(t, "turn")}
	case 9:
		return &edit.PlaceTaps{Sheet: sheet, Members: []string{"D1", "D0"}, At: place(t, "tap"), Step: geom.Pt(grid, 0), Wire: geom.Pt(0, 2*grid)}
	case 10:
		return &edit.Arrange{IDs: ids, How: rapid.SampledFrom([]string{"row", "column"}).Draw(t, "how")}
	}
	c := &edit.Paste{Sheet: sheet, Step: geom.Pt(int64(rapid.IntRange(0, 6).Draw(t, "dx"))*grid, int64(rapid.IntRange(1, 6).Draw(t, "dy"))*grid)}
	for _, id := range ids {
		if o := d.Get(id); o.ObjectKind() != design.KindBlock {
			c.Items = append(c.Items, edit.Drawn(o.ObjectKind(), o).Item)
		}
	}
	return c
}

// changes compares two paintings: sets of pins that were apart and meet, and the number of sets
// that fell apart, each counted over the pins that are in both.
func changes(before, after map[circuit.PinRef]string) (joined, parted int) {
	meets, falls := map[string]map[string]bool{}, map[string]map[string]bool{}
	note := func(m map[string]map[string]bool, k, v string) {
		if m[k] == nil {
			m[k] = map[string]bool{}
		}
		m[k][v] = true
	}
	for pin, was := range before {
		if is, ok := after[pin]; ok {
			note(meets, is, was)
			note(falls, was, is)
		}
	}
	for _, set := range meets {
		if len(set) > 1 {
			joined++
		}
	}
	for _, set := range falls {
		if len(set) > 1 {
			parted++
		}
	}
	return joined, parted
}

// withPins counts the joins and parts of an outcome that pins can witness: nets of before with
// at least one pin of their own.
func withPins(n map[string]int, o circuit.Outcome) (joined, parted int) {
	for _, j := range o.Joined {
		with := 0
		for _, net := range j.Nets {
			if n[net] > 0 {
				with++
			}
		}
		if with > 1 {
			joined++
		}
	}
	for _, p := range o.Parted {
		if n[p.Net] > 1 {
			parted++
		}
	}
	return joined, parted
}

// Whatever the hand does, what it joins and parts is said beforehand, and exactly that; nothing
// else is joined or parted. Foreseeing changes nothing.
func TestEveryActSaysWhatItJoins(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		d := nested(t)
		b := workbench.Open(d, 0)
		c := act(t, d)
		before := paint(d)
		pins := map[string]int{}
		for name, net := range b.Nets().ByName {
			pins[name] = len(net.Pins)
		}
		was := b.Fingerprint()
		next := d.Next
		_, said, err := b.Foresee(c)
		if err != nil {
			return // refused, for a reason of its own
		}
		require.Equal(t, next, d.Next)
		require.Equal(t, partition(before), partition(paint(d)), "foreseeing does nothing")
		_, _, err = b.Try(c, nil)
		var asks *workbench.Asks
		if errors.As(err, &asks) {
			require.False(t, said.Meant())
			require.True(t, said.Same(asks.Outcome), "%v %v", said, asks.Outcome)
			require.Equal(t, was, b.Fingerprint(), "what is asked about is not done")
			_, _, err = b.Try(c, &said)
		}
		require.NoError(t, err)
		joined, parted := changes(before, paint(d))
		saidJoined, saidParted := withPins(pins, said)
		assert.Equal(t, joined, saidJoined, "joined: %v", said.Joined)
		if parted > saidParted || len(said.Parted) == 0 {
			assert.Equal(t, parted, saidParted, "parted: %v", said.Parted)
		}
		assert.Equal(t, partition(paint(d)), partition(b.Nets().OfPin))
	})
}

// Turning, mirroring and moving where there is room keeps every net without asking.
func TestMovesWithRoomJoinNothing(t *testing.T) {
	for name, build := range map[string]func(s *sheetBench) (design.ID, edit.Command){
		"a two-pin part is mirrored": func(s *sheetBench) (design.ID, edit.Command) {
			r := s.resistor(10, 10)
			s.resistor(0, 10)
			s.resistor(20, 10)
			s.wire(2, 10, 8, 10)
			s.wire(12, 10, 18, 10)
			return r, &edit.TurnItems{IDs: []design.ID{r}, Pivot: steps(10, 10)[0], Mirror: true}
		},
		"a two-pin part is turned by 180°": func(s *sheetBench) (design.ID, edit.Command) {
			r := s.resistor(10, 10)
			s.resistor(0, 10)
			s.resistor(20, 10)
			s.wire(2, 10, 8, 10)
			s.wire(12, 10, 18, 10)
			return r, &edit.TurnItems{IDs: []design.ID{r}, Pivot: steps(10, 10)[0], Quarters: 2}
		},
		"a part between supplies is mirrored": func(s *sheetBench) (design.ID, edit.Command) {
			r := s.resistor(10, 10)
			s.wire(4, 10, 8, 10)
			s.wire(12, 10, 16, 10)
			s.do(&edit.PlaceSupply{Sheet: s.sheet, Name: "+24V", Shape: "bar", At: steps(4, 10)[0]})
			s.do(&edit.PlaceSupply{Sheet: s.sheet, Name: "GND", Shape: "ground", At: steps(16, 10)[0]})
			return r, &edit.TurnItems{IDs: []design.ID{r}, Pivot: steps(10, 10)[0], Mirror: true}
		},
		"a part is moved across its own wire": func(s *sheetBench) (design.ID, edit.Command) {
			r := s.resistor(10, 10)
			s.resistor(0, 10)
			s.resistor(10, 16)
			s.wire(2, 10, 8, 10)
			s.wire(12, 10, 14, 10, 14, 16, 12, 16)
			return r, &edit.MoveItems{IDs: []design.ID{r}, Step: steps(8, 0)[0]}
		},
	} {
		t.Run(name, func(t *testing.T) {
			s := newSheet(t)
			_, c := build(s)
			before := partition(paint(s.d))
			b := workbench.Open(s.d, 0)
			_, said, err := b.Try(c, nil)
			require.NoError(t, err, "nobody need be asked")
			assert.Empty(t, said.Joined)
			assert.Empty(t, said.Parted)
			assert.Equal(t, before, partition(paint(s.d)))
			for _, f := range b.Findings() {
				assert.NotEqual(t, "looseEnd", f.Kind, f.Text)
			}
		})
	}
}
