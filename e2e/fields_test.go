package e2e

import (
	"fmt"
	"testing"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// The label of a number is dragged to change it by steps, arithmetic is typed, what cannot be read
// stays with its sentence, and Esc gives back what was there.
func TestFieldsOfNumbers(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "board")
	b.pickPart("R1")
	b.until(`document.querySelector('input[aria-label="x, mm"]')`)
	x := func() float64 {
		return eval[float64](b, `goldenTrace.all('placed').find(p => p.designator === 'R1').at.x / 1e6`)
	}
	was := x()
	at := eval[[]float64](b, `(()=>{const r=[...document.querySelectorAll('[aria-label=Details] span')].find(e => e.textContent === 'x').getBoundingClientRect();return [r.x+4,r.y+r.height/2]})()`)
	press := func(kind input.DispatchMouseEventType, x float64) {
		b.do(chromedp.MouseEvent(kind, x, at[1], chromedp.ButtonType(input.MouseButtonLeft), chromedp.ClickCount(1)))
	}
	press(input.DispatchMouseEventTypeMousePressed, at[0])
	press(input.DispatchMouseEventTypeMouseMoved, at[0]+20)
	press(input.DispatchMouseEventTypeMouseMoved, at[0]+40)
	assert.Equal(t, fmt.Sprintf("%.4g", was+1), fmt.Sprintf("%.4g", eval[float64](b, `parseFloat(document.querySelector('input[aria-label="x, mm"]').value)`)), "ten steps of 0.1 mm are shown")
	assert.InDelta(t, was, x(), 1e-9, "and nothing is kept while it is held")
	press(input.DispatchMouseEventTypeMouseReleased, at[0]+40)
	b.kept()
	assert.InDelta(t, was+1, x(), 1e-9)
	b.set("x, mm", "12.7 + 50mil*2")
	assert.InDelta(t, 15.24, x(), 1e-9)
	b.fill("x, mm", "far")
	b.sees("“far” is not a length: a number was expected.")
	b.key(escape)
	assert.Equal(t, "15.24", b.value("x, mm"))
	b.set("Angle", "360 - 90/2")
	assert.InDelta(t, 315, eval[float64](b, `goldenTrace.all('placed').find(p => p.designator === 'R1').angle / 1000`), 1e-9)
}
