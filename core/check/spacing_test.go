package check_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/rules"
	"goldentrace/core/synthetic"
)

// scattered is the board of four layers with parts of 6 × 4 mm on both sides at random places, and a rule of their spacing.
func scattered(r *rand.Rand, n int, apart int64) *design.Doc {
	d := synthetic.FourLayers()
	d.SetBase(map[design.RuleKind]int64{design.Spacing: apart})
	for i := range n {
		d.Put(&design.Placed{ID: design.ID(1000 + i), Part: design.ID(2000 + i), Designator: fmt.Sprintf("R%d", 10+i), Footprint: "Two pads",
			At: geom.Pt(r.Int64N(60_000_000), r.Int64N(60_000_000)), Angle: int32(r.IntN(8)) * 45_000, Bottom: r.IntN(3) == 0})
	}
	return d
}

// far is the distance of two courtyards, found by walking along both: another way than the program's. Inside one another: 0.
func far(a, b []geom.Point) float64 {
	inside := func(p geom.Point, poly []geom.Point) bool {
		in := false
		for i, q := range poly {
			s := poly[(i+1)%len(poly)]
			if (q.Y > p.Y) != (s.Y > p.Y) && float64(p.X) < float64(q.X)+float64(s.X-q.X)*float64(p.Y-q.Y)/float64(s.Y-q.Y) {
				in = !in
			}
		}
		return in
	}
	walk := func(poly []geom.Point) (out []geom.Point) {
		for i, q := range poly {
			s := poly[(i+1)%len(poly)]
			for k := range 60 {
				out = append(out, q.Towards(s, float64(k)/60))
			}
		}
		return out
	}
	least := math.Inf(1)
	for _, p := range walk(a) {
		if inside(p, b) {
			return 0
		}
		for _, q := range walk(b) {
			least = min(least, p.Dist(q))
		}
	}
	for _, q := range walk(b) {
		if inside(q, a) {
			return 0
		}
	}
	return least
}

// Parts nearer than the rule asks are found, no others, and kept up to date as they move and as the rule changes.
func TestSpacingOfParts(t *testing.T) {
	for seed := range uint64(4) {
		r := rand.New(rand.NewPCG(seed, 12))
		d := scattered(r, 40, 1_500_000)
		x, set := layout.NewIndex(d), rules.Of(d)
		b := check.NewBoard(d, x, set)
		found := func(b *check.Board) (keys []string) {
			for k, f := range b.Found {
				if f.Kind == "spacing" {
					keys = append(keys, k)
				}
			}
			slices.Sort(keys)
			return keys
		}
		var want, maybe []string
		parts := slices.Collect(d.Placed.All())
		for i, p := range parts {
			for _, q := range parts[i+1:] {
				if p.Bottom != q.Bottom {
					continue
				}
				one, _ := layout.Yard(d, p)
				other, _ := layout.Yard(d, q)
				key := fmt.Sprintf("spacing %d %d", min(p.ID, q.ID), max(p.ID, q.ID))
				switch gap := far(one.Pts, other.Pts); {
				case gap < 1_380_000: // the walk strays by a tenth of a millimetre at most
					want = append(want, key)
				case gap < 1_620_000:
					maybe = append(maybe, key)
				}
			}
		}
		got := found(b)
		require.NotEmpty(t, want)
		for _, k := range want {
			assert.Contains(t, got, k)
		}
		for _, k := range got {
			assert.Contains(t, append(slices.Clone(want), maybe...), k)
		}
		for range 30 {
			p := *parts[r.IntN(len(parts))]
			p.At = geom.Pt(r.Int64N(60_000_000), r.Int64N(60_000_000))
			d.Put(&p)
			x.Put(d, &p)
			b.Update(map[design.ID]bool{p.ID: true})
			require.Equal(t, found(check.NewBoard(d, layout.NewIndex(d), rules.Of(d))), found(b))
		}
		base := d.Base(design.Spacing)
		next := *base
		next.Value = design.Fixed(300_000)
		d.Put(&next)
		set.Changed(base, &next)
		b.Rule(base, &next)
		b.Update(nil)
		assert.Equal(t, found(check.NewBoard(d, layout.NewIndex(d), rules.Of(d))), found(b))
		assert.Less(t, len(found(b)), len(got))
	}
}

// A rule for one part holds between it and all others, at the exact limit and a nanometre to either side; sides do not meet.
func TestSpacingAtTheLimit(t *testing.T) {
	d := synthetic.FourLayers()
	d.Put(&design.Rule{ID: 500, Kind: design.Spacing, Order: 20, A: design.Scope{Part: synthetic.FourR1}, Value: design.Fixed(800_000)})
	put := func(gap int64, bottom bool) *check.Finding {
		d.Put(&design.Placed{ID: 600, Part: 601, Designator: "R9", Footprint: "Two pads", At: geom.Pt(16_000_000+gap, 10_000_000), Bottom: bottom})
		for _, f := range check.NewBoard(d, layout.NewIndex(d), rules.Of(d)).Found {
			if f.Kind == "spacing" {
				return f
			}
		}
		return nil
	}
	assert.Nil(t, put(800_000, false))
	f := put(799_000, false)
	require.NotNil(t, f)
	assert.Equal(t, []any{int64(799_000), int64(800_000), "R1 and R9 are 0.799 mm apart."}, []any{f.Measured, f.Required, f.Text})
	assert.Equal(t, geom.Pt(13_399_500, 10_000_000).X, f.At.X, "between both")
	assert.Nil(t, put(100_000, true))
	assert.Equal(t, "R1 and R9 touch or lie over each other.", put(-5, false).Text)
	moved := *d.Placed[600]
	moved.At = geom.Pt(16_790_000, 10_000_000)
	assert.ElementsMatch(t, []design.ID{600, synthetic.FourR1}, layout.Clashing(d, layout.NewIndex(d), rules.Of(d), map[design.ID]*design.Placed{600: &moved}), "it is shown in the hand too")
}
