package e2e

import (
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The electrical check: the matrix is edited and the finding comes, is excused with a
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
	b.click("[data-test=erc-open]")
	b.click(`[data-pair="input|output"]`)
	b.kept()
	b.until(`goldenTrace.openFindings.value.some(f => f.kind === 'pinPair' && f.severity === 'warning')`)
	b.sees("an input, and")

	row := `[...document.querySelectorAll('.row')].find(r => r.innerText.includes('an input, and'))`
	eval[bool](b, `(`+row+`.querySelector('[data-test=excuse]').click(),true)`)
	b.until(`document.activeElement?.dataset.test === 'reason'`)
	b.key(enter)
	b.sees("Say why it is right as it is.")
	b.typing("Meant so: they are chained.")
	b.key(enter)
	b.kept()
	b.until(`document.querySelector('[data-test=excused]')?.innerText.includes('they are chained')`)
	assert.Zero(t, b.findings("pinPair"))

	// a kind of finding is not looked for any more
	open := b.findings("openPin")
	require.Positive(t, open)
	b.chooseNative("[data-kind=openPin]", "off")
	b.kept()
	assert.Zero(t, b.findings("openPin"))

	// another input joins: the finding is another one and comes back with the old reason beside it
	p.openStage(t, b, "Otter Pass", "circuit")
	b.until(`document.querySelector('.canvas')?.dataset.painted > 0`)
	time.Sleep(200 * time.Millisecond)
	second := eval[[]float64](b, q(1, 11))
	b.wire(second[0], second[1], in[0]-20, second[1], in[0]-20, in[1])
	b.until(`goldenTrace.openFindings.value.some(f => f.kind === 'pinPair' && f.lapsed)`)
}
