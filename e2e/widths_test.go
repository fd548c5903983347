package e2e

import (
	"math"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A track too thin for its net's current is a finding; the advice says how wide it is to be, becomes rules on request and widens the
// track; the next one is as wide from the start.
func TestWideningByTheAdvice(t *testing.T) {
	b := light(t)
	net := eval[string](b, `goldenTrace.netName(goldenTrace.all('placed').find(p => p.designator === 'R1').nets['2']) || goldenTrace.netName(goldenTrace.all('placed').find(p => p.designator === 'R1').nets['1'])`)
	b.key("t")
	at := eval[[]float64](b, `(()=>{const n=goldenTrace.named('net',`+"`"+net+"`"+`).id;return [...goldenTrace.links.get(n)].flatMap(l=>[l.a.x/1e6,l.a.y/1e6,l.b.x/1e6,l.b.y/1e6])})()`)
	b.point(at[0], at[1])
	b.there("status", "Net: "+net)
	b.point(at[2], at[3])
	b.until(`goldenTrace.all('track').length > 0`)
	b.focus()

	b.key("k")
	b.sees("Nothing is said of currents yet.")
	b.click(field("all nets"))
	b.click(b.cell(net, "Current"))
	b.key("2")
	b.typing(" A")
	b.key(enter)
	b.until(`[...goldenTrace.findings.values()].some(f => f.kind === 'current' && f.text.includes('2 A'))`)
	// 2 A, 10 K, 35 µm outside: (2/(0.048·10^0.44))^(1/0.725) = 42.4 mil², 30.8 mil
	outer := func() float64 {
		v, _ := strconv.ParseFloat(b.text(b.cell(net, "Outer")), 64)
		return v
	}
	require.Eventually(t, func() bool { return math.Abs(outer()-0.782) < 0.002 }, 5*time.Second, 50*time.Millisecond)
	b.glimpse("widths")
	b.press("Take as rules")
	b.until(`goldenTrace.all('rule').filter(r => r.a?.net).length === 2`)
	b.until(`goldenTrace.all('track').every(t => t.width === 790000)`)
	b.until(`![...goldenTrace.findings.values()].some(f => f.kind === 'current')`)
	assert.Equal(t, "0.79", strings.TrimSpace(b.text(b.cell(net, "New tracks"))))
	b.fill("Warmer by, K", "30")
	b.until(`goldenTrace.board.rise === 30`)
	require.Eventually(t, func() bool { return outer() < 0.41 }, 5*time.Second, 50*time.Millisecond)
	b.key(escape)
	b.key(escape)
	b.key("z", ctrl)
	b.key("z", ctrl)
	b.until(`goldenTrace.all('rule').filter(r => r.a?.net).length === 0 && goldenTrace.all('track').every(t => t.width === 400000)`)
}
