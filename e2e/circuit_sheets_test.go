package e2e

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A block is placed for a new sheet, entered by a double click, given a port, mended with one
// click, and used twice; the sheets are put in order, sized and entitled.
func TestSheetsWithinSheets(t *testing.T) {
	_, b := circuitBench(t, "Fish Ladder")
	b.press("Block")
	b.drag(100, 100, 150, 140)
	b.kept()
	b.key(escape)
	b.until(`goldenTrace.all('sheet').length === 2 && goldenTrace.all('block').length === 1`)
	b.doubleAt(125, 120)
	b.onSheet("Sheet 2")

	b.putPart("Resistor", 120, 120)
	b.press("Port")
	b.fill("Name", "OUT")
	b.press("Out")
	b.point(125, 120)
	b.kept()
	b.key(escape)
	b.until(`goldenTrace.openFindings.value.some(f => f.kind === 'portAlone' && f.text.includes('The port OUT has no pin on the block'))`)
	b.point(130, 120) // the port says so and mends it
	b.press("Add the pin")
	b.kept()
	assert.Equal(t, []any{"OUT", "out"}, eval[[]any](b, `(()=>{const q=goldenTrace.all('block')[0].pins[0];return [q.name,q.way]})()`))
	assert.Zero(t, b.findings("portAlone"))

	b.press("Sheet 1") // up again by the path in the top bar
	b.onSheet("Sheet 1")
	b.key("f")
	b.key("f") // the whole sheet
	time.Sleep(200 * time.Millisecond)
	b.press("Block")
	b.choose("Stands for", "Sheet 2")
	b.drag(180, 100, 230, 140)
	b.kept()
	b.key(escape)
	b.until(`goldenTrace.places.value.length === 3`)
	r := eval[map[string]any](b, `goldenTrace.all('part')[0]`)
	others := r["others"].(map[string]any)
	require.Len(t, others, 1)
	for _, name := range others {
		assert.NotEqual(t, r["designator"], name, "each use has its own designator")
	}

	// a sheet cannot stand within itself
	b.doubleAt(205, 120)
	b.onSheet("Sheet 2 2")
	b.key("f")
	time.Sleep(200 * time.Millisecond)
	b.press("Block")
	b.choose("Stands for", "Sheet 1")
	b.drag(60, 60, 100, 90)
	b.sees("a sheet cannot stand within itself")
	b.key(escape)

	// a new sheet, its place in the order, its size and an entry of its own
	b.press("Add a sheet")
	b.onSheet("Sheet 3")
	b.set("Name", "Drawings")
	eval[bool](b, `(()=>{const from=`+sheetRow("Drawings")+`,to=`+sheetRow("Sheet 1")+`;const d=new DataTransfer();for(const [el,type] of [[from,'dragstart'],[to,'dragover'],[to,'drop'],[from,'dragend']])el.dispatchEvent(new DragEvent(type,{bubbles:true,cancelable:true,dataTransfer:d}));return true})()`)
	b.kept()
	b.until(named("sheet", "Drawings") + `.order === 1`)
	b.choose("Size", "C")
	b.kept()
	b.until(named("sheet", "Drawings") + `.size === 'C'`)
	b.set("Author", "All of us")
	assert.Equal(t, "All of us", eval[string](b, `goldenTrace.settings.author`))
	b.click(`button[aria-label^="all: Author"]`)
	b.kept()
	b.set("Author", "Only here")
	assert.Equal(t, "Only here", eval[string](b, named("sheet", "Drawings")+`.fields.author`))
	assert.Equal(t, "All of us", eval[string](b, `goldenTrace.settings.author`))
}
