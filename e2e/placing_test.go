package e2e

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/synthetic"
)

// light is a project with a terminal, a switch, a resistor and a LED in a row on a board of 60 × 40 mm.
func light(t *testing.T) *tab {
	t.Helper()
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, "Placed Light")
	for i, part := range []string{"Terminal 2", "Switch", "Resistor", "LED"} {
		b.putPart(part, float64(60+30*i), 122.5)
	}
	b.wire(95, 122.5, 115, 122.5)
	b.wire(125, 122.5, 145, 122.5)
	b.stage("Board")
	b.until(`!!document.querySelector('[role=application][aria-label^=Board]')?.dataset.view`)
	b.press("Begin the board")
	b.fill("Width, mm", "60")
	b.fill("Height, mm", "40")
	b.click(b.found(`[...document.querySelectorAll('[role=dialog] button')].find(x => x.textContent.trim() === 'Begin the board')`))
	b.until(`goldenTrace.all('placed').length === 4`)
	b.focus()
	b.onBoard("J1", "8", "20", "0")
	b.onBoard("S1", "22", "24", "0")
	b.onBoard("R1", "34", "12", "0")
	b.onBoard("D1", "50", "30", "0")
	b.focus()
	b.key("f")
	return b
}

func placeOf(b *tab, designator string) []float64 {
	return eval[map[string][]float64](b, placedAt)[designator]
}

// Parts are lined up, change places, keep to lines of others under the hand, tell where they are to stand and whether they do; their designators are put in
// order and moved; every act is one undo.
func TestPlacingOnTheBoard(t *testing.T) {
	b := light(t)
	b.pickPart("S1")
	b.focus()
	b.key("a", ctrl)
	b.sees("4 things picked")
	b.glimpse("several-parts")
	b.press("Middles beside each other")
	b.until(`new Set(goldenTrace.all('placed').map(p => p.at.y)).size < 4`)
	b.kept()
	b.key("z", ctrl)
	b.until(`goldenTrace.all('placed').find(p => p.designator === 'R1').at.y === 12e6`)

	// under the hand a part keeps to the middle of another: R1 dragged near to the height of S1
	b.key(escape)
	b.key("f")
	b.drag(34, 12, 40, 23.7)
	b.kept()
	yard := `(d => { const p = goldenTrace.all('placed').find(x => x.designator === d); const f = goldenTrace.named('footprint', p.footprint); const ys = f.courtyard.map(q => q.y); return p.at.y + (Math.min(...ys) + Math.max(...ys)) / 2 })`
	assert.InDelta(t, eval[float64](b, yard+`('S1')`), eval[float64](b, yard+`('R1')`), 1)

	// notes: near a pad of another part, at the edge
	b.pickPart("D1")
	b.press("Add a note")
	b.fill("Near", "R1.2")
	b.fill("Within, mm", "5")
	b.press("Add the note")
	b.sees("within 5 mm of R1.2")
	b.until(`[...goldenTrace.findings.values()].some(f => f.kind === 'placing')`)
	b.press("Add a note")
	b.press("At the edge")
	b.fill("Within, mm", "12")
	b.press("Add the note")
	b.sees("at the edge, within 12 mm")
	b.press("Add a note")
	b.fill("Near", "U77")
	b.press("Add the note")
	b.sees("There is no U77 on the board")
	b.press("Cancel")
	b.glimpse("place-notes")
	b.set("x, mm", "51")
	b.set("y, mm", "24")
	b.until(`![...goldenTrace.findings.values()].some(f => f.kind === 'placing' && f.text.includes('R1.2'))`)

	// two change places
	b.focus()
	b.key(escape)
	b.key("f")
	s1, d1 := placeOf(b, "S1"), placeOf(b, "D1")
	b.point(s1[0], s1[1])
	b.point(d1[0]+1, d1[1], chromedp.ButtonModifiers(shift))
	b.sees("2 things picked")
	b.press("Change places")
	b.until(`goldenTrace.all('placed').find(p => p.designator === 'S1').at.x === 51e6`)
	assert.Equal(t, s1, placeOf(b, "D1"))
	b.key("z", ctrl)
	b.until(`goldenTrace.all('placed').find(p => p.designator === 'D1').at.x === 51e6`)

	// designators in order, then one moved by itself
	b.key("a", ctrl)
	b.press("Designators in order")
	b.until(`goldenTrace.all('placed').every(p => p.label)`)
	b.key(escape)
	b.key("f")
	b.glimpse("labels")
	b.point(s1[0], s1[1])
	at := eval[[]float64](b, `(()=>{const p=goldenTrace.all('placed').find(x=>x.designator==='S1');return [(p.at.x+p.label.x)/1e6,(p.at.y+p.label.y)/1e6]})()`)
	b.drag(at[0], at[1], at[0]+6, at[1]+3)
	b.kept()
	moved := eval[[]float64](b, `(()=>{const p=goldenTrace.all('placed').find(x=>x.designator==='S1');return [(p.at.x+p.label.x)/1e6,(p.at.y+p.label.y)/1e6]})()`)
	assert.InDelta(t, at[0]+6, moved[0], 0.3)
	assert.InDelta(t, at[1]+3, moved[1], 0.3)
	assert.Equal(t, s1, placeOf(b, "S1"), "the part stayed")
}

// Twenty parts that stand beside a board are placed one after the other: the next one hangs at the hand, the most connected first.
func TestPlaceNext(t *testing.T) {
	d, err := synthetic.Design(24)
	require.NoError(t, err)
	for p := range d.Placed.All() {
		d.Remove(design.KindPlaced, p.ID)
	}
	for x := range d.Tracks.All() {
		d.Remove(design.KindTrack, x.ID)
	}
	for v := range d.Vias.All() {
		d.Remove(design.KindVia, v.ID)
	}
	board := *d.Board
	board.Outline, board.CutOuts = nil, nil
	d.Put(&board)
	var file bytes.Buffer
	require.NoError(t, design.WriteFile(&file, "Sluice Row", d))
	p := start(t, "serve", t.TempDir())
	code, body := p.api("POST", "/import", &file)
	require.Equal(t, 201, code, string(body))
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Sluice Row", "board")
	b.press("Begin the board")
	b.fill("Width, mm", "120")
	b.fill("Height, mm", "90")
	b.click(b.found(`[...document.querySelectorAll('[role=dialog] button')].find(x => x.textContent.trim() === 'Begin the board')`))
	b.until(`goldenTrace.all('placed').length >= 20`)
	all := eval[int](b, `goldenTrace.all('placed').length`)
	b.focus()
	b.key("p")
	b.sees("to place")
	waiting := `Number((document.body.innerText.match(/(\d+) to place/)??[])[1]??0)`
	b.until(waiting + ` === ` + fmt.Sprint(all))
	on := `goldenTrace.all('placed').filter(p => p.at.x > 0 && p.at.x < 120e6 && p.at.y > 0 && p.at.y < 90e6).length`
	for i := range 20 {
		x, y := float64(12+i%5*22), float64(12+i/5*20)
		b.move(x, y)
		if i == 3 {
			b.key("q")
			b.glimpse("place-next")
		}
		b.point(x, y)
		b.until(fmt.Sprintf(`%s === %d`, on, i+1))
		if i+1 < all {
			b.until(waiting + ` === ` + fmt.Sprint(all-i-1))
		}
	}
	assert.Equal(t, 1, eval[int](b, `goldenTrace.all('placed').filter(p => p.angle === 90000).length`), "the one that was turned in the hand")
	b.key(escape)
	b.key("z", ctrl)
	b.until(on + ` === 19`)
}
