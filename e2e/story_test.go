package e2e

import (
	"fmt"
	"github.com/chromedp/chromedp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/fab/handoff"
	"goldentrace/core/fab/reread"
)

// newProject makes an empty project with pointer and keys and waits for its sheet.
func newProject(t testing.TB, p *program, b *tab, name string) {
	t.Helper()
	b.press("New project")
	b.atField("Name of the project")
	b.typing(name)
	b.key(enter)
	b.until(`window.goldenTrace?.state.value === 'open' && document.querySelector('[role=application]')?.dataset.view`)
	b.sees(name)
}

// putPart finds a part in the library by typing and puts it at a place.
func (b *tab) putPart(query string, x, y float64) {
	b.t.Helper()
	b.key("n")
	b.atField("Find a part")
	b.typing(query)
	b.until(fmt.Sprintf(`document.querySelector('[aria-label=Parts] [aria-selected=true]')?.innerText.toLowerCase().startsWith(%q)`, strings.ToLower(query)))
	b.key(enter)
	b.gone("dialog", "Place a part")
	b.point(x, y)
	b.kept()
	b.key(escape)
}

// wire draws a wire through places, pair by pair; the last one ends it.
func (b *tab) wire(mm ...float64) {
	b.t.Helper()
	b.key("c")
	for i := 0; i+1 < len(mm); i += 2 {
		b.point(mm[i], mm[i+1])
	}
	b.kept()
	b.key(escape)
}

// set types a value into a field.
func (b *tab) set(label, value string) {
	b.t.Helper()
	b.fill(label, value)
	b.kept()
}

// onBoard gives a part its exact place through the details.
func (b *tab) onBoard(designator, x, y, angle string) {
	b.t.Helper()
	b.pickPart(designator)
	b.set("x, mm", x)
	b.set("y, mm", y)
	if angle != "0" {
		b.set("Angle", angle)
	}
}

func (b *tab) pickPart(designator string) {
	b.t.Helper()
	b.there("tab", "Parts*")
	row := fmt.Sprintf(`[...document.querySelectorAll('[aria-label=Details] [role=option]')].find(l => l.innerText.split('\n')[0] === %q)`, designator)
	b.until(row)
	eval[bool](b, `(`+row+`.scrollIntoView({block:'nearest'}), true)`)
	at := eval[[]float64](b, `(()=>{const r=`+row+`.getBoundingClientRect();return [r.x+30,r.y+r.height/2]})()`)
	b.do(chromedp.MouseClickXY(at[0], at[1]))
}

// focus gives the keys back to the canvas without picking anything: Esc twice lets go.
func (b *tab) focus() {
	b.t.Helper()
	b.press("Select")
	b.key(escape)
	b.key(escape)
}

func (b *tab) openLinks(want string) {
	b.t.Helper()
	b.there("status", want+"*")
}

// traced reads the last handoff's zip with the independent reader and follows its copper.
func traced(t *testing.T, p *program, id int64) []reread.Island {
	t.Helper()
	return tracedOf(t, p, id, 2)
}

// tracedOf does so for a board of so many copper layers.
func tracedOf(t *testing.T, p *program, id int64, layers int) []reread.Island {
	t.Helper()
	code, archive := p.api("GET", fmt.Sprintf("/projects/%d/handoff.zip", id), nil)
	require.Equal(t, 200, code)
	files, err := handoff.Unzip(archive)
	require.NoError(t, err)
	var copper []*reread.Artwork
	var drills []*reread.Drilling
	for _, f := range files {
		switch {
		case strings.Contains(f.Name, "-copper-"):
			art, err := reread.Gerber(f.Data)
			require.NoError(t, err, f.Name)
			copper = append(copper, art)
		case strings.HasSuffix(f.Name, ".xnc") && !strings.HasSuffix(f.Name, "-unplated.xnc"):
			d, err := reread.Drill(f.Data)
			require.NoError(t, err, f.Name)
			require.True(t, d.Plated)
			drills = append(drills, d)
		}
	}
	require.Len(t, copper, layers)
	islands, err := reread.Trace(copper, drills)
	require.NoError(t, err)
	return islands
}

func pinsOf(islands []reread.Island) [][]string {
	var out [][]string
	for _, is := range islands {
		out = append(out, is.Pins)
	}
	return out
}

// lightRow draws a terminal, a switch, a resistor and a LED in a row, and the wires from one to the next.
func (b *tab) lightRow() {
	b.t.Helper()
	b.putPart("Terminal 2", 60, 120)
	b.putPart("Switch", 90, 122.5)
	b.putPart("Resistor", 120, 122.5)
	b.putPart("LED", 150, 122.5)
	b.wire(65, 122.5, 85, 122.5)
	b.wire(95, 122.5, 115, 122.5)
	b.wire(125, 122.5, 145, 122.5)
}

// The whole job by hand: from an empty sheet to a zip whose copper joins exactly what the
// circuit joins.
func TestFromEmptySheetToZip(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, "Gate Light")
	b.lightRow()
	b.wire(155, 122.5, 155, 105, 65, 105, 65, 117.5)
	require.Equal(t, 4, eval[int](b, `goldenTrace.netList.value.length`), "nets of the circuit")
	b.key("t")
	b.typing("RETURN")
	b.key(enter)
	b.point(110, 105)
	b.kept()
	b.key(escape)
	require.True(t, eval[bool](b, `goldenTrace.nets.has('RETURN')`))
	b.there("link", "Circuit: done and current")

	b.stage("Board")
	b.press("Carry to board")
	b.sees("New")
	b.click(b.found(`[...document.querySelectorAll('button')].find(x => /^Carry \d+ change/.test(x.textContent))`))
	b.until(`goldenTrace.all('placed').length === 4`)
	b.openLinks("4 open links")

	b.key("y")
	b.set("Options > Width, mm", "40")
	b.set("Options > Height, mm", "60/2")
	require.Equal(t, 4, eval[int](b, `goldenTrace.board.outline.length`))

	b.focus()
	b.onBoard("J1", "8", "15", "270")
	b.onBoard("S1", "20", "24", "0")
	b.onBoard("R1", "31", "24", "0")
	b.focus()
	b.key("f")
	// the last one by the hand, from where it arrived to the board
	from := eval[[]float64](b, `(()=>{const d=goldenTrace.all('placed').find(p=>p.designator==='D1');return [d.at.x/1e6,d.at.y/1e6]})()`)
	b.drag(from[0], from[1], from[0]-10, from[1])
	b.kept()
	moved := eval[[]float64](b, `(()=>{const d=goldenTrace.all('placed').find(p=>p.designator==='D1');return [d.at.x/1e6,d.at.y/1e6]})()`)
	assert.InDelta(t, from[0]-10, moved[0], 0.7, "dragged")
	b.onBoard("D1", "30", "10", "0")
	b.focus()
	b.key("f")

	track := func(mm ...float64) {
		t.Helper()
		b.key("t")
		b.draws(mm...)
		b.key(escape)
	}
	track(8, 17.54, 17.46, 24)
	b.openLinks("3 open links")
	track(22.54, 24, 25.92, 24)
	track(36.08, 24, 28.73, 10)
	// with a hop to the bottom on the way
	b.key("t")
	b.point(31.27, 10)
	b.there("status", "Net: RETURN")
	b.move(31.27, 5)
	b.key(" ")
	b.until(seen("button", "Bottom") + `.getAttribute('aria-pressed') === 'true'`)
	b.point(8, 12.46)
	b.gone("status", "Net: *")
	b.kept()
	b.openLinks("all links joined")
	require.Equal(t, 1, eval[int](b, `goldenTrace.all('via').length`))
	require.True(t, eval[bool](b, `goldenTrace.all('track').some(t => t.layer === goldenTrace.board.stack.findLast(l => l.kind === 'copper').id)`))

	b.stage("Checks")
	b.sees("No findings. All rules are kept.")

	b.stage("Handoff")
	b.press("Make the files")
	b.sees("Current · made")
	b.there("link", "Handoff: done and current")

	islands := traced(t, p, p.projectID("Gate Light"))
	assert.Equal(t, [][]string{{"D1.1", "R1.2"}, {"D1.2", "J1.2"}, {"J1.1", "S1.1"}, {"R1.1", "S1.2"}}, pinsOf(islands), "no short, no open")
	for _, is := range islands {
		assert.Len(t, is.Nets, 1, "one net on one piece of copper: %v", is)
	}
}

// A track taken away is seen as a finding, and in the copper of the files.
func TestSpoiledTrackIsSeen(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	id := p.projectID("Moth Lamp")
	b := p.open(t, browser(t), fmt.Sprintf("/project/%d/board", id))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	b.openLinks("all links joined")
	b.press("Bottom")
	b.point(36.5, 26.67) // base of Q2, beside R3
	b.sees("Length")
	b.key(kbDelete)
	b.kept()
	b.openLinks("1 open link")
	b.stage("Checks")
	b.sees("C1.2 is open between")

	b.stage("Handoff")
	b.press("Make the files")
	b.sees("1 net is not joined")
	b.sees("1 link is open.")
	b.press("Make the files all the same")
	b.sees("Current · made")
	var pieces [][]string
	for _, is := range traced(t, p, id) {
		if slices.Contains(is.Nets, "C1.2") {
			pieces = append(pieces, is.Pins)
		}
	}
	assert.Equal(t, [][]string{{"C1.2", "R2.2"}, {"Q2.2"}}, pieces, "the net falls apart in the files")

	// undone, the files are out of date no more than the design differs from them
	b.key("z", ctrl)
	b.kept()
	b.sees("Out of date")
	b.stage("Checks")
	b.sees("No findings. All rules are kept.")
}
