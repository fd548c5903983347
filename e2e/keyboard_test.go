package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// watch is put into a page that is walked through with Tab. Controls are what can be pressed,
// typed into or chosen; of those that the arrows go through (a table, a list, a menu, radio
// buttons) Tab reaches one. Whether a control shows that it has the keys is read off what is
// painted of it, of what is in it and of what stands around it alone.
const watch = `(() => {
	const controls = 'a[href], button, input, select, textarea, [role=application], [role=grid], [tabindex]'
	const arrows = '[role=grid], [role=list], [role=listbox], [role=radiogroup], [role=menu], [role=tablist], [role=toolbar]'
	const shown = { opacityProperty: true, visibilityProperty: true }
	const able = e => e.checkVisibility(shown) && !e.disabled && e.getAttribute('aria-disabled') !== 'true'
		&& !e.closest('[aria-hidden=true], [inert]') && e.type !== 'file'
	const text = e => e.getAttribute('aria-label') || e.title || e.textContent.replace(/\s+/g, ' ').trim()
	const called = e => (e.getAttribute('role') || e.tagName.toLowerCase()) + ' ' + text(e).slice(0, 60)
	const own = e => [...e.querySelectorAll(controls)].filter(able).length
	const around = e => { for (let i = 0; i < 6 && own(e.parentElement) <= own(e) + 1 && !e.parentElement.matches(controls); i++) e = e.parentElement; return e }
	const looks = (x, part) => { const s = getComputedStyle(x, part); return [s.outline, s.boxShadow, s.borderColor, s.borderWidth, s.backgroundColor, s.opacity].join() }
	const paint = e => { const top = own(e) ? e : around(e); return [top, ...top.querySelectorAll('*')].flatMap(x => [null, '::before', '::after'].map(p => looks(x, p))).join(';') }
	const seen = new Map()
	let last = null, start = null
	window.walk = {
		step() {
			const e = document.activeElement
			if (last && last.e !== e && last.e.isConnected && last.paint === paint(last.e)) last.blind = true
			if (last?.blind) seen.set(last.e, called(last.e))
			if (e === document.body) { last = null; return '' }
			start ??= e
			if (!seen.has(e)) seen.set(e, '')
			last = { e, paint: paint(e) }
			return called(e)
		},
		round: () => document.activeElement === start,
		missed() {
			const modal = document.querySelector('[role=dialog][aria-modal=true]')
			return [...(modal ?? document).querySelectorAll(controls)].filter(able).filter(e => {
				if (seen.has(e) || [...seen.keys()].some(s => e.contains(s))) return false
				const group = e.closest(arrows)
				return !(group && [...seen.keys()].some(s => group.contains(s)))
			}).map(called)
		},
		blind: () => [...seen.values()].filter(x => x),
	}
	return true
})()`

// Every control of every view is reached with Tab, or with the arrows from one that is, and shows
// that the keys are with it.
func TestEveryControlByKeys(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	walk := func(view string) {
		t.Helper()
		b.atRest()
		eval[bool](b, watch)
		eval[bool](b, `(document.activeElement.blur(), window.getSelection().removeAllRanges(), true)`)
		var first string
		for range 300 {
			b.do(chromedp.KeyEvent(kb.Tab))
			at := eval[string](b, `walk.step()`)
			if first == "" {
				first = at
			} else if at == first && eval[bool](b, `walk.round()`) {
				break
			}
		}
		assert.NotEmpty(t, first, view)
		assert.Empty(t, eval[[]string](b, `walk.missed()`), "%s: not reached", view)
		assert.Empty(t, eval[[]string](b, `walk.blind()`), "%s: has the keys and does not show it", view)
	}
	b.sees("Moth Lamp, first try")
	b.sees("Examples")
	walk("projects")
	b.press("New project")
	b.atField("Name of the project")
	walk("a new project")
	for _, stage := range []string{"circuit", "parts", "board", "checks", "handoff"} {
		p.openStage(t, b, "Moth Lamp, first try", stage)
		walk(stage)
	}
	p.openStage(t, b, "Moth Lamp", "circuit")
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	for _, key := range []string{"c", "t", "x", "p", "k", "l", "j"} {
		b.focus()
		b.key(key)
		walk(fmt.Sprintf("circuit, with the tool of %s", key))
	}
	b.focus()
	b.point(135, 137.5)
	walk("circuit, a part picked")
	for _, view := range []string{"Table of parts", "Nets"} {
		b.press(view)
		walk(view)
	}
	p.openStage(t, b, "Moth Lamp", "board")
	b.point(13.97, 21.59)
	walk("board, a part picked")
	p.openStage(t, b, "Weir Gauge", "checks")
	b.show("Clashes")
	walk("clashes")
	b.show("What is checked")
	walk("what is checked")
}

// Keys that a control understands are the control's when it was reached with them: arrows on a
// button move no part, Space and Enter press it.
func TestKeysOnAControlAreItsOwn(t *testing.T) {
	_, b := circuitBench(t, "Sluice Keys")
	b.putPart("Resistor", 150, 120)
	b.point(150, 120)
	at := func(label string) {
		t.Helper()
		for range 80 {
			b.key(kb.Tab)
			if eval[string](b, `document.activeElement.getAttribute('aria-label') ?? document.activeElement.innerText`) == label {
				return
			}
		}
		require.Fail(t, "not reached", label)
	}
	at("Cluster")
	b.key(keyRight)
	b.key(keyUp)
	b.kept()
	assert.Equal(t, []float64{150e6, 120e6}, eval[[]float64](b, `(({x, y}) => [x, y])(goldenTrace.all('part')[0].at)`), "the picked part stays")
	b.key(enter)
	b.until(seen("button", "Cluster") + `.getAttribute('aria-pressed') === 'true'`)
	b.press("Wire")
	at("Any angle")
	b.key(" ")
	b.until(seen("radio", "Any angle") + `.getAttribute('aria-checked') === 'true'`)
}

// Whose a key is after a control was clicked: a check box gives the keys back to the stage at once, a slider keeps those that steer it.
func TestKeysAfterAClickOnAControl(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "board")
	b.press("View")
	b.click(".v-checkbox input")
	require.Equal(t, "checkbox", eval[string](b, `document.activeElement.type ?? ''`))
	b.key("a", ctrl)
	b.until(`goldenTrace.picked.value.length > 3`)
	rev := b.revision()
	b.key("q")
	b.kept()
	require.Greater(t, b.revision(), rev, "letters are the stage's")
	b.key("z", ctrl)
	b.kept()
	b.key("a", ctrl)
	b.press("In space")
	b.until(`document.querySelector('[role=slider]')`)
	b.atRest()
	rev = b.revision()
	value := `Number(document.querySelector('[role=slider]').getAttribute('aria-valuenow'))`
	b.click("[role=slider]")
	was := eval[float64](b, value)
	for range 5 {
		b.key(keyRight)
	}
	b.kept()
	assert.Greater(t, eval[float64](b, value), was)
	assert.Equal(t, rev, b.revision(), "nothing moved on the board")
}
