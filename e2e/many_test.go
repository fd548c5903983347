package e2e

import (
	"bytes"
	"fmt"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/synthetic"
)

// All parts of one footprint are picked by what they have in common; their designators become smaller and their pads longer in a variant of
// the project, here and in the circuit; tracks go along with what they join; an area is shaped by its corners.
func TestManyAtOnce(t *testing.T) {
	d, err := synthetic.Design(24)
	require.NoError(t, err)
	var file bytes.Buffer
	require.NoError(t, design.WriteFile(&file, "Sluice Row", d))
	p := start(t, "serve", t.TempDir())
	code, body := p.api("POST", "/import", &file)
	require.Equal(t, 201, code, string(body))
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Sluice Row", "board")
	first := eval[string](b, `goldenTrace.all('placed').find(p => p.designator.startsWith('R')).designator`)
	foot := eval[string](b, `goldenTrace.all('placed').find(p => p.designator.startsWith('R')).footprint`)
	alike := eval[int](b, `goldenTrace.all('placed').filter(p => p.footprint === goldenTrace.all('placed').find(p => p.designator.startsWith('R')).footprint).length`)
	require.Greater(t, alike, 3)
	b.pickPart(first)
	b.press("Pick alike …")
	same := `[...document.querySelectorAll('.v-overlay--active .v-list-item')].find(x => x.innerText.startsWith('footprint'))`
	b.until(same)
	time.Sleep(300 * time.Millisecond) // the list unfolds
	b.click(b.found(same))
	b.sees("things picked")
	b.glimpse("many-picked")
	b.fill("Designators, mm", "0.8")
	b.until(`goldenTrace.all('placed').filter(p => p.letters === 800000).length === ` + fmt.Sprint(alike))
	b.press("Other pads …")
	b.fill("Outward, mm", "0.4")
	b.glimpse("many-pads")
	b.press("Give it to them")
	b.until(`goldenTrace.all('placed').filter(p => p.footprint === "` + foot + `, by hand").length === ` + fmt.Sprint(alike))
	assert.Equal(t, alike, eval[int](b, `goldenTrace.all('placed').filter(p => goldenTrace.get('part', p.part).footprint === "`+foot+`, by hand").length`))
	b.until(`goldenTrace.all('footprint').some(f => f.name === "` + foot + `, by hand")`)
	tracks := eval[int](b, `goldenTrace.all('track').length`)
	b.press("With their tracks")
	b.kept()
	assert.Equal(t, tracks, eval[int](b, `goldenTrace.all('track').length`))
	b.focus()
	b.key("z", ctrl)
	b.until(`goldenTrace.all('placed').every(p => !p.footprint.endsWith('by hand'))`)

	b.key("f")
	b.key("a")
	at := eval[[]float64](b, `(()=>{const o=goldenTrace.board.outline;return [Math.min(...o.map(c=>c.x))/1e6,Math.max(...o.map(c=>c.y))/1e6-14]})()`)
	x, y := at[0], at[1]
	b.drag(x+2, y+2, x+9, y+9)
	b.until(`goldenTrace.all('ruleArea').length === 1`)
	corner := `goldenTrace.all('ruleArea')[0].outline`
	was := eval[[]float64](b, `[`+corner+`[2].x/1e6,`+corner+`[2].y/1e6]`)
	b.focus()
	b.point(was[0], (was[1]+y+2)/2) // on its right side
	b.sees("Keeps out")
	b.drag(was[0], was[1], was[0]+3, was[1]+3)
	b.until(corner + `[2].x > ` + fmt.Sprintf("%.0f", (was[0]+2)*1e6))
	b.click(field("vias"))
	b.until(`goldenTrace.all('ruleArea')[0].keepOut?.includes('via')`)
	b.glimpse("many-area")
}
