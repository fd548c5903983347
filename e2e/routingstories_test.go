package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// plate is a board of 40 × 30 mm of so many copper layers with parts of one round plated pad each: name, net, place in millimetres.
func plate(layers int, pads ...plated) *design.Doc {
	d := design.New("Plate")
	at := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	b, _, err := d.Board.WithLayers(layers)
	if err != nil {
		panic(err)
	}
	b.Outline = geom.Corners(at(0, 0), at(40, 0), at(40, 30), at(0, 30))
	d.Put(b)
	d.Put(&design.Footprint{ID: 90, Name: "Pin", DesignatorAt: at(0, 1.6), Courtyard: []geom.Point{at(-1, -1), at(1, -1), at(1, 1), at(-1, 1)},
		Pads: []design.Pad{{Number: "1", Form: design.Round, Size: at(1.6, 1.6), Hole: 800_000}}})
	for i, p := range pads {
		n := d.NetNamed(p.net)
		if n == nil {
			n = &design.Net{ID: design.ID(100 + i), Name: p.net}
			d.Put(n)
		}
		d.Put(&design.Placed{ID: design.ID(200 + i), Part: design.ID(300 + i), Designator: p.name, Footprint: "Pin", At: at(p.x, p.y),
			Nets: map[string]design.ID{"1": n.ID}})
	}
	return d
}

// lay puts a track into a board, between places in millimetres.
func lay(d *design.Doc, id design.ID, layer design.LayerID, net string, x0, y0, x1, y1 float64) {
	at := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	d.Put(&design.Track{ID: id, Layer: layer, A: at(x0, y0), B: at(x1, y1), Width: 300_000, Net: d.NetNamed(net).ID})
}

type plated struct {
	name, net string
	x, y      float64
}

// faultless checks that the check finds no broken rule and no open link.
func faultless(b *tab) {
	b.t.Helper()
	b.until(`goldenTrace.links.size === 0`)
	assert.Zero(b.t, eval[int](b, `[...goldenTrace.findings.values()].filter(f => f.stage === 'board' && f.severity === 'fault').length`))
}

// A beginner's board has copper below alone: tracks begin at pads that are far from the layer in work, go round each other, and need no hops;
// a hop is refused with a sentence.
func TestABeginnersOneSidedBoard(t *testing.T) {
	d := plate(1, plated{"J1", "PLUS", 6, 22}, plated{"R1", "PLUS", 18, 22}, plated{"R2", "GLOW", 22, 22}, plated{"D1", "GLOW", 34, 22},
		plated{"D2", "MINUS", 34, 8}, plated{"J2", "MINUS", 6, 8}, plated{"S1", "SENSE", 20, 26}, plated{"S2", "SENSE", 20, 4})
	p := serveDoc(t, "One side", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "One side", "board")
	b.focus()
	b.key("t")
	b.draws(6, 22, 18, 22)
	b.draws(22, 22, 34, 22)
	b.draws(34, 8, 6, 8)
	b.point(20, 26)
	b.choose("At obstacles", "go around")
	b.key(" ")
	b.sees("there is no other to hop to")
	b.move(20, 5)
	b.glimpse("oneside-around")
	b.key(enter, shift)
	b.sees("takes the way that is shown")
	b.glimpse("oneside-finish")
	b.key(enter)
	b.kept()
	faultless(b)
	assert.Zero(t, eval[int](b, `goldenTrace.all('via').length`))
	shippedOf(t, p, b, "One side", 1)
}

// A dense corner: five tracks lie between a pad and the place where it has to go; they make way, and the files join what they should.
func TestADenseCornerMakesWay(t *testing.T) {
	pads := []plated{{"J1", "OUT", 6, 6}, {"J2", "OUT", 26, 20}}
	for i := range 5 {
		x, net := 12+3.3*float64(i), fmt.Sprint("D", i)
		pads = append(pads, plated{fmt.Sprint("A", i), net, x, 3}, plated{fmt.Sprint("B", i), net, x, 26})
	}
	d := plate(2, pads...)
	for i := range 5 {
		x := 12 + 3.3*float64(i)
		lay(d, design.ID(500+i), d.Board.Bottom(), fmt.Sprint("D", i), x, 3, x, 26)
	}
	p := serveDoc(t, "Dense", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Dense", "board")
	b.focus()
	b.press("Bottom")
	b.key("t")
	b.point(6, 6)
	b.choose("At obstacles", "make way")
	b.move(22, 14)
	b.glimpse("dense")
	b.key(escape)
	b.key(escape)
	// from the other side in between two of them, where only what makes way leaves room
	b.press("Bottom")
	b.key("t")
	b.point(26, 20)
	b.move(24.2, 14)
	b.point(24.2, 14)
	b.key(enter)
	b.kept()
	require.Positive(t, eval[int](b, `goldenTrace.all('track').filter(t => goldenTrace.netName(t.net) === 'OUT').length`))
	b.focus()
	b.key("t")
	b.point(6, 6)
	b.key(enter, shift)
	b.until(`document.body.innerText.includes('takes the way that is shown')`)
	b.key(enter)
	b.kept()
	b.glimpse("dense-done")
	faultless(b)
	shippedOf(t, p, b, "Dense", 2)
}

// Round a connector: a row of pins stands in the way; the track goes round it by one side and, on a key, by the other. The new way takes the
// old one's place, and its corners are rounded.
func TestGoingRoundAConnector(t *testing.T) {
	pads := []plated{{"J1", "LINE", 8, 15}, {"J2", "LINE", 32, 15}}
	for i := range 8 {
		pads = append(pads, plated{fmt.Sprint("P", i), fmt.Sprint("N", i), 20, 7 + 2*float64(i)})
	}
	p := serveDoc(t, "Connector", plate(1, pads...))
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Connector", "board")
	b.focus()
	b.key("t")
	b.point(8, 15)
	b.choose("At obstacles", "stop")
	b.move(32, 15)
	b.until(`document.body.innerText.includes('Stopped before')`)
	b.choose("At obstacles", "go around")
	b.move(32, 15)
	b.until(`!document.body.innerText.includes('Stopped before')`)
	b.glimpse("round-one")
	b.point(32, 15)
	b.gone("status", "Net: *")
	b.kept()
	highest := func() []float64 {
		return eval[[]float64](b, `(()=>{const y=goldenTrace.all('track').flatMap(t=>[t.a.y,t.b.y]);return [Math.min(...y)/1e6,Math.max(...y)/1e6]})()`)
	}
	one := highest()
	faultless(b)
	b.point(8, 15)
	b.key("J", shift)
	b.move(32, 15)
	b.glimpse("round-other")
	b.point(32, 15)
	b.gone("status", "Net: *")
	b.kept()
	other := highest()
	faultless(b)
	assert.NotEqual(t, one, other)
	assert.True(t, one[0] < 7 != (other[0] < 7), "one way lies below the row and the other above, and the old one went: %v, %v", one, other)
	b.press("Select")
	b.point(14, eval[float64](b, `(()=>{
		const t = goldenTrace.all('track').find(t => Math.min(t.a.x, t.b.x) < 14e6 && Math.max(t.a.x, t.b.x) > 14e6)
		return (t.a.y + (t.b.y - t.a.y) * (14e6 - t.a.x) / (t.b.x - t.a.x)) / 1e6
	})()`))
	b.set("Corners’ radius, mm", "1.5")
	assert.Positive(t, eval[int](b, `goldenTrace.all('track').filter(t => t.mid).length`))
	b.glimpse("round-rounded")
	faultless(b)
	shippedOf(t, p, b, "Connector", 1)
}

// What cannot be done is said in a sentence, and nothing is lost by it.
func TestRoutingWhereItCannotBe(t *testing.T) {
	d := plate(1, plated{"J1", "A", 8, 15}, plated{"J2", "A", 32, 15}, plated{"J3", "B", 8, 20}, plated{"J4", "C", 8, 24})
	lay(d, 500, d.Board.Top(), "B", 8, 20, 8, 24)
	d.Put(&design.Net{ID: 150, Name: "LOOSE"})
	lay(d, 501, d.Board.Top(), "LOOSE", 20, 25, 24, 25)
	p := serveDoc(t, "Cannot", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Cannot", "board")
	b.focus()
	b.key("t")
	b.point(30, 26)
	b.sees("Begin on a pad, a via or a track.")
	b.point(8, 20) // B and C touch already
	b.sees("mend that first")
	b.key(escape)
	b.point(22, 25) // a net without pads: its track is there, and nothing else
	b.there("status", "Net: LOOSE")
	b.key(enter, shift)
	b.sees("Nothing of LOOSE is open")
	b.key(escape)
	b.key(escape)

	b.focus()
	b.set("Clearance, mm", "30") // wider than any gap of the board
	b.focus()
	b.key("t")
	b.point(8, 15)
	b.move(20, 15)
	b.until(`document.body.innerText.includes('Stopped before')`)
	b.key(enter, shift)
	b.sees("No way was found")
	b.key(escape)
	b.key(escape)
	assert.Equal(t, 2, eval[int](b, `goldenTrace.all('track').length`), "nothing was laid")
	b.focus()
	b.key("z", ctrl)
	b.kept()
}

// On a board without an outline one is told so, and may draw all the same.
func TestRoutingWithoutAnOutline(t *testing.T) {
	d := plate(2, plated{"J1", "A", 8, 15}, plated{"J2", "A", 32, 15})
	board := *d.Board
	board.Outline = nil
	d.Put(&board)
	p := serveDoc(t, "Bare", d)
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Bare", "board")
	b.focus()
	b.key("t")
	b.point(8, 15)
	b.sees("The board has no outline yet")
	b.point(32, 15)
	b.gone("status", "Net: *")
	b.kept()
	b.until(`goldenTrace.links.size === 0`)
}
