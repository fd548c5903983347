package circuit_test

import (
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

// bench is a sheet to move things on, in grid steps.
type sheetBench struct {
	t     *testing.T
	d     *design.Doc
	sheet design.ID
}

func newSheet(t *testing.T) *sheetBench {
	d := design.New("moves")
	return &sheetBench{t, d, d.SheetsInOrder()[0].ID}
}

func (s *sheetBench) do(c edit.Command) {
	s.t.Helper()
	_, err := edit.Apply(s.d, edit.Env{}, c)
	require.NoError(s.t, err)
}

func steps(xy ...int64) []geom.Point {
	var out []geom.Point
	for i := 0; i+1 < len(xy); i += 2 {
		out = append(out, geom.Pt(xy[i]*grid, xy[i+1]*grid))
	}
	return out
}

// resistor stands level, its pins two steps either side of its place.
func (s *sheetBench) resistor(x, y int64) design.ID {
	s.t.Helper()
	before := s.d.Next
	s.do(&edit.PlacePart{Sheet: s.sheet, Library: "Resistor", At: steps(x, y)[0]})
	for id := s.d.Next - 1; id >= before; id-- {
		if s.d.Parts[id] != nil {
			return id
		}
	}
	return 0
}

func (s *sheetBench) wire(xy ...int64) {
	s.t.Helper()
	s.do(&edit.DrawWire{Sheet: s.sheet, Path: steps(xy...)})
}

func (s *sheetBench) move(id design.ID, dx, dy int64) {
	s.t.Helper()
	s.do(&edit.MoveItems{IDs: []design.ID{id}, Step: steps(dx, dy)[0]})
}

// wires lists all wires in steps, each from its lesser end.
func (s *sheetBench) wires() [][4]int64 {
	var out [][4]int64
	for w := range s.d.Wires.All() {
		a, b := w.A, w.B
		if b.X < a.X || b.X == a.X && b.Y < a.Y {
			a, b = b, a
		}
		out = append(out, [4]int64{a.X / grid, a.Y / grid, b.X / grid, b.Y / grid})
	}
	slices.SortFunc(out, func(a, b [4]int64) int { return slices.Compare(a[:], b[:]) })
	return out
}

func (s *sheetBench) joined(a, b circuit.PinRef) bool {
	n := circuit.Find(s.d)
	return n.OfPin[a] == n.OfPin[b]
}

func TestWireGrowsWithItsPart(t *testing.T) {
	s := newSheet(t)
	a, b := s.resistor(0, 0), s.resistor(10, 0)
	s.wire(2, 0, 8, 0)
	s.move(b, 3, 0)
	assert.Equal(t, [][4]int64{{2, 0, 11, 0}}, s.wires(), "along its way it only grows")
	s.move(b, 0, 4)
	assert.Len(t, s.wires(), 2, "aside it gets one elbow")
	assert.True(t, s.joined(circuit.PinRef{Part: a, Pin: "2"}, circuit.PinRef{Part: b, Pin: "1"}))
	s.move(b, 0, -4)
	assert.Equal(t, [][4]int64{{2, 0, 11, 0}}, s.wires(), "and back it is one again")
}

func TestCornerSlidesAlong(t *testing.T) {
	s := newSheet(t)
	b := s.resistor(12, 6)
	s.resistor(0, 0)
	s.wire(2, 0, 6, 0, 6, 6, 10, 6)
	s.move(b, 0, 2)
	assert.Equal(t, [][4]int64{{2, 0, 6, 0}, {6, 0, 6, 8}, {6, 8, 10, 8}}, s.wires(), "no new elbow: the corner went along")
}

func TestPinsThatTouchedGetAWire(t *testing.T) {
	s := newSheet(t)
	a, b := s.resistor(0, 0), s.resistor(4, 0) // pin on pin
	require.Empty(t, s.wires())
	s.move(b, 3, 0)
	assert.Equal(t, [][4]int64{{2, 0, 5, 0}}, s.wires())
	assert.True(t, s.joined(circuit.PinRef{Part: a, Pin: "2"}, circuit.PinRef{Part: b, Pin: "1"}))
}

func TestLabelsAndMarksGoAlong(t *testing.T) {
	s := newSheet(t)
	a := s.resistor(0, 0)
	s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: "IN", At: steps(-2, 0)[0]})
	s.do(&edit.PlaceOpenMark{Sheet: s.sheet, At: steps(2, 0)[0]})
	s.move(a, 5, 5)
	n := circuit.Find(s.d)
	assert.Equal(t, "IN", n.OfPin[circuit.PinRef{Part: a, Pin: "1"}])
	for m := range s.d.OpenMarks.All() {
		assert.Equal(t, steps(7, 5)[0], m.At)
	}
}

func TestDraggedWireTakesItsEndsAlong(t *testing.T) {
	s := newSheet(t)
	s.resistor(0, 0)
	s.resistor(14, 0)
	s.wire(2, 0, 5, 0, 5, 4, 9, 4, 9, 0, 12, 0)
	var top design.ID
	for w := range s.d.Wires.All() {
		if w.A.Y == 4*grid && w.B.Y == 4*grid {
			top = w.ID
		}
	}
	s.move(top, 0, 3)
	assert.Equal(t, [][4]int64{{2, 0, 5, 0}, {5, 0, 5, 7}, {5, 7, 9, 7}, {9, 0, 9, 7}, {9, 0, 12, 0}}, s.wires())
}

func TestJoiningIsSaid(t *testing.T) {
	s := newSheet(t)
	a := s.resistor(0, 0)
	s.resistor(0, 6)
	s.resistor(10, 6)
	s.wire(2, 6, 8, 6)
	s.do(&edit.PlaceLabel{Sheet: s.sheet, Name: "BUS", At: steps(5, 6)[0]})
	b := workbench.Open(s.d, 0)
	say := func(dx, dy int64) circuit.Outcome {
		_, o, err := b.Foresee(&edit.MoveItems{IDs: []design.ID{a}, Step: steps(dx, dy)[0]})
		require.NoError(t, err)
		return o
	}
	o := say(2, 6) // its second pin lands on the wire
	assert.Equal(t, []circuit.Join{{Nets: []string{"BUS", "R1.2"}}}, o.Joined)
	assert.Empty(t, say(2, 3).Joined)
}

func TestMirroredTwiceIsAsBefore(t *testing.T) {
	s := newSheet(t)
	s.do(&edit.PlacePart{Sheet: s.sheet, Library: "NPN transistor", At: steps(4, 4)[0], Turn: 1})
	q := part(s.d, "Q1")
	before := *s.d.Parts[q]
	pin := func() geom.Point { return circuit.PinPlace(s.d.Parts[q], s.d.SymbolOf(s.d.Parts[q]).Pin("2")) }
	base := pin()
	flip := &edit.TurnItems{IDs: []design.ID{q}, Pivot: steps(4, 4)[0], Mirror: true}
	s.do(flip)
	assert.Equal(t, 2*steps(4, 4)[0].X-base.X, pin().X, "left becomes right")
	assert.Equal(t, base.Y, pin().Y)
	s.do(flip)
	assert.Equal(t, before, *s.d.Parts[q])
}

// Drawing over what is there makes nothing twice; a line that goes on in a straight line is
// one with what it continues, but not across a place where a third wire ends.
func TestLinesAreTidy(t *testing.T) {
	s := newSheet(t)
	s.wire(0, 0, 5, 0)
	s.wire(5, 0, 9, 0)
	assert.Equal(t, [][4]int64{{0, 0, 9, 0}}, s.wires())
	_, err := edit.Apply(s.d, edit.Env{}, &edit.DrawWire{Sheet: s.sheet, Path: steps(2, 0, 6, 0)})
	assert.ErrorContains(t, err, "change nothing")
	s.wire(4, 0, 4, 3)
	s.wire(4, 0, 4, -3)
	n := circuit.Find(s.d)
	assert.Len(t, n.ByName, 1)
	assert.Equal(t, []geom.Point{steps(4, 0)[0]}, n.Views[s.sheet].Junctions)
}

// Whatever is done to a wired part, and however often, no wire is left that ends in nothing.
func TestNoMoveLeavesALooseEnd(t *testing.T) {
	rapid.Check(t, func(rt *rapid.T) {
		s := newSheet(t)
		r := s.resistor(20, 20)
		s.wire(12, 20, 18, 20)
		s.wire(28, 20, 22, 20)
		s.do(&edit.PlaceSupply{Sheet: s.sheet, Name: "+5V", Shape: "bar", At: steps(12, 20)[0]})
		s.do(&edit.PlaceSupply{Sheet: s.sheet, Name: "GND", Shape: "ground", At: steps(28, 20)[0]})
		for _, act := range rapid.SliceOfN(rapid.SampledFrom([]string{"mirror", "left", "right", "up", "down", "aside"}), 1, 12).Draw(rt, "acts") {
			turn := &edit.TurnItems{IDs: []design.ID{r}, Pivot: s.d.Parts[r].At}
			switch act {
			case "mirror":
				turn.Mirror = true
			case "left":
				turn.Quarters = 1
			case "right":
				turn.Quarters = -1
			default:
				by := map[string][2]int64{"up": {0, 1}, "down": {0, -1}, "aside": {1, 0}}[act]
				s.move(r, by[0], by[1])
				continue
			}
			s.do(turn)
		}
		n := circuit.Find(s.d)
		for _, f := range n.Findings(s.d) {
			if f.Kind == "looseEnd" {
				rt.Fatalf("%v: %v", f.Text, s.wires())
			}
		}
	})
}
