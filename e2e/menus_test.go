package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// rightAt presses the right button at a place of the drawing and takes an entry of the menu.
func (b *tab) rightAt(x, y float64, entry string) {
	b.t.Helper()
	b.move(x, y)
	sx, sy := b.at(x, y)
	b.do(chromedp.MouseClickXY(sx, sy, chromedp.ButtonRight))
	b.click(b.found(fmt.Sprintf(`[...document.querySelectorAll('[role=menuitem]')].find(x => x.innerText.startsWith(%q))`, entry)))
}

// The right button opens what can be done to what is there, the menu key what can be done to what is picked.
func TestMenus(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "circuit")
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	r1 := `goldenTrace.all('part').find(p => p.designator === 'R1')`
	turn := eval[int](b, r1+`.turn ?? 0`)
	b.rightAt(135, 137.5, "Turn left")
	b.kept()
	assert.Equal(t, (turn+1)%4, eval[int](b, r1+`.turn ?? 0`))
	assert.Equal(t, "R1", b.value("Designator"), "what the button was pressed on is picked")
	b.rightAt(100, 170, "Select all")
	b.until(`goldenTrace.picked.value.length === 12`)
	// by keys, and back out
	b.until(`!document.querySelector('[role=menuitem]') && document.activeElement?.getAttribute('role') === 'application'`)
	time.Sleep(100 * time.Millisecond) // the library lets go of the menu before
	eval[bool](b, `(document.querySelector('[role=application]').dispatchEvent(new MouseEvent('contextmenu', {bubbles: true, cancelable: true, clientX: 420, clientY: 700})), true)`)
	b.until(`document.activeElement?.getAttribute('role') === 'menuitem'`)
	b.key(escape)
	b.until(`!document.querySelector('[role=menuitem]')`)
	assert.Equal(t, 12, eval[int](b, `goldenTrace.picked.value.length`), "the menu key leaves what is picked")
	b.until(`document.activeElement?.getAttribute('role') === 'application'`)

	p.openStage(t, b, "Moth Lamp", "board")
	b.rightAt(13.97, 21.59, "Lock or unlock")
	b.kept()
	b.until(`goldenTrace.all('placed').some(p => p.locked)`)
}

// Lines of the details have menus too; in a field the browser's own stays, for copying and pasting.
func TestMenusOfDetails(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "circuit")
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	at := eval[[]float64](b, `(()=>{const k=goldenTrace.all('block').find(k=>k.pins.some(q=>q.name==='ALARM')&&k.pins.length>4);return [(k.at.x+k.size.x/2)/1e6,(k.at.y+k.size.y/2)/1e6]})()`)
	b.point(at[0], at[1])
	b.there("button", "Add the pin")
	label := func(text string) string {
		return b.found(fmt.Sprintf(`[...document.querySelectorAll('[aria-label=Details] span')].filter(e => e.textContent === %q)[0]`, text))
	}
	beside := b.found(`document.querySelector('input[aria-label="Name of the pin ALARM"]')?.parentElement.closest(':has(> span)')?.querySelector('span')`)
	b.menu(beside, "Remove the pin and its port")
	b.until(`document.querySelector('[role=alertdialog]')?.innerText.includes('This would part ALARM.')`)
	b.press("Do it all the same")
	b.kept()
	b.until(`!document.querySelector('input[aria-label="Name of the pin ALARM"]')`)
	b.key("z", ctrl)
	b.until(`document.querySelector('input[aria-label="Name of the pin ALARM"]')`)

	b.focus()
	b.menu(label("Document"), "Give this sheet its own")
	b.kept()
	b.until(`goldenTrace.get('sheet', goldenTrace.all('sheet').find(s => s.name === 'Overview').id).fields?.number !== undefined`)
	b.menu(label("Document"), "Take the project’s again")
	b.kept()
	b.until(`goldenTrace.get('sheet', goldenTrace.all('sheet').find(s => s.name === 'Overview').id).fields?.number === undefined`)

	in := eval[[]float64](b, center(field("Document")))
	b.do(chromedp.MouseClickXY(in[0], in[1], chromedp.ButtonRight))
	time.Sleep(200 * time.Millisecond)
	b.gone("menuitem", "*")
}

// A table by keys alone: ranges, changing in place, sorting, the order of columns, which are remembered.
func TestTableByKeys(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "circuit")
	b.press("Table of parts")
	b.click(b.cell("R2", "Value"))
	b.key(keyDown, shift)
	b.sees("2 cells picked")
	b.key(enter)
	b.until(`document.activeElement?.getAttribute('aria-label') === 'Value'`)
	b.typing("33k")
	b.key(enter)
	b.kept()
	b.until(`['R2','R3'].every(d => goldenTrace.all('part').find(p => p.designator === d).value === '33k')`)
	b.key("z", ctrl)
	b.until(`['R2','R3'].every(d => goldenTrace.all('part').find(p => p.designator === d).value === '47k')`)

	first := func() string {
		return eval[string](b, `[...document.querySelectorAll('[role=row][aria-rowindex="2"] [role=gridcell]')].map(c => c.textContent.trim()).join(' ')`)
	}
	assert.Contains(t, first(), "C1 22µ")
	eval[bool](b, `(document.querySelector('[role=columnheader]').focus(), true)`)
	b.key(enter)
	b.key(enter) // the other way round
	b.until(`document.querySelector('[role=columnheader]').getAttribute('aria-sort') === 'descending'`)
	assert.Contains(t, first(), "S1")
	b.key(keyRight, alt)
	b.until(`document.querySelectorAll('[role=columnheader]')[1].textContent.startsWith('Designator')`)
	wide := func() float64 {
		return eval[float64](b, `document.querySelectorAll('[role=columnheader]')[1].getBoundingClientRect().width`)
	}
	was := wide()
	b.key(keyRight, shift)
	b.until(fmt.Sprintf(`document.querySelectorAll('[role=columnheader]')[1].getBoundingClientRect().width === %v`, was+16))
	b.do(chromedp.Reload())
	b.until(`document.querySelectorAll('[role=columnheader]')[1]?.textContent.startsWith('Designator')`)
	assert.InDelta(t, was+16, wide(), 0.01, "order and widths are remembered")
}

// Examples are looked at and copied; a template begins a project; files dropped on the page are taken in.
func TestBeginningAProject(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.sees("Begin with an empty sheet")
	b.press("Moth Lamp")
	b.until(`window.goldenTrace?.state.value === 'open'`)
	b.sees("You look at this project without changing it.")
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	b.point(135, 137.5)
	b.key("q")
	b.sees("take a copy of it to change it")
	b.press("Take a copy to change")
	b.until(`goldenTrace.name.value === 'Moth Lamp copy' && goldenTrace.state.value === 'open' && document.querySelector('[role=application]')?.dataset.painted > 0`)
	b.point(135, 137.5)
	b.key("q")
	b.kept()

	// one's own, only looked at: in all stages, and after the page is read again
	b.goTo("/")
	b.project("Moth Lamp copy", "Look at it")
	b.sees("You look at this project without changing it.")
	b.stage("Board")
	b.until(`location.pathname.endsWith('/board') && location.search.includes('look=1')`)
	b.do(chromedp.Reload())
	b.sees("You look at this project without changing it.")

	b.goTo("/")
	b.click(b.found(seen("listitem", "Four-layer*")))
	b.atField("Name of the project")
	b.typing("Six Weirs")
	b.key(enter)
	b.until(`window.goldenTrace?.name.value === 'Six Weirs' && goldenTrace.state.value === 'open'`)
	assert.Equal(t, 4, eval[int](b, `goldenTrace.board.stack.filter(l => l.kind === 'copper').length`))

	b.goTo("/")
	b.there("article", "Six Weirs")
	b.fill("Find a project", "weirs")
	b.gone("article", "Moth Lamp copy")
	_, file := p.api("GET", fmt.Sprintf("/projects/%d/export", p.projectID("Six Weirs")), nil)
	eval[bool](b, fmt.Sprintf(`(() => { const d = new DataTransfer(); d.items.add(new File([%q], 'weirs.goldentrace')); for (const t of ['dragenter', 'dragover', 'drop']) seen('main', '*').dispatchEvent(new DragEvent(t, {bubbles: true, cancelable: true, dataTransfer: d})); return true })()`, string(file)))
	b.sees("Imported as Six Weirs (2).")
	b.there("article", "Six Weirs (2)")
}
