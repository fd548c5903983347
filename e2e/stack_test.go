package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
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
	b.press("Remove Bottom silk")
	b.until(`goldenTrace.board.stack.every(l => l.name !== 'Bottom silk')`)
	b.press("Close the stack")
	b.gone("dialog", "Stack")
	for range 5 {
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
		b.point(mm[0], mm[1])
		b.point(mm[2], mm[3])
		b.gone("status", "Net: *")
		b.kept()
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
