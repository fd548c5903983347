package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"github.com/chromedp/chromedp"
)

// partsOf opens the stage of parts of a new project.
func partsOf(t *testing.T, name string) *tab {
	t.Helper()
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, name)
	b.stage("Parts")
	b.until(`!!document.querySelector('[aria-label="Find parts"]')`)
	return b
}

// paste puts a text into the panel of pin lists.
func (b *tab) pasteList(text string) {
	b.t.Helper()
	b.click(`textarea[aria-label="Table of pins"]`)
	eval[bool](b, fmt.Sprintf(`(()=>{const a=document.querySelector('textarea[aria-label="Table of pins"]');const d=new DataTransfer();d.setData('text/plain',%[1]q);
		a.dispatchEvent(new ClipboardEvent('paste',{clipboardData:d,bubbles:true}));a.setRangeText(%[1]q,0,a.value.length,'end');a.dispatchEvent(new InputEvent('input',{bubbles:true}));return true})()`, text))
}

// part is a part of the project's library, told by the program's own mirror.
func (b *tab) libraryPart(name, of string) string {
	b.t.Helper()
	return eval[string](b, fmt.Sprintf(`String(goldenTrace.named('libraryPart', %q)?.%s ?? '')`, name, of))
}

const barometer = "Pin\tName\tType\tDescription\n1\tVDD\tPower\tSupply\n2\tSCL\tI\tClock\n3\tSDA\tI/O\tData\n4\tADDR\tI\tAddress\n5\tGND\tPower\tGround\n6\tINT\tOpen drain\tInterrupt\n7\tNC\tNC\tLeave open\n8\tVIO\tPower\tSupply of the lines\n"

// An eight-pin sensor, from its datasheet's table and drawing to a part on the sheet.
func TestSensorFromItsDatasheet(t *testing.T) {
	b := partsOf(t, "Sensor")
	b.press("New part")
	b.atField("Name of the part")
	b.typing("Barometer HX-8B")
	b.press("Paste its pins")
	b.pasteList(barometer)
	b.sees("8 pins")
	b.until(`document.querySelectorAll('[role=dialog] th').length > 0`)
	assert.Equal(t, []string{"number", "name", "type", "not taken"}, eval[[]string](b, `[...document.querySelectorAll('[role=dialog] th')].map(h => h.innerText.split('\n')[0].trim())`))
	b.press("Make the part")
	b.kept()
	b.sees("Not checked against a datasheet.")
	b.sees("Pins to pads")

	b.press("Generate a footprint")
	b.until(`!!document.querySelector('input[aria-label="distance over the leads"]')`)
	b.fill("distance over the leads", "4.9 ± 0.15")
	b.fill("width of the body", "2.9 .. 3.1")
	b.fill("length of the body", "2.9 .. 3.1")
	b.fill("pitch", "0.65")
	b.fill("length of a lead's foot", "0.4 .. 0.8")
	b.fill("width of a lead", "0.22 .. 0.38")
	b.fill("height", "0.9 .. 1.1")
	b.sees("SOP65P490X110-8N")
	b.fill("width of the body", "5 .. 5.2")
	b.sees("leads would not reach beyond it")
	b.fill("width of the body", "2.9 .. 3.1")
	b.sees("SOP65P490X110-8N")
	b.press("Make the footprint")
	b.until(`!!goldenTrace.named('footprint', 'SOP65P490X110-8N')`)
	b.sees("Nothing is wrong with the footprint by itself.")
	assert.Equal(t, "SOP65P490X110-8N", b.libraryPart("Barometer HX-8B", "footprint"))

	b.press("Barometer HX-8B")
	b.sees("Pins and pads fit, and nothing is wrong with the footprint.")
	b.choosesOnce()
	b.press("I checked it")
	b.sees("Your name stands beside what you checked.")
	b.until(`document.activeElement?.getAttribute('aria-label') === 'Your name'`)
	b.typing("Alder")
	b.key(enter)
	b.sees("Checked against its datasheet by Alder")
	b.until(`!document.querySelector('.v-overlay--active, .v-overlay__scrim')`) // what asked has gone

	b.stage("Circuit")
	b.until(`!!document.querySelector('[role=application][aria-label^=Circuit]')?.dataset.view`)
	b.putPart("Barometer", 100, 100)
	assert.Equal(t, "SOP65P490X110-8N", eval[string](b, `goldenTrace.all('part')[0].footprint`))
	assert.Equal(t, "U1", eval[string](b, `goldenTrace.all('part')[0].designator`))

	b.do(chromedp.Reload()) // all of it is kept
	b.until(`window.goldenTrace?.state.value === 'open'`)
	assert.Equal(t, "Alder", b.libraryPart("Barometer HX-8B", "checked.by"))
}

// choosesOnce chooses another footprint by the keyboard: nothing is edited while one types, and once as Enter is pressed.
func (b *tab) choosesOnce() {
	b.t.Helper()
	eval[bool](b, `(goldenTrace.edit('putFootprint', { name: 'Alternative' }), true)`)
	b.until(`!!goldenTrace.named('footprint', 'Alternative')`)
	b.kept()
	rev := eval[int](b, `goldenTrace.rev.value`)
	b.click(field("Footprint"))
	b.key("a", ctrl)
	b.typing("Altern")
	b.until(`[...document.querySelectorAll('[role=listbox] [role=option]')].map(o => o.innerText.trim()).join() === 'Alternative'`)
	assert.Equal(b.t, rev, eval[int](b, `goldenTrace.rev.value`))
	b.key(enter)
	b.until(`goldenTrace.all('libraryPart').some(p => p.footprint === 'Alternative')`)
	b.kept()
	assert.Equal(b.t, rev+1, eval[int](b, `goldenTrace.rev.value`))
	eval[bool](b, `(goldenTrace.undo(), true)`)
	b.until(`goldenTrace.all('libraryPart').every(p => p.footprint !== 'Alternative')`)
	b.sees("Pins and pads fit, and nothing is wrong with the footprint.")
}

// A slide potentiometer with odd offsets: pads placed by typed numbers from each other, dimensions agreed with the datasheet.
func TestOddOffsetsByNumbers(t *testing.T) {
	b := partsOf(t, "Slide")
	b.press("New part")
	b.atField("Name of the part")
	b.typing("Slide potentiometer")
	b.press("Draw its pins")
	b.sees("It has no footprint yet: nothing of it would be on a board.")
	assert.Empty(t, eval[[]string](b, `[...document.querySelectorAll('.clean')].map(e => e.innerText)`), "nothing is said to fit")
	b.press("Draw one by hand")
	b.until(`!!document.querySelector('[role=application][aria-label^=Footprint]')?.dataset.view`)
	assert.Equal(t, "Slide potentiometer", b.libraryPart("Slide potentiometer", "footprint"))
	b.sees("Draw the pads from the datasheet")
	b.press("Place a pad")
	b.press("Plated")
	b.fill("Width, mm", "2")
	b.fill("Hole, mm", "1.2")
	b.choose("Form", "Round")
	b.point(0, 0)
	b.until(`goldenTrace.all('footprint')[0].pads.length === 1`)
	b.key(escape)
	// "this one is 17.5 up and 3.25 left of that one", from the middle of pad 1
	b.key("x")
	b.until(`!!document.querySelector('input[aria-label="dx, mm"]')`)
	b.point(0, 0)
	b.sees("from the middle of pad 1")
	b.fill("dx, mm", "-3.25")
	b.until(`goldenTrace.all('footprint')[0].pads.length === 2`)
	b.fill("dy, mm", "35/2")
	b.until(`goldenTrace.all('footprint')[0].pads.length === 3`)
	places := eval[[][]float64](b, `goldenTrace.all('footprint')[0].pads.map(p => [p.at.x / 1e6, p.at.y / 1e6])`)
	assert.Equal(t, [][]float64{{0, 0}, {-3.25, 0}, {-6.5, 17.5}}, places, "the next one starts from there")
}

// A part goes to the library of the workspace, from there into another project, and is brought up to date when it changes.
func TestNewVersionOfAPart(t *testing.T) {
	b := partsOf(t, "First")
	b.press("New part")
	b.atField("Name of the part")
	b.typing("Battery holder")
	b.press("Paste its pins")
	b.pasteList("1,+,passive\n2,−,passive\n")
	b.sees("2 pins")
	b.press("Make the part")
	b.sees("Pins to pads")
	b.press("Keep in the workspace")
	b.sees("Battery holder is version 1 of the workspace")
	first := eval[int](b, `goldenTrace.id`)

	b.goTo("/")
	newProject(t, b.p, b, "Second")
	b.stage("Parts")
	b.click(`input[aria-label="Find parts"]`)
	b.typing("battery")
	b.until(`[...document.querySelectorAll('[role=grid] [role=row]')].some(r => r.innerText.includes('workspace'))`)
	b.click(b.found(`[...document.querySelectorAll('[role=grid] [role=row]')].find(r => r.innerText.includes('workspace')).querySelector('[data-c]')`))
	b.press("Take into the project")
	b.until(`goldenTrace.named('libraryPart', 'Battery holder')?.origin.version === 1`)
	second := eval[int](b, `goldenTrace.id`)

	b.goTo(fmt.Sprintf("/project/%d/parts?part=Battery+holder&own=1", first))
	b.sees("Pins to pads")
	eval[bool](b, `(goldenTrace.edit('symbolPieces', { symbol: goldenTrace.named('symbol', 'Battery holder').id, pins: [{ ...goldenTrace.named('symbol', 'Battery holder').pins[0], id: 1, name: 'PLUS' }] }), true)`)
	b.until(`goldenTrace.named('symbol', 'Battery holder').pins[0].name === 'PLUS'`)
	b.press("Keep in the workspace")
	b.sees("Battery holder is version 2 of the workspace")

	b.goTo(fmt.Sprintf("/project/%d/parts", second))
	b.sees("A part has a newer version in the library")
	b.press("Battery holder")
	b.sees("Pin 1 is called “PLUS” instead of “+”.")
	b.look("versions")
	b.press("Take version 2")
	b.until(`goldenTrace.named('symbol', 'Battery holder').pins[0].name === 'PLUS'`)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.named('libraryPart', 'Battery holder').origin.version`))
	b.key("z", ctrl)
	b.until(`goldenTrace.named('symbol', 'Battery holder').pins[0].name === '+'`)
}
