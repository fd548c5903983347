package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/chromedp"
	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// slowCircuit opens a new project on its empty sheet, over a line that takes 400 ms there and back.
func slowCircuit(t *testing.T, name string) *tab {
	t.Helper()
	p := late(t, start(t, "serve", t.TempDir()), 400*time.Millisecond)
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, name)
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	time.Sleep(600 * time.Millisecond)
	return b
}

// Whoever types a part's name and Enter gets that part, however late the program answers; what is typed after the Enter is the drawing's.
func TestTheFinderPlacesWhatIsTyped(t *testing.T) {
	b := slowCircuit(t, "Typed")
	for i, name := range []string{"Resistor 0603", "Capacitor 0805", "Coil 0805", "Thermistor 0603"} {
		b.key("n")
		b.atField("Find a part")
		b.types(name + "\re") // and the part is turned
		b.gone("dialog", "Place a part")
		b.point(60+float64(i)*40, 120)
		b.kept()
		b.until(fmt.Sprintf(`goldenTrace.all('part').length === %d`, i+1))
		got := eval[[]any](b, `(p => [p.library, p.turn])(goldenTrace.all('part').at(-1))`)
		assert.Equal(t, name, got[0])
		b.key(escape)
		b.key(escape)
	}
}

// A list that moves beneath a hand that rests chooses nothing.
func TestAListThatMovesBeneathTheHandChoosesNothing(t *testing.T) {
	_, b := circuitBench(t, "Rests")
	b.key("n")
	b.atField("Find a part")
	b.until(`document.querySelectorAll('[aria-label=Parts] [role=option]').length > 5`)
	at := eval[[]float64](b, `(r => [r.x + 40, r.y + 10])(document.querySelectorAll('[aria-label=Parts] [role=option]')[4].getBoundingClientRect())`)
	b.moveXY(at[0], at[1])
	b.typing("chip")
	b.until(`[...document.querySelectorAll('[aria-label=Parts] [role=option]')].every(o => !o.innerText.startsWith('AND gate'))`)
	time.Sleep(300 * time.Millisecond)
	assert.Equal(t, 0, eval[int](b, `[...document.querySelectorAll('[aria-label=Parts] [role=option]')].findIndex(o => o.getAttribute('aria-selected') === 'true')`))
	b.moveXY(at[0]+3, at[1]+1) // it chooses where it moves
	b.until(`[...document.querySelectorAll('[aria-label=Parts] [role=option]')].findIndex(o => o.getAttribute('aria-selected') === 'true') > 0`)
}

// Labels are named one after the other as quickly as one types: no letter falls through to the tools, also while the program still places the one before.
func TestLabelsAtFullSpeed(t *testing.T) {
	b := slowCircuit(t, "Labels")
	b.key("t")
	b.atField("Net")
	for i, name := range []string{"SENSE_A", "BLINK_X", "WAKE_SUN"} {
		b.types(name)
		x, y := b.at(60+float64(i)*30, 100)
		b.moveXY(x, y)
		b.do(chromedp.MouseClickXY(x, y))
	}
	b.kept()
	b.until(`goldenTrace.all('label').length === 3`)
	assert.Equal(t, []string{"BLINK_X", "SENSE_A", "WAKE_SUN"}, eval[[]string](b, `goldenTrace.all('label').map(l => l.name).sort()`))
	assert.Zero(t, eval[int](b, `goldenTrace.all('wire').length + goldenTrace.all('block').length + goldenTrace.all('port').length + goldenTrace.all('sheet').length - 1`))
	b.atField("Net")
}

// types presses keys one after the other without a pause, as a keyboard does: what a press brings about may take its character.
func (b *tab) types(s string) {
	b.t.Helper()
	for _, r := range s {
		for _, p := range kb.Encode(r) {
			if p.Type == input.DispatchKeyEventTypeChar {
				continue
			}
			if p.Type != input.DispatchKeyEventTypeKeyUp {
				p.Type, p.Text = input.DispatchKeyEventTypeKeyDown, string(r)
			}
			_, err := chromedp.Call(b.ctx, input.DispatchKeyEvent, *p)
			require.NoError(b.t, err)
		}
	}
}

// With a question open no letter falls through to the drawing, and an Enter that ends a word one types answers nothing: both wait for the field.
func TestWhatIsTypedWhileAQuestionIsOpenWaits(t *testing.T) {
	b := slowCircuit(t, "Asked")
	b.key("c")
	for _, row := range []float64{100, 140} {
		b.point(50, row)
		b.point(120, row)
		b.key(enter)
		b.kept()
	}
	b.key(escape)
	b.key("t")
	b.atField("Net")
	x, y := b.at(60, 100)
	x2, y2 := b.at(60, 140)
	b.types("SENSE")
	b.do(chromedp.MouseClickXY(x, y))
	b.kept()
	b.atField("Net")
	b.types("BLINK")
	b.do(chromedp.MouseClickXY(x2, y2))
	b.kept()
	b.atField("Net")
	b.types("BLINK") // on the wire that has another name: it would join the two
	b.do(chromedp.MouseClickXY(x+40, y))
	b.types("WAKE")
	b.until(`document.querySelector('[role=alertdialog]')`)
	b.types("_UP\r")
	assert.Equal(t, 2, eval[int](b, `goldenTrace.all('label').length`))
	time.Sleep(400 * time.Millisecond)
	b.until(`document.querySelector('[role=alertdialog]')?.innerText.includes('_UP')`)
	b.key(escape)
	b.gone("alertdialog", "Before this is done")
	b.until(`document.querySelector('input[aria-label=Net]')?.value === 'WAKE_UP'`)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.all('label').length`), "left as it was")
	assert.Equal(t, 0, eval[int](b, `goldenTrace.all('block').length + goldenTrace.all('port').length + goldenTrace.all('sheet').length - 1`))
}
