package e2e

import (
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// A corner is pulled out of a track with Alt, and tidying takes it out again; the width changes on a key while one draws; a piece, a stretch, a
// net and everything are taken away, and what is locked stays and is told of.
func TestTidyingAndTakingAway(t *testing.T) {
	p := serveDoc(t, "Bus", bus())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Bus", "board")
	count := func(net string) int {
		return eval[int](b, `goldenTrace.all('track').filter(t => goldenTrace.all('net').find(n => n.id === t.net).name === '`+net+`').length`)
	}
	b.focus()
	b.point(20, 15)
	straight := count("SELECT")
	x0, y0 := b.at(20, 15)
	x1, y1 := b.at(20, 18)
	held := []chromedp.MouseOption{chromedp.Button("left"), chromedp.ClickCount(1), chromedp.ButtonModifiers(alt)}
	b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, x0, y0, held...))
	for i := 1; i <= 6; i++ {
		f := float64(i) / 6
		b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, x0+(x1-x0)*f, y0+(y1-y0)*f, chromedp.Button("left"), chromedp.ButtonModifiers(alt)))
	}
	b.glimpse("corner")
	b.do(chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, x1, y1, held...))
	b.kept()
	assert.Greater(t, count("SELECT"), straight+1, "a corner stands out")
	b.press("Tidy")
	b.kept()
	b.sees("mm shorter")
	assert.LessOrEqual(t, count("SELECT"), straight)
	b.glimpse("tidied")
	b.focus()
	b.point(20, 16.8) // it leads straight from pad to pad
	b.press("Tidy")
	b.sees("as short and straight as the rules let them")

	b.focus()
	b.key("t")
	b.point(20, 6)
	b.move(24, 6)
	b.key("U", shift)
	b.point(26, 6)
	b.key("u")
	b.point(30, 6)
	b.glimpse("widths")
	b.key(enter)
	b.kept()
	widths := eval[[]float64](b, `[...new Set(goldenTrace.all('track').filter(t => t.net === 110).map(t => t.width))].sort((a, b) => a - b)`)
	assert.Equal(t, []float64{eval[float64](b, `goldenTrace.rule('leastWidth')`), eval[float64](b, `goldenTrace.rule('trackWidth')`)}, widths)

	b.focus()
	b.point(20, 14.4)
	b.key("l")
	b.kept()
	b.key(kbDelete)
	b.sees("A track of CLOCK is locked; unlock it first")
	b.key(kbDelete, ctrl)
	b.kept()
	b.sees("One that is locked stays.")
	assert.Equal(t, 1, count("CLOCK"))
	b.focus()
	b.point(20, 13.8)
	b.key(kbDelete, shift)
	b.kept()
	assert.Zero(t, count("DATA"))
	b.key("k", ctrl)
	b.typing("tracks and vias")
	b.until(`document.body.innerText.includes('Remove all tracks and vias')`)
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.all('track').length === 1`)
	b.glimpse("takenaway")
	b.key("z", ctrl)
	b.kept()
	assert.Positive(t, count("SELECT"))
}
