package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Three labels in a row: the field is selected anew after each, the number counts up, and each
// points away from its pin.
func TestThreeLabelsInARow(t *testing.T) {
	_, b := circuitBench(t, "Staff Gauge")
	b.putPart("Header 4", 150, 120)
	pins := eval[[][]float64](b, `(()=>{const p=goldenTrace.all('part')[0];return goldenTrace.symbolOf(p.library).pins.map(q=>[(p.at.x+q.at.x)/1e6,(p.at.y+q.at.y)/1e6])})()`)
	b.key("t")
	b.typing("IN0")
	for i := range 3 {
		b.point(pins[i][0], pins[i][1])
		b.kept()
		b.until(`document.activeElement?.getAttribute('aria-label') === 'Net' && document.activeElement.selectionEnd === document.activeElement.value.length`)
	}
	assert.Equal(t, []string{"IN0", "IN1", "IN2"}, eval[[]string](b, `goldenTrace.all('label').map(l => l.name).sort()`))
	assert.Equal(t, "IN3", b.value("Net"))
	turn := eval[int](b, `goldenTrace.all('label')[0].turn`)
	outward := 0
	if pins[0][0] < 150 {
		outward = 2
	}
	assert.Equal(t, outward, turn, "away from the header")
	b.typing("LEVEL") // what is selected gives way
	b.point(pins[3][0], pins[3][1])
	b.kept()
	b.key(escape)
	assert.Equal(t, 1, eval[int](b, `goldenTrace.all('label').filter(l => l.name === 'LEVEL').length`))
	b.look("labels")
	b.until(seen("button", "Select") + `.getAttribute('aria-pressed') === 'true'`)
}

// Copies come as a ghost, say which of their names are borne already, and are numbered on.
func TestCopiesSayWhatTheyJoin(t *testing.T) {
	_, b := circuitBench(t, "Twin Weirs")
	b.putPart("Resistor", 100, 150)
	for _, x := range []float64{95, 105} {
		b.key("t")
		name := "IN0"
		if x > 100 {
			name = "OUT"
		}
		b.fill("Net", name)
		b.point(x, 150)
		b.kept()
		b.key(escape)
	}
	b.focus()
	b.drag(60, 170, 140, 130)
	b.key("c", ctrl)
	b.move(180, 100)
	b.key("v", ctrl)
	b.says("Options", "2 names are borne here already: IN0, OUT")
	b.look("copies")
	b.press("Number on")
	b.point(180, 100)
	b.kept()
	assert.Equal(t, []string{"IN0", "IN1", "OUT", "OUT1"}, eval[[]string](b, `goldenTrace.all('label').map(l => l.name).sort()`))
	assert.Equal(t, 4, eval[int](b, `goldenTrace.netList.value.length`), "no net was joined")
	b.key("v", ctrl)
	b.says("Options", "2 names are borne here already")
	b.press("Join them")
	b.point(180, 60)
	b.kept()
	assert.Equal(t, 4, eval[int](b, `goldenTrace.netList.value.length`), "joined, since that was chosen")
}

// A bundle's name, changed at one of the places where it stands, changes at all of them, with
// its members, on both sides of the block; the check finds nothing.
func TestBundleIsRenamedWhole(t *testing.T) {
	_, b := circuitBench(t, "Lock Gate")
	b.press("Block")
	b.drag(100, 100, 150, 140)
	b.kept()
	b.key(escape)
	b.point(125, 120)
	b.fill("Name of a new pin", "D[3:0]")
	b.kept()
	require.Equal(t, 1, eval[int](b, `goldenTrace.all('port').length`), "its port came along")
	b.doubleAt(125, 120)
	b.onSheet("Sheet 2")
	at := eval[[]float64](b, `(()=>{const p=goldenTrace.all('port')[0];return [p.at.x/1e6,p.at.y/1e6]})()`)
	b.key("u")
	b.point(at[0], at[1])
	b.point(at[0]+30, at[1])
	b.key(enter)
	b.kept()
	b.key(escape)
	b.press("Tap")
	b.press("All at once")
	b.point(at[0]+5, at[1])
	b.kept()
	b.key(escape)
	require.Equal(t, 4, eval[int](b, `goldenTrace.all('tap').length`))
	before := b.findings("tapMember") + b.findings("portAlone")

	b.point(at[0], at[1])
	b.set("This name", "LEVEL[3:0]")
	assert.Equal(t, []string{"LEVEL0", "LEVEL1", "LEVEL2", "LEVEL3"}, eval[[]string](b, `goldenTrace.all('tap').map(t => t.member).sort()`))
	assert.Equal(t, "LEVEL[3:0]", eval[string](b, `goldenTrace.all('block')[0].pins[0].name`))
	assert.Equal(t, before, b.findings("tapMember")+b.findings("portAlone"), "nothing is found of it")

	// and from outside, at the block's pin
	b.press("Sheet 1")
	b.onSheet("Sheet 1")
	b.point(125, 120)
	b.click(field("Name of the pin LEVEL[3:0]"))
	b.key("a", ctrl)
	b.typing("Q[3:0]")
	b.key(enter)
	b.kept()
	assert.Equal(t, []string{"Q0", "Q1", "Q2", "Q3"}, eval[[]string](b, `goldenTrace.all('tap').map(t => t.member).sort()`))
	assert.Equal(t, "Q[3:0]", eval[string](b, `goldenTrace.all('port')[0].name`))
	b.look("block pins")
}

// A pin of a block is dragged round its corner and its wire follows; pins are ordered by name.
func TestPinsOfBlocksMove(t *testing.T) {
	_, b := circuitBench(t, "Penstock")
	b.press("Block")
	b.drag(100, 100, 150, 140)
	b.kept()
	b.key(escape)
	b.point(125, 120)
	for _, name := range []string{"B", "A"} {
		b.fill("Name of a new pin", name)
		b.kept()
	}
	pin := func(name string) []float64 {
		return eval[[]float64](b, `(()=>{const q=goldenTrace.all('block')[0].pins.find(q=>q.name==='`+name+`');return [q.side,q.pos/1e6]})()`)
	}
	place := func(name string) (float64, float64) {
		q := pin(name)
		switch q[0] {
		case 2:
			return 100, 100 + q[1]
		case 0:
			return 150, 100 + q[1]
		case 1:
			return 100 + q[1], 140
		}
		return 100 + q[1], 100
	}
	bx, by := place("B")
	b.wire(60, by, bx, by)
	b.putPart("Resistor", 55, by)
	before := b.nets()
	b.point(125, 120)
	above := func() bool { return pin("A")[1] > pin("B")[1] }
	require.False(t, above())
	b.press("Order the pins by name")
	b.kept()
	assert.True(t, above(), "A stands above B now")
	assert.Equal(t, before, b.nets())
	bx, by = place("B")
	b.drag(bx, by, 125, 140) // to the top side
	b.kept()
	assert.EqualValues(t, 1, pin("B")[0])
	assert.Equal(t, before, b.nets(), "its wire followed")
	assert.Zero(t, b.findings("looseEnd"))
}
