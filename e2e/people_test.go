package e2e

import (
	"fmt"
	"syscall"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// drawingLies is where the drawing lies in the window.
const drawingLies = `JSON.stringify(document.querySelector('[role=application]').getBoundingClientRect())`

// Two people in one project: each is seen, undo takes back one's own act alone, and what the
// other did since is not undone behind their back.
func TestTwoPeople(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	ada, ben := p.open(t, browser(t), "/"), p.open(t, browser(t), "/")
	p.openStage(t, ada, "Moth Lamp", "circuit")
	p.openStage(t, ben, "Moth Lamp", "circuit")
	ada.there("button", "2 people*")
	for b, name := range map[*tab]string{ada: "Ada", ben: "Ben"} {
		b.press("2 people*")
		b.atField("Your name")
		b.typing(name)
		b.key(enter)
		b.gone("dialog", "*")
	}
	ada.there("button", "2 people. Here too: Ben*")
	time.Sleep(300 * time.Millisecond)

	value := func(r string) string {
		return eval[string](ada, fmt.Sprintf(`goldenTrace.all('part').find(p => p.designator === %q).value`, r))
	}
	r1, r2 := value("R1"), value("R2")
	ada.point(135, 137.5) // R1
	ada.set("Value", "2k2")
	ben.until(`goldenTrace.othersPicked.value.some(o => o.name === 'Ada' && o.parts.length === 1)`)
	ben.look("other picked")
	ben.until(theirs("#A23B8F")) // drawn at once, without a move of his hand
	p.openStage(t, ben, "Moth Lamp", "board")
	ben.until(theirs("#E07CCB"))
	ben.look("other picked on the board")
	p.openStage(t, ben, "Moth Lamp", "circuit")
	pick := func(b *tab, name string) {
		at := eval[[]float64](b, fmt.Sprintf(`(()=>{const p=goldenTrace.all('part').find(p=>p.designator===%q);return [p.at.x/1e6,p.at.y/1e6]})()`, name))
		b.point(at[0], at[1])
	}
	pick(ben, "R2")
	ben.set("Value", "330")
	ada.until(`goldenTrace.all('part').some(p => p.designator === 'R2' && p.value === '330')`)

	ada.focus()
	ada.key("z", ctrl) // her own act, though his came later
	ada.kept()
	assert.Equal(t, r1, value("R1"))
	assert.Equal(t, "330", value("R2"), "his act stays")
	ben.focus()
	ben.key("z", ctrl)
	ben.kept()
	ada.until(fmt.Sprintf(`goldenTrace.all('part').find(p => p.designator === 'R2').value === %q`, r2))

	// what the other changed since stands in the way, and that is said
	pick(ada, "R2")
	ada.set("Value", "1k")
	ben.until(`goldenTrace.all('part').some(p => p.designator === 'R2' && p.value === '1k')`)
	pick(ben, "R2")
	ben.set("Value", "1k5")
	ada.until(`goldenTrace.all('part').some(p => p.designator === 'R2' && p.value === '1k5')`)
	ada.focus()
	ada.key("z", ctrl)
	ada.sees("Ben has changed the part R2 since")
	assert.Equal(t, "1k5", value("R2"))
}

// While the program does not answer nothing is said to be kept; what was typed and dragged waits
// and is done when it answers again.
func TestStoppedServer(t *testing.T) {
	p := start(t, "demo", t.TempDir())
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Moth Lamp", "circuit")
	b.point(135, 137.5)
	b.until(`document.querySelector('input[aria-label=Value]')`)
	lies := eval[string](b, drawingLies)
	require.NoError(t, p.cmd.Process.Signal(syscall.SIGSTOP))
	defer func() { _ = p.cmd.Process.Signal(syscall.SIGCONT) }()
	b.click(field("Value"))
	b.key("a", ctrl)
	b.typing("6k8")
	b.key(enter)
	b.there("status", "on its way …")
	assert.Equal(t, "6k8", b.value("Value"), "what was typed stays in its field")
	b.there("alert", "The program has not answered*")
	assert.Equal(t, lies, eval[string](b, drawingLies), "the drawing lies where it lay")
	b.look("silent")
	b.drag(135, 137.5, 145, 140)
	assert.Contains(t, b.text("[role=alert]"), "2 edits are on the way")
	require.NoError(t, p.cmd.Process.Signal(syscall.SIGCONT))
	b.kept()
	b.gone("alert", "*")
	b.there("status", "kept*")
	assert.Equal(t, []any{"6k8", 145e6}, eval[[]any](b, `(()=>{const r=goldenTrace.all('part').find(p=>p.designator==='R1');return [r.value,r.at.x]})()`))
	b.do(chromedp.Reload())
	b.until(`window.goldenTrace?.state.value === 'open'`)
	assert.Equal(t, "6k8", eval[string](b, `goldenTrace.all('part').find(p=>p.designator==='R1').value`))
}

// theirs asks whether something on the canvases has exactly the colour of what others picked.
func theirs(colour string) string {
	return fmt.Sprintf(`[...document.querySelectorAll('canvas')].some(c => {
		const want = parseInt(%q.slice(1), 16), d = c.getContext('2d').getImageData(0, 0, c.width, c.height).data
		for (let i = 0; i < d.length; i += 4) if ((d[i] << 16 | d[i + 1] << 8 | d[i + 2]) === want && d[i + 3] === 255) return true
		return false
	})`, colour)
}
