package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
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
		b.typing(name + "\re") // and the part is turned
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
	b.moveXY(at[0], at[1]) // as a browser says it where other things come beneath a mouse that rests
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
		b.typing(name)
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
