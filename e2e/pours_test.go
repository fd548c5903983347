package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// A copper area over the whole board, on the layer in work: what it fills is seen, its details say what came of it.
func TestCopperAreas(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "board")
	b.focus()
	b.key("z")
	b.there("button", "Whole board")
	b.glimpse("pour-strip")
	b.choose("Net", "GND")
	b.press("Whole board")
	b.until(`goldenTrace.all('pour').length === 1 && goldenTrace.filled.size > 100`)
	b.kept()
	b.key(escape)
	b.glimpse("pour-top")
	b.press("GND*")
	b.sees("mm²")
	b.glimpse("pour-details")
	b.key("z", shift)
	b.glimpse("pour-hatch")
	b.key("z", shift)
	b.glimpse("pour-edges")
	assert.Zero(t, eval[int](b, `goldenTrace.links.size`))
}
