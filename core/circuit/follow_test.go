package circuit_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/circuit"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
)

// turned is a resistor standing upright, its pins two steps below and above its place.
func (s *sheetBench) turned(x, y int64) design.ID {
	s.t.Helper()
	id := s.resistor(x, y)
	s.do(&edit.TurnItems{IDs: []design.ID{id}, Pivot: steps(x, y)[0], Quarters: 1})
	return id
}

func (s *sheetBench) label(name string, x, y int64) {
	s.t.Helper()
	s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: name, At: steps(x, y)[0]})
}

// labels tells where the labels stand, in steps.
func (s *sheetBench) labels() map[string][2]int64 {
	out := map[string][2]int64{}
	for l := range s.d.Labels.All() {
		out[l.Name] = [2]int64{l.At.X / grid, l.At.Y / grid}
	}
	return out
}

type wires = [][4]int64

// Where wires lie after a drag: the picture somebody who drags would draw by hand.
func TestWhereWiresFollow(t *testing.T) {
	bend := func(s *sheetBench) design.ID { // from the left over a corner at 6,0 and one at 6,6 to the part
		b := s.resistor(12, 6)
		s.resistor(0, 0)
		s.wire(2, 0, 6, 0, 6, 6, 10, 6)
		return b
	}
	tests := []struct {
		name   string
		drawn  func(s *sheetBench) design.ID
		dx, dy int64
		want   wires
	}{
		{"level wire, upright corner", bend, 0, -2, wires{{2, 0, 6, 0}, {6, 0, 6, 4}, {6, 4, 10, 4}}},
		{"the corner slides past the other end", bend, 0, -8, wires{{2, 0, 6, 0}, {6, -2, 6, 0}, {6, -2, 10, -2}}},
		{"aside and along at once", bend, 3, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 8}, {6, 8, 13, 8}}},
		{"upright wire, level corner", func(s *sheetBench) design.ID {
			b := s.turned(6, 10)
			s.resistor(0, 0)
			s.wire(2, 0, 6, 0, 6, 8)
			return b
		}, 3, 0, wires{{2, 0, 9, 0}, {9, 0, 9, 8}}},
		{"the wire drawn the other way round", func(s *sheetBench) design.ID {
			b := s.resistor(12, 6)
			s.resistor(0, 0)
			s.wire(10, 6, 6, 6, 6, 0, 2, 0)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 8}, {6, 8, 10, 8}}},
		{"a label on the corner stays, and so does the corner", func(s *sheetBench) design.ID {
			b := bend(s)
			s.label("A", 6, 6)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 6}, {6, 6, 10, 6}, {10, 6, 10, 8}}},
		{"a third wire at the corner holds it", func(s *sheetBench) design.ID {
			b := bend(s)
			s.wire(6, 6, 6, 12)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 6}, {6, 6, 6, 12}, {6, 6, 10, 6}, {10, 6, 10, 8}}},
		{"something on the wire between holds the wire", func(s *sheetBench) design.ID {
			b := bend(s)
			s.wire(8, 6, 8, 12)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 6}, {6, 6, 10, 6}, {8, 6, 8, 12}, {10, 6, 10, 8}}},
		{"something on the wire beyond the corner holds that", func(s *sheetBench) design.ID {
			b := bend(s)
			s.wire(6, 3, 2, 3)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {2, 3, 6, 3}, {6, 0, 6, 6}, {6, 6, 10, 6}, {10, 6, 10, 8}}},
		{"another pin in the corner's way", func(s *sheetBench) design.ID {
			b := bend(s)
			s.resistor(4, 8) // its right pin stands where the corner would go
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 6}, {6, 6, 10, 6}, {10, 6, 10, 8}}},
		{"another wire's end in the corner's way", func(s *sheetBench) design.ID {
			b := bend(s)
			s.wire(8, 8, 8, 14)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 6}, {6, 6, 10, 6}, {8, 8, 8, 14}, {10, 6, 10, 8}}},
		{"another wire across is no matter", func(s *sheetBench) design.ID {
			b := bend(s)
			s.wire(8, 7, 8, 14)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {6, 0, 6, 8}, {6, 8, 10, 8}, {8, 7, 8, 14}}},
		{"the corner onto another wire's middle", func(s *sheetBench) design.ID {
			b := bend(s)
			s.wire(3, 8, 7, 8)
			return b
		}, 0, 2, wires{{2, 0, 6, 0}, {3, 8, 7, 8}, {6, 0, 6, 6}, {6, 6, 10, 6}, {10, 6, 10, 8}}},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			s := newSheet(t)
			id := tt.drawn(s)
			s.move(id, tt.dx, tt.dy)
			assert.Equal(t, tt.want, s.wires())
		})
	}
}

// A label on a wire keeps on it, at the nearest place when the wire gets shorter or moves away.
func TestLabelsStayOnTheirWires(t *testing.T) {
	tests := []struct {
		name   string
		dx, dy int64
		want   [2]int64
		wires  wires
	}{
		{"grown", 3, 0, [2]int64{7, 0}, wires{{2, 0, 13, 0}}},
		{"shorter than to the label", -5, 0, [2]int64{5, 0}, wires{{2, 0, 5, 0}}},
		{"aside: the elbow is at the part", 0, 4, [2]int64{7, 0}, wires{{2, 0, 10, 0}, {10, 0, 10, 4}}},
	}
	for _, tt := range tests {
		t.Run(tt.name, func(t *testing.T) {
			s := newSheet(t)
			s.resistor(0, 0)
			b := s.resistor(12, 0)
			s.wire(2, 0, 10, 0)
			s.label("A", 7, 0)
			s.move(b, tt.dx, tt.dy)
			assert.Equal(t, tt.want, s.labels()["A"])
			assert.Equal(t, tt.wires, s.wires())
		})
	}
	t.Run("upright", func(t *testing.T) {
		s := newSheet(t)
		s.turned(0, 0)
		b := s.turned(0, 12)
		s.wire(0, 2, 0, 10)
		s.label("A", 0, 7)
		s.move(b, 0, -5)
		assert.Equal(t, [2]int64{0, 5}, s.labels()["A"])
		assert.Equal(t, wires{{0, 2, 0, 5}}, s.wires())
		s.move(b, 0, 3)
		assert.Equal(t, [2]int64{0, 8}, s.labels()["A"], "on the pin it goes with the pin")
		assert.Equal(t, wires{{0, 2, 0, 8}}, s.wires())
	})
	t.Run("on a wire that slides", func(t *testing.T) {
		s := newSheet(t)
		b := s.resistor(12, 6)
		s.resistor(0, 0)
		s.wire(2, 0, 6, 0, 6, 6, 10, 6)
		s.label("A", 8, 6)
		s.label("B", 6, 5)
		s.move(b, 0, -3)
		n := s.labels()
		assert.Equal(t, wires{{2, 0, 6, 0}, {6, 0, 6, 3}, {6, 3, 10, 3}}, s.wires())
		assert.Equal(t, [2]int64{8, 3}, n["A"])
		assert.Equal(t, [2]int64{6, 3}, n["B"])
	})
}

// What stays at the place that something left gets a wire to it.
func TestWhatStaysIsWiredToWhatLeft(t *testing.T) {
	t.Run("a part on the middle of a wire", func(t *testing.T) {
		s := newSheet(t)
		s.wire(0, 0, 10, 0)
		r := s.turned(5, 2) // its lower pin on the wire
		s.move(r, 0, 3)
		assert.Equal(t, wires{{0, 0, 10, 0}, {5, 0, 5, 3}}, s.wires())
	})
	t.Run("a part at the end of a wire that another holds", func(t *testing.T) {
		s := newSheet(t)
		s.resistor(0, 0)
		b := s.resistor(4, 0) // pin on pin
		s.wire(2, 0, 2, 5)
		s.move(b, 2, 0)
		assert.Equal(t, wires{{2, 0, 2, 5}, {2, 0, 4, 0}}, s.wires())
	})
	t.Run("two that leave one place in different ways", func(t *testing.T) {
		s := newSheet(t)
		a, b := s.resistor(0, 0), s.resistor(4, 0)
		s.wire(2, 0, 2, 5)
		s.do(&edit.TurnItems{IDs: []design.ID{a, b}, Pivot: steps(2, 0)[0], Quarters: 2})
		assert.Equal(t, wires{{2, 0, 2, 5}}, s.wires(), "turned about the place they share: nothing changes")
	})
}

// A part mirrored in its wires: these are taken back to the last place where something else
// hangs, and led round from there.
func TestWiresAreTakenBackAsFarAsNeeded(t *testing.T) {
	for _, upright := range []bool{false, true} {
		s := newSheet(t)
		at := func(xy ...int64) []int64 {
			if upright {
				for i := 0; i+1 < len(xy); i += 2 {
					xy[i], xy[i+1] = -xy[i+1], xy[i]
				}
			}
			return xy
		}
		put := s.resistor
		if upright {
			put = s.turned
		}
		place := func(x, y int64) design.ID { q := at(x, y); return put(q[0], q[1]) }
		r, left, right := place(0, 0), place(-14, 0), place(14, 0)
		s.wire(at(2, 0, 12, 0)...)
		s.wire(at(-12, 0, -2, 0)...)
		s.wire(at(8, 0, 8, -6)...) // a branch on either side
		s.wire(at(-8, 0, -8, -6)...)
		s.label("P", at(8, -6)[0], at(8, -6)[1])
		s.label("N", at(-8, -6)[0], at(-8, -6)[1])
		before := len(s.wires())
		over := func() (ids []design.ID) { // the wires over the pieces that lead on to the others
			for _, x := range []int64{-10, 10} {
				for w := range s.d.Wires.All() {
					if q := at(x, 0); geom.OnSegment(steps(q[0], q[1])[0], w.A, w.B) {
						ids = append(ids, w.ID)
					}
				}
			}
			return ids
		}
		drawn := over()
		act := &edit.TurnItems{IDs: []design.ID{r}, Pivot: steps(0, 0)[0], Mirror: !upright}
		if upright {
			act.Quarters = 2
		}
		s.do(act)

		n := circuit.Find(s.d)
		assert.Equal(t, "P", n.OfPin[circuit.PinRef{Part: r, Pin: "2"}])
		assert.Equal(t, "P", n.OfPin[circuit.PinRef{Part: right, Pin: "1"}])
		assert.Equal(t, "N", n.OfPin[circuit.PinRef{Part: r, Pin: "1"}])
		assert.Equal(t, "N", n.OfPin[circuit.PinRef{Part: left, Pin: "2"}])
		for w := range s.d.Wires.All() {
			for _, x := range []int64{-7, 7} {
				q := at(x, 0)
				assert.False(t, geom.OnSegment(steps(q[0], q[1])[0], w.A, w.B), "the piece to the part is taken back: %v", s.wires())
			}
		}
		assert.Equal(t, drawn, over(), "what leads on to the others stays, the same wires, shorter")
		assert.Len(t, drawn, 2)
		assert.Greater(t, len(s.wires()), before)
		for _, f := range n.Findings(s.d) {
			assert.NotEqual(t, "looseEnd", f.Kind, f.Text)
		}
	}
}

// A loose end beyond a branch is somebody's intent: the wire from the branch to it stays.
func TestLooseEndsBeyondABranchStay(t *testing.T) {
	s := newSheet(t)
	r := s.resistor(0, 0)
	s.resistor(-14, 0)
	s.wire(2, 0, 12, 0) // ends in nothing
	s.wire(8, 0, 8, -6)
	s.label("P", 8, -6)
	s.wire(-12, 0, -2, 0)
	s.do(&edit.TurnItems{IDs: []design.ID{r}, Pivot: steps(0, 0)[0], Mirror: true})
	n := circuit.Find(s.d)
	assert.Equal(t, []string{"P"}, n.At(s.sheet, steps(12, 0)[0], false), "%v", s.wires())
	assert.Equal(t, "P", n.OfPin[circuit.PinRef{Part: r, Pin: "2"}])
	var loose []geom.Point
	for _, f := range n.Findings(s.d) {
		if f.Kind == "looseEnd" {
			loose = append(loose, f.At)
		}
	}
	assert.Equal(t, steps(12, 0), loose, "one end was loose and is")
}
