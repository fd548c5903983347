package e2e

import (
	"bytes"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// bus is a board of 40 × 30 mm: three parts of two pads at the left, whose nets lead in three tracks side by side to parts at the right,
// and J1 and J2, above and below them, of one net that is open.
func bus() *design.Doc {
	d := design.New("Bus")
	at := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	b := *d.Board
	b.Outline = geom.Corners(at(0, 0), at(40, 0), at(40, 30), at(0, 30))
	d.Put(&b)
	d.Put(&design.Footprint{ID: 90, Name: "One pad", DesignatorAt: at(0, 1.4), Courtyard: []geom.Point{at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)},
		Pads: []design.Pad{{Number: "1", Form: design.Rect, Size: at(1.2, 1.2)}}})
	part := func(id design.ID, name string, net design.ID, x, y float64) {
		d.Put(&design.Placed{ID: id, Part: 1000 + id, Designator: name, Footprint: "One pad", At: at(x, y), Nets: map[string]design.ID{"1": net}})
	}
	for i, net := range []string{"DATA", "CLOCK", "SELECT"} {
		id := design.ID(100 + i)
		d.Put(&design.Net{ID: id, Name: net})
		y := 12 + 2.4*float64(i)
		part(design.ID(200+i), fmt.Sprintf("TP%d", i+1), id, 5, y)
		part(design.ID(210+i), fmt.Sprintf("TP%d", i+4), id, 35, y)
		mid := 14.4 + 0.6*float64(i-1)
		for k, p := range [][2]geom.Point{{at(5, y), at(10, y)}, {at(10, y), at(10+abs(y-mid), mid)}, {at(10+abs(y-mid), mid), at(30-abs(y-mid), mid)}, {at(30-abs(y-mid), mid), at(30, y)}, {at(30, y), at(35, y)}} {
			if p[0] != p[1] {
				d.Put(&design.Track{ID: design.ID(300 + 10*i + k), Layer: b.Top(), A: p[0], B: p[1], Width: 250_000, Net: id})
			}
		}
	}
	d.Put(&design.Net{ID: 110, Name: "STROBE"})
	part(220, "J1", 110, 20, 6)
	part(221, "J2", 110, 20, 24)
	return d
}

func abs(v float64) float64 { return max(v, -v) }

// serveDoc is a program with one project.
func serveDoc(t *testing.T, name string, d *design.Doc) *program {
	t.Helper()
	p := start(t, "serve", t.TempDir())
	var file bytes.Buffer
	require.NoError(t, design.WriteFile(&file, name, d))
	code, said := p.api("POST", "/import", &file)
	require.Equal(t, 201, code, string(said))
	return p
}

// A track is drawn through a bus, which makes way and springs back; it goes round; a way to the end is shown and taken; a new way takes the
// old one's place.
func TestRoutingByHand(t *testing.T) {
	p := serveDoc(t, "Bus", bus())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Bus", "board")
	tracks := func() int { return eval[int](b, `goldenTrace.all('track').length`) }
	before := tracks()
	b.focus()
	b.key("t")
	b.point(20, 6)

	b.choose("At obstacles", "make way")
	b.move(20, 14.6)
	b.glimpse("makeway")
	b.move(20, 10)
	b.glimpse("sprungback")
	b.move(20, 14.6)
	b.point(20, 14.6)
	b.key(enter)
	b.kept()
	assert.Greater(t, tracks(), before+3, "what made way has corners now")
	b.glimpse("madeway")
	b.key("z", ctrl)
	b.kept()
	assert.Equal(t, before, tracks())

	b.point(20, 6)
	b.choose("At obstacles", "go around")
	b.move(20, 23)
	b.glimpse("around")
	b.key(escape)

	b.point(20, 6)
	b.key(enter, shift)
	b.until(`document.body.innerText.includes('takes the way that is shown')`)
	b.glimpse("finish")
	b.key(enter)
	b.kept()
	b.until(`goldenTrace.links.size === 0`)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.all('via').length`), "below the bus, and up again")

	// a piece of the bus is pulled: it slides, and its neighbours follow
	b.key(escape)
	b.press("Select")
	middle := `goldenTrace.all('track').filter(t => t.net === 102 && t.a.y === t.b.y && Math.abs(t.a.y - 15e6) < 1).length`
	assert.Equal(t, 1, eval[int](b, middle))
	b.drag(24, 15, 24, 16.51)
	b.kept()
	assert.Zero(t, eval[int](b, middle))
	assert.Equal(t, 1, eval[int](b, `goldenTrace.all('track').filter(t => t.net === 102 && t.a.y === 16510000 && t.b.y === 16510000).length`))
	assert.Equal(t, 5, eval[int](b, `goldenTrace.all('track').filter(t => t.net === 102).length`), "as many pieces as before")
	b.glimpse("pulled")
	b.key("z", ctrl)
	b.kept()
	assert.Equal(t, 1, eval[int](b, middle))
	b.focus()
	b.key("t")

	// round the left end of the bus instead: the old way and its vias go
	b.point(20, 6)
	b.choose("At obstacles", "go around")
	b.choose("Corners", "rounded")
	b.point(6, 4)
	b.point(2.5, 15)
	b.point(6, 26)
	b.move(20, 24)
	b.glimpse("newway")
	b.point(20, 24)
	b.gone("status", "Net: *")
	b.kept()
	b.until(`goldenTrace.links.size === 0`)
	assert.Zero(t, eval[int](b, `goldenTrace.all('via').length`))
	assert.Zero(t, eval[int](b, `goldenTrace.all('track').filter(t => t.layer === goldenTrace.board.stack.findLast(l => l.kind === 'copper').id).length`), "nothing is left below")
	assert.Positive(t, eval[int](b, `goldenTrace.all('track').filter(t => t.mid).length`), "its corners are arcs")
	assert.Zero(t, eval[int](b, `[...goldenTrace.findings.values()].filter(f => f.stage === 'board' && f.severity === 'fault').length`))
	b.glimpse("newwaykept")
	b.key("z", ctrl)
	b.kept()
	b.until(`goldenTrace.all('via').length === 2`)
	b.focus()
	b.drag(24, 15, 24, 16.51)
	b.kept()
	shipped(t, p, b, "Bus")
}

// What a hand needs between narrow places: hops that move to where a via fits, vias dragged with what hangs on them, corners rounded
// afterwards, tracks that get narrower where only that fits, and the other side of an obstacle.
func TestRoutingInNarrowPlaces(t *testing.T) {
	d := bus()
	for i, y := range []int64{23_815_000, 25_715_000} { // 0.7 mm between their pads
		d.Put(&design.Net{ID: design.ID(120 + i), Name: fmt.Sprintf("X%d", i)})
		d.Put(&design.Placed{ID: design.ID(230 + i), Part: design.ID(1230 + i), Designator: fmt.Sprintf("R%d", i), Footprint: "One pad", At: geom.Pt(10_160_000, y), Nets: map[string]design.ID{"1": design.ID(120 + i)}})
	}
	p := serveDoc(t, "Bus", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Bus", "board")
	b.focus()
	b.key("t")
	b.point(20, 6)
	b.move(20, 13.335) // 0.465 mm from the bus's lowest line: too near for a via of 0.8 mm
	b.key(" ")
	b.until(seen("button", "Bottom") + `.getAttribute('aria-pressed') === 'true'`)
	b.key(enter)
	b.kept()
	via := eval[[]float64](b, `(()=>{const v=goldenTrace.all('via')[0];return [v.at.x/1e6,v.at.y/1e6]})()`)
	assert.LessOrEqual(t, via[1], 13.8-0.125-0.2-0.4+0.001, "it moved to where it fits")
	assert.Greater(t, via[1], 12.0)
	b.key(escape)
	b.press("Select")
	b.drag(via[0], via[1], 22.86, 10.16)
	b.kept()
	assert.Equal(t, []float64{22.86, 10.16}, eval[[]float64](b, `(()=>{const v=goldenTrace.all('via')[0];return [v.at.x/1e6,v.at.y/1e6]})()`))
	ends := `goldenTrace.all('track').filter(t => t.net === 110).some(t => [t.a, t.b].some(p => p.x === 22860000 && p.y === 10160000))`
	assert.True(t, eval[bool](b, ends), "its track follows")
	b.glimpse("via")

	line := eval[[]float64](b, `(()=>{const t=goldenTrace.all('track').filter(t => t.net === 110).sort((a,b)=>Math.hypot(b.a.x-b.b.x,b.a.y-b.b.y)-Math.hypot(a.a.x-a.b.x,a.a.y-a.b.y))[0];return [(t.a.x+t.b.x)/2e6,(t.a.y+t.b.y)/2e6]})()`)
	b.focus()
	b.point(line[0], line[1])
	b.set("Corners’ radius, mm", "1")
	assert.Positive(t, eval[int](b, `goldenTrace.all('track').filter(t => t.mid).length`))
	b.glimpse("rounded")

	b.focus()
	b.key("t")
	b.press("Top")
	draw := func(setting func(), ends ...[2]float64) []float64 {
		t.Helper()
		b.point(20, 24)
		setting()
		for _, e := range ends {
			b.point(e[0], e[1])
			b.still() // also where the machine is slow
		}
		b.glimpse(fmt.Sprint("narrow", len(ends)))
		b.key(enter)
		b.kept()
		got := eval[[]float64](b, `(()=>{const l=goldenTrace.all('track').filter(t => t.net === 110 && t.a.y > 20e6);const y=l.flatMap(t=>[t.a.y,t.b.y]);return [Math.min(...l.map(t=>t.width)),Math.max(...l.map(t=>t.width)),Math.min(...y)/1e6,Math.max(...y)/1e6,l.length]})()`)
		b.key("z", ctrl)
		b.kept()
		return got
	}
	got := draw(func() { b.key("N", shift) }, [2]float64{15.24, 24.765}, [2]float64{4.445, 24.765})
	assert.Less(t, got[0], 300_000.0, "narrow between the pads")
	assert.Equal(t, 400_000.0, got[1], "and as wide as ever beside them")
	one := draw(func() { b.key("N", shift); b.choose("At obstacles", "go around") }, [2]float64{4.445, 24.13})
	other := draw(func() { b.move(4.445, 24.13); b.key("J", shift) }, [2]float64{4.445, 24.13})
	assert.NotEqual(t, one[2:4], other[2:4], "by the other side")
	assert.Zero(t, eval[int](b, `[...goldenTrace.findings.values()].filter(f => f.stage === 'board' && f.severity === 'fault').length`))
}
