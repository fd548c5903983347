package e2e

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

// circuit opens a new project on its empty sheet.
func circuitBench(t *testing.T, name string) (*program, *tab) {
	t.Helper()
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, name)
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	time.Sleep(150 * time.Millisecond)
	return p, b
}

// named finds an object of the page's mirror by its name.
func named(kind, name string) string {
	return fmt.Sprintf(`goldenTrace.all('%s').find(o => (o.name ?? o.designator ?? o.member ?? o.title) === %q)`, kind, name)
}

// field finds a field by what it is called; a place before " > " narrows it: "Options > Width, mm".
func field(label string) string {
	if within, name, ok := strings.Cut(label, " > "); ok {
		return fmt.Sprintf("[aria-label=%q] input[aria-label=%q]", within, name)
	}
	return fmt.Sprintf("input[aria-label=%q]", label)
}

// value is what stands in a field.
func (b *tab) value(label string) string {
	b.t.Helper()
	return eval[string](b, fmt.Sprintf(`document.querySelector(%q)?.value ?? ''`, field(label)))
}

// atField waits until the keyboard is in a field.
func (b *tab) atField(label string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.activeElement?.getAttribute('aria-label') === %q`, label))
}

func (b *tab) fill(label, value string) {
	b.t.Helper()
	b.click(field(label))
	b.key("a", ctrl)
	b.typing(value)
	b.key(enter)
}

// choose takes an entry of a list of choices.
func (b *tab) choose(label, option string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.querySelector(%q)`, field(label)))
	in := eval[[]float64](b, fmt.Sprintf(`(()=>{const f=document.querySelector(%q).closest('[role=combobox]');f.scrollIntoView({block:'nearest'});const r=f.getBoundingClientRect();return [r.x+r.width/2,r.y+r.height/2]})()`, field(label)))
	find := fmt.Sprintf(`[...document.querySelectorAll('[role=listbox] [role=option]')].find(x => x.innerText.trim() === %q)`, option)
	for range 3 { // what is made anew under the hand closes its list
		b.do(chromedp.MouseClickXY(in[0], in[1]))
		b.until(find)
		b.atRest()
		at := eval[[]float64](b, `(()=>{const o=`+find+`;if(!o)return [];o.scrollIntoView({block:'nearest'});const r=o.getBoundingClientRect();return [r.x+r.width/2,r.y+r.height/2]})()`)
		if len(at) == 2 {
			b.do(chromedp.MouseClickXY(at[0], at[1]))
			return
		}
	}
	require.Fail(b.t, "the list does not stay open", label)
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
	b.until(fmt.Sprintf(`document.querySelector('[aria-current=location]')?.innerText === %q`, name))
	time.Sleep(250 * time.Millisecond)
}

func (b *tab) findings(kind string) int {
	b.t.Helper()
	return eval[int](b, fmt.Sprintf(`goldenTrace.openFindings.value.filter(f => f.kind === %q).length`, kind))
}
