package e2e

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Texts in our strokes and in an outline font, on silk and copper; figures; a logo from a drawing; a font's file that is
// none; measures, one of which stays on the drawing and follows.
func TestDrawingOnTheBoard(t *testing.T) {
	p := start(t, "serve", t.TempDir())
	b := p.open(t, browser(t), "/")
	newProject(t, p, b, "Inscribed")
	b.stage("Board")
	b.until(`!!document.querySelector('[role=application][aria-label^=Board]')?.dataset.view`)
	b.focus()
	b.key("y")
	b.fill("Width, mm", "60")
	b.fill("Height, mm", "40")
	b.until(`goldenTrace.board.outline.length === 4`)
	b.focus()
	b.key("f")
	b.key("w")
	b.fill("Text", "Weir Gauge")
	b.fill("Height, mm", "4")
	b.choose("Font", "Barlow bold")
	b.move(30.48, 30.48)
	b.glimpse("drawn-text-ghost")
	b.point(30.48, 30.48)
	b.until(`goldenTrace.all('legend').length === 1`)
	b.until(`goldenTrace.texts.get(goldenTrace.all('legend')[0].id)?.length > 9`)
	b.fill("Text", "GND")
	b.fill("Height, mm", "3")
	b.choose("On", "Copper Top")
	b.point(10.16, 20.32)
	b.until(`goldenTrace.all('legend').some(l => l.on === 'copper' && l.layer === 1)`)

	dir := t.TempDir()
	bad := filepath.Join(dir, "letters.ttf")
	require.NoError(t, os.WriteFile(bad, []byte("these are no letters"), 0o644))
	b.choose("Font", "From a file…")
	b.upload("Font file", bad)
	b.sees("The file letters.ttf is not a font")
	assert.Empty(t, eval[[]any](b, `goldenTrace.all('asset')`))
	face, err := os.ReadFile("../core/typeface/fonts/mono-latin.ttf")
	require.NoError(t, err)
	good := filepath.Join(dir, "Harrowmere.ttf")
	require.NoError(t, os.WriteFile(good, face, 0o644))
	b.choose("Font", "From a file…")
	b.upload("Font file", good)
	b.until(`goldenTrace.all('asset').length === 1`)
	b.choose("On", "Silk")
	b.fill("Text", "B7")
	b.point(50.8, 20.32)
	b.until(`goldenTrace.all('legend').some(l => l.font === 'own')`)

	b.focus()
	b.key("i")
	b.choose("Form", "Rectangle")
	b.fill("Corners, mm", "1")
	b.click(field("filled"))
	b.choose("On", "Mask, open")
	b.drag(5.08, 5.08, 17.78, 10.16)
	b.until(`goldenTrace.all('figure').length === 1 && goldenTrace.all('figure')[0].on === 'mask'`)
	b.choose("Form", "Line")
	b.choose("On", "Silk")
	for _, x := range []float64{25.4, 30.48, 35.56} {
		b.point(x, 5.08)
	}
	b.key(enter)
	b.until(`goldenTrace.all('figure').length === 2`)

	logo := filepath.Join(dir, "heron.svg")
	require.NoError(t, os.WriteFile(logo, []byte(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 40 40"><circle cx="20" cy="20" r="20"/>
		<circle cx="20" cy="20" r="16" fill="white"/><path d="M8 26q6-8 12 0t12 0" fill="none" stroke="black" stroke-width="3"/><text>no</text></svg>`), 0o644))
	b.choose("Form", "Logo")
	b.upload("Drawing", bad)
	b.sees("cannot be put on the board")
	b.upload("Drawing", logo)
	b.sees("Left out: text that was not made into outlines.")
	b.fill("Width, mm", "12")
	b.sees("12 × 12 mm")
	b.glimpse("drawn-logo")
	b.press("Take it in hand")
	b.point(50.8, 10.16)
	b.until(`goldenTrace.all('figure').length === 3`)
	b.key(escape)
	b.key(escape)

	b.focus()
	b.key("d")
	b.click(field("stays on the drawing"))
	b.press("across")
	b.point(0, 0)
	b.point(60, 0)
	b.point(30, 43)
	b.until(`[...goldenTrace.dimensions.values()][0]?.length === 60000000`)
	b.key(escape)
	b.focus()
	b.key("y")
	b.fill("Width, mm", "65")
	b.until(`[...goldenTrace.dimensions.values()][0]?.length === 65000000`)
	b.focus()
	b.key("f")
	b.glimpse("drawn-board")

}
