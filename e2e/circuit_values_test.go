package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A value typed beside what the part is becomes the value of what is placed, and the table of parts knows it however it is written.
func TestPlacingByValue(t *testing.T) {
	_, b := circuitBench(t, "Ten Micro")
	for i, query := range []string{"capacitor 0603 10u", "capacitor 0603 10000n", "capacitor 0603 47n"} {
		b.key("n")
		b.atField("Find a part")
		b.typing(query)
		b.sees("to be given the value")
		b.until(`document.querySelector('[aria-label=Parts] [aria-selected=true]')?.innerText.startsWith('Capacitor 0603')`)
		b.key(enter)
		b.gone("dialog", "Place a part")
		b.point(60+float64(i)*30, 100)
		b.kept()
		b.key(escape)
		b.key(escape)
	}
	assert.ElementsMatch(t, []string{"10u", "10000n", "47n"}, eval[[]string](b, `goldenTrace.all('part').map(p => p.value)`))

	// the next one has its own value again
	b.putPart("Capacitor 0603", 60, 140)
	assert.NotContains(t, []string{"10u", "10000n", "47n"}, eval[string](b, `goldenTrace.all('part').at(-1).value`))
}
