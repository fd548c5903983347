package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// circuit opens a new project on its empty sheet.
func circuitBench(t *testing.T, name string) (*program, *tab) {
	t.Helper()
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, name)
	b.until(`document.querySelector('.canvas')?.dataset.painted > 0`)
	time.Sleep(150 * time.Millisecond)
	return p, b
}

// named finds an object of the page's mirror by its name.
func named(kind, name string) string {
	return fmt.Sprintf(`goldenTrace.all('%s').find(o => (o.name ?? o.designator ?? o.member ?? o.title) === %q)`, kind, name)
}

func (b *tab) tool(id string) { b.t.Helper(); b.click(fmt.Sprintf("[data-tool=%s]", id)) }

func (b *tab) fill(test, value string) {
	b.t.Helper()
	b.click(fmt.Sprintf("[data-test=%s]", test))
	b.key("a", ctrl)
	b.typing(value)
	b.key(enter)
}

// clickText clicks the button with the words within what the selector names.
func (b *tab) clickText(within, words string) {
	b.t.Helper()
	find := fmt.Sprintf(`[...document.querySelectorAll('%s button')].find(x => x.innerText.trim() === %q)`, within, words)
	b.until(find)
	at := eval[[]float64](b, `(()=>{const r=`+find+`.getBoundingClientRect();return [r.x+r.width/2,r.y+r.height/2]})()`)
	b.do(chromedp.MouseClickXY(at[0], at[1]))
}

// choose takes an entry of a list of choices.
func (b *tab) choose(selector, value string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.querySelector(%q)`, selector))
	b.do(chromedp.SetValue(selector, value))
	eval[bool](b, fmt.Sprintf(`document.querySelector(%q).dispatchEvent(new Event('change'))`, selector))
}

// doubleAt clicks twice at a place of the drawing.
func (b *tab) doubleAt(x, y float64) {
	b.t.Helper()
	b.point(x, y)
	sx, sy := b.at(x, y)
	b.do(chromedp.MouseClickXY(sx, sy, chromedp.ClickCount(2)))
	time.Sleep(60 * time.Millisecond)
}

func (b *tab) onSheet(name string) {
	b.t.Helper()
	b.until(fmt.Sprintf(`document.querySelector('[data-test=here]')?.innerText === %q`, name))
	time.Sleep(250 * time.Millisecond)
}

func (b *tab) findings(kind string) int {
	b.t.Helper()
	return eval[int](b, fmt.Sprintf(`goldenTrace.openFindings.value.filter(f => f.kind === %q).length`, kind))
}

// A block is placed for a new sheet, entered by a double click, given a port, mended with one
// click, and used twice; the sheets are put in order, sized and entitled.
func TestSheetsWithinSheets(t *testing.T) {
	_, b := circuitBench(t, "Fish Ladder")
	b.tool("block")
	b.drag(100, 100, 150, 140)
	b.kept()
	b.key(escape)
	b.until(`goldenTrace.all('sheet').length === 2 && goldenTrace.all('block').length === 1`)
	b.doubleAt(125, 120)
	b.onSheet("Sheet 2")

	b.putPart("Resistor", 120, 120)
	b.tool("port")
	b.fill("port-text", "OUT")
	b.click("[data-test=port-out]")
	b.point(125, 120)
	b.kept()
	b.key(escape)
	b.until(`goldenTrace.openFindings.value.some(f => f.kind === 'portAlone' && f.text.includes('The port OUT has no pin on the block'))`)
	b.point(130, 120) // the port says so and mends it
	b.click("[data-test=mend-add]")
	b.kept()
	assert.Equal(t, []any{"OUT", "out"}, eval[[]any](b, `(()=>{const q=goldenTrace.all('block')[0].pins[0];return [q.name,q.way]})()`))
	assert.Zero(t, b.findings("portAlone"))

	b.click("[data-test=crumb]") // up again by the path in the top bar
	b.onSheet("Sheet 1")
	b.tool("block")
	b.choose("[data-test=block-of]", eval[string](b, `String(`+named("sheet", "Sheet 2")+`.id)`))
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
	b.tool("block")
	b.choose("[data-test=block-of]", eval[string](b, `String(`+named("sheet", "Sheet 1")+`.id)`))
	b.drag(60, 60, 100, 90)
	b.sees("a sheet cannot stand within itself")
	b.key(escape)

	// a new sheet, its place in the order, its size and an entry of its own
	b.click("[data-test=add-sheet]")
	b.onSheet("Sheet 3")
	b.set("sheet-name", "Drawings")
	eval[bool](b, `(()=>{const from=document.querySelector("[data-sheet='Drawings']").closest('li'),to=document.querySelector("[data-sheet='Sheet 1']").closest('li');const d=new DataTransfer();for(const [el,type] of [[from,'dragstart'],[to,'dragover'],[to,'drop'],[from,'dragend']])el.dispatchEvent(new DragEvent(type,{bubbles:true,cancelable:true,dataTransfer:d}));return true})()`)
	b.kept()
	b.until(named("sheet", "Drawings") + `.order === 1`)
	b.choose("[data-test=sheet-size]", "C")
	b.kept()
	b.until(named("sheet", "Drawings") + `.size === 'C'`)
	b.set("title-author", "All of us")
	assert.Equal(t, "All of us", eval[string](b, `goldenTrace.settings.author`))
	b.click(".entry:nth-of-type(4) .own")
	b.kept()
	b.set("title-author", "Only here")
	assert.Equal(t, "Only here", eval[string](b, named("sheet", "Drawings")+`.fields.author`))
	assert.Equal(t, "All of us", eval[string](b, `goldenTrace.settings.author`))
}

// Parts are found by many words, put into a wire, replaced, lined up, spread and numbered;
// units of a package follow one another.
func TestPlacingParts(t *testing.T) {
	_, b := circuitBench(t, "Eel Counter")
	b.key("n")
	b.until(`document.activeElement?.dataset.test === 'part-search'`)
	b.typing("8 pins so*")
	b.until(`[...document.querySelectorAll('.finder [role=option]')].length > 3 && [...document.querySelectorAll('.finder [role=option]')].every(o => o.innerText.includes('SOIC-8'))`)
	b.key(escape)
	b.key(escape)

	// dropped on a wire, the part is in it
	b.wire(50, 150, 120, 150)
	b.key(enter)
	b.key("c")
	b.point(50, 150)
	b.point(120, 150)
	b.key(enter)
	b.kept()
	b.key(escape)
	b.putPart("Resistor 0603", 85, 150)
	b.until(`goldenTrace.all('wire').length === 2`)
	assert.NotEqual(t, eval[string](b, `goldenTrace.netAtPin(goldenTrace.all('part')[0].id,'1')`), eval[string](b, `goldenTrace.netAtPin(goldenTrace.all('part')[0].id,'2')`))

	// replaced, the wires stay on it
	b.point(85, 150)
	b.click("[data-test=replace]")
	b.until(`document.activeElement?.dataset.test === 'part-search'`)
	b.typing("Capacitor 0603")
	b.until(`document.querySelector('.finder .on')?.innerText.startsWith('Capacitor 0603')`)
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.all('part')[0].library === 'Capacitor 0603' && goldenTrace.all('part')[0].designator === 'C1'`)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.netList.value.filter(n => n.uses.length && n.pins.length === 1).length`), "both wires hang on it still")

	// lined up and spread
	for i, at := range [][2]float64{{150, 100}, {170, 105}, {205, 97.5}} {
		b.putPart("Resistor 0603", at[0], at[1])
		_ = i
	}
	b.drag(140, 115, 215, 88)
	b.until(`document.querySelector('.details h3')?.innerText.includes('3 parts')`)
	click := func(text string) {
		b.clickText(".details", text)
		b.kept()
	}
	click("Row")
	b.until(`new Set(goldenTrace.all('part').filter(p=>p.designator[0]==='R').map(p=>p.at.y)).size === 1`)
	click("Across")
	xs := eval[[]float64](b, `goldenTrace.all('part').filter(p=>p.designator[0]==='R').map(p=>p.at.x/1e6).sort((a,b)=>a-b)`)
	assert.InDelta(t, xs[1]-xs[0], xs[2]-xs[1], 2.5)

	// numbered by position, shown first
	b.key(escape)
	b.key(escape)
	b.point(150, 100) // R1 goes to the far right
	b.key("k", ctrl)
	b.until(`document.activeElement?.placeholder?.startsWith('R3')`)
	b.typing("number the parts")
	b.key(enter)
	b.until(`document.querySelector('[data-test=renumber]')`)
	b.key(escape)

	// a package of units: the next click takes its next unit
	b.key("n")
	b.until(`document.activeElement?.dataset.test === 'part-search'`)
	b.typing("dual amplifier, units")
	b.until(`document.querySelector('.finder .on')?.innerText.startsWith('Dual amplifier, units')`)
	b.key(enter)
	b.until(`!document.querySelector('.finder')`)
	b.point(100, 60)
	b.kept()
	b.point(140, 60)
	b.kept()
	b.key(escape)
	assert.Equal(t, []any{"U1", 1.0, "U1", 2.0}, eval[[]any](b, `goldenTrace.all('part').filter(p=>p.unit).flatMap(p=>[p.designator,p.unit])`))
	assert.Equal(t, 1, b.findings("unitLeft"))
}

// Wires go at any angle, end in nothing and say so; a bundle is named, all its members are
// led out at once; a net is renamed everywhere; names that differ by case warn.
func TestWiresAndBundles(t *testing.T) {
	_, b := circuitBench(t, "Mill Race")
	b.key("c")
	b.click("[data-test=free-angle]")
	b.point(50, 180)
	b.point(80, 170)
	b.key(enter)
	b.kept()
	b.key(escape)
	assert.Equal(t, 1, eval[int](b, `goldenTrace.all('wire').filter(w => w.a.x !== w.b.x && w.a.y !== w.b.y).length`))
	assert.Equal(t, 2, b.findings("looseEnd"))

	b.key("u")
	b.clickText(".strip", "Right angles")
	b.point(100, 180)
	b.point(100, 120)
	b.key(enter)
	b.kept()
	b.key(escape)
	b.tool("label")
	b.fill("label-text", "D[15:0]")
	b.key("e")
	b.point(100, 120)
	b.kept()
	b.key(escape)
	b.until(`goldenTrace.views.get(goldenTrace.here.value.sheet).bundles[0]?.members?.length === 16`)
	b.tool("tap")
	b.click("[data-test=tap-all]")
	b.point(100, 175)
	b.kept()
	b.key(escape)
	assert.Equal(t, 16, eval[int](b, `goldenTrace.all('tap').length`), "sixteen taps at once")
	b.key("z", ctrl)
	b.kept()
	assert.Zero(t, eval[int](b, `goldenTrace.all('tap').length`), "one step back")
	b.key("z", ctrl, shift)
	b.kept()
	names := eval[[]string](b, `[...goldenTrace.nets.keys()].filter(n => /^D\d+$/.test(n)).sort()`)
	assert.Len(t, names, 16)

	// a bundle that names a member twice is refused with a sentence
	b.tool("label")
	b.fill("label-text", "A[3:0], A2")
	b.point(200, 60)
	b.sees("The bundle A[3:0], A2 holds A2 twice.")
	b.key(escape)

	// a net's name, changed in one place, changes wherever it stands; any letters will do
	for _, x := range []float64{150, 200} {
		b.key("c")
		b.point(x, 100)
		b.point(x+30, 100)
		b.key(enter)
		b.kept()
		b.key(escape)
		b.tool("label")
		b.fill("label-text", "SLUICE")
		b.point(x+30, 100)
		b.kept()
		b.key(escape)
	}
	b.point(165, 100)
	b.set("net-name", "SCHÜTZ ⚡ 水門")
	b.until(`goldenTrace.all('label').filter(l => l.name === 'SCHÜTZ ⚡ 水門').length === 2`)
	b.tool("label")
	b.fill("label-text", "schütz ⚡ 水門")
	b.point(80, 170)
	b.kept()
	b.key(escape)
	assert.Equal(t, 1, b.findings("caseNames"))

	// what a drag would join is said before the button is let go
	b.putPart("Resistor", 165, 60)
	b.move(165, 60)
	ax, ay := b.at(165, 60)
	bx, by := b.at(165, 100) // both pins on the wire
	b.do(chromedp.MouseEvent("mousePressed", ax, ay, chromedp.Button("left"), chromedp.ClickCount(1)))
	for i := 1; i <= 6; i++ {
		b.do(chromedp.MouseEvent("mouseMoved", ax+(bx-ax)*float64(i)/6, ay+(by-ay)*float64(i)/6, chromedp.Button("left")))
		time.Sleep(30 * time.Millisecond)
	}
	b.sees("This would join")
	b.key(escape)
	b.do(chromedp.MouseEvent("mouseReleased", bx, by, chromedp.Button("left")))
}

// Notes, timing diagrams, pictures, figures and clusters are drawn, changed and picked as
// groups; what is no picture is refused, scripts do not come along.
func TestDrawingAsDocument(t *testing.T) {
	_, b := circuitBench(t, "Heron Watch")
	b.tool("note")
	b.point(60, 180)
	b.until(`document.activeElement?.dataset.test === 'compose'`)
	b.typing("# Why\rIt must *never* flood.")
	b.click("[data-test=compose-keep]")
	b.kept()
	b.until(`goldenTrace.all('note')[0]?.text.includes('*never*')`)

	b.tool("draw")
	b.click("[data-test=draw-timing]")
	b.point(60, 120)
	b.until(`document.activeElement?.dataset.test === 'compose'`)
	b.key("a", ctrl)
	b.typing("CLK: clock 4\rCS: hgih 2")
	b.until(`document.querySelector('.composer .trouble')?.innerText.includes('"hgih" is not a state of a signal')`)
	b.key("a", ctrl)
	b.typing("CLK: clock 4\rCS: high 1, low 3")
	b.until(`!document.querySelector('.composer .trouble')`)
	b.click("[data-test=compose-keep]")
	b.kept()
	b.until(`goldenTrace.all('timing').length === 1`)

	dir := t.TempDir()
	file := func(name string, data []byte) string {
		path := filepath.Join(dir, name)
		require.NoError(t, os.WriteFile(path, data, 0o644))
		return path
	}
	var dot bytes.Buffer
	require.NoError(t, png.Encode(&dot, image.NewGray(image.Rect(0, 0, 40, 20))))
	upload := func(path string) {
		b.do(chromedp.SetUploadFiles("[data-test=picture-file]", []string{path}, chromedp.NodeReady))
	}
	upload(file("gauge.png", dot.Bytes()))
	b.until(`goldenTrace.all('picture').length === 1`)
	upload(file("letter.png", []byte("Dear river trust")))
	b.sees("The file letter.png is not a picture: only PNG, JPEG and SVG can be put on a sheet.")
	upload(file("plan.svg", []byte(`<svg xmlns="http://www.w3.org/2000/svg" width="40" height="30" onload="alert(1)"><script>alert(2)</script><rect width="40" height="30" fill="#39c"/></svg>`)))
	b.until(`goldenTrace.all('picture').length === 2`)
	id := eval[int](b, `goldenTrace.all('asset').find(a => a.type === 'svg').id`)
	_, kept := b.p.api("GET", fmt.Sprintf("/projects/%d/assets/%d", b.p.projectID("Heron Watch"), id), nil)
	assert.NotContains(t, string(kept), "alert")
	assert.Contains(t, string(kept), "<rect")

	b.tool("draw")
	b.click("[data-test=draw-arrow]")
	b.drag(150, 150, 180, 160)
	b.kept()
	b.until(`goldenTrace.all('shape')[0]?.form === 'arrow'`)
	b.key(escape)

	// a cluster takes what lies inside along, and can be picked from the list
	b.putPart("Resistor", 220, 100)
	b.tool("cluster")
	b.drag(205, 85, 240, 115)
	b.kept()
	b.until(`document.activeElement?.dataset.test === 'inline'`)
	b.key("a", ctrl)
	b.typing("Float switch")
	b.key(enter)
	b.until(named("cluster", "Float switch"))
	b.key(escape)
	b.key(escape)
	b.click(`[data-cluster="Float switch"]`)
	b.until(`document.querySelector('.details')?.innerText.includes('1 part inside')`)
	b.drag(205, 100, 205, 110)
	b.kept()
	b.until(`goldenTrace.all('part')[0].at.y === 110e6`)
}

// The table of parts: many cells at once, fill down, a pasted column, fields of one's own,
// one step back for each; a table out, changed, and in again after a look at the changes.
func TestTableOfParts(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "circuit")
	b.click("[data-view-tab=parts]")
	b.until(`document.querySelectorAll('[data-cell$=designator]').length > 20`)
	steps := func() int { return eval[int](b, `goldenTrace.history.value.steps`) }
	value := func(d string) string {
		return eval[string](b, fmt.Sprintf(`goldenTrace.all('part').find(p => p.designator === %q).value`, d))
	}
	cell := func(d, f string) string { return fmt.Sprintf(`[data-cell="%s %s"]`, d, f) }
	b.click("[data-test=table-filter]")
	b.typing("library:0603 designator:c1")
	b.until(`!document.querySelector('[data-cell="B1 value"]')`)
	before := steps()
	from, to := eval[[]float64](b, center(cell("C10", "value"))), eval[[]float64](b, center(cell("C12", "value")))
	b.do(chromedp.MouseEvent("mousePressed", from[0], from[1], chromedp.Button("left"), chromedp.ClickCount(1)))
	b.moveXY(to[0], to[1])
	b.do(chromedp.MouseEvent("mouseReleased", to[0], to[1], chromedp.Button("left"), chromedp.ClickCount(1)))
	b.key("2") // typing begins an edit of all that is picked
	b.typing("20n")
	b.key(enter)
	b.kept()
	assert.Equal(t, []string{"220n", "220n", "220n"}, []string{value("C10"), value("C11"), value("C12")})
	assert.Equal(t, before+1, steps(), "three cells, one step")

	b.click(cell("C13", "value"))
	to = eval[[]float64](b, center(cell("C15", "value")))
	b.do(chromedp.MouseClickXY(to[0], to[1], chromedp.ButtonModifiers(shift)))
	b.key("d", ctrl)
	b.kept()
	assert.Equal(t, []string{"1µ", "1µ", "1µ"}, []string{value("C13"), value("C14"), value("C15")}, "filled down")

	// a column from a spreadsheet
	b.click(cell("C16", "value"))
	eval[bool](b, `(()=>{const d=new DataTransfer();d.setData('text/plain','33p\r\n47n\r\n');document.querySelector('.grid').dispatchEvent(new ClipboardEvent('paste',{clipboardData:d,bubbles:true,cancelable:true}));return true})()`)
	b.kept()
	assert.Equal(t, []string{"33p", "47n"}, []string{value("C16"), value("C17")})

	// a field of one's own, and parts that are not fitted
	b.fill("new-field", "Maker")
	b.until(`document.querySelector('[data-column=Maker]')`)
	b.click(cell("C16", "Maker"))
	b.key("O")
	b.typing("ttermere")
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.all('part').find(p => p.designator === 'C16').fields?.Maker === 'Ottermere'`)
	b.click(cell("C16", "fitted"))
	b.key("n")
	b.typing("o")
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.all('part').find(p => p.designator === 'C16').notFitted`)

	// out, changed, and in again
	id := p.projectID("Weir Gauge")
	_, table := p.api("GET", fmt.Sprintf("/projects/%d/parts.csv", id), nil)
	assert.Contains(t, string(table), "Ottermere")
	changed := strings.Replace(string(table), "C16,33p", "C16,18p", 1) + "C999,1n\r\n"
	path := filepath.Join(t.TempDir(), "parts.csv")
	require.NoError(t, os.WriteFile(path, []byte(changed), 0o644))
	b.do(chromedp.SetUploadFiles("[data-test=csv-in]", []string{path}, chromedp.NodeReady))
	b.sees("1 cell would change")
	b.sees("there is no part called C999 in the circuit")
	assert.Equal(t, "33p", value("C16"), "nothing is taken before it was shown")
	b.click("[data-test=take-table]")
	b.kept()
	b.until(`goldenTrace.all('part').find(p => p.designator === 'C16').value === '18p'`)
	require.NoError(t, os.WriteFile(path, []byte("Wert;Ort\r\n1k;R1\r\n"), 0o644))
	b.do(chromedp.SetUploadFiles("[data-test=csv-in]", []string{path}, chromedp.NodeReady))
	b.sees("The table has no column called Designator")
}

func center(selector string) string {
	return fmt.Sprintf(`(()=>{const r=document.querySelector(%q).getBoundingClientRect();return [r.x+r.width/2,r.y+r.height/2]})()`, selector)
}

// Nets: what is asked of them, pairs by name, the highlight from sheet to sheet, and what is
// picked in the circuit is picked on the board of another window.
func TestNetsAndSharedPicking(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	parent := browser(t)
	b := p.open(t, parent, "/")
	p.openStage(t, b, "Weir Gauge", "circuit")
	b.click("[data-view-tab=nets]")
	row := func(net, field string) string { return fmt.Sprintf(`[data-net="%s"] [data-field=%s]`, net, field) }
	b.click(row("TX", "class"))
	b.typing("Bus")
	b.key(enter)
	b.click(row("TX", "current"))
	b.typing("5 mA")
	b.key(enter)
	b.kept()
	b.until(`(()=>{const s=goldenTrace.all('netSpec').find(s=>s.net==='TX');return s?.class==='Bus'&&s.current===5000})()`)
	b.click(row("TX", "voltage"))
	b.typing("many")
	b.key(enter)
	b.sees("is not a voltage; write it as 3.3 V")
	// the pairs were found by name already; parted and found again
	b.click(row("BUS_P", "partner"))
	b.key("a", ctrl)
	b.key(kbDelete)
	b.key(enter)
	b.kept()
	b.until(`!goldenTrace.all('netSpec').some(s => s.net === 'BUS_N' && s.partner)`)
	b.click("[data-test=find-pairs]")
	b.sees("1 pair by name")
	b.click("[data-test=take-pairs]")
	b.kept()
	b.until(`goldenTrace.all('netSpec').find(s => s.net === 'BUS_N')?.partner === 'BUS_P'`)

	// the light stays on from sheet to sheet
	b.do(chromedp.Click(`[data-net="+3V3"] .plain`, chromedp.NodeVisible))
	b.until(`goldenTrace.lit.value === '+3V3'`)
	b.click("[data-sheet='Field bus']")
	b.onSheet("Field bus")
	assert.Equal(t, "+3V3", eval[string](b, `goldenTrace.lit.value`))

	// two windows of one project
	p.openStage(t, b, "Moth Lamp", "circuit")
	b.until(`document.querySelector('.canvas')?.dataset.painted > 0`)
	c := p.open(t, parent, "/")
	p.openStage(t, c, "Moth Lamp", "board")
	time.Sleep(300 * time.Millisecond)
	b.point(137.5, 92.5) // Q1
	c.until(`document.querySelector('.details')?.innerText.includes('Q1')&&[...document.querySelectorAll('.details input')].length > 2`)
	c.pickPart("R4")
	b.until(`document.querySelector('[data-test=designator]')?.value === 'R4'`)
}

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
	b.choose("[data-kind=openPin]", "off")
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

// Words are found and replaced in values, names and notes; the sheets are printed.
func TestFindReplaceAndPrint(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "circuit")
	b.until(`document.querySelector('.canvas')?.dataset.painted > 0`)
	b.key("f", ctrl)
	b.until(`document.activeElement?.dataset.test === 'find-text'`)
	b.typing("BV36S")
	b.until(`document.querySelectorAll('.find .hit').length === 3`)
	b.click("[data-test=find-with]")
	b.typing("BV40S")
	b.click("[data-test=replace-all]")
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
	b.until(`document.querySelector('.hit.on')?.innerText.includes('note in the circuit')`)
	b.key(enter)
	b.onSheet("Field bus")
	b.until(`document.querySelector('.details h3')?.innerText === 'Note'`)

	id := p.projectID("Weir Gauge")
	code, pdf := p.api("GET", fmt.Sprintf("/projects/%d/circuit.pdf", id), nil)
	require.Equal(t, 200, code)
	assert.True(t, bytes.HasPrefix(pdf, []byte("%PDF-")))
	code, svg := p.api("GET", fmt.Sprintf("/projects/%d/sheet.svg?sheet=%d&path=", id, eval[int](b, `goldenTrace.places.value[0].sheet`)), nil)
	require.Equal(t, 200, code)
	assert.Contains(t, string(svg), "Weir Gauge")
}
