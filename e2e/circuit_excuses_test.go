package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The electrical check: a clash is added and the finding comes, is excused with a
// reason, stays away, and comes back when what it was about changes.
func TestElectricalCheckAndExcuses(t *testing.T) {
	p, b := circuitBench(t, "Otter Pass")
	b.putPart("Shift register", 100, 120)
	b.putPart("Shift register", 180, 120)
	q := func(part, pin int) string {
		return fmt.Sprintf(`(()=>{const p=goldenTrace.all('part')[%d];const s=goldenTrace.symbolOf(p.library);const q=s.pins.find(q=>q.number==='%d');return [(p.at.x+q.at.x)/1e6,(p.at.y+q.at.y)/1e6]})()`, part, pin)
	}
	out, in := eval[[]float64](b, q(0, 15)), eval[[]float64](b, q(1, 14))
	b.wire(out[0], out[1], in[0], in[1]) // an output on an input: fine
	assert.Zero(t, b.findings("pinPair"))
	id := p.projectID("Otter Pass")
	b.goTo(fmt.Sprintf("/project/%d/checks", id))
	b.show("Clashes")
	b.choose("One pin", "an output")
	b.choose("The other pin", "an input")
	b.press("Add as a warning")
	b.kept()
	b.sees("An input meets an output")
	b.until(`goldenTrace.openFindings.value.some(f => f.kind === 'pinPair' && f.severity === 'warning')`)
	b.show("Findings")
	b.fill("Filter the findings", "what:input,")
	b.sees("an input, and")
	b.click(b.cell("Warning", "What"))
	b.fill("Excused because", "Meant so: they are chained.")
	b.kept()
	b.until(`document.querySelector('[role=grid]').innerText.includes('they are chained')`)
	assert.Zero(t, b.findings("pinPair"))

	// a kind of finding is not looked for any more
	open := b.findings("openPin")
	require.Positive(t, open)
	b.show("Clashes")
	b.choose("No pin is open by accident", "not looked for")
	b.kept()
	assert.Zero(t, b.findings("openPin"))

	// another input joins: the finding is another one and comes back with the old reason beside it
	p.openStage(t, b, "Otter Pass", "circuit")
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	time.Sleep(200 * time.Millisecond)
	second := eval[[]float64](b, q(1, 11))
	b.wire(second[0], second[1], in[0]-20, second[1], in[0]-20, in[1])
	b.until(`goldenTrace.openFindings.value.some(f => f.kind === 'pinPair' && f.lapsed)`)
}
