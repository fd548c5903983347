package demo_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/check"
	"goldentrace/core/design"
	"goldentrace/core/layout"
	"goldentrace/core/workbench"
	"goldentrace/demo"
)

// finished checks a routed gauge: every net is joined, no rule is broken and nothing warned of on the board; signals lie on the outer layers,
// supplies lead over wide tracks on the inner ones.
func finished(t *testing.T, d *design.Doc) {
	t.Helper()
	b := workbench.Open(d, 0)
	assert.Empty(t, b.Links())
	for _, f := range b.OpenFindings() {
		if f.Stage == "board" && f.Severity != check.Note {
			assert.Fail(t, f.Text)
		}
	}
	wide := map[string]int64{}
	for tr := range d.Tracks.All() {
		name := d.NetName(tr.Net)
		switch layer := d.Board.Position(tr.Layer); {
		case layer == 0 || layer == d.Board.Layers()-1:
		case name == "GND" || d.Nets[tr.Net].Class == "Supply":
			wide[name] = max(wide[name], tr.Width)
		default:
			assert.Fail(t, fmt.Sprintf("%s is a signal and lies on an inner layer", name))
		}
	}
	for _, name := range []string{"+3V3", "+3V3A", "+24V"} {
		assert.GreaterOrEqual(t, wide[name], int64(1_000_000), name)
	}
	// the ground has a layer of its own, in one piece
	for p := range d.Pours.All() {
		for _, s := range b.PourSeen(p.ID) {
			if p.Name == "Ground plane" {
				assert.Equal(t, 1, s.Pieces)
				assert.Greater(t, s.Size, 0.85*100*70)
			}
			assert.Positive(t, s.Joined, p.Name)
		}
	}
	// every pad of a net of two pads or more hangs on it
	pads := map[design.ID]int{}
	for c := range b.Index().All() {
		if c.Kind == "pad" && c.Net != 0 {
			pads[c.Net]++
		}
	}
	for net, n := range pads {
		if n > 1 {
			assert.Len(t, layout.Islands(b.Index().NetPieces(net), b.Bonds(net)...), 1, d.NetName(net))
		}
	}
}

func TestWeirGaugeIsRouted(t *testing.T) {
	d, err := demo.Build("Weir Gauge")
	require.NoError(t, err)
	finished(t, d)
	assert.Greater(t, len(d.Vias), 50)
	assert.Less(t, len(d.Vias), 130, "no more hops than needed")
}

// The router lays the whole gauge from a bare board.
func TestTheRouterLaysTheGauge(t *testing.T) {
	if testing.Short() {
		t.Skip("it takes most of a minute")
	}
	t.Parallel()
	d, _, err := demo.RouteWeirGauge()
	require.NoError(t, err)
	finished(t, d)
}
