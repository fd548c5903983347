package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
)

// The stack of a board in the large: a ready-made one is taken, a dimension typed at its line, a layer becomes a plane, one that holds
// copper stays; what is not symmetric is said, and undo takes it all back.
func TestStackOfABoard(t *testing.T) {
	d := plate(2, plated{"J1", "GND", 6, 22}, plated{"R1", "GND", 34, 22}, plated{"D1", "GLOW", 8, 8}, plated{"D2", "GLOW", 34, 8})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.focus()
	b.press("Stack")
	b.sees("Northgate Boards")
	b.glimpse("stack-two")
	b.press("Four layers, 1.6 mm")
	b.until(`goldenTrace.board.stack.filter(l => l.kind === 'copper').length === 4`)
	b.until(`goldenTrace.links.size === 2`)
	b.fill("Thickness of Core", "1.2")
	b.until(`goldenTrace.board.stack.find(l => l.name === 'Core').thickness === 1200000`)
	b.sees("+0.125 mm")
	b.fill("Thickness of Prepreg 1", "0.3")
	b.sees("Not symmetric, so that the board may warp: Prepreg 1 is 0.3 mm thick, Prepreg 2 on the other side 0.21 mm.")
	b.choose("What Inner 1 is for", "GND")
	b.until(`goldenTrace.all('pour').length === 1 && goldenTrace.links.size === 1`)
	b.glimpse("stack-four")
	b.press("As thick as they are")
	b.glimpse("stack-true")
	b.press("Remove Inner 1")
	b.sees("The layer Inner 1 holds 1 copper area; remove that first, or keep the layer")
	order := `goldenTrace.board.stack.filter(l => ['copper', 'core', 'prepreg'].includes(l.kind)).map(l => l.name).join(' ')`
	b.press("Move Core up")
	b.until(order + ` === 'Top Core Inner 1 Prepreg 1 Inner 2 Prepreg 2 Bottom'`)
	b.press("Move Inner 2 up")
	b.until(order + ` === 'Top Core Inner 2 Prepreg 1 Inner 1 Prepreg 2 Bottom'`)
	b.press("Add a layer at Prepreg 2")
	b.there("menuitem", "Core below it*")
	b.glimpse("stack-menu")
	b.click(b.found(seen("menuitem", "Core below it*")))
	b.until(order + ` === 'Top Core Inner 2 Prepreg 1 Inner 1 Prepreg 2 Core 1 Bottom'`)
	b.choose("What Core 1 is", "prepreg")
	b.until(`goldenTrace.board.stack.find(l => l.name === 'Core 1').kind === 'prepreg'`)
	b.press("Remove Bottom silk")
	b.until(`goldenTrace.board.stack.every(l => l.name !== 'Bottom silk')`)
	b.press("Close the stack")
	b.gone("dialog", "Stack")
	for range 9 {
		b.focus()
		b.key("z", ctrl)
		b.kept()
	}
	b.until(`goldenTrace.board.stack.length === 7 && goldenTrace.all('pour').length === 0`)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.links.size`))
}

// Four layers with a plane from the first transfer on: what the plane joins needs no track, and the files' copper joins what the circuit does.
func TestPlanesFromTheTransferOn(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, "Gate Plane")
	b.lightRow()
	b.wire(155, 122.5, 155, 105, 65, 105, 65, 117.5)
	b.key("t")
	b.typing("RETURN")
	b.key(enter)
	b.point(110, 105)
	b.kept()
	b.key(escape)
	b.stage("Board")
	b.press("Begin the board")
	b.choose("Copper layers", "4, 2 inside")
	b.choose("Stack", "Four layers, 1.0 mm, Northgate Boards")
	b.fill("Width, mm", "40")
	b.fill("Height, mm", "30")
	b.choose("Inner 1", "plane of RETURN")
	b.glimpse("begin-planes")
	b.click(b.found(`[...document.querySelectorAll('[role=dialog] button')].find(x => x.textContent.trim() === 'Begin the board')`))
	b.until(`goldenTrace.all('placed').length === 4 && goldenTrace.all('pour').length === 1`)
	assert.Equal(t, 1_000_000, eval[int](b, `goldenTrace.board.wanted`))
	b.openLinks("4 open links")
	b.onBoard("J1", "8", "15", "270")
	b.onBoard("S1", "20", "24", "0")
	b.onBoard("R1", "31", "24", "0")
	b.onBoard("D1", "30", "10", "0")
	b.openLinks("3 open links")
	b.focus()
	b.key("f")
	for _, mm := range [][]float64{{8, 17.54, 17.46, 24}, {22.54, 24, 25.92, 24}, {36.08, 24, 28.73, 10}} {
		b.key("t")
		b.draws(mm...)
		b.key(escape)
	}
	b.openLinks("all links joined")
	b.glimpse("begun-planes")
	faultless(b)
	shippedOf(t, p, b, "Gate Plane", 4)
	undone := `goldenTrace.all('pour').length === 0 && goldenTrace.board.stack.filter(l => l.kind === 'copper').length === 2`
	for range 30 {
		if eval[bool](b, undone) {
			break
		}
		b.focus()
		b.key("z", ctrl)
		b.kept()
	}
	b.until(undone)
}

// A board of six layers: a track hops by a micro via and a buried one beside it, which is turned and then replaced by another way; when the
// order of ways changes, what would follow is shown first. The files' copper and holes of all spans join what they should.
func TestASteppedMicroVia(t *testing.T) {
	d := plate(2, plated{"J1", "FAST", 6, 22}, plated{"J2", "FAST", 34, 22}, plated{"J3", "SLOW", 6, 8}, plated{"J4", "SLOW", 34, 8})
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 100_000, design.TrackWidth: 150_000, design.LeastWidth: 75_000,
		design.LeastHole: 150_000, design.LeastRing: 100_000, design.HoleClearance: 200_000})
	p := serveDoc(t, "Fine", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Fine", "board")
	b.focus()
	b.press("Stack")
	b.press("Six layers, 1.2 mm")
	b.until(`goldenTrace.board.holes?.barrels?.length === 6`)
	b.press("Holes")
	b.choose("To", "Inner 3")
	b.sees("Top micro, beside it Buried")
	b.glimpse("holes-table")
	b.press("Close the stack")

	b.focus()
	b.key("t")
	b.point(6, 22)
	b.choose("Hop to", "Inner 3")
	b.click(b.found(`[...document.querySelectorAll('label')].find(l => l.textContent.trim() === 'Ways')`))
	b.move(14, 22)
	b.sees("Top micro, beside it Buried")
	b.press("Top micro, beside it Buried*")
	b.move(16, 22)
	b.glimpse("hop-ways")
	b.key(" ")
	b.until(seen("button", "Inner 3") + `.getAttribute('aria-pressed') === 'true'`)
	b.draws(34, 22)
	b.key(escape)
	b.until(`goldenTrace.all('via').length === 2`)
	b.openLinks("1 open link")
	faults := `[...goldenTrace.findings.values()].filter(f => f.stage === 'board' && f.severity === 'fault').map(f => f.text).join()`
	assert.Empty(t, eval[string](b, faults))

	b.focus()
	at := eval[[]float64](b, `(() => {const v = goldenTrace.all('via').find(v => v.kind === 'laser'); return [v.at.x / 1e6, v.at.y / 1e6]})()`)
	b.point(at[0], at[1])
	b.sees("Hop of 2 holes")
	b.glimpse("hop-details")
	b.fill("Turned to", "90")
	b.until(`(() => {const [a, c] = goldenTrace.all('via'); return a.at.x === c.at.x && a.at.y !== c.at.y})()`)
	b.kept()
	assert.Empty(t, eval[string](b, faults))
	b.openLinks("1 open link")
	b.choose("Way", "Through")
	b.until(`goldenTrace.all('via').length === 1`)
	assert.Empty(t, eval[string](b, faults))
	b.openLinks("1 open link")
	b.choose("Way", "Top micro, beside it Buried")
	b.until(`goldenTrace.all('via').length === 2`)

	// a hop that follows the order of ways
	b.focus()
	b.key("t")
	b.press("Top")
	b.point(6, 8)
	b.choose("Hop to", "Inner 1")
	b.move(16, 8)
	b.key(" ")
	b.draws(34, 8)
	b.key(escape)
	b.until(`goldenTrace.all('via').length === 3 && goldenTrace.links.size === 0`)
	b.key("L", shift)
	b.press("Holes")
	b.choose("To", "Inner 1")
	b.press("Better: Through")
	b.sees("1 hop: Top micro 0.25 mm/0.1 mm → Through 0.45 mm/0.2 mm.")
	b.glimpse("holes-follow")
	b.press("Make them anew")
	b.until(`goldenTrace.all('via').filter(v => v.kind === 'laser').length === 1`)
	b.press("Close the stack")
	b.kept()
	faultless(b)
	shippedOf(t, p, b, "Fine", 6)
}
