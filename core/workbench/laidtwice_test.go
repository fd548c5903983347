package workbench_test

import (
	"maps"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/geom"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

// twice are the findings about what is laid twice or leads round.
func twice(b *workbench.Bench) (out []string) {
	for _, f := range b.Findings() {
		if f.Kind == "loop" || f.Kind == "doubled" {
			out = append(out, f.Text)
		}
	}
	return out
}

// open is how many links are open.
func open(b *workbench.Bench) int {
	return len(b.Links())
}

// A part that is moved twice with its tracks leaves none that lie over each other or lead round, and what was joined is joined.
func TestFollowingLaysNothingTwice(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	b := workbench.Open(d, 1)
	require.Empty(t, twice(b))
	r := rand.New(rand.NewPCG(34, 1))
	ids := slices.Sorted(maps.Keys(d.Placed))
	for range 30 {
		id := ids[r.IntN(len(ids))]
		var done []edit.ChangeSet
		for range 2 {
			step := geom.Pt((r.Int64N(13)-6)*500_000, (r.Int64N(13)-6)*500_000)
			was := open(b)
			move := &edit.MovePlaced{IDs: []design.ID{id}, Step: step, Following: edit.Following{Tracks: edit.TracksAlong}}
			cs, err := b.Edit(move)
			if err != nil { // beside the board
				continue
			}
			done = append(done, cs)
			assert.Empty(t, twice(b), "%s by %v", d.Placed[id].Designator, step)
			assert.False(t, open(b) > was && move.Said() == "", "%s by %v: nothing goes unsaid", d.Placed[id].Designator, step)
			assert.False(t, open(b) > was && !move.Lost(), "and it is said to be a loss")
		}
		for _, cs := range slices.Backward(done) {
			b.Apply(cs.Inverted())
			b.Settle()
		}
	}
}

// Loops are found and forgotten as they come and go, as a board just opened has them; where an area of the net fills what they go around, they
// are none; and they name their net as it is called.
func TestLoopsComeAndGo(t *testing.T) {
	d, err := demo.Build("Moth Lamp")
	require.NoError(t, err)
	b := workbench.Open(d, 1)
	net := d.NetNamed("GND")
	at := geom.Pt(12_000_000, 16_000_000)
	var laid []design.ID
	draw := func(to geom.Point) {
		before := maps.Clone(d.Tracks)
		d.Put(&design.Track{ID: d.NewID(), Layer: d.Board.Top(), A: at, B: to, Width: 300_000, Net: net.ID})
		for id := range d.Tracks {
			if before[id] == nil {
				laid = append(laid, id)
			}
		}
		tr := *d.Tracks[laid[len(laid)-1]]
		d.Remove(design.KindTrack, tr.ID)
		b.Apply(edit.ChangeSet{{Kind: design.KindTrack, ID: tr.ID, After: &tr}})
		b.Settle()
		at = to
	}
	for _, p := range []geom.Point{{X: 16_000_000, Y: 16_000_000}, {X: 16_000_000, Y: 20_000_000}, {X: 12_000_000, Y: 20_000_000}} {
		draw(p)
		assert.Empty(t, twice(b))
	}
	draw(geom.Pt(12_000_000, 16_000_000))
	assert.Equal(t, []string{"Tracks of GND lead to one place by two ways, around 13.69 mm²."}, twice(b), "(4 − 0.3)²")
	assert.Equal(t, twice(workbench.Open(d, 1)), twice(b))
	for _, f := range b.Findings() {
		if f.Kind == "loop" {
			assert.ElementsMatch(t, laid, f.Objects)
			assert.Equal(t, check.Warning, f.Severity)
		}
	}
	gone := *d.Tracks[laid[1]]
	b.Apply(edit.ChangeSet{{Kind: design.KindTrack, ID: gone.ID, Before: &gone}})
	b.Settle()
	assert.Empty(t, twice(b))
	b.Apply(edit.ChangeSet{{Kind: design.KindTrack, ID: gone.ID, After: &gone}})
	b.Settle()
	assert.Len(t, twice(b), 1)
	other := *net
	other.Name = "EARTH"
	b.Apply(edit.ChangeSet{{Kind: design.KindNet, ID: net.ID, Before: net, After: &other}})
	b.Settle()
	assert.Contains(t, twice(b)[0], "Tracks of EARTH")
	_, err = b.Edit(&edit.PutPour{Pour: design.Pour{Name: "Whole", Net: net.ID, Layers: []design.LayerID{d.Board.Top()}}})
	require.NoError(t, err)
	assert.Empty(t, twice(b), "filled")
}
