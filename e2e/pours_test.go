package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// The planes and areas of the gauge are seen, in three ways, and say what they join; every net is joined.
func TestPlanesOfTheGauge(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Weir Gauge", "board")
	b.until(`goldenTrace.filled.size > 900`)
	b.glimpse("pour-top")
	b.press("Ground plane*")
	b.sees("mm²")
	b.sees("1 piece, joins")
	b.glimpse("pour-details")
	b.focus()
	b.key("z", shift)
	b.glimpse("pour-hatch")
	b.key("z", shift)
	b.glimpse("pour-edges")
	b.key("z", shift)
	assert.Zero(t, eval[int](b, `goldenTrace.links.size`))
}

// From nothing: ground is laid over the upper side and, as a plane, below; pads are joined without a track, a signal in the way parts nothing, and the files' copper
// says the same. An area of another net goes before it; undone, all is as it was.
func TestABoardFilledWithCopper(t *testing.T) {
	d := plate(2, plated{"J1", "GND", 6, 22}, plated{"R1", "GND", 34, 22}, plated{"D1", "GLOW", 8, 8}, plated{"D2", "GLOW", 34, 8}, plated{"J2", "PLUS", 20, 26}, plated{"R2", "PLUS", 26, 26})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.until(`goldenTrace.links.size === 3`)
	b.focus()
	b.key("z")
	b.choose("Net", "GND")
	b.press("all layers")
	b.press("Whole board")
	b.until(`goldenTrace.links.size === 2 && goldenTrace.filled.size === 96`)

	// a signal across the board, drawn over the area: it gives way at once
	b.key("t")
	b.point(8, 8)
	b.point(34, 8)
	b.kept()
	b.until(`goldenTrace.links.size === 1`)
	b.until(`!('fills' in goldenTrace.behind.value)`)
	b.key(escape)
	inside := func(x, y float64) bool {
		return eval[bool](b, fmt.Sprintf(`(() => { let n = 0; for (const f of goldenTrace.filled.values()) { if (f.layer !== goldenTrace.board.stack[0].id) continue; for (const l of f.lines)
			for (let i = 0, j = l.length - 2; i < l.length; j = i, i += 2) if ((l[i+1] > %[2]f) !== (l[j+1] > %[2]f) && %[1]f < l[i] + (%[2]f - l[i+1]) / (l[j+1] - l[i+1]) * (l[j] - l[i])) n++ } return n %% 2 === 1 })()`, x*1e6, y*1e6))
	}
	assert.False(t, inside(20, 8.3), "0.2 mm from the track's edge")
	assert.True(t, inside(20, 9))

	// an area of the supply between its pads goes before the ground
	b.key("z")
	b.choose("Net", "PLUS")
	b.drag(18, 24, 28, 28)
	b.until(`goldenTrace.all('pour').length === 2`)
	b.fill("Priority", "1")
	b.until(`goldenTrace.links.size === 0`)
	b.glimpse("pour-two")
	b.kept()
	shipped(t, p, b, "Plate")
	faultless(b)

	// what cannot be is said, and nothing is lost
	_ = eval[any](b, `(goldenTrace.edit('putPour', {pour: {id: 0, name: '', net: goldenTrace.named('net', 'GND').id, layers: [goldenTrace.board.stack[0].id], outline: [{x: 0, y: 0}, {x: 9e6, y: 9e6}, {x: 9e6, y: 0}, {x: 0, y: 9e6}]}}).catch(e => window.said = e.message), 0)`)
	b.until(`/crosses itself at/.test(window.said)`)
	_ = eval[any](b, `(goldenTrace.edit('putPour', {pour: {id: 0, name: '', net: 0, layers: [goldenTrace.board.stack[0].id]}}).catch(e => window.said = e.message), 0)`)
	b.until(`/is of no net; say which net is to fill it/.test(window.said)`)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.all('pour').length`))
	for range 4 {
		b.focus()
		b.key("z", ctrl)
		b.kept()
	}
	b.until(`goldenTrace.all('pour').length === 0 && goldenTrace.filled.size === 0 && goldenTrace.links.size === 3`)
}

// A track begins on a copper area, whose net it has; it ends at a pad that the area does not reach, and all is joined. The lit net shows the area too.
func TestATrackBeginsOnAnArea(t *testing.T) {
	d := plate(2, plated{"A", "PLUS", 6, 8}, plated{"B", "PLUS", 30, 8}, plated{"C", "GND", 20, 24})
	d.Put(&design.Pour{ID: 400, Name: "PLUS", Net: d.NetNamed("PLUS").ID, Layers: []design.LayerID{d.Board.Top()}, Outline: geom.Corners(geom.Pt(3e6, 4e6), geom.Pt(15e6, 4e6), geom.Pt(15e6, 20e6), geom.Pt(3e6, 20e6))})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.until(`goldenTrace.links.size === 1 && goldenTrace.filled.size > 4`)
	b.focus()
	b.key("t")
	b.point(12.7, 15.24)
	b.move(24, 12)
	b.sees("PLUS")
	b.glimpse("pour-track")
	b.point(30, 8)
	b.kept()
	b.until(`goldenTrace.links.size === 0`)
	assert.Equal(t, []string{"PLUS"}, eval[[]string](b, `[...new Set(goldenTrace.all('track').map(t => goldenTrace.netName(t.net)))]`))
	shipped(t, p, b, "Plate")
	b.focus()
	b.move(8, 15)
	b.key("h")
	b.until(`goldenTrace.lit.value === 'PLUS'`)
	b.glimpse("pour-lit")
}
