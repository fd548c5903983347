package check_test

import (
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// Vias are held against what the house makes, at the exact limit and a micrometre beyond; a pile of holes is one finding, which follows
// when one of it goes.
func TestHolesOfTheHouse(t *testing.T) {
	d := design.New("holes")
	synthetic.Layers(d, 4) // copper of 35 µm, 200 µm between
	b := *d.Board
	b.Outline = geom.Corners(geom.Pt(0, 0), geom.Pt(40*mm, 0), geom.Pt(40*mm, 40*mm), geom.Pt(0, 40*mm))
	b.Holes = design.Holes{
		Drilled: design.HoleLimits{LeastHole: 200_000, LeastRing: 100_000, Aspect: 370},
		Lasered: design.HoleLimits{LeastHole: 100_000, LeastRing: 50_000, Aspect: 235}, Stacked: 2, Next: 9,
		Barrels: []design.Barrel{{ID: 1, Name: "through", From: b.At(0), To: b.At(3)},
			{ID: 2, Name: "micro", Kind: "laser", From: b.At(0), To: b.At(1)},
			{ID: 3, Name: "second", Kind: "laser", From: b.At(1), To: b.At(2)}, {ID: 4, Name: "third", Kind: "laser", From: b.At(2), To: b.At(3)}},
	}
	d.Put(&b)
	d.SetBase(map[design.RuleKind]int64{design.LeastHole: 300_000, design.LeastRing: 150_000})
	net := synthetic.Net(d, "A")
	x := layout.NewIndex(d)
	board := check.NewBoard(d, x, rules.Of(d))
	put := func(ids map[design.ID]bool, v *design.Via) {
		d.Put(v)
		x.Put(d, v)
		ids[v.ID] = true
	}
	said := func() (out []string) {
		for _, f := range board.Found {
			if f.Severity == check.Fault {
				out = append(out, f.Text)
			}
		}
		slices.Sort(out)
		return out
	}
	via := func(id design.ID, x int64, kind string, from, to int, hole, diameter int64) *design.Via {
		return &design.Via{ID: id, At: geom.Pt(x*mm, 10*mm), Kind: kind, From: b.At(from), To: b.At(to), Hole: hole, Diameter: diameter, Net: net}
	}
	change := func(vias ...*design.Via) []string {
		ids := map[design.ID]bool{}
		for _, v := range vias {
			put(ids, v)
		}
		board.Update(ids)
		fresh := check.NewBoard(d, x, rules.Of(d))
		assert.Equal(t, fresh.Found, board.Found)
		return said()
	}
	// 4 × 35 + 3 × 200 = 740 µm deep: 3.7 times 200 µm
	assert.Equal(t, []string{"The hole of via (A) is 0.2 mm wide."}, change(via(50, 2, "", 0, 3, 200_000, 600_000)),
		"the rules ask for 0.3 mm of what is drilled")
	d.SetBase(map[design.RuleKind]int64{design.LeastHole: 150_000, design.LeastRing: 100_000})
	board = check.NewBoard(d, x, rules.Of(d))
	assert.Empty(t, said())
	assert.Equal(t, []string{"The hole of via (A) is 0.199 mm wide.",
		"The hole of via (A) is 0.74 mm deep, 3.72 times its diameter; the house makes 3.70."},
		change(via(50, 2, "", 0, 3, 199_000, 600_000)))
	assert.Equal(t, []string{"The house makes no drilled hole from L1 to L2, as that of via (A)."},
		change(via(50, 2, "", 0, 1, 300_000, 600_000)))
	assert.Equal(t, []string{"The house makes no lasered hole from L1 to L4, as that of via (A)."},
		change(via(50, 2, "laser", 0, 3, 600_000, 900_000)))
	assert.Empty(t, change(via(50, 2, "laser", 0, 1, 100_000, 200_000)),
		"35 + 200 µm is 2.35 times 100, a ring of 50 µm; the rules of what is drilled say nothing")
	assert.Equal(t, []string{"The copper ring around the hole of via (A) is 0.05 mm."},
		change(via(50, 2, "laser", 0, 1, 100_000, 199_000)), "49.5 µm")
	assert.Equal(t, []string{"The hole of via (A) is 0.099 mm wide.",
		"The hole of via (A) is 0.235 mm deep, 2.37 times its diameter; the house makes 2.35."},
		change(via(50, 2, "laser", 0, 1, 99_000, 250_000)))

	change(via(50, 2, "", 0, 3, 300_000, 600_000))
	two := []*design.Via{via(60, 6, "laser", 0, 1, 100_000, 250_000), via(61, 6, "laser", 1, 2, 100_000, 250_000)}
	assert.Empty(t, change(two...))
	pile := "3 holes stand on each other; the house stacks 2 at most."
	assert.Equal(t, []string{pile}, change(via(62, 6, "laser", 2, 3, 100_000, 250_000)))
	assert.Equal(t, []string{"The holes of via (A) and via (A) are 0 mm apart."},
		change(&design.Via{ID: 62, At: geom.Pt(6*mm+100_000, 10*mm), Kind: "laser", From: b.At(2), To: b.At(3), Hole: 100_000,
			Diameter: 250_000, Net: net}),
		"half beside it is neither on it nor apart")
	change(via(62, 6, "laser", 2, 3, 100_000, 250_000))
	b2 := b
	b2.Holes.Stacked = 0
	d.Put(&b2)
	board.All()
	assert.Equal(t, []string{"3 holes stand on each other; the house stacks none."}, said())
	assert.Equal(t, []string{"2 holes stand on each other; the house stacks none."},
		change(via(62, 9, "laser", 2, 3, 100_000, 250_000)), "those that are left are looked at again")
	assert.Empty(t, change(via(60, 12, "laser", 0, 1, 100_000, 250_000)))
	b2.Holes.Stacked, b2.Holes.Barrels = 3, nil
	d.Put(&b2)
	board.All()
	assert.Equal(t, []string{"2 drilled holes stand on each other; only lasered ones are stacked."},
		change(via(70, 20, "", 0, 1, 300_000, 600_000), via(71, 20, "", 1, 2, 300_000, 600_000)))
}
