package e2e

import (
	"bytes"
	"fmt"
	"image"
	"image/png"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Notes, timing diagrams, pictures, figures and clusters are drawn, changed and picked as
// groups; what is no picture is refused, scripts do not come along.
func TestDrawingAsDocument(t *testing.T) {
	_, b := circuitBench(t, "Heron Watch")
	b.press("Note")
	b.point(60, 180)
	b.atField("Text of the note")
	b.typing("# Why\rIt must *never* flood.")
	b.press("Put on the sheet")
	b.kept()
	b.until(`goldenTrace.all('note')[0]?.text.includes('*never*')`)

	b.press("Draw")
	b.press("Timing diagram")
	b.point(60, 120)
	b.atField("Text of the timing diagram")
	b.key("a", ctrl)
	b.typing("CLK: clock 4\rCS: hgih 2")
	wrong := `[...document.querySelectorAll('[role=alert]')].some(e => e.innerText.includes('"hgih" is not a state of a signal'))`
	b.until(wrong)
	b.key("a", ctrl)
	b.typing("CLK: clock 4\rCS: high 1, low 3")
	b.until("!" + wrong)
	b.press("Put on the sheet")
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
		b.upload("Picture to put on the sheet", path)
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

	b.press("Draw")
	b.press("Arrow")
	b.drag(150, 150, 180, 160)
	b.kept()
	b.until(`goldenTrace.all('shape')[0]?.form === 'arrow'`)
	b.key(escape)

	// a cluster takes what lies inside along, and can be picked from the list
	b.putPart("Resistor", 220, 100)
	b.press("Cluster")
	b.drag(205, 85, 240, 115)
	b.kept()
	b.atField("Edit the name")
	b.key("a", ctrl)
	b.typing("Float switch")
	b.key(enter)
	b.until(named("cluster", "Float switch"))
	b.key(escape)
	b.key(escape)
	b.sheet("Float switch")
	b.until(`document.querySelector('[aria-label=Details]')?.innerText.includes('1 part inside')`)
	b.drag(205, 100, 205, 110)
	b.kept()
	b.until(`goldenTrace.all('part')[0].at.y === 110e6`)
}
