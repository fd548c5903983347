package e2e

import (
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
)

// Wires go at any angle, end in nothing and say so; a bundle is named, all its members are
// led out at once; a net is renamed everywhere; names that differ by case warn.
func TestWiresAndBundles(t *testing.T) {
	_, b := circuitBench(t, "Mill Race")
	b.key("c")
	b.press("Any angle")
	b.point(50, 180)
	b.point(80, 170)
	b.key(enter)
	b.kept()
	b.key(escape)
	assert.Equal(t, 1, eval[int](b, `goldenTrace.all('wire').filter(w => w.a.x !== w.b.x && w.a.y !== w.b.y).length`))
	assert.Equal(t, 2, b.findings("looseEnd"))

	b.key("u")
	b.press("Right angles")
	b.point(100, 180)
	b.point(100, 120)
	b.key(enter)
	b.kept()
	b.key(escape)
	b.press("Label")
	b.fill("Net", "D[15:0]")
	b.key("e")
	b.point(100, 120)
	b.kept()
	b.key(escape)
	b.until(`goldenTrace.views.get(goldenTrace.here.value.sheet).bundles[0]?.members?.length === 16`)
	b.press("Tap")
	b.press("All at once")
	b.point(100, 175)
	b.kept()
	b.key(escape)
	assert.Equal(t, 16, eval[int](b, `goldenTrace.all('tap').length`), "sixteen taps at once")
	b.key("z", ctrl)
	b.kept()
	assert.Zero(t, eval[int](b, `goldenTrace.all('tap').length`), "one step back")
	b.key("z", ctrl, shift)
	b.kept()
	names := eval[[]string](b, `[...goldenTrace.nets.keys()].filter(n => /^D\d+$/.test(n)).sort()`)
	assert.Len(t, names, 16)

	// a bundle that names a member twice is refused with a sentence
	b.press("Label")
	b.fill("Net", "A[3:0], A2")
	b.point(200, 60)
	b.sees("The bundle A[3:0], A2 holds A2 twice.")
	b.key(escape)

	// a net's name, changed in one place, changes wherever it stands; any letters will do
	for _, x := range []float64{150, 200} {
		b.key("c")
		b.point(x, 100)
		b.point(x+30, 100)
		b.key(enter)
		b.kept()
		b.key(escape)
		b.press("Label")
		b.fill("Net", "SLUICE")
		b.point(x+30, 100)
		b.kept()
		b.key(escape)
	}
	b.point(165, 100)
	b.set("Details > Net", "SCHÜTZ ⚡ 水門")
	b.until(`goldenTrace.all('label').filter(l => l.name === 'SCHÜTZ ⚡ 水門').length === 2`)
	b.press("Label")
	b.fill("Net", "schütz ⚡ 水門")
	b.point(80, 170)
	b.kept()
	b.key(escape)
	assert.Equal(t, 1, b.findings("caseNames"))

	// what a drag would join is said before the button is let go
	b.putPart("Resistor", 165, 60)
	b.move(165, 60)
	ax, ay := b.at(165, 60)
	bx, by := b.at(165, 100) // both pins on the wire
	b.do(chromedp.MouseEvent("mousePressed", ax, ay, chromedp.Button("left"), chromedp.ClickCount(1)))
	for i := 1; i <= 6; i++ {
		b.do(chromedp.MouseEvent("mouseMoved", ax+(bx-ax)*float64(i)/6, ay+(by-ay)*float64(i)/6, chromedp.Button("left")))
		time.Sleep(30 * time.Millisecond)
	}
	b.sees("This would join")
	b.key(escape)
	b.do(chromedp.MouseEvent("mouseReleased", bx, by, chromedp.Button("left")))
}
