package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// placedAt are the designators with their places in mm.
const placedAt = `Object.fromEntries(goldenTrace.all('placed').map(p => [p.designator, [p.at.x / 1e6, p.at.y / 1e6]]))`

// A beginner's one-sided board: begun in one act, its parts gathered onto it, the lower side refused; later what changed in the circuit is shown at both
// its places and taken over.
func TestABeginnersBoard(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, "First Light")
	b.lightRow()
	b.stage("Board")
	b.until(`!!document.querySelector('[role=application][aria-label^=Board]')?.dataset.view`)
	b.press("Begin the board")
	b.there("dialog", "Begin the board")
	b.sees("4 parts arrive beside the outline")
	b.choose("Copper layers", "1, one side")
	b.fill("Width, mm", "50100")
	b.sees("is beyond the largest length, 2000 mm.")
	b.press("On the upper side")
	b.click(b.found(`[...document.querySelectorAll('[role=dialog] button')].find(x => x.textContent.trim() === 'Begin the board')`))
	b.until(`document.activeElement.getAttribute('aria-label') === 'Width, mm' && document.activeElement.value === '50100'`) // mended before it is begun
	assert.Zero(t, eval[int](b, `goldenTrace.all('placed').length`))
	b.fill("Width, mm", "40")
	b.fill("Height, mm", "30")
	b.fill("Corners, mm", "2")
	b.fill("New tracks, mm", "0.8")
	b.press("On the upper side")
	b.glimpse("begin-board")
	b.click(b.found(`[...document.querySelectorAll('[role=dialog] button')].find(x => x.textContent.trim() === 'Begin the board')`))
	b.until(`goldenTrace.all('placed').length === 4`)
	b.edgeIs(1200 - 4*(1-0.7853982)*4)
	assert.Equal(t, 1, eval[int](b, `goldenTrace.board.stack.filter(l => l.kind === 'copper').length`))
	assert.Equal(t, 800_000, eval[int](b, `goldenTrace.rule('trackWidth')`))
	for name, at := range eval[map[string][]float64](b, placedAt) {
		assert.Greater(t, at[0], 40.0, "%s stands beside the board", name)
	}
	b.key("a", ctrl)
	b.move(20, 15)
	b.key("G", shift)
	b.until(`goldenTrace.all('placed').every(p => p.at.x > 0 && p.at.x < 40e6 && p.at.y > 0 && p.at.y < 30e6)`)
	b.glimpse("gathered")
	before := eval[map[string][]float64](b, placedAt)
	b.key("m")
	b.sees("stays on the upper side: this board has parts on that one alone")
	assert.Equal(t, before, eval[map[string][]float64](b, placedAt))
	b.key(escape)

	b.stage("Circuit")
	b.until(`!!document.querySelector('[role=application][aria-label^=Circuit]')?.dataset.view`)
	b.putPart("Capacitor 0603", 100, 60)
	b.stage("Board")
	b.press("1 difference to the circuit · carry")
	b.there("dialog", "Carry to board")
	b.until(`(()=>{const c=document.querySelector('[aria-label="The part in the circuit"]');return !!c && c.getContext('2d').getImageData(0,0,c.width,c.height).data.some((v,i)=>i%4===3&&v>0)})()`)
	b.glimpse("carry-places")
	b.press("Carry 1 change")
	b.until(`goldenTrace.all('placed').length === 5`)
	assert.Equal(t, before, eval[map[string][]float64](b, `Object.fromEntries(Object.entries(`+placedAt+`).filter(([k]) => k !== 'C1'))`), "what was placed stays placed")
	for range 3 { // the part, the gathering, the beginning
		b.key("z", ctrl)
	}
}
