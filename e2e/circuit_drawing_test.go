package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Notes, timing diagrams, pictures, figures and clusters are drawn, changed and picked as
// groups; what is no picture is refused, scripts do not come along.
func TestDrawingAsDocument(t *testing.T) {
	_, b := circuitBench(t, "Heron Watch")
	b.tool("note")
	b.point(60, 180)
	b.until(`document.activeElement?.closest('[data-test]')?.dataset.test === 'compose'`)
	b.typing("# Why\rIt must *never* flood.")
	b.click("[data-test=compose-keep]")
	b.kept()
	b.until(`goldenTrace.all('note')[0]?.text.includes('*never*')`)

	b.tool("draw")
	b.click("[data-test=draw-timing]")
	b.point(60, 120)
	b.until(`document.activeElement?.closest('[data-test]')?.dataset.test === 'compose'`)
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
	b.until(`document.activeElement?.closest('[data-test]')?.dataset.test === 'inline'`)
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
