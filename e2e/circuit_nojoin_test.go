package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// nets writes which pins are together, whatever the nets are called.
func (b *tab) nets() string {
	b.t.Helper()
	return eval[string](b, `JSON.stringify([...goldenTrace.nets.values()].map(n => n.pins.map(p => p.part + '.' + p.pin).sort().join()).filter(s => s).sort())`)
}

// A wired resistor between two supplies is mirrored and turned: its wires are led round it, no
// net changes, and undo gives all back.
func TestWiredPartsAreTurned(t *testing.T) {
	_, b := circuitBench(t, "Turn Stile")
	b.putPart("Resistor", 150, 120)
	b.wire(130, 120, 145, 120)
	b.wire(170, 120, 155, 120)
	b.press("Supply")
	b.key("3") // +5V is one key away
	b.point(130, 120)
	b.kept()
	b.key("1")
	b.point(170, 120)
	b.kept()
	b.key(escape)
	before := b.nets()
	require.Equal(t, []string{"+5V", "GND"}, eval[[]string](b, `goldenTrace.netList.value.map(n => n.name).sort()`))
	wires := eval[string](b, `JSON.stringify(goldenTrace.all('wire'))`)

	b.point(150, 120)
	for _, keys := range []string{"m", "q", "e", "m", "q", "q"} {
		b.key(keys)
		b.kept()
		assert.Equal(t, before, b.nets(), keys)
		assert.False(t, eval[bool](b, `!!document.querySelector('[role=alertdialog]')`), "nobody is asked")
		assert.Zero(t, b.findings("looseEnd"))
		assert.Zero(t, b.findings("twoSupplies"))
	}
	b.look("turned")
	for range 6 {
		b.key("z", ctrl)
		b.kept()
	}
	assert.JSONEq(t, wires, eval[string](b, `JSON.stringify(goldenTrace.all('wire'))`))
}

// Where a key would join nets it asks first: Esc leaves all as it was, Enter does it.
func TestKeysAskBeforeTheyJoin(t *testing.T) {
	_, b := circuitBench(t, "Weigh Bridge")
	b.putPart("Resistor", 150, 120)
	b.putPart("Resistor", 150, 130)
	before := b.nets()
	b.point(150, 120)
	at := `goldenTrace.all('part').find(p => p.designator === 'R1').at.y`
	for range 3 {
		b.key(keyDown)
		b.kept()
	}
	assert.EqualValues(t, 112_500_000, eval[int](b, at))
	assert.Equal(t, before, b.nets())
	for range 4 {
		b.key(keyUp)
		b.kept()
	}
	b.key(keyUp)
	b.key(keyUp)
	b.key(keyUp) // onto the other one, pin on pin
	b.until(`document.querySelector('[role=alertdialog]')?.innerText.includes('This would join R1.1 and R2.1')`)
	b.look("asks")
	b.key(escape)
	b.until(`!document.querySelector('[role=alertdialog]')`)
	b.kept()
	assert.Equal(t, before, b.nets(), "left as it was")
	b.key(keyUp)
	b.until(`document.querySelector('[role=alertdialog]')`)
	time.Sleep(400 * time.Millisecond) // it is read first
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.netList.value.length === 2`)
	b.key("z", ctrl)
	b.kept()
	assert.Equal(t, before, b.nets())
}

// A regulator with its input above its ground on one column, and a capacitor whose pin lies
// lower: the wire's own bend goes round the ground pin, and says nothing since it joins nothing.
func TestWireLeavesPinsByThemselves(t *testing.T) {
	_, b := circuitBench(t, "Sump")
	b.putPart("Regulator SOT-223", 160, 120)
	b.putPart("Capacitor", 110, 100)
	pin := func(part, number string) []float64 {
		return eval[[]float64](b, `(()=>{const p=goldenTrace.all('part').find(p=>p.designator==='`+part+`');const q=goldenTrace.symbolOf(p.library,p.unit).pins.find(q=>q.number==='`+number+`');return [(p.at.x+q.at.x)/1e6,(p.at.y+q.at.y)/1e6]})()`)
	}
	in, ground := pin("U1", "3"), pin("U1", "1")
	require.Equal(t, in[0], ground[0], "one column")
	require.Greater(t, in[1], ground[1], "the input above the ground")
	to := pin("C1", "2")
	require.Less(t, to[1], in[1])
	b.key("c")
	b.point(in[0], in[1])
	b.move(to[0], to[1])
	time.Sleep(150 * time.Millisecond)
	assert.Empty(t, eval[string](b, `[...document.querySelectorAll('[role=alert]')].map(e => e.innerText).join('')`), "it joins nothing that it does not end on")
	b.look("regulator")
	b.point(to[0], to[1])
	b.kept()
	b.key(escape)
	name := func(part, number string) string {
		return eval[string](b, `goldenTrace.netAtPin(goldenTrace.all('part').find(p=>p.designator==='`+part+`').id, '`+number+`') ?? ''`)
	}
	assert.Equal(t, name("U1", "3"), name("C1", "2"))
	assert.NotEqual(t, name("U1", "3"), name("U1", "1"), "the ground is a net of its own")
	assert.NotEqual(t, name("C1", "1"), name("C1", "2"))

	// drawn on purpose straight over the ground pin it says so, in the warning colour
	b.key("c")
	b.key("a") // any angle: straight
	b.point(in[0], in[1]+10)
	b.move(in[0], ground[1]-10)
	b.sees("This would join")
	b.look("warned")
	b.key(escape)
	b.key(escape)
}
