package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
)

// Nets: what is asked of them, pairs by name, the highlight from sheet to sheet, and what is
// picked in the circuit is picked on the board of another window.
func TestNetsAndSharedPicking(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	parent := browser(t)
	b := p.open(t, parent, "/")
	p.openStage(t, b, "Weir Gauge", "circuit")
	b.press("Nets")
	b.fill("Filter the nets", "net:TX")
	b.click(b.cell("TX", "Class"))
	b.key(enter)
	b.typing("Bus")
	b.key(enter)
	b.click(b.cell("TX", "Current"))
	b.key("5")
	b.typing(" mA")
	b.key(enter)
	b.kept()
	b.until(`(()=>{const s=goldenTrace.named('net','TX');return s?.class==='Bus'&&s.current===5000})()`)
	b.click(b.cell("TX", "Voltage"))
	b.key("m")
	b.typing("any")
	b.key(enter)
	b.sees("is not a voltage; write it as 3.3 V")
	b.key(escape)
	// the pairs were found by name already; parted and found again
	b.fill("Filter the nets", "net:BUS_P")
	b.click(b.cell("BUS_P", "Pair with"))
	b.key(kbDelete)
	b.kept()
	b.until(`!goldenTrace.named('net', 'BUS_N')?.partner`)
	b.press("Find pairs by name")
	b.sees("1 pair by name")
	b.press("Make them pairs")
	b.kept()
	b.until(`goldenTrace.netName(goldenTrace.named('net', 'BUS_N')?.partner) === 'BUS_P'`)

	// the light stays on from sheet to sheet
	b.gone("dialog", "*")
	time.Sleep(300 * time.Millisecond) // the dialog fades
	b.fill("Filter the nets", "net:+3V3")
	b.menu(b.cell("+3V3", "Net"), "Show in the drawing")
	b.until(`goldenTrace.lit.value === '+3V3'`)
	b.sheet("Field bus")
	b.onSheet("Field bus")
	assert.Equal(t, "+3V3", eval[string](b, `goldenTrace.lit.value`))

	// two windows of one project
	p.openStage(t, b, "Moth Lamp", "circuit")
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	c := p.open(t, parent, "/")
	p.openStage(t, c, "Moth Lamp", "board")
	time.Sleep(300 * time.Millisecond)
	b.point(137.5, 92.5) // Q1
	c.until(`document.querySelector('[aria-label=Details]')?.innerText.includes('Q1')&&[...document.querySelectorAll('[aria-label=Details] input')].length > 2`)
	c.pickPart("R4")
	b.until(`document.querySelector('input[aria-label=Designator]')?.value === 'R4'`)
}
