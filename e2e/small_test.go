package e2e

import (
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// cutOff are the words of tabs, buttons and tools of the page of which a part lies outside the window or what clips them.
const cutOff = `[...document.querySelectorAll('[role=tab], .page button, .bar button, .bar .count, .shelf button .word, .views button')].filter(e => e.offsetParent && e.innerText.trim()).filter(e => {
	const r = e.getBoundingClientRect();
	if (r.right > innerWidth + 1 || r.left < 0) return true;
	for (let p = e.parentElement; p; p = p.parentElement) {
		if (getComputedStyle(p).overflowX === 'visible') continue;
		const q = p.getBoundingClientRect();
		if (r.right > q.right + 1 || r.left < q.left - 1) return true;
	}
	return r.width < 2;
}).map(e => e.innerText.trim())`

// On a small screen, and at 125 %, nothing of the pages' heads and tools is cut off, and tools keep their names.
func TestPagesOnSmallScreens(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.sees("Weir Gauge")
	b.click(b.found(`[...document.querySelectorAll('article a')].find(a => /Weir/.test(a.innerText))`))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	for _, size := range [][2]int64{{1024, 700}, {1024, 640}} { // the latter is 1280 × 800 at 125 %
		b.do(chromedp.EmulateViewport(size[0], size[1]))
		for stage, sign := range map[string]string{"Circuit": `document.querySelector('.shelf')`, "Parts": `seen('button', 'New part')`, "Board": `document.querySelector('.shelf')`,
			"Checks": `document.querySelector('[role=tab]')`, "Handoff": `document.querySelector('h2')`} {
			b.stage(stage)
			b.until(`!!` + sign)
			b.glimpse("small-" + stage)
			assert.Empty(t, eval[[]string](b, cutOff), "%s at %d × %d", stage, size[0], size[1])
		}
	}
}
