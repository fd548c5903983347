package workbench_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/layout"
	"goldentrace/core/synthetic"
	"goldentrace/core/workbench"
)

// handful is a random act of a hand on the board.
func handful(r *rand.Rand, d *design.Doc) edit.Command {
	parts := slices.Collect(d.Placed.All())
	some := func(n int) (ids []design.ID) {
		for range 1 + r.IntN(n) {
			ids = append(ids, parts[r.IntN(len(parts))].ID)
		}
		slices.Sort(ids)
		return slices.Compact(ids)
	}
	spot := func() geom.Point { return geom.Pt(r.Int64N(80_000_000), r.Int64N(60_000_000)) }
	one := func() design.ID { return parts[r.IntN(len(parts))].ID }
	switch r.IntN(17) {
	case 0:
		return &edit.MovePlaced{IDs: some(6), Step: geom.Pt(r.Int64N(9_000_000)-4_500_000, r.Int64N(9_000_000)-4_500_000)}
	case 1: // a group with its copper
		ids := some(4)
		return &edit.MovePlaced{IDs: append(ids, layout.Between(d, layout.NewIndex(d), ids)...), Step: geom.Pt(r.Int64N(9_000_000),
			-r.Int64N(9_000_000))}
	case 2:
		return &edit.TurnPlaced{IDs: some(4), Pivot: spot(), Angle: int32(r.IntN(72)) * 5_000}
	case 3:
		return &edit.FlipPlaced{IDs: some(3)}
	case 4:
		return &edit.Gather{IDs: some(8), At: spot()}
	case 5:
		return &edit.LineUp{IDs: some(6), How: []string{"left", "right", "top", "bottom", "row", "column", "across", "down", "packAcross",
			"packDown"}[r.IntN(10)], Gap: r.Int64N(2_000_000)}
	case 6:
		return &edit.SwapPlaced{A: one(), B: one()}
	case 7:
		return &edit.OrderLabels{IDs: some(10)}
	case 8:
		return &edit.Lock{IDs: some(3), Locked: r.IntN(3) == 0}
	case 9:
		return &edit.SetNotes{ID: one(), Notes: []design.PlaceNote{{Kind: design.NoteWithin, Of: one(), Distance: r.Int64N(20_000_000)}}}
	case 10:
		return &edit.AddLegend{At: spot(), Height: 1_500_000, Text: "T", On: []string{"", design.OnCopper, design.OnMask}[r.IntN(3)],
			Font: []string{"", design.Bold}[r.IntN(2)]}
	case 11:
		at := spot()
		return &edit.AddFigure{Lines: [][]geom.Corner{geom.Corners(at, at.Add(geom.Pt(4_000_000, 1_000_000)))}, Width: 300_000,
			On: []string{"", design.OnCopper}[r.IntN(2)]}
	case 12:
		return &edit.SetRules{Rules: map[design.RuleKind]int64{design.Spacing: r.Int64N(3) * 400_000,
			design.Clearance: 100_000 + r.Int64N(3)*150_000}}
	case 13:
		return &edit.AddDimension{From: design.Anchor{Of: one()}, To: design.Anchor{Of: one()}, Off: r.Int64N(5_000_000)}
	case 14:
		p := parts[r.IntN(len(parts))]
		var alike []design.ID
		for _, q := range parts {
			if q.Footprint == p.Footprint && r.IntN(2) == 0 {
				alike = append(alike, q.ID)
			}
		}
		return &edit.VaryFootprint{IDs: append(alike, p.ID), Name: fmt.Sprint("variant ", r.IntN(1000)), Outward: 200_000}
	case 15:
		for t := range d.Tracks.All() {
			if r.IntN(20) == 0 {
				return &edit.SetTrack{IDs: []design.ID{t.ID}, Width: 150_000 + r.Int64N(500_000), Bare: new(r.IntN(2) == 0)}
			}
		}
	case 16:
		n := d.Nets[slices.Collect(d.Nets.All())[r.IntN(len(d.Nets))].ID]
		return &edit.SetNets{Nets: []string{n.Name}, Current: new(r.Int64N(3) * 700_000)}
	}
	return &edit.SetLetters{IDs: some(5), Height: 600_000 + r.Int64N(900_000)}
}

// Whatever hands do: no part is lost, none that is locked moves, what is found beside the hand is what one finds that opens the project
// now, and
// stepping back all the way leaves what was there before.
func TestRandomHandsOnTheBoard(t *testing.T) {
	for seed := range uint64(5) {
		r := rand.New(rand.NewPCG(seed, 77))
		d, err := synthetic.Design(30)
		require.NoError(t, err)
		b := workbench.Open(d, 0)
		start := b.Fingerprint()
		count := len(d.Placed)
		var done []edit.ChangeSet
		did := map[string]bool{}
		for range 120 {
			c := handful(r, d)
			locked := map[design.ID]design.Placed{}
			for p := range d.Placed.All() {
				if p.Locked {
					locked[p.ID] = *p
				}
			}
			cs, err := b.Edit(c)
			if err != nil {
				continue
			}
			did[fmt.Sprintf("%T", c)] = true
			done = append(done, cs)
			require.Len(t, d.Placed, count)
			if _, lock := c.(*edit.Lock); !lock {
				for id, was := range locked {
					is := d.Placed[id]
					require.Equal(t, []any{was.At, was.Angle, was.Bottom}, []any{is.At, is.Angle, is.Bottom}, "%s is locked, %T", was.Designator, c)
				}
			}
			if r.IntN(12) == 0 {
				fresh := workbench.Open(d.Snapshot(), b.Rev)
				require.Equal(t, everything(fresh), everything(b), "seed %d after %T", seed, c)
			}
		}
		assert.GreaterOrEqual(t, len(did), 14)
		for _, cs := range slices.Backward(done) {
			b.Apply(cs.Inverted())
			b.Settle()
		}
		assert.Equal(t, start, b.Fingerprint())
		fresh := workbench.Open(d.Snapshot(), b.Rev)
		require.Equal(t, everything(fresh), everything(b))
	}
}
