package e2e

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
)

// shipped makes the files, reads the copper of the zip with the independent reader, and checks that it joins the pads of each net of the board
// and no others.
func shipped(t *testing.T, p *program, b *tab, name string) {
	t.Helper()
	shippedOf(t, p, b, name, 2)
}

// shippedOf does so for a board of so many copper layers.
func shippedOf(t *testing.T, p *program, b *tab, name string, layers int) {
	t.Helper()
	b.stage("Handoff")
	b.press("Make the files")
	b.until(`/Current · made|all the same/.test(document.body.innerText)`)
	if eval[bool](b, `document.body.innerText.includes('all the same')`) {
		b.press("Make the files all the same")
	}
	b.sees("Current · made")
	want := eval[[][]string](b, `(() => {
		const of = new Map()
		for (const p of goldenTrace.all('placed'))
			for (const [pad, n] of Object.entries(p.nets)) of.set(n, [...(of.get(n) ?? []), p.designator + '.' + pad])
		return [...of.values()].map(l => l.sort())
	})()`)
	var got [][]string
	for _, is := range tracedOf(t, p, p.projectID(name), layers) {
		if len(is.Pins) > 0 {
			require.Len(t, is.Nets, 1, "one net on one piece of copper: %v", is)
			got = append(got, slices.Sorted(slices.Values(is.Pins)))
		}
	}
	assert.ElementsMatch(t, want, got, "what the files' copper joins")
	b.stage("Board")
}

// A routed part is moved: its tracks go along, or become open links, as the switch says; what it would touch is told before it is put down.
func TestMovingWhatIsRouted(t *testing.T) {
	d := bus()
	d.Remove(design.KindPlaced, 220)
	d.Remove(design.KindPlaced, 221)
	p := serveDoc(t, "Bus", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Bus", "board")
	b.focus()
	clock := func() int { return eval[int](b, `goldenTrace.all('track').filter(t => t.net === 101).length`) }
	require.Equal(t, 3, clock())

	// along: the part goes up and to the right, and its track follows
	b.pickPart("TP2")
	b.there("button", "Tracks go along*")
	b.glimpse("options")
	b.drag(5, 14.4, 7.54, 17.5, func() { b.glimpse("along") })
	b.kept()
	assert.Equal(t, 0, eval[int](b, `goldenTrace.links.size`), "nothing is open")
	assert.Zero(t, eval[int](b, `[...goldenTrace.findings.values()].filter(f => f.stage === 'board' && f.severity === 'fault').length`))
	b.glimpse("alongkept")
	b.key("e")
	b.kept()
	assert.Equal(t, 0, eval[int](b, `goldenTrace.links.size`), "turned, too")
	b.key("z", ctrl)
	b.kept()
	b.key("z", ctrl)
	b.kept()
	require.Equal(t, 3, clock())

	// open: its track goes, and the link is open
	b.key("j")
	b.drag(5, 14.4, 6.27, 20)
	b.kept()
	b.openLinks("1 open link")
	assert.Zero(t, clock())
	b.until(`document.body.innerText.includes('became an open link: CLOCK')`)
	b.glimpse("open")
	b.key("z", ctrl)
	b.kept()
	b.key("j")

	// upon another's track: told while it is in the hand
	b.drag(5, 14.4, 20, 13.8, func() {
		b.until(`document.body.innerText.includes('Would touch track of DATA')`)
		b.glimpse("touching")
	})
	b.kept()
	b.key("z", ctrl)
	b.kept()
	require.Equal(t, 3, clock())
	require.True(t, strings.Contains(eval[string](b, `document.body.innerText`), "all links joined"))

	b.pickPart("TP5")
	b.drag(35, 14.4, 31, 9.4)
	b.kept()
	shipped(t, p, b, "Bus")
}
