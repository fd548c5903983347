package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
)

// circuit opens a new project on its empty sheet.
func circuitBench(t *testing.T, name string) (*program, *tab) {
	t.Helper()
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, name)
	b.until(`document.querySelector('.canvas')?.dataset.painted > 0`)
	time.Sleep(150 * time.Millisecond)
	return p, b
}

// named finds an object of the page's mirror by its name.
func named(kind, name string) string {
	return fmt.Sprintf(`goldenTrace.all('%s').find(o => (o.name ?? o.designator ?? o.member ?? o.title) === %q)`, kind, name)
}

func (b *tab) tool(id string) { b.t.Helper(); b.click(fmt.Sprintf("[data-tool=%s]", id)) }

func (b *tab) fill(test, value string) {
	b.t.Helper()
	b.click(fmt.Sprintf("[data-test=%s]", test))
	b.key("a", ctrl)
	b.typing(value)
	b.key(enter)
}

// clickText clicks the button with the words within what the selector names.
func (b *tab) clickText(within, words string) {
	b.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('%s button')].find(x => x.innerText.trim() === %q)`, within, words)
	b.until(find)
	at := eval[[]float64](b, `(()=>{const r=`+find+`.getBoundingClientRect();return [r.x+r.width/2,r.y+r.height/2]})()`)
	b.do(chromedp.MouseClickXY(at[0], at[1]))
}

// choose takes an entry of a list of choices.
func (b *tab) choose(selector, value string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.querySelector(%q)`, selector))
	b.do(chromedp.SetValue(selector, value))
	eval[bool](b, fmt.Sprintf(`document.querySelector(%q).dispatchEvent(new Event('change'))`, selector))
}

// doubleAt clicks twice at a place of the drawing.
func (b *tab) doubleAt(x, y float64) {
	b.t.Helper()
	b.point(x, y)
	sx, sy := b.at(x, y)
	b.do(chromedp.MouseClickXY(sx, sy, chromedp.ClickCount(2)))
	time.Sleep(60 * time.Millisecond)
}

func (b *tab) onSheet(name string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.querySelector('[data-test=here]')?.innerText === %q`, name))
	time.Sleep(250 * time.Millisecond)
}

func (b *tab) findings(kind string) int {
	b.t.Helper()
	return eval[int](b, fmt.Sprintf(`goldenTrace.openFindings.value.filter(f => f.kind === %q).length`, kind))
}
