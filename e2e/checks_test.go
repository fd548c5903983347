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
	b.fill("Right, because", "Only while the lamp is tried.")
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
