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
	b.press("Inner 1")
	b.press("What touches it")
	b.there("group", "What touches Inner 1")
	b.says("What touches Inner 1", "joined by spokes")
	b.until(`(() => {const m = document.querySelector('[aria-label="What touches Inner 1"]').innerText.match(/passing through\s+(\d+)/); return m && Number(m[1]) > 50})()`)
	b.glimpse("pour-touches")
	b.press("Hide what touches the areas")
	b.focus()
	for _, way := range []string{"hatch", "edges", "full"} {
		b.key("v", shift)
		b.until(fmt.Sprintf(`localStorage.getItem('gt.fills') === '"%s"'`, way))
		b.glimpse("pour-" + way)
	}
	assert.Zero(t, eval[int](b, `goldenTrace.links.size`))
}

// filledAt tells whether a copper area is filled at a place in millimetres, as the page has it.
func filledAt(b *tab, layer design.LayerID, x, y float64) bool {
	b.t.Helper()
	lines := eval[[][]int64](b, fmt.Sprintf(`[...goldenTrace.filled.values()]
		.filter(f => f.layer === %d && f.x === %d && f.y === %d).flatMap(f => f.lines)`, layer, int(x/5), int(y/5)))
	within := 0
	for _, l := range lines {
		var ring []geom.Point
		for i := 0; i < len(l); i += 2 {
			ring = append(ring, geom.Pt(l[i], l[i+1]))
		}
		if geom.InPolygon(geom.Pt(int64(x*1e6), int64(y*1e6)), ring) {
			within++
		}
	}
	return within%2 == 1
}

// From nothing: ground is laid over the upper side and, as a plane, below; pads are joined without a track, a signal in the way parts
// nothing, and the files' copper says the same. An area of another net goes before it; undone, all is as it was.
func TestABoardFilledWithCopper(t *testing.T) {
	d := plate(2, plated{"J1", "GND", 6, 22}, plated{"R1", "GND", 34, 22}, plated{"D1", "GLOW", 8, 8}, plated{"D2", "GLOW", 34, 8},
		plated{"J2", "PLUS", 20, 26}, plated{"R2", "PLUS", 26, 26})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.until(`goldenTrace.links.size === 3`)
	b.focus()
	b.key("n")
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
	inside := func(x, y float64) bool { return filledAt(b, d.Board.Top(), x, y) }
	assert.False(t, inside(20, 8.3), "0.2 mm from the track's edge")
	assert.True(t, inside(20, 9))

	// an area of the supply between its pads goes before the ground
	b.key("n")
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
	refused := func(pour, says string) {
		_ = eval[any](b, fmt.Sprintf(`(goldenTrace.edit('putPour', {pour: {id: 0, name: '', layers: [goldenTrace.board.stack.find(l => l.kind === 'copper').id], %s}})
			.catch(e => window.said = e.message), 0)`, pour))
		b.until(fmt.Sprintf(`window.said?.includes(%q)`, says))
	}
	refused(`net: goldenTrace.named('net', 'GND').id, outline: [{x: 0, y: 0}, {x: 9e6, y: 9e6}, {x: 9e6, y: 0}, {x: 0, y: 9e6}]`, "crosses itself at")
	refused(`net: 0`, "is of no net; say which net is to fill it")
	assert.Equal(t, 2, eval[int](b, `goldenTrace.all('pour').length`))
	for range 4 {
		b.focus()
		b.key("z", ctrl)
		b.kept()
	}
	b.until(`goldenTrace.all('pour').length === 0 && goldenTrace.filled.size === 0 && goldenTrace.links.size === 3`)
}

// A track begins on a copper area, whose net it has; it ends at a pad that the area does not reach, and all is joined.
func TestATrackBeginsOnAnArea(t *testing.T) {
	d := plate(2, plated{"A", "PLUS", 6, 8}, plated{"B", "PLUS", 30, 8}, plated{"C", "GND", 20, 24})
	d.Put(&design.Pour{ID: 400, Name: "PLUS", Net: d.NetNamed("PLUS").ID, Layers: []design.LayerID{d.Board.Top()},
		Outline: geom.Corners(geom.Pt(3e6, 4e6), geom.Pt(15e6, 4e6), geom.Pt(15e6, 20e6), geom.Pt(3e6, 20e6))})
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

// An area around what is picked is shaped by its corners, and what is filled follows; a part says how its pads are joined.
func TestShapingACopperArea(t *testing.T) {
	d := plate(2, plated{"A", "PLUS", 12, 12}, plated{"B", "GND", 30, 20})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	top := d.Board.Top()
	b.pickPart("A")
	b.press("Copper")
	b.choose("Net", "PLUS")
	b.press("Around what is picked")
	b.until(`goldenTrace.all('pour').length === 1 && goldenTrace.filled.size > 0`)
	b.kept()
	outline := func() [][2]float64 {
		return eval[[][2]float64](b, `goldenTrace.all('pour')[0].outline.map(c => [c.x / 1e6, c.y / 1e6])`)
	}
	was := outline()
	right := was[1][0]
	assert.InDelta(t, 14, right, 0.7, "1 mm beyond the courtyard, on the grid")
	assert.True(t, filledAt(b, top, 13.5, 12.9))
	assert.False(t, filledAt(b, top, 20, 12.9))

	// a corner is pulled out
	b.key(escape)
	b.key("f")
	b.drag(was[2][0], was[2][1], was[2][0]+8, was[2][1]+6)
	b.kept()
	b.until(`!('fills' in goldenTrace.behind.value)`)
	assert.InDelta(t, was[2][0]+8, outline()[2][0], 0.7)
	assert.True(t, filledAt(b, top, 18, 15))
	b.glimpse("pour-shaped")

	// solidly: no gap around the pad any more
	assert.False(t, filledAt(b, top, 12.7, 12.7), "between two spokes")
	b.pickPart("A")
	b.choose("Areas join", "solidly")
	b.kept()
	b.until(`!('fills' in goldenTrace.behind.value)`)
	assert.True(t, filledAt(b, top, 12.7, 12.7))
	b.glimpse("pour-solid")
	b.focus()
	b.key("z", ctrl)
	b.kept()
	b.until(`!('fills' in goldenTrace.behind.value)`)
	assert.False(t, filledAt(b, top, 12.7, 12.7))
}

// Areas on both sides are tied together by vias in a grid; a finer one is made at once, one via that is taken away stays away, and the
// files join what they should. Then the vias go along the edge.
func TestStitchingAnArea(t *testing.T) {
	d := plate(2, plated{"J1", "GND", 6, 22}, plated{"R1", "GND", 34, 22}, plated{"D1", "GLOW", 8, 8}, plated{"D2", "GLOW", 34, 8})
	lay(d, 500, d.Board.Top(), "GLOW", 8, 8, 34, 8)
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.focus()
	b.key("n")
	b.choose("Net", "GND")
	b.press("all layers")
	b.press("Whole board")
	b.until(`goldenTrace.links.size === 0`)
	grid := `[...document.querySelectorAll('button')].find(x => /^GND\s*grid$/.test(x.textContent.trim()))`
	b.press("Stitch with vias")
	b.sees("Stitching")
	b.until(`goldenTrace.all('via').length > 20`)
	n := eval[int](b, `goldenTrace.all('via').length`)
	b.fill("Pitch, mm", "3")
	b.until(fmt.Sprintf(`goldenTrace.all('via').length > 2 * %d`, n))
	n = eval[int](b, `goldenTrace.all('via').length`)
	b.until(`!('fills' in goldenTrace.behind.value)`)
	b.glimpse("stitched")
	at := eval[[]float64](b, `(() => {const v = goldenTrace.all('via').find(v => v.at.x > 15e6 && v.at.y > 15e6); return [v.at.x / 1e6, v.at.y / 1e6]})()`)
	b.focus()
	b.point(at[0], at[1])
	b.key(kbDelete)
	b.until(fmt.Sprintf(`goldenTrace.all('via').length === %d`, n-1))
	b.key(escape)
	b.click(b.found(grid))
	b.sees("1 place is left free")
	b.press("Make anew")
	b.kept()
	assert.Equal(t, n-1, eval[int](b, `goldenTrace.all('via').length`))
	b.until(`!('fills' in goldenTrace.behind.value)`)
	faultless(b)
	shipped(t, p, b, "Plate")
	b.focus()
	b.click(b.found(grid))
	b.choose("Vias stand", "along the board’s edge")
	b.until(`goldenTrace.all('via').every(v => Math.min(v.at.x, v.at.y, 40e6 - v.at.x, 30e6 - v.at.y) === 1e6)`)
	b.until(`!('fills' in goldenTrace.behind.value)`)
	faultless(b)
	b.choose("Vias stand", "beside a net’s tracks")
	b.until(`goldenTrace.all('via').every(v => Math.abs(v.at.y - 8e6) === 1e6)`)
	b.until(`!('fills' in goldenTrace.behind.value)`)
	b.glimpse("stitched-beside")
	faultless(b)
}

// A plane is cut by a line across it: the smaller part is of the other net from then on, what it parts is an open link; undone, it is whole.
func TestCuttingAPlane(t *testing.T) {
	d := plate(2, plated{"J1", "GND", 6, 22}, plated{"R1", "GND", 34, 22}, plated{"D1", "GLOW", 8, 8}, plated{"D2", "GLOW", 12, 26}, plated{"J2", "GND", 30, 8})
	d.Put(&design.Pour{ID: 600, Name: "GND", Net: d.NetNamed("GND").ID, Layers: []design.LayerID{d.Board.Bottom()}})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.until(`goldenTrace.links.size === 1`)
	b.focus()
	b.press("Bottom")
	b.key("n")
	b.choose("Net", "GLOW")
	b.press("Cut")
	b.point(15, -1)
	b.point(15, 14)
	b.key(enter)
	b.sees("The line does not lead across")
	b.point(15, 31) // it is in the hand still, and goes on
	b.key(enter)
	b.until(`goldenTrace.all('pour').length === 2`)
	b.until(`!('fills' in goldenTrace.behind.value)`)
	b.until(`goldenTrace.links.size === 1`)
	assert.Equal(t, "GND", eval[string](b, `goldenTrace.netName([...goldenTrace.links.keys()][0])`))
	b.glimpse("plane-cut")
	b.kept()
	b.focus()
	b.key("z", ctrl)
	b.until(`goldenTrace.all('pour').length === 1`)
	b.until(`goldenTrace.netName([...goldenTrace.links.keys()][0]) === 'GLOW'`)
}

// A fast net runs over a gap between two tracks that its ground plane leaves free: the track's details say which least width would fill it,
// and it is mended by that.
func TestAGapUnderAFastNetIsMended(t *testing.T) {
	d := plate(2, plated{"J1", "FAST", 6, 15}, plated{"J2", "FAST", 34, 15}, plated{"A1", "S1", 6, 20}, plated{"A2", "S2", 6, 10}, plated{"G1", "GND", 20, 26})
	lay(d, 500, d.Board.Top(), "FAST", 6, 15, 34, 15)
	lay(d, 501, d.Board.Bottom(), "S1", 12, 15.45, 28, 15.45)
	lay(d, 502, d.Board.Bottom(), "S2", 12, 14.55, 28, 14.55)
	d.Put(&design.Pour{ID: 600, Name: "GND", Net: d.NetNamed("GND").ID, Layers: []design.LayerID{d.Board.Bottom()}, LeastWidth: 300_000})
	p := serveDoc(t, "Plate", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Plate", "board")
	b.until(`goldenTrace.filled.size > 0 && !('fills' in goldenTrace.behind.value)`)
	b.focus()
	assert.False(t, filledAt(b, d.Board.Bottom(), 20, 15))
	b.point(20, 15)
	b.sees("would fill")
	says := eval[string](b, `document.body.innerText.match(/[\d.]+ mm of it run over gaps of GND on Bottom; a least width of [\d.]+ mm would fill [\d.]+ mm/)?.[0] ?? ''`)
	assert.Regexp(t, `^1[5-7](\.\d+)? mm of it run over gaps of GND on Bottom; a least width of 0.2 mm would fill 1[5-7]`, says)
	b.glimpse("gap-below")
	b.press("Let it be as thin")
	b.until(`goldenTrace.get('pour', 600).leastWidth === 200000 && !('fills' in goldenTrace.behind.value)`)
	b.until(`!document.body.innerText.includes('run over gaps')`)
	assert.True(t, filledAt(b, d.Board.Bottom(), 20, 15))
	b.kept()
}
