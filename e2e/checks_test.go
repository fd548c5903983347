package e2e

import (
	"fmt"
	"io"
	"net/http"
	"testing"

	"github.com/chromedp/chromedp/kb"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Texts printed over pads are found, walked to by a key, mended by taking one away, and the rest excused all alike; taken back, they are found
// again. The report tells of them.
func TestSilkOnPadsIsWalkedTo(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	id := p.projectID("Moth Lamp")
	b.goTo(fmt.Sprintf("/project/%d/board", id))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	require.Zero(t, b.findings("silkOn"))
	for _, part := range []string{"R1", "R2", "Q1"} {
		eval[bool](b, fmt.Sprintf(`(()=>{const g=goldenTrace,o=g.all('placed').find(p=>p.designator==='%s'),f=g.named('footprint',o.footprint).pads[0];
			const s=Math.sin(o.angle*Math.PI/180000),c=Math.cos(o.angle*Math.PI/180000);
			const at={x:Math.round(o.at.x+f.at.x*c-f.at.y*s),y:Math.round(o.at.y+f.at.x*s+f.at.y*c)};
			void g.edit('addLegend',{at,angle:90000,height:1500000,text:'%s PIN'});return true})()`, part, part))
		b.kept()
	}
	b.until(`new Set(goldenTrace.openFindings.value.filter(f=>f.kind==='silkOn').map(f=>f.objects[0])).size===3`)
	n := b.findings("silkOn")

	b.goTo(fmt.Sprintf("/project/%d/checks", id))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	b.sees("Silk keeps off openings")
	b.click(b.found(`[...document.querySelectorAll('nav[aria-label="Groups of findings"] .v-list-item')].find(i=>i.innerText.startsWith('Silk keeps off openings'))`))
	b.until(fmt.Sprintf(`document.querySelectorAll('[role=grid] [data-r]').length===%d`, n))
	b.look("the checks in groups")
	b.key(".")
	b.until(`location.pathname.endsWith('/board')`)
	b.atRest()
	first := eval[int](b, `goldenTrace.findings.get(new URLSearchParams(location.search).get('finding')).objects[0]`)
	b.look("a text on a pad")
	b.key(".")
	b.key(",")
	b.until(fmt.Sprintf(`goldenTrace.findings.get(new URLSearchParams(location.search).get('finding')).objects[0]===%d`, first))
	b.atRest()
	// what is picked is the text and the part whose pad it lies on: the text alone goes
	b.key(escape)
	b.key(escape)
	at := eval[[]float64](b, fmt.Sprintf(`(()=>{const l=goldenTrace.get('legend',%d);return [l.at.x/1e6,l.at.y/1e6]})()`, first))
	b.point(at[0]-0.7, at[1]+2.6)
	b.sees("Line width")
	b.key(kb.Delete)
	b.kept()
	b.until(fmt.Sprintf(`!goldenTrace.openFindings.value.some(f=>f.kind==='silkOn'&&f.objects[0]===%d)`, first))
	left := b.findings("silkOn")
	require.Positive(t, left)

	b.goTo(fmt.Sprintf("/project/%d/checks", id))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	b.click(b.cell("Warning", "What"))
	b.fill("Excused because", "Only while the lamp is tried.")
	b.kept()
	b.press(fmt.Sprintf("Excuse the other %d of its kind so", left-1))
	b.kept()
	assert.Zero(t, b.findings("silkOn"))
	resp, err := http.Get(p.url + fmt.Sprintf("/api/projects/%d/findings.html", id))
	require.NoError(t, err)
	page, err := io.ReadAll(resp.Body)
	require.NoError(t, err)
	_ = resp.Body.Close()
	assert.Contains(t, string(page), fmt.Sprintf("Excused (%d)", left))
	assert.Contains(t, string(page), "Only while the lamp is tried.")
	b.key("z", ctrl)
	b.kept()
	b.until(fmt.Sprintf(`goldenTrace.openFindings.value.filter(f=>f.kind==='silkOn').length===%d`, left-1))
}

// A board that a house makes in its cheapest class but for one thing: what it would take is said, the rules of that class are taken after what
// they change was seen, the fault that this shows is mended, and the board is in the cheaper class.
func TestABoardMovesIntoACheaperClass(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	id := p.projectID("Moth Lamp")
	b.goTo(fmt.Sprintf("/project/%d/checks", id))
	b.until(`window.goldenTrace?.state.value === 'open'`)
	b.show("Houses")
	b.sees("Northgate Boards, ")
	b.look("the houses")
	first := b.text(".shown h3")
	// a text of silk that is too thin for the plain class
	eval[bool](b, `void goldenTrace.edit('addFigure',{lines:[[{x:20000000,y:20000000},{x:24000000,y:20000000}]],width:130000}),true`)
	b.kept()
	b.until(`[...document.querySelectorAll('nav[aria-label="Houses and their classes"] .v-list-item')].some(i=>i.innerText.includes('Standard')&&i.innerText.includes('the cheapest here'))`)
	b.sees("To be Plain at")
	b.click(b.found(`[...document.querySelectorAll('nav[aria-label="Houses and their classes"] .v-list-item')].find(i=>i.innerText.startsWith('Plain'))`))
	b.press("Take as the board’s rules …")
	b.sees("Least silk: ")
	b.look("what a class would change")
	b.press("Take them")
	b.kept()
	b.until(`goldenTrace.openFindings.value.some(f=>f.kind==='silkThin'&&f.measured===130000&&f.required===150000)`)
	eval[bool](b, `void goldenTrace.edit('setFigure',{ids:[goldenTrace.all('figure').find(f=>f.width===130000).id],width:160000}),true`)
	b.kept()
	b.until(`!goldenTrace.openFindings.value.some(f=>f.kind==='silkThin')`)
	b.until(`[...document.querySelectorAll('nav[aria-label="Houses and their classes"] .v-list-item')].some(i=>i.innerText.includes('Plain')&&i.innerText.includes('the cheapest here'))`)
	assert.Contains(t, first, "Northgate Boards, Plain")
}
