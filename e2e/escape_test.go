package e2e

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/geom"
)

// gridArray is a board of four layers with a grid array of 10 by 10 balls 0.8 mm apart, each of which has a pin along the lower edge; every
// fifth ball is of ground, which has a plane.
func gridArray() *design.Doc {
	d := plate(4)
	at := func(x, y float64) geom.Point { return geom.Pt(int64(x*1e6), int64(y*1e6)) }
	balls, pins := &design.Footprint{ID: 91, Name: "Balls", DesignatorAt: at(0, 5), Courtyard: []geom.Point{at(-4.2, -4.2), at(4.2, -4.2), at(4.2, 4.2), at(-4.2, 4.2)}},
		&design.Footprint{ID: 92, Name: "Row", DesignatorAt: at(0, 1.6), Courtyard: []geom.Point{at(-18, -2), at(18, -2), at(18, 2), at(-18, 2)}}
	d.Put(&design.Net{ID: 100, Name: "GND"})
	nets := map[string]design.ID{}
	for i := range 100 {
		number := fmt.Sprint(i + 1)
		balls.Pads = append(balls.Pads, design.Pad{ID: i + 1, Number: number, Form: design.Round, Size: at(0.4, 0.4), At: at(float64(i%10)*0.8-3.6, float64(i/10)*0.8-3.6)})
		pins.Pads = append(pins.Pads, design.Pad{ID: i + 1, Number: number, Form: design.Round, Size: at(0.4, 0.4), At: at(float64(i%50)*0.7-17.15, float64(i/50)*1.4-0.7)})
		nets[number] = 100
		if i%5 != 0 {
			n := &design.Net{ID: design.ID(400 + i), Name: "S" + number}
			d.Put(n)
			nets[number] = n.ID
		}
	}
	d.Put(balls)
	d.Put(pins)
	d.Put(&design.Placed{ID: 200, Part: 300, Designator: "U1", Footprint: "Balls", At: at(20, 18), Nets: nets})
	d.Put(&design.Placed{ID: 201, Part: 301, Designator: "J1", Footprint: "Row", At: at(20, 4), Nets: nets})
	d.Put(&design.Pour{ID: 202, Name: "Ground", Net: 100, Layers: []design.LayerID{d.Board.At(1)}})
	d.SetBase(map[design.RuleKind]int64{design.Clearance: 100_000, design.TrackWidth: 100_000, design.LeastWidth: 100_000, design.LeastRing: 100_000,
		design.LeastHole: 200_000, design.HoleClearance: 200_000, design.ViaDiameter: 400_000, design.ViaHole: 200_000})
	return d
}

// The balls of a grid array are led out: what would be laid is seen first, with what would not find its way; laid, every ball leads beyond
// the part or into the plane, no rule is broken, and undo takes all of it back.
func TestEscapesOfAGridArray(t *testing.T) {
	p := serveDoc(t, "Grid", gridArray())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Grid", "board")
	b.focus()
	b.key("e", shift)
	b.says("Lead pads out", "Pick the parts")
	b.pickPart("U1")
	figure := func(name string) string {
		return fmt.Sprintf(`Number([...document.querySelectorAll('[aria-label="Lead pads out"] dt')].find(d => d.textContent === %q)?.nextElementSibling.textContent)`, name)
	}
	b.until(figure("Led out") + ` === 100`)
	b.click(b.found(`[...document.querySelectorAll('[aria-label="Lead pads out"] label')].find(l => l.textContent === 'Bottom')`))
	b.click(b.found(`[...document.querySelectorAll('[aria-label="Lead pads out"] label')].find(l => l.textContent === 'Inner 2')`))
	b.until(figure("Not led out") + ` > 10`) // on top alone
	b.glimpse("escape-stuck")
	stuck := eval[int](b, figure("Not led out"))
	b.press("U1.*")
	b.click(b.found(`[...document.querySelectorAll('[aria-label="Lead pads out"] label')].find(l => l.textContent === 'Bottom')`))
	b.until(figure("Not led out") + ` === 0`)
	require.Positive(t, stuck)
	b.key("f") // the box just ticked leaves letters to the board
	b.glimpse("escape-seen")
	b.press("Lay them")
	b.until(`goldenTrace.all('track').length >= 100`)
	b.sees("100 pads led out")
	b.glimpse("escape-laid")
	assert.Zero(t, eval[int](b, `[...goldenTrace.findings.values()].filter(f => f.stage === 'board' && f.severity === 'fault').length`))
	away := `goldenTrace.all('track').filter(t => goldenTrace.all('track').every(o => o === t || [t.b].every(e => e.x !== o.a.x || e.y !== o.a.y)))`
	beyond := eval[int](b, away+`.filter(t => Math.max(Math.abs(t.b.x - 20e6), Math.abs(t.b.y - 18e6)) > 4.0e6).length`)
	assert.GreaterOrEqual(t, beyond, 80, "every signal")
	vias := eval[int](b, `goldenTrace.all('via').length`)
	assert.Greater(t, vias, 20, "every ground, and what lies within")
	b.focus()
	b.key("z", ctrl)
	b.until(`goldenTrace.all('track').length === 0 && goldenTrace.all('via').length === 0`)
}
