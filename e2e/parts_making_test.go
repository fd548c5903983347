package e2e

import (
	"fmt"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// another opens the stage of parts of one more project.
func (b *tab) another(name string) {
	b.t.Helper()
	b.goTo("/")
	newProject(b.t, b.p, b, name)
	b.stage("Parts")
	b.until(`!!document.querySelector('[aria-label="Find parts"]')`)
}

// Parts are made in all the ways there are, one after the other in one browser.
func TestMakingParts(t *testing.T) {
	b := partsOf(t, "Making")
	for _, step := range []func(*testing.T, *tab){controllerFromItsPinTable, batteryHolderFromATable, slideOverItsDrawing, unitsInTheBrowser, aTableOfPartsInTheBrowser, shapingPads, textOnASymbol} {
		step(t, b)
	}
}

// pinTable of a controller with 48 leads, as it is copied from a datasheet: aligned text with a heading.
func pinTable() string {
	var b strings.Builder
	b.WriteString("Pin   Name      Type    Description\n")
	for n := 1; n <= 48; n++ {
		name, kind := fmt.Sprintf("P%d", n), "I/O"
		switch n {
		case 1, 24, 36:
			name, kind = fmt.Sprintf("VDD%d", n), "Power"
		case 23, 35, 47:
			name, kind = fmt.Sprintf("VSS%d", n), "Ground"
		case 7:
			name, kind = "/RESET", "Input"
		case 48:
			name, kind = "NC", "NC"
		}
		fmt.Fprintf(&b, "%-5d %-9s %-7s %s\n", n, name, kind, "as it says")
	}
	return b.String()
}

// A controller with 48 leads on four sides: its table of pins pasted, its footprint from the body's dimensions, onto the sheet.
func controllerFromItsPinTable(t *testing.T, b *tab) {
	b.another("Controller")
	b.press("New part")
	b.atField("Name of the part")
	b.typing("Controller HX-48D")
	b.press("Paste its pins")
	b.pasteList(pinTable())
	b.sees("48 pins: ")
	b.sees("40 both ways")
	b.press("Four sides")
	b.press("Make the part")
	b.kept()
	assert.Equal(t, 48, eval[int](b, `goldenTrace.named('symbol', 'Controller HX-48D').pins.length`))
	sides := eval[map[string]int](b, `goldenTrace.named('symbol', 'Controller HX-48D').pins.reduce((n, p) => (n['t' + p.turn] = (n['t' + p.turn] ?? 0) + 1, n), {})`)
	assert.Equal(t, map[string]int{"t0": 12, "t1": 12, "t2": 12, "t3": 12}, sides, "a quarter of them on each side")
	b.glimpse("four-sides")

	b.press("Generate a footprint")
	b.choose("Family", "Four sides of gull-wing leads")
	b.until(`!!document.querySelector('input[aria-label="distance over the leads, left to right"]')`)
	for label, text := range map[string]string{
		"distance over the leads, left to right": "9 ± 0.2", "distance over the leads, up and down": "9 ± 0.2", "body, left to right": "6.9 .. 7.1", "body, up and down": "6.9 .. 7.1",
		"pitch": "0.5", "length of a lead's foot": "0.45 .. 0.75", "width of a lead": "0.17 .. 0.27", "height": "1.4 .. 1.6",
	} {
		b.fill(label, text)
	}
	b.sees("QFP50P900X900X160-48N")
	b.press("In space")
	b.until(`!!document.querySelector('.generator .space canvas')`)
	b.until(drawnInSpace + ` > 300`)
	b.glimpse("generator-space")
	b.press("Make the footprint")
	b.until(`!!goldenTrace.named('footprint', 'QFP50P900X900X160-48N')`)
	b.press("Controller HX-48D")
	b.sees("Pins and pads fit, and nothing is wrong with the footprint.")
	b.stage("Circuit")
	b.until(`!!document.querySelector('[role=application][aria-label^=Circuit]')?.dataset.view`)
	b.putPart("Controller HX-48D", 100, 100)
	assert.Equal(t, "QFP50P900X900X160-48N", eval[string](b, `goldenTrace.all('part')[0].footprint`))
}

// A battery holder: its pads from a table, the pegs' holes without plating, what is wrong told before it is taken.
func batteryHolderFromATable(t *testing.T, b *tab) {
	b.another("Holder")
	eval[bool](b, `(goldenTrace.edit('putFootprint', { name: 'Holder AA' }), true)`)
	b.until(`!!goldenTrace.named('footprint', 'Holder AA')`)
	b.goTo(fmt.Sprintf("/project/%d/parts?view=footprint&id=%d", eval[int](b, `goldenTrace.id`), eval[int](b, `goldenTrace.named('footprint', 'Holder AA').id`)))
	b.sees("Draw the pads from the datasheet")
	b.press("Paste a table")
	b.atField("Table of pads")
	b.typing("pad,x,y,width,drill,shape\n1,52.2/2,0,3,1.7,square\n2,-52.2/2,0,3,3.7,\n")
	b.sees("the hole of pad 2 (3.7 mm) is not smaller than its copper (3 mm)")
	b.glimpse("pad-table")
	b.key("a", ctrl)
	b.typing("pad,x,y,width,drill,shape\n1,52.2/2,0,3,1.7,square\n2,-52.2/2,0,3,1.7,\n,-14.3,5.1,4,3,\n,14.3,-5.1,4,3,\n")
	b.press("Take these 4 pads")
	b.until(`goldenTrace.all('footprint')[0].pads.length === 4`)
	assert.Equal(t, [][]float64{{26.1, 0}, {-26.1, 0}, {-14.3, 5.1}, {14.3, -5.1}}, eval[[][]float64](b, `goldenTrace.all('footprint')[0].pads.map(p => [p.at.x / 1e6, p.at.y / 1e6])`))
	assert.Equal(t, "rect", eval[string](b, `goldenTrace.all('footprint')[0].pads[0].form`))
	assert.Equal(t, "round", eval[string](b, `goldenTrace.all('footprint')[0].pads[1].form`))
	b.key("z", ctrl)
	b.until(`goldenTrace.all('footprint')[0].pads.length === 0`)
}

// A slide potentiometer over its datasheet's drawing: laid beneath, calibrated by two places, agreed.
func slideOverItsDrawing(t *testing.T, b *tab) {
	b.another("Slide drawing")
	drawing := filepath.Join(t.TempDir(), "drawing.svg")
	data, err := os.ReadFile("../demo/drawings/slide-potentiometer.svg")
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(drawing, data, 0o644))
	eval[bool](b, `(goldenTrace.edit('putFootprint', { name: 'Slide' }), true)`)
	b.until(`!!goldenTrace.named('footprint', 'Slide')`)
	id := eval[int](b, `goldenTrace.named('footprint', 'Slide').id`)
	b.goTo(fmt.Sprintf("/project/%d/parts?view=footprint&id=%d", eval[int](b, `goldenTrace.id`), id))
	b.sees("Draw the pads from the datasheet")
	b.upload("Picture of the datasheet’s drawing", drawing)
	b.until(`!!goldenTrace.all('footprint')[0].beneath`)
	b.sees("click one of two places whose distance is known")
	b.key("f")
	b.key("g") // places of the drawing lie on no grid
	// the picture is 20 mm wide until somebody says otherwise; its pads 3 and 2 lie at (140, 452) and (107.5, 255) of 260 by 560 from below
	corner := eval[[]float64](b, `[goldenTrace.all('footprint')[0].beneath.at.x / 1e6, goldenTrace.all('footprint')[0].beneath.at.y / 1e6]`)
	k := 20.0 / 260
	b.point(corner[0]+140*k, corner[1]+452*k)
	b.sees("click the other place whose distance is known")
	b.point(corner[0]+107.5*k, corner[1]+255*k)
	b.sees("these two places are apart")
	b.fill("Distance, mm", "19.966")
	b.until(`Math.abs(goldenTrace.all('footprint')[0].beneath.width - 26e6) < 3e5`)
	b.press("Put the first place on the origin")
	b.until(`Math.abs(goldenTrace.all('footprint')[0].beneath.at.x + 14e6) < 3e5 && Math.abs(goldenTrace.all('footprint')[0].beneath.at.y + 45.2e6) < 5e5`)
	b.key(escape)
	eval[bool](b, `(goldenTrace.edit('footprintPieces', { footprint: goldenTrace.all('footprint')[0].id, pads: [[0, -37.2], [-3.25, -19.7], [0, 0]].map(([x, y], i) => ({ number: String(i + 1), form: 'round', at: { x: x * 1e6, y: y * 1e6 }, size: { x: 2e6, y: 2e6 }, hole: 1.2e6 })) }), true)`)
	b.until(`goldenTrace.all('footprint')[0].pads.length === 3`)
	b.key("s")
	b.key("f")
	b.key("d")
	b.sees("click what to measure from")
	b.press("Up and down")
	b.point(0, 0)
	b.sees("from the middle of pad 3")
	b.point(0, -37.2)
	b.until(`goldenTrace.all('footprint')[0].dimensions?.length === 1`)
	b.press("Across")
	b.point(0, -37.2)
	b.sees("from the middle of pad 1")
	b.point(-3.25, -19.7)
	b.until(`goldenTrace.all('footprint')[0].dimensions?.length === 2`)
	b.key(escape)
	said := `document.querySelectorAll('input[aria-label="what the datasheet says"]')`
	b.until(said + `.length === 2`)
	for i, text := range []string{"37.2", "3.3"} {
		b.click(b.found(fmt.Sprintf(`%s[%d]`, said, i)))
		b.typing(text + "\r")
	}
	b.sees("1 of 2 agree")
	b.glimpse("slide-drawing")
	b.click(b.found(said + `[1]`))
	b.key("a", ctrl)
	b.typing("3.25\r")
	b.sees("2 of 2 agree")
}

// A part gets units, its pins go to them, and they stand in the circuit under one designator.
func unitsInTheBrowser(t *testing.T, b *tab) {
	b.another("Units")
	b.press("New part")
	b.atField("Name of the part")
	b.typing("Amplifier BV9")
	b.press("Paste its pins")
	b.pasteList("1,OUT1,output\n2,IN1,input\n3,OUT2,output\n4,IN2,input\n")
	b.sees("4 pins")
	b.press("Make the part")
	b.sees("Pins to pads")
	b.press("Add a unit")
	b.until(`goldenTrace.named('libraryPart', 'Amplifier BV9').units?.length === 2`)
	b.sees("Unit B")
	b.glimpse("units")
	b.click(b.found(`[...document.querySelectorAll('figure button')].find(x => x.innerText === 'Symbol')`))
	b.until(`!!document.querySelector('[role=application][aria-label=Symbol]')`)
	for _, n := range []string{"OUT2", "IN2"} {
		b.click(b.found(fmt.Sprintf(`[...document.querySelectorAll('tbody tr')].find(r => r.innerText.includes(%q))`, n)))
		b.choose("Unit", "Unit B")
		b.until(fmt.Sprintf(`goldenTrace.named('symbol', 'Amplifier BV9 B').pins.some(p => p.name === %q)`, n))
	}
	assert.Equal(t, 2, eval[int](b, `goldenTrace.named('symbol', 'Amplifier BV9').pins.length`))
}

// A table of parts: what it would make is shown, a slip is told, and the rest is taken.
func aTableOfPartsInTheBrowser(t *testing.T, b *tab) {
	b.another("Table")
	b.press("In and out")
	b.click(b.found(seen("menuitem", "Take in a table of parts …")))
	b.atField("Table of parts")
	b.typing("name,like,value,footprint,maker,part number\nResistor 4k7,Resistor 0603,4k7,,Quillfeather,QF-R0603-4K70-F\nResistor 10k,Resistor 0630,10k,,,\n")
	b.sees("There is no part called “Resistor 0630” that it could be like.")
	b.glimpse("part-table")
	b.key("a", ctrl)
	b.typing("name,like,value,footprint,maker,part number\nResistor 4k7,Resistor 0603,4k7,,Quillfeather,QF-R0603-4K70-F\nResistor 10k,Resistor 0603,10k,,,\n")
	b.press("Take 2 parts")
	b.until(`!!goldenTrace.named('libraryPart', 'Resistor 10k')`)
	assert.Equal(t, "QF-R0603-4K70-F", eval[string](b, `goldenTrace.named('libraryPart', 'Resistor 4k7').order['part number']`))
	b.sees("2 parts of the table are in the project.")
}

// A pad of a free form: a side broken, a side bent, a corner by its numbers, all undone; and the paste of another in windows.
func shapingPads(t *testing.T, b *tab) {
	b.another("Shapes of pads")
	eval[bool](b, `(goldenTrace.edit('putFootprint', { name: 'Pads' }), true)`)
	b.until(`!!goldenTrace.named('footprint', 'Pads')`)
	eval[bool](b, `(goldenTrace.edit('footprintPieces', { footprint: goldenTrace.named('footprint', 'Pads').id, pads: [{ number: '1', form: 'rect', at: { x: 0, y: 0 }, size: { x: 4e6, y: 2e6 } }, { number: '2', form: 'rect', at: { x: 8e6, y: 0 }, size: { x: 4e6, y: 4e6 } }] }), true)`)
	b.until(`goldenTrace.all('footprint')[0].pads.length === 2`)
	b.goTo(fmt.Sprintf("/project/%d/parts?view=footprint&id=%d", eval[int](b, `goldenTrace.id`), eval[int](b, `goldenTrace.named('footprint', 'Pads').id`)))
	b.until(`window.goldenTrace?.state.value === 'open' && !!document.querySelector('[role=application]')?.dataset.view`)
	pad := `goldenTrace.all('footprint')[0].pads[0]`
	b.point(0, 0)
	b.choose("Form", "free")
	b.until(pad + `.edge?.length === 4`)
	b.drag(0, -1, 0, -2) // the lower side is broken
	b.until(pad + `.edge.length === 5`)
	assert.Equal(t, []float64{0, -2}, eval[[]float64](b, fmt.Sprintf(`[%[1]s.edge[1].x / 1e6, %[1]s.edge[1].y / 1e6]`, pad)))
	assert.Equal(t, 3.0, eval[float64](b, pad+`.size.y / 1e6`))
	b.press("Side after corner 4")
	b.until(`!!` + pad + `.edge[3].mid`)
	b.fill("Corner 3, x", "2.5")
	b.until(pad + `.edge[2].x === 2.5e6`)
	b.glimpse("free-pad")
	b.point(4, 3) // out of the field, onto the drawing
	for range 3 {
		b.key("z", ctrl)
	}
	b.until(pad + `.edge?.length === 4 && !` + pad + `.edge.some(c => c.mid)`)

	b.point(8, 0)
	b.until(`document.querySelector('aside h3')?.innerText.replace(/\s+/g, ' ').trim() === 'Pad 2'`)
	b.press("Part the paste")
	b.until(`goldenTrace.all('footprint')[0].pads[1].paste?.windows?.length === 4`)
	b.glimpse("paste-windows")
	b.press("In one piece")
	b.until(`!goldenTrace.all('footprint')[0].pads[1].paste`)
}

// A text on a symbol.
func textOnASymbol(t *testing.T, b *tab) {
	b.another("Text")
	eval[bool](b, `(goldenTrace.edit('putSymbol', { name: 'Written' }), true)`)
	b.until(`!!goldenTrace.named('symbol', 'Written')`)
	b.goTo(fmt.Sprintf("/project/%d/parts?view=symbol&id=%d", eval[int](b, `goldenTrace.id`), eval[int](b, `goldenTrace.named('symbol', 'Written').id`)))
	b.until(`window.goldenTrace?.state.value === 'open' && !!document.querySelector('[role=application][aria-label=Symbol]')?.dataset.view`)
	b.key("l")
	b.press("Text")
	b.click(field("Text"))
	b.typing("FIELD")
	b.point(0, 2.5)
	b.until(`goldenTrace.named('symbol', 'Written').figures.some(f => f.text === 'FIELD')`)
	b.key(escape)
	b.key(escape)
	b.point(0, 2.5)
	b.sees("Height")
	b.glimpse("symbol-text")
	b.fill("Text", "BUS")
	b.until(`goldenTrace.named('symbol', 'Written').figures.some(f => f.text === 'BUS')`)
}
