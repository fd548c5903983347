package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A circuit is drawn without touching the pointer: parts, a wire, marks of free pins.
func TestDrawingByKeys(t *testing.T) {
	_, b := circuitBench(t, "Key Stone")
	b.press("Select")
	b.move(150, 120) // where the hand happens to be
	place := func(query string) {
		t.Helper()
		b.key("n")
		b.atField("Find a part")
		b.typing(query)
		b.until(`document.querySelector('[aria-label=Parts] [aria-selected=true]')?.innerText.startsWith('` + query + `')`)
		b.key(enter)
		b.gone("dialog", "Place a part")
	}
	place("Resistor")
	b.key(keyRight)
	b.key(enter)
	b.kept()
	require.Equal(t, 1, eval[int](b, `goldenTrace.all('part').length`))
	first := eval[[]float64](b, `(()=>{const p=goldenTrace.all('part')[0];return [p.at.x,p.at.y]})()`)
	b.key(keyRight, shift) // ten steps on
	b.key(enter)
	b.kept()
	second := eval[[]float64](b, `(()=>{const p=goldenTrace.all('part')[1];return [p.at.x,p.at.y]})()`)
	assert.Equal(t, []float64{first[0] + 25e6, first[1]}, second)
	b.key(escape)

	// from the left one's right pin to the right one's left pin
	b.key("c")
	for range 8 {
		b.key(keyLeft)
	}
	b.key(enter)
	for range 6 {
		b.key(keyRight)
	}
	b.look("keys")
	b.key(enter)
	b.kept()
	b.key(escape)
	assert.Equal(t, 3, eval[int](b, `goldenTrace.netList.value.length`), "two of four pins are joined")

	b.key("a", ctrl)
	b.key("O", shift)
	b.kept()
	assert.Equal(t, 2, eval[int](b, `goldenTrace.all('openMark').length`))
	assert.Zero(t, b.findings("openPin"))
	b.key("x", ctrl) // cut
	b.kept()
	assert.Zero(t, eval[int](b, `goldenTrace.all('part').length`))
	b.key("z", ctrl)
	b.kept()
	b.key("y", ctrl) // redo, as written by many
	b.kept()
	assert.Zero(t, eval[int](b, `goldenTrace.all('part').length`))
}

// Letters that follow a field as quickly as one types are nobody's command.
func TestTypingNeverFallsThrough(t *testing.T) {
	_, b := circuitBench(t, "Mill Leat")
	b.putPart("Resistor", 150, 120)
	b.point(150, 120)
	b.key("v")
	b.atField("Edit the value")
	b.key("a", ctrl)
	b.typing("4k")
	eval[bool](b, `(document.activeElement.blur(), true)`) // the field goes away while one types
	b.typing("7qm")
	b.kept()
	assert.Equal(t, []any{0.0, false}, eval[[]any](b, `[goldenTrace.all('part')[0].turn, !!goldenTrace.all('part')[0].mirror]`), "neither turned nor mirrored")
}
