package design_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
)

// sixLayers is a board of copper 20 µm thick with 100 µm between, and the barrels named: "1-2L" is lasered from the first layer to the
// second, with a hole of 0.1 mm; drilled ones have 0.2.
func sixLayers(barrels ...string) *design.Board {
	var list []any
	for i := range 6 {
		if i > 0 {
			list = append(list, "core", 100)
		}
		list = append(list, "copper", 20)
	}
	b := (design.Board{ID: 2}).Stacked(layers(list...))
	for i, s := range barrels {
		var from, to int
		_, _ = fmt.Sscanf(s, "%d-%d", &from, &to)
		l := design.Barrel{ID: design.BarrelID(i + 1), Name: s, From: b.At(from - 1), To: b.At(to - 1), Hole: 200_000, Diameter: 450_000}
		if strings.HasSuffix(s, "L") {
			l.Kind, l.Hole, l.Diameter = design.Lasered, 100_000, 250_000
		}
		b.Holes.Barrels = append(b.Holes.Barrels, l)
	}
	b.Holes.Next = design.BarrelID(len(barrels) + 1)
	return b
}

// inWords are ways as words say them: the barrels in a row, after / where one stands beside the one before, after + where it stands on it.
func inWords(b *design.Board, ways []design.Way) (out []string) {
	for _, w := range ways {
		s := ""
		for i, step := range w.Steps {
			if i > 0 {
				s += map[bool]string{true: " / ", false: " + "}[step.Stepped]
			}
			s += b.Barrel(step.Barrel).Name
		}
		out = append(out, s)
	}
	return out
}

func TestWaysThatNobodySaid(t *testing.T) {
	ways := func(b *design.Board, from, to int) []string {
		list, said := b.WaysOf(b.At(from-1), b.At(to-1))
		assert.False(t, said)
		for _, w := range list {
			assert.NoError(t, b.Cannot(w))
		}
		back, _ := b.WaysOf(b.At(to-1), b.At(from-1))
		assert.Equal(t, list, back, "upwards as downwards")
		return inWords(b, list)
	}
	plain := sixLayers()
	assert.Equal(t, []string{"Through"}, ways(plain, 2, 5), "where nobody says, all vias go through")
	b := sixLayers("1-6", "1-2L", "2-3L", "2-5", "5-6L")
	assert.Equal(t, []string{"1-2L", "1-6"}, ways(b, 1, 2), "the least depth first")
	assert.Equal(t, []string{"2-3L", "2-5", "1-6"}, ways(b, 2, 3))
	assert.Equal(t, []string{"1-6", "1-2L / 2-3L", "1-2L / 2-5"}, ways(b, 1, 3), "a single hole before chains; lasered ones are not stacked")
	assert.Equal(t, []string{"2-5", "1-6"}, ways(b, 3, 4))
	assert.Equal(t, []string{"1-6", "1-2L / 2-5 / 5-6L"}, ways(b, 1, 6))
	b.Holes.Stacked = 2
	assert.Equal(t, []string{"1-6", "1-2L / 2-3L", "1-2L + 2-3L", "1-2L / 2-5", "1-2L + 2-5"}, ways(b, 1, 3))
	assert.Empty(t, ways(sixLayers("1-2L"), 1, 3), "nothing leads there")

	b.Holes.Ways = []design.Way{
		{From: b.At(0), To: b.At(2), Steps: []design.Step{{Barrel: 2}, {Barrel: 3, Stepped: true, Apart: 400_000}}},
		{From: b.At(0), To: b.At(2), Steps: []design.Step{{Barrel: 1}}},
	}
	require.NoError(t, b.Valid())
	list, said := b.WaysOf(b.At(2), b.At(0))
	assert.True(t, said)
	assert.Equal(t, []string{"1-2L / 2-3L", "1-6"}, inWords(b, list), "as somebody put them")
	none, _ := b.WaysOf(b.At(2), b.At(2))
	assert.Empty(t, none)
	none, _ = b.WaysOf(b.At(2), 99)
	assert.Empty(t, none)
}

func TestWaysThatCannotBe(t *testing.T) {
	b := sixLayers("1-6", "1-2L", "2-3L", "2-5", "1-3", "3-4L", "3-4")
	on := func(id design.BarrelID) design.Step { return design.Step{Barrel: id} }
	by := func(id design.BarrelID, apart ...int64) design.Step {
		s := design.Step{Barrel: id, Stepped: true}
		for _, a := range apart {
			s.Apart = a
		}
		return s
	}
	way := func(from, to int, steps ...design.Step) design.Way {
		return design.Way{From: b.At(from - 1), To: b.At(to - 1), Steps: steps}
	}
	for _, c := range []struct {
		why string
		way design.Way
	}{
		{"from a copper layer to one below", way(3, 1, on(1))},
		{"1 to 8 holes, not 0", way(1, 3)},
		{"the board's house does not make (id 77)", way(1, 3, on(77))},
		{"2-3L does not lead on from copper0", way(1, 3, on(3))},
		{"1-2L does not lead on from copper2", way(1, 3, on(2), by(2))},
		{"1-6 does not lead on from copper0", way(1, 3, on(1), by(3))},
		{"the way does not reach copper4", way(1, 3, on(2))},
		{"1-3 cannot stand on 1-2L: both go through the same layers", way(1, 3, on(2), on(5))},
		{"2 holes would stand on each other; the house stacks none on another", way(1, 3, on(2), on(3))},
		{"only a hole beside another is apart", way(1, 3, on(2), design.Step{Barrel: 3, Apart: 5})},
		{"only a hole beside another is apart", way(1, 3, by(5))},
		{"up to 10 mm apart, not 10.001 mm", way(1, 3, on(2), by(3, 10_001_000))},
		{"3-4 cannot stand on 1-3: drilled holes are not stacked", way(1, 4, on(5), on(7))},
	} {
		assert.ErrorContains(t, b.Cannot(c.way), c.why)
		bad := *b
		bad.Holes.Ways = []design.Way{c.way}
		assert.ErrorContains(t, bad.Valid(), c.why)
	}
	assert.NoError(t, b.Cannot(way(1, 3, on(2), by(3))))
	assert.NoError(t, b.Cannot(way(1, 2, on(5))), "a hole may lead further than is needed")
	b.Holes.Stacked = 2
	assert.NoError(t, b.Cannot(way(1, 3, on(2), on(3))))
	assert.ErrorContains(t, b.Cannot(way(1, 4, on(2), on(3), on(6))), "3 holes would stand on each other; the house stacks 2 at most")
	assert.NoError(t, b.Cannot(way(1, 4, on(2), on(3), by(6))), "the third stands beside")
}

func TestWaysOfTheSameHoles(t *testing.T) {
	w := design.Way{From: 1, To: 5, Steps: []design.Step{{Barrel: 2}, {Barrel: 3, Stepped: true, Apart: 400_000}}}
	further, stacked, other, less := w, w, w, w
	further.Steps = []design.Step{{Barrel: 2}, {Barrel: 3, Stepped: true, Apart: 900_000}}
	stacked.Steps = []design.Step{{Barrel: 2}, {Barrel: 3}}
	other.Steps = []design.Step{{Barrel: 2}, {Barrel: 4, Stepped: true}}
	less.Steps = w.Steps[:1]
	assert.True(t, w.Same(w))
	assert.True(t, w.Same(further), "however far apart")
	for _, x := range []design.Way{stacked, other, less} {
		assert.False(t, w.Same(x))
	}
	assert.True(t, w.Stepped())
	assert.False(t, stacked.Stepped())
}

// Copper is 20 µm, what lies between 100: a drilled hole goes through both outer layers of its span, a lasered one ends on the second.
func TestDepthOfHoles(t *testing.T) {
	b := sixLayers()
	assert.EqualValues(t, 120_000, b.Depth(design.Lasered, b.At(0), b.At(1)))
	assert.EqualValues(t, 140_000, b.Depth(design.Drilled, b.At(0), b.At(1)))
	assert.EqualValues(t, 620_000, b.Depth(design.Drilled, b.At(0), b.At(5)))
	assert.EqualValues(t, 380_000, b.Depth(design.Drilled, b.At(4), b.At(1)), "from below as from above")
}

func TestBarrelsNoHouseCanMake(t *testing.T) {
	said := func(barrels ...string) []string { return sixLayers(barrels...).Unmakeable() }
	assert.Empty(t, said("1-6", "2-5", "3-4", "1-2L", "2-3L", "5-6L", "4-5L"))
	assert.Empty(t, said("1-3", "4-6", "1-6"), "two halves pressed together")
	assert.Empty(t, said("1-3", "2-3L", "3-4L"), "a lasered one ends on what was pressed before")
	assert.Equal(t, []string{"1-4 and 3-6 cross: no order of pressing lets both be made"}, said("1-4", "3-6"))
	assert.Equal(t, []string{"1-3 and 3-6 cross: no order of pressing lets both be made"}, said("1-3", "3-6"),
		"the third layer would have to be in both")
	assert.Equal(t, []string{"1-3 and 2-4L cross: no order of pressing lets both be made"}, said("1-3", "2-4L"))
	b := sixLayers("1-6", "1-2L", "1-3L")
	b.Holes.Drilled = design.HoleLimits{LeastHole: 200_000, LeastRing: 125_000, Aspect: 310}
	b.Holes.Lasered = design.HoleLimits{LeastHole: 100_000, LeastRing: 75_000, Aspect: 120}
	assert.Equal(t, []string{"1-3L is 0.24 mm deep, which is 2.40 times its hole; 1.20 is the most"}, b.Unmakeable(),
		"620 µm in 200 is 3.1 exactly, 120 in 100 is 1.2")
	b.Holes.Drilled.Aspect, b.Holes.Lasered.Aspect = 309, 0
	b.Holes.Drilled.LeastHole, b.Holes.Lasered.LeastRing = 201_000, 76_000
	assert.Equal(t, []string{"1-6 has a hole of 0.2 mm, and 0.201 mm is the least",
		"1-6 is 0.62 mm deep, which is 3.10 times its hole; 3.09 is the most",
		"1-2L has a ring of 0.075 mm, and 0.076 mm is the least", "1-3L has a ring of 0.075 mm, and 0.076 mm is the least"}, b.Unmakeable())
}

func TestHolesOfABoard(t *testing.T) {
	for why, spoil := range map[string]func(b *design.Board){
		"two barrels have the id 1":               func(b *design.Board) { b.Holes.Barrels[1].ID = 1 },
		"1-6 has the id 9; ids lie between 1 and": func(b *design.Board) { b.Holes.Barrels[0].ID = 9 },
		"is not smaller than its diameter":        func(b *design.Board) { b.Holes.Barrels[0].Hole = 450_000 },
		"1-6 leads from a copper layer to one":    func(b *design.Board) { b.Holes.Barrels[0].To = b.Top() },
		"1-2L begins or ends on a copper layer":   func(b *design.Board) { b.Holes.Barrels[1].From = b.Stack[1].ID },
		`"x" is not a kind of via`:                func(b *design.Board) { b.Holes.Barrels[0].Kind = "x" },
		`"y" is not a cover of a via`:             func(b *design.Board) { b.Holes.Barrels[0].Cover = "y" },
		"barrel's name is empty":                  func(b *design.Board) { b.Holes.Barrels[0].Name = "" },
		"the hole of 1-6":                         func(b *design.Board) { b.Holes.Barrels[0].Hole = -1 },
		"the diameter of 1-6":                     func(b *design.Board) { b.Holes.Barrels[0].Diameter = -1 },
		"the least hole that is drilled":          func(b *design.Board) { b.Holes.Drilled.LeastHole = -1 },
		"the least ring of what is lasered":       func(b *design.Board) { b.Holes.Lasered.LeastRing = -1 },
		"a depth of 100.01 times the diameter":    func(b *design.Board) { b.Holes.Lasered.Aspect = 10_001 },
		"33 holes on each other are not meant":    func(b *design.Board) { b.Holes.Stacked = 33 },
	} {
		b := sixLayers("1-6", "1-2L")
		require.NoError(t, b.Valid())
		spoil(b)
		assert.ErrorContains(t, b.Valid(), why)
	}
}

// Through all layers goes a drilled barrel from the outermost to the outermost, none else; a way by one hole needs one that passes both layers.
func TestBarrelsThroughAndBetween(t *testing.T) {
	assert.Nil(t, sixLayers("1-2L", "5-6L", "1-3", "4-6", "1-6L").Through())
	through := sixLayers("5-6", "1-2", "1-6L", "1-6").Through()
	require.NotNil(t, through)
	assert.Equal(t, "1-6", through.Name)
	b := sixLayers("1-2L", "2-5", "1-6")
	single := func(from, to int) (out []string) {
		ways, _ := b.WaysOf(b.At(from-1), b.At(to-1))
		for _, w := range ways {
			if len(w.Steps) == 1 {
				out = append(out, b.Barrel(w.Steps[0].Barrel).Name)
			}
		}
		return out
	}
	assert.Equal(t, []string{"1-2L", "1-6"}, single(1, 2))
	assert.Equal(t, []string{"2-5", "1-6"}, single(2, 4))
	assert.Equal(t, []string{"1-6"}, single(1, 3))
	assert.Equal(t, []string{"1-6"}, single(3, 6))
}
