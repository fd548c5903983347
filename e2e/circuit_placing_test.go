package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// Parts are found by many words, put into a wire, replaced, lined up, spread and numbered;
// units of a package follow one another.
func TestPlacingParts(t *testing.T) {
	_, b := circuitBench(t, "Eel Counter")
	b.key("n")
	b.atField("Find a part")
	b.typing("8 pins so*")
	b.until(`[...document.querySelectorAll('[aria-label=Parts] [role=option]')].length > 3 && [...document.querySelectorAll('[aria-label=Parts] [role=option]')].every(o => /(^|\s)so/i.test(o.innerText) && o.innerText.includes('8 pins'))`)
	b.key(escape)
	b.key(escape)

	// dropped on a wire, the part is in it
	b.wire(50, 150, 120, 150)
	b.key(enter)
	b.key("c")
	b.point(50, 150)
	b.point(120, 150)
	b.key(enter)
	b.kept()
	b.key(escape)
	b.putPart("Resistor 0603", 85, 150)
	b.until(`goldenTrace.all('wire').length === 2`)
	assert.NotEqual(t, eval[string](b, `goldenTrace.netAtPin(goldenTrace.all('part')[0].id,'1')`), eval[string](b, `goldenTrace.netAtPin(goldenTrace.all('part')[0].id,'2')`))

	// replaced, the wires stay on it
	b.point(85, 150)
	b.press("Replace …")
	b.atField("Find a part")
	b.typing("Capacitor 0603")
	b.until(`document.querySelector('[aria-label=Parts] [aria-selected=true]')?.innerText.startsWith('Capacitor 0603')`)
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.all('part')[0].library === 'Capacitor 0603' && goldenTrace.all('part')[0].designator === 'C1'`)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.netList.value.filter(n => n.uses.length && n.pins.length === 1).length`), "both wires hang on it still")

	// lined up and spread
	for i, at := range [][2]float64{{150, 100}, {170, 105}, {205, 97.5}} {
		b.putPart("Resistor 0603", at[0], at[1])
		_ = i
	}
	b.drag(140, 115, 215, 88)
	b.until(`document.querySelector('[aria-label=Details] h3')?.innerText.includes('3 parts')`)
	click := func(text string) {
		b.press(text)
		b.kept()
	}
	click("Row")
	b.until(`new Set(goldenTrace.all('part').filter(p=>p.designator[0]==='R').map(p=>p.at.y)).size === 1`)
	click("Across")
	xs := eval[[]float64](b, `goldenTrace.all('part').filter(p=>p.designator[0]==='R').map(p=>p.at.x/1e6).sort((a,b)=>a-b)`)
	assert.InDelta(t, xs[1]-xs[0], xs[2]-xs[1], 2.5)

	// numbered by position, shown first
	b.key(escape)
	b.key(escape)
	b.point(150, 100) // R1 goes to the far right
	b.key("k", ctrl)
	b.until(`document.activeElement?.placeholder?.startsWith('R3')`)
	b.typing("number the parts")
	b.key(enter)
	b.there("button", "Number them")
	b.key(escape)

	// a package of units: the next click takes its next unit
	b.key("n")
	b.atField("Find a part")
	b.typing("dual amplifier, units")
	b.until(`document.querySelector('[aria-label=Parts] [aria-selected=true]')?.innerText.startsWith('Dual amplifier, units')`)
	b.key(enter)
	b.gone("dialog", "Place a part")
	b.point(100, 60)
	b.kept()
	b.point(140, 60)
	b.kept()
	b.key(escape)
	assert.Equal(t, []any{"U1", 1.0, "U1", 2.0}, eval[[]any](b, `goldenTrace.all('part').filter(p=>p.unit).flatMap(p=>[p.designator,p.unit])`))
	assert.Equal(t, 1, b.findings("unitLeft"))
}
