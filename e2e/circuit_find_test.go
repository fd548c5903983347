package e2e

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Words are found and replaced in values, names and notes; the sheets are printed.
func TestFindReplaceAndPrint(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "circuit")
	b.until(`document.querySelector('[role=application]')?.dataset.painted > 0`)
	b.key("f", ctrl)
	b.atField("Find")
	b.typing("BV36S")
	b.until(`document.querySelectorAll('[aria-label=Found] [role=listitem]').length === 9`) // value, part number and datasheet of three diodes
	b.click(field("Replace by"))
	b.typing("BV40S")
	b.press("Replace all")
	b.kept()
	assert.Equal(t, 3, eval[int](b, `goldenTrace.all('part').filter(p => p.value === 'BV40S').length`))
	b.key(escape)
	b.key("z", ctrl)
	b.kept()
	assert.Equal(t, 3, eval[int](b, `goldenTrace.all('part').filter(p => p.value === 'BV36S').length`), "one step back")

	// from the command field to a note on another sheet
	b.key("k", ctrl)
	b.until(`document.activeElement?.placeholder?.startsWith('R3')`)
	b.typing("asking and answering")
	b.until(`document.querySelector('[role=option][aria-selected=true]')?.innerText.includes('note in the circuit')`)
	b.key(enter)
	b.onSheet("Field bus")
	b.until(`document.querySelector('[aria-label=Details] h3')?.innerText === 'Note'`)

	id := p.projectID("Weir Gauge")
	code, pdf := p.api("GET", fmt.Sprintf("/projects/%d/circuit.pdf", id), nil)
	require.Equal(t, 200, code)
	assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")))
	code, svg := p.api("GET", fmt.Sprintf("/projects/%d/sheet.svg?sheet=%d&path=", id, eval[int](b, `goldenTrace.places.value[0].sheet`)), nil)
	require.Equal(t, 200, code)
	assert.Contains(t, string(svg), "Weir Gauge")
}
