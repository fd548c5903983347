package e2e

import (
	"fmt"

	"github.com/chromedp/chromedp"
)

// What a person sees or hears read out, found by its role and its name.

// sight is put into every page: what bears a role and is called by a name, "*" standing for any
// letters at its end; what is hidden from readers and shortcuts written on a button do not belong to its name.
const sight = `window.seen = (role, name) => {
	const tags = { button: ',button', link: ',a[href]', article: ',article', main: ',main', textbox: ',input:not([type]),input[type=text],textarea', heading: ',h2,h3', img: ',img' }
	const called = e => {
		if (e.getAttribute('aria-label')) return e.getAttribute('aria-label')
		const copy = e.cloneNode(true)
		copy.querySelectorAll('kbd, [aria-hidden=true]').forEach(k => k.remove())
		return copy.textContent.replace(/\s+/g, ' ').trim()
	}
	const fits = n => name.endsWith('*') ? n.startsWith(name.slice(0, -1)) : n === name
	return [...document.querySelectorAll('[role=' + role + ']' + (tags[role] ?? ''))].find(e => e.checkVisibility() && fits(called(e)))
}`

// seen is an expression of the page for what bears a role and a name.
func seen(role, name string) string { return fmt.Sprintf(`seen(%q, %q)`, role, name) }

// there waits until something is to be seen, gone until it is no more.
func (b *tab) there(role, name string) { b.t.Helper(); b.until(seen(role, name)) }
func (b *tab) gone(role, name string)  { b.t.Helper(); b.until("!" + seen(role, name)) }

// says waits until what bears a label holds a text.
func (b *tab) says(label, text string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`[...document.querySelectorAll('[aria-label=%q]')].some(e => e.innerText.includes(%q))`, label, text))
}

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

// press clicks what can be pressed: a button, one of several choices, or a link.
func (b *tab) press(name string) {
	b.t.Helper()
	b.click(b.found(seen("button", name) + " || " + seen("radio", name) + " || " + seen("link", name)))
}

// stage goes to a stage of the trace.
func (b *tab) stage(name string) { b.t.Helper(); b.click(b.found(seen("link", name+": *"))) }

// sheet goes to a sheet of the list, or picks what stands below it there.
func (b *tab) sheet(name string) { b.t.Helper(); b.click(b.found(sheetRow(name))) }

func sheetRow(name string) string {
	return fmt.Sprintf(`[...document.querySelectorAll('[aria-label="Sheets in their order"] [role=listitem]')].find(r => r.innerText.split('\n').includes(%q))`, name)
}

// show clicks the tab with a name.
func (b *tab) show(name string) { b.t.Helper(); b.click(b.found(seen("tab", name+"*"))) }

// project takes an entry of the menu of a project in the list.
func (b *tab) project(name, entry string) {
	b.t.Helper()
	b.press("What can be done with " + name)
	b.click(b.found(seen("menuitem", entry+"*")))
}

// menu takes an entry of the menu that the right button opens.
func (b *tab) menu(selector, entry string) {
	b.t.Helper()
	at := eval[[]float64](b, center(selector))
	b.do(chromedp.MouseClickXY(at[0], at[1], chromedp.ButtonRight))
	b.click(b.found(seen("menuitem", entry+"*")))
}

// upload gives a file to a field for files.
func (b *tab) upload(label, path string) {
	b.t.Helper()
	b.do(chromedp.SetUploadFiles(fmt.Sprintf("input[type=file][aria-label=%q]", label), []string{path}, chromedp.NodeReady))
}
