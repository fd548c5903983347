package e2e

import (
	"fmt"

	"github.com/chromedp/chromedp"
)

// What a person sees, found by its words.

// found marks what an expression finds, once it is there, so that it can be clicked.
func (b *tab) found(js string) string {
	b.t.Helper()
	const mark = "data-seen"
	b.until(js)
	eval[bool](b, fmt.Sprintf(`(document.querySelectorAll('[%s]').forEach(e => e.removeAttribute('%s')), (%s).setAttribute('%s', ''), true)`, mark, mark, js, mark))
	return "[" + mark + "]"
}

// cell is the cell of a table in the column and in the row in which a text stands.
func (b *tab) cell(row, column string) string {
	b.t.Helper()
	return b.found(fmt.Sprintf(`(() => {
		const heads = [...document.querySelectorAll('[role=columnheader]')].map(h => h.textContent.replace(/ [↑↓]/, '').trim())
		const rows = [...document.querySelectorAll('[role=row]')].map(r => [...r.querySelectorAll('[role=gridcell]')])
		return rows.find(r => r.some(c => c.textContent.trim() === %q))?.[heads.indexOf(%q)]
	})()`, row, column))
}

// press clicks the button with a name.
func (b *tab) press(name string) {
	b.t.Helper()
	b.click(b.found(fmt.Sprintf(`[...document.querySelectorAll('button, a.v-btn')].find(x => x.checkVisibility() && (x.getAttribute('aria-label') ?? x.textContent).trim() === %q)`, name)))
}

// show clicks the tab with a name.
func (b *tab) show(name string) {
	b.t.Helper()
	b.click(b.found(fmt.Sprintf(`[...document.querySelectorAll('[role=tab]')].find(x => x.textContent.trim().startsWith(%q))`, name)))
}

// project takes an entry of the menu of a project in the list.
func (b *tab) project(name, entry string) {
	b.t.Helper()
	b.press("What can be done with " + name)
	b.click(b.found(fmt.Sprintf(`[...document.querySelectorAll('[role=menuitem]')].find(x => x.innerText.startsWith(%q))`, entry)))
}

// menu takes an entry of the menu that the right button opens.
func (b *tab) menu(selector, entry string) {
	b.t.Helper()
	at := eval[[]float64](b, center(selector))
	b.do(chromedp.MouseClickXY(at[0], at[1], chromedp.ButtonRight))
	b.click(b.found(fmt.Sprintf(`[...document.querySelectorAll('[role=menuitem]')].find(x => x.innerText.startsWith(%q))`, entry)))
}
