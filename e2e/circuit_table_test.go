package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// The table of parts: many cells at once, fill down, a pasted column, fields of one's own,
// one step back for each; a table out, changed, and in again after a look at the changes.
func TestTableOfParts(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "circuit")
	b.press("Table of parts")
	b.until(`document.querySelectorAll('[role=grid] [role=row]').length > 20`)
	steps := func() int { return eval[int](b, `goldenTrace.history.value.steps`) }
	value := func(d string) string {
		return eval[string](b, fmt.Sprintf(`goldenTrace.all('part').find(p => p.designator === %q).value`, d))
	}
	b.click(field("Filter the parts"))
	b.typing("library:0603 designator:c1")
	b.until(`![...document.querySelectorAll('[role=gridcell]')].some(c => c.textContent === 'B1')`)
	before := steps()
	from, to := eval[[]float64](b, center(b.cell("C10", "Value"))), eval[[]float64](b, center(b.cell("C12", "Value")))
	b.do(chromedp.MouseEvent("mousePressed", from[0], from[1], chromedp.Button("left"), chromedp.ClickCount(1)))
	b.moveXY(to[0], to[1])
	b.do(chromedp.MouseEvent("mouseReleased", to[0], to[1], chromedp.Button("left"), chromedp.ClickCount(1)))
	b.key("2") // typing begins an edit of all that is picked
	b.typing("20n")
	b.key(enter)
	b.kept()
	assert.Equal(t, []string{"220n", "220n", "220n"}, []string{value("C10"), value("C11"), value("C12")})
	assert.Equal(t, before+1, steps(), "three cells, one step")

	b.click(b.cell("C13", "Value"))
	to = eval[[]float64](b, center(b.cell("C15", "Value")))
	b.do(chromedp.MouseClickXY(to[0], to[1], chromedp.ButtonModifiers(shift)))
	b.key("d", ctrl)
	b.kept()
	assert.Equal(t, []string{"1µ", "1µ", "1µ"}, []string{value("C13"), value("C14"), value("C15")}, "filled down")

	// a column from a spreadsheet
	b.click(b.cell("C16", "Value"))
	eval[bool](b, `(()=>{const d=new DataTransfer();d.setData('text/plain','33p\r\n47n\r\n');document.querySelector('[role=grid]').dispatchEvent(new ClipboardEvent('paste',{clipboardData:d,bubbles:true,cancelable:true}));return true})()`)
	b.kept()
	assert.Equal(t, []string{"33p", "47n"}, []string{value("C16"), value("C17")})

	// a field of one's own, and parts that are not fitted
	b.fill("Name of a new field", "Drawer")
	b.click(b.cell("C16", "Drawer"))
	b.key("O")
	b.typing("ttermere")
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.all('part').find(p => p.designator === 'C16').fields?.Drawer === 'Ottermere'`)
	b.click(b.cell("C16", "Fitted"))
	b.key(" ")
	b.kept()
	b.until(`goldenTrace.all('part').find(p => p.designator === 'C16').notFitted`)

	// out, changed, and in again
	id := p.projectID("Weir Gauge")
	_, table := p.api("GET", fmt.Sprintf("/projects/%d/parts.csv", id), nil)
	assert.Contains(t, string(table), "Ottermere")
	changed := strings.Replace(string(table), "C16,33p", "C16,18p", 1) + "C999,1n\r\n"
	path := filepath.Join(t.TempDir(), "parts.csv")
	require.NoError(t, os.WriteFile(path, []byte(changed), 0o644))
	b.upload("Table to take in", path)
	b.sees("1 cell would change")
	b.sees("there is no part called C999 in the circuit")
	assert.Equal(t, "33p", value("C16"), "nothing is taken before it was shown")
	b.press("Take them")
	b.kept()
	b.until(`goldenTrace.all('part').find(p => p.designator === 'C16').value === '18p'`)
	require.NoError(t, os.WriteFile(path, []byte("Wert;Ort\r\n1k;R1\r\n"), 0o644))
	b.upload("Table to take in", path)
	b.sees("The table has no column called Designator")
}

func center(selector string) string {
	return fmt.Sprintf(`(()=>{const r=document.querySelector(%q).getBoundingClientRect();return [r.x+r.width/2,r.y+r.height/2]})()`, selector)
}
