package edit_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/edit"
	"goldentrace/core/question"
	"goldentrace/core/route"
	"goldentrace/core/workbench"
)

// A track before which others made way, and whose rest is sought: it can be laid just as it was shown, whatever made way, and keeps the rules.
func TestAWayIsSoughtAroundWhatMadeWay(t *testing.T) {
	sought := 0
	for seed := range uint64(120) {
		r := rand.New(rand.NewPCG(seed, 34))
		s := fine(t)
		far := *s.Doc.Placed[201]
		far.Bottom = false
		s.Doc.Put(&far)
		top := s.Doc.Board.Top()
		for i := range 6 {
			x := 5 + 1.2*float64(i) + 0.4*r.Float64()
			s.Doc.Put(&design.Track{ID: design.ID(900 + i), Layer: top, A: at(x, 1.5+6*r.Float64()), B: at(x, 12+6*r.Float64()), Width: 150_000, Net: s.net("B")})
		}
		s.Bench = workbench.Open(s.Doc, 0)
		hand := question.Track{From: at(2, 10), To: at(5+6*r.Float64(), 9+2*r.Float64()), Style: route.StraightFirst, Manner: route.MoveThem, Layer: top, Net: s.net("A")}
		way, err := hand.Answer(s.Bench)
		require.NoError(t, err)
		if way.Moved == nil || len(way.Runs[len(way.Runs)-1].Path) < 2 {
			continue
		}
		last := way.Runs[len(way.Runs)-1].Path
		rest, err := (&question.Finish{From: last[len(last)-1].Point, Begun: at(2, 10), Layer: top, Net: s.net("A"), Done: way.Runs, Manner: route.MoveThem}).Answer(s.Bench)
		if err != nil {
			continue // there is none
		}
		sought++
		_, err = s.Edit(&edit.DrawTrack{Net: s.net("A"), Runs: way.Runs, Sought: rest.Runs, Aside: true})
		require.NoError(t, err, "seed %d", seed)
		assert.Zero(t, s.open("A"), "seed %d", seed)
		assert.Empty(t, s.broken(), "seed %d", seed)
	}
	assert.Greater(t, sought, 15)
}
