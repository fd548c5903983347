package e2e

import (
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func (p *program) openStage(t *testing.T, b *tab, name, stage string) {
	t.Helper()
	b.goTo(fmt.Sprintf("/project/%d/%s", p.projectID(name), stage))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	if stage == "circuit" || stage == "board" {
		b.until(`document.querySelector('[role=application]')?.dataset.view`)
		b.still()
	}
}

// still waits until the drawing has been framed: where its places stand no longer changes.
func (b *tab) still() {
	b.t.Helper()
	for last, same := "", 0; same < 4; {
		view := eval[string](b, `document.querySelector('[role=application]').dataset.view`)
		if same++; view != last {
			last, same = view, 0
		}
		time.Sleep(60 * time.Millisecond)
	}
}

// Two tabs on one project see each other's edits; undo and redo reach across reloads.
func TestTwoTabsAndUndoAcrossReloads(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	parent := browser(t)
	a := p.open(t, parent, "/")
	p.openStage(t, a, "Moth Lamp", "circuit")
	b := p.open(t, parent, "/")
	p.openStage(t, b, "Moth Lamp", "board")

	a.point(135, 137.5) // R1
	a.set("Value", "2k2")
	b.until(`goldenTrace.all('part').some(p => p.value === '2k2')`)
	b.there("button", "1 difference to the circuit*")
	b.there("link", "Board: the circuit changed since it was carried over*")

	a.do(chromedp.Reload())
	a.until(`window.goldenTrace?.state.value === 'open' && document.querySelector('[role=application]')?.dataset.view`)
	a.focus()
	a.key("z", ctrl)
	a.kept()
	b.until(`!goldenTrace.all('part').some(p => p.value === '2k2')`)
	b.gone("button", "1 difference*")
	a.key("Z", ctrl, shift)
	b.until(`goldenTrace.all('part').some(p => p.value === '2k2')`)
}

// A lost connection says so; edits wait, visibly not kept, and are done when it is back.
func TestLostConnectionComesBack(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.calm = true // the browser logs the broken connection itself
	p.openStage(t, b, "Moth Lamp", "circuit")
	before := b.revision()
	addr := p.url[len("http://"):]
	p.kill()
	b.sees("The connection to the program is lost")
	b.point(135, 137.5)
	b.key("q")
	b.sees("One edit is on the way and not kept yet")
	b.sees("not connected, not kept yet")
	p.run("serve", addr)
	b.until(`goldenTrace.state.value === 'open'`)
	b.kept()
	assert.Equal(t, before+1, b.revision(), "the edit was sent when the program was back, once")
	b.key("q")
	b.kept()
	assert.Equal(t, before+2, b.revision())
}

// Projects are made, renamed, duplicated, deleted and brought back, exported and imported.
func TestProjectList(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	b.sees("Begin with an empty sheet")
	newProject(t, p, b, "Fish Pass")
	b.goTo("/")
	b.project("Fish Pass", "Rename")
	b.atField("Name of the project")
	time.Sleep(80 * time.Millisecond)
	b.key("a", ctrl)
	b.typing("Eel Pass")
	b.key(enter)
	b.gone("dialog", "*")
	b.sees("Eel Pass")
	time.Sleep(300 * time.Millisecond) // the dialog fades
	b.project("Eel Pass", "Duplicate")
	b.sees("Eel Pass copy")
	b.press("New project")
	b.atField("Name of the project")
	b.typing("EEL PASS")
	b.key(enter)
	b.sees("There is already a project with this name")
	b.key(escape)
	b.gone("dialog", "*")
	time.Sleep(300 * time.Millisecond)
	b.project("Eel Pass copy", "Delete")
	b.sees("Eel Pass copy was deleted.")
	b.gone("article", "Eel Pass copy")
	b.press("Bring back")
	b.there("article", "Eel Pass copy")

	_, file := p.api("GET", fmt.Sprintf("/projects/%d/export", p.projectID("Eel Pass")), nil)
	name := t.TempDir() + "/eel.goldentrace"
	require.NoError(t, os.WriteFile(name, file, 0o644))
	b.upload("Project file", name)
	b.sees("Eel Pass (2)")
	require.NoError(t, os.WriteFile(name, []byte("nonsense"), 0o644))
	b.upload("Project file", name)
	b.sees("This is not a Golden Trace project file")
}

// Parts are moved with their wires, turned, mirrored, copied, pasted and edited in place.
func TestEditingTheCircuit(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "circuit")
	nets := `JSON.stringify([...goldenTrace.nets.values()].map(n => n.pins.map(p => p.part + '.' + p.pin).sort().join()).sort())`
	before := eval[string](b, nets)
	right := `goldenTrace.all('wire').every(w => w.a.x === w.b.x || w.a.y === w.b.y)`

	b.drag(135, 137.5, 145, 140) // R1 aside: its wires follow
	b.kept()
	r1 := `goldenTrace.all('part').find(p => p.designator === 'R1')`
	assert.Equal(t, []float64{145, 140}, eval[[]float64](b, `(()=>{const r=`+r1+`;return [r.at.x/1e6,r.at.y/1e6]})()`))
	assert.Equal(t, before, eval[string](b, nets), "the nets are as they were")
	assert.True(t, eval[bool](b, right), "all wires at right angles")
	b.key("m")
	b.kept()
	assert.True(t, eval[bool](b, r1+`.mirror`))
	assert.Equal(t, before, eval[string](b, nets))
	b.key("z", ctrl)
	b.kept()
	b.key("z", ctrl)
	b.kept()

	// a picked part's value goes where it is dragged, the part stays
	b.drag(138, 135.6, 148, 128)
	b.kept()
	assert.True(t, eval[bool](b, r1+`.valueAt?.x > 8e6 && `+r1+`.at.x === 135e6`))
	b.key("z", ctrl)
	b.kept()

	// the value in place
	b.key("v")
	b.atField("Edit the value")
	b.key("a", ctrl)
	b.typing("1k5")
	b.key(enter)
	b.until(r1 + `.value === '1k5'`)
	// a designator that is taken is refused with a sentence
	b.point(135, 137.5)
	b.key("r")
	b.atField("Edit the designator")
	b.key("a", ctrl)
	b.typing("R2")
	b.key(enter)
	b.sees("There is already a part called R2")
	b.atField("Edit the designator") // what was typed is not lost
	assert.Equal(t, "R2", b.value("Edit the designator"))
	b.key(escape)
	b.gone("textbox", "Edit the designator")

	// copy and paste with designators of their own; delete; undo
	b.focus()
	b.drag(100, 160, 150, 120) // what lies inside the box
	n := eval[int](b, `goldenTrace.all('part').length`)
	b.key("c", ctrl)
	b.move(220, 60)
	b.key("v", ctrl)
	b.says("Options", "in the hand")
	b.key("q") // the copies turn in the hand
	b.point(220, 60)
	b.kept()
	b.until(fmt.Sprintf(`goldenTrace.all('part').length > %d`, n))
	assert.True(t, eval[bool](b, `new Set(goldenTrace.all('part').map(p => p.designator)).size === goldenTrace.all('part').length`), "no designator twice")
	b.key(kbDelete)
	b.kept()
	assert.Equal(t, n, eval[int](b, `goldenTrace.all('part').length`))
	b.key("z", ctrl)
	b.kept()
	assert.Less(t, n, eval[int](b, `goldenTrace.all('part').length`))

	// the net under the cursor, and what is found by the command field
	b.focus()
	b.move(135, 150)
	b.key("h")
	b.key("k", ctrl)
	b.until(`document.activeElement?.getAttribute('aria-label') === 'Find a part, net, text or command'`)
	b.typing("UV")
	b.until(`document.querySelector('[role=option][aria-selected=true]')?.innerText.includes('D1')`)
	b.key(enter)
	b.until(`document.querySelector('input[aria-label=Designator]')?.value === 'D1'`)
}

// Parts are turned, flipped and locked on the board; a track stops before foreign copper.
func TestEditingTheBoard(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "board")
	c3 := `goldenTrace.all('placed').find(p => p.designator === 'C3')`
	b.point(13.97, 21.59)
	b.key("m")
	b.kept()
	assert.True(t, eval[bool](b, c3+`.bottom`))
	b.key("z", ctrl)
	b.kept()
	b.key("l")
	b.kept()
	b.key(keyRight)
	time.Sleep(100 * time.Millisecond)
	assert.EqualValues(t, 13_970_000, eval[int](b, c3+`.at.x`), "locked")
	b.key("l")
	b.kept()
	b.key(keyRight)
	b.kept()
	assert.EqualValues(t, 13_970_000+635_000, eval[int](b, c3+`.at.x`))
	b.key("z", ctrl)
	b.kept()

	// from the battery's pad on the bottom straight at a foreign track: it stops before it
	b.press("Bottom")
	b.key("t")
	b.point(6.35, 22.86)
	b.there("status", "Net: BATTERY")
	b.move(24, 22.86)
	b.sees("Stopped before")
	b.key(escape)
	b.key(escape)
	assert.Zero(t, eval[int](b, `[...goldenTrace.findings.values()].filter(f => f.kind === 'clearance').length`))

	// measuring from middle to middle
	b.key("d")
	b.point(20.32, 33.655)
	b.move(20.32, 23.495)
	b.sees("10.160") // the pitch of a resistor's leads
	b.key(escape)

	// an outline that is no number is refused where it was typed
	b.key("y")
	b.click(field("Options > Width, mm"))
	b.key("a", ctrl)
	b.typing("wide")
	b.key(enter)
	b.sees("is not a length")
	assert.Equal(t, 4, eval[int](b, `goldenTrace.board.outline.length`))

	// what the command field finds on several stages is shown on the one that one is in
	b.key(escape)
	b.key("k", ctrl)
	b.atField("Find a part, net, text or command")
	b.typing("C3")
	b.until(`document.querySelector('[aria-label=Found] [aria-selected=true]')?.innerText.includes('part on the board')`)
	b.key(enter)
	b.until(`document.querySelector('[aria-label=Details] h3')?.innerText.includes('C3')`)
	assert.Contains(t, eval[string](b, `location.pathname`), "/board")
}

// Every file of a handoff can be looked at, drawn from the file itself.
func TestEveryFileCanBeLookedAt(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "handoff")
	b.press("Make the files")
	b.until(`document.querySelectorAll('[role=grid][aria-label=Files] [role=row]').length === 16`)
	names := eval[[]string](b, `[...document.querySelectorAll('[role=grid][aria-label=Files] [role=row]')].slice(1).map(r => [...r.querySelectorAll('[role=gridcell]')].pop().textContent.trim())`)
	file := func(has string) string {
		for _, n := range names {
			if strings.Contains(n, has) {
				return b.cell(n, "Name")
			}
		}
		t.Fatalf("no file %s among %v", has, names)
		return ""
	}
	for has, says := range map[string]string{"placement": "22.225", "parts": "Polarised capacitor", "netlist": "26 test points", "job": "FilesAttributes"} {
		b.click(file(has))
		b.sees(says)
	}
	lit := `(()=>{const c=document.querySelector('canvas[role=img]');const d=c.getContext('2d').getImageData(0,0,c.width,c.height).data;let n=0;for(let i=0;i<d.length;i+=4)if(d[i]+d[i+1]+d[i+2]>150)n++;return n})()`
	for _, n := range names {
		if !strings.HasSuffix(n, ".gbr") && !strings.HasSuffix(n, ".xnc") || strings.Contains(n, "paste") || strings.Contains(n, "silk-bottom") { // with nothing to be seen
			continue
		}
		b.click(b.cell(n, "Name"))
		b.until(`document.querySelector('canvas[role=img]')`)
		b.until(lit + ` > 500`)
	}
	b.click(file("copper-2"))
	b.sees("Copper,L2,Bot")
	b.click(file("paste-top"))
	b.sees("0 marks")
	b.until(lit + ` === 0`)
}

// The layer ladder picks, hides and shows alone; the keys of a stage are listed on ?.
func TestLayerLadderAndKeys(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "board")
	green := `(()=>{const c=document.querySelector('[role=application] canvas');const d=c.getContext('2d').getImageData(0,0,c.width,c.height).data;let n=0;for(let i=0;i<d.length;i+=4)if(d[i+1]>150&&d[i]<90)n++;return n})()`
	b.press("Bottom")
	b.until(green + ` > 2000`)
	b.click(`[aria-label="Hide Bottom"]`)
	b.until(green + ` === 0`)
	b.click(`[aria-label="Show Bottom"]`)
	b.until(green + ` > 2000`)
	b.key("1")
	b.until(seen("button", "Top") + `.getAttribute('aria-pressed') === 'true'`)
	b.until(green + ` < 200`) // the other layer is dim
	b.key("?")
	b.sees("Hop to the other outer copper layer")
	b.key(escape)
	b.gone("dialog", "*")
}
