package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
)

// Tracks widen towards pads when one tick says so; the teardrops are as long as is asked for, turn with their track, come back with
// undo, and are in the files.
func TestTeardropsOfTracks(t *testing.T) {
	d := plate(2, plated{"J1", "GLOW", 8, 8}, plated{"R1", "GLOW", 24, 8})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.until(`goldenTrace.links.size === 1`)
	b.focus()
	b.key("t")
	b.draws(8, 8, 24, 8)
	b.key(escape)
	b.click(b.found(`[...document.querySelectorAll('label')].find(l => l.textContent === 'pads with holes')`))
	lines := `[...goldenTrace.filled.values()].filter(f => f.pour === 0).flatMap(f => f.lines)`
	farthest := func(from, axis int) string { // of the teardrop at the first or the second pad, in nanometres
		return fmt.Sprintf(`Math.max(...%s.filter(l => (l[0] > 16e6) === %t).flat().filter((_, i) => i %% 2 === %d))`, lines, from == 1, axis)
	}
	b.until(lines + `.length === 2`)
	b.glimpse("teardrops")
	// from the pad's edge, 0.8 mm from its middle, 60 % of its 1.6 mm
	assert.InDelta(t, 8+0.8+0.96, eval[float64](b, farthest(0, 0))/1e6, 0.002)
	b.fill("Length, % of the pad", "30")
	b.until(fmt.Sprintf(`Math.abs(%s / 1e6 - %f) < 0.002`, farthest(0, 0), 8+0.8+0.48))

	b.focus()
	b.drag(16, 8, 16, 12) // the track goes up, and leads down to its pads
	b.until(farthest(1, 1) + ` > 8.95e6`)
	assert.Equal(t, 2, eval[int](b, lines+`.length`))
	b.key("z", ctrl)
	b.until(farthest(1, 1) + ` < 8.85e6`)
	faultless(b)
	shipped(t, p, b, "Plate")
	b.key("z", ctrl)
	b.key("z", ctrl)
	b.until(lines + `.length === 0`)
}
