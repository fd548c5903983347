package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
)

// watch is put into a page that is walked through with Tab. Controls are what can be pressed,
// typed into or chosen; of those that the arrows go through (a table, a list, a menu, radio
// buttons) Tab reaches one. Whether a control shows that it has the keys is read off what is
// painted of it, of what is in it and of what is just around it.
const watch = `(() => {
	const controls = 'a[href], button, input, select, textarea, [role=application], [role=grid], [tabindex]'
	const arrows = '[role=grid], [role=list], [role=listbox], [role=radiogroup], [role=menu], [role=tablist], [role=toolbar]'
	const able = e => e.checkVisibility({opacityProperty: true, visibilityProperty: true}) && !e.disabled && e.getAttribute('aria-disabled') !== 'true' && !e.closest('[aria-hidden=true], [inert]') && e.type !== 'file'
	const called = e => (e.getAttribute('role') || e.tagName.toLowerCase()) + ' ' + (e.getAttribute('aria-label') || e.title || e.textContent.replace(/\s+/g, ' ').trim()).slice(0, 60)
	const around = e => { for (let i = 0; i < 5 && e.parentElement && e.parentElement.querySelectorAll('*').length < 60; i++) e = e.parentElement; return e }
	const paint = e => [around(e), ...around(e).querySelectorAll('*')].flatMap(x => [null, '::before', '::after'].map(p => { const s = getComputedStyle(x, p); return [s.outline, s.boxShadow, s.borderColor, s.borderWidth, s.backgroundColor, s.opacity].join() })).join(';')
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
		time.Sleep(300 * time.Millisecond)
		eval[bool](b, watch)
		eval[bool](b, `(document.activeElement.blur(), window.getSelection().removeAllRanges(), true)`)
		var first string
		for range 300 {
			b.key(kb.Tab)
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
