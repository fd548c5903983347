package e2e

import (
	"bytes"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"goldentrace/core/design"
	"goldentrace/core/synthetic"
)

// shapes opens a board of four layers with arcs, slots, cut corners and a blind via.
func shapes(t *testing.T) (*program, *tab) {
	t.Helper()
	d, err := synthetic.Shaped()
	require.NoError(t, err)
	var file bytes.Buffer
	require.NoError(t, design.WriteFile(&file, "Reed Amplifier", d))
	p := start(t, "serve", t.TempDir())
	code, body := p.api("POST", "/import", &file)
	require.Equal(t, 201, code, string(body))
	b := p.open(t, browser(t), "/")
	p.openStage(t, b, "Reed Amplifier", "board")
	return p, b
}

func (b *tab) glimpse(name string) { // a throwaway picture, when one is looked for
	if dir := os.Getenv("GOLDENTRACE_GLIMPSE"); dir != "" {
		time.Sleep(400 * time.Millisecond)
		b.shot(dir + "/" + name + ".png")
	}
}

// Layers are told apart by what they are, not by where they lie: more of them come in and go, copper
// stays on its own; one with copper does not go.
func TestLayersComeAndGo(t *testing.T) {
	_, b := shapes(t)
	b.glimpse("shapes")
	names := `[...document.querySelectorAll('[aria-label="Layer ladder"] [aria-pressed]')].map(x => x.innerText).join()`
	b.until(names + ` === 'Top,Inner 1,Inner 2,Bottom'`)
	inner := eval[string](b, `JSON.stringify(goldenTrace.all('track').map(t => [t.id, goldenTrace.board.stack.find(l => l.id === t.layer).name]))`)
	field := `[aria-label="Copper layers"] input, input[aria-label="Copper layers"]`
	set := func(n string) {
		b.click(field)
		b.key("a", ctrl)
		b.typing(n + "\r")
	}
	set("6")
	b.until(names + ` === 'Top,Inner 1,Inner 2,Inner 3,Inner 4,Bottom'`)
	b.glimpse("six")
	assert.Equal(t, inner, eval[string](b, `JSON.stringify(goldenTrace.all('track').map(t => [t.id, goldenTrace.board.stack.find(l => l.id === t.layer).name]))`))
	b.click(`canvas`)
	b.key("6")
	b.until(seen("button", "Bottom") + `.getAttribute('aria-pressed') === 'true'`)
	b.key("3")
	b.until(seen("button", "Inner 2") + `.getAttribute('aria-pressed') === 'true'`)
	b.key("z", ctrl)
	b.until(names + ` === 'Top,Inner 1,Inner 2,Bottom'`)
	b.key(escape)
	b.key(escape)
	set("32")
	b.until(`goldenTrace.board.stack.filter(l => l.kind === 'copper').length === 32`)
	b.until(seen("button", "Inner 30"))
	b.glimpse("thirtytwo")
	set("2")
	b.sees("The layer Inner 1 holds 1 track, 1 end of a via")
	set("4")
	b.until(names + ` === 'Top,Inner 1,Inner 2,Bottom'`)
}

// What is picked says which rules hold for it, and which they beat; two things say it of each other.
func TestWhyARuleHolds(t *testing.T) {
	_, b := shapes(t)
	b.point(10, 9) // the track of VIN
	b.press("Why? *")
	b.sees("Between anything of nets VIN and anything: clearance 0.4 mm.")
	b.sees("instead of: Everywhere: clearance 0.2 mm.")
	b.glimpse("why")
	b.key(escape)
	b.point(34.55, 9.5)
	b.sees("Blind: Top to Inner 1")
	b.glimpse("via")
	b.key("a", ctrl) // a part by itself is asked about its pads
	b.key(escape)
	b.point(36, 20) // R1
	b.press("Why? *")
	b.sees("Paste margin")
}
